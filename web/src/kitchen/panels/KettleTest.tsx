/** What a burner gives, from a kettle: so much water, from so cold, boiling after so long. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../../api/client";
import { limit } from "../../api/limits";
import { VolumeField } from "../../ui/AmountField";
import { ErrorNotice } from "../../ui/ErrorNotice";
import { NumberField } from "../../ui/NumberField";
import { PickRow, Row } from "../../ui/Row";
import { TemperatureField } from "../../ui/TemperatureField";
import { said } from "../../words/said";
import type { PanelProps } from "../things";

const LEVELS = [
  ["low", t`low`],
  ["medium-low", t`medium-low`],
  ["medium", t`medium`],
  ["medium-high", t`medium-high`],
  ["high", t`high`],
] as const;
type Level = (typeof LEVELS)[number][0];

export function KettleTest({ kitchen, set }: PanelProps) {
  const [level, setLevel] = useState<Level>("high");
  const [water, setWater] = useState(1000);
  const [start, setStart] = useState(15);
  const [minutes, setMinutes] = useState(6);
  const [seconds, setSeconds] = useState(20);
  const [kept, setKept] = useState("");
  const test = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/kitchen/kettle", {
          body: { water_ml: water, start_c: start, seconds: minutes * 60 + seconds },
        }),
      ),
    onMutate: () => setKept(""),
  });
  const keep = (watts: number) => {
    // Timed once, it is known to a twentieth, whatever the level.
    const known = { value: 1, low: 0.95, high: 1.06 };
    set({
      burner: { ...kitchen.burner, [`${level.replace("-", "_")}_w`]: watts },
      estimates: { ...kitchen.estimates, burner: known },
    });
    setKept(t`Kept as the burner at ${said(level)}.`);
  };
  return (
    <details className="mt-2" open>
      <summary className="min-h-9 cursor-pointer text-bean">
        <Trans>Test a burner with a kettle</Trans>
      </summary>
      <p className="text-ink2">
        <Trans>
          Weigh cold water into a pot that is not much larger, lid on. Time it from the flame to the full boil.
        </Trans>
      </p>
      <Row label={t`Water`}>
        <VolumeField
          label={t`Water in the kettle`}
          hideLabel
          value={water}
          within={limit("KettleTest.water_ml")}
          onChange={setWater}
        />
      </Row>
      <Row label={t`From`}>
        <TemperatureField
          label={t`Water from`}
          celsius={start}
          within={limit("KettleTest.start_c")}
          onChange={setStart}
        />
      </Row>
      <Row label={t`It boiled after`}>
        <span className="inline-flex gap-2">
          <NumberField
            label={t`Minutes`}
            hideLabel
            value={minutes}
            unit="min"
            within={{ min: 0, max: 59 }}
            decimals={0}
            onChange={setMinutes}
            width="3rem"
          />
          <NumberField
            label={t`Seconds`}
            hideLabel
            value={seconds}
            unit="s"
            within={{ min: 0, max: 59 }}
            decimals={0}
            onChange={setSeconds}
            width="3rem"
          />
        </span>
      </Row>
      <PickRow label={t`Burner set to`} value={level} options={LEVELS} onChange={setLevel} />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <button type="button" className="pick" disabled={test.isPending} onClick={() => test.mutate()}>
          <Trans>Work it out</Trans>
        </button>
        {test.data && (
          <>
            <span role="status">{test.data.says}</span>
            <button type="button" className="pick" data-on="true" onClick={() => keep(test.data.net_w)}>
              <Trans>Keep {test.data.net_w.toFixed(0)} W</Trans>
            </button>
          </>
        )}
        {kept && (
          <span role="status" className="text-green">
            {kept}
          </span>
        )}
      </div>
      <ErrorNotice error={test.error} />
    </details>
  );
}

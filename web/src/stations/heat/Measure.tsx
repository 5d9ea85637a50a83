/** One number that is read there and then, kept as what this kitchen knows. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { api, ask, type KitchenSettings, type Sensitivity, type Sheet } from "../../api/client";
import { limit } from "../../api/limits";
import { kitchenQuery } from "../../api/queries";
import { useKitchenSave } from "../../sheet/useKitchenSave";
import { VolumeField } from "../../ui/AmountField";
import { ErrorNotice } from "../../ui/ErrorNotice";
import { useFormatters } from "../../ui/formatters";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { TemperatureField } from "../../ui/TemperatureField";

type Own = KitchenSettings["estimates"];

export interface MeasureProps {
  hang: Sensitivity;
  sheet: Sheet;
  batterC: number;
  depthMm: number;
  onSheet: (sheet: Sheet) => void;
  onDone: () => void;
}

interface FormProps extends MeasureProps {
  keep: (own: Own) => void;
}

/** By what narrows it: how it is measured. What is not here is done elsewhere (a kettle, the log, the scale). */
const FORMS: Partial<Record<NonNullable<Sensitivity["narrows"]>, (props: FormProps) => ReactNode>> = {
  oven: Oven,
  "oven-tin": OvenTin,
  steam: InSteam,
  depth: Depth,
  warmth: Warmth,
  taste: Taste,
  manner: Taste,
};

export const isMeasuredHere = (hang: Sensitivity) => hang.narrows != null && hang.narrows in FORMS;

export function Measure(props: MeasureProps) {
  const kitchen = useQuery(kitchenQuery).data?.kitchen;
  const { save, error } = useKitchenSave();
  const Form = props.hang.narrows && FORMS[props.hang.narrows];
  if (!kitchen || !Form) return null;
  const keep = (own: Own) => {
    save(kitchen, { ...kitchen, estimates: { ...kitchen.estimates, ...own } });
    props.onDone();
  };
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-3 border-amber border-l-4 pl-3">
      <Form {...props} keep={keep} />
      {error && <span className="text-look">{error.message}</span>}
    </div>
  );
}

function Oven({ sheet, keep }: FormProps) {
  const { celsius, degrees, degreesUnit } = useFormatters();
  const dial = sheet.heat.oven_c;
  const [oven, setOven] = useState(dial);
  return (
    <>
      <NumberField
        label={t`The thermometer shows, with the dial at ${degrees(dial)} ${degreesUnit()}`}
        value={Number(degrees(oven))}
        unit={degreesUnit()}
        decimals={0}
        within={{ min: Number(degrees(dial - 80)), max: Number(degrees(dial + 80)) }}
        onChange={(typed) => setOven(celsius(typed))}
      />
      <LinkButton onClick={() => keep({ oven_c: { value: oven - dial, low: oven - dial - 3, high: oven - dial + 3 } })}>
        <Trans>keep</Trans>
      </LinkButton>
    </>
  );
}

function Depth({ depthMm, keep }: FormProps) {
  const { lengthFigure, lengthUnit, millimetres } = useFormatters();
  const [stick, setStick] = useState(Math.round(depthMm));
  return (
    <>
      <NumberField
        label={t`The stick is wet for`}
        value={Number(lengthFigure(stick, 0))}
        unit={lengthUnit()}
        decimals={lengthUnit() === "in" ? 2 : 0}
        within={{ min: Number(lengthFigure(depthMm * 0.5)), max: Number(lengthFigure(depthMm * 2)) }}
        onChange={(typed) => setStick(millimetres(typed))}
      />
      <LinkButton
        onClick={() => {
          const is = stick / Math.max(1, depthMm);
          keep({ depth: { value: is, low: is * 0.98, high: is * 1.02 } });
        }}
      >
        <Trans>keep</Trans>
      </LinkButton>
    </>
  );
}

function Warmth({ sheet, batterC, onSheet, keep }: FormProps) {
  const { celsius, degrees, degreesUnit } = useFormatters();
  const [warm, setWarm] = useState(batterC);
  return (
    <>
      <NumberField
        label={t`It goes in at`}
        value={Number(degrees(warm))}
        unit={degreesUnit()}
        decimals={0}
        within={{ min: Number(degrees(1)), max: Number(degrees(90)) }}
        onChange={(typed) => setWarm(celsius(typed))}
      />
      <LinkButton
        onClick={() => {
          onSheet({ ...sheet, start: { ...sheet.start, batter_c: warm } });
          keep({ start_c: { value: 0, low: -1, high: 1 } });
        }}
      >
        <Trans>keep</Trans>
      </LinkButton>
    </>
  );
}

/** What is called done is partly a matter of taste: whoever says which knows more than the table. */
function Taste({ hang, keep }: FormProps) {
  return (
    <>
      {hang.tastes.map(({ words, value, low, high }) => (
        <LinkButton key={words} onClick={() => keep({ [hang.id]: { value, low, high } })}>
          {words}
        </LinkButton>
      ))}
    </>
  );
}

type Known = { estimate: keyof Own; value: number; low: number; high: number; says: string };

/** What a measurement comes to, worked out and told before it is kept. */
function Told({ test, keep }: { test: () => Promise<Known>; keep: (own: Own) => void }) {
  const asked = useMutation({ mutationFn: test });
  const known = asked.data;
  return (
    <>
      <LinkButton onClick={() => asked.mutate()}>
        <Trans>what it tells</Trans>
      </LinkButton>
      {known && (
        <span role="status">
          {known.says}{" "}
          <LinkButton
            onClick={() => keep({ [known.estimate]: { value: known.value, low: known.low, high: known.high } })}
          >
            <Trans>keep</Trans>
          </LinkButton>
        </span>
      )}
      <ErrorNotice error={asked.error} />
    </>
  );
}

function OvenTin({ sheet, keep }: FormProps) {
  const { lengthFigure, lengthUnit, millimetres } = useFormatters();
  const [water, setWater] = useState(1000);
  const [across, setAcross] = useState(200);
  const [start, setStart] = useState(20);
  const [end, setEnd] = useState(58);
  const [minutes, setMinutes] = useState(10);
  const body = {
    water_ml: water,
    across_mm: across,
    start_c: start,
    end_c: end,
    oven_c: sheet.heat.oven_c,
    minutes,
  };
  const inches = lengthUnit() === "in";
  return (
    <>
      <p className="basis-full text-ink2">
        <Trans>A round metal tin of water, foil over it, in the hot oven. Gloves: take it out level, stir, read.</Trans>
      </p>
      <VolumeField
        label={t`Water`}
        value={water}
        decimals={0}
        within={limit("OvenTest.water_ml")}
        onChange={setWater}
      />
      <NumberField
        label={t`Tin across`}
        value={Number(lengthFigure(across, 0))}
        unit={lengthUnit()}
        decimals={inches ? 1 : 0}
        within={{ min: Number(lengthFigure(80)), max: Number(lengthFigure(400)) }}
        onChange={(typed) => setAcross(millimetres(typed))}
      />
      <span>
        <Trans>
          from{" "}
          <TemperatureField
            label={t`Water from`}
            celsius={start}
            within={limit("OvenTest.start_c")}
            onChange={setStart}
          />
        </Trans>
      </span>
      <span>
        <Trans>
          to <TemperatureField label={t`Water to`} celsius={end} within={limit("OvenTest.end_c")} onChange={setEnd} />
        </Trans>
      </span>
      <NumberField
        label={t`in`}
        value={minutes}
        unit="min"
        decimals={1}
        within={limit("OvenTest.minutes")}
        onChange={setMinutes}
      />
      <Told test={() => ask(api.POST("/api/kitchen/oven", { body }))} keep={keep} />
    </>
  );
}

function InSteam({ sheet, keep }: FormProps) {
  const [steam, setSteam] = useState(96);
  const body = { steam_c: steam, level: sheet.heat.level };
  return (
    <>
      <p className="basis-full text-ink2">
        <Trans>
          The steamer empty, lid on, at {sheet.heat.level} heat. The probe through the rim, over the rack, until it
          stands still.
        </Trans>
      </p>
      <span>
        <Trans>
          It shows{" "}
          <TemperatureField
            label={t`The steam shows`}
            celsius={steam}
            within={limit("SteamTest.steam_c")}
            onChange={setSteam}
          />
        </Trans>
      </span>
      <Told test={() => ask(api.POST("/api/kitchen/steam", { body }))} keep={keep} />
    </>
  );
}

/** A thermometer in the heart: the curve as it was told, what was read, and the rest told anew. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";
import type { ProbeLive, RunOpen, StepResult, StepState } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Axis, Label } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";
import { Doubt } from "./DoubtedReading";
import { doubtOf } from "./doubtedReading";
import { useProbe } from "./useProbe";

interface Props {
  run: RunOpen;
  step: StepResult;
  standing: StepState;
  /** The kitchen has heard all that was done here: before that it may know of nothing in the heat. */
  told: boolean;
  open: boolean;
  onOpen: (open: boolean) => void;
  onRead: (celsius: number, sure: boolean) => void;
}

export function Probe(props: Props) {
  const { run, standing, open, onOpen } = props;
  if (!run.core) return null;
  return (
    <section aria-label={t`Thermometer`}>
      {standing.refit && (
        <p role="status" className="text-xl font-bold text-green">
          {standing.refit.says}
        </p>
      )}
      {open ? (
        <>
          <Told core={run.core} standing={standing} />
          <Reading {...props} />
        </>
      ) : (
        <button type="button" className="pick mt-2 min-h-16 px-6" onClick={() => onOpen(true)}>
          <Trans>Thermometer in the heart</Trans>
        </button>
      )}
    </section>
  );
}

/** What it shows now, large, and the press that notes it; or a reading to type. */
function Reading({ run, step, standing, told, onRead, onOpen }: Props) {
  const { celsius, degrees, degreesUnit } = useFormatters();
  const live = useProbe(run.id, standing.id, told, run.probe);
  const [typed, setTyped] = useState("");
  const [doubted, setDoubted] = useState<number | null>(null);
  const note = (reading: number, sure = false) => {
    if (!sure && doubtOf(step.bounds, { celsius: reading })) {
      setDoubted(reading);
      return;
    }
    setDoubted(null);
    setTyped("");
    onRead(reading, sure);
  };
  const value = Number(typed.replace(",", "."));
  const read = celsius(value);
  const good = typed.trim() !== "" && Number.isFinite(value) && read >= -60 && read <= 400;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
      {run.probe !== "none" ? (
        <>
          <Shown live={live} simulated={run.probe === "simulated"} />
          <button
            type="button"
            className="pick min-h-16 px-6 text-lg"
            data-on="true"
            disabled={live.state !== "ok"}
            onClick={() => note(live.celsius)}
          >
            <Trans>Note it</Trans>
          </button>
        </>
      ) : (
        <p className="w-full text-ink2">
          <Trans>No thermometer is attached: type what yours shows. How one is attached stands in docs/probe.md.</Trans>
        </p>
      )}
      <form
        className="flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (good) note(read);
        }}
      >
        <label>
          <span className="block text-ink2">{run.probe !== "none" ? t`or by another one` : t`it shows`}</span>
          <input
            aria-label={t`It reads`}
            className="write h-16 w-24 text-right text-2xl"
            inputMode="decimal"
            value={typed}
            aria-invalid={typed !== "" && !good}
            onChange={(event) => setTyped(event.target.value)}
          />{" "}
          {degreesUnit()}
        </label>
        <button type="submit" className="pick min-h-16 px-6" disabled={!good}>
          <Trans>Note this one</Trans>
        </button>
      </form>
      {typed !== "" && !good && (
        <span className="text-bean">
          <Trans>
            A temperature from {degrees(-60)} to {degrees(400)} {degreesUnit()}.
          </Trans>
        </span>
      )}
      {doubted !== null && (
        <Doubt
          says={doubtOf(step.bounds, { celsius: doubted })}
          onSure={() => note(doubted, true)}
          onAgain={() => setDoubted(null)}
        />
      )}
      <button type="button" className="pick min-h-16 px-6" onClick={() => onOpen(false)}>
        <Trans>Take it out</Trans>
      </button>
    </div>
  );
}

function Shown({ live, simulated }: { live: ProbeLive; simulated: boolean }) {
  const { degrees, degreesUnit } = useFormatters();
  return (
    <p aria-live="off">
      <span className="block text-ink2">{simulated ? t`simulated thermometer` : live.name || t`thermometer`}</span>
      {live.state === "ok" ? (
        <b className="text-[44px] leading-none">
          {degrees(live.celsius, 1)} {degreesUnit()}
        </b>
      ) : (
        <span className="text-look">{live.says || t`listening`}</span>
      )}
    </p>
  );
}

const W = 560;
const H = 190;
const PAD = { left: 44, right: 14, top: 26, bottom: 34 };

/** The heart as it was told, thin; what was read, as dots; the rest as it is told now, bold. */
export function Told({ core, standing }: { core: NonNullable<RunOpen["core"]>; standing: StepState }) {
  const { axisMarks } = useFormatters();
  const { refit, probed } = standing;
  if (!refit) return null;
  const before = refit.was_done - core.done;
  const [done, latest] = [refit.done - before, refit.latest - before];
  const { minutes, core_c } = core.curve;
  const end = Math.max(latest, core.latest, ...probed.map((item) => item.minute)) * 1.08;
  const x = scaleLinear()
    .domain([0, end])
    .range([PAD.left, W - PAD.right]);
  const y = scaleLinear()
    .domain([Math.min(0, ...core_c), 104])
    .range([H - PAD.bottom, PAD.top]);
  const points = minutes.map((minute, i) => [minute, core_c[i] ?? 0] as [number, number]);
  const path = (by: number) =>
    line<[number, number]>()
      .x(([minute]) => x(minute * by))
      .y(([, t]) => y(t))(points.filter(([minute]) => minute * by <= end)) ?? "";
  return (
    <Drawing
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full max-w-[620px]"
      role="img"
      aria-label={t`Told done at ${core.done.toFixed(0)} minutes, now at ${done.toFixed(0)}`}
    >
      <rect
        x={x(refit.first - before)}
        y={PAD.top}
        width={Math.max(2, x(latest) - x(refit.first - before))}
        height={H - PAD.top - PAD.bottom}
        fill="var(--color-green)"
        opacity="0.15"
      />
      <path d={path(1)} fill="none" stroke="var(--color-ink2)" strokeDasharray="3 4" strokeWidth="1.5" />
      <path d={path(refit.factor)} fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      <line x1={x(done)} x2={x(done)} y1={PAD.top} y2={H - PAD.bottom} stroke="var(--color-green)" strokeWidth="2.4" />
      <Label x={x(done)} y={18} anchor="middle" size={16} bold tone="green">
        {done.toFixed(0)}
      </Label>
      {probed.map((item) => (
        <circle
          key={`${item.minute} ${item.celsius}`}
          cx={x(item.minute)}
          cy={y(item.celsius)}
          r="5"
          fill="var(--color-bean)"
          stroke="var(--color-sheet)"
        />
      ))}
      <Axis
        along="bottom"
        from={PAD.left}
        to={W - PAD.right}
        cross={H - PAD.bottom}
        ticks={x.ticks(6).map((t) => ({ at: x(t), text: `${t}` }))}
      />
      {axisMarks(y.domain(), 3, "°C").map(({ value, text }) => (
        <Label key={value} x={PAD.left - 8} y={y(value) + 5} anchor="end" size={13}>
          {text}°
        </Label>
      ))}
    </Drawing>
  );
}

/** Core and surface over time, the gel line, and first check, done and latest as a window. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { FactKey, Facts, HeatDrawing, SteamerDrawing, TemperatureCurve, WorkResult } from "../../api/client";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Axis, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { useFormatters } from "../../ui/formatters";
import { kindOf } from "./kinds";
import { WaterFall } from "./WaterFall";

const MOST_WIDE = 720;
const H = 424;
const WATER = 138; // of height, for the water under the rack
const PAD = { left: 56, right: 20, top: 80, bottom: 58 };

interface Props {
  drawing: HeatDrawing;
  curve: TemperatureCurve;
  facts: Facts;
  checks: WorkResult["checks"];
  /** Of the way's own heat; none or one when it is all the way alike. */
  stages: WorkResult["stages"];
  /** Minutes since it went in, told along the curve. */
  at: number;
}

/** The last minute that the drawing shows. */
export const lastMinute = (curve: TemperatureCurve, facts: Facts) =>
  Math.max(curve.minutes.at(-1) ?? 1, Number(facts["heat.latest_min"]?.value ?? 0) * 1.08);

/** The steamer of a heat that has one. */
export const steamerOf = (drawing: HeatDrawing): SteamerDrawing | null =>
  "steamer" in drawing ? (drawing.steamer ?? null) : null;

export function HeatCurve({ drawing, curve, facts, checks, stages, at }: Props) {
  const { axisMarks, degrees, degreesUnit } = useFormatters();
  const [box, W] = useRoom<HTMLElement>(MOST_WIDE);
  const { minutes, core_c, surface_c } = curve;
  const value = (key: FactKey) => Number(facts[key]?.value ?? 0);
  const first = value("heat.first_check_min");
  const done = value("heat.done_min");
  const latest = value("heat.latest_min");
  const gel = value("mix.gel_temperature_c");
  const end = lastMinute(curve, facts);
  const steamer = steamerOf(drawing);
  const coldest = Math.min(...core_c);
  const low = coldest < 0 ? -20 : coldest < 18 ? 0 : 20;
  const x = scaleLinear()
    .domain([0, end])
    .range([PAD.left, W - PAD.right]);
  const y = scaleLinear()
    .domain([low, Math.max(104, Math.max(...surface_c) + 4)])
    .range([H - PAD.bottom, PAD.top]);
  const marksOfY = axisMarks(y.domain(), 5, "°C");
  const path = (values: number[]) =>
    line<number>()
      .x((_, i) => x(minutes[i] ?? 0))
      .y((t) => y(t))(values) ?? "";
  const mid = minutes.findIndex((m) => m > end * (W < 480 && drawing.kind === "wrapped" ? 0.66 : 0.45));
  const outside = drawing.kind === "wrapped" ? Math.floor(minutes.length * 0.22) : 3;
  const floats = facts["heat.float_min"] ? value("heat.float_min") : null;
  const hot = value("heat.core_hot_min") > 0.5 ? value("heat.core_hot_min") : null;
  const gelAt = beside(hot == null ? null : { x: x(hot), y: y(along(minutes, core_c, hot)) }, y(gel), W);
  const sets = facts["heat.set_min"] ? value("heat.set_min") : null;
  const heads = [
    { at: first, words: t`first check`, key: "heat.first_check_min" },
    { at: done, words: t`done`, key: "heat.done_min" },
    { at: latest, words: t`latest`, key: "heat.latest_min" },
  ];
  const places = apart(
    heads.map((head) => x(head.at)),
    HEAD_WIDTHS,
    W,
  );
  const marks = heads.map((head, i) => ({ ...head, place: places[i] ?? x(head.at) }));
  return (
    <figure ref={box} className="m-0">
      <Drawing
        viewBox={`0 0 ${W} ${H + (steamer ? WATER : 0)}`}
        className="block w-full"
        role="img"
        aria-label={t`First check at ${first.toFixed(0)} minutes, done at ${done.toFixed(0)}, latest ${latest.toFixed(0)}`}
      >
        <rect
          x={x(first)}
          y={PAD.top - 14}
          width={x(latest) - x(first)}
          height={H - PAD.bottom - PAD.top + 14}
          fill="var(--color-green)"
          opacity="0.13"
        />
        {marksOfY.map(({ value }) => (
          <line
            key={value}
            x1={PAD.left}
            x2={W - PAD.right}
            y1={y(value)}
            y2={y(value)}
            stroke="var(--color-hair)"
            strokeWidth="0.8"
          />
        ))}
        <Axis
          along="bottom"
          from={PAD.left}
          to={W - PAD.right}
          cross={H - PAD.bottom}
          ticks={x.ticks(7).map((t) => ({ at: x(t), text: `${t}` }))}
        />
        {marksOfY.map(({ value, text }) => (
          <Label key={value} x={PAD.left - 10} y={y(value) + 5} anchor="end" size={14}>
            {text}°
          </Label>
        ))}
        <Label x={W - PAD.right} y={H - 6} anchor="end" size={14} tone="ink2">
          <Trans>minutes</Trans>
        </Label>
        {stages.slice(1).map((stage) => (
          <g key={stage.starts_min}>
            <line
              x1={x(stage.starts_min)}
              x2={x(stage.starts_min)}
              y1={PAD.top + 40}
              y2={H - PAD.bottom}
              stroke="var(--color-ink)"
              strokeDasharray="1 4"
            />
            <Label x={x(stage.starts_min) + 5} y={H - PAD.bottom - 8} size={13.5} tone="ink2" halo>
              {stage.name}
            </Label>
          </g>
        ))}
        {marks.map((mark) => (
          <g key={mark.key} data-of={mark.key}>
            <line
              x1={x(mark.at)}
              x2={x(mark.at)}
              y1={PAD.top - 14}
              y2={H - PAD.bottom}
              stroke="var(--color-green)"
              strokeWidth={mark.words === "done" ? 2.4 : 1.2}
            />
            <Label x={mark.place} y={PAD.top - 52} anchor="middle" size={14.5} tone="ink2">
              {mark.words}
            </Label>
            <Label x={mark.place} y={PAD.top - 22} anchor="middle" size={24} bold tone="green">
              {mark.at.toFixed(0)}
            </Label>
          </g>
        ))}
        <line
          x1={PAD.left}
          x2={W - PAD.right}
          y1={y(gel)}
          y2={y(gel)}
          stroke="var(--color-bean)"
          strokeDasharray="7 5"
          strokeWidth="1.3"
          data-of="mix.gel_temperature_c"
        />
        <Label x={gelAt.x} y={gelAt.y} anchor={gelAt.anchor} size={14.5} tone="bean" halo of="mix.gel_temperature_c">
          <Trans>
            gels here: {degrees(gel)} {degreesUnit()}
          </Trans>
        </Label>
        <path d={path(surface_c)} fill="none" stroke="var(--color-ink2)" strokeDasharray="3 4" strokeWidth="1.6" />
        <path d={path(core_c)} fill="none" stroke="var(--color-ink)" strokeWidth="2.8" />
        <Label x={x(minutes[mid] ?? 0) + 14} y={y(core_c[mid] ?? 0) + 22} bold halo>
          {kindOf(drawing).core}
        </Label>
        <Label
          x={x(minutes[outside] ?? 0) + 8}
          y={y(surface_c[outside] ?? 0) + kindOf(drawing).below}
          size={14}
          tone="ink2"
          halo
        >
          {kindOf(drawing).outside}
        </Label>
        {checks.map((check) => (
          <path
            key={check.minute}
            d={`M${x(check.minute)} ${H - PAD.bottom}l-5 -9h10z`}
            fill="var(--color-green)"
            stroke="var(--color-sheet)"
          />
        ))}
        <line
          x1={x(at)}
          x2={x(at)}
          y1={PAD.top - 6}
          y2={H - PAD.bottom}
          stroke="var(--color-ink)"
          strokeDasharray="2 3"
        />
        <circle cx={x(at)} cy={y(along(minutes, core_c, at))} r="5" fill="var(--color-ink)" />
        {steamer && <WaterFall steamer={steamer} x={x} top={H + 26} bottom={H + WATER - 12} at={at} />}
        {floats != null && (
          <g data-of="heat.float_min">
            <line
              x1={x(floats)}
              x2={x(floats)}
              y1={PAD.top + 6}
              y2={H - PAD.bottom}
              stroke="var(--color-look)"
              strokeDasharray="2 4"
              strokeWidth="1.6"
            />
            <Label x={x(floats) + 8} y={H - PAD.bottom - 14} size={15} tone="look" halo>
              <Trans>floats at {floats.toFixed(0)}</Trans>
            </Label>
          </g>
        )}
        {sets != null && (
          <g data-of="heat.set_min">
            <path
              d={`M${x(sets)} ${y(along(minutes, core_c, sets)) - 7}l7 7l-7 7l-7 -7z`}
              fill="var(--color-sheet)"
              stroke="var(--color-ink)"
              strokeWidth="1.6"
            />
            <Label x={x(sets) - 10} y={y(along(minutes, core_c, sets)) - 12} size={15} anchor="end" halo>
              <Trans>set through at {sets.toFixed(0)}</Trans>
            </Label>
          </g>
        )}
        {hot != null && (
          <g data-of="heat.core_hot_min">
            <circle cx={x(hot)} cy={y(along(minutes, core_c, hot))} r="5" fill="var(--color-bean)" />
            <Label x={x(hot) + 12} y={y(along(minutes, core_c, hot)) + 20} size={15} anchor="start" tone="bean" halo>
              <Trans>heart hot at {hot.toFixed(0)}</Trans>
            </Label>
          </g>
        )}
      </Drawing>
      <figcaption className="pl-[8%] text-sm text-ink2">
        <Trans>
          <FactFigure facts={facts} name="heat.done_min">
            Done means: {facts["heat.done_min"]?.because.says}
          </FactFigure>
          . An estimate from size and dough, no safety validation; your own stove decides, so look at the first check.
        </Trans>
      </figcaption>
    </figure>
  );
}

const WORDS = 150; // of the words on the gel line, and on the point where the heart is hot

/** Where the words of the gel line stand: on the right, or wherever those of a point near it leave room. */
function beside(hot: { x: number; y: number } | null, gel: number, room: number) {
  const right = { x: room - PAD.right, y: gel + 18, anchor: "end" as const };
  if (hot == null || Math.abs(hot.y + 2 - gel) > 24 || hot.x + WORDS < right.x - WORDS) return right;
  if (hot.x > PAD.left + WORDS) return { x: PAD.left + 4, y: gel + 18, anchor: "start" as const };
  return { ...right, y: Math.max(gel, hot.y) + 42 };
}

const HEAD_WIDTHS = [84, 46, 50]; // of the words over the window, with a gap

/** Where things of some width stand in a row: as near as can be to where they belong, in order, none over another. */
function apart(wanted: number[], widths: number[], room: number): number[] {
  const result = [...wanted];
  const gap = (i: number) => ((widths[i] ?? 0) + (widths[i + 1] ?? 0)) / 2;
  const last = result.length - 1;
  result[last] = Math.min(result[last] ?? 0, room - (widths[last] ?? 0) / 2);
  for (let i = last - 1; i >= 0; i--) result[i] = Math.min(result[i] ?? 0, (result[i + 1] ?? 0) - gap(i));
  result[0] = Math.max(result[0] ?? 0, (widths[0] ?? 0) / 2);
  for (let i = 1; i <= last; i++) result[i] = Math.max(result[i] ?? 0, (result[i - 1] ?? 0) + gap(i - 1));
  return result;
}

/** A curve's value at a minute, by a straight line between its points. */
export function along(minutes: number[], values: number[], at: number): number {
  const after = minutes.findIndex((minute) => minute >= at);
  if (after < 0) return values.at(-1) ?? 0;
  if (after === 0) return values[0] ?? 0;
  const [m0, m1] = [minutes[after - 1] ?? 0, minutes[after] ?? 0];
  const [v0, v1] = [values[after - 1] ?? 0, values[after] ?? 0];
  return m1 === m0 ? v1 : v0 + ((v1 - v0) * (at - m0)) / (m1 - m0);
}

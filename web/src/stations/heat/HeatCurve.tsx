/** Core and surface over time, the gel line, and first check, done and latest as a window. */

import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { BakeDrawing, BoilDrawing, Facts, SteamDrawing, StirredDrawing, WrappedDrawing } from "../../api/client";
import { Axis, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { degrees, degreesUnit } from "../../ui/words";

/** What the dotted line is the temperature of. */
const OUTSIDE = { steam: "top", boil: "skin", bake: "top", wrapped: "under the leaf", stirred: "" };
const W = 720;
const H = 450;
const PAD = { left: 56, right: 20, top: 74, bottom: 44 };

export function HeatCurve({
  drawing,
  facts,
}: {
  drawing: SteamDrawing | BoilDrawing | BakeDrawing | WrappedDrawing | StirredDrawing;
  facts: Facts;
}) {
  const { minutes, heart_c, surface_c } = drawing.curve;
  const value = (key: string) => Number(facts[key]?.value ?? 0);
  const first = value("heat.first_check_min");
  const done = value("heat.done_min");
  const latest = value("heat.latest_min");
  const gel = value("mix.gel_temperature_c");
  const end = Math.max(minutes.at(-1) ?? 1, latest * 1.08);
  const coldest = Math.min(...heart_c);
  const low = coldest < 0 ? -20 : coldest < 18 ? 0 : 20;
  const x = scaleLinear()
    .domain([0, end])
    .range([PAD.left, W - PAD.right]);
  const y = scaleLinear()
    .domain([low, Math.max(104, Math.max(...surface_c) + 4)])
    .range([H - PAD.bottom, PAD.top]);
  const path = (values: number[]) =>
    line<number>()
      .x((_, i) => x(minutes[i] ?? 0))
      .y((t) => y(t))(values) ?? "";
  const mid = minutes.findIndex((m) => m > end * 0.3);
  const outside = drawing.kind === "wrapped" ? Math.floor(minutes.length * 0.22) : 3;
  const floats = facts["heat.float_min"] ? value("heat.float_min") : null;
  const hot = facts["heat.core_hot_min"] ? value("heat.core_hot_min") : null;
  const marks = spread([
    { at: first, words: "first check", key: "heat.first_check_min" },
    { at: done, words: "done", key: "heat.done_min" },
    { at: latest, words: "latest", key: "heat.latest_min" },
  ]);
  return (
    <figure className="m-0">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full"
        role="img"
        aria-label={`First check at ${first.toFixed(0)} minutes, done at ${done.toFixed(0)}, latest ${latest.toFixed(0)}`}
      >
        <rect
          x={x(first)}
          y={PAD.top - 14}
          width={x(latest) - x(first)}
          height={H - PAD.bottom - PAD.top + 14}
          fill="var(--color-green)"
          opacity="0.13"
        />
        {y.ticks(5).map((t) => (
          <line
            key={t}
            x1={PAD.left}
            x2={W - PAD.right}
            y1={y(t)}
            y2={y(t)}
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
        {y.ticks(5).map((t) => (
          <Label key={t} x={PAD.left - 10} y={y(t) + 5} anchor="end" size={14}>
            {degrees(t)}°
          </Label>
        ))}
        <Label x={W - PAD.right} y={H - 6} anchor="end" size={14} tone="ink2">
          minutes
        </Label>
        {marks.map((mark) => (
          <g key={mark.key}>
            <line
              x1={x(mark.at)}
              x2={x(mark.at)}
              y1={PAD.top - 14}
              y2={H - PAD.bottom}
              stroke="var(--color-green)"
              strokeWidth={mark.words === "done" ? 2.4 : 1.2}
            />
            <Label x={x(mark.at) + mark.shift} y={PAD.top - 44} anchor={mark.anchor} size={14.5} tone="ink2">
              {mark.words}
            </Label>
            <Label x={x(mark.at) + mark.shift} y={PAD.top - 20} anchor={mark.anchor} size={24} bold tone="green">
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
        />
        <Label x={W - PAD.right} y={y(gel) + 18} anchor="end" size={14.5} tone="bean" halo>
          gels here: {degrees(gel)} {degreesUnit()}
        </Label>
        <path d={path(surface_c)} fill="none" stroke="var(--color-ink2)" strokeDasharray="3 4" strokeWidth="1.6" />
        <path d={path(heart_c)} fill="none" stroke="var(--color-ink)" strokeWidth="2.8" />
        <Label x={x(minutes[mid] ?? 0) + 14} y={y(heart_c[mid] ?? 0) + 22} bold halo>
          {drawing.kind === "stirred" ? "the mass" : "heart"}
        </Label>
        <Label
          x={x(minutes[outside] ?? 0) + 8}
          y={y(surface_c[outside] ?? 0) + (drawing.kind === "boil" ? 34 : drawing.kind === "wrapped" ? -10 : 18)}
          size={14}
          tone="ink2"
          halo
        >
          {OUTSIDE[drawing.kind]}
        </Label>
        {floats != null && (
          <g>
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
              floats at {floats.toFixed(0)}
            </Label>
          </g>
        )}
        {hot != null && (
          <g>
            <circle cx={x(hot)} cy={y(72)} r="5" fill="var(--color-bean)" />
            <Label
              x={x(hot) + (x(hot) < PAD.left + 140 ? 12 : -10)}
              y={y(72) + (x(hot) < PAD.left + 140 ? 20 : -10)}
              size={15}
              anchor={x(hot) < PAD.left + 140 ? "start" : "end"}
              tone="bean"
              halo
            >
              heart hot at {hot.toFixed(0)}
            </Label>
          </g>
        )}
      </svg>
      <figcaption className="pl-[8%] text-sm text-ink2">
        <FactFigure facts={facts} name="heat.done_min">
          Done means: {facts["heat.done_min"]?.because.says}
        </FactFigure>
        . Worked from shape and stuff; your own stove decides, so look at the first check.
      </figcaption>
    </figure>
  );

  /** Keep the three heads apart when the window is narrow. */
  function spread(heads: { at: number; words: string; key: string }[]) {
    const near = x(latest) - x(first) < 190;
    return heads.map((head, i) => ({
      ...head,
      anchor: near ? ((["end", "middle", "start"] as const)[i] ?? "middle") : ("middle" as const),
      shift: near ? ([-14, 0, 14][i] ?? 0) : 0,
    }));
  }
}

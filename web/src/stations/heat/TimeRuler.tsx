/** A heat that is told as a range: a ruler of minutes with the window to look in. */

import { scaleLinear } from "d3-scale";
import type { Facts, TimedDrawing } from "../../api/client";
import { Axis, Dimension, Extension, Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { fill } from "../../ui/materials";
import { capital, duration } from "../../ui/words";

const W = 720;

export function TimeRuler({ drawing, facts }: { drawing: TimedDrawing; facts: Facts }) {
  const x = scaleLinear()
    .domain([0, drawing.latest * 1.15])
    .range([30, W - 30]);
  const { first_check: first, done, latest } = drawing;
  return (
    <figure className="m-0">
      <svg
        viewBox={`0 0 ${W} 250`}
        className="block w-full"
        role="img"
        aria-label={`${drawing.says}: first check ${duration(first)}, likely done ${duration(done)}, latest ${duration(latest)}`}
      >
        <rect x={x(0)} y="110" width={x(first) - x(0)} height="60" fill={fill("steam")} stroke="var(--color-ink2)" />
        <rect
          x={x(first)}
          y="110"
          width={x(latest) - x(first)}
          height="60"
          fill={fill("cooked")}
          stroke="var(--color-ink)"
          strokeWidth="1.6"
        />
        <line x1={x(done)} x2={x(done)} y1="84" y2="170" stroke="var(--color-green)" strokeWidth="3" />
        <Label x={x(done)} y={70} size={24} bold anchor="middle" tone="green">
          {duration(done)}
        </Label>
        <Label x={x(done)} y={44} size={15} anchor="middle" tone="green">
          likely done
        </Label>
        <Extension x1={x(first)} y1={98} x2={x(first)} y2={170} />
        <Extension x1={x(latest)} y1={98} x2={x(latest)} y2={170} />
        <Dimension x1={x(first)} y1={98} x2={x(latest)} y2={98} />
        <Label x={x(first)} y={90} size={15} anchor="middle">
          {duration(first)}
        </Label>
        <Label x={x(latest)} y={90} size={15} anchor="middle">
          {duration(latest)}
        </Label>
        <Axis
          along="bottom"
          from={30}
          to={W - 30}
          cross={190}
          ticks={x.ticks(8).map((t) => ({ at: x(t), text: `${t}` }))}
        />
        <Label x={W - 30} y={238} size={14} anchor="end" tone="ink2">
          minutes
        </Label>
      </svg>
      <figcaption className="mt-2 text-lg">
        <FactFigure facts={facts} name="heat.done_min" className="font-bold">
          {capital(drawing.says)}
        </FactFigure>
        : look from {duration(first)} on.{" "}
        <span className="text-ink2">The usual range of the craft, set to this sheet's size; the cue decides.</span>
      </figcaption>
    </figure>
  );
}

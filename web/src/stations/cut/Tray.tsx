/** The tray from above: knife lines, their distances from the edge, corners and edges told apart. */

import type { CutDrawing, Facts } from "../../api/client";
import { Dimension, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";

export function Tray({ drawing, facts }: { drawing: CutDrawing; facts: Facts }) {
  const scale = Math.min(440 / drawing.length_mm, 430 / drawing.width_mm);
  const x0 = 60;
  const y0 = 34;
  const w = drawing.length_mm * scale;
  const h = drawing.width_mm * scale;
  const round = drawing.shape === "round";
  const pieces = Number(facts["cut.pieces"]?.value ?? 0);
  const grams = Number(facts["cut.piece_g"]?.value ?? 0);
  const cm = (mm: number) => (mm / 10).toFixed(1);
  // Room for every figure along an edge, or only for each second one.
  const every = (lines: number[], length: number) => (lines.length * 34 > length ? 2 : 1);
  return (
    <svg
      viewBox={`0 0 640 ${y0 + h + 56}`}
      className="mx-auto block w-full"
      role="img"
      aria-label={`${pieces} pieces of ${grams.toFixed(0)} g`}
    >
      {round ? (
        <circle
          cx={x0 + w / 2}
          cy={y0 + h / 2}
          r={w / 2}
          fill={fill("cooked")}
          stroke="var(--color-ink)"
          strokeWidth="2.6"
        />
      ) : (
        <rect x={x0} y={y0} width={w} height={h} fill={fill("cooked")} stroke="var(--color-ink)" strokeWidth="2.6" />
      )}
      {drawing.cells.map((cell) => (
        <rect
          key={`${cell.x} ${cell.y}`}
          x={x0 + cell.x * scale}
          y={y0 + cell.y * scale}
          width={cell.w * scale}
          height={cell.h * scale}
          fill={cell.kind === "corner" ? "#d8bb78" : cell.kind === "edge" ? "#e7d3a2" : "#f6efd6"}
          stroke="none"
        />
      ))}
      {drawing.knife_x.map((at) => (
        <line
          key={`x${at}`}
          x1={x0 + at * scale}
          x2={x0 + at * scale}
          {...chord(at, drawing, scale, y0, "y")}
          stroke="var(--color-ink)"
          strokeWidth="1.3"
        />
      ))}
      {drawing.knife_y.map((at) => (
        <line
          key={`y${at}`}
          y1={y0 + at * scale}
          y2={y0 + at * scale}
          {...chord(at, drawing, scale, x0, "x")}
          stroke="var(--color-ink)"
          strokeWidth="1.3"
        />
      ))}
      {drawing.knife_x.map((at, i) =>
        i % every(drawing.knife_x, w) === 0 ? (
          <Label key={`t${at}`} x={x0 + at * scale} y={y0 - 10} anchor="middle" size={13.5}>
            {cm(at)}
          </Label>
        ) : null,
      )}
      {drawing.knife_y.map((at, i) =>
        i % every(drawing.knife_y, h) === 0 ? (
          <Label key={`l${at}`} x={x0 - 10} y={y0 + at * scale + 5} anchor="end" size={13.5}>
            {cm(at)}
          </Label>
        ) : null,
      )}
      <Label x={x0 + w + 26} y={y0 - 10} size={13.5} tone="ink2">
        cm from the edge
      </Label>
      <Dimension x1={x0} y1={y0 + h + 22} x2={x0 + w} y2={y0 + h + 22} />
      <Label x={x0 + w / 2} y={y0 + h + 46} bold anchor="middle" size={19}>
        {cm(drawing.length_mm)} cm
      </Label>
      <Label x={x0 + w + 26} y={y0 + 30} bold size={34}>
        {pieces}
      </Label>
      <Label x={x0 + w + 26} y={y0 + 52} tone="ink2">
        pieces of
      </Label>
      <Label x={x0 + w + 26} y={y0 + 82} bold size={24}>
        {grams.toFixed(0)} g
      </Label>
    </svg>
  );
}

/** Where a knife line begins and ends: across the whole tray, or the chord of a round one. */
function chord(at: number, drawing: CutDrawing, scale: number, origin: number, axis: "x" | "y") {
  const span = axis === "x" ? drawing.length_mm : drawing.width_mm;
  let half = span / 2;
  if (drawing.shape === "round") half = Math.sqrt(Math.max(0, half ** 2 - (at - half) ** 2));
  const from = origin + (span / 2 - half) * scale;
  const to = origin + (span / 2 + half) * scale;
  return axis === "x" ? { x1: from, x2: to } : { y1: from, y2: to };
}

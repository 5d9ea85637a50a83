/** The signature of the drawings: fine dimension lines with arrows and figures, as on a workshop sheet. */

import { t } from "@lingui/core/macro";
import type { ReactNode } from "react";

interface Between {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** A dimension line with an arrow at each end. */
export function Dimension({ x1, y1, x2, y2 }: Between) {
  return (
    <line
      {...{ x1, y1, x2, y2 }}
      stroke="var(--color-ink)"
      strokeWidth="1"
      markerStart="url(#arrow)"
      markerEnd="url(#arrow)"
    />
  );
}

/** A fine line that carries a measure out of the drawing. */
export function Extension({ x1, y1, x2, y2 }: Between) {
  return <line {...{ x1, y1, x2, y2 }} stroke="var(--color-ink2)" strokeWidth="0.8" />;
}

/** A size of letters in a drawing: at least 13 px where it is shown (Drawing.tsx). */
export const legible = (size: number) => t`max(${size}px, calc(13px * var(--shrunk, 1)))`;

interface Label {
  x: number;
  y: number;
  children: ReactNode;
  size?: number;
  bold?: boolean;
  anchor?: "start" | "middle" | "end";
  tone?: "ink" | "ink2" | "bean" | "green" | "look";
  halo?: boolean;
  /** Laid on a plate of paper: over a texture no figure is read well without one. */
  plate?: boolean;
  /** The facts that it shows: marked while one of them is spoken of (spoken.ts). */
  of?: string;
}

/** Words or a figure in a drawing, never smaller than can be read. `halo` keeps it readable over lines. */
export function Label({ x, y, children, size = 15, bold, anchor = "start", tone = "ink", halo, plate, of }: Label) {
  return (
    <text
      x={x}
      y={y}
      fontWeight={bold ? 700 : 400}
      textAnchor={anchor}
      className={plate ? "plate" : halo ? "halo" : undefined}
      data-of={of}
      style={{ fill: `var(--color-${tone})`, fontSize: legible(size) }}
    >
      {children}
    </text>
  );
}

/** An axis along the bottom or the left, with ticks at `at` in drawing units. */
export function Axis(props: {
  along: "bottom" | "left";
  from: number;
  to: number;
  cross: number;
  ticks: { at: number; text: string }[];
}) {
  const { along, from, to, cross, ticks } = props;
  const level = along === "bottom";
  return (
    <g>
      <line
        x1={level ? from : cross}
        x2={level ? to : cross}
        y1={level ? cross : from}
        y2={level ? cross : to}
        stroke="var(--color-ink)"
      />
      {ticks.map(({ at, text }) => (
        <g key={`${at}`}>
          <line
            x1={level ? at : cross - 6}
            x2={level ? at : cross}
            y1={level ? cross : at}
            y2={level ? cross + 6 : at}
            stroke="var(--color-ink)"
          />
          <Label
            x={level ? at : cross - 10}
            y={level ? cross + 22 : at + 5}
            anchor={level ? "middle" : "end"}
            size={14}
          >
            {text}
          </Label>
        </g>
      ))}
    </g>
  );
}

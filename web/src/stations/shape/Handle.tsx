/** A point of a drawing that can be taken hold of, by hand or by arrow keys. */

import type { KeyboardEvent, PointerEvent } from "react";
import { useFormatters } from "../../ui/formatters";
import { CX, CY } from "./pieceFrame";

interface HandleProps {
  label: string;
  at: number;
  r: number;
  value: number;
  range: [number, number];
  onPointerDown: (event: PointerEvent) => void;
  onKeyDown: (event: KeyboardEvent) => void;
}

/** A grip on an edge: two arrow heads on it, and a ring wide enough for a floured finger. */
export function Handle({ label, at, r, value, range, onPointerDown, onKeyDown }: HandleProps) {
  const { lengthWords } = useFormatters();
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={+value.toFixed(1)}
      aria-valuemin={+range[0].toFixed(1)}
      aria-valuemax={+range[1].toFixed(1)}
      aria-valuetext={lengthWords(value, 1)}
      className="group cursor-ew-resize touch-none outline-none"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      <circle cx={CX} cy={CY} r={r} fill="none" stroke="transparent" strokeWidth="16" pointerEvents="stroke" />
      <circle cx={at} cy={CY} r="20" fill="transparent" />
      <path
        d={`M${at - 7} ${CY - 8}l-8 8l8 8M${at + 7} ${CY - 8}l8 8l-8 8`}
        fill="none"
        strokeWidth="2.6"
        className="stroke-bean group-focus-visible:stroke-ink"
      />
      <circle cx={at} cy={CY} r="3.5" className="fill-bean group-focus-visible:fill-ink" />
    </g>
  );
}

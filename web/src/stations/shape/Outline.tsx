/** The outline of a piece by its form. */

import type { BallDrawing } from "../../api/client";
import { fill } from "../../ui/materials";

interface OutlineProps {
  form: BallDrawing["form"];
  cx: number;
  cy: number;
  r: number;
  material: string;
}

/** The outside of a piece by its form: a ball, a cone of leaf, a flat packet. */
export function Outline({ form, cx, cy, r, material }: OutlineProps) {
  if (form === "parcel")
    return (
      <>
        <path
          d={`M${cx - r * 1.12} ${cy + r}L${cx} ${cy - r}L${cx + r * 1.12} ${cy + r}Z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.97} ${cy + r * 0.92}L${cx} ${cy - r * 0.82}L${cx + r * 0.97} ${cy + r * 0.92}Z`}
          fill={fill(material)}
          stroke="var(--color-ink)"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.66} ${cy + r * 0.18}q${r * 0.66} 26 ${r * 1.32} 0`}
          fill="none"
          stroke="var(--color-ink)"
        />
      </>
    );
  if (form === "packet")
    return (
      <>
        <rect
          x={cx - r}
          y={cy - 46}
          width={2 * r}
          height="92"
          rx="10"
          fill="var(--color-foil)"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
        <rect
          x={cx - r + 7}
          y={cy - 39}
          width={2 * r - 14}
          height="78"
          rx="8"
          fill={fill("leaf")}
          stroke="var(--color-ink)"
        />
        <rect
          x={cx - r + 16}
          y={cy - 30}
          width={2 * r - 32}
          height="60"
          rx="6"
          fill={fill("batter")}
          stroke="var(--color-ink)"
        />
      </>
    );
  return <circle cx={cx} cy={cy} r={r} fill={fill(material)} stroke="var(--color-ink)" strokeWidth="2" />;
}

/** How a batch came out, as a mark with its own shape and colour. */

import type { MapDot } from "../../api/client";

export const VERDICTS: MapDot["verdict"][] = ["just right", "too soft", "too firm", "untasted"];

export function VerdictMark({ verdict, x, y, size = 8 }: { verdict: string; x: number; y: number; size?: number }) {
  const line = { stroke: "var(--color-ink)", strokeWidth: 1.5, fill: "var(--color-sheet)" };
  if (verdict === "just right") return <circle cx={x} cy={y} r={size * 0.85} fill="var(--color-green)" />;
  if (verdict === "too soft")
    return <path d={`M${x - size} ${y - size * 0.8}h${2 * size}l${-size} ${1.7 * size}z`} {...line} />;
  if (verdict === "too firm")
    return <path d={`M${x - size} ${y + size * 0.8}h${2 * size}l${-size} ${-1.7 * size}z`} {...line} />;
  return <rect x={x - size * 0.7} y={y - size * 0.7} width={size * 1.4} height={size * 1.4} {...line} />;
}

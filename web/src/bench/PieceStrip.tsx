/** Every piece so far: its weight against the target it was aimed at; outside the tolerance in another shape, too. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import type { BenchState } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";

export function PieceStrip({ state, tolerance }: { state: BenchState; tolerance: number }) {
  const { weighed, first_g: first } = state;
  const all = weighed.length + state.left_pieces;
  const off = weighed.map((item) => (100 * Math.abs(item.grams - first)) / first + 2);
  const worst = Math.min(6 * tolerance, Math.max(3 * tolerance, ...off)); // one far out must not flatten the rest
  const x = scaleLinear()
    .domain([0.5, all + 0.5])
    .range([46, 690]);
  const y = scaleLinear()
    .domain([first * (1 - worst / 100), first * (1 + worst / 100)])
    .range([170, 12]);
  const targets = [...weighed.map((item) => item.target_g), ...(state.next_g == null ? [] : [state.next_g])];
  const step = targets.map((g, i) => `${i ? "L" : "M"}${x(i + 0.55)} ${y(g)}H${x(i + 1.45)}`).join("");
  const says = t`${weighed.length} pieces, ${state.outside} outside the tolerance`;
  return (
    <Drawing viewBox="0 0 700 200" className="mt-1 block w-full" role="img" aria-label={says}>
      {y.ticks(5).map((g) => (
        <g key={g}>
          <line x1="46" x2="690" y1={y(g)} y2={y(g)} stroke="var(--color-hair)" strokeWidth="0.8" />
          <Label x={40} y={y(g) + 5} size={13.5} anchor="end" tone="ink2">
            {g}
          </Label>
        </g>
      ))}
      {targets.map((g, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its number
          key={i}
          x={x(i + 0.55)}
          width={x(i + 1.45) - x(i + 0.55)}
          y={y(g * (1 + tolerance / 100))}
          height={y(g * (1 - tolerance / 100)) - y(g * (1 + tolerance / 100))}
          fill="var(--color-green)"
          opacity="0.16"
        />
      ))}
      <path d={step} fill="none" stroke="var(--color-green)" strokeWidth="1.6" />
      {weighed.map((item, i) => {
        const [cx, cy] = [x(i + 1), Math.min(168, Math.max(14, y(item.grams)))];
        return item.outside ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its number
          <path key={i} d={`M${cx - 5} ${cy - 5}l10 10m0 -10l-10 10`} stroke="var(--color-bean)" strokeWidth="2.6" />
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its number
          <circle key={i} cx={cx} cy={cy} r="4.6" fill="var(--color-ink)" />
        );
      })}
      <Label x={690} y={194} size={13.5} anchor="end" tone="ink2">
        <Trans>pieces, 1 to {all}; the green line is what each was aimed at</Trans>
      </Label>
    </Drawing>
  );
}

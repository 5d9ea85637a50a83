/** The scale as a bar: how far the lump is from its target, and the band that is good enough. */

import { t } from "@lingui/core/macro";
import type { BenchState } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";
import { fill } from "../ui/materials";
import { fixed } from "../words/numbers";

export function Gauge({ state, grams }: { state: BenchState; grams: number | null }) {
  const { weightFigure, weightWords } = useFormatters();
  const target = state.next_g;
  if (target == null || state.low_g == null || state.high_g == null) return null;
  const most = target * 1.6;
  const x = (g: number) => 20 + (660 * Math.min(Math.max(g, 0), most)) / most;
  const good = grams != null && grams >= state.low_g && grams <= state.high_g;
  const off = grams == null ? 0 : grams - target;
  const says =
    grams == null || grams < 1
      ? t`aim between ${weightFigure(state.low_g, 1)} and ${weightWords(state.high_g, 1)}`
      : good
        ? t`good`
        : `${weightWords(Math.abs(off), 1)} ${off > 0 ? t`too much` : t`more`}`;
  return (
    <Drawing viewBox="0 0 700 96" className="mt-2 block w-full" role="img" aria-label={says}>
      <rect
        x={x(state.low_g)}
        y="14"
        width={x(state.high_g) - x(state.low_g)}
        height="46"
        fill="var(--color-green)"
        opacity="0.2"
      />
      <rect x="20" y="22" width="660" height="30" fill="none" stroke="var(--color-ink2)" />
      {grams != null && (
        <rect x="20" y="22" width={x(grams) - 20} height="30" fill={fill("starch")} stroke="var(--color-ink)" />
      )}
      <line x1={x(target)} x2={x(target)} y1="8" y2="66" stroke="var(--color-green)" strokeWidth="3" />
      <Label x={x(state.low_g) - 6} y={86} size={15} anchor="end" tone="ink2">
        {fixed(state.low_g, 1)}
      </Label>
      <Label x={x(state.high_g) + 6} y={86} size={15} tone="ink2">
        {fixed(state.high_g, 1)}
      </Label>
      {grams != null && grams >= 1 && (
        <Label x={20} y={86} size={18} bold tone={good ? "green" : "ink"}>
          {says}
        </Label>
      )}
    </Drawing>
  );
}

/** The water under the rack over the same minutes as the curve above it: where it creases, where it starves, top-ups. */

import { Trans } from "@lingui/react/macro";
import type { ScaleLinear } from "d3-scale";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { SteamerDrawing } from "../../api/client";
import { Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";

interface Props {
  steamer: SteamerDrawing;
  x: ScaleLinear<number, number>;
  top: number;
  bottom: number;
  /** Minutes since it went in. */
  at: number;
}

export function WaterFall({ steamer, x, top, bottom, at }: Props) {
  const { lengthUnit, lengthWords } = useFormatters();
  const [left, right] = x.range() as [number, number];
  const creases = steamer.rack_mm - steamer.gap_mm;
  const y = scaleLinear()
    .domain([0, Math.max(steamer.rack_mm, steamer.start_mm) * 1.05])
    .range([bottom, top]);
  const points = steamer.minutes.map((minute, i) => [minute, steamer.water_mm[i] ?? 0] as [number, number]);
  const path = line<[number, number]>()
    .x(([minute]) => x(minute))
    .y(([, mm]) => y(mm));
  const [last] = points.at(-1) ?? [0, 0];
  return (
    <g>
      <rect
        x={left}
        y={y(steamer.low_mm)}
        width={right - left}
        height={bottom - y(steamer.low_mm)}
        fill="var(--color-amber)"
        opacity="0.14"
      />
      <rect
        x={left}
        y={top}
        width={right - left}
        height={Math.max(0, y(creases) - top)}
        fill="var(--color-bean)"
        opacity="0.09"
      />
      <path d={`${path(points)}L${x(last)} ${bottom}L${left} ${bottom}z`} fill="url(#m-water)" opacity="0.75" />
      <path d={path(points) ?? ""} fill="none" stroke="var(--color-ink)" strokeWidth="1.8" />
      <line x1={left} x2={right} y1={bottom} y2={bottom} stroke="var(--color-ink)" />
      <line x1={x(at)} x2={x(at)} y1={top} y2={bottom} stroke="var(--color-ink)" strokeDasharray="2 3" />
      <Label x={left - 8} y={y(creases) + 5} anchor="end" size={13}>
        {creases.toFixed(0)}
      </Label>
      <Label x={left - 8} y={y(steamer.low_mm) + 5} anchor="end" size={13}>
        {steamer.low_mm.toFixed(0)}
      </Label>
      <Label x={left + 6} y={top + 14} size={13} tone="bean" halo>
        <Trans>over {lengthWords(creases)} it spits at the tin: creases</Trans>
      </Label>
      <Label x={left + 6} y={bottom - 5} size={13} tone="look" halo>
        <Trans>under {lengthWords(steamer.low_mm)} it starves</Trans>
      </Label>
      <Label x={right} y={top - 7} anchor="end" size={13} tone="ink2">
        <Trans>water under the rack, {lengthUnit()}</Trans>
      </Label>
    </g>
  );
}

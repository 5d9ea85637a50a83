/** The oven from the side: the tin on its rack, heat from above and below, and what the top does when. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Facts, HeatOf } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

export function Oven({ drawing, facts }: { drawing: HeatOf<"bake">; facts: Facts }) {
  const { degrees, degreesUnit, lengthWords } = useFormatters();
  const { tin, depth_mm: depth } = drawing;
  const across = tin.shape === "round" ? tin.diameter_mm : tin.length_mm;
  const scale = Math.min(250 / across, 100 / tin.height_mm);
  const [w, h, d] = [across * scale, tin.height_mm * scale, depth * scale];
  const x = 245 - w / 2;
  const floor = 196;
  const skin = facts["heat.skin_min"];
  const browns = facts["heat.browns_min"];
  const at = (fact: typeof skin) => Number(fact?.value ?? 0).toFixed(0);
  const says = t`An oven at ${degrees(drawing.oven_c)} ${degreesUnit()}, the batter ${lengthWords(depth)} deep`;
  const waves = (y: number, down: number) =>
    [0, 1, 2, 3, 4].map((i) => {
      const at = x + (w * (i + 0.5)) / 5;
      return (
        <path
          key={`${y} ${at}`}
          d={`M${at} ${y}q5 ${down * 7} 0 ${down * 14}t0 ${down * 14}`}
          fill="none"
          stroke="var(--color-amber)"
          strokeWidth="1.4"
        />
      );
    });
  return (
    <Drawing viewBox="0 0 480 300" className="block w-full max-w-[520px]" role="img" aria-label={says}>
      <rect x="30" y="24" width="400" height="244" rx="8" fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      <path d="M40 36h380M40 256h380" stroke="var(--color-bean)" strokeWidth="3" strokeDasharray="2 5" />
      <line x1="34" x2="426" y1={floor + 6} y2={floor + 6} stroke="var(--color-ink)" strokeWidth="2" />
      {waves(44, 1)}
      {waves(250, -1)}
      <rect x={x} y={floor - d} width={w} height={d} fill={fill("batter")} stroke="var(--color-ink)" />
      <path
        d={`M${x} ${floor - h}V${floor}H${x + w}V${floor - h}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={tin.material === "metal" ? 3 : 6}
      />
      <Extension x1={x - 26} y1={floor - d} x2={x - 3} y2={floor - d} />
      <Extension x1={x - 26} y1={floor} x2={x - 3} y2={floor} />
      <Dimension x1={x - 20} y1={floor - d} x2={x - 20} y2={floor} />
      <Label x={x - 28} y={floor - d / 2 + 6} anchor="end" bold size={17} halo>
        {lengthWords(depth)}
      </Label>
      <Label x={40} y={16} size={15} bold>
        {degrees(drawing.oven_c)} {degreesUnit()}
      </Label>
      <Label x={430} y={16} size={14} anchor="end" tone="ink2">
        <Trans>heat from above and below</Trans>
      </Label>
      <Label x={30} y={290} size={14.5} tone="ink2">
        {skin ? t`a skin at ${at(skin)} min` : t`no skin yet`}
        {browns ? t`, golden at ${at(browns)}` : t`, stays pale`}
      </Label>
    </Drawing>
  );
}

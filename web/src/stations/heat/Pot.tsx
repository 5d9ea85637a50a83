/** The boiling pot from the side, true to scale: a load of balls, floating, with room to be stirred. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Facts, HeatOf } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";
import { fixed } from "../../words/numbers";

export function Pot({ drawing, facts }: { drawing: HeatOf<"boil">; facts: Facts }) {
  const { sizeWords } = useFormatters();
  const scale = 320 / drawing.pot_mm;
  const left = 40;
  const wide = drawing.pot_mm * scale;
  const floor = 230;
  const water = drawing.water_mm * scale;
  const surface = floor - water;
  const r = (drawing.outer_mm / 2) * scale;
  const core = (drawing.core_mm / 2) * scale;
  // From the side one sees the front row of a round layer.
  const row = Math.max(1, Math.min(drawing.load, Math.floor(wide / (2 * r + 6))));
  const gap = (wide - row * 2 * r) / (row + 1);
  const litres = fixed(Number(facts["heat.water_ml"]?.value ?? 0) / 1000, 1);
  const words = t`${plural(drawing.loads, { one: "# load", other: "# loads" })} of ${drawing.load}, in ${litres} litres`;
  return (
    <Drawing
      viewBox={`0 ${surface - 52} 450 ${water + 104}`}
      className="block w-full max-w-[520px]"
      role="img"
      aria-label={t`The pot: ${words}`}
    >
      <rect x={left} y={surface} width={wide} height={water} fill={fill("water")} />
      <path
        d={`M${left - 8} ${surface - 40}H${left}V${floor - 8}q0 8 8 8H${left + wide - 8}q8 0 8 -8V${surface - 40}h8`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
      {Array.from({ length: row }, (_, i) => {
        const cx = left + gap + r + i * (2 * r + gap);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: the balls are alike
          <g key={i}>
            <circle
              cx={cx}
              cy={surface + r * 0.45}
              r={r}
              fill={fill("starch")}
              stroke="var(--color-ink)"
              strokeWidth="1.5"
            />
            {core > 0 && (
              <circle
                cx={cx}
                cy={surface + r * 0.45}
                r={core}
                fill={fill("filling")}
                stroke="var(--color-ink)"
                strokeWidth="1"
              />
            )}
          </g>
        );
      })}
      <path
        d={[0.2, 0.45, 0.7, 0.9].map((f) => `M${left + wide * f} ${surface - 12}q6 -8 0 -16t0 -16`).join("")}
        fill="none"
        stroke="var(--color-ink2)"
        strokeWidth="1.1"
      />
      <Dimension x1={left + wide + 20} y1={surface} x2={left + wide + 20} y2={floor} />
      <Label x={left + wide + 28} y={surface + water / 2 + 5} bold size={14}>
        {sizeWords(drawing.water_mm, 0)}
      </Label>
      <Label x={left + wide / 2} y={floor + 24} anchor="middle" bold size={17}>
        {words}
      </Label>
      <Label x={left + wide / 2} y={floor + 44} anchor="middle" size={14.5} tone="look">
        <Trans>a tremble, not a boil</Trans>
      </Label>
    </Drawing>
  );
}

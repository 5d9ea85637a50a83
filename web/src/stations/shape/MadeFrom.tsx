/** What a piece is made from before it is closed. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { BallDrawing, Facts } from "../../api/client";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

/** The disc, the rope, the spoon or the packet that the piece is made from or folded to. */
export function MadeFrom({ drawing, facts, shell }: { drawing: BallDrawing; facts: Facts; shell: string }) {
  const { lengthWords, weightWords } = useFormatters();
  // The rope and the disc share one scale: a millimetre is as long in both.
  const disc = Number(facts["shape.disc_mm"]?.value ?? 0);
  const rope = Number(facts["shape.rope_mm"]?.value ?? 0);
  const cut = Number(facts["shape.rope_cut_mm"]?.value ?? 0);
  const small = Math.min(1.9, 150 / Math.max(disc, 1), 230 / Math.max(4 * cut, 1));
  const spoon = facts["shape.scoop"];
  const spoonG = Number(facts["shape.scoop_g"]?.value ?? 0);
  return (
    <>
      {disc > 0 && (
        <g transform="translate(440 206)">
          <Label x={0} y={0} size={15} tone="ink2">
            <Trans>{drawing.outside ? t`the ${shell} as` : t`flatten to`} a disc</Trans>
          </Label>
          <path
            d={`M0 44q${(disc * small) / 2} -30 ${disc * small} 0q${(-disc * small) / 2} 12 ${-disc * small} 0z`}
            fill={fill(drawing.outside ? "filling" : "starch")}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          <Dimension x1={0} y1={66} x2={disc * small} y2={66} />
          <Label x={disc * small + 12} y={72} bold size={18}>
            {lengthWords(disc)}
          </Label>
        </g>
      )}
      {rope > 0 && (
        <g transform="translate(440 312)">
          <Label x={0} y={0} size={15} tone="ink2">
            <Trans>rope of {lengthWords(rope)}, cut every</Trans>
          </Label>
          {[0, 1, 2, 3].map((i) => (
            <rect
              key={i}
              x={i * cut * small}
              y={14}
              width={cut * small}
              height={rope * small}
              fill={fill("starch")}
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
          ))}
          <Dimension x1={0} y1={rope * small + 28} x2={cut * small} y2={rope * small + 28} />
          <Label x={cut * small + 12} y={rope * small + 34} bold size={18}>
            {lengthWords(cut)}
          </Label>
        </g>
      )}
      {spoon && (
        <Label x={440} y={430} size={15} tone="ink2">
          <Trans>
            by the spoon: <tspan fontWeight="700">{spoon.value}</tspan>, {weightWords(spoonG, 1)}
          </Trans>
        </Label>
      )}
    </>
  );
}

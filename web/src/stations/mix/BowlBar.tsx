/** What is in the pot, as one bar of its materials. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Facts, MixDrawing } from "../../api/client";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Label } from "../../ui/dimension";
import { FactFigure } from "../../ui/FactFigure";
import { useFormatters } from "../../ui/formatters";
import { fill, MATERIAL_WORDS } from "../../ui/materials";

export function BowlBar({ drawing, facts }: { drawing: MixDrawing; facts: Facts }) {
  const { volumeWords, weightWords } = useFormatters();
  const total = drawing.bar.reduce((sum, share) => sum + share.grams, 0);
  const [box, W] = useRoom<HTMLElement>(680);
  const left = W < 480 ? 4 : 56; // on a desk it stands under the map
  let at = left;
  const width = W - left - (W < 480 ? 4 : 24);
  const shares = drawing.bar.map((share) => {
    const w = (share.grams / total) * width;
    const placed = { ...share, x: at, w };
    at += w;
    return placed;
  });
  const words = shares.map((share) => `${MATERIAL_WORDS[share.material]} ${weightWords(share.grams, 0)}`).join(", ");
  return (
    <figure ref={box} className="m-0 mt-3">
      <Drawing viewBox={`0 0 ${W} 70`} className="block w-full" role="img" aria-label={t`In the bowl: ${words}`}>
        {shares.map((share) => (
          <g key={share.material}>
            <rect
              x={share.x}
              y="4"
              width={share.w}
              height="36"
              fill={fill(share.material)}
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
            {share.w > 8 * `${MATERIAL_WORDS[share.material]} 000`.length && (
              <Label x={share.x + share.w / 2} y={60} size={14.5} anchor="middle">
                {MATERIAL_WORDS[share.material]} {share.grams.toFixed(0)}
              </Label>
            )}
          </g>
        ))}
      </Drawing>
      <figcaption className="pl-[8%] text-sm text-ink2">
        <Trans>
          <FactFigure facts={facts} name="mix.batch_g" className="font-bold text-ink">
            {weightWords(Number(facts["mix.batch_g"]?.value), 0)}
          </FactFigure>{" "}
          in all,{" "}
          <FactFigure facts={facts} name="mix.volume_ml" className="font-bold text-ink">
            {volumeWords(Number(facts["mix.volume_ml"]?.value), 0)}
          </FactFigure>
          ; about{" "}
          <FactFigure facts={facts} name="mix.cooked_g" className="font-bold text-ink">
            {weightWords(Number(facts["mix.cooked_g"]?.value), 0)}
          </FactFigure>{" "}
          when cooked
        </Trans>
      </figcaption>
    </figure>
  );
}

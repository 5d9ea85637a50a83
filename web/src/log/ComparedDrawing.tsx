/** Predicted and made, side by side. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import type { BatchOpen } from "../api/client";
import { cutText } from "../ui/cutText";
import { Drawing, useRoom } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { capital } from "../ui/words";

const short = (words: string) => {
  const cut = cutText(words, 30, "…");
  return capital(cut);
};

/** Each prediction as a band or a line, and what happened as a mark on the same rule, all as shares of what was told. */
export function ComparedDrawing({ compared }: { compared: BatchOpen["compared"] }) {
  const [box, W] = useRoom<HTMLElement>(680);
  const narrow = W < 520; // then what it is stands over its rule
  const row = narrow ? 62 : 46;
  const ratios = compared.flatMap((item) =>
    [item.happened, item.low ?? item.predicted, item.high ?? item.predicted].map((v) => v / item.predicted),
  );
  const x = scaleLinear()
    .domain([Math.min(0.8, ...ratios) - 0.04, Math.max(1.2, ...ratios) + 0.04])
    .range([narrow ? 10 : 240, W - 70]);
  return (
    <figure ref={box} className="m-0 mt-2">
      <Drawing
        viewBox={`0 0 ${W} ${compared.length * row + 30}`}
        className="block w-full"
        role="img"
        aria-label={t`Each step: what was told and what happened`}
      >
        <line
          x1={x(1)}
          x2={x(1)}
          y1="20"
          y2={compared.length * row + 26}
          stroke="var(--color-ink2)"
          strokeDasharray="3 4"
        />
        <Label x={x(1)} y={14} anchor="middle" size={13.5} tone="ink2">
          <Trans>as told</Trans>
        </Label>
        {compared.map((item, i) => {
          const y = (narrow ? 58 : 44) + i * row;
          const share = item.happened / item.predicted;
          // Without a range there is nothing to be outside of.
          const ranged = item.low != null && item.high != null;
          const inside = ranged && item.happened >= (item.low as number) && item.happened <= (item.high as number);
          const mark = !ranged ? "var(--color-sheet)" : inside ? "var(--color-green)" : "var(--color-bean)";
          return (
            <g key={`${item.step}${item.unit}`}>
              <Label x={0} y={narrow ? y - 18 : y + 1} size={15}>
                {short(item.label)}
              </Label>
              <Label
                x={narrow ? W : 0}
                y={narrow ? y - 18 : y + 18}
                anchor={narrow ? "end" : "start"}
                size={13}
                tone="ink2"
              >
                <Trans>
                  told {item.predicted.toFixed(item.predicted < 100 ? 1 : 0)} {item.unit}
                </Trans>
              </Label>
              <line x1={x.range()[0]} x2={x.range()[1]} y1={y} y2={y} stroke="var(--color-hair)" />
              {item.low != null && item.high != null && (
                <rect
                  x={x(item.low / item.predicted)}
                  y={y - 8}
                  width={x(item.high / item.predicted) - x(item.low / item.predicted)}
                  height="16"
                  fill="var(--color-green)"
                  opacity="0.22"
                />
              )}
              <circle cx={x(share)} cy={y} r="7" fill={mark} stroke="var(--color-ink)" />
              <Label x={W} y={y + 5} anchor="end" bold size={16} tone={ranged && !inside ? "bean" : "ink"}>
                {item.happened.toFixed(item.happened < 100 ? 1 : 0)}
              </Label>
            </g>
          );
        })}
      </Drawing>
      <figcaption className="text-sm text-ink2">
        <Trans>
          Shaded: the range that was told; green lies in it, red outside. Right: what happened, in the same unit.
        </Trans>
      </figcaption>
    </figure>
  );
}

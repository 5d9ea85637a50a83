/** One clock for two heats: a bar where nine in ten are done, a line where it is likely, a flag where it was given. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import type { Comparison } from "../api/client";
import { Drawing, useRoom } from "../ui/Drawing";
import { Axis, Label } from "../ui/dimension";
import { minutes } from "../ui/words";
import { said } from "../words/said";

const [MOST_WIDE, LEFT, RIGHT, ROW] = [560, 60, 24, 74];

export function TwoClocks({ told }: { told: Comparison }) {
  const [box, W] = useRoom<HTMLDivElement>(MOST_WIDE);
  const both = (["hers", "mine"] as const).flatMap((name) => {
    const { minutes: range, given_min } = told[name];
    return range ? [{ name, range, given: given_min }] : [];
  });
  if (both.length === 0) return null;
  const ends = both.flatMap(({ range, given }) => [range.low, range.high, ...(given == null ? [] : [given])]);
  const x = scaleLinear([0, Math.max(...ends) * 1.08], [LEFT, W - RIGHT]);
  const foot = 18 + both.length * ROW;
  const words = both.map(
    ({ name, range, given }) =>
      t`${said(name)}: likely ${minutes(range.likely)}, ${minutes(range.low)} to ${minutes(range.high)}${given == null ? "" : t`, given ${minutes(given)}`}`,
  );
  return (
    <div ref={box}>
      <Drawing
        viewBox={`0 0 ${W} ${foot + 54}`}
        className="block w-full"
        role="img"
        aria-label={t`Heat: ${words.join("; ")}`}
      >
        {both.map(({ name, range, given }, i) => {
          const at = 18 + i * ROW;
          const colour = name === "hers" ? "var(--color-look)" : "var(--color-bean)";
          return (
            <g key={name}>
              <Label x={LEFT - 12} y={at + 36} anchor="end" size={16}>
                {said(name)}
              </Label>
              <rect
                x={x(range.low)}
                y={at + 20}
                width={x(range.high) - x(range.low)}
                height="22"
                fill={colour}
                fillOpacity="0.28"
                stroke={colour}
              />
              <line
                x1={x(range.likely)}
                x2={x(range.likely)}
                y1={at + 14}
                y2={at + 48}
                stroke={colour}
                strokeWidth="3"
              />
              <Label x={x(range.likely)} y={at + 64} anchor="middle" size={14}>
                {minutes(range.likely)}
              </Label>
              {given != null && (
                <g>
                  <path
                    d={`M${x(given)} ${at + 48} V${at + 4} h26 l-6 6 6 6 h-26`}
                    fill="var(--color-paper)"
                    stroke="var(--color-ink)"
                  />
                  <Label
                    x={x(given) + (x(given) > W - 130 ? -6 : 31)}
                    y={at + 15}
                    anchor={x(given) > W - 130 ? "end" : "start"}
                    size={14}
                    tone="ink2"
                  >
                    <Trans>given {minutes(given)}</Trans>
                  </Label>
                </g>
              )}
            </g>
          );
        })}
        <Axis
          along="bottom"
          from={LEFT}
          to={W - RIGHT}
          cross={foot}
          ticks={x.ticks(6).map((tick) => ({ at: x(tick), text: `${tick}` }))}
        />
        <Label x={W - RIGHT} y={foot + 46} anchor="end" size={14} tone="ink2">
          <Trans>minutes in the heat</Trans>
        </Label>
      </Drawing>
    </div>
  );
}

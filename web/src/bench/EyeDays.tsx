/** How the eye comes on: bias and spread of the guesses, day by day. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { api, ask } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { dateOf } from "../ui/words";

export function EyeDays() {
  const days = useQuery({ queryKey: ["eye"], queryFn: () => ask(api.GET("/api/eye")) });
  const result = days.data ?? [];
  if (!result.length) return null;
  const last = result.at(-1)?.eye;
  const most = Math.max(10, ...result.map(({ eye }) => Math.abs(eye.bias_pct) + (eye.spread_pct ?? 0)));
  const y = scaleLinear().domain([-most, most]).nice().range([150, 10]);
  const step = 560 / Math.max(1, result.length);
  return (
    <section aria-label={t`Your eye`}>
      <h3 className="text-xl">
        <Trans>Your eye</Trans>
      </h3>
      <Drawing
        viewBox="0 0 640 190"
        className="mt-1 block w-full max-w-[560px]"
        role="img"
        aria-label={t`Guesses on ${result.length} days; at the last ${last?.bias_pct.toFixed(0) ?? ""} % off on the mean`}
      >
        <line x1="60" x2="630" y1={y(0)} y2={y(0)} stroke="var(--color-ink)" />
        {y.ticks(4).map((pct) => (
          <g key={pct}>
            <line x1="60" x2="630" y1={y(pct)} y2={y(pct)} stroke="var(--color-hair)" strokeWidth="0.8" />
            <Label x={54} y={y(pct) + 5} size={13.5} anchor="end" tone="ink2">
              {pct > 0 ? "+" : pct < 0 ? "−" : ""}
              {Math.abs(pct)} %
            </Label>
          </g>
        ))}
        {result.map(({ day, eye }, i) => {
          const x = 60 + step * (i + 0.5);
          const spread = eye.spread_pct ?? 0;
          return (
            <g key={day}>
              <line
                x1={x}
                x2={x}
                y1={y(eye.bias_pct - spread)}
                y2={y(eye.bias_pct + spread)}
                stroke="var(--color-ink2)"
                strokeWidth="7"
                opacity="0.35"
              />
              <circle cx={x} cy={y(eye.bias_pct)} r="5.5" fill="var(--color-bean)" />
              <Label x={x} y={178} size={13} anchor="middle" tone="ink2">
                {dateOf(`${day}T12:00:00Z`, "UTC")}
              </Label>
            </g>
          );
        })}
      </Drawing>
      <p className="text-ink2">
        <Trans>A dot is a day's mean error, the bar its spread. Above the line you guess too heavy.</Trans>
      </p>
    </section>
  );
}

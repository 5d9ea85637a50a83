/** The cooling curve, with when it can be handled and when it cuts clean (or how long to eat it). */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { FactKey, Facts, WorkResult } from "../../api/client";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Axis, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { minutes } from "../../ui/words";
import { said } from "../../words/said";

interface Props {
  cooling: NonNullable<WorkResult["cooling"]>;
  facts: Facts;
  large?: boolean;
  /** What is done in the window: a bowl is eaten in it, a dough is worked. */
  verb?: "eat" | "work it";
}

export function Cooling({ cooling, facts, large, verb = "eat" }: Props) {
  const { axisMarks } = useFormatters();
  const [box, W] = useRoom<HTMLDivElement>(large ? 720 : 480);
  const H = large ? 454 : 264;
  const pad = { left: 52, right: 16, top: 56, bottom: 54 };
  const { minutes: at, core_c, surface_c } = cooling.curve;
  const value = (key: FactKey) => (facts[key] ? Number(facts[key].value) : null);
  const from = value("rest.handle_from_min");
  const until = value("rest.handle_until_min");
  const cut = value("rest.cut_after_min");
  // Balls are eaten long before they are cold: only that stretch is drawn.
  const cold = Math.max(at.at(-1) ?? 1, cut == null ? 0 : cut * 1.12);
  const end = Math.min(cold, until != null && cut == null ? until * 2.2 : Number.POSITIVE_INFINITY);
  const shown = at.filter((m) => m <= end).length;
  const x = scaleLinear()
    .domain([0, end])
    .range([pad.left, W - pad.right]);
  const y = scaleLinear()
    .domain([0, 100])
    .range([H - pad.bottom, pad.top]);
  const path = (values: number[]) =>
    line<number>()
      .x((_, i) => x(at[i] ?? 0))
      .y((t) => y(t))(values.slice(0, shown)) ?? "";
  const hours = end > 180;
  const ticks = hours
    ? scaleLinear()
        .domain([0, end / 60])
        .ticks(6)
        .map((h) => ({ at: x(h * 60), text: `${h}` }))
    : x.ticks(6).map((t) => ({ at: x(t), text: `${t}` }));
  const span = `${from?.toFixed(0) ?? ""}–${until?.toFixed(0) ?? ""}`;
  const says =
    cut != null
      ? t`Cuts clean after ${minutes(cut)}`
      : verb === "eat"
        ? t`Eat from ${span} minutes`
        : t`Work it from ${span} minutes`;
  return (
    <div ref={box} className={large ? "" : "max-w-[560px]"}>
      <Drawing viewBox={`0 0 ${W} ${H}`} className="block w-full" role="img" aria-label={says}>
        {from != null && until != null && (
          <>
            <rect
              x={x(from)}
              y={pad.top}
              width={Math.max(0, x(until) - x(from))}
              height={H - pad.bottom - pad.top}
              fill="var(--color-green)"
              opacity="0.14"
            />
            <Label
              x={x((from + until) / 2)}
              y={pad.top - 12}
              anchor="middle"
              bold
              size={18}
              tone="green"
              of="rest.handle_from_min rest.handle_until_min"
            >
              <Trans>
                {said(verb)}: {from.toFixed(0)} to {until.toFixed(0)} min
              </Trans>
            </Label>
          </>
        )}
        <Axis along="bottom" from={pad.left} to={W - pad.right} cross={H - pad.bottom} ticks={ticks} />
        {axisMarks(y.domain(), 4, "°C").map(({ value, text }) => (
          <g key={value}>
            <line
              x1={pad.left}
              x2={W - pad.right}
              y1={y(value)}
              y2={y(value)}
              stroke="var(--color-hair)"
              strokeWidth="0.8"
            />
            <Label x={pad.left - 8} y={y(value) + 5} anchor="end" size={13.5}>
              {text}°
            </Label>
          </g>
        ))}
        <path d={path(surface_c)} fill="none" stroke="var(--color-ink2)" strokeDasharray="3 4" strokeWidth="1.4" />
        <path d={path(core_c)} fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
        <Label x={x(end * 0.2) + 14} y={y(core_c[at.findIndex((m) => m >= end * 0.2)] ?? 50) - 10} size={14} bold halo>
          <Trans>heart</Trans>
        </Label>
        {cut != null && cooling.cut_c != null && (
          <g data-of="rest.cut_after_min rest.cut_at_c">
            <line
              x1={x(cut)}
              x2={x(cut)}
              y1={pad.top - 6}
              y2={H - pad.bottom}
              stroke="var(--color-green)"
              strokeWidth="2.2"
            />
            <circle cx={x(cut)} cy={y(cooling.cut_c)} r="5" fill="var(--color-green)" />
            <Label x={Math.min(x(cut), W - 50)} y={pad.top - 33} anchor="middle" size={13.5} tone="ink2">
              <Trans>cuts clean at</Trans>
            </Label>
            <Label x={Math.min(x(cut), W - 50)} y={pad.top - 9} anchor="middle" bold size={18} tone="green">
              {minutes(cut)}
              {cut < 90 ? t` min` : ""}
            </Label>
          </g>
        )}
        <Label x={W - pad.right} y={H - 4} anchor="end" size={13.5} tone="ink2">
          <Trans>{hours ? t`hours` : t`minutes`} off the heat</Trans>
        </Label>
      </Drawing>
    </div>
  );
}

/** The map of a way with two clouds on it: hers striped, mine solid, each the ellipse that nine in ten lie in. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { curveCatmullRomClosed, line } from "d3-shape";
import type { Comparison, WayCard } from "../api/client";
import { Drawing, useRoom } from "../ui/Drawing";
import { Axis, Label } from "../ui/dimension";
import { fill } from "../ui/materials";
import { said } from "../words/said";

const [MOST_WIDE, H] = [680, 420];
const PAD = { left: 56, right: 24, top: 30, bottom: 62 };
type Point = [number, number];

export function TwoClouds({ told, way }: { told: Comparison; way: WayCard }) {
  const [box, W] = useRoom<HTMLDivElement>(MOST_WIDE);
  const zone = way.zone.map((item): Point => [item.hydration_pct, item.sugar_pct]);
  const points = [
    ...zone,
    ...[...told.hers.outline, ...told.mine.outline].map((item): Point => [item.water, item.sugar]),
  ];
  const scale = (at: 0 | 1, from: number, to: number) => {
    const all = points.map((point) => point[at]);
    const [low, high] = [Math.min(...all), Math.max(...all)];
    const room = Math.max(1, (high - low) * 0.08);
    return scaleLinear([Math.max(0, low - room), high + room], [from, to]);
  };
  const x = scale(0, PAD.left, W - PAD.right);
  const y = scale(1, H - PAD.bottom, PAD.top);
  const path = line<Point>()
    .x((point) => x(point[0]))
    .y((point) => y(point[1]));
  const zonePath = path.curve(curveCatmullRomClosed.alpha(0.5))(zone) ?? "";
  const says = (["hers", "mine"] as const)
    .map((which) => {
      const { hydration, sugar } = told[which];
      return t`${said(which)}: water ${hydration.low.toFixed(0)} to ${hydration.high.toFixed(0)} %, sugar ${sugar.low.toFixed(0)} to ${sugar.high.toFixed(0)} %`;
    })
    .join("; ");
  return (
    <div ref={box}>
      <Drawing viewBox={`0 0 ${W} ${H}`} className="block w-full" role="img" aria-label={t`Map: ${says}`}>
        <defs>
          <pattern id="hers-stripes" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="8" stroke="var(--color-look)" strokeWidth="2.5" />
          </pattern>
        </defs>
        <path d={zonePath} fill={fill("starch")} stroke="var(--color-ink)" strokeDasharray="7 4" strokeWidth="1.5" />
        <Axis
          along="bottom"
          from={PAD.left}
          to={W - PAD.right}
          cross={H - PAD.bottom}
          ticks={x.ticks(W < 480 ? 4 : 6).map((tick) => ({ at: x(tick), text: `${tick}` }))}
        />
        <Axis
          along="left"
          from={PAD.top}
          to={H - PAD.bottom}
          cross={PAD.left}
          ticks={y.ticks(6).map((tick) => ({ at: y(tick), text: `${tick}` }))}
        />
        <Label x={PAD.left} y={15} size={14} tone="ink2">
          <Trans>sugar to {said(way.base)}, %</Trans>
        </Label>
        <Label x={W - PAD.right} y={H - 12} size={14} anchor="end" tone="ink2">
          {way.base === "grain" ? t`water to dry grain, %` : t`water to flour, %`}
        </Label>
        <OneCloud at={told.hers} x={x} y={y} name={t`hers`} pattern="url(#hers-stripes)" line="var(--color-look)" />
        <OneCloud
          at={told.mine}
          x={x}
          y={y}
          name={t`mine`}
          pattern="var(--color-bean)"
          line="var(--color-bean)"
          solid
        />
      </Drawing>
    </div>
  );
}

type Scale = (value: number) => number;

function OneCloud(props: {
  at: Comparison["hers"];
  x: Scale;
  y: Scale;
  name: string;
  pattern: string;
  line: string;
  solid?: boolean;
}) {
  const { at, x, y, name, pattern, line: stroke, solid } = props;
  const [cx, cy] = [x(at.hydration.likely), y(at.sugar.likely)];
  const points = at.outline.map(({ water, sugar }) => `${x(water).toFixed(1)},${y(sugar).toFixed(1)}`).join(" ");
  const top = Math.min(...at.outline.map(({ sugar }) => y(sugar)));
  return (
    <g data-cloud={name}>
      <polygon points={points} fill={pattern} fillOpacity={solid ? 0.25 : 0.55} stroke={stroke} strokeWidth="2" />
      {solid ? (
        <circle cx={cx} cy={cy} r="7" fill={stroke} stroke="var(--color-paper)" strokeWidth="2" />
      ) : (
        <rect x={cx - 6} y={cy - 6} width="12" height="12" fill="var(--color-paper)" stroke={stroke} strokeWidth="3" />
      )}
      <Label x={cx} y={Math.max(PAD.top + 12, Math.min(top, cy - 12) - 8)} anchor="middle" size={16} halo>
        {name}
      </Label>
    </g>
  );
}

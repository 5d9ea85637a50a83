/** Effective hydration across, sugar up: the way's working zone, earlier batches, and this sheet as a bean to move. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { scaleLinear } from "d3-scale";
import { curveCatmullRomClosed, line } from "d3-shape";
import type { KeyboardEvent } from "react";
import { Link } from "react-router";
import type { MapDot, WayCard } from "../../api/client";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Axis, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";
import { useAim } from "../../ui/useAim";
import { said } from "../../words/said";
import { VERDICTS, VerdictMark } from "./verdict";
import { placed } from "./zoneWords";

const MOST_WIDE = 680;
const H = 404;
const PAD = { left: 56, right: 24, top: 32, bottom: 64 };

interface Props {
  way: WayCard;
  hydration?: number;
  sugar?: number;
  dots: MapDot[];
  /** Between what the two may lie, where amounts were said by the cup. */
  cloud?: { hydration: Range; sugar: Range };
  onMove?: (hydration: number, sugar: number) => void;
}

type Point = [number, number];

const outlineOf = (way: WayCard) => way.zone.map((p): Point => [p.hydration_pct, p.sugar_pct]);

export function MixMap({ way, hydration, sugar, dots, cloud, onMove }: Props) {
  const [box, W] = useRoom<HTMLElement>(MOST_WIDE);
  const { x, y, xTicks, yTicks, step } = scales(way, hydration, sugar, dots, W);
  const outline = line<Point>()
    .x((p) => x(p[0]))
    .y((p) => y(p[1]))
    .curve(curveCatmullRomClosed.alpha(0.5))(outlineOf(way));
  const place = (at: DOMPoint): Point => {
    const [x0 = 0, x1 = 0] = x.domain();
    const [y0 = 0, y1 = 0] = y.domain();
    return [clamp(x.invert(at.x), x0, x1), clamp(y.invert(at.y), Math.max(0, y0), y1)];
  };
  const { aim, put, grab, canvas } = useAim<Point>(`${hydration} ${sugar}`, place, (point) => onMove?.(...point));
  const drift = cloud && !aim ? cloudOf(cloud, x, y) : null;
  const here: Point | null = aim ?? (hydration != null && sugar != null ? [hydration, sugar] : null);

  const words = placed(
    way.zone_words.map((word) => ({ says: word.says, x: x(word.hydration_pct), y: y(word.sugar_pct) })),
    [
      ...dots.map((dot) => ({ x: x(dot.hydration_pct), y: y(dot.sugar_pct), r: 9 })),
      ...(hydration != null && sugar != null
        ? [
            { x: x(hydration), y: y(sugar), r: 20 },
            { x: x(hydration) + 52, y: y(sugar) - 20, r: 30 }, // what it says of itself
          ]
        : []),
    ],
    { left: PAD.left + 4, right: W - 4, top: PAD.top - 8, bottom: H - PAD.bottom - 4 },
  );

  const nudge = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!by || !here || !onMove) return;
    event.preventDefault();
    const [dx = 0, dy = 0] = by;
    const size = event.shiftKey ? step * 5 : step;
    put([Math.max(1, Math.round(here[0]) + dx * size), Math.max(0, Math.round(here[1]) + dy * size)]);
  };

  return (
    <figure ref={box} className="m-0">
      <Drawing
        {...canvas}
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full touch-none select-none"
        role="group"
        aria-label={t`Map: effective hydration across, sugar up`}
      >
        <clipPath id="above-none">
          <rect x="0" y="0" width={W} height={y(0) + 1} />
        </clipPath>
        <path
          d={outline ?? ""}
          clipPath="url(#above-none)"
          fill={fill("starch")}
          stroke="var(--color-ink)"
          strokeDasharray="7 4"
          strokeWidth="1.5"
        />
        <Axis
          along="bottom"
          from={PAD.left}
          to={W - PAD.right}
          cross={H - PAD.bottom}
          ticks={xTicks.map((t) => ({ at: x(t), text: `${t}` }))}
        />
        <Axis
          along="left"
          from={PAD.top}
          to={H - PAD.bottom}
          cross={PAD.left}
          ticks={yTicks.map((t) => ({ at: y(t), text: `${t}` }))}
        />
        <Label x={PAD.left} y={15} size={14} tone="ink2">
          <Trans>sugar to {said(way.base)}, %</Trans>
        </Label>
        <Label x={W - PAD.right} y={H - 14} size={14} anchor="end" tone="ink2">
          {way.base === "grain" ? t`water to dry grain, %` : t`water to flour, %`}
        </Label>
        {words.map((word) => (
          <Label key={word.says} x={word.x} y={word.y} size={14} tone="ink2" anchor={word.anchor} halo>
            {word.says}
          </Label>
        ))}
        {dots.map((dot) => (
          <Link key={dot.id} to={`/log/${dot.id}`} aria-label={`${dot.title}, ${said(dot.verdict)}`}>
            <VerdictMark verdict={dot.verdict} x={x(dot.hydration_pct)} y={y(dot.sugar_pct)} />
          </Link>
        ))}
        {drift && (
          <ellipse {...drift} fill="var(--color-bean)" opacity="0.14" stroke="var(--color-bean)" strokeDasharray="2 4">
            <title>
              <Trans>by the cup: it may lie anywhere here</Trans>
            </title>
          </ellipse>
        )}
        {here && (
          <>
            <path
              d={`M${PAD.left} ${y(here[1])}H${x(here[0])}V${H - PAD.bottom}`}
              fill="none"
              stroke="var(--color-bean)"
              strokeDasharray="3 4"
              data-of="mix.hydration_pct mix.sugar_pct"
            />
            <Label
              x={x(here[0]) + 22}
              y={y(here[1]) - 14}
              bold
              size={19}
              tone="bean"
              halo
              of="mix.hydration_pct mix.sugar_pct"
            >
              {here[0].toFixed(0)} : {here[1].toFixed(0)}
            </Label>
            <g
              transform={`translate(${x(here[0])} ${y(here[1])})`}
              className={onMove ? "group cursor-grab outline-none active:cursor-grabbing" : undefined}
              {...(onMove && {
                tabIndex: 0,
                role: "slider",
                "aria-label": t`This sheet: water and sugar. Arrow keys move it`,
                "aria-valuetext": t`${here[0].toFixed(0)} % water, ${here[1].toFixed(0)} % sugar`,
                "aria-valuenow": Math.round(here[0]),
                onKeyDown: nudge,
                onPointerDown: grab,
              })}
            >
              <circle r="26" fill="transparent" />
              <circle
                r="20"
                fill="none"
                strokeWidth="3"
                className="stroke-transparent group-focus-visible:stroke-ink"
              />
              <ellipse rx="15" ry="10" transform="rotate(-18)" fill="var(--color-bean)" />
              <path
                d="M-8 -1q5-6 13-5"
                stroke="var(--color-paper)"
                strokeWidth="1.6"
                fill="none"
                strokeLinecap="round"
              />
            </g>
          </>
        )}
      </Drawing>
      <figcaption className="flex flex-wrap gap-x-5 gap-y-1 pl-[8%] text-sm text-ink2">
        {VERDICTS.filter((verdict) => dots.some((dot) => dot.verdict === verdict)).map((verdict) => (
          <span key={verdict} className="inline-flex items-center gap-1.5">
            <svg width="20" height="18" aria-hidden="true">
              <VerdictMark verdict={verdict} x={10} y={9} size={7} />
            </svg>
            {said(verdict)}
          </span>
        ))}
        {cloud && (
          <span>
            <Trans>shaded: where it may lie, measured by the cup</Trans>
          </span>
        )}
        <span>
          <Trans>{dots.length ? t`${dots.length} of your batches; ` : ""}dashed: where this way works</Trans>
        </span>
      </figcaption>
    </figure>
  );
}

type Range = [number, number];
type Scale = (value: number) => number;

/** The cloud's outline: as far to each side as the amounts may be off that way. */
function cloudOf({ hydration, sugar }: NonNullable<Props["cloud"]>, x: Scale, y: Scale) {
  const [left, right] = hydration.map(x) as Range;
  const [low, high] = sugar.map(y) as Range;
  return {
    cx: (left + right) / 2,
    cy: (low + high) / 2,
    rx: Math.max(14, (right - left) / 2),
    ry: Math.max(12, (low - high) / 2),
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));

function scales(way: WayCard, hydration: number | undefined, sugar: number | undefined, dots: MapDot[], wide: number) {
  const points = [
    ...outlineOf(way),
    ...way.zone_words.map((word): Point => [word.hydration_pct, word.sugar_pct]),
    ...dots.map((dot): Point => [dot.hydration_pct, dot.sugar_pct]),
  ];
  // The frame stays put while the bean moves inside the usual range; only a bean far outside widens it.
  const zoneX = outlineOf(way).map((p) => p[0]);
  const span = Math.max(...zoneX) - Math.min(...zoneX);
  if (hydration != null && sugar != null) points.push([hydration, sugar]);
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const tall = Math.max(...ys) - Math.min(...ys);
  const x = scaleLinear()
    .domain([Math.min(...xs) - span * 0.12, Math.max(...xs) + span * 0.12])
    .range([PAD.left, wide - PAD.right]);
  const y = scaleLinear()
    .domain([Math.max(-tall * 0.04, Math.min(...ys) - tall * 0.12), Math.max(...ys) + tall * 0.1])
    .range([H - PAD.bottom, PAD.top]);
  return { x, y, xTicks: x.ticks(wide < 480 ? 4 : 6), yTicks: y.ticks(6), step: span > 40 ? 2 : 1 };
}

/** A day as lanes, true to time: whose hands, which burner, the steamer, the oven, the cold; quiet hours folded. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ReactNode } from "react";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { KitchenSettings, Plan } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Label } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";
import { fill } from "../ui/materials";
import { pointIn } from "../ui/useAim";
import { minutes, wallClock } from "../ui/words";
import { Bar } from "./LaneBar";
import { LEFT, lanesOf, MIN, ROW, TOP, ticks, W } from "./lanes";
import type { Scheduled } from "./slip";
import { quietSpans, type Span, type TimeScale, timeScale } from "./timescale";

interface Props {
  plan: Plan;
  kitchen: KitchenSettings;
  /** Sheets by their numbers, where there are several. */
  dishes: readonly string[];
  picked?: Scheduled | null;
  onPick?: (item: Scheduled) => void;
  /** A step was carried to another minute, or nudged there. */
  onCarry?: (item: Scheduled, begins: Date) => void;
  pinned?: (item: Scheduled) => boolean;
  /** The table was dragged by so many minutes. */
  onShift?: (minutes: number) => void;
  now?: number;
}

export function DayLanes({ plan, kitchen, dishes, picked, onPick, onCarry, pinned, onShift, now }: Props) {
  const formatters = useFormatters();
  const { timeOfDay } = formatters;
  const canvas = useRef<SVGSVGElement>(null);
  const [carried, setCarried] = useState<{ id: string; from: number; by: number } | null>(null);
  const zone = kitchen.timezone;
  const from = Date.parse(plan.begin);
  const to = Date.parse(plan.serve);
  const quiet = quietSpans(from, to, kitchen.quiet, (at) => wallClock(new Date(at), zone));
  const busy: Span[] = plan.scheduled
    .filter((item) => item.step.hands !== "free")
    .map((item) => ({ from: Date.parse(item.starts), to: Date.parse(item.ends) }));
  const scale = timeScale(from, to, LEFT, W - 34, quiet, busy);
  const lanes = lanesOf(plan, scale, dishes.length > 1);
  let y = TOP;
  const placed = lanes.map((lane) => {
    const top = y;
    y += lane.rows.length * ROW + 8;
    return { ...lane, top };
  });
  const bottom = y;
  const idOf = (item: Scheduled) => `${item.dish}:${item.step.id}`;
  const press = (item: Scheduled) => (event: PointerEvent<SVGGElement>) => {
    onPick?.(item);
    if (!onCarry) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setCarried({ id: idOf(item), from: pointIn(canvas.current, event).x, by: 0 });
  };
  const move = (event: PointerEvent) => {
    if (carried) setCarried({ ...carried, by: pointIn(canvas.current, event).x - carried.from });
  };
  const drop = (item: Scheduled) => () => {
    if (carried && Math.abs(carried.by) > 4) {
      const at = scale.at(scale.x(Date.parse(item.starts)) + carried.by);
      onCarry?.(item, new Date(Math.round(at / (5 * MIN)) * 5 * MIN));
    }
    setCarried(null);
  };
  const keys = (item: Scheduled) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: -5, ArrowRight: 5 }[event.key];
    if (by && onCarry) {
      event.preventDefault();
      onCarry(item, new Date(Date.parse(item.starts) + by * MIN));
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      onPick?.(item);
    }
  };
  return (
    <div className="mt-4">
      <div className="-mx-4 overflow-x-auto px-4 sm:mx-0 sm:px-0">
        <Drawing
          ref={canvas}
          viewBox={`0 0 ${W} ${bottom + 4}`}
          className="block w-full min-w-[1120px]"
          role="group"
          aria-label={t`The day from ${timeOfDay(plan.begin, zone)} to ${timeOfDay(plan.serve, zone)}`}
        >
          <Nights quiet={quiet} scale={scale} bottom={bottom} zone={zone} />
          {ticks(formatters, scale, zone).map(([at, words, isDay]) => (
            <g key={at}>
              <line x1={scale.x(at)} x2={scale.x(at)} y1="33" y2={bottom} stroke="var(--color-hair)" />
              <Label x={scale.x(at)} y={isDay ? 15 : 29} anchor="middle" size={14} tone="ink2" bold={isDay}>
                {words}
              </Label>
            </g>
          ))}
          {placed.map((lane) => (
            <g key={lane.name}>
              <Label x={0} y={lane.top + 19} size={16} bold>
                {lane.name}
              </Label>
              {lane.rows.map((row, r) =>
                row.map((laid) => (
                  <Bar
                    key={idOf(laid.one)}
                    laid={laid}
                    hands={lane.hands}
                    by={carried?.id === idOf(laid.one) ? carried.by : 0}
                    y={lane.top + r * ROW}
                    isPicked={picked != null && idOf(picked) === idOf(laid.one)}
                    isPinned={pinned?.(laid.one) ?? false}
                    zone={zone}
                    live={onPick != null}
                    onPointerDown={press(laid.one)}
                    onPointerMove={move}
                    onPointerUp={drop(laid.one)}
                    onPointerCancel={() => setCarried(null)}
                    onKeyDown={keys(laid.one)}
                  />
                )),
              )}
              <line
                x1="0"
                x2={W}
                y1={lane.top + lane.rows.length * ROW + 3}
                y2={lane.top + lane.rows.length * ROW + 3}
                stroke="var(--color-hair)"
              />
            </g>
          ))}
          {now != null && now > from && now < to && (
            <line x1={scale.x(now)} x2={scale.x(now)} y1="30" y2={bottom} stroke="var(--color-bean)" strokeWidth="2" />
          )}
          <Table
            scale={scale}
            bottom={bottom}
            zone={zone}
            under={(event) => pointIn(canvas.current, event).x}
            onShift={onShift}
          />
        </Drawing>
      </div>
      <p className="mt-1 flex flex-wrap gap-x-6 gap-y-1 text-sm text-ink2">
        <Key hands="held">
          <Trans>held: takes the hands</Trans>
        </Key>
        <Key hands="minded">
          <Trans>minded: look every few minutes</Trans>
        </Key>
        <Key hands="free">
          <Trans>goes by itself</Trans>
        </Key>
        <span>
          <Trans>shaded: quiet hours</Trans>
        </span>
      </p>
    </div>
  );
}

interface TableProps {
  scale: TimeScale;
  bottom: number;
  zone: string;
  under: (event: PointerEvent) => number;
  onShift?: (minutes: number) => void;
}

/** When people eat: a line to drag to another time, where that may be. */
function Table({ scale, bottom, zone, under, onShift }: TableProps) {
  const { timeOfDay } = useFormatters();
  const [drag, setDrag] = useState<{ from: number; by: number } | null>(null);
  const x = scale.x(scale.to);
  const line = <line x1={x} x2={x} y1="30" y2={bottom} stroke="var(--color-bean)" strokeWidth="3" />;
  if (!onShift) return line;
  const perMinute = (scale.to - scale.at(x - 100)) / 100 / MIN;
  return (
    <g
      className="cursor-ew-resize touch-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ from: under(event), by: 0 });
      }}
      onPointerMove={(event) => {
        if (drag) setDrag({ ...drag, by: Math.round(((under(event) - drag.from) * perMinute) / 5) * 5 });
      }}
      onPointerUp={() => {
        if (drag?.by) onShift(drag.by);
        setDrag(null);
      }}
      onPointerCancel={() => setDrag(null)}
    >
      <title>
        <Trans>The table: drag it to another time</Trans>
      </title>
      <rect x={x - 16} y="0" width="50" height={bottom} fill="transparent" />
      {line}
      <path d={`M${x + 8} 34l-6 6l6 6m8 -12l6 6l-6 6`} fill="none" stroke="var(--color-bean)" strokeWidth="2" />
      {drag && (
        <Label x={x - 8} y={bottom / 2} anchor="end" bold size={22} tone="bean" halo>
          {timeOfDay(new Date(scale.to + drag.by * MIN), zone)}
        </Label>
      )}
    </g>
  );
}

function Nights({ quiet, scale, bottom, zone }: { quiet: Span[]; scale: TimeScale; bottom: number; zone: string }) {
  const { timeOfDay } = useFormatters();
  return (
    <>
      {quiet.map((night) => (
        <rect
          key={night.from}
          x={scale.x(night.from)}
          y="30"
          width={Math.max(0, scale.x(night.to) - scale.x(night.from))}
          height={bottom - 30}
          fill="var(--color-ink)"
          opacity="0.1"
        />
      ))}
      {scale.folds.map((fold) => (
        <g key={fold.from}>
          <title>{t`Folded: ${timeOfDay(new Date(fold.from), zone)} to ${timeOfDay(new Date(fold.to), zone)}`}</title>
          <path
            d={`M${fold.x + fold.wide / 2 - 4} 30l8 8l-8 8l8 8M${fold.x + fold.wide / 2 - 4} ${bottom - 24}l8 8l-8 8`}
            fill="none"
            stroke="var(--color-ink2)"
          />
        </g>
      ))}
    </>
  );
}

function Key({ hands, children }: { hands: "held" | "minded" | "free"; children: ReactNode }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width="28" height="14" aria-hidden="true">
        <rect
          x="1"
          y={hands === "free" ? 4 : 1}
          width="26"
          height={hands === "free" ? 6 : 12}
          stroke="var(--color-ink)"
          fill={hands === "held" ? "var(--color-bean)" : hands === "minded" ? "var(--color-sheet)" : fill("water")}
        />
        {hands === "minded" && <rect x="1" y="1" width="4" height="12" fill="var(--color-bean)" />}
      </svg>
      {children}
    </span>
  );
}

/** "34 min", "2 h 18". */
export const lasts = (item: Scheduled) => `${minutes(item.step.minutes)}${item.step.minutes < 90 ? t` min` : ""}`;

/** The plan as lanes: whose hands, which burner, the steamer, the cold, the counter; night shaded. */

import { scaleTime } from "d3-scale";
import { type PointerEvent, useRef, useState } from "react";
import type { KitchenSettings, Plan } from "../api/client";
import { Label } from "../ui/dimension";
import { fill } from "../ui/materials";
import { pointIn } from "../ui/useAim";
import { minutes, timeOfDay, WORK_WORDS } from "../ui/words";

type Scheduled = Plan["scheduled"][number];
interface LaneSpec {
  name: string;
  takes: (one: Scheduled) => boolean;
  look: (one: Scheduled) => { fill: string; opacity?: number };
}

const held = { fill: "var(--color-bean)" };
const minded = { fill: fill("filling"), opacity: 0.55 };
const LANES: LaneSpec[] = [
  {
    name: "hands",
    takes: (one) => one.step.hands !== "free",
    look: (one) => (one.step.hands === "held" ? held : minded),
  },
  {
    name: "burners",
    takes: (one) => one.step.uses.includes("burner"),
    look: () => ({ fill: fill("sugar") }),
  },
  {
    name: "steamer",
    takes: (one) => one.step.uses.includes("steamer"),
    look: () => ({ fill: fill("steam") }),
  },
  {
    name: "cold",
    takes: (one) => one.step.uses.some((use) => use === "freezer" || use === "fridge"),
    look: () => ({ fill: fill("water") }),
  },
  {
    name: "counter",
    takes: (one) => one.step.hands === "free" && one.step.uses.includes("counter"),
    look: () => ({ fill: fill("starch") }),
  },
];
const W = 1200;
const LEFT = 110;
const ROW = 26;

interface Props {
  plan: Plan;
  kitchen: KitchenSettings;
  /** The table was dragged by so many minutes. */
  onShift: (minutes: number) => void;
}

export function Lanes({ plan, kitchen, onShift }: Props) {
  const canvas = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ from: number; by: number } | null>(null);
  const from = Date.parse(plan.begin);
  const to = Date.parse(plan.serve);
  const x = scaleTime()
    .domain([from, to])
    .range([LEFT, W - 30]);
  const lanes = LANES.map((lane) => ({ ...lane, rows: stacked(plan.scheduled.filter(lane.takes)) })).filter(
    (lane) => lane.rows.length > 0,
  );
  let y = 34;
  const placed = lanes.map((lane) => {
    const top = y;
    y += lane.rows.length * ROW + 12;
    return { ...lane, top };
  });
  const bottom = y;
  const nights = quiet(plan, kitchen);
  const under = (event: PointerEvent) => pointIn(canvas.current, event).x;
  return (
    <div className="mt-4">
      <div className="-mx-4 overflow-x-auto px-4 [--label-scale:1.45] sm:mx-0 sm:px-0 lg:[--label-scale:1]">
        <svg
          ref={canvas}
          viewBox={`0 0 ${W} ${bottom + 6}`}
          className="block w-full min-w-[740px]"
          role="img"
          aria-label={`The plan from ${timeOfDay(plan.begin, kitchen.timezone)} to ${timeOfDay(plan.serve, kitchen.timezone)}`}
        >
          {nights.map(([a, b]) => (
            <rect
              key={a}
              x={x(Math.max(a, from))}
              y={20}
              width={Math.max(0, x(Math.min(b, to)) - x(Math.max(a, from)))}
              height={bottom - 20}
              fill="var(--color-ink)"
              opacity="0.1"
            />
          ))}
          {x.ticks(9).map((tick) => (
            <g key={tick.getTime()}>
              <line x1={x(tick)} x2={x(tick)} y1="22" y2={bottom} stroke="var(--color-hair)" />
              <Label x={x(tick)} y={15} anchor="middle" size={14} tone="ink2">
                {timeOfDay(tick, kitchen.timezone)}
              </Label>
            </g>
          ))}
          {placed.map((lane) => (
            <g key={lane.name}>
              <Label x={0} y={lane.top + 18} size={15} bold>
                {lane.name}
              </Label>
              {lane.rows.map((row, r) =>
                row.map((one) => {
                  const left = x(Date.parse(one.starts));
                  const wide = Math.max(3, x(Date.parse(one.ends)) - left);
                  return (
                    <rect
                      key={one.step.id}
                      x={left}
                      y={lane.top + r * ROW + 3}
                      width={wide}
                      height={ROW - 7}
                      {...lane.look(one)}
                      stroke="var(--color-ink)"
                      strokeWidth="1"
                      data-step={one.step.id}
                    >
                      <title>{`${one.step.title}, ${minutes(one.step.minutes)} min`}</title>
                    </rect>
                  );
                }),
              )}
              <line
                x1="0"
                x2={W}
                y1={lane.top + lane.rows.length * ROW + 5}
                y2={lane.top + lane.rows.length * ROW + 5}
                stroke="var(--color-hair)"
                strokeWidth="0.7"
              />
            </g>
          ))}
          <g
            className="cursor-ew-resize touch-none"
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              setDrag({ from: under(event), by: 0 });
            }}
            onPointerMove={(event) => {
              if (!drag) return;
              const perMinute = (W - 30 - LEFT) / ((to - from) / 60_000);
              setDrag({ ...drag, by: Math.round((under(event) - drag.from) / perMinute / 5) * 5 });
            }}
            onPointerUp={() => {
              if (drag?.by) onShift(drag.by);
              setDrag(null);
            }}
            onPointerCancel={() => setDrag(null)}
          >
            <title>The table: drag it to another time</title>
            <rect x={x(to) - 22} y="0" width="44" height={bottom} fill="transparent" />
            <line x1={x(to)} x2={x(to)} y1="18" y2={bottom} stroke="var(--color-bean)" strokeWidth="2.5" />
            <path
              d={`M${x(to) - 9} ${bottom / 2}l-7 7l7 7m18 -14l7 7l-7 7`}
              fill="none"
              stroke="var(--color-bean)"
              strokeWidth="2"
            />
            {drag && (
              <Label x={x(to) - 24} y={bottom / 2 - 12} anchor="end" bold size={22} tone="bean" halo>
                {timeOfDay(new Date(to + drag.by * 60_000), kitchen.timezone)}
              </Label>
            )}
          </g>
        </svg>
      </div>
      <p className="mt-1 flex flex-wrap gap-x-6 text-sm text-ink2">
        <Key look={held}>hands held</Key>
        <Key look={minded}>minded: look every few minutes</Key>
        <span>shaded: quiet hours</span>
      </p>
    </div>
  );
}

/** The same plan in words, in the order of the clock. */
export function Steps({ plan, zone }: { plan: Plan; zone: string }) {
  return (
    <ol className="mt-5 border-t border-hair pt-2 pb-8 gap-x-12 lg:columns-2">
      {plan.scheduled.map((one) => (
        <li key={one.step.id} className="hairline flex break-inside-avoid items-baseline gap-4 py-1.5">
          <b className="w-12 shrink-0">{timeOfDay(one.starts, zone)}</b>
          <span className="flex-1">
            {one.step.title}
            {one.step.tools.length > 0 && (
              <span className="block text-sm text-ink2">set out {one.step.tools.join(", ")}</span>
            )}
          </span>
          <span className="text-ink2">
            {minutes(one.step.minutes)}
            {one.step.minutes < 90 ? " min" : ""}
            {one.step.hands === "free" ? "" : `, ${one.step.hands}, ${WORK_WORDS[one.step.work]}`}
          </span>
        </li>
      ))}
      <li className="flex items-baseline gap-4 py-1.5 text-bean">
        <b className="w-12 shrink-0">{timeOfDay(plan.serve, zone)}</b>
        <b>on the table</b>
      </li>
    </ol>
  );
}

function Key({ look, children }: { look: { fill: string; opacity?: number }; children: string }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <svg width="26" height="14" aria-hidden="true">
        <rect x="1" y="1" width="24" height="12" stroke="var(--color-ink)" {...look} />
      </svg>
      {children}
    </span>
  );
}

/** Rows in which nothing overlaps. */
function stacked(steps: Scheduled[]): Scheduled[][] {
  const rows: Scheduled[][] = [];
  for (const step of steps) {
    const row = rows.find((one) => (one.at(-1)?.ends ?? "") <= step.starts);
    if (row) row.push(step);
    else rows.push([step]);
  }
  return rows;
}

/** Quiet hours that fall into the plan, as pairs of instants, on the kitchen's clock. */
function quiet(plan: Plan, kitchen: KitchenSettings): [number, number][] {
  const from = Date.parse(plan.begin);
  const to = Date.parse(plan.serve);
  const found: [number, number][] = [];
  let began: number | null = null;
  for (let at = from; at <= to; at += 5 * 60_000) {
    const now = timeOfDay(new Date(at), kitchen.timezone);
    const { begins, ends } = kitchen.quiet;
    const inside = begins <= ends ? now >= begins && now < ends : now >= begins || now < ends;
    if (inside && began == null) began = at;
    if (!inside && began != null) {
      found.push([began, at]);
      began = null;
    }
  }
  if (began != null) found.push([began, to]);
  return found;
}

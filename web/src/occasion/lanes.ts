/** Where every step of a day lies in its lane: bars, names and hours, in the units of the drawing. */

import { t } from "@lingui/core/macro";
import type { Plan } from "../api/client";
import type { Formatters } from "../ui/formatters";
import { dayOf } from "../ui/words";
import type { Scheduled } from "./slip";
import type { TimeScale } from "./timescale";

export const W = 1200;
export const LEFT = 118;
export const ROW = 34;
export const BAR = 26;
export const TOP = 44;
export const MIN = 60_000;
export const THINGS: readonly (readonly [string, string])[] = [
  ["burner", t`burners`],
  ["steamer", t`steamer`],
  ["oven", t`oven`],
  ["microwave", t`microwave`],
  ["cooker", t`rice cooker`],
  ["toaster", t`toaster`],
  ["machine", t`machine`],
  ["fridge", t`fridge`],
  ["freezer", t`freezer`],
];

/** A step with its bar and where its name is written, in the drawing's units. */
export interface Laid {
  one: Scheduled;
  left: number;
  right: number;
  name: string;
  where: "in" | "right" | "left" | "over";
}

export interface Lane {
  name: string;
  rows: Laid[][];
  /** Of hands: by how they hold. Of a thing: how long it is taken. */
  hands: boolean;
}

/** Hours to tell, as many as there is room for, and a day's name where it begins. */
export function ticks(formatters: Formatters, scale: TimeScale, zone: string): [number, string, boolean][] {
  const result: [number, string, boolean][] = [];
  const hours =
    (scale.to - scale.from - scale.folds.reduce((sum, piece) => sum + piece.to - piece.from, 0)) / (60 * MIN);
  const every = [0.5, 1, 2, 3, 6].find((each) => hours / each <= 13) ?? 12;
  let last = Number.NEGATIVE_INFINITY;
  for (let at = Math.ceil(scale.from / (every * 60 * MIN)) * every * 60 * MIN; at < scale.to; at += every * 60 * MIN) {
    const x = scale.x(at);
    if (x - last < 58 || scale.folds.some((fold) => at > fold.from && at < fold.to)) continue;
    result.push([at, formatters.timeOfDay(new Date(at), zone), false]);
    last = x;
  }
  const days = new Map<string, number>();
  for (let at = scale.from; at < scale.to; at += 60 * MIN) {
    const day = dayOf(new Date(at), zone);
    if (!days.has(day)) days.set(day, at);
  }
  for (const [day, at] of days) result.push([at + 1, day, true]);
  return result;
}

export function lanesOf(plan: Plan, scale: TimeScale, numbered: boolean): Lane[] {
  const people = [...new Set(plan.scheduled.map((item) => item.who).filter(Boolean))].sort();
  const handed = plan.scheduled.filter((item) => item.step.hands !== "free");
  const lane = (name: string, steps: Scheduled[], hands: boolean): Lane => ({
    name,
    hands,
    rows: stacked(steps.map((step) => laidOut(step, scale, numbered, hands && step.step.hands !== "free"))),
  });
  const lanes = people.length
    ? people.map((name) =>
        lane(
          name,
          handed.filter((item) => item.who === name),
          true,
        ),
      )
    : [lane("hands", handed, true)];
  const nobody = handed.filter((item) => people.length > 0 && !item.who);
  if (nobody.length) lanes.push(lane("together", nobody, true));
  for (const [use, name] of THINGS) {
    const users = plan.scheduled.filter((item) => item.step.uses.includes(use));
    if (users.length) lanes.push(lane(name, users, false));
  }
  const waits = plan.scheduled.filter(
    (item) => item.step.hands === "free" && !item.step.uses.some((use) => THINGS.some(([name]) => name === use)),
  );
  if (waits.length) lanes.push(lane(t`waits`, waits, false));
  return lanes;
}

export const LETTER = 7.3;

/** Its bar, and its name where there is room: in a block that is long enough, over a rail, else beside it. */
export function laidOut(item: Scheduled, scale: TimeScale, numbered: boolean, isBlock: boolean): Laid {
  const left = scale.x(Date.parse(item.starts));
  const right = Math.max(left + 4, scale.x(Date.parse(item.ends)));
  const name = numbered ? `${item.dish + 1} ${item.step.title}` : item.step.title;
  const wide = name.length * LETTER;
  const fitsRight = (isBlock ? right : left) + wide < W;
  const where = isBlock
    ? wide + 14 < right - left
      ? "in"
      : fitsRight
        ? "right"
        : "left"
    : fitsRight
      ? "over"
      : "left";
  return { one: item, left, right, name, where };
}

/** From where to where a step takes its row, its name counted in. */
export function room({ left, right, name, where }: Laid): [number, number] {
  const wide = name.length * LETTER + 10;
  if (where === "left") return [left - wide, right];
  return [left, Math.max(right, where === "right" ? right + wide : where === "over" ? left + wide : right)];
}

/** Rows in which nothing overlaps, names included. */
export function stacked(steps: Laid[]): Laid[][] {
  const rows: Laid[][] = [];
  for (const step of steps) {
    const [left] = room(step);
    const row = rows.find((row) => row.every((other) => room(other)[1] <= left));
    if (row) row.push(step);
    else rows.push([step]);
  }
  return rows;
}

/** Why a step lies where it does: what it waits for, and how far it can slip before something else must move. */

import type { Plan } from "../api/client";

export type Scheduled = Plan["scheduled"][number];

export interface Reason {
  /** What it comes after, and how many minutes lie between. */
  after: { step: Scheduled; gap: number; atLeast: number; atMost: number | null }[];
  /** How many minutes later it could begin, and what stops it; null when only the table does. */
  slip: number;
  before: Scheduled | null;
}

const minute = (instant: string) => Date.parse(instant) / 60_000;

export function reasonOf(plan: Plan, item: Scheduled): Reason {
  const mine = plan.scheduled.filter((other) => other.dish === item.dish);
  const byId = new Map(mine.map((other) => [other.step.id, other]));
  const after = item.step.after.flatMap((wait) => {
    const step = byId.get(wait.step);
    if (!step) return [];
    const gap = minute(item.starts) - minute(step.ends);
    return [{ step, gap, atLeast: wait.at_least, atMost: wait.at_most }];
  });
  let slip = minute(plan.serve) - minute(item.ends);
  let before: Scheduled | null = null;
  const holds = (by: number, step: Scheduled) => {
    if (by < slip) {
      slip = by;
      before = step;
    }
  };
  for (const other of mine)
    for (const wait of other.step.after)
      if (wait.step === item.step.id) holds(minute(other.starts) - minute(item.ends) - wait.at_least, other);
  for (const wait of after) if (wait.atMost != null) holds(wait.atMost - wait.gap, wait.step);
  return { after, slip: Math.max(0, Math.round(slip)), before };
}

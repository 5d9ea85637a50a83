/**
 * What a cook changes of the method while it is being made: a plan with such entries laid on it. The same rules as
 * `kemble/core/run/amendments.py`.
 */

import type { OwnStep, Plan, StepChange, StepResult } from "../api/client";

type Scheduled = Plan["scheduled"][number];
export type Amendment = StepChange | OwnStep;

const MINUTE = 60_000;
const HANDS = { both: "held", eye: "minded", none: "free" } as const;
const later = (instant: string, minutes: number) => new Date(Date.parse(instant) + minutes * MINUTE).toISOString();

export const isOwnStep = (entry: Amendment): entry is OwnStep => "own" in entry;

export function withAmendments(plan: Plan, entries: readonly Amendment[]): Plan {
  let { scheduled } = plan;
  for (const entry of entries)
    scheduled = isOwnStep(entry)
      ? withOwn(scheduled, entry)
      : scheduled.map((item) => (item.step.id === entry.step ? changed(item, entry) : item));
  return entries.length ? { ...plan, scheduled } : plan;
}

function changed(item: Scheduled, entry: StepChange): Scheduled {
  const step = entry.words ? { ...item.step, own_words: entry.words } : item.step;
  if (entry.minutes == null) return { ...item, step };
  return { ...item, step: withGivenTime(step, entry.minutes, entry.by ?? ""), ends: later(item.starts, entry.minutes) };
}

/** The step with a time that somebody gave, which its clock goes by; Kemble's own stands in `predicted`. */
function withGivenTime(step: StepResult, minutes: number, by: string): StepResult {
  const { between, window } = step;
  const ours = step.predicted ?? { minutes: step.minutes, between: between ?? null, window };
  const judged = step.window != null || step.cue != null;
  return {
    ...step,
    given: { minutes, by, is_used: true },
    predicted: ours,
    minutes,
    window: ours.window
      ? {
          first_check: Math.min(ours.window.first_check, minutes),
          done: ours.window.done,
          latest: Math.max(ours.window.latest, minutes),
        }
      : null,
    between: judged ? (between ?? null) : null,
    hangs: judged ? step.hangs : {},
  };
}

/** One more step behind another; whatever waited for that waits for it too. */
function withOwn(scheduled: Scheduled[], own: OwnStep): Scheduled[] {
  const at = scheduled.findIndex((item) => item.step.id === own.after);
  const before = scheduled[at];
  if (!before || own.minutes == null || scheduled.some((item) => item.step.id === own.own)) return scheduled;
  const wait = { step: own.own, at_least: 0, at_most: null };
  const step: StepResult = {
    id: own.own,
    part: before.step.part ?? null,
    entry: own.own,
    title: own.title,
    words: "",
    own_words: own.words ?? "",
    asks: "",
    minutes: own.minutes,
    fact: "",
    hands: HANDS[own.hands ?? "both"],
    work: "safe",
    tools: [],
    uses: [],
    after: [{ step: own.after ?? "", at_least: 0, at_most: null }],
    cue: null,
    between: null,
    window: null,
    hangs: {},
    target: null,
    to_hand: [],
    brings: [],
    vessel: null,
    cautions: [],
    rhythm: null,
    count: null,
    bounds: null,
    given: null,
    predicted: null,
    texts: [],
    tins: [],
    serves: false,
  };
  const added = { ...before, step, starts: before.ends, ends: later(before.ends, own.minutes) };
  const waiting = scheduled.map((item) =>
    item.step.after.some((other) => other.step === own.after) &&
    !item.step.after.some((other) => other.step === own.own)
      ? { ...item, step: { ...item.step, after: [...item.step.after, wait] } }
      : item,
  );
  return [...waiting.slice(0, at + 1), added, ...waiting.slice(at + 1)];
}

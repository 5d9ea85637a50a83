/**
 * The page's fold gives what the server's does: the same frozen histories run through both
 * (tests/core/run/test_histories.py).
 */

import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import type { Plan, RunState, StepResult, StepState } from "../api/client";
import { type CoreCurve, type Event, planNow, stateOf, takeable, urgency } from "./fold";

interface History {
  now: string;
  unit: "C" | "F";
  events: Event[];
  state: RunState;
}
interface Kept {
  plan: Plan;
  /** As these were frozen: by the word of that time. */
  heart: (Omit<CoreCurve, "curve"> & { curve: { minutes: number[]; heart_c: number[]; surface_c: number[] } }) | null;
  histories: History[];
}

const coreOf = ({ heart }: Kept): CoreCurve | null => {
  if (!heart) return null;
  const { heart_c, ...curve } = heart.curve;
  return { ...heart, curve: { ...curve, core_c: heart_c } };
};

const result = import.meta.glob<Kept>("../../../tests/fixtures/histories/*.json", { eager: true, import: "default" });
const files = Object.entries(result).map(([path, kept]) => [path.split("/").at(-1), kept] as const);
const all = files.flatMap(([name, kept]) =>
  kept.histories.map((history, i) => [`${name} ${i}`, kept, history] as const),
);

/** Histories in which every kind of event follows every other (scripts/freeze_histories.py). */
const pairs = JSON.parse(
  gunzipSync(readFileSync(new URL("../../../tests/fixtures/histories/every-pair.json.gz", import.meta.url))).toString(),
) as { plan: Plan; core: CoreCurve; histories: History[] };

/** Where two answers differ: by more than two milliseconds, a thousandth, or at all. The server keeps microseconds. */
function differences(mine: unknown, theirs: unknown, path = ""): string[] {
  const apart = [`${path}: ${JSON.stringify(mine)} is not ${JSON.stringify(theirs)}`];
  if (typeof mine === "number" && typeof theirs === "number") return Math.abs(mine - theirs) < 1e-3 ? [] : apart;
  if (typeof mine === "string" && typeof theirs === "string") {
    if (!/^\d{4}-\d\d-\d\dT/.test(theirs)) return mine === theirs ? [] : apart;
    return Math.abs(Date.parse(mine) - Date.parse(theirs)) <= 2 ? [] : apart;
  }
  if (mine && theirs && typeof mine === "object" && typeof theirs === "object") {
    const keys = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
    const at = (item: object, key: string) => (item as Record<string, unknown>)[key];
    return [...keys].flatMap((key) => differences(at(mine, key), at(theirs, key), `${path}.${key}`));
  }
  return Object.is(mine, theirs) ? [] : apart;
}

/** What a state says that it did not say yet when the oldest were frozen: as it is where nothing of it has happened. */
const sinceThen = (state: RunState): RunState => ({
  ...state,
  says: [],
  choices: [],
  steps: state.steps.map((step) => ({ ...step, paused: null, count: 0, who: "" })),
});

describe("a frozen history", () => {
  it("is there to be tried", () => expect(all.length).toBeGreaterThanOrEqual(15));

  it.each(all)("%s leads where it led on the server", (_, kept, { events, now, unit, state }) => {
    const mine = stateOf(kept.plan, events, Date.parse(now), coreOf(kept), unit);
    expect(differences(mine, sinceThen(state))).toEqual([]);
  });
});

describe("every kind of event after every other", () => {
  const kinds = pairs.histories.map(({ events }) => events.slice(-2).map((event) => event.kind));

  it("is there to be tried", () => {
    const all = new Set(kinds.flat());
    expect(new Set(kinds.map(String)).size).toBe(all.size ** 2);
    expect(all.size).toBe(18);
  });

  it.each(pairs.histories.map((history, i) => [`${i}: ${kinds[i]}`, history] as const))(
    "%s",
    (_, { events, now, unit, state }) => {
      const mine = stateOf(pairs.plan, events, Date.parse(now), pairs.core, unit);
      expect(differences(mine, state)).toEqual([]);
    },
  );
});

it("refuses steps that wait for each other in a circle, as the server does", () => {
  const [first, second] = pairs.plan.scheduled.slice(0, 2) as [Plan["scheduled"][number], Plan["scheduled"][number]];
  const waits = (item: typeof first, on: typeof first) => ({
    ...item,
    step: { ...item.step, after: [{ step: on.step.id, at_least: 0, at_most: null }] },
  });
  const circle = { ...pairs.plan, scheduled: [waits(first, second), waits(second, first)] };
  expect(() => stateOf(circle, [], Date.parse(circle.begin))).toThrow("circle");
});

describe("what the pairs seldom show", () => {
  const begin = Date.parse(pairs.plan.begin);
  let uids = 0;
  const event = (kind: Event["kind"], step: string | null, more: object = {}) =>
    ({ uid: `event-${++uids}`, at: pairs.plan.begin, kind, step, ...more }) as Event;
  const stateAfter = (...events: Event[]) => {
    const { steps } = stateOf(pairs.plan, events, begin);
    return (id: string) => steps.find((step) => step.id === id) as StepState;
  };

  it("of one id the first counts", () => {
    const first = event("weighed", "mix", { grams: 300 });
    expect(stateAfter(first, { ...first, grams: 400 } as Event)("mix").weights.map((weight) => weight.grams)).toEqual([
      300,
    ]);
  });
  it("an undo that names nothing goes on backwards", () => {
    const [longer, undone] = [() => event("not_yet", "steam"), () => event("undone", null)];
    const state = stateAfter(event("started", "steam"), longer(), longer(), undone(), undone())("steam");
    expect(Date.parse(state.due as string) - begin).toBe(34 * 60_000);
  });
  it("a step that the plan does not have begins nothing", () => {
    const [soak, syrup, mix, rest] = pairs.plan.scheduled.map((item) => item.step) as [StepResult, ...StepResult[]];
    const wait = [{ step: soak.id, at_least: 0, at_most: null }];
    const steps = [soak, syrup, { ...mix, after: wait }, { ...rest, after: wait }] as StepResult[];
    const plan = { ...pairs.plan, scheduled: steps.map((step, i) => ({ ...pairs.plan.scheduled[i], step })) } as Plan;
    const events = [event("started", "soak"), event("started", "mix"), event("done", "dance")];
    const state = stateOf(plan, events, begin).steps;
    expect(state.map(({ id, status }) => `${id} ${status}`)).toEqual([
      "soak done",
      "syrup ready",
      "mix running",
      "rest ready",
    ]);
  });
});

it("is urgent from its first check on, by when it is due", () => {
  const now = Date.parse("2026-12-04T10:00:00Z");
  const at = (minutes: number) => new Date(now + minutes * 60_000).toISOString();
  const state = { status: "running", due: at(5), planned_starts: at(-30) } as StepState;
  expect(urgency({ ...state, first_check: at(-1) }, "minded", now)).toEqual([0, now + 5 * 60_000]);
  expect(urgency({ ...state, first_check: at(1) }, "minded", now)?.[0]).toBe(3);
  expect(urgency({ ...state, first_check: null }, "minded", now)?.[0]).toBe(3);
});

describe("what can be taken back", () => {
  const plan = (files[0] as (typeof files)[number])[1].plan;
  const event = (uid: string, kind: Event["kind"], of: string | null = null): Event =>
    ({
      uid,
      at: "2026-11-20T09:00:00Z",
      kind,
      step: null,
      text: "x",
      of,
    }) as Event;
  const uids = (...events: Event[]) => {
    const { undo, redo } = takeable(plan, events);
    return [undo?.uid, redo?.uid];
  };
  const [a, b] = [event("a", "noted"), event("b", "fault")];

  it("is whatever came last and stands", () => expect(uids(a, b)).toEqual(["b", undefined]));
  it("then what came before it, and it can stand again", () =>
    expect(uids(a, b, event("u", "undone", "b"))).toEqual(["a", "b"]));
  it("in the order in which it was taken back", () => {
    const both = [a, b, event("u", "undone", "b"), event("v", "undone", "a")];
    expect(uids(...both)).toEqual([undefined, "a"]);
    expect(uids(...both, event("r", "redone", "a"))).toEqual(["a", "b"]);
  });
  it("not once something else was done", () => expect(uids(a, event("u", "undone", "a"), b)).toEqual(["b", undefined]));
  it("never what Kemble planned anew, which leaves what can be taken back", () => {
    const rest = { ...event("p", "replanned"), rest: { scheduled: [], says: [], choices: [], late_min: 0 } } as Event;
    expect(uids(a, rest)).toEqual(["a", undefined]);
    expect(uids(a, b, event("u", "undone", "b"), rest)).toEqual(["a", "b"]);
  });
  it("never that it is finished", () => expect(uids(a, event("f", "finished"))).toEqual(["a", undefined]));
});

describe("a plan of the rest", () => {
  const plan = (files[0] as (typeof files)[number])[1].plan;
  const last = plan.scheduled.at(-1) as Plan["scheduled"][number];
  const LATER = "2027-01-01T12:00:00Z";
  const event = (uid: string, kind: Event["kind"], more: object = {}): Event =>
    ({
      uid,
      at: "2026-11-20T09:00:00Z",
      kind,
      step: last.step.id,
      text: "x",
      of: null,
      ...more,
    }) as Event;
  const moves = (...events: Event[]) => planNow(plan, events).scheduled.at(-1)?.starts === LATER;
  const [note, first, second] = [event("n", "noted"), event("a", "not_yet"), event("b", "not_yet")];
  const rest = { scheduled: [{ ...last, starts: LATER }], says: [], choices: [], late_min: 0 };
  const moved = event("rest", "replanned", { of: "b", rest });
  const back = (of: string) => event(`back ${of}`, "undone", { of });

  it("falls with anything that it was made after, and stands again with it", () => {
    expect(moves(note, first, second, moved)).toBe(true);
    expect(moves(note, first, second, moved, back("b"))).toBe(false);
    expect(moves(note, first, second, moved, back("a"))).toBe(false);
    expect(moves(note, first, second, moved, back("a"), event("r", "redone", { of: "a" }))).toBe(true);
  });
  it("not with what moves nothing, nor with what was away when it was made", () => {
    expect(moves(note, first, second, moved, back("n"))).toBe(true);
    expect(moves(note, first, back("a"), second, moved)).toBe(true);
  });
});

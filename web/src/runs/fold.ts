/**
 * A run's events folded over its plan: where every step stands at an instant. The same rules as `kemble/core/run`,
 * so that a press is seen at once, with or without the network; tests/fixtures/histories holds both to the same answers.
 */

import type { NewEvent, Plan, RunOpen, RunState, StepResult, StepState } from "../api/client";
import { FOLD } from "../api/generated";
import { isOwnStep, withAmendments } from "./amendments";
import { type Probed, type Refit, refit } from "./refit";

export type Event = RunOpen["events"][number];
export type CoreCurve = NonNullable<RunOpen["core"]>;
type Note = RunState["notes"][number];
type Scheduled = Plan["scheduled"][number];

const MINUTE = 60_000;
export const FOR_NOW = 2; // of urgencies, that of what can be begun and is for now
// What an "undone" without an `of` takes back: the newest of these that stands. Early pages sent it so.
const UNDONE_UNNAMED: ReadonlySet<string> = new Set(FOLD.undone_unnamed);
// Kinds that change nothing that comes after them.
const IDLE: ReadonlySet<string> = new Set(FOLD.idle);

/** An event as it is sent, as the server will keep it: pages send the fields of every kind in one form. */
export const eventOf = (sent: NewEvent, at: number): Event =>
  ({ ...sent, at: sent.at ?? new Date(at).toISOString() }) as Event;

/** The plans of the rest that stand, the newest last. */
const restsOf = (plan: Plan, events: Event[]) =>
  standing(plan, events).flatMap((event) => (event.kind === "replanned" ? [event.rest] : []));

/**
 * The plan with its steps where the newest plan of the rest has them, every step that it says nothing of as it was; and with
 * what the cook has changed of its method meanwhile.
 */
export function planNow(plan: Plan, events: Event[]): Plan {
  const rests = restsOf(plan, events);
  const newest = new Map(rests.flatMap((rest) => rest.scheduled.map((item) => [item.step.id, item] as const)));
  const moved = newest.size
    ? { ...plan, scheduled: plan.scheduled.map((item) => newest.get(item.step.id) ?? item) }
    : plan;
  const entries = standing(plan, events).flatMap((event) => (event.kind === "amended" ? [event.entry] : []));
  if (!entries.length) return moved;
  const own = new Set(entries.filter(isOwnStep).map((entry) => entry.own));
  const amended = withAmendments(moved, entries);
  return {
    ...amended,
    scheduled: amended.scheduled.map((item) => {
      const there = own.has(item.step.id) ? newest.get(item.step.id) : undefined;
      return there ? { ...item, starts: there.starts, ends: there.ends } : item;
    }),
  };
}

/**
 * The events that count: without those taken back, and without the taking back itself. A plan of the rest counts while
 * what had happened before it counts as it did when that plan was made.
 */
export function standing(plan: Plan, events: Event[]): Event[] {
  const steps = new Set(plan.scheduled.map((item) => item.step.id));
  const stands = new Map<string, Event>();
  const away = new Set<string>();
  const knew = new Map<string, Set<string>>(); // of each plan of the rest, what was away when it was made
  for (const event of events) {
    if (event.kind === "undone") {
      const mark = (item: Event) => !away.has(item.uid) && UNDONE_UNNAMED.has(item.kind) && steps.has(item.step ?? "");
      const of = event.of ?? [...stands.values()].reverse().find(mark)?.uid;
      if (of && stands.has(of) && stands.get(of)?.kind !== "finished") away.add(of);
    } else if (event.kind === "redone") {
      away.delete(event.of ?? "");
    } else if (!stands.has(event.uid)) {
      stands.set(event.uid, event);
      if (event.kind === "replanned") knew.set(event.uid, new Set(away));
    }
  }
  const fallen = new Set<string>();
  const before: string[] = []; // of what moves anything
  for (const { uid, kind } of knew.size ? stands.values() : []) {
    const known = knew.get(uid);
    if (known && before.some((name) => away.has(name) !== known.has(name))) fallen.add(uid);
    if (!IDLE.has(kind)) before.push(uid);
  }
  return [...stands.values()].filter((event) => !away.has(event.uid) && !fallen.has(event.uid));
}

/** What an undo would take back, and what a redo would let stand again: whatever came last. */
export function takeable(plan: Plan, events: Event[]): { undo: Event | null; redo: Event | null } {
  const stands = standing(plan, events);
  const last = stands.filter((event) => event.kind !== "finished" && event.kind !== "replanned").at(-1) ?? null;
  const away: string[] = [];
  for (const event of events) {
    if (event.kind === "undone" && event.of) away.push(event.of);
    else if (event.kind === "redone") away.pop();
    else if (event.kind !== "replanned") away.length = 0;
  }
  const redo = events.find((event) => event.uid === away.at(-1)) ?? null;
  return { undo: last, redo };
}

class Fold {
  readonly steps: Map<string, StepResult>;
  readonly started = new Map<string, number>();
  readonly ended = new Map<string, number>();
  readonly extra = new Map<string, number>();
  readonly paused = new Map<string, number>();
  readonly counts = new Map<string, number>();
  readonly who = new Map<string, string>();
  says: string[] = [];
  choices: string[] = [];
  readonly weights = new Map<string, StepState["weights"]>();
  readonly probed = new Map<string, [number, number][]>();
  readonly notes: Note[] = [];
  finished = false;

  constructor(readonly plan: Plan) {
    this.steps = new Map(plan.scheduled.map((item) => [item.step.id, item.step]));
  }

  ready(id: string) {
    return (this.steps.get(id)?.after ?? []).every((wait) => this.ended.has(wait.step));
  }

  /** Add an event. One of a step that the plan does not have adds nothing. */
  apply(event: Event) {
    if (isStepEvent(event) && !this.steps.has(event.step)) return;
    if (isKnown(event)) (ADDS[event.kind] as Add)(this, event, Date.parse(event.at));
  }

  /** Start a step; whatever free step it was waiting for has ended by that. */
  begin(id: string, at: number) {
    for (const wait of this.steps.get(id)?.after ?? []) {
      const before = this.steps.get(wait.step);
      if (before?.hands === "free" && this.started.has(before.id) && !this.ended.has(before.id))
        this.ended.set(before.id, at);
    }
    if (!this.started.has(id)) this.started.set(id, at);
  }

  resume(id: string, at: number) {
    const since = this.paused.get(id);
    if (since === undefined) return;
    this.paused.delete(id);
    this.extra.set(id, (this.extra.get(id) ?? 0) + Math.max(0, at - since) / MINUTE);
  }

  /** Free steps need no hand to begin: they start when the last step before them is done. */
  startFreeSteps(at: number) {
    for (const { step } of this.plan.scheduled)
      if (step.hands === "free" && step.after.length && !this.started.has(step.id) && this.ready(step.id))
        this.started.set(step.id, at);
  }
}

type EventOf<Kind extends Event["kind"]> = Extract<Event, { kind: Kind }>;
type Add<E = Event> = (fold: Fold, event: E, at: number) => void;

type StepEvent = Exclude<Event, { kind: (typeof FOLD.whole_run)[number] }>;
const WHOLE_RUN: ReadonlySet<string> = new Set(FOLD.whole_run);
const isStepEvent = (event: Event): event is StepEvent => !WHOLE_RUN.has(event.kind);

const push = <T>(lists: Map<string, T[]>, key: string, value: T) => lists.set(key, [...(lists.get(key) ?? []), value]);
const note = (fold: Fold, { at, step, kind, text }: EventOf<"noted" | "fault">) =>
  fold.notes.push({ at, step: step ?? null, kind, text });

// What an event of each kind adds: a kind without its row does not compile.
const ADDS: { [Kind in Event["kind"]]: Add<EventOf<Kind>> } = {
  started: (fold, { step }, at) => fold.begin(step, at),
  done: (fold, { step }, at) => {
    fold.begin(step, at);
    fold.resume(step, at);
    fold.ended.set(step, at);
    fold.startFreeSteps(at);
  },
  skipped: (fold, { step }, at) => {
    if (fold.ended.has(step)) return;
    fold.started.delete(step);
    fold.paused.delete(step);
    fold.ended.set(step, at);
    fold.startFreeSteps(at);
  },
  amended: () => {}, // changes the plan itself: planNow()
  not_yet: (fold, { step }) => fold.extra.set(step, (fold.extra.get(step) ?? 0) + FOLD.not_yet_min),
  paused: (fold, { step }, at) => {
    if (fold.started.has(step) && !fold.ended.has(step) && !fold.paused.has(step)) fold.paused.set(step, at);
  },
  resumed: (fold, { step }, at) => fold.resume(step, at),
  counted: (fold, { step, times }) => fold.counts.set(step, (fold.counts.get(step) ?? 0) + times),
  weighed: (fold, { step, at, grams }) => push(fold.weights, step, { at, grams }),
  probed: (fold, { step, celsius }, at) => push(fold.probed, step, [at, celsius]),
  added: () => {}, // the server's plan of the rest says what it changes
  handed: (fold, { step, text }) => fold.who.set(step, text),
  noted: note,
  fault: note,
  undone: () => {}, // which others count: standing()
  redone: () => {},
  replanned: (fold, { rest }) => {
    fold.says = rest.says;
    fold.choices = rest.choices;
  },
  finished: (fold) => {
    fold.finished = true;
  },
};

/** Whether this page knows what an event means: one of a newer Kemble may hold kinds that it does not. */
export const isKnown = (event: { kind: string }) => event.kind in ADDS;

/** Fold the events over the plan and look at it at `now` (ms). */
export function stateOf(
  told: Plan,
  events: Event[],
  now: number,
  toldCore: CoreCurve | null = null,
  unit: "C" | "F" = "C",
): RunState {
  const core = restsOf(told, events).reduce<CoreCurve | null>((core, rest) => rest.core ?? core, toldCore);
  const plan = planNow(told, events);
  const fold = new Fold(plan);
  for (const event of standing(plan, events)) fold.apply(event);
  const steps = project(fold, now, core, unit);
  const served = new Set(plan.scheduled.flatMap(({ step }) => (step.serves ? [step.id] : [])));
  const last = steps.filter((step) => served.size === 0 || served.has(step.id));
  const ends = Math.max(...last.map((step) => Date.parse(step.expected_ends)));
  const { focus, next } = focused(plan, steps, now);
  return {
    status: fold.finished ? "finished" : "running",
    now: iso(now),
    steps,
    focus,
    next,
    notes: fold.notes,
    serve: told.serve,
    expected_serve: iso(ends),
    late_min: (ends - Date.parse(told.serve)) / MINUTE,
    says: fold.says,
    choices: fold.choices,
  };
}

const iso = (ms: number) => new Date(ms).toISOString();

/** Minutes by which a step's window is later than that of one load: by the loads before it. */
const shiftOf = (step: StepResult, core: CoreCurve | null) => (step.window && core ? step.window.done - core.done : 0);

/** What was read in a step's last load, in minutes since that went in. */
function readings(fold: Fold, step: StepResult, core: CoreCurve | null): Probed[] {
  const started = fold.started.get(step.id);
  if (started === undefined) return [];
  const before = Math.max(0, shiftOf(step, core));
  return (fold.probed.get(step.id) ?? []).map(([at, celsius]) => ({
    minute: (at - started) / MINUTE - before,
    celsius,
  }));
}

function refitted(step: StepResult, core: CoreCurve | null, probed: Probed[], unit: "C" | "F"): Refit | null {
  if (!core || !step.window) return null;
  const shift = shiftOf(step, core);
  const result = refit(core.curve, core, probed, unit);
  if (!result) return null;
  const { first, done, latest, was_done } = result;
  return { ...result, first: first + shift, done: done + shift, latest: latest + shift, was_done: was_done + shift };
}

/** Carry what has happened forward: a step begins when planned, or as soon after as what it waits for allows. */
function project(fold: Fold, now: number, core: CoreCurve | null, unit: "C" | "F"): StepState[] {
  const ends = new Map<string, number>();
  const result = new Map<string, StepState>();
  for (const scheduled of inOrder(fold.plan)) {
    const { step } = scheduled;
    const probed = readings(fold, step, core);
    const told = refitted(step, core, probed, unit);
    const paused = fold.paused.get(step.id);
    const length =
      ((told ? told.done : step.minutes) + (fold.extra.get(step.id) ?? 0)) * MINUTE +
      (paused === undefined ? 0 : Math.max(0, now - paused));
    const started = fold.started.get(step.id);
    const ended = fold.ended.get(step.id);
    const waits = step.after.map((wait) => (ends.get(wait.step) as number) + wait.at_least * MINUTE);
    const earliest = Math.max(Date.parse(scheduled.starts), now, ...waits);
    const begins = started ?? earliest;
    const end = ended ?? Math.max(begins + length, started === undefined ? begins : now);
    ends.set(step.id, end);
    const window = told && step.window ? { first_check: told.first, latest: told.latest } : step.window;
    const since = (minutes: number | undefined) =>
      started === undefined || minutes === undefined ? null : iso(started + minutes * MINUTE);
    result.set(step.id, {
      id: step.id,
      status:
        ended !== undefined ? "done" : started !== undefined ? "running" : fold.ready(step.id) ? "ready" : "waiting",
      planned_starts: scheduled.starts,
      planned_ends: scheduled.ends,
      expected_starts: iso(begins),
      expected_ends: iso(end),
      started: started === undefined ? null : iso(started),
      ended: ended === undefined ? null : iso(ended),
      due: started === undefined ? null : iso(started + length),
      first_check: since(window?.first_check),
      latest: since(window?.latest),
      late_min: (end - Date.parse(scheduled.ends)) / MINUTE,
      weights: fold.weights.get(step.id) ?? [],
      probed,
      refit: told,
      paused: paused === undefined ? null : iso(paused),
      count: fold.counts.get(step.id) ?? 0,
      who: fold.who.get(step.id) ?? scheduled.who ?? "",
    });
  }
  return fold.plan.scheduled.map((item) => result.get(item.step.id) as StepState);
}

/** The steps so that each comes after all that it waits for. */
function inOrder(plan: Plan): Scheduled[] {
  const left = [...plan.scheduled];
  const placed = new Set<string>();
  const result: Scheduled[] = [];
  while (left.length) {
    const at = left.findIndex(({ step }) => step.after.every((wait) => placed.has(wait.step)));
    if (at < 0) throw new Error("the steps wait for each other in a circle");
    const [item] = left.splice(at, 1) as [Scheduled];
    result.push(item);
    placed.add(item.step.id);
  }
  return result;
}

type Urgency = readonly [number, number];

/**
 * How urgent a step is that runs or may begin, the lowest first; null of any other. First what is due or may be checked,
 * then what the hands are in, then a step planned for about now, then the running step that ends soonest, and last one
 * whose time has not come.
 */
export function urgency(state: StepState, hands: StepResult["hands"] | undefined, now: number): Urgency | null {
  const planned = Date.parse(state.planned_starts);
  if (state.status === "ready") return [planned <= now + FOLD.soon_min * MINUTE ? FOR_NOW : 4, planned];
  if (state.status !== "running") return null;
  const due = state.due ? Date.parse(state.due) : planned;
  const check = state.first_check ? Date.parse(state.first_check) : due;
  if (check <= now && hands !== "free") return [0, due];
  return [hands === "held" ? 1 : 3, due];
}

export const moreUrgent = (a: Urgency, b: Urgency) => a[0] - b[0] || a[1] - b[1];

/** What the cook should look at now, and what comes after it. */
function focused(plan: Plan, states: StepState[], now: number): { focus: string | null; next: string | null } {
  const hands = new Map(plan.scheduled.map((item) => [item.step.id, item.step.hands]));
  const ranked = states
    .flatMap((state) => {
      const rank = urgency(state, hands.get(state.id), now);
      return rank ? [{ id: state.id, rank }] : [];
    })
    .sort((a, b) => moreUrgent(a.rank, b.rank));
  const focus = ranked[0]?.id ?? null;
  const later = states.find(
    (state) =>
      (state.status === "ready" || state.status === "waiting") && state.id !== focus && hands.get(state.id) !== "free",
  );
  return { focus, next: later?.id ?? null };
}

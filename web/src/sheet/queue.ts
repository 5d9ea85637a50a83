/**
 * One sheet between the hand and the server, as a pure machine: what happened goes in, the next state comes out, and
 * `wants` says what is to be asked of the server now. useSheet.ts does the asking; nothing here knows a clock or a net.
 *
 * - A change is kept as the sheet before and after it, and replayed on whatever the sheet has become meanwhile.
 * - An adjustment is worked out by the server; changes made while it is under way come after it.
 * - One request of a kind at a time. A save that was not answered is sent again as it was, under the same id.
 * - Nothing is dropped for a failure of the network, the server or the session: it is tried again, with growing pauses.
 */

import type { Adjustment, FactChange, Problem, Sheet, WorkResult } from "../api/client";
import { pauseAfter } from "../api/pauses";
import { type Clash, replay, same } from "./merge";

export const SAVE_MS = 700; // after the last change
export const SETTLE_MS = 9_000; // after which what moved is told against the sheet as it is then
const MOST_PAST = 50;

export interface Change {
  from: Sheet;
  to: Sheet;
}

/** Something done: a change, or a wish (an adjustment) whose outcome is not known yet. */
export type Op = { id: number; change: Change } | { id: number; wish: Adjustment };

export interface Saved {
  revision: number;
  sheet: Sheet;
}

/** What was worked, and the sheet that it was worked from. */
export interface Drawn {
  sheet: Sheet;
  worked: WorkResult;
  moved: FactChange[];
  says: string[];
}

/** A save that has been sent and not been answered; `ops` counts the operations in it. */
export interface Sending extends Saved {
  uid: string;
  ops: number;
}

export interface Refusal {
  sheet: Sheet;
  problems: Problem[];
}

export interface Conflict {
  theirs: Saved;
  merged: Sheet;
  clashes: Clash[];
}

type Lane = "work" | "save" | "theirs";
interface Traffic {
  busy: boolean;
  tries: number;
  until: number;
}

export interface Queue {
  saved: Saved;
  ops: Op[];
  /** Everything done so far whose outcome is known. */
  sheet: Sheet;
  drawn: Drawn;
  anchor: Sheet;
  past: { id: number; change: Change | null }[];
  future: Change[];
  sending: Sending | null;
  lanes: Record<Lane, Traffic>;
  /** Why the last try came to nothing, while it is not made good. */
  failed: { status: number; problems: Problem[] } | null;
  refused: { work: Refusal | null; save: Refusal | null; wish: Refusal | null };
  conflict: Conflict | null;
  gone: Problem | null;
  /** Somebody else may have saved: their sheet is to be fetched. */
  look: boolean;
  touched: number;
  settles: number;
  ids: number;
}

export type Want =
  | { lane: "work"; sheet: Sheet; before: Sheet; wish: Adjustment | null; id: number }
  | { lane: "save"; sending: Omit<Sending, "uid"> & { uid: string | null } }
  | { lane: "theirs" };

export type Happening =
  | { is: "changed"; from: Sheet; to: Sheet; at: number }
  | { is: "wished"; to: Adjustment; at: number }
  | { is: "undo" | "redo"; at: number }
  | { is: "asked"; want: Want; uid: string }
  | { is: "worked"; want: Extract<Want, { lane: "work" }>; answer: Drawn; at: number }
  | { is: "saved"; revision: number }
  | { is: "theirs"; theirs: Saved }
  | { is: "failed"; want: Want; status: number; problems: Problem[]; worked: WorkResult | null; at: number }
  | { is: "heard"; revision: number }
  | { is: "look" }
  | { is: "again" }
  | { is: "settled" }
  | { is: "keep mine" | "take theirs" };

/** What is kept in the browser until it is saved, and taken up after a reload. */
export type PersistedQueue = Pick<Queue, "saved" | "ops" | "sending" | "past" | "future">;

const idle = (): Traffic => ({ busy: false, tries: 0, until: 0 });

export function begun(saved: Saved, worked: WorkResult, kept: PersistedQueue | null): Queue {
  const open = kept !== null && (kept.ops.length > 0 || kept.sending !== null);
  const { past, future } = kept ?? { past: [], future: [] };
  const from = open ? kept : { saved, ops: [], sending: null, past, future };
  const sheet = fold(from.saved.sheet, from.ops);
  const drawn = { sheet: same(sheet, saved.sheet) ? sheet : saved.sheet, worked, moved: [], says: [] };
  return {
    ...from,
    sheet,
    drawn,
    anchor: drawn.sheet,
    lanes: { work: idle(), save: idle(), theirs: idle() },
    failed: null,
    refused: { work: null, save: null, wish: null },
    conflict: null,
    gone: null,
    look: saved.revision > from.saved.revision,
    touched: 0,
    settles: 0,
    ids: Math.max(0, ...from.ops.map((op) => op.id), ...from.past.map((item) => item.id)) + 1,
  };
}

export const keptOf = ({ saved, ops, sending, past, future }: Queue): PersistedQueue => ({
  saved,
  ops,
  sending,
  past,
  future,
});

function fold(sheet: Sheet, ops: Op[]): Sheet {
  return ops.reduce((now, op) => ("change" in op ? replay(op.change.from, op.change.to, now).value : now), sheet);
}

/** How many operations stand before the first wish: what can be saved. */
const known = (ops: Op[]) => {
  const first = ops.findIndex((op) => "wish" in op);
  return first < 0 ? ops.length : first;
};

// --- what is to be asked ------------------------------------------------------

export function wants(queue: Queue, now: number): Want[] {
  const { lanes, ops } = queue;
  const open = (lane: Lane) => !lanes[lane].busy && now >= lanes[lane].until;
  const foundWants: Want[] = [];
  const wish = ops[known(ops)];
  if (open("work")) {
    if (wish && "wish" in wish) {
      const sheet = fold(queue.saved.sheet, ops.slice(0, known(ops)));
      foundWants.push({ lane: "work", sheet, before: queue.anchor, wish: wish.wish, id: wish.id });
    } else if (queue.drawn.sheet !== queue.sheet && queue.refused.work?.sheet !== queue.sheet) {
      foundWants.push({ lane: "work", sheet: queue.sheet, before: queue.anchor, wish: null, id: 0 });
    }
  }
  if (open("save") && !lanes.theirs.busy && !queue.conflict && !queue.gone) {
    if (queue.sending) foundWants.push({ lane: "save", sending: queue.sending });
    else if (known(ops) && !queue.look && now >= queue.touched + SAVE_MS) {
      const sheet = fold(queue.saved.sheet, ops.slice(0, known(ops)));
      if (queue.refused.save?.sheet !== sheet)
        foundWants.push({
          lane: "save",
          sending: { uid: null, revision: queue.saved.revision, sheet, ops: known(ops) },
        });
    }
  }
  if (open("theirs") && queue.look && !queue.sending && !queue.gone) foundWants.push({ lane: "theirs" });
  return foundWants;
}

/** When `wants` may want something that it does not want now; null when only a happening can tell. */
export function wakes(queue: Queue, now: number): number | null {
  const times = [queue.touched + SAVE_MS, queue.settles, ...Object.values(queue.lanes).map((lane) => lane.until)];
  const ahead = times.filter((time) => time > now);
  return ahead.length ? Math.min(...ahead) : null;
}

// --- what happened ------------------------------------------------------------

export function next(queue: Queue, what: Happening): Queue {
  return tidy(after(queue, what));
}

function after(queue: Queue, what: Happening): Queue {
  switch (what.is) {
    case "changed":
      return changed(queue, { from: what.from, to: what.to }, what.at, (past, id, change) => ({
        past: [...past, { id, change }].slice(-MOST_PAST),
        future: [],
      }));
    case "wished":
      return wished(queue, what.to, what.at);
    case "undo": {
      const last = queue.past.at(-1)?.change;
      if (!last) return queue;
      return changed(queue, { from: last.to, to: last.from }, what.at, (past) => ({
        past: past.slice(0, -1),
        future: [...queue.future, last],
      }));
    }
    case "redo": {
      const last = queue.future.at(-1);
      if (!last) return queue;
      return changed(queue, last, what.at, (past, id, change) => ({
        past: [...past, { id, change }],
        future: queue.future.slice(0, -1),
      }));
    }
    case "asked":
      return asked(queue, what.want, what.uid);
    case "worked":
      return worked(queue, what.want, what.answer, what.at);
    case "saved":
      return wasSaved(queue, what.revision);
    case "theirs":
      return met(free(queue, "theirs"), what.theirs);
    case "failed":
      return failed(queue, what);
    case "heard":
      return what.revision > queue.saved.revision ? { ...queue, look: true } : queue;
    case "look":
      return { ...queue, look: true };
    case "again": {
      const lanes = { ...queue.lanes };
      for (const lane of ["work", "save", "theirs"] as const) lanes[lane] = { ...lanes[lane], until: 0 };
      return { ...queue, lanes, gone: null };
    }
    case "settled":
      return { ...queue, settles: 0, anchor: queue.sheet, drawn: { ...queue.drawn, moved: [] } };
    case "keep mine":
      return queue.conflict ? decided(queue, queue.conflict, queue.conflict.merged) : queue;
    case "take theirs":
      return queue.conflict ? decided({ ...queue, ops: [] }, queue.conflict, queue.conflict.theirs.sheet) : queue;
  }
}

type Remember = (past: Queue["past"], id: number, change: Change) => Pick<Queue, "past" | "future">;

function changed(queue: Queue, change: Change, at: number, remember: Remember): Queue {
  const sheet = replay(change.from, change.to, queue.sheet).value;
  if (sheet === queue.sheet) return queue;
  const id = queue.ids;
  // As it came out on the sheet that is shown: that is what an undo takes back.
  const done = { from: queue.sheet, to: sheet };
  return {
    ...queue,
    ...remember(queue.past, id, done),
    ops: withChange(queue, id, done),
    sheet,
    touched: at,
    ids: id + 1,
    refused: { ...queue.refused, wish: null },
  };
}

/** Changes of which each begins where the last ended, and that have not been sent, are one: a drag does not pile up. */
function withChange(queue: Queue, id: number, change: Change): Op[] {
  const last = queue.ops.at(-1);
  const sent = queue.sending?.ops ?? 0;
  const follows = last !== undefined && "change" in last && last.change.to === change.from;
  if (!follows || queue.ops.length <= sent) return [...queue.ops, { id, change }];
  return [...queue.ops.slice(0, -1), { id, change: { from: last.change.from, to: change.to } }];
}

function wished(queue: Queue, to: Adjustment, at: number): Queue {
  const last = queue.ops.at(-1);
  const underWay = queue.lanes.work.busy && last === queue.ops[known(queue.ops)];
  const refused = { ...queue.refused, wish: null };
  if (last && "wish" in last && !underWay && supersedes(to, last.wish)) {
    const ops = [...queue.ops.slice(0, -1), { id: last.id, wish: to }];
    return { ...queue, ops, touched: at, refused };
  }
  const id = queue.ids;
  const past = [...queue.past, { id, change: null }].slice(-MOST_PAST);
  return { ...queue, ops: [...queue.ops, { id, wish: to }], past, future: [], touched: at, ids: id + 1, refused };
}

// Wishes that say where to end, not by how much to move: of two that follow each other the second is enough.
const ABSOLUTE = new Set<Adjustment["by"]>(["ratio", "filling_share", "base", "batch", "cooked", "depth", "pieces"]);

function supersedes(wish: Adjustment, earlier: Adjustment) {
  if (wish.by !== earlier.by || !ABSOLUTE.has(wish.by)) return false;
  const said = (item: Adjustment) => Object.keys(item).filter((key) => item[key as keyof Adjustment] != null);
  return wish.part_id === earlier.part_id && same(said(wish).sort(), said(earlier).sort());
}

function asked(queue: Queue, want: Want, uid: string): Queue {
  const lanes = { ...queue.lanes, [want.lane]: { ...queue.lanes[want.lane], busy: true } };
  if (want.lane === "theirs") return { ...queue, lanes, look: false };
  if (want.lane === "save") return { ...queue, lanes, sending: { ...want.sending, uid: want.sending.uid ?? uid } };
  return { ...queue, lanes };
}

function free(queue: Queue, lane: Lane): Queue {
  return { ...queue, lanes: { ...queue.lanes, [lane]: idle() }, failed: null };
}

function worked(queue: Queue, want: Extract<Want, { lane: "work" }>, answer: Drawn, at: number): Queue {
  const settled = { ...free(queue, "work"), settles: at + SETTLE_MS, refused: { ...queue.refused, work: null } };
  if (!want.wish) {
    // An answer for a sheet that is shown no more is drawn all the same: the newest there is, until the next one.
    return { ...settled, drawn: { ...answer, sheet: want.sheet } };
  }
  const change = { from: want.sheet, to: answer.sheet };
  const ops = queue.ops.map((op) => (op.id === want.id && "wish" in op ? { id: op.id, change } : op));
  const past = queue.past.map((item) => (item.id === want.id ? { ...item, change } : item));
  return { ...settled, ops, past, sheet: fold(queue.saved.sheet, ops), drawn: answer, touched: at };
}

function wasSaved(queue: Queue, revision: number): Queue {
  const { sending } = queue;
  if (!sending) return free(queue, "save");
  const ops = queue.ops.slice(sending.ops);
  return {
    ...free(queue, "save"),
    saved: { revision, sheet: sending.sheet },
    ops,
    sending: null,
    refused: { ...queue.refused, save: null },
  };
}

/** Somebody else's save: what is not saved here goes on top of it, unless both changed the same thing. */
function met(queue: Queue, theirs: Saved): Queue {
  if (theirs.revision <= queue.saved.revision || queue.sending) return queue;
  const mine = fold(queue.saved.sheet, queue.ops.slice(0, known(queue.ops)));
  const { value, clashes } = replay(queue.saved.sheet, mine, theirs.sheet);
  if (clashes.length) return { ...queue, conflict: { theirs, merged: value, clashes } };
  return adopt({ ...queue, conflict: null }, theirs, value);
}

/** Whichever was taken, an undo brings the other. */
function decided(queue: Queue, { theirs, merged }: Conflict, taken: Sheet): Queue {
  const other = taken === merged ? theirs.sheet : merged;
  const past = [...queue.past, { id: queue.ids, change: { from: other, to: taken } }].slice(-MOST_PAST);
  return adopt({ ...queue, conflict: null, past, future: [], ids: queue.ids + 1 }, theirs, taken);
}

function adopt(queue: Queue, theirs: Saved, value: Sheet): Queue {
  const rest = queue.ops.slice(known(queue.ops));
  const top: Op[] = same(value, theirs.sheet) ? [] : [{ id: queue.ids, change: { from: theirs.sheet, to: value } }];
  const ops = [...top, ...rest];
  return { ...queue, saved: theirs, ops, sheet: fold(theirs.sheet, ops), ids: queue.ids + 1 };
}

function failed(queue: Queue, what: Extract<Happening, { is: "failed" }>): Queue {
  const { want, status, problems, at } = what;
  if (status === 409 && want.lane === "save") return { ...free(queue, "save"), sending: null, look: true };
  if ((status === 404 || status === 410) && want.lane !== "work") {
    const [problem] = problems;
    return { ...free(queue, want.lane), sending: null, gone: problem ?? null };
  }
  if (status === 422 || status === 413) {
    if (want.lane === "save") {
      const refused = { ...queue.refused, save: { sheet: want.sending.sheet, problems } };
      return { ...free(queue, "save"), sending: null, refused };
    }
    if (want.lane === "work") return notWorked(free(queue, "work"), want, problems, what.worked);
  }
  const { tries } = queue.lanes[want.lane];
  const until = at + pauseAfter(tries);
  const lanes = { ...queue.lanes, [want.lane]: { busy: false, tries: tries + 1, until } };
  return { ...queue, lanes, failed: { status, problems }, look: queue.look || want.lane === "theirs" };
}

function notWorked(
  queue: Queue,
  want: Extract<Want, { lane: "work" }>,
  problems: Problem[],
  partly: WorkResult | null,
): Queue {
  if (want.wish) {
    const ops = queue.ops.filter((op) => op.id !== want.id);
    const past = queue.past.filter((item) => item.id !== want.id);
    const sheet = fold(queue.saved.sheet, ops);
    return { ...queue, ops, past, sheet, refused: { ...queue.refused, wish: { sheet, problems } } };
  }
  const drawn = partly ? { sheet: want.sheet, worked: partly, moved: [], says: [] } : queue.drawn;
  return { ...queue, drawn, refused: { ...queue.refused, work: { sheet: want.sheet, problems } } };
}

/** What came to nothing needs no saving; and one sheet stays one object, so that it is known by its identity. */
function tidy(queue: Queue): Queue {
  const count = known(queue.ops);
  if (queue.sending || count === 0) return queue;
  const sheet = fold(queue.saved.sheet, queue.ops.slice(0, count));
  if (!same(sheet, queue.saved.sheet)) return queue;
  const ops = queue.ops.slice(count);
  return { ...queue, ops, saved: { ...queue.saved, sheet } };
}

// --- what is to be said -------------------------------------------------------

export type Saving = "saved" | "unsaved" | "saving" | "unreachable" | "refused" | "conflict" | "gone";

export function saving(queue: Queue): Saving {
  if (queue.conflict) return "conflict";
  if (queue.gone) return "gone";
  if (!queue.ops.length && !queue.sending) return "saved";
  if (queue.refused.save && queue.refused.save.sheet === queue.sheet) return "refused";
  if (queue.failed) return "unreachable";
  return queue.sending ? "saving" : "unsaved";
}

/** Whether the figures that are shown are those of the sheet that is shown. */
export const isFresh = (queue: Queue) => queue.drawn.sheet === queue.sheet;

/** What is wrong with the sheet as it is shown: problems of sheets before it are of no use. */
export function problems(queue: Queue): Problem[] {
  const { work, save, wish } = queue.refused;
  const about = [work, save, wish]
    .filter((refusal) => refusal?.sheet === queue.sheet)
    .flatMap((refusal) => refusal?.problems ?? []);
  const drawn = isFresh(queue) ? queue.drawn.worked.problems : [];
  const all = [...about, ...drawn];
  return all.filter((item, i) => all.findIndex((other) => other.path === item.path && other.says === item.says) === i);
}

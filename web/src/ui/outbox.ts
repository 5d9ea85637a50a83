/**
 * What is told to the server one after another, as a pure machine: in order, each until it is taken. An answer that says
 * that this very thing can never be taken is final; what the server itself fails on again and again is set aside, so that
 * it holds up nothing behind it. Both are kept and shown until somebody has seen them. What goes by different lanes does
 * not wait for each other: a run that was thrown away holds up no other.
 */

import type { Problem } from "../api/client";
import { pauseAfter } from "../api/pauses";

export interface Told {
  uid: string;
  lane?: string;
}

export interface Entry<T extends Told> {
  one: T;
  /** Why it can never be taken; null while it may be. */
  refused: Problem[] | null;
  /** How often the server itself failed on it. */
  failures?: number;
  /** Why it was set aside, to be sent again only when somebody says so. */
  aside?: Problem[] | null;
}

/** Answers that say that this very thing can never be taken. */
const NEVER = new Set([400, 413, 422]);
const SERVER_FAILED = 500;
export const MAX_FAILURES = 5;

/** Why the last try of a lane came to nothing, how often in a row, and until when it waits. */
interface Failed {
  status: number;
  problems: Problem[];
  tries: number;
  until: number;
}

export interface Outbox<T extends Told> {
  entries: Entry<T>[];
  failed: Record<string, Failed>;
}

const laneOf = (told: Told) => told.lane ?? "";

export const opened = <T extends Told>(entries: Entry<T>[]): Outbox<T> => ({ entries, failed: {} });

export const added = <T extends Told>(box: Outbox<T>, t: T): Outbox<T> =>
  box.entries.some((entry) => entry.one.uid === t.uid)
    ? box
    : { ...box, entries: [...box.entries, { one: t, refused: null }] };

const isOpen = <T extends Told>(entry: Entry<T>) => !entry.refused && !entry.aside;

/** What to send now: the oldest that may be taken and whose lane need not wait. */
export const due = <T extends Told>(box: Outbox<T>, now: number): T | null =>
  box.entries.find((entry) => isOpen(entry) && now >= (box.failed[laneOf(entry.one)]?.until ?? 0))?.one ?? null;

/** When something may be sent again; null when nothing waits. */
export const nextTry = <T extends Told>(box: Outbox<T>): number | null => {
  const untils = waiting(box).map((t) => box.failed[laneOf(t)]?.until ?? 0);
  return untils.length ? Math.min(...untils) : null;
};

/** By its id, not its place: another tab may be sending the same ones. */
export function taken<T extends Told>(box: Outbox<T>, uid: string): Outbox<T> {
  const gone = box.entries.find((entry) => entry.one.uid === uid);
  const failed = { ...box.failed };
  if (gone) delete failed[laneOf(gone.one)];
  return { entries: box.entries.filter((entry) => entry.one.uid !== uid), failed };
}

export function notTaken<T extends Told>(
  box: Outbox<T>,
  t: T,
  status: number,
  problems: Problem[],
  now: number,
): Outbox<T> {
  const lane = laneOf(t);
  const become = (change: Partial<Entry<T>>) =>
    box.entries.map((entry) => (entry.one.uid === t.uid ? { ...entry, ...change } : entry));
  const { [lane]: before, ...others } = box.failed;
  if (NEVER.has(status)) return { entries: become({ refused: problems }), failed: others };
  const failures = (box.entries.find((entry) => entry.one.uid === t.uid)?.failures ?? 0) + 1;
  if (status === SERVER_FAILED && failures >= MAX_FAILURES)
    return { entries: become({ failures, aside: problems }), failed: others };
  const tries = before?.tries ?? 0;
  return {
    entries: status === SERVER_FAILED ? become({ failures }) : box.entries,
    failed: { ...box.failed, [lane]: { status, problems, tries: tries + 1, until: now + pauseAfter(tries) } },
  };
}

/** At once, whatever the pause: the network, the session or the thing itself has come back. */
export const again = <T extends Told>(box: Outbox<T>): Outbox<T> => ({
  ...box,
  failed: Object.fromEntries(Object.entries(box.failed).map(([lane, failed]) => [lane, { ...failed, until: 0 }])),
});

/** What was set aside goes back to its place among the others, with all its tries before it. */
export const sendAgain = <T extends Told>(box: Outbox<T>, uid: string): Outbox<T> => ({
  ...box,
  entries: box.entries.map((entry) => (entry.one.uid === uid ? { ...entry, failures: 0, aside: null } : entry)),
});

export const waiting = <T extends Told>(box: Outbox<T>) => box.entries.filter(isOpen).map((entry) => entry.one);

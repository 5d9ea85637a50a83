/**
 * What is told to the server one after another, as a pure machine: in order, each until it is taken. Only an answer
 * that says that this very thing can never be taken is final, and then it is kept and shown until somebody has seen it.
 */

import type { Problem } from "../api/client";
import { pauseAfter } from "../api/pauses";

export interface Told {
  uid: string;
}

export interface Entry<T extends Told> {
  one: T;
  /** Why it can never be taken; null while it may be. */
  refused: Problem[] | null;
}

export interface Outbox<T extends Told> {
  entries: Entry<T>[];
  tries: number;
  until: number;
  /** Why the last try came to nothing. */
  failed: { status: number; problems: Problem[] } | null;
}

export const opened = <T extends Told>(entries: Entry<T>[]): Outbox<T> => ({
  entries,
  tries: 0,
  until: 0,
  failed: null,
});

const put = <T extends Told>(box: Outbox<T>, entries: Entry<T>[]): Outbox<T> => ({ ...box, entries });

export const added = <T extends Told>(box: Outbox<T>, one: T) =>
  box.entries.some((entry) => entry.one.uid === one.uid) ? box : put(box, [...box.entries, { one, refused: null }]);

/** What to send now: the oldest that may be taken, unless it is to wait. */
export const due = <T extends Told>(box: Outbox<T>, now: number): T | null =>
  now < box.until ? null : (box.entries.find((entry) => !entry.refused)?.one ?? null);

/** By its id, not its place: another tab may be sending the same ones. */
export const taken = <T extends Told>(box: Outbox<T>, uid: string): Outbox<T> =>
  opened(box.entries.filter((entry) => entry.one.uid !== uid));

export function notTaken<T extends Told>(
  box: Outbox<T>,
  uid: string,
  status: number,
  problems: Problem[],
  now: number,
): Outbox<T> {
  if (status === 422)
    return opened(box.entries.map((entry) => (entry.one.uid === uid ? { ...entry, refused: problems } : entry)));
  const until = now + pauseAfter(box.tries);
  return { ...box, tries: box.tries + 1, until, failed: { status, problems } };
}

/** At once, whatever the pause: the network, the session or the thing itself has come back. */
export const again = <T extends Told>(box: Outbox<T>): Outbox<T> => ({ ...box, until: 0 });

export const waiting = <T extends Told>(box: Outbox<T>) =>
  box.entries.filter((entry) => !entry.refused).map((entry) => entry.one);

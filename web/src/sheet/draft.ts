/**
 * What has been done on a sheet and not yet been saved, kept in this browser until it is; and what can be undone.
 *
 * Each tab keeps its own, so that two tabs on one sheet never lose each other's. A tab that was closed or fell over
 * leaves its draft behind: whoever opens the sheet next takes it up. What can be undone is a tab's own affair.
 */

import type { Sheet } from "../api/client";
import { SHEET_VERSION } from "../api/generated";
import { newId } from "../ui/newId";
import { UNCHANGED } from "./edits";
import type { Change, Op, PersistedQueue } from "./queue";

const ABANDONED_MS = 60_000;
const prefix = (id: number) => `kemble-draft-${id}-`;
const HISTORY = "kemble-history-";

function tab(): string {
  let name = sessionStorage.getItem("kemble-tab");
  if (!name) {
    name = newId();
    sessionStorage.setItem("kemble-tab", name);
  }
  return name;
}

/** Keeps what is not saved, or nothing when all is. */
export function keep(id: number, kept: PersistedQueue) {
  const mine = prefix(id) + tab();
  if (!kept.ops.length && !kept.sending) {
    localStorage.removeItem(mine);
    return;
  }
  const draft = { at: Date.now(), ...packed({ ...kept, past: [], future: [] }) };
  whenRoom(() => localStorage.setItem(mine, JSON.stringify(draft)));
}

/** Keeps what can be undone and redone: of the sheet that is open, for as long as the tab is. */
export function keepPast(id: number, { saved, past, future }: PersistedQueue) {
  const mine = HISTORY + id;
  for (const key of Object.keys(sessionStorage))
    if (key.startsWith(HISTORY) && key !== mine) sessionStorage.removeItem(key);
  const history = packed({ saved, ops: [], sending: null, past, future });
  whenRoom(() => sessionStorage.setItem(mine, JSON.stringify(history)));
}

/** What this tab has done and not saved, or what a tab that is gone has left behind; with this tab's past. */
export function kept(id: number): PersistedQueue | null {
  const history = read(sessionStorage, HISTORY + id);
  const own = prefix(id) + tab();
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(prefix(id)));
  for (const key of keys.sort((a, b) => Number(b === own) - Number(a === own))) {
    const result = read(localStorage, key);
    if (result && key !== own && Date.now() - result.at < ABANDONED_MS) continue;
    localStorage.removeItem(key);
    if (!result) continue;
    const { past, future } = history ?? { past: [], future: [] };
    keep(id, { ...result.kept, past, future });
    return { ...result.kept, past, future };
  }
  return history?.kept ?? null;
}

/** Forgets what is not saved: it has been kept elsewhere, or is not wanted. */
export function forget(id: number) {
  localStorage.removeItem(prefix(id) + tab());
}

function whenRoom(write: () => void) {
  try {
    write();
  } catch {
    // This browser has no room left: what is done stands in the page, and is saved from there.
  }
}

function read(store: Storage, key: string) {
  try {
    const result = JSON.parse(store.getItem(key) ?? "null") as (Packed & { at: number }) | null;
    if (!result) return null;
    const whole = unpacked(result);
    return { at: result.at, kept: whole, past: whole.past, future: whole.future };
  } catch {
    return null;
  }
}

/**
 * A sheet as a page before this one left it: a part had no id but its role, and in version 2 times that were given stood
 * in a table of their own.
 */
function upToDate(sheet: Sheet): Sheet {
  const { taught, ...was } = sheet as Sheet & { taught?: Record<string, { minutes: number; by: string }> };
  const old = { ...was, parts: was.parts.map((part) => ({ ...part, id: part.id || part.role })) };
  if (Array.isArray(old.method)) return old;
  const method = Object.entries(taught ?? {}).map(([step, { minutes, by }]) => ({
    ...UNCHANGED,
    step,
    minutes,
    by,
    use: "ours" as const,
  }));
  return { ...old, version: SHEET_VERSION, method };
}

/** The same with each sheet written once: a change begins where the one before it ended. */
interface Packed {
  sheets: Sheet[];
  kept: unknown;
}

function packed(whole: PersistedQueue): Packed {
  const sheets: Sheet[] = [];
  const places = new Map<Sheet, number>();
  const place = (sheet: Sheet) => {
    const known = places.get(sheet);
    if (known !== undefined) return known;
    places.set(sheet, sheets.length);
    return sheets.push(sheet) - 1;
  };
  const change = (change: Change) => [place(change.from), place(change.to)];
  const kept = {
    saved: { ...whole.saved, sheet: place(whole.saved.sheet) },
    ops: whole.ops.map((op) => ("change" in op ? { id: op.id, change: change(op.change) } : op)),
    sending: whole.sending && { ...whole.sending, sheet: place(whole.sending.sheet) },
    past: whole.past.map((item) => ({ id: item.id, change: item.change && change(item.change) })),
    future: whole.future.map(change),
  };
  return { sheets, kept };
}

function unpacked({ sheets, kept }: Packed): PersistedQueue {
  const lifted = sheets.map(upToDate);
  const at = (place: number) => lifted[place] as Sheet;
  const change = ([from, to]: [number, number]): Change => ({ from: at(from), to: at(to) });
  type Pair = [number, number];
  const result = kept as {
    saved: { revision: number; sheet: number };
    ops: ({ id: number; change: Pair } | Op)[];
    sending: (Omit<NonNullable<PersistedQueue["sending"]>, "sheet"> & { sheet: number }) | null;
    past: { id: number; change: Pair | null }[];
    future: Pair[];
  };
  return {
    saved: { ...result.saved, sheet: at(result.saved.sheet) },
    ops: result.ops.map((op) => ("change" in op ? { id: op.id, change: change(op.change as Pair) } : op)),
    sending: result.sending && { ...result.sending, sheet: at(result.sending.sheet) },
    past: result.past.map((item) => ({ id: item.id, change: item.change && change(item.change) })),
    future: result.future.map(change),
  };
}

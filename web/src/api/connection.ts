/**
 * Whether the kitchen can be reached, and whether it still knows this browser: noticed at every answer, told to
 * whoever waits for it.
 */

import { useSyncExternalStore } from "react";

export interface Reach {
  /** The last request was not answered, or only out of what this browser had kept. */
  away: boolean;
  /** When the kitchen was last heard, in ms; null when never. */
  heard: number | null;
  /** It answered that nobody is signed in. */
  signedOut: boolean;
}

/** On every answer of the server's own: what time it is there. */
export const TIME_HEADER = "Kemble-Time";
const HEARD = "kemble-heard";
/** On an answer that the service worker took from its store: when it was given. */
export const KEPT_HEADER = "kemble-kept";

const remembered = Number(localStorage.getItem(HEARD)) || null;
let reach: Reach = { away: false, heard: remembered, signedOut: false };
const watchers = new Set<() => void>();
const waiting = new Set<() => void>();

function become(now: Partial<Reach>) {
  const before = reach;
  reach = { ...reach, ...now };
  if (reach.away === before.away && reach.signedOut === before.signedOut && !now.heard) return;
  for (const watch of watchers) watch();
  const wasShut = before.away || before.signedOut;
  if (wasShut && !reach.away && !reach.signedOut) for (const go of [...waiting]) go();
}

/** An answer came: from the kitchen itself, or out of what was kept. */
export function noteResponse(response: Response, asked: number) {
  const kept = response.headers.get(KEPT_HEADER);
  if (kept) {
    become({ away: true, heard: Math.max(reach.heard ?? 0, Date.parse(kept)) });
    return;
  }
  const now = Date.now();
  const said = Date.parse(response.headers.get(TIME_HEADER) ?? "");
  if (!Number.isNaN(said)) setClock(said, asked, now);
  if (now - (reach.heard ?? 0) > 1_000) localStorage.setItem(HEARD, String(now));
  become({ away: false, heard: now, ...(response.status === 401 ? { signedOut: true } : {}) });
}

export const noteNoResponse = () => become({ away: true });
export const signedIn = () => become({ signedOut: false });

/** Calls `go` each time the kitchen can be asked again after it could not. Returns how to stop that. */
export function whenBack(go: () => void) {
  waiting.add(go);
  window.addEventListener("online", go);
  return () => {
    waiting.delete(go);
    window.removeEventListener("online", go);
  };
}

const watch = (told: () => void) => {
  watchers.add(told);
  return () => watchers.delete(told);
};

// --- this device's clock --------------------------------------------------------

const OFF = "kemble-clock-off";
const SET = "kemble-clock-set";
/** A clock that is so much off is worth a word. */
const WORTH_A_WORD_MS = 60_000;

/** By how many ms this device's clock is slow; null when no answer has said yet. Measured at every answer. */
export function clockOff(): number | null {
  const off = localStorage.getItem(OFF);
  return off === null ? null : Number(off) || 0;
}

/** The server's clock in ms, as far as this page knows it: also after a reload without the server. */
export const serverNow = () => Date.now() + (clockOff() ?? 0);

/**
 * Measure this device's clock by what an answer says of the server's own, asked for at `asked` and heard at `heard` on
 * this device's: it was right at some moment between the two, and a clock that could be right within that is left alone,
 * so that a slow answer does not set it back.
 */
function setClock(said: number, asked: number, heard: number) {
  const before = clockOff();
  const off = Math.min(Math.max(before ?? said - heard, said - heard), said - asked);
  if (off === before) return;
  localStorage.setItem(OFF, String(off));
  const moved = before === null ? 0 : off - before;
  if (Math.abs(moved) > WORTH_A_WORD_MS) localStorage.setItem(SET, String(-moved));
  for (const watch of watchers) watch();
}

/** Somebody has seen that the clock was set. */
export function clockSetSeen() {
  localStorage.removeItem(SET);
  for (const watch of watchers) watch();
}

/** By how many ms the clock is slow, where that is worth a word; and by how many it was set forward since last heard. */
const clockWords = () => {
  const off = clockOff() ?? 0;
  return `${Math.abs(off) > WORTH_A_WORD_MS ? off : 0} ${Number(localStorage.getItem(SET)) || 0}`;
};

export function useDeviceClock() {
  const [off = 0, set = 0] = useSyncExternalStore(watch, clockWords).split(" ").map(Number);
  return { off, set };
}

export const useReach = () => useSyncExternalStore(watch, () => reach);

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
export function heardFrom(response: Response) {
  const kept = response.headers.get(KEPT_HEADER);
  if (kept) {
    become({ away: true, heard: Math.max(reach.heard ?? 0, Date.parse(kept)) });
    return;
  }
  const now = Date.now();
  if (now - (reach.heard ?? 0) > 1_000) localStorage.setItem(HEARD, String(now));
  become({ away: false, heard: now, ...(response.status === 401 ? { signedOut: true } : {}) });
}

export const heardNothing = () => become({ away: true });
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

const OFF = "kemble-clock-off";

/** The server's clock in ms, as far as this page knows it: also after a reload without the server. */
export const serverNow = () => Date.now() + (Number(localStorage.getItem(OFF)) || 0);

/**
 * Set the clock by what an answer says of the server's own, asked for at `asked` on this page's: it was right at some
 * moment between asking and hearing, and a clock that could be right within that is left alone, so that a slow answer
 * does not set it back. An answer out of the store is old by as long as it lay there, and says nothing.
 */
export function setClock(wall: string, asked: number) {
  if (reach.away) return;
  const said = Date.parse(wall);
  const off = Number(localStorage.getItem(OFF)) || 0;
  localStorage.setItem(OFF, String(Math.min(Math.max(off, said - Date.now()), said - asked)));
}

export const useReach = () => useSyncExternalStore(watch, () => reach);

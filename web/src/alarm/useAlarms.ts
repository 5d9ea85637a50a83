/** Alarms on every page: what the clocks of all runs want, told until it is heard. */

import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { serverNow } from "../api/connection";
import { useFormatters } from "../ui/formatters";
import { type Alarm, alarmsOf, clocksOf, ringing, stirs } from "./alarms";
import { ring } from "./ring";
import { useCards } from "./useCards";

const KEPT = "kemble-alarms-heard";
const MOST_KEPT = 200;

/** Keys of what was heard, in order; kept on this device, so that a reload does not call again. */
const heardList = () => JSON.parse(localStorage.getItem(KEPT) ?? "[]") as string[];
let heardNow = new Set(heardList());
const listeners = new Set<() => void>();

export function hear(key: string) {
  const next = [...heardList().filter((name) => name !== key), key].slice(-MOST_KEPT);
  localStorage.setItem(KEPT, JSON.stringify(next));
  heardNow = new Set(next);
  for (const tell of listeners) tell();
}

const useHeard = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => heardNow,
  );

/** Called at every beat, from a worker where there are any. */
function useBeat(onBeat: () => void) {
  const newest = useRef(onBeat);
  newest.current = onBeat;
  useEffect(() => {
    const beat = () => newest.current();
    if (typeof Worker === "undefined") {
      const timer = window.setInterval(beat, 500);
      return () => clearInterval(timer);
    }
    const worker = new Worker(new URL("./beat.worker.ts", import.meta.url), { type: "module" });
    worker.onmessage = beat;
    return () => worker.terminate();
  }, []);
}

export function useAlarms() {
  const formatters = useFormatters();
  const cardsAt = useCards();
  const heard = useHeard();
  const rung = useRef(new Map<string, number>());
  const [now, setNow] = useState(serverNow);
  useBeat(() => {
    const at = serverNow();
    const cards = cardsAt(at);
    if (cards.length) setNow(at);
    for (const alarm of ringing([...alarmsOf(formatters, cards, at), ...stirs(cards, at)], heard, rung.current, at)) {
      rung.current.set(alarm.key, at);
      ring(alarm);
    }
  });
  const cards = cardsAt(now);
  const calling: Alarm[] = alarmsOf(formatters, cards, now).filter((alarm) => !heard.has(alarm.key));
  return { clocks: clocksOf(cards, now), calling, now };
}

/** The outbox (outbox.ts) over the server and this browser's store: it outlives a reload and a loss of network. */

import { useCallback, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";
import { whenBack } from "../api/connection";
import {
  added,
  again,
  due,
  type Entry,
  nextTry,
  notTaken,
  type Outbox,
  opened,
  sendAgain,
  type Told,
  taken,
  waiting,
} from "./outbox";

/** The entries that lie in the store. Those of before a refusal was kept are the things themselves. */
function stored<T extends Told>(key: string): Entry<T>[] {
  const result = JSON.parse(localStorage.getItem(key) ?? "[]") as (Entry<T> | T)[];
  return result.map((entry) => ("one" in entry ? entry : { one: entry, refused: null }));
}

const store = <T extends Told>(key: string, entries: Entry<T>[]) =>
  entries.length ? localStorage.setItem(key, JSON.stringify(entries)) : localStorage.removeItem(key);

export function useOutbox<T extends Told>(key: string, send: (t: T) => Promise<void>) {
  const [box, setBox] = useState<Outbox<T>>(() => opened(stored<T>(key)));
  const newest = useRef(box);
  const sending = useRef(false);
  const timer = useRef(0);
  const latest = useRef(send);
  latest.current = send;

  /** Changes what lies in the store now, for another tab may have changed it. */
  const become = useCallback(
    (change: (box: Outbox<T>) => Outbox<T>) => {
      newest.current = change({ ...newest.current, entries: stored<T>(key) });
      store(key, newest.current.entries);
      setBox(newest.current);
    },
    [key],
  );

  const pump = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    for (let t = due(newest.current, Date.now()); t; t = due(newest.current, Date.now())) {
      const sent = t;
      const { uid } = sent;
      try {
        await latest.current(sent);
        become((now) => taken(now, uid));
      } catch (error) {
        const { status, problems } = error instanceof Refused ? error : { status: 0, problems: [] };
        become((now) => notTaken(now, sent, status, problems, Date.now()));
      }
    }
    sending.current = false;
    clearTimeout(timer.current);
    const next = nextTry(newest.current);
    if (next !== null) timer.current = window.setTimeout(pump, Math.max(0, next - Date.now()));
  }, [become]);

  useEffect(() => {
    void pump();
    const go = () => {
      become(again);
      void pump();
    };
    const hear = (event: StorageEvent) => event.key === key && become((now) => now);
    const stop = whenBack(go);
    window.addEventListener("storage", hear);
    return () => {
      stop();
      window.removeEventListener("storage", hear);
      clearTimeout(timer.current);
    };
  }, [key, pump, become]);

  const tell = (t: T) => {
    become((now) => added(now, t));
    void pump();
  };
  return {
    tell,
    waiting: waiting(box),
    refused: box.entries.filter((entry) => entry.refused),
    aside: box.entries.filter((entry) => entry.aside),
    /** Why the newest try came to nothing: of one lane, or of any. */
    failed: Object.values(box.failed)[0] ?? null,
    failedOf: (lane: string) => box.failed[lane] ?? null,
    /** It has been seen: a refused one need not be shown any longer. */
    seen: (uid: string) => become((now) => taken(now, uid)),
    again: () => {
      become(again);
      void pump();
    },
    /** One that was set aside is tried once more. */
    sendAgain: (uid: string) => {
      become((now) => sendAgain(now, uid));
      void pump();
    },
  };
}

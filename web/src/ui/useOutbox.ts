/** What is told to the server one after another: kept here until it is taken, through a reload or a loss of network. */

import { useCallback, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";

interface Told {
  uid: string;
}

const queued = <T>(key: string): T[] => JSON.parse(localStorage.getItem(key) ?? "[]") as T[];
const queue = <T>(key: string, all: T[]) =>
  all.length ? localStorage.setItem(key, JSON.stringify(all)) : localStorage.removeItem(key);

/** `send` is asked again every few seconds until it is answered; a refusal is final and told. */
export function useOutbox<T extends Told>(key: string, send: (one: T) => Promise<void>) {
  const [unsent, setUnsent] = useState(() => queued(key).length);
  const [refused, setRefused] = useState<Refused | null>(null);
  const sending = useRef(false);
  const latest = useRef(send);
  latest.current = send;

  const flush = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      for (let next = queued<T>(key)[0]; next; next = queued<T>(key)[0]) {
        try {
          await latest.current(next);
        } catch (error) {
          if (!(error instanceof Refused) || error.status === 0 || error.status >= 500) return;
          setRefused(error); // it will never be taken: say so rather than send it for ever
        }
        // By its id, not its place: another tab may be sending the same queue.
        const sent = next.uid;
        queue(
          key,
          queued<T>(key).filter((one) => one.uid !== sent),
        );
      }
    } finally {
      sending.current = false;
      setUnsent(queued(key).length);
    }
  }, [key]);

  useEffect(() => {
    void flush();
    const timer = window.setInterval(flush, 3_000);
    window.addEventListener("online", flush);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", flush);
    };
  }, [flush]);

  const tell = (one: T) => {
    setRefused(null);
    queue(key, [...queued<T>(key), one]);
    setUnsent(queued(key).length);
    void flush();
  };

  return { tell, unsent, refused };
}

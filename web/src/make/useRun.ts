/**
 * A run as this page sees it. Clocks are worked out from stored instants and the run's own clock, never counted here;
 * events go into a queue that outlives a reload and a loss of network, and are sent until they are taken.
 */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, ask, type NewEvent, Refused, type RunOpen } from "../api/client";
import { newId } from "../ui/newId";

const queueKey = (id: number) => `kemble-events-${id}`;
const queued = (id: number): NewEvent[] => JSON.parse(localStorage.getItem(queueKey(id)) ?? "[]") as NewEvent[];
const queue = (id: number, events: NewEvent[]) =>
  events.length ? localStorage.setItem(queueKey(id), JSON.stringify(events)) : localStorage.removeItem(queueKey(id));

export type Happening = Pick<NewEvent, "kind"> & Partial<Pick<NewEvent, "step" | "grams" | "text">>;

export function useRun(id: number) {
  const client = useQueryClient();
  const [unsent, setUnsent] = useState(() => queued(id).length);
  const [refused, setRefused] = useState<Refused | null>(null);
  const sending = useRef(false);
  const key = ["run", id];
  const run = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
    refetchInterval: (query) => ((query.state.data?.pace ?? 1) > 1 ? 1_500 : 12_000),
    staleTime: 0,
  });
  const now = useRunClock(run.data);

  const flush = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      for (let next = queued(id)[0]; next; next = queued(id)[0]) {
        try {
          const answer = await ask(
            api.POST("/api/runs/{run_id}/events", { params: { path: { run_id: id } }, body: next }),
          );
          client.setQueryData(["run", id], answer);
        } catch (error) {
          if (!(error instanceof Refused) || error.status === 0 || error.status >= 500) return;
          setRefused(error); // it will never be taken: say so rather than send it for ever
        }
        // By its id, not its place: another tab may be sending the same queue.
        const sent = next.uid;
        queue(
          id,
          queued(id).filter((event) => event.uid !== sent),
        );
      }
    } finally {
      sending.current = false;
      setUnsent(queued(id).length);
    }
  }, [id, client]);

  useEffect(() => {
    void flush();
    const timer = window.setInterval(flush, 3_000);
    window.addEventListener("online", flush);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", flush);
    };
  }, [flush]);

  const tell = (what: Happening) => {
    setRefused(null);
    const event: NewEvent = {
      uid: newId(),
      at: new Date(now()).toISOString(),
      step: null,
      grams: null,
      text: "",
      ...what,
    };
    queue(id, [...queued(id), event]);
    setUnsent(queued(id).length);
    void flush();
  };

  return { run: run.data, error: run.error, now, tell, unsent, refused };
}

/** The run's own clock in ms: the server's, carried forward at the run's pace since its answer came. */
function useRunClock(run: RunOpen | undefined) {
  const base = useRef({ at: Date.now(), since: performance.now(), pace: 1 });
  const last = useRef<string>("");
  if (run && run.now !== last.current) {
    last.current = run.now;
    base.current = { at: Date.parse(run.now), since: performance.now(), pace: run.pace };
  }
  return useCallback(() => base.current.at + (performance.now() - base.current.since) * base.current.pace, []);
}

/** Renders again a few times a second, so that clocks move. */
export function useTick(everyMs: number) {
  const [, setTick] = useState(0);
  useEffect(() => {
    const timer = window.setInterval(() => setTick((n) => n + 1), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
}

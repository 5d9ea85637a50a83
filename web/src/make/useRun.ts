/**
 * A run as this page sees it. Clocks are worked out from stored instants and the run's own clock, never counted here;
 * events go into an outbox that outlives a reload and a loss of network.
 */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, ask, type NewEvent, type RunOpen } from "../api/client";
import { newId } from "../ui/newId";
import { useOutbox } from "../ui/useOutbox";

export type Happening = Pick<NewEvent, "kind"> & Partial<Pick<NewEvent, "step" | "grams" | "celsius" | "text">>;

export function useRun(id: number) {
  const client = useQueryClient();
  const key = ["run", id];
  const run = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
    refetchInterval: (query) => ((query.state.data?.pace ?? 1) > 1 ? 1_500 : 12_000),
    staleTime: 0,
  });
  const now = useRunClock(run.data);

  const outbox = useOutbox<NewEvent>(`kemble-events-${id}`, async (event) => {
    const answer = await ask(api.POST("/api/runs/{run_id}/events", { params: { path: { run_id: id } }, body: event }));
    client.setQueryData(["run", id], answer);
  });

  const tell = (what: Happening) => {
    outbox.tell({ uid: newId(), at: new Date(now()).toISOString(), step: null, grams: null, text: "", ...what });
  };

  return { run: run.data, error: run.error, now, tell, unsent: outbox.unsent, refused: outbox.refused };
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

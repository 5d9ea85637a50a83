/**
 * A run as this page sees it: the events that the server has and those still on their way, folded here by the same
 * rules. Clocks are worked out from stored instants and the wall's clock, never counted, so that a reload without the
 * network shows what another page would.
 */

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, ask, type NewEvent, type RunOpen } from "../api/client";
import { serverNow, setClock } from "../api/reach";
import { newId } from "../ui/newId";
import { useOutbox } from "../ui/useOutbox";
import { eventOf, stateOf, takeable } from "./fold";

export type Happening = Pick<NewEvent, "kind"> & Partial<Pick<NewEvent, "step" | "grams" | "celsius" | "text">>;

export function useRun(id: number) {
  const client = useQueryClient();
  const run = useQuery({
    queryKey: ["run", id],
    queryFn: async () => {
      const answer = await ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } }));
      setClock(answer.wall);
      return answer;
    },
    refetchInterval: (query) => ((query.state.data?.pace ?? 1) > 1 ? 1_500 : 12_000),
    staleTime: 0,
  });
  const now = useRunClock(run.data);
  const outbox = useOutbox<NewEvent>(`kemble-events-${id}`, async (event) => {
    const kept = await ask(api.POST("/api/runs/{run_id}/events", { params: { path: { run_id: id } }, body: event }));
    await client.cancelQueries({ queryKey: ["run", id] }); // an answer from before it would take it away again
    client.setQueryData<RunOpen>(["run", id], (was) => was && { ...was, events: inOrder(was.events, kept) });
  });

  const events = useMemo(() => {
    const known = run.data?.events ?? [];
    const uids = new Set(known.map((event) => event.uid));
    return [...known, ...outbox.waiting.filter((one) => !uids.has(one.uid)).map((one) => eventOf(one, now()))];
  }, [run.data, outbox.waiting, now]);
  const open = run.data && { ...run.data, state: stateOf(run.data.plan, events, now(), run.data.core, run.data.unit) };
  const going = run.data && open?.state.status === "running";
  const { undo, redo } = going ? takeable(run.data.plan, events) : { undo: null, redo: null };

  const send = (what: Happening, of: string | null = null) =>
    outbox.tell({
      uid: newId(),
      at: new Date(now()).toISOString(),
      step: null,
      grams: null,
      celsius: null,
      text: "",
      of,
      ...what,
    });
  return {
    run: open,
    error: run.error,
    now,
    tell: (what: Happening) => send(what),
    undo: undo && { what: undo, take: () => send({ kind: "undone" }, undo.uid) },
    redo: redo && { what: redo, take: () => send({ kind: "redone" }, redo.uid) },
    outbox,
  };
}

/** The events with one more that the server has kept, in the order in which they happened. */
function inOrder(events: RunOpen["events"], kept: RunOpen["events"][number]) {
  const others = events.filter((one) => one.uid !== kept.uid);
  const later = others.findIndex((one) => Date.parse(one.at) > Date.parse(kept.at));
  return later < 0 ? [...others, kept] : [...others.slice(0, later), kept, ...others.slice(later)];
}

/** The run's own clock in ms: it goes `pace` times as fast as the wall's, which may be off from this page's. */
function useRunClock(run: RunOpen | undefined) {
  const base = useRef({ began: 0, clock: 0, pace: 1 });
  if (run) base.current = { began: Date.parse(run.began), clock: Date.parse(run.clock_began), pace: run.pace };
  return useCallback(() => {
    const { began, clock, pace } = base.current;
    return clock + (serverNow() - began) * pace;
  }, []);
}

/** Renders again a few times a second, so that clocks move. */
export function useTick(everyMs: number) {
  const [, setTick] = useState(0);
  useEffect(() => {
    const timer = window.setInterval(() => setTick((n) => n + 1), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
}

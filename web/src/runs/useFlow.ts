/**
 * The runs that are made together, as this page sees them: the events that the server has and those still on their way,
 * folded here by the same rules. Clocks are worked out from stored instants and the wall's clock, never counted, so that
 * a reload without the network shows what another page would.
 */

import { useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";
import { api, ask, type NewEvent, type Plan, type RunOpen } from "../api/client";
import { clockOff, serverNow, useReach } from "../api/connection";
import { newId } from "../ui/newId";
import { useTellings } from "./EventSenders";
import { type Event, eventOf, planNow, stateOf, takeable } from "./fold";

export type Happening = Pick<NewEvent, "kind"> &
  Partial<Pick<NewEvent, "step" | "grams" | "celsius" | "text" | "times" | "added" | "entry" | "sure">>;

/** A run as it is made: `plan` with its rest as it was planned last, `told` as it began. */
export interface Making extends RunOpen {
  told: Plan;
  undo: Event | null;
  redo: Event | null;
}

/** An event that says nothing but its kind. */
const SILENT = {
  step: null,
  grams: null,
  celsius: null,
  text: "",
  of: null,
  times: null,
  added: null,
  entry: null,
  sure: false,
};

const NEWS_MS = 1_500; // another device is seen to agree well within two seconds

export const runQuery = (id: number) => ({
  queryKey: ["run", id],
  queryFn: () => ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
  refetchInterval: 60_000,
  staleTime: 0,
});

export function useFlow(id: number) {
  const first = useQuery(runQuery(id));
  const ids = first.data?.flow ?? [];
  const useQueryResults = useQueries({ queries: ids.filter((eachId) => eachId !== id).map(runQuery) });
  const tellings = useTellings();
  useNews(id, [first.data, ...useQueryResults.map((query) => query.data)]);
  const now = useRunClock(first.data);

  const known = [first.data, ...useQueryResults.map((query) => query.data)].filter(
    (item): item is RunOpen => item !== undefined,
  );
  const at = now();
  const makings = known.map((run) =>
    makingOf(
      run,
      tellings.waiting.filter((telling) => telling.run === run.id).map((telling) => telling.event),
      at,
    ),
  );

  // A press answers what is on the page: it never comes before that, however the clocks are set meanwhile.
  const newestOf = (run: number) =>
    Math.max(0, ...(makings.find((making) => making.id === run)?.events ?? []).map((event) => Date.parse(event.at)));

  const send = (run: number, what: Happening, of: string | null = null) => {
    const event: NewEvent = {
      ...SILENT,
      uid: newId(),
      at: new Date(Math.max(now(), newestOf(run))).toISOString(),
      device_at: new Date().toISOString(),
      clock_error_s: clockErrorS(),
      of,
      ...what,
    };
    tellings.tell({ uid: event.uid, lane: String(run), run, event });
  };
  const last = newest(makings, "undo");
  const back = newest(makings, "redo");
  return {
    makings,
    run: makings[0],
    error: first.error,
    now,
    tell: send,
    undo: last && { run: last.id, what: last.undo, take: () => send(last.id, { kind: "undone" }, last.undo.uid) },
    redo: back && { run: back.id, what: back.redo, take: () => send(back.id, { kind: "redone" }, back.redo.uid) },
    outbox: tellings,
  };
}

const clockErrorS = () => {
  const off = clockOff();
  return off === null ? null : off / 1000;
};

export type Flow = ReturnType<typeof useFlow>;

export function makingOf(run: RunOpen, waiting: NewEvent[], now: number): Making {
  const uids = new Set(run.events.map((event) => event.uid));
  const events = [...run.events, ...waiting.filter((item) => !uids.has(item.uid)).map((item) => eventOf(item, now))];
  const state = stateOf(run.plan, events, now, run.core, run.unit);
  const { undo, redo } = state.status === "running" ? takeable(run.plan, events) : { undo: null, redo: null };
  return { ...run, events, told: run.plan, plan: planNow(run.plan, events), state, undo, redo };
}

/** A run as it would stand once a step of it is said to be done. */
export function doneWith(making: Making, step: string, now: number): Making {
  const done: NewEvent = { ...SILENT, uid: "", at: new Date(now).toISOString(), kind: "done", step };
  return makingOf({ ...making, plan: making.told }, [done], now);
}

/** Of all runs the one whose last word is the newest: what an undo takes back, whichever of them it was. */
function newest<K extends "undo" | "redo">(makings: Making[], kind: K) {
  let result: (Making & { [name in K]: Event }) | null = null;
  for (const making of makings) {
    const event = making[kind];
    if (event && (!result || Date.parse(event.at) >= Date.parse((result[kind] as Event).at)))
      result = making as Making & { [name in K]: Event };
  }
  return result;
}

/** Whether another device has told anything: asked often, answered by a number for each run. */
function useNews(id: number, runs: (RunOpen | undefined)[]) {
  const client = useQueryClient();
  const { away } = useReach();
  const news = useQuery({
    queryKey: ["news", id],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/news", { params: { path: { run_id: id } } })),
    refetchInterval: NEWS_MS,
    enabled: runs[0] !== undefined && !away,
    staleTime: 0,
  });
  const counts = news.data?.events;
  const seen = useRef(counts);
  useEffect(() => {
    if (!counts || counts === seen.current) return;
    seen.current = counts;
    for (const run of runs)
      if (run && counts[run.id] !== undefined && counts[run.id] !== run.events.length)
        void client.invalidateQueries({ queryKey: ["run", run.id] });
    if (runs[0] && Object.keys(counts).length !== runs[0].flow.length)
      void client.invalidateQueries({ queryKey: ["run", id] });
  }, [counts, runs, client, id]);
}

/** The flow's own clock in ms: it goes `pace` times as fast as the wall's, which may be off from this page's. */
function useRunClock(run: RunOpen | undefined) {
  const base = useRef({ began: 0, clock: 0, pace: 1 });
  if (run) base.current = { began: Date.parse(run.began), clock: Date.parse(run.clock_began), pace: run.pace };
  return useCallback(() => {
    const { began, clock, pace } = base.current;
    return clock + (serverNow() - began) * pace;
  }, []);
}

/**
 * What happens in makings, on its way to the kitchen's server: one outbox for all runs of this device, on every page, so
 * that what was told on the Make screen goes out wherever the cook goes on to. Each run is a lane of its own.
 */

import { t } from "@lingui/core/macro";
import { useQueryClient } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useEffect } from "react";
import { api, ask, type NewEvent, type RunOpen } from "../api/client";
import { whenBack } from "../api/connection";
import { useOutbox } from "../ui/useOutbox";

export interface EventSender {
  uid: string;
  lane: string;
  run: number;
  event: NewEvent;
}

export const KEPT = "kemble-tellings";
const OF_BEFORE = /^kemble-events-(\d+)$/;

/** What lay in a drawer for each run, as it was kept at first, comes into the one. */
function gatherOfBefore() {
  const keys = Object.keys(localStorage).filter((key) => OF_BEFORE.test(key));
  for (const key of keys) {
    const run = Number(key.match(OF_BEFORE)?.[1]);
    const result = JSON.parse(localStorage.getItem(key) ?? "[]") as ({ one: NewEvent; refused: unknown } | NewEvent)[];
    const entries = result.map((entry) => {
      const { one, refused } = "one" in entry ? entry : { one: entry, refused: null };
      return { one: { uid: one.uid, lane: String(run), run, event: one }, refused };
    });
    const there = JSON.parse(localStorage.getItem(KEPT) ?? "[]") as unknown[];
    localStorage.setItem(KEPT, JSON.stringify([...there, ...entries]));
    localStorage.removeItem(key);
  }
}
gatherOfBefore();

type Tellings = ReturnType<typeof useOutbox<EventSender>>;
const Context = createContext<Tellings | null>(null);

export function TellingsProvider({ children }: { children: ReactNode }) {
  const client = useQueryClient();
  const outbox = useOutbox<EventSender>(KEPT, async ({ run, event }) => {
    const path = { run_id: run };
    const body = { ...event, device_now: new Date().toISOString() };
    const kept = await ask(api.POST("/api/runs/{run_id}/events", { params: { path }, body }));
    await client.cancelQueries({ queryKey: ["run", run] }); // an answer from before it would take it away again
    client.setQueryData<RunOpen>(["run", run], (was) => was && { ...was, events: inOrder(was.events, kept) });
  });
  const open = [...new Set(outbox.waiting.map((telling) => telling.run))].join(" ");
  const busy = outbox.waiting.length > 0;
  // When all is told, the rest is thought over: by the server, once for whatever happened, whoever asks.
  useRest(busy, open);
  return <Context.Provider value={outbox}>{children}</Context.Provider>;
}

export function useTellings(): Tellings {
  const outbox = useContext(Context);
  if (!outbox) throw new Error(t`outside of TellingsProvider`);
  return outbox;
}

/** Asks for the rest of each run to be planned anew once what was told of it has been taken. */
function useRest(busy: boolean, open: string) {
  const client = useQueryClient();
  useEffect(() => {
    if (!busy) return;
    const runs = open.split(" ").map(Number);
    const think = async () => {
      for (const run of runs) {
        try {
          const answer = await ask(api.POST("/api/runs/{run_id}/rest", { params: { path: { run_id: run } } }));
          client.setQueryData<RunOpen>(["run", run], (was) => (was && isBefore(answer, was) ? was : answer));
          for (const mate of answer.flow) if (mate !== run) void client.invalidateQueries({ queryKey: ["run", mate] });
        } catch {
          // Not reached: the plan is as it was, and it is thought over after the next thing that happens.
        }
      }
    };
    return () => void think();
  }, [busy, open, client]);
  useEffect(() => whenBack(() => void client.invalidateQueries({ queryKey: ["run"] })), [client]);
}

/** Whether an answer was given before something that is known here was kept: the next press was quicker than it. */
function isBefore(answer: RunOpen, known: RunOpen) {
  const uids = new Set(answer.events.map((event) => event.uid));
  return known.events.some((event) => !uids.has(event.uid));
}

/** The events with one more that the server has kept, in the order in which they happened. */
function inOrder(events: RunOpen["events"], kept: RunOpen["events"][number]) {
  const others = events.filter((event) => event.uid !== kept.uid);
  const later = others.findIndex((item) => Date.parse(item.at) > Date.parse(kept.at));
  return later < 0 ? [...others, kept] : [...others.slice(0, later), kept, ...others.slice(later)];
}

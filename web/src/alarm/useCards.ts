/**
 * What is on, as alarms and docks see it: the kitchen's cards, brought up to now by what this page knows of each run. So a
 * step that was begun or ended here without the network has its clock, or none any more, at once.
 */

import { useQueries, useQuery } from "@tanstack/react-query";
import type { RunCard, RunOpen } from "../api/client";
import { serverNow } from "../api/connection";
import { runsQuery } from "../api/queries";
import { useTellings } from "../runs/EventSenders";
import { type Making, makingOf, runQuery } from "../runs/useFlow";

const MOST = 8; // runs at once; more than that nobody watches

export function useCards(): (now: number) => RunCard[] {
  const cards = useQuery(runsQuery);
  const tellings = useTellings();
  const shown = cards.data?.slice(0, MOST) ?? [];
  const runs = useQueries({ queries: shown.map((card) => runQuery(card.id)) });
  return (now) =>
    (cards.data ?? []).map((card, i) => {
      const run = runs[i]?.data;
      if (!run || run.id !== card.id) return card;
      const at = clockOf(run, now);
      const waiting = tellings.waiting.filter((telling) => telling.run === run.id).map((telling) => telling.event);
      return cardNow(card, makingOf(run, waiting, at), at, now);
    });
}

/** What a run's own clock shows when the wall's shows `now`, in ms. */
const clockOf = (run: RunOpen, now: number) => Date.parse(run.clock_began) + (now - Date.parse(run.began)) * run.pace;

/** The card of a run as it stands at `at` on its own clock. */
export function cardNow(card: RunCard, making: Making, at: number, now: number = serverNow()): RunCard {
  const words = new Map(making.plan.scheduled.map((item) => [item.step.id, item.step]));
  const water = making.facts["heat.top_up_at_min"]?.value;
  const clocks = making.state.steps.flatMap((eachStep) => {
    const step = words.get(eachStep.id);
    if (eachStep.status !== "running" || !eachStep.started || !eachStep.due || eachStep.paused || !step) return [];
    const last = Date.parse(eachStep.latest ?? eachStep.due);
    const topUp = step.window && typeof water === "number" ? Date.parse(eachStep.started) + water * 60_000 : null;
    return [
      {
        step: eachStep.id,
        title: step.title,
        due: eachStep.due,
        first_check: eachStep.first_check ?? null,
        latest: eachStep.latest ?? null,
        top_up: topUp !== null && topUp < last ? new Date(topUp).toISOString() : null,
        top_up_ml: Math.round(Number(making.facts["heat.top_up_ml"]?.value ?? 0)),
        rhythm: step.rhythm ? { ...step.rhythm, since: eachStep.started } : null,
      },
    ];
  });
  return {
    ...card,
    wall: new Date(now).toISOString(),
    state: { ...making.state, now: new Date(at).toISOString() },
    step: words.get(making.state.focus ?? "")?.title ?? "",
    clocks,
  };
}

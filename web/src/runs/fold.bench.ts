/** How long a day takes to fold: sixty steps, four hundred events, on every tick of every clock. Limit: 10 ms. */

import { bench } from "vitest";
import type { Plan } from "../api/client";
import { type Event, stateOf } from "./fold";

const BEGAN = Date.UTC(2026, 10, 28, 9, 0);
const at = (minute: number) => new Date(BEGAN + minute * 60_000).toISOString();

const STEPS = Array.from({ length: 60 }, (_, i) => ({
  step: {
    id: `step-${i}`,
    title: `Step ${i}`,
    minutes: 10,
    hands: i % 3 ? "held" : "free",
    after: i ? [{ step: `step-${i - 1}`, at_least: 0, at_most: null }] : [],
    window: i % 7 ? null : { first_check: 8, done: 10, latest: 14 },
  },
  starts: at(i * 10),
  ends: at(i * 10 + 10),
  dish: 0,
  who: "",
}));
const PLAN = { serve: at(600), begin: at(0), scheduled: STEPS } as unknown as Plan;
const KINDS = ["started", "noted", "not_yet", "weighed", "counted", "probed", "done"] as const;
const EVENTS = Array.from({ length: 400 }, (_, i) => ({
  uid: `event-${i}`,
  at: at(i),
  kind: KINDS[i % KINDS.length],
  step: `step-${Math.floor(i / KINDS.length) % 60}`,
  grams: 100,
  celsius: 60,
  times: 1,
  text: "x",
  of: null,
  sure: false,
})) as unknown as Event[];

bench("fold of 60 steps and 400 events", () => {
  stateOf(PLAN, EVENTS, BEGAN + 400 * 60_000);
});

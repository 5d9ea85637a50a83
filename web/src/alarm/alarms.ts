/** What is to be told of the clocks that run: when, how urgent, and how often until somebody has heard. */

import { t } from "@lingui/core/macro";
import type { RunCard } from "../api/client";
import type { Formatters } from "../ui/formatters";

export type Kind = "done" | "first" | "likely" | "latest" | "top-up" | "stir";

export interface Alarm {
  key: string;
  run: number;
  runTitle: string;
  title: string;
  kind: Kind;
  /** On this page's clock, in ms. */
  at: number;
  /** Said aloud, and in a notification. */
  says: string;
}

export interface Clock {
  key: string;
  run: number;
  runTitle: string;
  title: string;
  /** Where it is going: its next look, else when it is done. */
  next: number;
  /** After this it is over. */
  latest: number;
}

/** A clock whose step wants to be moved again and again. */
export interface Rhythmic {
  rhythm?: { every_s: number; says: string; since: string } | null;
}

const MINUTE = 60_000;
/** Calm at first, then again and again until it is heard; what is past its latest more often. */
const AGAIN: Record<Kind, number> = {
  first: 2 * MINUTE,
  likely: MINUTE,
  done: MINUTE,
  "top-up": MINUTE,
  latest: MINUTE / 3,
  stir: Number.POSITIVE_INFINITY, // each time is a time of its own
};
const LONGEST = 3 * 60 * MINUTE; // nobody is called for longer than that

/** An instant of a run's own clock on the kitchen's: a rehearsal goes sixty times as fast. */
const onTheWall = (card: RunCard) => (instant: string) =>
  Date.parse(card.wall) + (Date.parse(instant) - Date.parse(card.state.now)) / (card.rehearsed ? 60 : 1);

/** Every running clock, by when somebody is wanted next. `now` is on the kitchen's clock. */
export function clocksOf(cards: readonly RunCard[], now: number): Clock[] {
  const result = cards.flatMap((card) => {
    const wall = onTheWall(card);
    return card.clocks.map((clock) => {
      const due = wall(clock.due);
      const looks = [clock.first_check, clock.top_up].filter((at): at is string => at != null).map(wall);
      const latest = clock.latest ? wall(clock.latest) : due;
      const next = [...looks, due, latest].filter((at) => at > now).sort((a, b) => a - b)[0] ?? latest;
      return { key: `${card.id} ${clock.step}`, run: card.id, runTitle: card.title, title: clock.title, next, latest };
    });
  });
  return result.sort((a, b) => a.next - b.next);
}

/** What has come by now and was not superseded: of one step only the newest look counts. */
export function alarmsOf(formatters: Formatters, cards: readonly RunCard[], now: number): Alarm[] {
  return cards.flatMap((card) => {
    const wall = onTheWall(card);
    return card.clocks.flatMap((clock) => {
      const all: [Kind, string | null | undefined, string][] = clock.latest
        ? [
            ["first", clock.first_check, t`${clock.title}: the first look`],
            ["likely", clock.due, t`${clock.title}: it is likely done`],
            ["latest", clock.latest, t`${clock.title}: past its latest. Take it off`],
          ]
        : [["done", clock.due, t`${clock.title}: done`]];
      const come = all.filter(([, at]) => at != null && wall(at) <= now);
      const alarm = ([kind, at, says]: (typeof all)[number]): Alarm => ({
        key: `${card.id} ${clock.step} ${kind} ${at}`,
        run: card.id,
        runTitle: card.title,
        title: clock.title,
        kind,
        at: wall(at as string),
        says,
      });
      const alarms = come.slice(-1).map(alarm);
      if (clock.top_up && wall(clock.top_up) <= now)
        alarms.push(
          alarm([
            "top-up",
            clock.top_up,
            t`${clock.title}: top up with ${formatters.volumeWords(clock.top_up_ml)} of boiling water`,
          ]),
        );
      return alarms;
    });
  });
}

/** What is to be done again and again while a step goes on, at its newest turn: a soft call, that nobody answers. */
export function stirs(cards: readonly RunCard[], now: number): Alarm[] {
  return cards.flatMap((card) => {
    const wall = onTheWall(card);
    return card.clocks.flatMap((clock) => {
      const { rhythm } = clock as typeof clock & Rhythmic;
      if (!rhythm) return [];
      const every = (rhythm.every_s * 1000) / (card.rehearsed ? 60 : 1);
      const began = wall(rhythm.since);
      const turn = Math.floor((now - began) / every);
      if (turn < 1) return [];
      const at = began + turn * every;
      const key = `${card.id} ${clock.step} stir ${turn}`;
      return [{ key, run: card.id, runTitle: card.title, title: clock.title, kind: "stir", at, says: rhythm.says }];
    });
  });
}

/** Those that want to be heard at this instant: never yet, or not since it was time to say it again. */
export function ringing(
  alarms: readonly Alarm[],
  heard: ReadonlySet<string>,
  rung: ReadonlyMap<string, number>,
  now: number,
): Alarm[] {
  return alarms.filter((alarm) => {
    if (heard.has(alarm.key) || now - alarm.at > LONGEST) return false;
    const last = rung.get(alarm.key);
    return last == null || now - last >= AGAIN[alarm.kind] - 200;
  });
}

/** A first cake that teaches itself: what is to be done, where, and how the page shows that it has been. */

import { t } from "@lingui/core/macro";
import { useSyncExternalStore } from "react";

/** What shows that a step has been done: an address, a thing that opens, or words that are others than they were. */
type Until = { at: RegExp } | { opens: string } | { moves: string };

export interface LessonStep {
  says: string;
  /** Where it is done, of a sheet; nothing where the step itself leads on. */
  place: ((sheet: number) => string) | null;
  /** What to press. */
  points: string;
  until: Until;
}

const station = (name: string) => (sheet: number) => `/sheets/${sheet}/${name}`;
const stop = (name: string) => `nav[aria-label="Stations"] a[href$="/${name}"]`;

export const LESSON: readonly LessonStep[] = [
  {
    says: t`One cake, nothing hot. The bean is this batter: to the right it is wetter, further up sweeter. Drag it, or press an arrow key on it.`,
    place: station("mix"),
    points: '[role="slider"]',
    until: { moves: stop("mix") },
  },
  {
    says: t`Every station has answered at once; what moved is marked with what it was. Go on to Heat.`,
    place: station("mix"),
    points: stop("heat"),
    until: { at: /\/heat$/ },
  },
  {
    says: t`The curve is the heart of the cake, the band is when to look. Press the minute at which it is likely done: every number says where it comes from.`,
    place: station("heat"),
    points: '[data-fact="heat.done_min"]',
    until: { opens: '[role="dialog"]' },
  },
  {
    says: t`From the rule down to what you typed. Close it, and go on to Cut.`,
    place: station("heat"),
    points: stop("cut"),
    until: { at: /\/cut$/ },
  },
  {
    says: t`The knife's lines, to scale, and how long to wait for them. Ask for another number of pieces.`,
    place: station("cut"),
    points: 'section[aria-label="How it is cut"] input',
    until: { moves: 'section[aria-label="Knife lines from above"]' },
  },
  {
    says: t`Now Plan: all of it counted back from when people eat.`,
    place: station("cut"),
    points: stop("plan"),
    until: { at: /\/plan$/ },
  },
  {
    says: t`Hands above, clocks below. Press Rehearse: the same cake, sixty times as fast.`,
    place: station("plan"),
    points: '[data-points="rehearse"]',
    until: { at: /^\/make\/\d+$/ },
  },
  {
    says: t`Start what it says, and say when it is done. What goes by itself runs in the clocks; at its window it asks you a question.`,
    place: null,
    points: '[data-now] button[data-on], a[href$="/outcome"]',
    until: { at: /\/outcome$/ },
  },
  {
    says: t`How did it come out? Say it as it was, and put it in the log: from that the kitchen learns.`,
    place: null,
    points: 'main button[data-on="true"]:last-of-type',
    until: { at: /^\/log\/\d+$/ },
  },
];

export interface Lesson {
  sheet: number;
  step: number;
}

const KEPT = "kemble-lesson"; // of this tab: it goes on after a reload
const listeners = new Set<() => void>();
let now: Lesson | null = JSON.parse(sessionStorage.getItem(KEPT) ?? "null");

export function setLesson(next: Lesson | null) {
  now = next;
  if (next) sessionStorage.setItem(KEPT, JSON.stringify(next));
  else sessionStorage.removeItem(KEPT);
  for (const tell of listeners) tell();
}

export const useLesson = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );

/** Whether a step has been done, by the page as it is; `words` are those of what moves, as the step began. */
export function isDone(until: Until, path: string, page: ParentNode, words: string | null): boolean {
  if ("at" in until) return until.at.test(path);
  if ("opens" in until) return page.querySelector(until.opens) !== null;
  return words !== null && wordsOf(until, page) !== words;
}

/** The words that a step waits to see moved; null of another step, or where they are not on the page yet. */
export const wordsOf = (until: Until, page: ParentNode): string | null =>
  "moves" in until ? (page.querySelector(until.moves)?.textContent ?? null) : null;

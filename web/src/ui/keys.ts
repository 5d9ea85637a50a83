/** The keys of each page, in words: what "?" shows there. One table, read by the page's own handler where it can be. */

import { t } from "@lingui/core/macro";

export interface KeyRow {
  keys: readonly string[];
  does: string;
}

/** Of the Make screen, by the name of what each does. A page-turner sends page down and page up, or arrows. */
export const MAKE_KEYS = {
  forward: { keys: [" ", "PageDown"], does: t`start it, or done` },
  on: { keys: ["d"], does: t`done, and start what comes next` },
  undo: { keys: ["u", "PageUp"], does: t`undo the last` },
  redo: { keys: ["r"], does: t`redo` },
  next: { keys: ["ArrowRight"], does: t`look at the next step` },
  back: { keys: ["ArrowLeft"], does: t`look at the step before` },
  hands: { keys: ["h", "Home"], does: t`go to what waits for hands` },
  notYet: { keys: ["n"], does: t`not yet: five minutes more` },
  pause: { keys: ["p"], does: t`pause its clock, or go on` },
  weigh: { keys: ["w"], does: t`weigh` },
  probe: { keys: ["t"], does: t`thermometer in the heart` },
  add: { keys: ["a"], does: t`something was added` },
  count: { keys: ["c"], does: t`count one` },
} as const satisfies Record<string, KeyRow>;

export type MakeKey = keyof typeof MAKE_KEYS;

const SHEET: readonly KeyRow[] = [
  { keys: ["1", "2", "3", "4", "5", "6"], does: t`Mix, Shape, Heat, Cut, Method, Plan` },
  { keys: ["Alt+↑", "Alt+↓"], does: t`on a step of the method: earlier, later` },
  { keys: ["y"], does: t`why: where the first number comes from` },
  { keys: ["ArrowUp", "ArrowDown"], does: t`in a drawing: move what has the focus; with shift, further` },
];
const DAY: readonly KeyRow[] = [
  { keys: ["ArrowLeft", "ArrowRight"], does: t`on a step of the lanes: earlier, later` },
  { keys: ["Enter"], does: t`why it lies there` },
];
const ALL: readonly KeyRow[] = [
  { keys: ["Tab"], does: t`on to the next thing; with shift, back` },
  { keys: ["Enter"], does: t`press it` },
  { keys: ["Escape"], does: t`close what is open; out of a field` },
  { keys: ["?"], does: t`this help` },
];

const PAGES: readonly (readonly [RegExp, readonly KeyRow[]])[] = [
  [/^\/make\/\d+$/, Object.values(MAKE_KEYS)],
  [/^\/sheets\/\d+/, SHEET],
  [/^\/occasions\/\d+/, DAY],
];

export const keysAt = (path: string): readonly KeyRow[] => [
  ...(PAGES.find(([page]) => page.test(path))?.[1] ?? []),
  ...ALL,
];

const NAMES: Record<string, string> = {
  " ": t`space`,
  PageDown: t`page down`,
  PageUp: t`page up`,
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  Enter: t`enter`,
  Escape: t`esc`,
  Home: t`home`,
  Tab: t`tab`,
};
export const nameOfKey = (key: string) => NAMES[key] ?? key;

/** Whether a key belongs to what has the focus: a field that is typed in, a button that is pressed. */
export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

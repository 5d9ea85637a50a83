/** The keys of each page, in words: what "?" shows there. One table, read by the page's own handler where it can be. */

export interface KeyRow {
  keys: readonly string[];
  does: string;
}

/** Of the Make screen, by the name of what each does. A page-turner sends page down and page up, or arrows. */
export const MAKE_KEYS = {
  forward: { keys: [" ", "PageDown"], does: "start it, or done" },
  on: { keys: ["d"], does: "done, and start what comes next" },
  undo: { keys: ["u", "PageUp"], does: "undo the last" },
  redo: { keys: ["r"], does: "redo" },
  next: { keys: ["ArrowRight"], does: "look at the next step" },
  back: { keys: ["ArrowLeft"], does: "look at the step before" },
  hands: { keys: ["h", "Home"], does: "go to what waits for hands" },
  notYet: { keys: ["n"], does: "not yet: five minutes more" },
  pause: { keys: ["p"], does: "pause its clock, or go on" },
  weigh: { keys: ["w"], does: "weigh" },
  probe: { keys: ["t"], does: "thermometer in the heart" },
  add: { keys: ["a"], does: "something was added" },
  count: { keys: ["c"], does: "count one" },
} as const satisfies Record<string, KeyRow>;

export type MakeKey = keyof typeof MAKE_KEYS;

const SHEET: readonly KeyRow[] = [
  { keys: ["1", "2", "3", "4", "5"], does: "Mix, Shape, Heat, Cut, Plan" },
  { keys: ["y"], does: "why: where the first number comes from" },
  { keys: ["ArrowUp", "ArrowDown"], does: "in a drawing: move what has the focus; with shift, further" },
];
const DAY: readonly KeyRow[] = [
  { keys: ["ArrowLeft", "ArrowRight"], does: "on a step of the lanes: earlier, later" },
  { keys: ["Enter"], does: "why it lies there" },
];
const ALL: readonly KeyRow[] = [
  { keys: ["Tab"], does: "on to the next thing; with shift, back" },
  { keys: ["Enter"], does: "press it" },
  { keys: ["Escape"], does: "close what is open; out of a field" },
  { keys: ["?"], does: "this help" },
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
  " ": "space",
  PageDown: "page down",
  PageUp: "page up",
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  Enter: "enter",
  Escape: "esc",
  Home: "home",
  Tab: "tab",
};
export const nameOfKey = (key: string) => NAMES[key] ?? key;

/** Whether a key belongs to what has the focus: a field that is typed in, a button that is pressed. */
export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

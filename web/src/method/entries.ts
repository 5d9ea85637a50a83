/** Small changes to a sheet's method, each giving a new sheet. A step is named as the server says that its entry goes by. */

import type { MethodEntry, MethodText, OwnStep, Sheet, StepChange, StepResult } from "../api/client";
import { NEW_OWN, UNCHANGED } from "../sheet/edits";

export const isChange = (entry: MethodEntry): entry is StepChange => "step" in entry;
export const isOwn = (entry: MethodEntry): entry is OwnStep => "own" in entry;
export const isText = (entry: MethodEntry): entry is MethodText => "text" in entry;

export const changeOf = (sheet: Sheet, name: string): StepChange | undefined =>
  sheet.method.filter(isChange).find((entry) => entry.step === name);
export const ownOf = (sheet: Sheet, name: string): OwnStep | undefined =>
  sheet.method.filter(isOwn).find((entry) => entry.own === name);

const withMethod = (sheet: Sheet, method: MethodEntry[]): Sheet => ({ ...sheet, method });

/** What one step has otherwise; without anything otherwise it has no entry. */
export function withChange(sheet: Sheet, name: string, change: Partial<StepChange>): Sheet {
  const was = changeOf(sheet, name);
  const now: StepChange = { ...UNCHANGED, ...was, ...change, step: name };
  if (now.minutes == null) Object.assign(now, { by: "", ours_min: null, use: null, per: null });
  const isEmpty = (Object.keys(UNCHANGED) as (keyof typeof UNCHANGED)[]).every((key) =>
    key === "stages" ? now.stages.length === 0 : now[key] === UNCHANGED[key],
  );
  if (!was) return isEmpty ? sheet : withMethod(sheet, [...sheet.method, now]);
  return withMethod(
    sheet,
    sheet.method.flatMap((entry) => (entry !== was ? [entry] : isEmpty ? [] : [now])),
  );
}

export const withOwn = (sheet: Sheet, name: string, change: (own: OwnStep) => OwnStep | null): Sheet =>
  withMethod(
    sheet,
    sheet.method.flatMap((entry) => (isOwn(entry) && entry.own === name ? (change(entry) ?? []) : [entry])),
  );

/** A new step of the cook's own, behind another; with its id, made of its title. */
export function withNewOwn(sheet: Sheet, title: string, after: string, common = ""): [Sheet, string] {
  const own = freeId(sheet, title);
  const entry: OwnStep = { ...NEW_OWN, own, common, title: common ? "" : title, after };
  return [withMethod(sheet, [...sheet.method, entry]), own];
}

/** "own-wipe-the-rim", or with a letter behind it where there is one already: an id never ends in a number. */
function freeId(sheet: Sheet, title: string): string {
  const plain = title
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 28)
    .replace(/[-0-9]+$/, "");
  const base = `own-${plain || "step"}`;
  const taken = new Set(sheet.method.filter(isOwn).map((entry) => entry.own));
  let id = base;
  for (let n = 1; taken.has(id); n += 1) id = `${base}-${letters(n)}`;
  return id;
}

const letters = (n: number): string =>
  (n > 26 ? letters(Math.floor((n - 1) / 26)) : "") + String.fromCharCode(97 + ((n - 1) % 26));

export const withText = (sheet: Sheet, was: MethodText | null, text: MethodText | null): Sheet =>
  withMethod(
    sheet,
    was
      ? sheet.method.flatMap((entry) => (entry === was ? (text ?? []) : [entry]))
      : text
        ? [...sheet.method, text]
        : sheet.method,
  );

/**
 * The step at `from` put to where the one at `to` is, in the order in which they are shown: it comes after the one that is
 * then above it. What comes first has none above it: then the one below comes after it.
 */
export function withMoved(sheet: Sheet, steps: readonly StepResult[], from: number, to: number): Sheet {
  const step = steps[from];
  const others = steps.filter((_, i) => i !== from);
  const above = others[to - 1];
  const below = others[to];
  if (!step || from === to) return sheet;
  if (ownOf(sheet, step.entry))
    return withOwn(sheet, step.entry, (own) => ({
      ...own,
      after: above?.id ?? "",
      before: above ? "" : (below?.id ?? ""),
    }));
  if (above) return withChange(sheet, step.entry, { after: above.id });
  return below ? withChange(sheet, below.entry, { after: step.id }) : sheet;
}

/** The stages of a step. What joined at one that is there no more goes in from the start. */
export function withStages(sheet: Sheet, step: StepResult, stages: StepChange["stages"]): Sheet {
  const next = withChange(sheet, step.entry, { stages });
  const id = step.part ? step.id.slice(step.part.length + 1) : step.id;
  const gone = (joins: string) => {
    const [, of, number] = /^(.*)-([2-9])$/.exec(joins) ?? [];
    return of === id && Number(number) > stages.length;
  };
  const parts = next.parts.map((part) =>
    part.id === (step.part ?? "base")
      ? { ...part, lines: part.lines.map((line) => (gone(line.joins) ? { ...line, joins: "" } : line)) }
      : part,
  );
  return { ...next, parts };
}

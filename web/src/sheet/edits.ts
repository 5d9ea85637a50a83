/** Small changes to a sheet, each giving a new sheet. */

import type { Line, OutputPlace, OwnStep, Part, PartId, PartRole, Sheet, StepChange, Take } from "../api/client";
import { MOST_OF_A_ROLE } from "../api/generated";

export const newLine = (ingredient: string, value = 10, unit: Line["amount"]["unit"] = "g"): Line => ({
  ingredient,
  amount: { value, unit },
  state: null,
  splits: [],
  reserve: null,
  reserve_for: "",
  joins: "",
  soak_min: null,
});

export const newPart = (role: PartRole, name: string, family: string, lines: Line[], id: PartId = role): Part => ({
  role,
  id,
  name,
  family,
  schools: {},
  lines,
  takes: [],
  rest: {},
  each_g: null,
  each_mm: null,
  pan: "",
  kept: null,
  kept_for: "",
  made_for: [],
  made_on: "",
});

const withLines = (sheet: Sheet, part: number, change: (lines: Line[]) => Line[]): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((eachPart, p) => (p !== part ? eachPart : { ...eachPart, lines: change(eachPart.lines) })),
});

export const withLine = (sheet: Sheet, part: number, line: number, change: (line: Line) => Line | null): Sheet =>
  withLines(sheet, part, (lines) => lines.flatMap((was, i) => (i === line ? (change(was) ?? []) : [was])));

export const withNewLine = (sheet: Sheet, part: number, ingredient: string): Sheet =>
  withLines(sheet, part, (lines) => [...lines, newLine(ingredient)]);

export const withPart = (sheet: Sheet, id: PartId, change: (part: Part) => Part): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part) => (part.id === id ? change(part) : part)),
});

/** The id of one more part of a role; null where a sheet has as many as it may. */
export function nextId(sheet: Sheet, role: PartRole): PartId | null {
  const ids = new Set(sheet.parts.map((part) => part.id));
  const all = [role, ...Array.from({ length: MOST_OF_A_ROLE - 1 }, (_, i) => `${role}-${i + 2}`)];
  return role === "base" ? null : (all.find((id) => !ids.has(id)) ?? null);
}

/** Some of what another part makes, taken into this one; null takes it out again. */
export const withTake = (sheet: Sheet, id: PartId, at: number, change: (take: Take) => Take | null): Sheet =>
  withPart(sheet, id, (part) => ({
    ...part,
    takes: part.takes.flatMap((was, i) => (i === at ? (change(was) ?? []) : [was])),
  }));

export const withNewTake = (sheet: Sheet, id: PartId, of: string, some: Omit<Take, "of" | "joins">): Sheet =>
  withPart(sheet, id, (part) => ({ ...part, takes: [...part.takes, { ...some, of, joins: "" }] }));

/** Where the rest of an output goes; "" is what its part is made for. */
export const withPlace = (sheet: Sheet, id: PartId, output: string, place: OutputPlace): Sheet =>
  withPart(sheet, id, (part) => ({ ...part, rest: { ...part.rest, [output]: place } }));

/** Without a part; shares of other lines that went to it stay where they are written, and nothing takes of it. */
export const withoutPart = (sheet: Sheet, id: PartId): Sheet => ({
  ...sheet,
  parts: sheet.parts
    .filter((part) => part.id !== id)
    .map((part) => ({
      ...part,
      takes: part.takes.filter((take) => take.of.split(".")[0] !== id),
      rest: Object.fromEntries(Object.entries(part.rest).filter(([, place]) => place.to !== id)),
      lines: part.lines.map((line) => ({
        ...line,
        splits: line.splits.map((split) => (split.to === id ? { ...split, to: null } : split)),
      })),
    })),
});

export const withSchool = (sheet: Sheet, choice: string, school: string): Sheet => ({
  ...sheet,
  schools: { ...sheet.schools, [choice]: school },
});

/** A step of the cook's own of which nothing is said yet. */
export const NEW_OWN: Omit<OwnStep, "own" | "title" | "after"> = {
  common: "",
  words: "",
  minutes: null,
  per: null,
  hands: null,
  before: "",
  at: null,
  on: null,
};

/** What an entry of the method says where a step is done as its card has it. */
export const UNCHANGED: Omit<StepChange, "step"> = {
  minutes: null,
  per: null,
  by: "",
  ours_min: null,
  use: null,
  skip: false,
  after: "",
  words: "",
  stages: [],
};

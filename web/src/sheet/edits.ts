/** Small changes to a sheet, each giving a new sheet. */

import type { Line, Part, PartRole, Sheet } from "../api/client";

export const newLine = (ingredient: string, value = 10, unit: Line["amount"]["unit"] = "g"): Line => ({
  ingredient,
  amount: { value, unit },
  state: null,
  splits: [],
  reserve: null,
  reserve_for: "",
});

export const newPart = (role: PartRole, name: string, family: string, lines: Line[]): Part => ({
  role,
  name,
  family,
  schools: {},
  lines,
  each_g: null,
  each_mm: null,
  pan: "",
  kept: 0,
  kept_for: "",
  made_for: [],
  made_on: "",
});

const withLines = (sheet: Sheet, part: number, change: (lines: Line[]) => Line[]): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((one, p) => (p !== part ? one : { ...one, lines: change(one.lines) })),
});

export const withLine = (sheet: Sheet, part: number, line: number, change: (line: Line) => Line | null): Sheet =>
  withLines(sheet, part, (lines) => lines.flatMap((was, i) => (i === line ? (change(was) ?? []) : [was])));

export const withNewLine = (sheet: Sheet, part: number, ingredient: string): Sheet =>
  withLines(sheet, part, (lines) => [...lines, newLine(ingredient)]);

export const withPart = (sheet: Sheet, role: PartRole, change: (part: Part) => Part): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part) => (part.role === role ? change(part) : part)),
});

/** Without a part; shares of other lines that went to it stay where they are written. */
export const withoutPart = (sheet: Sheet, role: PartRole): Sheet => ({
  ...sheet,
  parts: sheet.parts
    .filter((part) => part.role !== role)
    .map((part) => ({
      ...part,
      lines: part.lines.map((line) => ({
        ...line,
        splits: line.splits.map((split) => (split.to === role ? { ...split, to: null } : split)),
      })),
    })),
});

export const withSchool = (sheet: Sheet, choice: string, school: string): Sheet => ({
  ...sheet,
  schools: { ...sheet.schools, [choice]: school },
});

/** Small changes to a sheet, each giving a new sheet. */

import type { Line, Part, Sheet } from "../api/client";

export const withLine = (sheet: Sheet, part: number, line: number, change: (line: Line) => Line | null): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((one, p) =>
    p !== part ? one : { ...one, lines: one.lines.flatMap((was, i) => (i === line ? (change(was) ?? []) : [was])) },
  ),
});

export const withNewLine = (sheet: Sheet, part: number, ingredient: string): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((one, p) =>
    p !== part
      ? one
      : {
          ...one,
          lines: [...one.lines, { ingredient, amount: { value: 10, unit: "g" }, splits: [], reserve: null } as Line],
        },
  ),
});

export const withPart = (sheet: Sheet, role: Part["role"], change: (part: Part) => Part): Sheet => ({
  ...sheet,
  parts: sheet.parts.map((part) => (part.role === role ? change(part) : part)),
});

export const withSchool = (sheet: Sheet, choice: string, school: string): Sheet => ({
  ...sheet,
  schools: { ...sheet.schools, [choice]: school },
});

/** Which of the lines that were worked is which line of the sheet that is shown: they may be a change apart. */

import type { LineResult, Sheet } from "../../api/client";

/** What was worked of a line, at its present place; nothing when that line was not there yet. */
export function workedLine(
  worked: LineResult[],
  drawnFrom: Sheet,
  sheet: Sheet,
  part: number,
  line: number,
): LineResult | undefined {
  const at = (p: number, i: number) => worked.find((item) => item.part === p && item.line === i);
  if (drawnFrom === sheet) return at(part, line);
  const { id, lines } = sheet.parts[part] as Sheet["parts"][number];
  const wanted = lines[line]?.ingredient;
  const nth = lines.slice(0, line).filter((line) => line.ingredient === wanted).length;
  const p = drawnFrom.parts.findIndex((part) => part.id === id);
  const places = (drawnFrom.parts[p]?.lines ?? []).flatMap((line, i) => (line.ingredient === wanted ? [i] : []));
  const i = places[nth];
  const result = i === undefined ? undefined : at(p, i);
  return result && { ...result, part, line };
}

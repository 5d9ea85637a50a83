/** What the liquid lines of the base say, and the same pot said the other way. */

import { t } from "@lingui/core/macro";
import type { Facts, LineResult, Sheet } from "../../api/client";

export type Water = Sheet["grain"]["water"];

export const WATER: [Water, string][] = [
  ["poured", t`what is poured on once it has drained`],
  ["all", t`all the water, the soak's with it`],
  ["own", t`the water it soaks in, nothing drained`],
];

/** The sheet with its liquids said another way: as much is in the pot as before. */
export function withWater(sheet: Sheet, lines: LineResult[], facts: Facts, to: Water): Sheet {
  const poured = Number(facts["grain.cook_water_g"]?.value ?? 0);
  const all = Number(facts["grain.total_water_g"]?.value ?? 0);
  const said = (water: Water) => (water === "poured" ? poured : all);
  const factor = said(sheet.grain.water) > 0 ? said(to) / said(sheet.grain.water) : 1;
  const base = sheet.parts.findIndex((part) => part.role === "base");
  const liquid = (at: number) =>
    lines.some((line) => line.part === base && line.line === at && line.group === "liquid") &&
    !sheet.parts[base]?.lines[at]?.joins;
  return {
    ...sheet,
    grain: { ...sheet.grain, water: to },
    parts: sheet.parts.map((part, p) =>
      p !== base
        ? part
        : {
            ...part,
            lines: part.lines.map((line, i) =>
              liquid(i) && factor > 0
                ? { ...line, amount: { ...line.amount, value: +(line.amount.value * factor).toFixed(2) } }
                : line,
            ),
          },
    ),
  };
}

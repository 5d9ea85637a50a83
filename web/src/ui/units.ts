/** Units as a cook reads them, a cup with its millilitres first, so that one is told from another at a glance, and which of them an ingredient can be measured in here. */

import { t } from "@lingui/core/macro";
import type { IngredientCard, KitchenSettings, UnitId } from "../api/client";
import { UNITS } from "../api/generated";
import type { Formatters } from "./formatters";

const IDS = Object.keys(UNITS) as UnitId[];

/** A unit's name; this kitchen's own cup with what it holds, a pack with its name and weight. */
export function unitName(
  formatters: Formatters,
  unit: UnitId,
  kitchen: KitchenSettings,
  item?: IngredientCard,
): string {
  if (unit === "cup_own" && kitchen.own_cup_ml) return t`cup ${kitchen.own_cup_ml}, ours`;
  if (unit === "spoon_own" && kitchen.own_spoon_ml) return t`spoon ${kitchen.own_spoon_ml}, ours`;
  const [pack] = Object.entries(item?.packs ?? {});
  if (unit === "pack" && pack) return t`${pack[0]} of ${formatters.weightWords(pack[1])}`;
  return UNITS[unit].listed;
}

/** The units that can be turned into grams for an ingredient; the one in use is always among them. */
export const unitsFor = (now: UnitId, kitchen: KitchenSettings, item?: IngredientCard): UnitId[] =>
  IDS.filter(
    (unit) =>
      unit === now ||
      (unit === "cup_own"
        ? kitchen.own_cup_ml != null
        : unit === "spoon_own"
          ? kitchen.own_spoon_ml != null
          : unit === "piece"
            ? item?.g_per_piece != null
            : unit === "pack"
              ? Object.keys(item?.packs ?? {}).length > 0
              : true),
  );

/** The unit that a cook means by a word after a number: the one that is so called here, the first of its kind. */
export function unitNamed(words: string, among: UnitId[]): UnitId | null {
  const said = words.toLowerCase().replace(/\.$/, "");
  const names = (unit: UnitId) => {
    const [kind = ""] = unit.split("_");
    return [unit, kind, `${kind}s`, UNITS[unit].listed.toLowerCase(), ...(MORE[kind] ?? [])];
  };
  return among.find((unit) => names(unit).includes(said)) ?? null;
}

const MORE: Record<string, string[]> = {
  g: ["gram", "grams"],
  kg: ["kilo", "kilos"],
  oz: ["ounce", "ounces"],
  lb: ["lbs", "pound", "pounds"],
  l: ["litre", "litres", "liter", "liters"],
  tbsp: ["tablespoon", "tablespoons"],
  tsp: ["teaspoon", "teaspoons"],
};

/** Units as a cook reads them, and which of them an ingredient can be measured in here. */

import type { IngredientCard, KitchenSettings, UnitId } from "../../api/client";

const NAMES: Record<UnitId, string> = {
  g: "g",
  kg: "kg",
  oz: "oz",
  lb: "lb",
  ml: "ml",
  l: "l",
  cup_us: "US cup, 237 ml",
  cup_metric: "metric cup, 250 ml",
  cup_rice_cooker: "rice-cooker cup, 180 ml",
  tbsp_us: "US tbsp",
  tbsp_metric: "tbsp, 15 ml",
  tbsp_20: "tbsp, 20 ml",
  tsp_us: "US tsp",
  tsp_metric: "tsp",
  cup_own: "our cup",
  spoon_own: "our spoon",
  pinch: "pinch",
  piece: "piece",
  pack: "pack",
};

export const UNITS = Object.keys(NAMES) as UnitId[];

/** A unit's name; this kitchen's own cup with what it holds, a pack with its name and weight. */
export function unitName(unit: UnitId, kitchen: KitchenSettings, item?: IngredientCard): string {
  if (unit === "cup_own" && kitchen.own_cup_ml) return `our cup, ${kitchen.own_cup_ml} ml`;
  if (unit === "spoon_own" && kitchen.own_spoon_ml) return `our spoon, ${kitchen.own_spoon_ml} ml`;
  const [pack] = Object.entries(item?.packs ?? {});
  if (unit === "pack" && pack) return `${pack[0]} of ${pack[1]} g`;
  return NAMES[unit];
}

/** The units that can be turned into grams for an ingredient; the one in use is always among them. */
export const unitsFor = (now: UnitId, kitchen: KitchenSettings, item?: IngredientCard): UnitId[] =>
  UNITS.filter(
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

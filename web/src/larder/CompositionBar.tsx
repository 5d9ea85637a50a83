/** What is in 100 g of an ingredient, as one bar. */

import { t } from "@lingui/core/macro";
import type { IngredientCard } from "../api/client";
import { fill, MATERIAL_WORDS } from "../ui/materials";

export const COMPONENTS = ["water", "starch", "sugar", "fat", "protein", "fibre", "salt", "other"] as const;

type Component = (typeof COMPONENTS)[number];

const MATERIAL: Record<Component, string> = {
  water: "water",
  starch: "starch",
  sugar: "sugar",
  fat: "fat",
  protein: "other",
  fibre: "other",
  salt: "other",
  other: "other",
};

export function CompositionBar({
  item,
  wide = 144,
  tall = 20,
}: {
  item: Pick<IngredientCard, "per_100_g">;
  wide?: number;
  tall?: number;
}) {
  const shares = (["water", "starch", "sugar", "fat", "other"] as const).map((material) => ({
    material,
    grams: COMPONENTS.filter((name) => MATERIAL[name] === material).reduce(
      (sum, name) => sum + (item.per_100_g[name] ?? 0),
      0,
    ),
  }));
  let at = 0;
  const words = shares
    .filter((share) => share.grams >= 0.5)
    .map((share) => `${MATERIAL_WORDS[share.material]} ${share.grams.toFixed(0)}`)
    .join(", ");
  return (
    <svg viewBox={`0 0 ${wide} ${tall}`} className="block w-full" role="img" aria-label={t`in 100 g: ${words}`}>
      {shares.map((share) => {
        const x = at;
        const w = (share.grams / 100) * wide;
        at += w;
        return (
          share.grams > 0.3 && (
            <rect
              key={share.material}
              x={x}
              y="0.5"
              width={w}
              height={tall - 1}
              fill={fill(share.material)}
              stroke="var(--color-ink)"
              strokeWidth="1"
            />
          )
        );
      })}
    </svg>
  );
}

/** One code for each material everywhere: a tint and a texture, readable without colour. */

import { t } from "@lingui/core/macro";

export type Material =
  | "water"
  | "sugar"
  | "starch"
  | "fat"
  | "other"
  | "filling"
  | "batter"
  | "steam"
  | "cooked"
  | "leaf";

export const MATERIAL_WORDS: Record<string, string> = {
  water: t`water`,
  sugar: t`sugar`,
  starch: t`starch`,
  fat: t`fat`,
  other: t`protein, fibre, salt`,
};

const OF_A_GROUP: Record<string, Material> = {
  flour: "starch",
  grain: "starch",
  dust: "starch",
  legume: "starch",
  liquid: "water",
  sugar: "sugar",
  fat: "fat",
  egg: "fat",
  nut: "filling",
  paste: "filling",
  fruit: "filling",
  savoury: "filling",
  leaf: "leaf",
  herb: "leaf",
};

/** What a group of ingredients is drawn as. */
export const materialOf = (group: string): Material => OF_A_GROUP[group] ?? "other";

/** The fill of a shape made of a material. */
export const fill = (material: string) => `url(#m-${material})`;

/** The patterns themselves: put once in the page, used by every drawing in it. */
export function Materials() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true" focusable="false">
      <defs>
        <filter id="plate" x="-0.04" y="0.02" width="1.08" height="0.96">
          <feFlood floodColor="var(--color-sheet)" floodOpacity="0.94" />
          <feComposite in="SourceGraphic" operator="over" />
        </filter>
        <pattern id="m-water" width="24" height="10" patternUnits="userSpaceOnUse">
          <rect width="24" height="10" fill="var(--color-water)" />
          <path d="M0 5 q6 -4 12 0 t12 0" fill="none" stroke="var(--color-water-2)" strokeWidth="1" />
        </pattern>
        <pattern id="m-starch" width="9" height="9" patternUnits="userSpaceOnUse">
          <rect width="9" height="9" fill="var(--color-starch)" />
          <circle cx="2" cy="2" r="0.8" fill="var(--color-starch-2)" />
          <circle cx="6.5" cy="6.5" r="0.8" fill="var(--color-starch-2)" />
        </pattern>
        <pattern id="m-sugar" width="10" height="10" patternUnits="userSpaceOnUse">
          <rect width="10" height="10" fill="var(--color-sugar)" />
          <path
            d="M2 1.5l1.6 1.6M7 6.5l1.6 1.6M7.6 1.5l-1.2 1.2M2.4 6.6l-1.2 1.2"
            stroke="var(--color-sugar-2)"
            strokeWidth="1.1"
          />
        </pattern>
        <pattern id="m-fat" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(60)">
          <rect width="8" height="8" fill="var(--color-fat)" />
          <path d="M0 4h8" stroke="var(--color-fat-2)" strokeWidth="1" />
        </pattern>
        <pattern id="m-other" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--color-other)" />
          <path d="M3 0v6" stroke="var(--color-other-2)" strokeWidth="0.8" />
        </pattern>
        <pattern id="m-filling" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="9" height="9" fill="var(--color-filling)" />
          <path d="M0 0h9M0 0v9" stroke="var(--color-filling-2)" strokeWidth="1.4" />
        </pattern>
        <pattern id="m-batter" width="10" height="10" patternUnits="userSpaceOnUse">
          <rect width="10" height="10" fill="var(--color-batter)" />
          <circle cx="2.5" cy="2.5" r="0.9" fill="var(--color-batter-2)" />
          <circle cx="7.5" cy="7.5" r="0.9" fill="var(--color-batter-2)" />
        </pattern>
        <pattern id="m-leaf" width="14" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(-20)">
          <rect width="14" height="10" fill="var(--color-leaf)" />
          <path
            d="M0 5h14M3 5l3 -4M3 5l3 4M9 5l3 -4M9 5l3 4"
            fill="none"
            stroke="var(--color-leaf-2)"
            strokeWidth="0.8"
          />
        </pattern>
        <pattern id="m-cooked" width="12" height="12" patternUnits="userSpaceOnUse">
          <rect width="12" height="12" fill="var(--color-cooked)" />
          <path d="M2 9q2-3 4 0M7 4q2-3 4 0" fill="none" stroke="var(--color-cooked-2)" strokeWidth="0.9" />
        </pattern>
        <pattern id="m-steam" width="9" height="12" patternUnits="userSpaceOnUse">
          <rect width="9" height="12" fill="var(--color-steam)" />
          <path d="M4 1q2.5 2.5 0 5t0 5" fill="none" stroke="var(--color-steam-2)" strokeWidth="0.8" />
        </pattern>
        <marker
          id="arrow"
          viewBox="0 0 10 10"
          refX="9.2"
          refY="5"
          markerWidth="9"
          markerHeight="9"
          orient="auto-start-reverse"
        >
          <path d="M1 1.5L9.2 5L1 8.5" fill="none" stroke="context-stroke" strokeWidth="1.2" />
        </marker>
      </defs>
    </svg>
  );
}

/** A piece under the hand: spheres for the drawing to follow a drag with, before the worked facts settle it. */

import type { BallDrawing, Pieces } from "../../api/client";

/** ml of a sphere so many mm across. */
export const sphereMl = (mm: number) => (Math.PI / 6) * mm ** 3 * 0.001;

/** What is drawn and dragged: the outside of the piece and of what lies within, in mm across. */
export interface Across {
  outer: number;
  core: number;
}

export const SKIN_MM = 0.3; // no thinner than that under the hand

/** Weights of a piece that is so large: dough and filling as the sheet calls them, all within with its heart. */
export function weighed(drawing: BallDrawing, { outer, core }: Across) {
  const heartMl = sphereMl(drawing.heart_mm);
  const shellMl = sphereMl(outer) - sphereMl(core);
  const insideMl = sphereMl(core) - heartMl;
  if (!drawing.outside) {
    const filling = core > 0 ? insideMl * drawing.filling_g_per_ml + drawing.heart_g : 0;
    return { dough_g: shellMl * drawing.dough_g_per_ml, filling_g: filling };
  }
  return {
    dough_g: insideMl * drawing.dough_g_per_ml,
    filling_g: shellMl * drawing.filling_g_per_ml + drawing.heart_g,
  };
}

/** How many pieces of these weights there is dough and filling for. */
export function enough(drawing: BallDrawing, { dough_g, filling_g }: { dough_g: number; filling_g: number }) {
  const paste = filling_g - drawing.heart_g;
  return {
    dough: drawing.dough_total_g / dough_g,
    filling: paste > 0.01 && drawing.filling_total_g > 0 ? drawing.filling_total_g / paste : null,
  };
}

export const MEASURES = ["dough_g", "filling_g", "piece_g", "skin_pct", "skin_mm", "diameter_mm"] as const;
export type Measure = (typeof MEASURES)[number];
const SIZES: Measure[] = ["piece_g", "diameter_mm"];

export const held = (pieces: Pieces) => MEASURES.filter((name) => pieces[name] != null);

/**
 * The pieces with one measure said. Two say all: beside it stays the one touched last; the others follow.
 * Weight and diameter of a whole piece are nearly one measure: the share of skin stands in for the other of them.
 */
export function holding(
  pieces: Pieces,
  name: Measure,
  value: number,
  plain: boolean,
  recent: Measure[],
  skinPct: number | null,
): Pieces {
  const next: Pieces = { ...pieces };
  const before = held(pieces).filter((item) => item !== name);
  for (const measure of MEASURES) next[measure] = null;
  next[name] = value;
  if (plain) return next;
  const touched = (item: Measure) => (recent.includes(item) ? recent.indexOf(item) : recent.length);
  const keep = before.sort((a, b) => touched(a) - touched(b)).at(0);
  if (keep && SIZES.includes(keep) && SIZES.includes(name)) {
    if (skinPct != null) next.skin_pct = +skinPct.toFixed(2);
  } else if (keep) next[keep] = pieces[keep];
  return next;
}

/** The pieces with one measure let go: it follows from the rest. */
export const released = (pieces: Pieces, name: Measure): Pieces => ({ ...pieces, [name]: null });

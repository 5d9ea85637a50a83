/** Tins in words and sizes. */

import type { Tin } from "../../api/client";

export const SHAPES = [
  ["round", "round"],
  ["oblong", "oblong"],
] as const;

export const MATERIALS = [
  ["metal", "metal"],
  ["glass", "glass"],
  ["ceramic", "ceramic"],
] as const;

export const MOST_SHALLOW_MM = 5;

export const across = (tin: Tin) => (tin.shape === "round" ? tin.diameter_mm : tin.length_mm);

export const tinSize = (tin: Tin) =>
  tin.shape === "round" ? `${tin.diameter_mm / 10} cm round` : `${tin.length_mm / 10} × ${tin.width_mm / 10} cm`;

/** Tins in words and sizes. */

import type { Tin } from "../../api/client";
import { sizeFigure, sizeWords } from "../../ui/words";

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
  tin.shape === "round"
    ? `${sizeWords(tin.diameter_mm)} round`
    : `${sizeFigure(tin.length_mm)} × ${sizeWords(tin.width_mm)}`;

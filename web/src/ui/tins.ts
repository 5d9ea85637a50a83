/** Tins in words and sizes. */

import { t } from "@lingui/core/macro";
import type { Tin } from "../api/client";
import type { Formatters } from "./formatters";

export const SHAPES = [
  ["round", t`round`],
  ["oblong", t`oblong`],
] as const;

export const MATERIALS = [
  ["metal", t`metal`],
  ["glass", t`glass`],
  ["ceramic", t`ceramic`],
] as const;

export const MOST_SHALLOW_MM = 5;

export const across = (tin: Tin) => (tin.shape === "round" ? tin.diameter_mm : tin.length_mm);

export const tinSize = (formatters: Formatters, tin: Tin) =>
  tin.shape === "round"
    ? t`${formatters.sizeWords(tin.diameter_mm)} round`
    : `${formatters.sizeFigure(tin.length_mm)} × ${formatters.sizeWords(tin.width_mm)}`;

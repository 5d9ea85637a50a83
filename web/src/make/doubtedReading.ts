/** Whether a reading can be at all; the words are the step's own (core: stations/reading_bounds.py). */

import { t } from "@lingui/core/macro";
import type { StepResult } from "../api/client";

type Bounds = StepResult["bounds"];

export function doubtOf(bounds: Bounds, reading: { grams?: number; celsius?: number }): string {
  if (!bounds) return "";
  const { grams, celsius } = reading;
  if (grams !== undefined && bounds.most_g != null && grams > bounds.most_g)
    return t`That is more than it can be: ${bounds.weight}.`;
  if (grams !== undefined && bounds.least_g != null && grams < bounds.least_g)
    return t`That is less than it can be: ${bounds.weight}.`;
  if (celsius !== undefined && bounds.most_c != null && celsius > bounds.most_c)
    return t`It cannot be so hot: ${bounds.heat}.`;
  return "";
}

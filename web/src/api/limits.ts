/** The ranges of fields, as the core holds them: a field is checked here by the same numbers as there. */

import { trimmed } from "../words/numbers";
import { LIMITS } from "./generated";

/** `min` and `max` are still in it, `above` and `below` are not. */
export interface Limits {
  min?: number;
  above?: number;
  max?: number;
  below?: number;
}

export const limit = (field: keyof typeof LIMITS): Limits => LIMITS[field];

type Usual = {
  [K in keyof typeof LIMITS]: (typeof LIMITS)[K] extends { usual: number } ? K : never;
}[keyof typeof LIMITS];

/** What a field holds where nothing is said. */
export const usual = (field: Usual): number => LIMITS[field].usual;

/** The same range in another unit. */
export const scaled = (of: Limits, by: number): Limits => mapped(of, (bound) => bound * by);

export const mapped = (of: Limits, to: (bound: number) => number): Limits => ({
  ...(of.min === undefined ? {} : { min: to(of.min) }),
  ...(of.above === undefined ? {} : { above: to(of.above) }),
  ...(of.max === undefined ? {} : { max: to(of.max) }),
  ...(of.below === undefined ? {} : { below: to(of.below) }),
});

export const isWithin = (value: number, { min, above, max, below }: Limits) =>
  !(
    (min !== undefined && value < min) ||
    (above !== undefined && value <= above) ||
    (max !== undefined && value > max) ||
    (below !== undefined && value >= below)
  );

/** The nearest to a value that is within; `step` is how far inside a bound that is itself left out. */
export const nearestWithin = (value: number, { min, above, max, below }: Limits, step: number) => {
  const least = min ?? (above === undefined ? Number.NEGATIVE_INFINITY : above + step);
  const most = max ?? (below === undefined ? Number.POSITIVE_INFINITY : below - step);
  return Math.min(most, Math.max(least, value));
};

/** "from 5 to 45 °C", "above 0, at most 500 g". */
export function rangeWords({ min, above, max, below }: Limits, unit = ""): string {
  const sum = unit ? ` ${unit}` : "";
  const number = (value: number | undefined) => trimmed(value ?? 0, 3);
  if (min !== undefined && max !== undefined) return `from ${number(min)} to ${number(max)}${sum}`;
  const low = min === undefined ? `above ${number(above)}` : `at least ${number(min)}`;
  const high = max === undefined ? (below === undefined ? "" : `under ${number(below)}`) : `at most ${number(max)}`;
  return `${[low, high].filter(Boolean).join(", ")}${sum}`;
}

/** Names are found in every spelling, and by everyday words in any order. */

import { expect, it } from "vitest";
import { meant } from "./matchesQuery";

const CAKE = ["Steamed set cake", "nian gao", "tikoy", "steamed pudding"];

it.each(["nian gao", "niangao", "Nián-Gāo", "NIAN  GAO", "set cake", "cake steamed", "pudd", "  ", "gao"])(
  "%j is meant",
  (typed) => {
    expect(meant(typed, CAKE)).toBe(true);
  },
);

it.each(["custard", "cake fried", "mochi", "ngao x"])("%j is not", (typed) => {
  expect(meant(typed, CAKE)).toBe(false);
});

// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { sentence, whereWords } from "./client";

describe("where a problem lies", () => {
  it.each([
    ["parts.0.lines.2.amount.value", "Part 1, line 3, amount"],
    ["pieces.filling_g", "Pieces, filling"],
    ["vessel.tin.height_mm", "Tin, height"],
    ["kitchen.estimates.gel_c.low", "Estimates, gel, low"],
    ["kitchen.timezone", "Timezone"],
    ["sheet", "Sheet"],
    ["the disk", "The disk"],
    ["", ""],
  ])("%s", (path, words) => expect(whereWords(path)).toBe(words));

  it("stays out where the field is in sight", () => {
    const problem = { path: "pieces.dough_g", says: "is too little", accepts: "1 g or more" };
    expect(sentence(problem)).toBe("Pieces, dough: is too little. Accepted: 1 g or more.");
    expect(sentence(problem, false)).toBe("is too little. Accepted: 1 g or more.");
  });
});

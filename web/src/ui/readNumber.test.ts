import { describe, expect, it } from "vitest";
import { readNumber } from "./readNumber";

describe("a number as it is written", () => {
  it.each([
    ["12", 12, ""],
    ["1.5", 1.5, ""],
    ["1,5", 1.5, ""],
    ["-3", -3, ""],
    ["¾", 0.75, ""],
    ["1¾", 1.75, ""],
    ["1 ½", 1.5, ""],
    ["1 3/4", 1.75, ""],
    ["3/4", 0.75, ""],
    ["2 cups", 2, "cups"],
    ["1½ cup", 1.5, "cup"],
    ["1e3", 1000, ""],
    ["250 g", 250, "g"],
  ])("%s", (text, value, words) => {
    expect(readNumber(text)).toEqual({ value: expect.closeTo(value, 9), words });
  });

  it.each(["", "soon", "cups 2", "1/0", "1 2", "--1", "1.2.3"])("%s is none", (text) => {
    expect(readNumber(text)).toBeNull();
  });
});

// @vitest-environment jsdom
/** The score by hand: a syrup from its pan into a bowl, a filling of another part, and what they look like. */

import { expect, it } from "vitest";
import type { StepResult } from "../api/client";
import { stepResult } from "../testing";
import { scoreOf } from "./score";

type Entry = NonNullable<StepResult["vessel"]>;
const entry = (vessel: string, after_g: number, more: Partial<Entry> = {}): Entry => ({
  vessel,
  before_g: 0,
  tipped: [],
  added_g: 0,
  change_g: 0,
  beside_g: 0,
  after_g,
  holds: vessel,
  ...more,
});
const hand = (name: string, grams: number, group: string) => ({
  name,
  grams,
  group,
  household: "",
  splits: [],
  act: "",
  held_back: "",
  made: false,
  ingredient: "",
});

const CAKE = [
  stepResult("line", { vessel: null }),
  stepResult("melt", {
    to_hand: [hand("Water", 400, "liquid"), hand("Sugar", 250, "sugar")],
    vessel: entry("pan", 650, { added_g: 650 }),
  }),
  stepResult("cool", { vessel: entry("pan", 650, { before_g: 650 }) }),
  stepResult("mix", {
    to_hand: [hand("Flour", 300, "flour")],
    vessel: entry("bowl", 950, { tipped: [{ name: "syrup", grams: 650, vessel: "pan" }], added_g: 300 }),
  }),
  stepResult("steam", {
    window: { first_check: 30, done: 40, latest: 50 },
    vessel: entry("bowl", 945, { before_g: 950, change_g: -5 }),
  }),
];

it("a vessel is one band until what it holds changes or goes on", () => {
  const { blocks, columns } = scoreOf(CAKE);
  expect(
    blocks.map(({ vessel, from, to, grams, material, isFirst }) => [vessel, from, to, grams, material, isFirst]),
  ).toEqual([
    ["pan", 1, 3, 650, "sugar", true],
    ["bowl", 3, 4, 950, "batter", true],
    ["bowl", 4, 5, 945, "cooked", false],
  ]);
  expect(columns).toBe(2);
});

it("what is emptied runs from one band to the other; what goes in stands at its row", () => {
  const { pours, goesIn, looks } = scoreOf(CAKE);
  expect(pours).toEqual([{ row: 3, from: 0, to: 1, grams: 650, material: "sugar" }]);
  expect(goesIn.map(({ row, items }) => [row, items.map((item) => item.name)])).toEqual([
    [1, ["Water", "Sugar"]],
    [3, ["Flour"]],
  ]);
  expect(looks).toEqual([null, "sugar", "sugar", "batter", "cooked"]);
});

it("a part flows in where it is listed under what it has become", () => {
  const filled = [
    stepResult("filling-grind", {
      part: "filling",
      to_hand: [hand("Hazelnuts", 150, "nut"), hand("Sugar", 60, "sugar")],
      vessel: entry("grinder", 210, { holds: "hazelnut filling" }),
    }),
    stepResult("dough", {
      to_hand: [hand("Flour", 240, "flour"), hand("Water", 190, "liquid")],
      vessel: entry("bowl", 430),
    }),
    stepResult("wrap", {
      to_hand: [hand("hazelnut filling", 210, "paste")],
      vessel: entry("tray", 640, { tipped: [{ name: "dough", grams: 430, vessel: "bowl" }] }),
    }),
  ];
  const { pours, goesIn, blocks } = scoreOf(filled);
  expect(pours.map(({ row, grams, material }) => [row, grams, material])).toEqual([
    [2, 430, "batter"],
    [2, 210, "filling"],
  ]);
  expect(goesIn.map(({ row }) => row)).toEqual([0, 1]);
  expect(blocks.map((block) => block.column)).toEqual([0, 1, 2]);
});

import { expect, it } from "vitest";
import { METRIC } from "../words/measures";
import { createFormatters } from "./formatters";

const american = createFormatters({ ...METRIC, temperature_unit: "F", weight_unit: "oz", length_unit: "in" });

it("marks an axis where the kitchen's own unit is round", () => {
  expect(createFormatters(METRIC).axisMarks([0, 100], 5, "°C")).toEqual(
    [0, 20, 40, 60, 80, 100].map((value) => ({ value, text: `${value}` })),
  );
  const degrees = american.axisMarks([0, 100], 5, "°C");
  expect(degrees.map(({ text }) => text)).toEqual(["50", "100", "150", "200"]);
  expect(degrees[0]?.value).toBeCloseTo(10, 9); // 50 °F
  expect(degrees[3]?.value).toBeCloseTo(93.333, 3);
});

it("lays a mark where its value lies, and says it in ounces", () => {
  const ounces = american.axisMarks([20, 40], 4, "g");
  expect(ounces.map(({ text }) => text)).toEqual(["0.8", "1.0", "1.2", "1.4"]);
  expect(ounces[1]?.value).toBeCloseTo(28.3495, 4);
});

it("leaves alone what no kitchen counts otherwise", () => {
  expect(american.axisMarks([0, 10], 2, "%").map(({ value }) => value)).toEqual([0, 5, 10]);
});

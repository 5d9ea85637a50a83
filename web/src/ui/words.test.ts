import { describe, expect, it } from "vitest";
import { METRIC, type Measures } from "../words/measures";
import { createFormatters } from "./formatters";
import { clock, minutes, wallClock } from "./words";

const within = (measures: Partial<Measures>) => createFormatters({ ...METRIC, ...measures });
const { bulkWords, lengthWords, quantity, shownWeight, sizeWords, timeOfDay, volumeWords, weightWords } = within({});

describe("minutes", () => {
  it("stay minutes below an hour and a half", () => expect(minutes(89.4)).toBe("89"));
  it("become hours from there", () => expect(minutes(138.4)).toBe("2 h 18"));
  it("leave out no minutes", () => expect(minutes(120)).toBe("2 h"));
  it("round up into the next hour", () => expect(minutes(119.7)).toBe("2 h"));
});

describe("clock", () => {
  it("shows minutes and seconds", () => expect(clock(27 * 60 + 12.9)).toBe("27:12"));
  it("shows hours when there are any", () => expect(clock(3870)).toBe("1:04:30"));
  it("says when it is past", () => expect(clock(-65)).toBe("−1:05"));
});

describe("quantity", () => {
  it("keeps the decimals of its fact", () => expect(quantity({ value: 5.26, decimals: 1, unit: "mm" })).toBe("5.3 mm"));
  it("drops the unit of long minutes", () => expect(quantity({ value: 150, decimals: 0, unit: "min" })).toBe("2 h 30"));
  it("passes words through", () => expect(quantity({ value: "filling", decimals: 0, unit: "" })).toBe("filling"));
});

describe("temperatures", () => {
  it("are read in the kitchen's degrees", () => {
    const { quantity } = within({ temperature_unit: "F" });
    expect(quantity({ value: 100, decimals: 0, unit: "°C" })).toBe("212 °F");
  });
  it("are typed in them too", () => {
    const { celsius } = within({ temperature_unit: "F" });
    expect(celsius(113)).toBeCloseTo(45);
  });
  it("leave differences alone", () => {
    const { quantity } = within({ temperature_unit: "F" });
    expect(quantity({ value: 6, decimals: 0, unit: "°C less" })).toBe("6 °C less");
  });
});

describe("the kitchen's clock", () => {
  it("is not the reader's", () => expect(timeOfDay("2026-07-01T12:00:00Z", "Asia/Tokyo")).toBe("21:00"));
  it("writes midnight as 00", () =>
    expect(wallClock(new Date("2026-11-27T23:00:00Z"), "Europe/Berlin")).toBe("2026-11-28T00:00"));
});

describe("a length", () => {
  it("is read in the kitchen's own unit, and typed in it", () => {
    expect(lengthWords(31.4)).toBe("31 mm");
    expect(sizeWords(180)).toBe("18 cm");
    expect(quantity({ value: 25.4, decimals: 1, unit: "mm" })).toBe("25.4 mm");
    const inches = within({ length_unit: "in" });
    expect(inches.lengthWords(25.4)).toBe("1.00 in");
    expect(inches.sizeWords(203.2)).toBe("8.0 in");
    expect(inches.quantity({ value: 50.8, decimals: 0, unit: "mm" })).toBe("2.00 in");
    expect(inches.millimetres(2)).toBeCloseTo(50.8);
  });
});

describe("weights and volumes", () => {
  it("are grams and millilitres, unless the kitchen has others", () => {
    expect([weightWords(126), weightWords(9.04, 1), shownWeight(523), bulkWords(2345)]).toEqual([
      "126 g",
      "9.0 g",
      "523 g",
      "2.3 kg",
    ]);
    expect(volumeWords(250)).toBe("250 ml");
  });

  it("are ounces, pounds and fluid ounces where it has", () => {
    const { bulkWords, quantity, volumeWords, weightWords } = within({ weight_unit: "oz", volume_unit: "fl oz" });
    // 126 / 28.3495 = 4.4445; 1260 g are 44.4 oz; 2345 g are 82.72 oz, 5.17 lb; 250 / 29.5735 = 8.453
    expect([weightWords(126), weightWords(1260), bulkWords(2345)]).toEqual(["4.44 oz", "44.4 oz", "5.2 lb"]);
    expect(volumeWords(250)).toBe("8.5 fl oz");
    expect(quantity({ value: 126, decimals: 0, unit: "g" })).toBe("4.44 oz");
    expect(quantity({ value: "1½ tsp", decimals: 0, unit: "" })).toBe("1½ tsp");
  });

  it("come back as they went, within what is shown", () => {
    const { gramsOf, weightWords } = within({ weight_unit: "oz" });
    for (const grams of [3, 18, 126, 462]) expect(gramsOf(Number.parseFloat(weightWords(grams)))).toBeCloseTo(grams, 0);
  });
});

import { afterEach, describe, expect, it } from "vitest";
import {
  celsius,
  clock,
  lengthWords,
  millimetres,
  minutes,
  quantity,
  showLengthsIn,
  showTemperaturesIn,
  sizeWords,
  timeOfDay,
  wallClock,
} from "./words";

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
  afterEach(() => showTemperaturesIn("C"));
  it("are read in the kitchen's degrees", () => {
    showTemperaturesIn("F");
    expect(quantity({ value: 100, decimals: 0, unit: "°C" })).toBe("212 °F");
  });
  it("are typed in them too", () => {
    showTemperaturesIn("F");
    expect(celsius(113)).toBeCloseTo(45);
  });
  it("leave differences alone", () => {
    showTemperaturesIn("F");
    expect(quantity({ value: 6, decimals: 0, unit: "°C less" })).toBe("6 °C less");
  });
});

describe("the kitchen's clock", () => {
  it("is not the reader's", () => expect(timeOfDay("2026-07-01T12:00:00Z", "Asia/Tokyo")).toBe("21:00"));
  it("writes midnight as 00", () =>
    expect(wallClock(new Date("2026-11-27T23:00:00Z"), "Europe/Berlin")).toBe("2026-11-28T00:00"));
});

describe("a length", () => {
  afterEach(() => showLengthsIn("mm"));

  it("is read in the kitchen's own unit, and typed in it", () => {
    expect(lengthWords(31.4)).toBe("31 mm");
    expect(sizeWords(180)).toBe("18 cm");
    expect(quantity({ value: 25.4, decimals: 1, unit: "mm" })).toBe("25.4 mm");
    showLengthsIn("in");
    expect(lengthWords(25.4)).toBe("1.00 in");
    expect(sizeWords(203.2)).toBe("8.0 in");
    expect(quantity({ value: 50.8, decimals: 0, unit: "mm" })).toBe("2.00 in");
    expect(millimetres(2)).toBeCloseTo(50.8);
  });
});

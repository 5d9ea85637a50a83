/** Figures and times in the units and on the clock of the kitchen: what the pages write them with comes from the context. */

import { t } from "@lingui/core/macro";
import { scaleLinear } from "d3-scale";
import { createContext, type ReactNode, useContext, useMemo } from "react";
import type { Fact } from "../api/client";
import { locale } from "../words/language";
import { METRIC, type Measures } from "../words/measures";
import { fixed, trimmed } from "../words/numbers";
import { said } from "../words/said";
import { minutes, wallClock } from "./words";

const INCH_MM = 25.4;
const OUNCE_G = 28.349523;
const FLUID_OUNCE_ML = 29.57353;

/** A mark of an axis: its value in the unit of what is drawn, and its words in the kitchen's. */
export interface AxisMark {
  value: number;
  text: string;
}

const same = (value: number) => value;
const times = (factor: number) => ({ to: (value: number) => value / factor, from: (own: number) => own * factor });
/** From a fact's unit to the kitchen's, and back. */
const SCALES: Readonly<Record<string, { to: (value: number) => number; from: (own: number) => number }>> = {
  "°C °F": { to: (celsius) => celsius * 1.8 + 32, from: (own) => (own - 32) / 1.8 },
  "mm in": times(INCH_MM),
  "g oz": times(OUNCE_G),
  "ml fl oz": times(FLUID_OUNCE_ML),
};

/** What writes and reads figures in some measures. */
export function createFormatters(measures: Measures) {
  /** A temperature in the kitchen's own degrees, without the unit. */
  const degrees = (celsius: number, decimals = 0) =>
    fixed(measures.temperature_unit === "F" ? celsius * 1.8 + 32 : celsius, decimals);
  const degreesUnit = () => `°${measures.temperature_unit}`;

  /** Degrees Celsius from what a cook types in the kitchen's own. */
  const celsius = (typed: number) => (measures.temperature_unit === "F" ? (typed - 32) / 1.8 : typed);

  /** A length in the kitchen's own unit, without it: an inch to a hundredth, which is a quarter of a millimetre. */
  const lengthFigure = (mm: number, decimals = 0) =>
    measures.length_unit === "in" ? fixed(mm / INCH_MM, 2) : fixed(mm, decimals);
  const lengthUnit = () => measures.length_unit;

  /** "31 mm", "1.22 in". */
  const lengthWords = (mm: number, decimals = 0) => `${lengthFigure(mm, decimals)} ${measures.length_unit}`;

  /** The size of a vessel or a tray: centimetres, or inches to a tenth. */
  const sizeFigure = (mm: number, decimals?: number) =>
    measures.length_unit === "in"
      ? fixed(mm / INCH_MM, 1)
      : decimals === undefined
        ? trimmed(mm / 10, 6)
        : fixed(mm / 10, decimals);
  const sizeUnit = () => (measures.length_unit === "in" ? "in" : "cm");
  const sizeWords = (mm: number, decimals?: number) => `${sizeFigure(mm, decimals)} ${sizeUnit()}`;

  /** Millimetres from what a cook types in the kitchen's own unit. */
  const millimetres = (typed: number) => (measures.length_unit === "in" ? typed * INCH_MM : typed);

  /** A weight in the kitchen's own unit, without it: an ounce to a hundredth, from ten on to a tenth. */
  function weightFigure(grams: number, decimals = 0) {
    if (measures.weight_unit === "g") return fixed(grams, decimals);
    const ounces = grams / OUNCE_G;
    return fixed(ounces, Math.abs(ounces) < 10 ? 2 : 1);
  }
  const weightUnit = () => measures.weight_unit;

  /** "126 g", "4.44 oz". */
  const weightWords = (grams: number, decimals = 0) => `${weightFigure(grams, decimals)} ${measures.weight_unit}`;

  /** A weight as a scale has shown it: no more of it than was there. */
  const shownWeight = (grams: number) => weightWords(grams, Number.isInteger(grams) ? 0 : 1);

  /** A larger weight: kilograms from one on, or pounds. */
  function bulkWords(grams: number, decimals = 1) {
    if (measures.weight_unit === "g")
      return grams >= 1000 ? `${fixed(grams / 1000, decimals)} kg` : weightWords(grams, grams < 10 ? 1 : 0);
    return grams >= 16 * OUNCE_G ? `${fixed(grams / OUNCE_G / 16, decimals)} lb` : weightWords(grams);
  }

  /** A volume in the kitchen's own unit, without it: a fluid ounce to a tenth. */
  const volumeFigure = (ml: number, decimals = 0) =>
    measures.volume_unit === "ml" ? fixed(ml, decimals) : fixed(ml / FLUID_OUNCE_ML, 1);
  const volumeUnit = () => measures.volume_unit;
  const volumeWords = (ml: number, decimals = 0) => `${volumeFigure(ml, decimals)} ${measures.volume_unit}`;

  /** Grams, or millilitres, from what a cook types in the kitchen's own unit. */
  const gramsOf = (typed: number) => (measures.weight_unit === "oz" ? typed * OUNCE_G : typed);
  const millilitresOf = (typed: number) => (measures.volume_unit === "fl oz" ? typed * FLUID_OUNCE_ML : typed);

  /** Marks of an axis that are round in the kitchen's own unit: where each lies, in the fact's unit, and what it says. */
  function axisMarks(domain: readonly number[], count: number, unit: string): AxisMark[] {
    const { to, from } = SCALES[`${unit} ${kitchenUnit(unit)}`] ?? { to: same, from: same };
    const scale = scaleLinear().domain(domain.map(to));
    const format = scale.tickFormat(count);
    return scale.ticks(count).map((mark) => ({ value: from(mark), text: format(mark).replace(/^−?0$/, "0") }));
  }
  /** What the kitchen writes in place of a fact's unit. */
  const own = { "°C": degreesUnit(), mm: lengthUnit(), g: weightUnit(), ml: volumeUnit() } as Record<string, string>;
  const kitchenUnit = (unit: string) => own[unit] ?? unit;

  /** A fact's value as it is read, without its unit. */
  function figure(fact: Pick<Fact, "value" | "decimals" | "unit">): string {
    if (typeof fact.value === "string") return fact.value;
    if (fact.unit === "min" && fact.decimals === 0) return minutes(fact.value);
    if (fact.unit === "°C") return degrees(fact.value, fact.decimals);
    if (fact.unit === "mm") return lengthFigure(fact.value, fact.decimals);
    if (fact.unit === "g") return weightFigure(fact.value, fact.decimals);
    if (fact.unit === "ml") return volumeFigure(fact.value, fact.decimals);
    return fixed(fact.value, fact.decimals);
  }

  /** A fact's value with its unit. */
  function quantity(fact: Pick<Fact, "value" | "decimals" | "unit">): string {
    let unit = fact.unit;
    if (unit === "min" && typeof fact.value === "number" && fact.value >= 90) unit = "";
    if (typeof fact.value === "number") unit = kitchenUnit(unit);
    return `${figure(fact)} ${said(unit)}`.trim();
  }

  /** "15:30" on the kitchen's clock, or "3:30 pm" where it goes by twelve hours. */
  const timeOfDay = (instant: string | Date, zone: string) => timeWords(wallClock(new Date(instant), zone).slice(11));

  /** "15:30" as the kitchen tells it. */
  function timeWords(clockTime: string): string {
    if (measures.clock_hours === 24) return clockTime;
    const [h = "0", m = "00"] = clockTime.split(":");
    return `${Number(h) % 12 || 12}:${m} ${Number(h) < 12 ? "am" : "pm"}`;
  }

  /** When the kitchen was last heard: "at 14:03", or "on Tuesday at 14:03" when that was another day. On this page's clock. */
  function sinceWords(ms: number): string {
    const at = new Date(ms);
    const time = timeWords(at.toTimeString().slice(0, 5));
    const today = at.toDateString() === new Date().toDateString();
    return today ? t`at ${time}` : t`on ${at.toLocaleDateString(locale(), { weekday: "long" })} at ${time}`;
  }

  return {
    degrees,
    degreesUnit,
    axisMarks,
    kitchenUnit,
    celsius,
    lengthFigure,
    lengthUnit,
    lengthWords,
    sizeFigure,
    sizeUnit,
    sizeWords,
    millimetres,
    weightFigure,
    weightUnit,
    weightWords,
    shownWeight,
    bulkWords,
    volumeFigure,
    volumeUnit,
    volumeWords,
    gramsOf,
    millilitresOf,
    figure,
    quantity,
    timeOfDay,
    timeWords,
    sinceWords,
  };
}

export type Formatters = ReturnType<typeof createFormatters>;

const FormattersContext = createContext(createFormatters(METRIC));

/** Figures within are written in these measures; what the kitchen does not say is metric. */
export function MeasuresProvider({ measures, children }: { measures?: Partial<Measures>; children: ReactNode }) {
  const { temperature_unit, length_unit, weight_unit, volume_unit, clock_hours } = { ...METRIC, ...measures };
  const formatters = useMemo(
    () => createFormatters({ temperature_unit, length_unit, weight_unit, volume_unit, clock_hours }),
    [temperature_unit, length_unit, weight_unit, volume_unit, clock_hours],
  );
  return <FormattersContext.Provider value={formatters}>{children}</FormattersContext.Provider>;
}

/** What a component writes and reads its figures with. */
export const useFormatters = () => useContext(FormattersContext);

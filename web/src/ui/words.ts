/** Figures and times as a cook reads them. */

import { t } from "@lingui/core/macro";
import type { Fact } from "../api/client";
import { locale } from "../words/language";
import { measures } from "../words/measures";
import { fixed, trimmed } from "../words/numbers";
import { said } from "../words/said";

/** Minutes as "34", or "2 h 18" from an hour and a half on. */
export function minutes(value: number): string {
  if (value < 90) return `${Math.round(value)}`;
  const total = Math.round(value);
  const rest = total % 60;
  return `${Math.floor(total / 60)} h${rest ? ` ${String(rest).padStart(2, "0")}` : ""}`;
}

/** The unit to set after `minutes`. */
export const minutesUnit = (value: number) => (value < 90 ? "min" : "");

/** "34 min" or "2 h 18". */
export const duration = (value: number) => `${minutes(value)} ${minutesUnit(value)}`.trim();

/** A temperature in the kitchen's own degrees, without the unit. */
export const degrees = (celsius: number, decimals = 0) =>
  fixed(measures.temperature_unit === "F" ? celsius * 1.8 + 32 : celsius, decimals);
export const degreesUnit = () => `°${measures.temperature_unit}`;

/** Degrees Celsius from what a cook types in the kitchen's own. */
export const celsius = (typed: number) => (measures.temperature_unit === "F" ? (typed - 32) / 1.8 : typed);

const INCH_MM = 25.4;

/** A length in the kitchen's own unit, without it: an inch to a hundredth, which is a quarter of a millimetre. */
export const lengthFigure = (mm: number, decimals = 0) =>
  measures.length_unit === "in" ? fixed(mm / INCH_MM, 2) : fixed(mm, decimals);
export const lengthUnit = () => measures.length_unit;

/** "31 mm", "1.22 in". */
export const lengthWords = (mm: number, decimals = 0) => `${lengthFigure(mm, decimals)} ${measures.length_unit}`;

/** The size of a vessel or a tray: centimetres, or inches to a tenth. */
export const sizeFigure = (mm: number, decimals?: number) =>
  measures.length_unit === "in"
    ? fixed(mm / INCH_MM, 1)
    : decimals === undefined
      ? trimmed(mm / 10, 6)
      : fixed(mm / 10, decimals);
export const sizeUnit = () => (measures.length_unit === "in" ? "in" : "cm");
export const sizeWords = (mm: number, decimals?: number) => `${sizeFigure(mm, decimals)} ${sizeUnit()}`;

/** Millimetres from what a cook types in the kitchen's own unit. */
export const millimetres = (typed: number) => (measures.length_unit === "in" ? typed * INCH_MM : typed);

const OUNCE_G = 28.349523;
const FLUID_OUNCE_ML = 29.57353;

/** A weight in the kitchen's own unit, without it: an ounce to a hundredth, from ten on to a tenth. */
export function weightFigure(grams: number, decimals = 0) {
  if (measures.weight_unit === "g") return fixed(grams, decimals);
  const ounces = grams / OUNCE_G;
  return fixed(ounces, Math.abs(ounces) < 10 ? 2 : 1);
}
export const weightUnit = () => measures.weight_unit;

/** "126 g", "4.44 oz". */
export const weightWords = (grams: number, decimals = 0) => `${weightFigure(grams, decimals)} ${measures.weight_unit}`;

/** A weight as a scale has shown it: no more of it than was there. */
export const shownWeight = (grams: number) => weightWords(grams, Number.isInteger(grams) ? 0 : 1);

/** A larger weight: kilograms from one on, or pounds. */
export function bulkWords(grams: number, decimals = 1) {
  if (measures.weight_unit === "g")
    return grams >= 1000 ? `${fixed(grams / 1000, decimals)} kg` : weightWords(grams, grams < 10 ? 1 : 0);
  return grams >= 16 * OUNCE_G ? `${fixed(grams / OUNCE_G / 16, decimals)} lb` : weightWords(grams);
}

/** A volume in the kitchen's own unit, without it: a fluid ounce to a tenth. */
export const volumeFigure = (ml: number, decimals = 0) =>
  measures.volume_unit === "ml" ? fixed(ml, decimals) : fixed(ml / FLUID_OUNCE_ML, 1);
export const volumeUnit = () => measures.volume_unit;
export const volumeWords = (ml: number, decimals = 0) => `${volumeFigure(ml, decimals)} ${measures.volume_unit}`;

/** Grams, or millilitres, from what a cook types in the kitchen's own unit. */
export const gramsOf = (typed: number) => (measures.weight_unit === "oz" ? typed * OUNCE_G : typed);
export const millilitresOf = (typed: number) => (measures.volume_unit === "fl oz" ? typed * FLUID_OUNCE_ML : typed);

/** A fact's value as it is read, without its unit. */
export function figure(fact: Pick<Fact, "value" | "decimals" | "unit">): string {
  if (typeof fact.value === "string") return fact.value;
  if (fact.unit === "min" && fact.decimals === 0) return minutes(fact.value);
  if (fact.unit === "°C") return degrees(fact.value, fact.decimals);
  if (fact.unit === "mm") return lengthFigure(fact.value, fact.decimals);
  if (fact.unit === "g") return weightFigure(fact.value, fact.decimals);
  if (fact.unit === "ml") return volumeFigure(fact.value, fact.decimals);
  return fixed(fact.value, fact.decimals);
}

/** A fact's value with its unit. */
export function quantity(fact: Pick<Fact, "value" | "decimals" | "unit">): string {
  let unit = fact.unit;
  if (unit === "min" && typeof fact.value === "number" && fact.value >= 90) unit = "";
  if (unit === "°C") unit = degreesUnit();
  if (unit === "mm") unit = lengthUnit();
  if (unit === "g" && typeof fact.value === "number") unit = weightUnit();
  if (unit === "ml" && typeof fact.value === "number") unit = volumeUnit();
  return `${figure(fact)} ${said(unit)}`.trim();
}

/** A running or waiting clock: "27:12", "1:04:30"; a minus sign when it is past. */
export function clock(seconds: number): string {
  const past = seconds < 0;
  const total = Math.floor(Math.abs(seconds));
  const h = Math.floor(total / 3600);
  const m = Math.floor((total % 3600) / 60);
  const s = String(total % 60).padStart(2, "0");
  return `${past ? "−" : ""}${h ? `${h}:${String(m).padStart(2, "0")}` : m}:${s}`;
}

const zoned = (zone: string, options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat(locale(), { timeZone: zone, ...options });

/** "15:30" on the kitchen's clock, or "3:30 pm" where it goes by twelve hours. */
export const timeOfDay = (instant: string | Date, zone: string) =>
  timeWords(wallClock(new Date(instant), zone).slice(11));

/** "15:30" as the kitchen tells it. */
export function timeWords(clockTime: string): string {
  if (measures.clock_hours === 24) return clockTime;
  const [h = "0", m = "00"] = clockTime.split(":");
  return `${Number(h) % 12 || 12}:${m} ${Number(h) < 12 ? "am" : "pm"}`;
}

/** "15:30" from what a cook types: 15:30, 1530, 3.30 pm, 3pm; null when it is no time. */
export function timeFrom(typed: string): string | null {
  const match = /^\s*(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(am|pm|a|p)?\.?m?\.?\s*$/i.exec(typed);
  if (!match) return null;
  let h = Number(match[1]);
  const m = Number(match[2] ?? 0);
  const half = match[3]?.[0]?.toLowerCase();
  if (half && (h < 1 || h > 12)) return null;
  if (half) h = (h % 12) + (half === "p" ? 12 : 0);
  return h < 24 && m < 60 ? `${String(h).padStart(2, "0")}:${String(m).padStart(2, "0")}` : null;
}

/** "Sat 5 Dec" of a day such as 2026-12-05, and so many days on. */
export const dayWords = (day: string) =>
  zoned("UTC", { weekday: "short", day: "numeric", month: "short" }).format(dayAt(day));
export const daysOn = (day: string, days: number) =>
  new Date(dayAt(day).getTime() + days * 86_400_000).toISOString().slice(0, 10);
const dayAt = (day: string) => new Date(`${day}T12:00:00Z`);
export const isDay = (typed: string) => /^\d{4}-\d{2}-\d{2}$/.test(typed) && !Number.isNaN(dayAt(typed).getTime());

/** "Sat 28 Nov" on the kitchen's calendar. */
export const dayOf = (instant: string | Date, zone: string) =>
  zoned(zone, { weekday: "short", day: "numeric", month: "short" }).format(new Date(instant));

/** "28 Nov", without its weekday. */
export const dateOf = (instant: string | Date, zone: string) =>
  zoned(zone, { day: "numeric", month: "short" }).format(new Date(instant));

/** "2026-11-28T15:30" on the kitchen's clock: what the serve time is written as. */
export function wallClock(instant: Date, zone: string): string {
  const parts = Object.fromEntries(
    zoned(zone, {
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
      hour: "2-digit",
      minute: "2-digit",
      hourCycle: "h23",
    })
      .formatToParts(instant)
      .map((part) => [part.type, part.value]),
  );
  return `${parts.year}-${parts.month}-${parts.day}T${parts.hour}:${parts.minute}`;
}

/** What kind of work a step is; of what is safe nothing need be said. */
export const WORK_WORDS: Record<"stove" | "knife" | "messy" | "safe", string> = {
  stove: t`at the heat`,
  knife: t`with a blade`,
  messy: t`floury hands`,
  safe: t`safe for small helpers`,
};

export const plural = (count: number, name: string, many = `${name}s`) => `${count} ${count === 1 ? name : many}`;

/** What a step asks of a cook. */
export const HANDS_WORDS: Record<"held" | "minded" | "free", string> = {
  held: t`both hands`,
  minded: t`an eye on it`,
  free: t`by itself`,
};

export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** When the kitchen was last heard: "at 14:03", or "on Tuesday at 14:03" when that was another day. On this page's clock. */
export function sinceWords(ms: number): string {
  const at = new Date(ms);
  const time = timeWords(at.toTimeString().slice(0, 5));
  const today = at.toDateString() === new Date().toDateString();
  return today ? t`at ${time}` : t`on ${at.toLocaleDateString(locale(), { weekday: "long" })} at ${time}`;
}

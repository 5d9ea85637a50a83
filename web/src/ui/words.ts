/** Figures and times as a cook reads them. */

import { t } from "@lingui/core/macro";
import { locale } from "../words/language";

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

/** A window told anew from what a thermometer read: the same as `kemble/core/devices/probe.py`, where each relation is explained. */

import { t } from "@lingui/core/macro";
import type { StepState, TemperatureCurve } from "../api/client";

export type Refit = NonNullable<StepState["refit"]>;
export type Probed = StepState["probed"][number];

const READING_SD_C = 2;
const TOO_SOON_MIN = 1;
const MOST_FACTOR = 3;
const EDGES = 2 * 1.645;

interface WindowTold {
  first: number;
  done: number;
  latest: number;
}

/** None without a reading. `curve` is the core temperature as it was told, `told` its first check, done and latest. */
export function refit(curve: TemperatureCurve, told: WindowTold, readings: Probed[], unit: "C" | "F"): Refit | null {
  const last = readings.at(-1);
  if (!last) return null;
  let highest = Number.NEGATIVE_INFINITY;
  const core = curve.core_c.map((celsius) => {
    highest = Math.max(highest, celsius);
    return highest;
  });
  const spread = told.first > 0 ? Math.max(0.03, Math.log(told.latest / told.first) / EDGES) : 0.3;
  const prior = 1 / spread ** 2;
  let mean = 0;
  let precision = prior;
  for (const reading of readings) {
    const seen = logFactor(curve.minutes, core, reading);
    if (!seen) continue;
    const weight = 1 / seen.sd ** 2;
    mean = (mean * precision + seen.log * weight) / (precision + weight);
    precision += weight;
  }
  const factor = Math.exp(mean);
  const sd = Math.max(1 / Math.sqrt(precision), 0.02);
  const done = told.done * factor;
  return {
    minute: last.minute,
    celsius: last.celsius,
    factor,
    weight: 1 - prior / precision,
    first: done * Math.exp(-1.645 * sd),
    done,
    latest: done * Math.exp(1.645 * sd),
    was_done: told.done,
    says: says(last, done, told.done, unit),
  };
}

function logFactor(minutes: number[], core: number[], item: Probed): { log: number; sd: number } | null {
  if (item.minute < TOO_SOON_MIN) return null;
  const low = core[0] as number;
  const high = core.at(-1) as number;
  const within = (value: number, from: number, to: number) => Math.min(Math.max(value, from), to);
  const at = within(item.celsius, low + 1e-6, high - 1e-6);
  const told = interpolated(at, core, minutes);
  const step = 0.5 * READING_SD_C;
  const earlier = interpolated(within(at - step, low, high), core, minutes);
  const later = interpolated(within(at + step, low, high), core, minutes);
  if (later <= earlier || told <= 0) return null;
  let sd = ((later - earlier) / (2 * step)) * READING_SD_C;
  if (item.celsius <= low + READING_SD_C || item.celsius >= high - READING_SD_C) sd *= 3;
  const most = Math.log(MOST_FACTOR);
  return { log: within(Math.log(item.minute / told), -most, most), sd: Math.max(0.01, sd / told) };
}

/** y at x on the straight lines between points whose x never falls. Of several at one x, the last. */
function interpolated(x: number, xs: number[], ys: number[]): number {
  let right = xs.findIndex((eachX) => eachX > x);
  if (right < 0) right = xs.length;
  if (right === 0) return ys[0] as number;
  if (right === xs.length) return ys.at(-1) as number;
  const [x0, x1] = [xs[right - 1] as number, xs[right] as number];
  const [y0, y1] = [ys[right - 1] as number, ys[right] as number];
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
}

function says(last: Probed, now: number, was: number, unit: "C" | "F"): string {
  const shown = unit === "C" ? last.celsius : last.celsius * 1.8 + 32;
  const told = t`At ${whole(last.minute)} minutes the heart is ${whole(shown)} °${unit}: `;
  if (last.minute >= now) return t`${told}done by the curve. Look at it now.`;
  if (whole(now) === whole(was)) return t`${told}as told, done at ${whole(was)}.`;
  return t`${told}done at ${whole(now)}, not ${whole(was)}.`;
}

/** Rounded as the server rounds, a half to the even number: a sentence must not change when its answer comes. */
function whole(value: number): number {
  const rounded = Math.round(value);
  return Math.abs(value % 1) === 0.5 && rounded % 2 ? rounded - 1 : rounded;
}

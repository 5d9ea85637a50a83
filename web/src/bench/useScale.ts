/** The scale as this page hears it: an event stream that opens again by itself, and what is new on the tray. */

import { t } from "@lingui/core/macro";
import { useCallback, useEffect, useState } from "react";
import { api, ask, type ScaleLive } from "../api/client";

export const SILENT: ScaleLive = { state: "waiting", grams: 0, steady: false, name: "", says: "" };
const LOST: ScaleLive = {
  ...SILENT,
  state: "gone",
  says: t`The kitchen's server cannot be reached: what you weigh waits here.`,
};
const NOTHING_G = 0.8; // less than that is nothing new

interface Rest {
  grams: number;
  first: boolean;
}

/** What lies on the tray: `base` was there when the last piece was taken, `fresh` came on it since. */
export interface Tray {
  base: number;
  fresh: number;
}

export const EMPTY: Tray = { base: 0, fresh: 0 };

/** The tray after it came to rest at another weight: more lies on it, a little was pinched off, or it was lifted. */
export function rested(tray: Tray, grams: number): Tray {
  if (grams < tray.base - NOTHING_G) return result(grams);
  const fresh = +(grams - tray.base).toFixed(1);
  return { base: tray.base, fresh: fresh >= NOTHING_G ? fresh : 0 };
}

/** The tray as it lies when the page begins to listen, or the scale is back: nothing on it is new. */
export const result = (grams: number): Tray => ({ base: Math.abs(grams) < NOTHING_G ? 0 : grams, fresh: 0 });

/** The tray once what is new on it has been taken down as a piece. */
export const taken = (tray: Tray): Tray => ({ base: tray.base + tray.fresh, fresh: 0 });

/** `onRest` is told what is new on the tray each time it comes to rest; `there`: whether there is one to listen to. */
export function useScale(there: boolean, onRest: (tray: Tray) => void) {
  const [live, setLive] = useState<ScaleLive>(SILENT);
  const [tray, setTray] = useState<Tray>(EMPTY);
  const [rest, setRest] = useState<Rest | null>(null);

  useEffect(() => {
    if (!there) return;
    const stream = new EventSource("/api/scale/live");
    stream.addEventListener("reading", (event) => setLive(JSON.parse(event.data) as ScaleLive));
    stream.addEventListener("still", (event) => setRest(JSON.parse(event.data) as Rest));
    stream.addEventListener("error", () => setLive(LOST));
    return () => stream.close();
  }, [there]);

  // A scale that went away starts from nothing when it is back.
  const gone = live.state === "gone";
  useEffect(() => {
    if (gone) setTray(EMPTY);
  }, [gone]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: told once for each time the tray comes to rest
  useEffect(() => {
    if (!rest) return;
    const next = rest.first ? result(rest.grams) : rested(tray, rest.grams);
    setTray(next);
    onRest(next);
  }, [rest]);

  const take = useCallback(() => setTray(taken), []);
  const zero = useCallback(async () => {
    await ask(api.POST("/api/scale/zero"));
    setTray(EMPTY);
  }, []);
  return { live, tray, take, zero };
}

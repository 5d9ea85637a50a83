/** What keeps a page useful across a kitchen: the screen stays on, and a chime says that something is due. */

import { useEffect, useRef } from "react";

export function useStayAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const hold = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        lock = await navigator.wakeLock.request("screen");
        if (gone) await lock.release();
      } catch {
        // Refused on low battery or by the browser: the run goes on without it.
      }
    };
    void hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", hold);
      void lock?.release();
    };
  }, []);
}

let audio: AudioContext | null = null;

/** Two soft notes. Browsers allow sound only after a press, which a cook has made by then. */
function chime() {
  try {
    audio ??= new AudioContext();
    const context = audio;
    [660, 880].forEach((pitch, i) => {
      const tone = context.createOscillator();
      const level = context.createGain();
      const at = context.currentTime + i * 0.22;
      tone.frequency.value = pitch;
      level.gain.setValueAtTime(0, at);
      level.gain.linearRampToValueAtTime(0.25, at + 0.02);
      level.gain.exponentialRampToValueAtTime(0.001, at + 0.6);
      tone.connect(level).connect(context.destination);
      tone.start(at);
      tone.stop(at + 0.65);
    });
  } catch {
    // No sound here: the clocks still show it.
  }
}

/** Chimes once for each thing that becomes due. */
export function useChime(due: string[]) {
  const told = useRef<Set<string> | null>(null);
  const joined = due.join("|");
  useEffect(() => {
    const now = new Set(joined ? joined.split("|") : []);
    const known = told.current;
    told.current = now;
    if (known && [...now].some((name) => !known.has(name))) chime();
  }, [joined]);
}

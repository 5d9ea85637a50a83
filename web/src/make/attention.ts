/** What keeps a page useful across a kitchen: the screen stays on, and what is pressed is large. */

import { useEffect } from "react";

/** Everything that is pressed is elbow-sized while the page is open, what opens over it too (look.css). */
export function useElbows() {
  useEffect(() => {
    document.body.dataset.elbow = "";
    return () => {
      delete document.body.dataset.elbow;
    };
  }, []);
}

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

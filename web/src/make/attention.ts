/** What keeps a page useful across a kitchen: the screen stays on. */

import { useEffect } from "react";

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

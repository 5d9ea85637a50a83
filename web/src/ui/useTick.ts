import { useEffect, useState } from "react";

/** Renders again a few times a second, so that clocks move. */
export function useTick(everyMs: number) {
  const [, setTick] = useState(0);
  useEffect(() => {
    const timer = window.setInterval(() => setTick((n) => n + 1), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
}

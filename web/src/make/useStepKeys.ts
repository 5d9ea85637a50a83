/** The keys of the Make screen, a page-turner's among them. */

import { useEffect, useRef } from "react";

/** Keyboard and page-turner pedal: forward is space or page down, back is page up. */
interface StepKeys {
  forward: () => void;
  notYet: (() => void) | null;
  weigh: (() => void) | null;
  undo: (() => void) | null;
  redo: (() => void) | null;
}

export function useStepKeys(keys: StepKeys) {
  const newest = useRef(keys);
  newest.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      const pedal = event.key === "PageDown" || event.key === "PageUp";
      if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && !pedal) return;
      if (/^(BUTTON|A)$/.test(target.tagName) && event.key === " ") return; // it presses what has the focus
      const { forward, notYet, weigh, undo, redo } = newest.current;
      const does: Record<string, (() => void) | null> = {
        " ": forward,
        PageDown: forward,
        n: notYet,
        w: weigh,
        u: undo,
        r: redo,
        PageUp: undo,
      };
      const action = does[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

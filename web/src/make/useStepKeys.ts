/** The keys of the Make screen, a page-turner's among them (ui/keys.ts). */

import { useEffect, useRef } from "react";
import { isTyping, MAKE_KEYS, type MakeKey } from "../ui/keys";

type Actions = Partial<Record<MakeKey, (() => void) | null>>;

const BY_KEY = new Map(
  Object.entries(MAKE_KEYS).flatMap(([name, row]) => row.keys.map((key) => [key as string, name as MakeKey] as const)),
);
const PEDAL = new Set(["PageDown", "PageUp"]);
const OWN = new Set([" ", "ArrowLeft", "ArrowRight", "Home"]); // what has the focus may want them itself

export function useStepKeys(actions: Actions) {
  const newest = useRef(actions);
  newest.current = actions;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      if (event.key === "Escape" && isTyping(target)) target.blur(); // never caught in a field
      if (document.querySelector('[role="dialog"]')?.contains(target)) return;
      if (isTyping(target) && !PEDAL.has(event.key)) return;
      if (/^(BUTTON|A)$/.test(target.tagName) && OWN.has(event.key)) return;
      const name = BY_KEY.get(event.key);
      const action = name && newest.current[name];
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

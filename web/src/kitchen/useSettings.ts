/** The settings as they are typed: saved a moment later, also when the page is left before that moment is up. */

import { useEffect, useRef, useState } from "react";
import type { KitchenSettings } from "../api/client";
import { useKitchenSave, withUnsaved } from "../sheet/useKitchenSave";

const SAVE_MS = 500;

export function useSettings(start: KitchenSettings) {
  const [kitchen, setKitchen] = useState(() => withUnsaved(start));
  const unsaved = useRef<{ from: KitchenSettings; to: KitchenSettings; timer: number } | null>(null);
  const [dirty, setDirty] = useState(false);
  const { save, pending, waiting, error } = useKitchenSave();
  const set = (change: Partial<KitchenSettings>) => {
    const to = { ...kitchen, ...change };
    setKitchen(to);
    setDirty(true);
    clearTimeout(unsaved.current?.timer);
    const from = unsaved.current?.from ?? kitchen;
    unsaved.current = { from, to, timer: window.setTimeout(() => flush.current(), SAVE_MS) };
  };
  // Also when the page is left before the moment is up: nothing typed is lost.
  const flush = useRef(() => {});
  flush.current = () => {
    if (!unsaved.current) return;
    clearTimeout(unsaved.current.timer);
    save(unsaved.current.from, unsaved.current.to);
    unsaved.current = null;
    setDirty(false);
  };
  useEffect(() => () => flush.current(), []);
  // What was changed elsewhere, or brought back, is shown, unless something is being typed here.
  useEffect(() => {
    if (!unsaved.current) setKitchen(withUnsaved(start));
  }, [start]);
  return { kitchen, set, dirty, pending, waiting, error };
}

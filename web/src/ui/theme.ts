/** By day or by night, as this device is told: "auto" goes by the device itself. Kept on the device, not in the kitchen. */

import { useSyncExternalStore } from "react";

export type Theme = "auto" | "light" | "dark";

const KEPT = "kemble-theme";
const watchers = new Set<() => void>();

const kept = (): Theme => {
  const result = localStorage.getItem(KEPT);
  return result === "light" || result === "dark" ? result : "auto";
};

/** Puts on what was chosen before anything is drawn. */
export function wearTheme(theme: Theme = kept()) {
  if (theme === "auto") delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
}

export function chooseTheme(theme: Theme) {
  localStorage.setItem(KEPT, theme);
  wearTheme(theme);
  for (const watch of watchers) watch();
}

export const useTheme = () =>
  useSyncExternalStore((told) => {
    watchers.add(told);
    return () => watchers.delete(told);
  }, kept);

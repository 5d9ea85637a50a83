import { useState } from "react";

const KEPT = "kemble-cook";

/** Whose hands this device stands beside: one of the cooks, or "" for all. Kept on the device. */
export function useMe(cooks: string[]): [string, (me: string) => void] {
  const [me, setMe] = useState(() => localStorage.getItem(KEPT) ?? "");
  const choose = (next: string) => {
    if (next) localStorage.setItem(KEPT, next);
    else localStorage.removeItem(KEPT);
    setMe(next);
  };
  return [cooks.includes(me) ? me : "", choose];
}

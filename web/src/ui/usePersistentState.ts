/** State that outlives a reload: what is typed and not yet sent lies in this browser under `key`, while there is one. */

import { useState } from "react";

export function usePersistentState<T>(key: string | null, start: T): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    const kept = key && localStorage.getItem(key);
    return kept ? (JSON.parse(kept) as T) : start;
  });
  return [
    value,
    (next) => {
      if (key) localStorage.setItem(key, JSON.stringify(next));
      setValue(next);
    },
  ];
}

export const forgetKept = (key: string) => localStorage.removeItem(key);

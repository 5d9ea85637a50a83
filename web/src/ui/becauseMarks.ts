/** What a because speaks of, marked wherever it stands: in the drawings by `data-of`, in words and figures by `data-fact`. */

import { useEffect } from "react";
import type { FactKey } from "../api/client";

/** While a fact is spoken of, everything on the page that is of it carries `data-spoken`. */
export function useSpoken(spoken: FactKey | null) {
  const key: string | null = spoken; // so many names are no help in an address
  useEffect(() => {
    if (key === null) return;
    const marked = [...document.querySelectorAll(`[data-of~="${key}"], [data-fact="${key}"]`)];
    for (const element of marked) element.setAttribute("data-spoken", "");
    return () => {
      for (const element of marked) element.removeAttribute("data-spoken");
    };
  }, [key]);
}

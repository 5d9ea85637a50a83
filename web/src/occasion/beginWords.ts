/** When there is something to begin for a feast. */

import type { FeastTold } from "../api/client";
import { plural } from "../ui/words";

/** "leaves soak on the evening before: in twelve days". */
export function beginWords(feast: Pick<FeastTold, "begin" | "begins_with">, today: string) {
  const days = Math.round((Date.parse(feast.begin) - Date.parse(today)) / 86_400_000);
  const when = days <= 0 ? "now" : days === 1 ? "tomorrow" : `in ${plural(days, "day")}`;
  return feast.begins_with ? `${feast.begins_with}: ${when}` : `begin ${when}`;
}

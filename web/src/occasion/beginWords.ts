/** When there is something to begin for a feast. */

import { plural, t } from "@lingui/core/macro";
import type { FeastCard } from "../api/client";

/** "leaves soak on the evening before: in twelve days". */
export function beginWords(feast: Pick<FeastCard, "begin" | "begins_with">, today: string) {
  const days = Math.round((Date.parse(feast.begin) - Date.parse(today)) / 86_400_000);
  const when = days <= 0 ? t`now` : days === 1 ? t`tomorrow` : t`in ${plural(days, { one: "# day", other: "# days" })}`;
  return feast.begins_with ? `${feast.begins_with}: ${when}` : t`begin ${when}`;
}

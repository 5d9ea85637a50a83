/** What was marked, in a cook's words. */

import { t } from "@lingui/core/macro";
import type { NewEvent } from "../api/client";
import { FOLD } from "../api/generated";
import { cutText } from "../ui/cutText";
import type { Formatters } from "../ui/formatters";

// What takes back or ends is never told so. Any other kind without its row does not compile.
type Marked = Exclude<NewEvent["kind"], "undone" | "redone" | "replanned" | "finished">;

const WORDS: Record<Marked, string> = {
  not_yet: t`${FOLD.not_yet_min} minutes more`,
  probed: t`read`,
  fault: t`seen`,
  handed: t`handed to`,
  started: t`started`,
  done: t`done`,
  weighed: t`weighed`,
  counted: t`counted`,
  noted: t`noted`,
  added: t`added`,
  paused: t`paused`,
  resumed: t`resumed`,
  skipped: t`left out`,
  amended: t`changed`,
};

/** An event in words, short enough for a button. */
export function eventWords(
  formatters: Formatters,
  event: Pick<NewEvent, "kind" | "grams" | "celsius" | "text" | "times" | "added">,
  step?: string,
) {
  const what =
    event.grams != null
      ? formatters.shownWeight(event.grams)
      : event.celsius != null
        ? `${formatters.degrees(event.celsius)} ${formatters.degreesUnit()}`
        : event.added
          ? t`${formatters.shownWeight(event.added.grams)} of ${event.added.ingredient.replaceAll("-", " ")}`
          : event.times
            ? `${event.times}`
            : event.text && `“${cutText(event.text, 23, "…")}”`;
  return [WORDS[event.kind as Marked] ?? event.kind, what, step && `(${step})`].filter(Boolean).join(" ");
}

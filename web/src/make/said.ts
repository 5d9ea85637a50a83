/** What was marked, in a cook's words. */

import { degrees, degreesUnit } from "../ui/words";
import type { Event } from "./fold";

const KIND_WORDS: Record<Event["kind"], string> = {
  started: "started",
  done: "done",
  not_yet: "5 minutes more",
  weighed: "weighed",
  probed: "read",
  noted: "noted",
  fault: "seen",
  undone: "undone",
  redone: "redone",
  finished: "finished",
};

/** An event in words, short enough for a button. */
export function said(event: Pick<Event, "kind" | "grams" | "celsius" | "text">, step?: string) {
  const what =
    event.grams != null
      ? `${event.grams} g`
      : event.celsius != null
        ? `${degrees(event.celsius)} ${degreesUnit()}`
        : event.text && (event.text.length > 24 ? `“${event.text.slice(0, 22)}…”` : `“${event.text}”`);
  return [KIND_WORDS[event.kind], what, step && `(${step})`].filter(Boolean).join(" ");
}

/** What this kitchen makes well: every way that is in the log, a mark for each batch, the ones that were right filled. */

import { t } from "@lingui/core/macro";
import { ToggleGroup } from "radix-ui";
import type { LogPage, WayCard } from "../api/client";

interface Props {
  made: LogPage["ways"];
  ways: readonly WayCard[];
  at: string;
  onPick: (way: string) => void;
}

const MOST_MARKS = 30; // of a way; beyond, the figures say it

export function WaysMade({ made, ways, at, onPick }: Props) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={t`Way`}
      className="grid gap-x-6 sm:grid-cols-2"
      value={at}
      onValueChange={(way) => way && onPick(way)}
    >
      {made.map((item) => {
        const way = ways.find((card) => card.id === item.way);
        const shown = Math.min(item.batches, MOST_MARKS);
        const right = Math.round((item.right / Math.max(1, item.batches)) * shown);
        return (
          <ToggleGroup.Item
            key={item.way}
            value={item.way}
            aria-label={t`${way?.name ?? item.way}: ${item.right} of ${item.batches} just right`}
            className={`hairline flex min-h-10 items-center justify-between gap-3 text-left hover:bg-sheet ${
              item.way === at ? "font-bold text-bean" : ""
            }`}
          >
            <span>{way?.name ?? item.way}</span>
            <svg width={shown * 9 + 2} height="12" aria-hidden="true" className="shrink-0">
              {Array.from({ length: shown }, (_, i) => i).map((i) => (
                <circle
                  key={i}
                  cx={i * 9 + 5}
                  cy="6"
                  r="3.4"
                  fill={i < right ? "var(--color-green)" : "none"}
                  stroke={i < right ? "var(--color-green)" : "var(--color-ink2)"}
                />
              ))}
            </svg>
          </ToggleGroup.Item>
        );
      })}
    </ToggleGroup.Root>
  );
}

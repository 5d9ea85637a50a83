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
      {made.map((one) => {
        const way = ways.find((card) => card.id === one.way);
        const shown = Math.min(one.batches, MOST_MARKS);
        const right = Math.round((one.right / Math.max(1, one.batches)) * shown);
        return (
          <ToggleGroup.Item
            key={one.way}
            value={one.way}
            aria-label={t`${way?.name ?? one.way}: ${one.right} of ${one.batches} just right`}
            className={`hairline flex min-h-10 items-center justify-between gap-3 text-left hover:bg-sheet ${
              one.way === at ? "font-bold text-bean" : ""
            }`}
          >
            <span>{way?.name ?? one.way}</span>
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

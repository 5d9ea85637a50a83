/** "I added fifteen grams of flour": it goes into the chain, and what follows from it is worked anew. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover } from "radix-ui";
import { useState } from "react";
import { limit } from "../api/limits";
import type { Happening, Making } from "../runs/useFlow";
import { WeightField } from "../ui/AmountField";
import { Slip } from "../ui/PopoverPanel";

interface Props {
  making: Making;
  step: string;
  open: boolean;
  onOpen: (open: boolean) => void;
  tell: (what: Happening) => void;
}

export function Adding({ making, step, open, onOpen, tell }: Props) {
  const lines = making.lines ?? [];
  const [at, setAt] = useState(0);
  const [grams, setGrams] = useState(15);
  const line = lines[at];
  const parts = new Set(lines.map((line) => line.part)).size;
  if (lines.length === 0) return null;
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Trigger className="pick min-h-16 px-6">
        <Trans>I added something</Trans>
      </Popover.Trigger>
      <Slip label={t`What was added?`} wide>
        <p id="what-added" className="text-ink2">
          <Trans>What was added?</Trans>
        </p>
        <ul aria-labelledby="what-added" className="mt-2 flex max-h-64 flex-wrap gap-2 overflow-auto">
          {lines.map((line, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines of a sheet that was begun do not move
            <li key={i}>
              <button
                type="button"
                className="pick min-h-16"
                aria-pressed={i === at}
                data-on={i === at}
                onClick={() => setAt(i)}
              >
                {line.name}
                {parts > 1 && (
                  <span className="font-normal">
                    <Trans>to the {line.part_name}</Trans>
                  </span>
                )}
              </button>
            </li>
          ))}
        </ul>
        <div className="mt-4 flex flex-wrap items-end gap-4">
          <WeightField
            label={t`How much`}
            value={grams}
            within={limit("AddedIngredient.grams")}
            width="6rem"
            onChange={setGrams}
          />
          <Popover.Close
            className="pick min-h-16 px-8"
            data-on="true"
            onClick={() =>
              line &&
              tell({
                kind: "added",
                step,
                added: { ingredient: line.ingredient, part: line.part as "base", grams },
              })
            }
          >
            <Trans>It is in</Trans>
          </Popover.Close>
        </div>
      </Slip>
    </Popover.Root>
  );
}

/** A rehearsal: by one's own hands, or by a simulated cook who is late, heavy-handed and forgetful as chosen. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover, RadioGroup } from "radix-ui";
import { useState } from "react";
import type { SimulatedCookTraits } from "../api/client";
import { Slip } from "../ui/PopoverPanel";

const SIDES = [
  ["late", t`Late`, ["on time", t`a little late`, t`late`]],
  ["heavy", t`Heavy-handed`, ["to the gram", t`a little over`, t`well over`]],
  ["forgetful", t`Forgetful`, ["looks at every clock", t`misses one`, t`misses several`]],
] as const;

interface Props {
  disabled?: boolean;
  onBegin: (cook: SimulatedCookTraits) => void;
}

export function RehearseSlip({ disabled, onBegin }: Props) {
  const [cook, setCook] = useState<SimulatedCookTraits>({ late: 1, heavy: 1, forgetful: 1, seed: 1 });
  return (
    <Popover.Root>
      <Popover.Trigger className="pick min-h-12 px-6 text-lg" disabled={disabled}>
        <Trans>Watch a rehearsal</Trans>
      </Popover.Trigger>
      <Slip label={t`A simulated cook`} side="top" wide>
        <p>
          <Trans>
            A simulated cook makes it all, sixty times as fast, with a simulated scale and thermometer. It never counts.
          </Trans>
        </p>
        {SIDES.map(([name, head, words]) => (
          <fieldset key={name} className="mt-3 border-0 p-0">
            <legend className="text-ink2">{head}</legend>
            <RadioGroup.Root
              aria-label={head}
              orientation="horizontal"
              className="mt-1 flex flex-wrap gap-2"
              value={String(cook[name])}
              onValueChange={(value) => setCook({ ...cook, [name]: Number(value) })}
            >
              {words.map((word, i) => (
                <RadioGroup.Item key={word} value={String(i)} className="pick min-h-12">
                  {word}
                </RadioGroup.Item>
              ))}
            </RadioGroup.Root>
          </fieldset>
        ))}
        <Popover.Close
          className="pick mt-4 min-h-16 px-8 text-lg"
          data-on="true"
          onClick={() => onBegin({ ...cook, seed: Date.now() % 100_000 })}
        >
          <Trans>Begin</Trans>
        </Popover.Close>
      </Slip>
    </Popover.Root>
  );
}

/** A rehearsal: by one's own hands, or by a simulated cook who is late, heavy-handed and forgetful as chosen. */

import { Popover, RadioGroup } from "radix-ui";
import { useState } from "react";
import type { CookManner } from "../api/client";
import { Slip } from "../ui/Slip";

const SIDES = [
  ["late", "Late", ["on time", "a little late", "late"]],
  ["heavy", "Heavy-handed", ["to the gram", "a little over", "well over"]],
  ["forgetful", "Forgetful", ["looks at every clock", "misses one", "misses several"]],
] as const;

interface Props {
  disabled?: boolean;
  onBegin: (cook: CookManner) => void;
}

export function RehearseSlip({ disabled, onBegin }: Props) {
  const [cook, setCook] = useState<CookManner>({ late: 1, heavy: 1, forgetful: 1, seed: 1 });
  return (
    <Popover.Root>
      <Popover.Trigger className="pick min-h-12 px-6 text-lg" disabled={disabled}>
        Watch a rehearsal
      </Popover.Trigger>
      <Slip label="A simulated cook" side="top" wide>
        <p>
          A simulated cook makes it all, sixty times as fast, with a simulated scale and thermometer. It never counts.
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
          Begin
        </Popover.Close>
      </Slip>
    </Popover.Root>
  );
}

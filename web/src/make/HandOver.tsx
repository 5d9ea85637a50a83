/** A held pan goes from one cook to another: who has it now. */

import { Popover } from "radix-ui";
import { Slip } from "../ui/Slip";

export function HandOver({ cooks, who, onHand }: { cooks: string[]; who: string; onHand: (who: string) => void }) {
  const others = cooks.filter((one) => one !== who);
  if (others.length === 0) return null;
  return (
    <Popover.Root>
      <Popover.Trigger className="pick min-h-16 px-6">Hand it over</Popover.Trigger>
      <Slip label="Who has it now?">
        <p className="text-ink2">Who has it now?{who && ` It is with ${who}.`}</p>
        <div className="mt-2 flex flex-wrap gap-3">
          {others.map((one) => (
            <Popover.Close key={one} className="pick min-h-16 px-6" onClick={() => onHand(one)}>
              {one}
            </Popover.Close>
          ))}
        </div>
      </Slip>
    </Popover.Root>
  );
}

/** A held pan goes from one cook to another: who has it now. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover } from "radix-ui";
import { Slip } from "../ui/PopoverPanel";

export function HandOver({ cooks, who, onHand }: { cooks: string[]; who: string; onHand: (who: string) => void }) {
  const others = cooks.filter((cook) => cook !== who);
  if (others.length === 0) return null;
  return (
    <Popover.Root>
      <Popover.Trigger className="pick min-h-16 px-6">
        <Trans>Hand it over</Trans>
      </Popover.Trigger>
      <Slip label={t`Who has it now?`}>
        <p className="text-ink2">
          <Trans>Who has it now?{who && t` It is with ${who}.`}</Trans>
        </p>
        <div className="mt-2 flex flex-wrap gap-3">
          {others.map((name) => (
            <Popover.Close key={name} className="pick min-h-16 px-6" onClick={() => onHand(name)}>
              {name}
            </Popover.Close>
          ))}
        </div>
      </Slip>
    </Popover.Root>
  );
}

/** A slip of paper laid beside what was pressed. Goes inside a Popover.Root. */

import { Popover } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  label: string;
  side?: "top" | "bottom";
  wide?: boolean;
  children: ReactNode;
}

export function Slip({ label, side = "bottom", wide, children }: Props) {
  return (
    <Popover.Portal>
      <Popover.Content
        aria-label={label}
        side={side}
        sideOffset={8}
        collisionPadding={12}
        className={`z-40 max-h-[min(70vh,var(--radix-popover-content-available-height))] overflow-auto rounded-md border border-ink bg-sheet p-4 ${
          wide ? "w-[min(34rem,calc(100vw-24px))]" : "w-[min(25rem,calc(100vw-24px))]"
        }`}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}

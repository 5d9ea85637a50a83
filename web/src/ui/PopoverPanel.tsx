/** A slip of paper laid beside what was pressed. Goes inside a Popover.Root. */

import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Spot } from "./clearSpot";

interface Props {
  label: string;
  side?: "top" | "bottom";
  /** Where it is to lie, worked out so that it covers no drawing. */
  spot?: Spot | null;
  wide?: boolean;
  children: ReactNode;
}

export function Slip({ label, side = "bottom", spot, wide, children }: Props) {
  return (
    <Popover.Portal>
      <Popover.Content
        aria-label={label}
        side={spot?.side ?? side}
        align={spot?.align ?? "center"}
        sideOffset={spot?.sideOffset ?? 8}
        collisionPadding={12}
        style={spot ? { maxHeight: spot.high } : undefined}
        className={`z-40 overflow-auto rounded-md border border-ink bg-sheet p-4 ${
          spot ? "" : "max-h-[min(70vh,var(--radix-popover-content-available-height))]"
        } ${wide ? "w-[min(34rem,calc(100vw-24px))]" : "w-[min(25rem,calc(100vw-24px))]"}`}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}

/** A list of things that can be done, opened by a press: arrow keys and first letters move in it, only a press does one. */

import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

export interface Choice {
  id: string;
  words: string;
  /** Of a list with several parts: what this one is under. */
  under?: string;
}

interface Props {
  label: string;
  /** On the button. */
  children: ReactNode;
  choices: readonly Choice[];
  onPick: (id: string) => void;
  disabled?: boolean;
  className?: string;
}

export function ActionMenu({ label, children, choices, onPick, disabled, className = "" }: Props) {
  const heads = [...new Set(choices.map((choice) => choice.under ?? ""))];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={label}
        disabled={disabled || choices.length === 0}
        className={`inline-flex min-h-9 items-center gap-1.5 text-bean disabled:text-ink2 print:hidden ${className}`}
      >
        {children}
        <svg width="9" height="6" aria-hidden="true">
          <path d="M0.5 0.5L4.5 5L8.5 0.5" fill="none" stroke="currentColor" strokeWidth="1.4" />
        </svg>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          collisionPadding={12}
          className="z-50 max-h-[min(60vh,var(--radix-dropdown-menu-content-available-height))] max-w-[min(24rem,calc(100vw-24px))] overflow-auto rounded-md border border-ink bg-sheet py-1"
        >
          {heads.map((head) => (
            <DropdownMenu.Group key={head}>
              {head && <DropdownMenu.Label className="px-4 pt-2 pb-1 text-sm text-ink2">{head}</DropdownMenu.Label>}
              {choices
                .filter((choice) => (choice.under ?? "") === head)
                .map((choice) => (
                  <DropdownMenu.Item
                    key={choice.id}
                    className="cursor-pointer px-4 py-1.5 outline-none pointer-coarse:py-2.5 data-[highlighted]:bg-bean data-[highlighted]:text-paper"
                    onSelect={() => onPick(choice.id)}
                  >
                    {choice.words}
                  </DropdownMenu.Item>
                ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

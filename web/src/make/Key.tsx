/** A key of the keyboard or pedal beside what it does. */

import type { ReactNode } from "react";

export function Key({ name, children }: { name: string; children: ReactNode }) {
  return (
    <span>
      <kbd className="rounded border border-ink px-1.5 text-sm text-ink">{name}</kbd> {children}
    </span>
  );
}

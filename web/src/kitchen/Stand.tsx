/** What things of the kitchen are drawn on. */

import { Trans } from "@lingui/react/macro";
import type { ReactNode } from "react";

/** A drawing that stands on its shelf; what it shows is said in words under it. */
export function Stand({ wide, high, children }: { wide: number; high: number; children: ReactNode }) {
  return (
    <svg
      width={wide}
      height={high}
      viewBox={`0 0 ${wide} ${high}`}
      className="block h-auto min-w-0 shrink"
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth="1.6"
      aria-hidden="true"
    >
      {children}
    </svg>
  );
}

/** Where nothing stands yet. */
export function Nothing() {
  return (
    <span aria-hidden="true" className="py-3 text-ink2">
      <Trans>nothing here yet</Trans>
    </span>
  );
}

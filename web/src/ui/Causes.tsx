/** The causes of a fault, the likeliest first, each with what speaks for it and against it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ExplainedFault } from "../api/client";
import { capital } from "./words";

export function Causes({ fault }: { fault: ExplainedFault }) {
  if (fault.causes.length === 0) return null;
  return (
    <>
      <ol aria-label={t`Causes of: ${fault.seen}`} className="mt-1 list-none p-0">
        {fault.causes.map((cause) => (
          <li key={cause.says} className="flex gap-3 py-0.5">
            <Side on={cause.speaks_for.length > 0} against={cause.speaks_against.length > 0} />
            <span>
              {capital(cause.says)}
              {cause.speaks_for.length > 0 && <b>: {cause.speaks_for.join("; ")}</b>}
              {cause.speaks_against.length > 0 && (
                <span className="text-ink2">
                  <Trans>: hardly, {cause.speaks_against.join("; ")}</Trans>
                </span>
              )}
            </span>
          </li>
        ))}
      </ol>
      {!fault.sure && (
        <p className="text-ink2">
          <Trans>Nothing that was measured points to one of them.</Trans>
        </p>
      )}
    </>
  );
}

/** Told by shape as well as tint: a full bean speaks for it, an open one says nothing, a struck one speaks against. */
function Side({ on, against }: { on: boolean; against: boolean }) {
  return (
    <svg viewBox="0 0 20 20" className="mt-1 size-4 shrink-0" aria-hidden="true">
      <ellipse
        cx="10"
        cy="10"
        rx="8"
        ry="6"
        fill={on ? "var(--color-bean)" : "none"}
        stroke={against && !on ? "var(--color-ink2)" : "var(--color-bean)"}
        strokeWidth="1.6"
      />
      {against && !on && <path d="M2 16L18 4" stroke="var(--color-ink2)" strokeWidth="1.8" />}
    </svg>
  );
}

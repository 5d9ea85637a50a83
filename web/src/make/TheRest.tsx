/** What the newest plan of the rest moved, and why; what else could be done about a late table. Said until it is seen. */

import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { Making } from "../runs/useFlow";

export function TheRest({ makings }: { makings: Making[] }) {
  const [seen, setSeen] = useState("");
  const newest = makings
    .flatMap((making) => making.events.filter((event) => event.kind === "replanned"))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .at(-1);
  const says = [...new Set(makings.flatMap((making) => making.state.says ?? []))];
  const choices = [...new Set(makings.flatMap((making) => making.state.choices ?? []))];
  if (!newest || newest.uid === seen || says.length === 0) return null;
  return (
    <div
      role="status"
      className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2 border-l-4 border-amber pl-4 text-lg"
    >
      <div className="min-w-0 flex-1 basis-80">
        {says.map((say) => (
          <p key={say}>{say}</p>
        ))}
        {choices.length > 0 && (
          <p>
            <b className="text-look">
              <Trans>What would help.</Trans>
            </b>{" "}
            {choices.join(" ")}
          </p>
        )}
      </div>
      <button type="button" className="pick min-h-16 px-6" onClick={() => setSeen(newest.uid)}>
        <Trans>Seen</Trans>
      </button>
    </div>
  );
}

/** Said on every page while the kitchen does not answer: what is shown is as it was last heard. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useReach } from "../api/connection";
import { useFormatters } from "./formatters";

export function AwayLine() {
  const { sinceWords } = useFormatters();
  const { away, heard } = useReach();
  if (!away) return null;
  return (
    <p role="status" data-away="true" className="mt-2 border-l-4 border-amber pl-4">
      <Trans>
        <b className="text-look">The kitchen cannot be reached.</b> What you see is as it was
        {heard ? ` ${sinceWords(heard)}` : t` when this page was opened`}. What you do is kept here, and sent when it is
        back.
      </Trans>
    </p>
  );
}

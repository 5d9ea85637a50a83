/** Why the server could not take something just now (it says under which number), and that it is tried again. */

import { Trans } from "@lingui/react/macro";
import type { Problem } from "../api/client";
import { useReach } from "../api/connection";
import { capital } from "./words";

interface Props {
  failed: { status: number; problems: Problem[] } | null;
}

export function TriedAgain({ failed }: Props) {
  const { away, signedOut } = useReach();
  const problem = failed && failed.status >= 429 ? failed.problems[0] : undefined;
  if (!problem || away || signedOut) return null;
  return (
    <p role="status" data-failed={failed?.status} className="mt-2 border-l-4 border-amber pl-4">
      <Trans>
        {capital(problem.path)} {problem.says}. It is tried again by itself.
      </Trans>
    </p>
  );
}

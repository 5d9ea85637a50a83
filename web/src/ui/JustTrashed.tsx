/** What was thrown away last, where it was, to be brought back by one press. */

import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { droppedQuery } from "../api/queries";
import { BringBack } from "./RestoreTrashed";

const JUST_MS = 15 * 60_000;

export function JustDropped({ kinds }: { kinds: string[] }) {
  const dropped = useQuery(droppedQuery);
  const last = dropped.data?.find((item) => kinds.includes(item.kind));
  if (!last || Date.now() - Date.parse(last.dropped) > JUST_MS) return null;
  return (
    <p className="mt-1 border-l-4 border-amber pl-4" role="status">
      <Trans>
        “{last.title}” is thrown away.{" "}
        <BringBack kind={last.kind} id={last.id}>
          Bring it back
        </BringBack>
      </Trans>
    </p>
  );
}

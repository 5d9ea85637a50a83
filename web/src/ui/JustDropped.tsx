/** What was thrown away last, at hand to be brought back; the rest is a link away. */

import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { droppedQuery } from "../api/queries";
import { BringBack } from "./BringBack";

const JUST_MS = 15 * 60_000;

export function JustDropped({ kinds }: { kinds: string[] }) {
  const dropped = useQuery(droppedQuery);
  const found = dropped.data?.filter((one) => kinds.includes(one.kind)) ?? [];
  const last = found.find((one) => Date.now() - Date.parse(one.dropped) < JUST_MS);
  if (!dropped.data?.length) return null;
  return (
    <p className="mt-4 text-ink2" role="status">
      {last && (
        <>
          {last.kind === "plan" ? "The plan " : last.kind === "run" ? "The run " : ""}“{last.title}” is thrown away.{" "}
          <BringBack kind={last.kind} id={last.id}>
            Bring it back
          </BringBack>
          {". "}
        </>
      )}
      <Link to="/dropped" className="text-bean underline underline-offset-4">
        All that was thrown away
      </Link>
    </p>
  );
}

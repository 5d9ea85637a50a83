/** What else there is of a sheet: its revisions, another's way beside it, and itself as a file. */

import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { Slip } from "../ui/Slip";
import { capital } from "../ui/words";

const LOOK = "inline-flex min-h-11 items-center text-bean underline underline-offset-4";

export function MoreSlip({ id }: { id: number }) {
  const formats = useQuery({
    queryKey: ["formats"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(api.GET("/api/formats")),
  });
  return (
    <Popover.Root>
      <Popover.Trigger className="text-bean underline underline-offset-4">More</Popover.Trigger>
      <Slip label="More of this sheet">
        <ul>
          <li className="hairline">
            <Link to={`/sheets/${id}/revisions`} className={LOOK}>
              Revisions
            </Link>
          </li>
          <li className="hairline">
            <Link to={`/sheets/${id}/beside`} className={LOOK}>
              Her way and mine
            </Link>
          </li>
        </ul>
        <p className="mt-3 text-ink2">Take it along</p>
        <ul>
          {formats.data?.map((one) => (
            <li key={one.id} className="hairline">
              <a href={`/api/sheets/${id}/as/${one.id}`} download className={LOOK}>
                {capital(one.label)}
              </a>
            </li>
          ))}
        </ul>
      </Slip>
    </Popover.Root>
  );
}

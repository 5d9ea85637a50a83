/** What else there is of a sheet: its revisions, another's way beside it, and itself as a file. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { Slip } from "../ui/PopoverPanel";
import { capital } from "../ui/words";

const LOOK = "inline-flex min-h-11 items-center text-bean underline underline-offset-4";

export function MoreSlip({ id }: { id: number }) {
  const formats = useQuery({
    queryKey: ["formats"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(api.GET("/api/formats")),
  });
  const [open, setOpen] = useState(false);
  const patterns = useQuery({
    queryKey: ["templates", id],
    enabled: open,
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}/templates", { params: { path: { sheet_id: id } } })),
  });
  const cut = patterns.data ?? [];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-bean underline underline-offset-4">
        <Trans>More</Trans>
      </Popover.Trigger>
      <Slip label={t`More of this sheet`}>
        <ul>
          <li className="hairline">
            <Link to={`/sheets/${id}/revisions`} className={LOOK}>
              <Trans>Revisions</Trans>
            </Link>
          </li>
          <li className="hairline">
            <Link to={`/sheets/${id}/beside`} className={LOOK}>
              <Trans>Her way and mine</Trans>
            </Link>
          </li>
        </ul>
        <p className="mt-3 text-ink2">
          <Trans>On paper</Trans>
        </p>
        <ul>
          <li className="hairline">
            <a href={`/api/sheets/${id}/paper/card.pdf`} target="_blank" rel="noreferrer" className={LOOK}>
              <Trans>Recipe card, one page</Trans>
            </a>
          </li>
          {cut.length > 0 && (
            <li className="hairline">
              <a href={`/api/sheets/${id}/paper/templates.pdf`} target="_blank" rel="noreferrer" className={LOOK}>
                <Trans>Templates at full size</Trans>
              </a>
              <span className="block pb-2 text-ink2">
                {cut.map((item, i) => (
                  <span key={item.id}>
                    {i > 0 && ", "}
                    <a href={`/api/sheets/${id}/templates/${item.id}.svg`} download className="text-ink2">
                      {item.title.toLowerCase()}
                    </a>
                  </span>
                ))}
              </span>
            </li>
          )}
        </ul>
        <p className="mt-3 text-ink2">
          <Trans>Take it along</Trans>
        </p>
        <ul>
          {formats.data?.map((item) => (
            <li key={item.id} className="hairline">
              <a href={`/api/sheets/${id}/as/${item.id}`} download className={LOOK}>
                {capital(item.label)}
              </a>
            </li>
          ))}
        </ul>
      </Slip>
    </Popover.Root>
  );
}

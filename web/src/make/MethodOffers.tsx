/** What the sheet says of its method now and this batch does not do yet: taken over with a press. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { sessionQuery } from "../api/queries";
import { cooks } from "../api/roles";
import type { Happening, Making } from "../runs/useFlow";
import { LinkButton } from "../ui/LinkButton";
import { duration } from "../ui/words";

const FRESH_MS = 60_000;

export function MethodOffers({ making, tell }: { making: Making; tell: (what: Happening) => void }) {
  const [taken, setTaken] = useState<string[]>([]);
  const role = useQuery(sessionQuery).data?.role;
  const query = useQuery({
    queryKey: ["offers", making.id],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/offers", { params: { path: { run_id: making.id } } })),
    enabled: role != null && cooks(role), // a helper does the batch as it was begun
    staleTime: FRESH_MS,
    refetchOnWindowFocus: true,
    retry: false,
  });
  const offers = (query.data ?? []).filter((offer) => !taken.includes(offer.step));
  if (!offers.length) return null;
  return (
    <div role="status" className="mt-2 border-l-4 border-amber pl-4">
      <p>
        <Trans>The method of “{making.title}” has changed since this was begun:</Trans>
      </p>
      <ul>
        {offers.map((offer) => (
          <li key={offer.step}>
            <b>{offer.title}</b>
            {offer.minutes != null && `, ${duration(offer.minutes)}`}
            {!offer.entry && t`, left out`}{" "}
            <LinkButton
              onClick={() => {
                setTaken([...taken, offer.step]);
                tell(offer.entry ? { kind: "amended", entry: offer.entry } : { kind: "skipped", step: offer.step });
              }}
            >
              <Trans>do it so</Trans>
            </LinkButton>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What a helper comes to: what is on the stove, and what their hands are wanted for. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { OccasionCard } from "../api/client";
import { kitchenQuery, occasionsQuery } from "../api/queries";
import { NextUp } from "../counter/Coming";
import { Nothing } from "../counter/Nothing";
import { OnTheStove } from "../counter/OnTheStove";
import { Frame, Waiting } from "../ui/Frame";
import { useFormatters } from "../ui/formatters";
import { TextLink } from "../ui/LinkButton";
import { dayOf } from "../ui/words";

export default function HelperToday() {
  const kitchen = useQuery(kitchenQuery);
  const occasions = useQuery(occasionsQuery);
  useEffect(() => {
    document.title = t`Today · Kemble`;
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame title={<h1 className="text-2xl">{kitchen.data.kitchen.name}</h1>}>
      <div className="mt-6 grid max-w-[44rem] gap-8 pb-10">
        <OnTheStove zone={zone} />
        <section aria-labelledby="next">
          <h2 id="next" className="text-xl">
            <Trans>Planned next</Trans>
          </h2>
          {!occasions.data?.length && (
            <Nothing known={occasions.data !== undefined} what="planned">
              <Trans>Nothing yet.</Trans>
            </Nothing>
          )}
          {occasions.data && <NextUp occasions={occasions.data} zone={zone} />}
          <ul>
            {occasions.data?.map((item) => (
              <Day key={item.id} occasion={item} zone={zone} />
            ))}
          </ul>
        </section>
      </div>
    </Frame>
  );
}

/** An occasion, and the page of each pair of hands in it. */
function Day({ occasion, zone }: { occasion: OccasionCard; zone: string }) {
  const { timeOfDay } = useFormatters();
  const hands = [...new Set(occasion.steps.map((step) => step.who).filter(Boolean))].sort();
  return (
    <li className="hairline py-2">
      <p className="text-lg">{occasion.title}</p>
      <p className="text-ink2">
        <Trans>
          {dayOf(occasion.serve, zone)}, on the table at {timeOfDay(occasion.serve, zone)}
        </Trans>
      </p>
      <p className="mt-1 flex flex-wrap gap-x-5">
        {hands.map((who) => (
          <TextLink key={who} to={`/occasions/${occasion.id}/for/${encodeURIComponent(who)}`}>
            <Trans>what {who} does</Trans>
          </TextLink>
        ))}
      </p>
    </li>
  );
}

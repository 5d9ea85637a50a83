/** What a taster comes to: batches that wait for a word, newest first, and blind tables that are laid. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { kitchenQuery } from "../api/queries";
import { Frame, Waiting } from "../ui/Frame";
import { dayOf } from "../ui/words";

export default function TasterToday() {
  const kitchen = useQuery(kitchenQuery);
  const batches = useQuery({ queryKey: ["to-taste"], queryFn: () => ask(api.GET("/api/to-taste")) });
  const splits = useQuery({ queryKey: ["splits"], queryFn: () => ask(api.GET("/api/splits")) });
  useEffect(() => {
    document.title = t`To taste · Kemble`;
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>To taste</Trans>
        </h1>
      }
    >
      <div className="mt-6 grid max-w-[44rem] gap-8 pb-10">
        <section aria-labelledby="batches">
          <h2 id="batches" className="text-xl">
            <Trans>Made lately</Trans>
          </h2>
          {batches.data?.length === 0 && (
            <p className="mt-2 text-ink2">
              <Trans>Nothing yet.</Trans>
            </p>
          )}
          <ul>
            {batches.data?.map((item) => (
              <Line
                key={item.batch}
                to={`/log/${item.batch}/taste`}
                title={item.title}
                says={`${dayOf(item.made, zone)}${item.again ? t`, the day after: once more` : item.tasted ? t`, you have said` : ""}`}
              />
            ))}
          </ul>
        </section>
        {splits.data && splits.data.length > 0 && (
          <section aria-labelledby="blind">
            <h2 id="blind" className="text-xl">
              <Trans>Tasted blind</Trans>
            </h2>
            <ul>
              {splits.data.map((item) => (
                <Line key={item.id} to={`/log/blind/${item.id}`} title={item.title} says={item.says} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </Frame>
  );
}

const Line = ({ to, title, says }: { to: string; title: string; says: string }) => (
  <li className="hairline">
    <Link to={to} className="flex min-h-16 items-center justify-between gap-4 text-ink no-underline hover:bg-sheet">
      <b className="text-lg">{title}</b>
      <span className="max-w-44 shrink-0 text-right text-ink2">{says}</span>
    </Link>
  </li>
);

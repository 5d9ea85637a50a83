/** What this kitchen has learned: each row of the table as the craft has it and as it is here, side by side; and what would
 * teach most. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { api, ask, type LearnedPage as Page } from "../api/client";
import { kitchenQuery, settle } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { capital, dayOf } from "../ui/words";
import { fixed } from "../words/numbers";
import { Brings, type LearnedRow, Ranges, RowOf, shown } from "./LearnedRow";

const LEARNED = ["learned"];

const ABOUT: Record<LearnedRow["about"], string> = {
  stove: t`Stove and pots`,
  steam: t`Steam`,
  oven: t`Oven`,
  batter: t`Batter and dough`,
  grain: t`Grain`,
  rest: t`Rest and cold`,
  hands: t`Hands`,
  finish: t`Frying and toasting`,
};

export default function LearnedPage() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: LEARNED, queryFn: () => ask(api.GET("/api/learned")) });
  const kitchen = useQuery(kitchenQuery);
  const changed = async (page: Page) => {
    await settle(client, LEARNED, page);
    for (const key of ["kitchen", "sheets", "sheet", "occasions"]) void client.invalidateQueries({ queryKey: [key] });
  };
  const hold = useMutation({
    mutationFn: ({ name, held }: { name: string; held: boolean }) =>
      ask(api.PUT("/api/learned/{name}", { params: { path: { name } }, body: { held } })),
    onSuccess: changed,
  });
  const leave = useMutation({
    mutationFn: ({ batch, out }: { batch: number; out: boolean }) =>
      ask(api.PUT("/api/log/{batch_id}/left-out", { params: { path: { batch_id: batch } }, body: { left_out: out } })),
    onSuccess: changed,
  });
  useEffect(() => {
    document.title = t`What this kitchen has learned · Kemble`;
  }, []);
  if (!query.data || !kitchen.data) return <Waiting error={query.error ?? kitchen.error} />;
  const page = query.data;
  const zone = kitchen.data.kitchen.timezone;
  const groups = Object.keys(ABOUT) as LearnedRow["about"][];
  return (
    <Frame
      title={
        <h1 className="text-2xl sm:text-[28px]">
          <Trans>What this kitchen has learned</Trans>
        </h1>
      }
    >
      <p className="mt-4 text-lg">
        <Trans>
          From {plural(page.batches, { one: "# making", other: "# makings" })}. Above in each row what cooks have, below
          what you have; the bar is where it lies nine times in ten.
        </Trans>
      </p>
      <ErrorNotice error={hold.error ?? leave.error} />
      {page.moved.length > 0 && (
        <p role="status" className="mt-3 border-l-4 border-amber pl-4">
          <b className="text-look">
            <Trans>That moved.</Trans>
          </b>{" "}
          {page.moved
            .map((item) => t`${capital(item.words)} ${shown(item.was)} to ${shown(item.now)} ${item.unit}`)
            .join("; ")}
          .
        </p>
      )}
      <div className="mt-5 grid gap-x-12 gap-y-8 pb-10 lg:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]">
        <section aria-label={t`The table`}>
          {page.rows.length === 0 && (
            <p className="text-lg text-ink2">
              <Trans>
                Nothing yet. Time a step, weigh a dough, read a heart, and put the making in the log: from the first on,
                what is told is told for this kitchen.
              </Trans>
            </p>
          )}
          {groups
            .filter((about) => page.rows.some((row) => row.about === about))
            .map((about) => (
              <section key={about} aria-label={ABOUT[about]} className="mb-6">
                <h2 className="text-xl">{ABOUT[about]}</h2>
                <ul>
                  {page.rows
                    .filter((row) => row.about === about)
                    .map((row) => (
                      <RowOf
                        key={row.id}
                        row={row}
                        zone={zone}
                        onHold={(held) => hold.mutate({ name: row.id, held })}
                        onLeave={(batch) => leave.mutate({ batch, out: true })}
                      />
                    ))}
                </ul>
              </section>
            ))}
          {page.cups.length > 0 && (
            <section aria-label={t`Your cups`} className="mb-6">
              <h2 className="text-xl">
                <Trans>Your cups</Trans>
              </h2>
              <ul>
                {page.cups.map((cup) => (
                  <li key={cup.words} className="hairline py-3">
                    <div className="flex flex-wrap items-baseline justify-between gap-x-6">
                      <b>{capital(cup.words)}</b>
                      <span>
                        <b className="text-xl">{shown(cup.own.value)}</b> g
                        <span className="text-ink2">
                          <Trans> · cooks have {shown(cup.craft.value)}</Trans>
                        </span>
                      </span>
                    </div>
                    <Ranges row={{ ...cup, is_log: true, unit: "g" }} />
                  </li>
                ))}
              </ul>
              <p className="text-ink2">
                <Trans>
                  Weighed by you. <TextLink to="/kitchen/cups">Weigh another</TextLink>
                </Trans>
              </p>
            </section>
          )}
        </section>
        <div className="grid content-start gap-8">
          {page.teaches.length > 0 && (
            <section aria-label={t`What would teach most`}>
              <h2 className="text-xl">
                <Trans>What would teach most</Trans>
              </h2>
              <ol className="list-none p-0">
                {page.teaches.map((teach) => (
                  <li key={teach.says} className="hairline py-2">
                    <Brings minutes={teach.brings_min} most={page.teaches[0]?.brings_min ?? 1} />
                    <b>{teach.says}</b>
                    <span className="block text-ink2">
                      <Trans>
                        {fixed(teach.brings_min, 1)} min less in the windows of your sheets; {teach.because}.
                        {teach.measurement && (
                          <>
                            {" "}
                            <TextLink to={teach.measurement === "kettle" ? "/kitchen/hob" : "/kitchen/guesses"}>
                              <Trans>Do it</Trans>
                            </TextLink>
                          </>
                        )}
                      </Trans>
                    </span>
                  </li>
                ))}
              </ol>
            </section>
          )}
          {page.pace.length > 0 && (
            <section aria-label={t`How quick your hands are`}>
              <h2 className="text-xl">
                <Trans>How quick your hands are</Trans>
              </h2>
              <ul>
                {page.pace.map((item) => (
                  <li key={item.step} className="hairline flex justify-between gap-4 py-1">
                    <span>{capital(item.title)}</span>
                    <b>
                      <Trans>{fixed(item.times, 2)} times the usual</Trans>
                    </b>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {page.odd.length > 0 && (
            <section aria-label={t`Makings that fit with no other`}>
              <h2 className="text-xl">
                <Trans>Makings that fit with no other</Trans>
              </h2>
              <p className="text-ink2">
                <Trans>They count less than half.</Trans>
              </p>
              <ul>
                {page.odd.map((item) => (
                  <li key={item.batch} className="hairline flex flex-wrap justify-between gap-x-4 py-1">
                    <Link to={`/log/${item.batch}`} className="text-ink">
                      {item.title}, {dayOf(item.made, zone)}
                    </Link>
                    <LinkButton onClick={() => leave.mutate({ batch: item.batch, out: true })}>
                      <Trans>leave it out</Trans>
                    </LinkButton>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {page.left_out.length > 0 && (
            <section aria-label={t`Left out, and why`}>
              <h2 className="text-xl">
                <Trans>Left out, and why</Trans>
              </h2>
              <ul>
                {page.left_out.slice(0, 12).map((item) => (
                  <li key={item.batch} className="hairline py-1">
                    <Link to={`/log/${item.batch}`} className="text-ink">
                      {item.title}, {dayOf(item.made, zone)}
                    </Link>
                    <span className="block text-ink2">
                      {item.why.join("; ")}.{" "}
                      {item.chosen && (
                        <LinkButton onClick={() => leave.mutate({ batch: item.batch, out: false })}>
                          <Trans>learn from it again</Trans>
                        </LinkButton>
                      )}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
    </Frame>
  );
}

/** The log: every batch of a way on its map, and the list of them. */

import { plural, t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api, ask } from "../api/client";
import { kitchenQuery, type LogSought, logQuery, waysQuery } from "../api/queries";
import { MixMap } from "../stations/mix/MixMap";
import { VerdictMark } from "../stations/mix/verdict";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustTrashed";
import { LinkButton, TextLink } from "../ui/LinkButton";
import { Pages } from "../ui/Pages";
import { Find } from "../ui/SearchField";
import { Picks } from "../ui/ToggleChoice";
import { dayOf } from "../ui/words";
import { said } from "../words/said";
import { TableIn } from "./TableIn";
import { WaysMade } from "./WaysMade";

const MOST_BESIDE = 4;
const VERDICTS = [
  ["any", t`any`],
  ["just right", t`just right`],
  ["too soft", t`too soft`],
  ["too firm", t`too firm`],
] as const;

/** The log for a spreadsheet, and out of one. */
function AsTables() {
  const tables = useQuery({
    queryKey: ["tables"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(api.GET("/api/tables")),
  });
  return (
    <>
      <p className="mt-4 text-ink2">
        <Trans>
          As a table:{" "}
          {tables.data?.map((item, i) => (
            <span key={item.id}>
              {i > 0 && " · "}
              <a href={`/api/tables/${item.id}.csv`} download className="text-bean underline underline-offset-4">
                {item.label}
              </a>
            </span>
          ))}
        </Trans>
      </p>
      <TableIn />
    </>
  );
}

const SPANS: readonly (readonly [number, string])[] = [
  [0, t`whenever`],
  [31, t`a month back`],
  [92, t`three months`],
  [366, t`a year`],
];

/** The day so many days back; "" for none. */
const since = (days: number) => (days ? new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10) : "");

export default function Log() {
  const [asked, setAsked] = useSearchParams();
  const [chosen, setChosen] = useState<string | null>(asked.get("way"));
  const [page, setPage] = useState(1);
  const [beside, setBeside] = useState<number[]>([]);
  const [sought, setSought] = useState<LogSought>({});
  const sheet = asked.get("sheet");
  const log = useQuery(logQuery(chosen, page, sheet ? { ...sought, sheet: Number(sheet) } : sought));
  const seek = (more: LogSought) => {
    setSought({ ...sought, ...more });
    setPage(1);
  };
  const ways = useQuery(waysQuery);
  const kitchen = useQuery(kitchenQuery);
  useEffect(() => {
    document.title = t`Log · Kemble`;
  }, []);
  if (!log.data || !ways.data || !kitchen.data) return <Waiting error={log.error ?? ways.error ?? kitchen.error} />;
  const { batches, dots, total } = log.data;
  const used = log.data.ways.flatMap((eachWay) => ways.data.filter((way) => way.id === eachWay.way));
  const way = used.find((item) => item.id === log.data.way);
  const zone = kitchen.data.kitchen.timezone;
  const right = log.data.ways.find((way) => way.way === log.data.way)?.right ?? 0;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Log</Trans>
        </h1>
      }
      aside={
        <span className="flex flex-wrap gap-x-5">
          <TextLink to="/log/learned">
            <Trans>What this kitchen has learned</Trans>
          </TextLink>
          <TextLink to={way ? `/log/over-time?way=${way.id}` : "/log/over-time"}>
            <Trans>Over time</Trans>
          </TextLink>
          <TextLink to="/log/blind">
            <Trans>Tasted blind</Trans>
          </TextLink>
        </span>
      }
    >
      {!way ? (
        <p className="mt-8 max-w-prose text-lg">
          <Trans>
            Nothing here yet. Finish a making and say how it came out: it will stand here, and on the map of its sheet.
          </Trans>
        </p>
      ) : (
        <div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
          <section aria-label={t`On the map`} className="lg:sticky lg:top-4 lg:self-start">
            <WaysMade
              made={log.data.ways}
              ways={used}
              at={way.id}
              onPick={(id) => {
                setChosen(id);
                setPage(1);
              }}
            />
            <p className="mt-3 text-lg">
              <Trans>
                <b className="text-3xl">{right}</b> of {plural(total, { one: "# batch", other: "# batches" })} just
                right
              </Trans>
            </p>
            <MixMap way={way} dots={dots} />
          </section>
          <section aria-label={t`Batches`} className="min-w-0">
            <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
              <Find label={t`Find`} value={sought.find ?? ""} onChange={(find) => seek({ find: find || undefined })} />
              <Picks
                label={t`How it came out`}
                value={sought.verdict ?? "any"}
                options={VERDICTS}
                onPick={(verdict) => seek({ verdict: verdict === "any" ? undefined : verdict })}
              />
            </div>
            <Picks
              label={t`When`}
              className="mt-2"
              value={String(SPANS.find(([days]) => (sought.since ?? "") === since(days))?.[0] ?? 0)}
              options={SPANS.map(([days, words]) => [String(days), words] as const)}
              onPick={(days) => seek({ since: since(Number(days)) || undefined })}
            />
            {sheet && (
              <p className="mt-2">
                <Trans>
                  Only of one sheet{batches[0] && <b>, {batches[0].title}</b>}.{" "}
                  <LinkButton onClick={() => setAsked({})}>All of them</LinkButton>
                </Trans>
              </p>
            )}
            <JustDropped kinds={["batch"]} />
            {batches.length === 0 && (
              <p className="mt-4 text-ink2">
                <Trans>Nothing in the log is like that.</Trans>
              </p>
            )}
            <ul>
              {batches.map((batch) => (
                <li key={batch.id} className="hairline flex items-center gap-3">
                  <input
                    type="checkbox"
                    aria-label={t`Side by side: ${batch.title}, ${dayOf(batch.made, zone)}`}
                    className="size-6 shrink-0 accent-bean"
                    checked={beside.includes(batch.id)}
                    disabled={!beside.includes(batch.id) && beside.length >= MOST_BESIDE}
                    onChange={(event) =>
                      setBeside(
                        event.target.checked ? [...beside, batch.id] : beside.filter((value) => value !== batch.id),
                      )
                    }
                  />
                  <Link
                    to={`/log/${batch.id}`}
                    className="flex min-w-0 flex-1 items-baseline gap-3 py-2.5 text-ink no-underline hover:bg-sheet"
                  >
                    <svg width="22" height="18" aria-hidden="true" className="shrink-0 self-center">
                      <VerdictMark verdict={batch.verdict} x={11} y={9} size={7} />
                    </svg>
                    <span className="w-20 shrink-0 text-ink2 sm:w-24">{dayOf(batch.made, zone)}</span>
                    <span className="min-w-0 flex-1">
                      {batch.title}
                      {batch.note && <span className="block truncate text-sm text-ink2">{batch.note}</span>}
                    </span>
                    <span className="shrink-0 text-right">
                      {said(batch.verdict)}
                      <span className="block text-sm text-ink2">
                        {batch.hydration_pct.toFixed(0)} : {batch.sugar_pct.toFixed(0)}
                      </span>
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
            {beside.length > 1 && (
              <p className="mt-3">
                <TextLink to={`/compare?batches=${beside.join(",")}`}>
                  <Trans>These {beside.length} side by side</Trans>
                </TextLink>
              </p>
            )}
            <Pages page={log.data.page} pages={log.data.pages} total={total} what="batches" onTurn={setPage} />
            <AsTables />
          </section>
        </div>
      )}
    </Frame>
  );
}

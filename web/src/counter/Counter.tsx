/** The counter: what is running now, what comes next, the sheets, and the ways to begin one. */

import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { Link, Navigate } from "react-router";
import type { RunCard } from "../api/client";
import { kitchenQuery, occasionsQuery, runsQuery, sheetsQuery } from "../api/queries";
import { serverNow, useReach } from "../api/reach";
import { Find } from "../ui/Find";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustDropped";
import { TextLink } from "../ui/LinkButton";
import { Pages } from "../ui/Pages";
import { useTick } from "../ui/useTick";
import { clock, sinceWords, timeOfDay } from "../ui/words";
import { Coming, NewOccasion, NextUp, ToEat, Year } from "./Coming";
import { Gallery } from "./Gallery";
import { SheetRow } from "./SheetRow";

export function Counter() {
  const kitchen = useQuery(kitchenQuery);
  const runs = useQuery(runsQuery);
  const occasions = useQuery(occasionsQuery);
  useEffect(() => {
    document.title = "Counter · Kemble";
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  if (!kitchen.data.set_up) return <Navigate to="/welcome" replace />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame title={<h1 className="text-2xl sm:text-[28px]">{kitchen.data.kitchen.name}</h1>}>
      <div className="mt-6 grid gap-x-14 gap-y-8 lg:grid-cols-2">
        <div className="grid content-start gap-8">
          <section aria-labelledby="now">
            <h2 id="now" className="text-xl">
              On the stove
            </h2>
            <JustDropped kinds={["run"]} />
            {runs.data?.length ? (
              <ul>
                {runs.data.map((run) => (
                  <Running key={run.id} run={run} zone={zone} />
                ))}
              </ul>
            ) : (
              <Nothing known={runs.data !== undefined} what="cooking">
                Nothing is cooking.
              </Nothing>
            )}
          </section>
          <section aria-labelledby="next">
            <h2 id="next" className="text-xl">
              Planned next
            </h2>
            <JustDropped kinds={["plan"]} />
            {occasions.data && <NextUp occasions={occasions.data} zone={zone} />}
            {occasions.data?.length ? (
              <ul>
                {occasions.data.map((occasion) => (
                  <Coming key={occasion.id} occasion={occasion} zone={zone} />
                ))}
              </ul>
            ) : (
              <Nothing known={occasions.data !== undefined} what="planned">
                Nothing yet. Say when people eat, and put sheets on the table.
              </Nothing>
            )}
            <NewOccasion zone={zone} />
            <Year />
          </section>
          <ToEat zone={zone} />
        </div>
        <Sheets />
      </div>
      <div className="mt-10 pb-10">
        <Gallery />
        <p className="mt-8">
          <TextLink to="/dropped">What was thrown away</TextLink>
        </p>
      </div>
    </Frame>
  );
}

/** An empty list, or one that is not known: no answer is not nothing, and one that is still on its way is neither. */
function Nothing({ known, what, children }: { known: boolean; what: string; children: ReactNode }) {
  const { away, heard } = useReach();
  if (!known && !away) return null;
  if (known) return <p className="mt-2 text-ink2">{children}</p>;
  return (
    <p className="mt-2 text-look" data-known="false">
      What is {what} is not known{heard ? ` since ${sinceWords(heard)}` : " yet"}.
    </p>
  );
}

function Sheets() {
  const [page, setPage] = useState(1);
  const [find, setFind] = useState("");
  const [by, setBy] = useState<"changed" | "title" | "way">("changed");
  const sheets = useQuery(sheetsQuery(page, find, 20, by));
  const found = sheets.data;
  return (
    <section aria-labelledby="sheets">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="sheets" className="text-xl">
          Sheets
        </h2>
        {found && found.total > 3 && (
          <select
            aria-label="Sheets in order of"
            className="h-9 bg-transparent text-ink2 [field-sizing:content]"
            value={by}
            onChange={(event) => {
              setBy(event.target.value as typeof by);
              setPage(1);
            }}
          >
            <option value="changed">newest first</option>
            <option value="title">by name</option>
            <option value="way">by way</option>
          </select>
        )}
        {found && (found.pages > 1 || find) && (
          <Find
            value={find}
            onChange={(sought) => {
              setFind(sought);
              setPage(1);
            }}
          />
        )}
      </div>
      <JustDropped kinds={["sheet"]} />
      <ul>
        {found?.sheets.map((sheet) => (
          <SheetRow key={sheet.id} sheet={sheet} />
        ))}
      </ul>
      {!found?.total && (
        <Nothing known={found !== undefined} what="on the shelf">
          {find ? "None goes by that name." : "None yet. Take a way to begin one."}
        </Nothing>
      )}
      {found && <Pages page={found.page} pages={found.pages} total={found.total} what="sheets" onTurn={setPage} />}
    </section>
  );
}

export function Running({ run, zone }: { run: RunCard; zone: string }) {
  useTick(500);
  const { state } = run;
  const focus = state.steps.find((step) => step.id === state.focus);
  // By the run's own clock from when the answer was given, wherever it has lain since.
  const at = Date.parse(state.now) + (serverNow() - Date.parse(run.wall)) * (run.rehearsed ? 60 : 1);
  const left = focus?.due ? (Date.parse(focus.due) - at) / 1000 : null;
  const late = Math.round(state.late_min);
  return (
    <li className="hairline">
      <Link
        to={`/make/${run.id}`}
        className="flex items-center justify-between gap-4 py-3 text-ink no-underline hover:bg-sheet"
      >
        <span>
          <span className="block text-lg">{run.title}</span>
          <span className="text-ink2">
            {run.step && <b className="text-ink">{run.step}, </b>}
            {run.rehearsed ? "rehearsal, " : ""}table at {timeOfDay(state.expected_serve, zone)}
            {late > 1 ? <b className="text-bean">, {late} min late</b> : ""}
          </span>
        </span>
        {left != null && <b className={`text-[34px] leading-none ${left < 0 ? "text-bean" : ""}`}>{clock(left)}</b>}
      </Link>
    </li>
  );
}

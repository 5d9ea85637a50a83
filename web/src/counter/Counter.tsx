/** The counter: what is running now, what comes next, the sheets, and the ways to begin one. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Navigate } from "react-router";
import { kitchenQuery, occasionsQuery, sheetsQuery } from "../api/queries";
import { BeginLesson } from "../lesson/BeginLesson";
import { Frame, Waiting } from "../ui/Frame";
import { JustDropped } from "../ui/JustTrashed";
import { TextLink } from "../ui/LinkButton";
import { Pages } from "../ui/Pages";
import { Find } from "../ui/SearchField";
import { Coming, NewOccasion, NextUp, ToEat, Year } from "./Coming";
import { Gallery } from "./Gallery";
import { Nothing } from "./Nothing";
import { OnTheStove } from "./OnTheStove";
import { SheetRow } from "./SheetRow";

export function Counter() {
  const kitchen = useQuery(kitchenQuery);
  const occasions = useQuery(occasionsQuery);
  useEffect(() => {
    document.title = t`Counter · Kemble`;
  }, []);
  if (!kitchen.data) return <Waiting error={kitchen.error} />;
  if (!kitchen.data.set_up) return <Navigate to="/welcome" replace />;
  const zone = kitchen.data.kitchen.timezone;
  return (
    <Frame title={<h1 className="text-2xl sm:text-[28px]">{kitchen.data.kitchen.name}</h1>}>
      <div className="mt-6 grid gap-x-14 gap-y-8 lg:grid-cols-2">
        <div className="grid content-start gap-8">
          <OnTheStove zone={zone}>
            <JustDropped kinds={["run"]} />
          </OnTheStove>
          <section aria-labelledby="next">
            <h2 id="next" className="text-xl">
              <Trans>Planned next</Trans>
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
                <Trans>Nothing yet. Say when people eat, and put sheets on the table.</Trans>
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
        {kitchen.data.demo && (
          <p className="mb-8">
            <BeginLesson />
          </p>
        )}
        <Gallery />
        <p className="mt-8">
          <TextLink to="/dropped">
            <Trans>What was thrown away</Trans>
          </TextLink>
        </p>
      </div>
    </Frame>
  );
}

function Sheets() {
  const [page, setPage] = useState(1);
  const [find, setFind] = useState("");
  const [by, setBy] = useState<"changed" | "title" | "way">("changed");
  const sheets = useQuery(sheetsQuery(page, find, 20, by));
  const result = sheets.data;
  return (
    <section aria-labelledby="sheets">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="sheets" className="text-xl">
          <Trans>Sheets</Trans>
        </h2>
        {result && result.total > 3 && (
          <select
            aria-label={t`Sheets in order of`}
            className="h-9 bg-transparent text-ink2 [field-sizing:content]"
            value={by}
            onChange={(event) => {
              setBy(event.target.value as typeof by);
              setPage(1);
            }}
          >
            <option value="changed">
              <Trans>newest first</Trans>
            </option>
            <option value="title">
              <Trans>by name</Trans>
            </option>
            <option value="way">
              <Trans>by way</Trans>
            </option>
          </select>
        )}
        {result && (result.pages > 1 || find) && (
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
        {result?.sheets.map((sheet) => (
          <SheetRow key={sheet.id} sheet={sheet} />
        ))}
      </ul>
      {!result?.total && (
        <Nothing known={result !== undefined} what={t`on the shelf`}>
          {find ? t`None goes by that name.` : t`None yet. Take a way to begin one.`}
        </Nothing>
      )}
      {result && <Pages page={result.page} pages={result.pages} total={result.total} what="sheets" onTurn={setPage} />}
    </section>
  );
}

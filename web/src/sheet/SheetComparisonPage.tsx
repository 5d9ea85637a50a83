/** Her way and mine: two sheets of one way on one map and one clock, each as a cloud of all that its amounts leave open. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams, useSearchParams } from "react-router";
import { api, ask, type Comparison, type WayCard } from "../api/client";
import { sheetsQuery, waysQuery } from "../api/queries";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { TextLink } from "../ui/LinkButton";
import { Picks } from "../ui/ToggleChoice";
import { capital } from "../ui/words";
import { said } from "../words/said";
import { TwoClocks } from "./TwoClocks";
import { TwoClouds } from "./TwoClouds";

export default function SheetComparisonPage() {
  const mine = Number(useParams().sheetId);
  const [query, setQuery] = useSearchParams();
  const hers = query.get("hers");
  const sheet = useQuery({
    queryKey: ["sheet", mine, "title"],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}", { params: { path: { sheet_id: mine } } })),
  });
  const ways = useQuery(waysQuery);
  const way = ways.data?.find((candidate) => candidate.id === sheet.data?.sheet.way);
  const others = useQuery({ ...sheetsQuery(1, way?.name ?? "", 50, "title"), enabled: way !== undefined });
  const comparison = useQuery({
    queryKey: ["beside", hers, mine],
    enabled: hers !== null,
    retry: false,
    queryFn: () => ask(api.GET("/api/beside", { params: { query: { hers: Number(hers), mine } } })),
  });
  useEffect(() => {
    document.title = t`Her way and mine · Kemble`;
  }, []);
  if (!sheet.data || !way || !others.data) return <Waiting error={sheet.error ?? ways.error ?? others.error} />;
  const choice = others.data.sheets.filter((sheet) => sheet.way === way.id && sheet.id !== mine);
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Her way and mine</Trans>
        </h1>
      }
    >
      <p className="mt-3 text-lg">
        <TextLink to={`/sheets/${mine}/mix`}>{sheet.data.sheet.title}</TextLink>
        {choice.length > 0 ? t`, beside:` : t` stands alone.`}
      </p>
      {choice.length > 0 ? (
        <Picks
          label={t`Beside`}
          className="mt-2"
          value={hers ?? ""}
          options={choice.map((item) => [String(item.id), item.title] as const)}
          onPick={(id) => setQuery({ hers: id })}
        />
      ) : (
        <p className="mt-3 max-w-prose text-lg">
          <Trans>
            Enter hers first, as she told it: <TextLink to="/paste">paste it</TextLink>, with her cups, what she pours
            and her hours. It is a {way.name.toLowerCase()} like yours, and then stands here.
          </Trans>
        </p>
      )}
      {hers === null && choice.length > 0 && (
        <p className="mt-4 max-w-prose text-lg text-ink2">
          <Trans>Say which is hers. What was told by the cup is a cloud here, and not a point.</Trans>
        </p>
      )}
      <ErrorNotice error={comparison.error} />
      {comparison.data && <Both told={comparison.data} way={way} />}
    </Frame>
  );
}

function Both({ told, way }: { told: Comparison; way: WayCard }) {
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 pb-10 lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
      <section aria-label={t`On one map`}>
        <TwoClouds told={told} way={way} />
        {told.weigh && (
          <p className="mt-2 text-lg">
            <b className="text-look">{told.weigh}.</b>{" "}
            <TextLink to="/kitchen/cups">
              <Trans>The cups are in the kitchen.</Trans>
            </TextLink>
          </p>
        )}
      </section>
      <div>
        <section aria-label={t`On one clock`}>
          <TwoClocks told={told} />
        </section>
        <section aria-label={t`What explains what`} className="mt-6">
          <h2 className="text-xl">
            <Trans>Hers beside mine</Trans>
          </h2>
          {told.explained.length === 0 && (
            <p className="mt-2 text-ink2">
              <Trans>In nothing that can be worked out do they differ.</Trans>
            </p>
          )}
          <dl>
            {told.explained.map((item) => (
              <div key={item.outcome} className="hairline grid grid-cols-[6.5rem_1fr] gap-x-3 py-2">
                <dt className="font-bold">{capital(said(item.outcome))}</dt>
                <dd>
                  {item.says}
                  {!item.sure && (
                    <span className="text-look">
                      <Trans>; not told apart</Trans>
                    </span>
                  )}
                  {item.by.map((words) => (
                    <span key={words} className="block text-ink2">
                      {words}
                    </span>
                  ))}
                </dd>
              </div>
            ))}
          </dl>
        </section>
        <Methods steps={told.methods} />
        <Opened of="hers" open={told.hers.open} />
        <Opened of="mine" open={told.mine.open} />
      </div>
    </div>
  );
}

/** What they do otherwise: a step and the time each takes for it. */
function Methods({ steps }: { steps: Comparison["methods"] }) {
  if (steps.length === 0) return null;
  return (
    <section aria-label={t`The two methods`} className="mt-6">
      <h2 className="text-xl">
        <Trans>What is done otherwise</Trans>
      </h2>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-ink2">
            <th scope="col" className="font-normal">
              <Trans>step</Trans>
            </th>
            <th scope="col" className="w-[32%] font-normal">
              {said("hers")}
            </th>
            <th scope="col" className="w-[32%] font-normal">
              {said("mine")}
            </th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step) => (
            <tr key={step.title} className="hairline align-baseline">
              <th scope="row" className="py-1 pr-3 text-left font-bold">
                {step.title}
              </th>
              <td>{step.hers || t`not done`}</td>
              <td>{step.mine || t`not done`}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Opened({ of, open }: { of: "hers" | "mine"; open: Comparison["hers"]["open"] }) {
  if (open.length === 0) return null;
  return (
    <section aria-label={t`What stays open of ${said(of)}`} className="mt-5">
      <h2 className="text-xl">
        <Trans>What nobody knows of {said(of)}</Trans>
      </h2>
      <ul>
        {open.map((item) => (
          <li key={item.words} className="hairline flex items-center gap-3 py-1.5">
            <span className="flex-1">{capital(item.words)}</span>
            <svg
              viewBox="0 0 100 10"
              className="hidden h-3 w-24 shrink-0 sm:block"
              aria-hidden="true"
              preserveAspectRatio="none"
            >
              <rect width="100" height="10" fill="none" stroke="var(--color-ink)" />
              <rect width={item.narrows_pct} height="10" fill="var(--color-look)" />
            </svg>
            <span className="w-40 shrink-0 text-right">
              <Trans>{item.narrows_pct.toFixed(0)} % of the cloud</Trans>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

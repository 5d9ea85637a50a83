/** A split batch tasted blind: the table for whoever serves, one press a taster, and what that says. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams } from "react-router";
import { api, ask, type BlindTastingDetail } from "../api/client";
import { settle } from "../api/queries";
import { cooks, useRole } from "../api/roles";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { ErrorNotice } from "../ui/ErrorNotice";
import { Frame, Waiting } from "../ui/Frame";
import { TextLink } from "../ui/LinkButton";
import { fixed } from "../words/numbers";

type Served = NonNullable<BlindTastingDetail["served"]>;

export default function SplitPage() {
  const role = useRole();
  const id = Number(useParams().splitId);
  const client = useQueryClient();
  const path = { split_id: id };
  const key = ["split", id];
  const query = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/splits/{split_id}", { params: { path } })),
  });
  const answer = useMutation({
    mutationFn: (body: { taster: number; code: string }) =>
      ask(api.POST("/api/splits/{split_id}/answers", { params: { path }, body })),
    onSuccess: async (now) => {
      await settle(client, key, now);
      void client.invalidateQueries({ queryKey: ["splits"] });
    },
  });
  useEffect(() => {
    document.title = t`Tasted blind · Kemble`;
  }, []);
  if (!query.data) return <Waiting error={query.error} />;
  const { title, kind, codes, answers, answered, mine, served } = query.data;
  const serves = cooks(role);
  /** A taster has one seat: any that is free, then that one, until all have answered. */
  const mayAnswer = (taster: number) =>
    serves || (!served && (mine === null ? !answered.includes(taster) : mine === taster));
  const asks = kind === "triangle" ? t`Which one is the odd one?` : t`Which one do you like better?`;
  return (
    <Frame title={<h1 className="text-2xl">{title}</h1>}>
      {serves && (
        <p className="mt-4">
          <TextLink to="/log/blind">
            <Trans>All blind tastings</Trans>
          </TextLink>
        </p>
      )}
      {served && <Says verdict={served.verdict} chance={kind === "triangle" ? 1 / 3 : 1 / 2} />}
      <ErrorNotice error={answer.error} />
      <p className="mt-5 text-xl">{asks}</p>
      {!serves && <p className="mt-1 text-ink2">{seatWords(mine, served !== null)}</p>}
      <ol className="mt-2 list-none p-0">
        {codes.map((row, i) => {
          const chosen = answers.find((answer) => answer.taster === i + 1)?.code;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: tasters have numbers
            <li key={i} className="hairline flex flex-wrap items-center gap-3 py-2">
              <span className="w-24">
                <Trans>Taster {i + 1}</Trans>
              </span>
              {row.map((code) => (
                <button
                  key={code}
                  type="button"
                  className="pick min-h-16 min-w-24 text-xl"
                  aria-pressed={code === chosen}
                  data-on={code === chosen}
                  disabled={!mayAnswer(i + 1)}
                  onClick={() => answer.mutate({ taster: i + 1, code })}
                >
                  {code}
                </button>
              ))}
              {!serves && !chosen && answered.includes(i + 1) && (
                <span className="text-ink2">
                  <Trans>has answered</Trans>
                </span>
              )}
            </li>
          );
        })}
      </ol>
      {served && <ForWhoeverServes served={served} />}
    </Frame>
  );
}

/** What a taster may do now. */
function seatWords(mine: number | null, isOver: boolean): string {
  if (isOver) return t`All have answered. Nothing can be changed any more.`;
  if (mine === null) return t`Press a cup in the row of your number.`;
  return t`You are taster ${mine}. You can change your answer until all have answered.`;
}

function Says({ verdict, chance }: { verdict: Served["verdict"]; chance: number }) {
  return (
    <section aria-label={t`What it says`} className="mt-3">
      <p role="status" className="text-2xl font-bold">
        {verdict.says}
      </p>
      <Share verdict={verdict} chance={chance} />
      {verdict.answered > 0 && (
        <p className="text-ink2">
          <Trans>
            By chance alone as many or more: {fixed(100 * verdict.chance, 1)} in a hundred. The true share lies between{" "}
            {(100 * verdict.low).toFixed(0)} and {(100 * verdict.high).toFixed(0)} in a hundred.
          </Trans>
        </p>
      )}
    </section>
  );
}

function ForWhoeverServes({ served }: { served: Served }) {
  return (
    <details className="mt-6 pb-10">
      <summary className="min-h-8 cursor-pointer">
        <Trans>For whoever serves: what is in which cup</Trans>
      </summary>
      <p className="text-ink2">
        <Trans>
          A is {served.split.a}, B is {served.split.b}. Same size, same warmth, left to right in this order; water
          between.
        </Trans>
      </p>
      <table className="mt-2">
        <tbody>
          {served.cups.map((row, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: tasters have numbers
            <tr key={i} className="hairline">
              <th scope="row" className="py-1 pr-6 text-left font-normal">
                <Trans>Taster {i + 1}</Trans>
              </th>
              {row.map((cup) => (
                <td key={cup.code} className="pr-6">
                  <b>{cup.code}</b> {cup.half}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

const W = 560;

/** The share that was right with its range, on a rule with chance marked. */
function Share({ verdict, chance }: { verdict: Served["verdict"]; chance: number }) {
  if (verdict.answered === 0) return null;
  const x = (share: number) => 20 + share * (W - 40);
  const share = verdict.right / verdict.answered;
  return (
    <Drawing
      viewBox={`0 0 ${W} 56`}
      className="mt-2 block w-full max-w-[600px]"
      role="img"
      aria-label={t`${verdict.right} of ${verdict.answered}; by chance ${(100 * chance).toFixed(0)} in a hundred`}
    >
      <line x1={x(0)} x2={x(1)} y1="18" y2="18" stroke="var(--color-ink)" />
      <line
        x1={x(verdict.low)}
        x2={x(verdict.high)}
        y1="18"
        y2="18"
        stroke="var(--color-green)"
        strokeWidth="10"
        opacity="0.35"
      />
      <circle cx={x(share)} cy="18" r="8" fill="var(--color-green)" />
      <line x1={x(chance)} x2={x(chance)} y1="4" y2="32" stroke="var(--color-bean)" strokeWidth="2.4" />
      <text x={x(chance)} y="50" textAnchor="middle" style={{ fontSize: legible(15) }} fill="var(--color-bean)">
        <Trans>chance</Trans>
      </text>
    </Drawing>
  );
}

/** What nobody knows exactly, row by row: what the table takes, and what this kitchen knows better. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import type { EstimateRow, KitchenSettings } from "../../api/client";
import { limit } from "../../api/limits";
import { estimatesQuery } from "../../api/queries";
import { LinkButton } from "../../ui/LinkButton";
import { NumberField } from "../../ui/NumberField";
import { said } from "../../words/said";
import type { PanelProps } from "../things";

const ABOUT = [
  ["stove", t`On the stove`],
  ["steam", t`In steam`],
  ["oven", t`In the oven`],
  ["batter", t`The batter`],
  ["grain", t`The grain`],
  ["hands", t`Hands and sizes`],
  ["rest", t`Cooling and keeping`],
  ["finish", t`Frying and toasting`],
] as const;

type Own = NonNullable<KitchenSettings["estimates"]>;
type Id = keyof Own;

/** How many rows it has, and how many of them are this kitchen's own. */
function saysHowMany(rows: EstimateRow[], own: Own, about: string) {
  const these = rows.filter((row) => row.about === about);
  const mine = these.filter((row) => own[row.id]).length;
  return mine ? t`${these.length}, ${mine} known here` : String(these.length);
}

export function GuessesPanel({ kitchen, set }: PanelProps) {
  const rows = useQuery(estimatesQuery).data ?? [];
  const own = kitchen.estimates;
  const put = (id: Id, row: NonNullable<Own[Id]>) => set({ estimates: { ...own, [id]: row } });
  const forget = (id: Id) => set({ estimates: Object.fromEntries(Object.entries(own).filter(([key]) => key !== id)) });
  return (
    <>
      <p className="text-ink2">
        <Trans>
          Every window of time comes from these. Nineteen of twenty kitchens lie above the first number, nineteen of
          twenty under the last. Where yours is known better, say so.
        </Trans>
      </p>
      {ABOUT.map(([about, title]) => (
        <details key={about} className="hairline">
          <summary className="min-h-9 cursor-pointer py-1 font-bold">
            {title} <span className="font-normal text-ink2">{saysHowMany(rows, own, about)}</span>
          </summary>
          <ul>
            {rows
              .filter((row) => row.about === about)
              .map((row) => {
                const id = row.id;
                const mine = own[id];
                const now = mine ?? row;
                return (
                  <li key={row.id} className="hairline py-1.5">
                    <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                      <span className={mine ? "font-bold" : ""}>
                        {row.words}{" "}
                        <span className="font-normal text-ink2">
                          <Trans>moves {row.moves}</Trans>
                        </span>
                      </span>
                      {mine && (
                        <LinkButton aria-label={t`${row.words}: as the table again`} onClick={() => forget(id)}>
                          <Trans>as the table again</Trans>
                        </LinkButton>
                      )}
                    </div>
                    <span className="inline-flex flex-wrap items-baseline gap-x-3">
                      {(["low", "value", "high"] as const).map((end) => (
                        <NumberField
                          key={end}
                          label={`${row.words}, ${said(end)}`}
                          hideLabel
                          value={now[end]}
                          unit={end === "high" ? row.unit : ""}
                          decimals={3}
                          width="4.2rem"
                          within={limit("OwnEstimate.value")}
                          onChange={(typed) => {
                            const next = { low: now.low, value: now.value, high: now.high, [end]: typed };
                            put(id, {
                              ...next,
                              low: Math.min(next.low, next.value),
                              high: Math.max(next.high, next.value),
                            });
                          }}
                        />
                      ))}
                      {row.narrow_words && (
                        <span className="text-sm text-ink2">
                          <Trans>{row.narrow_words}, and it is narrower</Trans>
                        </span>
                      )}
                    </span>
                  </li>
                );
              })}
          </ul>
        </details>
      ))}
    </>
  );
}

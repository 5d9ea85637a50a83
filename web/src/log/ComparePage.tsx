/** Two to four batches or sheets side by side: only what differs, in facts and in words. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { api, ask, type SideBySide } from "../api/client";
import { kitchenQuery, waysQuery } from "../api/queries";
import { VerdictMark } from "../stations/mix/verdict";
import { Frame, Waiting } from "../ui/Frame";
import { TextLink } from "../ui/LinkButton";
import { Section } from "../ui/Section";
import { capital, dayOf } from "../ui/words";
import { said } from "../words/said";

export default function ComparePage() {
  const [query] = useSearchParams();
  const batches = query.get("batches") ?? "";
  const sheets = query.get("sheets") ?? "";
  const comparison = useQuery({
    queryKey: ["compare", batches, sheets],
    queryFn: () => ask(api.GET("/api/compare", { params: { query: { batches, sheets } } })),
    retry: false,
  });
  const kitchen = useQuery(kitchenQuery);
  const ways = useQuery(waysQuery);
  useEffect(() => {
    document.title = t`Side by side · Kemble`;
  }, []);
  if (!comparison.data || !kitchen.data) return <Waiting error={comparison.error ?? kitchen.error} />;
  const { columns, rows, differs } = comparison.data;
  const zone = kitchen.data.kitchen.timezone;
  const wayName = (id: string) => ways.data?.find((way) => way.id === id)?.name ?? id;
  return (
    <Frame
      title={
        <h1 className="text-2xl">
          <Trans>Side by side</Trans>
        </h1>
      }
    >
      <p className="mt-4">
        <TextLink to="/log">
          <Trans>Back to the log</Trans>
        </TextLink>
      </p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <section aria-label={t`What differs`} tabIndex={0} className="mt-4 overflow-x-auto pb-10">
        <table className="w-full table-fixed border-collapse">
          <thead>
            <tr>
              <th className="w-64" />
              {columns.map((column) => (
                <th key={`${column.kind} ${column.id}`} className="min-w-40 px-3 text-left align-bottom font-normal">
                  <Link
                    to={column.kind === "batch" ? `/log/${column.id}` : `/sheets/${column.id}/mix`}
                    className="text-ink"
                  >
                    <Section section={column.section} times={column.section?.kind === "piece" ? 4 : 2} />
                    <b className="block">{column.title}</b>
                  </Link>
                  <span className="flex items-center gap-1 text-ink2">
                    {column.verdict && (
                      <svg width="20" height="16" aria-hidden="true">
                        <VerdictMark verdict={column.verdict as "just right"} x={10} y={8} size={6} />
                      </svg>
                    )}
                    {column.made ? `${dayOf(column.made, zone)}, ${said(column.verdict)}` : wayName(column.way)}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.length === 0 && (
              <tr>
                <td colSpan={columns.length + 1} className="py-4 text-ink2">
                  <Trans>In nothing that is worked out do they differ.</Trans>
                </td>
              </tr>
            )}
            {rows.map((row) => (
              <Across key={row.key} row={row} />
            ))}
            <tr className="hairline">
              <th scope="row" className="py-2 text-left align-top font-normal text-ink2">
                <Trans>against the first</Trans>
              </th>
              {differs.map((words, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns do not move
                <td key={i} className="px-3 py-2 align-top">
                  {words.map((word) => (
                    <span key={word} className="block">
                      {capital(word)}
                    </span>
                  ))}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </section>
    </Frame>
  );
}

/** One fact across, each with a bar as long as it is of the largest. */
function Across({ row }: { row: SideBySide["rows"][number] }) {
  const most = Math.max(...row.numbers.map((number) => Math.abs(number ?? 0)), 1e-9);
  return (
    <tr className="hairline">
      <th scope="row" className="py-1.5 text-left font-normal">
        {capital(row.label)}
      </th>
      {row.values.map((value, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: columns do not move
        <td key={i} className="px-3 py-1.5">
          <b className="text-lg">{value ?? "–"}</b> {value !== null && said(row.unit)}
          {row.numbers[i] != null && (
            <svg
              viewBox="0 0 120 6"
              className="block h-1.5 w-full max-w-32"
              preserveAspectRatio="none"
              aria-hidden="true"
            >
              <rect width={(120 * Math.abs(row.numbers[i] as number)) / most} height="6" fill="var(--color-bean)" />
            </svg>
          )}
        </td>
      ))}
    </tr>
  );
}

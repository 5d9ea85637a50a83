/** What cooks disagree about, each side worked out: the windows on one ruler, and the facts in which they differ. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { useState } from "react";
import { api, ask, type SchoolsCompared, type Sheet, type WayCard } from "../../api/client";
import { Picks } from "../../ui/ToggleChoice";
import { capital } from "../../ui/words";

interface Props {
  sheet: Sheet;
  way: WayCard;
}

export function BothSides({ sheet, way }: Props) {
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(
    () => (way.questions.find((question) => question.station === "heat") ?? way.questions[0])?.id ?? "",
  );
  const query = useQuery({
    queryKey: ["sides", asked, sheet],
    queryFn: ({ signal }) => ask<SchoolsCompared>(api.POST("/api/sides", { body: { sheet, question: asked }, signal })),
    enabled: open && asked !== "",
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <details className="mt-6" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-9 cursor-pointer text-bean">
        <Trans>Where cooks disagree: both sides, worked out</Trans>
      </summary>
      <Picks
        label={t`Question`}
        className="mt-2"
        value={asked}
        options={way.questions.map((question) => [question.id, question.title] as const)}
        onPick={setAsked}
      />
      {query.data && <SideBySide sides={query.data} busy={query.isPlaceholderData} />}
    </details>
  );
}

const W = 720;

export function SideBySide({ sides, busy }: { sides: SchoolsCompared; busy: boolean }) {
  const last = Math.max(...sides.sides.map((side) => side.latest ?? 0), 1);
  const x = scaleLinear()
    .domain([0, last * 1.05])
    .range([2, W - 2]);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls on a phone, and the keyboard must reach it
    <section aria-label={sides.title} tabIndex={0} className="mt-3 overflow-x-auto" aria-busy={busy}>
      <table className="w-full min-w-[640px] table-fixed border-collapse text-left">
        <caption className="sr-only">{sides.title}</caption>
        <thead>
          <tr>
            <td className="w-40" />
            {sides.sides.map((side) => (
              <th key={side.id} scope="col" className="pr-4 pb-1 align-top font-normal">
                <b className={side.followed ? "text-bean" : ""}>{capital(side.label)}</b>
                {side.followed && (
                  <span className="ml-2 text-sm text-ink2">
                    <Trans>on this sheet</Trans>
                  </span>
                )}
                <span className="block text-sm text-ink2">{side.buys && `${capital(side.buys)}.`}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="hairline">
            <th scope="row" className="py-1.5 pr-4 font-normal">
              <Trans>Done at</Trans>
            </th>
            {sides.sides.map((side) => (
              <td key={side.id} className="py-1.5 pr-4">
                {side.done != null && side.first != null && side.latest != null ? (
                  <>
                    <b className="text-2xl">{side.done.toFixed(0)}</b>
                    <span className="ml-2 text-ink2">
                      <Trans>
                        {side.first.toFixed(0)} to {side.latest.toFixed(0)} min
                      </Trans>
                    </span>
                    <svg viewBox={`0 0 ${W} 34`} className="block w-full" aria-hidden="true">
                      <line x1="2" x2={W - 2} y1="26" y2="26" stroke="var(--color-hair)" strokeWidth="3" />
                      <rect
                        x={x(side.first)}
                        y="10"
                        width={Math.max(3, x(side.latest) - x(side.first))}
                        height="16"
                        fill="var(--color-green)"
                        opacity="0.3"
                      />
                      <line
                        x1={x(side.done)}
                        x2={x(side.done)}
                        y1="2"
                        y2="32"
                        stroke="var(--color-green)"
                        strokeWidth="7"
                      />
                    </svg>
                  </>
                ) : (
                  <span className="text-look">{side.problems[0]?.says ?? t`not calculated`}</span>
                )}
              </td>
            ))}
          </tr>
          {sides.rows.map((row, i) => (
            <tr key={row} className="hairline">
              <th scope="row" className="py-1.5 pr-4 font-normal">
                {capital(row)}
              </th>
              {sides.sides.map((side) => (
                <td key={side.id} className="py-1.5 pr-4">
                  {side.shown[i] ? (
                    <>
                      <b>{side.shown[i]}</b> <span className="text-ink2">{sides.units[i]}</span>
                    </>
                  ) : (
                    <span className="text-ink2">–</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
          {sides.sides.some((side) => side.says.length > 0) && (
            <tr className="hairline align-top">
              <th scope="row" className="py-1.5 pr-4 font-normal">
                <Trans>Look out</Trans>
              </th>
              {sides.sides.map((side) => (
                <td key={side.id} className="py-1.5 pr-4 text-look">
                  {side.says.join(" ")}
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
      {sides.rows.length === 0 && (
        <p className="mt-1 text-ink2">
          <Trans>No figure differs: it is a matter of taste and of the hand.</Trans>
        </p>
      )}
    </section>
  );
}

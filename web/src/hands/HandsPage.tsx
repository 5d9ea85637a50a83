/** How the hands go at each step of a sheet, true to this piece, to be printed and leaned against the wall. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useParams } from "react-router";
import { api, ask } from "../api/client";
import { Frame, Waiting } from "../ui/Frame";
import { TextLink } from "../ui/LinkButton";
import { OneMove, useLeftHand } from "./HandsFigure";

export default function HandsPage() {
  const id = Number(useParams().sheetId);
  const path = { sheet_id: id };
  const [left, setLeft] = useLeftHand();
  const opened = useQuery({
    queryKey: ["sheet-to-print", id],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}", { params: { path } })),
  });
  const hands = useQuery({
    queryKey: ["hands-on-paper", id],
    queryFn: () => ask(api.GET("/api/sheets/{sheet_id}/hands", { params: { path } })),
  });
  useEffect(() => {
    document.title = t`Hands · Kemble`;
  }, []);
  if (!opened.data || !hands.data) return <Waiting error={opened.error ?? hands.error} />;
  const steps = Object.entries(hands.data.steps);
  const titles = new Map(opened.data.worked.steps.map((step) => [step.id, step.title]));
  return (
    <Frame
      title={
        <h1 className="font-title text-2xl">
          <Trans>Hands for {opened.data.sheet.title}</Trans>
        </h1>
      }
    >
      <div className="mt-4 flex flex-wrap items-baseline gap-4 print:hidden">
        <button type="button" className="pick" data-on="true" onClick={() => window.print()}>
          <Trans>Print</Trans>
        </button>
        <button type="button" className="pick" aria-pressed={left} onClick={() => setLeft(!left)}>
          {left ? t`For the left hand` : t`For the right hand`}
        </button>
        <TextLink to={`/sheets/${id}/plan`}>
          <Trans>Back to the sheet</Trans>
        </TextLink>
      </div>
      {steps.length === 0 && (
        <p className="mt-6 text-lg">
          <Trans>Nothing of this sheet is folded, wrapped, cut or turned out.</Trans>
        </p>
      )}
      <div data-paper>
        <h2 className="hidden text-xl print:block">
          <Trans>Hands for {opened.data.sheet.title}</Trans>
        </h2>
        {steps.map(([step, frames]) => (
          <section key={step} aria-label={titles.get(step) ?? step} className="mt-6">
            <h2 className="text-xl">{titles.get(step) ?? step}</h2>
            <ol className="mt-3 grid list-none gap-x-10 gap-y-6 p-0 sm:grid-cols-2 print:grid-cols-2">
              {frames.map((frame, i) => (
                <li key={frame.says} className="break-inside-avoid">
                  <OneMove frame={frame} left={left} wide={430} />
                  <p className="mt-1">
                    <b>{i + 1}.</b> {frame.says}
                    {frame.estimate && (
                      <span className="text-ink2">
                        <Trans> How far it stretches is an estimate.</Trans>
                      </span>
                    )}
                  </p>
                </li>
              ))}
            </ol>
          </section>
        ))}
        <p className="mt-8 pb-8 text-ink2">
          <Trans>Drawn from the sizes of this sheet. Hot dough and steam burn: gloves, and a bowl of cold water.</Trans>
        </p>
      </div>
    </Frame>
  );
}

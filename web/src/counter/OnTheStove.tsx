/** What is running now, each with its clock. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { RunCard } from "../api/client";
import { serverNow } from "../api/connection";
import { runsQuery } from "../api/queries";
import { useFormatters } from "../ui/formatters";
import { useTick } from "../ui/useTick";
import { clock, duration } from "../ui/words";
import { Nothing } from "./Nothing";

/** `children`: what stands over the list. */
export function OnTheStove({ zone, children }: { zone: string; children?: ReactNode }) {
  const runs = useQuery(runsQuery);
  return (
    <section aria-labelledby="now">
      <h2 id="now" className="text-xl">
        <Trans>On the stove</Trans>
      </h2>
      {children}
      {runs.data?.length ? (
        <ul>
          {runs.data.map((run) => (
            <Running key={run.id} run={run} zone={zone} />
          ))}
        </ul>
      ) : (
        <Nothing known={runs.data !== undefined} what="cooking">
          <Trans>Nothing is cooking.</Trans>
        </Nothing>
      )}
    </section>
  );
}

function Running({ run, zone }: { run: RunCard; zone: string }) {
  const { timeOfDay } = useFormatters();
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
            <Trans>
              {run.step && <b className="text-ink">{run.step}, </b>}
              {run.rehearsed ? t`rehearsal, ` : ""}table at {timeOfDay(state.expected_serve, zone)}
              {late > 1 ? (
                <b className="text-bean">
                  <Trans>, {duration(late)} late</Trans>
                </b>
              ) : (
                ""
              )}
            </Trans>
          </span>
        </span>
        {left != null && <b className={`text-[34px] leading-none ${left < 0 ? "text-bean" : ""}`}>{clock(left)}</b>}
      </Link>
    </li>
  );
}

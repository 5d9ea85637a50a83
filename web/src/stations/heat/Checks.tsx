/** When to look: each check with how many of a hundred are done by then, and the cue that decides. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { StepResult, WorkResult } from "../../api/client";
import { trimmed } from "../../words/numbers";

export function Checks({ worked }: { worked: WorkResult }) {
  const step = worked.steps.find((step: StepResult) => step.window && step.cue);
  if (!worked.checks.length) return null;
  return (
    <section aria-label={t`When to look`} className="mt-3">
      <ol className="grid grid-cols-5 gap-2">
        {worked.checks.map((check) => (
          <li key={check.minute} className="hairline pt-1">
            <p className="text-2xl font-bold">
              {trimmed(check.minute, 1)}{" "}
              <span className="text-base font-normal text-ink2">
                <Trans>min</Trans>
              </span>
            </p>
            <p className="mt-1 h-2 bg-hair" aria-hidden="true">
              <span className="block h-2 bg-green" style={{ width: `${check.done_pct}%` }} />
            </p>
            <p className="text-sm text-ink2">
              <Trans>{check.done_pct.toFixed(0)} in 100 done</Trans>
            </p>
          </li>
        ))}
      </ol>
      {step?.cue && (
        <p className="mt-2">
          <Trans>
            <b>{step.cue.question}</b> {step.cue.how} <span className="text-green">{step.cue.yes}</span> or{" "}
            <span className="text-look">{step.cue.no.toLowerCase()}</span>?
          </Trans>
        </p>
      )}
    </section>
  );
}

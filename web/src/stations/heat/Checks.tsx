/** When to look: each check with how many of a hundred are done by then, and the cue that decides. */

import type { StepWorked, Worked } from "../../api/client";

export function Checks({ worked }: { worked: Worked }) {
  const step = worked.steps.find((one: StepWorked) => one.window && one.cue);
  if (!worked.checks.length) return null;
  return (
    <section aria-label="When to look" className="mt-3">
      <ol className="grid grid-cols-5 gap-2">
        {worked.checks.map((check) => (
          <li key={check.minute} className="hairline pt-1">
            <p className="text-2xl font-bold">
              {+check.minute.toFixed(1)} <span className="text-base font-normal text-ink2">min</span>
            </p>
            <p className="mt-1 h-2 bg-hair" aria-hidden="true">
              <span className="block h-2 bg-green" style={{ width: `${check.done_pct}%` }} />
            </p>
            <p className="text-sm text-ink2">{check.done_pct.toFixed(0)} in 100 done</p>
          </li>
        ))}
      </ol>
      {step?.cue && (
        <p className="mt-2">
          <b>{step.cue.question}</b> {step.cue.how} <span className="text-green">{step.cue.yes}</span> or{" "}
          <span className="text-look">{step.cue.no.toLowerCase()}</span>?
        </p>
      )}
    </section>
  );
}

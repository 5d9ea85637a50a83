/** How sure the day is: of a thousand days drawn from the windows, how many are in time, and what would make it more. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { DayPlan, Occasion, Plan } from "../api/client";

interface Props {
  sure: NonNullable<DayPlan["sure"]>;
  plan: Plan;
  titles: readonly string[];
  occasion: Occasion;
  edit: (change: Partial<Occasion>) => void;
}

export function HowSure({ sure, plan, titles, occasion, edit }: Props) {
  const name = (key: string) => {
    const [dish, ...step] = key.split(":");
    const result = plan.scheduled.find((item) => item.dish === Number(dish) && item.step.id === step.join(":"));
    return result?.step.title ?? "";
  };
  return (
    <section aria-label={t`How sure it is`}>
      <h2 className="text-xl">
        <Trans>In time on {Math.round(sure.all_in_time_pct)} days of a hundred</Trans>
      </h2>
      <ul>
        {sure.dishes.map((dish) => (
          <li key={dish.dish} className="hairline grid grid-cols-[1fr_8rem_5rem] items-center gap-3 py-1">
            <span>{titles[dish.dish]}</span>
            <span aria-hidden="true" className="block h-3 border border-ink">
              <span className="block h-full bg-green" style={{ width: `${dish.in_time_pct}%` }} />
            </span>
            <span className="text-right">
              <Trans>
                <b>{Math.round(dish.in_time_pct)}</b> in 100
              </Trans>
            </span>
            {dish.earlier_min > 0 && (
              <span className="col-span-3 text-sm text-ink2">
                <Trans>
                  one day in ten it is {dish.late_min.toFixed(0)} min late: begun so much earlier, it is nine times in
                  ten in time
                </Trans>
              </span>
            )}
          </li>
        ))}
      </ul>
      {sure.slack_after.length > 0 && (
        <p className="mt-1 text-ink2">
          <Trans>A few minutes to spare help most behind {sure.slack_after.map(name).join(", ")}.</Trans>
        </p>
      )}
      <fieldset className="mt-2 flex flex-wrap items-baseline gap-3">
        <legend className="sr-only">
          <Trans>How sure it should be</Trans>
        </legend>
        {(
          [
            ["likely", t`by what is likely`],
            ["safe", t`nine times in ten`],
          ] as const
        ).map(([value, words]) => (
          <button
            key={value}
            type="button"
            className="pick"
            data-on={occasion.sure === value}
            aria-pressed={occasion.sure === value}
            onClick={() => edit({ sure: value })}
          >
            {words}
          </button>
        ))}
      </fieldset>
    </section>
  );
}

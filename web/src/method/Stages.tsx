/** A step in several clocks, one after another: bursts of a microwave oven, a syrup in two acts. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Sheet, StepChange, StepResult } from "../api/client";
import { limit } from "../api/limits";
import { LinkButton } from "../ui/LinkButton";
import { NumberField } from "../ui/NumberField";
import { changeOf, withStages } from "./entries";

type Stage = StepChange["stages"][number];
const MOST = 6;

export function Stages({ step, sheet, edit }: { step: StepResult; sheet: Sheet; edit: (sheet: Sheet) => void }) {
  const stages = changeOf(sheet, step.entry)?.stages ?? [];
  const put = (next: Stage[]) => edit(withStages(sheet, step, next));
  const half = Math.max(0.5, Math.round(step.minutes) / 2);
  if (step.window || /-[2-9]$/.test(step.id)) return null;
  if (!stages.length)
    return (
      <p>
        <LinkButton
          onClick={() =>
            put([
              { minutes: half, power_pct: null, note: "" },
              { minutes: null, power_pct: null, note: "" },
            ])
          }
        >
          <Trans>part it into stages, each with its own clock</Trans>
        </LinkButton>
      </p>
    );
  const withStage = (at: number, change: Partial<Stage>) =>
    put(stages.map((stage, i) => (i === at ? { ...stage, ...change } : stage)));
  return (
    <ol aria-label={t`Stages of “${step.title}”`}>
      {stages.map((stage, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stage is its place
        <li key={i} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-0.5">
          <span className="text-ink2">{i + 1}</span>
          <NumberField
            label={t`Minutes of stage ${i + 1}`}
            hideLabel
            value={stage.minutes ?? null}
            unit="min"
            width="3.6rem"
            within={limit("MethodStage.minutes")}
            onChange={(minutes) => withStage(i, { minutes })}
            onClear={
              stages.every((other, j) => j === i || other.minutes != null)
                ? () => withStage(i, { minutes: null })
                : undefined
            }
          />
          <input
            aria-label={t`What to do in stage ${i + 1}`}
            className="write min-h-9 flex-1 basis-40"
            placeholder={stage.minutes == null ? t`the rest of it: what to do` : t`what to do, or to look for`}
            maxLength={200}
            value={stage.note}
            onChange={(event) => withStage(i, { note: event.target.value })}
          />
          <NumberField
            label={t`Power of stage ${i + 1}`}
            hideLabel
            value={stage.power_pct ?? null}
            unit="%"
            decimals={0}
            width="3rem"
            within={limit("MethodStage.power_pct")}
            onChange={(power) => withStage(i, { power_pct: Math.round(power) })}
            onClear={() => withStage(i, { power_pct: null })}
          />
          <LinkButton onClick={() => put(stages.length > 2 ? stages.filter((_, j) => j !== i) : [])}>
            <Trans>take it out</Trans>
          </LinkButton>
        </li>
      ))}
      {stages.length < MOST && (
        <li>
          <LinkButton onClick={() => put([...stages, { minutes: 1, power_pct: null, note: "" }])}>
            <Trans>one more stage</Trans>
          </LinkButton>
        </li>
      )}
    </ol>
  );
}

/** How long a step takes: the cook's own minutes and who gave them, beside Kemble's on one ruler, and which of the two is used. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Sheet, StepResult, WorkResult } from "../api/client";
import { limit } from "../api/limits";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { NumberField } from "../ui/NumberField";
import { Picks } from "../ui/ToggleChoice";
import { duration } from "../ui/words";
import { changeOf, ownOf, withChange, withOwn } from "./entries";

interface Props {
  step: StepResult;
  sheet: Sheet;
  worked: WorkResult;
  edit: (sheet: Sheet) => void;
}

/** Minutes that are a field of the sheet: there is one of each, and Mix shows it too. */
const FIELDS = { "grain.soak_min": "soak_min", "grain.drain_min": "drain_min" } as const;
const fieldOf = (step: StepResult) => FIELDS[step.fact as keyof typeof FIELDS];

export function GivenTimeField(props: Props) {
  const { step, sheet, edit } = props;
  const own = ownOf(sheet, step.entry);
  const field = fieldOf(step);
  if (field)
    return (
      <Minutes
        step={step}
        value={sheet.grain[field]}
        onChange={(minutes) => edit({ ...sheet, grain: { ...sheet.grain, [field]: minutes } })}
        within={limit(`Grain.${field}`)}
      />
    );
  if (own)
    return (
      <Minutes
        step={step}
        value={own.minutes ?? step.minutes}
        onChange={(minutes) => edit(withOwn(sheet, step.entry, (was) => ({ ...was, minutes, per: null })))}
        within={limit("OwnStep.minutes")}
      />
    );
  return <Given {...props} />;
}

function Minutes(props: {
  step: StepResult;
  value: number | null;
  onChange: (minutes: number) => void;
  onClear?: () => void;
  within: ReturnType<typeof limit>;
}) {
  const { step, ...field } = props;
  return (
    <NumberField label={t`Minutes for “${step.title}”`} hideLabel unit="min" decimals={1} width="4.2rem" {...field} />
  );
}

function Given({ step, sheet, worked, edit }: Props) {
  const entry = changeOf(sheet, step.entry);
  const ours = step.predicted?.minutes ?? step.minutes;
  const answer = worked.given_times.find((item) => item.of === step.entry || item.of === step.id);
  // A heat that has a window is told for one load already.
  const inLoads = Number(worked.facts["heat.loads"]?.value ?? 1) > 1 && !step.window && step.uses.length > 0;
  const change = (next: Parameters<typeof withChange>[2]) => edit(withChange(sheet, step.entry, next));
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span>
          <Trans>Your time</Trans>
        </span>
        <Minutes
          step={step}
          value={entry?.minutes ?? null}
          onChange={(minutes) => change({ minutes, ours_min: ours })}
          onClear={() => change({ minutes: null })}
          within={limit("StepChange.minutes")}
        />
        {entry?.minutes != null && (
          <>
            {(isCounted(step, worked) || inLoads) && (
              <select
                aria-label={t`What “${step.title}” takes so long for`}
                className="write min-h-9"
                value={entry.per ?? ""}
                onChange={(event) => change({ per: (event.target.value || null) as typeof entry.per })}
              >
                <option value="">{t`for all of them`}</option>
                {isCounted(step, worked) && <option value="piece">{t`a piece`}</option>}
                {inLoads && <option value="load">{t`a load`}</option>}
              </select>
            )}
            <input
              aria-label={t`Who says so`}
              className="write min-h-9 flex-1 basis-32"
              placeholder={t`who says so`}
              maxLength={60}
              value={entry.by}
              onChange={(event) => change({ by: event.target.value })}
            />
            <Picks
              label={t`Which time is used`}
              value={step.given?.is_used ? "given" : "ours"}
              options={[
                ["given", t`use this one`],
                ["ours", t`use Kemble’s, ${duration(ours)}`],
              ]}
              onPick={(use) => change({ use })}
            />
          </>
        )}
      </div>
      {answer && (
        <>
          <Ruler theirs={answer.minutes} ours={answer.ours_min} by={answer.by || t`yours`} />
          <p>
            {answer.says.length > 0 && t`By then ${answer.says.join("; ")}.`}
            {answer.done_pct != null && (
              <b>
                <Trans> {answer.done_pct.toFixed(0)} of a hundred are done.</Trans>
              </b>
            )}
          </p>
          {answer.explains && <p className="text-ink2">{answer.explains}</p>}
        </>
      )}
    </div>
  );
}

/** Whether a time for it may be meant for each piece: hands are at it, and there are pieces. */
const isCounted = (step: StepResult, { facts }: WorkResult) =>
  step.hands === "held" &&
  step.window == null &&
  Number((facts["shape.pieces"] ?? facts["cut.pieces"])?.value ?? 0) > 1;

/** Both on one line, true to time: the cook's above it, Kemble's below. */
function Ruler({ theirs, ours, by }: { theirs: number; ours: number; by: string }) {
  const end = Math.max(theirs, ours) * 1.15;
  const at = (minutes: number) => 4 + (392 * minutes) / end;
  return (
    <Drawing
      viewBox="0 0 400 62"
      className="mt-1.5 block w-full max-w-[440px]"
      role="img"
      aria-label={t`${by}: ${duration(theirs)}; Kemble: ${duration(ours)}`}
    >
      <line x1="4" x2="396" y1="31" y2="31" stroke="var(--color-ink)" strokeWidth="1.5" />
      <Mark x={at(ours)} top={31} wordsAt={58} color="var(--color-green)" words={t`Kemble, ${duration(ours)}`} />
      <Mark x={at(theirs)} top={18} wordsAt={13} color="var(--color-bean)" words={`${by}, ${duration(theirs)}`} />
    </Drawing>
  );
}

/** A mark of 13 px on the ruler, with its words at the height `wordsAt`. */
function Mark(props: { x: number; top: number; wordsAt: number; color: string; words: string }) {
  const { x, top, wordsAt, color, words } = props;
  const anchor = x > 300 ? "end" : x < 80 ? "start" : "middle";
  return (
    <>
      <line x1={x} x2={x} y1={top} y2={top + 13} stroke={color} strokeWidth="3" />
      <text x={x} y={wordsAt} textAnchor={anchor} style={{ fontSize: legible(13.5) }} fill={color}>
        {words}
      </text>
    </>
  );
}

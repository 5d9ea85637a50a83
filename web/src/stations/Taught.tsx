/** The time I was taught: beside ours on one ruler, with what is true at that minute and what would explain it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Sheet, WorkResult } from "../api/client";
import { limit } from "../api/limits";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { NumberField } from "../ui/NumberField";
import { duration } from "../ui/words";
import { said } from "../words/said";

interface Props {
  /** heat, rest, soak, or a step by its id. */
  of: string;
  /** What it is called where the heading does not say it. */
  name?: string;
  sheet: Sheet;
  worked: WorkResult;
  edit: (sheet: Sheet) => void;
}

export function Taught({ of, name, sheet, worked, edit }: Props) {
  const told = sheet.taught[of];
  const answer = worked.taught.find((item) => item.of === of);
  const set = (next: NonNullable<typeof told> | null) => {
    const others = Object.fromEntries(Object.entries(sheet.taught).filter(([key]) => key !== of));
    edit({ ...sheet, taught: next ? { ...others, [of]: next } : others });
  };
  return (
    <section aria-label={t`The time I was taught: ${name ?? said(of)}`} className="mt-4">
      <div className="hairline flex flex-wrap items-baseline gap-x-3 py-1">
        <span>{name ?? t`The time I was taught`}</span>
        <NumberField
          label={t`Minutes taught for ${name ? `“${name}”` : t`the ${said(of)}`}`}
          hideLabel
          value={told?.minutes ?? null}
          unit="min"
          decimals={1}
          width="4rem"
          within={limit("GivenTime.minutes")}
          onChange={(minutes) => set({ minutes, by: told?.by ?? "" })}
          onClear={() => set(null)}
        />
        {told && (
          <input
            aria-label={t`Who says so`}
            className="write min-h-9 flex-1 basis-32"
            placeholder={t`who says so`}
            maxLength={60}
            value={told.by}
            onChange={(event) => set({ ...told, by: event.target.value })}
          />
        )}
      </div>
      {answer && (
        <>
          <Ruler theirs={answer.minutes} ours={answer.ours_min} by={answer.by || t`as taught`} />
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
    </section>
  );
}

/** Both on one line, true to time. */
function Ruler({ theirs, ours, by }: { theirs: number; ours: number; by: string }) {
  const end = Math.max(theirs, ours) * 1.15;
  const at = (minutes: number) => 4 + (392 * minutes) / end;
  const turn = (x: number) => (x > 300 ? "end" : x < 80 ? "start" : "middle");
  return (
    <Drawing
      viewBox="0 0 400 62"
      className="block w-full max-w-[480px]"
      role="img"
      aria-label={t`${by}: ${duration(theirs)}; ours: ${duration(ours)}`}
    >
      <line x1="4" x2="396" y1="31" y2="31" stroke="var(--color-ink)" strokeWidth="1.5" />
      <line x1={at(ours)} x2={at(ours)} y1="31" y2="44" stroke="var(--color-green)" strokeWidth="3" />
      <text
        x={at(ours)}
        y="58"
        textAnchor={turn(at(ours))}
        style={{ fontSize: legible(13.5) }}
        fill="var(--color-green)"
      >
        <Trans>ours, {duration(ours)}</Trans>
      </text>
      <line x1={at(theirs)} x2={at(theirs)} y1="18" y2="31" stroke="var(--color-bean)" strokeWidth="3" />
      <text
        x={at(theirs)}
        y="13"
        textAnchor={turn(at(theirs))}
        style={{ fontSize: legible(13.5) }}
        fill="var(--color-bean)"
      >
        {by}, {duration(theirs)}
      </text>
    </Drawing>
  );
}

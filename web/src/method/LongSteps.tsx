/** Steps that cost hours by a choice: which, and what other choice would begin how much later, one press away. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useQuery } from "@tanstack/react-query";
import { api, ask, type LongStep, type Sheet, type StepResult } from "../api/client";
import { withPart, withSchool } from "../sheet/edits";
import type { Editing } from "../sheet/useSheet";
import { LinkButton } from "../ui/LinkButton";
import { capital, duration } from "../ui/words";

const LONG_MIN = 120;

/** Asked only of a sheet that has a step of hours. */
export function useLongSteps({ sheet, worked, problems }: Editing): LongStep[] {
  const long = worked.steps.filter((step) => step.hands === "free" && step.minutes >= LONG_MIN);
  const query = useQuery({
    queryKey: ["long-steps", sheet.parts, sheet.schools, sheet.grain, long.map(({ id, minutes }) => [id, minutes])],
    enabled: long.length > 0 && problems.length === 0,
    placeholderData: (before) => before,
    retry: false,
    queryFn: () => ask(api.POST("/api/long-steps", { body: { sheet } })),
  });
  return long.length ? (query.data ?? []) : [];
}

/** At its step: what makes it long, and what would take less. */
export function LongStepHere({ step, all, editing }: { step: StepResult; all: LongStep[]; editing: Editing }) {
  const long = all.find((item) => item.step === step.id);
  return long ? <Said long={long} editing={editing} /> : null;
}

/** All of them, as the plan says them. */
export function LongSteps({ editing }: { editing: Editing }) {
  const all = useLongSteps(editing);
  if (!all.length) return null;
  return (
    <ul aria-label={t`What costs hours`} className="mt-3">
      {all.map((long) => (
        <li key={long.step}>
          <b>{long.title}</b>, {duration(long.minutes)}. <Said long={long} editing={editing} />
        </li>
      ))}
    </ul>
  );
}

function Said({ long, editing }: { long: LongStep; editing: Editing }) {
  const { sheet, edit } = editing;
  return (
    <span className="block text-look">
      {long.by && t`${capital(long.by)}: ${duration(long.minutes)}. `}
      {long.instead.map((other, i) => (
        <span key={other.label}>
          {i > 0 && " · "}
          {capital(other.label)}:{" "}
          <LinkButton onClick={() => edit(chosen(sheet, other))}>
            <Trans>begin {duration(other.later_min)} later</Trans>
          </LinkButton>
        </span>
      ))}
    </span>
  );
}

function chosen(sheet: Sheet, other: LongStep["instead"][number]): Sheet {
  const { soak_min, soak_c, part, choice, school } = other;
  if (soak_min != null) return { ...sheet, grain: { ...sheet.grain, soak_min, soak_c: soak_c ?? sheet.grain.soak_c } };
  if (!part) return withSchool(sheet, choice, school);
  return withPart(sheet, part, (was) => ({ ...was, schools: { ...was.schools, [choice]: school } }));
}

/** Times taught for the other steps that are waited for or minded: one is picked, and stands beside ours. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import type { Sheet, StepResult, WorkResult } from "../../api/client";
import { ActionMenu } from "../../ui/ActionMenu";
import { Taught } from "../Taught";

interface Props {
  sheet: Sheet;
  worked: WorkResult;
  edit: (sheet: Sheet) => void;
}

/** These have a place of their own: under their curves. */
const ELSEWHERE = ["heat.done_min", "heat.all_loads_min", "heat.bare_min", "rest.cut_after_min", "grain.soak_min"];

export const isTaught = (step: StepResult) =>
  step.window == null && !ELSEWHERE.includes(step.fact ?? "") && (step.between != null || step.hands !== "held");

export function TaughtOthers({ sheet, worked, edit }: Props) {
  const [picked, setPicked] = useState("");
  const steps = worked.steps.filter(isTaught);
  const shown = steps.filter((step) => step.id in sheet.taught || step.id === picked);
  const left = steps.filter((step) => !shown.includes(step));
  if (steps.length === 0) return null;
  return (
    <section aria-label={t`Times taught for other steps`} className="mt-2">
      {shown.map((step) => (
        <Taught key={step.id} of={step.id} name={step.title} sheet={sheet} worked={worked} edit={edit} />
      ))}
      {left.length > 0 && (
        <ActionMenu
          label={t`A time taught for another step`}
          choices={left.map((step) => ({ id: step.id, words: step.title }))}
          onPick={setPicked}
        >
          <Trans>a time taught for another step</Trans>
        </ActionMenu>
      )}
    </section>
  );
}

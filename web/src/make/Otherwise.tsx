/** Done otherwise this time: a step left out, its minutes, or one more step behind it. The sheet stays as it is. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { StepResult } from "../api/client";
import { limit } from "../api/limits";
import type { Happening } from "../runs/useFlow";
import { NEW_OWN, UNCHANGED } from "../sheet/edits";
import { NumberField } from "../ui/NumberField";
import { newId } from "../ui/newId";
import { Slip } from "../ui/PopoverPanel";

interface Props {
  step: StepResult;
  tell: (what: Happening) => void;
}

export function Otherwise({ step, tell }: Props) {
  const [minutes, setMinutes] = useState<number | null>(null);
  const [title, setTitle] = useState("");
  const [lasts, setLasts] = useState(5);
  return (
    <Popover.Root>
      <Popover.Trigger className="pick min-h-16 px-6">
        <Trans>Otherwise this time</Trans>
      </Popover.Trigger>
      <Slip label={t`Otherwise this time`} wide>
        <p className="text-ink2">
          <Trans>For this batch only: the sheet stays as it is.</Trans>
        </p>
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <NumberField
            label={t`“${step.title}” takes`}
            value={minutes ?? Math.round(step.minutes)}
            unit="min"
            width="4rem"
            within={limit("StepChange.minutes")}
            onChange={setMinutes}
          />
          <Popover.Close
            className="pick min-h-14"
            disabled={minutes == null}
            onClick={() =>
              minutes != null && tell({ kind: "amended", entry: { ...UNCHANGED, step: step.id, minutes } })
            }
          >
            <Trans>change it</Trans>
          </Popover.Close>
        </div>
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <input
            aria-label={t`A step after it`}
            placeholder={t`a step after it`}
            className="write w-52"
            maxLength={80}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
          <NumberField
            label={t`Minutes of the new step`}
            hideLabel
            value={lasts}
            unit="min"
            width="3.6rem"
            within={limit("OwnStep.minutes")}
            onChange={setLasts}
          />
          <Popover.Close
            className="pick min-h-14"
            disabled={!title.trim()}
            onClick={() => {
              const entry = { ...NEW_OWN, own: ownId(), title: title.trim(), after: step.id, minutes: lasts };
              tell({ kind: "amended", entry });
              setTitle("");
            }}
          >
            <Trans>add it</Trans>
          </Popover.Close>
        </div>
        <div className="mt-4">
          <Popover.Close className="pick min-h-14" onClick={() => tell({ kind: "skipped", step: step.id })}>
            <Trans>leave “{step.title}” out this time</Trans>
          </Popover.Close>
        </div>
      </Slip>
    </Popover.Root>
  );
}

/** Letters only: an id of the cook's own never ends in a number. */
const ownId = () =>
  `own-${newId()
    .replace(/[^a-z]/g, "")
    .slice(0, 16)}x`;

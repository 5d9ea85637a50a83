/** What is done again and again, and what is counted: by a tap, by a key, by the pedal. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { StepResult, StepState } from "../api/client";

const PRACTICE = 3; // the first few, to find the size (core: geometry/hand_moves.py)

interface Props {
  step: StepResult;
  standing: StepState;
  at: number;
  /** The pedal counts now. */
  counting: boolean;
  onCount: (times: number) => void;
}

export function Beat({ step, standing, at, counting, onCount }: Props) {
  if (standing.status !== "running") return null;
  const { rhythm, count } = step;
  return (
    <div className="flex flex-wrap items-center gap-3">
      {rhythm && standing.started && !standing.paused && (
        <Rhythm every={rhythm.every_s} says={rhythm.says} elapsedS={(at - Date.parse(standing.started)) / 1000} />
      )}
      {count && (
        <button
          type="button"
          className="pick min-h-20 flex-1 rounded-2xl text-xl"
          onClick={() => onCount(1)}
          aria-label={t`${standing.count ?? 0} of ${count.of} ${count.what}: count one`}
        >
          <Trans>
            <b className="text-3xl">{standing.count ?? 0}</b> of {count.of} {count.what}
            {count.what === "pieces" && (standing.count ?? 0) < PRACTICE && (
              <span className="font-normal">
                <Trans>practice: weigh it</Trans>
              </span>
            )}
            {counting && (
              <span className="font-normal text-ink2">
                <Trans>space or the pedal counts</Trans>
              </span>
            )}
          </Trans>
        </button>
      )}
      {count && count.of >= 50 && (
        <button type="button" className="pick min-h-20 rounded-2xl text-xl" onClick={() => onCount(10)}>
          <Trans>ten more</Trans>
        </button>
      )}
    </div>
  );
}

/** Counts down to the next time; the alarms call it (alarm/alarms.ts). */
function Rhythm({ every, says, elapsedS }: { every: number; says: string; elapsedS: number }) {
  const turn = Math.floor(elapsedS / every);
  const left = Math.ceil(every - (elapsedS - turn * every));
  const share = (elapsedS - turn * every) / every;
  return (
    <p className="m-0 flex items-center gap-3 text-lg" role="timer" aria-label={t`${says}, in ${left} seconds`}>
      <svg viewBox="0 0 40 40" className="size-10" aria-hidden="true">
        <circle cx="20" cy="20" r="16" fill="none" stroke="var(--color-hair)" strokeWidth="6" />
        <circle
          cx="20"
          cy="20"
          r="16"
          fill="none"
          stroke="var(--color-bean)"
          strokeWidth="6"
          strokeDasharray={`${share * 100.5} 100.5`}
          transform="rotate(-90 20 20)"
        />
      </svg>
      <span>
        {says}{" "}
        <b>
          <Trans>in {left} s</Trans>
        </b>
      </span>
    </p>
  );
}

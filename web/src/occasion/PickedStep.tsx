/** One step of the day: why it lies there, what it waits for, how far it can slip; pinned, or let go. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { ReactNode } from "react";
import type { Plan } from "../api/client";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { duration, HANDS_WORDS, WORK_WORDS, wallClock } from "../ui/words";
import { reasonOf, type Scheduled } from "./slip";

interface Props {
  plan: Plan;
  one: Scheduled;
  dish: string;
  zone: string;
  isPinned: boolean;
  onPin: (at: string | null) => void;
}

export function PickedStep({ plan, one, dish, zone, isPinned, onPin }: Props) {
  const nudged = (minutes: number) => wallClock(new Date(Date.parse(one.starts) + minutes * 60_000), zone);
  return (
    <OneStep plan={plan} one={one} dish={dish} zone={zone}>
      <p className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
        <LinkButton onClick={() => onPin(nudged(-5))}>
          <Trans>5 min earlier</Trans>
        </LinkButton>
        <LinkButton onClick={() => onPin(nudged(5))}>
          <Trans>5 min later</Trans>
        </LinkButton>
        {isPinned ? (
          <LinkButton onClick={() => onPin(null)}>
            <Trans>Let the pin go</Trans>
          </LinkButton>
        ) : (
          <LinkButton onClick={() => onPin(nudged(0))}>
            <Trans>Pin it here</Trans>
          </LinkButton>
        )}
      </p>
    </OneStep>
  );
}

interface OneProps {
  plan: Plan;
  one: Scheduled;
  dish?: string;
  zone: string;
  children?: ReactNode;
}

/** A step, and why it lies where it does. */
export function OneStep({ plan, one, dish, zone, children }: OneProps) {
  const { timeOfDay } = useFormatters();
  const { step } = one;
  const reason = reasonOf(plan, one);
  return (
    <section aria-label={t`The step`} aria-live="polite">
      <h2 className="text-xl">{step.title}</h2>
      <p className="text-ink2">
        <Trans>
          {dish ? `${dish}: ` : ""}
          {timeOfDay(one.starts, zone)} to {timeOfDay(one.ends, zone)}, {duration(step.minutes)}
          {step.given?.is_used
            ? t` (${step.given.by || t`yours`}; Kemble ${duration(step.predicted?.minutes ?? 0)})`
            : ""}
          , {HANDS_WORDS[step.hands]}
          {step.hands === "free" ? "" : `, ${WORK_WORDS[step.work]}`}
          {one.who ? `, ${one.who}` : ""}
        </Trans>
      </p>
      {step.own_words && <p>“{step.own_words}”</p>}
      <p className={step.own_words ? "text-ink2" : ""}>{step.words}</p>
      <ul className="mt-1">
        {reason.after.map(({ step: before, gap, atMost }) => (
          <li key={before.step.id} className="hairline py-1">
            <Trans>
              after <b>{before.step.title}</b>, done at {timeOfDay(before.ends, zone)}
              {gap > 0.5 ? t`: ${duration(gap)} between` : ""}
              {atMost != null ? t`, at most ${duration(atMost)}` : ""}
            </Trans>
          </li>
        ))}
      </ul>
      <p className="mt-1">
        {reason.slip > 0 ? (
          <Trans>
            It can begin <b>{duration(reason.slip)}</b> later
            {reason.before ? t` before “${reason.before.step.title}” must move` : ""}.
          </Trans>
        ) : (
          <Trans>It cannot slip{reason.before ? t`: “${reason.before.step.title}” hangs on it` : ""}.</Trans>
        )}
      </p>
      {children}
    </section>
  );
}

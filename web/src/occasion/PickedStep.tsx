/** One step of the day: why it lies there, what it waits for, how far it can slip; pinned, or let go. */

import type { ReactNode } from "react";
import type { Plan } from "../api/client";
import { LinkButton } from "../ui/LinkButton";
import { duration, timeOfDay, WORK_WORDS, wallClock } from "../ui/words";
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
        <LinkButton onClick={() => onPin(nudged(-5))}>5 min earlier</LinkButton>
        <LinkButton onClick={() => onPin(nudged(5))}>5 min later</LinkButton>
        {isPinned ? (
          <LinkButton onClick={() => onPin(null)}>Let the pin go</LinkButton>
        ) : (
          <LinkButton onClick={() => onPin(nudged(0))}>Pin it here</LinkButton>
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
  const { step } = one;
  const reason = reasonOf(plan, one);
  return (
    <section aria-label="The step" aria-live="polite">
      <h2 className="text-xl">{step.title}</h2>
      <p className="text-ink2">
        {dish ? `${dish}: ` : ""}
        {timeOfDay(one.starts, zone)} to {timeOfDay(one.ends, zone)}, {duration(step.minutes)}, {step.hands}
        {step.hands === "free" ? "" : `, ${WORK_WORDS[step.work]}`}
        {one.who ? `, ${one.who}` : ""}
      </p>
      <p>{step.words}</p>
      <ul className="mt-1">
        {reason.after.map(({ step: before, gap, atMost }) => (
          <li key={before.step.id} className="hairline py-1">
            after <b>{before.step.title}</b>, done at {timeOfDay(before.ends, zone)}
            {gap > 0.5 ? `: ${duration(gap)} between` : ""}
            {atMost != null ? `, at most ${duration(atMost)}` : ""}
          </li>
        ))}
      </ul>
      <p className="mt-1">
        {reason.slip > 0 ? (
          <>
            It can begin <b>{duration(reason.slip)}</b> later
            {reason.before ? ` before “${reason.before.step.title}” must move` : ""}.
          </>
        ) : (
          <>It cannot slip{reason.before ? `: “${reason.before.step.title}” hangs on it` : ""}.</>
        )}
      </p>
      {children}
    </section>
  );
}

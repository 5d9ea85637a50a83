/** What the kitchen would not take, kept and shown. */

import { type RunOpen, sentence } from "../api/client";
import { BringBack } from "../ui/BringBack";
import { LinkButton } from "../ui/LinkButton";
import type { Live } from "./props";
import { said } from "./said";

/** What the kitchen could not take, and why; and what waits for a run that was dropped. */
export function NotTaken({ run, outbox }: { run: RunOpen; outbox: Live["outbox"] }) {
  const words = new Map(run.plan.scheduled.map((one) => [one.step.id, one.step.title]));
  const gone = outbox.failed?.status === 410 ? outbox.failed.problems[0] : undefined;
  return (
    <>
      {gone && (
        <p role="alert" className="mt-2 border-l-4 border-bean pl-4">
          {gone.says}. What you did since is kept here.{" "}
          <BringBack kind="run" id={run.id} onBack={outbox.again}>
            Bring the run back
          </BringBack>
        </p>
      )}
      {outbox.refused.map(({ one, refused }) => (
        <p key={one.uid} role="alert" className="mt-2 border-l-4 border-bean pl-4">
          <b className="text-bean">Not taken:</b> {said(one, words.get(one.step ?? ""))}.{" "}
          {refused?.[0] && sentence(refused[0])}{" "}
          <LinkButton onClick={() => outbox.seen(one.uid)}>I have seen it</LinkButton>
        </p>
      ))}
    </>
  );
}

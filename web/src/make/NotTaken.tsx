/** What the kitchen would not take, kept and shown. */

import { Trans } from "@lingui/react/macro";
import { type RunOpen, sentence } from "../api/client";
import type { Flow } from "../runs/useFlow";
import { useFormatters } from "../ui/formatters";
import { LinkButton } from "../ui/LinkButton";
import { BringBack } from "../ui/RestoreTrashed";
import { SetAside } from "../ui/SetAside";
import { eventWords } from "./eventWords";

/** What the kitchen could not take, and why; and what waits for a run that was dropped. */
export function NotTaken({ run, outbox }: { run: RunOpen; outbox: Flow["outbox"] }) {
  const formatters = useFormatters();
  const words = new Map(run.plan.scheduled.map((item) => [item.step.id, item.step.title]));
  const failed = outbox.failedOf(String(run.id));
  const gone = failed?.status === 410 ? failed.problems[0] : undefined;
  const refused = outbox.refused.filter((entry) => entry.one.run === run.id);
  const aside = outbox.aside.filter((entry) => entry.one.run === run.id);
  return (
    <>
      {gone && (
        <p role="alert" className="mt-2 border-l-4 border-bean pl-4">
          <Trans>
            {gone.says}. What you did since is kept here.{" "}
            <BringBack kind="run" id={run.id} onBack={outbox.again}>
              Bring the run back
            </BringBack>
          </Trans>
        </p>
      )}
      {aside.map(({ one: { event: one }, aside }) => (
        <SetAside
          key={one.uid}
          what={eventWords(formatters, one, words.get(one.step ?? ""))}
          problem={aside?.[0]}
          onAgain={() => outbox.sendAgain(one.uid)}
          onDiscard={() => outbox.seen(one.uid)}
        />
      ))}
      {refused.map(({ one: { event: one }, refused }) => (
        <p key={one.uid} role="alert" className="mt-2 border-l-4 border-bean pl-4">
          <b className="text-bean">
            <Trans>Not taken:</Trans>
          </b>{" "}
          {eventWords(formatters, one, words.get(one.step ?? ""))}. {refused?.[0] && sentence(refused[0])}{" "}
          <LinkButton onClick={() => outbox.seen(one.uid)}>
            <Trans>I have seen it</Trans>
          </LinkButton>
        </p>
      ))}
    </>
  );
}

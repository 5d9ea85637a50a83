/** Something that Kemble failed on again and again: kept on this device, and what can be done with it. */

import { Trans } from "@lingui/react/macro";
import { type Problem, sentence } from "../api/client";
import { LinkButton } from "./LinkButton";
import { MAX_FAILURES } from "./outbox";

interface SetAsideProps {
  what: string;
  problem: Problem | undefined;
  onAgain: () => void;
  onDiscard: () => void;
}

export function SetAside({ what, problem, onAgain, onDiscard }: SetAsideProps) {
  return (
    <p role="alert" className="mt-2 border-l-4 border-bean pl-4">
      <b className="text-bean">
        <Trans>Set aside:</Trans>
      </b>{" "}
      <Trans>
        {what}. Kemble failed on it {MAX_FAILURES} times, and goes on with the rest. It is saved on this device.
      </Trans>{" "}
      {problem && <span className="text-ink2">{sentence(problem)}</span>}{" "}
      <LinkButton onClick={onAgain}>
        <Trans>Send it again</Trans>
      </LinkButton>{" "}
      <LinkButton onClick={onDiscard}>
        <Trans>Discard it</Trans>
      </LinkButton>
    </p>
  );
}

/** Said where times are kept, when this device's clock is off, or was set while Kemble could not be reached. */

import { Trans } from "@lingui/react/macro";
import { clockSetSeen, useDeviceClock } from "../api/connection";
import { LinkButton } from "./LinkButton";
import { duration } from "./words";

export function ClockLine() {
  const { off, set } = useDeviceClock();
  const minutes = (ms: number) => duration(Math.abs(ms) / 60_000);
  return (
    <>
      {off !== 0 && (
        <p role="status" className="mt-2 border-l-4 border-amber pl-4">
          {off > 0 ? (
            <Trans>This device’s clock is {minutes(off)} slow.</Trans>
          ) : (
            <Trans>This device’s clock is {minutes(off)} fast.</Trans>
          )}{" "}
          <Trans>Kemble corrects the times of what you do here.</Trans>
        </p>
      )}
      {set !== 0 && (
        <p role="status" className="mt-2 border-l-4 border-amber pl-4">
          {set > 0 ? (
            <Trans>This device’s clock was set forward by {minutes(set)}.</Trans>
          ) : (
            <Trans>This device’s clock was set back by {minutes(set)}.</Trans>
          )}{" "}
          <Trans>Check the times of what you did here before that.</Trans>{" "}
          <LinkButton onClick={clockSetSeen}>
            <Trans>I have seen it</Trans>
          </LinkButton>
        </p>
      )}
    </>
  );
}

/** How this device calls: each way chosen, and tried out here. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import { LinkButton } from "../ui/LinkButton";
import { type AlarmChannels, keepManners, manners, notify, speak, tone, vibrate } from "./ring";

const WAYS: readonly (readonly [keyof AlarmChannels, string, () => void])[] = [
  ["tone", t`a tone`, () => tone()],
  ["speech", t`a spoken line`, () => speak(t`The cake: the first look`)],
  ["vibration", t`a vibration`, () => vibrate()],
  [
    "notification",
    t`a notification, with the page in the background`,
    () => notify(t`The cake: the first look`, t`Tried out`, "try"),
  ],
];

export function AlarmChannelSettings() {
  const [how, setHow] = useState(manners);
  const [refused, setRefused] = useState(false);
  const set = async (name: keyof AlarmChannels, on: boolean) => {
    if (name === "notification" && on && "Notification" in window) {
      const answer = await Notification.requestPermission();
      setRefused(answer !== "granted");
      if (answer !== "granted") return;
    }
    const next = { ...how, [name]: on };
    keepManners(next);
    setHow(next);
  };
  return (
    <section aria-labelledby="alarms">
      <h2 id="alarms" className="mt-7 text-xl">
        <Trans>Alarms on this device</Trans>
      </h2>
      <p className="text-ink2">
        <Trans>At the first look, the likely minute, the latest and a top-up; again until it is heard.</Trans>
      </p>
      <ul>
        {WAYS.map(([name, words, tryOut]) => (
          <li key={name} className="hairline flex items-baseline justify-between gap-4 py-1">
            <label className="inline-flex min-h-9 items-center gap-3">
              <input
                type="checkbox"
                className="size-5 accent-bean"
                checked={how[name]}
                onChange={(event) => void set(name, event.target.checked)}
              />
              {words}
            </label>
            <LinkButton aria-label={t`try it: ${words}`} onClick={tryOut}>
              <Trans>try it</Trans>
            </LinkButton>
          </li>
        ))}
      </ul>
      {refused && (
        <p className="text-look">
          <Trans>This browser does not allow notifications; its settings can.</Trans>
        </p>
      )}
    </section>
  );
}

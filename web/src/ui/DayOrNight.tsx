/** How this device shows its pages: as the device itself is set, or always by day, or always by night. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { Picks } from "./ToggleChoice";
import { chooseTheme, useTheme } from "./theme";

const THEMES = [
  ["auto", t`as the device`],
  ["light", t`by day`],
  ["dark", t`by night`],
] as const;

export function DayOrNight() {
  const theme = useTheme();
  return (
    <section aria-labelledby="looks" className="mt-7">
      <h2 id="looks" className="text-xl">
        <Trans>Looks of this device</Trans>
      </h2>
      <Picks label={t`Looks`} className="mt-2" value={theme} options={THEMES} onPick={chooseTheme} />
    </section>
  );
}

/** How this device shows its pages: as the device itself is set, or always by day, or always by night. */

import { Picks } from "./Picks";
import { chooseTheme, useTheme } from "./theme";

const THEMES = [
  ["auto", "as the device"],
  ["light", "by day"],
  ["dark", "by night"],
] as const;

export function DayOrNight() {
  const theme = useTheme();
  return (
    <section aria-labelledby="looks" className="mt-7">
      <h2 id="looks" className="text-xl">
        Looks of this device
      </h2>
      <Picks label="Looks" className="mt-2" value={theme} options={THEMES} onPick={chooseTheme} />
    </section>
  );
}

/** A slider over the minutes of a heat, and what is so at that one. */

import { t } from "@lingui/core/macro";
import type { SteamerDrawing, TemperatureCurve } from "../../api/client";
import { useFormatters } from "../../ui/formatters";
import { along } from "./HeatCurve";
import { levelAt } from "./Steamer";

export function Minute(props: {
  curve: TemperatureCurve;
  steamer: SteamerDrawing | null;
  at: number;
  share: number;
  onShare: (share: number) => void;
}) {
  const { degrees, degreesUnit, lengthWords } = useFormatters();
  const { curve, steamer, at, share, onShare } = props;
  const core = along(curve.minutes, curve.core_c, at);
  const water = steamer ? t`, ${lengthWords(levelAt(steamer, at))} of water` : "";
  const says = t`At ${at.toFixed(0)} min the heart is ${degrees(core)} ${degreesUnit()}${water}`;
  return (
    <label className="mt-1 flex items-center gap-4">
      <input
        type="range"
        min="0"
        max="1"
        step="0.005"
        value={share}
        aria-label={t`Minute`}
        aria-valuetext={says}
        className="min-h-9 min-w-0 flex-1 accent-bean"
        onChange={(event) => onShare(Number(event.target.value))}
      />
      <output className="w-80 shrink-0 text-ink2 max-md:w-48">{says}</output>
    </label>
  );
}

/** A slider over the minutes of a heat, and what is so at that one. */

import type { HeatDrawing } from "../../api/client";
import { degrees, degreesUnit } from "../../ui/words";
import { along, steamerOf } from "./HeatCurve";
import { levelAt } from "./Steamer";

export function Minute(props: { drawing: HeatDrawing; at: number; share: number; onShare: (share: number) => void }) {
  const { drawing, at, share, onShare } = props;
  const steamer = steamerOf(drawing);
  const heart = along(drawing.curve.minutes, drawing.curve.heart_c, at);
  const water = steamer ? `, ${levelAt(steamer, at).toFixed(0)} mm of water` : "";
  const says = `At ${at.toFixed(0)} min the heart is ${degrees(heart)} ${degreesUnit()}${water}`;
  return (
    <label className="mt-1 flex items-center gap-4">
      <input
        type="range"
        min="0"
        max="1"
        step="0.005"
        value={share}
        aria-label="Minute"
        aria-valuetext={says}
        className="min-h-9 min-w-0 flex-1 accent-bean"
        onChange={(event) => onShare(Number(event.target.value))}
      />
      <output className="w-80 shrink-0 text-ink2 max-md:w-48">{says}</output>
    </label>
  );
}

/** The steamer from the side. */

import type { KitchenSettings } from "../api/client";
import { Drawing } from "../ui/Drawing";
import { Dimension, Label } from "../ui/dimension";
import { fill } from "../ui/materials";
import { lengthWords } from "../ui/words";

export function SteamerSection({ kitchen }: { kitchen: KitchenSettings }) {
  const { steamer } = kitchen;
  const scale = Math.min(1.35, 380 / steamer.diameter_mm);
  const wide = steamer.diameter_mm * scale;
  const rack = 150 - steamer.rack_mm * scale;
  const full = Math.max(steamer.low_mm + 5, steamer.rack_mm - steamer.gap_mm) * scale;
  return (
    <Drawing viewBox="0 0 520 176" className="block w-full max-w-xl" role="img" aria-label="The steamer from the side">
      <rect x="40" y={150 - full} width={wide} height={full} fill={fill("water")} />
      <line
        x1="40"
        x2={40 + wide}
        y1={150 - steamer.low_mm * scale}
        y2={150 - steamer.low_mm * scale}
        stroke="var(--color-amber)"
        strokeDasharray="6 4"
        strokeWidth="1.6"
      />
      <path d={`M40 20V142q0 8 8 8H${32 + wide}q8 0 8 -8V20`} fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      <line x1="46" x2={34 + wide} y1={rack} y2={rack} stroke="var(--color-ink)" strokeWidth="2.4" />
      <Dimension x1={40 + wide + 18} y1={rack} x2={40 + wide + 18} y2={150} />
      <Label x={40 + wide + 26} y={(rack + 150) / 2 + 5} size={14} bold>
        {lengthWords(steamer.rack_mm)}
      </Label>
      <Dimension x1={40} y1={168} x2={40 + wide} y2={168} />
    </Drawing>
  );
}

/** The steamer from the side, true to scale: water at the start, the low mark, the tin on its rack. */

import type { Facts, SteamDrawing } from "../../api/client";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";

export function Steamer({ drawing, facts }: { drawing: SteamDrawing; facts: Facts }) {
  const { tin } = drawing;
  const scale = 320 / drawing.pot_mm;
  const left = 40;
  const wide = drawing.pot_mm * scale;
  const floor = 250;
  const rack = floor - drawing.rack_mm * scale;
  const top = Math.min(rack - (tin.height_mm + 22) * scale, 90);
  const water = drawing.start_mm * scale;
  const low = drawing.low_mm * scale;
  const tinWide = (tin.shape === "round" ? tin.diameter_mm : tin.length_mm) * scale;
  const tinLeft = left + (wide - tinWide) / 2;
  const deep = drawing.depth_mm * scale;
  const at = facts["heat.top_up_at_min"]?.value;
  const ml = facts["heat.top_up_ml"]?.value;
  const start = Number(facts["heat.water_ml"]?.value ?? 0);
  const topUp =
    typeof at === "number" && typeof ml === "number"
      ? `top up at ${at.toFixed(0)} min: ${(Math.round(ml / 10) * 10).toFixed(0)} ml, boiling`
      : "no top-up needed";
  const litres = `${(start / 1000).toFixed(1)} litres to start`;
  return (
    <svg
      viewBox={`0 ${top - 44} 450 ${floor - top + 92}`}
      className="block w-full max-w-[520px]"
      role="img"
      aria-label={`Steamer: ${litres}, ${topUp}`}
    >
      <rect x={left} y={top} width={wide} height={floor - top} fill={fill("steam")} opacity="0.75" />
      <rect x={left} y={floor - water} width={wide} height={water} fill={fill("water")} />
      <line
        x1={left}
        x2={left + wide}
        y1={floor - low}
        y2={floor - low}
        stroke="var(--color-amber)"
        strokeDasharray="6 4"
        strokeWidth="1.6"
      />
      <path
        d={`M${left - 6} ${top}H${left}V${floor - 8}q0 8 8 8H${left + wide - 8}q8 0 8 -8V${top}h6`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
      <path
        d={`M${left - 2} ${top - 2}Q${left + wide / 2} ${top - 44} ${left + wide + 2} ${top - 2}`}
        fill="var(--color-sheet)"
        stroke="var(--color-ink)"
        strokeWidth="2.2"
      />
      <path
        d={`M${left + wide / 2 - 16} ${top - 22}q16 -16 32 0`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2"
      />
      <path
        d={`M${left + 16} ${top}Q${left + wide / 2} ${top + 12} ${left + wide - 16} ${top}`}
        fill="none"
        stroke="var(--color-ink2)"
        strokeDasharray="5 4"
      />
      <line x1={left + 6} x2={left + wide - 6} y1={rack} y2={rack} stroke="var(--color-ink)" strokeWidth="2.6" />
      <path
        d={`M${left + 34} ${rack}V${floor}M${left + wide - 34} ${rack}V${floor}`}
        stroke="var(--color-ink)"
        strokeWidth="1.2"
      />
      <rect
        x={tinLeft}
        y={rack - 2 - deep}
        width={tinWide}
        height={deep}
        fill={fill("batter")}
        stroke="var(--color-ink)"
        strokeWidth="1"
      />
      <path
        d={`M${tinLeft} ${rack - tin.height_mm * scale}V${rack - 2}H${tinLeft + tinWide}V${rack - tin.height_mm * scale}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.4"
      />
      {drawing.covered && (
        <path
          d={`M${tinLeft - 5} ${rack - tin.height_mm * scale + 5}v-6H${tinLeft + tinWide + 5}v6`}
          fill="none"
          stroke="var(--color-ink2)"
          strokeWidth="1.8"
        />
      )}
      <Dimension x1={tinLeft - 14} y1={rack - 2 - deep} x2={tinLeft - 14} y2={rack - 2} />
      <Label x={tinLeft - 20} y={rack - deep / 2 + 4} bold anchor="end" size={15} halo>
        {drawing.depth_mm.toFixed(0)}
      </Label>
      <Extension x1={left + wide + 4} y1={rack} x2={left + wide + 24} y2={rack} />
      <Extension x1={left + wide + 4} y1={floor - water} x2={left + wide + 24} y2={floor - water} />
      <Dimension x1={left + wide + 16} y1={rack} x2={left + wide + 16} y2={floor - water} />
      <Label x={left + wide + 28} y={(rack + floor - water) / 2 + 5} bold size={14}>
        {(drawing.rack_mm - drawing.start_mm).toFixed(0)} mm
      </Label>
      <Label x={left + wide / 2} y={floor + 22} bold anchor="middle" size={17}>
        {litres}
      </Label>
      <Label x={left + wide / 2} y={floor + 41} anchor="middle" size={14.5} tone="look">
        {topUp}
      </Label>
    </svg>
  );
}

/** The steamer from the side, true to scale, at a minute of its time: the water, and the levels between which it stays. */

import { t } from "@lingui/core/macro";
import type { Facts, SteamerDrawing, Tin } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";
import { fixed } from "../../words/numbers";

export type Within =
  | { kind: "tin"; tin: Tin; depthMm: number; covered: boolean }
  | { kind: "bed"; depthMm: number }
  | { kind: "packets"; thickMm: number; sideMm: number };

interface Props {
  steamer: SteamerDrawing;
  facts: Facts;
  within: Within;
  /** Minutes since it went in. */
  at: number;
}

const LEFT = 40;
const FLOOR = 250;
const SIDE = 14; // for the depth of what stands in it
const ROOM = 176; // for the words beside the pot, larger on a phone

export function Steamer({ steamer, facts, within, at }: Props) {
  const { lengthWords, volumeUnit, volumeWords } = useFormatters();
  const scale = 300 / steamer.pot_mm;
  const wide = steamer.pot_mm * scale;
  const right = LEFT + wide;
  const up = (mm: number) => FLOOR - mm * scale;
  const rack = up(steamer.rack_mm);
  const tall = within.kind === "tin" ? within.tin.height_mm : 44;
  const top = Math.min(rack - (tall + 22) * scale, 90);
  const waterMm = levelAt(steamer, at);
  const topUpAt = facts["heat.top_up_at_min"]?.value;
  const ml = facts["heat.top_up_ml"]?.value;
  const start = Number(facts["heat.water_ml"]?.value ?? 0);
  const topUp =
    typeof topUpAt === "number" && typeof ml === "number"
      ? t`top up at ${topUpAt.toFixed(0)} min: ${volumeWords(ml, 0)}, boiling`
      : t`no top-up needed`;
  const litres = t`${volumeUnit() === "ml" ? t`${fixed(start / 1000, 1)} litres` : volumeWords(start)} to start`;
  const creases = steamer.rack_mm - steamer.gap_mm;
  return (
    <Drawing
      viewBox={`${-SIDE} ${top - 44} ${right + 24 + ROOM + SIDE} ${FLOOR - top + 98}`}
      className="block w-full max-w-[560px]"
      role="img"
      aria-label={t`Steamer: ${litres}, ${topUp}; after ${at.toFixed(0)} minutes the water is ${lengthWords(waterMm)} deep`}
    >
      <rect x={LEFT} y={top} width={wide} height={FLOOR - top} fill={fill("steam")} opacity="0.75" />
      <rect
        x={LEFT}
        y={up(waterMm)}
        width={wide}
        height={waterMm * scale}
        fill={fill("water")}
        data-of="heat.water_ml heat.water_loss_g_per_min"
      />
      <line
        x1={LEFT}
        x2={right}
        y1={up(creases)}
        y2={up(creases)}
        stroke="var(--color-bean)"
        strokeDasharray="2 4"
        strokeWidth="1.4"
      />
      <line
        x1={LEFT}
        x2={right}
        y1={up(steamer.low_mm)}
        y2={up(steamer.low_mm)}
        stroke="var(--color-amber)"
        strokeDasharray="6 4"
        strokeWidth="1.6"
      />
      <path
        d={`M${LEFT - 6} ${top}H${LEFT}V${FLOOR - 8}q0 8 8 8H${right - 8}q8 0 8 -8V${top}h6`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
      <path
        d={`M${LEFT - 2} ${top - 2}Q${LEFT + wide / 2} ${top - 44} ${right + 2} ${top - 2}`}
        fill="var(--color-sheet)"
        stroke="var(--color-ink)"
        strokeWidth="2.2"
      />
      <path
        d={`M${LEFT + wide / 2 - 16} ${top - 22}q16 -16 32 0`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2"
      />
      <path
        d={`M${LEFT + 16} ${top}Q${LEFT + wide / 2} ${top + 12} ${right - 16} ${top}`}
        fill="none"
        stroke="var(--color-ink2)"
        strokeDasharray="5 4"
      />
      <line x1={LEFT + 6} x2={right - 6} y1={rack} y2={rack} stroke="var(--color-ink)" strokeWidth="2.6" />
      <path
        d={`M${LEFT + 34} ${rack}V${FLOOR}M${right - 34} ${rack}V${FLOOR}`}
        stroke="var(--color-ink)"
        strokeWidth="1.2"
      />
      <Inside within={within} scale={scale} wide={wide} rack={rack} />
      {[
        { y: up(creases), to: rack - 4, words: t`over it, it creases`, tone: "bean" as const },
        { y: up(steamer.low_mm), to: FLOOR + 2, words: t`under it, it starves`, tone: "look" as const },
        { y: up(waterMm), to: (rack + FLOOR) / 2, words: t`${lengthWords(waterMm)} of water`, tone: "ink" as const },
      ].map((line) => (
        <g key={line.words}>
          <path
            d={`M${right + 3} ${line.y}L${right + 16} ${line.to}h4`}
            fill="none"
            stroke="var(--color-ink2)"
            strokeWidth="0.8"
          />
          <Label x={right + 24} y={line.to + 4} size={13.5} tone={line.tone} bold={line.tone === "ink"}>
            {line.words}
          </Label>
        </g>
      ))}
      <Label x={LEFT + wide / 2} y={FLOOR + 22} bold anchor="middle" size={17} of="heat.water_ml">
        {litres}
      </Label>
      <Label
        x={LEFT + wide / 2}
        y={FLOOR + 45}
        anchor="middle"
        size={14.5}
        tone="look"
        of="heat.top_up_at_min heat.top_up_ml"
      >
        {topUp}
      </Label>
    </Drawing>
  );
}

/** What stands on the rack. */
function Inside({ within, scale, wide, rack }: { within: Within; scale: number; wide: number; rack: number }) {
  if (within.kind === "bed") {
    const deep = Math.max(5, within.depthMm * scale);
    return (
      <>
        <path
          d={`M${LEFT + 8} ${rack - deep}Q${LEFT + wide / 2} ${rack - deep - 8} ${LEFT + wide - 8} ${rack - deep}V${rack - 2}H${LEFT + 8}z`}
          fill={fill("starch")}
          stroke="var(--color-ink)"
        />
        <Dimension x1={LEFT - 12} y1={rack - deep} x2={LEFT - 12} y2={rack - 2} />
        <Label x={LEFT - 18} y={rack - deep / 2 + 4} bold anchor="end" size={15} halo>
          {within.depthMm.toFixed(0)}
        </Label>
      </>
    );
  }
  if (within.kind === "packets") {
    const side = within.sideMm * scale;
    const many = Math.max(1, Math.floor((wide - 24) / (side + 6)));
    const begin = LEFT + (wide - many * (side + 6) + 6) / 2;
    return Array.from({ length: many }, (_, i) => begin + i * (side + 6)).map((x) => (
      <rect
        key={x}
        x={x}
        y={rack - 2 - within.thickMm * scale}
        width={side}
        height={within.thickMm * scale}
        rx="5"
        fill={fill("leaf")}
        stroke="var(--color-ink)"
      />
    ));
  }
  const { tin, depthMm, covered } = within;
  const tinWide = (tin.shape === "round" ? tin.diameter_mm : tin.length_mm) * scale;
  const x = LEFT + (wide - tinWide) / 2;
  const rim = rack - tin.height_mm * scale;
  const deep = depthMm * scale;
  return (
    <>
      <rect
        x={x}
        y={rack - 2 - deep}
        width={tinWide}
        height={deep}
        fill={fill("batter")}
        stroke="var(--color-ink)"
        strokeWidth="1"
      />
      <path
        d={`M${x} ${rim}V${rack - 2}H${x + tinWide}V${rim}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={tin.material === "metal" ? 2.4 : 5}
      />
      {covered && (
        <path
          d={`M${x - 5} ${rim + 5}v-6H${x + tinWide + 5}v6`}
          fill="none"
          stroke="var(--color-ink2)"
          strokeWidth="1.8"
        />
      )}
      <Extension x1={x - 20} y1={rack - 2 - deep} x2={x - 3} y2={rack - 2 - deep} />
      <Dimension x1={x - 14} y1={rack - 2 - deep} x2={x - 14} y2={rack - 2} />
      <Label x={x - 20} y={rack - deep / 2 + 4} bold anchor="end" size={15} halo>
        {depthMm.toFixed(0)}
      </Label>
    </>
  );
}

/** How deep the water stands at a minute, in mm, between the points that it was worked out for. */
export function levelAt({ minutes, water_mm }: SteamerDrawing, at: number): number {
  const after = minutes.findIndex((minute) => minute > at);
  if (after < 0) return water_mm.at(-1) ?? 0;
  if (after === 0) return water_mm[0] ?? 0;
  const [m0, m1, w0, w1] = [minutes[after - 1], minutes[after], water_mm[after - 1], water_mm[after]].map(
    (value) => value ?? 0,
  ) as [number, number, number, number];
  return w0 + ((w1 - w0) * (at - m0)) / (m1 - m0);
}

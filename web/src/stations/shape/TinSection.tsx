/** The tin from the side, its batter to be dragged. */

import type { Tin } from "../../api/client";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";
import { useAim } from "../../ui/useAim";
import { lengthWords, sizeWords } from "../../ui/words";
import { across, MOST_SHALLOW_MM, tinSize } from "./tins";

interface SectionProps {
  tin: Tin;
  depth: number | null;
  count: number;
  onFill?: (mm: number) => void;
}

export function TinSection({ tin, depth: worked, count, onFill }: SectionProps) {
  const width = across(tin);
  const scale = Math.min(440 / width, 240 / tin.height_mm);
  const w = width * scale;
  const h = tin.height_mm * scale;
  const x = 130;
  const floor = 300;
  const most = tin.height_mm - 2;
  const place = (at: DOMPoint) => Math.min(most, Math.max(MOST_SHALLOW_MM, (floor - at.y) / scale));
  const { aim, put, grab, canvas } = useAim(String(worked), place, onFill);
  const depth = aim ?? worked;
  const level = depth == null ? 0 : depth * scale;
  const says = `A ${tinSize(tin)} tin${depth == null ? ", too small for its batter" : `, the batter ${lengthWords(depth)} deep in it`}`;
  return (
    <svg
      {...canvas}
      viewBox="0 0 720 420"
      className="block w-full touch-pan-y select-none"
      role="group"
      aria-label={says}
    >
      {depth != null ? (
        <rect
          x={x}
          y={floor - level}
          width={w}
          height={level}
          fill={fill("batter")}
          stroke="var(--color-ink)"
          strokeWidth="1.2"
        />
      ) : (
        <path
          d={`M${x - 12} ${floor - h - 14}q${w / 2 + 12} -26 ${w + 24} 0V${floor}H${x - 12}z`}
          fill={fill("batter")}
          stroke="var(--color-bean)"
          strokeWidth="1.6"
          strokeDasharray="6 4"
        />
      )}
      <path
        d={`M${x} ${floor - h}V${floor}H${x + w}V${floor - h}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={tin.material === "metal" ? 3.5 : 7}
      />
      <Dimension x1={x} y1={floor - h - 26} x2={x + w} y2={floor - h - 26} />
      <Extension x1={x} y1={floor - h - 34} x2={x} y2={floor - h - 4} />
      <Extension x1={x + w} y1={floor - h - 34} x2={x + w} y2={floor - h - 4} />
      <Label x={x + w / 2} y={floor - h - 36} bold size={19} anchor="middle">
        {sizeWords(width, 1)}
        {tin.shape === "round" ? "" : ` × ${sizeWords(tin.width_mm, 1)}`}
      </Label>
      {depth != null && (
        <>
          <Extension x1={x - 44} y1={floor - level} x2={x - 4} y2={floor - level} />
          <Extension x1={x - 44} y1={floor} x2={x - 4} y2={floor} />
          <Dimension x1={x - 34} y1={floor - level} x2={x - 34} y2={floor} />
          <Label x={x - 44} y={floor - level / 2 + 7} bold size={22} anchor="end">
            {lengthWords(depth)}
          </Label>
          <Dimension x1={x + w + 28} y1={floor - h} x2={x + w + 28} y2={floor - level} />
          <Label x={x + w + 38} y={floor - (h + level) / 2 + 5} size={15} tone="ink2">
            {lengthWords(tin.height_mm - depth)} free
          </Label>
          {onFill && (
            <g
              role="slider"
              tabIndex={0}
              aria-label="Depth to fill to, all else to match. Arrow keys move it"
              aria-valuenow={Math.round(depth)}
              aria-valuemin={MOST_SHALLOW_MM}
              aria-valuemax={Math.floor(most)}
              aria-valuetext={`${lengthWords(depth)}`}
              className="group cursor-ns-resize touch-none outline-none"
              onPointerDown={grab}
              onKeyDown={(event) => {
                const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
                if (!by) return;
                event.preventDefault();
                put(Math.min(most, Math.max(MOST_SHALLOW_MM, Math.round(depth) + by)));
              }}
            >
              <rect x={x} y={floor - level - 16} width={w} height="32" fill="transparent" />
              <line
                x1={x + 3}
                x2={x + w - 3}
                y1={floor - level}
                y2={floor - level}
                strokeWidth="4"
                className="stroke-bean group-focus-visible:stroke-ink"
              />
              <path
                d={`M${x + w / 2 - 9} ${floor - level - 8}l9 -8l9 8m-18 16l9 8l9 -8`}
                fill="none"
                strokeWidth="2.4"
                className="stroke-bean group-focus-visible:stroke-ink"
              />
            </g>
          )}
        </>
      )}
      <Label x={x + w / 2} y={floor + 34} anchor="middle" tone="ink2">
        {tin.name ? `${tin.name}, ` : ""}
        {tin.material}, {lengthWords(tin.height_mm)} high{count > 1 ? `, ${count} of them` : ""}
      </Label>
    </svg>
  );
}

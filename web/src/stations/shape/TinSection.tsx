/** The tin from the side, its batter to be dragged. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { Tin, TinDrawing } from "../../api/client";
import { cutText } from "../../ui/cutText";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill, materialOf } from "../../ui/materials";
import { across, MOST_SHALLOW_MM, tinSize } from "../../ui/tins";
import { useAim } from "../../ui/useAim";
import { said } from "../../words/said";

interface SectionProps {
  tin: Tin;
  depth: number | null;
  count: number;
  /** What lies under the batter, on the wall, or over it. */
  layers?: Layer[];
  /** How far it stands above where the tin is full: it does not fit. */
  overMm?: number;
  onFill?: (mm: number) => void;
}

type Layer = TinDrawing["layers"][number];

export function TinSection({ tin, depth: worked, count, layers = [], overMm = 0, onFill }: SectionProps) {
  const formatters = useFormatters();
  const { lengthWords, sizeWords } = formatters;
  const [box, room] = useRoom<HTMLDivElement>(720);
  const width = across(tin);
  const scale = Math.min((room < 520 ? 370 : 440) / width, 240 / tin.height_mm);
  const w = width * scale;
  const h = tin.height_mm * scale;
  const x = 130;
  const floor = 300;
  const most = tin.height_mm - 2;
  const thick = (where: Layer["where"]) =>
    layers.reduce((sum, layer) => sum + (layer.where === where ? layer.mm * scale : 0), 0);
  const [wall, under] = [thick("wall"), thick("under")];
  const bottom = floor - wall - under;
  const place = (at: DOMPoint) => Math.min(most, Math.max(MOST_SHALLOW_MM, (bottom - at.y) / scale));
  const { aim, put, grab, canvas } = useAim(String(worked), place, onFill);
  const depth = aim ?? worked;
  const over = aim == null && overMm > 0;
  const level = depth == null ? 0 : Math.min(depth * scale, bottom - HIGHEST);
  const beside = layers
    .map((layer) => t`, ${lengthWords(layer.mm, 1)} of ${layer.name} ${WHERE[layer.where] ?? ""}`)
    .join("");
  const says = t`A ${tinSize(formatters, tin)} tin${depth == null || over ? t`, too small for its batter` : t`, the batter ${lengthWords(depth)} deep in it${beside}`}`;
  return (
    <div ref={box}>
      <Drawing
        {...canvas}
        viewBox="0 0 720 420"
        className="block w-full touch-pan-y select-none"
        role="group"
        aria-label={says}
      >
        {depth != null ? (
          <>
            <rect
              x={x + wall}
              y={bottom - level}
              width={w - 2 * wall}
              height={level}
              fill={fill("batter")}
              stroke="var(--color-ink)"
              strokeWidth="1.2"
              data-of="mix.volume_ml"
            />
            <Layers layers={layers} box={{ x, w, floor, wall, bottom, level, scale }} />
          </>
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
        <Label x={x + w / 2} y={floor - h - 36} bold size={19} anchor="middle" plate={over}>
          {sizeWords(width, 1)}
          {tin.shape === "round" ? "" : ` × ${sizeWords(tin.width_mm, 1)}`}
        </Label>
        {depth != null && (
          <>
            <Extension x1={x - 44} y1={bottom - level} x2={x - 4} y2={bottom - level} />
            <Extension x1={x - 44} y1={bottom} x2={x - 4} y2={bottom} />
            <g data-of="shape.depth_mm">
              <Dimension x1={x - 34} y1={bottom - level} x2={x - 34} y2={bottom} />
              <Label x={x - 44} y={bottom - level / 2 + 7} bold size={22} anchor="end">
                {lengthWords(depth)}
              </Label>
            </g>
            {over ? (
              <TooMuch
                {...{ x, w }}
                full={Math.min(floor - h, bottom - level + overMm * scale)}
                top={bottom - level}
                mm={overMm}
              />
            ) : (
              <g data-of="shape.headroom_mm">
                <Dimension x1={x + w + 28} y1={floor - h} x2={x + w + 28} y2={bottom - level - thick("over")} />
                <Label x={x + w + 38} y={floor - (h + level) / 2 + 5} size={15} tone="ink2">
                  <Trans>{lengthWords(tin.height_mm - depth)} free</Trans>
                </Label>
              </g>
            )}
            {onFill && (
              <g
                role="slider"
                tabIndex={0}
                aria-label={t`Depth to fill to, all else to match. Arrow keys move it`}
                aria-valuenow={Math.round(Math.min(depth, most))}
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
                <rect x={x} y={bottom - level - 16} width={w} height="32" fill="transparent" />
                <line
                  x1={x + 3}
                  x2={x + w - 3}
                  y1={bottom - level}
                  y2={bottom - level}
                  strokeWidth="4"
                  className="stroke-bean group-focus-visible:stroke-ink"
                />
                <path
                  d={`M${x + w / 2 - 9} ${bottom - level - 8}l9 -8l9 8m-18 16l9 8l9 -8`}
                  fill="none"
                  strokeWidth="2.4"
                  className="stroke-bean group-focus-visible:stroke-ink"
                />
              </g>
            )}
          </>
        )}
        <Label x={x + w / 2} y={floor + 34} anchor="middle" tone="ink2">
          <Trans>
            {tin.name ? `${tin.name}, ` : ""}
            {said(tin.material)}, {lengthWords(tin.height_mm)} high{count > 1 ? t`, ${count} of them` : ""}
          </Trans>
        </Label>
      </Drawing>
    </div>
  );
}

const HIGHEST = 40; // no batter is drawn above that, however much there is

interface TooMuchProps {
  x: number;
  w: number;
  /** Where the tin is full, and where the batter would stand. */
  full: number;
  top: number;
  mm: number;
}

/** By how much it does not fit, and from where on. */
function TooMuch({ x, w, full, top, mm }: TooMuchProps) {
  const { lengthWords } = useFormatters();
  return (
    <g data-fails>
      <rect
        x={x}
        y={top}
        width={w}
        height={Math.max(2, full - top)}
        fill="none"
        stroke="var(--color-bean)"
        strokeWidth="3"
        strokeDasharray="9 6"
      />
      <Dimension x1={x + w + 28} y1={top} x2={x + w + 28} y2={full} />
      <Label x={x + w + 38} y={(top + full) / 2} size={17} bold tone="bean">
        {lengthWords(mm)}
      </Label>
      <Label x={x + w + 38} y={(top + full) / 2 + 20} size={15} tone="bean">
        <Trans>too much</Trans>
      </Label>
    </g>
  );
}

const WHERE: Record<string, string> = { under: t`under it`, wall: t`on floor and wall`, over: t`over it` };

interface Box {
  x: number;
  w: number;
  floor: number;
  wall: number;
  bottom: number;
  level: number;
  scale: number;
}

const WORDS_PITCH = 34; // two lines: its name, its thickness
const MOST_LETTERS = 16; // of a name; what is cut off stands in the drawing's words

/** What lies in the tin beside the batter, to scale, each with its name and how thick it lies. */
function Layers({ layers, box }: { layers: Layer[]; box: Box }) {
  const { lengthWords } = useFormatters();
  const { x, w } = box;
  const placed = stackedLayers(layers, box);
  const words = [...placed].sort((a, b) => b.middle - a.middle);
  let below = box.floor + WORDS_PITCH;
  const at = new Map<Layer, number>();
  for (const { layer, middle } of words) {
    below = Math.min(middle - 4, below - WORDS_PITCH);
    at.set(layer, below);
  }
  return placed.map(({ layer, path }) => (
    <g key={`${layer.part_id} ${layer.where}`}>
      <path d={path} fill={fill(materialOf(layer.group))} stroke="var(--color-ink)" />
      <Label x={x + w + 12} y={at.get(layer) ?? 0} size={14}>
        {cutText(layer.name, MOST_LETTERS)}
        <tspan x={x + w + 12} dy={15} fontWeight="700">
          {lengthWords(layer.mm, 1)}
        </tspan>
      </Label>
    </g>
  ));
}

/** Each layer's outline: the wall on the floor, what is under on that, what is over on the batter. */
function stackedLayers(layers: Layer[], { x, w, floor, wall, bottom, level, scale }: Box) {
  let over = bottom - level;
  let under = floor - wall;
  return layers.map((layer) => {
    const t = layer.mm * scale;
    if (layer.where === "wall")
      return {
        layer,
        middle: floor - t / 2,
        path: `M${x} ${bottom - level}V${floor}H${x + w}V${bottom - level}h${-t}V${floor - t}H${x + t}V${bottom - level}Z`,
      };
    if (layer.where === "over") over -= t;
    else under -= t;
    const top = layer.where === "over" ? over : under;
    const inset = layer.where === "over" ? 1 : wall;
    return { layer, middle: top + t / 2, path: `M${x + inset} ${top}h${w - 2 * inset}v${t}h${2 * inset - w}Z` };
  });
}

/** One piece in cross-section, true to scale, its skin and its size dragged by their edges; what it is made from beside it. */

import { type KeyboardEvent, type PointerEvent, useEffect } from "react";
import type { BallDrawing, FactKey, Facts } from "../../api/client";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";
import { useAim } from "../../ui/useAim";
import { type Across, SKIN_MM, weighed } from "./piece";

const CX = 190;
const CY = 190;
const ROOM = 152; // px from the middle to the outside, at most
/** Pixels a millimetre: few steps, so that a piece that grows is seen to grow. */
const SCALES = [16, 14, 12, 10.5, 9, 8, 7, 6.2, 5.5, 4.8, 4.2, 3.7, 3.2, 2.8, 2.4, 2.1, 1.8, 1.5, 1.2];
const NUDGE_MM = 0.5;

interface Props {
  drawing: BallDrawing;
  facts: Facts;
  /** Where the hand is, while it drags. */
  onDrag?: (at: Across | null) => void;
  onDrop?: (at: Across) => void;
}

export function PieceSection({ drawing, facts, onDrag, onDrop }: Props) {
  const settled: Across = { outer: drawing.outer_mm, core: drawing.core_mm };
  const scale = SCALES.find((one) => (one * drawing.outer_mm) / 2 <= ROOM) ?? 1;
  const filled = drawing.core_mm > 0;
  const round = drawing.form === "ball" || drawing.form === "pull";
  const moves = Boolean(onDrop) && round;
  const least = drawing.heart_mm > 0 ? drawing.heart_mm + 1 : 3;

  const kept = (edge: "outer" | "core", mm: number): Across => {
    if (edge === "core") return { ...now, core: Math.min(now.outer - 2 * SKIN_MM, Math.max(least, mm)) };
    return { ...now, outer: Math.min((2 * ROOM + 40) / scale, Math.max(filled ? now.core + 2 * SKIN_MM : 8, mm)) };
  };
  const place = (edge: "outer" | "core") => (at: DOMPoint) =>
    kept(edge, (2 * Math.hypot(at.x - CX, at.y - CY)) / scale);
  const key = `${settled.outer} ${settled.core}`;
  const outer = useAim<Across>(key, place("outer"), onDrop, true);
  const core = useAim<Across>(key, place("core"), onDrop, true);
  const aim = outer.aim ?? core.aim;
  const now = aim ?? settled;
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when the hand moves, not when the page redraws
  useEffect(() => onDrag?.(aim), [aim?.outer, aim?.core]);

  const grams = aim
    ? weighed(drawing, now)
    : { dough_g: Number(facts["shape.base_g"]?.value ?? 0), filling_g: Number(facts["shape.filling_g"]?.value ?? 0) };
  const skin = (now.outer - now.core) / 2;
  const R = (now.outer / 2) * scale;
  const cone = drawing.form === "parcel";
  // A cone holds a smaller circle than the ball of its weight: what lies in it is drawn to that.
  const r = (now.core / 2) * scale * (cone ? 0.62 : 1);
  const shell = drawing.outside ? "coat" : "skin";
  const names = drawing.outside
    ? { shell: drawing.filling_name, core: drawing.dough_name }
    : { shell: drawing.dough_name, core: drawing.filling_name };
  const [shellG, coreG] = drawing.outside ? [grams.filling_g, grams.dough_g] : [grams.dough_g, grams.filling_g];
  const thin = filled && skin < drawing.least_skin_mm;
  const near = filled && !thin && skin < drawing.near_skin_mm;
  const tone = thin ? "bean" : near ? "look" : "ink";
  // A cone is widest below: what lies in it lies there.
  const coreY = cone ? CY + R * 0.44 : CY;
  const lean = -Math.PI / 4;
  const on = (radius: number) => [CX + radius * Math.cos(lean), CY + radius * Math.sin(lean)] as const;
  const [ax, ay] = on(r);
  const [bx, by] = on(R);
  const says = `A ${drawing.piece_name} ${now.outer.toFixed(0)} mm across${filled ? `, ${shell} ${skin.toFixed(1)} mm` : ""}`;
  const nudge = (edge: "outer" | "core", put: (at: Across) => void) => (event: KeyboardEvent) => {
    const by = { ArrowUp: NUDGE_MM, ArrowRight: NUDGE_MM, ArrowDown: -NUDGE_MM, ArrowLeft: -NUDGE_MM }[event.key];
    if (!by) return;
    event.preventDefault();
    put(kept(edge, now[edge] + by));
  };
  const both = {
    ref: (svg: SVGSVGElement | null) => {
      outer.canvas.ref.current = svg;
      core.canvas.ref.current = svg;
    },
    onPointerMove: (event: PointerEvent) => {
      outer.canvas.onPointerMove(event);
      core.canvas.onPointerMove(event);
    },
    onPointerUp: () => {
      outer.canvas.onPointerUp();
      core.canvas.onPointerUp();
    },
    onPointerCancel: () => {
      outer.canvas.onPointerCancel();
      core.canvas.onPointerCancel();
    },
  };
  return (
    <svg
      {...both}
      viewBox="0 0 720 440"
      className="block w-full touch-pan-y select-none"
      role="group"
      aria-label={says}
      data-scale={scale}
    >
      <Outline form={drawing.form} cx={CX} cy={CY} r={R} material={drawing.outside ? "filling" : "starch"} />
      {filled && (
        <>
          <circle
            cx={CX}
            cy={coreY}
            r={r}
            fill={fill(drawing.outside ? "cooked" : "filling")}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          {drawing.heart_mm > 0 && (
            <circle
              cx={CX}
              cy={coreY}
              r={(drawing.heart_mm / 2) * scale * (cone ? 0.62 : 1)}
              fill={fill("leaf")}
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
          )}
          <Label x={CX} y={coreY - 2} size={24} bold anchor="middle" halo>
            {(coreG - (drawing.outside ? 0 : drawing.heart_g)).toFixed(1)} g
          </Label>
          <Label x={CX} y={coreY + 18} size={15} anchor="middle" halo>
            {names.core}
          </Label>
          {drawing.heart_mm > 0 && (
            <Label x={CX} y={coreY + 36} size={13.5} anchor="middle" halo>
              round {drawing.heart_g.toFixed(0)} g {drawing.heart_name}
            </Label>
          )}
        </>
      )}
      {filled && drawing.form === "ball" && (
        <>
          <path d={`M${bx + 34} ${by - 34}L${bx} ${by}`} stroke="var(--color-ink)" />
          <Dimension x1={ax} y1={ay} x2={bx} y2={by} />
          <path d={`M${bx + 34} ${by - 34}h12`} stroke="var(--color-ink)" />
          <Label x={bx + 54} y={by - 36} bold size={19} tone={tone}>
            {shell} {skin.toFixed(1)} mm
          </Label>
          <Label x={bx + 54} y={by - 17} size={14.5} tone={thin || near ? tone : "ink2"}>
            {drawing.least_skin_mm > 0
              ? `${thin ? "tears: " : ""}${near ? "nearly tears: " : ""}${thin || near ? "at least" : "tears under"} ${drawing.least_skin_mm.toFixed(1)} mm`
              : ""}
          </Label>
        </>
      )}
      <Label
        x={CX}
        y={cone ? CY + R + 30 : filled ? (drawing.outside ? CY - R - 10 : CY + (r + R) / 2 + 6) : CY + 6}
        bold
        size={18}
        anchor="middle"
        halo
      >
        {shellG.toFixed(1)} g {names.shell}
      </Label>
      {round && (
        <>
          <Extension x1={CX - R} y1={CY} x2={CX - R} y2={CY + R + 48} />
          <Extension x1={CX + R} y1={CY} x2={CX + R} y2={CY + R + 48} />
          <Dimension x1={CX - R} y1={CY + R + 40} x2={CX + R} y2={CY + R + 40} />
          <Label x={CX} y={CY + R + 32} bold size={19} anchor="middle" halo>
            {now.outer.toFixed(0)} mm across
          </Label>
        </>
      )}
      {moves && (
        <Handle
          label="Across, the outside of the piece. Arrow keys move it"
          at={CX + R}
          r={R}
          value={now.outer}
          range={[filled ? now.core : 8, (2 * ROOM) / scale]}
          onPointerDown={outer.grab}
          onKeyDown={nudge("outer", outer.put)}
        />
      )}
      {moves && filled && (
        <Handle
          label={`What lies within, against the ${shell}. Arrow keys move it`}
          at={CX - r}
          r={r}
          value={now.core}
          range={[least, now.outer]}
          onPointerDown={core.grab}
          onKeyDown={nudge("core", core.put)}
        />
      )}
      {/* What it is made from is worked out when the hand lets go: until then it is the piece of before. */}
      <g opacity={aim ? 0.3 : 1}>
        <MadeFrom drawing={drawing} facts={facts} shell={names.shell} />
      </g>
      {round && <Scale scale={scale} />}
    </svg>
  );
}

interface HandleProps {
  label: string;
  at: number;
  r: number;
  value: number;
  range: [number, number];
  onPointerDown: (event: PointerEvent) => void;
  onKeyDown: (event: KeyboardEvent) => void;
}

/** A grip on an edge: two arrow heads on it, and a ring wide enough for a floured finger. */
function Handle({ label, at, r, value, range, onPointerDown, onKeyDown }: HandleProps) {
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={+value.toFixed(1)}
      aria-valuemin={+range[0].toFixed(1)}
      aria-valuemax={+range[1].toFixed(1)}
      aria-valuetext={`${value.toFixed(1)} mm`}
      className="group cursor-ew-resize touch-none outline-none"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      <circle cx={CX} cy={CY} r={r} fill="none" stroke="transparent" strokeWidth="16" pointerEvents="stroke" />
      <circle cx={at} cy={CY} r="20" fill="transparent" />
      <path
        d={`M${at - 7} ${CY - 8}l-8 8l8 8M${at + 7} ${CY - 8}l8 8l-8 8`}
        fill="none"
        strokeWidth="2.6"
        className="stroke-bean group-focus-visible:stroke-ink"
      />
      <circle cx={at} cy={CY} r="3.5" className="fill-bean group-focus-visible:fill-ink" />
    </g>
  );
}

/** A centimetre at the drawing's scale. */
function Scale({ scale }: { scale: number }) {
  return (
    <g transform="translate(24 424)">
      <path d={`M0 -5v10M0 0h${10 * scale}M${10 * scale} -5v10`} stroke="var(--color-ink2)" />
      <Label x={10 * scale + 8} y={5} size={13} tone="ink2">
        1 cm
      </Label>
    </g>
  );
}

/** The disc, the rope, the spoon or the packet that the piece is made from or folded to. */
function MadeFrom({ drawing, facts, shell }: { drawing: BallDrawing; facts: Facts; shell: string }) {
  // The rope and the disc share one scale: a millimetre is as long in both.
  const disc = Number(facts["shape.disc_mm"]?.value ?? 0);
  const rope = Number(facts["shape.rope_mm"]?.value ?? 0);
  const cut = Number(facts["shape.rope_cut_mm"]?.value ?? 0);
  const small = Math.min(1.9, 150 / Math.max(disc, 1), 230 / Math.max(4 * cut, 1));
  const spoon = facts["shape.scoop"];
  const spoonG = Number(facts["shape.scoop_g"]?.value ?? 0);
  return (
    <>
      {disc > 0 && (
        <g transform="translate(440 206)">
          <Label x={0} y={0} size={15} tone="ink2">
            {drawing.outside ? `the ${shell} as` : "flatten to"} a disc
          </Label>
          <path
            d={`M0 44q${(disc * small) / 2} -30 ${disc * small} 0q${(-disc * small) / 2} 12 ${-disc * small} 0z`}
            fill={fill(drawing.outside ? "filling" : "starch")}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
          />
          <Dimension x1={0} y1={66} x2={disc * small} y2={66} />
          <Label x={disc * small + 12} y={72} bold size={18}>
            {disc.toFixed(0)} mm
          </Label>
        </g>
      )}
      {drawing.form === "packet" && <Packet facts={facts} />}
      {rope > 0 && (
        <g transform="translate(440 312)">
          <Label x={0} y={0} size={15} tone="ink2">
            rope of {rope.toFixed(0)} mm, cut every
          </Label>
          {[0, 1, 2, 3].map((i) => (
            <rect
              key={i}
              x={i * cut * small}
              y={14}
              width={cut * small}
              height={rope * small}
              fill={fill("starch")}
              stroke="var(--color-ink)"
              strokeWidth="1.4"
            />
          ))}
          <Dimension x1={0} y1={rope * small + 28} x2={cut * small} y2={rope * small + 28} />
          <Label x={cut * small + 12} y={rope * small + 34} bold size={18}>
            {cut.toFixed(0)} mm
          </Label>
        </g>
      )}
      {spoon && (
        <Label x={440} y={430} size={15} tone="ink2">
          by the spoon: <tspan fontWeight="700">{spoon.value}</tspan>, {spoonG.toFixed(1)} g
        </Label>
      )}
    </>
  );
}

interface OutlineProps {
  form: BallDrawing["form"];
  cx: number;
  cy: number;
  r: number;
  material: string;
}

/** The outside of a piece by its form: a ball, a cone of leaf, a flat packet. */
function Outline({ form, cx, cy, r, material }: OutlineProps) {
  if (form === "parcel")
    return (
      <>
        <path
          d={`M${cx - r * 1.12} ${cy + r}L${cx} ${cy - r}L${cx + r * 1.12} ${cy + r}Z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="2"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.97} ${cy + r * 0.92}L${cx} ${cy - r * 0.82}L${cx + r * 0.97} ${cy + r * 0.92}Z`}
          fill={fill(material)}
          stroke="var(--color-ink)"
          strokeLinejoin="round"
        />
        <path
          d={`M${cx - r * 0.66} ${cy + r * 0.18}q${r * 0.66} 26 ${r * 1.32} 0`}
          fill="none"
          stroke="var(--color-ink)"
        />
      </>
    );
  if (form === "packet")
    return (
      <>
        <rect
          x={cx - r}
          y={cy - 46}
          width={2 * r}
          height="92"
          rx="10"
          fill="#d9d9d4"
          stroke="var(--color-ink)"
          strokeWidth="2"
        />
        <rect
          x={cx - r + 7}
          y={cy - 39}
          width={2 * r - 14}
          height="78"
          rx="8"
          fill={fill("leaf")}
          stroke="var(--color-ink)"
        />
        <rect
          x={cx - r + 16}
          y={cy - 30}
          width={2 * r - 32}
          height="60"
          rx="6"
          fill={fill("batter")}
          stroke="var(--color-ink)"
        />
      </>
    );
  return <circle cx={cx} cy={cy} r={r} fill={fill(material)} stroke="var(--color-ink)" strokeWidth="2" />;
}

/** The packet from above on its rectangle of foil, leaf between. */
function Packet({ facts }: { facts: Facts }) {
  const value = (key: FactKey) => Number(facts[key]?.value ?? 0);
  const side = value("shape.side_mm");
  const foil = { long: value("shape.foil_mm"), across: value("shape.foil_across_mm") };
  const scale = 210 / Math.max(foil.long, 1);
  const w = foil.long * scale;
  const h = foil.across * scale;
  const s = side * scale;
  const leaf = s * 1.5;
  return (
    <g transform="translate(440 110)">
      <Label x={0} y={-14} size={15} tone="ink2">
        leaf inside, foil outside
      </Label>
      <rect width={w} height={h} fill="#d9d9d4" stroke="var(--color-ink)" strokeWidth="1.4" />
      <rect
        x={(w - leaf) / 2}
        y={(h - leaf) / 2}
        width={leaf}
        height={leaf}
        fill={fill("leaf")}
        stroke="var(--color-ink)"
      />
      <rect x={(w - s) / 2} y={(h - s) / 2} width={s} height={s} fill={fill("batter")} stroke="var(--color-ink)" />
      <Label x={w / 2} y={h / 2 + 6} size={16} bold anchor="middle" halo>
        {side.toFixed(0)} mm
      </Label>
      <Dimension x1={0} y1={h + 16} x2={w} y2={h + 16} />
      <Label x={w / 2} y={h + 36} bold size={17} anchor="middle">
        {foil.long.toFixed(0)} mm
      </Label>
      <Dimension x1={w + 16} y1={0} x2={w + 16} y2={h} />
      <Label x={w + 24} y={h / 2 + 6} bold size={17}>
        {foil.across.toFixed(0)}
      </Label>
      <Label x={0} y={h + 62} size={15} tone="ink2">
        {value("shape.thick_mm").toFixed(0)} mm thick, room to swell
      </Label>
    </g>
  );
}

/** One piece in cross-section, true to scale, its skin and its size dragged by their edges; what it is made from beside it. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect } from "react";
import type { BallDrawing, Facts } from "../../api/client";
import { Drawing, useRoom } from "../../ui/Drawing";
import { Dimension, Extension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";
import { useAim } from "../../ui/useAim";
import { Handle } from "./Handle";
import { MadeFrom } from "./MadeFrom";
import { Outline } from "./Outline";
import { type Across, SKIN_MM, weighed } from "./piece";
import { CX, CY } from "./pieceFrame";

const WIDE = 720;
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
  /** What a parcel or a packet is folded from, drawn beside it. */
  folded?: ReactNode;
}

export function PieceSection({ drawing, facts, onDrag, onDrop, folded }: Props) {
  const { lengthWords, weightWords } = useFormatters();
  const [box, room] = useRoom<HTMLDivElement>(WIDE);
  const narrow = room < 520; // then what it is made from stands under the piece
  const settled: Across = { outer: drawing.outer_mm, core: drawing.core_mm };
  const scale = SCALES.find((scale) => (scale * drawing.outer_mm) / 2 <= ROOM) ?? 1;
  const filled = drawing.core_mm > 0;
  const { cannot } = drawing;
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

  const grams =
    aim || cannot
      ? weighed(drawing, now)
      : { dough_g: Number(facts["shape.base_g"]?.value ?? 0), filling_g: Number(facts["shape.filling_g"]?.value ?? 0) };
  const skin = (now.outer - now.core) / 2;
  const R = (now.outer / 2) * scale;
  const cone = drawing.form === "parcel";
  // A cone holds a smaller circle than the ball of its weight: what lies in it is drawn to that.
  const r = (now.core / 2) * scale * (cone ? 0.62 : 1);
  const shell = drawing.outside ? t`coat` : t`skin`;
  const names = drawing.outside
    ? { shell: drawing.filling_name, core: drawing.dough_name }
    : { shell: drawing.dough_name, core: drawing.filling_name };
  const [shellG, coreG] = drawing.outside ? [grams.filling_g, grams.dough_g] : [grams.dough_g, grams.filling_g];
  const thin = filled && skin < drawing.least_skin_mm;
  const near = filled && !thin && skin < drawing.near_skin_mm;
  const tone = thin || cannot === "layer" ? "bean" : near ? "look" : "ink";
  // A cone is widest below: what lies in it lies there.
  const coreY = cone ? CY + R * 0.44 : CY;
  const lean = -Math.PI / 4;
  const on = (radius: number) => [CX + radius * Math.cos(lean), CY + radius * Math.sin(lean)] as const;
  const [ax, ay] = on(r);
  const [bx, by] = on(R);
  const says = t`A ${drawing.piece_name} ${lengthWords(now.outer)} across${filled ? `, ${shell} ${lengthWords(skin, 1)}` : ""}`;
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
    <div ref={box}>
      <Drawing
        {...both}
        viewBox={narrow ? "24 0 480 770" : `0 0 ${WIDE} 440`}
        className="block w-full touch-pan-y select-none"
        role="group"
        aria-label={says}
        data-scale={scale}
      >
        <Outline form={drawing.form} cx={CX} cy={CY} r={R} material={drawing.outside ? "filling" : "starch"} />
        {(cannot === "dough" || cannot === "size") && <Fails r={R} />}
        {filled && (
          <>
            <circle
              data-of="shape.core_mm"
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
            <Label x={CX} y={coreY - 5} size={24} bold anchor="middle" plate>
              {weightWords(coreG - (drawing.outside ? 0 : drawing.heart_g), 1)}
            </Label>
            <Label x={CX} y={coreY + 23} size={15} anchor="middle" plate>
              {names.core}
            </Label>
            {drawing.heart_mm > 0 && (
              <Label x={CX} y={coreY + 44} size={13.5} anchor="middle" plate>
                <Trans>
                  round {weightWords(drawing.heart_g, 0)} {drawing.heart_name}
                </Trans>
              </Label>
            )}
          </>
        )}
        {(cannot === "filling" || cannot === "layer") && <Fails r={r} at={coreY} />}
        {cannot && (
          <Label x={CX} y={24} anchor="middle" size={17} bold tone="bean">
            {CANNOT[cannot]}
          </Label>
        )}
        {filled && !cannot && drawing.form === "ball" && (
          <>
            <path d={`M${bx + 34} ${by - 34}L${bx} ${by}`} stroke="var(--color-ink)" />
            <g data-of="shape.skin_mm">
              <Dimension x1={ax} y1={ay} x2={bx} y2={by} />
            </g>
            <path d={`M${bx + 34} ${by - 34}h12`} stroke="var(--color-ink)" />
            <Label x={bx + 54} y={by - 39} bold size={19} tone={tone} of="shape.skin_mm">
              {shell} {lengthWords(skin, 1)}
            </Label>
            <Label x={bx + 54} y={by - 16} size={14.5} tone={thin || near ? tone : "ink2"} of="shape.least_skin_mm">
              {drawing.least_skin_mm > 0
                ? `${thin ? t`tears: ` : ""}${near ? t`nearly tears: ` : ""}${thin || near ? t`at least` : t`tears under`} ${lengthWords(drawing.least_skin_mm, 1)}`
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
          plate
        >
          {weightWords(shellG, 1)} {names.shell}
        </Label>
        {round && (
          <>
            <Extension x1={CX - R} y1={CY} x2={CX - R} y2={CY + R + 48} />
            <Extension x1={CX + R} y1={CY} x2={CX + R} y2={CY + R + 48} />
            <g data-of="shape.diameter_mm">
              <Dimension x1={CX - R} y1={CY + R + 40} x2={CX + R} y2={CY + R + 40} />
              <Label x={CX} y={CY + R + 32} bold size={19} anchor="middle" halo>
                <Trans>{lengthWords(now.outer)} across</Trans>
              </Label>
            </g>
          </>
        )}
        {moves && (
          <Handle
            label={t`Across, the outside of the piece. Arrow keys move it`}
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
            label={t`What lies within, against the ${shell}. Arrow keys move it`}
            at={CX - r}
            r={r}
            value={now.core}
            range={[least, now.outer]}
            onPointerDown={core.grab}
            onKeyDown={nudge("core", core.put)}
          />
        )}
        {/* What it is made from is worked out when the hand lets go: until then it is the piece of before. */}
        <g opacity={aim ? 0.3 : 1} transform={narrow ? "translate(-400 300)" : undefined}>
          <MadeFrom drawing={drawing} facts={facts} shell={names.shell} />
          {folded}
        </g>
        {round && <Scale scale={scale} />}
      </Drawing>
    </div>
  );
}

/** A centimetre at the drawing's scale. */
function Scale({ scale }: { scale: number }) {
  return (
    <g transform="translate(24 424)">
      <path d={`M0 -5v10M0 0h${10 * scale}M${10 * scale} -5v10`} stroke="var(--color-ink2)" />
      <Label x={10 * scale + 8} y={5} size={13} tone="ink2">
        <Trans>1 cm</Trans>
      </Label>
    </g>
  );
}

const CANNOT: Record<Exclude<BallDrawing["cannot"], "" | undefined>, string> = {
  dough: t`too little dough for a piece`,
  filling: t`more within than there is`,
  layer: t`no layer left round it`,
  size: t`no such piece: its dough alone`,
};

/** Where a piece fails: what is asked for there cannot be. */
function Fails({ r, at = CY }: { r: number; at?: number }) {
  return (
    <circle
      cx={CX}
      cy={at}
      r={r}
      fill="none"
      stroke="var(--color-bean)"
      strokeWidth="4"
      strokeDasharray="9 6"
      data-fails
    />
  );
}

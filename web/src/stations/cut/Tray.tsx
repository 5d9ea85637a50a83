/** A tray from above: every piece as it is cut, the knife's lines, their distances from the edge, each piece's weight. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { FactKey, TrayDrawing } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

type Cell = TrayDrawing["cells"][number];

const TINTS: Record<Cell["kind"], string> = {
  corner: "var(--color-crust)",
  edge: "var(--color-rim)",
  inner: "var(--color-starch)",
  offcut: fill("other"),
};
/** The figure that counts each kind of piece. */
const FACTS: Record<Cell["kind"], FactKey> = {
  corner: "cut.corners",
  edge: "cut.edges",
  inner: "cut.pieces",
  offcut: "cut.offcut_pct",
};
const MOST_WEIGHTS = 60; // more figures than that are too small to read
const X0 = 60;
const Y0 = 34;

export function Tray({ tray, smallMm }: { tray: TrayDrawing; smallMm: number }) {
  const { sizeFigure, sizeUnit, sizeWords, weightFigure, weightWords } = useFormatters();
  const scale = Math.min(440 / tray.length_mm, 430 / tray.width_mm);
  const w = tray.length_mm * scale;
  const h = tray.width_mm * scale;
  const pieces = tray.cells.filter((cell) => cell.kind !== "offcut");
  const points = (cell: Cell) => cell.outline.map(([x = 0, y = 0]) => `${X0 + x * scale},${Y0 + y * scale}`).join(" ");
  const ruler = (along: string) => tray.rulers.find((ruler) => ruler.along === along)?.ticks ?? [];
  // Room for every figure along an edge, or only for each second one.
  const every = (lines: number[], length: number) => (lines.length * 34 > length ? 2 : 1);
  const across = ruler(t`from left to right`);
  const down = ruler(t`from top to bottom`);
  const weights = pieces.map((cell) => cell.grams);
  const [least, most] = [Math.min(...weights), Math.max(...weights)];
  const told = most - least < 0.6 ? weightWords(most) : t`${weightFigure(least)} to ${weightWords(most)}`;
  return (
    <Drawing
      viewBox={`0 0 640 ${Y0 + h + 56}`}
      className="mx-auto block w-full"
      role="img"
      aria-label={
        pieces.length ? t`${pieces.length} pieces of ${told}` : t`The tray, whole: it cannot be cut like this`
      }
    >
      <Edge tray={tray} scale={scale} share={1} filled />
      {tray.cells.map((cell) => (
        <polygon
          key={points(cell)}
          data-kind={cell.kind}
          data-of={FACTS[cell.kind]}
          points={points(cell)}
          fill={TINTS[cell.kind]}
          stroke="var(--color-ink)"
          strokeWidth="0.4"
        />
      ))}
      {pieces.length <= MOST_WEIGHTS &&
        pieces
          .filter((cell) => !cell.small)
          .map((cell) => {
            const [x, y] = middle(cell);
            return (
              <Label key={`${x} ${y}`} x={X0 + x * scale} y={Y0 + y * scale + 4} size={13} anchor="middle">
                {weightFigure(cell.grams)}
              </Label>
            );
          })}
      {tray.lines.map(([x1 = 0, y1 = 0, x2 = 0, y2 = 0]) => (
        <line
          key={`${x1} ${y1} ${x2} ${y2}`}
          x1={X0 + x1 * scale}
          y1={Y0 + y1 * scale}
          x2={X0 + x2 * scale}
          y2={Y0 + y2 * scale}
          stroke="var(--color-ink)"
          strokeWidth="1.3"
        />
      ))}
      {tray.rings.map((share) => (
        <Edge key={share} tray={tray} scale={scale} share={share} />
      ))}
      {tray.cells
        .filter((cell) => cell.small)
        .map((cell) => (
          <CutSmall key={points(cell)} cell={cell} scale={scale} smallMm={smallMm} />
        ))}
      {across.map((at, i) =>
        i % every(across, w) === 0 ? (
          <Label key={at} x={X0 + at * scale} y={Y0 - 10} anchor="middle" size={13.5}>
            {sizeFigure(at, 1)}
          </Label>
        ) : null,
      )}
      {down.map((at, i) =>
        i % every(down, h) === 0 ? (
          <Label key={at} x={X0 - 10} y={Y0 + at * scale + 5} anchor="end" size={13.5}>
            {sizeFigure(at, 1)}
          </Label>
        ) : null,
      )}
      <Label x={634} y={Y0 + h + 46} size={13.5} tone="ink2" anchor="end">
        <Trans>{sizeUnit()} from the edge</Trans>
      </Label>
      <Dimension x1={X0} y1={Y0 + h + 22} x2={X0 + w} y2={Y0 + h + 22} />
      <Label x={X0 + w / 2} y={Y0 + h + 46} bold anchor="middle" size={19}>
        {sizeWords(tray.length_mm, 1)}
      </Label>
      {pieces.length > 0 ? (
        <>
          <Label x={X0 + w + 26} y={Y0 + 24} bold size={34} of="cut.pieces">
            {pieces.length}
          </Label>
          <Label x={X0 + w + 26} y={Y0 + 52} tone="ink2">
            <Trans>pieces of</Trans>
          </Label>
          <Label x={X0 + w + 26} y={Y0 + 86} bold size={24} of="cut.piece_g">
            {told}
          </Label>
        </>
      ) : (
        <Label x={X0 + w / 2} y={Y0 + h / 2 + 6} anchor="middle" size={19} bold tone="bean" plate>
          <Trans>not cut like this</Trans>
        </Label>
      )}
      {tray.count > 1 && (
        <Label x={X0 + w + 26} y={Y0 + 114} tone="ink2">
          <Trans>in each of {tray.count}</Trans>
        </Label>
      )}
    </Drawing>
  );
}

/** The wall of the tray, or a ring at a share of the way from the middle to it. */
function Edge(props: { tray: TrayDrawing; scale: number; share: number; filled?: boolean }) {
  const { tray, scale, share, filled } = props;
  const w = tray.length_mm * scale;
  const h = tray.width_mm * scale;
  const look = {
    fill: filled ? fill("cooked") : "none",
    stroke: "var(--color-ink)",
    strokeWidth: filled ? 2.6 : 1.3,
  };
  return tray.shape === "round" ? (
    <circle cx={X0 + w / 2} cy={Y0 + h / 2} r={(w / 2) * share} {...look} />
  ) : (
    <rect
      x={X0 + (w * (1 - share)) / 2}
      y={Y0 + (h * (1 - share)) / 2}
      width={w * share}
      height={h * share}
      {...look}
    />
  );
}

/** A piece marked to be cut once more: dashes as many as bring its sides under the limit. */
function CutSmall({ cell, scale, smallMm }: { cell: Cell; scale: number; smallMm: number }) {
  const xs = cell.outline.map(([x = 0]) => x);
  const ys = cell.outline.map(([, y = 0]) => y);
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const inner = (from: number, to: number) => {
    const n = Math.max(2, Math.ceil((to - from) / smallMm));
    return Array.from({ length: n - 1 }, (_, i) => from + ((to - from) * (i + 1)) / n);
  };
  const path = [
    ...inner(left, right).map((x) => `M${X0 + x * scale} ${Y0 + top * scale}V${Y0 + bottom * scale}`),
    ...inner(top, bottom).map((y) => `M${X0 + left * scale} ${Y0 + y * scale}H${X0 + right * scale}`),
  ].join("");
  return <path d={path} fill="none" stroke="var(--color-bean)" strokeWidth="1.6" strokeDasharray="3 3" data-small />;
}

/** Where a piece's figure goes: the middle of its area. */
function middle(cell: Cell): [number, number] {
  let [area, mx, my] = [0, 0, 0];
  cell.outline.forEach(([x1 = 0, y1 = 0], i) => {
    const [x2 = 0, y2 = 0] = cell.outline[(i + 1) % cell.outline.length] ?? [];
    const turn = x1 * y2 - x2 * y1;
    area += turn;
    mx += (x1 + x2) * turn;
    my += (y1 + y2) * turn;
  });
  return area ? [mx / (3 * area), my / (3 * area)] : [0, 0];
}

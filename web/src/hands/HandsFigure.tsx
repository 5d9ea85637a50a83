/** The moves of the hands for this piece, true to size, one after another; mirrored for the left hand. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import { useState } from "react";
import { Drawing } from "../ui/Drawing";
import { legible } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";

/** As the kitchen draws it (core: stations/shape/hand_drawings.py), in mm. */
export interface FrameDrawn {
  says: string;
  box: number[];
  strokes: { kind: string; points: number[][]; closed: boolean }[];
  pushes: { start: number[]; end: number[] }[];
  spans: { start: number[]; end: number[]; mm: number }[];
  estimate: boolean;
}

const FILL: Record<string, string> = {
  leaf: "color-mix(in srgb, var(--color-green) 42%, var(--color-sheet))",
  under: "color-mix(in srgb, var(--color-green) 22%, var(--color-sheet))",
  foil: "color-mix(in srgb, var(--color-ink2) 18%, var(--color-sheet))",
  dough: "color-mix(in srgb, var(--color-hair) 55%, var(--color-sheet))",
  filling: "color-mix(in srgb, var(--color-bean) 62%, var(--color-sheet))",
  grain: "color-mix(in srgb, var(--color-amber) 30%, var(--color-sheet))",
  cake: "color-mix(in srgb, var(--color-amber) 45%, var(--color-sheet))",
  plate: "var(--color-sheet)",
};
const LINE: Record<string, { stroke: string; width: number; dash?: string }> = {
  bend: { stroke: "var(--color-bean)", width: 2, dash: "7 5" },
  cut: { stroke: "var(--color-ink)", width: 2.5 },
  string: { stroke: "var(--color-bean)", width: 3 },
  paper: { stroke: "var(--color-ink2)", width: 2, dash: "2 3" },
  tin: { stroke: "var(--color-ink)", width: 3.5 },
};
const LEFT = "kemble-left-hand";

export function useLeftHand(): [boolean, (left: boolean) => void] {
  const [left, setLeft] = useState(() => localStorage.getItem(LEFT) === "yes");
  const choose = (next: boolean) => {
    localStorage.setItem(LEFT, next ? "yes" : "no");
    setLeft(next);
  };
  return [left, choose];
}

export function HandsFigure({ frames }: { frames: FrameDrawn[] }) {
  const [left, setLeft] = useLeftHand();
  const [at, setAt] = useState(0);
  const frame = frames[Math.min(at, frames.length - 1)];
  if (!frame) return null;
  return (
    <section aria-label={t`How the hands go`} className="mt-5">
      <figure className="m-0">
        <OneMove frame={frame} left={left} />
        <figcaption className="mt-1 text-lg">
          <b>
            <Trans>
              {Math.min(at, frames.length - 1) + 1} of {frames.length}.
            </Trans>
          </b>{" "}
          {frame.says}
          {frame.estimate && (
            <span className="text-ink2">
              <Trans> How far it stretches is an estimate.</Trans>
            </span>
          )}
        </figcaption>
      </figure>
      <div className="mt-2 flex flex-wrap gap-3">
        {frames.length > 1 && (
          <>
            <button type="button" className="pick min-h-16 px-6" disabled={at === 0} onClick={() => setAt(at - 1)}>
              <Trans>Move before</Trans>
            </button>
            <button
              type="button"
              className="pick min-h-16 px-6"
              disabled={at >= frames.length - 1}
              onClick={() => setAt(at + 1)}
            >
              <Trans>Next move</Trans>
            </button>
          </>
        )}
        <button type="button" className="pick min-h-16 px-6" aria-pressed={left} onClick={() => setLeft(!left)}>
          {left ? t`For the left hand` : t`For the right hand`}
        </button>
      </div>
    </section>
  );
}

/** One move. Words and measures are never mirrored, only what is drawn. */
export function OneMove({ frame, left, wide = 560 }: { frame: FrameDrawn; left: boolean; wide?: number }) {
  const { lengthWords } = useFormatters();
  const [x = 0, y = 0, w = 1, h = 1] = frame.box;
  const edge = 44; // px round a drawing, for its measures
  const beside = 84; // ... and to its sides, for those that stand upright
  const scale = Math.min((wide - 2 * beside) / w, 250 / h);
  const W = w * scale + 2 * beside;
  const H = h * scale + 2 * edge;
  const flip = (px: number) => (left ? 2 * x + w - px : px);
  const to = ([px = 0, py = 0]: readonly number[]): [number, number] => [
    (flip(px) - x) * scale + beside,
    (py - y) * scale + edge / 2 + 8,
  ];
  const path = (points: readonly (readonly number[])[], closed: boolean) =>
    `M${points
      .map((point) =>
        to(point)
          .map((value) => value.toFixed(1))
          .join(" "),
      )
      .join("L")}${closed ? "Z" : ""}`;
  return (
    <Drawing
      viewBox={`0 0 ${W.toFixed(0)} ${H.toFixed(0)}`}
      className="block w-full"
      style={{ maxWidth: W }}
      role="img"
      aria-label={frame.says}
    >
      {frame.strokes.map((eachStroke, i) => {
        const line = LINE[eachStroke.kind];
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: strokes of a frame do not move
            key={i}
            d={path(eachStroke.points, eachStroke.closed)}
            fill={eachStroke.closed ? (FILL[eachStroke.kind] ?? "none") : "none"}
            stroke={line?.stroke ?? "var(--color-ink)"}
            strokeWidth={line?.width ?? 1.6}
            strokeDasharray={line?.dash}
            strokeLinejoin="round"
            strokeLinecap="round"
          />
        );
      })}
      {frame.pushes.map((push) => (
        <Push key={push.start.join()} from={to(push.start)} to={to(push.end)} />
      ))}
      {frame.spans.map((span) => {
        const [ax, ay] = to(span.start);
        const [bx, by] = to(span.end);
        const upright = Math.abs(by - ay) > Math.abs(bx - ax);
        const short = !upright && Math.abs(bx - ax) < 44;
        const onTop = !upright && ay < edge;
        const at = upright
          ? { x: Math.max(ax, bx) + 8, y: (ay + by) / 2 + 5 }
          : short
            ? { x: Math.max(ax, bx) + 10, y: ay + 6 }
            : { x: (ax + bx) / 2, y: onTop ? ay - 7 : ay + 19 };
        return (
          <g key={`${span.start.join()} ${span.mm}`}>
            <line x1={ax} y1={ay} x2={bx} y2={by} stroke="var(--color-ink2)" strokeWidth="1.2" />
            <text
              {...at}
              textAnchor={upright || short ? "start" : "middle"}
              style={{ fontSize: legible(17) }}
              fontWeight="700"
            >
              {lengthWords(span.mm)}
            </text>
          </g>
        );
      })}
    </Drawing>
  );
}

function Push({ from, to }: { from: [number, number]; to: [number, number] }) {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / long, dy / long];
  const wing = (side: number) =>
    `${(to[0] - 12 * ux + side * 7 * uy).toFixed(1)} ${(to[1] - 12 * uy - side * 7 * ux).toFixed(1)}`;
  return (
    <path
      d={`M${from.join(" ")}L${to.join(" ")}M${wing(1)}L${to.join(" ")}L${wing(-1)}`}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth="3"
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}

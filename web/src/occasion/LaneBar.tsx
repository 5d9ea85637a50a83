/** A step in its lane, told apart by its shape: hands that hold, hands that mind, none. */

import { t } from "@lingui/core/macro";
import type { KeyboardEvent, PointerEvent } from "react";
import { legible } from "../ui/dimension";
import { useFormatters } from "../ui/formatters";
import { fill } from "../ui/materials";
import { said } from "../words/said";
import { BAR, type Laid } from "./lanes";

interface BarProps {
  laid: Laid;
  hands: boolean;
  by: number;
  y: number;
  isPicked: boolean;
  isPinned: boolean;
  zone: string;
  live: boolean;
  onPointerDown: (event: PointerEvent<SVGGElement>) => void;
  onPointerMove: (event: PointerEvent) => void;
  onPointerUp: () => void;
  onPointerCancel: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
}

/** Held is a solid block, minded an open one with a bar before it, what goes by itself a rail: told apart without colour. */
export function Bar({ laid, hands, by, y, isPicked, isPinned, zone, live, ...press }: BarProps) {
  const { timeOfDay } = useFormatters();
  const { one, name, where } = laid;
  const left = laid.left + by;
  const wide = Math.max(4, laid.right - laid.left);
  const how = hands ? one.step.hands : "free";
  const words = t`${name}, ${timeOfDay(one.starts, zone)} to ${timeOfDay(one.ends, zone)}, ${said(one.step.hands)}${one.who ? `, ${one.who}` : ""}`;
  const asButton = live
    ? ({
        role: "button",
        tabIndex: 0,
        "aria-label": words,
        "aria-pressed": isPicked,
        className: "cursor-grab touch-pan-y outline-none focus-visible:[&>rect]:stroke-[3]",
        ...press,
      } as const)
    : {};
  const at = {
    in: { x: left + (how === "minded" ? 10 : 6), anchor: "start" },
    right: { x: left + wide + 5, anchor: "start" },
    left: { x: left - 6, anchor: "end" },
    over: { x: left, anchor: "start" },
  }[where] as { x: number; anchor: "start" | "end" };
  return (
    <g data-step={`${one.dish}:${one.step.id}`} {...asButton}>
      <title>{words}</title>
      <rect
        x={left}
        y={y + (how === "free" ? 18 : 0)}
        width={wide}
        height={how === "free" ? 8 : BAR}
        fill={how === "held" ? "var(--color-bean)" : how === "minded" ? "var(--color-sheet)" : fill("water")}
        stroke="var(--color-ink)"
        strokeWidth={isPicked ? 3 : 1}
      />
      {how === "minded" && <rect x={left} y={y} width="5" height={BAR} fill="var(--color-bean)" />}
      {isPinned && <path d={`M${left - 4} ${y - 4}h8l-4 9z`} fill="var(--color-amber)" stroke="var(--color-ink)" />}
      <text
        x={at.x}
        y={y + (where === "over" ? 14 : 18)}
        textAnchor={at.anchor}
        className={where === "in" ? undefined : "halo"}
        style={{
          fill: where === "in" && how === "held" ? "var(--color-sheet)" : "var(--color-ink)",
          fontSize: legible(14),
        }}
      >
        {name}
      </text>
    </g>
  );
}

/** Grain in a shut pot or a rice cooker, and the stretches of its time: to the boil, simmering, standing shut. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { HeatOf } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

const TINTS = ["starch", "steam", "cooked"] as const;

export function GrainPot({ drawing }: { drawing: HeatOf<"grain"> }) {
  const { lengthWords } = useFormatters();
  const cooker = drawing.how === "cooker";
  const scale = Math.min(230 / drawing.across_mm, 110 / Math.max(40, drawing.bed_mm * 1.3));
  const wide = drawing.across_mm * scale;
  const deep = drawing.bed_mm * scale;
  const left = 235 - wide / 2;
  const floor = 178;
  const rim = floor - Math.max(deep * 1.35, 70);
  const says = drawing.phases.map((phase) => t`${phase.name} ${phase.minutes.toFixed(0)} minutes`).join(", ");
  return (
    <Drawing viewBox="0 0 480 292" className="block w-full max-w-[540px]" role="img" aria-label={t`Lid shut: ${says}`}>
      {cooker && (
        <rect
          x={left - 22}
          y={rim - 6}
          width={wide + 44}
          height={floor - rim + 26}
          rx="12"
          fill="var(--color-sheet)"
          stroke="var(--color-ink)"
          strokeWidth="2.2"
        />
      )}
      <rect x={left} y={floor - deep} width={wide} height={deep} fill={fill("starch")} />
      <path
        d={`M${left} ${rim}V${floor - 8}q0 8 8 8H${left + wide - 8}q8 0 8 -8V${rim}`}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.6"
      />
      <path
        d={`M${left - 8} ${rim}H${left + wide + 8}q-10 -18 -${wide / 2 + 8} -18t-${wide / 2 + 8} 18z`}
        fill="var(--color-sheet)"
        stroke="var(--color-ink)"
        strokeWidth="2.2"
      />
      <circle cx="235" cy={rim - 23} r="6" fill="none" stroke="var(--color-ink)" strokeWidth="2" />
      <Label x={235} y={rim + 20} anchor="middle" size={14.5} tone="ink2">
        <Trans>lid shut until it has stood</Trans>
      </Label>
      <Dimension x1={left - 14} y1={floor - deep} x2={left - 14} y2={floor} />
      <Label x={left - 20} y={floor - deep / 2 + 5} anchor="end" bold size={15} halo>
        {lengthWords(drawing.bed_mm)}
      </Label>
      <Phases drawing={drawing} y={214} />
    </Drawing>
  );
}

/** The stretches of the heat, each as long as it takes. */
function Phases({ drawing, y }: { drawing: HeatOf<"grain">; y: number }) {
  const all = drawing.phases.reduce((sum, phase) => sum + phase.minutes, 0);
  let x = 20;
  return (
    <>
      {drawing.phases.map((phase, i) => {
        const wide = (440 * phase.minutes) / Math.max(all, 1e-6);
        const from = x;
        x += wide;
        return (
          <g key={phase.name}>
            <rect x={from} y={y} width={wide} height="28" fill={fill(TINTS[i] ?? "steam")} stroke="var(--color-ink)" />
            <Label x={from + 4} y={y - 6} size={13.5} tone="ink2">
              {wide > 70 ? phase.name : ""}
            </Label>
            {wide <= 70 && (
              <Label x={from} y={y + 64} size={13.5} tone="ink2">
                {phase.name}
              </Label>
            )}
            <Label x={from + wide / 2} y={y + 46} anchor="middle" bold size={16}>
              {phase.minutes.toFixed(0)}
            </Label>
          </g>
        );
      })}
      <Label x={460} y={y + 64} anchor="end" size={13.5} tone="ink2">
        <Trans>minutes</Trans>
      </Label>
    </>
  );
}

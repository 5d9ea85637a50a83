/** A mass under the spoon, or in a covered bowl: the power that goes in, and what it is spent on. */

import { t } from "@lingui/core/macro";
import { Trans } from "@lingui/react/macro";
import type { HeatOf } from "../../api/client";
import { Drawing } from "../../ui/Drawing";
import { Dimension, Label } from "../../ui/dimension";
import { useFormatters } from "../../ui/formatters";
import { fill } from "../../ui/materials";

export function StirredPan({ drawing }: { drawing: HeatOf<"stirred"> }) {
  const pan = drawing.method !== "microwave";
  const all = drawing.warm_kj + drawing.dry_kj;
  const warm = (380 * drawing.warm_kj) / Math.max(all, 1e-6);
  const says = t`${drawing.power_w.toFixed(0)} W: ${drawing.warm_kj.toFixed(0)} kJ warm it, ${drawing.dry_kj.toFixed(0)} kJ dry it`;
  return (
    <Drawing viewBox="0 0 480 300" className="block w-full max-w-[520px]" role="img" aria-label={says}>
      {pan ? <Pan across={drawing.pan_mm} lost={drawing.lost_g} /> : <Bowl bursts={drawing.bursts} />}
      <Label x={240} y={196} anchor="middle" size={17} bold>
        {drawing.power_w.toFixed(0)} W
      </Label>
      <Label x={50} y={226} size={14.5} tone="ink2">
        <Trans>where the heat goes, {all.toFixed(0)} kJ in all</Trans>
      </Label>
      <rect x="50" y="236" width={warm} height="30" fill={fill("starch")} stroke="var(--color-ink)" />
      <rect x={50 + warm} y="236" width={380 - warm} height="30" fill={fill("steam")} stroke="var(--color-ink)" />
      <Label x={54} y={286} size={14.5}>
        <Trans>warms it {drawing.warm_kj.toFixed(0)}</Trans>
      </Label>
      <Label x={430} y={286} size={14.5} anchor="end">
        <Trans>dries it {drawing.dry_kj.toFixed(0)}</Trans>
      </Label>
    </Drawing>
  );
}

function Pan({ across, lost }: { across: number; lost: number }) {
  const { sizeWords, weightWords } = useFormatters();
  return (
    <>
      <path d="M110 84V148q0 10 10 10H360q10 0 10 -10V84" fill="none" stroke="var(--color-ink)" strokeWidth="3" />
      <path d="M370 96h80" stroke="var(--color-ink)" strokeWidth="7" strokeLinecap="round" />
      <path
        d="M114 122q60 -18 126 -6t126 0V150q0 5 -6 5H120q-6 0 -6 -5z"
        fill={fill("cooked")}
        stroke="var(--color-ink)"
      />
      <path d="M300 138L352 30" stroke="var(--color-ink)" strokeWidth="6" strokeLinecap="round" />
      {[160, 210, 260].map((x) => (
        <path key={x} d={`M${x} 96q6 -9 0 -18t0 -18`} fill="none" stroke="var(--color-ink2)" strokeWidth="1.4" />
      ))}
      <Label x={210} y={48} anchor="middle" size={14.5} tone="ink2">
        <Trans>{weightWords(lost, 0)} of water off</Trans>
      </Label>
      <Dimension x1={112} y1={172} x2={368} y2={172} />
      <Label x={376} y={178} size={15} bold>
        {sizeWords(across, 0)}
      </Label>
    </>
  );
}

function Bowl({ bursts }: { bursts: number }) {
  return (
    <>
      <rect x="70" y="24" width="340" height="146" rx="8" fill="none" stroke="var(--color-ink)" strokeWidth="2.6" />
      <path d="M150 74q0 74 90 74t90 -74z" fill={fill("cooked")} stroke="var(--color-ink)" strokeWidth="2" />
      <path d="M142 72h196" stroke="var(--color-ink)" strokeWidth="4" strokeLinecap="round" />
      <ellipse
        cx="240"
        cy="104"
        rx="34"
        ry="15"
        fill={fill("starch")}
        stroke="var(--color-ink2)"
        strokeDasharray="3 3"
      />
      <Label x={240} y={109} anchor="middle" size={13.5} plate>
        <Trans>white core</Trans>
      </Label>
      <Label x={240} y={54} anchor="middle" size={15} bold>
        <Trans>{bursts} bursts of a minute, stirred between</Trans>
      </Label>
    </>
  );
}

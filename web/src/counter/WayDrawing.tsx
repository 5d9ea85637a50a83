/** A way in cross-section: what it makes and the heat that makes it. */

import { fill } from "../ui/materials";

const DRAWINGS: Record<string, () => React.ReactNode> = {
  "set-cake": () => (
    <>
      <path d="M18 52Q110 22 202 52" fill="var(--color-sheet)" stroke="var(--color-ink)" strokeWidth="1.8" />
      <rect x="20" y="52" width="180" height="82" fill={fill("steam")} />
      <rect x="20" y="112" width="180" height="22" fill={fill("water")} />
      <path d="M16 52h4V128q0 6 6 6H194q6 0 6 -6V52h4" fill="none" stroke="var(--color-ink)" strokeWidth="2.2" />
      <line x1="26" x2="194" y1="102" y2="102" stroke="var(--color-ink)" strokeWidth="2" />
      <rect x="58" y="74" width="104" height="26" fill={fill("batter")} stroke="var(--color-ink)" />
      <path d="M56 60V101H164V60" fill="none" stroke="var(--color-ink)" strokeWidth="2.4" />
      {[84, 110, 136].map((x) => (
        <line key={x} x1={x} x2={x} y1="70" y2="100" stroke="var(--color-ink)" strokeDasharray="3 3" />
      ))}
    </>
  ),
  "boiled-balls": () => (
    <>
      <rect x="20" y="70" width="180" height="64" fill={fill("water")} />
      <path d="M14 38h6V128q0 6 6 6H194q6 0 6 -6V38h6" fill="none" stroke="var(--color-ink)" strokeWidth="2.2" />
      {[56, 110, 164].map((x) => (
        <g key={x}>
          <circle cx={x} cy="80" r="23" fill={fill("starch")} stroke="var(--color-ink)" strokeWidth="1.6" />
          <circle cx={x} cy="80" r="14" fill={fill("filling")} stroke="var(--color-ink)" />
        </g>
      ))}
      <path d="M70 48q5-7 0-14M112 46q5-7 0-14M154 48q5-7 0-14" fill="none" stroke="var(--color-ink2)" />
    </>
  ),
};

export function WayDrawing({ way }: { way: string }) {
  const Drawing = DRAWINGS[way];
  return (
    <svg viewBox="0 0 220 142" className="block w-full" aria-hidden="true">
      {Drawing?.()}
    </svg>
  );
}

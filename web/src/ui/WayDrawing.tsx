/** A way in cross-section: what it makes and the heat that makes it. */

import type { ReactNode } from "react";
import { fill } from "./materials";

const INK = "var(--color-ink)";

/** A pot from the side: its wall, and what stands in it. */
function Vessel({ top = 52, bottom = 128, children }: { top?: number; bottom?: number; children?: ReactNode }) {
  return (
    <>
      {children}
      <path d={`M16 ${top}h4V${bottom}q0 6 6 6H194q6 0 6 -6V${top}h4`} fill="none" stroke={INK} strokeWidth="2.2" />
    </>
  );
}

const Wisps = ({ y = 46, at = [72, 112, 152] }: { y?: number; at?: number[] }) => (
  <path d={at.map((x) => `M${x} ${y}q5-7 0-14`).join("")} fill="none" stroke="var(--color-ink2)" />
);

const grains = (x0: number, x1: number, y0: number, y1: number) => {
  const result = [];
  for (let row = 0, y = y0; y <= y1; y += 7, row++)
    for (let x = x0 + (row % 2) * 5; x <= x1; x += 10)
      result.push(
        <ellipse
          key={`${x} ${y}`}
          cx={x}
          cy={y}
          rx="3.6"
          ry="2"
          transform={`rotate(${((x * 7 + y * 13) % 60) - 30} ${x} ${y})`}
          fill="var(--color-starch)"
          stroke={INK}
          strokeWidth="0.8"
        />,
      );
  return result;
};

const DRAWINGS: Record<string, () => ReactNode> = {
  "set-cake": () => (
    <>
      <path d="M18 52Q110 22 202 52" fill="var(--color-sheet)" stroke={INK} strokeWidth="1.8" />
      <Vessel>
        <rect x="20" y="52" width="180" height="82" fill={fill("steam")} />
        <rect x="20" y="112" width="180" height="22" fill={fill("water")} />
      </Vessel>
      <line x1="26" x2="194" y1="102" y2="102" stroke={INK} strokeWidth="2" />
      <rect x="58" y="74" width="104" height="26" fill={fill("batter")} stroke={INK} />
      <path d="M56 60V101H164V60" fill="none" stroke={INK} strokeWidth="2.4" />
      {[84, 110, 136].map((x) => (
        <line key={x} x1={x} x2={x} y1="70" y2="100" stroke={INK} strokeDasharray="3 3" />
      ))}
    </>
  ),
  "boiled-balls": () => (
    <>
      <Vessel top={38}>
        <rect x="20" y="70" width="180" height="64" fill={fill("water")} />
      </Vessel>
      {[56, 110, 164].map((x) => (
        <g key={x}>
          <circle cx={x} cy="80" r="23" fill={fill("starch")} stroke={INK} strokeWidth="1.6" />
          <circle cx={x} cy="80" r="14" fill={fill("filling")} stroke={INK} />
        </g>
      ))}
      <Wisps y={48} />
    </>
  ),
  "stirred-rounds": () => (
    <>
      <path d="M10 122H210" stroke={INK} strokeWidth="2" />
      <path d="M10 122h200v8H10z" fill={fill("starch")} />
      {[62, 158].map((x) => (
        <g key={x}>
          <path
            d={`M${x - 40} 122Q${x - 42} 66 ${x} 64Q${x + 42} 66 ${x + 40} 122Z`}
            fill={fill("starch")}
            stroke={INK}
            strokeWidth="1.8"
          />
          <circle cx={x} cy="96" r="20" fill={fill("filling")} stroke={INK} />
        </g>
      ))}
      <circle cx="158" cy="96" r="9" fill={fill("batter")} stroke={INK} />
      <path d="M62 44v14M58 53l4 6 4-6" fill="none" stroke={INK} />
    </>
  ),
  "folded-pulls": () => (
    <>
      <path d="M18 86H150Q150 128 84 128T18 86Z" fill={fill("fat")} stroke={INK} strokeWidth="2" />
      <path d="M34 86q8-34 38-26t46-8q12 10 18 34z" fill={fill("cooked")} stroke={INK} strokeWidth="1.6" />
      <path d="M60 78q18-14 30-4t28-8" fill="none" stroke={INK} />
      <path d="M150 92h44q10 0 14-6" fill="none" stroke={INK} strokeWidth="3" />
      {[168, 186, 204].map((x, i) => (
        <g key={x}>
          <ellipse cx={x - 6} cy={40 + i * 8} rx="9" ry="7" fill={fill("filling")} stroke={INK} />
          <ellipse cx={x - 6} cy={40 + i * 8} rx="5" ry="3.6" fill={fill("cooked")} stroke={INK} strokeWidth="0.7" />
        </g>
      ))}
    </>
  ),
  "batter-bake": () => (
    <>
      <rect x="14" y="24" width="192" height="108" rx="4" fill="none" stroke={INK} strokeWidth="2.2" />
      <path d="M26 122H194M26 34H194" stroke={INK} strokeDasharray="10 6" strokeWidth="1.6" />
      <path d="M26 104H194" stroke={INK} strokeWidth="1.4" />
      <path d="M48 102V66q60-14 124 0V102Z" fill={fill("batter")} stroke={INK} />
      <path d="M48 66q60-14 124 0v6q-62-12 -124 0z" fill="var(--color-batter-2)" stroke={INK} />
      <path d="M46 58V103H174V58" fill="none" stroke={INK} strokeWidth="2.4" />
      <Wisps y={56} at={[84, 110, 136]} />
    </>
  ),
  pounded: () => (
    <>
      <path d="M40 66H180L160 132H60Z" fill="none" stroke={INK} strokeWidth="2.4" />
      <path d="M52 100q58-34 116-2l-8 30H62Z" fill={fill("cooked")} stroke={INK} strokeWidth="1.6" />
      {grains(64, 92, 104, 124)}
      <path
        d="M118 12h24v66h-24z"
        fill="var(--color-sheet)"
        stroke={INK}
        strokeWidth="1.8"
        transform="rotate(14 130 44)"
      />
      <path d="M160 30v22M155 45l5 8 5-8" fill="none" stroke={INK} />
    </>
  ),
  "crushed-balls": () => (
    <>
      {[60, 160].map((x) => (
        <g key={x}>
          <ellipse cx={x} cy="88" rx="42" ry="36" fill={fill("filling")} stroke={INK} strokeWidth="1.8" />
          <ellipse cx={x} cy="88" rx="29" ry="24" fill={fill("cooked")} stroke={INK} />
        </g>
      ))}
      {grains(42, 78, 78, 98)}
      {grains(142, 178, 78, 98)}
      <path d="M8 126H212" stroke={INK} strokeWidth="2" />
    </>
  ),
  "tray-rice": () => (
    <>
      <path d="M22 70V118H198V70" fill="none" stroke={INK} strokeWidth="2.6" />
      <rect x="25" y="78" width="170" height="38" fill={fill("sugar")} stroke={INK} />
      {grains(34, 186, 88, 112)}
      <path d="M25 78q14-12 28-3t28-2 28 2 28-3 28 3 30 3v4H25z" fill={fill("fat")} stroke={INK} />
      {[68, 110, 152].map((x) => (
        <line key={x} x1={x} x2={x} y1="62" y2="116" stroke={INK} strokeDasharray="3 3" />
      ))}
    </>
  ),
  "leaf-parcels": () => (
    <>
      <Vessel top={30}>
        <rect x="20" y="48" width="180" height="86" fill={fill("water")} />
      </Vessel>
      {[68, 150].map((x) => (
        <g key={x}>
          <path d={`M${x - 38} 118L${x} 58L${x + 38} 118Z`} fill={fill("leaf")} stroke={INK} strokeWidth="1.8" />
          <path d={`M${x - 25} 111L${x} 73L${x + 25} 111Z`} fill={fill("cooked")} stroke={INK} />
          <circle cx={x} cy="98" r="8" fill={fill("filling")} stroke={INK} />
          <path d={`M${x - 29} 106q29 8 58 0`} fill="none" stroke={INK} strokeWidth="1.6" />
        </g>
      ))}
      <line x1="30" x2="190" y1="50" y2="50" stroke={INK} strokeWidth="3" />
    </>
  ),
  "ground-packets": () => (
    <>
      <path d="M18 44Q110 18 202 44" fill="var(--color-sheet)" stroke={INK} strokeWidth="1.8" />
      <Vessel top={44}>
        <rect x="20" y="44" width="180" height="90" fill={fill("steam")} />
        <rect x="20" y="114" width="180" height="20" fill={fill("water")} />
      </Vessel>
      <line x1="26" x2="194" y1="106" y2="106" stroke={INK} strokeWidth="2" />
      {[0, 1].map((i) => (
        <g key={i} transform={`translate(${44 + i * 8} ${82 - i * 26})`}>
          <rect x="0" y="0" width="124" height="22" rx="5" fill="var(--color-foil)" stroke={INK} strokeWidth="1.6" />
          <rect x="4" y="3" width="116" height="16" rx="4" fill={fill("leaf")} stroke={INK} />
          <rect x="9" y="6" width="106" height="10" rx="3" fill={fill("batter")} stroke={INK} strokeWidth="0.8" />
        </g>
      ))}
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

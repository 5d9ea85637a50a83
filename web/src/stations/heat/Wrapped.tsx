/** Parcels kept under water by a plate, or flat packets on the rack in steam: one of them to scale, cut through. */

import type { WrappedDrawing } from "../../api/client";
import { Dimension, Label } from "../../ui/dimension";
import { fill } from "../../ui/materials";

export function Wrapped({ drawing }: { drawing: WrappedDrawing }) {
  const parcel = drawing.form === "parcel";
  const { thick_mm: thick, side_mm: side } = drawing;
  const says = parcel
    ? `Parcels under water, ${thick.toFixed(0)} mm through`
    : `Packets ${thick.toFixed(0)} mm thick in steam`;
  return (
    <svg viewBox="0 0 480 290" className="block w-full max-w-[520px]" role="img" aria-label={says}>
      <path d="M60 40V250H420V40" fill="none" stroke="var(--color-ink)" strokeWidth="3" />
      <path d="M46 36h388" stroke="var(--color-ink)" strokeWidth="3" />
      {parcel ? <Parcels thick={thick} /> : <Packets thick={thick} side={side} />}
    </svg>
  );
}

function Parcels({ thick }: { thick: number }) {
  const size = Math.min(74, thick * 1.5);
  return (
    <>
      <rect x="62" y="76" width="356" height="172" fill={fill("water")} />
      {[0, 1, 2].map((i) => (
        <path
          key={i}
          d={`M${112 + i * 118} ${236}l${size * 0.75} 0l${-size * 0.375} ${-size}z`}
          fill={fill("leaf")}
          stroke="var(--color-ink)"
          strokeWidth="1.6"
          strokeLinejoin="round"
        />
      ))}
      <path d="M92 118h296l-22 12h-252z" fill="var(--color-sheet)" stroke="var(--color-ink)" strokeWidth="1.6" />
      <Label x={240} y={108} anchor="middle" size={14.5} halo>
        a plate keeps them under
      </Label>
      <Label x={240} y={278} anchor="middle" size={15} tone="ink2">
        as a ball of its weight: {thick.toFixed(0)} mm through
      </Label>
    </>
  );
}

function Packets({ thick, side }: { thick: number; side: number }) {
  const scale = Math.min(1.9, 130 / side);
  const [w, h] = [side * scale, thick * scale];
  const y = 176 - h;
  return (
    <>
      <rect x="62" y="206" width="356" height="42" fill={fill("water")} />
      <path d="M70 182h340" stroke="var(--color-ink)" strokeWidth="2.4" strokeDasharray="14 6" />
      <rect x="62" y="52" width="356" height="126" fill={fill("steam")} opacity="0.8" />
      {[0, 1].map((i) => {
        const x = 100 + i * (w + 40);
        return (
          <g key={i}>
            <rect
              x={x - 4}
              y={y - 4}
              width={w + 8}
              height={h + 8}
              rx="5"
              fill="#d9d9d4"
              stroke="var(--color-ink)"
              strokeWidth="1.6"
            />
            <rect x={x - 1} y={y - 1} width={w + 2} height={h + 2} rx="4" fill={fill("leaf")} />
            <rect x={x + 2} y={y + 2} width={w - 4} height={h - 4} rx="3" fill={fill("batter")} />
          </g>
        );
      })}
      <Dimension x1={86} y1={y} x2={86} y2={y + h} />
      <Label x={240} y={y - 22} anchor="middle" bold size={17} halo>
        {thick.toFixed(0)} mm thick, {side.toFixed(0)} across
      </Label>
      <Label x={240} y={278} anchor="middle" size={15} tone="ink2">
        flat, with room to swell
      </Label>
    </>
  );
}

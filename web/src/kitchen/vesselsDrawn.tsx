/** Steamers, pots, pans, tins, cups and scoops from the side, all to one scale. */

import type { KitchenSettings, Pan, Pot, Steamer, Tin } from "../api/client";
import { fill } from "../ui/materials";
import { Nothing, Stand } from "./Stand";

const SCALE = 0.32; // px to a millimetre

export function Steamers({ kitchen }: { kitchen: KitchenSettings }) {
  const all = kitchen.steamers;
  return all.length ? all.map((item) => <SteamerSide key={item.name} steamer={item} />) : <Nothing />;
}

/** Pot with the water it may hold, its tiers and its lid. */
export function SteamerSide({ steamer, scale = SCALE }: { steamer: Steamer; scale?: number }) {
  const wide = steamer.diameter_mm * scale;
  const full = Math.max(steamer.low_mm + 5, steamer.rack_mm - steamer.gap_mm) * scale;
  const pot = (steamer.rack_mm + 30) * scale;
  const tier = 48 * scale;
  const high = pot + steamer.tiers * tier + 18;
  const x = 8;
  const rim = high - pot;
  return (
    <Stand wide={wide + 16} high={high}>
      <rect x={x} y={high - full} width={wide} height={full} fill={fill("water")} stroke="none" />
      <path d={`M${x} ${rim}V${high - 4}q0 3 3 3H${x + wide - 3}q3 0 3 -3V${rim}`} strokeWidth="2.2" />
      <path d={`M${x} ${rim + 6}h-6M${x + wide} ${rim + 6}h6`} strokeWidth="2.2" />
      <path d={`M${x + 2} ${high - steamer.rack_mm * scale}H${x + wide - 2}`} />
      {Array.from({ length: steamer.tiers }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a tier is its height
        <g key={i}>
          <rect x={x + 2} y={rim - (i + 1) * tier} width={wide - 4} height={tier} />
          <path
            d={`M${x + 6} ${rim - (i + 1) * tier + tier - 3}H${x + wide - 6}`}
            strokeDasharray="3 4"
            strokeWidth="1.2"
          />
        </g>
      ))}
      <path d={`M${x} ${rim - steamer.tiers * tier}q${wide / 2} -14 ${wide} 0`} />
      <circle cx={x + wide / 2} cy={rim - steamer.tiers * tier - 10} r="3" fill="var(--color-ink)" />
      {steamer.watts != null && <path d={`M${x + wide} ${high - 6}h6v-14h-3m6 0h-3v-5`} strokeWidth="1.2" />}
    </Stand>
  );
}

export function Pots({ kitchen }: { kitchen: KitchenSettings }) {
  const { pots, pans } = kitchen;
  if (!pots.length && !pans.length) return <Nothing />;
  return (
    <>
      {pots.map((pot) => (
        <PotSide key={pot.name} pot={pot} />
      ))}
      {pans.map((pan) => (
        <PanSide key={pan.name} pan={pan} />
      ))}
    </>
  );
}

function PotSide({ pot }: { pot: Pot }) {
  const wide = pot.diameter_mm * SCALE;
  const water = Math.min(400, (pot.water_ml * 1000) / ((Math.PI * pot.diameter_mm ** 2) / 4)) * SCALE;
  const high = Math.max(0.55 * wide, water + 12);
  return (
    <Stand wide={wide + 16} high={high + 2}>
      <rect x="8" y={high - water} width={wide} height={water} fill={fill("water")} stroke="none" />
      <path d={`M8 2V${high - 4}q0 4 4 4H${4 + wide}q4 0 4 -4V2`} strokeWidth="2.2" />
      <path d={`M8 9h-6M${8 + wide} 9h6`} strokeWidth="2.2" />
    </Stand>
  );
}

function PanSide({ pan }: { pan: Pan }) {
  const wide = pan.across_mm * SCALE;
  const high = 16;
  return (
    <Stand wide={wide + 36} high={high + 4}>
      <path d={`M2 4l5 ${high - 2}q1 2 4 2H${wide - 9}q3 0 4 -2l5 -${high - 2}`} strokeWidth="2.2" />
      <path d={`M${wide} 7l32 -4`} strokeWidth="3.4" strokeLinecap="round" />
    </Stand>
  );
}

export function TinShelf({ kitchen }: { kitchen: KitchenSettings }) {
  // biome-ignore lint/suspicious/noArrayIndexKey: two tins may be alike
  return kitchen.tins.length ? kitchen.tins.map((tin, i) => <TinSide key={i} tin={tin} />) : <Nothing />;
}

export function TinSide({ tin }: { tin: Tin }) {
  const wide = (tin.shape === "round" ? tin.diameter_mm : tin.length_mm) * SCALE;
  const high = tin.height_mm * SCALE;
  return (
    <Stand wide={wide + 10} high={high + 4}>
      <path
        d={`M2 3h3V${high + 2}H${wide + 5}V3h3`}
        strokeWidth={tin.material === "metal" ? 1.8 : 3.6}
        stroke={tin.material === "glass" ? "var(--color-ink2)" : "var(--color-ink)"}
      />
    </Stand>
  );
}

/** The cook's own cup and spoon, and the scoops, each as high as a vessel of its size as wide as high. */
export function Cups({ kitchen }: { kitchen: KitchenSettings }) {
  const side = (ml: number) => Math.cbrt((4000 * ml) / Math.PI) * SCALE;
  const cup = side(kitchen.own_cup_ml ?? 250);
  const spoon = side(kitchen.own_spoon_ml ?? 15);
  const own = (known: unknown) => (known == null ? "3 3" : undefined);
  return (
    <>
      <Stand wide={cup + 18} high={cup + 4}>
        <path d={`M3 2l3 ${cup}H${cup}l3 -${cup}z`} strokeWidth="2" strokeDasharray={own(kitchen.own_cup_ml)} />
        <path d={`M${cup + 2} ${0.25 * cup}q12 2 11 ${0.25 * cup}q0 ${0.2 * cup} -12 ${0.2 * cup}`} />
      </Stand>
      <Stand wide={spoon + 44} high={spoon + 2}>
        <path d={`M2 3q${spoon / 2} ${1.6 * spoon} ${spoon} 0z`} strokeDasharray={own(kitchen.own_spoon_ml)} />
        <path d={`M${spoon + 2} 3h38`} strokeWidth="3" strokeLinecap="round" />
      </Stand>
      {kitchen.scoops.map((scoop) => (
        <Scoop key={scoop.name} across={side(scoop.ml) * 1.2} />
      ))}
    </>
  );
}

function Scoop({ across }: { across: number }) {
  return (
    <Stand wide={across + 34} high={across / 2 + 6}>
      <path d={`M2 4a${across / 2} ${across / 2} 0 0 0 ${across} 0z`} strokeWidth="2" />
      <path d={`M${across + 2} 4h28`} strokeWidth="3.4" strokeLinecap="round" />
    </Stand>
  );
}

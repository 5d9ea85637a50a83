/** Hob, ovens, cold, the window, the notebook and the rule: signs, not to a scale. */

import type { KitchenSettings } from "../api/client";
import { Stand } from "./Stand";

const MOST_W = 1600; // of the largest flame that is drawn; its area goes by what it gives

interface Drawn {
  kitchen: KitchenSettings;
}

/** Three flames, as large as low, medium and high give; and as many burners as there are. */
export function Hob({ kitchen }: Drawn) {
  const { burner, burners } = kitchen;
  const flames = [burner.low_w, burner.medium_w, burner.high_w];
  const wide = 150;
  return (
    <Stand wide={wide} high={92}>
      {flames.map((watts, i) => (
        <path
          key={["low", "medium", "high"][i]}
          d="M0 0C-13 -3 -13 -17 -5 -24C-3 -18 0 -19 -1 -36C9 -28 15 -8 0 0Z"
          transform={`translate(${30 + i * 45} 68) scale(${Math.sqrt(Math.min(watts, MOST_W) / MOST_W).toFixed(3)})`}
          fill="var(--color-amber)"
          fillOpacity="0.4"
          stroke="var(--color-look)"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <path d={`M6 70H${wide - 6}V91H6z`} strokeWidth="2.2" />
      {Array.from({ length: burners }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a knob is its place
        <circle key={i} cx={16 + ((wide - 32) * (i + 0.5)) / burners} cy="81" r="4" />
      ))}
    </Stand>
  );
}

export function Ovens({ kitchen }: Drawn) {
  const { ovens, oven_shelves, toasters, machines } = kitchen;
  return (
    <>
      {Array.from({ length: ovens }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one like another
        <Box key={i} wide={96} high={88} knobs shelves={oven_shelves} />
      ))}
      {Array.from({ length: toasters }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one like another
        <Box key={i} wide={66} high={42} shelves={1} />
      ))}
      <Stand wide={62} high={46}>
        <path d="M8 18V38q0 7 7 7H47q7 0 7 -7V18zM6 18q25 -22 50 0z" strokeWidth="2" />
        <circle cx="31" cy="34" r="3" />
      </Stand>
      {Array.from({ length: machines }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one like another
        <Stand key={i} wide={52} high={60}>
          <path d="M8 30H44l-5 24q-1 5 -6 5H19q-5 0 -6 -5z" strokeWidth="2" />
          <path d="M29 44L38 4" strokeWidth="5" strokeLinecap="round" />
        </Stand>
      ))}
    </>
  );
}

interface BoxProps {
  wide: number;
  high: number;
  shelves: number;
  knobs?: boolean;
}

/** A box with a window, its shelves seen through it. */
function Box({ wide, high, shelves, knobs }: BoxProps) {
  const top = knobs ? 20 : 8;
  const room = high - top - 10;
  return (
    <Stand wide={wide} high={high}>
      <rect x="1.5" y="1.5" width={wide - 3} height={high - 2} strokeWidth="2.2" />
      {knobs && [0.3, 0.5, 0.7].map((at) => <circle key={at} cx={wide * at} cy="10" r="3" />)}
      <rect x="9" y={top} width={wide - 18} height={room} />
      {Array.from({ length: shelves }, (_, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a shelf is its height
          key={i}
          d={`M11 ${top + (room * (i + 1)) / (shelves + 1)}H${wide - 11}`}
          strokeDasharray="3 3"
          strokeWidth="1.2"
        />
      ))}
    </Stand>
  );
}

export function Cold({ kitchen }: Drawn) {
  const shelves = kitchen.cold_shelves;
  const part = (top: number, high: number, name: string) => (
    <g key={name}>
      <rect x="4" y={top} width="68" height={high} strokeWidth="2.2" />
      {Array.from({ length: shelves - 1 }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a shelf is its height
        <path key={i} d={`M6 ${top + (high * (i + 1)) / shelves}H70`} strokeWidth="1" stroke="var(--color-ink2)" />
      ))}
    </g>
  );
  return (
    <Stand wide={76} high={104}>
      {part(2, 60, "fridge")}
      {part(66, 36, "freezer")}
      <path d="M66 10v16M66 72v12" strokeWidth="2.6" />
    </Stand>
  );
}

/** The hill outside as high as the kitchen stands; a thermometer; the hours in which nothing may be asked of anybody. */
export function Window({ kitchen }: Drawn) {
  const hill = 44 * Math.min(1, Math.max(0, kitchen.altitude_m) / 3000);
  const warmth = 30 * Math.min(1, Math.max(0, (kitchen.room_c - 5) / 35));
  const [from, to] = [kitchen.quiet.begins, kitchen.quiet.ends].map(turn) as [number, number];
  return (
    <>
      <Stand wide={92} high={88}>
        <path
          d={`M5 74C26 ${74 - hill} 36 ${70 - 1.3 * hill} 48 ${70 - 1.3 * hill}S72 ${72 - 0.6 * hill} 87 74V80H5z`}
          fill="var(--color-green)"
          fillOpacity="0.22"
          stroke="none"
        />
        <rect x="5" y="4" width="82" height="76" strokeWidth="2.2" />
        <path d="M46 4V80M5 40H87" strokeWidth="1.2" />
        <path d="M1 86H91" strokeWidth="2.2" />
      </Stand>
      <Stand wide={18} high={64}>
        <path d="M9 58V14" stroke="var(--color-hair)" strokeWidth="6" strokeLinecap="round" />
        <path d={`M9 54V${50 - warmth}`} stroke="var(--color-bean)" strokeWidth="4" strokeLinecap="round" />
        <circle cx="9" cy="56" r="6" fill="var(--color-bean)" stroke="none" />
      </Stand>
      <Stand wide={60} high={84}>
        <circle cx="30" cy="32" r="27" strokeWidth="2.2" />
        {from !== to && <path d={arc(from, to)} fill="var(--color-ink2)" fillOpacity="0.3" stroke="none" />}
        <path d="M30 32V14M30 32L42 38" />
      </Stand>
    </>
  );
}

/** A time of day as a share of a day. */
const turn = (clock: string) => (Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3))) / 1440;

/** Of a face that goes round once a day, midnight at the foot. */
function arc(from: number, to: number): string {
  const point = (share: number) => {
    const angle = 2 * Math.PI * share + Math.PI / 2;
    return `${(30 + 25 * Math.cos(angle)).toFixed(1)} ${(32 + 25 * Math.sin(angle)).toFixed(1)}`;
  };
  const long = (to - from + 1) % 1 > 0.5 ? 1 : 0;
  return `M30 32L${point(from)}A25 25 0 ${long} 1 ${point(to)}Z`;
}

/** Open at a page: a curve, and how far it may be off. */
export function Notebook() {
  return (
    <Stand wide={104} high={62}>
      <path d="M52 10Q30 0 5 8V58Q30 50 52 60Q74 50 99 58V8Q74 0 52 10V60" strokeWidth="2" />
      <path
        d="M12 40q10 -26 17 -22t16 20q-10 -6 -16 -4t-17 12z"
        fill="var(--color-green)"
        fillOpacity="0.25"
        stroke="none"
      />
      <path d="M12 43q10 -25 17 -21t17 14M60 22h30M60 32h24M60 42h28" strokeWidth="1.2" />
    </Stand>
  );
}

/** A folding rule. */
export function Ruler() {
  return (
    <Stand wide={124} high={34}>
      <rect x="2" y="6" width="120" height="24" />
      {Array.from({ length: 23 }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a mark is its place
        <path key={i} d={`M${7 + i * 5} 6v${i % 5 === 0 ? 12 : 6}`} strokeWidth="1" />
      ))}
    </Stand>
  );
}

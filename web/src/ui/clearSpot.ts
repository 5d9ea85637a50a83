/** Where a slip lies beside what was pressed, so that it covers as little as can be of the drawings it speaks of. */

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A thing to be kept clear of, and how much more it matters than another. */
export interface OccupiedArea {
  box: Box;
  weight: number;
}

export interface Spot {
  side: "right" | "left" | "bottom" | "top";
  align: "start" | "end";
  sideOffset: number;
  /** How high it may be to fit there. */
  high: number;
}

type Beside = Omit<Spot, "high">;

interface Size {
  wide: number;
  high: number;
}

const GAP = 8;
const EDGE = 12; // of the window, left free
const LEAST_HIGH = 190; // that can be read in
const FAR = 0.002; // what a pixel further away costs, in pixels covered of a hundred by a hundred

/** The spot at which a slip of that size covers the least, all of it in the window where that can be; of equals the nearest. */
export function clearSpot(pressed: Box, kept: readonly OccupiedArea[], room: Size, slip: Size): Spot {
  let best: { spot: Spot; cost: number } | null = null;
  for (const spot of spots(pressed, kept)) {
    const box = laid(pressed, spot, room, slip);
    const covered = kept.reduce((sum, kept) => sum + kept.weight * overlap(box, kept.box), 0);
    const outside = slip.wide * (box.bottom - box.top) - overlap(box, within(room));
    const cost = covered + 20 * outside + 10 * overlap(box, pressed) + FAR * 10_000 * (spot.sideOffset / 100);
    if (best === null || cost < best.cost) best = { spot: { ...spot, high: box.bottom - box.top }, cost };
  }
  return best?.spot ?? { side: "bottom", align: "start", sideOffset: GAP, high: slip.high };
}

/** On each side, beside what was pressed or beyond each thing that is kept clear. */
function* spots(pressed: Box, kept: readonly OccupiedArea[]): Generator<Beside> {
  const beyond: Record<Beside["side"], (box: Box) => number> = {
    right: (box) => box.right - pressed.right,
    left: (box) => pressed.left - box.left,
    bottom: (box) => box.bottom - pressed.bottom,
    top: (box) => pressed.top - box.top,
  };
  for (const side of ["bottom", "right", "left", "top"] as const) {
    const offsets = [0, ...kept.map((kept) => beyond[side](kept.box)).filter((by) => by > 0)];
    for (const by of new Set(offsets))
      for (const align of ["start", "end"] as const) yield { side, align, sideOffset: Math.round(by) + GAP };
  }
}

/**
 * Where it comes to lie: beside, and moved along what was pressed until it is in the window; over and under it no higher than
 * there is room, and scrolled.
 */
export function laid(pressed: Box, { side, align, sideOffset }: Beside, room: Size, slip: Size): Box {
  const level = side === "left" || side === "right";
  const free = side === "bottom" ? room.high - pressed.bottom - sideOffset : pressed.top - sideOffset;
  const { wide } = slip;
  const high = level ? slip.high : Math.min(slip.high, Math.max(LEAST_HIGH, Math.floor(free - EDGE - 1)));
  const along = (from: number, to: number, long: number, most: number) => {
    const wanted = align === "start" ? from : to - long;
    return Math.max(EDGE, Math.min(wanted, most - EDGE - long));
  };
  const left = level
    ? side === "right"
      ? pressed.right + sideOffset
      : pressed.left - sideOffset - wide
    : along(pressed.left, pressed.right, wide, room.wide);
  const top = level
    ? along(pressed.top, pressed.bottom, high, room.high)
    : side === "bottom"
      ? pressed.bottom + sideOffset
      : pressed.top - sideOffset - high;
  return { left, top, right: left + wide, bottom: top + high };
}

const within = (room: Size): Box => ({ left: EDGE, top: EDGE, right: room.wide - EDGE, bottom: room.high - EDGE });

const overlap = (a: Box, b: Box) =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));

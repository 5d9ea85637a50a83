/** A scale of a day that is true to time, but for nights in which nobody does anything: those are folded short. */

export interface Span {
  from: number;
  to: number;
}

interface Piece extends Span {
  /** In units of the drawing. */
  x: number;
  wide: number;
  folded: boolean;
}

export interface TimeScale {
  x: (instant: number) => number;
  /** The instant at a place in the drawing. */
  at: (x: number) => number;
  folds: readonly Piece[];
  from: number;
  to: number;
}

const HOUR = 3_600_000;
const FOLD_WIDE = 46;
const WORTH_FOLDING = 2 * HOUR;

/** `idle` are spans in which no hand is wanted: of those, what lies in `quiet` for over two hours is folded. */
export function timeScale(
  from: number,
  to: number,
  left: number,
  right: number,
  quiet: Span[],
  busy: Span[],
): TimeScale {
  const folds = quiet
    .flatMap((night) => idleIn(night, busy))
    .map(({ from: a, to: b }) => ({ from: Math.max(a, from), to: Math.min(b, to) }))
    .filter((item) => item.to - item.from > WORTH_FOLDING);
  const folded = folds.reduce((sum, item) => sum + item.to - item.from, 0);
  const perMs = (right - left - folds.length * FOLD_WIDE) / Math.max(1, to - from - folded);
  const pieces: Piece[] = [];
  let now = from;
  let x = left;
  const add = (until: number, isFold: boolean) => {
    if (until <= now) return;
    const wide = isFold ? FOLD_WIDE : (until - now) * perMs;
    pieces.push({ from: now, to: until, x, wide, folded: isFold });
    now = until;
    x += wide;
  };
  for (const fold of folds) {
    add(fold.from, false);
    add(fold.to, true);
  }
  add(to, false);
  const piece = (test: (piece: Piece) => boolean) => pieces.find(test) ?? (pieces.at(-1) as Piece);
  return {
    from,
    to,
    folds: pieces.filter((piece) => piece.folded),
    x: (instant) => {
      if (instant <= from) return left;
      if (instant >= to) return right;
      const eachPiece = piece((each) => instant < each.to);
      return eachPiece.x + (eachPiece.wide * (instant - eachPiece.from)) / (eachPiece.to - eachPiece.from);
    },
    at: (place) => {
      if (place <= left) return from;
      if (place >= right) return to;
      const eachPiece = piece((each) => place < each.x + each.wide);
      return eachPiece.from + ((place - eachPiece.x) * (eachPiece.to - eachPiece.from)) / eachPiece.wide;
    },
  };
}

/** What of a span no busy one covers, in order. */
function idleIn(span: Span, busy: Span[]): Span[] {
  const inside = busy
    .filter((eachSpan) => eachSpan.to > span.from && eachSpan.from < span.to)
    .sort((a, b) => a.from - b.from);
  const spans: Span[] = [];
  let now = span.from;
  for (const one of inside) {
    if (one.from > now) spans.push({ from: now, to: one.from });
    now = Math.max(now, one.to);
  }
  if (now < span.to) spans.push({ from: now, to: span.to });
  return spans;
}

/** Quiet hours that fall between two instants, on the kitchen's clock; `wall` tells it. */
export function quietSpans(
  from: number,
  to: number,
  quiet: { begins: string; ends: string },
  wall: (at: number) => string,
) {
  const spans: Span[] = [];
  if (quiet.begins === quiet.ends) return spans;
  let began: number | null = null;
  for (let at = Math.ceil(from / 300_000) * 300_000; at <= to; at += 300_000) {
    const now = wall(at).slice(11);
    const inside =
      quiet.begins <= quiet.ends ? now >= quiet.begins && now < quiet.ends : now >= quiet.begins || now < quiet.ends;
    if (inside && began == null) began = at;
    if (!inside && began != null) {
      spans.push({ from: began, to: at });
      began = null;
    }
  }
  if (began != null) spans.push({ from: began, to });
  return spans;
}

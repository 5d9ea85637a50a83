"""A tray cut from above: pieces as outlines with true areas, the knife's lines, and where they meet the edge.

Lengths in mm, areas in mm². The origin is the top left corner of the tray, or of the square round a round one.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import accumulate, pairwise
from typing import Literal

from kemble.core.geometry.tray_floor import (
    A_HAIR,
    ARC_STEP,
    Kind,
    Point,
    Tray,
    TrayCell,
    clipped,
    in_tray,
    is_corner,
)
from kemble.core.sentences import remember_by_language, say

Pattern = Literal["squares", "oblongs", "strips", "diamonds", "triangles", "wedges", "rings"]

OBLONG_ASPECT = 2.0  # an oblong piece is so many times as long as wide, where nothing else is said
DIAMOND_ANGLE = math.radians(60)


@dataclass(frozen=True, slots=True)
class KnifeRuler:
    """Where the knife meets one edge: distances from its beginning, for a strip of paper laid along it."""

    along: str
    length: float
    ticks: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class TrayCutting:
    """Every piece of a tray, the knife's straight lines and its rings (radii), and the rulers to cut them by."""

    cells: tuple[TrayCell, ...]
    lines: tuple[tuple[Point, Point], ...] = ()
    rings: tuple[float, ...] = ()
    rulers: tuple[KnifeRuler, ...] = ()
    side: float = 0.0  # the side, width or arc that a piece is known by
    rows: int = 0
    columns: int = 0

    @property
    def pieces(self) -> list[TrayCell]:
        return [cell for cell in self.cells if cell.kind != "offcut"]


@dataclass(frozen=True, slots=True)
class CutRequest:
    """What the cook asks for: so many pieces, or pieces of a side, or of an area. One of the three."""

    count: int | None = None
    side: float | None = None
    long: float | None = None  # with `side`: the other side of an oblong
    area: float | None = None
    even: bool = False  # in a round tray: every piece of the same area, nothing left over

    def number(self, total: float) -> int | None:
        """Whole pieces by count or by area; None when a side is asked for."""
        if self.side is not None:
            return None
        return self.count if self.area is None else max(1, round(total / self.area))


@remember_by_language(64)
def cut_tray(tray: Tray, pattern: Pattern, wish: CutRequest) -> TrayCutting | None:
    """The tray cut by a pattern. None when not one whole piece of that size lies in it.

    Kept: while amounts, schools and heats are changed the same tray is asked for again and again.
    """
    cutting = _PATTERNS[pattern](tray, wish)
    return cutting if cutting and cutting.pieces else None


# Grids: squares, oblongs, triangles, diamonds.


def _squares(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    return _grid(tray, wish, 1.0)


def _oblongs(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    return _grid(tray, wish, OBLONG_ASPECT)


def _grid(tray: Tray, wish: CutRequest, aspect: float, halved: bool = False) -> TrayCutting | None:
    """Rows and columns. `halved`: each cell is cut once more from corner to corner."""
    if wish.side is not None:
        w, h = _cell_orientation(tray, wish.side, wish.long or wish.side * aspect)
        return _laid_grid(tray, w, h, halved)
    if wish.area is not None and not (tray.round and wish.even):
        cell = wish.area * (2 if halved else 1)
        w, h = _cell_orientation(tray, math.sqrt(cell / aspect), math.sqrt(cell * aspect))
        return _laid_grid(tray, w, h, halved)
    count = wish.number(tray.area) or 1
    cells = math.ceil(count / 2) if halved else count
    if tray.round:
        if wish.even and not halved:
            return _even_bands(tray, count, aspect)
        return _widest_round(tray, cells, aspect, halved)
    return _filled_grid(tray, cells, aspect, halved)


def _cell_orientation(tray: Tray, short: float, long: float) -> tuple[float, float]:
    """Width and height of a cell, turned so that more whole ones lie in the tray."""

    def whole(w: float, h: float) -> int:
        return math.floor(tray.length / w + A_HAIR) * math.floor(tray.width / h + A_HAIR)

    return (long, short) if whole(long, short) >= whole(short, long) else (short, long)


def _filled_grid(tray: Tray, wanted: int, aspect: float, halved: bool) -> TrayCutting:
    """Exactly `wanted` equal cells if they can come near the aspect, else the next number that can."""
    best: tuple[float, int, int] | None = None
    for count in range(wanted, wanted + 7):
        for rows in range(1, count + 1):
            if count % rows:
                continue
            columns = count // rows
            shape = math.log((tray.length / columns) / (tray.width / rows))
            off = min(abs(shape - math.log(aspect)), abs(shape + math.log(aspect)))
            clumsy = off + 0.25 * (count - wanted)
            if best is None or clumsy < best[0]:
                best = (clumsy, rows, columns)
    assert best is not None
    _, rows, columns = best
    return _laid_grid(tray, tray.length / columns, tray.width / rows, halved)


def _laid_grid(tray: Tray, w: float, h: float, halved: bool) -> TrayCutting:
    """Cells of w by h from the corner of an oblong tray, or centred in a round one; what is cut short is an offcut."""
    if not tray.round:
        return _cut_grid(tray, _lines_from_edge(tray.length, w), _lines_from_edge(tray.width, h), w, h, halved)
    tray_cuttings = [_round_grid(tray, w, h, halved, on_x, on_y) for on_x in (False, True) for on_y in (False, True)]
    return max(tray_cuttings, key=lambda cutting: len(cutting.pieces))


def _round_grid(tray: Tray, w: float, h: float, halved: bool, on_x: bool, on_y: bool) -> TrayCutting:
    """Cells about the middle of a round tray; `on_x`, `on_y`: a knife line goes through it."""
    return _cut_grid(
        tray, _lines_about_middle(tray.length, w, on_x), _lines_about_middle(tray.width, h, on_y), w, h, halved
    )


def _lines_from_edge(length: float, step: float) -> list[float]:
    lines = [i * step for i in range(math.floor(length / step + A_HAIR) + 1)]
    return [*lines[:-1], length] if length - lines[-1] < 0.5 else [*lines, length]


def _lines_about_middle(length: float, step: float, on_line: bool) -> list[float]:
    """Lines `step` apart about the middle of `length`, one of them on the middle or none."""
    middle = length / 2
    first = middle if on_line else middle + step / 2
    reach = math.ceil(length / 2 / step) + 1
    inside = [first + i * step for i in range(-reach, reach) if A_HAIR < first + i * step < length - A_HAIR]
    return [0.0, *inside, length]


def _cut_grid(tray: Tray, xs: list[float], ys: list[float], w: float, h: float, halved: bool) -> TrayCutting:
    outlines: list[list[Point]] = []
    for x0, x1 in pairwise(xs):
        for y0, y1 in pairwise(ys):
            box: list[Point] = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
            outlines += [[box[0], box[1], box[3]], [box[1], box[2], box[3]]] if halved else [box]
    lines: list[tuple[Point, Point]] = [((x, 0.0), (x, tray.width)) for x in xs[1:-1]]
    lines += [((0.0, y), (tray.length, y)) for y in ys[1:-1]]
    if halved:
        lines += [((x1, y0), (x0, y1)) for x0, x1 in pairwise(xs) for y0, y1 in pairwise(ys)]
    rulers = (_ruler(say("from left to right"), tray.length, xs), _ruler(say("from top to bottom"), tray.width, ys))
    whole = w * h / (2 if halved else 1)
    return TrayCutting(
        clipped(tray, outlines, whole),
        in_tray(tray, lines),
        rulers=tuple(ruler for ruler in rulers if ruler.ticks),
        side=min(w, h),
        rows=len(ys) - 1,
        columns=len(xs) - 1,
    )


def _widest_round(tray: Tray, wanted: int, aspect: float, halved: bool) -> TrayCutting:
    """The largest cells of which at least `wanted` lie whole in a round tray."""
    if wanted == 1:
        short = tray.length / math.hypot(1, aspect) * (1 - 1e-9)
        return _round_grid(tray, short * aspect, short, halved, False, False)
    laid = {
        (on_x, on_y): _nearest_cells(on_x, on_y, wanted, aspect) for on_x in (False, True) for on_y in (False, True)
    }
    (on_x, on_y), far = min(laid.items(), key=lambda item: item[1][wanted - 1])
    short = tray.radius / math.sqrt(far[wanted - 1]) * (1 - 1e-9)
    return _round_grid(tray, short * aspect, short, halved, on_x, on_y)


def _nearest_cells(on_x: bool, on_y: bool, wanted: int, aspect: float) -> tuple[float, ...]:
    """Squared distances of the far corners of cells of a grid about the middle, nearest first; the short side is 1."""
    reach = math.ceil(math.sqrt(wanted * aspect)) + 1
    xs = [
        (i + (0.0 if on_x else 0.5)) * aspect
        for i in range(-math.ceil(reach / aspect) - 1, math.ceil(reach / aspect) + 1)
    ]
    ys = [j + (0.0 if on_y else 0.5) for j in range(-reach - 1, reach + 1)]
    return tuple(sorted(max(abs(x), abs(x + aspect)) ** 2 + max(abs(y), abs(y + 1)) ** 2 for x in xs for y in ys))


def _diamonds(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    """Rhombs between lines along the tray and lines that slant across it."""
    if wish.side is not None:
        return _rhombs(tray, wish.side)
    if wish.area is not None:
        return _rhombs(tray, math.sqrt(wish.area / math.sin(DIAMOND_ANGLE)))
    # How many lie whole falls with the side, but in steps and not always: walk down in large strides to the first that
    # is enough, then back up in small ones while it still is.
    wanted = wish.count or 1
    stride, pace = 0.95, 0.987

    def enough(side: float) -> bool:
        return sum(_lies_whole(tray, rhomb) for rhomb in _rhomb_outlines(tray, side)) >= wanted

    side = math.sqrt(tray.area / wanted / math.sin(DIAMOND_ANGLE))
    while not enough(side):
        side *= stride
        if side < 4:
            return None
    larger = [side / pace**i for i in range(1, 4)]
    return _rhombs(tray, next((each for each in reversed(larger) if enough(each)), side))


def _slants(tray: Tray, side: float) -> list[float]:
    """Where the slanting lines would cross the top of the tray; in a round tray one goes through the middle."""
    run = tray.width / math.tan(DIAMOND_ANGLE)
    first = (tray.radius - run / 2) % side if tray.round else 0.0
    reach = math.ceil((run + first) / side)
    return [first + k * side for k in range(-reach, math.ceil(tray.length / side) + 1)]


def _levels(tray: Tray, side: float) -> list[float]:
    """The level lines of a diamond cut; they run on past a round tray so that its cut rhombs keep their shape."""
    rise = side * math.sin(DIAMOND_ANGLE)
    if not tray.round:
        return [i * rise for i in range(math.floor(tray.width / rise + A_HAIR) + 2)]
    reach = math.ceil(tray.radius / rise)
    return [tray.radius + i * rise for i in range(-reach, reach + 1)]


def _rhomb_outlines(tray: Tray, side: float) -> list[list[Point]]:
    lean = 1 / math.tan(DIAMOND_ANGLE)
    levels, slants = _levels(tray, side), _slants(tray, side)
    return [
        [(x0 + y0 * lean, y0), (x1 + y0 * lean, y0), (x1 + y1 * lean, y1), (x0 + y1 * lean, y1)]
        for y0, y1 in pairwise(levels)
        for x0, x1 in pairwise(slants)
    ]


def _lies_whole(tray: Tray, outline: Iterable[Point]) -> bool:
    if tray.round:
        return all(math.hypot(x - tray.radius, y - tray.radius) <= tray.radius + A_HAIR for x, y in outline)
    return all(-A_HAIR <= x <= tray.length + A_HAIR and -A_HAIR <= y <= tray.width + A_HAIR for x, y in outline)


def _rhombs(tray: Tray, side: float) -> TrayCutting | None:
    run = tray.width / math.tan(DIAMOND_ANGLE)
    levels = [y for y in _levels(tray, side) if 0.5 < y < tray.width - 0.5]
    slants = _slants(tray, side)
    lines: list[tuple[Point, Point]] = [((0.0, y), (tray.length, y)) for y in levels]
    lines += [((x, 0.0), (x + run, tray.width)) for x in slants]
    rulers = [_ruler(say("from top to bottom"), tray.width, levels)]
    if tray.round:
        # The slanting lines by their distance from where the first would touch the rim.
        middle = tray.radius - run / 2
        offs = [tray.radius + (x - middle) * math.sin(DIAMOND_ANGLE) for x in slants]
        rulers.append(_ruler(say("across the slanting lines"), tray.length, offs))
    else:
        rulers.append(_ruler(say("slanting lines at the top"), tray.length, slants))
        rulers.append(_ruler(say("slanting lines at the bottom"), tray.length, [x + run for x in slants]))
    return TrayCutting(
        clipped(tray, _rhomb_outlines(tray, side), side**2 * math.sin(DIAMOND_ANGLE)),
        in_tray(tray, lines),
        rulers=tuple(r for r in rulers if r.ticks),
        side=side,
        rows=len(levels) + 1,
    )


def _ruler(along: str, length: float, at: Iterable[float]) -> KnifeRuler:
    """A ruler with the ticks that lie on it; the tray's own walls are none."""
    return KnifeRuler(along, length, tuple(x for x in at if 0.5 < x < length - 0.5))


def _triangles(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    return _grid(tray, wish, 1.0, halved=True)


# Strips, and strips cut across.


def _strips(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    """Strips across the longer way, all as wide; in a round tray all of the same area where that is asked for."""
    along, across = max(tray.length, tray.width), min(tray.length, tray.width)
    upright = tray.length >= tray.width
    if tray.round and wish.even:
        count = wish.number(tray.area) or max(1, round(tray.length / (wish.side or tray.length)))
        edges = _even_chords(tray.radius, [1] * count)
        side = tray.length / count
    elif wish.side is not None or (wish.area is not None and not tray.round):
        side = wish.side if wish.side is not None else (wish.area or 1.0) / across
        if side > along + A_HAIR:
            return None
        edges = _lines_from_edge(along, side)
    else:
        count = wish.number(tray.area) or 1
        side = along / count
        edges = [i * side for i in range(count)] + [along]
    boxes: list[list[Point]] = []
    for a, b in pairwise(edges):
        box: list[Point] = [(a, 0.0), (b, 0.0), (b, across), (a, across)]
        boxes.append(box if upright else [(y, x) for x, y in box])
    lines: list[tuple[Point, Point]] = [((e, 0.0), (e, across)) for e in edges[1:-1]]
    if not upright:
        lines = [((a[1], a[0]), (b[1], b[0])) for a, b in lines]
    # In a round tray strips of one width are all pieces, though not of one weight.
    whole = 0.0 if tray.round else side * across
    word = say("from left to right") if upright else say("from top to bottom")
    rulers = (_ruler(word, along, edges),) if len(edges) > 2 else ()
    return TrayCutting(
        clipped(tray, boxes, whole), in_tray(tray, lines), rulers=rulers, side=side, columns=len(edges) - 1, rows=1
    )


def _even_chords(radius: float, shares: Sequence[float]) -> list[float]:
    """Where upright cuts divide a disc from left to right in areas that go as `shares`."""
    total, edges, so_far = sum(shares), [0.0], 0.0
    for share in shares[:-1]:
        so_far += share
        edges.append(_chord_at(radius, so_far / total))
    return [*edges, 2 * radius]


def _chord_at(radius: float, share: float) -> float:
    """Distance from the left rim at which the disc's left part has that share of it."""
    whole = math.pi * radius**2
    return _crossing(lambda x: _left_of(radius, x) - share * whole, 0.0, 2 * radius, whole)


def _crossing(rising: Callable[[float], float], low: float, high: float, size: float) -> float:
    """Where a rising function crosses 0 between `low` and `high`, to a hundred-millionth of `size`: false position, the
    stale end halved (the Illinois rule)."""
    at_low, at_high, middle = rising(low), rising(high), low
    for _ in range(100):
        middle = (low * at_high - high * at_low) / (at_high - at_low)
        here = rising(middle)
        if abs(here) < 1e-8 * size:
            break
        if here < 0:
            low, at_low, at_high = middle, here, at_high / 2
        else:
            high, at_high, at_low = middle, here, at_low / 2
    return middle


def _left_of(radius: float, x: float) -> float:
    """Area of a disc to the left of an upright chord `x` from its left rim."""
    d = radius - x
    return radius**2 * math.acos(max(-1.0, min(1.0, d / radius))) - d * math.sqrt(max(0.0, radius**2 - d**2))


def _even_bands(tray: Tray, count: int, aspect: float) -> TrayCutting:
    """A round tray in upright bands, each cut across, so that every piece has the same area and nothing is left.

    Bands take as many pieces as brings these nearest to the aspect asked for.
    """
    best = _best_bands(count, aspect)
    xs = _even_chords(tray.radius, best)
    outlines: list[list[Point]] = []
    lines: list[tuple[Point, Point]] = [((x, 0.0), (x, tray.width)) for x in xs[1:-1]]
    rulers = [_ruler(say("from left to right"), tray.length, xs)]
    for band, (x0, x1, pieces) in enumerate(zip(xs, xs[1:], best, strict=False)):
        ys = _even_heights(tray.radius, x0, x1, pieces)
        outlines += [[(x0, y0), (x1, y0), (x1, y1), (x0, y1)] for y0, y1 in pairwise(ys)]
        lines += [((x0, y), (x1, y)) for y in ys[1:-1]]
        rulers.append(_ruler(say("band {band}, from top to bottom", band=band + 1), tray.width, ys))
    return TrayCutting(
        clipped(tray, outlines, 0.0),
        in_tray(tray, lines),
        rulers=tuple(r for r in rulers if r.ticks),
        side=math.sqrt(tray.area / count),
        rows=max(best),
        columns=len(best),
    )


@lru_cache(maxsize=256)
def _best_bands(count: int, aspect: float) -> tuple[int, ...]:
    """Pieces of each band, whatever the size of the tray."""
    likely = [_band_counts(1.0, count, bands) for bands in _likely_bands(count)]
    best: list[int] = min(likely, key=lambda counts: _band_clumsiness(1.0, counts, aspect))
    return tuple(best)


def _likely_bands(count: int) -> range:
    """Numbers of bands worth trying: about the square root of the pieces, half and twice that."""
    root = math.sqrt(count)
    return range(max(1, math.floor(root / 2)), min(count, math.ceil(root * 2)) + 1)


def _band_counts(radius: float, count: int, bands: int) -> list[int]:
    """Pieces of each of `bands` bands about as wide: by their areas, none empty, the same from both sides."""
    width = 2 * radius / bands
    areas = [_left_of(radius, (i + 1) * width) - _left_of(radius, i * width) for i in range(bands)]
    exact = [count * area / sum(areas) for area in areas]
    counts = [max(1, math.floor(e)) for e in exact]
    order = sorted(range(bands), key=lambda i: (-(exact[i] - math.floor(exact[i])), abs(i - (bands - 1) / 2)))
    i = 0
    while sum(counts) < count:
        counts[order[i % bands]] += 1
        i += 1
    while sum(counts) > count:
        counts[max(range(bands), key=counts.__getitem__)] -= 1
    return counts


def _band_clumsiness(radius: float, counts: list[int], aspect: float) -> float:
    if min(counts) < 1:
        return math.inf
    xs = _even_chords(radius, counts)
    off = 0.0
    for x0, x1, pieces in zip(xs, xs[1:], counts, strict=False):
        middle = (x0 + x1) / 2
        tall = 2 * math.sqrt(max(1e-9, radius**2 - (radius - middle) ** 2)) / pieces
        shape = math.log((x1 - x0) / tall)
        off += pieces * min(abs(shape - math.log(aspect)), abs(shape + math.log(aspect)))
    return off


def _even_heights(radius: float, x0: float, x1: float, pieces: int) -> list[float]:
    """Level cuts that divide the band of a disc between two upright chords in equal areas."""
    whole = _left_of(radius, x1) - _left_of(radius, x0)

    def above(y: float) -> float:
        return _disc_corner_area(radius, x1, y) - _disc_corner_area(radius, x0, y)

    # The upper half mirrors the lower one.
    upper = [
        _crossing(lambda y, share=i / pieces: above(y) - share * whole, 0.0, 2 * radius, whole)  # type: ignore[misc]
        for i in range(1, (pieces + 1) // 2)
    ]
    middle = [radius] if pieces % 2 == 0 else []
    return [0.0, *upper, *middle, *(2 * radius - y for y in reversed(upper)), 2 * radius]


def _disc_corner_area(radius: float, x: float, y: float) -> float:
    """Area of a disc that lies both left of `x` and above `y`, each from the rim: the integral of its chords."""
    a, b = min(1.0, max(-1.0, x / radius - 1)), min(1.0, max(-1.0, y / radius - 1))
    reach = math.sqrt(max(0.0, 1 - b * b))  # half of the chord at level b

    def under_arc(u: float) -> float:
        return (u * math.sqrt(max(0.0, 1 - u * u)) + math.asin(u)) / 2

    end = min(a, reach)
    between = (under_arc(end) - under_arc(-reach), end + reach) if end > -reach else (0.0, 0.0)
    if b < 0:
        return radius**2 * (between[0] + b * between[1])
    return radius**2 * (2 * (under_arc(a) + math.pi / 4) - (between[0] - b * between[1]))


# From the middle: wedges and rings.


def _wedges(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    """Equal pieces from the middle to the edge. By side: the arc at the rim, or the length at the edge, about so long."""
    edge = math.pi * tray.length if tray.round else 2 * (tray.length + tray.width)
    count = wish.number(tray.area) or max(1, round(edge / (wish.side or edge)))
    return _rings_from_middle(tray, [count])


def _rings(tray: Tray, wish: CutRequest) -> TrayCutting | None:
    """Rings about the middle, each cut in as many as makes every piece the same area. By side: the width of a ring."""
    half = min(tray.length, tray.width) / 2
    if wish.side is not None:
        rings = max(1, round(half / wish.side))
        if wish.side > half * 1.5:
            return None
        counts = [2 * k + 1 for k in range(rings)]  # rings of one width have areas as the odd numbers
        if rings > 1:
            counts = [c * 3 for c in counts]
        return _rings_from_middle(tray, counts)
    return _rings_from_middle(tray, _ring_counts(wish.number(tray.area) or 1))


def _ring_counts(count: int) -> list[int]:
    """Pieces of each ring, from the middle out, so that rings are about as wide and pieces about as long as wide."""
    rings = max(1, round(math.sqrt(count / 3))) if count > 5 else 1
    weights = [2 * k + 1 for k in range(rings)]
    counts = [max(1, round(count * w / sum(weights))) for w in weights]
    counts[-1] += count - sum(counts)
    return counts


def _rings_from_middle(tray: Tray, counts: Sequence[int]) -> TrayCutting:
    """Rings of equal pieces: `counts` from the middle out. A single ring gives wedges."""
    total = sum(counts)
    scale = [0.0]
    scale += [math.sqrt(so_far / total) for so_far in accumulate(counts)]
    cells: list[TrayCell] = []
    lines: list[tuple[Point, Point]] = []
    rulers: list[KnifeRuler] = []
    last = len(counts) - 1
    for ring, pieces in enumerate(counts):
        inner, outer = scale[ring], scale[ring + 1]
        turns = [i / pieces for i in range(pieces)]
        for turn in turns:
            rim = _rim(tray, turn, turn + 1 / pieces)
            out = [_point_toward_rim(tray, p, outer) for p in rim]
            back = (
                [_point_toward_rim(tray, p, inner) for p in reversed(rim)]
                if inner > 0
                else ([_point_toward_rim(tray, rim[0], 0.0)] if pieces > 1 else [])
            )
            kind: Kind = "inner"
            if ring == last:
                at_corner = not tray.round and any(is_corner(tray, p) for p in rim)
                kind = "corner" if at_corner else "edge"
            cells.append(TrayCell((*out, *back), tray.area / total, kind))
        if pieces > 1:
            lines += [
                (_point_toward_rim(tray, _rim_at(tray, t), inner), _point_toward_rim(tray, _rim_at(tray, t), outer))
                for t in turns
            ]
            name = (
                say("round the rim")
                if last == 0
                else say("round the rim, for ring {ring} from the middle", ring=ring + 1)
            )
            rulers += _rim_rulers(tray, turns, name)
    inside = tuple(scale[1:-1])
    if inside:
        half = min(tray.length, tray.width) / 2
        rulers.insert(
            0, KnifeRuler(say("from the rim to the middle"), half, tuple(sorted(half * (1 - s) for s in inside)))
        )
    return TrayCutting(
        tuple(cells),
        tuple(lines),
        rings=inside,
        rulers=tuple(rulers),
        side=(math.pi * tray.length if tray.round else 2 * (tray.length + tray.width)) / counts[-1],
        rows=len(counts),
        columns=counts[-1],
    )


def _point_toward_rim(tray: Tray, rim: Point, share: float) -> Point:
    """The point at that share of the way from the middle to the rim."""
    cx, cy = tray.length / 2, tray.width / 2
    return cx + (rim[0] - cx) * share, cy + (rim[1] - cy) * share


def _rim_at(tray: Tray, turn: float) -> Point:
    """The point of the rim that has a share `turn` of the area before it, clockwise from the middle of the top.

    In an oblong each side's stretch counts by its distance from the middle, so that equal shares are equal areas.
    """
    turn %= 1.0
    if tray.round:
        angle = 2 * math.pi * turn - math.pi / 2
        return tray.radius * (1 + math.cos(angle)), tray.radius * (1 + math.sin(angle))
    length, width = tray.length, tray.width
    # Half a side, a quarter of the area belongs to each side: from the middle of the top round to it again.
    sides: tuple[tuple[Point, Point, float], ...] = (
        ((length / 2, 0.0), (length, 0.0), 1 / 8),
        ((length, 0.0), (length, width), 1 / 4),
        ((length, width), (0.0, width), 1 / 4),
        ((0.0, width), (0.0, 0.0), 1 / 4),
        ((0.0, 0.0), (length / 2, 0.0), 1 / 8),
    )
    for (ax, ay), (bx, by), share in sides:
        if turn <= share:
            part = turn / share
            return ax + (bx - ax) * part, ay + (by - ay) * part
        turn -= share
    return length / 2, 0.0


_CORNERS_AT = (1 / 8, 3 / 8, 5 / 8, 7 / 8)


def _rim(tray: Tray, start: float, end: float) -> list[Point]:
    """The rim between two turns: an arc in short chords, or a stretch of the edge with its corners."""
    if tray.round:
        steps = max(1, math.ceil((end - start) * 2 * math.pi / ARC_STEP))
        return [
            _rim_at(tray, start + (end - start) * i / steps) if i < steps else _rim_at(tray, end)
            for i in range(steps + 1)
        ]
    corners = [c for c in _CORNERS_AT if start + A_HAIR < c < end - A_HAIR]
    return [_rim_at(tray, t) for t in (start, *corners, end)]


def _rim_rulers(tray: Tray, turns: Sequence[float], name: str) -> list[KnifeRuler]:
    """Ticks round a round tray from the top, clockwise; or along each side of an oblong, from its left or top."""
    if tray.round:
        around = math.pi * tray.length
        return [KnifeRuler(name, around, tuple(t * around for t in turns))]
    points = [_rim_at(tray, t) for t in turns]
    knife_rulers = []
    for side, across, wall, length in (
        ("top", 1, 0.0, tray.length),
        ("right", 0, tray.length, tray.width),
        ("bottom", 1, tray.width, tray.length),
        ("left", 0, 0.0, tray.width),
    ):
        ticks = tuple(sorted(p[1 - across] for p in points if abs(p[across] - wall) < A_HAIR))
        if ticks:
            knife_rulers.append(KnifeRuler(say("{name}: {side}", name=name, side=side), length, ticks))
    return knife_rulers


_PATTERNS: dict[Pattern, Callable[[Tray, CutRequest], TrayCutting | None]] = {
    "squares": _squares,
    "oblongs": _oblongs,
    "strips": _strips,
    "diamonds": _diamonds,
    "triangles": _triangles,
    "wedges": _wedges,
    "rings": _rings,
}
PATTERNS: tuple[Pattern, ...] = tuple(_PATTERNS)

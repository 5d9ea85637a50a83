"""The floor of a tray and what is cut out of it: outlines clipped to its walls, with true areas under chords and arcs.

Lengths in mm, areas in mm². The origin is the top left corner of the tray, or of the square round a round one.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

Kind = Literal["corner", "edge", "inner", "offcut"]
Point = tuple[float, float]

ARC_STEP = math.radians(4)  # how finely an arc is drawn; areas do not depend on it
A_HAIR = 1e-6
_A_SPECK = 0.01  # mm²
_TOUCHING = 1e-4  # mm: a chord shorter than that is none
_WHOLE = 1e-4  # of a piece: smaller than whole by more is an offcut


@dataclass(frozen=True, slots=True)
class Tray:
    """The floor of a tin, a tray or a bag. A round one has length and width both its diameter."""

    length: float
    width: float
    round: bool = False

    @property
    def area(self) -> float:
        return math.pi * self.length**2 / 4 if self.round else self.length * self.width

    @property
    def radius(self) -> float:
        return self.length / 2


@dataclass(frozen=True, slots=True)
class TrayCell:
    """One piece from above: its outline (arcs drawn as short chords), its true area, and where it lies."""

    outline: tuple[Point, ...]
    area: float
    kind: Kind


def clipped(tray: Tray, outlines: Iterable[list[Point]], whole: float) -> tuple[TrayCell, ...]:
    """What of each convex outline lies in the tray. Smaller than `whole` is an offcut; 0 counts every cell as a piece."""
    cells = []
    for outline in outlines:
        if tray.round:
            shown, area = _in_disc(outline, tray.radius)
        else:
            shown = _in_box(outline, tray.length, tray.width)
            area = _shoelace(shown)
        if area < _A_SPECK:
            continue
        kind: Kind = "offcut" if area < whole * (1 - _WHOLE) else _cell_kind(tray, shown)
        cells.append(TrayCell(tuple(shown), area, kind))
    return tuple(cells)


def _cell_kind(tray: Tray, outline: Sequence[Point]) -> Kind:
    """By the sides that lie along the edge of the tray: two that meet make a corner."""
    if tray.round:
        r = tray.radius
        touches = sum(math.hypot(x - r, y - r) > r - A_HAIR for x, y in outline) > 1
        return "edge" if touches else "inner"
    sides = 0
    closed = [*outline, outline[0]]
    for axis, limit in ((0, 0.0), (0, tray.length), (1, 0.0), (1, tray.width)):
        sides += any(
            abs(a[axis] - limit) < A_HAIR and abs(b[axis] - limit) < A_HAIR and a != b for a, b in pairwise(closed)
        )
    return "corner" if any(is_corner(tray, p) for p in outline) and sides > 1 else "edge" if sides else "inner"


def is_corner(tray: Tray, point: Point) -> bool:
    """Whether a point is a corner of an oblong tray."""
    return min(point[0], tray.length - point[0]) < A_HAIR and min(point[1], tray.width - point[1]) < A_HAIR


def _shoelace(outline: Sequence[Point]) -> float:
    closed = [*outline, outline[0]] if outline else []
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(closed))) / 2


def _in_box(outline: list[Point], length: float, width: float) -> list[Point]:
    """A convex outline cut to the tray, one side after the other."""
    for axis, limit, keep in ((0, 0.0, 1), (0, length, -1), (1, 0.0, 1), (1, width, -1)):
        outline = _cut_by(outline, axis, limit, keep)
        if not outline:
            break
    return outline


def _cut_by(outline: list[Point], axis: int, limit: float, keep: int) -> list[Point]:
    kept: list[Point] = []
    for a, b in zip(outline, [*outline[1:], outline[0]], strict=True):
        inside_a, inside_b = (a[axis] - limit) * keep >= -1e-9, (b[axis] - limit) * keep >= -1e-9
        if inside_a:
            kept.append(a)
        if inside_a != inside_b:
            part = (limit - a[axis]) / (b[axis] - a[axis])
            kept.append((a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part))
    return kept


def disc_area(outline: Sequence[Point], radius: float) -> float:
    """Area that a convex outline shares with the disc of `radius` about (radius, radius)."""
    return _in_disc(list(outline), radius)[1]


def _in_disc(outline: list[Point], radius: float) -> tuple[list[Point], float]:
    """A convex outline cut to the disc: the outline with its arcs, and the true area under chords and arcs."""
    centred = [(x - radius, y - radius) for x, y in outline]
    if _signed_area(centred) < 0:
        centred.reverse()
    sides = zip(centred, [*centred[1:], centred[0]], strict=True)
    chords = [chord for chord in (_chord(a, b, radius) for a, b in sides) if chord]
    if not chords:
        whole = _holds_middle(centred)
        area = math.pi * radius**2 if whole else 0.0
        return ([_point_on_circle(radius, ARC_STEP * i) for i in range(90)] if whole else []), area
    doubled, shown = 0.0, []
    for (a, b), (c, _) in zip(chords, [*chords[1:], chords[0]], strict=True):
        doubled += a[0] * b[1] - b[0] * a[1]
        shown += [a, b]
        if math.dist(b, c) > 1e-7:
            start, end = math.atan2(b[1], b[0]), math.atan2(c[1], c[0])
            sweep = (end - start) % (2 * math.pi)
            doubled += radius**2 * sweep
            steps = math.ceil(sweep / ARC_STEP)
            shown += [
                (radius * math.cos(start + sweep * i / steps), radius * math.sin(start + sweep * i / steps))
                for i in range(1, steps)
            ]
    tidy = [p for p, q in zip(shown, [*shown[1:], shown[0]], strict=True) if math.dist(p, q) > 1e-7]
    return [(x + radius, y + radius) for x, y in tidy], doubled / 2


def _point_on_circle(radius: float, angle: float) -> Point:
    return radius * (1 + math.cos(angle)), radius * (1 + math.sin(angle))


def _signed_area(points: Sequence[Point]) -> float:
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True))


def _holds_middle(points: Sequence[Point]) -> bool:
    return all(a[0] * b[1] - b[0] * a[1] > 0 for a, b in zip(points, [*points[1:], points[0]], strict=True))


def _chord(a: Point, b: Point, radius: float) -> tuple[Point, Point] | None:
    """The part of a straight line that lies in the disc about the origin; None when none does, or it only touches."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    aa, bb = dx * dx + dy * dy, a[0] * dx + a[1] * dy
    inside = bb * bb - aa * (a[0] ** 2 + a[1] ** 2 - radius**2)
    if aa == 0 or inside <= 0:
        return None
    root = math.sqrt(inside)
    start, end = max(0.0, (-bb - root) / aa), min(1.0, (-bb + root) / aa)
    if (end - start) * math.sqrt(aa) <= _TOUCHING:
        return None
    return (a[0] + dx * start, a[1] + dy * start), (a[0] + dx * end, a[1] + dy * end)


def in_tray(tray: Tray, lines: Iterable[tuple[Point, Point]]) -> tuple[tuple[Point, Point], ...]:
    """The knife's lines as far as they run over the tray."""
    result = []
    for a, b in lines:
        if tray.round:
            r = tray.radius
            part = _chord((a[0] - r, a[1] - r), (b[0] - r, b[1] - r), r)
            if part:
                (ax, ay), (bx, by) = part
                result.append(((ax + r, ay + r), (bx + r, by + r)))
        else:
            kept = _segment_in_box(a, b, tray.length, tray.width)
            if kept and math.dist(*kept) > 0.5:
                result.append(kept)
    return tuple(result)


def _segment_in_box(a: Point, b: Point, length: float, width: float) -> tuple[Point, Point] | None:
    """A straight line cut to the box from (0, 0) to (length, width)."""
    start, end = 0.0, 1.0
    for axis, limit in ((0, length), (1, width)):
        step = b[axis] - a[axis]
        if abs(step) < 1e-12:
            if not -A_HAIR <= a[axis] <= limit + A_HAIR:
                return None
            continue
        value, two = sorted((-a[axis] / step, (limit - a[axis]) / step))
        start, end = max(start, value), min(end, two)
    if start >= end:
        return None
    dx, dy = b[0] - a[0], b[1] - a[1]
    return (a[0] + dx * start, a[1] + dy * start), (a[0] + dx * end, a[1] + dy * end)

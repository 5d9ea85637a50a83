"""Drawings of hands for one piece: folding a leaf, closing a skin, cutting a rope, turning out a cake. In mm, as frames.

Bend lines and levels are geometry, exact for the sizes given. Where dough stretches, the frame says that it is an estimate.
A frame is drawn for the right hand; the left one sees it mirrored.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kemble.core.sentences import say

Kind = Literal[
    "leaf", "under", "foil", "dough", "filling", "grain", "cake", "tin", "paper", "string", "bend", "cut", "plate"
]
Point = tuple[float, float]

BELLY = 1.5  # the middle of a disc that is to be closed, over its mean thickness; kitchen estimate, 1.3-1.8
RIM = 0.5  # ... and its rim; kitchen estimate
PRACTICE = 3  # first pieces, to find the size
_ARC = 48


@dataclass(frozen=True, slots=True)
class HandStroke:
    """A line or an area of a frame, in mm, y downwards."""

    kind: Kind
    points: tuple[Point, ...]
    closed: bool = True


@dataclass(frozen=True, slots=True)
class HandPush:
    """Where something is moved: an arrow from one point to another."""

    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class HandMeasure:
    """A length with its ends, told in mm."""

    start: Point
    end: Point
    mm: float


@dataclass(frozen=True, slots=True)
class HandFrame:
    """One move of the hands. `estimate`: dough stretches as it likes; the lines say about where it goes."""

    says: str
    strokes: tuple[HandStroke, ...]
    pushes: tuple[HandPush, ...] = ()
    spans: tuple[HandMeasure, ...] = ()
    estimate: bool = False

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Left, top, width and height of all that is drawn."""
        points = [point for stroke in self.strokes for point in stroke.points]
        points += [point for push in self.pushes for point in (push.start, push.end)]
        points += [point for span in self.spans for point in (span.start, span.end)]
        xs, ys = [x for x, _ in points], [y for _, y in points]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)


def _rectangle(x: float, y: float, width: float, height: float) -> tuple[Point, ...]:
    return ((x, y), (x + width, y), (x + width, y + height), (x, y + height))


def _leaf(x: float, y: float, length: float, width: float) -> tuple[Point, ...]:
    """A long leaf, pointed at its ends, lying along x, `y` its middle."""
    tip = 0.18 * length
    half = width / 2
    return (
        (x, y),
        (x + tip, y - half),
        (x + length - tip, y - half),
        (x + length, y),
        (x + length - tip, y + half),
        (x + tip, y + half),
    )


def _arc(cx: float, cy: float, r: float, start: float, end: float, n: int = _ARC) -> tuple[Point, ...]:
    """Points of an arc; angles in degrees, 0 to the right, clockwise on the page."""
    step = (end - start) / n
    return tuple(
        (cx + r * math.cos(math.radians(start + i * step)), cy + r * math.sin(math.radians(start + i * step)))
        for i in range(n + 1)
    )


def cone(
    length_mm: float,
    width_mm: float,
    leaves: int,
    bare: float,
    edge_mm: float,
    fills: Sequence[tuple[Kind, float]],
    string_mm: float,
) -> list[HandFrame]:
    """A tetrahedron folded from one leaf or several: laid, bent to a cone, filled, lidded, tied.

    `fills` are what goes in, from the tip up, in ml. The cone's wall is three equilateral triangles about one point of the
    leaf's edge, so it is bent there at 60 and at 120 degrees; filled to h of its height H it holds (h/H)³ of it.
    """
    wall = edge_mm * math.sqrt(3) / 2
    across = width_mm * (1 + bare * (leaves - 1))
    mouth_y, half, height = 0.0, edge_mm / 2, wall
    front: tuple[Point, ...] = ((-half, mouth_y), (half, mouth_y), (0.0, height))
    brim = max(0.0, across - wall)
    flap: tuple[Point, ...] = ((-half, mouth_y), (-half * 0.9, -brim), (half * 0.9, -brim), (half, mouth_y))
    bent = HandFrame(
        say("One side over the other: a cone without a hole at its tip. Hold it shut between finger and thumb."),
        (
            HandStroke("under", flap),
            HandStroke("leaf", front),
            HandStroke("bend", ((0, height), (half * 0.35, mouth_y)), closed=False),
        ),
        (),
        (HandMeasure((-half, -brim - 8), (half, -brim - 8), edge_mm),),
    )
    return [
        _lay_leaves(length_mm, width_mm, leaves, bare, edge_mm),
        bent,
        _fill_parcel(edge_mm, height, fills, flap),
        *_close_parcel(half, height, brim, edge_mm, string_mm),
    ]


def _lay_leaves(length_mm: float, width_mm: float, leaves: int, bare: float, edge_mm: float) -> HandFrame:
    """The leaves laid over each other, and the two lines along which they are bent."""
    across = width_mm * (1 + bare * (leaves - 1))
    laid = tuple(
        HandStroke(
            "leaf" if i == leaves - 1 else "under",
            _leaf(0, across - width_mm / 2 - i * bare * width_mm, length_mm, width_mm),
        )
        for i in range(leaves)
    )
    tip = (length_mm / 2, across)
    wall = edge_mm * math.sqrt(3) / 2
    bends = tuple(
        HandStroke(
            "bend",
            (tip, (tip[0] + edge_mm * math.cos(math.radians(a)), across - edge_mm * math.sin(math.radians(a)))),
            closed=False,
        )
        for a in (60, 120)
    )
    how = (
        say("One leaf")
        if leaves == 1
        else say(
            "{leaves} leaves side by side, each over {bare:.0f} % of the next", leaves=leaves, bare=100 * (1 - bare)
        )
    )
    return HandFrame(
        say(
            "{how}, shiny side up. The tip of the cone is the middle of the near edge; it bends along the two lines.",
            how=how,
        ),
        (*laid, *bends),
        (HandPush((tip[0] + 0.9 * edge_mm, across - 0.1 * wall), (tip[0], across - 0.9 * wall)),),
        (HandMeasure((tip[0] - edge_mm, across + 12), (tip[0], across + 12), edge_mm),),
    )


def _close_parcel(half: float, height: float, brim: float, edge_mm: float, string_mm: float) -> list[HandFrame]:
    """The long end over the mouth, and the string round the waist."""
    mouth_y = 0.0
    frames: list[HandFrame] = []
    lid: tuple[Point, ...] = ((-half, mouth_y), (half, mouth_y), (0.0, height * 0.95))
    frames.append(
        HandFrame(
            say("The long end down over the mouth, as a lid; pinch both corners, fold what is left round to the side."),
            (HandStroke("leaf", lid), HandStroke("bend", ((-half, mouth_y), (half, mouth_y)), closed=False)),
            (
                HandPush((0.0, -brim), (0.0, height * 0.6)),
                HandPush((half * 1.25, mouth_y), (half * 0.5, height * 0.25)),
            ),
        )
    )
    waist = height / 2
    turns = tuple(
        HandStroke(
            "string", ((-half * 0.62 + d, waist + d * 0.6), (half * 0.62 + d, waist - 4 + d * 0.6)), closed=False
        )
        for d in (-2.5, 0.0, 2.5)
    )
    frames.append(
        HandFrame(
            say("Round the waist, three turns, not tight: the grain swells. A bow, so that it opens again."),
            (HandStroke("leaf", lid), *turns),
            (),
            (HandMeasure((-half, height + 10), (-half + min(string_mm, edge_mm), height + 10), string_mm),)
            if string_mm
            else (),
        )
    )
    return frames


def level(share: float) -> float:
    """How high a cone stands that is filled to a share of its volume, as a share of its height."""
    return float(min(1.0, max(0.0, share)) ** (1 / 3))


def _fill_parcel(edge: float, height: float, fills: Sequence[tuple[Kind, float]], flap: tuple[Point, ...]) -> HandFrame:
    whole = edge**3 / (6 * math.sqrt(2)) / 1000.0
    half, strokes, spans = edge / 2, [HandStroke("under", flap)], []
    strokes.append(HandStroke("leaf", ((-half, 0.0), (half, 0.0), (0.0, height))))
    below, into = 0.0, 0.0
    for kind, ml in fills:
        into += ml
        at = level(into / whole)
        low, high = below * height, at * height
        strokes.append(
            HandStroke(
                kind,
                (
                    (-half * at, height - high),
                    (half * at, height - high),
                    (half * below, height - low),
                    (-half * below, height - low),
                ),
            )
        )
        below = at
    room = height * (1 - below)
    if room > 1:
        spans.append(HandMeasure((half + 8, 0.0), (half + 8, room), room * math.sqrt(2 / 3) / (math.sqrt(3) / 2)))
    return HandFrame(
        say("Grain, filling, grain. Leave it that much room below the mouth: it swells."),
        tuple(strokes),
        (),
        tuple(spans),
    )


def packet(side_mm: float, thick_mm: float, foil_mm: float, across_mm: float) -> list[HandFrame]:
    """A flat packet in a sheet of foil: bent at its edges, then the ends folded twice and turned in."""
    sheet = HandStroke("foil", _rectangle(0, 0, foil_mm, across_mm))
    x, y = (foil_mm - side_mm) / 2, (across_mm - side_mm) / 2
    lump = HandStroke("dough", _rectangle(x, y, side_mm, side_mm))
    lines = tuple(
        HandStroke("bend", ((0, at), (foil_mm, at)), closed=False)
        for at in (y - thick_mm, y, y + side_mm, y + side_mm + thick_mm)
    )
    ends = tuple(
        HandStroke("bend", ((at, 0), (at, across_mm)), closed=False) for at in (x - thick_mm, x + side_mm + thick_mm)
    )
    folded_y = y - thick_mm
    folded_h = side_mm + 2 * thick_mm
    return [
        HandFrame(
            say("In the middle of the sheet, pressed flat. It bends along the lines, a thickness beside its edges."),
            (sheet, lump, *lines, *ends),
            (),
            (
                HandMeasure((x, y + side_mm + 6), (x + side_mm, y + side_mm + 6), side_mm),
                HandMeasure((0, across_mm + 10), (foil_mm, across_mm + 10), foil_mm),
            ),
        ),
        HandFrame(
            say("Far and near edge together over it, folded over twice. Loose: it swells."),
            (
                HandStroke("foil", _rectangle(0, folded_y, foil_mm, folded_h)),
                HandStroke("bend", ((0, folded_y + folded_h / 2), (foil_mm, folded_y + folded_h / 2)), closed=False),
            ),
            (
                HandPush((foil_mm / 2, folded_y - 14), (foil_mm / 2, folded_y + folded_h / 2 - 4)),
                HandPush((foil_mm / 2, folded_y + folded_h + 14), (foil_mm / 2, folded_y + folded_h / 2 + 4)),
            ),
        ),
        HandFrame(
            say("Each end folded twice, and under. No seam looks down."),
            (HandStroke("foil", _rectangle(x - thick_mm, folded_y, side_mm + 2 * thick_mm, folded_h)),),
            (
                HandPush((x - thick_mm - 16, folded_y + folded_h / 2), (x - 2, folded_y + folded_h / 2)),
                HandPush(
                    (x + side_mm + thick_mm + 16, folded_y + folded_h / 2), (x + side_mm + 2, folded_y + folded_h / 2)
                ),
            ),
        ),
    ]


def stretch_over_ball(disc_mm: float, core_mm: float) -> float:
    """How many times longer a disc must get from rim to rim to close over a ball: half its girth on either side."""
    return math.pi * core_mm / disc_mm


def draw_skin_over(disc_mm: float, core_mm: float, outer_mm: float, what: str, within: str) -> list[HandFrame]:
    """A skin drawn over a ball: a disc with a belly, the ball on it, drawn up, closed. Sections, true to size."""
    r, c, o = disc_mm / 2, core_mm / 2, outer_mm / 2
    skin_ml = math.pi / 6 * (outer_mm**3 - core_mm**3)
    thick = skin_ml / (math.pi * r * r)
    belly, rim = thick * BELLY, thick * RIM
    disc: tuple[Point, ...] = (
        (-r, 0.0),
        (-r, -rim),
        (-r * 0.5, -(belly + rim) / 2 - 0.2 * thick),
        (0.0, -belly),
        (r * 0.5, -(belly + rim) / 2 - 0.2 * thick),
        (r, -rim),
        (r, 0.0),
    )
    times = stretch_over_ball(disc_mm, core_mm)
    frames = [
        HandFrame(
            say(
                "Flat, with a belly in the middle and a thin rim. {first}{others} that wide.",
                first=what[:1].upper(),
                others=what[1:],
            ),
            (HandStroke("dough", disc),),
            (HandPush((0.0, -belly - 22), (0.0, -belly - 4)),),
            (HandMeasure((-r, 10), (r, 10), disc_mm),),
        ),
        _cup(
            c,
            o,
            90.0,
            say(
                "The {within} in the middle. Turn it in the hollow of the hand, thumb on top: the rim climbs.",
                within=within,
            ),
        ),
        _cup(
            c,
            o,
            150.0,
            say("Higher, turn by turn. It must get {times:.1f} times as long to close.", times=times)
            if times > 1.05
            else say("Higher, turn by turn. It is long enough to close without being drawn."),
        ),
    ]
    whole = HandStroke("dough", _arc(0, 0, o, 0, 360))
    heart = HandStroke("filling", _arc(0, 0, c, 0, 360))
    frames.append(
        HandFrame(
            say("Pinch it shut, twist off what is too much, roll it once. The seam lies down."),
            (whole, heart, HandStroke("bend", ((0.0, o), (0.0, c)), closed=False)),
            (),
            (HandMeasure((-o, o + 9), (o, o + 9), outer_mm), HandMeasure((c, 0.0), (o, 0.0), o - c)),
        )
    )
    return frames


def _cup(core: float, outer: float, angle: float, says: str) -> HandFrame:
    """A ball in a skin that has climbed to so many degrees from its bottom, as thick as it would be if even."""
    start, end = 90.0 - angle, 90.0 + angle
    inner = _arc(0, 0, core, start, end)
    out = _arc(0, 0, outer, start, end)
    rim = (inner[0], inner[-1])
    return HandFrame(
        says,
        (HandStroke("filling", _arc(0, 0, core, 0, 360)), HandStroke("dough", (*out, *reversed(inner)))),
        tuple(HandPush((x * 1.5, y + 8), (x * 1.12, y - 8)) for x, y in rim),
        estimate=True,
    )


def rope(across_mm: float, every_mm: float, pieces: int) -> list[HandFrame]:
    """A rope and where it is cut; the first few are practice."""
    shown = min(pieces, 8)
    long = shown * every_mm
    body = HandStroke("dough", _rectangle(0, 0, long, across_mm))
    cuts = tuple(
        HandStroke("cut", ((i * every_mm, -6), (i * every_mm, across_mm + 6)), closed=False) for i in range(1, shown)
    )
    practice = min(PRACTICE, shown)
    return [
        HandFrame(
            say(
                "A rope that thick, cut that long. The first {practice} are practice: weigh them, then cut the rest by eye.",
                practice=practice,
            )
            if pieces > PRACTICE
            else say("A rope that thick, cut that long."),
            (body, *cuts),
            (),
            (
                HandMeasure((0, across_mm + 12), (every_mm, across_mm + 12), every_mm),
                HandMeasure((long + 10, 0), (long + 10, across_mm), across_mm),
            ),
        )
    ]


def turned_out(wide_mm: float, high_mm: float, deep_mm: float, *, lined: bool) -> list[HandFrame]:
    """A tin in section: loosened, a plate over it, turned, lifted."""
    cake = HandStroke("cake", _rectangle(0, high_mm - deep_mm, wide_mm, deep_mm))
    tin = HandStroke("tin", ((0, 0), (0, high_mm), (wide_mm, high_mm), (wide_mm, 0)), closed=False)
    paper = (HandStroke("paper", ((0, high_mm - 1), (wide_mm, high_mm - 1)), closed=False),) if lined else ()
    plate = HandStroke("plate", _rectangle(-12, -8, wide_mm + 24, 4))
    flipped = HandStroke("cake", _rectangle(0, -4 + 8, wide_mm, deep_mm))
    under = HandStroke("plate", _rectangle(-12, deep_mm + 4, wide_mm + 24, 4))
    over_tin = HandStroke(
        "tin",
        (
            (0, -10 - high_mm + deep_mm),
            (0, -10 - high_mm),
            (wide_mm, -10 - high_mm),
            (wide_mm, -10 - high_mm + deep_mm),
        ),
        closed=False,
    )
    return [
        HandFrame(
            say("Cold enough to cut. An oiled knife round the wall, point on the floor, blade against the tin."),
            (cake, tin, *paper, HandStroke("cut", ((2, -18), (2, high_mm - 2)), closed=False)),
            (HandPush((14, -14), (wide_mm - 14, -14)),),
            (HandMeasure((wide_mm + 10, high_mm - deep_mm), (wide_mm + 10, high_mm), deep_mm),),
        ),
        HandFrame(
            say("An oiled plate on top, both hands across, and over in one go."),
            (cake, tin, *paper, plate),
            (HandPush((wide_mm + 34, high_mm * 0.8), (wide_mm + 34, -high_mm * 0.4)),),
        ),
        HandFrame(
            say("Wait until it lets go; lift the tin straight up")
            + (say(", then draw off the paper.") if lined else "."),
            (flipped, under, over_tin),
            (HandPush((wide_mm / 2, -12 - high_mm), (wide_mm / 2, -34 - high_mm)),),
        ),
    ]

"""Patterns at full size, to cut and to fold by: what lines a mould, where the knife meets an edge, a cutter, a leaf or foil
with its folds, a rope to be cut. Every length in mm, on the kitchen's own paper.

What is larger than a sheet of paper is laid on several, each lapping over the one before, with the same letter at both
ends of a lap. A ruler on each says whether the printer kept to size.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from textwrap import wrap
from typing import Literal
from xml.sax.saxutils import escape, quoteattr

from kemble.core.geometry.leaf_folds import OVERLAP_MM, lining_of
from kemble.core.kitchen.document import Tin
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import WorkResult

PAPER_MM: tuple[float, float] = (210.0, 297.0)
MARGIN_MM = 10.0
_HEAD_MM, _RULER_MM = 16.0, 14.0  # over and under what is drawn, on every page
_LAP_MM = 10.0
_GAP_MM = 12.0  # between two patterns on one page
_HEAD_LETTERS = 116  # to a line over a pattern
_STRIP_MM = 22.0  # width of a strip that is laid along an edge
RULER_LONG_MM = 100.0

Stroke = Literal["cut", "fold", "mark"]
_DASHES: dict[Stroke, str] = {"cut": "", "fold": "5 2 1 2", "mark": "1 2"}
_WIDTHS: dict[Stroke, float] = {"cut": 0.4, "fold": 0.3, "mark": 0.25}


@dataclass(frozen=True, slots=True)
class PatternLine:
    """A path through points; closed when it ends where it began."""

    points: tuple[tuple[float, float], ...]
    stroke: Stroke = "cut"


@dataclass(frozen=True, slots=True)
class PatternRing:
    """A whole circle."""

    x: float
    y: float
    r: float
    stroke: Stroke = "cut"


@dataclass(frozen=True, slots=True)
class PatternText:
    x: float
    y: float
    text: str
    size: float


@dataclass(frozen=True, slots=True)
class CuttingPattern:
    """One pattern, as large as it is: its corner at 0, 0. `says` is how it is used, `times` how many are cut."""

    id: str
    title: str
    says: str
    width: float
    height: float
    lines: tuple[PatternLine, ...] = ()
    rings: tuple[PatternRing, ...] = ()
    words: tuple[PatternText, ...] = ()
    times: int = 1


@dataclass(frozen=True, slots=True)
class PatternTile:
    """What of a pattern lies on one page: from `x`, `y` of it, so much; where on the page; and its name among them."""

    template: CuttingPattern
    x: float
    y: float
    width: float
    height: float
    name: str = ""
    at: tuple[float, float] = (0.0, 0.0)


@dataclass(slots=True)
class PatternPage:
    tiles: list[PatternTile] = field(default_factory=list)


def templates_of(sheet: Sheet, worked: WorkResult) -> list[CuttingPattern]:
    """Every pattern that a sheet gives, in the order of the work; none of one that cannot be worked."""
    if worked.problems:
        return []
    return [*_linings(sheet, worked), *_piece_patterns(sheet, worked), *_wraps(sheet, worked), *_edges(worked)]


def _box(width: float, height: float, stroke: Stroke = "cut") -> PatternLine:
    return PatternLine(((0, 0), (width, 0), (width, height), (0, height), (0, 0)), stroke)


def _linings(sheet: Sheet, worked: WorkResult) -> Iterator[CuttingPattern]:
    """The floor and the strip round the wall of each size of mould."""
    shape = worked.drawings.shape
    if shape is None or shape.kind != "tin" or shape.bag:
        return
    for number, tinful in enumerate(shape.tins, start=1):
        tin, of = tinful.tin, f"-{number}" if len(shape.tins) > 1 else ""
        name = tin.name or say("the tin")
        rim = math.pi * tin.diameter_mm if tin.shape == "round" else 2 * (tin.length_mm + tin.width_mm)
        lining = lining_of(tin.floor_mm2, rim, tin.height_mm)
        yield _floor(tin, f"floor{of}", say("Floor of {name}", name=name), tinful.count)
        long, wide = lining.strip_long_mm, lining.strip_wide_mm
        yield CuttingPattern(
            f"strip{of}",
            say("Strip round {name}", name=name),
            say(
                "{long:.0f} by {wide:.0f} mm: once round the wall. It laps over itself from the dotted line; the dashed edge goes under the floor, snipped where it bends.",
                long=long,
                wide=wide,
            ),
            long,
            wide,
            lines=(
                _box(long, wide),
                PatternLine(((0, wide - OVERLAP_MM / 2), (long, wide - OVERLAP_MM / 2)), "fold"),
                PatternLine(((long - OVERLAP_MM, 0), (long - OVERLAP_MM, wide)), "mark"),
            ),
            times=tinful.count,
        )


def _floor(tin: Tin, name: str, title: str, count: int) -> CuttingPattern:
    if tin.shape == "round":
        d = tin.diameter_mm
        return CuttingPattern(
            name,
            title,
            say("{d:.0f} mm across.", d=d),
            d,
            d,
            rings=(PatternRing(d / 2, d / 2, d / 2),),
            lines=_cross(d, d),
            times=count,
        )
    long, wide = tin.length_mm, tin.width_mm
    says = say("{long:.0f} by {wide:.0f} mm.", long=long, wide=wide)
    return CuttingPattern(name, title, says, long, wide, lines=(_box(long, wide), *_cross(long, wide)), times=count)


def _cross(width: float, height: float) -> tuple[PatternLine, ...]:
    """The middle, to fold a sheet in four by."""
    x, y = width / 2, height / 2
    return (PatternLine(((x - 6, y), (x + 6, y)), "mark"), PatternLine(((x, y - 6), (x, y + 6)), "mark"))


def _piece_patterns(sheet: Sheet, worked: WorkResult) -> Iterator[CuttingPattern]:
    """The skin pressed round a filling, the cutter, and a rope with its cuts."""
    facts = worked.facts
    if "shape.disc_mm" in facts:
        d = float(facts["shape.disc_mm"].value)
        says = say("{d:.0f} mm: press the ball of dough as wide as this, then lay the filling on.", d=d)
        yield CuttingPattern(
            "skin",
            say("A skin, pressed flat"),
            says,
            d,
            d,
            rings=(PatternRing(d / 2, d / 2, d / 2),),
            lines=_cross(d, d),
        )
    cutter = sheet.rolled.cutter_mm
    if cutter:
        says = say("{cutter:.0f} mm across.", cutter=cutter)
        if sheet.rolled.shape == "round":
            yield CuttingPattern(
                "cutter",
                say("The cutter"),
                says,
                cutter,
                cutter,
                rings=(PatternRing(cutter / 2, cutter / 2, cutter / 2),),
            )
        else:
            yield CuttingPattern("cutter", say("The cutter"), says, cutter, cutter, lines=(_box(cutter, cutter),))
    if "shape.rope_mm" in facts and "shape.rope_cut_mm" in facts:
        thick, each = (float(facts[key].value) for key in ("shape.rope_mm", "shape.rope_cut_mm"))
        count = max(2, int(250 // each))
        yield CuttingPattern(
            "rope",
            say("A rope and its cuts"),
            say("{thick:.0f} mm thick, cut every {each:.1f} mm: lay the rope beside it.", thick=thick, each=each),
            count * each,
            thick,
            lines=(
                _box(count * each, thick),
                *(PatternLine(((i * each, 0), (i * each, thick)), "fold") for i in range(1, count)),
            ),
        )


def _wraps(sheet: Sheet, worked: WorkResult) -> Iterator[CuttingPattern]:
    """A leaf with the folds of its parcel, and foil round a packet."""
    facts, leaf = worked.facts, sheet.wrap.leaf_mm
    if leaf and "shape.edge_mm" in facts:
        long, wide = leaf
        edge = float(facts["shape.edge_mm"].value)
        folds = tuple(
            PatternLine(((x, 0), (x, wide)), "fold")
            for x in (edge * i for i in range(1, int(long // edge) + 1))
            if x < long - 5
        )
        yield CuttingPattern(
            "leaf",
            say("A leaf and its folds"),
            say(
                "{long:.0f} by {wide:.0f} mm. The cone is rolled over the first folds, the lid comes over at the third; each edge of the parcel is {edge:.0f} mm.",
                long=long,
                wide=wide,
                edge=edge,
            ),
            long,
            wide,
            lines=(_leaf(long, wide), *folds),
        )
    if "shape.foil_mm" in facts and "shape.foil_across_mm" in facts:
        long, wide = (float(facts[key].value) for key in ("shape.foil_mm", "shape.foil_across_mm"))
        side = float(facts["shape.side_mm"].value) if "shape.side_mm" in facts else wide / 2
        inset = (wide - side) / 2
        folds = tuple(PatternLine(((0, y), (long, y)), "fold") for y in (inset, wide - inset)) if inset > 2 else ()
        ends = tuple(PatternLine(((x, 0), (x, wide)), "fold") for x in ((long - side) / 2, (long + side) / 2))
        yield CuttingPattern(
            "foil",
            say("Leaf or foil round a packet"),
            say(
                "{long:.0f} by {wide:.0f} mm. The square in the middle takes the packet; the long folds come over first, then the ends.",
                long=long,
                wide=wide,
            ),
            long,
            wide,
            lines=(_box(long, wide), *folds, *ends),
        )


def _leaf(long: float, wide: float) -> PatternLine:
    """A leaf's outline: widest in its middle third, pointed at the tip."""
    upper = [(long * t, wide / 2 - wide / 2 * math.sin(math.pi * t**0.7)) for t in (i / 40 for i in range(41))]
    lower = [(x, wide - y) for x, y in reversed(upper)]
    return PatternLine((*upper, *lower))


def _edges(worked: WorkResult) -> Iterator[CuttingPattern]:
    """A strip for each edge of each tray, with every place at which the knife meets it."""
    drawn = worked.drawings.cut
    if drawn is None:
        return
    for t, tray in enumerate(drawn.trays, start=1):
        of = say(" of {name}", name=tray.name) if tray.name else ""
        for r, ruler in enumerate(tray.rulers, start=1):
            marks = tuple(PatternLine(((x, 0), (x, _STRIP_MM * 0.55))) for x in ruler.ticks)
            words = tuple(
                PatternText(x, _STRIP_MM * 0.55 + 4.2 + (4.0 if i % 2 else 0.0), f"{x:.0f}", 3.2)
                for i, x in enumerate(ruler.ticks)
            )
            yield CuttingPattern(
                f"edge-{t}-{r}",
                say("Knife’s marks {along}{of}", along=ruler.along, of=of),
                say(
                    "{length_mm:.0f} mm: laid along the edge, the knife goes down at each mark.",
                    length_mm=ruler.length_mm,
                ),
                ruler.length_mm,
                _STRIP_MM,
                lines=(_box(ruler.length_mm, _STRIP_MM), *marks),
                words=words,
            )


def pages_of(templates: Sequence[CuttingPattern], paper: tuple[float, float] = PAPER_MM) -> list[PatternPage]:
    """The patterns on paper, one after another: each turned if it then takes fewer pages, cut into lapping pieces where it
    is larger than one, and as many to a page as have room."""
    across, down = paper[0] - 2 * MARGIN_MM, paper[1] - 2 * MARGIN_MM - _HEAD_MM - _RULER_MM
    pages: list[PatternPage] = []
    y = down + 1.0
    for template in templates:
        straight, turned = (list(_tiles(pattern, across, down)) for pattern in (template, _rotated(template)))
        for tile in turned if _takes(turned, down) < _takes(straight, down) else straight:
            needs = tile.height + _GAP_MM
            if y + needs > down + _GAP_MM or not pages:
                pages.append(PatternPage())
                y = 0.0
            pages[-1].tiles.append(
                PatternTile(tile.template, tile.x, tile.y, tile.width, tile.height, tile.name, (0.0, y + _GAP_MM - 4.0))
            )
            y += needs
    return pages


def _takes(tiles: Sequence[PatternTile], down: float) -> int:
    """How many pages so many tiles take, all of one size."""
    return math.ceil(len(tiles) / max(1, int((down + _GAP_MM) // (tiles[0].height + _GAP_MM))))


def _rotated(pattern: CuttingPattern) -> CuttingPattern:
    """The pattern on its side: its left edge comes to lie on top."""

    def turn(x: float, y: float) -> tuple[float, float]:
        return (pattern.height - y, x)

    return CuttingPattern(
        pattern.id,
        pattern.title,
        pattern.says,
        pattern.height,
        pattern.width,
        tuple(PatternLine(tuple(turn(*point) for point in line.points), line.stroke) for line in pattern.lines),
        tuple(PatternRing(*turn(ring.x, ring.y), ring.r, ring.stroke) for ring in pattern.rings),
        tuple(PatternText(*turn(word.x, word.y), word.text, word.size) for word in pattern.words),
        pattern.times,
    )


def _tiles(pattern: CuttingPattern, across: float, down: float) -> Iterator[PatternTile]:
    down -= _GAP_MM
    columns, rows = _page_spans(pattern.width, across), _page_spans(pattern.height, down)
    several = len(columns) * len(rows) > 1
    for r, (y, height) in enumerate(rows):
        for c, (x, width) in enumerate(columns):
            name = f"{chr(ord('A') + r)}{c + 1}" if several else ""
            yield PatternTile(pattern, x, y, width, height, name)


def _page_spans(length: float, room: float) -> list[tuple[float, float]]:
    """Where each part of a length begins, and how long it is: none longer than the room, each lapping over the next."""
    if length <= room:
        return [(0.0, length)]
    count = math.ceil((length - _LAP_MM) / (room - _LAP_MM))
    each = (length + (count - 1) * _LAP_MM) / count
    return [(i * (each - _LAP_MM), each) for i in range(count)]


def page_svg(page: PatternPage, number: int, of: int, title: str, paper: tuple[float, float] = PAPER_MM) -> str:
    """One page as SVG whose units are mm of paper: a head, the patterns, and the ruler that tells whether it is true."""
    width, height = paper
    result = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}mm" height="{height:g}mm" viewBox="0 0 {width:g} {height:g}" '
        'font-family="Atkinson Hyperlegible Next, sans-serif" fill="#1d2830" stroke="none">',
        _text_svg(MARGIN_MM, MARGIN_MM + 6, title, 5.4, anchor="start"),
        _text_svg(
            width - MARGIN_MM,
            MARGIN_MM + 6,
            say("{number} of {of}; print at 100 %", number=number, of=of),
            3.4,
            anchor="end",
        ),
    ]
    for i, tile in enumerate(page.tiles):
        result.append(_tile_svg(tile, f"p{number}t{i}"))
    result += [_ruler(MARGIN_MM, height - MARGIN_MM - 5), "</svg>"]
    return "".join(result)


def _tile_svg(tile: PatternTile, key: str) -> str:
    x0, y0 = MARGIN_MM + tile.at[0], MARGIN_MM + _HEAD_MM + tile.at[1]
    pattern, drawn = tile.template, _pattern_svg(tile.template)
    times = say(" Cut {times}.", times=pattern.times) if pattern.times > 1 else ""
    part = say(", piece {name}: lay the letters over each other", name=tile.name) if tile.name else ""
    words = wrap(f"{pattern.title}{part}. {pattern.says}{times}", _HEAD_LETTERS)[:2]
    head = "".join(_text_svg(x0, y0 - 2 - 3.8 * i, line, 3.0, anchor="start") for i, line in enumerate(reversed(words)))
    if tile.x > 0:
        lap = tile.x + _LAP_MM
        drawn += _path(PatternLine(((lap, tile.y), (lap, tile.y + tile.height)), "mark"))
    if tile.y > 0:
        lap = tile.y + _LAP_MM
        drawn += _path(PatternLine(((tile.x, lap), (tile.x + tile.width, lap)), "mark"))
    pad = 0.6  # half a stroke, and a hair
    clip = (
        f'<clipPath id="{key}"><rect x="{tile.x - pad:.3f}" y="{tile.y - pad:.3f}" width="{tile.width + 2 * pad:.3f}" '
        f'height="{tile.height + 2 * pad:.3f}"/></clipPath>'
    )
    moved = f'<g transform="translate({x0 - tile.x:.3f} {y0 - tile.y:.3f})">'
    named = _text_svg(tile.x + tile.width / 2, tile.y + tile.height / 2, tile.name, 9.0) if tile.name else ""
    return f'{head}{moved}{clip}<g clip-path="url(#{key})">{drawn}{named}</g></g>'


def template_svg(pattern: CuttingPattern) -> str:
    """One pattern by itself, its units mm, with its length and width drawn beside it."""
    pad = 14.0
    width, height = pattern.width + 2 * pad, pattern.height + 2 * pad
    sizes = _dimension((0, -6), (pattern.width, -6), pattern.width) + _dimension(
        (-6, pattern.height), (-6, 0), pattern.height
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="{-pad:g} {-pad:g} {width:.3f} {height:.3f}" font-family="sans-serif" fill="#1d2830" stroke="none">'
        f"<title>{escape(pattern.title)}</title><desc>{escape(pattern.says)}</desc>{_pattern_svg(pattern)}{sizes}</svg>\n"
    )


def _pattern_svg(pattern: CuttingPattern) -> str:
    """Its lines, circles and words, where they lie on it."""
    rings = (
        f'<circle cx="{ring.x:.3f}" cy="{ring.y:.3f}" r="{ring.r:.3f}" {_pen(ring.stroke)}/>' for ring in pattern.rings
    )
    words = (_text_svg(word.x, word.y, word.text, word.size) for word in pattern.words)
    return "".join([*map(_path, pattern.lines), *rings, *words])


def _dimension(a: tuple[float, float], b: tuple[float, float], mm: float) -> str:
    x, y = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    upright = a[0] == b[0]
    turn = f' transform="rotate(-90 {x:.3f} {y:.3f})"' if upright else ""
    ends = [((p[0] - 2, p[1]), (p[0] + 2, p[1])) if upright else ((p[0], p[1] - 2), (p[0], p[1] + 2)) for p in (a, b)]
    lines = "".join(_path(PatternLine(line, "mark")) for line in ((a, b), *ends))
    return f'{lines}<text x="{x:.3f}" y="{y - 1.5:.3f}" font-size="4" text-anchor="middle"{turn}>{mm:.0f} mm</text>'


def _ruler(x: float, y: float) -> str:
    ticks = "".join(
        _path(PatternLine(((x + i * 10, y), (x + i * 10, y - (4 if i % 5 == 0 else 2.5))))) for i in range(11)
    )
    base = _path(PatternLine(((x, y), (x + RULER_LONG_MM, y))))
    says = (
        say("This line is {ruler_long_mm:.0f} mm long. If your ruler says", ruler_long_mm=RULER_LONG_MM),
        say("otherwise, the printer has scaled the page."),
    )
    words = (
        _text_svg(x + RULER_LONG_MM + 4, y - 3.6 + 3.6 * i, line, 3.0, anchor="start") for i, line in enumerate(says)
    )
    return ticks + base + "".join(words)


def _pen(stroke: Stroke) -> str:
    dashes = f' stroke-dasharray="{_DASHES[stroke]}"' if _DASHES[stroke] else ""
    return f'fill="none" stroke="#1d2830" stroke-width="{_WIDTHS[stroke]:g}"{dashes}'


def _path(line: PatternLine) -> str:
    points = " ".join(f"{x:.3f},{y:.3f}" for x, y in line.points)
    return f'<polyline points="{points}" {_pen(line.stroke)}/>'


def _text_svg(x: float, y: float, text: str, size: float, *, anchor: str = "middle") -> str:
    place = f'x="{x:.3f}" y="{y:.3f}" font-size="{size:g}" text-anchor={quoteattr(anchor)}'
    return f"<text {place}>{escape(text)}</text>"

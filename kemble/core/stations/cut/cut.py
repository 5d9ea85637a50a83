"""Cut: the pieces of every tray from above, their weights, and where the knife meets the edge."""

from __future__ import annotations

import math
from typing import Literal

from kemble.core.facts.fact import CONSERVATION, GEOMETRY, Origin, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.geometry.filled_ball import sphere_mm
from kemble.core.geometry.tray_cutting import CutRequest, Pattern, TrayCutting, cut_tray
from kemble.core.geometry.tray_floor import Kind, Tray
from kemble.core.sentences import Words, say
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.finished_cake import tray_g
from kemble.core.stations.mix.mix import MixResult, is_whole
from kemble.core.stations.shape.pieces import share_parts
from kemble.core.stations.shape.shape import TinDrawing, TinShare

_LEAST_SIDE_MM = 12.0  # smaller than that the knife drags it along: it is refused
_MOST_CELLS = 600
_SOLID_G_PER_ML = 1.0  # a kernel, a nut or a date without its air, rounded
_LEAST_AREA_MM2 = _LEAST_SIDE_MM**2 / 2
SMALL_MM = 15.0  # for small children and old people: no side longer than that


class CellDrawing(AnswerModel):
    """One piece from above: its outline in mm from the tray's top left, its weight, whether to cut it once more."""

    outline: tuple[tuple[float, ...], ...]
    grams: float
    kind: Kind
    small: bool = False


class RulerDrawing(AnswerModel):
    """A strip of paper to lay along one edge: its length and the knife's places on it, in mm."""

    along: Words
    length_mm: float
    ticks: tuple[float, ...]


class TrayDrawing(AnswerModel):
    """One size of tray, `count` of it, with its pieces, the knife's lines, its rings (shares of the way out), rulers."""

    name: str
    count: int
    shape: Literal["round", "oblong"]
    length_mm: float
    width_mm: float
    cells: tuple[CellDrawing, ...]
    lines: tuple[tuple[float, ...], ...]
    rings: tuple[float, ...]
    rulers: tuple[RulerDrawing, ...]


class CutDrawing(AnswerModel):
    pattern: Pattern
    trays: tuple[TrayDrawing, ...]
    small_mm: float = SMALL_MM
    cannot: bool = False  # it cannot be cut as is asked: the trays, whole


def cut(calculation: Calculation, mixed: MixResult, drawn: TinDrawing) -> CutDrawing:
    """The pieces of every tray; what of each part goes on one. Whole, with a problem noted, when it cannot be cut so."""
    tray_total_g = tray_g(calculation)
    cuttings = []
    for tinful, count in zip(drawn.tins, _pieces_by_tin(calculation.sheet.cut.pieces, drawn.tins), strict=True):
        cutting = _cutting(calculation, tinful, count, tray_total_g)
        if cutting is None:
            return _uncut(calculation, drawn)
        cuttings.append(cutting)
    _enter_pieces(calculation, mixed, drawn, cuttings, tray_total_g)
    _enter_met(calculation, drawn, cuttings)
    small = calculation.sheet.cut.small
    trays = []
    for tinful, cutting in zip(drawn.tins, cuttings, strict=True):
        g_per_mm2 = tray_total_g * tinful.share / _tray(tinful).area
        here = min(small, len(cutting.pieces))
        trays.append(_drawing(calculation, tinful, cutting, g_per_mm2, here))
        small -= here * tinful.count
    return unchecked_model(CutDrawing, pattern=calculation.sheet.cut.pattern, trays=tuple(trays), small_mm=SMALL_MM)


def _uncut(calculation: Calculation, drawn: TinDrawing) -> CutDrawing:
    uncut = TrayCutting(cells=(), lines=(), rings=(), rulers=())
    trays = tuple(_drawing(calculation, tinful, uncut, 0.0, 0) for tinful in drawn.tins)
    return unchecked_model(CutDrawing, pattern=calculation.sheet.cut.pattern, trays=trays, cannot=True)


def _pieces_by_tin(wanted: int, tins: tuple[TinShare, ...]) -> list[int]:
    """Pieces for one tin of each size, by their floors, so that all together are just enough."""
    exact = [wanted * tinful.share for tinful in tins]
    counts = [max(1, math.floor(each + 1e-9)) for each in exact]
    order = sorted(range(len(tins)), key=lambda i: counts[i] - exact[i])
    i = 0
    while sum(count * tinful.count for count, tinful in zip(counts, tins, strict=True)) < wanted:
        counts[order[i % len(order)]] += 1
        i += 1
    return counts


def _tray(tinful: TinShare) -> Tray:
    tin = tinful.tin
    if tin.shape == "round":
        return Tray(tin.diameter_mm, tin.diameter_mm, round=True)
    return Tray(tin.length_mm, tin.width_mm)


def _cutting(calculation: Calculation, tinful: TinShare, count: int, tray_total_g: float) -> TrayCutting | None:
    """One tray by what the cook asks for: a side, a weight, or its share of the count."""
    asked, tray = calculation.sheet.cut, _tray(tinful)
    area = None
    if asked.side_mm is not None:
        path, words = "cut.side_mm", say("pieces of {side_mm}", side_mm=calculation.size(asked.side_mm))
    elif asked.piece_g is not None:
        area = asked.piece_g / (tray_total_g * tinful.share) * tray.area
        path, words = "cut.piece_g", say("pieces of {piece_g}", piece_g=calculation.weight(asked.piece_g))
    else:
        path, words = "cut.pieces", say("{pieces} pieces", pieces=asked.pieces)
    small = _too_small(calculation, tray, asked.side_mm, area)
    if small:
        calculation.problem(path, say("{words} are {small}", words=words, small=small), say("larger ones"))
        return None
    if area is not None and area > tray.area * (1 + 1e-9):
        calculation.problem(
            path,
            say(
                "{words} are more than a whole {tin_size} tray", words=words, tin_size=calculation.tin_size(tinful.tin)
            ),
            say("lighter ones"),
        )
        return None
    by_size = asked.side_mm is not None or area is not None
    wish = CutRequest(
        count=None if by_size else count,
        side=asked.side_mm,
        long=asked.long_mm if asked.pattern == "oblongs" and asked.side_mm is not None else None,
        area=area,
        even=asked.even,
    )
    cutting = cut_tray(tray, asked.pattern, wish)
    if cutting is None:
        calculation.problem(
            path,
            say("not one whole piece lies in the {tin_size} tray", tin_size=calculation.tin_size(tinful.tin)),
            say("smaller pieces, or a larger tray"),
        )
        return None
    least = min(cell.area for cell in cutting.pieces)
    if least < _LEAST_AREA_MM2:
        calculation.problem(
            path,
            say(
                "{words} would each be under {least_side_mm}",
                words=words,
                least_side_mm=calculation.length(_LEAST_SIDE_MM),
            ),
            say("fewer pieces, or a larger tin"),
        )
        return None
    return cutting


def _too_small(calculation: Calculation, tray: Tray, side: float | None, area: float | None) -> str:
    """Why a size makes no sense to work out: more cells than anyone cuts."""
    each = area if area is not None else side**2 if side is not None else tray.area
    if tray.area > _MOST_CELLS * each or (side is not None and side < _LEAST_SIDE_MM):
        return say(
            "too small: under {least_side_mm}, or more than {most_cells} in a tray",
            least_side_mm=calculation.length(_LEAST_SIDE_MM),
            most_cells=_MOST_CELLS,
        )
    return ""


def _drawing(
    calculation: Calculation, tinful: TinShare, cutting: TrayCutting, g_per_mm2: float, small: int
) -> TrayDrawing:
    tray = _tray(tinful)
    left = small
    cells = []
    # Those in the middle are cut small first: a corner or an edge is what somebody asks for.
    order = {"inner": 0, "edge": 1, "corner": 2, "offcut": 3}
    chosen = {id(cell) for cell in sorted(cutting.pieces, key=lambda cell: order[cell.kind])[:left]}
    for cell in cutting.cells:
        outline = tuple((round(x, 2), round(y, 2)) for x, y in cell.outline)
        cells.append(
            unchecked_model(
                CellDrawing, outline=outline, grams=cell.area * g_per_mm2, kind=cell.kind, small=id(cell) in chosen
            )
        )
    return unchecked_model(
        TrayDrawing,
        name=tinful.tin.name or calculation.tin_size(tinful.tin),
        count=tinful.count,
        shape=tinful.tin.shape,
        length_mm=tray.length,
        width_mm=tray.width,
        cells=tuple(cells),
        lines=tuple((a[0], a[1], b[0], b[1]) for a, b in cutting.lines),
        rings=cutting.rings,
        rulers=tuple(
            unchecked_model(
                RulerDrawing, along=knife_ruler.along, length_mm=knife_ruler.length, ticks=knife_ruler.ticks
            )
            for knife_ruler in cutting.rulers
        ),
    )


def _enter_met(calculation: Calculation, drawn: TinDrawing, cuttings: list[TrayCutting]) -> None:
    """How many whole things in the tray the knife meets: each is met as often as a line lies within half its width."""
    number = 0.0
    hard = []
    for contribution in calculation.bowl.base.contributions:
        item = contribution.item
        if not is_whole(contribution, calculation.way.base) or not item.g_per_piece:
            continue
        across = sphere_mm(item.g_per_piece / _SOLID_G_PER_ML)
        for tinful, cutting in zip(drawn.tins, cuttings, strict=True):
            length = sum(math.dist(a, b) for a, b in cutting.lines)
            pieces = contribution.grams * tinful.share / item.g_per_piece
            met = min(pieces, pieces * across * length / _tray(tinful).area) * tinful.count
            number += met
        if item.group == "nut":
            hard.append(item.name.lower())
    if number < 0.5:
        return
    calculation.fact_book.add(
        "cut.met",
        number,
        say("whole things, times their width and the length of all cuts, over the tray"),
        source=say("{geometry}, scattered evenly", geometry=GEOMETRY),
        of=["cut.pieces"],
    )
    if hard:
        says = say(
            "About {number:.0f} {hard} lie under the knife: a heavy blade, pressed, not drawn.",
            number=number,
            hard=" and ".join(hard),
        )
        calculation.advise("cut", "before", says, 4)


def _cut_origin(calculation: Calculation) -> Origin:
    """What is asked of the pieces: their side, their weight, or how many they are."""
    asked = calculation.sheet.cut
    if asked.side_mm is not None:
        return calculation.from_sheet("cut.side_mm", say("side of a piece"), asked.side_mm, "mm")
    if asked.piece_g is not None:
        return calculation.from_sheet("cut.piece_g", say("weight of a piece"), asked.piece_g, "g")
    return calculation.from_sheet("cut.pieces", say("pieces wanted"), asked.pieces)


def _enter_pieces(
    calculation: Calculation, mixed: MixResult, drawn: TinDrawing, cuttings: list[TrayCutting], tray_total_g: float
) -> None:
    fact_book = calculation.fact_book
    many = list(zip(drawn.tins, cuttings, strict=True))
    weights = [
        (cell.area * tray_total_g * tinful.share / _tray(tinful).area, tinful.count)
        for tinful, cutting in many
        for cell in cutting.pieces
    ]
    total = sum(count for _, count in weights)
    used = sum(grams * count for grams, count in weights)
    lightest, heaviest = min(weights)[0], max(weights)[0]
    first = cuttings[0]
    sizes = [say("{count} of {tin_size}", count=t.count, tin_size=calculation.tin_size(t.tin)) for t in drawn.tins]
    trays: Origins = [calculation.from_sheet("vessel", say("trays"), " and ".join(sizes))]
    pattern = calculation.from_sheet("cut.pattern", say("cut in"), calculation.sheet.cut.pattern)
    of: Origins = [_cut_origin(calculation), pattern, *trays]
    fact_book.add("cut.rows", float(first.rows), say("rows, or rings from the middle"), source=GEOMETRY, of=of)
    fact_book.add("cut.columns", float(first.columns), say("across, or round the outer ring"), source=GEOMETRY, of=of)
    says = say("whole pieces that lie inside the tray") if len(cuttings) == 1 else say("whole pieces of every tray")
    fact_book.add("cut.pieces", float(total), says, source=GEOMETRY, of=of)
    fact_book.add(
        "cut.piece_mm", first.side, say("side or width of a piece, or its arc at the rim"), source=GEOMETRY, of=of
    )
    even = heaviest - lightest < 0.005 * heaviest
    fact_book.add(
        "cut.piece_g",
        used / total,
        say("its share of the floor of the tray") if even else say("its share of the floor, the mean of all"),
        source=CONSERVATION,
        of=["whole.g", "cut.piece_mm", *trays],
        low=None if even else lightest,
        high=None if even else heaviest,
    )
    for key, kind, says in (
        ("cut.corners", "corner", say("pieces with a corner of the tray")),
        ("cut.edges", "edge", say("pieces with one side at the tray")),
    ):
        result = sum(tinful.count * sum(cell.kind == kind for cell in cutting.pieces) for tinful, cutting in many)
        fact_book.add(key, float(result), says, source=GEOMETRY, of=["cut.pieces"])
    fact_book.add(
        "cut.offcut_pct",
        max(0.0, 100.0 * (1 - used / tray_total_g)),
        say("what is left round the whole pieces: the cook's share"),
        source=CONSERVATION,
        of=["cut.pieces", "cut.piece_g"],
    )
    _share_parts_over_pieces(calculation, mixed, total)
    alike = all(
        max(cell.area for cell in cutting.pieces) < 1.005 * min(cell.area for cell in cutting.pieces)
        for cutting in cuttings
    )
    _advise_on_cut(calculation, total, lightest, heaviest, even, alike)


def _share_parts_over_pieces(calculation: Calculation, mixed: MixResult, total: int) -> None:
    """What of each further part goes on a piece, and which is not enough for all of them."""
    fact_book = calculation.fact_book
    can_run_out = share_parts(calculation, mixed.made, total, "cut.pieces")
    if not can_run_out:
        return
    short = min(can_run_out, key=fact_book.number)
    part = calculation.bowl.parts[can_run_out[short]].part
    name = part.called
    fact_book.add(
        "shape.short_of",
        name if fact_book.number(short) < total else "nothing",
        say("whichever is enough for the fewest pieces"),
        source=CONSERVATION,
        of=["cut.pieces", *can_run_out],
    )
    if fact_book.number(short) < total:
        calculation.advise(
            "cut",
            "look",
            say(
                "The {name} is enough for {number:.0f} of {total} pieces.",
                name=name,
                number=fact_book.number(short),
                total=total,
            ),
            2,
        )


def _advise_on_cut(
    calculation: Calculation, total: int, lightest: float, heaviest: float, even: bool, alike: bool
) -> None:
    asked = calculation.sheet.cut
    by_count = asked.side_mm is None and asked.piece_g is None
    if by_count and asked.pieces < total:
        says = say(
            "{pieces} pieces, {more} more than you asked for: an even cut makes no fewer.",
            pieces=total,
            more=total - asked.pieces,
        )
        calculation.advise("cut", "good", says, 3)
    if not even and not alike:
        says = say(
            "The pieces weigh from {lightest} to {heaviest}: even areas make them all alike.",
            lightest=calculation.weight(lightest),
            heaviest=calculation.weight(heaviest),
        )
        calculation.advise("cut", "look", says, 2)
    elif not even:
        says = say(
            "From {lightest} in one tray to {heaviest} in another: whole pieces do not divide them alike.",
            lightest=calculation.weight(lightest),
            heaviest=calculation.weight(heaviest),
        )
        calculation.advise("cut", "look", says, 2)
    if asked.small > total:
        calculation.advise("cut", "look", say("There are only {total} pieces to cut small.", total=total), 2)
    elif asked.small:
        says = say(
            "{small} pieces marked: no side longer than {small_mm}, for small children and old people.",
            small=asked.small,
            small_mm=calculation.length(SMALL_MM),
        )
        calculation.advise("cut", "look", says, 1)

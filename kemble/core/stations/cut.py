"""Cut: knife lines over a tin as equal cells, and what falls off at a round edge."""

from __future__ import annotations

import math
from typing import Literal

from kemble.core.facts import CONSERVATION, GEOMETRY, Origins
from kemble.core.stations.mix import Mixed
from kemble.core.stations.pieces import share_parts
from kemble.core.stations.shape import TinDrawing
from kemble.core.stations.working import Drawn, Working

_LEAST_SIDE_MM = 12.0


class Cell(Drawn):
    """One whole piece, seen from above: its corner nearest the tin's top left, and its sides, in mm."""

    x: float
    y: float
    w: float
    h: float
    kind: Literal["corner", "edge", "inner"]


class CutDrawing(Drawn):
    shape: Literal["round", "oblong"]
    length_mm: float
    width_mm: float
    knife_x: tuple[float, ...]
    knife_y: tuple[float, ...]
    cells: tuple[Cell, ...]


def cut(working: Working, mixed: Mixed, drawn: TinDrawing) -> CutDrawing | None:
    """Equal cells for the pieces asked for, shared over the tins; what of each part goes on one."""
    wanted = math.ceil(working.sheet.cut.pieces / drawn.count)
    grid = (
        _round(drawn.tin.diameter_mm, wanted)
        if drawn.tin.shape == "round"
        else _oblong(drawn.tin.length_mm, drawn.tin.width_mm, wanted)
    )
    if grid is None:
        working.refuse(
            "cut.pieces",
            f"{working.sheet.cut.pieces} pieces would each be under {_LEAST_SIDE_MM:.0f} mm",
            "fewer pieces, or a larger tin",
        )
        return None
    rows, columns, side_x, side_y, cells = grid
    book = working.book
    per_tin_g = book.number("mix.cooked_g") / drawn.count
    asked = working.from_sheet("cut.pieces", "pieces wanted", working.sheet.cut.pieces)
    tin = working.from_sheet("vessel.tin", "tin", drawn.tin.size)
    area = side_x * side_y / drawn.tin.floor_mm2
    total = len(cells) * drawn.count
    of: Origins = [asked, tin, "shape.tins"]
    book.add("cut.rows", float(rows), "knife lines across", source=GEOMETRY, of=of)
    book.add("cut.columns", float(columns), "knife lines along", source=GEOMETRY, of=of)
    book.add("cut.pieces", float(total), "whole cells that lie inside the tin", source=GEOMETRY, of=of)
    book.add("cut.piece_mm", min(side_x, side_y), "the largest cell that gives as many", source=GEOMETRY, of=of)
    book.add(
        "cut.piece_g",
        per_tin_g * area,
        "its share of the floor of the tin",
        source=CONSERVATION,
        of=["mix.cooked_g", "cut.piece_mm", tin],
    )
    book.add(
        "cut.corners",
        float(drawn.count * sum(c.kind == "corner" for c in cells)),
        "pieces with two sides at the tin",
        source=GEOMETRY,
        of=["cut.pieces"],
    )
    book.add(
        "cut.edges",
        float(drawn.count * sum(c.kind == "edge" for c in cells)),
        "pieces with one side at the tin",
        source=GEOMETRY,
        of=["cut.pieces"],
    )
    book.add(
        "cut.offcut_pct",
        max(0.0, 100.0 * (1 - area * len(cells))),
        "what is left round the whole cells: the cook's share",
        source=GEOMETRY,
        of=["cut.pieces", "cut.piece_g"],
    )
    can_run_out = share_parts(working, mixed.parts, total, "cut.pieces")
    if can_run_out:
        short = min(can_run_out, key=book.number)
        part = working.bowl.parts[can_run_out[short]].part
        name = part.name or part.role
        book.add(
            "shape.short_of",
            name if book.number(short) < total else "nothing",
            "whichever is enough for the fewest pieces",
            source=CONSERVATION,
            of=["cut.pieces", *can_run_out],
        )
        if book.number(short) < total:
            working.advise("cut", "look", f"The {name} is enough for {book.number(short):.0f} of {total} pieces.", 2)
    if working.sheet.cut.pieces < total:
        working.advise(
            "cut",
            "good",
            f"{total} pieces, {total - working.sheet.cut.pieces} more than you asked for: an even grid makes no fewer.",
            3,
        )
    knife_x = _knives(
        [c.x for c in cells],
        side_x,
        drawn.tin.length_mm if drawn.tin.shape == "oblong" else drawn.tin.diameter_mm,
    )
    knife_y = _knives(
        [c.y for c in cells],
        side_y,
        drawn.tin.width_mm if drawn.tin.shape == "oblong" else drawn.tin.diameter_mm,
    )
    oblong = drawn.tin.shape == "oblong"
    return CutDrawing.model_construct(
        shape=drawn.tin.shape,
        length_mm=drawn.tin.length_mm if oblong else drawn.tin.diameter_mm,
        width_mm=drawn.tin.width_mm if oblong else drawn.tin.diameter_mm,
        knife_x=knife_x,
        knife_y=knife_y,
        cells=tuple(cells),
    )


def _knives(starts: list[float], side: float, length: float) -> tuple[float, ...]:
    """Distances of the knife lines from the edge, the tin's own walls left out."""
    lines = sorted({round(v, 3) for start in starts for v in (start, start + side)})
    return tuple(v for v in lines if 0.5 < v < length - 0.5)


Grid = tuple[int, int, float, float, list[Cell]]


def _oblong(length: float, width: float, wanted: int) -> Grid | None:
    """Exactly `wanted` cells if they can be near square, else the next number that can."""
    best: tuple[float, int, int] | None = None
    for count in range(wanted, wanted + 7):
        for rows in range(1, count + 1):
            if count % rows:
                continue
            columns = count // rows
            a, b = length / columns, width / rows
            clumsy = abs(math.log(a / b)) + 0.25 * (count - wanted)
            if best is None or clumsy < best[0]:
                best = (clumsy, rows, columns)
    assert best is not None
    _, rows, columns = best
    w, h = length / columns, width / rows
    if min(w, h) < _LEAST_SIDE_MM:
        return None
    cells = [
        Cell.model_construct(x=c * w, y=r * h, w=w, h=h, kind=_kind(r in (0, rows - 1), c in (0, columns - 1)))
        for r in range(rows)
        for c in range(columns)
    ]
    return rows, columns, w, h, cells


def _kind(at_row_end: bool, at_column_end: bool) -> Literal["corner", "edge", "inner"]:
    if at_row_end and at_column_end:
        return "corner"
    return "edge" if at_row_end or at_column_end else "inner"


def _round(diameter: float, wanted: int) -> Grid | None:
    """The largest squares of which at least `wanted` lie whole inside the circle, centred on a cell or a corner."""
    if wanted == 1:
        side = diameter / math.sqrt(2)
        x = (diameter - side) / 2
        return 1, 1, side, side, [Cell.model_construct(x=x, y=x, w=side, h=side, kind="inner")]
    radius = diameter / 2
    best = min((_unit_squares(offset, wanted) for offset in (0.0, 0.5)), key=lambda squares: squares[-1][0])
    side = radius / math.sqrt(best[wanted - 1][0])
    if side < _LEAST_SIDE_MM:
        return None
    # Squares as far out as the last one wanted fit as well.
    whole = [(i, j) for far, i, j in best if far <= best[wanted - 1][0] + 1e-9]
    cells = [
        Cell.model_construct(x=i * side + radius, y=j * side + radius, w=side, h=side, kind="inner") for i, j in whole
    ]
    rows, columns = len({j for _, j in whole}), len({i for i, _ in whole})
    return rows, columns, side, side, cells


def _unit_squares(offset: float, wanted: int) -> list[tuple[float, float, float]]:
    """Unit squares of a grid about the centre, nearest first, as (far corner's distance squared, x, y).

    The list ends with every square as far out as the one that makes up `wanted`.
    """
    reach = math.ceil(math.sqrt(wanted)) + 2
    steps = [i + offset for i in range(-reach, reach)]
    found = sorted((max(abs(x), abs(x + 1)) ** 2 + max(abs(y), abs(y + 1)) ** 2, x, y) for x in steps for y in steps)
    limit = found[wanted - 1][0] + 1e-9
    return [square for square in found if square[0] <= limit]

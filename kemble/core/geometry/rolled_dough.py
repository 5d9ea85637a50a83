"""Rolled dough and a round or square cutter: how many pieces come out, and what is rolled again."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

CutterShape = Literal["round", "square"]
Packing = Literal["square", "hexagonal"]
LONGEST = 3.0  # a sheet this many times as long as wide can still be rolled even; kitchen estimate
_A_HAIR = 1e-9


@dataclass(frozen=True, slots=True)
class CutterPlace:
    """Where the middle of a cutter goes, in mm from the sheet's corner."""

    x: float
    y: float


def place_cutters(length: float, width: float, cutter: float, gap: float, packing: Packing) -> list[CutterPlace]:
    """Middles of as many cutters of `cutter` mm, `gap` mm apart, as `packing` gets on a sheet. Empty when none fits.

    Hexagonal rows lie in the hollows of those before. Both ways of laying the rows are tried.
    """
    if cutter > min(length, width) + _A_HAIR:
        return []
    along = _place_in_rows(length, width, cutter, gap, packing)
    if packing == "square":
        return along
    across = [CutterPlace(p.y, p.x) for p in _place_in_rows(width, length, cutter, gap, packing)]
    return max(along, across, key=len)


def _place_in_rows(length: float, width: float, cutter: float, gap: float, packing: Packing) -> list[CutterPlace]:
    pitch = cutter + gap
    rise = pitch if packing == "square" else pitch * math.sqrt(3) / 2
    cutter_places = []
    for row in range(1 + math.floor((width - cutter) / rise + _A_HAIR)):
        shift = pitch / 2 if packing == "hexagonal" and row % 2 else 0.0
        room = length - cutter - shift
        if room < -_A_HAIR:
            continue
        cutter_places += [
            CutterPlace(cutter / 2 + shift + i * pitch, cutter / 2 + row * rise)
            for i in range(1 + math.floor(room / pitch + _A_HAIR))
        ]
    return cutter_places


def cutter_mm2(cutter: float, shape: CutterShape) -> float:
    """Area that one cutter takes, in mm²."""
    return math.pi * cutter**2 / 4 if shape == "round" else cutter**2


@dataclass(frozen=True, slots=True)
class Rolling:
    """One rolling: `sheets` alike of so many mm, the cutters on each, and the dough left over of all of them in mm²."""

    sheets: int
    length: float
    width: float
    places: tuple[CutterPlace, ...]
    left_mm2: float

    @property
    def count(self) -> int:
        return self.sheets * len(self.places)


def rollings(
    area: float,
    *,
    board: tuple[float, float],
    cutter: float,
    shape: CutterShape,
    gap: float,
    packing: Packing,
    again: int,
) -> list[Rolling]:
    """The first rolling and up to `again` more from its trimmings, until none comes out. No dough is lost between.

    `board` is the longest and the widest that a sheet can be; more dough than that is rolled in several alike. Of the
    widths that keep a sheet in hand, the one that most come out of is taken.
    """
    rolling: list[Rolling] = []
    each = cutter_mm2(cutter, shape)
    packing = packing if shape == "round" else "square"
    while area >= each * (1 - _A_HAIR) and len(rolling) <= again:
        sheets = math.ceil(area / (board[0] * board[1]) - _A_HAIR)
        length, width, cut = max(
            (
                _rolled(area / sheets, width, cutter, gap, packing)
                for width in _widths(area / sheets, board, cutter, gap)
            ),
            key=lambda rolled: len(rolled[2]),
        )
        if not cut:
            break
        area -= sheets * len(cut) * each
        rolling.append(Rolling(sheets, length, width, tuple(cut), max(0.0, area)))
    return rolling


def _rolled(
    area: float, width: float, cutter: float, gap: float, packing: Packing
) -> tuple[float, float, list[CutterPlace]]:
    length = area / width
    return length, width, place_cutters(length, width, cutter, gap, packing)


def _widths(area: float, board: tuple[float, float], cutter: float, gap: float) -> list[float]:
    """Widths that whole rows fill and that give a sheet in hand: no longer than the board, nor than thrice its width.

    On a board that is itself longer or wider than that, as near to it as the board allows.
    """
    least = max(area / board[0], min(board[1], math.sqrt(area / LONGEST)))
    most = max(least, min(board[1], math.sqrt(area * LONGEST)))
    pitch = cutter + gap
    steps = (pitch, pitch * math.sqrt(3) / 2)
    rows = [cutter + n * step for step in steps for n in range(1 + max(0, math.floor((most - cutter) / step)))]
    return sorted(
        {width for width in [*rows, least, most, math.sqrt(area)] if least - _A_HAIR <= width <= most + _A_HAIR}
    )

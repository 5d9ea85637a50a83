"""Shape: balls and their skin, or the depth in the tin, by the way's form."""

from __future__ import annotations

import math
from typing import Literal

from kemble.core.facts import GEOMETRY
from kemble.core.kitchen import Tin
from kemble.core.larder import Composition
from kemble.core.stations.mix import Mixed
from kemble.core.stations.pieces import BallDrawing, pieces
from kemble.core.stations.working import Drawn, Working


class TinDrawing(Drawn):
    kind: Literal["tin"] = "tin"
    tin: Tin
    count: int
    depth_mm: float


ShapeDrawing = BallDrawing | TinDrawing


def shape(working: Working, mixed: Mixed) -> tuple[ShapeDrawing, Composition | None] | None:
    """Pieces or depth, by the way's form. Returns the drawing and the filling's composition; None if refused."""
    if working.way.form != "tin":
        return pieces(working, mixed)
    drawn = tin_depth(working)
    return (drawn, None) if drawn else None


def tin_depth(working: Working) -> TinDrawing | None:
    """How deep the batter stands in its tins. None, with a problem noted, when it does not fit."""
    book, vessel = working.book, working.sheet.vessel
    tin, count = vessel.tin, vessel.count
    size = [
        working.from_sheet("vessel.tin", "tin", tin.size),
        working.from_sheet("vessel.count", "tins", count),
    ]
    volume_ml = book.number("mix.volume_ml")
    depth = volume_ml * 1000.0 / (tin.floor_mm2 * count)
    room = tin.height_mm - depth
    if room < 2.0:
        holds = tin.floor_mm2 * (tin.height_mm - 2.0) * count / 1000.0
        enough = math.ceil(volume_ml * 1000.0 / (tin.floor_mm2 * (tin.height_mm - 2.0)))
        working.refuse(
            "vessel.tin",
            f"{volume_ml:.0f} ml of {working.way.word('dough')} do not fit in {count} {'tin' if count == 1 else 'tins'} of {tin.size}, "
            f"{tin.height_mm:.0f} mm high: room for {holds:.0f} ml",
            f"a height of at least {math.ceil(depth + 2)} mm, or {enough} tins, or a larger tin",
        )
        return None
    book.add("shape.tins", float(count), "as on the sheet", source="sheet", of=size[1:])
    book.add(
        "shape.depth_mm",
        depth,
        "volume over the floor of the tins",
        source=GEOMETRY,
        of=["mix.volume_ml", *size],
    )
    book.add(
        "shape.headroom_mm",
        room,
        "height of the tin less the depth",
        source=GEOMETRY,
        of=[
            "shape.depth_mm",
            working.from_sheet("vessel.tin.height_mm", "height of the tin", tin.height_mm, "mm"),
        ],
    )
    if room < 8:
        working.advise(
            "shape",
            "look",
            f"Only {room:.0f} mm below the brim: it swells as it steams, and may run over.",
            1,
        )
    if depth < 12:
        working.advise("shape", "look", "A thin layer: it cooks fast and dries at the edge. Cover it.", 3)
    if depth > 50:
        working.advise(
            "shape",
            "look",
            "Deep: time goes with the square of the depth. Two tins would be much quicker.",
            2,
        )
    working.advise("shape", "before", "Line the tin before you begin: what waits in the bowl settles or stiffens.", 8)
    return TinDrawing.model_construct(kind="tin", tin=tin, count=count, depth_mm=depth)

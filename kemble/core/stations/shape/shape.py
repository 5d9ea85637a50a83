"""Shape: balls and their skin, or the depth in tins or a bag, by the way's form."""

from __future__ import annotations

import math
from typing import Literal

from kemble.core.facts.fact import GEOMETRY, Origins
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.stations.mix.mix import Mixed
from kemble.core.stations.shape.pieces import BallDrawing, pieces
from kemble.core.stations.working import Drawn, Working

BRIM_MM = 2.0  # nothing is filled nearer to the brim
_SHALLOW_MM, _DEEP_MM = 12.0, 50.0  # kitchen estimates


class Tinful(Drawn):
    """A size of tin, how many of it, and the share of the batch that one takes."""

    tin: Tin
    count: int
    share: float


class TinDrawing(Drawn):
    """`tin` is the one whose heart is slowest, `count` all of them together; `bag`: a sheet in a bag, not a tin."""

    kind: Literal["tin"] = "tin"
    tin: Tin
    count: int
    depth_mm: float
    tins: tuple[Tinful, ...] = ()
    bag: bool = False


ShapeDrawing = BallDrawing | TinDrawing


def shape(working: Working, mixed: Mixed) -> tuple[ShapeDrawing, Composition | None] | None:
    """Pieces or depth, by the way's form and schools. Returns the drawing and what is within; None if refused."""
    if working.follows(working.way.sheeted_when):
        return bag_depth(working), None
    if working.way.form != "tin":
        return pieces(working, mixed)
    drawn = tin_depth(working)
    return (drawn, None) if drawn else None


def bag_depth(working: Working) -> TinDrawing:
    """How thick the cooked mass lies when it is rolled into the corners of its bag."""
    bag = working.sheet.bag
    density = working.book.number("mix.density_g_per_ml")
    thick = working.book.number("mix.cooked_g") / density * 1000.0 / (bag.length_mm * bag.width_mm)
    size = working.from_sheet("bag", "bag", f"{bag.length_mm / 10:g} × {bag.width_mm / 10:g} cm")
    working.book.add(
        "shape.depth_mm",
        thick,
        "the cooked mass rolled into the corners of the bag",
        source=GEOMETRY,
        of=["mix.cooked_g", "mix.density_g_per_ml", size],
    )
    if thick < _BLOCK_MM[0]:
        says = f"{thick:.0f} mm thin: it toasts to a wafer. A smaller bag, or fold it over."
        working.advise("shape", "look", says, 1)
    elif thick > _BLOCK_MM[1]:
        says = f"{thick:.0f} mm thick: it puffs badly and is hard to cut. A larger bag, or two."
        working.advise("shape", "look", says, 1)
    if any(role in working.bowl.parts for role in ("filling", "heart")):
        working.advise("shape", "look", "Blocks take no filling: it stays for pieces shaped at once.", 2)
    working.advise(
        "shape", "before", "Roll it in the bag while hot, into every corner; the corners make the blocks.", 8
    )
    tin = Tin(
        shape="oblong", length_mm=bag.length_mm, width_mm=bag.width_mm, height_mm=min(200.0, max(10.0, thick + 5))
    )
    whole = Tinful.model_construct(tin=tin, count=1, share=1.0)
    return TinDrawing.model_construct(kind="tin", tin=tin, count=1, depth_mm=thick, tins=(whole,), bag=True)


_BLOCK_MM = (8.0, 22.0)  # blocks between these toast and puff; kitchen estimate


def tin_depth(working: Working) -> TinDrawing | None:
    """How deep the batter stands in its tins, the same in all. None, with a problem noted, when it does not fit."""
    book, vessel = working.book, working.sheet.vessel
    tins = vessel.tins
    count = sum(many for _, many in tins)
    floor = vessel.floor_mm2
    lowest = min((tin for tin, _ in tins), key=lambda tin: tin.height_mm)
    told = " and ".join(f"{many} of {tin.size}" for tin, many in tins)
    size: Origins = [working.from_sheet("vessel", "tins", told)]
    volume_ml = book.number("mix.volume_ml")
    depth = volume_ml * 1000.0 / floor
    room = lowest.height_mm - depth
    if room < BRIM_MM:
        _overflows(working, volume_ml, depth, floor, lowest, count)
        return None
    book.add("shape.tins", float(count), "as on the sheet", source="sheet", of=size)
    says = "volume over the floor of the tins" if len(tins) == 1 else "volume over all their floors: one depth in each"
    book.add("shape.depth_mm", depth, says, source=GEOMETRY, of=["mix.volume_ml", *size])
    book.add(
        "shape.headroom_mm",
        room,
        "height of the tin less the depth" if len(tins) == 1 else "height of the lowest tin less the depth",
        source=GEOMETRY,
        of=[
            "shape.depth_mm",
            working.from_sheet("vessel.tin.height_mm", "height of the tin", lowest.height_mm, "mm"),
        ],
    )
    if working.way.heat != "steam":
        rises = "it puffs as it bakes"
    else:
        rises = "it swells as it steams"
    if room < 8:
        working.advise("shape", "look", f"Only {room:.0f} mm below the brim: {rises}, and may run over.", 1)
    if depth < _SHALLOW_MM:
        fewer = "a smaller tin" if count == 1 else "fewer tins"
        says = f"Too little for these tins: {depth:.0f} mm cooks fast and dries at the edge. Take {fewer}, or cover it."
        working.advise("shape", "look", says, 3)
    if depth > _DEEP_MM:
        working.advise(
            "shape", "look", "Deep: time goes with the square of the depth. Two tins would be much quicker.", 2
        )
    if len(tins) > 1:
        says = "One depth in every tin: weigh each to its share, and they are done nearly together, the smallest first."
        working.advise("shape", "before", says, 4)
    working.advise("shape", "before", "Line the tin before you begin: what waits in the bowl settles or stiffens.", 8)
    slowest = max((tin for tin, _ in tins), key=lambda tin: tin.least_mm)
    return TinDrawing.model_construct(
        kind="tin",
        tin=slowest,
        count=count,
        depth_mm=depth,
        tins=tuple(Tinful.model_construct(tin=tin, count=many, share=tin.floor_mm2 / floor) for tin, many in tins),
    )


def _overflows(working: Working, volume_ml: float, depth: float, floor: float, lowest: Tin, count: int) -> None:
    """Say by how much it is too much, and the least that would hold it."""
    holds = floor * (lowest.height_mm - BRIM_MM) / 1000.0
    dough = working.way.word("dough")
    if len(working.sheet.vessel.tins) == 1:
        enough = math.ceil(volume_ml / holds * count)
        words = f"{count} {'tin' if count == 1 else 'tins'} of {lowest.size}, {lowest.height_mm:.0f} mm high"
        accepts = f"a height of at least {math.ceil(depth + BRIM_MM)} mm, or {enough} tins, or a larger tin"
    else:
        words = f"these {count} tins, the lowest {lowest.height_mm:.0f} mm high"
        accepts = f"one more tin, or {volume_ml - holds:.0f} ml less {dough}"
    says = f"{volume_ml:.0f} ml of {dough} do not fit in {words}: room for {holds:.0f} ml"
    working.problem("vessel.tin", says, accepts)

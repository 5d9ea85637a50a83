"""Shape: balls and their skin, or the depth in tins or a bag, by the way's form."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kemble.core.cards.card_parts import Where
from kemble.core.facts.fact import GEOMETRY, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.sentences import say
from kemble.core.sheet.bowl import PartOutput
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.finished_cake import ends_in_it
from kemble.core.stations.mix.mix import MixResult
from kemble.core.stations.shape.leaf_parcels import lining
from kemble.core.stations.shape.pieces import BallDrawing, shape_pieces
from kemble.core.stations.shape.portions import WITHIN

HEATED_AT: tuple[str, ...] = ("steam", "bake")
BRIM_MM = 2.0  # nothing is filled nearer to the brim
_SHALLOW_MM, _DEEP_MM = 12.0, 50.0  # a batter beyond these is spoken of


class TinShare(AnswerModel):
    """A size of tin, how many of it, and the share of the batch that one takes."""

    tin: Tin
    count: int
    share: float


class TinLayer(AnswerModel):
    """What lies in the tin beside the batter, as thick as it lies: under it, on floor and wall, or over it."""

    part_id: PartId
    name: str
    group: str
    where: Where
    mm: float
    heated: bool = False  # it lies there while the batter is heated


class TinDrawing(AnswerModel):
    """`tin` is the one whose heart is slowest, `count` all of them together; `bag`: a sheet in a bag, not a tin.

    `depth_mm` is the batter's own; the layers lie under, round and over it.
    """

    kind: Literal["tin"] = "tin"
    tin: Tin
    count: int
    depth_mm: float
    tins: tuple[TinShare, ...] = ()
    bag: bool = False
    layers: tuple[TinLayer, ...] = ()
    over_mm: float = 0.0  # it does not fit: so far above where the lowest tin is full; no station works with it

    @property
    def is_possible(self) -> bool:
        return self.over_mm <= 0

    @property
    def heated_mm(self) -> float:
        """How deep all of it lies while it is heated: the batter, and what lies under and over it by then."""
        return self.depth_mm + sum(layer.mm for layer in self.layers if layer.heated)


ShapeDrawing = BallDrawing | TinDrawing


@dataclass(frozen=True, slots=True)
class ShapeResult:
    """What Shape hands on: its drawing, and what the pieces have within. A drawing of what cannot be is told by its
    `is_possible`, and its problem is noted."""

    drawing: ShapeDrawing | None
    filling: Composition | None = None


def shape(calculation: Calculation, mixed: MixResult) -> ShapeResult:
    """Pieces or depth, by the way's form and schools."""
    if calculation.follows(calculation.way.sheeted_when):
        return ShapeResult(bag_depth(calculation))
    if calculation.way.form != "tin":
        return ShapeResult(*shape_pieces(calculation, mixed))
    return ShapeResult(tin_depth(calculation))


def bag_depth(calculation: Calculation) -> TinDrawing:
    """How thick the cooked mass lies when it is rolled into the corners of its bag."""
    bag = calculation.sheet.bag
    density = calculation.fact_book.number("mix.density_g_per_ml")
    thick = calculation.fact_book.number("mix.cooked_g") / density * 1000.0 / (bag.length_mm * bag.width_mm)
    size = calculation.from_sheet("bag", "bag", calculation.size(bag.length_mm, bag.width_mm))
    calculation.fact_book.add(
        "shape.depth_mm",
        thick,
        say("the cooked mass rolled into the corners of the bag"),
        source=GEOMETRY,
        of=["mix.cooked_g", "mix.density_g_per_ml", size],
    )
    if thick < _BLOCK_MM[0]:
        says = say(
            "{thick} thin: it toasts to a wafer. A smaller bag, or fold it over.", thick=calculation.length(thick)
        )
        calculation.advise("shape", "look", says, 1)
    elif thick > _BLOCK_MM[1]:
        says = say(
            "{thick} thick: it puffs badly and is hard to cut. A larger bag, or two.", thick=calculation.length(thick)
        )
        calculation.advise("shape", "look", says, 1)
    if any(calculation.bowl.of_role(role) for role in WITHIN):
        calculation.advise("shape", "look", say("Blocks take no filling: it stays for pieces shaped at once."), 2)
    calculation.advise(
        "shape", "before", say("Roll it in the bag while hot, into every corner; the corners make the blocks."), 8
    )
    tin = Tin(
        shape="oblong", length_mm=bag.length_mm, width_mm=bag.width_mm, height_mm=min(200.0, max(10.0, thick + 5))
    )
    whole = unchecked_model(TinShare, tin=tin, count=1, share=1.0)
    return unchecked_model(TinDrawing, kind="tin", tin=tin, count=1, depth_mm=thick, tins=(whole,), bag=True)


_BLOCK_MM = (8.0, 22.0)  # blocks beyond these are spoken of: they toast to a wafer, or puff badly


def tin_depth(calculation: Calculation) -> TinDrawing:
    """How deep the batter stands in its tins, the same in all; with a problem noted, how it stands over the brim."""
    fact_book, vessel = calculation.fact_book, calculation.sheet.vessel
    tins = vessel.tins
    count = sum(many for _, many in tins)
    floor = vessel.floor_mm2
    lowest = min((tin for tin, _ in tins), key=lambda tin: tin.height_mm)
    told = " and ".join(
        say("{many} of {tin_size}", many=many, tin_size=calculation.tin_size(tin)) for tin, many in tins
    )
    size: Origins = [calculation.from_sheet("vessel", "tins", told)]
    folded = [had for had in ends_in_it(calculation) if had.place.where == "through"]
    volume_ml = fact_book.number("mix.volume_ml") + sum(_ml(had) for had in folded)
    size += [
        leaf(f"part.{had.part_id}.made_g", say("{name}, folded in", name=had.item.name), round(_ml(had), 1), "ml")
        for had in folded
    ]
    depth = volume_ml * 1000.0 / floor
    layers = _layers(calculation, depth, tins)
    beside = sum(layer.mm for layer in layers)
    room = lowest.height_mm - depth - beside
    if room < BRIM_MM:
        _overflows(calculation, volume_ml + beside * floor / 1000.0, depth + beside, floor, lowest, count)
        over = depth + beside - (lowest.height_mm - BRIM_MM)
        return unchecked_model(
            TinDrawing, kind="tin", tin=lowest, count=count, depth_mm=depth, layers=layers, over_mm=over
        )
    fact_book.add("shape.tins", float(count), say("as on the sheet"), source="sheet", of=size)
    says = (
        say("volume over the floor of the tins")
        if len(tins) == 1
        else say("volume over all their floors: one depth in each")
    )
    fact_book.add("shape.depth_mm", depth, says, source=GEOMETRY, of=["mix.volume_ml", *size])
    fact_book.add(
        "shape.headroom_mm",
        room,
        (say("height of the tin less the depth") if len(tins) == 1 else say("height of the lowest tin less the depth"))
        + "".join(
            say(", less {mm} of {layer}", mm=calculation.length(layer.mm, 1), layer=layer.name.lower())
            for layer in layers
        ),
        source=GEOMETRY,
        of=[
            "shape.depth_mm",
            calculation.from_sheet("vessel.tin.height_mm", say("height of the tin"), lowest.height_mm, "mm"),
        ],
    )
    _advise_depth(calculation, depth, room, count, len(tins))
    if len(tins) == 1:
        lining(calculation, tins[0][0], count, calculation.from_sheet("vessel", "tins", told))
    slowest = max((tin for tin, _ in tins), key=lambda tin: tin.least_mm)
    return unchecked_model(
        TinDrawing,
        kind="tin",
        tin=slowest,
        count=count,
        depth_mm=depth,
        layers=layers,
        tins=tuple(unchecked_model(TinShare, tin=tin, count=many, share=tin.floor_mm2 / floor) for tin, many in tins),
    )


def _advise_depth(calculation: Calculation, depth: float, room: float, count: int, sizes: int) -> None:
    """What such a depth, and so much room below the brim, does. mm; `sizes` of tins."""
    if calculation.way.heat != "steam":
        rises = say("it puffs as it bakes")
    else:
        rises = say("it swells as it steams")
    if room < 8:
        calculation.advise(
            "shape",
            "look",
            say("Only {room} below the brim: {rises}, and may run over.", room=calculation.length(room), rises=rises),
            1,
        )
    if depth < _SHALLOW_MM:
        fewer = say("a smaller tin") if count == 1 else say("fewer tins")
        says = say(
            "Too little for these tins: {depth} cooks fast and dries at the edge. Take {fewer}, or cover it.",
            depth=calculation.length(depth),
            fewer=fewer,
        )
        calculation.advise("shape", "look", says, 3)
    if depth > _DEEP_MM:
        calculation.advise(
            "shape", "look", say("Deep: time goes with the square of the depth. Two tins would be much quicker."), 2
        )
    if sizes > 1:
        says = say(
            "One depth in every tin: weigh each to its share, and they are done nearly together, the smallest first."
        )
        calculation.advise("shape", "before", says, 4)
    calculation.advise(
        "shape", "before", say("Line the tin before you begin: what waits in the bowl settles or stiffens."), 8
    )


def _ml(had: PartOutput) -> float:
    """The room that an output takes where it is laid."""
    return had.rest / had.item.g_per_ml


def _layers(calculation: Calculation, depth: float, tins: Sequence[tuple[Tin, int]]) -> tuple[TinLayer, ...]:
    """Each as thick as its volume over the floor; on the wall, over the floor and the wall up to the batter's top."""
    floor = sum(tin.floor_mm2 * many for tin, many in tins)
    wall = sum(tin.rim_mm * many for tin, many in tins) * depth
    layers = []
    for had in ends_in_it(calculation):
        where = had.place.where
        if where in ("under", "wall", "over"):
            area = floor + wall if where == "wall" else floor
            layer = unchecked_model(
                TinLayer,
                part_id=had.part_id,
                name=had.item.name,
                group=had.made.output.group,
                where=where,
                mm=1000.0 * _ml(had) / area,
                heated=where != "over" or _before_heat(calculation, had),
            )
            layers.append(layer)
    return tuple(layers)


def _before_heat(calculation: Calculation, had: PartOutput) -> bool:
    """Whether what is laid over goes in before its heat begins. A glaze is brushed on in it."""
    order = [step.id for step in calculation.way.steps]
    heat = next((order.index(step) for step in HEATED_AT if step in order), len(order))
    return role_of(had.part_id) != "glaze" and had.place.joins in order[: heat + 1]


def _overflows(calculation: Calculation, volume_ml: float, depth: float, floor: float, lowest: Tin, count: int) -> None:
    """Say by how much it is too much, and the least that would hold it."""
    holds = floor * (lowest.height_mm - BRIM_MM) / 1000.0
    dough = calculation.way.word("dough")
    if len(calculation.sheet.vessel.tins) == 1:
        enough = math.ceil(volume_ml / holds * count)
        words = say(
            "{count} {tin_or_tins} of {tin_size}, {height_mm} high",
            count=count,
            tin_or_tins="tin" if count == 1 else "tins",
            tin_size=calculation.tin_size(lowest),
            height_mm=calculation.length(lowest.height_mm),
        )
        accepts = say(
            "a height of at least {ceil}, or {enough} tins, or a larger tin",
            ceil=calculation.length(math.ceil(depth + BRIM_MM)),
            enough=enough,
        )
    else:
        words = say(
            "these {count} tins, the lowest {height_mm} high",
            count=count,
            height_mm=calculation.length(lowest.height_mm),
        )
        accepts = say(
            "one more tin, or {volume_ml} less {dough}", volume_ml=calculation.volume(volume_ml - holds), dough=dough
        )
    says = say(
        "{volume_ml} of {dough} do not fit in {words}: room for {holds}",
        volume_ml=calculation.volume(volume_ml),
        dough=dough,
        words=words,
        holds=calculation.volume(holds),
    )
    calculation.problem("vessel.tin", says, accepts)

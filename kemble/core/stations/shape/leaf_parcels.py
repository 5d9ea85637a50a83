"""Leaf and mould: how large a parcel a leaf folds and what goes in it, and the strip and floor that line a tin."""

from __future__ import annotations

import math

from kemble.core.facts.fact import CONSERVATION, GEOMETRY, KITCHEN_ESTIMATE, Origin, Origins
from kemble.core.geometry.leaf_folds import leaves_for, leaves_to_line, lining_of, parcel_of
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.shape.portions import PortionFix, Portions
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

_FOLDS = f"{GEOMETRY}; the fold a {KITCHEN_ESTIMATE}"
_SLACK = 0.03  # of its size a parcel may be over without a word


def leaves_to_a_parcel(calculation: Calculation) -> int:
    """As the sheet says, else as is usual in its way."""
    return calculation.sheet.wrap.leaves or calculation.way.leaves_each


def leaf_parcel(calculation: Calculation, portions: Portions) -> list[PortionFix]:
    """What a parcel of the measured leaf holds, its string, and the weights that would fill it. Nothing unmeasured."""
    leaf, number = calculation.sheet.wrap.leaf_mm, leaves_to_a_parcel(calculation)
    if leaf is None or not number or calculation.way.form != "parcel":
        return []
    fact_book, parcel = calculation.fact_book, parcel_of(*leaf, number)
    measured: Origins = [
        calculation.from_sheet("wrap", say("one leaf"), calculation.size(*leaf)),
        calculation.from_sheet("wrap.leaves", say("leaves to a parcel"), number),
    ]
    edge: EstimateId = "edge"
    enter_with_range(
        calculation,
        "shape.edge_mm",
        say("the width of its leaves side by side, a brim left for the lid; less where they are too short to go round"),
        scaled_by_estimates(parcel.edge_mm, edge),
        (edge,),
        source=_FOLDS,
        of=measured,
    )
    fills: tuple[EstimateId, ...] = ("edge", "swell_share", "packed_g_ml")
    holds = enter_with_range(
        calculation,
        "shape.leaf_holds_g",
        say("a parcel of four such edges, an eighth left for the grain to swell"),
        lambda is_: parcel.holds_ml * is_["edge"] ** 3 * is_["swell_share"] * is_["packed_g_ml"],
        fills,
        source=_FOLDS,
        of=["shape.edge_mm"],
    )
    piece_g = portions.dough_g + portions.filling_g
    rice, filling = (holds * share / piece_g for share in (portions.dough_g, portions.filling_g))
    for key, grams in (("shape.leaf_rice_g", rice), ("shape.leaf_filling_g", filling)):
        if grams > 0:
            fact_book.add(key, grams, say("in the sheet's proportion"), source=CONSERVATION, of=["shape.leaf_holds_g"])
    _enter_string(calculation, parcel.string_mm)
    if piece_g <= holds * (1 + _SLACK):
        return []
    more = leaves_for(piece_g / calculation.likely("packed_g_ml") / calculation.likely("swell_share"), *leaf)
    instead = say("{more} leaves to each", more=more) if more else say("larger leaves")
    says = say(
        "{number} of these leaves fold round {holds}; a parcel has {piece_g}. Lighter parcels, or {instead}.",
        number=number,
        holds=calculation.weight(holds),
        piece_g=calculation.weight(piece_g),
        instead=instead,
    )
    calculation.advise("shape", "look", says, 1)
    lighter = calculation.sheet.pieces.model_copy(
        update={
            **dict.fromkeys(calculation.sheet.pieces.measures),
            "count": None,
            "dough_g": round(rice, 1),
            "filling_g": round(filling, 1) if filling > 0 else None,
        }
    )
    return [
        PortionFix(says=say("{holds} to a parcel, as the leaf holds", holds=calculation.weight(holds)), pieces=lighter)
    ]


def _enter_string(calculation: Calculation, string_mm: float) -> None:
    fact_book = calculation.fact_book
    fact_book.add(
        "shape.string_mm",
        string_mm,
        say("three turns round the waist, and the knot"),
        source=_FOLDS,
        of=["shape.edge_mm"],
    )
    fact_book.add(
        "shape.string_m",
        string_mm * fact_book.number("shape.pieces") / 1000.0,
        say("for all of them"),
        source=CONSERVATION,
        of=["shape.string_mm", "shape.pieces"],
    )


def lining(calculation: Calculation, tin: Tin, count: int, of: Origin) -> None:
    """The strip and the floor that line one mould, or the leaves that do."""
    vessel, fact_book = calculation.sheet.vessel, calculation.fact_book
    if vessel.lining == "none":
        return
    leaf_lining = lining_of(tin.floor_mm2, tin.rim_mm, tin.height_mm)
    across = tin.diameter_mm if tin.shape == "round" else math.sqrt(tin.floor_mm2)
    for key, length, says in (
        ("shape.strip_mm", leaf_lining.strip_long_mm, say("once round the wall, and lapped")),
        (
            "shape.strip_wide_mm",
            leaf_lining.strip_wide_mm,
            say("the height, a little under the floor and over the rim"),
        ),
        ("shape.floor_mm", across, say("as the floor: cut round the tin itself")),
    ):
        fact_book.add(key, length, says, source=GEOMETRY, of=[of])
    leaf = calculation.sheet.wrap.leaf_mm
    if vessel.lining != "leaf" or leaf is None:
        return
    wrapper = next(iter(calculation.bowl.of_role("wrapper")), None)
    spare = wrapper.family.spare_pct if wrapper and wrapper.family else 0.0
    each = leaves_to_line(leaf_lining.area_mm2, *leaf)
    fact_book.add(
        "shape.lining_leaves",
        float(math.ceil(each * count * (1 + spare / 100))),
        say("floor and wall, each leaf lapped over the next, {spare:.0f} % over because some tear", spare=spare),
        source=_FOLDS,
        of=[of, calculation.from_sheet("wrap", say("one leaf"), calculation.size(*leaf))],
    )

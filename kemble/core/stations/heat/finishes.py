"""Finishes: a set cake is toasted until it puffs, browned on a griddle, or fried in egg, some pieces at a time."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import NamedTuple

import numpy as np

from kemble.core.cards.way import FinishKind
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import time_at_level
from kemble.core.physics.freezing import food
from kemble.core.physics.thermal import LATENT_STEAM, fractions, properties
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range

SOURCE = f"conduction by finite volumes, ice counted in; {KITCHEN_ESTIMATE}"


class _FinishingHeat(NamedTuple):
    """Pan or air in °C, its coefficient in W/(m2 K), and what is done with it in words."""

    celsius: float
    h: float
    says: str
    both: bool = False  # faces at once


# An oiled pan at 165 °C, a dry griddle at 185, glowing air at 230 over a rack; how far they stray is in the table of
# estimates (`pan_c`, `pan_h`).
_HEATS: dict[FinishKind, _FinishingHeat] = {
    "toast": _FinishingHeat(
        230.0, 48.0, "both faces in the glow until the middle boils: steam inside puffs it", both=True
    ),
    "toast-pan": _FinishingHeat(200.0, 90.0, "one face, then the other, until the middle boils and it puffs"),
    "griddle": _FinishingHeat(185.0, 180.0, "turned once: both sides crisp, and hot within"),
    "fry": _FinishingHeat(165.0, 260.0, "turned once: both sides gold, and hot within"),
    "fry-plain": _FinishingHeat(
        165.0, 220.0, "turned once, when it lets go by itself: both sides gold, and hot within"
    ),
    "fry-deep": _FinishingHeat(175.0, 400.0, "under the oil, turned once: gold all round, and hot within", both=True),
}
_PUFFS: frozenset[FinishKind] = frozenset({"toast", "toast-pan"})
FRY_SLICE_MM = 9.0
_PUFFS_BELOW_BOIL_C = 2.0
_SHARE = 0.65  # of the pan or rack that pieces cover
_PAN_MM = 260.0
_INSIDE: tuple[EstimateId, ...] = ("pan_c", "pan_h", "under_crust_c", "hot_c")  # what its inside hangs on
_FACE: tuple[EstimateId, ...] = ("crust_kg_m2", "gold_min")  # ... and its faces beside
_CELLS = 16
_LONGEST_S = 45 * 60.0


def finishing(calculation: Calculation, shaped: Composition) -> None:
    """Facts of the finish that the schools call for; nothing where they call for none."""
    kind = next(
        (kind for choice, school, kind in calculation.way.finishes if calculation.schools.get(choice) == school), None
    )
    if kind is None or ("cut.pieces" not in calculation.fact_book and "shape.pieces" not in calculation.fact_book):
        return
    for choice, school, other in calculation.way.finish_by:
        kind = other if calculation.schools.get(choice) == school else kind
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    thick_mm, of = _thickness(calculation, kind)
    of_thick = "shape.thick_mm" if "shape.thick_mm" in of else calculation.weighed_by if "shape.depth_mm" in of else ""
    heat, said = _HEATS[kind], calculation.sheet.heat.griddle_c
    if said is not None and not heat.both:
        heat = heat._replace(celsius=said)
        of.append(calculation.from_sheet("heat.griddle_c", say("pan or griddle"), said, "°C"))
    turns = 1 if heat.both else 2  # how often a crust must form, one face after another
    boil_c = fact_book.number("heat.boil_c")
    puffs = kind in _PUFFS
    material, layers = properties(fractions(shaped), 60.0), [(food(shaped, fat_sets=False), _CELLS)]
    times = np.linspace(0.0, 1.0, 41) ** 1.6 * _LONGEST_S

    def through_s(is_: Mapping[EstimateId, float], start_c: float) -> float:
        """Seconds until the middle is there. An oven or a grill heats both faces all the while; a pan each of them half
        of it. A wet inside stays near the boil; the glow over a rack drives it on until it boils through."""
        face_h = is_["pan_h"] * (heat.h if heat.both else heat.h / 2)
        around = heat.celsius + is_["pan_c"] if puffs else boil_c + is_["under_crust_c"]
        thicker = calculation.fact_with(of_thick, is_, over_likely=True)
        until = boil_c - _PUFFS_BELOW_BOIL_C if puffs else is_["hot_c"]
        body = conduction.slab(thicker * thick_mm / 1000.0, material, face_h, face_h, _CELLS)
        cells, _ = conduction.thaw(body, layers, np.full(_CELLS, start_c), around, times)
        return time_at_level(times, cells[:, _CELLS // 2], until) or _LONGEST_S

    def crust_s(is_: Mapping[EstimateId, float]) -> float:
        """Seconds of one face in the pan until it is crisp and gold."""
        flux = is_["pan_h"] * heat.h * (heat.celsius + is_["pan_c"] - boil_c)
        return is_["crust_kg_m2"] * LATENT_STEAM / flux + is_["gold_min"] * 60.0

    inside = (*_INSIDE, *calculation.rows_of(of_thick))
    likely: dict[EstimateId, float] = {name: calculation.likely(name) for name in (*inside, *_FACE)}
    through: dict[tuple[tuple[str, float], ...], float] = {(): through_s(likely, kitchen.room_c)}

    def each_s(is_: Mapping[EstimateId, float]) -> float:
        moved = tuple((name, is_[name]) for name in inside if is_[name] != likely[name])
        if moved not in through:
            through[moved] = through_s(is_, kitchen.room_c)
        return through[moved] if puffs else max(turns * crust_s(is_), through[moved])

    factor = kitchen.time_factor
    of.append(calculation.from_kitchen("time_factor", say("this kitchen's time factor"), factor))
    which = ("pan_c", "pan_h", *calculation.rows_of(of_thick)) if puffs else (*_FACE, *inside)
    each = enter_with_range(
        calculation,
        "finish.each_min",
        heat.says,
        lambda is_: each_s({**likely, **is_}) / 60.0 * factor,
        which,
        source=SOURCE,
        of=of,
    )
    frozen_s = through_s(likely, kitchen.freezer_c)
    frozen_s = frozen_s if puffs else max(turns * crust_s(likely), frozen_s)
    if not heat.both:
        fact_book.add("finish.side_min", each / 2, say("turned once, half way"), source=SOURCE, of=["finish.each_min"])
    fact_book.add(
        "finish.frozen_min",
        frozen_s / 60 * factor - each,
        say("from {freezer_c}", freezer_c=calculation.degrees(kitchen.freezer_c)),
        source=SOURCE,
        of=["finish.each_min", calculation.from_kitchen("freezer_c", "freezer", kitchen.freezer_c, "°C")],
    )
    _enter_loads(calculation, thick_mm, each)


def _thickness(calculation: Calculation, kind: FinishKind) -> tuple[float, Origins]:
    """How thick a piece is, in mm, and where that is from."""
    fact_book = calculation.fact_book
    for key in ("shape.thick_mm", "shape.depth_mm"):
        if key in fact_book and not kind.startswith("fry"):
            return fact_book.number(key), [key]
    thick = FRY_SLICE_MM if kind.startswith("fry") else calculation.way.board_mm
    return thick, [leaf("way:slice", say("a slice"), thick, "mm")]


def _enter_loads(calculation: Calculation, thick_mm: float, each: float) -> None:
    """How many lie side by side, and all of them one panful after another."""
    fact_book = calculation.fact_book
    pieces = "cut.pieces" if "cut.pieces" in fact_book else "shape.pieces"
    count = fact_book.number(pieces)
    ml = fact_book.number("mix.volume_ml") / count
    piece_mm2 = ml * 1000.0 / thick_mm
    at_once = max(1, math.floor(_SHARE * math.pi * _PAN_MM**2 / 4 / piece_mm2))
    number = math.ceil(count / at_once)
    pan = leaf("way:pan", say("a pan or rack"), _PAN_MM, say("mm across"))
    fact_book.add(
        "finish.loads",
        float(number),
        say("{at_once} at a time, not touching: they stick to each other", at_once=at_once),
        source=KITCHEN_ESTIMATE,
        of=[pieces, pan],
    )
    fact_book.add(
        "finish.all_min",
        number * each,
        say("one after another; eaten as they come out"),
        source=KITCHEN_ESTIMATE,
        of=["finish.loads", "finish.each_min"],
    )

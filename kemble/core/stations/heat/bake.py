"""Bake: a batter in a tin in the oven; when it is set to the heart, when its top has a skin, when it browns."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Literal

import numpy as np

from kemble.core.cards.card_parts import stage_step
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.baking import (
    CELLS,
    DOOR_DROP_C,
    STEPS,
    BakeCurves,
    Oven,
    OvenSlab,
    bake_all,
)
from kemble.core.physics.conduction import Array, time_at_level
from kemble.core.physics.doneness import clear_s, cook_value_min
from kemble.core.physics.thermal import Material, boils_at_c, fractions, properties, water_activity
from kemble.core.sentences import say
from kemble.core.sheet.document import HeatStage
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import drawn_curve
from kemble.core.stations.heat.heat_stages import (
    heat_stage_results,
    oven_air_by_time,
    stages_of_sheet,
    window_with_stages,
)
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.heat.steam import TIN_J_PER_M2K, enter_depth, sideways, wall_h
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range, scaled_by_estimates

SOLVER = "heat and drying by finite volumes; properties by the Choi-Okos correlations"
_OFF_THE_DIAL_C = 15.0
SPAN_FROM_MIN, SPAN_MIN, SPAN_MOST_MIN = 45.0, 0.075, 240.0  # looked at for so long, and more a mm2 of depth


class BakeDrawing(AnswerModel):
    kind: Literal["bake"] = "bake"
    tin: Tin
    depth_mm: float
    oven_c: float


@dataclass(frozen=True, slots=True)
class _FilledTin:
    """A batter in a tin in an oven. m, °C, W/(m2 K)."""

    depth: float
    tin: Tin
    material: Material
    water: float
    start_c: float
    oven: Oven
    tin_j: float

    def in_oven(self) -> OvenSlab:
        """For as long as a tray so deep can take."""
        end_s = min(SPAN_MOST_MIN, SPAN_FROM_MIN + SPAN_MIN * (1000.0 * self.depth) ** 2) * 60.0
        body = conduction.slab(self.depth, self.material, self.oven.h_floor, self.oven.h_top, CELLS, even=True)
        return OvenSlab(body, self.material, self.water, self.start_c, self.oven, end_s, self.tin_j)


@dataclass(frozen=True, slots=True, eq=False)
class _BakedTray:
    """A tray, and what became of it; told apart by which it is."""

    tray: _FilledTin
    baked: BakeCurves


@dataclass(frozen=True, slots=True, eq=False)
class _DonenessLimits:
    """What a cook may mean by done, asked of the same bake: °C, m, minutes of browning, and minutes at 100 °C; told
    apart by which it is."""

    gel_c: float
    firm_c: float  # where egg and starch hold together and spring back
    hot_c: float
    loss: float  # share of its weight that it gives up
    dries_m: float  # a tray deeper than this dries at its faces as one so deep
    golden_min: float
    needs: float  # of grain which went in short of done


@dataclass(frozen=True, slots=True)
class _DonenessQuery:
    """When a tray is done, asked of the likely one, which is the first, and of others that differ from it in one thing.

    `across` is the share of the first difference that the walls leave in the middle, along the likely bake: the same
    for every question that changes only what goes on above and below.
    """

    bakes: Sequence[_BakedTray]
    across: Array
    ends: Ends
    told: dict[tuple[_BakedTray, Moment, _DonenessLimits], float | None] = field(default_factory=dict)
    cores: dict[_BakedTray, Array] = field(default_factory=dict)

    @property
    def likely(self) -> _BakedTray:
        return self.bakes[0]

    def slowest(self, bake: _BakedTray) -> Array:
        """The slowest point along a bake in °C."""
        if bake not in self.cores:
            boil_c, baked = self.likely.tray.oven.boil_c, bake.baked
            share: Array = np.interp(baked.times, self.likely.baked.times, self.across)
            self.cores[bake] = boil_c + (baked.coldest - boil_c) * share
        return self.cores[bake]

    def moment(self, name: Moment, bake: _BakedTray, mean: _DonenessLimits) -> float | None:
        """Seconds at which one of the things that done may mean has come; None when it does not."""
        key = (bake, name, mean)
        if key not in self.told:
            self.told[key] = self._moment(name, bake, mean)
        return self.told[key]

    def _moment(self, name: Moment, bake: _BakedTray, mean: _DonenessLimits) -> float | None:
        tray, baked = bake.tray, bake.baked
        at = baked.times
        if name == "dried":
            # A deep tray dries at its faces as a flat one does: it need not lose the same share of all of it.
            return time_at_level(at, baked.dried, mean.loss * min(tray.depth, mean.dries_m) * tray.material.rho)
        if name == "golden":
            return time_at_level(at, baked.browning, mean.golden_min)
        core = self.slowest(bake)
        if name == "hot":
            return time_at_level(at, core, mean.hot_c)
        if name == "cooked":
            return time_at_level(at, cook_value_min(at, core), mean.needs) if mean.needs else 0.0
        clear, firm = clear_s(at, core, mean.gel_c), time_at_level(at, core, min(mean.firm_c, tray.oven.boil_c - 1.5))
        return None if clear is None or firm is None else max(clear, firm)

    def done_s(self, bake: _BakedTray, mean: _DonenessLimits) -> float | None:
        """The latest of what its ending asks for."""
        asked = [self.moment(name, bake, mean) for name in _ASKS[self.ends]]
        return None if None in asked else max(item for item in asked if item is not None)


# Set through and firm; dried to its chew; golden; hot at the heart; grain that went in short of done cooked.
Moment = Literal["set", "dried", "golden", "hot", "cooked"]
# Minutes of a moment by its name, with some estimates otherwise than likely; None where it does not come.
Tells = Callable[[Moment, Mapping[EstimateId, float]], float | None]
Ends = Literal["batter", "browned", "bare"]
# What each ending asks for: a batter set, dried to its chew and golden; rice under its syrup, browned and hot; rice baked
# bare, cooked through and dried, before its glaze.
_ASKS: dict[Ends, tuple[Moment, ...]] = {
    "batter": ("set", "dried", "golden"),
    "browned": ("golden", "hot"),
    "bare": ("cooked", "dried", "hot"),
}
_TOLD: dict[Ends, tuple[str, ...]] = {
    "batter": ("heat.set_min", "heat.dried_min", "heat.browns_min"),
    "browned": ("heat.browns_min",),
    "bare": ("heat.dried_min", "heat.browns_min"),
}
# For how many steps of the march an ending is looked at first: what only browns is done long before a batter is dry.
_LOOKED_AT: dict[Ends, tuple[int, ...]] = {"browned": (2 * STEPS // 3, 5 * STEPS // 6)}
_ENDS_SAY: dict[Ends, str] = {
    "batter": "the latest of set and firm, dried to its chew, and golden",
    "browned": "the top has browned under its syrup, and the heart is hot",
    "bare": "the grain is soft to the heart, and the whole has dried until it holds; then its glaze",
}
_HANGS: dict[Ends, tuple[EstimateId, ...]] = {
    "batter": ("golden_min", "oven_h", "oven_c", "depth", "firm_c", "dries_mm", "drying", "start_c"),
    "browned": ("golden_min", "sugared_top", "oven_h", "oven_c", "drying", "start_c"),
    "bare": ("bare_loss", "oven_h", "oven_c", "depth", "dries_mm", "drying", "start_c", "glaze_min"),
}
_OF_A_RISEN: tuple[EstimateId, ...] = ("risen_deep", "risen_k", "conductivity")  # beside the others
# What is told beside done, the moment of it, and what it says; and what each hangs on, asked of the same bake.
_TELLS: tuple[tuple[str, Moment, str], ...] = (
    ("heat.set_min", "set", "clear, and over {firm} at the slowest point"),
    ("heat.dried_min", "dried", "the whole has given up the water that its way loses"),
    ("heat.browns_min", "golden", "so long hot enough that it is called golden: an index"),
)
_TELLS_BY: dict[Moment, tuple[EstimateId, ...]] = {
    "set": ("firm_c", "gel_c"),
    "dried": ("dries_mm", "bare_loss"),
    "golden": ("golden_min", "sugared_top"),
}
_BENDS: tuple[EstimateId, ...] = ("oven_h", "oven_c")  # move it most, nearly always
_AFTERWARDS = frozenset(
    {"golden_min", "sugared_top", "gel_c", "firm_c", "bare_loss", "dries_mm", "glaze_min"}
)  # what is asked of the same bake


def ends_of(calculation: Calculation) -> Ends:
    """What done means for this tray, by its way and the school followed."""
    if calculation.way.portions != "cooked":
        return "batter"
    return "bare" if calculation.asked("finish") == "bare" else "browned"


def _is_leavened(calculation: Calculation) -> bool:
    return calculation.asked("dense") == "leavened" and calculation.way.base == "flour"


def _trays(
    calculation: Calculation, base: Composition, drawn: TinDrawing, boil_c: float, stages: Sequence[HeatStage]
) -> Callable[[Mapping[EstimateId, float]], _FilledTin]:
    """What gives the tray with some estimates otherwise than likely."""
    parts = fractions(base)
    material, boils_c, activity = properties(parts, 60.0), boils_at_c(base, boil_c), water_activity(base)
    laid_on, lining = _laid_on(calculation, drawn, stages), calculation.sheet.vessel.lining
    risen = _is_leavened(calculation)

    def tray(of: Mapping[EstimateId, float]) -> _FilledTin:
        def is_(name: EstimateId) -> float:
            return of.get(name, calculation.estimates[name].value)

        deep, conducts = (is_("risen_deep"), is_("risen_k")) if risen else (1.0, 1.0)
        air, *later = oven_air_by_time(calculation, stages, is_("oven_c"))
        return _FilledTin(
            depth=drawn.heated_mm / 1000.0 * is_("depth") * deep,
            tin=drawn.tin,
            material=Material(material.k * is_("conductivity") * conducts, material.rho / deep, material.cp),
            water=parts["water"],
            start_c=calculation.batter_c + is_("start_c"),
            oven=Oven(
                air[1],
                boils_c,
                is_("oven_h"),
                wall_h(drawn.tin, is_("oven_h"), lining, is_("wall_h")),
                later=tuple(later),
                rewets=laid_on,
                wet_share=is_("drying"),
                activity=activity,
            ),
            tin_j=TIN_J_PER_M2K[drawn.tin.material] * is_("tin_j"),
        )

    return tray


def _laid_on(
    calculation: Calculation, drawn: TinDrawing, stages: Sequence[HeatStage]
) -> tuple[tuple[float, float], ...]:
    """(s, kg/m2) of water in what is laid over the top as a stage begins."""
    begins, result = 0.0, []
    for number, stage in enumerate(stages, start=1):
        step = stage_step("bake", number)
        grams = sum(
            had.composition(had.rest).water
            for bowl in calculation.bowl.parts.values()
            for had in bowl.outputs
            if number > 1 and had.place.to == "whole" and had.place.where == "over" and had.place.joins == step
        )
        if grams > 0:
            floor_m2 = drawn.count * drawn.tin.floor_mm2 / 1e6
            result.append((begins * 60.0 / calculation.kitchen.time_factor, grams / 1000.0 / floor_m2))
        if stage.minutes is None:
            break
        begins += stage.minutes
    return tuple(result)


def bake_tray(
    calculation: Calculation, base: Composition, drawn: TinDrawing, boil_c: float
) -> OwnHeatResult[BakeDrawing] | None:
    """When it is done, and what would change that. None when it does not come to it (a problem is noted)."""
    stages, ends = stages_of_sheet(calculation), ends_of(calculation)
    tray_with = _trays(calculation, base, drawn, boil_c, stages)
    likely = tray_with({})
    others = _other_trays(calculation, likely)
    which = (*_HANGS[ends], *(_OF_A_RISEN if _is_leavened(calculation) else ()))
    # Everything that will be asked is baked side by side: each end of what the window hangs on, and what-ifs.
    moved = [(name, calculation.estimates[name].low) for name in which if name not in _AFTERWARDS]
    moved += [(name, calculation.estimates[name].high) for name in _BENDS if name in which]
    trays = [likely, *(tray for _, tray, _ in others)]
    trays += [tray_with({name: end}) for name, end in moved]
    asked = _bake_side_by_side(calculation, trays, ends, which)
    bakes, as_it_is, baked = asked.bakes, asked.likely, asked.likely.baked
    means = _doneness_limits(calculation, ends, {})
    otherwise, at_ends = bakes[1 : 1 + len(others)], dict(zip(moved, bakes[1 + len(others) :], strict=True))

    def at(of: Mapping[EstimateId, float], *, march: bool) -> tuple[_BakedTray, _DonenessLimits] | None:
        """Another bake: one that was baked beside, the same asked otherwise, or one marched where that is allowed."""
        moved = {name: value for name, value in of.items() if value != calculation.likely(name)}
        estimate_ids = moved.keys() - _AFTERWARDS
        mean = _doneness_limits(calculation, ends, moved) if len(estimate_ids) < len(moved) else means
        if not estimate_ids:
            return as_it_is, mean
        beside = at_ends.get(next(iter(moved.items()))) if len(moved) == 1 else None
        if beside is None and march:
            tray = tray_with(of)
            beside = _BakedTray(tray, bake_all([tray.in_oven()])[0])
        return (beside, mean) if beside else None

    glaze: EstimateId = "glaze_min"
    glazes = ends == "bare" and not calculation.sheet.heat.stages  # what it takes longer comes on top

    def solve(of: Mapping[EstimateId, float]) -> float | None:
        result = at(of, march=True)
        seconds = asked.done_s(*result) if result else None
        return None if seconds is None else seconds / 60.0 + (of[glaze] - calculation.likely(glaze) if glazes else 0.0)

    def tells(name: Moment, of: Mapping[EstimateId, float]) -> float | None:
        found_result = at(of, march=False)
        seconds = asked.moment(name, *found_result) if found_result else None
        return None if seconds is None else seconds / 60.0 * factor

    factor = calculation.kitchen.time_factor
    window = enter_heat_window(calculation, solve, which)
    if window is None:
        deep = say(
            "at {air_c} a batter {heated_mm} deep",
            air_c=calculation.degrees(likely.oven.air_c),
            heated_mm=calculation.length(drawn.heated_mm),
        )
        says = say("{deep} does not {end} in any sensible time", deep=deep, end="brown" if ends == "browned" else "set")
        calculation.problem("vessel", says, say("a hotter oven, or a shallower tin"))
        return None
    first, done, latest = window_with_stages(stages, (window.first, window.likely, window.latest))
    in_stages = heat_stage_results(calculation, stages, "heat", done)
    minutes, core = baked.times / 60.0 * factor, asked.slowest(as_it_is)
    skin = _skin(calculation, lambda of: at(of, march=False), baked)
    browns = tells("golden", {})
    _enter_times(calculation, drawn, (first, done, latest), tells, ends, which)
    _enter_inside(calculation, asked, minutes, core, done)
    for (key, _, says), other in zip(others, otherwise, strict=True):
        seconds = asked.done_s(other, means)
        if seconds is not None:
            calculation.fact_book.add(
                key, seconds / 60.0 * factor - window.likely, says, source=SOLVER, of=["heat.done_min"]
            )
    _enter_door(calculation)
    shelves = calculation.kitchen.oven_shelves
    room = calculation.from_kitchen("oven_shelves", say("trays at once"), shelves)
    loads(calculation, drawn.count, shelves, "trays", "shelves", room)
    _enter_glaze(calculation, done, skin)
    _advise_on_bake(calculation, done, browns, ends)
    shown = minutes <= max(1.35 * done, 1.12 * latest)
    curve = drawn_curve(minutes[shown], core[shown], baked.top[shown])
    drawing = unchecked_model(
        BakeDrawing,
        kind="bake",
        tin=drawn.tin,
        depth_mm=drawn.depth_mm,
        oven_c=stages[0].oven_c or calculation.sheet.heat.oven_c,
    )
    return OwnHeatResult(drawing, curve, in_stages)


def _bake_side_by_side(
    calculation: Calculation, trays: Sequence[_FilledTin], ends: Ends, which: Sequence[EstimateId]
) -> _DonenessQuery:
    """The trays baked side by side, the likely one first: looked at for as long as their ending takes, or longer when
    one of them is not done by then."""
    slabs, likely = [tray.in_oven() for tray in trays], trays[0]
    means = _doneness_limits(calculation, ends, {})
    longest = _doneness_limits(
        calculation, ends, {name: calculation.estimates[name].high for name in which if name in _AFTERWARDS}
    )
    for upto in (*_LOOKED_AT.get(ends, ()), STEPS):
        bakes = [_BakedTray(tray, how) for tray, how in zip(trays, bake_all(slabs, upto=upto), strict=True)]
        across = sideways(likely.tin, likely.material, likely.oven.h_floor, bakes[0].baked.times)
        asked = _DonenessQuery(bakes, across, ends)
        if upto == STEPS or None not in (
            asked.done_s(bakes[0], longest),
            *(asked.done_s(tray, means) for tray in bakes),
        ):
            break
    return asked


def _doneness_limits(calculation: Calculation, ends: Ends, of: Mapping[EstimateId, float]) -> _DonenessLimits:
    """What done means, with some estimates otherwise than likely."""

    def is_(name: EstimateId) -> float:
        return of.get(name, calculation.likely(name))

    ahead = calculation.likely("ahead_share")
    return _DonenessLimits(
        gel_c=calculation.gel_c(of),
        firm_c=is_("firm_c"),
        hot_c=is_("hot_c"),
        loss=is_("bare_loss") if ends == "bare" else calculation.way.loss(calculation.schools).middle / 100,
        dries_m=is_("dries_mm") / 1000.0,
        golden_min=is_("golden_min") * (1.0 if ends == "batter" else is_("sugared_top")),
        needs=calculation.fact_book.number("heat.needs_min") / ahead * (1 - ahead) if ends == "bare" else 0.0,
    )


def _skin(
    calculation: Calculation,
    bake_with: Callable[[Mapping[EstimateId, float]], tuple[_BakedTray, _DonenessLimits] | None],
    baked: BakeCurves,
) -> float | None:
    """Enter when the top has a skin; its minute, or None when it gets none. `bake_with` gives the bake with some estimates
    otherwise than likely."""
    wants: EstimateId = "skin_kg_m2"
    if time_at_level(baked.times, baked.top_dried, calculation.likely(wants)) is None:
        return None

    def solve(of: Mapping[EstimateId, float]) -> float | None:
        found_bake = bake_with({name: value for name, value in of.items() if name != wants})
        if found_bake is None:
            return None
        curves = found_bake[0].baked
        seconds = time_at_level(curves.times, curves.top_dried, of[wants])
        return None if seconds is None else seconds / 60.0 * calculation.kitchen.time_factor

    return enter_with_range(
        calculation,
        "heat.skin_min",
        say("the top has given up enough water to have a skin: a glaze stays on it from here"),
        solve,
        (wants, "oven_h", "oven_c", "drying"),
        source=f"{SOLVER}; {KITCHEN_ESTIMATE}",
        of=["shape.depth_mm", calculation.from_sheet("heat.oven_c", "oven", calculation.sheet.heat.oven_c, "°C")],
    )


def _enter_inside(calculation: Calculation, asked: _DonenessQuery, minutes: Array, core: Array, done: float) -> None:
    """When the heart is hot, how hot it is when done, and what has dried by then."""
    fact_book, tray = calculation.fact_book, asked.likely.tray
    hot_c = calculation.likely("hot_c")
    hot = time_at_level(minutes, core, hot_c)
    if hot is not None:
        says = say("the slowest point reaches {hot_c}", hot_c=calculation.degrees(hot_c))
        fact_book.add("heat.core_hot_min", hot, says, source=SOLVER, of=["heat.done_min"])
    for key, value, says in (
        ("heat.heart_done_c", float(np.interp(done, minutes, core)), say("the slowest point at the likely time")),
        (
            "heat.dried_pct",
            100 * float(np.interp(done, minutes, asked.likely.baked.dried)) / (tray.depth * tray.material.rho),
            say("water that left as vapour by then, of the batter's weight"),
        ),
    ):
        fact_book.add(key, value, says, source=SOLVER, of=["heat.done_min", "shape.depth_mm"])


def _other_trays(calculation: Calculation, tray: _FilledTin) -> list[tuple[str, _FilledTin, str]]:
    """What another depth, another tin, another oven or another start would be: facts' keys, trays and words."""
    later = tuple((at, celsius - _OFF_THE_DIAL_C) for at, celsius in tray.oven.later)
    cooler = replace(tray, oven=replace(tray.oven, air_c=tray.oven.air_c - _OFF_THE_DIAL_C, later=later))
    tin = tray.tin.model_copy(update={"material": "glass" if tray.tin.material == "metal" else "metal"})
    wall = wall_h(tin, tray.oven.h_top, calculation.sheet.vessel.lining)
    return [
        ("heat.deeper_min", replace(tray, depth=tray.depth + 0.01), say("a centimetre deeper")),
        (
            "heat.tin_min",
            replace(
                tray,
                oven=replace(tray.oven, h_floor=wall),
                tin_j=TIN_J_PER_M2K[tin.material] * calculation.likely("tin_j"),
            ),
            say("the same in {material}", material=tin.material),
        ),
        (
            "heat.cooler_min",
            cooler,
            say("an oven that is {apart} cooler than its dial says", apart=calculation.apart(_OFF_THE_DIAL_C)),
        ),
        ("heat.colder_min", replace(tray, start_c=5.0), say("straight from the fridge")),
    ]


def _enter_door(calculation: Calculation) -> None:
    """What one look costs: the heat that the air was short of, over what drives it."""
    oven_c, boil_c = calculation.sheet.heat.oven_c, calculation.fact_book.number("heat.boil_c")
    back: EstimateId = "door_min"
    share = DOOR_DROP_C / (oven_c - 0.9 * boil_c) * calculation.kitchen.time_factor
    enter_with_range(
        calculation,
        "heat.door_min",
        say(
            "the air falls by {apart} and is back by a factor e in {likely:.0f} minutes",
            apart=calculation.apart(DOOR_DROP_C),
            likely=calculation.likely(back),
        ),
        scaled_by_estimates(share, back),
        (back,),
        source=KITCHEN_ESTIMATE,
        of=[calculation.from_sheet("heat.oven_c", "oven", oven_c, "°C")],
    )


def _enter_glaze(calculation: Calculation, done: float, skin: float | None) -> None:
    """When a glaze goes on a batter: on a skin, and early enough to set; rice goes in with it."""
    if calculation.way.portions == "cooked":
        return
    fact_book, bare = calculation.fact_book, calculation.fact_book.number("heat.all_loads_min")
    sets = calculation.likely("glaze_min")
    places = [glaze.main.place for glaze in calculation.bowl.of_role("glaze")]
    # One that lies under the cake, or is poured over on the plate, does not wait for the oven.
    if any((place.to, place.where) == ("whole", "over") for place in places):
        bare -= done - fact_book.add(
            "heat.glaze_at_min",
            max(done - sets, min(skin or 0.0, done)),
            say("it wants {sets:.0f} minutes to set, on a top that has its skin", sets=sets),
            source=KITCHEN_ESTIMATE,
            of=[
                "heat.done_min",
                calculation.estimated("glaze_min"),
                *(["heat.skin_min"] if "heat.skin_min" in fact_book else []),
            ],
        )
    fact_book.add(
        "heat.bare_min", bare, say("until it is done, or its glaze goes on"), source=SOLVER, of=["heat.all_loads_min"]
    )


def _enter_times(
    calculation: Calculation,
    drawn: TinDrawing,
    window: tuple[float, float, float],
    tells: Tells,
    ends: Ends,
    hangs: Sequence[EstimateId],
) -> None:
    fact_book, sheet, factor = calculation.fact_book, calculation.sheet, calculation.kitchen.time_factor
    first, middle, latest = window
    of: Origins = [
        "shape.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        calculation.from_sheet("heat.oven_c", "oven", sheet.heat.oven_c, "°C"),
        calculation.estimated("oven_c"),
        calculation.from_sheet("vessel.tin", "tin", f"{calculation.tin_size(drawn.tin)}, {drawn.tin.material}"),
        calculation.from_sheet("start.batter_c", say("batter goes in at"), calculation.batter_c, "°C"),
        calculation.from_kitchen("time_factor", say("this kitchen's time factor"), factor),
    ]
    enter_depth(calculation, drawn)
    parts: Origins = []
    for key, name, says in _TELLS:
        if key not in _TOLD[ends] or tells(name, {}) is None:
            continue
        which = tuple(dict.fromkeys((*hangs, *_TELLS_BY[name])))
        firm = calculation.degrees(calculation.likely("firm_c"))
        source = f"{SOLVER}; {KITCHEN_ESTIMATE}"
        enter_with_range(calculation, key, says.format(firm=firm), partial(tells, name), which, source=source, of=of)
        parts.append(key)
    source = say(
        "{solver}; surfaces and what is called done kitchen estimates",
        solver=SOLVER,
    )
    fact_book.add("heat.first_check_min", first, say("one in twenty is done by then"), source=SOLVER, of=of)
    fact_book.add("heat.done_min", middle, _ENDS_SAY[ends], source=source, of=[*parts, *of], low=first, high=latest)
    fact_book.add("heat.latest_min", latest, say("nineteen in twenty are done by then"), source=SOLVER, of=of)


def _advise_on_bake(calculation: Calculation, done: float, browns: float | None, ends: Ends) -> None:
    if ends == "browned":
        calculation.advise(
            "heat", "look", say("It bubbles at the edge first. Brown, and the glaze set to a skin: out."), 5
        )
        return
    if ends == "bare":
        says = say(
            "Bare first, until a grain from the middle is soft. Then the glaze, and the last minutes near the top."
        )
        calculation.advise("heat", "look", says, 5)
        return
    if browns is not None and browns < done - 8:
        says = say(
            "The top browns from {browns:.0f} minutes: lay foil over it until the heart is set at {done:.0f}.",
            browns=browns,
            done=done,
        )
        calculation.advise("heat", "look", says, 2)
    says = say("Press the middle: firm, and it springs back. The edge leaves the tin a little before.")
    calculation.advise("heat", "look", says, 5)

"""Bake: a batter in a tin in the oven; when it is set to the heart, when its top has a skin, when it browns."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.cards.card import stage_step
from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.facts.known import known
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.baking import (
    BROWN_MIN,
    CELLS,
    DOOR_BACK_S,
    DOOR_DROP_C,
    OVEN_H,
    SKIN_KG_PER_M2,
    Baked,
    Oven,
    OvenSlab,
    bake_all,
    browned,
)
from kemble.core.physics.conduction import Array, when
from kemble.core.physics.doneness import HOT_C, clear_s
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.sheet.document import HeatStage
from kemble.core.stations.heat.curve import drawn_curve
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.stages import air_of, as_long_as_said, enter_stages, stages_said
from kemble.core.stations.heat.steam import sideways, wall_h
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.working import Drawn, Working

SOLVER = "heat and drying by finite volumes; properties by the Choi-Okos correlations"
FIRM_C = 95.0  # egg and starch hold together and spring back; kitchen estimate, 92-97
GLAZE_SETS_MIN = 8.0  # a brushed glaze bubbles and sets; kitchen estimate, 5-12
_OFF_THE_DIAL_C = 15.0
SPAN_FROM_MIN, SPAN_MIN, SPAN_MOST_MIN = 45.0, 0.075, 240.0  # looked at for so long, and more a mm2 of depth


class BakeDrawing(Drawn):
    kind: Literal["bake"] = "bake"
    tin: Tin
    depth_mm: float
    oven_c: float


@dataclass(frozen=True, slots=True)
class _Filled:
    """A batter in a tin in an oven. m, °C, W/(m2 K)."""

    depth: float
    tin: Tin
    material: Material
    water: float
    start_c: float
    oven: Oven

    def in_oven(self) -> OvenSlab:
        """For as long as a tray so deep can take."""
        end_s = min(SPAN_MOST_MIN, SPAN_FROM_MIN + SPAN_MIN * (1000.0 * self.depth) ** 2) * 60.0
        body = conduction.slab(self.depth, self.material, self.oven.h_floor, self.oven.h_top, CELLS, even=True)
        return OvenSlab(body, self.material, self.water, self.start_c, self.oven, end_s)


@dataclass(frozen=True, slots=True)
class _Question:
    """When a tray is done, asked of the likely one and of others that differ from it in one thing.

    `across` is the share of the first difference that the walls leave in the middle, along the likely bake: the same
    for every question that changes only what goes on above and below.
    """

    likely: _Filled
    baked: Baked
    across: Array
    gel_c: float
    loss: float  # share of its weight that the batter is to give up
    factor: float
    cooked: bool  # it goes in cooked and hot: done is a brown top and a hot heart

    def slowest(self, baked: Baked) -> Array:
        """The slowest point along a in °C."""
        boil_c = self.likely.oven.boil_c
        share: Array = np.interp(baked.times, self.baked.times, self.across)
        result: Array = boil_c + (baked.cells.min(axis=1) - boil_c) * share
        return result

    def seconds(self, tray: _Filled, baked: Baked, gel_c: float) -> float | None:
        """Until the slowest point has gelled, cleared and is firm, and the whole has dried to its chew; or is brown."""
        at, core = baked.times, self.slowest(baked)
        if self.cooked:
            brown = when(at, browned(at, baked.top), BROWN_MIN)
            hot = when(at, core, HOT_C)
            return None if brown is None or hot is None else max(brown, hot)
        moments = (
            clear_s(at, core, gel_c),
            when(at, core, min(FIRM_C, tray.oven.boil_c - 1.5)),
            when(at, baked.dried, self.loss * tray.depth * tray.material.rho),
        )
        return None if None in moments else max(m for m in moments if m is not None)


def _tray(
    working: Working, base: Composition, drawn: TinDrawing, boil_c: float, stages: Sequence[HeatStage]
) -> _Filled:
    parts = fractions(base)
    return _Filled(
        depth=drawn.depth_mm / 1000.0,
        tin=drawn.tin,
        material=properties(parts, 60.0),
        water=parts["water"],
        start_c=working.batter_c,
        oven=Oven(
            air_of(working, stages)[0][1],
            boil_c,
            OVEN_H,
            wall_h(drawn.tin, OVEN_H, working.sheet.vessel.lining),
            later=air_of(working, stages)[1:],
            rewets=_laid_on(working, drawn, stages),
        ),
    )


def _laid_on(working: Working, drawn: TinDrawing, stages: Sequence[HeatStage]) -> tuple[tuple[float, float], ...]:
    """(s, kg/m2) of water in what is laid over the top as a stage begins."""
    begins, found = 0.0, []
    for number, stage in enumerate(stages, start=1):
        step = stage_step("bake", number)
        grams = sum(
            had.composition(had.rest).water
            for bowl in working.bowl.parts.values()
            for had in bowl.outputs
            if number > 1 and had.place.to == "whole" and had.place.where == "over" and had.place.joins == step
        )
        if grams > 0:
            floor_m2 = drawn.count * drawn.tin.floor_mm2 / 1e6
            found.append((begins * 60.0 / working.kitchen.time_factor, grams / 1000.0 / floor_m2))
        if stage.minutes is None:
            break
        begins += stage.minutes
    return tuple(found)


def bake_tray(working: Working, base: Composition, drawn: TinDrawing, boil_c: float) -> BakeDrawing | None:
    """When it is set and firm, and what would change that. None when it does not set (a problem is noted)."""
    stages = stages_said(working)
    likely = _tray(working, base, drawn, boil_c, stages)
    oven_c = likely.oven.air_c
    others = _others(working, likely)
    trays = [likely, _quick(likely), _slow(likely), *(tray for _, tray, _ in others)]
    baked, *marched = bake_all([tray.in_oven() for tray in trays])
    asked = _Question(
        likely=likely,
        baked=baked,
        across=sideways(likely.tin, likely.material, likely.oven.h_floor, baked.times),
        gel_c=working.book.number("mix.gel_temperature_c"),
        loss=working.way.loss(working.schools).low / 100,
        factor=working.kitchen.time_factor,
        cooked=working.way.portions == "cooked",
    )
    gels = [asked.gel_c, asked.gel_c - 3, asked.gel_c + 3, *[asked.gel_c] * len(others)]
    found = [asked.seconds(*one) for one in zip(trays, (baked, *marched), gels, strict=True)]
    done, first, latest, *costs = (None if one is None else one / 60.0 * asked.factor for one in found)
    if done is None or first is None or latest is None:
        deep = f"at {working.degrees(oven_c)} a batter {working.length(drawn.depth_mm)} deep"
        never = "brown" if asked.cooked else "set"
        says = f"{deep} does not {never} in any sensible time"
        working.problem("vessel", says, "a hotter oven, or a shallower tin")
        return None
    costs = [None if one is None else one - done for one in costs]
    # A fan that warms sooner also dries the top sooner: in a very thin tray the fast one can end after the likely.
    first, done, latest = as_long_as_said(stages, (min(first, done), done, max(latest, done)))
    enter_stages(working, stages, "heat", done)
    minutes, core = baked.times / 60.0 * asked.factor, asked.slowest(baked)
    skin = when(minutes, baked.top_dried, SKIN_KG_PER_M2)
    browns = when(minutes, browned(baked.times, baked.top), BROWN_MIN)
    _enter_times(working, drawn, (first, done, latest), skin, browns, cooked=asked.cooked)
    _enter_inside(working, asked, minutes, core, done)
    for (key, _, says), minutes_of in zip(others, costs, strict=True):
        if minutes_of is not None:
            working.book.add(key, minutes_of, says, source=SOLVER, of=["heat.done_min"])
    _enter_door(working)
    shelves = working.kitchen.oven_shelves
    room = working.from_kitchen("oven_shelves", "trays at once", shelves)
    loads(working, drawn.count, shelves, "trays", "shelves", room)
    _enter_glaze(working, done, skin)
    _advise(working, done, browns, cooked=asked.cooked)
    shown = minutes <= max(1.35 * done, 1.12 * latest)
    working.core = drawn_curve(minutes[shown], core[shown], baked.top[shown])
    return known(
        BakeDrawing,
        kind="bake",
        tin=drawn.tin,
        depth_mm=drawn.depth_mm,
        oven_c=oven_c,
    )


def _enter_inside(working: Working, asked: _Question, minutes: Array, core: Array, done: float) -> None:
    """When the heart is hot, how hot it is when done, and what has dried by then."""
    book, tray = working.book, asked.likely
    hot = when(minutes, core, HOT_C)
    if hot is not None:
        says = f"the slowest point reaches {working.degrees(HOT_C)}"
        book.add("heat.core_hot_min", hot, says, source=SOLVER, of=["heat.done_min"])
    for key, value, says in (
        ("heat.heart_done_c", float(np.interp(done, minutes, core)), "the slowest point at the likely time"),
        (
            "heat.dried_pct",
            100 * float(np.interp(done, minutes, asked.baked.dried)) / (tray.depth * tray.material.rho),
            "water that left as vapour by then, of the batter's weight",
        ),
    ):
        book.add(key, value, says, source=SOLVER, of=["heat.done_min", "shape.depth_mm"])


def _others(working: Working, tray: _Filled) -> list[tuple[str, _Filled, str]]:
    """What another depth, another tin, another oven or another start would be: facts' keys, trays and words."""
    later = tuple((at, celsius - _OFF_THE_DIAL_C) for at, celsius in tray.oven.later)
    cooler = replace(tray, oven=replace(tray.oven, air_c=tray.oven.air_c - _OFF_THE_DIAL_C, later=later))
    tin = tray.tin.model_copy(update={"material": "glass" if tray.tin.material == "metal" else "metal"})
    wall = wall_h(tin, OVEN_H, working.sheet.vessel.lining)
    return [
        ("heat.deeper_min", replace(tray, depth=tray.depth + 0.01), "a centimetre deeper"),
        ("heat.tin_min", replace(tray, oven=replace(tray.oven, h_floor=wall)), f"the same in {tin.material}"),
        ("heat.cooler_min", cooler, f"an oven that is {working.apart(_OFF_THE_DIAL_C)} cooler than its dial says"),
        ("heat.colder_min", replace(tray, start_c=5.0), "straight from the fridge"),
    ]


def _enter_door(working: Working) -> None:
    """What one look costs: the heat that the air was short of, over what drives it."""
    oven_c, boil_c = working.sheet.heat.oven_c, working.book.number("heat.boil_c")
    seconds = DOOR_DROP_C * DOOR_BACK_S / (oven_c - 0.9 * boil_c)
    working.book.add(
        "heat.door_min",
        seconds / 60.0 * working.kitchen.time_factor,
        f"the air falls by {working.apart(DOOR_DROP_C)} and is back by a factor e in {DOOR_BACK_S / 60:.0f} minutes",
        source=KITCHEN_ESTIMATE,
        of=[working.from_sheet("heat.oven_c", "oven", oven_c, "°C")],
        low=seconds / 120.0,
        high=seconds / 30.0,
    )


def _enter_glaze(working: Working, done: float, skin: float | None) -> None:
    """When a glaze goes on a batter: on a skin, and early enough to set; rice goes in with it."""
    if working.way.portions == "cooked":
        return
    book, bare = working.book, working.book.number("heat.all_loads_min")
    if "glaze" in working.bowl.parts:
        bare -= done - book.add(
            "heat.glaze_at_min",
            max(done - GLAZE_SETS_MIN, min(skin or 0.0, done)),
            f"it wants {GLAZE_SETS_MIN:.0f} minutes to set, on a top that has its skin",
            source=KITCHEN_ESTIMATE,
            of=["heat.done_min", *(["heat.skin_min"] if "heat.skin_min" in book else [])],
        )
    book.add("heat.bare_min", bare, "until it is done, or its glaze goes on", source=SOLVER, of=["heat.all_loads_min"])


def _quick(tray: _Filled) -> _Filled:
    """A hot oven with a fan, a batter that stood in the warm: what a kitchen varies, all of it fast."""
    oven = replace(tray.oven, h_top=tray.oven.h_top * 1.25, h_floor=tray.oven.h_floor * 1.25)
    return replace(tray, oven=oven, material=replace(tray.material, k=tray.material.k * 1.08), start_c=tray.start_c + 4)


def _slow(tray: _Filled) -> _Filled:
    """A weak oven, a tray set on another, a cool batter: all of it slow."""
    oven = replace(tray.oven, h_top=tray.oven.h_top * 0.8, h_floor=tray.oven.h_floor * 0.8)
    return replace(tray, oven=oven, material=replace(tray.material, k=tray.material.k * 0.92), start_c=tray.start_c - 4)


def _enter_times(
    working: Working,
    drawn: TinDrawing,
    window: tuple[float, float, float],
    skin: float | None,
    browns: float | None,
    *,
    cooked: bool,
) -> None:
    book, sheet = working.book, working.sheet
    first, middle, latest = window
    oven = working.from_sheet("heat.oven_c", "oven", sheet.heat.oven_c, "°C")
    of: Origins = [
        "shape.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        oven,
        working.from_sheet("vessel.tin", "tin", f"{working.tin_size(drawn.tin)}, {drawn.tin.material}"),
        working.from_sheet("start.batter_c", "batter goes in at", working.batter_c, "°C"),
        working.from_kitchen("time_factor", "this kitchen's time factor", working.kitchen.time_factor),
    ]
    book.add("heat.depth_mm", drawn.depth_mm, "the depth in the tin", source=GEOMETRY, of=["shape.depth_mm"])
    says = f"the slowest point has cleared and is firm, over {working.degrees(FIRM_C)}, and the whole has dried to its chew"
    if cooked:
        says = f"the glazed top has browned, and the heart is over {working.degrees(HOT_C)}"
    book.add("heat.first_check_min", first, "if everything goes fast: a fan, a true dial", source=SOLVER, of=of)
    source = f"{SOLVER}; surfaces and firmness {KITCHEN_ESTIMATE}s"
    book.add("heat.done_min", middle, says, source=source, of=of, low=first, high=latest)
    book.add("heat.latest_min", latest, "if everything goes slowly: a weak oven, a cool batter", source=SOLVER, of=of)
    for key, minutes, says in (
        ("heat.skin_min", skin, "the top has given up enough water to have a skin: a glaze stays on it from here"),
        ("heat.browns_min", browns, "so long hot enough that a sugared top is golden: an index, no more"),
    ):
        if minutes is not None:
            book.add(
                key,
                minutes,
                says,
                source=f"{SOLVER}; {KITCHEN_ESTIMATE}",
                of=of,
                low=minutes * 0.75,
                high=minutes * 1.3,
            )


def _advise(working: Working, done: float, browns: float | None, *, cooked: bool) -> None:
    if cooked:
        working.advise("heat", "look", "It bubbles at the edge first. Brown, and the glaze set to a skin: out.", 5)
        return
    if browns is None or browns > done + 12:
        says = f"Set at {done:.0f} minutes, and still pale: five minutes more near the top if you want it brown."
        working.advise("heat", "look", says, 3)
    elif browns < done - 8:
        says = f"The top browns from {browns:.0f} minutes: lay foil over it until the heart is set at {done:.0f}."
        working.advise("heat", "look", says, 2)
    says = "Press the middle: firm, and it springs back. The edge leaves the tin a little before."
    working.advise("heat", "look", says, 5)

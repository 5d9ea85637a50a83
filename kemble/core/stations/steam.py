"""Steam: a batter in a tin, from the first check to the latest, and the water under the rack."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.facts import KITCHEN_ESTIMATE, Origins
from kemble.core.kitchen import Tin
from kemble.core.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, Modes, when
from kemble.core.physics.doneness import COOKED, gelled
from kemble.core.physics.steamer import WaterPlan, water_plan
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.stations.curve import SOLVER, Curve, drawn_curve
from kemble.core.stations.shape import TinDrawing
from kemble.core.stations.working import Drawn, Working

# A gel turns from milky to clear some degrees above where it forms (12-18), and a stick comes out clean when that
# second change is four fifths done at the slowest point. Kitchen estimates.
CLEAR_ABOVE_GEL_C = 15.0
CLEARED = 0.8

# Surface coefficients in W/(m2 K), condensing steam about 500-1500; kitchen estimates.
STEAM_H = 900.0
FOIL_H = 55.0
WALL_W_PER_M2K = {"metal": math.inf, "glass": 250.0, "ceramic": 220.0}  # conductance of the wall itself


class WaterLevel(Drawn):
    minute: float
    ml: float


class SteamDrawing(Drawn):
    kind: Literal["steam"] = "steam"
    curve: Curve
    pot_mm: float
    rack_mm: float
    full_mm: float
    low_mm: float
    start_mm: float
    covered: bool
    tiers: int
    tin: Tin
    depth_mm: float
    top_ups: tuple[WaterLevel, ...]
    water: tuple[WaterLevel, ...]


@dataclass(frozen=True, slots=True)
class _Tinful:
    """A batter in a tin, and how the heat reaches it. m, W/(m2 K), °C."""

    depth: float
    tin: Tin
    material: Material
    h_top: float
    h_wall: float
    start_c: float

    def curve(self, around_c: float, times: Array, across: Array) -> tuple[Array, Array]:
        """(slowest point, top surface) in °C at `times` s: the product of slab and cylinder, or of three slabs.

        `across` is the sideways factor of that product, from `across`.
        """
        upright = Modes(conduction.slab(self.depth, self.material, self.h_wall, self.h_top))
        left = upright.remaining(times)
        _, top = upright.surfaces(left)
        gap = self.start_c - around_c
        return around_c + gap * left.max(axis=1) * across, around_c + gap * top * across

    def across(self, times: Array) -> Array:
        """The share of the first difference that is left at the middle, for heat from the sides alone."""
        if self.tin.shape == "round":
            body = conduction.cylinder(self.tin.diameter_mm / 2000.0, self.material, self.h_wall)
            return Modes.centre(Modes(body).remaining(times), body)
        sides = (self.tin.length_mm / 1000.0, self.tin.width_mm / 1000.0)
        lefts = [
            Modes(conduction.slab(side, self.material, self.h_wall, self.h_wall)).remaining(times).max(axis=1)
            for side in sides
        ]
        both: Array = lefts[0] * lefts[1]
        return both


def wall_h(tin: Tin, outside: float) -> float:
    """Coefficient through the wall of a tin with `outside` beyond it, in W/(m2 K)."""
    return 1.0 / (1.0 / outside + 1.0 / WALL_W_PER_M2K[tin.material])


def steam(working: Working, base: Composition, drawn: TinDrawing, boil_c: float) -> SteamDrawing | None:
    book, sheet, kitchen = working.book, working.sheet, working.kitchen
    tin, depth_mm = drawn.tin, drawn.depth_mm
    across = tin.diameter_mm if tin.shape == "round" else math.hypot(tin.length_mm, tin.width_mm)
    if across > kitchen.steamer.diameter_mm - 10:
        working.advise(
            "heat",
            "look",
            f"This tin is {across / 10:.0f} cm across; the steamer takes {(kitchen.steamer.diameter_mm - 10) / 10:.0f}.",
            0,
        )
    covered = sheet.school("cover") == "covered"
    gel_c = book.number("mix.gel_temperature_c")
    likely = _Tinful(
        depth=depth_mm / 1000.0,
        tin=tin,
        material=properties(fractions(base), (sheet.start.batter_c + boil_c) / 2),
        h_top=FOIL_H if covered else STEAM_H,
        h_wall=wall_h(tin, STEAM_H),
        start_c=sheet.start.batter_c,
    )
    factor = kitchen.time_factor
    scale = likely.depth**2 / likely.material.alpha
    times = scale * np.linspace(0.0, 1.0, 181) ** 2 * 4.0

    # The sides are the same for every question that changes only depth, cover or start.
    sideways = likely.across(times)

    def done(tinful: _Tinful, gel: float, across: Array = sideways) -> tuple[float | None, Array, Array]:
        heart, top = tinful.curve(boil_c, times, across)
        cooked = when(times, gelled(times, heart, gel), COOKED)
        clear = when(times, gelled(times, heart, gel + CLEAR_ABOVE_GEL_C), CLEARED)
        return (None if cooked is None or clear is None else max(cooked, clear)), heart, top

    def quick(tinful: _Tinful) -> _Tinful:
        m = tinful.material
        return replace(
            tinful,
            material=replace(m, k=m.k * 1.08),
            h_top=tinful.h_top * 1.5,
            h_wall=tinful.h_wall * 1.4,
            start_c=tinful.start_c + 4,
        )

    def slow(tinful: _Tinful) -> _Tinful:
        m = tinful.material
        return replace(
            tinful,
            material=replace(m, k=m.k * 0.92),
            h_top=tinful.h_top * 0.6,
            h_wall=tinful.h_wall * 0.6,
            start_c=tinful.start_c - 4,
        )

    done_s, heart, top = done(likely, gel_c)
    fast, lazy = quick(likely), slow(likely)
    first_s = done(fast, gel_c - 3, fast.across(times))[0]
    latest_s = done(lazy, gel_c + 3, lazy.across(times))[0]
    if done_s is None or first_s is None or latest_s is None:
        working.refuse(
            "vessel",
            f"at {working.degrees(boil_c)} steam this batter, which gels at {working.degrees(gel_c)}, does not clear in any sensible time",
            "less sugar, or a shallower tin",
        )
        return None
    window = [s / 60.0 * factor for s in (first_s, done_s, latest_s)]
    inputs: Origins = [
        "shape.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        working.from_sheet("vessel.tin", "tin", f"{tin.size}, {tin.material}"),
        working.from_sheet("start.batter_c", "batter goes in at", sheet.start.batter_c, "°C"),
        working.school("cover"),
        working.from_kitchen("time_factor", "this kitchen's time factor", factor),
    ]
    book.add("heat.depth_mm", depth_mm, "the depth in the tin", source="geometry", of=["shape.depth_mm"])
    book.add(
        "heat.first_check_min",
        window[0],
        "if everything goes fast: warm syrup, strong steam, thin metal",
        source=SOLVER,
        of=inputs,
    )
    book.add(
        "heat.done_min",
        window[1],
        "the slowest point has gelled and cleared, as it does well above that: no milky smear",
        source=f"{SOLVER}; clearing a {KITCHEN_ESTIMATE}",
        of=inputs,
        low=window[0],
        high=window[2],
    )
    book.add(
        "heat.latest_min",
        window[2],
        "if everything goes slowly: cool syrup, weak steam, sweet batter",
        source=SOLVER,
        of=inputs,
    )
    heart_done = float(np.interp(done_s, times, heart))
    book.add(
        "heat.heart_done_c",
        heart_done,
        "the slowest point at the likely time",
        source=SOLVER,
        of=["heat.done_min"],
    )

    deeper = done(replace(likely, depth=likely.depth + 0.01), gel_c)[0]
    other = done(replace(likely, h_top=STEAM_H if covered else FOIL_H), gel_c)[0]
    colder = done(replace(likely, start_c=kitchen.room_c), gel_c)[0]
    for key, seconds, says in (
        ("heat.deeper_min", deeper, "the same batter a centimetre deeper: depth counts nearly squared"),
        (
            "heat.cover_min",
            other,
            "open instead of covered" if covered else "covered with foil instead of open",
        ),
        ("heat.colder_min", colder, f"the batter poured at {working.degrees(kitchen.room_c)}"),
    ):
        if seconds is not None:
            book.add(key, seconds / 60.0 * factor - window[1], says, source=SOLVER, of=["heat.done_min"])

    water = _water(working, window[2])
    loads = math.ceil(drawn.count / kitchen.steamer.tiers)
    book.add(
        "heat.loads",
        float(loads),
        "tins over tiers, one tin a tier",
        source="sheet and kitchen",
        of=["shape.tins", working.from_kitchen("steamer.tiers", "tiers", kitchen.steamer.tiers)],
    )
    if loads > 1:
        working.advise(
            "heat",
            "look",
            f"{drawn.count} tins and {kitchen.steamer.tiers} tiers: {loads} loads, one after another.",
            2,
        )
    working.advise(
        "heat",
        "look",
        "A clean stick at the middle, clear, no milky smear. Creased top: too fierce. Pale, dry rim: too weak.",
        5,
    )
    steamer = kitchen.steamer
    minutes = times / 60.0 * factor
    shown = minutes <= max(1.8 * window[1], 1.15 * window[2])
    per_mm = math.pi * steamer.diameter_mm**2 / 4 / 1000.0
    return SteamDrawing.model_construct(
        kind="steam",
        curve=drawn_curve(minutes[shown], heart[shown], top[shown]),
        pot_mm=steamer.diameter_mm,
        rack_mm=steamer.rack_mm,
        full_mm=steamer.rack_mm - steamer.gap_mm,
        low_mm=steamer.low_mm,
        start_mm=water.start_ml / per_mm,
        covered=covered,
        tiers=steamer.tiers,
        tin=tin,
        depth_mm=depth_mm,
        top_ups=tuple(WaterLevel.model_construct(minute=m, ml=ml) for m, ml in water.top_ups),
        water=tuple(
            WaterLevel.model_construct(minute=float(m), ml=water.level_ml(float(m)))
            for m in np.linspace(0, window[2], 13)
        ),
    )


def _water(working: Working, minutes: float) -> WaterPlan:
    book, sheet, kitchen = working.book, working.sheet, working.kitchen
    steamer, level = kitchen.steamer, sheet.heat.level
    net_w = kitchen.burner.net_w(level)
    full_mm = max(steamer.low_mm + 5, steamer.rack_mm - steamer.gap_mm)
    plan = water_plan(
        diameter_mm=steamer.diameter_mm, full_mm=full_mm, low_mm=steamer.low_mm, net_w=net_w, minutes=minutes
    )
    power = working.from_kitchen(f"burner.{level}_w", f"net power at {level} heat", net_w, "W")
    pot = working.from_kitchen(
        "steamer",
        "steamer",
        f"{steamer.diameter_mm:.0f} mm across, water {steamer.low_mm:.0f} to {full_mm:.0f} mm deep",
    )
    book.add(
        "heat.water_loss_g_per_min",
        plan.loss_g_per_min,
        "net power over 2.257 MJ for each kilogram",
        source="heat of evaporation",
        of=[power],
        low=plan.loss_g_per_min * 0.8,
        high=plan.loss_g_per_min * 1.2,
    )
    book.add(
        "heat.water_ml",
        plan.start_ml,
        "to a centimetre under the rack, or what is needed and a fifth more",
        source=KITCHEN_ESTIMATE,
        of=["heat.water_loss_g_per_min", "heat.latest_min", pot],
    )
    if plan.top_ups:
        at, ml = plan.top_ups[0]
        book.add(
            "heat.top_up_at_min",
            at,
            "when the water falls to the low mark",
            source="heat of evaporation",
            of=["heat.water_ml", "heat.water_loss_g_per_min"],
            low=at * 0.83,
            high=at * 1.25,
        )
        book.add(
            "heat.top_up_ml",
            ml,
            "what the rest of the time will boil off and a fifth more, or as much as goes in",
            source=KITCHEN_ESTIMATE,
            of=["heat.top_up_at_min", "heat.latest_min"],
        )
        working.advise(
            "heat",
            "look",
            f"Top up at {at:.0f} minutes with {ml:.0f} ml, boiling: cold water stops the steam.",
            3,
        )
    rate = plan.loss_g_per_min
    if rate > 24:
        working.advise("heat", "look", f"{rate:.0f} g a minute is fierce: the top creases. Turn it down.", 1)
    if rate < 8:
        working.advise(
            "heat",
            "look",
            f"{rate:.0f} g a minute is weak: a pale, dry rim. Turn it up until wisps leave the lid.",
            1,
        )
    return plan

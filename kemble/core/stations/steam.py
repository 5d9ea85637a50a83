"""Steam: a batter in a tin, from the first check to the latest, and the water under the rack."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.facts import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.kitchen import Tin
from kemble.core.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, Modes
from kemble.core.physics.doneness import clear_s
from kemble.core.physics.steamer import WaterPlan, water_plan
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.stations.curve import SOLVER, Curve, drawn_curve
from kemble.core.stations.shape import TinDrawing
from kemble.core.stations.working import Drawn, Working

# Surface coefficients in W/(m2 K), condensing steam about 500-1500; kitchen estimates.
STEAM_H = 900.0
FOIL_H = 55.0
WALL_W_PER_M2K = {"metal": math.inf, "glass": 250.0, "ceramic": 220.0}  # conductance of the wall itself


class SteamDrawing(Drawn):
    kind: Literal["steam"] = "steam"
    curve: Curve
    pot_mm: float
    rack_mm: float
    low_mm: float
    start_mm: float
    covered: bool
    tin: Tin
    depth_mm: float


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
        return sideways(self.tin, self.material, self.h_wall, times)


def sideways(tin: Tin, material: Material, h: float, times: Array) -> Array:
    """The share of the first difference that is left at the middle of a tin, for heat through its walls alone."""
    if tin.shape == "round":
        body = conduction.cylinder(tin.diameter_mm / 2000.0, material, h)
        return Modes.centre(Modes(body).remaining(times), body)
    sides = (tin.length_mm / 1000.0, tin.width_mm / 1000.0)
    lefts = [Modes(conduction.slab(side, material, h, h)).remaining(times).max(axis=1) for side in sides]
    both: Array = lefts[0] * lefts[1]
    return both


def wall_h(tin: Tin, outside: float) -> float:
    """Coefficient through the wall of a tin with `outside` beyond it, in W/(m2 K)."""
    return 1.0 / (1.0 / outside + 1.0 / WALL_W_PER_M2K[tin.material])


@dataclass(frozen=True, slots=True)
class _Times:
    """Minutes on the cook's clock, and the likely curve. `deeper`, `other_cover` and `colder` are whole times."""

    first: float
    done: float
    latest: float
    deeper: float | None
    other_cover: float | None
    colder: float | None
    minutes: Array
    heart: Array
    top: Array


def _fast(tinful: _Tinful) -> _Tinful:
    """Everything that shortens the time, within what a kitchen varies."""
    m = tinful.material
    return replace(
        tinful,
        material=replace(m, k=m.k * 1.08),
        h_top=tinful.h_top * 1.5,
        h_wall=tinful.h_wall * 1.4,
        start_c=tinful.start_c + 4,
    )


def _slow(tinful: _Tinful) -> _Tinful:
    """Everything that lengthens it."""
    m = tinful.material
    return replace(
        tinful,
        material=replace(m, k=m.k * 0.92),
        h_top=tinful.h_top * 0.6,
        h_wall=tinful.h_wall * 0.6,
        start_c=tinful.start_c - 4,
    )


def _times(likely: _Tinful, boil_c: float, gel_c: float, room_c: float, factor: float) -> _Times | None:
    """The window and what would change it. None when the heart does not clear in any sensible time."""
    times = likely.depth**2 / likely.material.alpha * np.linspace(0.0, 1.0, 181) ** 2 * 4.0
    # The sides are the same for every question that changes only depth, cover or start.
    sideways = likely.across(times)

    def done(tinful: _Tinful, gel: float, across: Array) -> float | None:
        """Minutes until the slowest point has gelled and cleared."""
        heart, _ = tinful.curve(boil_c, times, across)
        clear = clear_s(times, heart, gel)
        return None if clear is None else clear / 60.0 * factor

    fast, slow = _fast(likely), _slow(likely)
    first = done(fast, gel_c - 3, fast.across(times))
    middle = done(likely, gel_c, sideways)
    latest = done(slow, gel_c + 3, slow.across(times))
    if first is None or middle is None or latest is None:
        return None
    heart, top = likely.curve(boil_c, times, sideways)
    return _Times(
        first=first,
        done=middle,
        latest=latest,
        deeper=done(replace(likely, depth=likely.depth + 0.01), gel_c, sideways),
        other_cover=done(replace(likely, h_top=FOIL_H if likely.h_top == STEAM_H else STEAM_H), gel_c, sideways),
        colder=done(replace(likely, start_c=room_c), gel_c, sideways),
        minutes=times / 60.0 * factor,
        heart=heart,
        top=top,
    )


def steam(working: Working, base: Composition, drawn: TinDrawing, boil_c: float) -> SteamDrawing | None:
    """When it is done, what would change that, and the water it takes. None when it does not clear (a problem is noted)."""
    book, sheet, kitchen = working.book, working.sheet, working.kitchen
    tin = drawn.tin
    gel_c = book.number("mix.gel_temperature_c")
    covered = sheet.school("cover") == "covered"
    likely = _Tinful(
        depth=drawn.depth_mm / 1000.0,
        tin=tin,
        material=properties(fractions(base), (working.batter_c + boil_c) / 2),
        h_top=FOIL_H if covered else STEAM_H,
        h_wall=wall_h(tin, STEAM_H),
        start_c=working.batter_c,
    )
    found = _times(likely, boil_c, gel_c, kitchen.room_c, kitchen.time_factor)
    if found is None:
        working.refuse(
            "vessel",
            f"at {working.degrees(boil_c)} steam this batter, which gels at {working.degrees(gel_c)}, "
            "does not clear in any sensible time",
            "less sugar, or a shallower tin",
        )
        return None
    _enter_times(working, drawn, found, covered)
    water = _water(working, found.latest)
    _enter_loads(working, drawn)
    steamer = kitchen.steamer
    shown = found.minutes <= max(1.8 * found.done, 1.15 * found.latest)
    per_mm = math.pi * steamer.diameter_mm**2 / 4 / 1000.0
    return SteamDrawing.model_construct(
        kind="steam",
        curve=drawn_curve(found.minutes[shown], found.heart[shown], found.top[shown]),
        pot_mm=steamer.diameter_mm,
        rack_mm=steamer.rack_mm,
        low_mm=steamer.low_mm,
        start_mm=water.start_ml / per_mm,
        covered=covered,
        tin=tin,
        depth_mm=drawn.depth_mm,
    )


def _enter_times(working: Working, drawn: TinDrawing, found: _Times, covered: bool) -> None:
    book, kitchen = working.book, working.kitchen
    tin = drawn.tin
    of: Origins = [
        "shape.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        working.from_sheet("vessel.tin", "tin", f"{tin.size}, {tin.material}"),
        working.from_sheet("start.batter_c", "batter goes in at", working.batter_c, "°C"),
        working.school("cover"),
        working.from_kitchen("time_factor", "this kitchen's time factor", kitchen.time_factor),
    ]
    book.add("heat.depth_mm", drawn.depth_mm, "the depth in the tin", source=GEOMETRY, of=["shape.depth_mm"])
    book.add(
        "heat.first_check_min",
        found.first,
        "if everything goes fast: warm syrup, strong steam, thin metal",
        source=SOLVER,
        of=of,
    )
    book.add(
        "heat.done_min",
        found.done,
        "the slowest point has gelled and cleared, as it does well above that: no milky smear",
        source=f"{SOLVER}; clearing a {KITCHEN_ESTIMATE}",
        of=of,
        low=found.first,
        high=found.latest,
    )
    book.add(
        "heat.latest_min",
        found.latest,
        "if everything goes slowly: cool syrup, weak steam, sweet batter",
        source=SOLVER,
        of=of,
    )
    book.add(
        "heat.heart_done_c",
        float(np.interp(found.done, found.minutes, found.heart)),
        "the slowest point at the likely time",
        source=SOLVER,
        of=["heat.done_min"],
    )
    for key, minutes, says in (
        ("heat.deeper_min", found.deeper, "the same batter a centimetre deeper: depth counts nearly squared"),
        ("heat.cover_min", found.other_cover, f"{'open' if covered else 'covered with foil'} instead"),
        ("heat.colder_min", found.colder, f"the batter poured at {working.degrees(kitchen.room_c)}"),
    ):
        if minutes is not None:
            book.add(key, minutes - found.done, says, source=SOLVER, of=["heat.done_min"])


def _enter_loads(working: Working, drawn: TinDrawing) -> None:
    tin, steamer = drawn.tin, working.kitchen.steamer
    loads = math.ceil(drawn.count / steamer.tiers)
    working.book.add(
        "heat.loads",
        float(loads),
        "tins over tiers, one tin a tier",
        source="sheet and kitchen",
        of=["shape.tins", working.from_kitchen("steamer.tiers", "tiers", steamer.tiers)],
    )
    across, room = tin.across_mm / 10, (steamer.diameter_mm - 10) / 10
    if across > room:
        working.advise("heat", "look", f"This tin is {across:.0f} cm across; the steamer takes {room:.0f}.", 0)
    if loads > 1:
        says = f"{drawn.count} tins and {steamer.tiers} tiers: {loads} loads, one after another."
        working.advise("heat", "look", says, 2)
    says = "A clean stick at the middle, clear, no milky smear. Creased top: too fierce. Pale, dry rim: too weak."
    working.advise("heat", "look", says, 5)


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

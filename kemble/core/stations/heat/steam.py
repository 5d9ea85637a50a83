"""Steam: a batter in a tin, or a dough in its dish, from the first check to the latest."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.facts.known import known
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, Modes, following, when
from kemble.core.physics.doneness import COOKED, HOT_C, clear_s, gelled
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.sheet.document import Lining
from kemble.core.stations.heat.curve import SOLVER, drawn_curve
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.stages import around, as_long_as_said, enter_stages, stages_said
from kemble.core.stations.heat.steamer import FIERCE_G_PER_MIN, SteamerDrawing, steamer
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.working import Drawn, Working

# Surface coefficients in W/(m2 K), condensing steam about 500-1500; kitchen estimates.
STEAM_H = 900.0
FOIL_H = 55.0
# Conductance of the wall itself, and of what lines it.
WALL_W_PER_M2K = {"metal": math.inf, "glass": 250.0, "ceramic": 220.0}
_TOP_M = 0.004  # a top so deep has set when steam marks it no more; kitchen estimate, 3-6 mm
LINING_W_PER_M2K: dict[Lining, float] = {"none": math.inf, "paper": 600.0, "leaf": 300.0}


class SteamDrawing(Drawn):
    kind: Literal["steam"] = "steam"
    steamer: SteamerDrawing
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

    def curve(self, around_c: float | Array, times: Array, across: Array) -> tuple[Array, Array, Array]:
        """(slowest point, top surface, a little under it) in °C at `times` s: the product of slab and cylinder, or of
        three slabs.

        `across` is the sideways factor of that product, from `across`.
        """
        body = conduction.slab(self.depth, self.material, self.h_wall, self.h_top)
        upright = Modes(body)
        left = upright.remaining(times)
        _, top = upright.surfaces(left)
        under = left[:, int(np.searchsorted(body.centres, max(0.0, self.depth - _TOP_M)))]
        core, outside, inside = (
            following(times, one * across, around_c, self.start_c) for one in (left.max(axis=1), top, under)
        )
        return core, outside, inside

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


def wall_h(tin: Tin, outside: float, lining: Lining = "none") -> float:
    """Coefficient through the wall of a tin and its lining with `outside` beyond it, in W/(m2 K)."""
    return 1.0 / (1.0 / outside + 1.0 / WALL_W_PER_M2K[tin.material] + 1.0 / LINING_W_PER_M2K[lining])


@dataclass(frozen=True, slots=True)
class _Times:
    """Minutes on the cook's clock, and the likely curve. Those for something else than it is are whole times."""

    first: float
    done: float
    latest: float
    deeper: float | None
    other_cover: float | None
    other_tin: float | None
    colder: float | None
    top_sets: float | None
    minutes: Array
    core: Array
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


def _times(
    likely: _Tinful,
    other_wall: float,
    surroundings: Callable[[Array], float | Array],
    gel_c: float,
    room_c: float,
    factor: float,
) -> _Times | None:
    """The window and what would change it. None when the heart does not clear in any sensible time.

    `other_wall` is the coefficient through a tin of the other sort; `surroundings` what is round it along seconds.
    """
    times = likely.depth**2 / likely.material.alpha * np.linspace(0.0, 1.0, 181) ** 2 * 4.0
    steam_c = surroundings(times)
    # The sides are the same for every question that changes only depth, cover or start.
    sideways = likely.across(times)

    def done(tinful: _Tinful, gel: float, across: Array) -> float | None:
        """Minutes until the slowest point has gelled and cleared."""
        core, _, _ = tinful.curve(steam_c, times, across)
        clear = clear_s(times, core, gel)
        return None if clear is None else clear / 60.0 * factor

    fast, slow = _fast(likely), _slow(likely)
    first = done(fast, gel_c - 3, fast.across(times))
    middle = done(likely, gel_c, sideways)
    latest = done(slow, gel_c + 3, slow.across(times))
    if first is None or middle is None or latest is None:
        return None
    core, top, under = likely.curve(steam_c, times, sideways)
    other_tin = replace(likely, h_wall=other_wall)
    sets = when(times, gelled(times, under, gel_c), COOKED)
    return _Times(
        first=first,
        done=middle,
        latest=latest,
        deeper=done(replace(likely, depth=likely.depth + 0.01), gel_c, sideways),
        other_cover=done(replace(likely, h_top=FOIL_H if likely.h_top == STEAM_H else STEAM_H), gel_c, sideways),
        other_tin=done(other_tin, gel_c, other_tin.across(times)),
        colder=done(replace(likely, start_c=room_c), gel_c, sideways),
        top_sets=None if sets is None else sets / 60.0 * factor,
        minutes=times / 60.0 * factor,
        core=core,
        top=top,
    )


def steam_tin(working: Working, base: Composition, drawn: TinDrawing, boil_c: float) -> SteamDrawing | None:
    """A batter in its tin: when it is done, what would change that, the water and the loads."""
    book = working.book
    book.add("heat.depth_mm", drawn.depth_mm, "the depth in the tin", source=GEOMETRY, of=["shape.depth_mm"])
    drawing = _steam(working, base, drawn.tin, boil_c, start_c=working.batter_c)
    if drawing:
        _enter_loads(working, drawn)
        says = "A clean stick at the middle, clear, no milky smear. Creased top: too fierce. Pale, dry rim: too weak."
        working.advise("heat", "look", says, 5)
    return drawing


def steam_dish(working: Working, base: Composition, boil_c: float) -> SteamDrawing | None:
    """A dough steamed in a dish (the sheet's tin) before it is worked."""
    book, tin = working.book, working.sheet.vessel.tin
    ml = base.total / (properties(fractions(base), 25.0).rho / 1000.0)
    depth_mm = book.add(
        "heat.depth_mm",
        ml * 1000.0 / tin.floor_mm2,
        "its volume over the floor of the dish",
        source=GEOMETRY,
        of=["mix.batch_g", working.from_sheet("vessel.tin", "dish", f"{working.tin_size(tin)}, {tin.material}")],
    )
    if depth_mm > tin.height_mm:
        brim = working.length(tin.height_mm)
        says = f"the dough would stand {working.length(depth_mm)} deep in a dish of {brim}"
        working.problem("vessel.tin", says, "a wider dish, or a smaller batch")
        return None
    drawing = _steam(working, base, tin, boil_c, start_c=working.kitchen.room_c)
    if drawing:
        says = "No white left in the middle: cut into it. Then turn it out hot, and work it until it is one mass."
        working.advise("heat", "look", says, 4)
    return drawing


def _steam(working: Working, base: Composition, tin: Tin, boil_c: float, *, start_c: float) -> SteamDrawing | None:
    """None when it does not clear (a problem is noted)."""
    book, kitchen = working.book, working.kitchen
    gel_c, depth_mm = book.number("mix.gel_temperature_c"), book.number("heat.depth_mm")
    covered = working.asked("cover") == "covered"
    lining = working.sheet.vessel.lining
    other = tin.model_copy(update={"material": "glass" if tin.material == "metal" else "metal"})
    likely = _Tinful(
        depth=depth_mm / 1000.0,
        tin=tin,
        material=properties(fractions(base), (start_c + boil_c) / 2),
        h_top=FOIL_H if covered else STEAM_H,
        h_wall=wall_h(tin, STEAM_H, lining),
        start_c=start_c,
    )
    stages = stages_said(working)
    found = _times(
        likely,
        wall_h(other, STEAM_H, lining),
        lambda times: around(working, stages, times, boil_c, kitchen.steamer.full_ml),
        gel_c,
        kitchen.room_c,
        kitchen.time_factor,
    )
    if found is None:
        working.problem(
            "vessel",
            f"at {working.degrees(boil_c)} steam this batter, which gels at {working.degrees(gel_c)}, "
            "does not clear in any sensible time",
            "less sugar, or a shallower tin",
        )
        return None
    _enter_times(working, tin, found, as_long_as_said(stages, (found.first, found.done, found.latest)), start_c)
    _enter_others(working, found, other.material, covered)
    water = steamer(working)
    _enter_top(working, found, covered)
    book_done, book_latest = book.number("heat.done_min"), book.number("heat.latest_min")
    enter_stages(working, stages, "heat", book_done)
    shown = found.minutes <= max(1.8 * book_done, 1.15 * book_latest)
    working.core = drawn_curve(found.minutes[shown], found.core[shown], found.top[shown])
    return known(
        SteamDrawing,
        kind="steam",
        steamer=water,
        covered=covered,
        tin=tin,
        depth_mm=depth_mm,
    )


def _enter_times(working: Working, tin: Tin, found: _Times, window: tuple[float, float, float], start_c: float) -> None:
    book, kitchen = working.book, working.kitchen
    first, done, latest = window
    of: Origins = [
        "heat.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        working.from_sheet("vessel.tin", "tin", f"{working.tin_size(tin)}, {tin.material}"),
        working.from_sheet("start.batter_c", "goes in at", start_c, "°C"),
        working.from_kitchen("time_factor", "this kitchen's time factor", kitchen.time_factor),
    ]
    of += working.school("cover")
    if working.sheet.vessel.lining != "none":
        of.append(working.from_sheet("vessel.lining", "lined with", working.sheet.vessel.lining))
    book.add(
        "heat.first_check_min",
        first,
        "if everything goes fast: a warm start, strong steam, thin metal",
        source=SOLVER,
        of=of,
    )
    book.add(
        "heat.done_min",
        done,
        "the slowest point has gelled and cleared, as it does well above that: no milky smear",
        source=f"{SOLVER}; clearing a {KITCHEN_ESTIMATE}",
        of=of,
        low=first,
        high=latest,
    )
    book.add(
        "heat.latest_min",
        latest,
        "if everything goes slowly: a cool start, weak steam, much sugar",
        source=SOLVER,
        of=of,
    )
    book.add(
        "heat.heart_done_c",
        float(np.interp(done, found.minutes, found.core)),
        "the slowest point at the likely time",
        source=SOLVER,
        of=["heat.done_min"],
    )
    hot = when(found.minutes, found.core, HOT_C)
    if hot is not None:
        says = f"the slowest point reaches {working.degrees(HOT_C)}: hot, not yet cooked"
        book.add("heat.core_hot_min", hot, says, source=SOLVER, of=of)


def _enter_others(working: Working, found: _Times, other_tin: str, covered: bool) -> None:
    """What another depth, tin, cover or start would cost."""
    kitchen = working.kitchen
    others = [
        ("heat.deeper_min", found.deeper, "the same a centimetre deeper: depth counts nearly squared"),
        ("heat.tin_min", found.other_tin, f"the same in {other_tin}"),
    ]
    if "cover" in working.schools:
        others.append(("heat.cover_min", found.other_cover, f"{'open' if covered else 'covered with foil'} instead"))
    if "cover" in working.schools or working.way.form == "tin":
        others.append(("heat.colder_min", found.colder, f"poured at {working.degrees(kitchen.room_c)}"))
    for key, minutes, says in others:
        if minutes is not None:
            working.book.add(key, minutes - found.done, says, source=SOLVER, of=["heat.done_min"])


def _enter_top(working: Working, found: _Times, covered: bool) -> None:
    """When the top has set, and whether strong steam finds it soft until then."""
    book = working.book
    if found.top_sets is None:
        return
    book.add(
        "heat.top_sets_min",
        found.top_sets,
        f"the top {working.length(_TOP_M * 1000)} have gelled: steam and drops mark it no more",
        source=SOLVER,
        of=["heat.done_min"],
        low=found.top_sets * 0.7,
        high=found.top_sets * 1.4,
    )
    if "cover" not in working.schools:
        return
    fierce = book.number("heat.water_loss_g_per_min") > FIERCE_G_PER_MIN
    says = "covered: steam does not reach it" if covered else "strong steam on a soft top" if fierce else "gentle steam"
    book.add(
        "heat.top_looks",
        "smooth, a little wet" if covered else "creased" if fierce else "smooth, matt",
        says,
        source=KITCHEN_ESTIMATE,
        of=["heat.top_sets_min", "heat.water_loss_g_per_min", *working.school("cover")],
    )


def _enter_loads(working: Working, drawn: TinDrawing) -> None:
    tin, steamer = drawn.tin, working.kitchen.steamer
    loads(
        working,
        drawn.count,
        steamer.tiers,
        "tins",
        "tiers",
        working.from_kitchen("steamer.tiers", "tiers", steamer.tiers),
    )
    across, room = tin.across_mm, steamer.diameter_mm - 10
    if across > room:
        working.advise(
            "heat",
            "look",
            f"This tin is {working.size(round(across, -1))} across; the steamer takes {working.size(round(room, -1))}.",
            0,
        )

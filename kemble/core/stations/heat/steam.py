"""Steam: a batter in a tin, or a dough in its dish, from the first check to the latest."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import Tin
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, ConductingBody, DecayModes, following, time_at_level
from kemble.core.physics.doneness import COOKED, HOT_C, clear_s, cook_value_min, gelled
from kemble.core.physics.steaming import PotCooling, SteamSupply, felt
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.sentences import say
from kemble.core.sheet.document import Lining
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import SOLVER, drawn_curve
from kemble.core.stations.heat.heat_stages import (
    heat_stage_results,
    stages_of_sheet,
    steamer_stages,
    window_with_stages,
)
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.heat.steamer import SteamerDrawing, steamer
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range

# Conductance of the wall itself, and of what lines it, W/(m2 K); `wall_h` in the table of estimates scales them.
WALL_W_PER_M2K = {"metal": math.inf, "glass": 250.0, "ceramic": 220.0}
LINING_W_PER_M2K: dict[Lining, float] = {"none": math.inf, "paper": 600.0, "leaf": 300.0}
# Heat that the tin itself takes, for a square metre of floor, its walls counted in: 0.6 mm of steel, 5 mm of glass, 7 of
# clay.
TIN_J_PER_M2K = {"metal": 3_200.0, "glass": 13_000.0, "ceramic": 20_000.0}
_CELLS, _STEPS = 20, 100  # twice as many of both change no time by more than 1 %
_EVEN = np.linspace(0.0, 1.0, _STEPS + 1)
_A_THIRD_LESS = 2 / 3
# What a window in steam hangs on; the rest of the table moves it by under 2 % of its variance (a test re-checks).
_OPEN: tuple[EstimateId, ...] = ("clear_min", "depth", "conductivity", "gel_c", "burner", "steam_h", "leak_ml_s")
_COVERED: tuple[EstimateId, ...] = (*_OPEN, "foil_h")
_COLOUR: tuple[EstimateId, ...] = ("colour_min", "depth", "burner", "leak_ml_s")
_DISH: tuple[EstimateId, ...] = ("depth", "conductivity", "gel_c", "start_c", "burner", "steam_h", "leak_ml_s")
_TOP: tuple[EstimateId, ...] = ("top_mm", "gel_c", "start_c", "depth", "steam_h", "burner", "lid_w", "leak_ml_s")
_AFTERWARDS = frozenset({"clear_min", "colour_min", "gel_c"})  # what is asked of the same curves
_NEEDS_STEAM = frozenset({"burner", "lid_w", "leak_ml_s"})  # what moves the steam itself
_BY_SCHOOL: dict[str, EstimateId] = {"clear": "clear_min", "colour": "colour_min"}


class SteamDrawing(AnswerModel):
    kind: Literal["steam"] = "steam"
    steamer: SteamerDrawing
    covered: bool
    tin: Tin
    depth_mm: float


@dataclass(frozen=True, slots=True)
class _SteamedCurves:
    """Along `times` s: the slowest point, the top, and what surrounds the load, in °C; the share of the first difference
    that is left at each of `centres` (m from the floor) over the middle."""

    times: Array
    core: Array
    top: Array
    around: Array
    left: Array
    centres: Array
    start_c: float

    def inside(self, high_m: float) -> Array:
        """°C so high over the floor, in the middle."""
        at = min(int(np.searchsorted(self.centres, max(0.0, high_m))), len(self.centres) - 1)
        return following(self.times, self.left[:, at], self.around, self.start_c)


@dataclass(frozen=True, slots=True)
class _SteamedTin:
    """A batter in a tin, and the steam round it. m, W/(m2 K), °C, s."""

    depth: float
    tin: Tin
    lining: Lining
    material: Material
    steam_h: float
    foil_h: float | None
    conducts: float  # of wall and lining, on the usual
    tin_j: float  # J/(m2 K) of floor that the tin itself takes
    start_c: float
    stages: tuple[tuple[float, SteamSupply], ...]
    at_once: int
    cools: PotCooling
    gel_c: float
    needs: float  # minutes at 100 °C once it is set; none for a dough that is worked afterwards

    def curves(self, end_s: float, around: Array | None = None) -> _SteamedCurves:
        """The product of slab and cylinder, or of three slabs, in steam that follows the load; or in what is given."""
        times = end_s * _EVEN
        lit = [steam for _, steam in self.stages if steam.to_spare_w > 0] or [self.stages[0][1]]
        h = self.steam_h * lit[-1].film
        h_wall = wall_h(self.tin, h, self.lining, self.conducts)
        h_top = h if self.foil_h is None else 1.0 / (1.0 / h + 1.0 / self.foil_h)
        left, top, body = _vertical_decay(self.depth, self.material, h_wall, h_top, end_s)
        middle, mean = _sideways_decay(self.tin, self.material, h_wall, end_s)
        if around is None:
            floor_m2 = self.tin.floor_mm2 / 1e6 * self.at_once
            held = self.material.rho * self.material.cp * floor_m2 * self.depth
            whole = (left @ body.volumes) / body.volumes.sum() * mean
            # The tin warms between the steam and the batter: in steam within a minute, but its heat is condensed too.
            tin = 1.0 - np.exp(-times * (h + h_wall) / self.tin_j)
            taken = held * (1.0 - whole) + self.tin_j * floor_m2 * tin
            around = felt(times, taken, self.stages, self.start_c, self.cools)
        core, outside = (following(times, item * middle, around, self.start_c) for item in (left.max(axis=1), top))
        return _SteamedCurves(times, core, outside, around, left * middle[:, None], body.centres, self.start_c)

    @property
    def span_s(self) -> float:
        """How long is looked at: longer than it takes a tin so deep, and its time at heat."""
        covered = 1.5 if self.foil_h else 1.0
        return covered * 0.55 * self.depth**2 / self.material.alpha + 60.0 * (30.0 + 1.8 * self.needs)

    def done_s(self, curves: _SteamedCurves) -> float | None:
        """Seconds until the slowest point has set and had its time at heat."""
        sets = clear_s(curves.times, curves.core, self.gel_c)
        if sets is None or not self.needs:
            return sets
        cooked = time_at_level(curves.times, cook_value_min(curves.times, curves.core), self.needs)
        return None if cooked is None else max(sets, cooked)


# Another start, depth, flame or time at heat asks for the same body again: within one answer each is solved once.
@lru_cache(maxsize=32)
def _vertical_decay(
    depth: float, material: Material, h_wall: float, h_top: float, end_s: float
) -> tuple[Array, Array, ConductingBody]:
    """Between floor and top along the stations' times: the share of the first difference left in each cell and on top."""
    body = conduction.slab(depth, material, h_wall, h_top, _CELLS)
    modes = DecayModes(body)
    left = modes.remaining(end_s * _EVEN)
    return left, modes.surfaces(left)[1], body


@lru_cache(maxsize=32)
def _sideways_decay(tin: Tin, material: Material, h: float, end_s: float) -> tuple[Array, Array]:
    """`_decay_through_walls` along the stations' times."""
    return _decay_through_walls(tin, material, h, end_s * _EVEN)


def _decay_through_walls(tin: Tin, material: Material, h: float, times: Array) -> tuple[Array, Array]:
    """The share of the first difference left at the middle, and on the mean, for heat from the sides alone."""
    if tin.shape == "round":
        body = conduction.cylinder(tin.diameter_mm / 2000.0, material, h, _CELLS)
        left = DecayModes(body).remaining(times)
        return DecayModes.centre(left, body), (left @ body.volumes) / body.volumes.sum()
    middle, mean = np.ones_like(times), np.ones_like(times)
    for side in (tin.length_mm / 1000.0, tin.width_mm / 1000.0):
        body = conduction.slab(side, material, h, h, _CELLS)
        left = DecayModes(body).remaining(times)
        middle, mean = middle * left.max(axis=1), mean * (left @ body.volumes) / body.volumes.sum()
    return middle, mean


def sideways(tin: Tin, material: Material, h: float, times: Array) -> Array:
    """The share of the first difference that is left at the middle of a tin, for heat through its walls alone."""
    return _decay_through_walls(tin, material, h, times)[0]


def wall_h(tin: Tin, outside: float, lining: Lining = "none", conducts: float = 1.0) -> float:
    """Coefficient through the wall of a tin and its lining with `outside` beyond it, in W/(m2 K); both `conducts` times
    as well as is usual."""
    own = 1.0 / WALL_W_PER_M2K[tin.material] + 1.0 / LINING_W_PER_M2K[lining]
    resists = 1.0 / outside + own / conducts
    return 1.0 / resists if resists else math.inf


def steam_tin(
    calculation: Calculation, base: Composition, drawn: TinDrawing, boil_c: float
) -> OwnHeatResult[SteamDrawing] | None:
    """A batter in its tin: when it is done, what would change that, the water and the loads."""
    enter_depth(calculation, drawn)
    heated = _steam_tinful(calculation, base, drawn.tin, boil_c, start_c=calculation.batter_c)
    if heated:
        _enter_loads(calculation, drawn)
        says = say(
            "A clean stick at the middle, clear, no milky smear. Creased top: too fierce. Pale, dry rim: too weak."
        )
        calculation.advise("heat", "look", says, 5)
    return heated


def enter_depth(calculation: Calculation, drawn: TinDrawing) -> None:
    """How deep it lies while it is heated: what lies under and over the batter is warmed with it."""
    beside = [layer for layer in drawn.layers if layer.heated]
    says = say("the depth in the tin") + "".join(say(", and {layer}", layer=layer.name.lower()) for layer in beside)
    calculation.fact_book.add("heat.depth_mm", drawn.heated_mm, says, source=GEOMETRY, of=["shape.depth_mm"])


def steam_dish(calculation: Calculation, base: Composition, boil_c: float) -> OwnHeatResult[SteamDrawing] | None:
    """A dough steamed in a dish (the sheet's tin) before it is worked."""
    fact_book, tin = calculation.fact_book, calculation.sheet.vessel.tin
    ml = base.total / (properties(fractions(base), 25.0).rho / 1000.0)
    depth_mm = fact_book.add(
        "heat.depth_mm",
        ml * 1000.0 / tin.floor_mm2,
        say("its volume over the floor of the dish"),
        source=GEOMETRY,
        of=[
            "mix.batch_g",
            calculation.from_sheet("vessel.tin", "dish", f"{calculation.tin_size(tin)}, {tin.material}"),
        ],
    )
    if depth_mm > tin.height_mm:
        brim = calculation.length(tin.height_mm)
        says = say(
            "the dough would stand {depth_mm} deep in a dish of {brim}",
            depth_mm=calculation.length(depth_mm),
            brim=brim,
        )
        calculation.problem("vessel.tin", says, say("a wider dish, or a smaller batch"))
        return None
    heated = _steam_tinful(calculation, base, tin, boil_c, start_c=calculation.kitchen.room_c, dish=True)
    if heated:
        says = say("No white left in the middle: cut into it. Then turn it out hot, and work it until it is one mass.")
        calculation.advise("heat", "look", says, 4)
    return heated


def _tinful(
    calculation: Calculation, base: Composition, tin: Tin, start_c: float, needs: EstimateId | None
) -> _SteamedTin:
    """The likely one, every estimate at its value."""
    depth_mm = calculation.fact_book.number("heat.depth_mm")
    count = calculation.sheet.vessel.count if calculation.way.form == "tin" else 1
    return _SteamedTin(
        depth=depth_mm / 1000.0,
        tin=tin,
        lining=calculation.sheet.vessel.lining,
        material=properties(fractions(base), (start_c + calculation.boil_c) / 2),
        steam_h=calculation.likely("steam_h"),
        foil_h=calculation.likely("foil_h") if calculation.asked("cover") == "covered" else None,
        conducts=calculation.likely("wall_h"),
        tin_j=TIN_J_PER_M2K[tin.material] * calculation.likely("tin_j"),
        start_c=start_c,
        stages=steam_stages(calculation),
        at_once=min(count, calculation.steamer.tiers),
        cools=PotCooling(calculation.kitchen.room_c, 60.0 * calculation.likely("shut_min")),
        gel_c=calculation.gel_c({}),
        needs=calculation.likely(needs) if needs else 0.0,
    )


def steam_stages(calculation: Calculation, **of: float) -> tuple[tuple[float, SteamSupply], ...]:
    """(From this second, steam) of each stage; `of` are estimates otherwise than likely."""
    burner, lid, leak = (of.get(name, calculation.estimates[name].value) for name in STEAM)
    begins, result = 0.0, []
    for stage in steamer_stages(calculation, stages_of_sheet(calculation)):
        steam = SteamSupply(burner * stage.net_w, lid if stage.net_w else 0.0, leak, calculation.kitchen.altitude_m)
        result.append((begins * 60.0 / calculation.kitchen.time_factor, steam))
        begins += stage.minutes
    return tuple(result)


STEAM: tuple[EstimateId, EstimateId, EstimateId] = ("burner", "lid_w", "leak_ml_s")


def _with_estimates(calculation: Calculation, likely: _SteamedTin, of: Mapping[EstimateId, float]) -> _SteamedTin:
    """The same with estimates otherwise than likely."""
    m = likely.material
    needs = next((of[name] for name in ("clear_min", "colour_min") if name in of), likely.needs)
    return replace(
        likely,
        depth=likely.depth * of.get("depth", calculation.likely("depth")),
        material=replace(m, k=m.k * of.get("conductivity", calculation.likely("conductivity"))),
        steam_h=of.get("steam_h", likely.steam_h),
        foil_h=of.get("foil_h", likely.foil_h) if likely.foil_h else None,
        conducts=of.get("wall_h", likely.conducts),
        start_c=likely.start_c + of.get("start_c", calculation.likely("start_c")),
        gel_c=calculation.gel_c(of),
        stages=steam_stages(calculation, **{name: of[name] for name in STEAM if name in of}),
        needs=needs if likely.needs else 0.0,
    )


def _steam_tinful(
    calculation: Calculation, base: Composition, tin: Tin, boil_c: float, *, start_c: float, dish: bool = False
) -> OwnHeatResult[SteamDrawing] | None:
    """None when it does not clear (a problem is noted)."""
    fact_book = calculation.fact_book
    covered = calculation.asked("cover") == "covered"
    needs = None if dish else _BY_SCHOOL[calculation.asked("until")]
    base_tinful = _tinful(calculation, base, tin, start_c, needs)
    likely = _with_estimates(calculation, base_tinful, {})
    curves = likely.curves(likely.span_s)
    if likely.done_s(curves) is None:
        curves = likely.curves(3.0 * likely.span_s)

    def minutes(steamed_tin: _SteamedTin, around: Array | None = None) -> float | None:
        """Of another than the likely, in the same steam where that is nothing to it."""
        seconds = steamed_tin.done_s(steamed_tin.curves(float(curves.times[-1]), around))
        return None if seconds is None else seconds / 60.0

    steamed: dict[tuple[tuple[EstimateId, float], ...], _SteamedCurves] = {}  # by what is otherwise than likely

    def steamed_with(moved: Mapping[EstimateId, float]) -> tuple[_SteamedTin, _SteamedCurves]:
        each_tin = _with_estimates(calculation, base_tinful, moved)
        key = tuple((name, value) for name, value in moved.items() if name not in _AFTERWARDS)
        if key and key not in steamed:
            around = None if _NEEDS_STEAM & moved.keys() else curves.around
            steamed[key] = each_tin.curves(float(curves.times[-1]), around)
        return each_tin, steamed[key] if key else curves

    def solve(of: Mapping[EstimateId, float]) -> float | None:
        moved = {name: value for name, value in of.items() if value != calculation.likely(name)}
        if not moved:
            seconds = likely.done_s(curves)
            return None if seconds is None else seconds / 60.0
        each_tin, each_curves = steamed_with(moved)
        seconds = each_tin.done_s(each_curves)
        return None if seconds is None else seconds / 60.0

    which = _DISH if dish else _COLOUR if needs == "colour_min" else _COVERED if covered else _OPEN
    window = enter_heat_window(calculation, solve, tuple(dict.fromkeys((*which, *STEAM, "start_c"))))
    if window is None:
        gel = calculation.degrees(likely.gel_c)
        steam = calculation.degrees(likely.stages[-1][1].dew_c())
        calculation.problem(
            "vessel",
            say(
                "at {steam} steam this batter, which gels at {gel}, does not clear in any sensible time",
                steam=steam,
                gel=gel,
            ),
            say("a stronger flame, less sugar, or a shallower tin"),
        )
        return None
    stages = stages_of_sheet(calculation)
    told = window_with_stages(stages, (window.first, window.likely, window.latest))
    _enter_times(calculation, likely, curves, told, needs)
    _enter_others(calculation, likely, window.likely, minutes, curves)
    water = steamer(calculation)
    _enter_top(calculation, steamed_with, covered=covered)
    in_stages = heat_stage_results(calculation, stages, "heat", told[1])
    at = curves.times / 60.0 * calculation.kitchen.time_factor
    shown = at <= max(1.5 * told[1], 1.1 * told[2])
    curve = drawn_curve(at[shown], curves.core[shown], curves.top[shown])
    drawing = unchecked_model(
        SteamDrawing, kind="steam", steamer=water, covered=covered, tin=tin, depth_mm=fact_book.number("heat.depth_mm")
    )
    return OwnHeatResult(drawing, curve, in_stages)


def _enter_steam(calculation: Calculation, steam_c: float) -> None:
    """How hot the steam is round the load by the time that it is done."""
    calculation.fact_book.add(
        "heat.steam_c",
        steam_c,
        say("the dew point of vapour and the air that comes in past the lid, once the load is hot"),
        source=say("balance of heat, vapour and air; the leak a kitchen estimate"),
        of=[calculation.estimated(name) for name in ("burner", "lid_w", "leak_ml_s")],
    )


def _enter_times(
    calculation: Calculation,
    likely: _SteamedTin,
    curves: _SteamedCurves,
    window: tuple[float, float, float],
    needs: EstimateId | None,
) -> None:
    fact_book, kitchen, tin = calculation.fact_book, calculation.kitchen, likely.tin
    first, done, latest = window
    at = curves.times / 60.0 * kitchen.time_factor
    of: Origins = [
        "heat.depth_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        calculation.from_sheet("vessel.tin", "tin", f"{calculation.tin_size(tin)}, {tin.material}"),
        calculation.from_sheet("start.batter_c", say("goes in at"), likely.start_c, "°C"),
        calculation.from_kitchen("time_factor", say("this kitchen's time factor"), kitchen.time_factor),
    ]
    of += [calculation.estimated(name) for name in ("burner", "lid_w", "leak_ml_s")]
    of += calculation.school("cover")
    if likely.lining != "none":
        of.append(calculation.from_sheet("vessel.lining", say("lined with"), likely.lining))
    _enter_steam(calculation, float(np.interp(done, at, curves.around)))
    sets = clear_s(curves.times, curves.core, likely.gel_c)
    if sets is not None:
        fact_book.add(
            "heat.set_min",
            sets / 60.0 * kitchen.time_factor,
            say("the slowest point has gelled and turned from milk to glass: the earliest that it holds"),
            source=SOLVER,
            of=of,
        )
    more: Origins = ["heat.set_min", calculation.estimated(needs)] if needs else ["heat.set_min"]
    says = {
        None: say("no white is left at the slowest point"),
        "clear_min": say("set through, and its time at heat until it is clear, glossy and chewy"),
        "colour_min": say("its hours at heat until it is brown through"),
    }[needs]
    fact_book.add("heat.first_check_min", first, say("one in twenty is done by then"), source=SOLVER, of=of)
    source = say("{solver}; what is called done a {guess}", solver=SOLVER, guess=KITCHEN_ESTIMATE)
    fact_book.add("heat.done_min", done, says, source=source, of=[*more, *of], low=first, high=latest)
    fact_book.add("heat.latest_min", latest, say("nineteen in twenty are done by then"), source=SOLVER, of=of)
    fact_book.add(
        "heat.heart_done_c",
        float(np.interp(done, at, curves.core)),
        say("the slowest point at the likely time"),
        source=SOLVER,
        of=["heat.done_min"],
    )
    hot = time_at_level(at, curves.core, HOT_C)
    if hot is not None:
        says = say("the slowest point reaches {hot_c}: hot, not yet cooked", hot_c=calculation.degrees(HOT_C))
        fact_book.add("heat.core_hot_min", hot, says, source=SOLVER, of=of)


def _enter_others(
    calculation: Calculation,
    likely: _SteamedTin,
    done: float,
    minutes: Callable[[_SteamedTin, Array | None], float | None],
    curves: _SteamedCurves,
) -> None:
    """What another depth, tin, cover, start or flame would cost."""
    kitchen, factor = calculation.kitchen, calculation.kitchen.time_factor
    other = likely.tin.model_copy(update={"material": "glass" if likely.tin.material == "metal" else "metal"})
    cover = calculation.likely("foil_h") if likely.foil_h is None else None
    says = say("{cover} instead", cover=say("covered with foil") if likely.foil_h is None else "open")
    weaker = tuple((at, replace(steam, net_w=steam.net_w * _A_THIRD_LESS)) for at, steam in likely.stages)
    asked: list[tuple[str, _SteamedTin, Array | None, str]] = [
        (
            "heat.deeper_min",
            replace(likely, depth=likely.depth + 0.01),
            curves.around,
            say("the same a centimetre deeper: depth counts nearly squared"),
        ),
        (
            "heat.tin_min",
            replace(likely, tin=other),
            curves.around,
            say("the same in {material}", material=other.material),
        ),
        (
            "heat.level_min",
            replace(likely, stages=weaker),
            None,
            say("a third less flame: less vapour, and more air in it"),
        ),
    ]
    if "cover" in calculation.schools:
        asked.append(("heat.cover_min", replace(likely, foil_h=cover), curves.around, says))
    if "cover" in calculation.schools or calculation.way.form == "tin":
        cold = replace(likely, start_c=kitchen.room_c)
        asked.append(
            (
                "heat.colder_min",
                cold,
                curves.around,
                say("poured at {room_c}", room_c=calculation.degrees(kitchen.room_c)),
            )
        )
    for key, tin, around, words in asked:
        result = minutes(tin, around)
        if result is not None:
            calculation.fact_book.add(key, result * factor - done, words, source=SOLVER, of=["heat.done_min"])


def _enter_top(
    calculation: Calculation,
    steamed_with: Callable[[Mapping[EstimateId, float]], tuple[_SteamedTin, _SteamedCurves]],
    *,
    covered: bool,
) -> None:
    """When the top has set, and whether strong steam finds it soft until then."""
    fact_book = calculation.fact_book
    factor, top_mm = calculation.kitchen.time_factor, calculation.likely("top_mm")
    which = (*_TOP, "foil_h") if covered else _TOP

    def solve(is_: Mapping[EstimateId, float]) -> float | None:
        moved: dict[EstimateId, float] = {
            name: value for name, value in is_.items() if name != "top_mm" and value != calculation.likely(name)
        }
        steamed_tin, curves = steamed_with(moved)
        under = curves.inside(steamed_tin.depth - is_["top_mm"] / 1000.0)
        seconds = time_at_level(curves.times, gelled(curves.times, under, steamed_tin.gel_c), COOKED)
        return None if seconds is None else seconds / 60.0 * factor

    if solve({name: calculation.likely(name) for name in which}) is None:
        return

    enter_with_range(
        calculation,
        "heat.top_sets_min",
        say("the top {top_mm} have gelled: steam and drops mark it no more", top_mm=calculation.length(top_mm)),
        solve,
        which,
        source=SOLVER,
        both_ways=2,
        of=["heat.done_min"],
    )
    if "cover" not in calculation.schools:
        return
    fierce = fact_book.number("heat.water_loss_g_per_min") > calculation.likely("fierce_g_min")
    says = (
        say("covered: steam does not reach it")
        if covered
        else say("strong steam on a soft top")
        if fierce
        else say("gentle steam")
    )
    fact_book.add(
        "heat.top_looks",
        say("smooth, a little wet") if covered else "creased" if fierce else say("smooth, matt"),
        says,
        source=KITCHEN_ESTIMATE,
        of=["heat.top_sets_min", "heat.water_loss_g_per_min", *calculation.school("cover")],
    )


def _enter_loads(calculation: Calculation, drawn: TinDrawing) -> None:
    tin, steamer = drawn.tin, calculation.steamer
    loads(
        calculation,
        drawn.count,
        steamer.tiers,
        "tins",
        "tiers",
        calculation.from_kitchen("steamer.tiers", "tiers", steamer.tiers),
    )
    across, room = tin.across_mm, steamer.room_mm
    if across > room:
        calculation.advise(
            "heat",
            "look",
            say(
                "This tin is {tin} across; the steamer takes {room}.",
                tin=calculation.size(round(across, -1)),
                room=calculation.size(round(room, -1)),
            ),
            0,
        )

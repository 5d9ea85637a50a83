"""Boil: balls of dough, plain or round a core that may be frozen, in a pot that they cool."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origin, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, time_at_level
from kemble.core.physics.doneness import COOKED, gelled
from kemble.core.physics.freezing import food
from kemble.core.physics.thermal import WATER_J_PER_ML_K, fractions, properties
from kemble.core.physics.time_spread import Solve, Spread
from kemble.core.sentences import say
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import SOLVER, drawn_curve
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range, scaled_by_estimates

MOST_DIP_C = 14.0  # a pot that falls further stops simmering and the balls stick
_MOST_LAG_S = 120.0
_THICKER_MM = 5.0
_WHICH: tuple[EstimateId, ...] = ("size", "conductivity", "burner", "boil_h", "dip_share")
_MEANT: tuple[EstimateId, ...] = ("float_share", "gel_c", "hot_c")  # what is asked of the same ball
_STEPS = 40  # twenty times as many change the hour of the hot heart by under 1 %
_FLOOR_SHARE = 0.65  # of the pot's surface that floating balls may cover and still be stirred


class BoilDrawing(AnswerModel):
    kind: Literal["boil"] = "boil"
    pot_mm: float
    water_mm: float
    outer_mm: float
    core_mm: float
    load: int
    loads: int


@dataclass(frozen=True, slots=True)
class _BoiledBall:
    """One ball in boiling water: seconds, °C (of the dough: times, cells), its cells' volumes, and the heat that it took up
    (J)."""

    times: Array
    core: Array
    skin: Array
    dough: Array
    volumes: Array
    heat_j: float

    def float_s(self, gel_c: float, share: float) -> float | None:
        """Seconds until so much of the dough has gelled and swollen."""
        cooked = gelled(self.times, self.dough, gel_c)
        return time_at_level(self.times, cooked @ self.volumes / self.volumes.sum(), share)

    def through_s(self, gel_c: float) -> float | None:
        """Seconds until the dough is cooked to its inner side."""
        return time_at_level(self.times, gelled(self.times, self.dough[:, 0], gel_c), COOKED)

    def hot_s(self, hot_c: float) -> float | None:
        return time_at_level(self.times, self.core, hot_c)

    def moments_s(
        self, *, gel_c: float, float_share: float, hot_c: float, simmer_on: bool
    ) -> tuple[float | None, float | None]:
        """Seconds at which it floats, and at which it is done; None where that does not come."""
        floats = self.float_s(gel_c, float_share)
        if not simmer_on:
            return floats, floats
        asked = [floats, self.through_s(gel_c), self.hot_s(hot_c)]
        return floats, None if None in asked else max(each for each in asked if each is not None)


def _cook(
    calculation: Calculation,
    base: Composition,
    filling: Composition | None,
    drawn: BallDrawing,
    boil_c: float,
    *,
    larger: float = 1.0,
) -> _BoiledBall:
    """March a ball, so many times as large as it is drawn, from its start to hot."""
    outer, core = larger * drawn.outer_mm / 2000.0, larger * drawn.core_mm / 2000.0
    dough = properties(fractions(base), 60.0)
    shells = [(core, dough), (outer, dough)] if filling else [(outer, dough)]
    body = conduction.sphere(shells, calculation.likely("boil_h"))
    inner = int(np.searchsorted(body.centres, core)) if filling else 0
    layers = [(food(base, fat_sets=False), len(body.centres) - inner)]
    if filling:
        layers.insert(0, (food(filling, fat_sets=True), inner))
    start = np.full(len(body.centres), calculation.sheet.start.dough_c)
    start[:inner] = _core_start(calculation)
    times = 0.75 * outer**2 / dough.alpha * np.linspace(0.0, 1.0, _STEPS + 1) ** 1.7
    celsius, heat = conduction.thaw(body, layers, start, boil_c, times)

    return _BoiledBall(
        times=times,
        core=celsius[:, 0],
        skin=boil_c + (celsius[:, -1] - boil_c) * conduction.film_share(body, -1),
        dough=celsius[:, inner:],
        volumes=body.volumes[inner:],
        heat_j=4 * math.pi * float(heat[-1]),  # the solver's is per unit solid angle: its volumes are r³/3
    )


def _core_start(calculation: Calculation) -> float:
    """°C at which the filling goes in."""
    frozen = calculation.asked("start") == "frozen"
    return calculation.kitchen.freezer_c if frozen else calculation.kitchen.fridge_c


def boil(
    calculation: Calculation, base: Composition, filling: Composition | None, drawn: BallDrawing, boil_c: float
) -> OwnHeatResult[BoilDrawing] | None:
    """When it floats, when it is hot within, and what the pot takes. None when it does not cook (a problem is noted)."""
    kitchen, simmer_on = calculation.kitchen, calculation.asked("done") == "float-then-simmer"
    boiled = _cook(calculation, base, filling, drawn, boil_c)

    floats_at, hot_at = calculation.likely("float_share"), calculation.likely("hot_c")

    def moments_s(ball: _BoiledBall, of: Mapping[EstimateId, float]) -> tuple[float | None, float | None]:
        share, hot_c = of.get("float_share", floats_at), of.get("hot_c", hot_at)
        return ball.moments_s(gel_c=calculation.gel_c(of), float_share=share, hot_c=hot_c, simmer_on=simmer_on)

    done_s, hot_s = moments_s(boiled, {})[1], boiled.hot_s(hot_at)
    if done_s is None or hot_s is None:
        calculation.problem(
            "pieces",
            say("at {boil_c} a ball this size does not cook through", boil_c=calculation.degrees(boil_c)),
            say("smaller pieces, or less sugar in the dough"),
        )
        return None
    # Cold balls cool the pot, which climbs back at the burner's power: they lag behind by about half of that.
    load, lag_s = _load(calculation, drawn, boiled.heat_j)

    def minutes(seconds: float) -> float:
        return (seconds * kitchen.time_factor + lag_s) / 60.0

    hot, done = minutes(hot_s), minutes(done_s)
    on_the_clock = (boiled.times * kitchen.time_factor + lag_s) / 60.0
    heart_done = float(np.interp(done, on_the_clock, boiled.core))
    fact_book = calculation.fact_book
    larger = 1 + _THICKER_MM / drawn.outer_mm
    thicker_s = moments_s(_cook(calculation, base, filling, drawn, boil_c, larger=larger), {})[1]
    # How its time goes with its size is known from one that is larger; with conductivity it goes half as steeply.
    steep = math.log(thicker_s / done_s) / math.log(larger) if thicker_s else 2.0

    dip_share = calculation.likely("dip_share")
    dough = properties(fractions(base), 60.0)
    film = 2.5 * dough.k / (drawn.outer_mm / 2000.0)  # of its slow time, what its skin in the water adds, over h
    asked: dict[tuple[float, ...], tuple[float | None, float | None]] = {}  # another size asks for the same moments

    def moments_with(of: Mapping[EstimateId, float]) -> tuple[float | None, float | None]:
        key = tuple(of.get(name, calculation.likely(name)) for name in _MEANT)
        if key not in asked:
            asked[key] = moments_s(boiled, of)
        return asked[key]

    def scaled_by(of: Mapping[EstimateId, float]) -> float:
        skin = (1.0 + film / of["boil_h"]) / (1.0 + film / calculation.likely("boil_h"))
        result: float = of["size"] ** steep * of["conductivity"] ** (-steep / 2) * skin
        return result

    def late_s(of: Mapping[EstimateId, float]) -> float:
        return lag_s * of["dip_share"] / dip_share / of["burner"]

    def on_clock_min(seconds: float | None, of: Mapping[EstimateId, float]) -> float | None:
        return None if seconds is None else (seconds * scaled_by(of) * kitchen.time_factor + late_s(of)) / 60.0

    def floats_min(of: Mapping[EstimateId, float]) -> float | None:
        return on_clock_min(moments_with(of)[0], of)

    def hot_min(of: Mapping[EstimateId, float]) -> float | None:
        return on_clock_min(boiled.hot_s(of["hot_c"]), of)

    def solve(of: Mapping[EstimateId, float]) -> float | None:
        seconds = moments_with(of)[1]
        return None if seconds is None else (seconds * scaled_by(of) + late_s(of) / kitchen.time_factor) / 60.0

    window = enter_heat_window(calculation, solve, (*_WHICH, *_MEANT))
    assert window is not None
    _enter_times(calculation, drawn, floats=floats_min, hot=hot_min, window=window, core_done_c=heart_done)
    water_ml, holds = _pot_ml(calculation)
    _enter_pot(calculation, lag_s, water_ml, holds, minutes(thicker_s) - done if thicker_s else None)
    most = int(fact_book.number("heat.load_pieces"))
    number = loads(calculation, int(fact_book.number("shape.pieces")), most, "pieces", say("what the pot takes"), holds)
    _advise_on_boil(calculation, hot=hot, core_done_c=heart_done)

    # Until the pot has caught up nothing happens: the curve begins flat.
    shown = np.concatenate(([0.0], on_the_clock))
    core, skin = (np.concatenate((curve[:1], curve)) for curve in (boiled.core, boiled.skin))
    visible = shown <= max(1.7 * done, 1.25 * hot)
    curve = drawn_curve(shown[visible], core[visible], skin[visible])
    drawing = unchecked_model(
        BoilDrawing,
        kind="boil",
        pot_mm=calculation.pot.diameter_mm,
        water_mm=water_ml * 1000.0 / (math.pi * calculation.pot.diameter_mm**2 / 4),
        outer_mm=drawn.outer_mm,
        core_mm=drawn.core_mm,
        load=load,
        loads=number,
    )
    return OwnHeatResult(drawing, curve)


def _enter_pot(
    calculation: Calculation, lag_s: float, water_ml: float, holds: Origin, thicker_min: float | None
) -> None:
    """The pot's water, what a fuller pot costs, and what a larger ball does (None where it would not cook)."""
    fact_book = calculation.fact_book
    if thicker_min is not None:
        says = say("the same ball half a centimetre larger across: size counts nearly squared")
        fact_book.add("heat.thicker_min", thicker_min, says, source=SOLVER, of=["heat.done_min"])
    fact_book.add(
        "heat.fuller_min",
        min(_MOST_LAG_S, 2 * lag_s) / 60 - lag_s / 60,
        say("twice the load: the pot falls twice as far, and its burner needs longer to bring it back"),
        source=say("energy balance; {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["heat.pot_dip_c"],
    )
    says = (
        say("as much as the pot holds")
        if calculation.asked("pot") == "water"
        else say("the broth that they are eaten in")
    )
    fact_book.add("heat.water_ml", water_ml, says, source="kitchen", of=[holds])


def _enter_times(
    calculation: Calculation, drawn: BallDrawing, *, floats: Solve, hot: Solve, window: Spread, core_done_c: float
) -> None:
    fact_book, sheet = calculation.fact_book, calculation.sheet
    first, done, latest = window.first, window.likely, window.latest
    factor, core_start = calculation.kitchen.time_factor, _core_start(calculation)
    of: Origins = [
        "shape.diameter_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        calculation.from_sheet("start.dough_c", say("dough goes in at"), sheet.start.dough_c, "°C"),
        calculation.from_kitchen("time_factor", say("this kitchen's time factor"), factor),
        "heat.pot_dip_c",
    ]
    if drawn.core_mm > 0:
        shelf = "freezer_c" if core_start < 0 else "fridge_c"
        of += ["shape.core_mm", calculation.from_kitchen(shelf, say("filling goes in at"), core_start, "°C")]
    fact_book.add(
        "heat.depth_mm",
        drawn.outer_mm / 2,
        say("from the skin to the heart"),
        source=GEOMETRY,
        of=["shape.diameter_mm"],
    )
    enter_with_range(
        calculation,
        "heat.float_min",
        say(
            "{float_share:.0%} of the dough has gelled and swollen: it floats",
            float_share=calculation.likely("float_share"),
        ),
        floats,
        (*_WHICH, "float_share", "gel_c"),
        source=say("{solver}; the share a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE),
        of=of,
    )
    enter_with_range(
        calculation,
        "heat.core_hot_min",
        say("the heart reaches {likely}", likely=calculation.degrees(calculation.likely("hot_c"))),
        hot,
        (*_WHICH, "hot_c"),
        source=SOLVER,
        of=of,
    )
    fact_book.add(
        "heat.done_min",
        done,
        say("it floats") if calculation.asked("done") == "float" else say("cooked through and hot at the heart"),
        source=SOLVER,
        of=["heat.float_min", "heat.core_hot_min", *calculation.school("done")],
        low=first,
        high=latest,
    )
    for key, value, says in (
        ("heat.first_check_min", first, say("one in twenty is done by then")),
        ("heat.latest_min", latest, say("nineteen in twenty are done by then")),
    ):
        fact_book.add(key, value, says, source=KITCHEN_ESTIMATE, of=["heat.done_min"])
    fact_book.add(
        "heat.heart_done_c", core_done_c, say("the heart at the likely time"), source=SOLVER, of=["heat.done_min"]
    )


def _advise_on_boil(calculation: Calculation, *, hot: float, core_done_c: float) -> None:
    if calculation.asked("done") == "float" and core_done_c < calculation.likely("hot_c"):
        core = calculation.degrees(core_done_c)
        says = say(
            "At the float the heart is {core}. Simmer on to {hot:.0f} minutes for a hot one.", core=core, hot=hot
        )
        calculation.advise("heat", "look", says, 1)
    says = say("A tremble, not a boil; stir every half minute. Floating means only that the skin is done.")
    calculation.advise("heat", "look", says, 5)


def _pot_ml(calculation: Calculation) -> tuple[float, Origin]:
    """ml that they swim in, and where that is said: the pot's water, or the broth that they are eaten in."""
    pot, broths = calculation.pot, calculation.bowl.of_role("broth")
    broth_ml = sum(broth.main.made.grams / broth.main.item.g_per_ml for broth in broths)
    if calculation.asked("pot") != "water" and broth_ml > 0:
        ml = min(pot.water_ml, broth_ml)
        return ml, leaf(f"part.{broths[0].id}.made_g", say("the broth"), round(ml), "ml")
    return pot.water_ml, calculation.from_kitchen("pot.water_ml", say("water in the pot"), pot.water_ml, "ml")


def _load(calculation: Calculation, drawn: BallDrawing, ball_j: float) -> tuple[int, float]:
    """(pieces in a load, seconds the balls lag behind): as many as float in one layer, and as the pot can warm
    without falling more than 14 °C."""
    fact_book, pot = calculation.fact_book, calculation.pot
    pieces = int(fact_book.number("shape.pieces"))
    water_ml, _ = _pot_ml(calculation)
    floor = _FLOOR_SHARE * pot.diameter_mm**2 / drawn.outer_mm**2
    quick_j = calculation.likely("dip_share") * ball_j  # taken up before the burner answers
    warm = MOST_DIP_C * water_ml * WATER_J_PER_ML_K / quick_j
    most = max(1, math.floor(min(floor, warm)))
    load = math.ceil(pieces / math.ceil(pieces / most))
    dip = load * quick_j / (water_ml * WATER_J_PER_ML_K)
    net_w = calculation.kitchen.burner.high_w
    lag = min(_MOST_LAG_S, 0.5 * load * quick_j / net_w)
    of: Origins = [
        "shape.diameter_mm",
        "shape.piece_g",
        calculation.from_kitchen(
            "pot", "pot", f"{calculation.length(pot.diameter_mm)}, {calculation.volume(water_ml)}"
        ),
    ]
    fact_book.add(
        "heat.load_pieces",
        float(most),
        say("one floating layer that can be stirred, and a pot that goes on simmering"),
        source=KITCHEN_ESTIMATE,
        of=of,
    )
    share: EstimateId = "dip_share"
    enter_with_range(
        calculation,
        "heat.pot_dip_c",
        say("heat that a load takes up before the burner answers, out of the water"),
        scaled_by_estimates(dip / calculation.likely(share), share),
        (share,),
        source=say("energy balance; the share a {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["heat.load_pieces", *of[2:], leaf("kitchen:burner.high_w", say("net power at high heat"), net_w, "W")],
    )
    return load, lag

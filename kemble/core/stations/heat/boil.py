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
from kemble.core.physics.conduction import Array, when
from kemble.core.physics.doneness import COOKED, gelled
from kemble.core.physics.freezing import food
from kemble.core.physics.thermal import WATER_J_PER_ML_K, fractions, properties
from kemble.core.physics.time_spread import Solve, Spread
from kemble.core.sentences import say
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import SOLVER, drawn_curve
from kemble.core.stations.heat.heat_curve_result import HeatedWith
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.time_windows import scaled, timed, windowed

MOST_DIP_C = 14.0  # a pot that falls further stops simmering and the balls stick
_MOST_LAG_S = 120.0
_THICKER_MM = 5.0
_WHICH: tuple[EstimateId, ...] = ("size", "conductivity", "burner", "boil_h", "dip_share")
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
    """One ball in boiling water: seconds, °C, and the heat that it took up (J)."""

    times: Array
    core: Array
    skin: Array
    float_s: float
    through_s: float
    hot_s: float
    heat_j: float


def _cook(
    working: Calculation,
    base: Composition,
    filling: Composition | None,
    drawn: BallDrawing,
    boil_c: float,
    *,
    larger: float = 1.0,
) -> _BoiledBall | None:
    """March a ball, so many times as large as it is drawn, from its start to hot. None when it does not get there."""
    outer, core = larger * drawn.outer_mm / 2000.0, larger * drawn.core_mm / 2000.0
    dough = properties(fractions(base), 60.0)
    shells = [(core, dough), (outer, dough)] if filling else [(outer, dough)]
    body = conduction.sphere(shells, working.likely("boil_h"))
    inner = int(np.searchsorted(body.centres, core)) if filling else 0
    layers = [(food(base, fat_sets=False), len(body.centres) - inner)]
    if filling:
        layers.insert(0, (food(filling, fat_sets=True), inner))
    start = np.full(len(body.centres), working.sheet.start.dough_c)
    start[:inner] = _core_start(working)
    times = 0.75 * outer**2 / dough.alpha * np.linspace(0.0, 1.0, _STEPS + 1) ** 1.7
    celsius, heat = conduction.thaw(body, layers, start, boil_c, times)

    cooked = gelled(times, celsius[:, inner:], working.book.number("mix.gel_temperature_c"))
    volumes = body.volumes[inner:]
    float_s = when(times, cooked @ volumes / volumes.sum(), working.likely("float_share"))
    through_s = when(times, cooked[:, 0], COOKED)
    hot_s = when(times, celsius[:, 0], working.likely("hot_c"))
    if float_s is None or through_s is None or hot_s is None:
        return None
    return _BoiledBall(
        times=times,
        core=celsius[:, 0],
        skin=boil_c + (celsius[:, -1] - boil_c) * conduction.film_share(body, -1),
        float_s=float_s,
        through_s=through_s,
        hot_s=hot_s,
        heat_j=4 * math.pi * float(heat[-1]),  # the solver's is per unit solid angle: its volumes are r³/3
    )


def _core_start(working: Calculation) -> float:
    """°C at which the filling goes in."""
    frozen = working.asked("start") == "frozen"
    return working.kitchen.freezer_c if frozen else working.kitchen.fridge_c


def boil(
    working: Calculation, base: Composition, filling: Composition | None, drawn: BallDrawing, boil_c: float
) -> HeatedWith[BoilDrawing] | None:
    """When it floats, when it is hot within, and what the pot takes. None when it does not cook (a problem is noted)."""
    kitchen = working.kitchen
    found = _cook(working, base, filling, drawn, boil_c)
    if found is None:
        working.problem(
            "pieces",
            say("at {boil_c} a ball this size does not cook through", boil_c=working.degrees(boil_c)),
            say("smaller pieces, or less sugar in the dough"),
        )
        return None
    # Cold balls cool the pot, which climbs back at the burner's power: they lag behind by about half of that.
    load, lag_s = _load(working, drawn, found.heat_j)

    def minutes(seconds: float) -> float:
        return (seconds * kitchen.time_factor + lag_s) / 60.0

    simmer_on = working.asked("done") == "float-then-simmer"

    def done_s(cooked: _BoiledBall) -> float:
        return max(cooked.through_s, cooked.hot_s, cooked.float_s) if simmer_on else cooked.float_s

    hot, done = minutes(found.hot_s), minutes(done_s(found))
    on_the_clock = (found.times * kitchen.time_factor + lag_s) / 60.0
    heart_done = float(np.interp(done, on_the_clock, found.core))
    book = working.book
    larger = 1 + _THICKER_MM / drawn.outer_mm
    thicker = _cook(working, base, filling, drawn, boil_c, larger=larger)
    # How its time goes with its size is known from one that is larger; with conductivity it goes half as steeply.
    steep = math.log(done_s(thicker) / done_s(found)) / math.log(larger) if thicker else 2.0

    floats_at, dip_share = working.likely("float_share"), working.likely("dip_share")
    dough = properties(fractions(base), 60.0)
    film = 2.5 * dough.k / (drawn.outer_mm / 2000.0)  # of its slow time, what its skin in the water adds, over h

    def scaled_by(of: Mapping[EstimateId, float]) -> float:
        skin = (1.0 + film / of["boil_h"]) / (1.0 + film / working.likely("boil_h"))
        result: float = of["size"] ** steep * of["conductivity"] ** (-steep / 2) * skin
        return result

    def late_s(of: Mapping[EstimateId, float]) -> float:
        return lag_s * of["dip_share"] / dip_share / of["burner"]

    def floats_min(of: Mapping[EstimateId, float]) -> float:
        begun = of["float_share"] / floats_at
        return (found.float_s * scaled_by(of) * begun * kitchen.time_factor + late_s(of)) / 60.0

    def hot_min(of: Mapping[EstimateId, float]) -> float:
        at = when(found.times, found.core, of["hot_c"]) or found.hot_s
        return (at * scaled_by(of) * kitchen.time_factor + late_s(of)) / 60.0

    def solve(of: Mapping[EstimateId, float]) -> float:
        begun = of.get("float_share", floats_at) / floats_at if working.asked("done") == "float" else 1.0
        return (done_s(found) * scaled_by(of) * begun + late_s(of) / kitchen.time_factor) / 60.0

    window = windowed(working, solve, _WHICH if simmer_on else (*_WHICH, "float_share"))
    assert window is not None
    _enter_times(working, drawn, floats=floats_min, hot=hot_min, window=window, core_done_c=heart_done)
    water_ml, holds = _pot_ml(working)
    _enter_pot(working, lag_s, water_ml, holds, minutes(done_s(thicker)) - done if thicker else None)
    most = int(book.number("heat.load_pieces"))
    number = loads(working, int(book.number("shape.pieces")), most, "pieces", say("what the pot takes"), holds)
    _advise(working, hot=hot, core_done_c=heart_done)

    # Until the pot has caught up nothing happens: the curve begins flat.
    shown = np.concatenate(([0.0], on_the_clock))
    core, skin = (np.concatenate((curve[:1], curve)) for curve in (found.core, found.skin))
    visible = shown <= max(1.7 * done, 1.25 * hot)
    curve = drawn_curve(shown[visible], core[visible], skin[visible])
    drawing = unchecked_model(
        BoilDrawing,
        kind="boil",
        pot_mm=working.pot.diameter_mm,
        water_mm=water_ml * 1000.0 / (math.pi * working.pot.diameter_mm**2 / 4),
        outer_mm=drawn.outer_mm,
        core_mm=drawn.core_mm,
        load=load,
        loads=number,
    )
    return HeatedWith(drawing, curve)


def _enter_pot(working: Calculation, lag_s: float, water_ml: float, holds: Origin, thicker_min: float | None) -> None:
    """The pot's water, what a fuller pot costs, and what a larger ball does (None where it would not cook)."""
    book = working.book
    if thicker_min is not None:
        says = say("the same ball half a centimetre larger across: size counts nearly squared")
        book.add("heat.thicker_min", thicker_min, says, source=SOLVER, of=["heat.done_min"])
    book.add(
        "heat.fuller_min",
        min(_MOST_LAG_S, 2 * lag_s) / 60 - lag_s / 60,
        say("twice the load: the pot falls twice as far, and its burner needs longer to bring it back"),
        source=say("energy balance; {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["heat.pot_dip_c"],
    )
    says = (
        say("as much as the pot holds") if working.asked("pot") == "water" else say("the broth that they are eaten in")
    )
    book.add("heat.water_ml", water_ml, says, source="kitchen", of=[holds])


def _enter_times(
    working: Calculation, drawn: BallDrawing, *, floats: Solve, hot: Solve, window: Spread, core_done_c: float
) -> None:
    book, sheet = working.book, working.sheet
    first, done, latest = window.first, window.likely, window.latest
    factor, core_start = working.kitchen.time_factor, _core_start(working)
    of: Origins = [
        "shape.diameter_mm",
        "mix.gel_temperature_c",
        "heat.boil_c",
        working.from_sheet("start.dough_c", say("dough goes in at"), sheet.start.dough_c, "°C"),
        working.from_kitchen("time_factor", say("this kitchen's time factor"), factor),
        "heat.pot_dip_c",
    ]
    if drawn.core_mm > 0:
        shelf = "freezer_c" if core_start < 0 else "fridge_c"
        of += ["shape.core_mm", working.from_kitchen(shelf, say("filling goes in at"), core_start, "°C")]
    book.add(
        "heat.depth_mm",
        drawn.outer_mm / 2,
        say("from the skin to the heart"),
        source=GEOMETRY,
        of=["shape.diameter_mm"],
    )
    timed(
        working,
        "heat.float_min",
        say(
            "{float_share:.0%} of the dough has gelled and swollen: it floats",
            float_share=working.likely("float_share"),
        ),
        floats,
        (*_WHICH, "float_share"),
        source=say("{solver}; the share a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE),
        of=of,
    )
    timed(
        working,
        "heat.core_hot_min",
        say("the heart reaches {likely}", likely=working.degrees(working.likely("hot_c"))),
        hot,
        (*_WHICH, "hot_c"),
        source=SOLVER,
        of=of,
    )
    book.add(
        "heat.done_min",
        done,
        say("it floats") if working.asked("done") == "float" else say("cooked through and hot at the heart"),
        source=SOLVER,
        of=["heat.float_min", "heat.core_hot_min", *working.school("done")],
        low=first,
        high=latest,
    )
    for key, value, says in (
        ("heat.first_check_min", first, say("one in twenty is done by then")),
        ("heat.latest_min", latest, say("nineteen in twenty are done by then")),
    ):
        book.add(key, value, says, source=KITCHEN_ESTIMATE, of=["heat.done_min"])
    book.add("heat.heart_done_c", core_done_c, say("the heart at the likely time"), source=SOLVER, of=["heat.done_min"])


def _advise(working: Calculation, *, hot: float, core_done_c: float) -> None:
    if working.asked("done") == "float" and core_done_c < working.likely("hot_c"):
        core = working.degrees(core_done_c)
        says = say(
            "At the float the heart is {core}. Simmer on to {hot:.0f} minutes for a hot one.", core=core, hot=hot
        )
        working.advise("heat", "look", says, 1)
    says = say("A tremble, not a boil; stir every half minute. Floating means only that the skin is done.")
    working.advise("heat", "look", says, 5)


def _pot_ml(working: Calculation) -> tuple[float, Origin]:
    """ml that they swim in, and where that is said: the pot's water, or the broth that they are eaten in."""
    pot, broth = working.pot, working.bowl.parts.get("broth")
    if working.asked("pot") != "water" and broth and broth.main.made.grams > 0:
        ml = min(pot.water_ml, broth.main.made.grams / broth.main.item.g_per_ml)
        return ml, leaf("part.broth.made_g", say("the broth"), round(ml), "ml")
    return pot.water_ml, working.from_kitchen("pot.water_ml", say("water in the pot"), pot.water_ml, "ml")


def _load(working: Calculation, drawn: BallDrawing, ball_j: float) -> tuple[int, float]:
    """(pieces in a load, seconds the balls lag behind): as many as float in one layer, and as the pot can warm
    without falling more than 14 °C."""
    book, pot = working.book, working.pot
    pieces = int(book.number("shape.pieces"))
    water_ml, _ = _pot_ml(working)
    floor = _FLOOR_SHARE * pot.diameter_mm**2 / drawn.outer_mm**2
    quick_j = working.likely("dip_share") * ball_j  # taken up before the burner answers
    warm = MOST_DIP_C * water_ml * WATER_J_PER_ML_K / quick_j
    most = max(1, math.floor(min(floor, warm)))
    load = math.ceil(pieces / math.ceil(pieces / most))
    dip = load * quick_j / (water_ml * WATER_J_PER_ML_K)
    net_w = working.kitchen.burner.high_w
    lag = min(_MOST_LAG_S, 0.5 * load * quick_j / net_w)
    of: Origins = [
        "shape.diameter_mm",
        "shape.piece_g",
        working.from_kitchen("pot", "pot", f"{working.length(pot.diameter_mm)}, {working.volume(water_ml)}"),
    ]
    book.add(
        "heat.load_pieces",
        float(most),
        say("one floating layer that can be stirred, and a pot that goes on simmering"),
        source=KITCHEN_ESTIMATE,
        of=of,
    )
    share: EstimateId = "dip_share"
    timed(
        working,
        "heat.pot_dip_c",
        say("heat that a load takes up before the burner answers, out of the water"),
        scaled(dip / working.likely(share), share),
        (share,),
        source=say("energy balance; the share a {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["heat.load_pieces", *of[2:], leaf("kitchen:burner.high_w", say("net power at high heat"), net_w, "W")],
    )
    return load, lag

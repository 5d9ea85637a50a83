"""Boil: balls of dough, plain or round a core that may be frozen, in a pot that they cool."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from kemble.core.facts import KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import when
from kemble.core.physics.doneness import COOKED, gelled
from kemble.core.physics.freezing import food
from kemble.core.physics.thermal import WATER_J_PER_ML_K, Material, fractions, properties
from kemble.core.stations.curve import SOLVER, Curve, drawn_curve
from kemble.core.stations.pieces import BallDrawing
from kemble.core.stations.working import Drawn, Working

BOIL_H = 1000.0  # W/(m2 K), boiling water about 500-1500; kitchen estimate
FLOATS = 0.85  # share of a ball's dough that has gelled when it floats; kitchen estimate, 0.7-0.95
HOT_C = 72.0  # a heart this warm is hot to the tongue and warmed through; kitchen estimate, 68-76 °C
MOST_DIP_C = 14.0  # a pot that falls further stops simmering and the balls stick; kitchen estimate
_FLOOR_SHARE = 0.65  # of the pot's surface that floating balls may cover and still be stirred; kitchen estimate


class BoilDrawing(Drawn):
    kind: Literal["boil"] = "boil"
    curve: Curve
    pot_mm: float
    water_mm: float
    outer_mm: float
    core_mm: float
    load: int
    loads: int


def boil(
    working: Working, base: Composition, filling: Composition | None, drawn: BallDrawing, boil_c: float
) -> BoilDrawing | None:
    book, sheet, kitchen = working.book, working.sheet, working.kitchen
    outer, core = drawn.outer_mm / 2000.0, drawn.core_mm / 2000.0
    gel_c = book.number("mix.gel_temperature_c")
    core_start = kitchen.freezer_c if sheet.school("start") == "frozen" else kitchen.fridge_c
    dough_s = food(base, fat_sets=False)
    nominal = properties(fractions(base), 60.0)
    shells: list[tuple[float, Material]] = [(outer, nominal)]
    layers = [(dough_s, 0)]
    if filling and core > 0:
        shells = [(core, nominal), (outer, nominal)]
        layers = [(food(filling, fat_sets=True), 0), (dough_s, 0)]
    body = conduction.sphere(shells, BOIL_H)
    inner = int(np.searchsorted(body.centres, core)) if core > 0 else 0
    counts = [inner, len(body.centres) - inner] if core > 0 else [len(body.centres)]
    start = np.full(len(body.centres), sheet.start.dough_c)
    start[:inner] = core_start
    end = 0.75 * outer**2 / nominal.alpha
    times = end * np.linspace(0.0, 1.0, 131) ** 1.7
    temperatures, heat_j = conduction.thaw(
        body, [(s, n) for (s, _), n in zip(layers, counts, strict=True)], start, boil_c, times
    )

    heart = temperatures[:, 0]
    dough_t = temperatures[:, inner:]
    cooked = gelled(times, dough_t, gel_c)
    volumes = body.volumes[inner:]
    share = cooked @ volumes / volumes.sum()
    float_s = when(times, share, FLOATS)
    through_s = when(times, cooked[:, 0], COOKED)
    hot_s = when(times, heart, HOT_C)
    if float_s is None or through_s is None or hot_s is None:
        working.refuse(
            "pieces",
            f"at {working.degrees(boil_c)} a ball this size does not cook through",
            "smaller pieces, or less sugar in the dough",
        )
        return None

    # The pot: cold balls cool it, and it climbs back at the burner's power. Balls wait about half of that.
    # `heat_j` is per unit solid angle (volumes are r³/3), so a whole ball takes 4π of it.
    ball_j = 4 * math.pi * float(heat_j[-1])
    load, lag_s = _load(working, drawn, ball_j)
    factor = kitchen.time_factor

    floats, through, hot = ((s * factor + lag_s) / 60.0 for s in (float_s, through_s, hot_s))
    simmer_on = sheet.school("done") == "float-then-simmer"
    done = max(through, hot, floats) if simmer_on else floats
    inputs: Origins = [
        "shape.diameter_mm",
        *(["shape.core_mm"] if core > 0 else []),
        "mix.gel_temperature_c",
        "heat.boil_c",
        working.from_sheet("start.dough_c", "dough goes in at", sheet.start.dough_c, "°C"),
        *(
            [
                working.from_kitchen(
                    "freezer_c" if core_start < 0 else "fridge_c", "filling goes in at", core_start, "°C"
                )
            ]
            if core > 0
            else []
        ),
        working.from_kitchen("time_factor", "this kitchen's time factor", factor),
        "heat.pot_dip_c",
    ]
    book.add(
        "heat.depth_mm",
        drawn.outer_mm / 2,
        "from the skin to the heart",
        source="geometry",
        of=["shape.diameter_mm"],
    )
    book.add(
        "heat.float_min",
        floats,
        f"{FLOATS:.0%} of the dough has gelled and swollen: it floats",
        source=f"{SOLVER}; the share a {KITCHEN_ESTIMATE}",
        of=inputs,
        low=floats * 0.75,
        high=floats * 1.35,
    )
    book.add(
        "heat.core_hot_min",
        hot,
        f"the heart reaches {working.degrees(HOT_C)}",
        source=SOLVER,
        of=inputs,
        low=hot * 0.87,
        high=hot * 1.18,
    )
    first, latest = done * 0.85, done * 1.25
    book.add(
        "heat.done_min",
        done,
        "cooked through and hot at the heart" if simmer_on else "it floats",
        source=SOLVER,
        of=["heat.float_min", "heat.core_hot_min", working.school("done")],
        low=first,
        high=latest,
    )
    book.add(
        "heat.first_check_min",
        first,
        "small pieces, a pot that hardly fell",
        source=KITCHEN_ESTIMATE,
        of=["heat.done_min"],
    )
    book.add("heat.latest_min", latest, "large pieces, a full pot", source=KITCHEN_ESTIMATE, of=["heat.done_min"])
    heart_done = float(np.interp(done * 60.0, (times * factor + lag_s), heart))
    book.add("heat.heart_done_c", heart_done, "the heart at the likely time", source=SOLVER, of=["heat.done_min"])
    pieces = int(book.number("shape.pieces"))
    loads = math.ceil(pieces / load)
    book.add(
        "heat.loads",
        float(loads),
        "pieces over what the pot takes",
        source="kitchen",
        of=["shape.pieces", "heat.load_pieces"],
    )
    book.add(
        "heat.water_ml",
        kitchen.pot.water_ml,
        "as much as the pot holds",
        source="kitchen",
        of=[working.from_kitchen("pot.water_ml", "water in the pot", kitchen.pot.water_ml, "ml")],
    )
    if loads > 1:
        working.advise(
            "heat",
            "look",
            f"{loads} loads of {math.ceil(pieces / loads)}: more at once and the pot stops simmering.",
            3,
        )
    if not simmer_on and heart_done < HOT_C:
        working.advise(
            "heat",
            "look",
            f"At the float the heart is {working.degrees(heart_done)}. Simmer on to {hot:.0f} minutes for a hot one.",
            1,
        )
    working.advise(
        "heat",
        "look",
        "A tremble, not a boil; stir every half minute. Floating means only that the skin is done.",
        5,
    )
    shown = np.concatenate(([0.0], (times * factor + lag_s) / 60.0))
    heart = np.concatenate((heart[:1], heart))
    visible = shown <= max(1.7 * done, 1.25 * hot)
    skin = boil_c + (temperatures[:, -1] - boil_c) * conduction.film_share(body, -1)
    surface = np.concatenate((skin[:1], skin))
    area_mm2 = math.pi * kitchen.pot.diameter_mm**2 / 4
    return BoilDrawing.model_construct(
        kind="boil",
        curve=drawn_curve(shown[visible], heart[visible], surface[visible]),
        pot_mm=kitchen.pot.diameter_mm,
        water_mm=kitchen.pot.water_ml * 1000.0 / area_mm2,
        outer_mm=drawn.outer_mm,
        core_mm=drawn.core_mm,
        load=math.ceil(pieces / loads),
        loads=loads,
    )


def _load(working: Working, drawn: BallDrawing, ball_j: float) -> tuple[int, float]:
    """(pieces in a load, seconds the balls lag behind): as many as float in one layer, and as the pot can warm
    without falling more than 14 °C."""
    book, pot = working.book, working.kitchen.pot
    pieces = int(book.number("shape.pieces"))
    floor = _FLOOR_SHARE * pot.diameter_mm**2 / drawn.outer_mm**2
    quick_j = 0.5 * ball_j  # taken up before the burner answers; kitchen estimate
    warm = MOST_DIP_C * pot.water_ml * WATER_J_PER_ML_K / quick_j
    most = max(1, math.floor(min(floor, warm)))
    load = math.ceil(pieces / math.ceil(pieces / most))
    dip = load * quick_j / (pot.water_ml * WATER_J_PER_ML_K)
    net_w = working.kitchen.burner.high_w
    lag = min(120.0, 0.5 * load * quick_j / net_w)
    of: Origins = [
        "shape.diameter_mm",
        "shape.piece_g",
        working.from_kitchen("pot", "pot", f"{pot.diameter_mm:.0f} mm, {pot.water_ml:.0f} ml"),
    ]
    book.add(
        "heat.load_pieces",
        float(most),
        "one floating layer that can be stirred, and a pot that goes on simmering",
        source=KITCHEN_ESTIMATE,
        of=of,
    )
    book.add(
        "heat.pot_dip_c",
        dip,
        "half the heat that a load takes up, out of the water",
        source=f"energy balance; the half a {KITCHEN_ESTIMATE}",
        of=["heat.load_pieces", *of[2:], leaf("kitchen:burner.high_w", "net power at high heat", net_w, "W")],
        low=dip * 0.6,
        high=dip * 1.4,
    )
    return load, lag

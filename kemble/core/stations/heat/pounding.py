"""Pounding: how long it takes by machine, mortar or bowl, and how long the mass stays hot enough for it."""

from __future__ import annotations

import math
from collections.abc import Mapping

from kemble.core.facts.fact import KITCHEN_ESTIMATE
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

_BEGINS_C = 92.0  # by the time it is in the mortar
# W/(m2 K) from the turned mass to the air and the mortar. A machine's bowl keeps it warm.
_LOSES_H = {"machine": 12.0, "mortar": 26.0, "bowl": 30.0}
# Minutes to begin with, and more a kilogram of cooked grain. How far both stray is in the table of estimates.
_TAKES = {"machine": (7.0, 3.0), "mortar": (9.0, 9.0), "bowl": (11.0, 16.0)}


def pounding(calculation: Calculation, mass: Composition) -> None:
    """`heat.pound_min` and `heat.pound_hot_min`, for a way that pounds; nothing otherwise."""
    if calculation.way.choice("pound") is None:
        return
    school = calculation.asked("pound")
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    kg = fact_book.number("mix.cooked_g") / 1000.0
    fixed, per_kg = _TAKES[school]
    takes: EstimateId = "pound_takes"
    minutes = enter_with_range(
        calculation,
        "heat.pound_min",
        say("until no grain is felt: some minutes to begin with, and more for each kilogram"),
        scaled_by_estimates(fixed + per_kg * kg, takes),
        (takes,),
        source=KITCHEN_ESTIMATE,
        of=["mix.cooked_g", *calculation.school("pound")],
    )
    material = properties(fractions(mass), 70.0)
    volume = kg / material.rho
    area = 4.836 * volume ** (2 / 3)  # of a ball of it
    slow_min = kg * material.cp / (_LOSES_H[school] * area) / 60.0

    def solve(is_: Mapping[EstimateId, float]) -> float:
        room_c = kitchen.room_c + is_["room_c"]
        cools = math.log((_BEGINS_C - room_c) / (is_["pound_c"] - room_c))
        return float(slow_min / is_["pound_h"] * cools)

    ends = calculation.degrees(calculation.likely("pound_c"))
    stays = enter_with_range(
        calculation,
        "heat.pound_hot_min",
        say(
            "a lump of it falls from {begins_c} to {ends}: cooler, it no longer closes",
            begins_c=calculation.degrees(_BEGINS_C),
            ends=ends,
        ),
        solve,
        ("pound_h", "pound_c", "room_c"),
        source=say("lumped cooling; {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=[
            "mix.cooked_g",
            *calculation.school("pound"),
            calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C"),
        ],
    )
    if minutes > stays:
        says = say(
            "It is workable for {stays:.0f} minutes and wants {minutes:.0f}: warm the mortar, or steam it in between.",
            stays=stays,
            minutes=minutes,
        )
        calculation.advise("heat", "look", says, 1)

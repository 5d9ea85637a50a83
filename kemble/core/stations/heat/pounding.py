"""Pounding: how long it takes by machine, mortar or bowl, and how long the mass stays hot enough for it."""

from __future__ import annotations

import math

from kemble.core.facts.fact import KITCHEN_ESTIMATE
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.thermal import fractions, properties
from kemble.core.stations.working import Working

POUND_C = 60.0  # cooler, the grains no longer part; kitchen estimate, 55-65
_BEGINS_C = 92.0  # by the time it is in the mortar
# W/(m2 K) from the turned mass to the air and the mortar; kitchen estimates. A machine's bowl keeps it warm.
_LOSES_H = {"machine": 12.0, "mortar": 26.0, "bowl": 30.0}
# Minutes to begin with, and more a kilogram of cooked grain; kitchen estimates, a third either way.
_TAKES = {"machine": (7.0, 3.0), "mortar": (9.0, 9.0), "bowl": (11.0, 16.0)}


def pounding(working: Working, mass: Composition) -> None:
    """`heat.pound_min` and `heat.pound_hot_min`, for a way that pounds; nothing otherwise."""
    if working.way.choice("pound") is None:
        return
    school = working.asked("pound")
    book, kitchen = working.book, working.kitchen
    kg = book.number("mix.cooked_g") / 1000.0
    fixed, per_kg = _TAKES[school]
    minutes = book.add(
        "heat.pound_min",
        fixed + per_kg * kg,
        "until no grain is felt: some minutes to begin with, and more for each kilogram",
        source=KITCHEN_ESTIMATE,
        of=["mix.cooked_g", *working.school("pound")],
        low=(fixed + per_kg * kg) * 0.7,
        high=(fixed + per_kg * kg) * 1.4,
    )
    material = properties(fractions(mass), 70.0)
    volume = kg / material.rho
    area = 4.836 * volume ** (2 / 3)  # of a ball of it
    seconds = kg * material.cp / (_LOSES_H[school] * area)
    hot = seconds / 60.0 * math.log((_BEGINS_C - kitchen.room_c) / (POUND_C - kitchen.room_c))
    stays = book.add(
        "heat.pound_hot_min",
        hot,
        f"a lump of it falls from {working.degrees(_BEGINS_C)} to {working.degrees(POUND_C)}: cooler, it no longer closes",
        source=f"lumped cooling; {KITCHEN_ESTIMATE}",
        of=["mix.cooked_g", *working.school("pound"), working.from_kitchen("room_c", "room", kitchen.room_c, "°C")],
        low=0.6 * hot,
        high=1.5 * hot,
    )
    if minutes > stays:
        says = (
            f"It is workable for {stays:.0f} minutes and wants {minutes:.0f}: warm the mortar, or steam it in between."
        )
        working.advise("heat", "look", says, 1)

"""Reducing: how fast a part boils down in its pan, and how long until it weighs what it should."""

from __future__ import annotations

import math

from kemble.core.cards.family import Boils
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins
from kemble.core.kitchen.document import Level
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.thermal import boiling_point_c, fractions, properties
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.working import Working

PAN_MM = 200.0  # where the kitchen's list does not say which pan

# The level of heat, and the most that leaves a dm2 of it in g/min before it climbs the pan or spits. Kitchen estimates.
_HOW: dict[Boils, tuple[Level, float]] = {"syrup": ("medium", 9.0), "paste": ("low", 4.5)}
_SURE = (0.75, 1.4)


def boil_down(working: Working, bowl: PartBowl, how: Boils, loss_g: float) -> None:
    """Enter the rate at which a part loses water, and the minutes for `loss_g` of it, warming up counted in.

    The rate is what the burner's net power turns to vapour, or what its pan's width lets go, whichever is less.
    """
    book, kitchen, role = working.book, working.kitchen, bowl.role
    pan = next((pan for pan in kitchen.pans if pan.name == bowl.part.pan), None)
    across = pan.across_mm if pan else PAN_MM
    level, most = _HOW[how]
    power_w = kitchen.burner.net_w(level)
    by_width = most * math.pi * (across / 100.0) ** 2 / 4
    rate = min(loss_g_per_min(power_w), by_width)
    limit = "its burner" if rate < by_width else "the width of its pan: a wider one is sooner done"
    of: Origins = [
        working.from_kitchen(f"burner.{level}_w", f"net power at {level} heat", power_w, "W"),
        working.from_kitchen("pans", pan.name if pan else "a pan across", across, "mm"),
    ]
    book.add(
        f"part.{role}.boil_off_g_per_min",
        rate,
        f"heat of evaporation, limited by {limit}",
        source=KITCHEN_ESTIMATE,
        of=of,
        low=rate * _SURE[0],
        high=rate * _SURE[1],
    )
    # A paste comes hot from the pot.
    rise = 0.0 if how == "paste" else boiling_point_c(kitchen.altitude_m) - kitchen.room_c
    warm = bowl.grams / 1000.0 * properties(fractions(bowl.composition), 60.0).cp * rise / power_w / 60.0
    minutes = (warm + loss_g / rate) * kitchen.time_factor
    book.add(
        f"part.{role}.boil_off_min",
        minutes,
        "brought to the boil, then what is to go over the rate: the scale says when, not the clock",
        source=KITCHEN_ESTIMATE,
        of=[f"part.{role}.boil_off_g_per_min", f"part.{role}.raw_g", f"part.{role}.made_g"],
        low=minutes / _SURE[1],
        high=minutes / _SURE[0],
    )

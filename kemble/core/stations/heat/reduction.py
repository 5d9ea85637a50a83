"""Reduction: how fast a part boils down in its pan, and how long until it weighs what it should."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from kemble.core.cards.family import Boils, PartFinish
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins
from kemble.core.kitchen.document import Level
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.thermal import boiling_point_c, fractions, properties
from kemble.core.physics.time_spread import Solve
from kemble.core.sentences import say
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

PAN_MM = 200.0  # where the kitchen's list does not say which pan

# The level of heat, and the most that leaves a dm2 of it in g/min before it climbs the pan or spits. How far it strays
# from that is in the table of estimates.
_HOW: dict[Boils, tuple[Level, float]] = {"syrup": ("medium", 9.0), "paste": ("low", 4.5)}


def boil_down(calculation: Calculation, bowl: PartBowl, finish: PartFinish, loss_g: float) -> None:
    """Enter the rate at which a part loses water, and the minutes for `loss_g` of it, warming up counted in.

    The rate is what the burner's net power turns to vapour, or what its pan's width lets go, whichever is less. A syrup boiled down to
    its solids tells its stages by the same rate: at the boil, when it begins to coat, from when it sets stiff.
    """
    kitchen, part_id = calculation.kitchen, bowl.id
    how = finish.boils or "syrup"
    pan = next((pan for pan in kitchen.pans if pan.name == bowl.part.pan), None)
    across = pan.across_mm if pan else PAN_MM
    level, most = _HOW[how]
    power_w = kitchen.burner.net_w(level)
    by_width = most * math.pi * (across / 100.0) ** 2 / 4
    rate = min(loss_g_per_min(power_w), by_width)
    limit = say("its burner") if rate < by_width else say("the width of its pan: a wider one is sooner done")
    of: Origins = [
        calculation.from_kitchen(f"burner.{level}_w", say("net power at {level} heat", level=level), power_w, "W"),
        calculation.from_kitchen("pans", pan.name if pan else say("a pan across"), across, "mm"),
    ]
    goes: EstimateId = "boil_off"
    rate = enter_with_range(
        calculation,
        f"part.{part_id}.boil_off_g_per_min",
        say("heat of evaporation, limited by {limit}", limit=limit),
        scaled_by_estimates(rate, goes),
        (goes,),
        source=KITCHEN_ESTIMATE,
        of=of,
    )
    # A paste comes hot from the pot.
    rise = 0.0 if how == "paste" else boiling_point_c(kitchen.altitude_m) - kitchen.room_c
    warm = bowl.grams / 1000.0 * properties(fractions(bowl.composition), 60.0).cp * rise / power_w / 60.0
    likely = calculation.likely(goes)

    def until(gone_g: float) -> Solve:
        """Minutes until so much has gone."""

        def solve(is_: Mapping[EstimateId, float]) -> float:
            return (warm / is_["burner"] + gone_g / rate * likely / is_[goes]) * kitchen.time_factor

        return solve

    if finish.rule == "solids" and bowl.composition.solids > 0:
        _enter_stages(calculation, bowl, finish, until)
    enter_with_range(
        calculation,
        f"part.{part_id}.boil_off_min",
        say("brought to the boil, then what is to go over the rate: the scale says when, not the clock"),
        until(loss_g),
        (goes, "burner"),
        source=KITCHEN_ESTIMATE,
        of=[f"part.{part_id}.boil_off_g_per_min", f"part.{part_id}.raw_g", f"part.{part_id}.made_g"],
    )


def _enter_stages(
    calculation: Calculation, bowl: PartBowl, finish: PartFinish, until: Callable[[float], Solve]
) -> None:
    """When a syrup boils, begins to coat, and sets stiff: by the share of solids that is left in it."""
    part_id, raw, solids = bowl.id, bowl.composition.total, bowl.composition.solids
    which: tuple[EstimateId, ...] = ("boil_off", "burner")
    for name, share, says in (
        ("boils", 0.0, say("warmed from the room to the boil")),
        (
            "coats",
            finish.target.low,
            say("solids are {low:g} % of it: a film stays on the spoon", low=finish.target.low),
        ),
        (
            "stiff",
            finish.target.high,
            say("solids are {high:g} % of it: further, and it sets stiff", high=finish.target.high),
        ),
    ):
        gone_g = raw - solids / (share / 100) if share else 0.0
        if gone_g >= 0:
            enter_with_range(
                calculation,
                f"part.{part_id}.{name}_min",
                says,
                until(gone_g),
                which,
                source=KITCHEN_ESTIMATE,
                of=[f"part.{part_id}.boil_off_g_per_min", f"part.{part_id}.raw_g"],
            )

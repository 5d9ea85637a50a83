"""Loads: how many go in at once, how long all take, and how the first is kept warm."""

from __future__ import annotations

import math

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range

KEPT_C = 60.0  # what waits longer than two hours is kept over this, or chilled


def loads(calculation: Calculation, count: int, at_once: int, things: str, over: str, room: Origin) -> int:
    """Enter how many loads `count` things make, all of them one after another, and how they wait. Returns the loads."""
    fact_book = calculation.fact_book
    number = math.ceil(count / max(1, at_once))
    of: Origins = [room]
    of += [key for key in ("shape.tins", "shape.pieces", "heat.load_pieces") if key in fact_book]
    fact_book.add(
        "heat.loads",
        float(number),
        say("{things} over {over}", things=things, over=over),
        source=say("sheet and kitchen"),
        of=of,
    )
    done = fact_book.number("heat.done_min")
    change = calculation.estimates["change_min"]
    every = fact_book.add(
        "heat.all_loads_min",
        number * done + (number - 1) * change.value,
        say("one after another, {value:.0f} minutes to change them", value=change.value)
        if number > 1
        else say("one load"),
        source=KITCHEN_ESTIMATE,
        of=["heat.loads", "heat.done_min", *([calculation.estimated("change_min")] if number > 1 else [])],
        # What makes one load slow makes them all slow.
        low=number * fact_book.number("heat.first_check_min") + (number - 1) * change.low,
        high=number * fact_book.number("heat.latest_min") + (number - 1) * change.high,
    )
    if number == 1:
        return 1
    kitchen = calculation.kitchen
    waits = every - done
    core = fact_book.number("heat.heart_done_c")
    cooled: EstimateId = "covered_min"
    kept = enter_with_range(
        calculation,
        "heat.waits_c",
        say(
            "the first load after {waits:.0f} minutes under a lid or cloth, so that it neither dries nor stiffens",
            waits=waits,
        ),
        lambda is_: kitchen.room_c + (core - kitchen.room_c) * math.exp(-waits / is_[cooled]),
        (cooled,),
        source=KITCHEN_ESTIMATE,
        of=[
            "heat.all_loads_min",
            "heat.heart_done_c",
            calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C"),
        ],
    )
    says = say(
        "{count} {things} in {number} loads, {every:.0f} minutes in all. Cover the first: it waits at {kept}.",
        count=count,
        things=things,
        number=number,
        every=every,
        kept=calculation.degrees(kept),
    )
    calculation.advise("heat", "look", says, 2)
    if waits > 120 and kept < KEPT_C:
        calculation.advise(
            "heat", "look", say("The first load waits over two hours in the warm: keep it hot, or chill it."), 1
        )
    return number

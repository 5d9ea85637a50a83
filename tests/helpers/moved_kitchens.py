"""Kitchens in which what nobody knows exactly is otherwise than likely, and what their sheets then say."""

from __future__ import annotations

import math
from collections.abc import Mapping

from kemble.core.facts.fact import Fact
from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ESTIMATES, EstimateId
from kemble.core.physics.time_spread import Spread
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import work, work_with_spreads

# A fact that is told with another's window: its rows are those of the other.
SAME_WINDOW = {"heat.all_loads_min": "heat.done_min", "rest.cut_after_min": "rest.cut_fridge_min"}
TIMES = ("min", "h")
# A kitchen that knows itself pours less water to be sure of its steam; what is poured is as the usual one is told.
POURED_AS_TOLD = "heat.to_boil_min"


def kitchen_with(of: Mapping[EstimateId, float]) -> Kitchen:
    """The usual kitchen, some of its estimates known to be so."""
    return Kitchen(
        estimates={name: OwnEstimate(value=value, low=value, high=value) for name, value in of.items()},
    )


def times_with_windows(sheet: Sheet) -> tuple[dict[str, Fact], dict[str, Spread]]:
    """Every time that the usual kitchen is told with a window, and what the windows hang on."""
    worked, spreads = work_with_spreads(sheet, Kitchen())
    told = {
        key: fact
        for key, fact in worked.facts.items()
        if key != POURED_AS_TOLD
        and fact.unit in TIMES
        and isinstance(fact.value, float)
        and fact.value > 0
        and fact.low is not None
    }
    return told, spreads


def moves(sheet: Sheet, name: EstimateId, end: float, told: Mapping[str, Fact]) -> dict[str, float]:
    """By how much the logarithm of each of those times moves when one estimate is `end`."""
    facts = work(sheet, kitchen_with({name: end})).facts
    return {
        key: math.log(facts[key].value / fact.value)
        for key, fact in told.items()
        if key in facts and facts[key].value > 0 and facts[key].value != fact.value
    }


def drawn_values(rng) -> dict[EstimateId, float]:
    """Every estimate, drawn from its own range by a numpy generator."""
    return {
        name: row.at(z)
        for (name, row), z in zip(ESTIMATES.items(), rng.normal(0, 1, len(ESTIMATES)).tolist(), strict=True)
    }


def coverage(sheet: Sheet, rng, draws: int) -> dict[str, float]:
    """By time that some of them move: the share of so many drawn kitchens in which it lies within the window that the usual
    kitchen is told."""
    told, _ = times_with_windows(sheet)
    moved = set()
    inside, seen = dict.fromkeys(told, 0), dict.fromkeys(told, 0)
    for _ in range(draws):
        facts = work(sheet, kitchen_with(drawn_values(rng))).facts
        for key, fact in told.items():
            if key in facts:
                seen[key] += 1
                moved |= {key} if facts[key].value != fact.value else set()
                inside[key] += fact.low <= facts[key].value <= fact.high
    return {key: inside[key] / seen[key] for key in told if key in moved and seen[key] > draws / 2}

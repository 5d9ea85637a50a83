"""Time windows and ranges that follow from estimates, and the sensitivities behind them."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from kemble.core.facts.fact import Origin
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import MEASUREMENTS, TASTES, Estimate, EstimateId, Measurement
from kemble.core.physics.time_spread import Solve, Spread, spread
from kemble.core.sentences import Words
from kemble.core.stations.calculation import AnswerModel, Calculation

_MOST = 5  # told of what a window hangs on
WORTH_SHARE = 0.03  # of the variance; less is not told


class DonenessPreference(AnswerModel):
    """One way to like what is called done, and what the row then is."""

    words: Words
    value: float
    low: float
    high: float


class Sensitivity(AnswerModel):
    """One thing that a window hangs on: how many of its minutes, and what would settle it. `becomes_min` is half the
    window once it is settled; `narrows` the measurement that does (empty when none does), which takes `takes_min`."""

    id: str
    words: Words
    moves: Words
    minutes: float
    share_pct: float
    low: float
    value: float
    high: float
    unit: Words
    narrows: Measurement | None = None
    narrow_words: Words = ""
    takes_min: float = 0.0
    becomes_min: float = 0.0
    tastes: tuple[DonenessPreference, ...] = ()  # where saying how one likes it settles it


HEAT_WINDOW = "heat.done_min"


def enter_heat_window(calculation: Calculation, solve: Solve, which: Sequence[EstimateId]) -> Spread | None:
    """The window of the way's heat in minutes on the cook's clock. None when it has no end."""
    factor = calculation.kitchen.time_factor
    found_spread = spread(solve, calculation.estimates, which, together=calculation.kitchen.go_together)
    if found_spread is None:
        return None
    calculation.spreads[HEAT_WINDOW] = found_spread
    return Spread(
        found_spread.first * factor, found_spread.likely * factor, found_spread.latest * factor, found_spread.shares
    )


def heat_sensitivities(calculation: Calculation) -> list[Sensitivity]:
    """What the window of the way's heat hangs on, the most first; empty before it has one."""
    window, factor = calculation.spreads.get(HEAT_WINDOW), calculation.kitchen.time_factor
    hangs: list[Sensitivity] = []
    for share in window.shares[:_MOST] if window else ():
        if share.share < WORTH_SHARE:
            continue
        row = calculation.estimates[share.id]
        does, takes = MEASUREMENTS[row.narrows] if row.narrows else ("", 0.0)
        hangs.append(
            unchecked_model(
                Sensitivity,
                id=share.id,
                words=row.words,
                moves=row.moves,
                minutes=share.minutes * factor,
                share_pct=100 * share.share,
                low=row.low,
                value=row.value,
                high=row.high,
                unit=row.unit,
                narrows=row.narrows,
                narrow_words=does,
                takes_min=takes,
                becomes_min=share.left * factor,
                tastes=_doneness_preferences(share.id, row),
            )
        )
    return hangs


def _doneness_preferences(name: EstimateId, row: Estimate) -> tuple[DonenessPreference, ...]:
    if name not in TASTES:
        return ()
    low, high = ((end / row.value) ** row.after for end in (row.low, row.high))
    return tuple(
        unchecked_model(DonenessPreference, words=words, value=value, low=value * low, high=value * high)
        for words, value in TASTES[name]
    )


def enter_with_range(
    calculation: Calculation,
    key: str,
    says: str,
    solve: Solve,
    which: Sequence[EstimateId],
    *,
    source: str,
    of: Sequence[str | Origin],
    both_ways: int | None = None,
) -> float:
    """Enter a time or an amount with its window; what has its share in that stands among its origins. Returns the likely
    value. Where `solve` is cheap every estimate is moved to both its ends, else only the `both_ways` that move it most.
    What is nothing at all has no window.
    """
    found_spread = spread(
        solve,
        calculation.estimates,
        which,
        both_ways=len(which) if both_ways is None else both_ways,
        together=calculation.kitchen.go_together,
    )
    if found_spread is None:
        return calculation.fact_book.add(key, 0.0, says, source=source, of=of)
    calculation.spreads[key] = found_spread
    hangs = [calculation.estimated(share.id) for share in found_spread.shares if share.share >= WORTH_SHARE]
    return calculation.fact_book.add(
        key,
        found_spread.likely,
        says,
        source=source,
        of=[*of, *hangs],
        low=found_spread.first,
        high=found_spread.latest,
    )


def scaled_by_estimates(value: float, *by: EstimateId) -> Solve:
    """A value that goes with the product of what multiplies it."""

    def solve(of: Mapping[EstimateId, float]) -> float:
        return value * math.prod(of[name] for name in by)

    return solve

"""The time window that follows from estimates: by sensitivities, and the share of each estimate in it.

The logarithm of a time is nearly straight in the logarithm of what it hangs on, so its variance is the sum of the
squares of what each estimate moves it by alone. Each is moved to where one in twenty lies beyond; the two that move it
most are moved both ways, for there the time bends.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from kemble.core.kitchen.estimates import Estimate, EstimateId

EDGE = 1.6449  # standard deviations to where one in twenty begins
BOTH_WAYS = 2
_LEAST_SHARE = 0.005  # of the variance
# By how much one making differs from the next in what no row tells, as a logarithm. Beside what nobody has learned yet it
# is nothing; once a kitchen knows itself it is most of what is left. Kitchen estimate.
_ONCE_SD = 0.05

Solve = Callable[[Mapping[EstimateId, float]], float | None]


@dataclass(frozen=True, slots=True)
class VarianceShare:
    """What one estimate has in a window: `minutes` of the half-width, `share` of the variance, `left` of its half-width
    once what narrows it is measured. `at_low` and `at_high`: how the logarithm of the time moves to its ends."""

    id: EstimateId
    share: float
    minutes: float
    left: float
    at_low: float = 0.0
    at_high: float = 0.0

    def off_for(self, ratio: float) -> float | None:
        """How many standard deviations it must be off for the time to be so many times as long; None when it cannot."""
        wants = math.log(ratio)
        for end, sign in ((self.at_low, -1.0), (self.at_high, 1.0)):
            if end and wants / end > 0:
                return sign * EDGE * wants / end
        return None


@dataclass(frozen=True, slots=True)
class Spread:
    """First, likely and latest are the 5, 50 and 95 % of what the estimates allow; shares, the largest first."""

    first: float
    likely: float
    latest: float
    shares: tuple[VarianceShare, ...]

    @property
    def half(self) -> float:
        return (self.latest - self.first) / 2


def spread(
    solve: Solve,
    estimates: Mapping[EstimateId, Estimate],
    which: Sequence[EstimateId],
    *,
    both_ways: int = BOTH_WAYS,
    together: Mapping[tuple[EstimateId, EstimateId], float] | None = None,
) -> Spread | None:
    """The window of `solve` over the estimates it hangs on; the `both_ways` that move it most are moved to both their
    ends. None when it has no likely time. Where an end has no answer (it would never be done), the other end's stands.

    Takes: `solve` of every estimate's value; `estimates` by name, each with low, value, high; `which` it hangs on;
        `together` the correlations of those that were learned from the same makings.
    Gives: the window in the unit of `solve`: one in twenty, half, nineteen in twenty.
    Holds: times that go near enough straight with each estimate over its range.
    From: sensitivities, variances summed with their correlations.
    """
    middle = {estimate_id: estimates[estimate_id].value for estimate_id in which}
    likely = solve(middle)
    if likely is None or likely <= 0:
        return None

    def moved(each_estimate_id: EstimateId, end: float) -> float | None:
        result = solve({**middle, each_estimate_id: end})
        return None if result is None or result <= 0 else math.log(result / likely)

    ups: dict[EstimateId, float] = {}
    for estimate_id in which:
        end = moved(estimate_id, estimates[estimate_id].low)
        if end is None:
            end = moved(estimate_id, estimates[estimate_id].high)
            end = None if end is None else -end
        ups[estimate_id] = end or 0.0
    later = earlier = 0.0
    by = sorted(which, key=lambda estimate_id: -abs(ups[estimate_id]))
    squares: dict[EstimateId, float] = {}
    moves: dict[EstimateId, tuple[float, float]] = {}
    for rank, estimate_id in enumerate(by):
        low = ups[estimate_id]
        high = (
            moved(estimate_id, estimates[estimate_id].high)
            # What moves nothing at one end may be held there by a floor.
            if not low or rank < both_ways or estimates[estimate_id].bends
            else None
        )
        ends = (low, -low if high is None else high)
        moves[estimate_id] = ends
        later += max(0.0, *ends) ** 2
        earlier += min(0.0, *ends) ** 2
        squares[estimate_id] = ((ends[0] - ends[1]) / 2) ** 2
    if together:
        still = math.sqrt(_correlated_variance(moves, together, sum(squares.values())))
        once = (EDGE * _ONCE_SD) ** 2
        earlier, later = earlier * still**2 + once, later * still**2 + once
    first, latest = likely * math.exp(-math.sqrt(earlier)), likely * math.exp(math.sqrt(later))
    total, half = sum(squares.values()), (latest - first) / 2
    shares = []
    for estimate_id in by:
        share = squares[estimate_id] / total if total else 0.0
        if share < _LEAST_SHARE:
            continue
        left = math.sqrt(max(0.0, 1.0 - share * (1.0 - estimates[estimate_id].after ** 2)))
        shares.append(VarianceShare(estimate_id, share, half * math.sqrt(share), half * left, *moves[estimate_id]))
    return Spread(first, likely, latest, tuple(sorted(shares, key=lambda share: -share.share)))


def _correlated_variance(
    moves: Mapping[EstimateId, tuple[float, float]],
    together: Mapping[tuple[EstimateId, EstimateId], float],
    alone: float,
) -> float:
    """The variance with what goes together, over the variance of each alone."""
    if not alone:
        return 1.0
    both = sum(
        2 * r * (moves[a][1] - moves[a][0]) / 2 * (moves[b][1] - moves[b][0]) / 2
        for (a, b), r in together.items()
        if a in moves and b in moves
    )
    return max(0.01, 1.0 + both / alone)

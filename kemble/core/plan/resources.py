"""What the steps of a day share: cooks, burners, steamers, oven, pans, shelves; how much of each there is, and when."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from itertools import pairwise

from kemble.core.kitchen.document import Kitchen
from kemble.core.stations.steps import StepResult

# A cook can hold one thing and mind one pot beside it, or mind four pots.
HANDS = {"held": 10, "minded": 3, "free": 0}
HANDS_OF_A_COOK = 13
DAY = 24 * 60

# How many there are of what a step uses. What is not here (the counter) is never short; of what is named there is one.
_THERE_ARE: Mapping[str, Callable[[Kitchen], int]] = {
    "burner": lambda kitchen: kitchen.burners,
    "steamer": lambda kitchen: len(kitchen.steamers),
    "oven": lambda kitchen: kitchen.ovens,
    "microwave": lambda kitchen: 1,
    "cooker": lambda kitchen: 1,
    "toaster": lambda kitchen: kitchen.toasters,
    "machine": lambda kitchen: kitchen.machines,
    "fridge": lambda kitchen: kitchen.cold_shelves,
    "freezer": lambda kitchen: kitchen.cold_shelves,
}
_NAMED = ("pan:", "pot:", "steamer:")


def named(resource: str) -> str:
    """The name of a pan, a pot or a steamer that a sheet asks for by its name; "" of any other thing."""
    return next((resource.removeprefix(kind) for kind in _NAMED if resource.startswith(kind)), "")


def there_are(kitchen: Kitchen, resource: str) -> int | None:
    """How many there are; None of what is never short."""
    if named(resource):
        return 1
    result = _THERE_ARE.get(resource)
    return result(kitchen) if result else None


@dataclass(frozen=True, slots=True)
class HelperHours:
    """Somebody who helps from an instant to another; `safe_only` with what is safe for a child or somebody new."""

    name: str
    begins: datetime
    ends: datetime
    safe_only: bool = False

    @property
    def hands(self) -> int:
        return HANDS_OF_A_COOK


@dataclass(frozen=True, slots=True)
class Clock:
    """Whole minutes after an origin, over any change of the clocks."""

    origin: datetime

    def minute(self, instant: datetime) -> float:
        # Of two instants in one zone the difference would be that of its clock, not of time.
        return (instant.astimezone(UTC) - self.origin.astimezone(UTC)).total_seconds() / 60.0

    def at(self, minute: float) -> datetime:
        return self.origin.astimezone(UTC) + timedelta(minutes=minute)


def quiet_spans(kitchen: Kitchen, origin: datetime, horizon: int) -> list[tuple[int, int]]:
    """Quiet hours as (from, to) minutes after `origin`, cut to 0..horizon, on the kitchen's wall clock."""
    begins, ends = kitchen.quiet.minutes
    if begins == ends:
        return []
    origin = origin.astimezone(UTC)
    local = origin.astimezone(kitchen.zone)
    result = []
    for day in range(-1, math.ceil(horizon / DAY) + 2):
        date = local.date() + timedelta(days=day)
        start = datetime(date.year, date.month, date.day, begins // 60, begins % 60, tzinfo=kitchen.zone)
        until = date + timedelta(days=1 if ends < begins else 0)
        stop = datetime(until.year, until.month, until.day, ends // 60, ends % 60, tzinfo=kitchen.zone)
        a = max(0, math.floor((start - origin).total_seconds() / 60))
        b = min(horizon, math.ceil((stop - origin).total_seconds() / 60))
        if a < b:
            result.append((a, b))
    return result


def hands_for(step: StepResult) -> int:
    return HANDS[step.hands]


@dataclass(frozen=True, slots=True)
class CooksOverTime:
    """The hands there are over a day: at most `most`, less `short` of them in each of some spans (from, to, short)."""

    most: int
    short: tuple[tuple[int, int, int], ...]

    def at(self, minute: float) -> int:
        return self.most - sum(short for a, b, short in self.short if a <= minute < b)


def hands_over_time(
    cooks: int, helpers: Sequence[HelperHours], quiet: Sequence[tuple[int, int]], clock: Clock, horizon: int
) -> CooksOverTime:
    """Cooks all day but for quiet hours, each helper for as long as they are there."""
    there = [
        (max(0, math.ceil(clock.minute(helper.begins))), min(horizon, math.floor(clock.minute(helper.ends))))
        for helper in helpers
    ]
    most = HANDS_OF_A_COOK * (cooks + len(helpers))
    edges = sorted({0, horizon, *(edge for span in (*quiet, *there) for edge in span if 0 <= edge <= horizon)})
    short = []
    for a, b in pairwise(edges):
        if any(begins <= a < ends for begins, ends in quiet):
            missing = most
        else:
            missing = HANDS_OF_A_COOK * sum(not begins <= a < ends for begins, ends in there)
        if missing:
            short.append((a, b, missing))
    return CooksOverTime(most, tuple(short))

"""The year's table: the feasts at which these cakes are eaten, worked out from the sky; and when to begin for each.

Moons and the sun's longitude are those of a library of astronomy. A lunar-solar month begins on the day of its new moon,
on the clock of 120° east; the eleventh month holds the winter solstice, and of thirteen months between two such the
first in which the sun enters no new twelfth of its path is a leap month. Of the day before 1929 another clock was
used; nothing is asked so far back.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

import ephem
from pydantic import BaseModel, ConfigDict

from kemble.core.sentences import Words

_EAST_H = 8.0 / 24.0  # of a day: the calendar's clock, 120° east
YEARS = (1950, 2200)  # for which it is worked out


class Feast(BaseModel):
    """A feast on a day: what is eaten, and from how many days before it there is something to begin."""

    model_config = ConfigDict(frozen=True)

    id: str
    name: str
    day: date
    eaten: Words
    begin_days: int
    begins_with: Words


@dataclass(frozen=True, slots=True)
class _FeastKind:
    id: str
    name: str
    eaten: str
    begin_days: int
    begins_with: str
    day: Callable[[int], date]


@dataclass(frozen=True, slots=True)
class Month:
    """A month of the lunar-solar calendar: its first day, its number from 1, and whether it is a leap month."""

    first: date
    number: int
    leap: bool


@lru_cache(maxsize=64)
def months(year: int) -> tuple[Month, ...]:
    """The months from the eleventh one of the year before to the one before this year's eleventh, in order."""
    begins, ends = _eleventh(year - 1), _eleventh(year)
    firsts = [begins]
    while firsts[-1] < ends:
        firsts.append(_new_moon_after(firsts[-1] + timedelta(days=27)))
    firsts = firsts[: firsts.index(ends)] if ends in firsts else firsts[:-1]
    leap_year = len(firsts) == 13
    month, number, had_leap = [], 11, False
    for i, first in enumerate(firsts):
        after = firsts[i + 1] if i + 1 < len(firsts) else ends
        leap = leap_year and not had_leap and i > 0 and _twelfth(first) == _twelfth(after)
        if i > 0 and not leap:
            number = number % 12 + 1
        had_leap = had_leap or leap
        month.append(Month(first, number, leap))
    return tuple(month)


def lunar(year: int, month: int, day: int) -> date:
    """The day of a lunar-solar year (named by the year in which it begins); never one of a leap month."""
    in_order = [*months(year), *months(year + 1)]
    start = next(i for i, month in enumerate(in_order) if month.number == 1 and not month.leap)
    found_month = next(
        each_month for each_month in in_order[start:] if each_month.number == month and not each_month.leap
    )
    return found_month.first + timedelta(days=day - 1)


def _eleventh(year: int) -> date:
    """The first day of the month that holds the winter solstice."""
    solstice = _term(year, 270.0)
    first = _new_moon_after(solstice - timedelta(days=32))
    while True:
        after = _new_moon_after(first + timedelta(days=27))
        if after > solstice:
            return first
        first = after


@lru_cache(maxsize=512)
def _new_moon_after(day: date) -> date:
    """The day, on the calendar's clock, of the first new moon on or after a day."""
    result = ephem.next_new_moon(_instant(day))
    return _day(result)


def _twelfth(day: date) -> int:
    """In which twelfth of its path the sun is as a day begins on the calendar's clock."""
    return int(_longitude(_instant(day)) // 30)


@lru_cache(maxsize=256)
def _term(year: int, degrees: float) -> date:
    """The day, on the calendar's clock, on which the sun comes to a longitude, in that year."""
    return _day(_sun_at(year, degrees))


def _sun_at(year: int, degrees: float) -> float:
    """The instant (days, as the library counts) at which the sun has that longitude; by bisection, to a second."""
    about = date(year, 3, 20) + timedelta(days=degrees / 360 * 365.2422)
    if about.year > year:
        about = about.replace(year=year)
    low, high = _instant(about) - 10, _instant(about) + 10
    while high - low > 1e-5:
        middle = (low + high) / 2
        off = (_longitude(middle) - degrees + 180) % 360 - 180
        low, high = (middle, high) if off < 0 else (low, middle)
    return high


def _longitude(at: float) -> float:
    sun = ephem.Sun(at)
    return math.degrees(float(ephem.Ecliptic(sun, epoch=at).lon)) % 360


def _instant(day: date) -> float:
    """As the library counts days: midnight on the calendar's clock."""
    return float(ephem.Date((day.year, day.month, day.day))) - _EAST_H


def _day(at: float) -> date:
    year, month, day = ephem.Date(at + _EAST_H).triple()
    return date(year, month, int(day))


def _civil(year: int, degrees: float) -> date:
    """The day of an equinox or solstice by the world's clock."""
    year_, month, day = ephem.Date(_sun_at(year, degrees)).triple()
    return date(year_, month, int(day))


_KINDS: tuple[_FeastKind, ...] = (
    _FeastKind(
        "new-year", "Lunar-solar new year", "set cake, steamed long, sliced and fried", 3, "steam the cake; it sets for days",
        lambda year: lunar(year, 1, 1),
    ),
    _FeastKind(
        "fifteenth-night", "Fifteenth night of the new year", "filled balls in a sweet broth", 1, "freeze the fillings",
        lambda year: lunar(year, 1, 15),
    ),
    _FeastKind(
        "spring-equinox", "Spring equinox", "herb cakes from the first green", 1, "gather and blanch the herb",
        lambda year: _civil(year, 0.0),
    ),
    _FeastKind(
        "fifth-fifth", "Fifth day of the fifth moon", "parcels in leaf", 1, "leaves and grain soak on the evening before",
        lambda year: lunar(year, 5, 5),
    ),
    _FeastKind(
        "summer-solstice", "Summer solstice", "small cold cakes", 1, "grind and chill",
        lambda year: _civil(year, 90.0),
    ),
    _FeastKind(
        "mid-autumn", "Mid-autumn, the full moon", "pounded cakes, filled", 1, "the grain soaks overnight",
        lambda year: lunar(year, 8, 15),
    ),
    _FeastKind(
        "autumn-equinox", "Autumn equinox", "half-crushed balls in bean paste", 1, "the beans soak overnight",
        lambda year: _civil(year, 180.0),
    ),
    _FeastKind(
        "winter-solstice", "Winter solstice", "boiled balls, one more than your years", 1, "freeze the fillings",
        lambda year: _civil(year, 270.0),
    ),
)  # fmt: skip


def feasts(begins: date, days: int = 400) -> list[Feast]:
    """The feasts from a day on, in order. Raises ValueError outside the years for which they are worked out."""
    if not YEARS[0] <= begins.year <= YEARS[1]:
        raise ValueError(f"feasts are worked out for {YEARS[0]} to {YEARS[1]}")
    ends = begins + timedelta(days=days)
    found_feasts = []
    for year in range(begins.year - 1, ends.year + 1):
        for kind in _KINDS:
            day = kind.day(year)
            if begins <= day <= ends:
                found_feasts.append(
                    Feast(
                        id=kind.id,
                        name=kind.name,
                        day=day,
                        eaten=kind.eaten,
                        begin_days=kind.begin_days,
                        begins_with=kind.begins_with,
                    )
                )
    return sorted(found_feasts, key=lambda feast: (feast.day, feast.id))

"""When to check whether it is done, and how likely it is done by then."""

from __future__ import annotations

from statistics import NormalDist

from kemble.core.facts.fact import FactBook
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.stations.calculation import AnswerModel

# `first check` is where one in twenty is done, `likely done` half of them, `latest` nineteen in twenty: a normal
# spread with a side of its own before and after. A log of one's own narrows it.
_NORMAL = NormalDist()
_EDGE = _NORMAL.inv_cdf(0.95)
SHORT_MIN = 15.0
QUARTERS = (0.05, 0.25, 0.5, 0.75, 0.95)


class DonenessCheck(AnswerModel):
    """Look at this minute: so many of a hundred are done by then."""

    minute: float
    done_pct: float


def minute_of(share: float, first: float, done: float, latest: float) -> float:
    """The minute by which `share` of all makings are done."""
    z = _NORMAL.inv_cdf(share) / _EDGE
    return done + z * ((done - first) if z < 0 else (latest - done))


def share_of(minute: float, first: float, done: float, latest: float) -> float:
    """The share of all makings that are done by a minute."""
    side = (done - first) if minute < done else (latest - done)
    if side <= 0:
        return 1.0 if minute >= done else 0.0
    return _NORMAL.cdf((minute - done) / side * _EDGE)


def checks(fact_book: FactBook) -> list[DonenessCheck]:
    """Five looks between first check and latest, at whole minutes (halves in a short heat), none twice.

    Empty without a window.
    """
    if "heat.done_min" not in fact_book:
        return []
    first, done, latest = (fact_book.number(f"heat.{name}_min") for name in ("first_check", "done", "latest"))
    parts = 1 if done >= SHORT_MIN else 2
    at = dict.fromkeys(round(parts * minute_of(share, first, done, latest)) / parts for share in QUARTERS)
    return [
        unchecked_model(DonenessCheck, minute=minute, done_pct=round(100 * share_of(minute, first, done, latest)))
        for minute in at
    ]

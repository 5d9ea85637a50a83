"""Drift: one fact of every batch in order of time, and whether it changes.

Theil and Sen's slope, the median of those between any two makings, with its interval from Kendall's tau: an odd making
moves it little, and nothing is taken to be normal. Where what was told is known it is what happened over that, so that a
larger batch is no drift.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import datetime

from pydantic import BaseModel, ConfigDict

from kemble.core.sentences import Words, format_figure, say

LEAST = 5  # makings before anything is said
_LEAST_DAYS = 10.0  # from the first to the last
_MONTH_DAYS = 30.0
_SURE = 0.9


class DriftPoint(BaseModel):
    """A fact of one making: what happened, and where it was told what was told with its range."""

    model_config = ConfigDict(frozen=True)

    batch: int
    title: str
    made: datetime
    value: float
    told: float | None = None
    low: float | None = None
    high: float | None = None


class Drift(BaseModel):
    """How a fact moves in thirty days, and where nine in ten of such slopes lie: in per cent of what was told (`pct`), or in
    the fact's own unit."""

    model_config = ConfigDict(frozen=True)

    a_month: float
    low: float
    high: float
    pct: bool
    says: Words


def drift(points: Sequence[DriftPoint], unit: str) -> Drift | None:
    """Whether a fact moves; None where too few makings, or too short a time, could tell."""
    if len(points) < LEAST:
        return None
    first = min(point.made for point in points)
    days = [(point.made - first).total_seconds() / 86_400 for point in points]
    if max(days) < _LEAST_DAYS:
        return None
    from scipy.stats import theilslopes  # half a second to load: only who asks for it waits

    over = [point.value / point.told for point in points if point.told and point.told > 0 and point.value > 0]
    pct = len(over) == len(points)
    values = [math.log(value) for value in over] if pct else [point.value for point in points]
    slope, _, low, high = (float(theilslope) for theilslope in theilslopes(values, days, _SURE))

    def a_month(per_day: float) -> float:
        by = per_day * _MONTH_DAYS
        return 100.0 * math.expm1(by) if pct else by

    found_drift = Drift(a_month=a_month(slope), low=a_month(low), high=a_month(high), pct=pct, says="")
    return found_drift.model_copy(update={"says": _drift_sentence(found_drift, len(points), unit)})


def _drift_sentence(found_drift: Drift, many: int, unit: str) -> str:
    if found_drift.low <= 0.0 <= found_drift.high or not math.isfinite(found_drift.low + found_drift.high):
        return say("In {many} makings no drift can be told from chance.", many=many)
    way = "more" if found_drift.a_month > 0 else "less"
    of = say("% of what is told") if found_drift.pct else unit
    low, high = sorted((abs(found_drift.low), abs(found_drift.high)))
    by = say("{low} to {high} {of}", low=_value_words(low), high=_value_words(high), of=of).strip()
    return say(
        "It comes out {way} from month to month: by {by} in thirty days, as {many} makings have it.",
        way=way,
        by=by,
        many=many,
    )


def _value_words(value: float) -> str:
    return format_figure(value, ".0f" if value >= 10 else ".1f")

"""Pieces of a batch that are stored: where, until when they keep, and what their label says."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.facts.fact import Fact
from kemble.core.sentences import Words

Where = Literal["counter", "fridge", "freezer"]
# The fact that says how long it keeps in each place, and how many hours one of its units is.
_KEEPS: Mapping[Where, tuple[str, float]] = {
    "counter": ("keep.eat_within_h", 1.0),
    "fridge": ("keep.cold_h", 1.0),
    "freezer": ("keep.frozen_days", 24.0),
}
PLACES: Mapping[Where, str] = {"counter": "covered, on the counter", "fridge": "in the fridge", "freezer": "frozen"}


class StoredPieces(BaseModel):
    """So many pieces put by, and where."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    where: Where = Field(description="counter, fridge or freezer")
    pieces: int = Field(ge=1, le=1000, description="a whole number from 1 to 1000")


class StockLabel(BaseModel):
    """What the label on a box says. `keeps_until` is None where nothing was told of how long it keeps there."""

    model_config = ConfigDict(frozen=True)

    title: str
    pieces: int
    where: str
    made: datetime
    until: datetime | None
    allergens: list[Words]
    freshen: Words
    caution: str = "Sticky and elastic: cut small, moisten, sit and chew; not for infants or anyone who swallows badly."


def keeps_until(where: Where, facts: Mapping[str, Fact], done: datetime) -> datetime | None:
    """Until when a batch that was done then keeps in a place. None where its facts do not say."""
    key, hours = _KEEPS[where]
    fact = facts.get(key)
    if fact is None or not isinstance(fact.value, float) or fact.value <= 0:
        return None
    return done + timedelta(hours=fact.value * hours)


def label(
    title: str, kept: StoredPieces, facts: Mapping[str, Fact], done: datetime, by: datetime | None, allergens: list[str]
) -> StockLabel:
    restore = facts.get("keep.restore")
    return StockLabel(
        title=title,
        pieces=kept.pieces,
        where=PLACES[kept.where],
        made=done,
        until=by,
        allergens=allergens,
        freshen=str(restore.value) if restore else "",
    )

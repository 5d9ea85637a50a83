"""Stored pieces of batches: where they are, until when they keep, and their labels."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.log.stored_pieces import StockLabel, StoredPieces, label
from kemble.server.api.request_body import RequestBody, kitchen_of_request, member_of
from kemble.server.models import Batch, Stock
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.trash import throw_away

router = Router(tags=["stock"])
_NEXT_DAY = (timedelta(hours=14), timedelta(hours=60))
_LATELY = 8  # batches
_STILL_THERE = timedelta(days=5)  # what was made longer ago is eaten, or is none to be eaten any more


class StoredToEat(BaseModel):
    """What should still be there. Of what was put by: its number there, where, how many, until when. Of a batch of which
    nothing was said: until when it keeps in the cold, and out on the counter."""

    batch: int
    title: str
    made: datetime
    stock: int | None = None
    where: str = ""
    pieces: int = 0
    taste_again: bool = False  # made yesterday, and tasted on the day only
    until: datetime | None = None
    out_until: datetime | None = None


class BatchToTaste(BaseModel):
    """A batch to say a word on. `again`: it is the day after, and nobody has yet on this day."""

    batch: int
    title: str
    made: datetime
    tasted: bool
    again: bool


class StockLeft(RequestBody):
    pieces: int = Field(ge=0, le=1000, description="a whole number from 0 to 1000")


@router.get("/to-eat", response={200: list[StoredToEat]})
def to_eat(request: HttpRequest) -> list[StoredToEat]:
    """What is put by, and what was made lately and keeps still; what must be eaten first at the head."""
    kitchen, now = kitchen_of_request(request), timezone.now()
    stored_to_eats = [
        StoredToEat(
            batch=row.batch_id,
            title=row.title,
            made=row.made,
            stock=row.pk,
            where=row.where,
            pieces=row.pieces,
            until=row.until,
            taste_again=_wants_again(row.batch, now),
        )
        for row in kitchen.stock.filter(trashed=None, batch__trashed=None).select_related("batch")[:60]
    ]
    recent = kitchen.batches.filter(made__gt=now - _STILL_THERE, rehearsed=False, trashed=None, pieces=None)
    for batch in recent.select_related("run")[:20]:
        facts, done = batch.run.kept.facts, batch.run.finished or batch.made
        hours = [facts[key].value for key in ("keep.cold_h", "keep.eat_within_h") if key in facts]
        if len(hours) < 2 or not all(isinstance(hour, float) for hour in hours):
            continue
        cold, out = (done + timedelta(hours=float(hour)) for hour in hours)
        if cold > now:
            again = _wants_again(batch, now)
            title = batch.title
            stored_to_eats.append(
                StoredToEat(batch=batch.pk, title=title, made=batch.made, until=cold, out_until=out, taste_again=again)
            )
    return sorted(stored_to_eats, key=lambda stored_to_eat: (stored_to_eat.until is None, stored_to_eat.until or now))


def _wants_again(batch: Batch, now: datetime) -> bool:
    """The day after it is asked once more how it is."""
    old = now - batch.made
    if not _NEXT_DAY[0] <= old <= _NEXT_DAY[1]:
        return False
    return not any(tasting.at > batch.made + _NEXT_DAY[0] for tasting in batch.tastings.all())


@router.get("/to-taste", response={200: list[BatchToTaste]})
def to_taste(request: HttpRequest) -> list[BatchToTaste]:
    """The newest batches of any way, for whoever says how they are. `tasted`: who asks has said so."""
    member, now = member_of(request), timezone.now()
    rows = member.kitchen.batches.filter(rehearsed=False, trashed=None).order_by("-made").defer("seen")
    batch_to_tastes = []
    for batch in rows.prefetch_related("tastings")[:_LATELY]:
        mine = any(tasting.who == member.user.get_username() for tasting in batch.tastings.all())
        batch_to_tastes.append(
            BatchToTaste(
                batch=batch.pk, title=batch.title, made=batch.made, tasted=mine, again=_wants_again(batch, now)
            )
        )
    return batch_to_tastes


@router.put("/stock/{int:stock_id}", response={200: list[StoredToEat]})
def change_stock(request: HttpRequest, stock_id: int, stock_left: StockLeft) -> list[StoredToEat]:
    """How many are left. When none are, it is gone; it can be brought back."""
    row = get_object_or_404(Stock, pk=stock_id, kitchen=kitchen_of_request(request))
    if stock_left.pieces == 0:
        throw_away(row, timezone.now())
    else:
        with writing():
            Stock.objects.filter(pk=row.pk).update(pieces=stock_left.pieces)
    return to_eat(request)


@router.get("/stock/{int:stock_id}/label", response={200: StockLabel})
def stock_label(request: HttpRequest, stock_id: int) -> StockLabel:
    row = get_object_or_404(Stock, pk=stock_id, kitchen=kitchen_of_request(request))
    run = row.batch.run
    allergens = result_for(run.kept.sheet, run.kitchen.settings).allergens
    kept = StoredPieces.model_validate({"where": row.where, "pieces": row.pieces})
    return label(row.title, kept, run.kept.facts, row.made, row.until, allergens)

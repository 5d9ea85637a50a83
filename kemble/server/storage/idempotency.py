"""Receipts: a write that carries an id is done once, and answered the second time as the first."""

from __future__ import annotations

from datetime import datetime, timedelta

from kemble.core.facts.problems import refuse
from kemble.core.sentences import say
from kemble.server.models import IdempotencyRecord, KitchenRecord

KEPT_FOR = timedelta(days=60)  # longer than a page stays away without being opened anew


def stored_answer(kitchen: KitchenRecord, uid: str | None, kind: str) -> IdempotencyRecord | None:
    """What was answered to this very write before. Ask inside `writing()`, so that two at once are one.

    Raises Refused for an id that a write of another kind has had.
    """
    record: IdempotencyRecord | None = kitchen.receipts.filter(uid=uid).first() if uid is not None else None
    if record is not None and record.kind != kind:
        refuse("uid", say("has been used for something else"), say("a new one for each write"))
    return record


def store_answer(kitchen: KitchenRecord, uid: str | None, kind: str, number: int, revision: int = 0) -> None:
    """Inside the same `writing()` as the write itself: both are kept, or neither."""
    if uid is not None:
        kitchen.receipts.create(uid=uid, kind=kind, number=number, revision=revision)


def forget_old(now: datetime) -> None:
    IdempotencyRecord.objects.filter(at__lt=now - KEPT_FOR).delete()

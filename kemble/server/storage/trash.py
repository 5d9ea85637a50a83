"""What is thrown away lies aside for thirty days and can be brought back; then it is gone."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db.models import F
from pydantic import ValidationError

from kemble.core.facts.problems import Refused, problems_from
from kemble.core.kitchen.document import LEARNED, Kitchen, Tin
from kemble.core.kitchen.larder import Ingredient
from kemble.core.sentences import say
from kemble.server.models import (
    Batch,
    BlindTasting,
    CuePicture,
    KitchenRecord,
    OccasionRecord,
    RemovedEquipment,
    Run,
    SheetRecord,
    Stock,
    TrashableModel,
)
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import forget_old

KEPT_FOR = timedelta(days=30)


@dataclass(frozen=True)
class _TrashKind:
    model: type[TrashableModel]
    of: Callable[[KitchenRecord], Any]  # every one of a kitchen's, thrown away or not
    title: Callable[[Any], str] = lambda row: row.title


# What a row of its own is kept of. A tin and an ingredient stand in the kitchen's settings, and go to Removed.
_ROWS: dict[str, _TrashKind] = {
    "sheet": _TrashKind(SheetRecord, lambda kitchen: SheetRecord.everything.filter(kitchen=kitchen)),
    "plan": _TrashKind(OccasionRecord, lambda kitchen: OccasionRecord.everything.filter(kitchen=kitchen)),
    "run": _TrashKind(Run, lambda kitchen: Run.everything.filter(kitchen=kitchen).defer("frozen")),
    "batch": _TrashKind(Batch, lambda kitchen: Batch.everything.filter(kitchen=kitchen)),
    "stock": _TrashKind(
        Stock,
        lambda kitchen: Stock.everything.filter(kitchen=kitchen),
        lambda row: say("{title}, put by", title=row.title),
    ),
    "split": _TrashKind(BlindTasting, lambda kitchen: BlindTasting.everything.filter(kitchen=kitchen)),
    "picture": _TrashKind(
        CuePicture,
        lambda kitchen: CuePicture.everything.filter(kitchen=kitchen).defer("webp"),
        lambda row: say("A picture of {title}", title=row.title),
    ),
}
_SETTINGS: dict[str, type[Tin] | type[Ingredient]] = {"tin": Tin, "ingredient": Ingredient}


@dataclass(frozen=True)
class TrashedItem:
    """One thing that was thrown away."""

    kind: str
    id: int
    title: str
    trashed: datetime

    @property
    def until(self) -> datetime:
        return self.trashed + KEPT_FOR


def throw_away(row: TrashableModel, now: datetime) -> None:
    """Throw a row away, and what has lain aside long enough for good."""
    with writing():
        type(row).everything.filter(pk=row.pk, trashed=None).update(trashed=now)
    purge(now)


def keep_removed(kitchen: KitchenRecord, before: Kitchen, after: Kitchen) -> None:
    """Lay aside the tins and ingredients that a save takes out. Call inside `writing()`.

    A tin has no name of its own, so one is taken out only when there are fewer; else it has been changed.
    """
    gone: list[tuple[str, str, Tin | Ingredient]] = []
    if len(after.tins) < len(before.tins):
        left = list(after.tins)
        for tin in before.tins:
            if tin in left:
                left.remove(tin)
            else:
                gone.append(("tin", tin.name or tin.size(after.length_unit), tin))
    ids = {item.id for item in after.ingredients}
    gone += [("ingredient", item.name, item) for item in before.ingredients if item.id not in ids]
    for kind, title, item in gone:
        kitchen.removed.create(kind=kind, title=title[:120], document=item.model_dump(mode="json"))


def trashed_items(kitchen: KitchenRecord, now: datetime) -> list[TrashedItem]:
    """All that can be brought back, the newest first."""
    since = now - KEPT_FOR
    items = [
        TrashedItem(kind, row.pk, rows.title(row), row.trashed)
        for kind, rows in _ROWS.items()
        for row in rows.of(kitchen).filter(trashed__gt=since)
    ]
    items += [
        TrashedItem(row.kind, row.pk, row.title, row.trashed) for row in kitchen.removed.filter(trashed__gt=since)
    ]
    return sorted(items, key=lambda item: item.trashed, reverse=True)


def bring_back(kitchen: KitchenRecord, kind: str, number: int) -> bool:
    """Put one thing back where it was. True when it stands there, brought back now or before; False when it is gone.

    Raises Refused when the kitchen has no room for it any more.
    """
    with writing():
        if kind in _ROWS:
            return bool(_ROWS[kind].of(kitchen).filter(pk=number).update(trashed=None))
        row = kitchen.removed.filter(pk=number, kind=kind).first()
        if row is None or kind not in _SETTINGS:
            return False
        settings = KitchenRecord.objects.get(pk=kitchen.pk).settings
        item = _SETTINGS[kind].model_validate(row.document)
        if isinstance(item, Tin):
            settings = settings.model_copy(update={"tins": (*settings.tins, item)})
        elif all(ingredient.id != item.id for ingredient in settings.ingredients):
            settings = settings.model_copy(update={"ingredients": (*settings.ingredients, item)})
        document = settings.model_dump(mode="json", exclude=LEARNED)
        try:
            Kitchen.model_validate(document)
        except ValidationError as error:  # forty tins have come to stand there meanwhile
            raise Refused(problems_from(error, Kitchen)) from None
        KitchenRecord.objects.filter(pk=kitchen.pk).update(document=document, revision=F("revision") + 1)
        row.delete()
    return True


def purge(now: datetime) -> None:
    """Forget for good what has lain aside for thirty days."""
    since = now - KEPT_FOR
    with writing():
        for kind in _ROWS.values():
            kind.model.everything.filter(trashed__lt=since).delete()
        RemovedEquipment.objects.filter(trashed__lt=since).delete()
        forget_old(now)

"""Sheets: opened, worked, adjusted, saved. Nothing typed is lost: a save out of turn is refused, never merged."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status

from kemble.core.adjust import adjust
from kemble.core.chain import Worked, work
from kemble.core.facts import ripple
from kemble.core.kitchen import Kitchen as CoreKitchen
from kemble.core.problems import Problem, Refused
from kemble.core.sharing import share_part, unshare_part
from kemble.core.sheet import Sheet, blank_sheet, default_sheet
from kemble.core.shopping import ShoppingList, shopping
from kemble.core.sides import Sides, sides
from kemble.kitchen.api.bodies import AdjustSheet, AskSides, GoShopping, NewSheet, SaveSheet, SharePart, WorkSheet
from kemble.kitchen.api.kitchen import asking
from kemble.kitchen.api.refusal import REFUSALS, Conflict, answer, refusal
from kemble.kitchen.api.views import Dot, Rippled, SheetCard, SheetOpen
from kemble.kitchen.models import Batch, Kitchen, SheetRecord, SheetRevision

router = Router(tags=["sheets"])

# The numbers shown on a sheet's card, in order, where they apply.
_CARD_NUMBERS = (
    ("mix.hydration_pct", "% water"),
    ("shape.pieces", "pieces"),
    ("shape.depth_mm", "mm deep"),
    ("heat.done_min", "min"),
)


@lru_cache(maxsize=256)
def _cached(sheet_json: str, kitchen_json: str) -> Worked:
    return work(Sheet.model_validate_json(sheet_json), CoreKitchen.model_validate_json(kitchen_json))


def worked_for(sheet: Sheet, kitchen: CoreKitchen) -> Worked:
    """work(), remembered: it is pure, and the sheet before an edit was just worked."""
    return _cached(sheet.model_dump_json(), kitchen.model_dump_json())


def _dots(kitchen: Kitchen, way: str) -> list[Dot]:
    batches = Batch.objects.filter(run__kitchen=kitchen, run__pace=1, run__document__way=way).select_related("run")
    return [
        Dot.model_validate(
            {
                "id": batch.pk,
                "title": batch.run.title,
                "hydration_pct": batch.hydration_pct,
                "sugar_pct": batch.sugar_pct,
                "verdict": batch.verdict,
                "made": batch.run.began,
            }
        )
        for batch in batches.order_by("-run__began")[:60]
    ]


def _opened(record: SheetRecord) -> HttpResponse:
    sheet = record.sheet
    body = SheetOpen.model_construct(
        id=record.pk,
        revision=record.revision,
        changed=record.changed,
        sheet=sheet,
        worked=worked_for(sheet, record.kitchen.settings),
        dots=_dots(record.kitchen, record.way),
    )
    return answer(body)


@router.get("/sheets", response={200: list[SheetCard], **REFUSALS})
def sheets(request: HttpRequest) -> list[SheetCard]:
    kitchen = asking(request)
    settings = kitchen.settings
    cards = []
    for record in kitchen.sheets.all():
        facts = worked_for(record.sheet, settings).facts
        numbers = [f"{facts[key].shown} {words}" for key, words in _CARD_NUMBERS if key in facts]
        cards.append(
            SheetCard(id=record.pk, title=record.title, way=record.way, changed=record.changed, numbers=numbers)
        )
    return cards


@router.post("/sheets", response={200: SheetOpen, **REFUSALS})
def new_sheet(request: HttpRequest, new_sheet: NewSheet) -> HttpResponse:
    """A way's own starting sheet, a blank one, or a copy of a whole one."""
    if new_sheet.sheet is not None:
        sheet = new_sheet.sheet
    elif new_sheet.way is not None:
        sheet = blank_sheet(new_sheet.way) if new_sheet.blank else default_sheet(new_sheet.way)
    else:
        raise Refused([Problem(path="way", says="is missing", accepts="a way, or a whole sheet")])
    return _opened(create_sheet(asking(request), sheet))


@transaction.atomic
def create_sheet(kitchen: Kitchen, sheet: Sheet) -> SheetRecord:
    document = sheet.model_dump(mode="json")
    record = SheetRecord.objects.create(kitchen=kitchen, title=sheet.title, way=sheet.way, document=document)
    SheetRevision.objects.create(record=record, number=1, document=document)
    return record


@router.get("/sheets/{int:sheet_id}", response={200: SheetOpen, **REFUSALS})
def open_sheet(request: HttpRequest, sheet_id: int) -> HttpResponse:
    return _opened(get_object_or_404(asking(request).sheets, pk=sheet_id))


@router.put("/sheets/{int:sheet_id}", response={200: SheetOpen, **REFUSALS})
def save_sheet(request: HttpRequest, sheet_id: int, save: SaveSheet) -> HttpResponse:
    """Save over the revision that was edited. 409 when somebody saved in between: nothing is overwritten.

    A sheet that cannot be worked out (a tin smaller than its batter) is saved all the same, and says why.
    """
    kitchen = asking(request)
    record = get_object_or_404(kitchen.sheets, pk=sheet_id)
    document: dict[str, Any] = save.sheet.model_dump(mode="json")
    with transaction.atomic():
        hit = kitchen.sheets.filter(pk=sheet_id, revision=save.revision).update(
            title=save.sheet.title,
            way=save.sheet.way,
            document=document,
            revision=save.revision + 1,
            changed=timezone.now(),
        )
        if not hit:
            raise Conflict(f"{save.revision} is not the newest: this sheet was saved elsewhere")
        SheetRevision.objects.create(record=record, number=save.revision + 1, document=document)
    record.refresh_from_db()
    return _opened(record)


@router.delete("/sheets/{int:sheet_id}", response={204: None, **REFUSALS})
def delete_sheet(request: HttpRequest, sheet_id: int) -> Status[None]:
    """Remove a sheet with its plans. Runs and batches keep their own copy of it."""
    get_object_or_404(asking(request).sheets, pk=sheet_id).delete()
    return Status(204, None)


@router.post("/work", response={200: Rippled, **REFUSALS})
def work_sheet(request: HttpRequest, wanted: WorkSheet) -> HttpResponse:
    """Work a sheet without saving it. 422 with whatever could be worked out when something cannot."""
    return _rippled(wanted.sheet, wanted.before, asking(request).settings)


@router.post("/sides", response={200: Sides, **REFUSALS})
def both_sides(request: HttpRequest, asking_sides: AskSides) -> HttpResponse:
    """The sheet under every school of a question, side by side. Saves nothing."""
    return answer(sides(asking_sides.sheet, asking(request).settings, asking_sides.question))


@router.post("/adjust", response={200: Rippled, **REFUSALS})
def adjust_sheet(request: HttpRequest, adjustment: AdjustSheet) -> HttpResponse:
    """Fix one thing and let the rest follow, without saving."""
    before = adjustment.before or adjustment.sheet
    settings = asking(request).settings
    adjusted = adjust(adjustment.sheet, adjustment.to, settings)
    return _rippled(adjusted.sheet, before, settings, adjusted.says)


@router.post("/sheets/{int:sheet_id}/share", response={200: SheetOpen, **REFUSALS})
def share(request: HttpRequest, sheet_id: int, sharing: SharePart) -> HttpResponse:
    """Make a part of this sheet for another one too. Both are saved, or neither."""
    kitchen = asking(request)
    giver, taker = _pair(kitchen, sheet_id, sharing.with_sheet)
    _save_both((giver, taker), share_part(giver.sheet, taker.sheet, sharing.role, kitchen.settings))
    return _opened(giver)


@router.post("/sheets/{int:sheet_id}/unshare", response={200: SheetOpen, **REFUSALS})
def unshare(request: HttpRequest, sheet_id: int, sharing: SharePart) -> HttpResponse:
    """Let each sheet make its own again. Both are saved, or neither."""
    giver, taker = _pair(asking(request), sheet_id, sharing.with_sheet)
    _save_both((giver, taker), unshare_part(giver.sheet, taker.sheet, sharing.role))
    return _opened(giver)


def _pair(kitchen: Kitchen, giver: int, taker: int) -> tuple[SheetRecord, SheetRecord]:
    if giver == taker:
        raise Refused([Problem(path="with_sheet", says="is the same sheet", accepts="another sheet")])
    return get_object_or_404(kitchen.sheets, pk=giver), get_object_or_404(kitchen.sheets, pk=taker)


@transaction.atomic
def _save_both(records: tuple[SheetRecord, SheetRecord], sheets: tuple[Sheet, Sheet]) -> None:
    for record, sheet in zip(records, sheets, strict=True):
        record.document = sheet.model_dump(mode="json")
        record.revision += 1
        record.changed = timezone.now()
        record.save()
        SheetRevision.objects.create(record=record, number=record.revision, document=record.document)


@router.post("/shopping", response={200: ShoppingList, **REFUSALS})
def shopping_list(request: HttpRequest, going: GoShopping) -> HttpResponse:
    """What the sheets need together, in packs, less what is in the larder."""
    kitchen = asking(request)
    records = {record.pk: record for record in kitchen.sheets.filter(pk__in=[one.sheet for one in going.wanted])}
    missing = [one.sheet for one in going.wanted if one.sheet not in records]
    if missing:
        raise Http404("no such sheet")
    sheets = [records[one.sheet].sheet for one in going.wanted for _ in range(one.times)]
    return answer(shopping(sheets, kitchen.settings))


def _rippled(sheet: Sheet, before: Sheet | None, kitchen: CoreKitchen, says: Sequence[str] = ()) -> HttpResponse:
    worked = worked_for(sheet, kitchen)
    if worked.problems:
        return refusal(worked.problems, 422, worked)
    moved = ripple(worked_for(before, kitchen).facts, worked.facts) if before else []
    return answer(Rippled.model_construct(sheet=sheet, worked=worked, moved=moved, says=list(says)))

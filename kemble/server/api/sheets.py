"""Sheets: opened, worked, adjusted, saved. Nothing typed is lost: a save out of turn is refused, never merged."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import datetime
from typing import Annotated, Literal

from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.long_steps import LongStep, long_steps
from kemble.core.change.school_comparison import SchoolsCompared, compare_schools
from kemble.core.change.shared_parts import share_part, unshare_part
from kemble.core.facts.fact import FactChange, ripple
from kemble.core.facts.problems import refuse
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PART_ID, PartId
from kemble.core.formats.method_text import MethodFinding
from kemble.core.formats.recipe_reader import laid_on
from kemble.core.kitchen.document import Kitchen
from kemble.core.log.fault_evidence import ExplainedFault, likeliest
from kemble.core.log.predictions import Verdict
from kemble.core.run.actual_batch import with_added
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import Sheet, blank_sheet, default_sheet
from kemble.core.stations.shape.hand_drawings import HandsDrawing, hands_of
from kemble.core.stations.work_sheet import WorkResult
from kemble.server.api.error_responses import ConflictRefusal, GoneRefusal, model_response, refusal
from kemble.server.api.paging import PageQuery
from kemble.server.api.request_body import MOST_NUMBER, RequestBody, WriteBody, kitchen_of_request, number_of
from kemble.server.models import Batch, KitchenRecord, SheetRecord, SheetRevision
from kemble.server.runs.records import create_sheet
from kemble.server.runs.runs_together import added_of
from kemble.server.sheets.work_results import result_for, with_fresh_cards
from kemble.server.storage.fair_lock import WORKING, writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import throw_away

router = Router(tags=["sheets"])
_MOST_DOTS = 60


class NewSheet(WriteBody):
    """From a way's own starting sheet (or, `blank`, from its flour or grain alone), or from a whole sheet (a copy)."""

    way: str | None = Field(None, max_length=40, description="a way")
    blank: bool = False
    sheet: Sheet | None = None
    says: list[MethodFinding] | None = Field(None, max_length=400, description="what a method says, laid on the sheet")


class SaveSheet(WriteBody):
    revision: int = Field(ge=1, le=MOST_NUMBER, description="the revision that was edited")
    sheet: Sheet


class WorkSheet(RequestBody):
    """A sheet to work, and optionally the one before it, to say what moved."""

    sheet: Sheet
    before: Sheet | None = None


class AdjustSheet(RequestBody):
    """What moved is told against `before`, or against the sheet itself."""

    sheet: Sheet
    to: Adjustment
    before: Sheet | None = None


class SharePart(WriteBody):
    """A part of the sheet, and the sheet it is made for too."""

    role: PartId = Field(pattern=PART_ID, description="a part of the sheet")
    with_sheet: int = number_of("another sheet")


class AskSides(RequestBody):
    """A sheet, and a question on which its way's cooks differ."""

    sheet: Sheet
    question: str = Field(max_length=40, description="a question of the way")


class CardNumber(BaseModel):
    """A key number of a sheet, as the fact of that key has it."""

    key: str
    value: float | str
    unit: str
    decimals: int


class CardSection(BaseModel):
    """What is made, from the side, in mm: a tin's width and depth, or a piece's width and its filling's."""

    kind: Literal["tin", "piece"]
    wide_mm: float
    high_mm: float
    core_mm: float


class SheetCard(BaseModel):
    """A sheet in a list. `problem`: why it cannot be worked out; then some of its numbers may be missing. `pending`: they
    are not worked out yet, and are when the list is asked for again."""

    id: int
    title: str
    way: str
    changed: datetime
    numbers: list[CardNumber]
    problem: str
    section: CardSection | None
    pending: bool = False


class SheetPage(BaseModel):
    """Some sheets of all that were sought, the newest first. Pages count from 1."""

    sheets: list[SheetCard]
    page: int
    pages: int
    total: int


class MapDot(BaseModel):
    """An earlier batch on the map."""

    id: int
    title: str
    hydration_pct: float
    sugar_pct: float
    verdict: Verdict
    made: datetime


class SheetOpen(BaseModel):
    id: int
    revision: int
    changed: datetime
    sheet: Sheet
    worked: WorkResult
    dots: list[MapDot]


class SavedSheet(BaseModel):
    """What a save has become: all that its sender does not know already."""

    revision: int


class RecalculatedSheet(BaseModel):
    """A sheet worked, and what moved since the one before."""

    sheet: Sheet
    worked: WorkResult
    moved: list[FactChange]
    says: list[Words]


def dots_of(kitchen: KitchenRecord, way: str) -> list[MapDot]:
    """The newest batches of a way, for its map. Rehearsals are none."""
    batches = Batch.objects.filter(kitchen=kitchen, way=way, rehearsed=False)
    return [
        unchecked_model(
            MapDot,
            id=batch.pk,
            title=batch.title,
            hydration_pct=batch.hydration_pct,
            sugar_pct=batch.sugar_pct,
            verdict=batch.verdict,
            made=batch.made,
        )
        for batch in batches[:_MOST_DOTS]
    ]


def sheet_of(kitchen: KitchenRecord, number: int) -> SheetRecord:
    """A sheet of the kitchen's. Raises Gone when it was thrown away, Http404 when there is none."""
    record: SheetRecord = get_object_or_404(SheetRecord.everything, kitchen=kitchen, pk=number)
    if record.trashed:
        raise GoneRefusal(f"“{record.title}” was thrown away on {record.trashed:%-d %B}")
    return record


def _sheet_response(record: SheetRecord) -> HttpResponse:
    sheet = record.sheet
    body = unchecked_model(
        SheetOpen,
        id=record.pk,
        revision=record.revision,
        changed=record.changed,
        sheet=sheet,
        worked=result_for(sheet, record.kitchen.settings),
        dots=dots_of(record.kitchen, sheet.way),
    )
    return model_response(body)


_WORKED_AT_ONCE = 16  # cards, so that a list is there within a second after the code or the kitchen changed
Order = Literal["changed", "title", "way"]
_ORDERS: dict[Order, tuple[str, ...]] = {
    "changed": ("-changed", "-id"),
    "title": ("title", "id"),
    "way": ("way", "title", "id"),
}


@router.get("/sheets", response={200: SheetPage})
def sheets(
    request: HttpRequest, paged: Annotated[PageQuery, Query()], find: str = "", by: Order = "changed"
) -> SheetPage:
    """The sheets, or those whose title or way says what is sought: the newest first, or by title, or by way."""
    kitchen = kitchen_of_request(request)
    sheet_record = kitchen.sheets.order_by(*_ORDERS[by])
    sought = find.strip()[:100]
    if sought:
        ways = [way.id for way in WAYS.values() if any(sought.lower() in name.lower() for name in (way.name, *way.kin))]
        sheet_record = sheet_record.filter(Q(title__icontains=sought) | Q(way__in=ways))
    rows, page, pages, total = paged.of(sheet_record)
    cards = [
        SheetCard(
            id=record.pk,
            title=record.title,
            way=record.way,
            changed=record.changed,
            numbers=record.card.get("numbers", []),
            problem=record.card.get("problem", ""),
            section=record.card.get("section"),
            pending=not record.card,
        )
        for record in with_fresh_cards(rows, kitchen.settings, _WORKED_AT_ONCE)
    ]
    return SheetPage(sheets=cards, page=page, pages=pages, total=total)


@router.post("/sheets", response={200: SheetOpen})
def new_sheet(request: HttpRequest, new_sheet: NewSheet) -> HttpResponse:
    """A way's own starting sheet, a blank one, or a copy of a whole one."""
    if new_sheet.sheet is not None:
        sheet = new_sheet.sheet
    elif new_sheet.way is not None:
        sheet = blank_sheet(new_sheet.way) if new_sheet.blank else default_sheet(new_sheet.way)
    else:
        refuse("way", say("is missing"), say("a way, or a whole sheet"))
    if new_sheet.says:
        sheet = laid_on(sheet, new_sheet.says)
    return _sheet_response(create_sheet(kitchen_of_request(request), sheet, new_sheet.uid))


@router.get("/sheets/{int:sheet_id}", response={200: SheetOpen})
def open_sheet(request: HttpRequest, sheet_id: int) -> HttpResponse:
    return _sheet_response(sheet_of(kitchen_of_request(request), sheet_id))


@router.put("/sheets/{int:sheet_id}", response={200: SavedSheet})
def save_sheet(request: HttpRequest, sheet_id: int, save: SaveSheet) -> SavedSheet:
    """Save over the revision that was edited. 409 when somebody saved in between: nothing is overwritten.

    A sheet that cannot be worked out (a tin smaller than its batter) is saved all the same, and says why.
    """
    kitchen = kitchen_of_request(request)
    record = sheet_of(kitchen, sheet_id)
    with writing():
        sent = stored_answer(kitchen, save.uid, "save")
        if sent:
            revision = SheetRevision.objects.get(record_id=sent.number, number=sent.revision)
        else:
            revision = save_over(record, save.revision, save.sheet)
            store_answer(kitchen, save.uid, "save", record.pk, revision.number)
    return SavedSheet(revision=revision.number)


def save_over(record: SheetRecord, over: int, sheet: Sheet) -> SheetRevision:
    """Inside `writing()`. Raises Conflict when `over` is not the newest revision."""
    document = sheet.model_dump(mode="json")
    hit = SheetRecord.objects.filter(pk=record.pk, revision=over).update(
        title=sheet.title,
        way=sheet.way,
        document=document,
        revision=over + 1,
        changed=timezone.now(),
    )
    if not hit:
        raise ConflictRefusal(f"{over} is not the newest: this sheet was saved elsewhere")
    return SheetRevision.objects.create(record=record, number=over + 1, document=document)


@router.get("/sheets/{int:sheet_id}/hands", response={200: HandsDrawing})
def hands_on_paper(request: HttpRequest, sheet_id: int) -> HandsDrawing:
    """The moves of the hands at the steps of a sheet, drawn for its own piece, to be printed."""
    kitchen = kitchen_of_request(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    return hands_of(sheet, result_for(sheet, kitchen.settings))


@router.get("/sheets/{int:sheet_id}/risks", response={200: list[ExplainedFault]})
def risks(request: HttpRequest, sheet_id: int) -> list[ExplainedFault]:
    """What is likeliest to go wrong with a sheet by its own numbers, before it is made."""
    kitchen = kitchen_of_request(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    return likeliest(
        faults_of(WAYS[sheet.way], [part.role for part in sheet.parts]), result_for(sheet, kitchen.settings).facts
    )


class SheetAsMade(WriteBody):
    run: int = number_of("a run")


@router.post("/sheets/{int:sheet_id}/as-made", response={200: SavedSheet})
def as_made(request: HttpRequest, sheet_id: int, as_made: SheetAsMade) -> SavedSheet:
    """What was put in beside what the sheet said, in a run of it, as the sheet's next revision."""
    kitchen = kitchen_of_request(request)
    record = sheet_of(kitchen, sheet_id)
    run = get_object_or_404(kitchen.runs, pk=as_made.run, sheet=record)
    added = added_of(run)
    if not added:
        refuse("run", say("had nothing added to it"), say("a run in which something was put in"))
    with writing():
        sent = stored_answer(kitchen, as_made.uid, "save")
        if sent:
            return SavedSheet(revision=sent.revision)
        revision = save_over(record, record.revision, with_added(record.sheet, added))
        store_answer(kitchen, as_made.uid, "save", record.pk, revision.number)
    return SavedSheet(revision=revision.number)


@router.delete("/sheets/{int:sheet_id}", response={204: None})
def delete_sheet(request: HttpRequest, sheet_id: int) -> Status[None]:
    """Throw a sheet away, its plans with it. It can be brought back; runs and batches keep their own copy of it."""
    throw_away(
        get_object_or_404(SheetRecord.everything, kitchen=kitchen_of_request(request), pk=sheet_id), timezone.now()
    )
    return Status(204, None)


@router.post("/work", response={200: RecalculatedSheet})
def work_sheet(request: HttpRequest, wanted: WorkSheet) -> HttpResponse:
    """Work a sheet without saving it. 422 with whatever could be worked out when something cannot."""
    return _rippled(wanted.sheet, wanted.before, kitchen_of_request(request).settings)


@router.post("/sides", response={200: SchoolsCompared})
def both_sides(request: HttpRequest, asking_sides: AskSides) -> HttpResponse:
    """The sheet under every school of a question, side by side. Saves nothing."""
    settings = kitchen_of_request(request).settings
    with WORKING:
        schools_compared = compare_schools(asking_sides.sheet, settings, asking_sides.question)
    return model_response(schools_compared)


class AskSheet(RequestBody):
    """A sheet to be looked at, and not saved."""

    sheet: Sheet


@router.post("/long-steps", response={200: list[LongStep]})
def find_long_steps(request: HttpRequest, asking: AskSheet) -> list[LongStep]:
    """Steps that cost hours by a choice, and what other choice would begin how much later. Saves nothing."""
    settings = kitchen_of_request(request).settings
    with WORKING:
        return long_steps(asking.sheet, settings)


@router.post("/adjust", response={200: RecalculatedSheet})
def adjust_sheet(request: HttpRequest, adjustment: AdjustSheet) -> HttpResponse:
    """Fix one thing and let the rest follow, without saving."""
    before = adjustment.before or adjustment.sheet
    settings = kitchen_of_request(request).settings
    with WORKING:
        adjusted = adjust(adjustment.sheet, adjustment.to, settings)
    return _rippled(adjusted.sheet, before, settings, adjusted.says)


@router.post("/sheets/{int:sheet_id}/share", response={200: SheetOpen})
def share(request: HttpRequest, sheet_id: int, sharing: SharePart) -> HttpResponse:
    """Make a part of this sheet for another one too. Both are saved, or neither."""
    settings = kitchen_of_request(request).settings
    return _change_two_sheets(
        request, sheet_id, sharing, lambda giver, taker: share_part(giver, taker, sharing.role, settings)
    )


@router.post("/sheets/{int:sheet_id}/unshare", response={200: SheetOpen})
def unshare(request: HttpRequest, sheet_id: int, sharing: SharePart) -> HttpResponse:
    """Let each sheet make its own again. Both are saved, or neither."""
    return _change_two_sheets(request, sheet_id, sharing, lambda giver, taker: unshare_part(giver, taker, sharing.role))


def _change_two_sheets(
    request: HttpRequest, sheet_id: int, sharing: SharePart, change: Callable[[Sheet, Sheet], tuple[Sheet, Sheet]]
) -> HttpResponse:
    """Change two sheets together. Raises Conflict when one of them was saved elsewhere meanwhile."""
    kitchen = kitchen_of_request(request)
    if sheet_id == sharing.with_sheet:
        refuse("with_sheet", say("is the same sheet"), say("another sheet"))
    giver, taker = sheet_of(kitchen, sheet_id), sheet_of(kitchen, sharing.with_sheet)
    if stored_answer(kitchen, sharing.uid, "share") is None:
        changed = change(giver.sheet, taker.sheet)
        with writing():
            if stored_answer(kitchen, sharing.uid, "share") is None:
                for record, sheet in zip((giver, taker), changed, strict=True):
                    save_over(record, record.revision, sheet)
                store_answer(kitchen, sharing.uid, "share", giver.pk)
    return _sheet_response(sheet_of(kitchen, sheet_id))


def _rippled(sheet: Sheet, before: Sheet | None, kitchen: Kitchen, says: Sequence[str] = ()) -> HttpResponse:
    worked = result_for(sheet, kitchen)
    if worked.problems:
        return refusal(worked.problems, 422, worked)
    moved = ripple(result_for(before, kitchen).facts, worked.facts) if before else []
    return model_response(unchecked_model(RecalculatedSheet, sheet=sheet, worked=worked, moved=moved, says=list(says)))

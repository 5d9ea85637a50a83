"""Revisions: every one of a sheet that was kept, what changed, what was made from it; and several things side by side."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Query, Router
from pydantic import BaseModel, Field

from kemble.core.change.differences import differences
from kemble.core.facts.fact import Fact, ripple
from kemble.core.facts.problems import Refused, refuse
from kemble.core.kitchen.shelf import Shelf
from kemble.core.log.predictions import Verdict
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import Sheet
from kemble.server.api.paging import PageQuery
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.api.sheets import CardSection, sheet_of
from kemble.server.models import Batch, KitchenRecord, SheetRevision
from kemble.server.runs.runs_together import facts_now
from kemble.server.sheets.work_results import result_for, section_of
from kemble.server.storage.fair_lock import writing

router = Router(tags=["revisions"])
_MOST_SIDE_BY_SIDE = 4


class BatchFromRevision(BaseModel):
    batch: int
    made: datetime
    verdict: Verdict


class RevisionCard(BaseModel):
    """A revision, what changed since the one before it (nothing of the first), and the batches that were made from it."""

    number: int
    saved: datetime
    name: str
    changed: list[str]
    batches: list[BatchFromRevision]


class RevisionPage(BaseModel):
    """The newest first. `at` is the one that the sheet stands at."""

    title: str
    at: int
    revisions: list[RevisionCard]
    page: int
    pages: int
    total: int


class NameRevision(RequestBody):
    name: str = Field(max_length=60, description="at most 60 letters")


@router.get("/sheets/{int:sheet_id}/revisions", response={200: RevisionPage})
def revisions(
    request: HttpRequest, sheet_id: int, paged: Annotated[PageQuery, Query()], find: str = ""
) -> RevisionPage:
    """Every revision, or those whose name says what is sought."""
    kitchen = kitchen_of_request(request)
    record = sheet_of(kitchen, sheet_id)
    rows = record.revisions.all()
    sought = find.strip()[:60]
    if sought:
        rows = rows.filter(name__icontains=sought)
    shown, page, pages, total = paged.of(rows)
    numbers = {item.number for item in shown}
    before = {
        sheet_revision.number: sheet_revision
        for sheet_revision in record.revisions.filter(number__in=[number - 1 for number in numbers])
    }
    made: dict[int, list[BatchFromRevision]] = {}
    batches = Batch.objects.filter(kitchen=kitchen, rehearsed=False, run__sheet=record, run__revision__in=numbers)
    for batch in batches.select_related("run").defer("run__frozen", "seen"):
        card = BatchFromRevision(batch=batch.pk, made=batch.made, verdict=batch.verdict)
        made.setdefault(batch.run.revision or 0, []).append(card)
    shelf = Shelf(kitchen.settings)
    return RevisionPage(
        title=record.title,
        at=record.revision,
        revisions=[
            RevisionCard(
                number=item.number,
                saved=item.saved,
                name=item.name,
                changed=_changed(before.get(item.number - 1), item, shelf),
                batches=made.get(item.number, []),
            )
            for item in shown
        ],
        page=page,
        pages=pages,
        total=total,
    )


def _changed(before: SheetRevision | None, sheet_revision: SheetRevision, shelf: Shelf) -> list[str]:
    if before is None:
        return []
    try:
        return differences(before.sheet, sheet_revision.sheet, shelf)
    except Refused:  # kept by a version that allowed what this one does not
        return [say("it cannot be read any more")]


def revision_of(kitchen: KitchenRecord, sheet_id: int, number: int) -> SheetRevision:
    sheet_revision: SheetRevision = get_object_or_404(SheetRevision, record=sheet_of(kitchen, sheet_id), number=number)
    return sheet_revision


@router.get("/sheets/{int:sheet_id}/revisions/{int:number}", response={200: Sheet})
def revision(request: HttpRequest, sheet_id: int, number: int) -> Sheet:
    """A sheet as it was. To go back, save it over the newest; to branch off, make a new sheet of it."""
    return revision_of(kitchen_of_request(request), sheet_id, number).sheet


@router.put("/sheets/{int:sheet_id}/revisions/{int:number}", response={200: RevisionPage})
def name_revision(request: HttpRequest, sheet_id: int, number: int, name_revision: NameRevision) -> RevisionPage:
    row = revision_of(kitchen_of_request(request), sheet_id, number)
    with writing():
        SheetRevision.objects.filter(pk=row.pk).update(name=name_revision.name.strip())
    return revisions(request, sheet_id, PageQuery())


class ComparedColumn(BaseModel):
    """One batch or one sheet."""

    kind: Literal["batch", "sheet"]
    id: int
    title: str
    made: datetime | None
    verdict: str
    way: str
    section: CardSection | None  # what is made, from the side


class ComparedRow(BaseModel):
    """One fact in which they differ, as it is shown in each; None where one has it not."""

    key: str
    label: Words
    unit: str
    values: list[str | None]
    numbers: list[float | None]


class SideBySide(BaseModel):
    """Two to four batches or sheets: only what differs, in facts, and of each against the first in words."""

    columns: list[ComparedColumn]
    rows: list[ComparedRow]
    differs: list[list[str]]


@router.get("/compare", response={200: SideBySide})
def compare(request: HttpRequest, batches: str = "", sheets: str = "") -> SideBySide:
    """Several side by side, by their numbers with commas between."""
    kitchen = kitchen_of_request(request)
    chosen = [
        *_batches(kitchen, _parse_numbers("batches", batches)),
        *_sheets(kitchen, _parse_numbers("sheets", sheets)),
    ]
    if not 2 <= len(chosen) <= _MOST_SIDE_BY_SIDE:
        refuse(
            "batches",
            say("are {chosen} together", chosen=len(chosen)),
            say("two to {most_side_by_side} batches or sheets", most_side_by_side=_MOST_SIDE_BY_SIDE),
        )
    facts = [facts_by_name for _, facts_by_name, _ in chosen]
    keys = dict.fromkeys(moved.key for other in facts[1:] for moved in ripple(facts[0], other))
    rows = [_compared_row(key, facts) for key in keys]
    rows = [row for row in rows if len(set(row.values)) > 1]
    shelf, first = Shelf(kitchen.settings), chosen[0][2]
    return SideBySide(
        columns=[column for column, _, _ in chosen],
        rows=rows,
        differs=[[] if i == 0 else differences(first, sheet, shelf) for i, (_, _, sheet) in enumerate(chosen)],
    )


_Chosen = tuple[ComparedColumn, dict[str, Fact], Sheet]


def _parse_numbers(path: str, text: str) -> list[int]:
    parts = [part for part in text[:100].split(",") if part.strip()]
    if not all(part.strip().isdecimal() and len(part.strip()) < 16 for part in parts):
        refuse(path, say('"{text_}" are not numbers', text_=text[:40]), say("numbers with commas between"))
    return [int(part) for part in parts]


def _batches(kitchen: KitchenRecord, numbers: list[int]) -> list[_Chosen]:
    result = []
    for number in numbers:
        batch = get_object_or_404(Batch, pk=number, kitchen=kitchen)
        column = ComparedColumn(
            kind="batch",
            id=batch.pk,
            title=batch.title,
            made=batch.made,
            verdict=batch.verdict,
            way=batch.way,
            section=_section(batch.run.kept.sheet, kitchen),
        )
        result.append((column, facts_now(batch.run), batch.run.kept.sheet))
    return result


def _sheets(kitchen: KitchenRecord, numbers: list[int]) -> list[_Chosen]:
    result = []
    for number in numbers:
        record = sheet_of(kitchen, number)
        column = ComparedColumn(
            kind="sheet",
            id=record.pk,
            title=record.title,
            made=None,
            verdict="",
            way=record.way,
            section=_section(record.sheet, kitchen),
        )
        result.append((column, result_for(record.sheet, kitchen.settings).facts, record.sheet))
    return result


def _section(sheet: Sheet, kitchen: KitchenRecord) -> CardSection | None:
    drawn = section_of(result_for(sheet, kitchen.settings).drawings.shape)
    return CardSection.model_validate(drawn) if drawn else None


def _compared_row(key: str, facts: list[dict[str, Fact]]) -> ComparedRow:
    told = next(facts_by_name[key] for facts_by_name in facts if key in facts_by_name)
    mine = [facts_by_name.get(key) for facts_by_name in facts]
    return ComparedRow(
        key=key,
        label=told.label,
        unit=told.unit,
        values=[fact.shown if fact else None for fact in mine],
        numbers=[fact.value if fact and isinstance(fact.value, float) else None for fact in mine],
    )

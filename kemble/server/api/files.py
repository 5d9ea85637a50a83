"""Out and in: sheets written for others, tables for spreadsheets, and whatever was pasted or dropped."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import partial
from typing import Literal

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.formats.csv_tables import MOST_LETTERS as MOST_TABLE
from kemble.core.formats.csv_tables import csv_text, read_csv
from kemble.core.formats.cutting_patterns import CuttingPattern, template_svg, templates_of
from kemble.core.formats.paper_kinds import PaperId
from kemble.core.formats.recipe_reader import MOST_LETTERS, ParsedRecipe, read_recipe
from kemble.core.formats.recipe_writer import FORMATS, FormatId, written
from kemble.core.sentences import Words, say
from kemble.server.api.error_responses import model_response
from kemble.server.api.request_body import RequestBody, WriteBody, kitchen_of_request
from kemble.server.api.sheets import sheet_of
from kemble.server.exports.tables import TABLES
from kemble.server.imports.past_batches import keep_batches, read_batches
from kemble.server.imports.table_rows import RowRead
from kemble.server.imports.weighings import keep_benches, read_benches, rows_of
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import PRINTING, writing
from kemble.server.storage.idempotency import store_answer, stored_answer

router = Router(tags=["files"])


class OfferedFile(BaseModel):
    """A file that can be had."""

    id: str
    label: Words


class PastedText(RequestBody):
    text: str = Field(max_length=MOST_LETTERS, description=f"at most {MOST_LETTERS:,} letters")


@router.get("/formats", response={200: list[OfferedFile]})
def formats(request: HttpRequest) -> list[OfferedFile]:
    """What a sheet can be written as."""
    kitchen_of_request(request)
    return [OfferedFile(id=name, label=recipe_format.label) for name, recipe_format in FORMATS.items()]


@router.get("/tables", response={200: list[OfferedFile]})
def tables(request: HttpRequest) -> list[OfferedFile]:
    """What of a kitchen can be had as a table."""
    kitchen_of_request(request)
    return [OfferedFile(id=name, label=each_table.label) for name, each_table in TABLES.items()]


@router.get("/tables/{name}.csv", response={200: None})
def table(request: HttpRequest, name: str) -> HttpResponse:
    """A table as a file for spreadsheets; a cell of words is never a formula."""
    kitchen = kitchen_of_request(request)
    result = TABLES.get(name)
    if result is None:
        refuse("name", say('"{name}" is no table', name=name[:40]), ", ".join(TABLES))
    answered = HttpResponse(csv_text(result.head, result.rows(kitchen)), content_type="text/csv; charset=utf-8")
    answered["Content-Disposition"] = f'attachment; filename="{name}.csv"'
    return answered


TableOf = Literal["batches", "weighings"]


class TableUpload(WriteBody):
    """A table as text; `keep`: what will do is kept, else it is only looked at."""

    text: str = Field(max_length=MOST_TABLE, description=f"at most {MOST_TABLE:,} letters")
    keep: bool = False


class ReadRowCard(BaseModel):
    """A row of a table that came in: what it is, or why it is left out; `here`: it is kept already."""

    number: int
    says: Words
    problem: str
    here: bool


class ReadTable(BaseModel):
    """What a table is of, what it holds row by row, and how many batches or benches came in."""

    of: TableOf
    rows: list[ReadRowCard]
    added: int


@router.post("/tables", response={200: ReadTable})
def table_in(request: HttpRequest, table_sent: TableUpload) -> HttpResponse:
    """A table such as those that go out, of batches or of weighings by its head: looked at, or kept."""
    kitchen, now = kitchen_of_request(request), timezone.now()
    sent = stored_answer(kitchen, table_sent.uid, "table")
    rows_in = read_csv(table_sent.text)
    of: TableOf = "weighings" if rows_in and {"at", "grams"} <= rows_in[0].cells.keys() else "batches"
    row_reads: Sequence[RowRead]
    if of == "batches":
        row_reads = batches = read_batches(kitchen, rows_in, now)
        keep = partial(keep_batches, kitchen, batches)
    else:
        benches = read_benches(kitchen, rows_in, now)
        row_reads, keep = rows_of(benches), partial(keep_benches, kitchen, benches)
    added = sent.number if sent else 0
    if table_sent.keep and not sent:
        added = keep()
        with writing():
            store_answer(kitchen, table_sent.uid, "table", added)
    rows = [
        ReadRowCard(number=row_read.number, says=row_read.says, problem=row_read.problem, here=row_read.here)
        for row_read in row_reads
    ]
    return model_response(ReadTable(of=of, rows=rows, added=added))


@router.get("/sheets/{int:sheet_id}/as/{how}", response={200: None})
def sheet_as(request: HttpRequest, sheet_id: int, how: FormatId) -> HttpResponse:
    """A sheet as a file."""
    kitchen = kitchen_of_request(request)
    sheet, recipe_format = sheet_of(kitchen, sheet_id).sheet, FORMATS[how]
    text = written(sheet, result_for(sheet, kitchen.settings), how)
    response = HttpResponse(text, content_type=f"{recipe_format.media_type}; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{_file_name(sheet.title)}{recipe_format.suffix}"'
    return response


@router.get("/sheets/{int:sheet_id}/paper/{what}.pdf", response={200: None})
def on_paper(request: HttpRequest, sheet_id: int, what: PaperId) -> HttpResponse:
    """A sheet on A4 paper: its recipe card, or its templates at full size."""
    from kemble.pdf import paper  # a second to load, and only paper needs it

    kitchen = kitchen_of_request(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    worked = result_for(sheet, kitchen.settings)
    with PRINTING:
        pdf = paper(sheet, worked, what)
    response = HttpResponse(pdf, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{_file_name(sheet.title)}-{what}.pdf"'
    return response


class PatternCard(BaseModel):
    """A pattern that a sheet gives: /api/sheets/{id}/templates/{template}.svg draws it."""

    id: str
    title: Words
    width_mm: float
    height_mm: float


@router.get("/sheets/{int:sheet_id}/templates", response={200: list[PatternCard]})
def templates(request: HttpRequest, sheet_id: int) -> list[PatternCard]:
    """Patterns at full size, to cut and to fold by; none of a way that has none."""
    return [
        PatternCard(id=pattern.id, title=pattern.title, width_mm=pattern.width, height_mm=pattern.height)
        for pattern in _templates(request, sheet_id)
    ]


@router.get("/sheets/{int:sheet_id}/templates/{template}.svg", response={200: None})
def template(request: HttpRequest, sheet_id: int, template: str) -> HttpResponse:
    """One pattern as SVG, its units millimetres, with its dimensions."""
    patterns_by_name = {pattern.id: pattern for pattern in _templates(request, sheet_id)}
    if template not in patterns_by_name:
        refuse(
            "template",
            say('"{template}" is no pattern of this sheet', template=template[:40]),
            ", ".join(patterns_by_name) or say("this sheet has none"),
        )
    answered = HttpResponse(template_svg(patterns_by_name[template]), content_type="image/svg+xml")
    answered["Content-Disposition"] = f'attachment; filename="{template}.svg"'
    return answered


def _templates(request: HttpRequest, sheet_id: int) -> list[CuttingPattern]:
    kitchen = kitchen_of_request(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    return templates_of(sheet, result_for(sheet, kitchen.settings))


def _file_name(title: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-")[:60] or "sheet"


@router.post("/read-recipe", response={200: ParsedRecipe})
def read_pasted(request: HttpRequest, pasted: PastedText) -> HttpResponse:
    """Anything pasted or dropped, line by line as it was understood. Saves nothing."""
    return model_response(read_recipe(pasted.text, kitchen_of_request(request).settings))

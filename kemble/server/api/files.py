"""Out and in: sheets written for others, tables for spreadsheets, and whatever was pasted or dropped."""

from __future__ import annotations

import re

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.formats.paper import PaperId
from kemble.core.formats.recipe import MOST_LETTERS, ReadRecipe, read_recipe
from kemble.core.formats.recipe_out import FORMATS, FormatId, written
from kemble.core.formats.tables import csv_text
from kemble.core.formats.templates import Template, template_svg, templates_of
from kemble.server.api.asked import Body, asking
from kemble.server.api.refusal import answer
from kemble.server.api.sheets import sheet_of
from kemble.server.tables import TABLES
from kemble.server.turns import PRINTING
from kemble.server.worked import worked_for

router = Router(tags=["files"])


class Offered(BaseModel):
    """A file that can be had."""

    id: str
    label: str


class Pasted(Body):
    text: str = Field(max_length=MOST_LETTERS, description=f"at most {MOST_LETTERS:,} letters")


@router.get("/formats", response={200: list[Offered]})
def formats(request: HttpRequest) -> list[Offered]:
    """What a sheet can be written as."""
    asking(request)
    return [Offered(id=name, label=one.label) for name, one in FORMATS.items()]


@router.get("/tables", response={200: list[Offered]})
def tables(request: HttpRequest) -> list[Offered]:
    """What of a kitchen can be had as a table."""
    asking(request)
    return [Offered(id=name, label=one.label) for name, one in TABLES.items()]


@router.get("/tables/{name}.csv", response={200: None})
def table(request: HttpRequest, name: str) -> HttpResponse:
    """A table as a file for spreadsheets; a cell of words is never a formula."""
    kitchen = asking(request)
    found = TABLES.get(name)
    if found is None:
        refuse("name", f'"{name[:40]}" is no table', ", ".join(TABLES))
    answered = HttpResponse(csv_text(found.head, found.rows(kitchen)), content_type="text/csv; charset=utf-8")
    answered["Content-Disposition"] = f'attachment; filename="{name}.csv"'
    return answered


@router.get("/sheets/{int:sheet_id}/as/{how}", response={200: None})
def sheet_as(request: HttpRequest, sheet_id: int, how: FormatId) -> HttpResponse:
    """A sheet as a file."""
    kitchen = asking(request)
    sheet, one = sheet_of(kitchen, sheet_id).sheet, FORMATS[how]
    text = written(sheet, worked_for(sheet, kitchen.settings), how)
    found = HttpResponse(text, content_type=f"{one.media_type}; charset=utf-8")
    found["Content-Disposition"] = f'attachment; filename="{_file_name(sheet.title)}{one.suffix}"'
    return found


@router.get("/sheets/{int:sheet_id}/paper/{what}.pdf", response={200: None})
def on_paper(request: HttpRequest, sheet_id: int, what: PaperId) -> HttpResponse:
    """A sheet on A4 paper: its recipe card, or its templates at full size."""
    from kemble.paper import paper  # a second to load, and only paper needs it

    kitchen = asking(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    worked = worked_for(sheet, kitchen.settings)
    with PRINTING:
        pdf = paper(sheet, worked, what)
    found = HttpResponse(pdf, content_type="application/pdf")
    found["Content-Disposition"] = f'inline; filename="{_file_name(sheet.title)}-{what}.pdf"'
    return found


class TemplateTold(BaseModel):
    """A pattern that a sheet gives: /api/sheets/{id}/templates/{template}.svg draws it."""

    id: str
    title: str
    width_mm: float
    height_mm: float


@router.get("/sheets/{int:sheet_id}/templates", response={200: list[TemplateTold]})
def templates(request: HttpRequest, sheet_id: int) -> list[TemplateTold]:
    """Patterns at full size, to cut and to fold by; none of a way that has none."""
    return [
        TemplateTold(id=one.id, title=one.title, width_mm=one.width, height_mm=one.height)
        for one in _templates(request, sheet_id)
    ]


@router.get("/sheets/{int:sheet_id}/templates/{template}.svg", response={200: None})
def template(request: HttpRequest, sheet_id: int, template: str) -> HttpResponse:
    """One pattern as SVG, its units millimetres, with its dimensions."""
    found = {one.id: one for one in _templates(request, sheet_id)}
    if template not in found:
        refuse("template", f'"{template[:40]}" is no pattern of this sheet', ", ".join(found) or "this sheet has none")
    answered = HttpResponse(template_svg(found[template]), content_type="image/svg+xml")
    answered["Content-Disposition"] = f'attachment; filename="{template}.svg"'
    return answered


def _templates(request: HttpRequest, sheet_id: int) -> list[Template]:
    kitchen = asking(request)
    sheet = sheet_of(kitchen, sheet_id).sheet
    return templates_of(sheet, worked_for(sheet, kitchen.settings))


def _file_name(title: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-")[:60] or "sheet"


@router.post("/read-recipe", response={200: ReadRecipe})
def read_pasted(request: HttpRequest, pasted: Pasted) -> HttpResponse:
    """Anything pasted or dropped, line by line as it was understood. Saves nothing."""
    return answer(read_recipe(pasted.text, asking(request).settings))

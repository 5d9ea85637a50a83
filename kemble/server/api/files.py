"""Sheets out and in: written for others, and read from whatever was pasted or dropped."""

from __future__ import annotations

import re

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.formats.recipe import MOST_LETTERS, ReadRecipe, read_recipe
from kemble.core.formats.recipe_out import FORMATS, FormatId, written
from kemble.server.api.asked import Body, asking
from kemble.server.api.refusal import answer
from kemble.server.api.sheets import sheet_of
from kemble.server.worked import worked_for

router = Router(tags=["files"])


class FormatCard(BaseModel):
    id: FormatId
    label: str


class Pasted(Body):
    text: str = Field(max_length=MOST_LETTERS, description=f"at most {MOST_LETTERS:,} letters")


@router.get("/formats", response={200: list[FormatCard]})
def formats(request: HttpRequest) -> list[FormatCard]:
    """What a sheet can be written as."""
    asking(request)
    return [FormatCard(id=name, label=one.label) for name, one in FORMATS.items()]


@router.get("/sheets/{int:sheet_id}/as/{how}", response={200: None})
def sheet_as(request: HttpRequest, sheet_id: int, how: FormatId) -> HttpResponse:
    """A sheet as a file."""
    kitchen = asking(request)
    sheet, one = sheet_of(kitchen, sheet_id).sheet, FORMATS[how]
    text = written(sheet, worked_for(sheet, kitchen.settings), how)
    found = HttpResponse(text, content_type=f"{one.media_type}; charset=utf-8")
    name = re.sub(r"[^a-z0-9]+", "-", sheet.title.lower()).strip("-")[:60] or "sheet"
    found["Content-Disposition"] = f'attachment; filename="{name}{one.suffix}"'
    return found


@router.post("/read-recipe", response={200: ReadRecipe})
def read_pasted(request: HttpRequest, pasted: Pasted) -> HttpResponse:
    """Anything pasted or dropped, line by line as it was understood. Saves nothing."""
    return answer(read_recipe(pasted.text, asking(request).settings))

"""Writes a sheet for others: JSON-LD by the Recipe vocabulary, Markdown, plain text, and Kemble's own JSON.

Amounts in grams with the nearest household measure beside them. The JSON-LD carries the whole sheet as well, so that
reading it again gives the same sheet; Markdown and text are for people.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any, Literal

from kemble.core.cards.ways import WAYS
from kemble.core.formats.recipe_reader import OWN
from kemble.core.formats.step_text import step_minutes, step_words
from kemble.core.sheet.document import Sheet
from kemble.core.stations.mix.line_results import LineResult
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult

FormatId = Literal["kemble", "recipe", "markdown", "text"]


@dataclass(frozen=True, slots=True)
class RecipeFormat:
    """A way to write a sheet: what it is called, what browsers call it, the end of its file's name, and how."""

    label: str
    media_type: str
    suffix: str
    write: Callable[[Sheet, WorkResult], str]


def _own(sheet: Sheet, _: WorkResult) -> str:
    return json.dumps(sheet.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def _amount_text(line: LineResult) -> str:
    near = f" ({line.household})" if line.household else ""
    grams = f"{line.grams:.0f}" if line.grams >= 10 else f"{line.grams:.1f}"
    return f"{grams} g{near} {line.name}"


def _parts_with_lines(sheet: Sheet, worked: WorkResult) -> Iterator[tuple[str, list[LineResult]]]:
    """Each part's name, and its lines."""
    for p, part in enumerate(sheet.parts):
        lines = [line for line in worked.lines if line.part == p]
        if lines:
            yield part.called, lines


def _step_text(step: StepResult) -> str:
    cue = f" {step.cue.question} {step.cue.how}" if step.cue else ""
    weight = f" {step.target.label}: {step.target.grams:.0f} g." if step.target else ""
    tins = "".join(f" {tin.count} × {tin.size}: {tin.grams:.0f} g each." for tin in step.tins)
    return f"{step.title}: {step_words(step)}{cue}{weight}{tins}".strip()


def _piece_count(worked: WorkResult) -> int | None:
    for key in ("shape.pieces", "cut.pieces"):
        if key in worked.facts:
            return int(worked.facts[key].value)
    return None


def _duration(minutes: float) -> str:
    hours, left = divmod(round(minutes), 60)
    return f"PT{hours}H{left}M" if hours else f"PT{left}M"


def _recipe_json(sheet: Sheet, worked: WorkResult) -> str:
    way = WAYS[sheet.way]
    heat = next((step for step in worked.steps if step.window), None)
    document: dict[str, Any] = {
        "@context": ["https://schema.org", {"kemble": "urn:kemble:"}],
        "@type": "Recipe",
        "name": sheet.title,
        "recipeCategory": way.name,
        "recipeIngredient": [_amount_text(line) for _, lines in _parts_with_lines(sheet, worked) for line in lines],
        "recipeInstructions": [
            {"@type": "HowToStep", "name": step.title, "text": _step_text(step)} for step in worked.steps
        ],
    }
    pieces = _piece_count(worked)
    if pieces:
        document["recipeYield"] = f"{pieces} pieces"
    if heat and heat.window:
        document["cookTime"] = _duration(heat.window.done)
    if worked.allergens:
        document["keywords"] = "contains " + ", ".join(worked.allergens)
    document[OWN] = sheet.model_dump(mode="json")
    return json.dumps(document, indent=2, ensure_ascii=False) + "\n"


@dataclass(frozen=True, slots=True)
class _TextStyle:
    """How a text for people is laid out: its title, a heading, a part's name, and what stands before an ingredient."""

    title: Callable[[str], list[str]]
    head: Callable[[str], str]
    part: Callable[[str], str]
    item: str


_MARKDOWN = _TextStyle(lambda title: [f"# {title}", ""], "## {}".format, "### For the {}".format, "- ")
_PLAIN = _TextStyle(lambda title: [title, "=" * len(title)], "{}".format, "For the {}:".format, "")


def _for_people(hand: _TextStyle, sheet: Sheet, worked: WorkResult) -> str:
    pieces = _piece_count(worked)
    of = f", {pieces} pieces" if pieces else ""
    lines = [*hand.title(sheet.title), f"{WAYS[sheet.way].name}{of}.", "", hand.head("Ingredients"), ""]
    for name, within in _parts_with_lines(sheet, worked):
        lines += [hand.part(name)] if len(sheet.parts) > 1 else []
        lines += [*(f"{hand.item}{_amount_text(line)}" for line in within), ""]
    lines += [hand.head("Method"), ""]
    lines += [f"{i}. {_step_text(step)} ({step_minutes(step)})" for i, step in enumerate(worked.steps, start=1)]
    lines += ["", f"Contains {', '.join(worked.allergens)}."] if worked.allergens else []
    return "\n".join([*lines, ""])


FORMATS: Mapping[FormatId, RecipeFormat] = {
    "kemble": RecipeFormat("our own, to open again", "application/json", ".kemble.json", _own),
    "recipe": RecipeFormat("recipe data for other programs", "application/ld+json", ".recipe.json", _recipe_json),
    "markdown": RecipeFormat("Markdown", "text/markdown", ".md", partial(_for_people, _MARKDOWN)),
    "text": RecipeFormat("plain text", "text/plain", ".txt", partial(_for_people, _PLAIN)),
}


def written(sheet: Sheet, worked: WorkResult, how: FormatId) -> str:
    """The sheet in a format. Of a sheet that cannot be worked only our own and the recipe data carry all of it."""
    return FORMATS[how].write(sheet, worked)

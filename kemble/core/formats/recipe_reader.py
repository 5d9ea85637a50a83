"""A recipe out of anything: our own sheet, the Recipe vocabulary of schema.org as JSON-LD (alone, or in a page's source),
or plain text with its method. Whatever comes is read, nothing of it is run, and what is not understood is shown.
"""

from __future__ import annotations

import html
import json
import re
from collections.abc import Iterator, Mapping, Sequence
from html.parser import HTMLParser
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.ways import WAYS
from kemble.core.computing_guard import computes
from kemble.core.facts.problems import Refused, refuse
from kemble.core.formats.ingredient_text import ParsedIngredientLine, ParsedIngredientList, read_list
from kemble.core.formats.method_text import (
    MethodFinding,
    ParsedMethodLine,
    of_the_way,
    pieces_of,
    read_method,
    way_from,
)
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import say
from kemble.core.sheet.document import FORMAT, VERSION, Sheet, sheet_from
from kemble.core.text_cleaning import readable

MOST_LETTERS = 120_000  # of a page's source; what the page sends is first cut down to its recipe data
_MOST_DEEP = 12
_MOST_LINES = 200
OWN = "kemble:sheet"  # under which a sheet of ours lies in a recipe that we wrote

Source = Literal["sheet", "recipe", "text"]


class ParsedRecipe(BaseModel):
    """What was understood. `sheet` where it is one of ours, whole; else its lines, its method, what both say of a sheet
    (`apply`: paths and values, the later ones of a path first asked about), the way and why, and questions."""

    model_config = ConfigDict(frozen=True)

    source: Source
    title: str
    yields: str = ""
    sheet: Sheet | None = None
    listed: ParsedIngredientList
    method: list[ParsedMethodLine] = []
    way: str | None = None
    because: list[str] = []
    asks: list[str] = []


@computes
def read_recipe(text: str, kitchen: Kitchen) -> ParsedRecipe:
    """Anything that was pasted or dropped. Never raises for its content; a sheet of ours that does not hold is asked about."""
    text = text[:MOST_LETTERS].lstrip("\ufeff")
    result = _own(text) or next(iter(_recipes(text)), None)
    if isinstance(result, dict) and result.get("format") == FORMAT:
        return _sheet(result, kitchen)
    if isinstance(result, dict):
        return _parse_recipe_node(result, kitchen)
    return _parse_plain_text(_page_text(text) if _is_page(text) else text, kitchen)


def _own(text: str) -> dict[str, Any] | None:
    result = _json(text)
    return result if isinstance(result, dict) and result.get("format") == FORMAT else None


def _sheet(document: dict[str, Any], kitchen: Kitchen) -> ParsedRecipe:
    try:
        sheet = sheet_from(document)
    except Refused as refused:
        asks = [problem.sentence for problem in refused.problems]
        return ParsedRecipe(source="sheet", title="", listed=ParsedIngredientList(lines=[], way=None), asks=asks)
    return ParsedRecipe(
        source="sheet",
        title=sheet.title,
        sheet=sheet,
        listed=read_list("", kitchen),
        way=sheet.way,
        because=[say("it says so")],
    )


def laid_on(sheet: Sheet, says: Sequence[MethodFinding]) -> Sheet:
    """The sheet with what a method says of it, the first word on each thing holding; what its way has no place for is left.

    Raises Refused, with the sheet's own path, for a value that no sheet can have (a tin of 20 mm).
    """
    document, done = sheet.model_dump(mode="json"), set()
    for finding in says:
        place = _path_in_sheet(sheet, finding)
        if finding.path in done:
            continue
        done.add(finding.path)
        if finding.path.startswith("method.") and isinstance(finding.value, Mapping):
            step = finding.path.removeprefix("method.")
            others = [entry for entry in document["method"] if entry.get("step") != step]
            document["method"] = [*others, {"step": step, **finding.value}]
        if place is None:
            continue
        *outer, last = place
        at = document
        for name in outer:
            at = at.setdefault(name, {})
        at[last] = finding.value
    return sheet_from(document)


def _path_in_sheet(sheet: Sheet, finding: MethodFinding) -> list[str] | None:
    """Where it goes in a sheet of this way; None where the way has no such thing."""
    way, (first, *rest) = WAYS[sheet.way], finding.path.split(".")
    if first == "pieces":
        return ["cut", "pieces"] if way.form == "tin" else ["pieces", "count"]
    if first == "schools":
        choice = way.choice(rest[0]) if rest else None
        return [first, *rest] if choice and finding.value in [school.id for school in choice.schools] else None
    if (first == "vessel" and way.form != "tin") or (rest[-1:] in (["soak"], ["soak_min"]) and way.base != "grain"):
        return None
    return [first, *rest] if first in _SAID_OF and rest else None


_SAID_OF = ("vessel", "heat", "grain")


def sheet_of(told: ParsedRecipe) -> Sheet:
    """The sheet that was read, where all of it is clear: one part a role, the base first, and its method laid on it.

    Raises Refused for lines that ask for something, and where no way is told.
    """
    if told.sheet is not None:
        return told.sheet
    open_lines = [
        line for line in told.listed.lines if line.kind == "unread" or (line.kind == "line" and not _clear(line))
    ]
    if open_lines:
        first = open_lines[0]
        refuse(
            f'"{first.text}"',
            first.asks.rstrip(".?") or say("is not clear"),
            say("an amount, a unit and an ingredient"),
        )
    lines = [line for line in told.listed.lines if line.kind == "line"]
    if told.way is None or not any(line.role == "base" for line in lines):
        refuse(
            "the recipe",
            say("tells no way of making"),
            say("a list with a sweet rice flour or grain, and its method"),
        )
    roles = dict.fromkeys(["base", *(line.role for line in lines)])
    parts = [
        {
            "role": role,
            "name": "" if role == "base" else role,
            "lines": [
                {"ingredient": line.ingredient, "amount": {"value": line.value, "unit": line.unit}, "state": line.state}
                for line in lines
                if line.role == role
            ],
        }
        for role in roles
    ]
    sheet = sheet_from(
        {"format": FORMAT, "version": VERSION, "title": told.title[:120], "way": told.way, "parts": parts}
    )
    return laid_on(sheet, [finding for line in told.method for finding in line.says])


def _clear(line: ParsedIngredientLine) -> bool:
    return line.ingredient is not None and line.value is not None and line.unit is not None


# --- the Recipe vocabulary ----------------------------------------------------


class _JsonLdParser(HTMLParser):
    """The JSON-LD blocks of a page; nothing else of it is kept."""

    def __init__(self) -> None:
        super().__init__(convert_charrefs=False)
        self.found: list[str] = []
        self._inside = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        kind = (dict(attrs).get("type") or "").split(";")[0].strip().lower()
        self._inside = tag == "script" and kind == "application/ld+json"
        if self._inside:
            self.found.append("")

    def handle_endtag(self, tag: str) -> None:
        self._inside = False

    def handle_data(self, data: str) -> None:
        if self._inside:
            self.found[-1] += data


def _is_page(text: str) -> bool:
    return bool(re.search(r"<(?:html|body|script|div|p|ul|li|h\d)\b", text[:5000], re.IGNORECASE))


def _recipes(text: str) -> Iterator[dict[str, Any]]:
    blocks = [text]
    if _is_page(text):
        parser = _JsonLdParser()
        parser.feed(text)
        blocks = parser.found
    for block in blocks:
        yield from _recipe_nodes(_json(block), 0)


def _json(text: str) -> Any:
    try:
        return readable(json.loads(text))
    except (ValueError, RecursionError):
        return None


def _recipe_nodes(node: Any, deep: int) -> Iterator[dict[str, Any]]:
    """Every Recipe in a JSON-LD document, wherever it lies."""
    if deep > _MOST_DEEP:
        return
    if isinstance(node, list):
        for item in node:
            yield from _recipe_nodes(item, deep + 1)
    elif isinstance(node, dict):
        kinds = node.get("@type")
        if "Recipe" in (kinds if isinstance(kinds, list) else [kinds]):
            yield node
        for key in ("@graph", "mainEntity", "mainEntityOfPage", "itemListElement", "item"):
            if key in node:
                yield from _recipe_nodes(node[key], deep + 1)


def _parse_recipe_node(node: dict[str, Any], kitchen: Kitchen) -> ParsedRecipe:
    own = node.get(OWN)
    if isinstance(own, dict) and own.get("format") == FORMAT:
        return _sheet(own, kitchen)
    lines = _text_lines(node.get("recipeIngredient") or node.get("ingredients"))
    method = _text_lines(node.get("recipeInstructions"))
    return _read_any(
        "recipe",
        title=_first_word(node.get("name")),
        yields=", ".join(dict.fromkeys(_yield_texts(node.get("recipeYield")))),
        lines=lines,
        method=[*method, *_tools(node)],
        minutes=_duration(node.get("cookTime")),
        kitchen=kitchen,
    )


def _text_lines(node: Any, deep: int = 0) -> list[str]:
    """The lines of a text, a list of texts, of steps, or of sections of steps."""
    if deep > _MOST_DEEP or node is None:
        return []
    if isinstance(node, str | int | float):
        return [line for line in map(_clean, re.split(r"[\r\n]+|<br\s*/?>|</(?:p|li)>", str(node))) if line]
    if isinstance(node, list):
        return [text for item in node[:_MOST_LINES] for text in _text_lines(item, deep + 1)]
    if isinstance(node, dict):
        head = f"{_first_word(node.get('name'))}:" if "itemListElement" in node and node.get("name") else ""
        inner = _text_lines(node.get("itemListElement") or node.get("text") or node.get("name"), deep + 1)
        return [*([head] if head else []), *inner]
    return []


def _yield_texts(node: Any) -> list[str]:
    """What it makes: words, a number, or a quantity of so many of a unit."""
    nodes = node if isinstance(node, list) else [node]
    result = []
    for each_node in nodes[:_MOST_DEEP]:
        if isinstance(each_node, dict) and "value" in each_node:
            result.append(
                " ".join(_text_lines([each_node["value"], each_node.get("unitText") or each_node.get("unitCode")]))
            )
        else:
            result += _text_lines(each_node)
    # "20" beside "20 balls" says nothing more.
    return [name for name in result if not any(name != other and other.startswith(f"{name} ") for other in result)]


def _first_word(node: Any) -> str:
    return next(iter(_text_lines(node)), "")[:120]


def _clean(text: str) -> str:
    """Without tags; what was written as an entity is the letter it stands for."""
    return re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]{0,400}>", " ", text))).strip()


def _tools(node: dict[str, Any]) -> list[str]:
    return _text_lines(node.get("tool"))


_DURATION = re.compile(
    r"^P(?:(\d+)D)?(?:T(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:\d+(?:\.\d+)?S)?)?$", re.IGNORECASE
)


def _duration(node: Any) -> float | None:
    """Minutes of a duration such as PT1H30M."""
    match = _DURATION.match(node.strip()) if isinstance(node, str) else None
    if match is None:
        return None
    days, hours, minutes = (float(group or 0) for group in match.groups())
    return 1440 * days + 60 * hours + minutes or None


# --- plain text ---------------------------------------------------------------

_METHOD = re.compile(
    r"^\W*(?:method|instructions?|directions?|steps|preparation|how to make it|to make)\W*$", re.IGNORECASE
)
_LIST = re.compile(r"^\W*(?:ingredients?|you (?:will )?need|what you need)\W*$", re.IGNORECASE)
_YIELD = re.compile(r"^\W*(?:makes?|serves?|yields?|servings?)\b", re.IGNORECASE)
_NUMBERED = re.compile(r"^\s*(?:step\s*)?\d{1,2}\s*[.):]\s+\S", re.IGNORECASE)


def _page_text(page: str) -> str:
    """A page without Recipe markup, as the text that stands on it."""
    page = re.sub(r"(?is)<(script|style|head)\b.*?</\1>", " ", page)
    return "\n".join(_text_lines(re.sub(r"(?i)</(?:h\d|div|tr|td|section|header)>", "</p>", page)))


def _parse_plain_text(text: str, kitchen: Kitchen) -> ParsedRecipe:
    """A title (the first line before a heading that says Ingredients), a list, and what follows a heading that says Method.
    Without such headings all of it is a list, but for lines that are numbered steps."""
    lines = text.splitlines()
    listed = next((i for i, line in enumerate(lines) if _LIST.match(line)), None)
    method_at = next((i for i, line in enumerate(lines) if _METHOD.match(line)), None)
    title = next((_clean(line.lstrip("# ")) for line in lines[:listed] if line.strip()), "") if listed else ""
    begins = 0 if listed is None else listed + 1
    ends = len(lines) if method_at is None else method_at
    head = lines[: listed or 0]
    items = lines[begins:ends] if begins <= ends else lines[begins:]
    method = [] if method_at is None else lines[method_at + 1 : begins - 1 if begins > ends else None]
    steps = [line for line in items if _NUMBERED.match(line) and len(line.split()) > 6]
    items = [line for line in items if line not in steps]
    yields = next((_clean(line) for line in [*head, *items] if _YIELD.match(line)), "")
    items = [line for line in items if _clean(line) != yields]
    return _read_any(
        "text", title=title, yields=yields, lines=items, method=[*steps, *method], minutes=None, kitchen=kitchen
    )


# --- what both say ------------------------------------------------------------


def _read_any(
    source: Source,
    *,
    title: str,
    yields: str,
    lines: Sequence[str],
    method: Sequence[str],
    minutes: float | None,
    kitchen: Kitchen,
) -> ParsedRecipe:
    listed = read_list("\n".join(lines[:_MOST_LINES]), kitchen)
    told = read_method(method[:_MOST_LINES])
    if minutes is not None and not any(finding.path == "method.heat" for line in told for finding in line.says):
        said: dict[str, str | float] = {"minutes": minutes, "by": say("as it is written")}
        told = [
            *told,
            ParsedMethodLine(
                text=say("cooking time"),
                says=[MethodFinding(words=say("{minutes:.0f} min", minutes=minutes), path="method.heat", value=said)],
            ),
        ]
    count = pieces_of(yields)
    if count is not None and not any(finding.path == "pieces" for line in told for finding in line.says):
        told = [
            *told,
            ParsedMethodLine(
                text=yields, says=[MethodFinding(words=say("{count} pieces", count=count), path="pieces", value=count)]
            ),
        ]
    way, because = way_from(told, listed.way, _base_of_list(listed, kitchen))
    told = of_the_way(told, way)
    return ParsedRecipe(
        source=source,
        title=title or say("Pasted list"),
        yields=yields,
        listed=listed,
        method=told,
        way=way,
        because=because,
        asks=list(_questions(listed, told, yields, kitchen)),
    )


def _base_of_list(listed: ParsedIngredientList, kitchen: Kitchen) -> str | None:
    shelf = Shelf(kitchen)
    groups = {item.group for line in listed.lines if line.ingredient and (item := shelf.item(line.ingredient))}
    return "grain" if "grain" in groups and "flour" not in groups else "flour" if "flour" in groups else None


def _questions(
    listed: ParsedIngredientList, method: Sequence[ParsedMethodLine], yields: str, kitchen: Kitchen
) -> Iterator[str]:
    """What has to be asked before anything is begun from it."""
    if yields and re.search(r"\bserv", yields, re.IGNORECASE):
        yield say("“{yields}”: how many pieces is that? It is kept as a word, and changes no amount.", yields=yields)
    base = _base_of_list(listed, kitchen)
    waters = [line for line in listed.lines if line.ingredient == "water"]
    if base == "grain" and waters and len(waters) < 3:
        yield say("Is the water what the grain soaks in, or what is poured on once it has drained? Say it on Mix.")
    cups = {line.unit for line in listed.lines if line.unit in ("cup_us", "cup_metric")}
    if cups and kitchen.own_cup_ml is None:
        yield say("Which cup? It is taken as the one of your kitchen's measures until you weigh one.")
    said: dict[str, set[str]] = {}
    for line in method:
        for finding in line.says:
            if finding.path and finding.path not in ("way",) and not finding.path.startswith("method"):
                said.setdefault(finding.path, set()).add(str(finding.value))
    for path, values in said.items():
        if len(values) > 1:
            yield say(
                "Two are written of one thing ({field}: {values}): the first is taken.",
                field=path.split(".")[-1].replace("_", " "),
                values=", ".join(sorted(values)),
            )

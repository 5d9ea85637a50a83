"""Writes the catalogue of what the core says anew: every sentence of the code, and every word of its tables.

    python scripts/words.py kemble/words

English is written whole; what another language has is kept, and what it lacks is left empty for whoever translates it.
"""

from __future__ import annotations

import ast
import re
import sys
from collections.abc import Iterable, Iterator
from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Any, get_args

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from babel.messages.catalog import Catalog
from babel.messages.extract import extract_from_file
from babel.messages.pofile import read_po, write_po
from pydantic import BaseModel

from kemble.core.cards.cautions import CAUTIONS
from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.placing_steps import PLACING
from kemble.core.cards.taste_scales import SCALES, TasteId
from kemble.core.cards.way import BaseKind
from kemble.core.cards.ways import WAYS
from kemble.core.facts.vocabulary import KEYS
from kemble.core.kitchen.estimates import ESTIMATES
from kemble.core.kitchen.larder import GROUPS, SOURCES, larder

# What is written in a card for the code, and read by nobody.
FOR_CODE = {
    *(
        "id",
        "station",
        "default",
        "form",
        "heat",
        "base",
        "group",
        "kind",
        "looks",
        "work",
        "hands",
        "resource",
        "school",
    ),
    *("kinds", "by", "changes", "each", "scale", "presumes", "unless", "traits", "ingredient"),
    *(
        "fact",
        "to",
        "where",
        "joins",
        "step",
        "role",
        "parts",
        "kin",
        "said",
        "unit",
        "aliases",
        "source",
        "family",
        "of",
    ),
    *(
        "cautions",
        "choice",
        "shape",
        "uses",
        "weigh",
        "begins",
        "after",
        "when",
        "under",
    ),
    *(
        "cooks",
        "finishes",
        "finish_by",
        "batter_by",
        "rests",
        "takes",
        "outputs_of",
        "tells",
        "sweetened",
    ),
}
# Names that only the code goes by: "white-sugar", "heat.done_min".
FOR_CODE_ALONE = re.compile(r"[a-z]+(-[a-z0-9]+)+$|[a-z]+(\.[a-z_]+)+$")
PROSE = re.compile(r"[A-Za-z]['’]?[,;:.]? +[A-Za-z]")


def of_tables(*tables: Any) -> Iterator[str]:
    """Every word of a table that somebody reads."""
    for table in tables:
        yield from _words(table)


def _words(value: Any, name: str = "") -> Iterator[str]:
    if isinstance(value, str):
        if re.search("[A-Za-z]{2}", value) and not FOR_CODE_ALONE.match(value):
            yield value
    elif isinstance(value, dict):
        yield from value if name == "packs" else ()
        for item in value.values():
            yield from _words(item, name)
    elif isinstance(value, BaseModel):
        for key in type(value).model_fields:
            if key not in FOR_CODE:
                yield from _words(getattr(value, key), key)
    elif is_dataclass(value):
        for field in fields(value):
            if field.name not in FOR_CODE:
                yield from _words(getattr(value, field.name), field.name)
    elif isinstance(value, Iterable):
        for item in value:
            yield from _words(item, name)


def of_module_tables(path: Path) -> Iterator[str]:
    """Sentences in the tables at the head of a module: what stands outside of any function, and is no docstring."""
    todo: list[ast.AST] = list(ast.parse(path.read_text(encoding="utf-8")).body)
    while todo:
        node = todo.pop(0)
        if isinstance(node, ast.FunctionDef | ast.ClassDef | ast.Import | ast.ImportFrom):
            continue
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            continue
        if isinstance(node, ast.Call) and ast.unparse(node.func).startswith("re."):
            continue
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and _is_prose(node.value):
            yield node.value
        todo += ast.iter_child_nodes(node)


def _is_prose(text: str) -> bool:
    """Whether somebody is told it; a style sheet is told nobody."""
    return bool(PROSE.search(text)) and "{" not in text and "\n" not in text


# Words that the code puts into its sentences one at a time.
ALONE = (
    *get_args(TasteId),
    *get_args(BaseKind),
    *(
        "water",
        "sugar",
        "fat",
        "salt",
        "less",
        "more",
        "longer",
        "shorter",
        "top",
        "right",
        "bottom",
        "left",
        "nothing",
    ),
    *("cup", "cups", "tbsp", "tsp"),
    *("tier", "tiers", "tin", "tins", "piece", "pieces", "is", "are", "heavy", "light", "brown", "set", "open"),
    *("chewy", "tender", "creased"),  # bites and tops of one word
    *("low", "medium", "high", "off", "metal", "glass", "ceramic"),
)


def catalogue() -> Catalog:
    """All that the core and the server say, each with the file that says it."""
    catalog = Catalog()
    for path in sorted((ROOT / "kemble").rglob("*.py")):
        where = path.relative_to(ROOT).as_posix()
        for _, sentence, _, _ in extract_from_file("python", path, keywords={"say": None}):
            catalog.add(str(sentence), locations=[(where, 0)])
        for words in of_module_tables(path):
            catalog.add(words, locations=[(where, 0)])
    pieces = [way.many_pieces for way in WAYS.values()]
    tables = of_tables(
        ALONE,
        pieces,
        PLACING,
        COMMON_STEPS,
        WAYS,
        FAMILIES,
        SCALES,
        CAUTIONS,
        KEYS,
        ESTIMATES,
        SOURCES,
        GROUPS,
        larder(),
    )
    for words in tables:
        catalog.add(words)
    return catalog


def main(folder: Path) -> None:
    catalog = catalogue()
    for language in sorted(
        {"en", *(path.name for path in folder.iterdir() if path.is_dir() and not path.name.startswith("_"))}
    ):
        path = folder / language / "core.po"
        written = Catalog(locale=language)
        if path.is_file():
            with path.open("rb") as file:
                written = read_po(file, locale=language)
        written.update(catalog, no_fuzzy_matching=True)
        path.parent.mkdir(exist_ok=True)
        with path.open("wb") as out:
            write_po(out, written, width=120, omit_header=True, sort_output=True, ignore_obsolete=True)


if __name__ == "__main__":
    main(Path(sys.argv[1]))

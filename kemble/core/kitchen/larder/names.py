"""Finds an ingredient by what a cook calls it."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable
from functools import cache

from rapidfuzz import fuzz, process

from kemble.core.kitchen.larder import Ingredient, larder


def normalize_name(words: str) -> str:
    """Small letters without accents, single spaces, no punctuation: what names are compared by."""
    bare = unicodedata.normalize("NFKD", words).encode("ascii", "ignore").decode().lower()
    return " ".join(re.sub(r"[^a-z0-9]+", " ", bare).split())


def names_of(items: Iterable[Ingredient]) -> dict[str, str]:
    """Every name in plain letters, and the id it stands for. Earlier items keep a name that two claim."""
    result: dict[str, str] = {}
    for item in items:
        for name in (item.name, item.id, *item.aliases):
            result.setdefault(normalize_name(name), item.id)
    return result


@cache
def _ids_by_usual_name() -> dict[str, str]:
    return names_of(larder().values())


def closest_names(unknown: str, limit: int = 3) -> list[str]:
    """The ids most like a misspelt or informal name, for an error that helps."""
    names = _ids_by_usual_name()
    hits = process.extract(normalize_name(unknown), list(names), scorer=fuzz.WRatio, limit=limit * 3, score_cutoff=62)
    return list(dict.fromkeys(names[name] for name, _, _ in hits))[:limit]

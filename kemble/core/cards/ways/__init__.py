"""The ways of making, one file a way. A module here that defines WAY is a way; nothing else is needed."""

from __future__ import annotations

import importlib
import pkgutil

from kemble.core.cards.card_contract import check_way
from kemble.core.cards.way import Way


def _load_ways() -> dict[str, Way]:
    modules = (importlib.import_module(f"{__name__}.{info.name}") for info in pkgutil.iter_modules(__path__))
    ways = [check_way(module.WAY, module) for module in modules if hasattr(module, "WAY")]
    return {way.id: way for way in sorted(ways, key=lambda way: way.id)}


WAYS: dict[str, Way] = _load_ways()

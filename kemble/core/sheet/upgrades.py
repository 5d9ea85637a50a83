"""Brings sheets of older versions up to the newest: a sheet can always be read."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

Document = dict[str, Any]


def upgrade_sheet(content: Any) -> Any:
    """A sheet's document of any version as the newest. What is no sheet, or says no known version, is left as it is."""
    if not isinstance(content, Mapping):
        return content
    result = dict(content)
    while isinstance(version := result.get("version"), int) and version in _LIFTS:
        result = _LIFTS[version](result)
    return result


def _upgrade_from_1(document: Document) -> Document:
    """In version 1 what was kept back of a part was a bare share, 0 where nothing was."""
    parts = document.get("parts")
    if isinstance(parts, list | tuple):
        parts = [_part_from_1(part) for part in parts]
    return {**document, "version": 2, "parts": parts}


def _part_from_1(part: Any) -> Any:
    if not isinstance(part, Mapping) or not isinstance(part.get("kept"), int | float):
        return part
    share = part["kept"]
    return {**part, "kept": {"share": share} if share else None}


def _upgrade_from_2(document: Document) -> Document:
    """In version 2 times that somebody gave stood beside Kemble's and moved no plan; they go on doing so."""
    taught = document.get("taught")
    if not isinstance(taught, Mapping):
        return {**document, "version": 3}
    method = [
        {"step": step, **time, "use": "ours"} if isinstance(time, Mapping) else time for step, time in taught.items()
    ]
    return {**{key: value for key, value in document.items() if key != "taught"}, "version": 3, "method": method}


_LIFTS: dict[int, Callable[[Document], Document]] = {1: _upgrade_from_1, 2: _upgrade_from_2}

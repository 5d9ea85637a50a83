"""Brings settings that an older version stored up to this one."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

_MOST = 6  # steamers that a kitchen could say it had: settings come from outside, and no number is taken on trust


def upgrade_settings(content: Any) -> Any:
    """Settings of any time as they are kept now. What is no settings, or wrong in itself, is left as it is.

    A kitchen had one kind of steamer, and so many of it; and one pot.
    """
    if not isinstance(content, Mapping):
        return content
    result = dict(content)
    steamer, many = result.pop("steamer", None), result.get("steamers")
    if many is None and isinstance(steamer, Mapping):
        many = 1
    if isinstance(many, int) and 0 <= many <= _MOST:
        about = steamer if isinstance(steamer, Mapping) else {}
        result["steamers"] = [{**about, "name": "steamer" if i == 0 else f"steamer {i + 1}"} for i in range(many)]
    elif steamer is not None:
        result["steamer"] = (
            steamer  # there is none beside a list, or beside a number that never was: refused by its name
        )
    if isinstance(result.get("pot"), Mapping):
        result["pots"] = [result.pop("pot")]
    return result

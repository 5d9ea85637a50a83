"""The three ways to soak whole grain, and a sheet changed to one of them."""

from __future__ import annotations

from typing import Literal

from kemble.core.sheet.document import Sheet

SoakId = Literal["none", "hour", "overnight"]
SOAKS: tuple[tuple[SoakId, float, str, str], ...] = (
    ("none", 0.0, "not soaked", "begin at once; more water to pour, more time at heat, hearts that stay hard in steam"),
    ("hour", 60.0, "an hour", "most of what it can take up, the same morning"),
    ("overnight", 720.0, "overnight", "all it can take up: even, quick, and it must begin yesterday"),
)
_NIGHT_C = 10.0  # a long soak belongs in the cold


def soaked(sheet: Sheet, soak: SoakId) -> Sheet:
    """The sheet with its grain soaked so; a long soak in the cold."""
    now, minutes = sheet.grain, next(minutes for side, minutes, _, _ in SOAKS if side == soak)
    celsius = min(now.soak_c, _NIGHT_C) if minutes > 240 else now.soak_c
    return sheet.model_copy(update={"grain": now.model_copy(update={"soak_min": minutes, "soak_c": celsius})})

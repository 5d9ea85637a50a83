"""What was worked, kept: by the version of the code and the kitchen that it was worked with.

`work()` is pure, so what it gave stays right until the sheet, the kitchen or the code changes. Within a process whole
answers are remembered; on a sheet's row lies what the counter shows of it.
"""

from __future__ import annotations

import hashlib
import logging
import secrets
from collections.abc import Iterable
from functools import cache, lru_cache
from pathlib import Path
from typing import Any

import kemble.core
import kemble.words
from kemble.core.computing_guard import check_computing
from kemble.core.facts.problems import Problem, Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import TinDrawing
from kemble.core.stations.work_sheet import WorkResult, result_without_facts, work
from kemble.server.models import SheetRecord
from kemble.server.storage.fair_lock import WORKING, writing

_log = logging.getLogger("kemble.faults")
_MAX_REMEMBERED = 96  # whole answers, of some 350 kB each
# The numbers shown on a sheet's card, in order, where they apply.
_CARD_NUMBERS = ("mix.hydration_pct", "shape.pieces", "shape.depth_mm", "heat.done_min")


@cache
def core_version() -> str:
    """A digest of the core's own code, data and words: what it works out may differ when it does."""
    digest = hashlib.sha256()
    for root in (Path(kemble.core.__file__).parent, kemble.words.ROOT):
        for file in sorted(root.rglob("*")):
            if file.suffix in (".py", ".toml", ".po"):
                digest.update(file.read_bytes())
    return digest.hexdigest()[:16]


def result_fingerprint(kitchen: Kitchen) -> str:
    """What an answer depends on beside its sheet."""
    return f"{core_version()}-{hashlib.sha256(kitchen.model_dump_json().encode()).hexdigest()[:16]}"


def calculation_failed(sheet: Sheet) -> Problem:
    """A fault of ours in calculating a sheet: logged with the sheet, told with its number. Called where it is caught."""
    number = secrets.token_hex(3)
    _log.exception("number %s: a %s could not be calculated: %s", number, sheet.way, sheet.model_dump_json())
    message = say("cannot be calculated: Kemble failed, and the sheet is not at fault (number {number})", number=number)
    return Problem(path="the sheet", says=message)


@lru_cache(maxsize=_MAX_REMEMBERED)
def _remembered_result(sheet_json: str, kitchen_json: str) -> WorkResult:
    with WORKING:
        return work(Sheet.model_validate_json(sheet_json), Kitchen.model_validate_json(kitchen_json))


def result_for(sheet: Sheet, kitchen: Kitchen) -> WorkResult:
    """work(), remembered: it is pure, and the sheet before an edit was just worked. Where it fails, that is logged, and the
    cook is told in its problems, so that the sheet can still be opened and saved."""
    check_computing("work")  # also where it is remembered: that is chance
    try:
        return _remembered_result(sheet.model_dump_json(), kitchen.model_dump_json())
    except Refused:
        raise
    except Exception:
        return result_without_facts([calculation_failed(sheet)])


def card_of(worked: WorkResult, by: str, revision: int) -> dict[str, Any]:
    """What the counter shows of a sheet: its key numbers, or why there are none."""
    facts = [worked.facts[key] for key in _CARD_NUMBERS if key in worked.facts]
    numbers = [{"key": fact.key, "value": fact.value, "unit": fact.unit, "decimals": fact.decimals} for fact in facts]
    problem = worked.problems[0].sentence if worked.problems else ""
    return {
        "by": by,
        "revision": revision,
        "numbers": numbers,
        "problem": problem,
        "section": section_of(worked.drawings.shape),
    }


def section_of(drawn: BallDrawing | TinDrawing | None) -> dict[str, Any] | None:
    """What is made, from the side, in mm: a tin's width and depth, or a piece's width and its filling's. None of
    what cannot be."""
    if drawn is None or not drawn.is_possible:
        return None
    if isinstance(drawn, TinDrawing):
        wide = drawn.tin.diameter_mm if drawn.tin.shape == "round" else drawn.tin.length_mm
        return {"kind": "tin", "wide_mm": wide, "high_mm": drawn.depth_mm, "core_mm": 0.0}
    return {"kind": "piece", "wide_mm": drawn.outer_mm, "high_mm": drawn.outer_mm, "core_mm": drawn.core_mm}


def with_fresh_cards(records: Iterable[SheetRecord], kitchen: Kitchen, most: int | None = None) -> list[SheetRecord]:
    """The records with cards that are right: those worked with other code or another kitchen are worked again, at most so
    many of them; the card of any other is empty."""
    by, sheets = result_fingerprint(kitchen), list(records)
    all_stale = [
        sheet for sheet in sheets if (sheet.card.get("by"), sheet.card.get("revision")) != (by, sheet.revision)
    ]
    stale = all_stale[:most]
    for record in all_stale[len(stale) :]:
        record.card = {}
    for record in stale:
        try:
            record.card = card_of(result_for(record.sheet, kitchen), by, record.revision)
        except Refused as refused:  # kept by a version that allowed what this one does not
            record.card = {
                "by": by,
                "revision": record.revision,
                "numbers": [],
                "problem": str(refused),
                "section": None,
            }
    if stale:
        with writing():
            SheetRecord.objects.bulk_update(stale, ["card"])
    return sheets

"""What is promised, each with its limit; and what was measured of it, for the table at the end of `make bench`.

Times are milliseconds unless they say otherwise. Of several measurements of one promise the worst is told.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True, slots=True)
class Promise:
    says: str
    limit: float
    unit: str = "ms"
    keeps: Literal["under", "over"] = "under"


PROMISES = {
    "work": Promise("a sheet worked: median over the ways", 15),
    "work-p95": Promise("a sheet worked: 95 of 100, the slowest way", 25),
    "ripple": Promise("edit to ripple in the browser, 95 of 100", 150),
    "frame": Promise("frame to frame under the hand, median", 17),
    "first-page": Promise("JavaScript at first load, as it comes over the wire", 220, "kB"),
    "solve": Promise("one solve of a heat, the slowest: median", 15),
    "solve-times": Promise("as fast as a plain method of lines, at the least", 20, "times", "over"),
    "heat": Promise("all heat facts of a sheet, the slowest way: median", 60),
    "plan": Promise("one sheet planned and proven, the slowest way", 300),
    "plan-three": Promise("three sheets planned, two cooks", 1_000),
    "plan-six": Promise("six sheets planned, over three days", 5_000),
    "days": Promise("a thousand drawn days", 1_000),
    "random": Promise("random days that broke a rule, of 2,000", 0, "days"),
    "replan": Promise("the rest of three sheets, planned anew: 95 of 100", 500),
    "fold": Promise("60 steps and 400 events folded, by the server", 10),
    "fold-page": Promise("60 steps and 400 events folded, by the page", 10),
    "shelf": Promise("first page of 2,000 sheets, 95 of 100", 100),
    "log": Promise("first page of 10,000 batches, 95 of 100", 100),
    "reads": Promise("fifty cooks pressing: reads, 95 of 100", 200),
    "events": Promise("fifty cooks pressing: events, 95 of 100", 300),
    "list": Promise("a kitchen of years: any list or page, again", 300),
    "list-first": Promise("a kitchen of years: a list after the settings changed", 1_000),
    "start-old": Promise("first start on 2,000 sheets and 5,000 batches of version 1", 10, "s"),
    "start-killed": Promise("start after a kill", 10, "s"),
    "saves": Promise("twenty savers while a day of eight sheets is planned: 95 of 100", 400),
    "saves-table": Promise("saves while 300 batches come in as a table: 95 of 100", 1_000),
    "reads-hashing": Promise("reads while ten wrong passwords are tried: 95 of 100", 250),
    "memory-mixed": Promise("grown by, after 20,000 mixed requests", 50, "MB"),
    "works": Promise("fifty cooks pressing: a sheet worked, 95 of 100", 1_500),
    "saves-load": Promise("fifty cooks pressing: saves, 95 of 100", 1_000),
    "wrong": Promise("fifty cooks pressing: answers refused or failed", 0, "answers"),
    "memory": Promise("grown by, after 10,000 requests and 500 streams", 8, "MB"),
    "learn": Promise("learned from a thousand batches", 300),
    "learn-one": Promise("learned from one batch more", 30),
    "learn-three": Promise("error of the likely time after three makings", 0.75, "of the first"),
    "learn-ten": Promise("error of the likely time after ten makings", 0.5, "of the first"),
    "learn-new": Promise("less error for a new tin and depth", 40, "%", "over"),
    "inside": Promise("next makings within first and latest", 85, "of 100", "over"),
    "odd": Promise("an odd making in ten costs, of the gain", 20, "%"),
}

_measured: dict[str, list[float]] = {}


def measured(promise: str, value: float) -> None:
    """Note what was measured of a promise; KeyError of none that is made."""
    assert promise in PROMISES, promise
    _measured.setdefault(promise, []).append(value)


def rows() -> list[tuple[str, str, str, str]]:
    """(what, measured, limit, how it stands) of every promise, in their order."""
    told = []
    for name, promise in PROMISES.items():
        found = _measured.get(name, [])
        limit = f"{'' if promise.keeps == 'under' else 'over '}{promise.limit:g} {promise.unit}"
        if not found:
            told.append((promise.says, "–", limit, "not measured"))
            continue
        worst = max(found) if promise.keeps == "under" else min(found)
        kept = worst <= promise.limit if promise.keeps == "under" else worst >= promise.limit
        told.append(
            (promise.says, f"{worst:.3g}" if worst < 100 else f"{worst:,.0f}", limit, "" if kept else "NOT KEPT")
        )
    return told

"""What is promised, each with its limit; and what was measured of it, for the table at the end of `make bench`.

Times are milliseconds unless they say otherwise. Beside each stands how many times slower the machine was in that minute
than the quickest seen, by a fixed loop; what is held to the limit is the time divided by that. Of several
measurements of one promise the worst is told.
"""

from __future__ import annotations

import os
import statistics
import time
from dataclasses import dataclass
from typing import Final, Literal, TypeVar

Number = TypeVar("Number", int, float)

ONCE: Final = os.environ.get("KEMBLE_BENCH") == "once"  # each benchmark run once, small: that it runs at all
CALIBRATION_MS: Final = 24.0  # the quickest that `_loop` was seen on two cores of 2.5 GHz
_SPELL_S: Final = 60.0  # so long one calibration holds


def amount(full: Number, once: Number) -> Number:
    """How much of it a benchmark does: all, or as little as shows that it runs."""
    return once if ONCE else full


def _loop() -> float:
    """A fixed piece of work such as Kemble's: plain Python, dicts and floats. Milliseconds that it took."""
    begins = time.perf_counter()
    table: dict[int, float] = {}
    for i in range(60_000):
        table[i % 997] = table.get(i % 997, 0.0) * 0.5 + i
    return (time.perf_counter() - begins) * 1000


_calibrated: list[tuple[float, float]] = []  # when, and how many times slower than that


def slowness() -> float:
    """How many times slower this machine is in this minute than the quickest seen; never below 1."""
    if not _calibrated or time.monotonic() - _calibrated[-1][0] > _SPELL_S:
        loops = statistics.median(_loop() for _ in range(15))
        _calibrated.append((time.monotonic(), max(1.0, loops / CALIBRATION_MS)))
    return _calibrated[-1][1]


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

_measured: dict[str, list[tuple[float, float]]] = {}  # (measured, times slower)


def measured(promise: str, value: float) -> None:
    """Note what was measured of a promise; KeyError of none that is made."""
    assert promise in PROMISES, promise
    timed = PROMISES[promise].unit in ("ms", "s")
    _measured.setdefault(promise, []).append((value, slowness() if timed else 1.0))


def rows() -> list[tuple[str, str, str, str]]:
    """(what, measured, limit, how it stands) of every promise, in their order."""
    told = []
    for name, promise in PROMISES.items():
        result = _measured.get(name, [])
        limit = f"{'' if promise.keeps == 'under' else 'over '}{promise.limit:g} {promise.unit}"
        if not result:
            told.append((promise.says, "–", limit, "not measured"))
            continue
        pick = max if promise.keeps == "under" else min
        value, slow = pick(result, key=lambda pair: pair[0] / pair[1])
        held = value / slow
        kept = held <= promise.limit if promise.keeps == "under" else held >= promise.limit
        shown = f"{value:.3g}" if value < 100 else f"{value:,.0f}"
        if slow > 1.05:
            shown += f" / {slow:.1f}"
        told.append((promise.says, shown, limit, "" if kept or ONCE else "NOT KEPT"))
    return told

"""The progress of planning a day, for whoever waits for it, and the flag that stops it.

A watch is the one thing here that changes while it is used: the planner tells it, in one thread, what another reads.
"""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Literal, Protocol

Stage = Literal["plan", "clash", "ways out", "safer", "chance"]

STAGES: dict[Stage, str] = {
    "plan": "Looking for the best day",
    "clash": "It cannot be done: looking for what clashes",
    "ways out": "Trying ways out",
    "safer": "Beginning earlier, to be safe",
    "chance": "Drawing a thousand days",
}


class PlanningStopped(Exception):
    """Planning was stopped before there was anything to show."""


class Search(Protocol):
    """A solver at work."""

    def stop_search(self) -> None: ...


class PlanProgress:
    """Where the planning of one day is: its stage, and in per cent how far the plan in hand is at most from the best there
    can be (None while there is none)."""

    def __init__(self) -> None:
        self.stage: Stage = "plan"
        self.gap_pct: float | None = None
        self._stopped = threading.Event()
        self._searching: Search | None = None

    @property
    def says(self) -> str:
        return STAGES[self.stage]

    @property
    def stopped(self) -> bool:
        return self._stopped.is_set()

    def at(self, stage: Stage) -> None:
        self.stage = stage

    def near(self, result: float, bound: float) -> None:
        """A plan was found that costs `found`, or none can cost less than `bound`."""
        self.gap_pct = gap_pct(result, bound)

    def stop(self) -> None:
        """What is found by now is to do. A solver that was just about to begin may not hear it: say it until it is done."""
        self._stopped.set()
        if self._searching is not None:
            self._searching.stop_search()

    @contextmanager
    def over(self, search: Search) -> Iterator[None]:
        """While a solver is at work. It is stopped with the watch."""
        self._searching = search
        try:
            yield
        finally:
            self._searching = None


def gap_pct(result: float, bound: float) -> float:
    """How far a plan that costs `found` may be from the best there can be, when none costs less than `bound`."""
    return 100.0 * max(0.0, result - bound) / max(1.0, result)

"""Days being planned, beside the requests that ask for them: one for an occasion at a time, in threads that never touch
the database. Whoever asks next keeps what was found (`occasion_days.py`); what nobody asks for again is found anew when it is.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, wait
from contextvars import copy_context
from dataclasses import dataclass
from datetime import datetime, timedelta

from kemble.core.plan.occasion import DayPlan
from kemble.core.plan.plan_progress import PlanningStopped, PlanProgress

PATIENCE_S = 1.0  # a request waits so long for a day; then it answers with how far the planning is
_AT_ONCE = 2
_MOST_KEPT = 200
_FRESH = timedelta(minutes=5)  # what was found and nobody asked for is planned again after that: time has gone on
_STOPS_WITHIN_S = 3.0
_AGAIN_S = 0.05


@dataclass(frozen=True)
class PlanningJob:
    """The planning of one day: what it is made from (`by`), its watch, since when, and what comes of it."""

    by: str
    watch: PlanProgress
    since: datetime
    found: Future[DayPlan]

    def day(self, patience_s: float | None = 0) -> DayPlan | None:
        """The day, if it is found within that; None as long as it is not, or when it was stopped with nothing to show.
        Raises Refused as the planning itself does. `None` waits to the end."""
        wait([self.found], timeout=patience_s)
        if not self.found.done() or self.was_stopped:
            return None
        return self.found.result()

    def is_for(self, by: str, now: datetime) -> bool:
        """Whether what comes of it will do for a day planned from `by` now."""
        return self.by == by and (not self.found.done() or self.was_stopped or now - self.since < _FRESH)

    @property
    def was_stopped(self) -> bool:
        """Whether it was stopped before there was anything to show."""
        return self.found.done() and isinstance(self.found.exception(), PlanningStopped)

    def stop(self) -> None:
        """What is found by now is to do."""
        for _ in range(round(_STOPS_WITHIN_S / _AGAIN_S)):
            self.watch.stop()
            if wait([self.found], timeout=_AGAIN_S).done:
                return


_plannings: dict[int, PlanningJob] = {}
_guard = threading.Lock()
_threads = ThreadPoolExecutor(_AT_ONCE, thread_name_prefix="planning")


def planning_of(occasion: int, by: str, now: datetime, plan: Callable[[PlanProgress], DayPlan]) -> PlanningJob:
    """The planning of an occasion's day from just that: the one that is on or done, or one begun now in its place."""
    with _guard:
        there = _plannings.pop(occasion, None)
        if there is not None and not there.is_for(by, now):
            there.watch.stop()
            there = None
        if there is None:
            watch = PlanProgress()
            there = PlanningJob(by, watch, now, _threads.submit(copy_context().run, plan, watch))
        _plannings[occasion] = there
        for oldest in list(_plannings)[:-_MOST_KEPT]:
            _plannings.pop(oldest).watch.stop()
    return there


def job_of_occasion(occasion: int) -> PlanningJob | None:
    """The planning of an occasion's day that is on, or that was last."""
    with _guard:
        return _plannings.get(occasion)


def end() -> None:
    """Stop all of them: a server that is stopped waits for no day."""
    with _guard:
        going = list(_plannings.values())
    for job in going:
        job.stop()


def forget(occasion: int) -> None:
    """What was found or stopped is not to stand: the next who asks begins anew."""
    with _guard:
        there = _plannings.pop(occasion, None)
    if there is not None:
        there.watch.stop()

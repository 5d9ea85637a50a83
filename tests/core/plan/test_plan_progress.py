"""A day that takes its time: what is told while it is planned, and what stands when it is stopped."""

import threading
import time
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from plan_checker import broken

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import clashing
from kemble.core.plan.day_solver import Dish, PlanRequest
from kemble.core.plan.occasion import Occasion, plan_day
from kemble.core.plan.plan_progress import STAGES, PlanningStopped, PlanProgress
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SERVE = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)
KITCHEN = Kitchen(cooks=2)
HANG_S = 60.0


@pytest.fixture(scope="module")
def ten():
    """One of every way on one table with two cooks: found soon, and never proven in the time that a test has."""
    return [Dish(way, work(default_sheet(way), KITCHEN).steps, SERVE) for way in WAYS]


class Planned:
    """A day being planned in a thread, with hours to do it in."""

    def __init__(self, dishes, kitchen):
        self.watch, self.day, self.stopped = PlanProgress(), None, False
        servings, sheets = ({"at": "2026-11-28T15:30"},), tuple({"sheet": 1 + i} for i in range(len(dishes)))
        occasion = Occasion(servings=servings, dishes=sheets)

        def plan():
            try:
                self.day = plan_day(occasion, dishes, kitchen, now=NOW, seconds=7200, watch=self.watch)
            except PlanningStopped:
                self.stopped = True

        self.thread = threading.Thread(target=plan, daemon=True)
        self.thread.start()

    def until(self, told):
        hangs = time.monotonic() + HANG_S
        while not told(self.watch):
            assert time.monotonic() < hangs, (self.watch.stage, self.watch.gap_pct)
            self.thread.join(0.01)

    def stop(self):
        hangs = time.monotonic() + HANG_S
        while self.thread.is_alive():
            assert time.monotonic() < hangs, "it did not stop"
            self.watch.stop()
            self.thread.join(0.05)


def test_what_is_found_when_it_is_stopped_stands_and_keeps_every_bond(ten):
    planned = Planned(ten, KITCHEN)
    planned.until(lambda watch: watch.gap_pct is not None and watch.gap_pct < 50)
    told = planned.watch.gap_pct
    planned.stop()
    plan = planned.day.plan
    assert not plan.proven
    assert 0 < plan.gap_pct <= told
    assert len(plan.scheduled) == sum(len(dish.steps) for dish in ten)
    assert broken(PlanRequest(ten, KITCHEN, not_before=NOW), plan) == []
    assert planned.day.sure is not None  # its chances are told all the same


def test_stopped_before_anything_is_found_there_is_no_day(ten):
    watch = PlanProgress()
    watch.stop()
    servings, sheets = ({"at": "2026-11-28T15:30"},), tuple({"sheet": 1 + i} for i in range(10))
    occasion = Occasion(servings=servings, dishes=sheets)
    with pytest.raises(PlanningStopped):
        plan_day(occasion, ten, KITCHEN, now=NOW, watch=watch)


def test_a_clash_that_is_not_yet_as_small_as_can_be_is_not_shown(ten):
    """An hour before it is eaten nothing can be done: the stop comes while it is made small."""
    late = replace(PlanRequest(ten[:3], KITCHEN, not_before=SERVE - timedelta(hours=1)), seconds=60.0)
    assert len(clashing(late)) > 1
    stops = Stops(after=2)
    with pytest.raises(PlanningStopped):
        clashing(replace(late, watch=stops))
    assert stops.stage == "clash"


class Stops(PlanProgress):
    """Stops itself after so many searches."""

    def __init__(self, after):
        super().__init__()
        self.left = after

    def over(self, search):
        self.left -= 1
        if self.left < 0:
            self.stop()
        return super().over(search)


def test_every_stage_is_said_in_words():
    watch = PlanProgress()
    said = []
    for stage in STAGES:
        watch.at(stage)
        said.append(watch.says)
    assert len(set(said)) == len(said)

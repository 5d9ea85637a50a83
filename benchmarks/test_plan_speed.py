"""The plan of a day, measured: proven or how near; thousands of random days, each read by a checker with no solver in it."""

import sys
import time
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests" / "helpers"))
sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests" / "core" / "plan"))

from plan_checker import broken
from promises import amount, measured
from test_day_solver import random_day

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import clashing
from kemble.core.plan.cook_assignment import assign_cooks
from kemble.core.plan.day_solver import Dish, PlanRequest, solve_day
from kemble.core.plan.on_time_odds import simulate_on_time_odds
from kemble.core.plan.schedule import plan_of
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

SERVE = datetime(2026, 12, 5, 15, 30, tzinfo=UTC)
COOKS = Kitchen(cooks=2)
SIX = ("set-cake", "boiled-balls", "tray-rice", "batter-bake", "pounded", "leaf-parcels")
RANDOM_DAYS = amount(2000, 5)


def table(*ways, days=()):
    return PlanRequest(
        tuple(
            Dish(way, work(default_sheet(way), COOKS).steps, SERVE + timedelta(days=days[i] if days else 0))
            for i, way in enumerate(ways)
        ),
        COOKS,
        seconds=5.0,
    )


@pytest.mark.parametrize(
    "asked",
    [
        *(pytest.param(table(way), id=way) for way in sorted(WAYS)),
        pytest.param(table("set-cake", "boiled-balls", "stirred-rounds"), id="three sheets"),
        pytest.param(table("batter-bake", "leaf-parcels", "pounded"), id="three others"),
        pytest.param(table(*SIX, days=(0, 0, -1, -1, -2, -2)), id="six over three days"),
        pytest.param(table(*SIX), id="six for one table"),
    ],
)
def test_plan(asked):
    solve_day(replace(asked, dishes=asked.dishes[:1]))  # the solver's first import is a second
    began = time.perf_counter()
    solved = solve_day(asked)
    took = time.perf_counter() - began
    steps = sum(len(dish.steps) for dish in asked.dishes)
    how = "proven" if solved.proven else f"within {solved.gap_pct:.2f} %"
    print(f"\n  {len(asked.dishes)} sheets, {steps} steps: {took:.2f} s, {how}")
    days = {dish.serve for dish in asked.dishes}
    promise = {1: "plan", 3: "plan-three", 6: "plan-six" if len(days) > 1 else None}[len(asked.dishes)]
    if promise:
        measured(promise, 1000 * took)


def test_a_thousand_days():
    asked = table("set-cake", "boiled-balls", "tray-rice")
    solved = solve_day(asked)
    who = assign_cooks(asked, solved)
    began = time.perf_counter()
    told = simulate_on_time_odds(asked, solved, who)
    took = 1000 * (time.perf_counter() - began)
    print(f"\n  a thousand days of three sheets: {took:.0f} ms, {told.all_in_time_pct:.0f} in time")
    measured("days", took)


def test_random_days():
    """Each is planned and read by the checker, or told to be impossible."""
    kept = impossible = against = 0
    for seed in range(10_000, 10_000 + RANDOM_DAYS):
        asked = random_day(seed)
        solved = solve_day(asked)
        if solved is None:
            impossible += 1
            continue
        faults = broken(asked, plan_of(asked, solved), several=len(asked.dishes) > 1)
        against += bool(faults)
        kept += not faults
        if faults:
            print(f"\n  day {seed}: {faults}")
    print(f"\n  {kept} random days kept every rule, {impossible} had none")
    measured("random", against)


def test_clashes():
    took = []
    for seed in range(amount(200, 12)):
        asked = random_day(20_000 + seed)
        if solve_day(asked) is None:
            began = time.perf_counter()
            assert clashing(asked)
            took.append(time.perf_counter() - began)
    took.sort()
    assert took, "no day of so many clashed"
    print(f"\n  {len(took)} clashes: median {took[len(took) // 2]:.2f} s, slowest {took[-1]:.2f} s")

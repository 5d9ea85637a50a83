"""A schedule for the steps of one sheet: counted back from the serve time, or forward from now.

Solved with CP-SAT to the minute. Constraints: waits between steps, cooks' hands, equipment, quiet hours. Counting
back, it begins as late as it can and then keeps every step as late as it can; counting forward, it is done as soon
as it can. The core has no clock: instants come in as arguments, aware of their time zone.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from typing import Any

from pydantic import BaseModel, ConfigDict

from kemble.core.facts.problems import refuse
from kemble.core.kitchen.document import Kitchen
from kemble.core.stations.steps import StepWorked

# A cook can hold one thing and mind one pot beside it, or mind four pots. Kitchen estimate.
HANDS = {"held": 10, "minded": 3, "free": 0}
HANDS_OF_A_COOK = 13
_DAY = 24 * 60
_MOST_SECONDS = 10.0


class Scheduled(BaseModel):
    """One step with its place in time."""

    model_config = ConfigDict(frozen=True)

    step: StepWorked
    starts: datetime
    ends: datetime


class Plan(BaseModel):
    """A schedule. `late_min` says by how much it would have had to begin before `now`; 0 when in time."""

    model_config = ConfigDict(frozen=True)

    serve: datetime
    begin: datetime
    scheduled: list[Scheduled]
    proven: bool
    quiet_kept: bool
    late_min: int = 0
    earliest_serve: datetime | None = None


def plan_for(steps: Sequence[StepWorked], kitchen: Kitchen, *, serve: datetime, now: datetime) -> Plan:
    """Count back from `serve`. Raises Refused for a serve time that is past or over 60 days off.

    When the work would have had to begin before `now`, the plan says how late it is and when it could be served.
    """
    if serve <= now:
        local = now.astimezone(kitchen.zone)
        refuse(
            "serve", f"{serve.astimezone(kitchen.zone):%Y-%m-%d %H:%M} is past", f"a time after {local:%Y-%m-%d %H:%M}"
        )
    if serve > now + timedelta(days=60):
        refuse("serve", "is more than 60 days off", "a time within 60 days")
    plan = _solve(steps, kitchen, serve, backward=True)
    if plan.begin >= now:
        return plan
    soonest = _solve(steps, kitchen, now, backward=False)
    late = math.ceil((now - plan.begin).total_seconds() / 60)
    return plan.model_copy(update={"late_min": late, "earliest_serve": soonest.serve})


def plan_from(steps: Sequence[StepWorked], kitchen: Kitchen, *, begin: datetime) -> Plan:
    """Begin at `begin` and be done as soon as possible; quiet hours are waived, for the cook is there."""
    return _solve(steps, kitchen, begin, backward=False)


def _solve(steps: Sequence[StepWorked], kitchen: Kitchen, anchor: datetime, *, backward: bool) -> Plan:
    anchor = anchor.replace(second=0, microsecond=0) + (
        timedelta(minutes=1) if not backward and anchor.second else timedelta()
    )
    plan = _attempt(steps, kitchen, anchor, backward=backward, quiet=backward)
    if plan is None and backward:
        plan = _attempt(steps, kitchen, anchor, backward=True, quiet=False)
    if plan is None:
        refuse("plan", "these steps do not fit the equipment", "more burners or cooks in the kitchen")
    return plan


def _attempt(
    steps: Sequence[StepWorked], kitchen: Kitchen, anchor: datetime, *, backward: bool, quiet: bool
) -> Plan | None:
    from ortools.sat.python import cp_model  # a second to import, and only plans need it

    lengths = {step.id: max(1, math.ceil(step.minutes - 1e-9)) for step in steps}
    horizon = sum(lengths.values()) + sum(round(w.at_least) for s in steps for w in s.after) + 2 * _DAY
    model = cp_model.CpModel()
    starts = {s.id: model.new_int_var(0, horizon - lengths[s.id], s.id) for s in steps}
    ends = {s.id: starts[s.id] + lengths[s.id] for s in steps}
    spans = {s.id: model.new_fixed_size_interval_var(starts[s.id], lengths[s.id], s.id) for s in steps}
    for step in steps:
        for wait in step.after:
            model.add(starts[step.id] >= ends[wait.step] + round(wait.at_least))
            if wait.at_most is not None:
                model.add(starts[step.id] <= ends[wait.step] + math.floor(wait.at_most))

    origin = anchor - timedelta(minutes=horizon) if backward else anchor
    hands: list[tuple[Any, int]] = [(spans[s.id], HANDS[s.hands]) for s in steps if HANDS[s.hands]]
    capacity = HANDS_OF_A_COOK * kitchen.cooks
    if quiet:
        hands += [
            (model.new_fixed_size_interval_var(a, b - a, f"quiet{a}"), capacity)
            for a, b in quiet_spans(kitchen, origin, horizon)
        ]
    model.add_cumulative([span for span, _ in hands], [demand for _, demand in hands], capacity)
    for resource, most in (("burner", kitchen.burners), ("steamer", 1), ("oven", 1)):
        users = [spans[s.id] for s in steps if resource in s.uses]
        if len(users) > most:
            model.add_cumulative(users, [1] * len(users), most)

    if backward:
        model.add(ends[steps[-1].id] == horizon)
        for step in steps:
            model.add(ends[step.id] <= horizon)
        first = model.new_int_var(0, horizon, "first")
        model.add_min_equality(first, list(starts.values()))
        model.maximize(len(steps) * 20 * first + sum(starts.values()))
    else:
        model.minimize(len(steps) * 20 * ends[steps[-1].id] + sum(starts.values()))

    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_time_in_seconds = _MOST_SECONDS
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    zone = kitchen.zone
    scheduled = [
        Scheduled(
            step=step,
            starts=_later(origin, solver.value(starts[step.id])).astimezone(zone),
            ends=_later(origin, solver.value(starts[step.id]) + lengths[step.id]).astimezone(zone),
        )
        for step in steps
    ]
    scheduled.sort(key=lambda s: (s.starts, s.ends))
    return Plan(
        serve=max(s.ends for s in scheduled),
        begin=scheduled[0].starts,
        scheduled=scheduled,
        proven=status == cp_model.OPTIMAL,
        quiet_kept=quiet or not backward,
    )


def _later(instant: datetime, minutes: int) -> datetime:
    """So many minutes of real time later, over any change of the clocks."""
    return instant.astimezone(UTC) + timedelta(minutes=minutes)


def quiet_spans(kitchen: Kitchen, origin: datetime, horizon: int) -> list[tuple[int, int]]:
    """Quiet hours as (from, to) minutes after `origin`, cut to 0..horizon, on the kitchen's wall clock."""
    begins, ends = kitchen.quiet.minutes
    if begins == ends:
        return []
    local = origin.astimezone(kitchen.zone)
    found = []
    for day in range(-1, math.ceil(horizon / _DAY) + 2):
        date = local.date() + timedelta(days=day)
        start = datetime(date.year, date.month, date.day, begins // 60, begins % 60, tzinfo=kitchen.zone)
        until = date + timedelta(days=1 if ends <= begins else 0)
        stop = datetime(until.year, until.month, until.day, ends // 60, ends % 60, tzinfo=kitchen.zone)
        a = max(0, math.floor((start - origin).total_seconds() / 60))
        b = min(horizon, math.ceil((stop - origin).total_seconds() / 60))
        if a < b:
            found.append((a, b))
    return found


def kitchen_time(kitchen: Kitchen, text: str, path: str = "serve") -> datetime:
    """A wall-clock time such as 2026-12-05T15:30 in the kitchen's zone. Raises Refused if it is none."""
    try:
        return datetime.strptime(text, "%Y-%m-%dT%H:%M").replace(tzinfo=kitchen.zone)
    except ValueError:
        refuse(path, f'"{text}" is not a date and time', "a time such as 2026-12-05T15:30")

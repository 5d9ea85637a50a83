"""A plan: a day's steps as instants, counted back from when people eat, or forward from now; of one sheet or of several."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from pydantic import BaseModel, ConfigDict

from kemble.core.computing_guard import computes
from kemble.core.facts.problems import refuse
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.cook_assignment import assign_cooks
from kemble.core.plan.day_solver import Dish, PlanRequest, SolvedDay, solve_day, without_gaps
from kemble.core.sentences import say
from kemble.core.stations.steps import StepResult


class ScheduledStep(BaseModel):
    """One step with its place in time."""

    model_config = ConfigDict(frozen=True)

    step: StepResult
    starts: datetime
    ends: datetime
    dish: int = 0  # which of the day's dishes it is a step of
    who: str = ""  # who does it, where there are several


class Plan(BaseModel):
    """A schedule. `late_min` says by how much it would have had to begin before `now`; 0 when in time."""

    model_config = ConfigDict(frozen=True)

    serve: datetime
    begin: datetime
    scheduled: list[ScheduledStep]
    proven: bool
    gap_pct: float = 0.0  # at most so far from the best, where that is not proven
    quiet_kept: bool
    gaps_kept: bool = True  # whether nothing lies longer than it should
    late_min: int = 0
    earliest_serve: datetime | None = None

    def shifted(self, by: timedelta) -> Plan:
        """The same work at another time, so much later."""

        def later(at: datetime) -> datetime:
            return (at.astimezone(UTC) + by).astimezone(at.tzinfo)  # over a change of the clocks too

        scheduled = [
            row.model_copy(update={"starts": later(row.starts), "ends": later(row.ends)}) for row in self.scheduled
        ]
        return self.model_copy(update={"serve": later(self.serve), "begin": later(self.begin), "scheduled": scheduled})


@computes
def plan_for(steps: Sequence[StepResult], kitchen: Kitchen, *, serve: datetime, now: datetime) -> Plan:
    """Count back from `serve`. Raises Refused for a serve time that is past or over 60 days off.

    When the work would have had to begin before `now`, the plan says how late it is and when it could be served.
    """
    if serve <= now:
        local = now.astimezone(kitchen.zone)
        refuse(
            "serve",
            say("{serve:%Y-%m-%d %H:%M} is past", serve=serve.astimezone(kitchen.zone)),
            say("a time after {local:%Y-%m-%d %H:%M}", local=local),
        )
    if serve > now + timedelta(days=60):
        refuse("serve", say("is more than 60 days off"), say("a time within 60 days"))
    plan = _plan_one_sheet(steps, kitchen, serve, backward=True)
    if plan.begin >= now:
        return plan
    soonest = _plan_one_sheet(steps, kitchen, now, backward=False)
    late = math.ceil((now - plan.begin).total_seconds() / 60)
    return plan.model_copy(update={"late_min": late, "earliest_serve": soonest.serve})


@computes
def plan_from(steps: Sequence[StepResult], kitchen: Kitchen, *, begin: datetime) -> Plan:
    """Begin at `begin` and be done as soon as possible; quiet hours are waived, for the cook is there."""
    return _plan_one_sheet(steps, kitchen, begin, backward=False)


@computes
def planned(asked: PlanRequest) -> Plan | None:
    """The best plan of a day; where quiet hours cannot be kept, one that does not keep them; and where by the cook's method
    things cannot all follow soon enough, one in which they lie longer. None when there is none."""
    solved = solve_day(asked)
    if solved is None and asked.quiet:
        asked = replace(asked, quiet=False)
        solved = solve_day(asked)
    if solved is None:
        asked = replace(asked, dishes=[without_gaps(dish) for dish in asked.dishes])
        solved = solve_day(asked)
        return None if solved is None else plan_of(asked, solved).model_copy(update={"gaps_kept": False})
    return plan_of(asked, solved)


def plan_of(asked: PlanRequest, solved: SolvedDay) -> Plan:
    """The day as instants, with who does what."""
    zone, clock = asked.kitchen.zone, solved.clock
    who = assign_cooks(asked, solved)
    scheduled = [
        ScheduledStep(
            step=task.step,
            dish=task.dish,
            who=who.get(task.key, ""),
            starts=clock.at(solved.starts[task.key]).astimezone(zone),
            ends=clock.at(solved.starts[task.key] + task.length).astimezone(zone),
        )
        for task in solved.tasks
    ]
    scheduled.sort(key=lambda scheduled_step: (scheduled_step.starts, scheduled_step.ends))
    return Plan(
        serve=table_at(scheduled),
        begin=scheduled[0].starts,
        scheduled=scheduled,
        proven=solved.proven,
        gap_pct=solved.gap_pct,
        quiet_kept=asked.quiet or asked.forward_from is not None,
    )


def table_at(scheduled: Sequence[ScheduledStep]) -> datetime:
    """When everything is on the table: with the end of what serves it; of plans of before, of all of it."""
    served = [each for each in scheduled if each.step.serves] or scheduled
    return max(each.ends for each in served)


def _plan_one_sheet(steps: Sequence[StepResult], kitchen: Kitchen, anchor: datetime, *, backward: bool) -> Plan:
    dish = Dish("", steps, anchor)
    plan = planned(PlanRequest((dish,), kitchen, quiet=backward, forward_from=None if backward else anchor))
    if plan is None:
        refuse("plan", say("these steps do not fit the equipment"), say("more burners or cooks in the kitchen"))
    return plan


def kitchen_time(kitchen: Kitchen, text: str, path: str = "serve") -> datetime:
    """A wall-clock time such as 2026-12-05T15:30 in the kitchen's zone. Raises Refused if it is none."""
    try:
        return datetime.strptime(text, "%Y-%m-%dT%H:%M").replace(tzinfo=kitchen.zone)
    except ValueError:
        refuse(path, say('"{text_}" is not a date and time', text_=text), say("a time such as 2026-12-05T15:30"))

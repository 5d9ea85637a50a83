"""How likely a day is on time: a thousand days drawn from the time windows of its steps.

A step that is told with a window lasts as that says (one in twenty is done by its low end, nineteen in twenty by its
high one); hands are as quick as the table of estimates has them; what is only waited for lasts as long as it is told.
Each begins when it is planned, or as soon after as what it waits for, the hands that do it and the thing it stands on
let it; what follows at once begins when the one before it is done. How long a batter rests is the cook's own choice.
What one day has one of is drawn once for it: the stove, the lid and the oven for every dish, a batter's depth for every
step of its dish, and how quick a cook is on that day. Steps that hang on the same are late together.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from pydantic import BaseModel, ConfigDict

from kemble.core.kitchen.estimates import Estimate, EstimateId
from kemble.core.physics.conduction import Array
from kemble.core.plan.day_solver import PlanRequest, SolvedDay, Task
from kemble.core.plan.resources import hands_for, there_are

DAYS = 1000
_EDGE = 1.6449
_SEED = 20261205
_SURE = 0.9
_OF_THE_DAY = 0.5  # of the variance in how quick hands are, so much is the cook on that day; kitchen estimate, 0.3-0.7
_CHOSEN = frozenset({"rest.batter_min", "rest.rigid_min", "rest.firm_h", "grain.soak_min"})  # so long as it suits


class DishOnTimeOdds(BaseModel):
    """Of a dish: in how many days of a hundred it is ready in time, how late it is on the worst of ten, and how many
    minutes earlier all of its steps should lie to be nine times in ten in time."""

    model_config = ConfigDict(frozen=True)

    dish: int
    in_time_pct: float
    late_min: float
    earlier_min: float


class OnTimeOdds(BaseModel):
    """Of a day: each dish, all of them in time together, and the steps that most often make it late, the worst first."""

    model_config = ConfigDict(frozen=True)

    days: int
    all_in_time_pct: float
    dishes: list[DishOnTimeOdds]
    slack_after: list[str]  # tasks: a few minutes to spare behind these help most


@dataclass(frozen=True, slots=True)
class _DurationRange:
    """A step's minutes where one in twenty lies below and above, over its likely ones, on the plan's whole minutes."""

    low: float
    likely: float
    high: float


def _duration_range(task: Task, estimates: Mapping[EstimateId, Estimate]) -> _DurationRange:
    step, likely = task.step, max(1.0, task.step.minutes)
    ours = step.ours
    if ours.window:  # the cake is done when it is done, whatever time was given for it
        return _DurationRange(ours.window.first_check, ours.window.done, ours.window.latest)
    if step.fact in _CHOSEN:
        return _DurationRange(likely, likely, likely)
    if step.between and ours.between:
        return _DurationRange(ours.between.least, ours.minutes, ours.between.most)
    if step.given and step.given.is_used and not step.cue:
        return _DurationRange(likely, likely, likely)
    if hands_for(step):
        row = estimates["hand_work"]
        return _DurationRange(likely * row.low, likely * row.value, likely * row.high)
    return _DurationRange(likely, likely, likely)


def _sample_minutes(lasts: _DurationRange, normal: Array) -> Array:
    """Minutes by a normal variate: its logarithm goes each way as the window does."""
    if lasts.likely <= 0:
        return np.maximum(0.0, lasts.likely + 0.0 * normal)
    up = math.log(max(lasts.high, lasts.likely) / lasts.likely) / _EDGE
    down = math.log(lasts.likely / max(0.05 * lasts.likely, min(lasts.low, lasts.likely))) / _EDGE
    result: Array = lasts.likely * np.exp(np.where(normal > 0, up, down) * normal)
    return result


class _SampledCauses:
    """What makes each of so many days otherwise than likely, as normal variates: each thing drawn once, when it is first
    asked for, and what is a step's alone for every step."""

    def __init__(self, estimates: Mapping[EstimateId, Estimate], days: int) -> None:
        self._rng = np.random.default_rng(_SEED)
        self._estimates, self._days = estimates, days
        self._drawn: dict[tuple[str, str | int], Array] = {}

    def of(self, task: Task, person: str) -> Array:
        """The variate of one step: what it hangs on by its share in the variance, and the rest its own."""
        step = task.step
        shares: dict[tuple[str, str | int], float] = {}
        for name, share in step.hangs.items():
            of_one_dish = self._estimates[name].about == "batter"
            shares[(name, task.dish if of_one_dish else "")] = share
        if not shares and not step.window and not step.between and hands_for(step):
            shares[("hand_work", person)] = math.sqrt(_OF_THE_DAY)
        known = sum(share**2 for share in shares.values())
        # Shares are rounded, and what is small is left out of them: together never more than all there is.
        scale = 1.0 / math.sqrt(known) if known > 1.0 else 1.0
        result: Array = math.sqrt(max(0.0, 1.0 - known)) * self._rng.standard_normal(self._days)
        for key, share in shares.items():
            if key not in self._drawn:
                self._drawn[key] = self._rng.standard_normal(self._days)
            result = result + scale * share * self._drawn[key]
        return result


def simulate_on_time_odds(
    asked: PlanRequest, solved: SolvedDay, who: Mapping[str, str], *, days: int = DAYS
) -> OnTimeOdds:
    """Draw so many days from a plan, the same ones each time. `who`: the person of every task that takes hands."""
    estimates = asked.kitchen.known
    causes = _SampledCauses(estimates, days)
    order = sorted(solved.tasks, key=lambda task: (solved.starts[task.key], solved.starts[task.key] + task.length))
    follows = _follows(asked, solved, order, who)
    ends: dict[str, Array] = {}
    done: dict[str, float] = {}  # as planned
    late_by: dict[str, float] = {}
    lates: dict[int, Array] = {}
    for task in order:
        comes = [ends[before] + least for before, least, _ in task.waits] + [
            ends[follow] for follow in follows[task.key]
        ]
        planned = [done[before] + least for before, least, _ in task.waits] + [
            done[follow] for follow in follows[task.key]
        ]
        at = float(solved.starts[task.key])
        done[task.key] = at + task.length
        # What follows at once begins when the one before it is done, sooner or later; what was to wait begins as planned.
        floor = -np.inf if planned and max(planned) >= at - 1 else at
        begins = np.maximum.reduce([np.full(days, floor), *comes])
        lasts = _duration_range(task, estimates)
        # A plan's step is whole minutes; what it lasts is drawn about what was told.
        ends[task.key] = begins + _sample_minutes(lasts, causes.of(task, who.get(task.key, "")))
        late_by[task.key] = float(np.quantile(ends[task.key] - solved.starts[task.key] - task.length, _SURE))
        if task.is_last:
            serve = solved.clock.minute(asked.dishes[task.dish].serve) + solved.later
            lates[task.dish] = ends[task.key] - serve
    # A minute over is nobody's lateness.
    in_time = {dish: late <= 1.0 for dish, late in lates.items()}
    everything = np.logical_and.reduce(list(in_time.values())) if in_time else np.ones(days, dtype=bool)
    dishes = []
    for dish, late in sorted(lates.items()):
        worst = float(np.quantile(late, _SURE))
        dishes.append(
            DishOnTimeOdds(
                dish=dish,
                in_time_pct=100.0 * float(in_time[dish].mean()),
                late_min=max(0.0, worst),
                earlier_min=float(math.ceil(max(0.0, worst - 1.0))),
            )
        )
    return OnTimeOdds(
        days=days,
        all_in_time_pct=100.0 * float(everything.mean()),
        dishes=dishes,
        slack_after=_latest_steps(order, late_by, follows),
    )


def _follows(
    asked: PlanRequest, solved: SolvedDay, order: Sequence[Task], who: Mapping[str, str]
) -> dict[str, list[str]]:
    """What a task must wait for beside its own gaps: the held step before it in the same hands, and the one before it on
    the same thing, where there is no other free."""
    after: dict[str, list[str]] = {task.key: [] for task in order}
    held: dict[str, str] = {}
    alone = len(set(who.values())) == 0
    for task in order:
        if task.step.hands == "held":
            person = "" if alone else who.get(task.key, "?")
            if person in held:
                after[task.key].append(held[person])
            held[person] = task.key
    uses = {use for task in order for use in task.step.uses}
    for use in uses:
        most = there_are(asked.kitchen, use)
        if most is None:
            continue
        free: list[str | None] = [None] * max(1, most)
        ready: list[int] = [0] * max(1, most)
        for task in (task for task in order if use in task.step.uses):
            i = min(range(len(free)), key=lambda number: ready[number])
            before = free[i]
            if before is not None:
                after[task.key].append(before)
            free[i], ready[i] = task.key, solved.starts[task.key] + task.length
    return after


def _latest_steps(order: Sequence[Task], late_by: Mapping[str, float], follows: Mapping[str, list[str]]) -> list[str]:
    """The steps that add most lateness of their own: what they end late by, over what they began late by."""
    own = {}
    for task in order:
        came = [late_by[key] for key, _, _ in task.waits] + [late_by[key] for key in follows[task.key]]
        own[task.key] = late_by[task.key] - max([0.0, *came])
    worst = sorted(own, key=lambda key: -own[key])[:3]
    return [key for key in worst if own[key] > 1.0]

"""A rehearsal: a simulated cook plays a run, as late and forgetful as chosen; and the report of any run.

The cook is a stand-in that can fail: nothing of the plan is promised to hold. Drawn from a seed, so that it can be seen again.
"""

from __future__ import annotations

import random
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import combinations

import numpy as np
from pydantic import BaseModel, ConfigDict, Field

from kemble.core.computing_guard import computes
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.run.events import AnyEvent, CoreProbed, StepDone, StepStarted, StepWeighed
from kemble.core.run.run_state import RunState, state_of
from kemble.core.sentences import Words, say
from kemble.core.stations.heat.core_curve import CoreCurve

# Of the cook: minutes lost before a step for each degree of lateness (mean of an exponential); how much heavier the hand is;
# how often something that goes by itself is forgotten, and for how long. Made up to be seen, not measured.
_LATE_MIN, _HEAVY, _FORGETS, _FORGOTTEN_MIN = 3.0, 0.04, 0.14, (8.0, 30.0)
_DURATION_SD, _WEIGHT_SD, _PROBE_SD_C = 0.06, 0.012, 0.7
_TOLD_MIN = 1.0  # what is less than that is not worth a word


class SimulatedCookTraits(BaseModel):
    """How a simulated cook works: each from 0 (not at all) to 2 (very)."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    late: int = Field(0, ge=0, le=2, description="0, 1 or 2")
    heavy: int = Field(0, ge=0, le=2, description="0, 1 or 2")
    forgetful: int = Field(0, ge=0, le=2, description="0, 1 or 2")
    seed: int = Field(1, ge=0, le=2**31, description="a whole number")


@dataclass(frozen=True, slots=True)
class RehearsedRun:
    """One run of what is rehearsed: its plan, and how its heart was told, where it was."""

    plan: Plan
    core: CoreCurve | None = None


@computes
def simulate_events(parts: Sequence[RehearsedRun], manner: SimulatedCookTraits, cooks: int) -> list[list[AnyEvent]]:
    """The events of every run as that cook makes them, each run's in the order of the clock, to its end.

    Steps are taken in the order of the plan; one that holds the hands waits until a cook is free.
    """
    chance = random.Random(manner.seed)  # noqa: S311 - a play, not a secret
    free = [datetime.min.replace(tzinfo=parts[0].plan.begin.tzinfo)] * max(1, cooks)
    ends: dict[tuple[int, str], datetime] = {}
    eventses: list[list[AnyEvent]] = [[] for _ in parts]
    order = sorted(
        ((i, scheduled_step) for i, part in enumerate(parts) for scheduled_step in part.plan.scheduled),
        key=lambda each: each[1].starts,
    )
    left = list(order)
    while left:
        at = next(
            (
                n
                for n, (i, scheduled_step) in enumerate(left)
                if all((i, w.step) in ends for w in scheduled_step.step.after)
            ),
            0,
        )
        i, scheduled_step = left.pop(at)
        step = scheduled_step.step
        ready = [ends[i, w.step] + timedelta(minutes=w.at_least) for w in step.after if (i, w.step) in ends]
        starts = max([scheduled_step.starts, *ready])
        if step.hands != "free" or not step.after:
            starts += _delay(chance, manner, forgot=any(_went_alone(parts[i].plan, w.step) for w in step.after))
        if step.hands == "held":
            who = min(range(len(free)), key=lambda n: free[n])
            starts = max(starts, free[who])
        lasts = _simulated_minutes(chance, manner, scheduled_step)
        stop = starts + timedelta(minutes=lasts)
        if step.hands == "held":
            free[who] = stop
        ends[i, step.id] = stop
        eventses[i] += _events(chance, manner, i, scheduled_step, starts, stop, parts[i].core)
    for events in eventses:
        events.sort(key=lambda event: event.at)
    return eventses


def _went_alone(plan: Plan, step: str) -> bool:
    return next(
        (scheduled_step.step.hands == "free" for scheduled_step in plan.scheduled if scheduled_step.step.id == step),
        False,
    )


def _delay(chance: random.Random, manner: SimulatedCookTraits, *, forgot: bool) -> timedelta:
    minutes = chance.expovariate(1 / (_LATE_MIN * manner.late)) if manner.late else 0.0
    if forgot and chance.random() < _FORGETS * manner.forgetful:
        minutes += chance.uniform(*_FORGOTTEN_MIN)
    return timedelta(minutes=minutes)


def _simulated_minutes(chance: random.Random, manner: SimulatedCookTraits, scheduled_step: ScheduledStep) -> float:
    """How long a step takes: one with a window ends within it, unless it is forgotten."""
    step = scheduled_step.step
    if step.window is None:
        return max(0.5, step.minutes * chance.lognormvariate(0.0, _DURATION_SD))
    window = step.window
    if chance.random() < _FORGETS * manner.forgetful:
        return window.latest + chance.uniform(*_FORGOTTEN_MIN)
    return min(
        window.latest, max(window.first_check, chance.gauss(window.done, (window.latest - window.first_check) / 6))
    )


def _events(
    chance: random.Random,
    manner: SimulatedCookTraits,
    run: int,
    scheduled_step: ScheduledStep,
    starts: datetime,
    stop: datetime,
    core: CoreCurve | None,
) -> list[AnyEvent]:
    step, name = scheduled_step.step, f"played-{run}-{scheduled_step.step.id}"
    played: list[AnyEvent] = [StepStarted(uid=f"{name}-started", at=starts, kind="started", step=step.id)]
    if step.target:
        grams = step.target.grams * (1 + _HEAVY * manner.heavy * chance.random() + chance.gauss(0, _WEIGHT_SD))
        played.append(
            StepWeighed(
                uid=f"{name}-weighed", at=stop, kind="weighed", step=step.id, grams=max(0.1, round(grams, 1)), sure=True
            )
        )
    if step.window and core:
        minute = step.window.first_check - (step.window.done - core.done)
        at = starts + timedelta(minutes=step.window.first_check)
        if minute > 0 and at < stop:
            celsius = float(np.interp(minute, core.curve.minutes, core.curve.core_c)) + chance.gauss(0, _PROBE_SD_C)
            played.append(
                CoreProbed(
                    uid=f"{name}-probed", at=at, kind="probed", step=step.id, celsius=round(celsius, 1), sure=True
                )
            )
    played.append(StepDone(uid=f"{name}-done", at=stop, kind="done", step=step.id))
    return played


class ReportItem(BaseModel):
    """One thing that a making showed, in words; of how many minutes it is."""

    model_config = ConfigDict(frozen=True)

    says: Words
    minutes: float


class RunReport(BaseModel):
    """What a making showed: where hands clashed, what stood too long in the heat, which gaps were missed, and how late each
    was on the table. Each the worst first; empty where nothing of it happened."""

    model_config = ConfigDict(frozen=True)

    hands: list[ReportItem]
    burnt: list[ReportItem]
    missed: list[ReportItem]
    table: list[ReportItem]


@computes
def report(runs: Sequence[tuple[str, Plan, Sequence[AnyEvent]]], cooks: int, now: datetime) -> RunReport:
    """What happened in some runs that were made together, against their plans as they began."""
    states = [state_of(plan, events, now) for _, plan, events in runs]
    spans = _occupied_cooks(runs, states, now)
    return RunReport(
        hands=_worst_items([*_overlaps(spans, cooks), *_steps_that_waited(runs, states, spans, cooks)]),
        burnt=_worst_items(_burnt(runs, states, now)),
        missed=_worst_items(_missed(runs, states)),
        table=_worst_items(
            ReportItem(
                says=say("{title}: {span} late on the table.", title=title, span=_min(state.late_min)),
                minutes=state.late_min,
            )
            for (title, _, _), state in zip(runs, states, strict=True)
            if state.late_min >= _TOLD_MIN
        ),
    )


def _worst_items(items: Iterable[ReportItem]) -> list[ReportItem]:
    return sorted(items, key=lambda item: -item.minutes)


def _min(minutes: float) -> str:
    return say("{minutes:.0f} min", minutes=minutes)


@dataclass(frozen=True, slots=True)
class _OccupiedCook:
    run: int
    step: str
    title: str
    begins: datetime
    ends: datetime


def _occupied_cooks(
    runs: Sequence[tuple[str, Plan, Sequence[AnyEvent]]], states: Sequence[RunState], now: datetime
) -> list[_OccupiedCook]:
    """When hands were held, by what."""
    return [
        _OccupiedCook(i, scheduled_step.step.id, scheduled_step.step.title, state.started, state.ended or now)
        for i, ((_, plan, _), run) in enumerate(zip(runs, states, strict=True))
        for scheduled_step, state in zip(plan.scheduled, run.steps, strict=True)
        if scheduled_step.step.hands == "held" and state.started is not None
    ]


def _overlaps(spans: Sequence[_OccupiedCook], cooks: int) -> list[ReportItem]:
    """More held at once than there are cooks."""
    items = []
    for together in combinations(spans, cooks + 1):
        begins, ends = (
            max(occupied_cook.begins for occupied_cook in together),
            min(occupied_cook.ends for occupied_cook in together),
        )
        minutes = (ends - begins).total_seconds() / 60
        if minutes >= _TOLD_MIN:
            titles = " and ".join(occupied_cook.title for occupied_cook in together)
            items.append(
                ReportItem(
                    says=say("{titles}: held at once for {span}.", titles=titles, span=_min(minutes)), minutes=minutes
                )
            )
    return items


def _steps_that_waited(
    runs: Sequence[tuple[str, Plan, Sequence[AnyEvent]]],
    states: Sequence[RunState],
    spans: Sequence[_OccupiedCook],
    cooks: int,
) -> list[ReportItem]:
    """A held step that could have begun, while all hands were in others."""
    items = []
    for i, ((_, plan, _), run) in enumerate(zip(runs, states, strict=True)):
        ended = {state.id: state.ended for state in run.steps}
        for scheduled_step, state in zip(plan.scheduled, run.steps, strict=True):
            if scheduled_step.step.hands != "held" or state.started is None:
                continue
            ready = [
                end + timedelta(minutes=w.at_least) for w in scheduled_step.step.after if (end := ended.get(w.step))
            ]
            could = max([scheduled_step.starts, *ready])
            others = [
                span
                for span in spans
                if (span.run, span.step) != (i, scheduled_step.step.id)
                and span.begins < state.started
                and span.ends > could
            ]
            if len(others) < cooks:
                continue
            minutes = (min(state.started, max(span.ends for span in others)) - could).total_seconds() / 60
            if minutes >= _TOLD_MIN:
                titles = " and ".join(dict.fromkeys(span.title for span in others))
                items.append(
                    ReportItem(
                        says=say(
                            "{title} waited {span}: hands were in {titles}.",
                            title=scheduled_step.step.title,
                            span=_min(minutes),
                            titles=titles,
                        ),
                        minutes=minutes,
                    )
                )
    return items


def _burnt(
    runs: Sequence[tuple[str, Plan, Sequence[AnyEvent]]], states: Sequence[RunState], now: datetime
) -> list[ReportItem]:
    """What stood in its heat past its latest."""
    items = []
    for (_, plan, _), run in zip(runs, states, strict=True):
        for scheduled_step, state in zip(plan.scheduled, run.steps, strict=True):
            if state.latest is None:
                continue
            minutes = ((state.ended or now) - state.latest).total_seconds() / 60
            if minutes >= _TOLD_MIN:
                items.append(
                    ReportItem(
                        says=say(
                            "{title}: {span} past its latest.", title=scheduled_step.step.title, span=_min(minutes)
                        ),
                        minutes=minutes,
                    )
                )
    return items


def _missed(runs: Sequence[tuple[str, Plan, Sequence[AnyEvent]]], states: Sequence[RunState]) -> list[ReportItem]:
    """What came too long after what it waited for: too cool to seal, too stiff to spread."""
    items = []
    for (_, plan, _), run in zip(runs, states, strict=True):
        ended, titles = (
            {state.id: state.ended for state in run.steps},
            {scheduled_step.step.id: scheduled_step.step.title for scheduled_step in plan.scheduled},
        )
        for scheduled_step, state in zip(plan.scheduled, run.steps, strict=True):
            for wait in scheduled_step.step.after:
                end = ended.get(wait.step)
                if wait.at_most is None or state.started is None or end is None:
                    continue
                minutes = (state.started - end).total_seconds() / 60 - wait.at_most
                if minutes >= _TOLD_MIN:
                    says = say(
                        "{title} began {after} after {before}, {most} at most.",
                        title=scheduled_step.step.title,
                        after=_min(minutes + wait.at_most),
                        before=titles[wait.step].lower(),
                        most=_min(wait.at_most),
                    )
                    items.append(ReportItem(says=says, minutes=minutes))
    return items

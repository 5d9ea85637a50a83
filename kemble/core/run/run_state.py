"""Where each step of a run stands at an instant: its events added up over its plan.

Clocks are instants (started at, due at), never counters. The core has no clock of its own: `now` comes in.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Literal

from pydantic import BaseModel

from kemble.core.devices.probe import CoreReading, RefittedWindow, refit
from kemble.core.facts.quantity import TemperatureUnit
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.run.event_fold import RunFold, RunNote, StepWeight, events_that_count, plan_now, rests_of
from kemble.core.run.events import AnyEvent
from kemble.core.sentences import Words
from kemble.core.stations.heat.core_curve import CoreCurve
from kemble.core.stations.steps import DonenessWindow, StepResult

SOON_MIN = 2.0  # a step planned this near is for now


class StepState(BaseModel):
    """Where one step stands. `expected_*` move when the work runs early or late."""

    id: str
    status: Literal["waiting", "ready", "running", "done"]
    planned_starts: datetime
    planned_ends: datetime
    expected_starts: datetime
    expected_ends: datetime
    started: datetime | None = None
    ended: datetime | None = None
    due: datetime | None = None
    first_check: datetime | None = None
    latest: datetime | None = None
    late_min: float = 0.0
    weights: list[StepWeight] = []
    probed: list[CoreReading] = []
    refit: RefittedWindow | None = None
    paused: datetime | None = None  # since when its clock stands
    count: int = 0
    who: str = ""


class RunState(BaseModel):
    """The whole run at an instant."""

    status: Literal["running", "finished"]
    now: datetime
    steps: list[StepState]
    focus: str | None
    next: str | None
    notes: list[RunNote]
    serve: datetime
    expected_serve: datetime
    late_min: float
    says: list[Words] = []  # of the newest plan of the rest: what moved, and why
    choices: list[str] = []  # ... and what else could be done


def state_of(
    plan: Plan,
    events: Sequence[AnyEvent],
    now: datetime,
    core: CoreCurve | None = None,
    unit: TemperatureUnit = "C",
    *,
    instead: Plan | None = None,
) -> RunState:
    """Fold the events over the plan, as its rest was planned anew, and look at it at `now`; by the plan `instead`, where
    one is to be tried.

    With the `core` as it was told, what is probed tells the rest of its step's window anew (words in `unit`).
    """
    served, rests = plan.serve, rests_of(plan, events)
    core = next((rest.core for rest in reversed(rests) if rest.core), core)
    plan = instead or plan_now(plan, events)
    fold = RunFold(plan)
    for event in events_that_count(plan, events):
        fold.apply(event)
    states = _project(fold, now, core, unit)
    serving = {scheduled.step.id for scheduled in plan.scheduled if scheduled.step.serves}
    serve_ends = max(state.expected_ends for state in states if not serving or state.id in serving)
    focus, following = _focus(fold, states, now)
    return RunState(
        status="finished" if fold.finished else "running",
        now=now,
        steps=states,
        focus=focus,
        next=following,
        notes=fold.notes,
        serve=served,
        expected_serve=serve_ends,
        late_min=(serve_ends - served).total_seconds() / 60,
        says=fold.says,
        choices=fold.choices,
    )


def _probed(fold: RunFold, step: StepResult, core: CoreCurve | None) -> list[CoreReading]:
    """What was read in a step's last load, in minutes since that went in."""
    started = fold.started.get(step.id)
    if started is None:
        return []
    before = max(0.0, _window_shift_min(step, core))
    return [
        CoreReading(minute=(at - started).total_seconds() / 60 - before, celsius=celsius)
        for at, celsius in fold.probed.get(step.id, [])
    ]


def _window_shift_min(step: StepResult, core: CoreCurve | None) -> float:
    """Minutes by which a step's window is later than that of one load: by the loads before it, or, when the step ends
    with something still to come, less than none."""
    return step.window.done - core.done if step.window and core else 0.0


def _refit(
    step: StepResult, core: CoreCurve | None, probed: Sequence[CoreReading], unit: TemperatureUnit
) -> RefittedWindow | None:
    """The step's window told anew; None when nothing was probed, or nothing is known of its core."""
    if core is None or step.window is None:
        return None
    shift = _window_shift_min(step, core)
    found_refit = refit(core.curve, (core.first, core.done, core.latest), probed, unit)
    return found_refit and found_refit.model_copy(
        update={name: getattr(found_refit, name) + shift for name in ("first", "done", "latest", "was_done")}
    )


def _project(fold: RunFold, now: datetime, core: CoreCurve | None, unit: TemperatureUnit) -> list[StepState]:
    """Carry what has happened forward: a step begins when planned, or as soon after as what it waits for allows."""
    ends: dict[str, datetime] = {}
    states = []
    for scheduled in _in_order(fold.plan):
        step = scheduled.step
        probed = _probed(fold, step, core)
        told = _refit(step, core, probed, unit)
        length = timedelta(minutes=(told.done if told else step.minutes) + fold.extra.get(step.id, 0.0))
        paused = fold.paused.get(step.id)
        if paused is not None:
            length += max(timedelta(0), now - paused)
        started, ended = fold.started.get(step.id), fold.ended.get(step.id)
        earliest = max(
            [scheduled.starts, now] + [ends[wait.step] + timedelta(minutes=wait.at_least) for wait in step.after]
        )
        begins = started or earliest
        due = started + length if started else None
        expected_end = ended or max(begins + length, now if started else begins)
        ends[step.id] = expected_end
        status: Literal["waiting", "ready", "running", "done"] = "waiting"
        if ended:
            status = "done"
        elif started:
            status = "running"
        elif fold.ready(step.id):
            status = "ready"
        window = step.window
        if told and window:
            window = DonenessWindow(first_check=told.first, done=told.done, latest=told.latest)
        states.append(
            StepState(
                id=step.id,
                status=status,
                planned_starts=scheduled.starts,
                planned_ends=scheduled.ends,
                expected_starts=begins,
                expected_ends=expected_end,
                started=started,
                ended=ended,
                due=due,
                first_check=started + timedelta(minutes=window.first_check) if started and window else None,
                latest=started + timedelta(minutes=window.latest) if started and window else None,
                late_min=(expected_end - scheduled.ends).total_seconds() / 60,
                weights=fold.weights.get(step.id, []),
                probed=probed,
                refit=told,
                paused=paused,
                count=fold.counts.get(step.id, 0),
                who=fold.who.get(step.id, scheduled.who),
            )
        )
    order = {s.step.id: i for i, s in enumerate(fold.plan.scheduled)}
    return sorted(states, key=lambda state: order[state.id])


def _in_order(plan: Plan) -> list[ScheduledStep]:
    """The steps so that each comes after all that it waits for."""
    left, placed, scheduled_steps = list(plan.scheduled), set[str](), list[ScheduledStep]()
    while left:
        for scheduled in left:
            if all(wait.step in placed for wait in scheduled.step.after):
                scheduled_steps.append(scheduled)
                placed.add(scheduled.step.id)
                left.remove(scheduled)
                break
        else:
            raise ValueError("the steps wait for each other in a circle")
    return scheduled_steps


def _focus(fold: RunFold, states: Sequence[StepState], now: datetime) -> tuple[str | None, str | None]:
    """What the cook should look at now, and what comes after it.

    First what is due or may be checked, then what the hands are in, then a step planned for about now, then the
    running step that ends soonest, and last a step whose time has not come.
    """
    hands = {s.step.id: s.step.hands for s in fold.plan.scheduled}
    open_states = [s for s in states if s.status in ("running", "ready")]
    soon = now + timedelta(minutes=SOON_MIN)

    def urgency(state: StepState) -> tuple[int, datetime]:
        due = state.due or state.planned_starts
        if state.status == "ready":
            return (2 if state.planned_starts <= soon else 4), state.planned_starts
        if (state.first_check or due) <= now and hands[state.id] != "free":
            return 0, due
        return (1 if hands[state.id] == "held" else 3), due

    ranked = sorted(open_states, key=urgency)
    focus = ranked[0].id if ranked else None
    later = [s.id for s in states if s.status in ("ready", "waiting") and s.id != focus and hands[s.id] != "free"]
    return focus, later[0] if later else None

"""The rest of a day, planned anew from what has happened: what is done is done, what runs goes on, all else is laid anew.

The time at the table is kept where it can be; where it cannot, the soonest after it is told, and what would help.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from kemble.core.computing_guard import computes
from kemble.core.facts.quantity import span_words
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.day_solver import Dish, PlanRequest, SolvedDay, key_of, solve_day, without_gaps
from kemble.core.plan.resources import HANDS_OF_A_COOK, HelperHours, hands_for, there_are
from kemble.core.plan.schedule import Plan, ScheduledStep, plan_of
from kemble.core.run.run_state import RunState, StepState
from kemble.core.sentences import say
from kemble.core.stations.steps import StepResult, StepWait

MOST_LATER_MIN = 12 * 60
MOVED_MIN = 3.0  # a step that lies so much elsewhere is told to have moved
_SECONDS = 0.4
_WAIT = "~"  # before the id of what is left of a wait whose step has ended
_MOST_TOLD = 3


@dataclass(frozen=True, slots=True)
class OpenRun:
    """A run in the flow: what it is called, its plan as it is now, and where it stands."""

    title: str
    plan: Plan
    state: RunState
    serve: datetime


@dataclass(frozen=True, slots=True)
class ReplannedRuns:
    """Where the open steps of each run lie now, in its order; by how many minutes the table is later; what moved in
    words, and what else could be done, each with what it brings."""

    scheduled: Sequence[Sequence[ScheduledStep]]
    later_min: int
    says: Sequence[str]
    choices: Sequence[str]


# Makings of a run by another school of what is still to come: in words, and its steps then.
Otherwise = Callable[[int], Iterable[tuple[str, Sequence[StepResult]]]]


@computes
def replan(
    going: Sequence[OpenRun],
    kitchen: Kitchen,
    *,
    now: datetime,
    helpers: Sequence[HelperHours] = (),
    otherwise: Otherwise | None = None,
) -> ReplannedRuns | None:
    """The rest of all that is going, at `now`; None when nothing is left, or no plan was found in the time.

    Gaps that are broken already do not hold any more: what lies too long is told by its step, not by no plan at all.
    """
    dishes = [_remaining_dish(open_run, now) for open_run in going]
    if not any(dish.steps for dish in dishes):
        return None
    asked = _plan_request(going, dishes, kitchen, now, helpers)
    solved = solve_day(asked)
    if solved is None:
        asked = replace(asked, dishes=[without_gaps(dish) for dish in asked.dishes])
        solved = solve_day(asked)
    if solved is None:
        return None
    scheduled = _scheduled_by_run(going, plan_of(asked, solved).scheduled)
    later = solved.later
    return ReplannedRuns(
        scheduled=scheduled,
        later_min=later,
        says=_change_sentences(going, scheduled, later, kitchen),
        choices=_choices(going, dishes, asked, later, otherwise) if later > 0 else [],
    )


def _plan_request(
    going: Sequence[OpenRun], dishes: Sequence[Dish], kitchen: Kitchen, now: datetime, helpers: Sequence[HelperHours]
) -> PlanRequest:
    with_steps = [
        dish if dish.steps else replace(dish, steps=[_nothing()], serve=max(dish.serve, now)) for dish in dishes
    ]
    like = {
        key_of(i, scheduled_step.step.id): scheduled_step.starts
        for i, run in enumerate(going)
        for scheduled_step in run.plan.scheduled
        if scheduled_step.starts >= now
    }
    running = {
        key_of(i, step.id): now for i, run in enumerate(going) for step in run.state.steps if step.status == "running"
    }
    return PlanRequest(
        dishes=_possible(with_steps, going, kitchen),
        kitchen=kitchen,
        helpers=helpers,
        pins=_up_to_whole_minute(running),
        like=like,
        not_before=now,
        quiet=False,
        may_be_early=True,
        later_min=MOST_LATER_MIN,
        seconds=_SECONDS,
    )


def _nothing() -> StepResult:
    """In place of a run of which nothing is left."""
    return _idle("~done", 1.0)


def _idle(name: str, minutes: float) -> StepResult:
    return StepResult(
        id=name,
        title="",
        words="",
        minutes=minutes,
        hands="free",
        uses=[],
        after=[],
        cue=None,
        window=None,
        target=None,
        to_hand=[],
        cautions=[],
    )


def _up_to_whole_minute(pins: dict[str, datetime]) -> dict[str, datetime]:
    """Instants up to the next whole minute, which is the first that a plan can begin at."""
    return {key: _next_minute(at) for key, at in pins.items()}


def _next_minute(at: datetime) -> datetime:
    whole = at.replace(second=0, microsecond=0)
    return whole if whole == at else whole + timedelta(minutes=1)


def _remaining_dish(run: OpenRun, now: datetime) -> Dish:
    """What is left of a run: its running steps for as long as they still want, and all that has not begun."""
    states = {state.id: state for state in run.state.steps}
    steps: list[StepResult] = []
    for scheduled in run.plan.scheduled:
        step, state = scheduled.step, states[scheduled.step.id]
        if state.status == "done":
            continue
        if state.status == "running":
            ends = max(state.expected_ends, now)
            steps.append(step.model_copy(update={"minutes": _span_minutes(ends - now), "after": []}))
            continue
        waits: list[StepWait] = []
        for wait in step.after:
            before = states[wait.step]
            if before.status != "done":
                waits.append(wait)
                continue
            still = _minutes_left(wait, before, now)
            if still > 0:
                idle = _idle(f"{_WAIT}{step.id}-{wait.step}", still)
                steps.append(idle)
                waits.append(StepWait(step=idle.id, at_least=0, at_most=None))
        steps.append(step.model_copy(update={"after": waits}))
    is_served = any(each.step.serves and states[each.step.id].status == "done" for each in run.plan.scheduled)
    return Dish(run.title, steps, now + timedelta(minutes=MOST_LATER_MIN) if is_served else run.serve)


def _span_minutes(span: timedelta) -> float:
    return max(1.0, span.total_seconds() / 60)


def _minutes_left(wait: StepWait, before: StepState, now: datetime) -> float:
    """Minutes that are left of a wait after a step that has ended."""
    if before.ended is None:
        return 0.0
    return wait.at_least - (now - before.ended).total_seconds() / 60


def _possible(dishes: Sequence[Dish], going: Sequence[OpenRun], kitchen: Kitchen) -> list[Dish]:
    """What runs already runs: where more hands or places are in use than there are, those over are not counted."""
    hands = HANDS_OF_A_COOK * kitchen.cooks
    used: dict[str, int] = {}
    found_dishes = []
    for dish, run in zip(dishes, going, strict=True):
        running = {state.id for state in run.state.steps if state.status == "running"}
        steps = []
        for step in dish.steps:
            if step.id in running:
                need = hands_for(step)
                step = step if need <= hands else step.model_copy(update={"hands": "free"})
                hands -= min(need, hands)
                for use in step.uses:
                    used[use] = used.get(use, 0) + 1
                over = [use for use in step.uses if used[use] > (there_are(kitchen, use) or 99)]
                if over:
                    step = step.model_copy(update={"uses": [use for use in step.uses if use not in over]})
            steps.append(step)
        found_dishes.append(replace(dish, steps=steps))
    return found_dishes


def _scheduled_by_run(going: Sequence[OpenRun], scheduled: Sequence[ScheduledStep]) -> list[list[ScheduledStep]]:
    """The steps that have not begun, each with its own step again, waits and all."""
    by_run: list[list[ScheduledStep]] = [[] for _ in going]
    for scheduled_step in scheduled:
        run = going[scheduled_step.dish]
        states = {state.id: state for state in run.state.steps}
        if scheduled_step.step.id in states and states[scheduled_step.step.id].status != "running":
            own = next(each for each in run.plan.scheduled if each.step.id == scheduled_step.step.id)
            by_run[scheduled_step.dish].append(scheduled_step.model_copy(update={"step": own.step, "dish": own.dish}))
    return by_run


def _change_sentences(
    going: Sequence[OpenRun], scheduled: Sequence[Sequence[ScheduledStep]], later: int, kitchen: Kitchen
) -> list[str]:
    """What moved, the table first."""
    says = []
    serve = max(run.serve for run in going)
    if later > 0:
        at = (serve + timedelta(minutes=later)).astimezone(kitchen.zone)
        says.append(
            say(
                "On the table at {clock_words}, {span_words} later than planned.",
                clock_words=kitchen.clock_words(at),
                span_words=span_words(later),
            )
        )
    moved = []
    for run, steps in zip(going, scheduled, strict=True):
        was = {scheduled_step.step.id: scheduled_step.starts for scheduled_step in run.plan.scheduled}
        for scheduled_step in steps:
            by = (scheduled_step.starts - was[scheduled_step.step.id]).total_seconds() / 60
            if abs(by) >= MOVED_MIN and scheduled_step.step.hands != "free":
                moved.append((scheduled_step.starts, by, scheduled_step))
    moved.sort(key=lambda each: each[0])
    for starts, by, scheduled_step in moved[:_MOST_TOLD]:
        way = "later" if by > 0 else "earlier"
        when = kitchen.clock_words(starts.astimezone(kitchen.zone))
        says.append(f"{scheduled_step.step.title}: {when}, {span_words(abs(by))} {way}.")
    if len(moved) > _MOST_TOLD:
        says.append(say("{steps} more steps move with them.", steps=len(moved) - _MOST_TOLD))
    if moved and later <= 0:
        says.append(say("The time at the table is kept."))
    return says


def _choices(
    going: Sequence[OpenRun], dishes: Sequence[Dish], asked: PlanRequest, later: int, otherwise: Otherwise | None
) -> list[str]:
    """What would bring the table nearer to its time, each solved before it is told."""
    result = []
    helped = solve_day(replace(asked, more_cooks=1))
    if helped is not None and helped.later < later:
        result.append(say("A second pair of hands from now on: {brings}.", brings=_fix_words(helped)))
    if otherwise is None:
        return result
    for i, run in enumerate(going):
        open_ids = {state.id for state in run.state.steps if state.status in ("ready", "waiting")}
        for says, steps in otherwise(i):
            tried = _instead(dishes[i], steps, open_ids)
            if tried is None:
                continue
            others = [tried if j == i else dish for j, dish in enumerate(asked.dishes)]
            placed = solve_day(replace(asked, dishes=others))
            if placed is not None and placed.later < later:
                result.append(f"{run.title}, {says}: {_fix_words(placed)}.")
    return result


def _fix_words(placed: SolvedDay) -> str:
    return say("in time") if placed.later <= 0 else say("{span_words} late", span_words=span_words(placed.later))


def _instead(dish: Dish, steps: Sequence[StepResult], open_ids: set[str]) -> Dish | None:
    """The dish with its open steps as another school has them; None where that has other steps."""
    by_id = {step.id: step for step in steps}
    if any(step.id in open_ids and step.id not in by_id for step in dish.steps):
        return None
    return replace(
        dish,
        steps=[
            step.model_copy(update={"minutes": by_id[step.id].minutes}) if step.id in open_ids else step
            for step in dish.steps
        ],
    )

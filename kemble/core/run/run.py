"""A run: an append-only list of events folded over the plan it follows.

Clocks are instants (started at, due at), never counters. The core has no clock of its own: `now` comes in.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.devices.probe import Probed, Refit, refit
from kemble.core.facts.problems import Problem, Refused
from kemble.core.facts.quantity import TemperatureUnit
from kemble.core.plan.schedule import Plan, Scheduled
from kemble.core.stations.heat.curve import Curve
from kemble.core.stations.steps import StepWorked, Window

EventKind = Literal["started", "done", "not_yet", "weighed", "probed", "noted", "fault", "undone", "redone", "finished"]
NOT_YET_MIN = 5.0
SOON_MIN = 2.0  # a step planned this near is for now
NEEDS_STEP = frozenset({"started", "done", "not_yet", "weighed", "probed"})
# What an "undone" without an `of` takes back: the newest of these that stands. Events were kept so at first.
_MARKS = frozenset({"started", "done", "not_yet", "probed"})


class Event(BaseModel):
    """One thing that happened. `uid` is made where it happened, so that sending it twice does no harm.

    "undone" takes back the event whose uid is `of`, whatever it was; "redone" lets it stand again.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each event")
    at: datetime = Field(description="an instant with its time zone")
    kind: EventKind = Field(
        description="started, done, not_yet, weighed, probed, noted, fault, undone, redone or finished"
    )
    step: str | None = Field(None, max_length=40, description="a step of the run")
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")
    celsius: float | None = Field(None, ge=-60, le=400, allow_inf_nan=False, description="-60 to 400 °C")
    text: str = Field("", max_length=1000, description="at most 1000 letters")
    of: str | None = Field(None, max_length=64, description="the uid of the event that is undone or redone")


class StepWeight(BaseModel):
    at: datetime
    grams: float


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
    probed: list[Probed] = []
    refit: Refit | None = None


class Heart(BaseModel):
    """The heart's temperature as it was told for one load, and its window, in minutes from the start of the heat."""

    model_config = ConfigDict(frozen=True)

    curve: Curve
    first: float
    done: float
    latest: float


class Note(BaseModel):
    at: datetime
    step: str | None
    kind: Literal["noted", "fault"]
    text: str


class RunState(BaseModel):
    """The whole run at an instant."""

    status: Literal["running", "finished"]
    now: datetime
    steps: list[StepState]
    focus: str | None
    next: str | None
    notes: list[Note]
    serve: datetime
    expected_serve: datetime
    late_min: float


class _Fold:
    """The running total of the events."""

    def __init__(self, plan: Plan) -> None:
        self.plan = plan
        self.steps = {s.step.id: s for s in plan.scheduled}
        self.started: dict[str, datetime] = {}
        self.ended: dict[str, datetime] = {}
        self.extra: dict[str, float] = {}
        self.weights: dict[str, list[StepWeight]] = {}
        self.probed: dict[str, list[tuple[datetime, float]]] = {}
        self.notes: list[Note] = []
        self.finished = False

    def ready(self, step_id: str) -> bool:
        return all(wait.step in self.ended for wait in self.steps[step_id].step.after)

    def apply(self, event: Event) -> None:
        step = event.step
        if event.kind == "finished":
            self.finished = True
        elif event.kind in ("noted", "fault"):
            kind: Literal["noted", "fault"] = "fault" if event.kind == "fault" else "noted"
            self.notes.append(Note(at=event.at, step=step, kind=kind, text=event.text))
        elif step is None or step not in self.steps:
            return
        elif event.kind == "started":
            self._begin(step, event.at)
        elif event.kind == "done":
            self._begin(step, event.at)
            self.ended[step] = event.at
            self._let_go(event.at)
        elif event.kind == "not_yet":
            self.extra[step] = self.extra.get(step, 0.0) + NOT_YET_MIN
        elif event.kind == "weighed" and event.grams is not None:
            self.weights.setdefault(step, []).append(StepWeight(at=event.at, grams=event.grams))
        elif event.kind == "probed" and event.celsius is not None:
            self.probed.setdefault(step, []).append((event.at, event.celsius))

    def _begin(self, step: str, at: datetime) -> None:
        """Start a step; whatever free step it was waiting for has ended by that."""
        for wait in self.steps[step].step.after:
            before = self.steps[wait.step].step
            if before.hands == "free" and before.id in self.started and before.id not in self.ended:
                self.ended[before.id] = at
        self.started.setdefault(step, at)

    def _let_go(self, at: datetime) -> None:
        """Free steps need no hand to begin: they start when the last step before them is done."""
        for scheduled in self.plan.scheduled:
            step = scheduled.step
            if step.hands == "free" and step.after and step.id not in self.started and self.ready(step.id):
                self.started[step.id] = at


def standing(plan: Plan, events: Sequence[Event]) -> list[Event]:
    """The events that count: without those taken back, and without the taking back itself."""
    steps = {s.step.id for s in plan.scheduled}
    stands: dict[str, Event] = {}
    away: set[str] = set()
    for event in events:
        if event.kind == "undone":
            of = event.of or next(
                (
                    one.uid
                    for one in reversed(stands.values())
                    if one.uid not in away and one.kind in _MARKS and one.step in steps
                ),
                None,
            )
            if of in stands and stands[of].kind != "finished":
                away.add(of)
        elif event.kind == "redone":
            away.discard(event.of or "")
        elif event.uid not in stands:
            stands[event.uid] = event
    return [event for uid, event in stands.items() if uid not in away]


def check_event(plan: Plan, event: Event) -> None:
    """Raises Refused when an event names a step that the run does not have, or lacks what its kind needs."""
    ids = [s.step.id for s in plan.scheduled]
    if event.kind in NEEDS_STEP and event.step not in ids:
        raise Refused([Problem(path="step", says=f'"{event.step}" is not a step of this run', accepts=", ".join(ids))])
    if event.kind == "weighed" and event.grams is None:
        raise Refused([Problem(path="grams", says="is missing", accepts="a weight above 0 g")])
    if event.kind == "probed":
        windows = [s.step.id for s in plan.scheduled if s.step.window]
        if event.celsius is None:
            raise Refused([Problem(path="celsius", says="is missing", accepts="-60 to 400 °C")])
        if event.step not in windows:
            says = f'"{event.step}" has no window that a temperature could move'
            raise Refused([Problem(path="step", says=says, accepts=", ".join(windows) or "no step of this run")])
    if event.kind == "redone" and event.of is None:
        raise Refused([Problem(path="of", says="is missing", accepts="the uid of the event that stands again")])
    if event.kind in ("noted", "fault") and not event.text.strip():
        raise Refused([Problem(path="text", says="is empty", accepts="1 to 1000 letters")])


def state_of(
    plan: Plan, events: Sequence[Event], now: datetime, heart: Heart | None = None, unit: TemperatureUnit = "C"
) -> RunState:
    """Fold the events over the plan and look at it at `now`.

    With the `heart` as it was told, what is probed tells the rest of its step's window anew (words in `unit`).
    """
    fold = _Fold(plan)
    for event in standing(plan, events):
        fold.apply(event)
    states = _project(fold, now, heart, unit)
    serve_ends = max(s.expected_ends for s in states)
    focus, following = _focus(fold, states, now)
    return RunState(
        status="finished" if fold.finished else "running",
        now=now,
        steps=states,
        focus=focus,
        next=following,
        notes=fold.notes,
        serve=plan.serve,
        expected_serve=serve_ends,
        late_min=(serve_ends - plan.serve).total_seconds() / 60,
    )


def _probed(fold: _Fold, step: StepWorked, heart: Heart | None) -> list[Probed]:
    """What was read in a step's last load, in minutes since that went in."""
    started = fold.started.get(step.id)
    if started is None:
        return []
    before = max(0.0, _shift(step, heart))
    return [
        Probed(minute=(at - started).total_seconds() / 60 - before, celsius=celsius)
        for at, celsius in fold.probed.get(step.id, [])
    ]


def _shift(step: StepWorked, heart: Heart | None) -> float:
    """Minutes by which a step's window is later than that of one load: by the loads before it, or, when the step ends
    with something still to come, less than none."""
    return step.window.done - heart.done if step.window and heart else 0.0


def _refit(step: StepWorked, heart: Heart | None, probed: Sequence[Probed], unit: TemperatureUnit) -> Refit | None:
    """The step's window told anew; None when nothing was probed, or nothing is known of its heart."""
    if heart is None or step.window is None:
        return None
    shift = _shift(step, heart)
    found = refit(heart.curve, (heart.first, heart.done, heart.latest), probed, unit)
    return found and found.model_copy(
        update={name: getattr(found, name) + shift for name in ("first", "done", "latest", "was_done")}
    )


def _project(fold: _Fold, now: datetime, heart: Heart | None, unit: TemperatureUnit) -> list[StepState]:
    """Carry what has happened forward: a step begins when planned, or as soon after as what it waits for allows."""
    ends: dict[str, datetime] = {}
    states = []
    for scheduled in _in_order(fold.plan):
        step = scheduled.step
        probed = _probed(fold, step, heart)
        told = _refit(step, heart, probed, unit)
        length = timedelta(minutes=(told.done if told else step.minutes) + fold.extra.get(step.id, 0.0))
        started, ended = fold.started.get(step.id), fold.ended.get(step.id)
        earliest = max(
            [scheduled.starts, *([] if started else [now])]
            + [ends[wait.step] + timedelta(minutes=wait.at_least) for wait in step.after]
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
            window = Window(first_check=told.first, done=told.done, latest=told.latest)
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
            )
        )
    order = {s.step.id: i for i, s in enumerate(fold.plan.scheduled)}
    return sorted(states, key=lambda state: order[state.id])


def _in_order(plan: Plan) -> list[Scheduled]:
    """The steps so that each comes after all that it waits for."""
    left, placed, found = list(plan.scheduled), set[str](), list[Scheduled]()
    while left:
        for scheduled in left:
            if all(wait.step in placed for wait in scheduled.step.after):
                found.append(scheduled)
                placed.add(scheduled.step.id)
                left.remove(scheduled)
                break
        else:
            raise ValueError("the steps wait for each other in a circle")
    return found


def _focus(fold: _Fold, states: Sequence[StepState], now: datetime) -> tuple[str | None, str | None]:
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

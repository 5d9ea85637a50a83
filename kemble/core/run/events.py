"""Events: what happens in a making, kept as documents; which of them count, and what they add up to.

A run is an append-only list of events. A new kind, or a kind with something new to carry, is written here: its row in
KINDS, its field in Event, its line in the fold. Nothing in the database knows of it.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import refuse
from kemble.core.facts.vocabulary import PartRole
from kemble.core.plan.schedule import Plan, Scheduled
from kemble.core.stations.heat.curve import CoreCurve
from kemble.core.words import Words, say

EventKind = Literal[
    "started",
    "done",
    "not_yet",
    "paused",
    "resumed",
    "counted",
    "weighed",
    "probed",
    "added",
    "handed",
    "noted",
    "fault",
    "undone",
    "redone",
    "replanned",
    "finished",
]


class Kind(NamedTuple):
    """What an event of a kind has to carry beside its instant."""

    of_a_step: bool = False
    carries: str = ""  # the field that must be there ...
    accepts: str = ""  # ... and what it may be
    ours: bool = False  # only Kemble itself adds it
    idle: bool = False  # moves nothing that comes after


KINDS: dict[EventKind, Kind] = {
    "started": Kind(of_a_step=True),
    "done": Kind(of_a_step=True),
    "not_yet": Kind(of_a_step=True),
    "weighed": Kind(of_a_step=True, carries="grams", accepts="a weight above 0 g"),
    "probed": Kind(of_a_step=True, carries="celsius", accepts="-60 to 400 °C"),
    "paused": Kind(of_a_step=True),
    "resumed": Kind(of_a_step=True),
    "counted": Kind(of_a_step=True, carries="times", accepts="a whole number from 1 to 1000", idle=True),
    "added": Kind(carries="added", accepts="an ingredient, the part it went into, and its grams"),
    "handed": Kind(of_a_step=True, carries="text", accepts="who has it now, in 1 to 40 letters", idle=True),
    "noted": Kind(carries="text", accepts="1 to 1000 letters", idle=True),
    "fault": Kind(carries="text", accepts="1 to 1000 letters", idle=True),
    "undone": Kind(),
    "redone": Kind(carries="of", accepts="the uid of the event that stands again"),
    "replanned": Kind(carries="rest", accepts="the rest of the plan", ours=True),
    "finished": Kind(),
}
NOT_YET_MIN = 5.0
# What an "undone" without an `of` takes back: the newest of these that stands. Events were kept so at first.
_MARKS = frozenset({"started", "done", "not_yet", "probed"})


class Added(BaseModel):
    """Some grams of an ingredient that went into a part beside what the sheet says."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    ingredient: str = Field(min_length=1, max_length=80, description="an ingredient of the larder")
    part: PartRole = "base"
    grams: float = Field(gt=0, le=10_000, allow_inf_nan=False, description="above 0, at most 10 000 g")


class Rest(BaseModel):
    """The plan from here on: steps that have not ended, where they lie now. `says` what moved and why, `choices` what
    else could be done about it; `facts` that are otherwise than at
    first and `core`, where either moved."""

    model_config = ConfigDict(frozen=True)

    scheduled: list[Scheduled]
    says: list[Words]
    choices: list[str] = []
    facts: dict[str, Fact] | None = None
    core: CoreCurve | None = None
    late_min: int = 0


class Happening(BaseModel):
    """What an event says: its kind, and what that carries. `sure`: a reading that was doubted, and stands.

    "undone" takes back the event whose uid is `of`, whatever it was; "redone" lets it stand again.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    kind: EventKind = Field(description=", ".join(KINDS))
    step: str | None = Field(None, max_length=40, description="a step of the run")
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")
    celsius: float | None = Field(None, ge=-60, le=400, allow_inf_nan=False, description="-60 to 400 °C")
    text: str = Field("", max_length=1000, description="at most 1000 letters")
    of: str | None = Field(None, max_length=64, description="the uid of the event that is undone or redone")
    times: int | None = Field(None, ge=1, le=1000, description="a whole number from 1 to 1000")
    added: Added | None = Field(None, description="an ingredient, the part it went into, and its grams")
    sure: bool = False


class Event(Happening):
    """One thing that happened. `uid` is made where it happened, so that sending it twice does no harm.

    Where the clock of the device that sent it was off, `device_at` is what that clock showed, and `clock_error_s` how many
    seconds it was slow (device_clock.py); `at` is corrected by that.
    """

    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each event")
    at: datetime = Field(description="an instant with its time zone")
    rest: Rest | None = None
    device_at: datetime | None = None
    clock_error_s: float | None = None

    @property
    def document(self) -> dict[str, Any]:
        """What is kept of it beside who sent it and when."""
        return self.model_dump(mode="json", exclude={"uid", "at"}, exclude_defaults=True)


def event_from(uid: str, at: datetime, document: dict[str, Any]) -> Event:
    """An event as it was kept."""
    return Event.model_validate({**document, "uid": uid, "at": at})


class Note(BaseModel):
    at: datetime
    step: str | None
    kind: Literal["noted", "fault"]
    text: str


class StepWeight(BaseModel):
    at: datetime
    grams: float


class Fold:
    """The running total of the events: what has begun and ended, what was weighed, probed, noted."""

    def __init__(self, plan: Plan) -> None:
        self.plan = plan
        self.steps = {s.step.id: s for s in plan.scheduled}
        self.started: dict[str, datetime] = {}
        self.ended: dict[str, datetime] = {}
        self.extra: dict[str, float] = {}
        self.paused: dict[str, datetime] = {}  # since when its clock stands
        self.counts: dict[str, int] = {}
        self.who: dict[str, str] = {}
        self.added: list[Added] = []
        self.says: list[str] = []  # of the newest plan of the rest
        self.choices: list[str] = []
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
        elif event.kind == "added" and event.added is not None:
            self.added.append(event.added)
        elif event.kind == "replanned" and event.rest is not None:
            self.says, self.choices = event.rest.says, event.rest.choices
        elif step is None or step not in self.steps:
            return
        elif event.kind == "started":
            self._begin(step, event.at)
        elif event.kind == "done":
            self._begin(step, event.at)
            self._resume(step, event.at)
            self.ended[step] = event.at
            self._let_go(event.at)
        elif event.kind == "not_yet":
            self.extra[step] = self.extra.get(step, 0.0) + NOT_YET_MIN
        elif event.kind == "paused" and step in self.started and step not in self.ended:
            self.paused.setdefault(step, event.at)
        elif event.kind == "resumed":
            self._resume(step, event.at)
        elif event.kind == "counted":
            self.counts[step] = self.counts.get(step, 0) + (event.times or 0)
        elif event.kind == "handed":
            self.who[step] = event.text
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

    def _resume(self, step: str, at: datetime) -> None:
        since = self.paused.pop(step, None)
        if since is not None:
            self.extra[step] = self.extra.get(step, 0.0) + max(0.0, (at - since).total_seconds() / 60)

    def _let_go(self, at: datetime) -> None:
        """Free steps need no hand to begin: they start when the last step before them is done."""
        for scheduled in self.plan.scheduled:
            step = scheduled.step
            if step.hands == "free" and step.after and step.id not in self.started and self.ready(step.id):
                self.started[step.id] = at


def standing(plan: Plan, events: Sequence[Event]) -> list[Event]:
    """The events that count: without those taken back, and without the taking back itself.

    A plan of the rest counts while what had happened before it counts as it did when that plan was made.
    """
    steps = {s.step.id for s in plan.scheduled}
    stands: dict[str, Event] = {}
    away: set[str] = set()
    knew: dict[str, frozenset[str]] = {}  # of each plan of the rest, what was away when it was made
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
            if event.kind == "replanned":
                knew[event.uid] = frozenset(away)
    return _without_fallen([event for event in stands.values() if event.uid not in away], stands, away, knew)


def _without_fallen(
    left: list[Event], all_by_uid: Mapping[str, Event], away: set[str], knew: Mapping[str, frozenset[str]]
) -> list[Event]:
    if not knew:
        return left
    fallen: set[str] = set()
    before: set[str] = set()  # of what moves anything
    for uid, event in all_by_uid.items():
        if uid in knew and away & before != knew[uid] & before:
            fallen.add(uid)
        if not KINDS[event.kind].idle:
            before.add(uid)
    return [event for event in left if event.uid not in fallen]


def rests_of(plan: Plan, events: Sequence[Event]) -> list[Rest]:
    """The plans of the rest that stand, the newest last."""
    return [event.rest for event in standing(plan, events) if event.kind == "replanned" and event.rest]


def plan_now(plan: Plan, events: Sequence[Event]) -> Plan:
    """The plan with its steps where the newest plan of the rest has them; every step that it says nothing of as it was."""
    rests = rests_of(plan, events)
    if not rests:
        return plan
    newest = {one.step.id: one for rest in rests for one in rest.scheduled}
    return plan.model_copy(update={"scheduled": [newest.get(one.step.id, one) for one in plan.scheduled]})


def check_event(plan: Plan, event: Event) -> None:
    """Raises Refused when an event names a step that the run does not have, or lacks what its kind needs."""
    kind, ids = KINDS[event.kind], [s.step.id for s in plan.scheduled]
    if kind.ours and not event.rest:
        refuse(
            "kind",
            say('"{kind}" is not for a cook to say', kind=event.kind),
            ", ".join(k for k, v in KINDS.items() if not v.ours),
        )
    if kind.of_a_step and event.step not in ids:
        refuse("step", say('"{step}" is not a step of this run', step=event.step), ", ".join(ids))
    carried = getattr(event, kind.carries) if kind.carries else True
    if carried is None:
        refuse(kind.carries, say("is missing"), kind.accepts)
    if isinstance(carried, str) and not carried.strip():
        refuse(kind.carries, say("is empty"), kind.accepts)
    bounds = next((s.step.bounds for s in plan.scheduled if s.step.id == event.step), None)
    doubt = bounds.doubt(grams=event.grams, celsius=event.celsius) if bounds and not event.sure else ""
    if doubt:
        refuse(
            "grams" if event.grams is not None else "celsius", doubt.rstrip("."), say("a reading that can be, or sure")
        )
    windows = [s.step.id for s in plan.scheduled if s.step.window]
    if event.kind == "probed" and event.step not in windows:
        says = say('"{step}" has no window that a temperature could move', step=event.step)
        refuse("step", says, ", ".join(windows) or say("no step of this run"))

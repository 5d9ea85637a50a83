"""Which events of a run count, and what they add up to; each kind has a row in a table."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from typing import Any, Final, Literal

from pydantic import BaseModel

from kemble.core.plan.schedule import Plan
from kemble.core.run.amendments import with_amendments
from kemble.core.run.events import (
    AddedIngredient,
    AnyEvent,
    CoreProbed,
    EventRedone,
    EventUndone,
    FaultSeen,
    IngredientAdded,
    MethodAmended,
    NoteWritten,
    PiecesCounted,
    PlanRest,
    RestReplanned,
    RunFinished,
    StepDone,
    StepEvent,
    StepHandedOver,
    StepNotYet,
    StepPaused,
    StepResumed,
    StepSkipped,
    StepStarted,
    StepWeighed,
)
from kemble.core.sheet.method import OwnStep

NOT_YET_MIN: Final = 5.0  # that a step is given when it was looked at and wants longer (kitchen estimate)
# What an "undone" without an `of` takes back: the newest of these that stands. Early pages sent it so.
UNDONE_UNNAMED: Final = ("started", "done", "not_yet", "probed")


class RunNote(BaseModel):
    at: datetime
    step: str | None
    kind: Literal["noted", "fault"]
    text: str


class StepWeight(BaseModel):
    at: datetime
    grams: float


class RunFold:
    """The running total of the events: what has begun and ended, what was weighed, probed, noted."""

    def __init__(self, plan: Plan) -> None:
        self.plan = plan
        self.steps = {scheduled.step.id: scheduled.step for scheduled in plan.scheduled}
        self.started: dict[str, datetime] = {}
        self.ended: dict[str, datetime] = {}
        self.extra: dict[str, float] = {}  # minutes
        self.paused: dict[str, datetime] = {}  # since when its clock stands
        self.counts: dict[str, int] = {}
        self.who: dict[str, str] = {}
        self.added: list[AddedIngredient] = []
        self.says: list[str] = []  # of the newest plan of the rest
        self.choices: list[str] = []
        self.weights: dict[str, list[StepWeight]] = {}
        self.probed: dict[str, list[tuple[datetime, float]]] = {}  # instant, °C
        self.notes: list[RunNote] = []
        self.finished = False

    def apply(self, event: AnyEvent) -> None:
        """Add an event. One of a step that the plan does not have adds nothing."""
        if isinstance(event, StepEvent) and event.step not in self.steps:
            return
        _ADDS[event.kind](self, event)

    def ready(self, step_id: str) -> bool:
        return all(wait.step in self.ended for wait in self.steps[step_id].after)

    def _start(self, event: StepStarted) -> None:
        self._begin(event.step, event.at)

    def _end(self, event: StepDone) -> None:
        self._begin(event.step, event.at)
        self._resume(event.step, event.at)
        self.ended[event.step] = event.at
        self._start_free_steps(event.at)

    def _skip(self, event: StepSkipped) -> None:
        """Over, but never begun: nothing is learned of it."""
        if event.step in self.ended:
            return
        self.started.pop(event.step, None)
        self.paused.pop(event.step, None)
        self.ended[event.step] = event.at
        self._start_free_steps(event.at)

    def _extend(self, event: StepNotYet) -> None:
        self.extra[event.step] = self.extra.get(event.step, 0.0) + NOT_YET_MIN

    def _pause(self, event: StepPaused) -> None:
        if event.step in self.started and event.step not in self.ended:
            self.paused.setdefault(event.step, event.at)

    def _go_on(self, event: StepResumed) -> None:
        self._resume(event.step, event.at)

    def _count(self, event: PiecesCounted) -> None:
        self.counts[event.step] = self.counts.get(event.step, 0) + event.times

    def _weigh(self, event: StepWeighed) -> None:
        self.weights.setdefault(event.step, []).append(StepWeight(at=event.at, grams=event.grams))

    def _probe(self, event: CoreProbed) -> None:
        self.probed.setdefault(event.step, []).append((event.at, event.celsius))

    def _add_ingredient(self, event: IngredientAdded) -> None:
        self.added.append(event.added)

    def _hand_over(self, event: StepHandedOver) -> None:
        self.who[event.step] = event.text

    def _note(self, event: NoteWritten | FaultSeen) -> None:
        self.notes.append(RunNote(at=event.at, step=event.step, kind=event.kind, text=event.text))

    def _replan(self, event: RestReplanned) -> None:
        self.says, self.choices = event.rest.says, event.rest.choices

    def _finish(self, _: RunFinished) -> None:
        self.finished = True

    def _nothing(self, _: EventUndone | EventRedone | MethodAmended) -> None:
        """These say which others count (`events_that_count`), or change the plan itself (`plan_now`)."""

    def _begin(self, step_id: str, at: datetime) -> None:
        """Start a step; whatever free step it was waiting for has ended by that."""
        for wait in self.steps[step_id].after:
            before = self.steps[wait.step]
            if before.hands == "free" and before.id in self.started and before.id not in self.ended:
                self.ended[before.id] = at
        self.started.setdefault(step_id, at)

    def _resume(self, step_id: str, at: datetime) -> None:
        since = self.paused.pop(step_id, None)
        if since is not None:
            self.extra[step_id] = self.extra.get(step_id, 0.0) + max(0.0, (at - since).total_seconds() / 60)

    def _start_free_steps(self, at: datetime) -> None:
        """Free steps need no hand to begin: they start when the last step before them is done."""
        for scheduled in self.plan.scheduled:
            step = scheduled.step
            if step.hands == "free" and step.after and step.id not in self.started and self.ready(step.id):
                self.started[step.id] = at


# What an event of each kind adds; a kind without its row raises.
_ADDS: Final[Mapping[str, Callable[[RunFold, Any], None]]] = {
    "started": RunFold._start,
    "done": RunFold._end,
    "not_yet": RunFold._extend,
    "paused": RunFold._pause,
    "resumed": RunFold._go_on,
    "skipped": RunFold._skip,
    "amended": RunFold._nothing,
    "counted": RunFold._count,
    "weighed": RunFold._weigh,
    "probed": RunFold._probe,
    "added": RunFold._add_ingredient,
    "handed": RunFold._hand_over,
    "noted": RunFold._note,
    "fault": RunFold._note,
    "undone": RunFold._nothing,
    "redone": RunFold._nothing,
    "replanned": RunFold._replan,
    "finished": RunFold._finish,
}


def events_that_count(plan: Plan, events: Sequence[AnyEvent]) -> list[AnyEvent]:
    """The events that count: without those taken back, and without the taking back itself.

    A plan of the rest counts while what had happened before it counts as it did when that plan was made.
    """
    steps = {scheduled.step.id for scheduled in plan.scheduled}
    stands: dict[str, AnyEvent] = {}
    away: set[str] = set()
    away_at: dict[str, frozenset[str]] = {}  # of each plan of the rest, what was away when it was made
    for event in events:
        if event.kind == "undone":
            of = event.of or _newest_unnamed(stands, away, steps)
            if of in stands and stands[of].kind != "finished":
                away.add(of)
        elif event.kind == "redone":
            away.discard(event.of)
        elif event.uid not in stands:
            stands[event.uid] = event
            if event.kind == "replanned":
                away_at[event.uid] = frozenset(away)
    fallen = _fallen(stands, away, away_at)
    return [event for event in stands.values() if event.uid not in away and event.uid not in fallen]


def _newest_unnamed(stands: dict[str, AnyEvent], away: set[str], steps: set[str]) -> str | None:
    for event in reversed(stands.values()):
        if event.uid not in away and event.kind in UNDONE_UNNAMED and event.step in steps:
            return event.uid
    return None


def _fallen(stands: Mapping[str, AnyEvent], away: set[str], away_at: Mapping[str, frozenset[str]]) -> set[str]:
    """The plans of the rest that count no longer."""
    fallen: set[str] = set()
    before: set[str] = set()  # of what changes anything that comes after
    for uid, event in stands.items() if away_at else ():
        if uid in away_at and away & before != away_at[uid] & before:
            fallen.add(uid)
        if not event.idle:
            before.add(uid)
    return fallen


def rests_of(plan: Plan, events: Sequence[AnyEvent]) -> list[PlanRest]:
    """The plans of the rest that stand, the newest last."""
    return [event.rest for event in events_that_count(plan, events) if event.kind == "replanned"]


def plan_now(plan: Plan, events: Sequence[AnyEvent]) -> Plan:
    """The plan with its steps where the newest plan of the rest has them, every step that it says nothing of as it was; and
    with what the cook has changed of its method meanwhile."""
    counting = events_that_count(plan, events)
    newest = {
        scheduled.step.id: scheduled
        for event in counting
        if event.kind == "replanned"
        for scheduled in event.rest.scheduled
    }
    if newest:
        steps = [newest.get(scheduled.step.id, scheduled) for scheduled in plan.scheduled]
        plan = plan.model_copy(update={"scheduled": steps})
    entries = [event.entry for event in counting if event.kind == "amended"]
    if not entries:
        return plan
    plan = with_amendments(plan, entries)
    added = {entry.own for entry in entries if isinstance(entry, OwnStep)}.intersection(newest)
    return plan.model_copy(
        update={
            "scheduled": [
                each.model_copy(update={"starts": newest[each.step.id].starts, "ends": newest[each.step.id].ends})
                if each.step.id in added
                else each
                for each in plan.scheduled
            ]
        }
    )

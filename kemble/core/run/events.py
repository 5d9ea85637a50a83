"""The events of a run: one class for each kind, stored as documents.

A run is an append-only list of events. A new kind is a class here, its row in the table of the fold (fold.py), and the
same two on the page (web/src/runs/fold.ts, eventWords.ts), which does not compile without them. Nothing in the database
knows of kinds.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Annotated, Any, ClassVar, Final, Literal, get_args

from pydantic import BaseModel, ConfigDict, Discriminator, Field, Tag, ValidationError

from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import Refused, problems_from, refuse
from kemble.core.facts.vocabulary import PART_ID, PartId
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.sentences import Words, say
from kemble.core.sheet.method import OwnStep, StepChange, kind_of_entry
from kemble.core.stations.heat.core_curve import CoreCurve

# What of a method may change while it is being made.
Amendment = Annotated[
    Annotated[StepChange, Tag("entry-step")] | Annotated[OwnStep, Tag("entry-own")], Discriminator(kind_of_entry)
]
MAX_TEXT: Final = 1000  # letters of a note


class AddedIngredient(BaseModel):
    """Some grams of an ingredient that went into a part beside what the sheet says."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    ingredient: str = Field(min_length=1, max_length=80, description="an ingredient of the larder")
    part: PartId = Field("base", pattern=PART_ID, description="a part of the sheet")
    grams: float = Field(gt=0, le=10_000, allow_inf_nan=False, description="above 0, at most 10 000 g")


class PlanRest(BaseModel):
    """The plan from here on: steps that have not ended, where they lie now. `says` what moved and why, `choices` what
    else could be done about it; `facts` that are otherwise than at first and `core`, where either moved."""

    model_config = ConfigDict(frozen=True)

    scheduled: list[ScheduledStep]
    says: list[Words]
    choices: list[str] = []
    facts: dict[str, Fact] | None = None
    core: CoreCurve | None = None
    late_min: int = 0


class EventBase(BaseModel):
    """What every event has. `uid` is made where it happened, so that sending it twice does no harm. `step` is None where
    the event is of the whole run.

    Where the clock of the device that sent it was off, `device_at` is what that clock showed, and `clock_error_s` how many
    seconds it was slow (device_clock.py); `at` is corrected by that.

    A document may hold more than its kind has: early pages sent the fields of every kind with each.
    """

    model_config = ConfigDict(frozen=True)

    idle: ClassVar[bool] = False  # changes nothing that comes after it
    by_kemble: ClassVar[bool] = False  # Kemble adds it, never a cook

    kind: str
    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each event")
    at: datetime = Field(description="an instant with its time zone")
    step: str | None = Field(None, max_length=40, description="a step of the run")
    device_at: datetime | None = None
    clock_error_s: float | None = None

    @property
    def document(self) -> dict[str, Any]:
        """What is stored of it beside who sent it and when."""
        return self.model_dump(mode="json", exclude={"uid", "at"}, exclude_defaults=True)


class StepEvent(EventBase):
    step: str = Field(max_length=40, description="a step of the run")


class StepStarted(StepEvent):
    kind: Literal["started"]


class StepDone(StepEvent):
    kind: Literal["done"]


class StepNotYet(StepEvent):
    """It was looked at, and wants longer."""

    kind: Literal["not_yet"]


class StepPaused(StepEvent):
    kind: Literal["paused"]


class StepResumed(StepEvent):
    kind: Literal["resumed"]


class StepSkipped(StepEvent):
    """It is left out this time: over without having been done."""

    kind: Literal["skipped"]


class MethodAmended(EventBase):
    """A step is done otherwise this time, or there is one more: an entry as a sheet's method has it."""

    kind: Literal["amended"]
    entry: Amendment = Field(description="a step with its minutes or words, or a step of the cook's own")


class PiecesCounted(StepEvent):
    kind: Literal["counted"]
    idle = True
    times: int = Field(ge=1, le=1000, description="a whole number from 1 to 1000")


class ReadingEvent(StepEvent):
    """`sure`: the reading was doubted, and the cook stands by it."""

    sure: bool = False


class StepWeighed(ReadingEvent):
    kind: Literal["weighed"]
    grams: float = Field(gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")


class CoreProbed(ReadingEvent):
    kind: Literal["probed"]
    celsius: float = Field(ge=-60, le=400, allow_inf_nan=False, description="-60 to 400 °C")


class IngredientAdded(EventBase):
    kind: Literal["added"]
    added: AddedIngredient = Field(description="an ingredient, the part it went into, and its grams")


class StepHandedOver(StepEvent):
    """`text` is who has it now."""

    kind: Literal["handed"]
    idle = True
    text: str = Field(max_length=MAX_TEXT, description="who has it now, in 1 to 40 letters")


class WrittenEvent(EventBase):
    idle = True
    text: str = Field(max_length=MAX_TEXT, description="1 to 1000 letters")


class NoteWritten(WrittenEvent):
    kind: Literal["noted"]


class FaultSeen(WrittenEvent):
    kind: Literal["fault"]


class EventUndone(EventBase):
    """Takes back the event whose uid is `of`, whatever that was; early events name none."""

    kind: Literal["undone"]
    of: str | None = Field(None, max_length=64, description="the uid of the event that is undone")


class EventRedone(EventBase):
    """Lets an event that was undone stand again."""

    kind: Literal["redone"]
    of: str = Field(max_length=64, description="the uid of the event that stands again")


class RestReplanned(EventBase):
    """The rest of the plan was planned anew, after the event whose uid is `of`."""

    kind: Literal["replanned"]
    by_kemble = True
    rest: PlanRest
    of: str | None = None


class RunFinished(EventBase):
    kind: Literal["finished"]


AnyEvent = (
    StepStarted
    | StepDone
    | StepNotYet
    | StepPaused
    | StepResumed
    | StepSkipped
    | MethodAmended
    | PiecesCounted
    | StepWeighed
    | CoreProbed
    | IngredientAdded
    | StepHandedOver
    | NoteWritten
    | FaultSeen
    | EventUndone
    | EventRedone
    | RestReplanned
    | RunFinished
)
Event = Annotated[AnyEvent, Field(discriminator="kind")]
KINDS: Final[Mapping[str, type[AnyEvent]]] = {
    get_args(event.model_fields["kind"].annotation)[0]: event for event in get_args(AnyEvent)
}


def event_from(document: Mapping[str, Any], **fields: Any) -> AnyEvent:
    """An event from its document, with these fields in place of the document's. Raises KeyError for a kind that is not
    known, ValidationError for what its kind cannot be."""
    told = {**document, **fields}
    return KINDS[told["kind"]].model_validate(told)


def told_event(document: Mapping[str, Any]) -> AnyEvent:
    """An event that a cook tells, from what their page sent. Raises Refused for a kind that is not theirs to tell, and for
    what its kind needs and does not have."""
    event_class = KINDS[document["kind"]]
    if event_class.by_kemble:
        accepts = ", ".join(kind for kind, other in KINDS.items() if not other.by_kemble)
        refuse("kind", say('"{kind}" is not for a cook to say', kind=document["kind"]), accepts)
    try:
        return event_class.model_validate({key: value for key, value in document.items() if value is not None})
    except ValidationError as error:
        raise Refused(problems_from(error, event_class)) from None


def check_event(plan: Plan, event: AnyEvent) -> None:
    """Raises Refused when a cook's event names a step that the run does not have, or says what cannot be."""
    ids = [scheduled.step.id for scheduled in plan.scheduled]
    if isinstance(event, StepEvent) and event.step not in ids:
        refuse("step", say('"{step}" is not a step of this run', step=event.step), ", ".join(ids))
    if isinstance(event, MethodAmended):
        _check_amendment(event.entry, ids)
    if isinstance(event, StepHandedOver | WrittenEvent) and not event.text.strip():
        refuse("text", say("is empty"), type(event).model_fields["text"].description or "")
    if isinstance(event, StepWeighed | CoreProbed):
        _check_reading(plan, event)


def _check_amendment(entry: StepChange | OwnStep, ids: Sequence[str]) -> None:
    """Of a batch in progress minutes and words can change, and a step can be added behind one that it has."""
    if isinstance(entry, OwnStep):
        if entry.own in ids:
            refuse("entry.own", say('there is a step "{own}" already', own=entry.own), say("another id"))
        if entry.after not in ids:
            refuse("entry.after", say('"{step}" is not a step of this run', step=entry.after), ", ".join(ids))
        if not entry.title.strip() or entry.minutes is None or entry.common or entry.before:
            refuse("entry", say("is not a step of its own"), say("a title, minutes, and the step that it comes after"))
        return
    if entry.step not in ids:
        refuse("entry.step", say('"{step}" is not a step of this run', step=entry.step), ", ".join(ids))
    if entry.skip or entry.after or entry.stages or entry.per or entry.use == "ours":
        refuse("entry", say("changes more than this batch can"), say("minutes, who gave them, and words"))


def _check_reading(plan: Plan, event: StepWeighed | CoreProbed) -> None:
    step = next(scheduled.step for scheduled in plan.scheduled if scheduled.step.id == event.step)
    grams = event.grams if isinstance(event, StepWeighed) else None
    celsius = event.celsius if isinstance(event, CoreProbed) else None
    doubt = step.bounds.doubt(grams=grams, celsius=celsius) if step.bounds and not event.sure else ""
    if doubt:
        field = "grams" if grams is not None else "celsius"
        refuse(field, doubt.rstrip("."), say("a reading that can be, or sure"))
    if celsius is not None and step.window is None:
        windows = ", ".join(scheduled.step.id for scheduled in plan.scheduled if scheduled.step.window)
        message = say('"{step}" has no window that a temperature could move', step=event.step)
        refuse("step", message, windows or say("no step of this run"))

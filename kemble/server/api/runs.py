"""Runs: begun from a sheet or an occasion, fed with events, read as a state at an instant."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from copy import copy
from datetime import datetime, timedelta
from typing import Any, Literal
from uuid import uuid4

from django.db.models import Count, Q, prefetch_related_objects
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, ConfigDict, Field

from kemble.core.cards.cautions import Caution
from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import Refused, refuse
from kemble.core.facts.quantity import TemperatureUnit
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.shelf import Shelf
from kemble.core.log.fault_evidence import ExplainedFault, at_step, explain_fault
from kemble.core.plan.occasion import plan_of_dish
from kemble.core.plan.schedule import Plan, plan_from
from kemble.core.run.actual_batch import with_added
from kemble.core.run.amendments import MethodOffer, offers_of
from kemble.core.run.device_clock import NOTICED_S, DeviceClock, event_time
from kemble.core.run.event_fold import plan_now
from kemble.core.run.events import (
    KINDS,
    AddedIngredient,
    Amendment,
    AnyEvent,
    CoreProbed,
    Event,
    NoteWritten,
    PiecesCounted,
    StepWeighed,
    check_event,
    told_event,
)
from kemble.core.run.rehearsal import RehearsedRun, RunReport, SimulatedCookTraits, report, simulate_events
from kemble.core.run.run_state import RunState
from kemble.core.sentences import Words, say
from kemble.core.stations.heat.core_curve import CoreCurve
from kemble.core.stations.shape.hand_drawings import HandsDrawing, hands_of
from kemble.server.api.error_responses import GoneRefusal, model_response
from kemble.server.api.occasions import occasion_of
from kemble.server.api.request_body import MOST_NUMBER, WriteBody, kitchen_of_request
from kemble.server.api.sheets import sheet_of
from kemble.server.devices import probes, scales
from kemble.server.devices.kitchen_devices import Device
from kemble.server.models import KitchenRecord, Run
from kemble.server.occasions.occasion_days import kept_day
from kemble.server.runs.records import add_event, keep_events, run_from
from kemble.server.runs.runs_together import facts_now, happened_in, rethink
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import throw_away

router = Router(tags=["runs"])
REHEARSAL_PACE = 60


class NewRun(WriteBody):
    sheet: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a sheet")
    occasion: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of an occasion")
    dish: int | None = Field(
        None, ge=0, lt=60, description="the number of one of its sheets, from 0; left out, all of them"
    )
    rehearse: bool = False
    cook: SimulatedCookTraits | None = Field(None, description="in a rehearsal, a simulated cook who does it all")


def _event_field(event_class: type[AnyEvent], name: str) -> Any:
    """A field of that kind of event: held to the same range, and not needed by the others."""
    field = copy(event_class.model_fields[name])
    field.default = None
    return field


class NewEvent(BaseModel):
    """What happened: the fields of every kind in one flat form, as pages send it that come back from being offline. What
    its kind has no use for is not kept.

    `at` is on the run's own clock; left out, it is now.

    `device_at` is what the device's own clock showed then, `device_now` what it shows as this is sent, and `clock_error_s`
    by how many seconds it knew that clock to be slow: null when it never heard an answer by which to tell.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    kind: Literal[*KINDS] = Field(description=", ".join(KINDS))  # type: ignore[valid-type]
    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each event")
    step: str | None = Field(None, max_length=40, description="a step of the run")
    grams: float | None = _event_field(StepWeighed, "grams")
    celsius: float | None = _event_field(CoreProbed, "celsius")
    text: str | None = _event_field(NoteWritten, "text")
    of: str | None = Field(None, max_length=64, description="the uid of the event that is undone or redone")
    times: int | None = _event_field(PiecesCounted, "times")
    added: AddedIngredient | None = None
    entry: Amendment | None = None
    sure: bool = False
    at: datetime | None = Field(None, description="an instant with its time zone")
    device_at: datetime | None = Field(None, description="an instant with its time zone")
    device_now: datetime | None = Field(None, description="an instant with its time zone")
    clock_error_s: float | None = Field(None, ge=-4e7, le=4e7, allow_inf_nan=False, description="seconds")


class RunClock(BaseModel):
    """A clock that runs: its step, when it is looked at first, likely done and over, and when it wants water. All on the
    run's own clock."""

    step: str
    title: Words
    due: datetime
    first_check: datetime | None
    latest: datetime | None
    top_up: datetime | None
    top_up_ml: int


class RunCard(BaseModel):
    """`state` is as it stood when the clock on the wall showed `wall`; `step` the title of the step that is in focus then."""

    id: int
    title: str
    way: str
    rehearsed: bool
    wall: datetime
    state: RunState
    step: Words
    clocks: list[RunClock]


class SheetLine(BaseModel):
    """A line of the sheet, to say that more of it went in."""

    ingredient: str
    name: str
    part: str
    part_name: str


class RunOpen(BaseModel):
    """`now` is on the run's own clock, which goes `pace` times as fast as the one on the wall: it showed `clock_began`
    when that one showed `began`, and shows `now` when that one shows `wall`.

    `state` is `events` folded over `plan`, looked at now; a page without the network folds on by itself.
    """

    id: int
    sheet: int | None
    title: str
    way: str
    pace: int
    began: datetime
    clock_began: datetime
    wall: datetime
    now: datetime
    events: list[Event]
    unit: TemperatureUnit
    plan: Plan
    state: RunState
    core: CoreCurve | None
    facts: dict[str, Fact]
    flow: list[int]  # the runs that are made together with it, itself among them
    scale: Device
    probe: Device
    lines: list[SheetLine]
    occasion: int | None
    cautions: list[Caution]
    batch: int | None


def run_of(kitchen: KitchenRecord, number: int) -> Run:
    """A run of the kitchen's. Raises Gone when it was dropped, Http404 when there is none."""
    run: Run = get_object_or_404(Run.everything, kitchen=kitchen, pk=number)
    if run.trashed:
        raise GoneRefusal(f"“{run.title}” was dropped on {run.trashed:%-d %B}")
    run.kitchen = kitchen  # the very one: it need not be fetched again
    return run


def run_response(run: Run) -> HttpResponse:
    wall = timezone.now()
    now = run.clock(wall)
    kept, logged = run.kept, run.logged
    body = unchecked_model(
        RunOpen,
        id=run.pk,
        sheet=run.sheet_id,
        title=run.title,
        way=run.way,
        pace=run.pace,
        began=run.began,
        clock_began=run.clock_began,
        wall=wall,
        now=now,
        events=run.log,
        unit=run.kitchen.settings.temperature_unit,
        plan=kept.plan,
        state=run.state(now),
        core=kept.core,
        facts=facts_now(run),
        flow=[each_run.pk for each_run in run.flowing],
        scale=scales.stands_in(run.kitchen, rehearsed=run.pace > 1),
        probe=probes.stands_in(run.kitchen, rehearsed=run.pace > 1),
        lines=_sheet_lines(run),
        occasion=run.occasion_id,
        cautions=kept.cautions,
        batch=logged.pk if logged else None,
    )
    return model_response(body)


def _sheet_lines(run: Run) -> list[SheetLine]:
    shelf = Shelf(run.kitchen.settings)
    return [
        SheetLine(
            ingredient=line.ingredient,
            name=item.name if (item := shelf.item(line.ingredient)) else line.ingredient,
            part=part.role,
            part_name=part.called,
        )
        for part in run.kept.sheet.parts
        for line in part.lines
    ]


@router.get("/runs", response={200: list[RunCard]})
def runs(request: HttpRequest) -> list[RunCard]:
    """What is running now."""
    wall = timezone.now()
    run_cards = []
    for run in kitchen_of_request(request).runs.filter(finished=None).prefetch_related("events")[:20]:
        state = run.state(run.clock(wall))
        plan = plan_now(run.kept.plan, run.log)
        step = next(
            (scheduled_step.step.title for scheduled_step in plan.scheduled if scheduled_step.step.id == state.focus),
            "",
        )
        card = RunCard(
            id=run.pk,
            title=run.title,
            way=run.way,
            rehearsed=run.pace > 1,
            wall=wall,
            state=state,
            step=step,
            clocks=_clocks(plan, facts_now(run), state),
        )
        run_cards.append(card)
    return run_cards


def _clocks(plan: Plan, facts: Mapping[str, Fact], state: RunState) -> list[RunClock]:
    """Of the steps that run, in order; the water is that of the way's own heat, which is told with a window."""
    words = {scheduled_step.step.id: scheduled_step.step for scheduled_step in plan.scheduled}
    run_clocks = []
    for step in state.steps:
        if step.status != "running" or step.started is None or step.due is None or step.paused:
            continue
        top_up, ml = (facts.get(f"heat.{name}") for name in ("top_up_at_min", "top_up_ml"))
        at = step.started + timedelta(minutes=float(top_up.value)) if top_up and words[step.id].window else None
        run_clocks.append(
            RunClock(
                step=step.id,
                title=words[step.id].title,
                due=step.due,
                first_check=step.first_check,
                latest=step.latest,
                top_up=at if at and at < (step.latest or step.due) else None,
                top_up_ml=round(float(ml.value)) if ml else 0,
            )
        )
    return run_clocks


@router.post("/runs", response={200: RunOpen})
def new_run(request: HttpRequest, new_run: NewRun) -> HttpResponse:
    """Begin from an occasion, on its plan, all its sheets together; or from a sheet, at once. A rehearsal goes sixty
    times as fast. The answer is the run that begins first."""
    kitchen = kitchen_of_request(request)
    if new_run.occasion is not None:
        first = _begin_occasion(kitchen, new_run, new_run.occasion)
        rethink(first, first.clock())  # begun late, it is late from the start, and says so
        return run_response(run_of(kitchen, first.pk))
    if new_run.sheet is None:
        refuse("sheet", say("is missing"), say("the number of a sheet or an occasion"))
    record, now = sheet_of(kitchen, new_run.sheet), timezone.now()
    sheet, worked = record.sheet, result_for(record.sheet, kitchen.settings)
    if worked.problems:
        raise Refused(worked.problems)
    plan = plan_from(worked.steps, kitchen.settings, begin=now)
    run = run_from(record, sheet, worked, plan, began=now, clock=now, pace=_clock_pace(new_run))
    events = _simulated_events([run], new_run, kitchen)
    with writing():
        sent = stored_answer(kitchen, new_run.uid, "run")
        if sent:
            run = Run.everything.get(pk=sent.number)
        else:
            _store_run(run, events[0])
            store_answer(kitchen, new_run.uid, "run", run.pk)
    return run_response(run)


def _clock_pace(new_run: NewRun) -> int:
    return REHEARSAL_PACE if new_run.rehearse else 1


def _simulated_events(runs: Sequence[Run], new_run: NewRun, kitchen: KitchenRecord) -> list[list[AnyEvent]]:
    """What a simulated cook will do in each run; it counts once its time has come on the rehearsal's clock."""
    if new_run.cook is None or not new_run.rehearse:
        return [[] for _ in runs]
    parts = [RehearsedRun(run.kept.plan, run.kept.core) for run in runs]
    return simulate_events(parts, new_run.cook, kitchen.settings.cooks)


def _store_run(run: Run, events: Sequence[AnyEvent]) -> None:
    run.save(force_insert=True)
    if events:
        keep_events(run, events)


class FlowReport(BaseModel):
    """What the makings of a flow showed."""

    report: RunReport


@router.get("/runs/{int:run_id}/report", response={200: FlowReport})
def run_report(request: HttpRequest, run_id: int) -> FlowReport:
    """Where hands clashed, what stood too long in its heat, which windows were missed, over all that is made together."""
    run = run_of(kitchen_of_request(request), run_id)
    runs = [(each_run.title, each_run.kept.plan, each_run.log) for each_run in run.flowing]
    return FlowReport(report=report(runs, run.kitchen.settings.cooks, run.clock()))


def _begin_occasion(kitchen: KitchenRecord, new_run: NewRun, number: int) -> Run:
    """All the sheets of an occasion as one flow, or one of them into it; what is on already goes on. A rehearsal is a
    flow of its own, whose clock begins when the day does."""
    record = occasion_of(kitchen, number)
    kept = kept_day(record)
    day, made = kept.day, kept.made
    if not made or day.plan is None:
        refuse("occasion", say("has no plan"), say("an occasion whose day can be done"))
    if new_run.dish is not None and new_run.dish >= len(made):
        refuse("dish", say("is not one of this occasion"), say("0 to {last}", last=max(0, len(made) - 1)))
    now = timezone.now()
    clock = day.plan.begin if new_run.rehearse else now
    wanted = [(i, dish) for i, dish in enumerate(made) if new_run.dish in (None, i)]
    fresh = [
        run_from(
            worked_dish.record,
            worked_dish.sheet,
            worked_dish.worked,
            plan_of_dish(day.plan, dish),
            began=now,
            clock=clock,
            pace=_clock_pace(new_run),
            occasion=record,
        )
        for dish, worked_dish in wanted
    ]
    events = _simulated_events(fresh, new_run, kitchen)
    with writing():
        sent = stored_answer(kitchen, new_run.uid, "run")
        if sent:
            before: Run = Run.everything.get(pk=sent.number)
            return before
        going = [] if new_run.rehearse else list(record.runs.filter(trashed=None, finished=None, pace=1))
        flow = going[0].flow if going and going[0].flow else uuid4().hex
        begun = list(going)
        for run, own in zip(fresh, events, strict=True):
            if all(other.sheet_id != run.sheet_id for other in going):
                run.flow = flow
                _store_run(run, own)
                begun.append(run)
        first = min(begun, key=lambda run: run.kept.plan.begin)
        store_answer(kitchen, new_run.uid, "run", first.pk)
    return first


@router.get("/runs/{int:run_id}", response={200: RunOpen})
def open_run(request: HttpRequest, run_id: int) -> HttpResponse:
    run = run_of(kitchen_of_request(request), run_id)
    prefetch_related_objects([run], "events")  # what has happened is read once, and looked at by several
    return run_response(run)


@router.post("/runs/{int:run_id}/events", response={200: Event})
def new_event(request: HttpRequest, run_id: int, new_event: NewEvent) -> HttpResponse:
    """Add an event, and be told how it was kept: the page folds it as the server does. The same uid twice is one event, so that a page may send again what it is unsure of.

    A run that is finished still takes what happened before that and was on its way.
    """
    run = run_of(kitchen_of_request(request), run_id)
    there = run.events.filter(uid=new_event.uid).first()
    if there is not None:
        return model_response(there.event)  # sent before: it stands already
    now = run.clock()
    at, error_s = _event_time(run, new_event)
    said, at = at, min(max(at, run.clock_began), now)  # nothing happens before it began, or is still to come
    told_otherwise = abs((said - at).total_seconds()) > NOTICED_S or abs(error_s) > NOTICED_S
    if run.finished and new_event.kind != "finished":
        end = next((event for event in reversed(run.log) if event.kind == "finished"), None)
        if end is None or at >= end.at:
            refuse("run", say("is finished"), say("a run that is still going"))
    event = told_event(
        {
            **new_event.model_dump(exclude={"device_now"}),
            "at": at,
            "device_at": (new_event.device_at or said) if told_otherwise else None,
            "clock_error_s": round(error_s, 1) if abs(error_s) > NOTICED_S else None,
        }
    )
    check_event(run.plan, event)
    _check_added(run, event)
    add_event(run, event)
    return model_response(event)


def _event_time(run: Run, new_event: NewEvent) -> tuple[datetime, float]:
    """When it happened on the run's own clock, and by how many seconds the clock of whoever tells it is slow."""
    for name in ("at", "device_at", "device_now"):
        told: datetime | None = getattr(new_event, name)
        if told is not None and told.tzinfo is None:
            refuse(name, say("has no time zone"), say("an instant such as 2026-12-05T15:30:00Z"))
    error_s = new_event.clock_error_s or 0.0
    if new_event.device_at is None or new_event.device_now is None or new_event.clock_error_s is not None:
        return new_event.at or run.clock(), error_s
    when = event_time(DeviceClock(new_event.device_at, new_event.device_now), timezone.now())
    try:
        return run.clock(when.at), when.error_s
    except OverflowError:  # thousands of years from now, at the pace of a rehearsal
        return when.at, when.error_s


@router.get("/runs/{int:run_id}/hands", response={200: HandsDrawing})
def hands(request: HttpRequest, run_id: int) -> HandsDrawing:
    """The moves of the hands at the steps of a run, drawn for its own piece."""
    run = run_of(kitchen_of_request(request), run_id)
    sheet = run.kept.sheet
    return hands_of(sheet, result_for(sheet, run.kitchen.settings))


@router.get("/runs/{int:run_id}/offers", response={200: list[MethodOffer]})
def offers(request: HttpRequest, run_id: int) -> list[MethodOffer]:
    """What has changed in the method of its sheet since it began, for the steps that are still to come."""
    run = run_of(kitchen_of_request(request), run_id)
    if run.sheet is None or run.sheet.trashed is not None or run.finished:
        return []
    begun = {state.id for state in run.state().steps if state.status in ("running", "done")}
    return offers_of(run.kept.sheet.method, run.sheet.sheet.method, run.plan, begun)


class FaultsAtStep(BaseModel):
    """What can be seen to be wrong: first what shows at the step in hand, then all else of the way and its parts."""

    here: list[ExplainedFault]
    others: list[ExplainedFault]


@router.get("/runs/{int:run_id}/faults", response={200: FaultsAtStep})
def run_faults(request: HttpRequest, run_id: int, step: str = "") -> FaultsAtStep:
    """The faults of a run's way and parts, each with its causes ranked by what this making's own numbers and times say."""
    run = run_of(kitchen_of_request(request), run_id)
    happened = happened_in(run, run.clock())
    here, others = at_step(faults_of(WAYS[run.way], [part.role for part in run.kept.sheet.parts]), step[:60])
    return FaultsAtStep(
        here=[explain_fault(fault, happened) for fault in here],
        others=[explain_fault(fault, happened) for fault in others],
    )


def _check_added(run: Run, event: AnyEvent) -> None:
    """Raises Refused for something put in that is not in this kitchen's larder, or into a part that is not there."""
    if event.kind != "added":
        return
    with_added(run.kept.sheet, [event.added])
    if Shelf(run.kitchen.settings).item(event.added.ingredient) is None:
        refuse(
            "added.ingredient",
            say('"{ingredient}" is not in the larder', ingredient=event.added.ingredient),
            say("an ingredient of the larder"),
        )


@router.post("/runs/{int:run_id}/rest", response={200: RunOpen})
def plan_the_rest(request: HttpRequest, run_id: int) -> HttpResponse:
    """Plan the rest of it anew, with all that is made together with it, if what has happened asks for that."""
    run = run_of(kitchen_of_request(request), run_id)
    rethink(run, run.clock())
    return run_response(run_of(kitchen_of_request(request), run_id))


class RunNews(BaseModel):
    """How many events each run of a flow has, for a page that watches; and what the clock on the wall shows."""

    wall: datetime
    events: dict[str, int]


@router.get("/runs/{int:run_id}/news", response={200: RunNews})
def news(request: HttpRequest, run_id: int) -> RunNews:
    """Whether another device has told anything: asked every second and a half, so it is one small query."""
    kitchen = kitchen_of_request(request)
    flow = kitchen.runs.filter(pk=run_id).values_list("flow", flat=True).first()
    if flow is None:
        run_of(kitchen, run_id)  # says why not
    together = kitchen.runs.filter(flow=flow) if flow else kitchen.runs.filter(pk=run_id)
    now = together.defer("frozen")[0].clock()  # of one flow all go by one clock
    so_far = Count("events", filter=Q(events__at__lte=now))
    counts = dict(together.annotate(told=so_far).values_list("pk", "told"))
    return RunNews(wall=timezone.now(), events={str(number): told for number, told in counts.items()})


@router.delete("/runs/{int:run_id}", response={204: None})
def abandon(request: HttpRequest, run_id: int) -> Status[None]:
    """Give up a run that is not in the log. It can be brought back."""
    run = get_object_or_404(Run.everything, kitchen=kitchen_of_request(request), pk=run_id)
    if run.logged:
        refuse("run", say("is in the log"), say("a run without a batch"))
    throw_away(run, timezone.now())
    return Status(204, None)

"""Runs: begun from a sheet or an occasion, fed with events, read as a state at an instant."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status

from kemble.core.facts.problems import Problem, Refused
from kemble.core.plan.schedule import Plan, plan_from
from kemble.core.run.run import Event, check_event
from kemble.core.stations.chain import Worked
from kemble.server.api.bodies import NewEvent, NewRun
from kemble.server.api.kitchen import asking
from kemble.server.api.plans import plans_of
from kemble.server.api.refusal import REFUSALS, Gone, answer
from kemble.server.api.sheets import sheet_of
from kemble.server.api.views import RunCard, RunOpen
from kemble.server.dropping import drop
from kemble.server.models import Kitchen, Run, RunEvent, SheetRecord
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing
from kemble.server.worked import worked_for

router = Router(tags=["runs"])
REHEARSAL_PACE = 60


def begin(
    kitchen: Kitchen,
    record: SheetRecord,
    worked: Worked,
    plan: Plan,
    *,
    began: datetime,
    clock: datetime,
    pace: int,
) -> Run:
    """Set a run down: from here on it needs neither the sheet nor the kitchen as they may become."""
    run: Run = kitchen.runs.create(
        sheet=record,
        title=record.title,
        document=record.document,
        worked=worked.model_dump(mode="json"),
        plan=plan.model_dump(mode="json"),
        began=began,
        clock_began=clock,
        pace=pace,
    )
    return run


def run_of(kitchen: Kitchen, number: int) -> Run:
    """A run of the kitchen's. Raises Gone when it was dropped, Http404 when there is none."""
    run: Run = get_object_or_404(Run.everything, kitchen=kitchen, pk=number)
    if run.dropped:
        raise Gone(f"“{run.title}” was dropped on {run.dropped:%-d %B}")
    return run


def opened(run: Run) -> HttpResponse:
    wall = timezone.now()
    now = run.clock(wall)
    plan, predicted, events, logged = run.schedule, run.predicted, run.log, run.logged
    body = RunOpen.model_construct(
        id=run.pk,
        sheet=run.sheet_id,
        title=run.title,
        way=run.document["way"],
        pace=run.pace,
        began=run.began,
        clock_began=run.clock_began,
        wall=wall,
        now=now,
        events=events,
        unit=run.kitchen.settings.temperature_unit,
        plan=plan,
        state=run.state(now),
        heart=run.heart,
        facts=predicted.facts,
        cautions=predicted.cautions,
        batch=logged.pk if logged else None,
    )
    return answer(body)


@router.get("/runs", response={200: list[RunCard], **REFUSALS})
def runs(request: HttpRequest) -> list[RunCard]:
    """What is running now."""
    wall = timezone.now()
    return [
        RunCard(
            id=run.pk,
            title=run.title,
            way=run.document["way"],
            rehearsed=run.pace > 1,
            wall=wall,
            state=run.state(run.clock(wall)),
        )
        for run in asking(request).runs.filter(finished=None).prefetch_related("events")[:20]
    ]


@router.post("/runs", response={200: RunOpen, **REFUSALS})
def new_run(request: HttpRequest, new_run: NewRun) -> HttpResponse:
    """Begin from an occasion, on its plan, or from a sheet, at once. A rehearsal goes sixty times as fast."""
    kitchen = asking(request)
    now = timezone.now()
    pace = REHEARSAL_PACE if new_run.rehearse else 1
    if new_run.occasion is not None:
        occasion = get_object_or_404(kitchen.occasions, pk=new_run.occasion)
        record = occasion.sheet
    elif new_run.sheet is not None:
        occasion, record = None, sheet_of(kitchen, new_run.sheet)
    else:
        raise Refused([Problem(path="sheet", says="is missing", accepts="the number of a sheet or an occasion")])
    worked = worked_for(record.sheet, kitchen.settings)
    if worked.problems:
        raise Refused(worked.problems)
    plan = plans_of([occasion], kitchen.settings)[occasion.pk] if occasion else None
    if plan is None or (plan.begin < now and not new_run.rehearse):
        plan = plan_from(worked.steps, kitchen.settings, begin=now)  # too late for the plan that was kept
    clock = plan.begin if occasion and new_run.rehearse else now
    with writing():
        sent = receipt_of(kitchen, new_run.uid, "run")
        if sent:
            run = Run.everything.get(pk=sent.number)
        else:
            run = begin(kitchen, record, worked, plan, began=now, clock=clock, pace=pace)
            keep_receipt(kitchen, new_run.uid, "run", run.pk)
    return opened(run)


@router.get("/runs/{int:run_id}", response={200: RunOpen, **REFUSALS})
def open_run(request: HttpRequest, run_id: int) -> HttpResponse:
    return opened(run_of(asking(request), run_id))


@router.post("/runs/{int:run_id}/events", response={200: RunOpen, **REFUSALS})
def new_event(request: HttpRequest, run_id: int, new_event: NewEvent) -> HttpResponse:
    """Add an event. The same uid twice is one event, so that a page may send again what it is unsure of.

    A run that is finished still takes what happened before that and was on its way.
    """
    run = run_of(asking(request), run_id)
    if run.events.filter(uid=new_event.uid).exists():
        return opened(run)  # sent before: it stands already
    now = run.clock()
    at = new_event.at or now
    if at.tzinfo is None:
        raise Refused([Problem(path="at", says="has no time zone", accepts="an instant such as 2026-12-05T15:30:00Z")])
    at = min(max(at, run.clock_began), now)  # a page's clock may be off; the run's is what counts
    if run.finished and new_event.kind != "finished":
        end = run.events.filter(kind="finished").last()
        if end is None or at >= end.at:
            raise Refused([Problem(path="run", says="is finished", accepts="a run that is still going")])
    event = Event.model_validate({**new_event.model_dump(), "at": at})
    check_event(run.schedule, event)
    add_event(run, event)
    return opened(run)


def add_event(run: Run, event: Event) -> None:
    """Keep an event, unless it is kept already."""
    with writing():
        _, made = RunEvent.objects.get_or_create(run=run, uid=event.uid, defaults=event.model_dump(exclude={"uid"}))
        if made and event.kind == "finished" and not run.finished:
            run.finished = timezone.now()
            run.save(update_fields=["finished"])


@router.delete("/runs/{int:run_id}", response={204: None, **REFUSALS})
def abandon(request: HttpRequest, run_id: int) -> Status[None]:
    """Give up a run that is not in the log. It can be brought back."""
    run = get_object_or_404(Run.everything, kitchen=asking(request), pk=run_id)
    if run.logged:
        raise Refused([Problem(path="run", says="is in the log", accepts="a run without a batch")])
    drop(run, timezone.now())
    return Status(204, None)

"""The log: finished runs, what was predicted beside what happened, and how it tasted."""

from __future__ import annotations

import uuid
from typing import Annotated, Any, cast

from django.db.models import Count, Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router
from ninja.responses import Status

from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Problem, Refused
from kemble.core.log.taste import check_tastes, compared, likely_fault, verdict
from kemble.core.run.run import Event, state_of
from kemble.server.api.bodies import Outcome
from kemble.server.api.kitchen import asking
from kemble.server.api.paging import Paged
from kemble.server.api.refusal import REFUSALS, Conflict, answer
from kemble.server.api.runs import add_event, run_of
from kemble.server.api.sheets import dots_of
from kemble.server.api.views import BatchCard, BatchOpen, LogPage, LogWay
from kemble.server.dropping import drop
from kemble.server.models import Batch, Run
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing

router = Router(tags=["log"])


def record_outcome(run: Run, outcome: Outcome) -> Batch:
    """Put a run in the log, or change what was said of it. Raises Refused for scales or faults not of its way."""
    way = WAYS[run.document["way"]]
    check_tastes(way, outcome.tastes)
    known = [fault.id for fault in faults_of(way)]
    for name in outcome.faults:
        if name not in known:
            raise Refused(
                [Problem(path="faults", says=f'"{name}" is not a fault of this way', accepts=", ".join(known))]
            )
    facts = run.predicted.facts
    batch, _ = Batch.everything.update_or_create(
        run=run,
        defaults={
            "kitchen_id": run.kitchen_id,
            "title": run.title,
            "way": run.document["way"],
            "made": run.clock_began,
            "rehearsed": run.pace > 1,
            "dropped": None,
            "tastes": outcome.tastes,
            "faults": outcome.faults,
            "note": outcome.note,
            "hydration_pct": float(facts["mix.hydration_pct"].value),
            "sugar_pct": float(facts["mix.sugar_pct"].value),
            "verdict": verdict(outcome.tastes),
        },
    )
    return cast(Batch, batch)


def _card(batch: Batch) -> dict[str, Any]:
    return {
        "id": batch.pk,
        "run": batch.run_id,
        "title": batch.title,
        "way": batch.way,
        "made": batch.made,
        "rehearsed": batch.rehearsed,
        "verdict": batch.verdict,
        "tastes": batch.tastes,
        "hydration_pct": batch.hydration_pct,
        "sugar_pct": batch.sugar_pct,
        "note": batch.note,
    }


def _opened(batch: Batch) -> HttpResponse:
    run = batch.run
    way, worked, plan, events = WAYS[run.document["way"]], run.predicted, run.schedule, run.log
    at = events[-1].at if events else run.clock_began
    faults = [likely_fault(fault, worked.facts) for fault in faults_of(way) if fault.id in batch.faults]
    pieces = next((worked.facts[k].shown for k in ("shape.pieces", "cut.pieces") if k in worked.facts), "")
    body = BatchOpen.model_construct(
        **_card(batch),
        sheet=run.sheet_id,
        pieces=pieces,
        compared=compared(plan, events, worked.facts, at),
        faults=faults,
        notes=state_of(plan, events, at).notes,
        facts=worked.facts,
    )
    return answer(body)


@router.post("/runs/{int:run_id}/outcome", response={200: BatchOpen, **REFUSALS})
def log_run(request: HttpRequest, run_id: int, outcome: Outcome) -> HttpResponse:
    """Finish a run, if it is not finished yet, and put it in the log.

    One that is in the log already is not wiped by a second outcome (409): that is changed where it stands.
    """
    kitchen = asking(request)
    run = run_of(kitchen, run_id)
    with writing():
        batch = run.logged
        if batch is None or receipt_of(kitchen, outcome.uid, "outcome") is None:
            if batch is not None:
                raise Conflict("this run is in the log already")
            batch = record_outcome(run, outcome)
            keep_receipt(kitchen, outcome.uid, "outcome", batch.pk)
            if not run.finished:
                add_event(run, Event.model_validate({"uid": uuid.uuid4().hex, "at": run.clock(), "kind": "finished"}))
    return _opened(batch)


@router.get("/log", response={200: LogPage, **REFUSALS})
def batches(request: HttpRequest, paged: Annotated[Paged, Query()], way: str | None = None) -> HttpResponse:
    """The batches of a way: the one asked for, else the first that has any."""
    kitchen = asking(request)
    counted = Batch.objects.filter(kitchen=kitchen).order_by("way").values("way")
    counts = {
        one["way"]: LogWay(**one)
        for one in counted.annotate(batches=Count("id"), right=Count("id", filter=Q(verdict="just right")))
    }
    ways = [counts[name] for name in WAYS if name in counts]
    at = way if way in counts else ways[0].way if ways else None
    rows, page, pages, total = paged.of(Batch.objects.filter(kitchen=kitchen, way=at or ""))
    body = LogPage.model_construct(
        ways=ways,
        way=at,
        batches=[BatchCard.model_construct(**_card(batch)) for batch in rows],
        dots=dots_of(kitchen, at) if at else [],
        page=page,
        pages=pages,
        total=total,
    )
    return answer(body)


@router.get("/log/{int:batch_id}", response={200: BatchOpen, **REFUSALS})
def open_batch(request: HttpRequest, batch_id: int) -> HttpResponse:
    return _opened(get_object_or_404(Batch, pk=batch_id, kitchen=asking(request)))


@router.put("/log/{int:batch_id}", response={200: BatchOpen, **REFUSALS})
def change_batch(request: HttpRequest, batch_id: int, outcome: Outcome) -> HttpResponse:
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=asking(request))
    with writing():
        changed = record_outcome(batch.run, outcome)
    return _opened(changed)


@router.delete("/log/{int:batch_id}", response={204: None, **REFUSALS})
def delete_batch(request: HttpRequest, batch_id: int) -> Status[None]:
    """Take a batch out of the log. It can be brought back."""
    drop(get_object_or_404(Batch.everything, pk=batch_id, kitchen=asking(request)), timezone.now())
    return Status(204, None)

"""The log: finished runs, what was predicted beside what happened, and how it tasted."""

from __future__ import annotations

import uuid
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from kemble.core.faults import faults_of
from kemble.core.problems import Problem, Refused
from kemble.core.run import Event, state_of
from kemble.core.taste import check_tastes, compared, likely_fault, verdict
from kemble.core.ways import WAYS
from kemble.kitchen.api.bodies import Outcome
from kemble.kitchen.api.kitchen import asking
from kemble.kitchen.api.refusal import REFUSALS, answer
from kemble.kitchen.api.runs import add_event
from kemble.kitchen.api.views import BatchCard, BatchOpen
from kemble.kitchen.models import Batch, Run

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
    batch, _ = Batch.objects.update_or_create(
        run=run,
        defaults={
            "tastes": outcome.tastes,
            "faults": outcome.faults,
            "note": outcome.note,
            "hydration_pct": float(facts["mix.hydration_pct"].value),
            "sugar_pct": float(facts["mix.sugar_pct"].value),
            "verdict": verdict(outcome.tastes),
        },
    )
    return batch


def _card(batch: Batch) -> dict[str, Any]:
    run = batch.run
    return {
        "id": batch.pk,
        "run": run.pk,
        "title": run.title,
        "way": run.document["way"],
        "made": run.clock_began,
        "rehearsed": run.pace > 1,
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
    """Finish a run, if it is not finished yet, and put it in the log."""
    run = get_object_or_404(asking(request).runs, pk=run_id)
    batch = record_outcome(run, outcome)
    if not run.finished:
        add_event(run, Event.model_validate({"uid": uuid.uuid4().hex, "at": run.clock(), "kind": "finished"}))
    return _opened(batch)


@router.get("/log", response={200: list[BatchCard], **REFUSALS})
def batches(request: HttpRequest) -> list[BatchCard]:
    found = Batch.objects.filter(run__kitchen=asking(request)).select_related("run").order_by("-run__clock_began")
    return [BatchCard.model_validate(_card(batch)) for batch in found[:200]]


@router.get("/log/{int:batch_id}", response={200: BatchOpen, **REFUSALS})
def open_batch(request: HttpRequest, batch_id: int) -> HttpResponse:
    return _opened(get_object_or_404(Batch, pk=batch_id, run__kitchen=asking(request)))


@router.put("/log/{int:batch_id}", response={200: BatchOpen, **REFUSALS})
def change_batch(request: HttpRequest, batch_id: int, outcome: Outcome) -> HttpResponse:
    batch = get_object_or_404(Batch, pk=batch_id, run__kitchen=asking(request))
    return _opened(record_outcome(batch.run, outcome))

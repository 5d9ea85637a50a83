"""Weigh-out benches: begun for a mass, fed with marks, read as a state; and how the eye comes on over days."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router
from pydantic import BaseModel

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.run.weigh_out import (
    BenchMarkEvent,
    BenchSetup,
    BenchState,
    GuessAccuracy,
    MarkContent,
    WeighedPiece,
    bench_of,
    check_mark,
    eye_of,
)
from kemble.server.api.error_responses import model_response
from kemble.server.api.request_body import MOST_NUMBER, WriteBody, kitchen_of_request, number_of
from kemble.server.api.sheets import sheet_of
from kemble.server.models import Bench, BenchMark
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer

router = Router(tags=["benches"])
_DAYS = 60  # of practice that are shown
_MOST_CARDS = 20


class NewBench(WriteBody):
    sheet: int = number_of("a sheet")
    setup: BenchSetup


class BenchCard(BaseModel):
    """A mass shared out on the scale."""

    id: int
    began: datetime
    setup: BenchSetup
    state: BenchState


class BenchOpen(BenchCard):
    sheet: int | None


class EyeDay(BaseModel):
    """How the eye did on one day, such as 2026-12-05."""

    day: str
    eye: GuessAccuracy


def bench_response(bench: Bench) -> HttpResponse:
    setup = bench.settings
    body = unchecked_model(
        BenchOpen, id=bench.pk, sheet=bench.sheet_id, began=bench.began, setup=setup, state=bench_of(setup, bench.log)
    )
    return model_response(body)


@router.get("/benches", response={200: list[BenchCard]})
def benches(request: HttpRequest, sheet: Annotated[int, Query(ge=1, le=MOST_NUMBER)]) -> list[BenchCard]:
    """The newest benches of a sheet."""
    rows = kitchen_of_request(request).benches.filter(sheet=sheet).prefetch_related("marks")[:_MOST_CARDS]
    return [
        BenchCard(id=bench.pk, began=bench.began, setup=bench.settings, state=bench_of(bench.settings, bench.log))
        for bench in rows
    ]


@router.post("/benches", response={200: BenchOpen})
def new_bench(request: HttpRequest, new_bench: NewBench) -> HttpResponse:
    kitchen = kitchen_of_request(request)
    record = sheet_of(kitchen, new_bench.sheet)
    setup = new_bench.setup
    with writing():
        sent = stored_answer(kitchen, new_bench.uid, "bench")
        if sent:
            return bench_response(kitchen.benches.get(pk=sent.number))
        bench = kitchen.benches.create(sheet=record, setup=setup.model_dump(mode="json"), drill=setup.drill)
        store_answer(kitchen, new_bench.uid, "bench", bench.pk)
    return bench_response(bench)


@router.get("/benches/{int:bench_id}", response={200: BenchOpen})
def open_bench(request: HttpRequest, bench_id: int) -> HttpResponse:
    return bench_response(get_object_or_404(kitchen_of_request(request).benches, pk=bench_id))


@router.post("/benches/{int:bench_id}/marks", response={200: BenchOpen})
def new_mark(request: HttpRequest, bench_id: int, new_mark: MarkContent) -> HttpResponse:
    """Add a mark. The same uid twice is one mark, so that a page may send again what it is unsure of."""
    bench = get_object_or_404(kitchen_of_request(request).benches, pk=bench_id)
    mark = BenchMarkEvent.model_validate({**new_mark.model_dump(), "at": timezone.now()})
    with writing():  # what a mark may be depends on those before it
        log = bench.log
        if all(bench_mark_event.uid != mark.uid for bench_mark_event in log):
            check_mark(bench.settings, log, mark)
            BenchMark.objects.create(bench=bench, uid=mark.uid, at=mark.at, document=mark.document)
    return bench_response(bench)


@router.get("/eye", response={200: list[EyeDay]})
def eye(request: HttpRequest) -> list[EyeDay]:
    """Bias and spread of the guesses, a day each on the kitchen's own calendar, oldest first."""
    kitchen = kitchen_of_request(request)
    zone = kitchen.settings.zone
    since = timezone.now() - timedelta(days=_DAYS)
    by_day: dict[str, list[WeighedPiece]] = {}
    for bench in kitchen.benches.filter(drill=True, began__gte=since).order_by("began").prefetch_related("marks"):
        day = bench.began.astimezone(zone).date().isoformat()
        by_day.setdefault(day, []).extend(bench_of(bench.settings, bench.log).weighed)
    return [
        EyeDay(day=day, eye=guess_accuracy) for day, weighed in by_day.items() if (guess_accuracy := eye_of(weighed))
    ]

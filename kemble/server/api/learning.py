"""What this kitchen has learned: each row of the table as the craft has it and as it is here, and what would teach most."""

from __future__ import annotations

import hashlib
import json
from datetime import datetime

from django.db.models import Count, Max, Q
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router
from pydantic import BaseModel

from kemble.core.cards.step_names import title_of
from kemble.core.facts.problems import refuse
from kemble.core.kitchen.estimates import ESTIMATES, About, EstimateId
from kemble.core.learn.measured_cups import cups
from kemble.core.learn.measurement_gain import MeasurementGain, rank_measurements
from kemble.core.learn.posterior import LearnedEstimate, LearningResult
from kemble.core.physics.time_spread import EDGE
from kemble.core.sentences import Words, remember_by_language, say
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.learning.posterior import batches_of, learn_from_batches, made_here, priors_of, relearn
from kemble.server.models import Batch, KitchenRecord
from kemble.server.storage.fair_lock import writing

router = Router(tags=["learning"])
_MOST_PULLS = 12
_MOST_TOLD = 40


class Influence(BaseModel):
    """A making, and by how many of the craft's standard deviations it alone moves a row."""

    batch: int
    title: str
    made: datetime
    by: float


class ValueRange(BaseModel):
    low: float
    value: float
    high: float


class LearnedRow(BaseModel):
    """A row of the table: the craft's, the kitchen's, whether it was measured, is held where it was set back to; and the
    makings that moved it, the strongest first."""

    id: EstimateId
    about: About
    words: Words
    unit: Words
    moves: Words
    is_log: bool
    craft: ValueRange
    own: ValueRange
    measured: bool
    held: bool
    pulls: list[Influence]


class LeftOutBatch(BaseModel):
    """A making of which something, or all of it, teaches nothing, and why."""

    batch: int
    title: str
    made: datetime
    why: list[Words]
    whole: bool
    chosen: bool = False  # left out by the cook, who can let it teach again


class StepPace(BaseModel):
    """A step, what it is called, and so many times the usual minutes."""

    step: str
    title: Words
    times: float


class LearnedCup(BaseModel):
    """A measure, in grams: as the craft has it, and as it was weighed here."""

    words: Words
    craft: ValueRange
    own: ValueRange


class EstimateChange(BaseModel):
    words: Words
    unit: Words
    was: float
    now: float


class LearnedPage(BaseModel):
    """All of it. `odd` are makings that count less than half, for they fit with no other; `moved` what the last change of
    what is learned from moved."""

    batches: int
    rows: list[LearnedRow]
    teaches: list[MeasurementGain]
    left_out: list[LeftOutBatch]
    odd: list[Influence]
    pace: list[StepPace]
    cups: list[LearnedCup]
    moved: list[EstimateChange] = []


class HoldEstimate(RequestBody):
    held: bool


class LeaveBatchOut(RequestBody):
    left_out: bool


@router.get("/learned", response={200: LearnedPage})
def learned(request: HttpRequest) -> LearnedPage:
    kitchen = kitchen_of_request(request)
    return _learned_page_for(_fingerprint(kitchen), kitchen)


def _fingerprint(kitchen: KitchenRecord) -> tuple[object, ...]:
    """What the page hangs on: its batches, what the kitchen has learned of them, its settings, and its newest sheets."""
    teaching = Batch.objects.filter(kitchen=kitchen, rehearsed=False).aggregate(
        Count("id"), Max("id"), Max("made"), left_out=Count("id", filter=Q(left_out=True))
    )
    newest = kitchen.sheets.aggregate(Max("changed"), Count("id"))
    learnt = hashlib.sha256(json.dumps(kitchen.learnt, sort_keys=True).encode()).digest()
    return (*teaching.values(), *newest.values(), learnt, kitchen.revision)


@remember_by_language(16)
def _learned_page_for(fingerprint: tuple[object, ...], kitchen: KitchenRecord) -> LearnedPage:
    return _learned_page(kitchen)


@router.put("/learned/{name}", response={200: LearnedPage})
def hold_row(request: HttpRequest, name: str, hold: HoldEstimate) -> LearnedPage:
    """Set a row back to what the craft or a measurement says, and hold it there; or let it learn again."""
    kitchen = kitchen_of_request(request)
    if name not in ESTIMATES:
        refuse("name", say('"{name}" is not a row of the table', name=name[:40]), say("one of its rows"))
    before = learn_from_batches(kitchen)
    held = [item for item in kitchen.learnt.get("held", []) if item != name]
    kitchen.learnt = {**kitchen.learnt, "held": sorted([*held, name] if hold.held else held)}
    with writing():
        KitchenRecord.objects.filter(pk=kitchen.pk).update(learnt=kitchen.learnt)
    relearn(kitchen)
    return _learned_page(kitchen, before)


@router.put("/log/{int:batch_id}/left-out", response={200: LearnedPage})
def leave_batch_out(request: HttpRequest, batch_id: int, leave_out: LeaveBatchOut) -> LearnedPage:
    """Have a batch teach nothing, or teach again; with what that moved."""
    kitchen = kitchen_of_request(request)
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=kitchen)
    before = learn_from_batches(kitchen)
    with writing():
        Batch.objects.filter(pk=batch.pk).update(left_out=leave_out.left_out)
    relearn(kitchen)
    return _learned_page(kitchen, before)


def _learned_page(kitchen: KitchenRecord, before: LearningResult | None = None) -> LearnedPage:
    batches = batches_of(kitchen)
    learnt, priors = learn_from_batches(kitchen, batches), priors_of(kitchen)
    held, measured = set(kitchen.learnt.get("held", [])), set(kitchen.document.get("estimates", {}))
    rows = [
        _learned_row(name, row, batches, held=name in held, measured=name in measured)
        for name, row in learnt.rows.items()
        if row.has_moved or name in held
    ]
    rows.sort(key=lambda row: -max((abs(pull.by) for pull in row.pulls), default=0.0))
    return LearnedPage(
        batches=len(batches),
        rows=rows,
        teaches=rank_measurements(made_here(kitchen), learnt, priors),
        left_out=_left_out(kitchen, batches),
        odd=[_influence(batches[number], 0.0) for number in learnt.odd],
        pace=[
            StepPace(step=step, title=title_of(step), times=times)
            for step, times in sorted(kitchen.learnt.get("pace", {}).items())
        ],
        cups=[
            LearnedCup(words=cup.words, craft=_value_range(cup.craft), own=_value_range(cup.own))
            for cup in cups(kitchen.settings)
        ],
        moved=_estimate_changes(before, learnt) if before else [],
    )


def _value_range(ends: tuple[float, float, float]) -> ValueRange:
    low, value, high = ends
    return ValueRange(low=low, value=value, high=high)


def _influence(batch: Batch, by: float) -> Influence:
    return Influence(batch=batch.pk, title=batch.title, made=batch.made, by=by)


def _learned_row(
    name: EstimateId, row: LearnedEstimate, batches: list[Batch], *, held: bool, measured: bool
) -> LearnedRow:
    table = ESTIMATES[name]
    pulls = sorted(row.pulls.items(), key=lambda pair: -abs(pair[1]))[:_MOST_PULLS]
    low, value, high = (table.at(row.z + off * row.sd) for off in (-EDGE, 0.0, EDGE))
    return LearnedRow(
        id=name,
        about=table.about,
        words=table.words,
        unit=table.unit,
        moves=table.moves,
        is_log=table.shape == "log",
        craft=ValueRange(low=table.low, value=table.value, high=table.high),
        own=ValueRange(low=low, value=value, high=high),
        measured=measured,
        held=held,
        pulls=[_influence(batches[number], by) for number, by in pulls],
    )


def _left_out(kitchen: KitchenRecord, batches: list[Batch]) -> list[LeftOutBatch]:
    """What teaches nothing, and why: said of every making, so that nobody wonders."""
    left_out_batches = [
        LeftOutBatch(
            batch=each_object.pk,
            title=each_object.title,
            made=each_object.made,
            why=[say("you left it out")],
            whole=True,
            chosen=True,
        )
        for each_object in Batch.objects.filter(kitchen=kitchen, rehearsed=False, left_out=True)[:_MOST_TOLD]
    ]
    for batch in batches:
        why, nothing = list(batch.seen.get("left_out", [])), not batch.seen.get("sights")
        if nothing and not why:
            why = [say("no step of it that is told with a range was timed, weighed or read")]
        if why:
            left_out_batches.append(
                LeftOutBatch(batch=batch.pk, title=batch.title, made=batch.made, why=why, whole=nothing)
            )
    return sorted(left_out_batches, key=lambda left_out_batch: left_out_batch.made, reverse=True)[:_MOST_TOLD]


def _estimate_changes(before: LearningResult, now: LearningResult) -> list[EstimateChange]:
    found_result = []
    for name in dict.fromkeys((*before.rows, *now.rows)):
        table = ESTIMATES[name]
        was, then = (result.rows[name].z if name in result.rows else 0.0 for result in (before, now))
        if abs(was - then) > 0.02:
            row = EstimateChange(words=table.words, unit=table.unit, was=table.at(was), now=table.at(then))
            found_result.append((abs(was - then), row))
    return [row for _, row in sorted(found_result, key=lambda pair: -pair[0])[:8]]

"""The log: finished runs, what was predicted beside what happened, and how it tasted."""

from __future__ import annotations

import uuid
from datetime import date, datetime, time, timedelta
from typing import Annotated, Any, Literal

from django.db.models import Count, Exists, OuterRef, Q, QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router
from ninja.responses import Status
from pydantic import BaseModel, ConfigDict, Field

from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import refuse
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.learn.liking_penalties import LikingPenalty, penalties
from kemble.core.learn.next_time import Proposal, TasteAdvice, advise_on_tastes, proposals
from kemble.core.log.fault_evidence import ExplainedFault, explain_fault
from kemble.core.log.predictions import ComparedPrediction, Verdict, check_tastes
from kemble.core.log.stored_pieces import StoredPieces
from kemble.core.run.event_fold import RunNote
from kemble.core.run.events import RunFinished
from kemble.core.run.run_state import state_of
from kemble.core.run.weighed_pieces import WeighedPieces, weighed_pieces
from kemble.core.sentences import say
from kemble.server.api.error_responses import ConflictRefusal, model_response
from kemble.server.api.paging import PageQuery
from kemble.server.api.request_body import MOST_NUMBER, WriteBody, kitchen_of_request
from kemble.server.api.runs import run_of
from kemble.server.api.sheets import MapDot, SavedSheet, dots_of, save_over, sheet_of
from kemble.server.learning.posterior import marks_of_sheet, ratios_of, relearn, see, tasted_of
from kemble.server.models import Batch, KitchenRecord, Tasting
from kemble.server.runs.records import BatchFeedback, add_event, log_outcome
from kemble.server.runs.runs_together import added_words, happened_in
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import throw_away

router = Router(tags=["log"])


class BatchOutcome(WriteBody):
    """How a batch came out. Tastes are marks from -2 (too little) over 0 (just right) to 2 (too much)."""

    tastes: dict[str, Annotated[int, Field(ge=-100, le=100)]] = Field(
        {}, max_length=12, description="scales of the way"
    )
    faults: list[str] = Field([], max_length=20, description="faults of the way")
    note: str = Field("", max_length=4000, description="at most 4000 letters")
    pieces: int | None = Field(None, ge=0, le=1000, description="a whole number from 0 to 1000")
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")
    kept: list[StoredPieces] | None = Field(None, max_length=3, description="at most three places; left out, as it was")

    @property
    def said(self) -> BatchFeedback:
        return BatchFeedback(self.tastes, self.faults, self.note, self.pieces, self.grams)


class OutcomeCorrection(BatchOutcome):
    """How a batch came out, said anew: all of it is named, so that what is left out is not taken for emptied."""

    tastes: dict[str, Annotated[int, Field(ge=-100, le=100)]] = Field(max_length=12, description="scales of the way")
    faults: list[str] = Field(max_length=20, description="faults of the way, or none")
    note: str = Field(max_length=4000, description="at most 4000 letters, or none")
    pieces: int | None = Field(ge=0, le=1000, description="a whole number from 0 to 1000, or null")
    grams: float | None = Field(gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g, or null")


class BatchCard(BaseModel):
    id: int
    run: int
    title: str
    way: str
    made: datetime
    rehearsed: bool
    verdict: Verdict
    tastes: dict[str, int]
    hydration_pct: float
    sugar_pct: float
    note: str


class NewTasting(WriteBody):
    """How one tongue finds it: marks from -2 to 2, and liking from 1 (not at all) to 9 (very much). `blind`: it was known
    by a number only."""

    who: str = Field("", max_length=40, description="at most 40 letters")
    tastes: dict[str, Annotated[int, Field(ge=-100, le=100)]] = Field(
        {}, max_length=12, description="scales of the way"
    )
    liking: int | None = Field(None, ge=1, le=9, description="1 to 9")
    note: str = Field("", max_length=1000, description="at most 1000 letters")
    blind: bool = False


class TastingCard(BaseModel):
    id: int
    who: str
    at: datetime
    tastes: dict[str, int]
    liking: int | None
    note: str
    blind: bool


class NextTime(BaseModel):
    """What to do the next time, to please and to learn; what the craft does about tastes that no ratio moves; and what
    costs most of the liking, where enough have said."""

    proposals: list[Proposal]
    by_craft: list[TasteAdvice]
    penalties: list[LikingPenalty]


class TakeProposal(WriteBody):
    kind: Literal["please", "learn"] = Field(description="please or learn")


class LogWay(BaseModel):
    """How many batches of a way are in the log, and how many of them came out just right."""

    way: str
    batches: int
    right: int


class LogPage(BaseModel):
    """Some batches of one way, the newest first, and the newest of them as dots on its map. Pages count from 1."""

    ways: list[LogWay]
    way: str | None
    batches: list[BatchCard]
    dots: list[MapDot]
    page: int
    pages: int
    total: int


class BatchOpen(BatchCard):
    """`pieces` is how many were told, `counted` and `grams` what they were in the end; `added` what went in beside what
    the sheet says, in words."""

    sheet: int | None
    pieces: Fact | None
    counted: int | None
    grams: float | None
    kept: list[StoredPieces]
    added: list[str]
    tastings: list[TastingCard]
    left_out: bool
    compared: list[ComparedPrediction]
    weighed: list[WeighedPieces]
    faults: list[ExplainedFault]
    notes: list[RunNote]
    facts: dict[str, Fact]


def _batch_card_fields(batch: Batch) -> dict[str, Any]:
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


def _batch_response(batch: Batch) -> HttpResponse:
    run = batch.run
    kept, events = run.kept, run.log
    at = events[-1].at if events else run.clock_began
    happened = happened_in(run, at)
    faults = [explain_fault(fault, happened) for fault in faults_of(WAYS[run.way]) if fault.id in batch.faults]
    pieces = next((kept.facts[k] for k in ("shape.pieces", "cut.pieces") if k in kept.facts), None)
    body = unchecked_model(
        BatchOpen,
        **_batch_card_fields(batch),
        sheet=run.sheet_id,
        pieces=pieces,
        counted=batch.pieces,
        grams=batch.grams,
        kept=[
            StoredPieces.model_validate({"where": row.where, "pieces": row.pieces})
            for row in batch.stock.filter(trashed=None)
        ],
        added=added_words(run),
        tastings=[_tasting(tasting) for tasting in batch.tastings.all()],
        left_out=batch.left_out,
        compared=batch.compared,
        weighed=[
            each_weighed_pieces
            for each_weighed_pieces in weighed_pieces(kept.plan, events)
            if len(each_weighed_pieces.practice) > 1
        ],
        faults=faults,
        notes=state_of(kept.plan, events, at).notes,
        facts=kept.facts,
    )
    return model_response(body)


def _tasting(tasting: Tasting) -> TastingCard:
    return TastingCard(
        id=tasting.pk,
        who=tasting.who,
        at=tasting.at,
        tastes=tasting.tastes,
        liking=tasting.liking,
        note=tasting.note,
        blind=tasting.blind,
    )


@router.post("/log/{int:batch_id}/tastings", response={200: BatchOpen})
def taste(request: HttpRequest, batch_id: int, new_tasting: NewTasting) -> HttpResponse:
    """One more tongue on a batch, now or the day after. The same uid twice is one tasting."""
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=kitchen_of_request(request))
    check_tastes(WAYS[batch.way], new_tasting.tastes)
    if not new_tasting.tastes and new_tasting.liking is None:
        refuse("tastes", say("are none"), say("a mark on a scale, or how it is liked"))
    with writing():
        Tasting.objects.get_or_create(
            batch=batch,
            uid=new_tasting.uid or uuid.uuid4().hex,
            defaults={
                "who": new_tasting.who.strip(),
                "at": timezone.now(),
                "tastes": new_tasting.tastes,
                "liking": new_tasting.liking,
                "note": new_tasting.note,
                "blind": new_tasting.blind,
            },
        )
    return _batch_response(batch)


@router.get("/log/{int:batch_id}/next", response={200: NextTime})
def next_time(request: HttpRequest, batch_id: int) -> NextTime:
    """What to change the next time, from every tasting of its way; never more certain than they are."""
    kitchen = kitchen_of_request(request)
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=kitchen)
    liked = Tasting.objects.filter(batch__kitchen=kitchen, batch__way=batch.way, liking__isnull=False)
    return NextTime(
        proposals=_proposals(kitchen, batch),
        by_craft=advise_on_tastes(WAYS[batch.way], marks_of_sheet(kitchen, batch)),
        penalties=penalties([(tasting.tastes, tasting.liking) for tasting in liked if tasting.liking is not None]),
    )


def _proposals(kitchen: KitchenRecord, batch: Batch) -> list[Proposal]:
    sheet = batch.run.sheet_id or 0
    return proposals(WAYS[batch.way], tasted_of(kitchen, batch.way), sheet, ratios_of(batch))


@router.post("/log/{int:batch_id}/next", response={200: SavedSheet})
def take_next(request: HttpRequest, batch_id: int, take_next: TakeProposal) -> SavedSheet:
    """What is proposed as the next revision of its sheet, its lines changed through the flow."""
    kitchen = kitchen_of_request(request)
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=kitchen)
    if batch.run.sheet_id is None:
        refuse("sheet", say("was thrown away"), say("a batch whose sheet is there"))
    record = sheet_of(kitchen, batch.run.sheet_id)
    chosen = next((proposal for proposal in _proposals(kitchen, batch) if proposal.kind == take_next.kind), None)
    if chosen is None or not chosen.changes:
        refuse("kind", say("changes nothing"), say("a proposal with a change"))
    ratios = {ratio_change.lever: ratio_change.to for ratio_change in chosen.changes}
    sheet = adjust(record.sheet, Adjustment.model_validate({"by": "ratio", **ratios}), kitchen.settings).sheet
    with writing():
        sent = stored_answer(kitchen, take_next.uid, "save")
        if sent:
            return SavedSheet(revision=sent.revision)
        revision = save_over(record, record.revision, sheet)
        store_answer(kitchen, take_next.uid, "save", record.pk, revision.number)
    return SavedSheet(revision=revision.number)


@router.post("/runs/{int:run_id}/outcome", response={200: BatchOpen})
def log_run(request: HttpRequest, run_id: int, outcome: BatchOutcome) -> HttpResponse:
    """Finish a run, if it is not finished yet, and put it in the log.

    One that is in the log already is not wiped by a second outcome (409): that is changed where it stands.
    """
    kitchen = kitchen_of_request(request)
    run = run_of(kitchen, run_id)
    seen = see(run)
    with writing():
        sent = stored_answer(kitchen, outcome.uid, "outcome")
        if sent is not None:
            batch = Batch.everything.get(pk=sent.number)
        elif run.logged is not None:
            raise ConflictRefusal("this run is in the log already")
        else:
            batch = log_outcome(run, outcome.said, outcome.kept, seen)
            store_answer(kitchen, outcome.uid, "outcome", batch.pk)
            if not run.finished:
                add_event(run, RunFinished(uid=uuid.uuid4().hex, at=run.clock(), kind="finished"))
    relearn(kitchen)
    return _batch_response(batch)


class LogFilter(BaseModel):
    """What of the log is wanted: words in a title, a note or a taster's name; a verdict; a sheet; made from a day to a day."""

    model_config = ConfigDict(extra="ignore")

    find: str = Field("", max_length=100, description="at most 100 letters")
    verdict: Verdict | None = Field(None, description="a verdict")
    sheet: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the number of a sheet")
    since: date | None = Field(None, description="a day such as 2026-11-01")
    until: date | None = Field(None, description="a day such as 2026-11-30")

    def of(self, rows: QuerySet[Batch], kitchen: KitchenRecord) -> QuerySet[Batch]:
        zone, words = kitchen.settings.zone, self.find.strip()
        if words:
            tasted = Tasting.objects.filter(batch=OuterRef("pk"), who__icontains=words)
            rows = rows.filter(Q(title__icontains=words) | Q(note__icontains=words) | Exists(tasted))
        if self.verdict is not None:
            rows = rows.filter(verdict=self.verdict)
        if self.sheet is not None:
            rows = rows.filter(run__sheet_id=self.sheet)
        if self.since is not None:
            rows = rows.filter(made__gte=datetime.combine(self.since, time.min, zone))
        if self.until is not None:
            rows = rows.filter(made__lt=datetime.combine(self.until, time.min, zone) + timedelta(days=1))
        return rows


@router.get("/log", response={200: LogPage})
def batches(
    request: HttpRequest,
    paged: Annotated[PageQuery, Query()],
    sought: Annotated[LogFilter, Query()],
    way: str | None = None,
) -> HttpResponse:
    """The batches of a way, or those of them that are sought: of the way asked for, else the one with the most."""
    kitchen = kitchen_of_request(request)
    counted = Batch.objects.filter(kitchen=kitchen, rehearsed=False).order_by("way").values("way")
    counts = {
        item["way"]: LogWay(**item)
        for item in counted.annotate(batches=Count("id"), right=Count("id", filter=Q(verdict="just right")))
    }
    ways = [counts[name] for name in WAYS if name in counts]
    most = max(ways, key=lambda log_way: log_way.batches, default=None)
    at = way if way in counts else most.way if most else None
    of_way = Batch.objects.filter(kitchen=kitchen, rehearsed=False, way=at or "").defer("seen")
    rows, page, pages, total = paged.of(sought.of(of_way, kitchen))
    body = unchecked_model(
        LogPage,
        ways=ways,
        way=at,
        batches=[unchecked_model(BatchCard, **_batch_card_fields(batch)) for batch in rows],
        dots=dots_of(kitchen, at) if at else [],
        page=page,
        pages=pages,
        total=total,
    )
    return model_response(body)


@router.get("/log/{int:batch_id}", response={200: BatchOpen})
def open_batch(request: HttpRequest, batch_id: int) -> HttpResponse:
    return _batch_response(get_object_or_404(Batch, pk=batch_id, kitchen=kitchen_of_request(request)))


@router.put("/log/{int:batch_id}", response={200: BatchOpen})
def change_batch(request: HttpRequest, batch_id: int, correction: OutcomeCorrection) -> HttpResponse:
    """Say anew how a batch came out."""
    batch = get_object_or_404(Batch, pk=batch_id, kitchen=kitchen_of_request(request))
    with writing():
        changed = log_outcome(batch.run, correction.said, correction.kept)
    return _batch_response(changed)


@router.delete("/log/{int:batch_id}", response={204: None})
def delete_batch(request: HttpRequest, batch_id: int) -> Status[None]:
    """Take a batch out of the log. It can be brought back."""
    kitchen = kitchen_of_request(request)
    throw_away(get_object_or_404(Batch.everything, pk=batch_id, kitchen=kitchen), timezone.now())
    relearn(kitchen)
    return Status(204, None)

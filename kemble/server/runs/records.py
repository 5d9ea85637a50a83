"""How sheets, runs, events and batches are kept, whoever asks for it: a route or the demo."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from django.utils import timezone

from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import refuse
from kemble.core.log.predictions import check_tastes, verdict
from kemble.core.log.stored_pieces import StoredPieces, keeps_until
from kemble.core.plan.schedule import Plan
from kemble.core.run.events import AnyEvent
from kemble.core.run.frozen_run import frozen
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.work_sheet import WorkResult
from kemble.server.models import Batch, KitchenRecord, OccasionRecord, Run, RunEvent, SheetRecord, SheetRevision, Stock
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer


def create_sheet(kitchen: KitchenRecord, sheet: Sheet, uid: str | None = None) -> SheetRecord:
    """Keep a new sheet; with the `uid` of one that was made before, that one is given."""
    document = sheet.model_dump(mode="json")
    with writing():
        sent = stored_answer(kitchen, uid, "sheet")
        if sent:
            made: SheetRecord = SheetRecord.everything.get(pk=sent.number)
            return made
        record: SheetRecord = kitchen.sheets.create(title=sheet.title, way=sheet.way, document=document)
        SheetRevision.objects.create(record=record, number=1, document=document)
        store_answer(kitchen, uid, "sheet", record.pk)
    return record


def run_from(
    record: SheetRecord,
    sheet: Sheet,
    worked: WorkResult,
    plan: Plan,
    *,
    began: datetime,
    clock: datetime,
    pace: int,
    occasion: OccasionRecord | None = None,
) -> Run:
    """A run of `sheet`, not saved yet: from here on it needs neither the record nor the kitchen as they may become."""
    kept = frozen(sheet, worked, plan)
    run = Run(
        kitchen=record.kitchen,
        sheet=record,
        title=record.title,
        way=record.way,
        frozen=kept.model_dump_json(),
        began=began,
        clock_began=clock,
        pace=pace,
        occasion=occasion,
        revision=record.revision,
    )
    run.kept = kept
    return run


def add_event(run: Run, event: AnyEvent) -> None:
    """Keep an event, unless it is kept already."""
    with writing():
        row = RunEvent(run=run, uid=event.uid, at=event.at, document=event.document)
        RunEvent.objects.bulk_create([row], ignore_conflicts=True)
        if event.kind == "finished" and not run.finished:
            run.finished = timezone.now()
            run.save(update_fields=["finished"])


def keep_events(run: Run, events: Iterable[AnyEvent]) -> None:
    """Many at once, of a run that has none yet."""
    ordered = sorted(events, key=lambda event: event.at)
    with writing():
        RunEvent.objects.bulk_create(
            RunEvent(run=run, uid=event.uid, at=event.at, document=event.document) for event in ordered
        )


@dataclass(frozen=True, slots=True)
class BatchFeedback:
    """What is said of a batch: tastes, faults, a note; how many pieces there were in the end, and what they weighed."""

    tastes: Mapping[str, int]
    faults: Sequence[str] = ()
    note: str = ""
    pieces: int | None = None
    grams: float | None = None


def log_outcome(
    run: Run, said: BatchFeedback, kept: Sequence[StoredPieces] | None = None, seen: Mapping[str, Any] | None = None
) -> Batch:
    """Put a run in the log, or change what was said of it; what is `kept` goes to stock in place of what was put by; `seen` is
    what it shows of the kitchen, where that was looked at.

    Raises Refused for scales or faults not of its way, and for more put by than there were.
    """
    if kept and said.pieces is not None and sum(stored.pieces for stored in kept) > said.pieces:
        refuse("kept", say("are more than there were"), say("at most {pieces} pieces together", pieces=said.pieces))
    fields = batch_fields(run, said, seen)
    batch, _ = Batch.everything.update_or_create(run=run, defaults={**fields, "trashed": None})
    if kept is not None and run.pace == 1:
        _put_by(cast(Batch, batch), kept)
    return cast(Batch, batch)


def batch_fields(run: Run, said: BatchFeedback, seen: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """The columns of a run's batch. Raises Refused for scales or faults not of its way."""
    way, tastes, faults = WAYS[run.way], said.tastes, said.faults
    check_tastes(way, tastes)
    known = [fault.id for fault in faults_of(way)]
    for name in faults:
        if name not in known:
            refuse("faults", say('"{name}" is not a fault of this way', name=name), ", ".join(known))
    facts = run.kept.facts
    return {
        "kitchen_id": run.kitchen_id,
        "title": run.title,
        "way": run.way,
        "made": run.clock_began,
        "rehearsed": run.pace > 1,
        "tastes": tastes,
        "faults": faults,
        "note": said.note,
        "pieces": said.pieces,
        "grams": said.grams,
        **({} if seen is None else {"seen": seen}),
        "hydration_pct": float(facts["mix.hydration_pct"].value),
        "sugar_pct": float(facts["mix.sugar_pct"].value),
        "verdict": verdict(tastes),
    }


def _put_by(batch: Batch, kept: Sequence[StoredPieces]) -> None:
    """What is kept of a batch into stock, in place of what was said before."""
    run = batch.run
    done = run.finished or batch.made
    Stock.everything.filter(batch=batch).delete()
    Stock.objects.bulk_create(
        Stock(
            kitchen=batch.kitchen,
            batch=batch,
            title=batch.title,
            where=stored.where,
            pieces=stored.pieces,
            made=done,
            until=keeps_until(stored.where, run.kept.facts, done),
        )
        for stored in kept
    )

"""How sheets, runs, events and batches are kept, whoever asks for it: a route or the demo."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from typing import cast

from django.utils import timezone

from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import refuse
from kemble.core.log.taste import check_tastes, verdict
from kemble.core.plan.schedule import Plan
from kemble.core.run.events import Event
from kemble.core.run.kept import frozen
from kemble.core.sheet.document import Sheet
from kemble.core.stations.chain import Worked
from kemble.server.models import Batch, KitchenRecord, Run, RunEvent, SheetRecord, SheetRevision
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing


def create_sheet(kitchen: KitchenRecord, sheet: Sheet, uid: str | None = None) -> SheetRecord:
    """Keep a new sheet; with the `uid` of one that was made before, that one is given."""
    document = sheet.model_dump(mode="json")
    with writing():
        sent = receipt_of(kitchen, uid, "sheet")
        if sent:
            made: SheetRecord = SheetRecord.everything.get(pk=sent.number)
            return made
        record: SheetRecord = kitchen.sheets.create(title=sheet.title, way=sheet.way, document=document)
        SheetRevision.objects.create(record=record, number=1, document=document)
        keep_receipt(kitchen, uid, "sheet", record.pk)
    return record


def begin(
    record: SheetRecord,
    sheet: Sheet,
    worked: Worked,
    plan: Plan,
    *,
    began: datetime,
    clock: datetime,
    pace: int,
) -> Run:
    """Set a run of `sheet` down: from here on it needs neither the record nor the kitchen as they may become."""
    run: Run = record.kitchen.runs.create(
        sheet=record,
        title=record.title,
        way=record.way,
        frozen=frozen(sheet, worked, plan).model_dump(mode="json"),
        began=began,
        clock_began=clock,
        pace=pace,
    )
    return run


def add_event(run: Run, event: Event) -> None:
    """Keep an event, unless it is kept already."""
    with writing():
        _, made = RunEvent.objects.get_or_create(
            run=run, uid=event.uid, defaults={"at": event.at, "document": event.document}
        )
        if made and event.kind == "finished" and not run.finished:
            run.finished = timezone.now()
            run.save(update_fields=["finished"])


def keep_events(run: Run, events: Iterable[Event]) -> None:
    """Many at once, of a run that has none yet."""
    ordered = sorted(events, key=lambda event: event.at)
    with writing():
        RunEvent.objects.bulk_create(
            RunEvent(run=run, uid=event.uid, at=event.at, document=event.document) for event in ordered
        )


def log_outcome(run: Run, *, tastes: Mapping[str, int], faults: Sequence[str], note: str) -> Batch:
    """Put a run in the log, or change what was said of it. Raises Refused for scales or faults not of its way."""
    way = WAYS[run.way]
    check_tastes(way, tastes)
    known = [fault.id for fault in faults_of(way)]
    for name in faults:
        if name not in known:
            refuse("faults", f'"{name}" is not a fault of this way', ", ".join(known))
    facts = run.kept.facts
    batch, _ = Batch.everything.update_or_create(
        run=run,
        defaults={
            "kitchen_id": run.kitchen_id,
            "title": run.title,
            "way": run.way,
            "made": run.clock_began,
            "rehearsed": run.pace > 1,
            "dropped": None,
            "tastes": tastes,
            "faults": faults,
            "note": note,
            "hydration_pct": float(facts["mix.hydration_pct"].value),
            "sugar_pct": float(facts["mix.sugar_pct"].value),
            "verdict": verdict(tastes),
        },
    )
    return cast(Batch, batch)

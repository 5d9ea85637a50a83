"""Batches that come in as a table: those of a paper notebook, or of another kitchen's log. Each is made from a sheet that is
here, by its title; what a row lacks is left open, and a row that will not do says why.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from kemble.core.cards.faults import faults_of
from kemble.core.cards.taste_scales import SCALES
from kemble.core.cards.ways import WAYS
from kemble.core.formats.csv_tables import TableRow
from kemble.core.log.predictions import VERDICT_BY
from kemble.core.plan.schedule import Plan, plan_from
from kemble.core.sentences import say
from kemble.server.imports.table_rows import RowRead, RowRejected, instant, number_in, sheet_called, sheets_by_title
from kemble.server.learning.posterior import relearn
from kemble.server.models import Batch, KitchenRecord, Run, SheetRecord, Tasting
from kemble.server.runs.records import BatchFeedback, batch_fields, run_from
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import writing

_STORED_AT_ONCE = 50  # rows in one turn to write, so that others write in between
_VERDICTS = {"just right": 0, "too soft": 1, "too firm": -1}


@dataclass(frozen=True, slots=True)
class ReadBatch(RowRead):
    """A batch as it was understood."""

    record: SheetRecord | None = None
    made: datetime | None = None
    said: BatchFeedback | None = None
    liking: int | None = None


def read_batches(kitchen: KitchenRecord, rows: Sequence[TableRow], now: datetime) -> list[ReadBatch]:
    """Every row of a table of batches."""
    sheets = sheets_by_title(kitchen)
    there = {
        (title.casefold(), made.replace(second=0, microsecond=0))
        for title, made in Batch.objects.filter(kitchen=kitchen).values_list("title", "made")
    }
    found_read_batches = []
    for row in rows:
        try:
            read_batch = _read_batch(kitchen, row, sheets, now)
        except RowRejected as problem:
            found_read_batches.append(
                ReadBatch(row.number, row.get("title", "sheet")[:80] or say("a row"), problem=str(problem))
            )
            continue
        assert read_batch.record is not None
        assert read_batch.made is not None
        key = (read_batch.record.title.casefold(), read_batch.made.replace(second=0, microsecond=0))
        if key in there:
            read_batch = ReadBatch(row.number, read_batch.says, here=True)
        there.add(key)
        found_read_batches.append(read_batch)
    return found_read_batches


def keep_batches(kitchen: KitchenRecord, batches: Sequence[ReadBatch]) -> int:
    """Put those that will do, and are not here, in the log. How many they were.

    Each sheet is planned once: a batch of the past has the same plan, at another time. Rows are stored some at a time;
    those that are here already are known again when a table that broke off is sent once more.
    """
    good = [row for row in batches if row.record and row.made and row.said]
    plans: dict[int, Plan] = {}
    for at in range(0, len(good), _STORED_AT_ONCE):
        some = [(row, _run_of(kitchen, row, plans)) for row in good[at : at + _STORED_AT_ONCE]]
        with writing():
            Run.objects.bulk_create(run for _, run in some)
            stored = Batch.objects.bulk_create(_batch_of(row, run) for row, run in some)
            Tasting.objects.bulk_create(
                Tasting(batch=batch, uid=f"table-{batch.pk}", at=batch.made, liking=row.liking)
                for batch, (row, _) in zip(stored, some, strict=True)
                if row.liking is not None
            )
    if good:
        relearn(kitchen)
    return len(good)


def _run_of(kitchen: KitchenRecord, row: ReadBatch, plans: dict[int, Plan]) -> Run:
    """The run of a row, not stored yet. `plans` holds one of each sheet, made from its first row."""
    assert row.record is not None
    assert row.made is not None
    sheet = row.record.sheet
    worked = result_for(sheet, kitchen.settings)
    plan = plans.get(row.record.pk) or plan_from(worked.steps, kitchen.settings, begin=row.made)
    plans[row.record.pk] = plan = plan.shifted(row.made - plan.begin)
    run = run_from(row.record, sheet, worked, plan, began=row.made, clock=row.made, pace=1)
    run.finished = row.made + (plan.serve - plan.begin)
    return run


def _batch_of(row: ReadBatch, run: Run) -> Batch:
    assert row.said is not None
    return Batch(run=run, **batch_fields(run, row.said))


def _read_batch(kitchen: KitchenRecord, row: TableRow, sheets: dict[str, SheetRecord], now: datetime) -> ReadBatch:
    record = sheet_called(row.get("title", "sheet"), sheets)
    if result_for(record.sheet, kitchen.settings).problems:
        raise RowRejected("its sheet cannot be worked as it stands")
    made = instant("made", row.get("made", "date"), kitchen, now)
    way = WAYS[record.way]
    tastes: dict[str, int] = {name: mark for name in way.scales if (mark := _read_mark(name, row)) is not None}
    verdict = row.get("verdict").lower()
    if VERDICT_BY not in tastes and verdict in _VERDICTS and VERDICT_BY in way.scales:
        tastes[VERDICT_BY] = _VERDICTS[verdict]
    known = {fault.id: fault for fault in faults_of(way)}
    faults = [name.strip() for name in row.get("faults").split(",") if name.strip()]
    for name in faults:
        if name not in known:
            raise RowRejected(f"faults: “{name[:40]}” is none of this way's: {', '.join(known)}")
    pieces, liking = number_in(row, "pieces", 0, 1000), number_in(row, "liked 1 to 9", 1, 9)
    said = BatchFeedback(
        tastes,
        faults,
        row.get("note")[:4000],
        None if pieces is None else round(pieces),
        number_in(row, "grams", 0.1, 50_000),
    )
    says = f"{record.title}, {made.astimezone(kitchen.settings.zone):%d %b %Y %H:%M}"
    return ReadBatch(
        row.number, says, record=record, made=made, said=said, liking=None if liking is None else round(liking)
    )


def _read_mark(name: str, row: TableRow) -> int | None:
    assert name in SCALES
    value = number_in(row, f"{name} -2 to 2", -2, 2)
    return round(value) if value is not None else None

"""Weighings that come in as a table: benches of another kitchen, or of a notebook that a scale was written down in.

Rows of one `bench` (of one day, sheet and mass, where that column is empty) are one bench, kept whole or left out whole:
what a mark may be hangs on those before it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, cast, get_args

from pydantic import ValidationError

from kemble.core.facts.problems import Refused
from kemble.core.formats.csv_tables import TableRow
from kemble.core.run.weigh_out import BenchMarkEvent, BenchSetup, MarkKind, check_mark
from kemble.core.sentences import say
from kemble.server.imports.table_rows import RowRead, RowRejected, instant, number_in, sheet_called, sheets_by_title
from kemble.server.models import BenchMark, KitchenRecord, SheetRecord
from kemble.server.storage.fair_lock import writing

_MOST_G = 50_000


@dataclass(slots=True)
class ReadBench:
    """A bench as it was understood, with the rows that it came from; `problem`, of one row, leaves all of it out."""

    rows: list[TableRow]
    says: str
    sheet: SheetRecord | None = None
    setup: BenchSetup | None = None
    marks: list[BenchMarkEvent] = field(default_factory=list)
    here: bool = False
    problem: tuple[int, str] | None = None


def read_benches(kitchen: KitchenRecord, rows: Sequence[TableRow], now: datetime) -> list[ReadBench]:
    """Every bench of a table of weighings."""
    sheets, grouped = sheets_by_title(kitchen), dict[tuple[str, ...], list[TableRow]]()
    for row in rows:
        of_day = (row.get("at")[:10], row.get("sheet").casefold(), row.get("of"))
        grouped.setdefault((row.get("bench"),) if row.get("bench") else of_day, []).append(row)
    there = {
        _known_by(bench.settings, first)
        for bench in kitchen.benches.prefetch_related("marks")
        for first in bench.log[:1]
    }
    benches = []
    for of_one in grouped.values():
        bench = ReadBench(of_one, of_one[0].get("of")[:60] or say("a bench"))
        try:
            _fill_bench(bench, kitchen, sheets, now)
        except RowRejected as problem:
            bench.problem = bench.problem or (of_one[0].number, str(problem))
        if bench.setup and bench.marks:
            known_by = _known_by(bench.setup, bench.marks[0])
            bench.here = known_by in there
            there.add(known_by)
        benches.append(bench)
    return benches


def _known_by(setup: BenchSetup, first: BenchMarkEvent) -> tuple[object, ...]:
    """What a bench is known again by: what was shared out, and when it was begun, to the minute."""
    return (setup.what, setup.total_g, setup.pieces, setup.drill, first.at.replace(second=0, microsecond=0))


def _fill_bench(bench: ReadBench, kitchen: KitchenRecord, sheets: dict[str, SheetRecord], now: datetime) -> None:
    first = bench.rows[0]
    if first.get("sheet"):
        bench.sheet = sheet_called(first.get("sheet"), sheets)
    said = [_mark_document(bench, row, kitchen, now) for row in bench.rows]
    bench.setup = _setup(first, said)
    for row, told in zip(bench.rows, said, strict=True):
        mark = BenchMarkEvent.model_validate({"uid": f"table-{row.number:06d}", **told})
        try:
            check_mark(bench.setup, bench.marks, mark)
        except Refused as refused:
            bench.problem = (row.number, refused.problems[0].says)
            return
        bench.marks.append(mark)
    at = bench.marks[0].at.astimezone(kitchen.settings.zone)
    bench.says = say(
        "{stuff}, {pieces} of {total_g:g} g, {at:%d %b %Y %H:%M}",
        stuff=bench.setup.what,
        pieces=bench.setup.pieces,
        total_g=bench.setup.total_g,
        at=at,
    )


def _mark_document(bench: ReadBench, row: TableRow, kitchen: KitchenRecord, now: datetime) -> dict[str, Any]:
    """What a row marks."""
    try:
        kind = row.get("kind") or "piece"
        if kind not in get_args(MarkKind):
            raise RowRejected(f"kind: “{kind[:30]}” is none of {', '.join(get_args(MarkKind))}")
        grams = number_in(row, "grams", 0.01, _MOST_G)
        if grams is None and kind in ("piece", "guess", "whole"):
            raise RowRejected(f"grams is empty: what the {kind} weighs")
        return {"kind": cast(MarkKind, kind), "grams": grams, "at": instant("at", row.get("at"), kitchen, now)}
    except RowRejected as problem:
        bench.problem = (row.number, str(problem))
        raise


def _setup(first: TableRow, said: Sequence[dict[str, Any]]) -> BenchSetup:
    """What was shared out; where the table does not say, as much and as many as were weighed."""
    weighed = [item["grams"] for item in said if item["kind"] == "piece"]
    total, pieces = number_in(first, "total g", 0.01, _MOST_G), number_in(first, "pieces", 1, 500)
    try:
        return BenchSetup(
            what=first.get("of") or "dough",
            total_g=total if total is not None else round(sum(weighed), 2),
            pieces=round(pieces) if pieces is not None else len(weighed),
            tolerance_pct=number_in(first, "within %", 0.5, 50) or 5.0,
            drill=first.get("drill").lower() in ("yes", "1", "true"),
        )
    except ValidationError as error:
        raise RowRejected(f"no bench can be laid: {error.errors()[0]['msg']}") from None


def rows_of(benches: Sequence[ReadBench]) -> list[RowRead]:
    """Every row of them, in the order of the file."""
    row_reads = []
    for bench in benches:
        for row in bench.rows:
            problem = ""
            if bench.problem:
                at, why = bench.problem
                problem = why if row.number == at else say("left out with row {at}", at=at)
            row_reads.append(RowRead(row.number, bench.says, problem, bench.here and not problem))
    return sorted(row_reads, key=lambda row_read: row_read.number)


def keep_benches(kitchen: KitchenRecord, benches: Sequence[ReadBench]) -> int:
    """Keep those that will do, and are not here. How many they were."""
    kept = 0
    with writing():
        for read_bench in benches:
            if read_bench.problem or read_bench.here or read_bench.setup is None or not read_bench.marks:
                continue
            bench = kitchen.benches.create(
                sheet=read_bench.sheet,
                setup=read_bench.setup.model_dump(mode="json"),
                drill=read_bench.setup.drill,
                began=read_bench.marks[0].at,
            )
            BenchMark.objects.bulk_create(
                BenchMark(bench=bench, uid=mark.uid, at=mark.at, document=mark.document) for mark in read_bench.marks
            )
            kept += 1
    return kept

"""The tables that can be exported: batches, predictions with what happened, and weighings."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import NamedTuple

from kemble.core.cards.taste_scales import SCALES
from kemble.core.formats.csv_tables import Cell
from kemble.server.learning.fact_history import mean
from kemble.server.models import Batch, KitchenRecord

MOST = 10_000  # rows of batches


class ExportTable(NamedTuple):
    """Its name, its head, and its rows of one kitchen."""

    label: str
    head: tuple[str, ...]
    rows: Callable[[KitchenRecord], Iterator[tuple[Cell, ...]]]


def _batches(kitchen: KitchenRecord) -> Iterator[tuple[Cell, ...]]:
    zone = kitchen.settings.zone
    rows = Batch.objects.filter(kitchen=kitchen, rehearsed=False).defer("seen").prefetch_related("tastings")[:MOST]
    for batch in rows:
        likings = [tasting.liking for tasting in batch.tastings.all() if tasting.liking is not None]
        yield (
            batch.made.astimezone(zone),
            batch.title,
            batch.way,
            batch.verdict,
            batch.hydration_pct,
            batch.sugar_pct,
            batch.pieces,
            batch.grams,
            mean(likings),
            *(mean([mark[taste] for mark in batch.marks if taste in mark]) for taste in SCALES),
            ", ".join(batch.faults),
            batch.note,
        )


def _measured(kitchen: KitchenRecord) -> Iterator[tuple[Cell, ...]]:
    zone = kitchen.settings.zone
    for batch in (
        Batch.objects.filter(kitchen=kitchen, rehearsed=False).select_related("run").defer("run__frozen")[:MOST]
    ):
        for item in batch.compared:
            cells = (item.step, item.label, item.unit, item.predicted, item.low, item.high, item.happened)
            yield (batch.made.astimezone(zone), batch.title, batch.way, *cells)


def _weighing_rows(kitchen: KitchenRecord) -> Iterator[tuple[Cell, ...]]:
    zone = kitchen.settings.zone
    benches = kitchen.benches.order_by("began", "id").select_related("sheet").prefetch_related("marks")
    for n, bench in enumerate((bench for bench in benches if bench.log), start=1):
        setup, title = bench.settings, bench.sheet.title if bench.sheet else ""
        for mark in bench.log:
            of_bench = (setup.total_g, setup.pieces, setup.tolerance_pct)
            yield (n, mark.at.astimezone(zone), title, setup.what, setup.drill, mark.kind, mark.grams, *of_bench)


TABLES: Mapping[str, ExportTable] = {
    "batches": ExportTable(
        "every batch",
        (
            "made", "title", "way", "verdict", "water %", "sugar %", "pieces", "grams", "liked 1 to 9",
            *(f"{taste} -2 to 2" for taste in SCALES), "faults", "note",
        ),
        _batches,
    ),
    "measured": ExportTable(
        "what was told and what happened",
        ("made", "title", "way", "step", "what", "unit", "told", "least", "most", "happened"),
        _measured,
    ),
    "weighings": ExportTable(
        "every weighing on the bench", ("bench", "at", "sheet", "of", "drill", "kind", "grams", "total g", "pieces", "within %"), _weighing_rows
    ),
}  # fmt: skip

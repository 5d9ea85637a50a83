"""Cells of a row that came in, each read for what it is to be; a cell that will not do says why."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from kemble.core.formats.csv_tables import TableRow
from kemble.server.models import KitchenRecord, SheetRecord

_EARLIEST_YEAR = 1970


class RowRejected(ValueError):
    """Why a row is left out."""


@dataclass(frozen=True, slots=True)
class RowRead:
    """A row as it was understood: what it is in words, or why it is left out (`problem`); `here`: it is kept already."""

    number: int
    says: str
    problem: str = ""
    here: bool = False


def sheets_by_title(kitchen: KitchenRecord) -> dict[str, SheetRecord]:
    """The newest of each title, in small letters."""
    return {row.title.casefold(): row for row in reversed(kitchen.sheets.all())}


def sheet_called(title: str, sheets: dict[str, SheetRecord]) -> SheetRecord:
    record = sheets.get(title.casefold())
    if record is None:
        raise RowRejected(f"no sheet is called “{title[:60]}”" if title else "title is empty: the title of a sheet")
    return record


def instant(head: str, text: str, kitchen: KitchenRecord, now: datetime) -> datetime:
    """An instant as it is written: with its zone, or on the kitchen's clock; a day alone is its noon."""
    try:
        moment = datetime.fromisoformat(text)
    except ValueError:
        raise RowRejected(f"{head}: “{text[:30]}” is no time such as 2026-11-25 15:30") from None
    if len(text) <= len("2026-11-25"):
        moment += timedelta(hours=12)
    if moment.tzinfo is None:
        moment = moment.replace(tzinfo=kitchen.settings.zone)
    if moment > now or moment.year < _EARLIEST_YEAR:
        raise RowRejected(
            f"{head}: {text[:30]} is still to come" if moment > now else f"{head}: {text[:30]} is too long ago"
        )
    return moment


def number_in(row: TableRow, head: str, least: float, most: float) -> float | None:
    """A number within its ends; None where the cell is empty."""
    text = row.get(head)
    if not text:
        return None
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise RowRejected(f"{head}: “{text[:30]}” is no number") from None
    if not least <= value <= most:
        raise RowRejected(f"{head}: {text[:30]} is not from {least:g} to {most:g}")
    return value

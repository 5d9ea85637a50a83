"""Tables for spreadsheets, as CSV: a head and rows. A cell of words is never a formula, whatever somebody wrote."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from datetime import datetime

Cell = str | float | int | bool | datetime | None
# What a spreadsheet takes for the beginning of a formula; such a cell is given a quote before it, which it shows as words.
_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")


def csv_text(head: Sequence[str], rows: Iterable[Sequence[Cell]]) -> str:
    """RFC 4180 with a mark of its letters (UTF-8), so that a spreadsheet reads them as they are. Instants in ISO 8601."""
    out = io.StringIO()
    out.write("\ufeff")
    writer = csv.writer(out)
    writer.writerow(head)
    for row in rows:
        writer.writerow([_cell(one) for one in row])
    return out.getvalue()


def _cell(value: Cell) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, datetime):
        return value.isoformat(timespec="minutes")
    if isinstance(value, int | float):
        return f"{value:.6g}" if isinstance(value, float) else str(value)
    text = value.replace("\x00", "")
    return f"'{text}" if text.startswith(_FORMULA) else text

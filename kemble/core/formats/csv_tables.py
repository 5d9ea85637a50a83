"""Tables for spreadsheets, as CSV, out and in: a head and rows. A cell of words is never a formula, whatever somebody
wrote.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime

from kemble.core.facts.problems import refuse
from kemble.core.sentences import say
from kemble.core.text_cleaning import MULTILINE, clean_text

Cell = str | float | int | bool | datetime | None
# What a spreadsheet takes for the beginning of a formula; such a cell is given a quote before it, which it shows as words.
_FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")


MOST_LETTERS = 200_000  # of a table that comes in
MOST_ROWS = 3_000


@dataclass(frozen=True, slots=True)
class TableRow:
    """A row that came in: which of the file it is, the head being the first; its cells by their head in small letters."""

    number: int
    cells: dict[str, str]

    def get(self, *heads: str) -> str:
        """The first cell that is not empty, of those heads."""
        return next((self.cells[head] for head in heads if self.cells.get(head)), "")


def read_csv(text: str) -> list[TableRow]:
    """Rows of a table as a spreadsheet writes it: with commas, semicolons or tabs. A quote that stands before what could be
    a formula is taken off again. Raises Refused for what is too long, and for what has no head."""
    text = text.removeprefix("\ufeff")
    if len(text) > MOST_LETTERS:
        refuse(
            "text",
            say("is over {most_letters:,} letters long", most_letters=MOST_LETTERS),
            say("at most {most_letters:,}", most_letters=MOST_LETTERS),
        )
    first = text.lstrip().split("\n", 1)[0]
    between = max((",", ";", "\t"), key=first.count)
    if not first.strip() or between not in first:
        refuse("text", say("has no head with several columns"), say("a table as a spreadsheet writes it, as CSV"))
    try:
        result = list(csv.reader(io.StringIO(text, newline=""), delimiter=between, strict=True))
    except csv.Error as error:
        refuse("text", say("is no whole table: {error}", error=error), say("CSV as a spreadsheet writes it"))
    while result and not any(cell.strip() for cell in result[0]):
        del result[0]
    head = [cell.strip().lower() for cell in result[0]]
    if len(result) > MOST_ROWS + 1:
        refuse(
            "text", say("has {rows:,} rows", rows=len(result) - 1), say("at most {most_rows:,}", most_rows=MOST_ROWS)
        )
    rows = []
    for number, cells in enumerate(result[1:], start=2):
        if any(cell.strip() for cell in cells):
            rows.append(
                TableRow(
                    number, {name: _plain_cell(name, cell) for name, cell in zip(head, cells, strict=False) if name}
                )
            )
    return rows


def _plain_cell(head: str, cell: str) -> str:
    cell = clean_text(cell.replace("\x00", ""), multiline=head in MULTILINE)
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(_FORMULA) else cell.strip()


def csv_text(head: Sequence[str], rows: Iterable[Sequence[Cell]]) -> str:
    """RFC 4180 with a mark of its letters (UTF-8), so that a spreadsheet reads them as they are. Instants in ISO 8601."""
    out = io.StringIO()
    out.write("\ufeff")
    writer = csv.writer(out)
    writer.writerow(head)
    for row in rows:
        writer.writerow([_cell(item) for item in row])
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

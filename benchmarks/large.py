"""A kitchen that has been used for years, put together from the frozen ones (tests/fixtures/kitchens)."""

from __future__ import annotations

import sqlite3
import sys
from contextlib import closing
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT / "tests" / "helpers")]

from frozen import laid_out  # noqa: E402


def blown_up(version: int, file: Path, *, sheets: int, batches: int) -> Path:
    """The frozen kitchen of that version with so many sheets and batches: its own rows, over and over, each batch with a
    run of its own, and each run with some events."""
    laid_out(version, file)
    with closing(sqlite3.connect(file)) as database, database:
        _copied(database, "kitchen_sheetrecord", sheets)
        _copied(
            database, "kitchen_sheetrevision", sheets, record_id="(SELECT max(id) FROM kitchen_sheetrecord) - n + 1"
        )
        made = database.execute("SELECT count(*) FROM kitchen_batch").fetchone()[0]
        first = database.execute("SELECT max(id) FROM kitchen_run").fetchone()[0]
        runs = database.execute("SELECT count(*) FROM kitchen_run").fetchone()[0]
        _copied(database, "kitchen_run", runs + batches - made, of="SELECT run_id FROM kitchen_batch", finished="began")
        _copied(database, "kitchen_batch", batches, run_id=f"{first} + n")
        events = database.execute("SELECT count(*) FROM kitchen_runevent").fetchone()[0]
        _copied(
            database,
            "kitchen_runevent",
            events + 4 * (batches - made),
            run_id=f"{first} + 1 + (n - 1) / 4",
            uid="'copy-' || n",
        )
    return file


def _copied(database: sqlite3.Connection, table: str, count: int, of: str = "", **changed: str) -> None:
    """Copies of a table's rows until there are so many; `n` counts the copies from 1."""
    columns = [name for _, name, *_ in database.execute(f"PRAGMA table_info({table})") if name != "id"]
    there = database.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
    taken = ", ".join(changed.get(name, f'"{name}"') for name in columns)
    names = ", ".join(f'"{name}"' for name in columns)
    rows = f"SELECT *, row_number() OVER () AS place FROM {table} {f'WHERE id IN ({of})' if of else ''}"
    database.execute(
        f"WITH RECURSIVE c(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM c WHERE n < {count - there}),"
        f" r AS ({rows}), size AS (SELECT count(*) AS size FROM r)"
        f" INSERT INTO {table} ({names}) SELECT {taken} FROM c, size JOIN r ON r.place = (c.n - 1) % size.size + 1"
        f" WHERE {max(0, count - there)} > 0"
    )

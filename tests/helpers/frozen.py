"""Kitchens as they were kept at every version of the database, each laid out by the code of its day. Frozen: a new one is
added with a new migration, and none is ever changed.

The one of version 10 is large: the demo kitchen and some two hundred rows of each kind, all made through the API.
"""

import gzip
import lzma
import re
import sqlite3
from contextlib import closing
from pathlib import Path

KITCHENS = Path(__file__).resolve().parents[1] / "fixtures" / "kitchens"
FILES = {int(re.search(r"\d+", path.name)[0]): path for path in sorted(KITCHENS.glob("kitchen-*.sql.?z"))}
VERSIONS = list(FILES)
LARGE = 10


def laid_out(version, file):
    """The database of that version in a new file."""
    unpack = lzma.decompress if FILES[version].suffix == ".xz" else gzip.decompress
    with closing(sqlite3.connect(file)) as made:
        made.executescript(unpack(FILES[version].read_bytes()).decode())
        made.commit()
    return file


def counted(file, tables):
    """How many rows there are of each table that is there."""
    with closing(sqlite3.connect(file)) as connection:
        there = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        return {
            table: connection.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
            for table in tables
            if table in there
        }

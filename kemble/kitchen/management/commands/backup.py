"""Copy the database to one file while the kitchen may be in use."""

from __future__ import annotations

import sqlite3
from argparse import ArgumentParser
from contextlib import closing
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError


def copy_database(source: Path, target: Path) -> None:
    """Copy an SQLite database that may be in use. Raises FileNotFoundError or FileExistsError with words for a cook."""
    if not source.is_file():
        raise FileNotFoundError(f"There is no database at {source} yet.")
    if target.exists():
        raise FileExistsError(f"{target} is there already; name a new file.")
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(target)) as copy:
        live.backup(copy)


class Command(BaseCommand):
    help = "Copy the whole database to FILE, safely, even while Kemble is running."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        try:
            copy_database(Path(str(settings.DATABASES["default"]["NAME"])), file)
        except OSError as error:
            raise CommandError(str(error)) from None
        print(f"Copied to {file} ({file.stat().st_size:,} bytes).")

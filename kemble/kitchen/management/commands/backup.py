"""Copy the database to one file while the kitchen may be in use."""

from __future__ import annotations

import sqlite3
from argparse import ArgumentParser
from contextlib import closing
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError


class Command(BaseCommand):
    help = "Copy the whole database to FILE, safely, even while Kemble is running."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        source = Path(str(settings.DATABASES["default"]["NAME"]))
        if not source.is_file():
            raise CommandError(f"There is no database at {source} yet.")
        if file.exists():
            raise CommandError(f"{file} is there already; name a new file.")
        with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(file)) as copy:
            live.backup(copy)
        print(f"Copied to {file} ({file.stat().st_size:,} bytes).")

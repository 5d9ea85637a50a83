"""Copy the database to one file while the kitchen may be in use."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from kemble.server.folder import copy_database


class Command(BaseCommand):
    help = "Copy the whole database to FILE, safely, even while Kemble is running."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        try:
            copy_database(settings.DATABASE, file)
        except OSError as error:
            raise CommandError(str(error)) from None
        print(f"Copied to {file} ({file.stat().st_size:,} bytes), for your eyes only; nobody is signed in there.")

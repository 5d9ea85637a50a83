"""Put a backup in the place of the database, and keep what was there aside."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from kemble.server.folder import FolderBusy, NotOurs, held, restore_database


class Command(BaseCommand):
    help = "Check FILE, keep the present database aside, and put FILE in its place. Kemble must not be running."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        try:
            with held(settings.DATA):
                aside = restore_database(file, settings.DATABASE, timezone.now())
        except (FolderBusy, NotOurs, OSError) as error:
            raise CommandError(str(error)) from None
        print(f"{file} is whole, and is your kitchen now.")
        if aside:
            print(f"What was there before is kept as {aside}.")
        print("Everybody signs in again: start Kemble as usual.")

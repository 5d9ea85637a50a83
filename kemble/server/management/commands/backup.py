"""Copy the database to one file while the kitchen may be in use; or write the kitchen as one open file."""

from __future__ import annotations

import os
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from kemble.server.accounts.owner import kitchen_of, local_owner
from kemble.server.exports.archive import write_archive
from kemble.server.storage.encryption import SUFFIX, seal
from kemble.server.storage.folder import copy_database


class Command(BaseCommand):
    help = (
        "Copy the whole database to FILE, safely, even while Kemble is running. A FILE.zip is your kitchen alone, as open "
        "text with its pictures; a FILE.sealed can be read only with KEMBLE_PASSPHRASE."
    )

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        try:
            if file.suffix == ".zip":
                self._archive(file)
            elif file.suffix == SUFFIX:
                self._sealed(file)
            else:
                copy_database(settings.DATABASE, file)
        except OSError as error:
            raise CommandError(str(error)) from None
        whose = "open to whoever has it" if file.suffix == ".zip" else "for your eyes only; nobody is signed in there"
        print(f"Copied to {file} ({file.stat().st_size:,} bytes), {whose}.")

    @staticmethod
    def _archive(file: Path) -> None:
        if not settings.DATABASE.is_file():
            raise FileNotFoundError(f"There is no database at {settings.DATABASE} yet.")
        with file.open("xb") as out:
            write_archive(kitchen_of(local_owner()), out, timezone.now())

    @staticmethod
    def _sealed(file: Path) -> None:
        if not settings.PASSPHRASE:
            raise CommandError("Set KEMBLE_PASSPHRASE to what is to open it again.")
        plain = file.with_name(f".{file.name}.{os.getpid()}.part")
        try:
            copy_database(settings.DATABASE, plain)
            seal(plain, file, settings.PASSPHRASE)
        finally:
            plain.unlink(missing_ok=True)

"""Put a backup in the place of the database, and keep what was there aside; or put a kitchen's file in."""

from __future__ import annotations

import getpass
import sys
from argparse import ArgumentParser
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, get_args

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from kemble.core.facts.problems import Refused
from kemble.server.accounts.owner import kitchen_of, local_owner
from kemble.server.exports.archive import open_archive
from kemble.server.exports.archive_staging import GroupId, stage, take_beside, take_in_place
from kemble.server.storage.backups import keep
from kemble.server.storage.encryption import SealedFile, is_sealed, unseal
from kemble.server.storage.folder import FolderBusy, UnreadableDatabase, hold_folder, restore_database


class Command(BaseCommand):
    help = (
        "Check FILE, keep the present database aside, and put FILE in its place; a sealed one is opened with "
        "KEMBLE_PASSPHRASE. A FILE.zip takes the place of your kitchen alone, or is put beside it (--beside). Kemble must "
        "not be running."
    )

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument(
            "--beside",
            metavar="WHAT",
            help="of a FILE.zip: put that beside what is there, of " + ", ".join(get_args(GroupId)) + ", with commas",
        )

    def handle(self, *args: Any, file: Path, beside: str | None, **options: Any) -> None:
        try:
            with hold_folder(settings.DATA):
                if file.suffix == ".zip":
                    self._archive(file, beside)
                else:
                    self._database(file)
        except Refused as refused:
            raise CommandError(str(refused)) from None
        except (FolderBusy, UnreadableDatabase, SealedFile, OSError) as error:
            raise CommandError(str(error)) from None

    def _database(self, file: Path) -> None:
        if not file.is_file():
            raise UnreadableDatabase(f"There is no file at {file}.")
        with _unsealed_file(file) as plain:
            aside = restore_database(plain, settings.DATABASE, timezone.now())
        print(f"{file} is whole, and is your kitchen now.")
        if aside:
            print(f"What was there before is kept as {aside}.")
        print("Everybody signs in again: start Kemble as usual.")

    def _archive(self, file: Path, beside: str | None) -> None:
        groups: list[GroupId] = []
        for name in beside.split(",") if beside is not None else ():
            if name.strip() not in get_args(GroupId):
                raise CommandError(f"“{name.strip()}” is none of " + ", ".join(get_args(GroupId)))
            groups.append(name.strip())  # type: ignore[arg-type]
        with file.open("rb") as opened, open_archive(opened) as reader:
            if settings.DATABASE.is_file():
                print(
                    f"What is there now is kept as {keep(settings.DATA, settings.DATABASE, timezone.now(), 'before')}."
                )
            call_command("migrate", verbosity=0)
            kitchen = kitchen_of(local_owner())
            staged = stage(reader)
        taken = take_in_place(kitchen, staged) if beside is None else take_beside(kitchen, staged, groups)
        print(f"{taken.count:,} things of {reader.kitchen.name} came in.")
        if taken.ended:
            print(f"{taken.ended} batches in progress there came in as ended.")


@contextmanager
def _unsealed_file(file: Path) -> Iterator[Path]:
    """The file itself, or what was sealed in it for as long as it is needed."""
    if not is_sealed(file):
        yield file
        return
    passphrase = settings.PASSPHRASE or (getpass.getpass("Passphrase: ") if sys.stdin.isatty() else "")
    if not passphrase:
        raise SealedFile(f"{file} is sealed: set KEMBLE_PASSPHRASE to what opens it.")
    plain = settings.DATA / ".kemble-unsealed.part"
    plain.unlink(missing_ok=True)
    try:
        unseal(file, plain, passphrase)
        yield plain
    finally:
        plain.unlink(missing_ok=True)

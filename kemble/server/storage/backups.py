"""Backups that nobody has to think of: one a day while Kemble runs, one before the database is changed by a new version.

Each is a whole copy beside the database, sealed where a passphrase is given, and checked after it was written. The newest
stay; of the others so many, so old and so large as stands here. A disk that is nearly full is said, and nothing is
written to fill it.
"""

from __future__ import annotations

import filecmp
import logging
import re
import shutil
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from threading import Event, Thread
from typing import Literal

from django.conf import settings
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.utils import timezone

from kemble.core.sentences import say
from kemble.server.storage.encryption import SUFFIX, SealedFile, seal, unseal
from kemble.server.storage.folder import UnreadableDatabase, check_database, copy_database

Why = Literal["daily", "before"]

MOST: dict[Why, int] = {"daily": 14, "before": 5}
OLDEST = timedelta(days=90)
MOST_BYTES = 2_000_000_000
ALWAYS = 3  # of the newest, whatever their age and size
EVERY = timedelta(hours=24)
SPARE_BYTES = 50_000_000  # left free beside a copy
_LOOK_S = 900.0
_NAME = re.compile(r"^kemble-(\d{8}-\d{6})-(daily|before)\.sqlite3(\.sealed)?$")
_log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Backup:
    path: Path
    made: datetime
    why: Why
    size: int


class DiskFull(OSError):
    """The disk has no room for a copy."""


def place_of(data: Path) -> Path:
    return data / "backups"


def backups_in(data: Path) -> list[Backup]:
    """Those that are there, the newest first. Told by their names: a copied folder keeps its times."""
    backups = []
    place = place_of(data)
    for path in place.iterdir() if place.is_dir() else ():
        match = _NAME.match(path.name)
        if match is None:
            continue
        made = datetime.strptime(match[1], "%Y%m%d-%H%M%S").replace(tzinfo=UTC)
        why: Why = "daily" if match[2] == "daily" else "before"
        backups.append(Backup(path, made, why, path.stat().st_size))
    return sorted(backups, key=lambda backup: (backup.made, backup.path.name), reverse=True)


def keep(data: Path, database: Path, now: datetime, why: Why) -> Path:
    """Make a backup, check it, and let go of those that are over. Raises DiskFull, or another OSError with words for a cook."""
    size = database.stat().st_size
    free = shutil.disk_usage(data).free
    if free < (3 if settings.PASSPHRASE else 1) * size + SPARE_BYTES:
        mb = 1_000_000
        raise DiskFull(
            f"No backup was made: the disk has {free // mb:,} MB left, and the kitchen's database {size // mb:,}."
        )
    place = place_of(data)
    place.mkdir(mode=0o700, exist_ok=True)
    for part in place.glob(".kemble-*.part*"):  # of a copy that a power cut ended
        part.unlink(missing_ok=True)
    path = _free_name(place, now.astimezone(UTC), why)
    copy_database(database, path)
    try:
        check_database(path)
        if settings.PASSPHRASE:
            path = _sealed(path, settings.PASSPHRASE)
    except (UnreadableDatabase, SealedFile) as error:
        path.unlink(missing_ok=True)
        raise OSError(f"The backup did not hold when it was read again: {error}") from None
    for backup in backups_to_delete(backups_in(data), now):
        backup.path.unlink(missing_ok=True)
    return path


def _free_name(place: Path, now: datetime, why: Why) -> Path:
    """Named by its second; by a later one where a start that was killed left one of this second."""
    while True:
        path = place / f"kemble-{now:%Y%m%d-%H%M%S}-{why}.sqlite3"
        if not path.exists() and not path.with_name(path.name + SUFFIX).exists():
            return path
        now += timedelta(seconds=1)


def _sealed(plain: Path, passphrase: str) -> Path:
    """The sealed copy in the place of the plain one, opened once to see that it holds."""
    path, again = plain.with_name(plain.name + SUFFIX), plain.with_name(f".{plain.name}.part")
    try:
        seal(plain, path, passphrase)
        unseal(path, again, passphrase)
        if not filecmp.cmp(plain, again, shallow=False):
            path.unlink()
            raise SealedFile("what was sealed is not what was there")
    finally:
        plain.unlink(missing_ok=True)
        again.unlink(missing_ok=True)
    return path


def backups_to_delete(backups: list[Backup], now: datetime) -> list[Backup]:
    """Which of them, the newest first, are to go: too many of their kind, too old, or too large together."""
    gone, counts, size = [], {"daily": 0, "before": 0}, 0
    for i, backup in enumerate(backups):
        counts[backup.why] += 1
        size += backup.size
        if i < ALWAYS:
            continue
        if counts[backup.why] > MOST[backup.why] or now - backup.made > OLDEST or size > MOST_BYTES:
            gone.append(backup)
            counts[backup.why] -= 1
            size -= backup.size
    return gone


def is_due(data: Path, now: datetime) -> bool:
    """Whether the last daily one is a day old, or there is none."""
    newest = next((backup for backup in backups_in(data) if backup.why == "daily"), None)
    return newest is None or now - newest.made >= EVERY


def before_migrating(data: Path, database: Path, now: datetime) -> Path | None:
    """A backup where a migration waits for a database that is there already. None where nothing waits."""
    if not database.is_file() or not steps_waiting(of_a_database=True):
        return None
    return keep(data, database, now, "before")


def steps_waiting(*, of_a_database: bool = False) -> list[str]:
    """The migrations that the database has not had yet; none of one that is empty where it is to be `of_a_database`."""
    executor = MigrationExecutor(connection)
    if of_a_database and not executor.loader.applied_migrations:
        return []
    return [str(step) for step, _ in executor.migration_plan(executor.loader.graph.leaf_nodes())]


def sound(data: Path, database: Path) -> None:
    """Raises UnreadableDatabase for a database that is damaged or half written, with what to do, in one sentence."""
    if not database.is_file() or database.stat().st_size == 0:
        return
    try:
        check_database(database)
    except UnreadableDatabase as error:
        raise UnreadableDatabase(f"{error} {advice_for_broken_database(data)}") from None


def advice_for_broken_database(data: Path) -> str:
    """About a database that cannot be used; nothing has touched it."""
    newest = next(iter(backups_in(data)), None)
    if newest is None:
        return say("It is still there, as it was, and there is no backup of it.")
    return say("It is still there, as it was. Put the newest backup back: make restore FILE={path}", path=newest.path)


class DailyBackups(Thread):
    """Looks every quarter of an hour whether a backup is due, beside whatever is served."""

    def __init__(self, data: Path, database: Path) -> None:
        super().__init__(daemon=True, name="backups")
        self._data, self._database, self._ends = data, database, Event()

    def run(self) -> None:
        while not self._ends.is_set():
            self.look(timezone.now())
            self._ends.wait(_LOOK_S)

    def look(self, now: datetime) -> Path | None:
        """The backup that was made, where one was due. What fails is logged, and tried again the next time."""
        try:
            return keep(self._data, self._database, now, "daily") if is_due(self._data, now) else None
        except OSError as error:
            _log.warning("%s", error)
            return None

    def end(self) -> None:
        self._ends.set()

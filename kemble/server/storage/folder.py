"""The data folder: one server at a time, backups that are whole and private, and the way back from one."""

from __future__ import annotations

import os
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import datetime
from pathlib import Path

from django.apps import apps
from django.core.management import call_command
from django.db import connections
from django.db.migrations.loader import MigrationLoader
from filelock import FileLock, Timeout

# Who is signed in, and what could let somebody in: no copy that leaves the house holds any of it.
_LIVE = (
    "django_session",
    "kitchen_doorkey",
    "kitchen_try",  # of before version 11
    "kitchen_passwordattempt",
    "kitchen_browser",
    "kitchen_invitation",
)
_BESIDE = ("-wal", "-shm")
_PRIVATE = 0o077  # what others may do: nothing


class FolderBusy(OSError):
    """Another Kemble holds the folder."""


class UnreadableDatabase(ValueError):
    """A file that is not a whole database of Kemble's that this version can read."""


@contextmanager
def hold_folder(folder: Path) -> Iterator[None]:
    """Hold the data folder alone. Raises FolderBusy when another process has it."""
    make_private(folder)
    lock = FileLock(folder / "lock", mode=0o600)
    try:
        lock.acquire(timeout=0)
    except Timeout:
        raise FolderBusy(f"{folder} is in use by a Kemble that is running. Stop it first.") from None
    try:
        yield
    finally:
        lock.release()


def make_private(folder: Path) -> None:
    """Whatever is written from here on is for its owner's eyes alone; and so is what lies in the folder, however open the
    folder was before it held a kitchen."""
    os.umask(_PRIVATE)
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    for path in (folder, *folder.iterdir()):
        open_to_others = path.stat().st_mode & _PRIVATE
        if open_to_others and not path.is_symlink():
            with suppress(OSError):  # it belongs to somebody else
                path.chmod(path.stat().st_mode & ~_PRIVATE & 0o777)


def checkpoint_database(database: Path) -> None:
    """Write what lies in the write-ahead log into the database and empty the log, with nobody else at it."""
    connections.close_all()
    if database.is_file():
        with closing(sqlite3.connect(database)) as last:
            last.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def copy_database(source: Path, target: Path) -> None:
    """Copy a database that may be in use to a new file: whole, readable by its owner alone, nobody signed in.

    Raises FileNotFoundError, FileExistsError or another OSError with words for a cook; what fails leaves no file.
    """
    if not source.is_file():
        raise FileNotFoundError(f"There is no database at {source} yet.")
    if target.exists():
        raise FileExistsError(f"{target} is there already; name a new file.")
    with _temporary_beside(target) as copy:
        _copy_database_file(source, copy)
        try:
            os.link(copy, target)  # refuses a file that has come to be there meanwhile
        except FileExistsError:
            raise
        except OSError:  # a memory stick knows no links
            os.rename(copy, target)
    _settle_folder(target.parent)


def restore_database(backup: Path, database: Path, now: datetime) -> Path | None:
    """Put a backup in the database's place. The one that was there is kept aside; its new path is returned.

    It is brought up to this version before it takes the place. Raises UnreadableDatabase for a file that will not do: then nothing has
    been touched. Hold the folder meanwhile.
    """
    check_database(backup)
    with _temporary_beside(database) as copy:
        _copy_database_file(backup, copy)
        _upgrade(copy, backup)
        aside = None
        if database.exists():
            aside = database.with_name(f"kemble-before-{now:%Y%m%d-%H%M%S}.sqlite3")
        for end in ("", *_BESIDE):  # with its log, which would be replayed onto what is restored if it stayed behind
            old = database.with_name(database.name + end)
            if old.exists():
                os.rename(old, aside.with_name(aside.name + end)) if aside else old.unlink()
        os.rename(copy, database)
        _settle_folder(database.parent)
    return aside


def check_database(file: Path) -> None:
    """Raises UnreadableDatabase unless it is a whole database of Kemble's, and not of a version newer than this one."""
    if not file.is_file():
        raise UnreadableDatabase(f"There is no file at {file}.")
    known = {name for app, name in MigrationLoader(None).disk_migrations if app == "kitchen"}
    try:
        with closing(_read_only(file)) as connection:
            (sound,) = connection.execute("PRAGMA integrity_check(1)").fetchone()
            made = {name for (name,) in connection.execute("SELECT name FROM django_migrations WHERE app = 'kitchen'")}
            connection.execute("SELECT count(*) FROM kitchen_kitchen").fetchone()
    except sqlite3.Error as error:
        raise UnreadableDatabase(f"{file} is not a database of Kemble's ({error}).") from None
    if sound != "ok":
        raise UnreadableDatabase(f"{file} is damaged ({sound}).")
    if not made or made - known:
        raise UnreadableDatabase(f"{file} comes from a newer Kemble than this one. Update first.")


def check_schema(alias: str, told: Path) -> None:
    """Raises UnreadableDatabase, naming the file `told`, unless a database that is of this version has every table and column as this
    version has them, and nothing in it that acts by itself."""
    own = connections[alias]
    with own.cursor() as database:
        database.execute("SELECT name FROM sqlite_master WHERE type IN ('trigger', 'view')")
        acting = database.fetchone()
        if acting:
            raise UnreadableDatabase(f"{told} holds “{acting[0]}”, which Kemble did not put there.")
        for model in apps.get_models(include_auto_created=True):
            table = model._meta.db_table
            database.execute(f"SELECT name, type, pk FROM pragma_table_info('{table}')")  # noqa: S608 (a name of our own)
            columns = {(name, kind.lower(), bool(key)) for name, kind, key in database.fetchall()}
            ours = {
                (str(field.column), str(field.db_type(own)).lower(), field.primary_key)
                for field in model._meta.concrete_fields
            }
            if columns != ours:
                raise UnreadableDatabase(f"{told} has no table {table} as this version of Kemble has it.")


def _read_only(file: Path) -> sqlite3.Connection:
    """A name may hold `#`, `?` or `%`: as an address they are quoted."""
    return sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True)


def _upgrade(copy: Path, told: Path) -> None:
    """Bring a copy up to this version, as a start would. Raises UnreadableDatabase, naming the file `told`, where that fails."""
    alias = "restored"
    connections.databases[alias] = {**connections.databases["default"], "NAME": str(copy)}
    try:
        call_command("migrate", database=alias, verbosity=0)
        check_schema(alias, told)
        connections[alias].cursor().execute("PRAGMA journal_mode = DELETE")
    except UnreadableDatabase:
        raise
    except Exception as error:  # whatever a database that is not ours makes of our migrations
        raise UnreadableDatabase(f"{told} could not be brought up to this version of Kemble ({error}).") from None
    finally:
        connections[alias].close()
        del connections.databases[alias]
        del connections[alias]


@contextmanager
def _temporary_beside(target: Path) -> Iterator[Path]:
    """A private file beside `target` to work in, gone afterwards whatever happens (but where it was renamed)."""
    handle, name = tempfile.mkstemp(prefix=".kemble-", suffix=".part", dir=target.parent)
    os.close(handle)
    part = Path(name)
    try:
        yield part
    finally:
        for end in ("", *_BESIDE, "-journal"):
            part.with_name(part.name + end).unlink(missing_ok=True)


def _copy_database_file(source: Path, target: Path) -> None:
    try:
        with closing(sqlite3.connect(source)) as live:
            live.execute("VACUUM INTO ?", (str(target),))  # one pass, and nothing of what was deleted before
        with closing(sqlite3.connect(target)) as copy:
            copy.execute("PRAGMA secure_delete = ON")  # what is deleted now is overwritten
            there = {name for (name,) in copy.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            for table in _LIVE:
                if table in there:
                    copy.execute(f"DELETE FROM {table}")  # noqa: S608 (a name of our own)
            copy.commit()
    except sqlite3.Error as error:
        raise OSError(f"The copy could not be made: {error}.") from None
    with target.open("rb") as written:
        os.fsync(written.fileno())


def _settle_folder(folder: Path) -> None:
    """Make new names in a folder outlive a power cut, where its file system can."""
    handle = os.open(folder, os.O_RDONLY)
    try:
        with suppress(OSError):
            os.fsync(handle)
    finally:
        os.close(handle)

"""Files of kitchens that are being read or put in, each in a thread of its own: how far it is, and how to call it off.

One for a kitchen at a time. What was read and not taken goes after an hour; what a stop leaves staged goes at the next
start (archive_staging.py).
"""

from __future__ import annotations

import logging
import secrets
import threading
from collections.abc import Callable, Sequence
from contextvars import copy_context
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import IO, Final, Literal

from django.conf import settings
from django.db import connections
from django.utils import timezone

from kemble.core.facts.problems import Problem, Refused, refuse
from kemble.core.sentences import say
from kemble.server.exports import archive_staging
from kemble.server.exports.archive import open_archive
from kemble.server.exports.archive_staging import GroupCount, GroupId, StagingProgress, StagingStopped, TakenCounts
from kemble.server.models import KitchenRecord
from kemble.server.storage import backups

State = Literal["reading", "ready", "taking", "taken", "failed", "stopped"]
How = Literal["beside", "in place"]

_FORGOTTEN_AFTER: Final = timedelta(hours=1)
_STOPS_WITHIN_S: Final = 3.0
_log = logging.getLogger(__name__)


@dataclass
class ArchiveJob:
    """A file of a kitchen's on its way into another: what it holds once it is read, what came in once it is taken."""

    kitchen: int
    begun: datetime
    id: str = field(default_factory=lambda: secrets.token_hex(8))
    state: State = "reading"
    progress: StagingProgress = field(default_factory=StagingProgress)
    name: str = ""
    made: str = ""
    found: Sequence[GroupCount] = ()
    taken: TakenCounts | None = None
    problems: Sequence[Problem] = ()
    staged: KitchenRecord | None = None
    thread: threading.Thread | None = None

    @property
    def is_going(self) -> bool:
        return self.state in ("reading", "taking")


_jobs: dict[str, ArchiveJob] = {}
_guard = threading.Lock()


def begin_reading(kitchen: KitchenRecord, file: IO[bytes], now: datetime) -> ArchiveJob:
    """Begin to read a file for a kitchen. One that was begun before and not taken goes.

    Raises Refused while one is being put in.
    """
    with _guard:
        for other in list(_jobs.values()):
            if other.kitchen == kitchen.pk and other.state == "taking":
                refuse("file", say("cannot be read while another one is put in"), say("it again, a little later"))
            if other.kitchen == kitchen.pk or now - other.begun > _FORGOTTEN_AFTER:
                _stop(other)
        job = ArchiveJob(kitchen.pk, now)
        _jobs[job.id] = job
    _start_thread(job, lambda: _read_archive(job, kitchen, file))
    return job


def begin_taking(job: ArchiveJob, kitchen: KitchenRecord, how: How, groups: Sequence[GroupId]) -> None:
    """Begin to put in what was read; nothing where that is on or done already. Raises Refused where nothing was read."""
    with _guard:
        if job.state in ("taking", "taken"):
            return
        if job.state != "ready":
            refuse("file", say("is not read yet, or could not be"), say("one that was read"))
        job.state = "taking"
    _start_thread(job, lambda: _take_archive(job, kitchen, how, groups))


def job_of(kitchen: KitchenRecord, number: str) -> ArchiveJob | None:
    """A job of that kitchen."""
    with _guard:
        job = _jobs.get(number)
    return job if job is not None and job.kitchen == kitchen.pk else None


def call_off(job: ArchiveJob) -> None:
    """Whatever of it is staged goes. What is being made visible already comes in."""
    with _guard:
        _stop(job)


def end() -> None:
    """A server that is stopped waits for none of them."""
    with _guard:
        going = list(_jobs.values())
        for job in going:
            job.progress.stopped = True
    for job in going:
        if job.thread is not None:
            job.thread.join(_STOPS_WITHIN_S)


def _stop(job: ArchiveJob) -> None:
    """Inside the guard."""
    _jobs.pop(job.id, None)
    job.progress.stopped = True
    if job.state == "ready" and job.staged is not None:
        job.state = "stopped"
        staged = job.staged
        _start_thread(job, lambda: archive_staging.discard(staged))


def _start_thread(job: ArchiveJob, work: Callable[[], None]) -> None:
    """The work in a thread, in the language of who asked."""
    job.thread = threading.Thread(target=copy_context().run, args=(_run_alone, job, work), daemon=True, name="archive")
    job.thread.start()


def _run_alone(job: ArchiveJob, work: Callable[[], None]) -> None:
    """In a thread of its own, which leaves no connection behind."""
    try:
        _guarded(job, work)
    finally:
        connections.close_all()


def _guarded(job: ArchiveJob, work: Callable[[], None]) -> None:
    """Whatever goes wrong is told by the job."""
    try:
        work()
    except StagingStopped:
        job.state = "stopped"
    except Refused as refused:
        job.state, job.problems = "failed", refused.problems
    except Exception as error:
        number = secrets.token_hex(3)
        _log.error("number %s: an archive failed", number, exc_info=error)
        says = say("could not be put in; what is here is as it was (number {number})", number=number)
        job.state, job.problems = "failed", [Problem(path="file", says=says, accepts=say("it again"))]


def _read_archive(job: ArchiveJob, kitchen: KitchenRecord, file: IO[bytes]) -> None:
    with file, open_archive(file) as reader:
        job.name, job.made = reader.kitchen.name, reader.made
        job.staged = archive_staging.stage(reader, job.progress)
    job.found = archive_staging.looked_at(kitchen, job.staged)
    with _guard:
        if not job.progress.stopped:
            job.state = "ready"
            return
    archive_staging.discard(job.staged)
    raise StagingStopped


def _take_archive(job: ArchiveJob, kitchen: KitchenRecord, how: How, groups: Sequence[GroupId]) -> None:
    assert job.staged is not None
    try:
        if how == "in place":
            _back_up()
            job.taken = archive_staging.take_in_place(kitchen, job.staged, job.progress)
        else:
            job.taken = archive_staging.take_beside(kitchen, job.staged, groups, job.progress)
    except BaseException:
        if KitchenRecord.objects.filter(pk=job.staged.pk).exists():
            archive_staging.discard(job.staged)
        raise
    job.state = "taken"


def _back_up() -> None:
    """What is here now goes into the backups first. Refused where it cannot: then nothing is changed."""
    if not settings.DATABASE.is_file():
        return
    try:
        backups.keep(settings.DATA, settings.DATABASE, timezone.now(), "before")
    except OSError as error:
        refuse("how", say("cannot be done: {error}", error=error), say("room for a backup of what is here"))

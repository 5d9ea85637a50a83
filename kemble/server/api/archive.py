"""The whole kitchen as one file: download it, upload one, look at it, and take it in."""

from __future__ import annotations

import io
import os
import tempfile
from datetime import datetime
from typing import IO

from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Router
from ninja.files import UploadedFile
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import Problem, refuse
from kemble.core.sentences import Words, say
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.exports import archive_jobs
from kemble.server.exports.archive import MOST_BYTES, write_archive
from kemble.server.exports.archive_jobs import ArchiveJob, How, State
from kemble.server.exports.archive_staging import GROUPS, GroupId
from kemble.server.models import KitchenRecord

router = Router(tags=["archive"])
_IN_MEMORY = 8 * 2**20


class ArchiveGroup(BaseModel):
    """Of one group, how many things there are in the file, and how many of those are here already."""

    id: GroupId
    label: Words
    there: int
    here: int


class StagedArchive(BaseModel):
    """A file that is read (`reading`, so much of it), waits for what is to be taken of it (`ready`, with its `groups`), is
    put in (`taking`), or has been (`taken`: how many things; `ended`: runs that were going on there and came in as ended)."""

    id: str
    state: State
    name: str
    made: str
    rows: int
    read_pct: float
    groups: list[ArchiveGroup]
    added: int
    ended: int
    problems: list[Problem]


class TakeArchive(RequestBody):
    how: How = Field(description="beside what is here, or in its place")
    groups: list[GroupId] = Field([], max_length=len(GROUPS), description="beside: what of it is taken")


@router.get("/archive", response={200: None})
def archive(request: HttpRequest) -> HttpResponse:
    """The whole kitchen as one file: settings, sheets with their revisions, occasions, batches, log, pictures."""
    kitchen, now = kitchen_of_request(request), timezone.now()
    out = tempfile.SpooledTemporaryFile(max_size=_IN_MEMORY)  # noqa: SIM115  # the answer closes it
    write_archive(kitchen, out, now)
    out.seek(0)
    return FileResponse(  # type: ignore[return-value]
        out, as_attachment=True, filename=_archive_name(now), content_type="application/zip"
    )


def _archive_name(now: datetime) -> str:
    return f"kemble-{now:%Y-%m-%d}.zip"


def _staged(job: ArchiveJob) -> StagedArchive:
    progress = job.progress
    return StagedArchive(
        id=job.id,
        state=job.state,
        name=job.name,
        made=job.made,
        rows=progress.rows,
        read_pct=min(100.0, 100 * progress.bytes_read / progress.size) if progress.size else 0.0,
        groups=[
            ArchiveGroup(
                id=group_count.id, label=GROUPS[group_count.id].label, there=group_count.there, here=group_count.here
            )
            for group_count in job.found
        ],
        added=job.taken.count if job.taken else 0,
        ended=job.taken.ended if job.taken else 0,
        problems=list(job.problems),
    )


def _job(kitchen: KitchenRecord, archive_id: str) -> ArchiveJob:
    job = archive_jobs.job_of(kitchen, archive_id)
    if job is None:
        raise Http404
    return job


@router.post("/archive/staged", response={200: StagedArchive})
def read(request: HttpRequest, file: File[UploadedFile]) -> StagedArchive:
    """Begin to read a kitchen's file where nobody sees it. How far that is, and what the file holds, is asked for next."""
    if (file.size or 0) > MOST_BYTES:
        refuse(
            "file",
            say("is {megabytes:.0f} MB large", megabytes=(file.size or 0) / 2**20),
            say("at most {most_bytes} MB", most_bytes=MOST_BYTES // 2**20),
        )
    return _staged(archive_jobs.begin_reading(kitchen_of_request(request), _own_handle(file), timezone.now()))


def _own_handle(file: UploadedFile) -> IO[bytes]:
    """The file for as long as it is needed: what came with a request goes with it."""
    if isinstance(file, TemporaryUploadedFile):
        return os.fdopen(os.dup(file.fileno()), "rb")
    return io.BytesIO(file.read())


@router.get("/archive/staged/{archive_id}", response={200: StagedArchive})
def look(request: HttpRequest, archive_id: str) -> StagedArchive:
    """How far it is, what it holds beside what is here, and what came in."""
    return _staged(_job(kitchen_of_request(request), archive_id))


@router.post("/archive/staged/{archive_id}/take", response={200: StagedArchive})
def take(request: HttpRequest, archive_id: str, take_archive: TakeArchive) -> StagedArchive:
    """Put it in: beside what is here, as much as was chosen; or in its place, after a backup. Asked twice it is done once."""
    kitchen = kitchen_of_request(request)
    job = _job(kitchen, archive_id)
    if take_archive.how == "beside" and not take_archive.groups:
        refuse("groups", say("are none"), ", ".join(GROUPS))
    archive_jobs.begin_taking(job, kitchen, take_archive.how, take_archive.groups)
    return _staged(job)


@router.delete("/archive/staged/{archive_id}", response={204: None})
def call_off(request: HttpRequest, archive_id: str) -> Status[None]:
    """Call it off: nothing of it stays."""
    archive_jobs.call_off(_job(kitchen_of_request(request), archive_id))
    return Status(204, None)

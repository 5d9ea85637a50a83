"""The whole kitchen in one file: had, looked at beside what is here, and put in."""

from __future__ import annotations

import tempfile
from datetime import datetime
from typing import Literal

from django.conf import settings
from django.http import FileResponse, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Form, Router
from ninja.files import UploadedFile
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.words import Words, say
from kemble.server.api.asked import Body, asking
from kemble.server.archive import MOST_BYTES, Archive, read_archive, write_archive
from kemble.server.backups import keep
from kemble.server.models import KitchenRecord
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing
from kemble.server.unpacking import GROUPS, GroupId, looked_at, put_in, put_in_its_place

router = Router(tags=["archive"])
_IN_MEMORY = 8 * 2**20


class GroupTold(BaseModel):
    """Of one group, how many things there are in the file, and how many of those are here already."""

    id: GroupId
    label: Words
    there: int
    here: int


class ArchiveLook(BaseModel):
    """What an archive holds, beside what is here."""

    name: str
    made: str
    groups: list[GroupTold]


class ArchiveTaken(BaseModel):
    """How many things came in."""

    added: int


class TakeArchive(Body):
    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each")
    how: Literal["beside", "in place"] = Field(description="beside what is here, or in its place")
    groups: list[GroupId] = Field([], max_length=len(GROUPS), description="beside: what of it is taken")


@router.get("/archive", response={200: None})
def archive(request: HttpRequest) -> HttpResponse:
    """The whole kitchen as one file: settings, sheets with their revisions, occasions, makings, log, pictures."""
    kitchen, now = asking(request), timezone.now()
    out = tempfile.SpooledTemporaryFile(max_size=_IN_MEMORY)  # noqa: SIM115  # the answer closes it
    write_archive(kitchen, out, now)
    out.seek(0)
    return FileResponse(  # type: ignore[return-value]
        out, as_attachment=True, filename=_name(now), content_type="application/zip"
    )


def _name(now: datetime) -> str:
    return f"kemble-{now:%Y-%m-%d}.zip"


def _read(file: UploadedFile) -> Archive:
    if (file.size or 0) > MOST_BYTES:
        refuse(
            "file",
            say("is {megabytes:.0f} MB large", megabytes=(file.size or 0) / 2**20),
            say("at most {most_bytes} MB", most_bytes=MOST_BYTES // 2**20),
        )
    return read_archive(file)


@router.post("/archive/look", response={200: ArchiveLook})
def look(request: HttpRequest, file: File[UploadedFile]) -> ArchiveLook:
    """What a file holds, beside what is here. Keeps nothing."""
    kitchen, found = asking(request), _read(file)
    told = [
        GroupTold(id=one.id, label=GROUPS[one.id].label, there=one.there, here=one.here)
        for one in looked_at(kitchen, found)
    ]
    return ArchiveLook(name=found.kitchen.name, made=found.made, groups=told)


@router.post("/archive", response={200: ArchiveTaken})
def take(request: HttpRequest, take_archive: Form[TakeArchive], file: File[UploadedFile]) -> ArchiveTaken:
    """Put a kitchen's file in: beside what is here, as much as was chosen; or in its place, after a backup."""
    kitchen = asking(request)
    sent = receipt_of(kitchen, take_archive.uid, "archive")
    if sent:
        return ArchiveTaken(added=sent.number)
    if take_archive.how == "beside" and not take_archive.groups:
        refuse("groups", say("are none"), ", ".join(GROUPS))
    found = _read(file)
    if take_archive.how == "in place":
        _back_up(kitchen)
        added = put_in_its_place(kitchen, found)
    else:
        added = put_in(kitchen, found, take_archive.groups)
    with writing():
        keep_receipt(kitchen, take_archive.uid, "archive", sum(added.values()))
    return ArchiveTaken(added=sum(added.values()))


def _back_up(kitchen: KitchenRecord) -> None:
    """What is here now goes into the backups first. Refused where it cannot: then nothing is changed."""
    if not settings.DATABASE.is_file():
        return
    try:
        keep(settings.DATA, settings.DATABASE, timezone.now(), "before")
    except OSError as error:
        refuse("how", say("cannot be done: {error}", error=error), say("room for a backup of what is here"))

"""Pictures taken at a step: what it looked like the last times, beside the drawing."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import File, Form, Router
from ninja.files import UploadedFile
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.sentences import Words, say
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.api.runs import run_of
from kemble.server.models import CuePicture
from kemble.server.runs.pictures import MOST_BYTES, as_webp
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.trash import throw_away

router = Router(tags=["pictures"])
EATEN = "eaten"  # in place of a step: what came to the table
_SHOWN = 6
_MOST_OF_A_STEP = 200  # of one way; enough for years, and no way to fill a disk


class PictureCard(BaseModel):
    """`run` is the making it was taken in; its picture lies at /api/pictures/{id}.webp."""

    id: int
    run: int | None
    title: Words
    step: str
    at: datetime


class NewPicture(RequestBody):
    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each picture")
    step: str = Field(min_length=1, max_length=60, description="a step of the run, or eaten")


def _picture_card(row: CuePicture) -> PictureCard:
    return PictureCard(id=row.pk, run=row.run_id, title=row.title, step=row.step, at=row.at)


@router.post("/runs/{int:run_id}/pictures", response={200: PictureCard})
def take_picture(
    request: HttpRequest, run_id: int, new_picture: Form[NewPicture], picture: File[UploadedFile]
) -> PictureCard:
    """Keep a picture of a step: PNG, JPEG or WebP, at most 12 MB. The same uid twice is one picture."""
    kitchen = kitchen_of_request(request)
    run = run_of(kitchen, run_id)
    steps = {EATEN, *(scheduled_step.step.id for scheduled_step in run.plan.scheduled)}
    if new_picture.step not in steps:
        refuse("step", say('"{step}" is not a step of this run', step=new_picture.step), say("a step of it"))
    there = kitchen.pictures.filter(uid=new_picture.uid).first()
    if there is not None:
        return _picture_card(there)
    if kitchen.pictures.filter(way=run.way, step=new_picture.step).count() >= _MOST_OF_A_STEP:
        refuse(
            "picture",
            say("is one too many: {most_of_a_step} are kept of a step", most_of_a_step=_MOST_OF_A_STEP),
            say("one thrown away first"),
        )
    webp = as_webp(picture.read(MOST_BYTES + 1))
    with writing():
        row, _ = CuePicture.everything.get_or_create(
            kitchen=kitchen,
            uid=new_picture.uid,
            defaults={
                "run": run,
                "title": run.title,
                "way": run.way,
                "step": new_picture.step,
                "at": run.clock(),
                "webp": webp,
            },
        )
    return _picture_card(row)


@router.get("/runs/{int:run_id}/pictures", response={200: list[PictureCard]})
def pictures(request: HttpRequest, run_id: int) -> list[PictureCard]:
    """The newest pictures at the steps of a run: its own, and those of earlier makings of its way."""
    kitchen = kitchen_of_request(request)
    run = run_of(kitchen, run_id)
    picture_cards: list[PictureCard] = []
    per_step: dict[str, int] = {}
    for row in kitchen.pictures.filter(way=run.way, trashed=None).defer("webp")[:400]:
        per_step[row.step] = per_step.get(row.step, 0) + 1
        if per_step[row.step] <= _SHOWN:
            picture_cards.append(_picture_card(row))
    return picture_cards


@router.get("/pictures/{int:picture_id}.webp", response={200: None}, include_in_schema=False)
def picture_file(request: HttpRequest, picture_id: int) -> HttpResponse:
    row = get_object_or_404(CuePicture, pk=picture_id, kitchen=kitchen_of_request(request))
    answer = HttpResponse(bytes(row.webp), content_type="image/webp")
    answer["Cache-Control"] = "private, max-age=31536000, immutable"
    return answer


@router.delete("/pictures/{int:picture_id}", response={204: None})
def drop_picture(request: HttpRequest, picture_id: int) -> Status[None]:
    """Throw a picture away. It can be brought back."""
    throw_away(
        get_object_or_404(CuePicture.everything, pk=picture_id, kitchen=kitchen_of_request(request)), timezone.now()
    )
    return Status(204, None)

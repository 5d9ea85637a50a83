"""Blind tastings: which cups a taster gets, the answers, and what they show."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.log.blind_tasting import (
    BlindTastingDesign,
    Kind,
    StoredAnswer,
    TasterAnswer,
    TastingCup,
    TastingVerdict,
    check_seat,
    cups_of,
    verdict,
)
from kemble.core.sentences import Words, say
from kemble.server.accounts.roles import Role
from kemble.server.api.request_body import WriteBody, kitchen_of_request, member_of
from kemble.server.models import BlindTasting
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import throw_away

router = Router(tags=["splits"])


class NewBlindTasting(WriteBody):
    title: str = Field("", max_length=120, description="at most 120 letters")
    split: BlindTastingDesign


class BlindTastingCard(BaseModel):
    id: int
    title: str
    made: datetime
    says: Words


class ServedTasting(BaseModel):
    """For whoever serves: what is compared, what is in each cup, and what the answers say."""

    split: BlindTastingDesign
    cups: list[list[TastingCup]]
    verdict: TastingVerdict


class BlindTastingDetail(BaseModel):
    """A table: `codes` of every taster's cups in their order. A taster is told their own answer (as taster `mine`) and who
    has `answered`; the other answers and what was `served` are kept from them until all have answered."""

    id: int
    title: str
    made: datetime
    kind: Kind
    codes: list[list[str]]
    answered: list[int]
    mine: int | None
    answers: list[TasterAnswer]
    served: ServedTasting | None


def _tasting_detail(request: HttpRequest, row: BlindTasting) -> BlindTastingDetail:
    split, answers = _design_and_answers(row)
    cups, me = cups_of(split), _by(request)
    knows = _may_know(request, split, answers)
    return BlindTastingDetail(
        id=row.pk,
        title=row.title,
        made=row.made,
        kind=split.kind,
        codes=[[cup.code for cup in table] for table in cups],
        answered=sorted(answer.taster for answer in answers),
        mine=next((answer.taster for answer in answers if me and answer.by == me), None),
        answers=[
            TasterAnswer(taster=answer.taster, code=answer.code)
            for answer in answers
            if knows or (me and answer.by == me)
        ],
        served=ServedTasting(split=split, cups=cups, verdict=verdict(split, answers)) if knows else None,
    )


def _may_know(request: HttpRequest, split: BlindTastingDesign, answers: Sequence[TasterAnswer]) -> bool:
    """Whether who asks may be told what is in which cup: a taster's answer would be no answer."""
    return member_of(request).role != Role.TASTER or len(answers) >= split.tasters


def _by(request: HttpRequest) -> str:
    """Who answers: a taster for themselves; "" for whoever serves, who writes down what each taster says."""
    member = member_of(request)
    return str(member.pk) if member.role == Role.TASTER else ""


def _design_and_answers(row: BlindTasting) -> tuple[BlindTastingDesign, list[StoredAnswer]]:
    return BlindTastingDesign.model_validate(row.document), [
        StoredAnswer.model_validate(answer) for answer in row.answers
    ]


@router.get("/splits", response={200: list[BlindTastingCard]})
def splits(request: HttpRequest) -> list[BlindTastingCard]:
    blind_tasting_cards = []
    for row in BlindTasting.objects.filter(kitchen=kitchen_of_request(request))[:50]:
        split, answers = _design_and_answers(row)
        says = (
            verdict(split, answers).says
            if _may_know(request, split, answers)
            else say("{answers} of {tasters} have answered", answers=len(answers), tasters=split.tasters)
        )
        blind_tasting_cards.append(BlindTastingCard(id=row.pk, title=row.title, made=row.made, says=says))
    return blind_tasting_cards


@router.post("/splits", response={200: BlindTastingDetail})
def new_split(request: HttpRequest, new_split: NewBlindTasting) -> BlindTastingDetail:
    kitchen, split = kitchen_of_request(request), new_split.split
    with writing():
        sent = stored_answer(kitchen, new_split.uid, "split")
        if sent:
            return _tasting_detail(request, BlindTasting.everything.get(pk=sent.number))
        title = new_split.title.strip() or say("{a} or {b}", a=split.a, b=split.b)
        row = BlindTasting.objects.create(kitchen=kitchen, title=title[:120], document=split.model_dump(mode="json"))
        store_answer(kitchen, new_split.uid, "split", row.pk)
    return _tasting_detail(request, row)


@router.get("/splits/{int:split_id}", response={200: BlindTastingDetail})
def open_split(request: HttpRequest, split_id: int) -> BlindTastingDetail:
    return _tasting_detail(request, get_object_or_404(BlindTasting, pk=split_id, kitchen=kitchen_of_request(request)))


@router.post("/splits/{int:split_id}/answers", response={200: BlindTastingDetail})
def answer_split(request: HttpRequest, split_id: int, answer: TasterAnswer) -> BlindTastingDetail:
    """A taster's choice; a second one stands in place of the first, until all have answered. Whoever serves may answer for
    those who do so aloud."""
    by = _by(request)
    with writing():
        row = get_object_or_404(BlindTasting, pk=split_id, kitchen=kitchen_of_request(request))
        split, answers = _design_and_answers(row)
        cups = cups_of(split)
        if answer.taster > len(cups):
            refuse(
                "taster",
                say("{taster} is none of this table", taster=answer.taster),
                say("1 to {last}", last=len(cups)),
            )
        codes = [cup.code for cup in cups[answer.taster - 1]]
        if answer.code not in codes:
            refuse("code", say("{code} is not a cup of that taster", code=answer.code), ", ".join(codes))
        if by:
            check_seat(split, answers, answer, by)
        given = StoredAnswer(taster=answer.taster, code=answer.code, by=by)
        row.answers = [
            stored_answer.model_dump() for stored_answer in (*(a for a in answers if a.taster != answer.taster), given)
        ]
        BlindTasting.objects.filter(pk=row.pk).update(answers=row.answers)
    return _tasting_detail(request, row)


@router.delete("/splits/{int:split_id}", response={204: None})
def drop_split(request: HttpRequest, split_id: int) -> Status[None]:
    """Throw it away. It can be brought back."""
    throw_away(
        get_object_or_404(BlindTasting.everything, pk=split_id, kitchen=kitchen_of_request(request)), timezone.now()
    )
    return Status(204, None)

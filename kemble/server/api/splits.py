"""Split batches, tasted blind: who gets which cups, what they answer, and what that says."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.log.blind import Answer, Cup, Halves, Verdict, cups_of, verdict
from kemble.server.api.asked import Write, asking
from kemble.server.dropping import drop
from kemble.server.models import SplitBatch
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing

router = Router(tags=["splits"])


class NewSplit(Write):
    title: str = Field("", max_length=120, description="at most 120 letters")
    split: Halves


class SplitCard(BaseModel):
    id: int
    title: str
    made: datetime
    says: str


class SplitOpen(BaseModel):
    """`cups` of every taster in their order, with what is in each: for whoever serves."""

    id: int
    title: str
    made: datetime
    split: Halves
    cups: list[list[Cup]]
    answers: list[Answer]
    verdict: Verdict


def _opened(row: SplitBatch) -> SplitOpen:
    split, answers = _said(row)
    return SplitOpen(
        id=row.pk,
        title=row.title,
        made=row.made,
        split=split,
        cups=cups_of(split),
        answers=answers,
        verdict=verdict(split, answers),
    )


def _said(row: SplitBatch) -> tuple[Halves, list[Answer]]:
    return Halves.model_validate(row.document), [Answer.model_validate(one) for one in row.answers]


@router.get("/splits", response={200: list[SplitCard]})
def splits(request: HttpRequest) -> list[SplitCard]:
    rows = SplitBatch.objects.filter(kitchen=asking(request))[:50]
    return [SplitCard(id=row.pk, title=row.title, made=row.made, says=verdict(*_said(row)).says) for row in rows]


@router.post("/splits", response={200: SplitOpen})
def new_split(request: HttpRequest, new_split: NewSplit) -> SplitOpen:
    kitchen, split = asking(request), new_split.split
    with writing():
        sent = receipt_of(kitchen, new_split.uid, "split")
        if sent:
            return _opened(SplitBatch.everything.get(pk=sent.number))
        title = new_split.title.strip() or f"{split.a} or {split.b}"
        row = SplitBatch.objects.create(kitchen=kitchen, title=title[:120], document=split.model_dump(mode="json"))
        keep_receipt(kitchen, new_split.uid, "split", row.pk)
    return _opened(row)


@router.get("/splits/{int:split_id}", response={200: SplitOpen})
def open_split(request: HttpRequest, split_id: int) -> SplitOpen:
    return _opened(get_object_or_404(SplitBatch, pk=split_id, kitchen=asking(request)))


@router.post("/splits/{int:split_id}/answers", response={200: SplitOpen})
def answer_split(request: HttpRequest, split_id: int, answer: Answer) -> SplitOpen:
    """A taster's choice; a second one stands in place of the first."""
    with writing():
        row = get_object_or_404(SplitBatch, pk=split_id, kitchen=asking(request))
        split, answers = _said(row)
        cups = cups_of(split)
        if answer.taster > len(cups):
            refuse("taster", f"{answer.taster} is none of this table", f"1 to {len(cups)}")
        codes = [cup.code for cup in cups[answer.taster - 1]]
        if answer.code not in codes:
            refuse("code", f"{answer.code} is not a cup of that taster", ", ".join(codes))
        row.answers = [one.model_dump() for one in (*(a for a in answers if a.taster != answer.taster), answer)]
        SplitBatch.objects.filter(pk=row.pk).update(answers=row.answers)
    return _opened(row)


@router.delete("/splits/{int:split_id}", response={204: None})
def drop_split(request: HttpRequest, split_id: int) -> Status[None]:
    """Throw it away. It can be brought back."""
    drop(get_object_or_404(SplitBatch.everything, pk=split_id, kitchen=asking(request)), timezone.now())
    return Status(204, None)

"""Occasions: when people eat, which sheets, who helps; each with the plan of its day."""

from __future__ import annotations

import time
from datetime import date, datetime, timedelta
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Query, Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.formats.calendar import calendar_of
from kemble.core.formats.day_text import day_text
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.feasts import Feast, feasts
from kemble.core.plan.occasion import DayPlan, Occasion
from kemble.core.sentences import Words, say
from kemble.server.api.error_responses import ConflictRefusal, model_response
from kemble.server.api.request_body import MOST_NUMBER, WriteBody, completed, kitchen_of_request
from kemble.server.models import KitchenRecord, OccasionRecord, SheetRecord
from kemble.server.occasions import planning_jobs
from kemble.server.occasions.occasion_days import WorkedDish, check_occasion, kept_day, store_occasion
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import throw_away

router = Router(tags=["occasions"])


_LIST_PATIENCE_S = 0.3  # with the days of all the occasions of a list together


class SaveOccasion(WriteBody):
    """The occasion over the revision that was edited; left out, over whatever there is."""

    revision: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the revision that was edited")
    occasion: Occasion


class NewOccasion(WriteBody):
    occasion: Occasion


class PartNamed(BaseModel):
    role: str
    name: str


class DishCard(BaseModel):
    """A sheet of an occasion as it is made: its size in words, its parts, or why it cannot be worked."""

    sheet: int
    title: str
    way: str
    pieces: float | None
    parts: list[PartNamed]
    problem: str


class PlanningProgress(BaseModel):
    """A day that is being planned still, or whose planning was stopped with nothing to show: what is done, since when, and
    how far the plan in hand is at most from the best there can be, while there is one."""

    says: Words
    since: datetime
    gap_pct: float | None
    stopped: bool


class OccasionOpen(BaseModel):
    """`day` is the one before while `planning` is told."""

    id: int
    revision: int
    occasion: Occasion
    dishes: list[DishCard]
    day: DayPlan
    planning: PlanningProgress | None = None


class NextStep(BaseModel):
    """A step of an occasion that is still to come, or is on now."""

    title: str
    dish: str
    hands: str
    who: str
    starts: datetime
    ends: datetime


class OccasionCard(BaseModel):
    """What the counter shows of an occasion. `pending`: its day is being planned, and is told when the list is asked for
    again."""

    id: int
    title: str
    serve: datetime
    begin: datetime | None
    people: int | None
    dishes: list[str]
    sheets: list[int]
    clashes: bool
    in_time_pct: float | None
    steps: list[NextStep]
    pending: bool = False


class FeastCard(BaseModel):
    """A day that is kept: a feast of the craft's year, or one of the kitchen's own; from when there is something to do."""

    id: str
    name: Words
    day: date
    until: date | None = None
    eaten: Words
    begin: date
    begins_with: Words
    own: bool = False


def occasion_of(kitchen: KitchenRecord, number: int) -> OccasionRecord:
    occasion: OccasionRecord = get_object_or_404(kitchen.occasions.select_related("kitchen"), pk=number)
    return occasion


def _dish_cards(made: list[WorkedDish]) -> list[DishCard]:
    return [
        DishCard(
            sheet=dish.record.pk,
            title=dish.record.title,
            way=dish.record.way,
            pieces=next(
                (
                    float(dish.worked.facts[key].value)
                    for key in ("shape.pieces", "cut.pieces")
                    if key in dish.worked.facts
                ),
                None,
            ),
            parts=[PartNamed(role=part.role, name=part.called) for part in dish.sheet.parts if part.role != "base"],
            problem=dish.problem,
        )
        for dish in made
    ]


def _occasion_detail(record: OccasionRecord) -> OccasionOpen:
    kept = kept_day(record, planning_jobs.PATIENCE_S)
    dishes = (
        _dish_cards(kept.made) if kept.made else [_missing_dish_card(dish.sheet) for dish in record.occasion.dishes]
    )
    return OccasionOpen(
        id=record.pk,
        revision=record.revision,
        occasion=record.occasion,
        dishes=dishes,
        day=kept.day,
        planning=_planning(kept.planning) if kept.planning else None,
    )


def _planning(job: planning_jobs.PlanningJob) -> PlanningProgress:
    return PlanningProgress(
        says=job.watch.says, since=job.since, gap_pct=job.watch.gap_pct, stopped=job.was_stopped
    )  # fmt: skip


def _missing_dish_card(sheet: int) -> DishCard:
    """Of an occasion one of whose sheets is not there any more: the day is as it was planned last."""
    result = SheetRecord.everything.filter(pk=sheet).first()
    return DishCard(
        sheet=sheet,
        title=result.title if result else say("a sheet"),
        way=result.way if result else "",
        pieces=None,
        parts=[],
        problem=say("was thrown away") if result is None or result.trashed else "",
    )


@router.get("/occasions", response={200: list[OccasionCard]})
def occasions(request: HttpRequest) -> list[OccasionCard]:
    """What is still to come, soonest first."""
    kitchen = kitchen_of_request(request)
    coming = list(kitchen.occasions.filter(serve__gt=timezone.now())[:50])
    for occasion in coming:
        occasion.kitchen = kitchen  # the very one: its settings are read once
    standing = set(kitchen.sheets.values_list("pk", flat=True))
    # One whose sheets were all thrown away went with them, and comes back with them.
    until = time.monotonic() + _LIST_PATIENCE_S
    return [
        _occasion_card(occasion, until - time.monotonic())
        for occasion in coming
        if occasion.wants_none or standing & occasion.sheets
    ]


def _occasion_card(record: OccasionRecord, patience_s: float) -> OccasionCard:
    kept, now = kept_day(record, max(0.0, patience_s)), timezone.now()
    day, made = kept.day, kept.made
    servings = [serving.people for serving in record.occasion.servings if serving.people]
    return OccasionCard(
        id=record.pk,
        title=record.title,
        serve=record.serve,
        begin=day.plan.begin if day.plan else None,
        people=sum(servings) or None,
        dishes=[dish.record.title for dish in made],
        sheets=[dish.record.pk for dish in made],
        clashes=day.clash is not None,
        in_time_pct=day.sure.all_in_time_pct if day.sure else None,
        steps=[
            NextStep(
                title=scheduled_step.step.title,
                dish=made[scheduled_step.dish].record.title if scheduled_step.dish < len(made) else "",
                hands=scheduled_step.step.hands,
                who=scheduled_step.who,
                starts=scheduled_step.starts,
                ends=scheduled_step.ends,
            )
            for scheduled_step in (day.plan.scheduled if day.plan else ())
            if scheduled_step.ends > now
        ],
        pending=kept.planning is not None and not kept.planning.was_stopped,
    )


@router.post("/occasions", response={200: OccasionOpen})
def new_occasion(request: HttpRequest, new_occasion: NewOccasion) -> HttpResponse:
    """Keep an occasion. The same one twice is one, whoever presses and however often."""
    kitchen = kitchen_of_request(request)
    document = new_occasion.occasion.model_dump(mode="json")
    sent = stored_answer(kitchen, new_occasion.uid, "occasion")
    checked = None if sent else check_occasion(kitchen, new_occasion.occasion)
    with writing():
        sent = stored_answer(kitchen, new_occasion.uid, "occasion")
        if sent:
            record = OccasionRecord.everything.select_related("kitchen").get(pk=sent.number)
        else:
            same = kitchen.occasions.filter(title=checked.title, serve=checked.serve) if checked else ()
            there = next((occasion for occasion in same if occasion.document == document), None)
            record = there or OccasionRecord(kitchen=kitchen)
            if there is None and checked:
                store_occasion(record, checked)
            store_answer(kitchen, new_occasion.uid, "occasion", record.pk)
    return model_response(_occasion_detail(record))


@router.get("/occasions/{int:occasion_id}", response={200: OccasionOpen})
def open_occasion(request: HttpRequest, occasion_id: int) -> HttpResponse:
    return model_response(_occasion_detail(occasion_of(kitchen_of_request(request), occasion_id)))


@router.put("/occasions/{int:occasion_id}", response={200: OccasionOpen})
def save_occasion(request: HttpRequest, occasion_id: int, save_occasion: SaveOccasion) -> HttpResponse:
    """Save an occasion; its day is planned anew, moved as little as may be. 409 when somebody saved in between. What is
    left out stays as it was."""
    kitchen = kitchen_of_request(request)
    record = occasion_of(kitchen, occasion_id)
    sent = stored_answer(kitchen, save_occasion.uid, "occasion")
    checked = None if sent else check_occasion(kitchen, completed(save_occasion.occasion, record.occasion))
    with writing():
        record = occasion_of(kitchen, occasion_id)
        if checked and stored_answer(kitchen, save_occasion.uid, "occasion") is None:
            if save_occasion.revision not in (None, record.revision):
                raise ConflictRefusal(f"{save_occasion.revision} is not the newest: the occasion was saved elsewhere")
            record.revision += 1
            store_occasion(record, checked)
            store_answer(kitchen, save_occasion.uid, "occasion", record.pk, record.revision)
    return model_response(_occasion_detail(record))


@router.delete("/occasions/{int:occasion_id}/planning", response={200: OccasionOpen})
def stop_planning(request: HttpRequest, occasion_id: int) -> HttpResponse:
    """Stop planning: the best plan that was found by then stands, or the day as it was before."""
    record = occasion_of(kitchen_of_request(request), occasion_id)
    on = planning_jobs.job_of_occasion(record.pk)
    if on is not None:
        on.stop()
    return model_response(_occasion_detail(record))


@router.post("/occasions/{int:occasion_id}/planning", response={200: OccasionOpen})
def plan_again(request: HttpRequest, occasion_id: int) -> HttpResponse:
    """Plan the day after its planning was stopped."""
    record = occasion_of(kitchen_of_request(request), occasion_id)
    on = planning_jobs.job_of_occasion(record.pk)
    if on is not None and on.was_stopped:
        planning_jobs.forget(record.pk)
    return model_response(_occasion_detail(record))


@router.delete("/occasions/{int:occasion_id}", response={204: None})
def delete_occasion(request: HttpRequest, occasion_id: int) -> Status[None]:
    """Drop an occasion. It can be brought back."""
    throw_away(
        get_object_or_404(OccasionRecord.everything, kitchen=kitchen_of_request(request), pk=occasion_id),
        timezone.now(),
    )
    return Status(204, None)


@router.get("/occasions/{int:occasion_id}/day.ics")
def calendar(request: HttpRequest, occasion_id: int) -> HttpResponse:
    """The day as an iCalendar file, an alarm at every step that takes hands."""
    record = occasion_of(kitchen_of_request(request), occasion_id)
    kept = kept_day(record)
    day, made = kept.day, kept.made
    titles = [dish.record.title for dish in made]
    text = calendar_of(record.title, day.plan, titles, record.kitchen.settings, made=timezone.now(), uid=str(record.pk))
    return _file(text, "text/calendar; charset=utf-8", "day.ics")


@router.get("/occasions/{int:occasion_id}/day.txt")
def text(request: HttpRequest, occasion_id: int) -> HttpResponse:
    """The day as plain text."""
    record = occasion_of(kitchen_of_request(request), occasion_id)
    kept = kept_day(record)
    day, made = kept.day, kept.made
    titles = [dish.record.title for dish in made]
    return _file(
        day_text(record.title, day.plan, titles, record.kitchen.settings), "text/plain; charset=utf-8", "day.txt"
    )


def _file(content: str | bytes, kind: str, name: str) -> HttpResponse:
    response = HttpResponse(content, content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@router.get("/feasts", response={200: list[FeastCard]})
def year(request: HttpRequest, days: Annotated[int, Query(ge=1, le=800)] = 400) -> list[FeastCard]:
    """The feasts and the kitchen's own days ahead, in order, each with when there is something to begin."""
    settings = kitchen_of_request(request).settings
    today = timezone.now().astimezone(settings.zone).date()
    feast_cards = [_feast(feast) for feast in feasts(today, days)] + _own(settings, today, days)
    return sorted(feast_cards, key=lambda feast_card: (feast_card.day, feast_card.name))


def _feast(feast: Feast) -> FeastCard:
    return FeastCard(
        id=feast.id,
        name=feast.name,
        day=feast.day,
        eaten=feast.eaten,
        begin=feast.day - timedelta(days=feast.begin_days),
        begins_with=feast.begins_with,
    )


def _own(settings: Kitchen, today: date, days: int) -> list[FeastCard]:
    feast_cards = []
    for number, own in enumerate(settings.own_days):
        for year in range(today.year - 1, today.year + days // 365 + 2):
            day, until = own.in_year(year)
            if today <= (until or day) and day <= today + timedelta(days=days):
                feast_cards.append(
                    FeastCard(
                        id=f"own-{number}",
                        name=own.name,
                        day=day,
                        until=until,
                        eaten=own.note,
                        begin=day - timedelta(days=own.begin_days),
                        begins_with="",
                        own=True,
                    )
                )
    return feast_cards

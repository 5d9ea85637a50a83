"""Plans: counted back from a serve time, looked at first, kept as an occasion when they suit."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel, Field

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, kitchen_time, plan_for
from kemble.core.sheet.document import Sheet
from kemble.server.api.asked import Body, Write, asking, number_of
from kemble.server.api.refusal import answer
from kemble.server.api.sheets import sheet_of
from kemble.server.dropping import drop
from kemble.server.models import Occasion
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import WORKING, writing
from kemble.server.worked import worked_by, worked_for

router = Router(tags=["plans"])


class PlanSheet(Body):
    sheet: Sheet
    serve: str = Field(max_length=16, description="a date and time on the kitchen's clock, such as 2026-12-05T15:30")


class NewOccasion(Write):
    sheet: int = number_of("a sheet")
    serve: str = Field(max_length=16, description="a date and time on the kitchen's clock, such as 2026-12-05T15:30")
    title: str = Field("", max_length=120, description="at most 120 letters")
    people: int | None = Field(None, ge=1, le=1000, description="a whole number from 1 to 1000")


class OccasionOpen(BaseModel):
    id: int
    sheet: int
    sheet_title: str
    way: str
    title: str
    people: int | None
    serve: datetime
    plan: Plan


def planned(sheet: Sheet, kitchen: Kitchen, serve: str) -> Plan:
    """A plan for a wall-clock serve time. Raises Refused when the sheet or the time will not do."""
    worked = worked_for(sheet, kitchen)
    if worked.problems:
        raise Refused(worked.problems)
    with WORKING:
        return plan_for(worked.steps, kitchen, serve=kitchen_time(kitchen, serve), now=timezone.now())


def plans_of(occasions: Iterable[Occasion], kitchen: Kitchen) -> dict[int, Plan]:
    """The plan of each occasion, as sheet and kitchen stand now; the one that was kept, when they no longer give any.

    A plan is kept with what it was made from, and made again only when that has changed, or its begin has gone by.
    """
    by, found, stale, now = worked_by(kitchen), dict[int, Plan](), list[Occasion](), timezone.now()
    for occasion in occasions:
        made_from = f"{by} {occasion.sheet.revision} {occasion.serve.isoformat()}"
        if occasion.planned_by != made_from:
            again = _again(occasion, kitchen)
            if again:
                occasion.plan = again.model_dump(mode="json")
            occasion.planned_by = made_from
            stale.append(occasion)
        plan = Plan.model_validate(occasion.plan)
        found[occasion.pk] = (plan.begin < now and _again(occasion, kitchen)) or plan
    if stale:
        with writing():
            Occasion.objects.bulk_update(stale, ["plan", "planned_by"])
    return found


def _again(occasion: Occasion, kitchen: Kitchen) -> Plan | None:
    try:
        worked = worked_for(occasion.sheet.sheet, kitchen)
        if worked.problems:
            return None
        with WORKING:
            return plan_for(worked.steps, kitchen, serve=occasion.serve, now=timezone.now())
    except Refused:
        return None


def _opened(occasion: Occasion, plan: Plan) -> OccasionOpen:
    return OccasionOpen(
        id=occasion.pk,
        sheet=occasion.sheet_id,
        sheet_title=occasion.sheet.title,
        way=occasion.sheet.way,
        title=occasion.title,
        people=occasion.people,
        serve=occasion.serve,
        plan=plan,
    )


@router.post("/plan", response={200: Plan})
def plan(request: HttpRequest, planning: PlanSheet) -> HttpResponse:
    return answer(planned(planning.sheet, asking(request).settings, planning.serve))


@router.get("/occasions", response={200: list[OccasionOpen]})
def occasions(request: HttpRequest) -> list[OccasionOpen]:
    """What is still to come, soonest first."""
    kitchen = asking(request)
    coming = kitchen.occasions.filter(serve__gt=timezone.now(), sheet__dropped=None).select_related("sheet")[:50]
    plans = plans_of(coming, kitchen.settings)
    return [_opened(occasion, plans[occasion.pk]) for occasion in coming]


@router.post("/occasions", response={200: OccasionOpen})
def new_occasion(request: HttpRequest, new_occasion: NewOccasion) -> OccasionOpen:
    """Keep a plan. The same one twice (sheet, time, title, people) is one, whoever presses and however often."""
    kitchen = asking(request)
    settings, record = kitchen.settings, sheet_of(kitchen, new_occasion.sheet)
    found = planned(record.sheet, settings, new_occasion.serve)
    said = {
        "sheet": record,
        "title": new_occasion.title or record.title,
        "people": new_occasion.people,
        "serve": found.serve,
    }
    with writing():
        sent = receipt_of(kitchen, new_occasion.uid, "occasion")
        if sent:
            occasion = Occasion.everything.get(pk=sent.number)
        else:
            occasion = kitchen.occasions.filter(**said).first() or kitchen.occasions.create(
                **said,
                plan=found.model_dump(mode="json"),
                planned_by=f"{worked_by(settings)} {record.revision} {found.serve.isoformat()}",
            )
            keep_receipt(kitchen, new_occasion.uid, "occasion", occasion.pk)
    return _opened(occasion, found)


@router.delete("/occasions/{int:occasion_id}", response={204: None})
def delete_occasion(request: HttpRequest, occasion_id: int) -> Status[None]:
    """Drop a plan. It can be brought back."""
    drop(get_object_or_404(Occasion.everything, kitchen=asking(request), pk=occasion_id), timezone.now())
    return Status(204, None)

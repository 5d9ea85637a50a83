"""Plans: counted back from a serve time, looked at first, kept as an occasion when they suit."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.responses import Status

from kemble.core.kitchen import Kitchen as CoreKitchen
from kemble.core.plan.schedule import Plan, kitchen_time, plan_for
from kemble.core.problems import Refused
from kemble.core.sheet import Sheet
from kemble.kitchen.api.bodies import NewOccasion, PlanSheet
from kemble.kitchen.api.kitchen import asking
from kemble.kitchen.api.refusal import REFUSALS, answer
from kemble.kitchen.api.sheets import worked_for
from kemble.kitchen.api.views import OccasionOpen
from kemble.kitchen.models import Occasion

router = Router(tags=["plans"])


def planned(sheet: Sheet, kitchen: CoreKitchen, serve: str) -> Plan:
    """A plan for a wall-clock serve time. Raises Refused when the sheet or the time will not do."""
    worked = worked_for(sheet, kitchen)
    if worked.problems:
        raise Refused(worked.problems)
    return plan_for(worked.steps, kitchen, serve=kitchen_time(kitchen, serve), now=timezone.now())


def plan_of(occasion: Occasion, kitchen: CoreKitchen) -> Plan:
    """The plan as sheet and kitchen stand now; the one that was kept, when they no longer give any."""
    worked = worked_for(occasion.sheet.sheet, kitchen)
    try:
        if worked.problems:
            raise Refused(worked.problems)
        return plan_for(worked.steps, kitchen, serve=occasion.serve, now=timezone.now())
    except Refused:
        return Plan.model_validate(occasion.plan)


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


@router.post("/plan", response={200: Plan, **REFUSALS})
def plan(request: HttpRequest, planning: PlanSheet) -> HttpResponse:
    return answer(planned(planning.sheet, asking(request).settings, planning.serve))


@router.get("/occasions", response={200: list[OccasionOpen], **REFUSALS})
def occasions(request: HttpRequest) -> list[OccasionOpen]:
    """What is still to come, soonest first."""
    kitchen = asking(request)
    settings = kitchen.settings
    coming = kitchen.occasions.filter(serve__gt=timezone.now()).select_related("sheet")
    return [_opened(occasion, plan_of(occasion, settings)) for occasion in coming[:50]]


@router.post("/occasions", response={200: OccasionOpen, **REFUSALS})
def new_occasion(request: HttpRequest, new_occasion: NewOccasion) -> OccasionOpen:
    kitchen = asking(request)
    record = get_object_or_404(kitchen.sheets, pk=new_occasion.sheet)
    found = planned(record.sheet, kitchen.settings, new_occasion.serve)
    occasion = Occasion.objects.create(
        kitchen=kitchen,
        sheet=record,
        title=new_occasion.title or record.title,
        people=new_occasion.people,
        serve=found.serve,
        plan=found.model_dump(mode="json"),
    )
    return _opened(occasion, found)


@router.delete("/occasions/{int:occasion_id}", response={204: None, **REFUSALS})
def delete_occasion(request: HttpRequest, occasion_id: int) -> Status[None]:
    get_object_or_404(asking(request).occasions, pk=occasion_id).delete()
    return Status(204, None)

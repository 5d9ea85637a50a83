"""The plan of one sheet, counted back from a serve time: looked at first, kept as an occasion when it suits."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router
from pydantic import Field

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, kitchen_time, plan_for, plan_from
from kemble.core.sheet.document import Sheet
from kemble.server.api.error_responses import model_response
from kemble.server.api.request_body import RequestBody, kitchen_of_request
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import WORKING

router = Router(tags=["plans"])


class PlanSheet(RequestBody):
    sheet: Sheet
    serve: str | None = Field(
        None,
        max_length=16,
        description="a date and time on the kitchen's clock, such as 2026-12-05T15:30; or begun now",
    )


def planned(sheet: Sheet, kitchen: Kitchen, serve: str | None) -> Plan:
    """A plan for a wall-clock serve time; without one, begun now. Raises Refused when the sheet or the time will not do."""
    worked = result_for(sheet, kitchen)
    if worked.problems:
        raise Refused(worked.problems)
    with WORKING:
        if serve is None:
            return plan_from(worked.steps, kitchen, begin=timezone.now())
        return plan_for(worked.steps, kitchen, serve=kitchen_time(kitchen, serve), now=timezone.now())


@router.post("/plan", response={200: Plan})
def plan(request: HttpRequest, planning: PlanSheet) -> HttpResponse:
    return model_response(planned(planning.sheet, kitchen_of_request(request).settings, planning.serve))

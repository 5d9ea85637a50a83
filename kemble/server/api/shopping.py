"""What several sheets need together."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from kemble.core.change.shopping import ShoppingList, shopping
from kemble.server.api.error_responses import model_response
from kemble.server.api.request_body import RequestBody, kitchen_of_request, number_of
from kemble.server.models import SheetRecord

router = Router(tags=["shopping"])


class WantedSheet(RequestBody):
    sheet: int = number_of("a sheet")
    times: int = Field(1, ge=1, le=20, description="a whole number from 1 to 20")


class ShoppingRequest(RequestBody):
    wanted: list[WantedSheet] = Field(max_length=30, description="at most 30 sheets")


@router.post("/shopping", response={200: ShoppingList})
def shopping_list(request: HttpRequest, going: ShoppingRequest) -> HttpResponse:
    """What the sheets need together, in packs, less what is in the larder."""
    kitchen = kitchen_of_request(request)
    numbers = [wanted_sheet.sheet for wanted_sheet in going.wanted]
    records = {record.pk: record for record in SheetRecord.everything.filter(kitchen=kitchen, pk__in=numbers)}
    if any(number not in records for number in numbers):
        raise Http404("no such sheet")
    # For what was thrown away meanwhile nothing is bought.
    wanted = [wanted_sheet for wanted_sheet in going.wanted if records[wanted_sheet.sheet].trashed is None]
    sheets = [records[wanted_sheet.sheet].sheet for wanted_sheet in wanted for _ in range(wanted_sheet.times)]
    return model_response(shopping(sheets, kitchen.settings))

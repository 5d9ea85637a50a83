"""Compares two sheets of one way on one map and one time axis."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router

from kemble.core.learn.sheet_comparison import Comparison, compare_sheets
from kemble.server.api.request_body import MOST_NUMBER, kitchen_of_request
from kemble.server.api.sheets import sheet_of
from kemble.server.learning.posterior import tasted_of
from kemble.server.storage.fair_lock import WORKING

router = Router(tags=["sheets"])
Number = Annotated[int, Query(ge=1, le=MOST_NUMBER)]


@router.get("/beside", response={200: Comparison})
def her_way_and_mine(request: HttpRequest, hers: Number, mine: Number) -> Comparison:
    """Both by their numbers, hers first."""
    kitchen = kitchen_of_request(request)
    her, me = (sheet_of(kitchen, number) for number in (hers, mine))
    tasted = tasted_of(kitchen, me.way)
    with WORKING:
        return compare_sheets(her.sheet, me.sheet, kitchen.settings, tasted, (hers, mine))

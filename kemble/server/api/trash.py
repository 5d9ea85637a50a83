"""What was thrown away, and bringing it back."""

from __future__ import annotations

from datetime import datetime

from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Router
from ninja.responses import Status
from pydantic import BaseModel

from kemble.server.api.request_body import kitchen_of_request
from kemble.server.learning.posterior import relearn
from kemble.server.storage.trash import bring_back, trashed_items

router = Router(tags=["dropped"])


class TrashCard(BaseModel):
    """Something thrown away that can be brought back `until` then. `kind`: sheet, plan, run, batch, ingredient, tin."""

    kind: str
    id: int
    title: str
    dropped: datetime
    until: datetime


@router.get("/dropped", response={200: list[TrashCard]})
def dropped(request: HttpRequest) -> list[TrashCard]:
    """Everything of the last thirty days, the newest first."""
    return [
        TrashCard(kind=item.kind, id=item.id, title=item.title, dropped=item.trashed, until=item.until)
        for item in trashed_items(kitchen_of_request(request), timezone.now())
    ]


@router.post("/dropped/{kind}/{int:number}", response={204: None})
def back(request: HttpRequest, kind: str, number: int) -> Status[None]:
    """Bring one thing back to where it was. Asked for twice, it stands there once."""
    kitchen = kitchen_of_request(request)
    if not bring_back(kitchen, kind, number):
        raise Http404("nothing like that lies aside")
    if kind == "batch":
        relearn(kitchen)
    return Status(204, None)

"""One fact of every batch of a way, over time."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import BaseModel

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import refuse
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.log.drift import Drift, DriftPoint, drift
from kemble.core.sentences import Words, say
from kemble.server.api.error_responses import model_response
from kemble.server.api.request_body import kitchen_of_request
from kemble.server.learning.fact_history import batches_of_way, offered, points_of
from kemble.server.models import Batch

router = Router(tags=["log"])


class FactOffered(BaseModel):
    id: str
    label: Words
    unit: str
    near: bool  # asked for often


class FactOverTime(BaseModel):
    """`of` one of the facts that are `offered`, at each making, oldest first; `drift` where enough of them could tell."""

    ways: list[str]
    way: str | None
    offered: list[FactOffered]
    of: str | None
    points: list[DriftPoint]
    drift: Drift | None


@router.get("/log/over-time", response={200: FactOverTime})
def over_time(request: HttpRequest, way: str | None = None, of: str | None = None) -> HttpResponse:
    """A fact of a way's makings: the first that there is, where none is asked for."""
    kitchen = kitchen_of_request(request)
    made = set(
        Batch.objects.filter(kitchen=kitchen, rehearsed=False).order_by().values_list("way", flat=True).distinct()
    )
    ways = [name for name in WAYS if name in made]
    if way is not None and way not in WAYS:
        refuse("way", say('"{way}" is no way', way=way), ", ".join(WAYS))
    at = way or (ways[0] if ways else None)
    rows = batches_of_way(kitchen, at or "")
    facts = offered(list(rows))
    ids = {fact.id: fact.unit for fact in facts}
    if of is not None and ids and of not in ids:
        refuse("of", say('"{of}" is nothing that is known of these makings', of=of), say("one of those offered"))
    chosen = of if of in ids else next(iter(ids), None)
    points = points_of(rows, chosen) if chosen else []
    return model_response(
        unchecked_model(
            FactOverTime,
            ways=ways,
            way=at,
            offered=[FactOffered(**fact._asdict()) for fact in facts],
            of=chosen,
            points=points,
            drift=drift(points, ids.get(chosen or "", "")),
        )
    )

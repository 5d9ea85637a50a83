"""The kitchen's settings, and the cards of ways and larder that the screens choose from."""

from __future__ import annotations

from dataclasses import asdict

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router

from kemble.core.larder import larder
from kemble.core.ways import WAYS
from kemble.kitchen.api.bodies import SaveKitchen
from kemble.kitchen.api.refusal import REFUSALS
from kemble.kitchen.api.views import IngredientCard, KitchenOpen, WayCard
from kemble.kitchen.models import Kitchen
from kemble.kitchen.owner import kitchen_of

router = Router(tags=["kitchen"])


def asking(request: HttpRequest) -> Kitchen:
    """The kitchen of the person who asks. Every query below goes through it."""
    assert isinstance(request.user, User)
    return kitchen_of(request.user)


@router.get("/kitchen", response={200: KitchenOpen, **REFUSALS})
def kitchen(request: HttpRequest) -> KitchenOpen:
    found = asking(request)
    return KitchenOpen(kitchen=found.settings, set_up=found.set_up)


@router.put("/kitchen", response={200: KitchenOpen, **REFUSALS})
def save_kitchen(request: HttpRequest, save_kitchen: SaveKitchen) -> KitchenOpen:
    found = asking(request)
    found.document = save_kitchen.kitchen.model_dump(mode="json")
    found.set_up = True
    found.save()
    return KitchenOpen(kitchen=found.settings, set_up=True)


@router.get("/ways", response={200: list[WayCard], **REFUSALS})
def ways(request: HttpRequest) -> list[WayCard]:
    return [
        WayCard.model_validate(
            {
                "id": way.id,
                "name": way.name,
                "says": way.says,
                "kin": list(way.kin),
                "form": way.form,
                "zone": [{"hydration_pct": x, "sugar_pct": y} for x, y in way.zone],
                "zone_words": [{"hydration_pct": x, "sugar_pct": y, "says": says} for x, y, says in way.zone_words],
                "choices": [asdict(choice) for choice in way.choices],
                "tastes": [asdict(taste) for taste in way.tastes],
                "faults": [asdict(fault) for fault in way.faults],
            }
        )
        for way in WAYS.values()
    ]


@router.get("/larder", response={200: list[IngredientCard], **REFUSALS})
def ingredients(request: HttpRequest) -> list[IngredientCard]:
    return [
        IngredientCard(id=i.id, name=i.name, aliases=list(i.aliases), group=i.group, look_alike=i.look_alike)
        for i in larder().values()
    ]

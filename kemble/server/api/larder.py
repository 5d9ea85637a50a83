"""The larder as this kitchen has it, and what can stand in for what."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from ninja import Router
from pydantic import BaseModel

from kemble.core.change.exchanges import exchanges
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.larder import SOURCES, Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import Words
from kemble.server.api.request_body import kitchen_of_request

router = Router(tags=["larder"])


class IngredientCard(Ingredient):
    """An ingredient as this kitchen has it. `own`: the cook's own, or the cook's own figures for one of the larder."""

    name: Words
    look_alike: Words
    caution: Words
    own: bool
    figures: Words


class ExchangeCard(BaseModel):
    """What can stand in for an ingredient; `to` is empty for leaving it out."""

    to: str
    label: Words
    says: Words


@router.get("/larder", response={200: list[IngredientCard]})
def ingredients(request: HttpRequest) -> list[IngredientCard]:
    """The larder as this kitchen has it: its own ingredients and its own figures in place of the usual ones."""
    settings = kitchen_of_request(request).settings
    own = {item.id for item in settings.ingredients}
    return [
        unchecked_model(
            IngredientCard,
            **{name: getattr(item, name) for name in Ingredient.model_fields},
            own=item.id in own,
            figures=SOURCES[item.source],
        )
        for item in Shelf(settings).items.values()
    ]


@router.get("/larder/{ingredient}/exchanges", response={200: list[ExchangeCard]})
def exchanges_of(request: HttpRequest, ingredient: str) -> list[ExchangeCard]:
    shelf = Shelf(kitchen_of_request(request).settings)
    item = shelf.item(ingredient)
    if item is None:
        raise Http404("no such ingredient")
    return [ExchangeCard(to=swap.to, label=swap.label, says=swap.says) for swap in exchanges(item, shelf)]

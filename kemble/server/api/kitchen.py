"""The kitchen's settings, and the cards of ways and larder that the screens choose from."""

from __future__ import annotations

from dataclasses import asdict

from django.contrib.auth.models import User
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router

from kemble.core.cards.faults import faults_of
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.change.exchange import exchanges
from kemble.core.change.sides import questions
from kemble.core.facts.problems import Problem, Refused
from kemble.core.formats.ingredient_text import ReadList, read_list
from kemble.core.kitchen.document import BURNER_W
from kemble.core.kitchen.larder import SOURCES, Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.stove import kettle_w
from kemble.core.physics.thermal import boiling_point_c
from kemble.server.api.bodies import KettleTest, PastedList, SaveKitchen
from kemble.server.api.refusal import REFUSALS, Conflict, answer
from kemble.server.api.views import BurnerTold, ExchangeCard, FamilyCard, IngredientCard, KitchenOpen, WayCard
from kemble.server.dropping import keep_removed
from kemble.server.models import Kitchen
from kemble.server.owner import kitchen_of
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing

router = Router(tags=["kitchen"])


def asking(request: HttpRequest) -> Kitchen:
    """The kitchen of the person who asks. Every query below goes through it."""
    assert isinstance(request.user, User)
    return kitchen_of(request.user)


@router.get("/kitchen", response={200: KitchenOpen, **REFUSALS})
def kitchen(request: HttpRequest) -> KitchenOpen:
    return _open(asking(request))


def _open(found: Kitchen) -> KitchenOpen:
    return KitchenOpen(kitchen=found.settings, set_up=found.set_up, revision=found.revision)


@router.put("/kitchen", response={200: KitchenOpen, **REFUSALS})
def save_kitchen(request: HttpRequest, save_kitchen: SaveKitchen) -> KitchenOpen:
    """Save the settings over the revision that was edited; 409 when somebody saved in between.

    Tins and ingredients that are taken out can be brought back.
    """
    with writing():
        found = Kitchen.objects.get(pk=asking(request).pk)
        if receipt_of(found, save_kitchen.uid, "kitchen") is None:
            if save_kitchen.revision not in (None, found.revision):
                raise Conflict(f"{save_kitchen.revision} is not the newest: the kitchen was saved elsewhere")
            keep_removed(found, found.settings, save_kitchen.kitchen)
            found.document = save_kitchen.kitchen.model_dump(mode="json")
            found.set_up = True
            found.revision += 1
            found.save()
            keep_receipt(found, save_kitchen.uid, "kitchen", found.pk, found.revision)
    return _open(found)


@router.post("/kitchen/kettle", response={200: BurnerTold, **REFUSALS})
def kettle(request: HttpRequest, kettle_test: KettleTest) -> BurnerTold:
    """A burner's net power from the time in which it boils a kettle. Saves nothing."""
    boil_c = boiling_point_c(asking(request).settings.altitude_m)
    power = kettle_w(
        water_ml=kettle_test.water_ml, start_c=kettle_test.start_c, boil_c=boil_c, seconds=kettle_test.seconds
    )
    lowest, highest = BURNER_W
    if not lowest <= power <= highest:
        says = f"would be {power:.0f} W"
        raise Refused(
            [Problem(path="seconds", says=says, accepts=f"a time that stands for {lowest:g} to {highest:g} W")]
        )
    return BurnerTold(
        net_w=round(power), says=f"{power:.0f} W reach the pot; {loss_g_per_min(power):.0f} g a minute boil off."
    )


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
                "base": way.base,
                "soaks": way.base == "grain",
                "batter_c": way.batter_c,
                "parts": list(way.parts),
                "words": dict(way.words),
                "zone": [{"hydration_pct": x, "sugar_pct": y} for x, y in way.zone],
                "zone_words": [{"hydration_pct": x, "sugar_pct": y, "says": says} for x, y, says in way.zone_words],
                "choices": [asdict(choice) for choice in way.choices],
                "questions": [question.model_dump() for question in questions(way)],
                "tastes": [asdict(taste) for taste in way.tastes],
                "faults": [asdict(fault) for fault in faults_of(way)],
            }
        )
        for way in WAYS.values()
    ]


@router.get("/larder", response={200: list[IngredientCard], **REFUSALS})
def ingredients(request: HttpRequest) -> list[IngredientCard]:
    """The larder as this kitchen has it: its own ingredients and its own figures in place of the usual ones."""
    settings = asking(request).settings
    own = {item.id for item in settings.ingredients}
    return [
        IngredientCard.model_construct(
            **{name: getattr(item, name) for name in Ingredient.model_fields},
            own=item.id in own,
            figures=SOURCES[item.source],
        )
        for item in Shelf(settings).items.values()
    ]


@router.get("/larder/{ingredient}/exchanges", response={200: list[ExchangeCard], **REFUSALS})
def exchanges_of(request: HttpRequest, ingredient: str) -> list[ExchangeCard]:
    shelf = Shelf(asking(request).settings)
    item = shelf.item(ingredient)
    if item is None:
        raise Http404("no such ingredient")
    return [ExchangeCard(to=swap.to, label=swap.label, says=swap.says) for swap in exchanges(item, shelf)]


@router.get("/parts", response={200: list[FamilyCard], **REFUSALS})
def families(request: HttpRequest) -> list[FamilyCard]:
    """Every kind of part that can be made beside a base."""
    return [
        FamilyCard.model_validate(
            {
                "id": family.id,
                "name": family.name,
                "says": family.says,
                "roles": list(family.roles),
                "finish": family.finish.says,
                "choices": [asdict(choice) for choice in family.choices],
                "lines": list(family.lines),
            }
        )
        for family in FAMILIES.values()
    ]


@router.post("/read-list", response={200: ReadList, **REFUSALS})
def read_pasted(request: HttpRequest, pasted: PastedList) -> HttpResponse:
    """A pasted list of ingredients, line by line as it was understood. Saves nothing."""
    return answer(read_list(pasted.text, asking(request).settings))

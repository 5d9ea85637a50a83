"""The kitchen's settings, and what a kettle tells of a burner."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.kitchen.document import BURNER_W, Kitchen
from kemble.core.kitchen.estimates import ESTIMATES, MEASUREMENTS
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.stove import kettle_w
from kemble.core.physics.thermal import boiling_point_c
from kemble.server.api.asked import MOST_NUMBER, Body, Write, asking
from kemble.server.api.refusal import Conflict
from kemble.server.dropping import keep_removed
from kemble.server.models import KitchenRecord
from kemble.server.receipts import keep_receipt, receipt_of
from kemble.server.turns import writing

router = Router(tags=["kitchen"])


class KettleTest(Body):
    """Water brought to the boil on a burner, lid on."""

    water_ml: float = Field(ge=200, le=5000, allow_inf_nan=False, description="200 to 5000 ml")
    start_c: float = Field(ge=1, le=60, allow_inf_nan=False, description="1 to 60 °C")
    seconds: float = Field(ge=30, le=3600, allow_inf_nan=False, description="half a minute to an hour")


class SaveKitchen(Write):
    """The kitchen over the revision that was edited; left out, over whatever there is."""

    revision: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the revision that was edited")
    kitchen: Kitchen


class KitchenOpen(BaseModel):
    kitchen: Kitchen
    set_up: bool
    revision: int


class BurnerTold(BaseModel):
    """What a kettle test says of a burner."""

    net_w: float
    says: str


class EstimateRow(BaseModel):
    """What nobody knows exactly: the table's value and where one in twenty lies beyond, and what would narrow it."""

    id: str
    words: str
    value: float
    low: float
    high: float
    unit: str
    moves: str
    narrow_words: str


@router.get("/estimates", response={200: list[EstimateRow]})
def estimates(request: HttpRequest) -> list[EstimateRow]:
    """The table of estimates as it ships; a kitchen's own rows are in its settings."""
    return [
        EstimateRow(
            id=name,
            words=row.words,
            value=row.value,
            low=row.low,
            high=row.high,
            unit=row.unit,
            moves=row.moves,
            narrow_words=MEASUREMENTS[row.narrows][0] if row.narrows else "",
        )
        for name, row in ESTIMATES.items()
    ]


@router.get("/kitchen", response={200: KitchenOpen})
def kitchen(request: HttpRequest) -> KitchenOpen:
    return _open(asking(request))


def _open(found: KitchenRecord) -> KitchenOpen:
    return KitchenOpen(kitchen=found.settings, set_up=found.set_up, revision=found.revision)


@router.put("/kitchen", response={200: KitchenOpen})
def save_kitchen(request: HttpRequest, save_kitchen: SaveKitchen) -> KitchenOpen:
    """Save the settings over the revision that was edited; 409 when somebody saved in between.

    Tins and ingredients that are taken out can be brought back.
    """
    with writing():
        found = KitchenRecord.objects.get(pk=asking(request).pk)
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


@router.post("/kitchen/kettle", response={200: BurnerTold})
def kettle(request: HttpRequest, kettle_test: KettleTest) -> BurnerTold:
    """A burner's net power from the time in which it boils a kettle. Saves nothing."""
    boil_c = boiling_point_c(asking(request).settings.altitude_m)
    power = kettle_w(
        water_ml=kettle_test.water_ml, start_c=kettle_test.start_c, boil_c=boil_c, seconds=kettle_test.seconds
    )
    lowest, highest = BURNER_W
    if not lowest <= power <= highest:
        says = f"would be {power:.0f} W"
        refuse("seconds", says, f"a time that stands for {lowest:g} to {highest:g} W")
    return BurnerTold(
        net_w=round(power), says=f"{power:.0f} W reach the pot; {loss_g_per_min(power):.0f} g a minute boil off."
    )

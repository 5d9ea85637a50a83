"""The kitchen's settings, and what a kettle tells of a burner, a tin of water of an oven, a thermometer of steam."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel, Field

from kemble.core.facts.problems import refuse
from kemble.core.kitchen.document import BURNER_W, LEARNED, Kitchen, Level
from kemble.core.kitchen.estimates import ESTIMATES, MEASUREMENTS, About, EstimateId
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.steaming import SteamSupply
from kemble.core.physics.stove import kettle_w, oven_h
from kemble.core.physics.thermal import boiling_point_c
from kemble.core.sentences import Words, say
from kemble.server.api.error_responses import ConflictRefusal
from kemble.server.api.request_body import MOST_NUMBER, RequestBody, WriteBody, completed, kitchen_of_request
from kemble.server.learning.posterior import relearn
from kemble.server.models import KitchenRecord
from kemble.server.storage.fair_lock import writing
from kemble.server.storage.idempotency import store_answer, stored_answer
from kemble.server.storage.trash import keep_removed

router = Router(tags=["kitchen"])


class KettleTest(RequestBody):
    """Water brought to the boil on a burner, lid on."""

    water_ml: float = Field(ge=200, le=5000, allow_inf_nan=False, description="200 to 5000 ml")
    start_c: float = Field(ge=1, le=60, allow_inf_nan=False, description="1 to 60 °C")
    seconds: float = Field(ge=30, le=3600, allow_inf_nan=False, description="half a minute to an hour")


class SaveKitchen(WriteBody):
    """The kitchen over the revision that was edited; left out, over whatever there is."""

    revision: int | None = Field(None, ge=1, le=MOST_NUMBER, description="the revision that was edited")
    kitchen: Kitchen


class KitchenOpen(BaseModel):
    kitchen: Kitchen
    set_up: bool
    demo: bool  # a made-up kitchen, to be played in
    revision: int


class BurnerResult(BaseModel):
    """What a kettle test says of a burner."""

    net_w: float
    says: Words


class MeasuredEstimate(BaseModel):
    """What a measurement tells of a row of the table of estimates: its value and range here, and in words."""

    estimate: EstimateId
    value: float
    low: float
    high: float
    says: Words


class OvenTest(RequestBody):
    """A round metal tin of water under foil, warmed in the oven."""

    water_ml: float = Field(ge=100, le=5000, allow_inf_nan=False, description="100 to 5000 ml")
    across_mm: float = Field(ge=80, le=400, allow_inf_nan=False, description="80 to 400 mm")
    start_c: float = Field(ge=1, le=40, allow_inf_nan=False, description="1 to 40 °C")
    end_c: float = Field(ge=20, le=95, allow_inf_nan=False, description="20 to 95 °C")
    oven_c: float = Field(ge=100, le=280, allow_inf_nan=False, description="100 to 280 °C")
    minutes: float = Field(ge=3, le=60, allow_inf_nan=False, description="3 to 60 minutes")


class SteamTest(RequestBody):
    """What a thermometer shows in the steam of an empty steamer, lid on, once it is steady."""

    steam_c: float = Field(ge=70, le=101, allow_inf_nan=False, description="70 to 101 °C")
    level: Level = Field(description="low, medium-low, medium, medium-high or high")


class EstimateRow(BaseModel):
    """What nobody knows exactly: the table's value and where one in twenty lies beyond, and what would narrow it."""

    id: EstimateId
    about: About
    words: Words
    value: float
    low: float
    high: float
    unit: Words
    moves: Words
    narrow_words: Words


@router.get("/estimates", response={200: list[EstimateRow]})
def estimates(request: HttpRequest) -> list[EstimateRow]:
    """The table of estimates as it ships; a kitchen's own rows are in its settings."""
    return [
        EstimateRow(
            id=name,
            about=row.about,
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
    return _open(kitchen_of_request(request))


def _open(kitchen_record: KitchenRecord) -> KitchenOpen:
    return KitchenOpen(
        kitchen=kitchen_record.settings,
        set_up=kitchen_record.set_up,
        demo=kitchen_record.demo,
        revision=kitchen_record.revision,
    )


@router.put("/kitchen", response={200: KitchenOpen})
def save_kitchen(request: HttpRequest, save_kitchen: SaveKitchen) -> KitchenOpen:
    """Save the settings over the revision that was edited; 409 when somebody saved in between. What is left out stays.

    Tins and ingredients that are taken out can be brought back.
    """
    with writing():
        kitchen_record = KitchenRecord.objects.get(pk=kitchen_of_request(request).pk)
        if stored_answer(kitchen_record, save_kitchen.uid, "kitchen") is None:
            if save_kitchen.revision not in (None, kitchen_record.revision):
                raise ConflictRefusal(f"{save_kitchen.revision} is not the newest: the kitchen was saved elsewhere")
            changed = completed(save_kitchen.kitchen, kitchen_record.typed)
            keep_removed(kitchen_record, kitchen_record.settings, changed)
            kitchen_record.document = changed.model_dump(mode="json", exclude=LEARNED)
            kitchen_record.set_up = True
            kitchen_record.revision += 1
            kitchen_record.save()
            store_answer(kitchen_record, save_kitchen.uid, "kitchen", kitchen_record.pk, kitchen_record.revision)
    relearn(kitchen_record)  # what was measured is where learning begins
    return _open(kitchen_record)


@router.post("/kitchen/oven", response={200: MeasuredEstimate})
def oven(request: HttpRequest, oven_test: OvenTest) -> MeasuredEstimate:
    """How an oven gives its heat, from a covered tin of water that it warms. Saves nothing."""
    if oven_test.end_c <= oven_test.start_c + 5:
        refuse("end_c", say("is hardly warmer than it went in"), say("a rise of more than 5 °C"))
    result = oven_h(
        water_ml=oven_test.water_ml,
        across_mm=oven_test.across_mm,
        start_c=oven_test.start_c,
        end_c=oven_test.end_c,
        oven_c=oven_test.oven_c,
        seconds=oven_test.minutes * 60,
    )
    row = ESTIMATES["oven_h"]
    _sensible("end_c", result, row.unit, row.low / 2, row.high * 2)
    low, high = (result * (end / row.value) ** row.after for end in (row.low, row.high))
    says = say(
        "It gives {found:.0f} W to a square metre for each degree; {low:.0f} to {high:.0f} is usual.",
        found=result,
        low=row.low,
        high=row.high,
    )
    return MeasuredEstimate(estimate="oven_h", value=result, low=low, high=high, says=says)


@router.post("/kitchen/steam", response={200: MeasuredEstimate})
def steam(request: HttpRequest, steam_test: SteamTest) -> MeasuredEstimate:
    """How much air comes in past the lid, from a thermometer in the steam of an empty steamer. Saves nothing."""
    settings = kitchen_of_request(request).settings
    known = settings.known
    watts = settings.burner.net_w(steam_test.level) * known["burner"].value
    idle = SteamSupply(watts, known["lid_w"].value, 0.0, settings.altitude_m)
    row = ESTIMATES["leak_ml_s"]
    result = max(1.0, idle.leak_at(steam_test.steam_c))
    _sensible("steam_c", result, row.unit, 0.0, row.high * 4)
    low, high = (result * (end / row.value) ** row.after for end in (row.low, row.high))
    says = say(
        "About {found:.0f} ml of air come in a second; {low:.0f} to {high:.0f} is usual.",
        found=result,
        low=row.low,
        high=row.high,
    )
    return MeasuredEstimate(estimate="leak_ml_s", value=result, low=low, high=high, says=says)


def _sensible(field: str, result: float, unit: str, least: float, most: float) -> None:
    if not least <= result <= most:
        refuse(
            field,
            say("would stand for {found:.0f} {unit}", found=result, unit=unit),
            say("a reading that stands for {least:.0f} to {most:.0f}", least=least, most=most),
        )


@router.post("/kitchen/kettle", response={200: BurnerResult})
def kettle(request: HttpRequest, kettle_test: KettleTest) -> BurnerResult:
    """A burner's net power from the time in which it boils a kettle. Saves nothing."""
    boil_c = boiling_point_c(kitchen_of_request(request).settings.altitude_m)
    power = kettle_w(
        water_ml=kettle_test.water_ml, start_c=kettle_test.start_c, boil_c=boil_c, seconds=kettle_test.seconds
    )
    lowest, highest = BURNER_W
    if not lowest <= power <= highest:
        says = say("would be {power:.0f} W", power=power)
        refuse(
            "seconds", says, say("a time that stands for {lowest:g} to {highest:g} W", lowest=lowest, highest=highest)
        )
    return BurnerResult(
        net_w=round(power),
        says=say(
            "{power:.0f} W reach the pot; {loss_g_per_min:.0f} g a minute boil off.",
            power=power,
            loss_g_per_min=loss_g_per_min(power),
        ),
    )

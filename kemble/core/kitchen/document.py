"""The kitchen's document: its equipment, its height above the sea, and what was measured there."""

from __future__ import annotations

import math
from calendar import monthrange
from datetime import date, datetime
from functools import cached_property
from typing import Any, Literal, get_args
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.facts.quantity import (
    SPOONS,
    UNITS,
    LengthUnit,
    Measures,
    Spoons,
    TemperatureUnit,
    UnitId,
    VolumeUnit,
    WeightUnit,
    size_words,
)
from kemble.core.kitchen.estimates import ESTIMATES, Estimate, EstimateId
from kemble.core.kitchen.larder import OWN, Ingredient, larder
from kemble.core.kitchen.upgrades import upgrade_settings
from kemble.core.sentences import Locale, say

Level = Literal["low", "medium-low", "medium", "medium-high", "high"]
LEVELS: tuple[Level, ...] = get_args(Level)
StageLevel = Literal["off", "low", "medium-low", "medium", "medium-high", "high"]


class _EquipmentModel(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Tin(_EquipmentModel):
    """A round tin (diameter) or an oblong one (length and width), inside measures in millimetres."""

    name: str = Field("", max_length=60, description="a short name")
    shape: Literal["round", "oblong"] = Field("round", description="round or oblong")
    diameter_mm: float = Field(150.0, ge=40, le=500, description="40 to 500 mm, for a round tin")
    length_mm: float = Field(200.0, ge=40, le=600, description="40 to 600 mm, for an oblong tin")
    width_mm: float = Field(200.0, ge=40, le=600, description="40 to 600 mm, for an oblong tin")
    height_mm: float = Field(60.0, ge=10, le=200, description="10 to 200 mm")
    material: Literal["metal", "glass", "ceramic"] = Field("metal", description="metal, glass or ceramic")

    @property
    def floor_mm2(self) -> float:
        if self.shape == "round":
            return math.pi * self.diameter_mm**2 / 4
        return self.length_mm * self.width_mm

    @property
    def rim_mm(self) -> float:
        """All round its wall."""
        return math.pi * self.diameter_mm if self.shape == "round" else 2 * (self.length_mm + self.width_mm)

    @property
    def across_mm(self) -> float:
        """The widest way across: what the pot it stands in must take."""
        return self.diameter_mm if self.shape == "round" else math.hypot(self.length_mm, self.width_mm)

    @property
    def least_mm(self) -> float:
        """The shortest way across: what the heat from the sides must cross."""
        return self.diameter_mm if self.shape == "round" else min(self.length_mm, self.width_mm)

    def size(self, unit: LengthUnit) -> str:
        """The size in words: "18 cm round", "20 × 20 cm", or in inches."""
        if self.shape == "round":
            return say("{diameter_mm} round", diameter_mm=size_words(self.diameter_mm, unit=unit))
        return size_words(self.length_mm, self.width_mm, unit=unit)


class Steamer(_EquipmentModel):
    """Pot and rack. The water may rise to `gap_mm` below the rack and must stay above `low_mm`."""

    name: str = Field("steamer", min_length=1, max_length=40, description="a name of 1 to 40 letters")
    diameter_mm: float = Field(260.0, ge=120, le=600, description="120 to 600 mm across")
    rack_mm: float = Field(38.0, ge=15, le=200, description="15 to 200 mm from floor to rack")
    gap_mm: float = Field(10.0, ge=0, le=50, description="0 to 50 mm of air under the rack")
    low_mm: float = Field(12.0, ge=3, le=60, description="3 to 60 mm: never let the water below this")
    tiers: int = Field(2, ge=1, le=5, description="1 to 5 tiers")
    watts: float | None = Field(
        None, ge=100, le=3000, description="100 to 3000 W, of a steamer with a machine of its own"
    )

    @property
    def room_mm(self) -> float:
        """The widest tin that stands in it, with room for the steam to rise."""
        return self.diameter_mm - 10

    @property
    def full_mm(self) -> float:
        """How high the water may stand."""
        return max(self.low_mm + 5, self.rack_mm - self.gap_mm)

    @property
    def full_ml(self) -> float:
        return math.pi * self.diameter_mm**2 / 4 * self.full_mm / 1000.0


class Pot(_EquipmentModel):
    """A pot to boil in."""

    name: str = Field("pot", min_length=1, max_length=40, description="a name of 1 to 40 letters")
    diameter_mm: float = Field(240.0, ge=120, le=600, description="120 to 600 mm across")
    water_ml: float = Field(3000.0, ge=500, le=20000, description="500 to 20 000 ml of water")


BURNER_W = (50.0, 6000.0)  # what a burner can give


class Burner(_EquipmentModel):
    """Net power into the pot at each level, in watts: what is left after the room has had its share. The two levels between
    lie half way between their neighbours until they are measured (kitchen estimate)."""

    low_w: float = Field(380.0, ge=BURNER_W[0], le=BURNER_W[1], description="50 to 6000 W")
    medium_w: float = Field(620.0, ge=BURNER_W[0], le=BURNER_W[1], description="50 to 6000 W")
    high_w: float = Field(1500.0, ge=BURNER_W[0], le=BURNER_W[1], description="50 to 6000 W")

    medium_low_w: float | None = Field(None, ge=BURNER_W[0], le=BURNER_W[1], description="50 to 6000 W")
    medium_high_w: float | None = Field(None, ge=BURNER_W[0], le=BURNER_W[1], description="50 to 6000 W")

    def net_w(self, level: StageLevel) -> float:
        return {
            "off": 0.0,
            "low": self.low_w,
            "medium-low": self.medium_low_w or (self.low_w + self.medium_w) / 2,
            "medium": self.medium_w,
            "medium-high": self.medium_high_w or (self.medium_w + self.high_w) / 2,
            "high": self.high_w,
        }[level]


class Pan(_EquipmentModel):
    """An empty pan and its weight, so that what is in it can be read on the scale without tipping it out."""

    name: str = Field(min_length=1, max_length=40, description="a name of 1 to 40 letters")
    empty_g: float = Field(gt=0, le=10_000, description="above 0, at most 10 000 g")
    across_mm: float = Field(200.0, ge=60, le=600, description="60 to 600 mm across")


class Scoop(_EquipmentModel):
    """A portion scoop: its name, and the grams of water that fill it level."""

    name: str = Field(min_length=1, max_length=40, description="a name of 1 to 40 letters")
    ml: float = Field(gt=0, le=500, description="above 0, at most 500 ml")


class WeighedMeasure(_EquipmentModel):
    """One measure of one ingredient, as this cook fills it, put on the scale once."""

    measure: UnitId = Field(description="a cup or a spoon")
    ingredient: str = Field(max_length=80, description="an ingredient of the larder")
    grams: float = Field(gt=0, le=2000, description="above 0, at most 2000 g")

    @field_validator("measure")
    @classmethod
    def _a_volume(cls, value: UnitId) -> UnitId:
        if UNITS[value].kind not in ("volume", "own"):
            raise PydanticCustomError("kemble_measure", "is not a cup or a spoon", {"accepts": "a cup or a spoon"})
        return value


class LarderStock(_EquipmentModel):
    """What is in the larder now, and what a pack of it costs here."""

    ingredient: str = Field(max_length=80, description="an ingredient of the larder")
    grams: float = Field(0.0, ge=0, le=100_000, description="0 to 100 000 g")
    pack_g: float | None = Field(None, gt=0, le=50_000, description="above 0, at most 50 000 g")
    price: float | None = Field(None, ge=0, le=10_000, description="0 to 10 000, for a pack")


class QuietHours(_EquipmentModel):
    """Hours in which no hands are to be asked for, on the kitchen's own clock."""

    begins: str = Field("22:00", pattern=r"^([01]\d|2[0-3]):[0-5]\d$", description="a time such as 22:00")
    ends: str = Field("07:00", pattern=r"^([01]\d|2[0-3]):[0-5]\d$", description="a time such as 07:00")

    @property
    def minutes(self) -> tuple[int, int]:
        """Minutes after midnight at which quiet begins and ends."""
        return _clock_minutes(self.begins), _clock_minutes(self.ends)


def _clock_minutes(clock: str) -> int:
    hours, minutes = clock.split(":")
    return int(hours) * 60 + int(minutes)


class OwnDay(_EquipmentModel):
    """A day that this kitchen keeps every year, or a season, from one day to another: a herb, a fruit, a birthday."""

    name: str = Field(min_length=1, max_length=60, description="a name of 1 to 60 letters")
    day: str = Field(pattern=r"^(0[1-9]|1[0-2])-([0-2]\d|3[01])$", description="month and day, such as 05-14")
    until: str = Field("", pattern=r"^((0[1-9]|1[0-2])-([0-2]\d|3[01]))?$", description="month and day, such as 06-20")
    begin_days: int = Field(0, ge=0, le=60, description="0 to 60 days")
    note: str = Field("", max_length=120, description="at most 120 letters")

    def in_year(self, year: int) -> tuple[date, date | None]:
        """Its first and its last day in a year; a season that goes over the year's end ends in the next."""
        first = _day_in(year, self.day)
        if not self.until:
            return first, None
        last = _day_in(year, self.until)
        return first, last if last >= first else _day_in(year + 1, self.until)


def _day_in(year: int, month_day: str) -> date:
    """That day of a year; the last of its month where there is none such."""
    month, day = (int(name) for name in month_day.split("-"))
    return date(year, month, min(day, monthrange(year, month)[1]))


class OwnEstimate(_EquipmentModel):
    """What this kitchen knows of something that nobody knows exactly: a value, and where one in twenty lies beyond."""

    value: float = Field(ge=-100, le=10_000, description="-100 to 10 000")
    low: float = Field(ge=-100, le=10_000, description="-100 to 10 000")
    high: float = Field(ge=-100, le=10_000, description="-100 to 10 000")

    @model_validator(mode="after")
    def _in_order(self) -> OwnEstimate:
        if not self.low <= self.value <= self.high:
            raise PydanticCustomError(
                "kemble_estimate",
                "does not lie between its ends",
                {"accepts": "a low, a value and a high, in that order"},
            )
        return self


class LearnedValue(_EquipmentModel):
    """What the kitchen's own makings say of a row of the table of estimates, and how many of them moved it."""

    value: float
    low: float
    high: float
    batches: int = Field(ge=0, le=1_000_000)


class LearnedCorrelation(_EquipmentModel):
    """Two rows that were learned from the same makings, and how they go together: a correlation."""

    one: EstimateId
    other: EstimateId
    r: float = Field(ge=-1, le=1)


# Fields of a kitchen that are worked out from its log, and never typed.
LEARNED = {"learned", "together", "pace"}


class Kitchen(_EquipmentModel):
    """Everything about the place that changes an answer. Every field has a sensible default."""

    name: str = Field("My kitchen", min_length=1, max_length=80, description="a name of 1 to 80 letters")
    altitude_m: float = Field(0.0, ge=-400, le=5500, description="-400 to 5500 m above the sea")
    room_c: float = Field(21.0, ge=5, le=45, description="5 to 45 °C")
    fridge_c: float = Field(5.0, ge=0, le=10, description="0 to 10 °C")
    freezer_c: float = Field(-18.0, ge=-35, le=-5, description="-35 to -5 °C")
    measures: Measures = Field("metric", description="us, metric or metric_20 (a 20 ml tablespoon)")
    temperature_unit: TemperatureUnit = Field("C", description="C or F")
    length_unit: LengthUnit = Field("mm", description="mm or in")
    weight_unit: WeightUnit = Field("g", description="g or oz")
    volume_unit: VolumeUnit = Field("ml", description="ml or fl oz")
    locale: Locale = Field("en-GB", description="the language, and how it is written where: en-GB, en-US …")
    timezone: str = Field("UTC", description="a time zone such as Europe/Lisbon")
    cooks: int = Field(1, ge=1, le=12, description="1 to 12 cooks")
    burners: int = Field(4, ge=1, le=12, description="1 to 12 burners")
    ovens: int = Field(1, ge=0, le=4, description="0 to 4 ovens")
    toasters: int = Field(0, ge=0, le=4, description="0 to 4 toaster ovens or grills of their own")
    machines: int = Field(1, ge=0, le=4, description="0 to 4 machines that pound or grind")
    cold_shelves: int = Field(3, ge=1, le=20, description="1 to 20 shelves, in the fridge and in the freezer each")
    tins: tuple[Tin, ...] = Field((Tin(),), max_length=40, description="up to 40 tins")
    steamers: tuple[Steamer, ...] = Field((Steamer(),), max_length=6, description="up to 6 steamers")
    pots: tuple[Pot, ...] = Field((Pot(),), max_length=12, description="up to 12 pots")
    burner: Burner = Burner()
    microwave_w: float = Field(800.0, ge=200, le=2000, description="200 to 2000 W, as it is rated")
    cooker_w: float = Field(450.0, ge=100, le=2000, description="100 to 2000 W, as the rice cooker is rated")
    oven_shelves: int = Field(2, ge=1, le=6, description="1 to 6 trays at once")
    quiet: QuietHours = QuietHours()
    own_cup_ml: float | None = Field(None, ge=30, le=1000, description="30 to 1000 g of water in the cup")
    own_spoon_ml: float | None = Field(None, ge=1, le=60, description="1 to 60 g of water in the spoon")
    weighed: tuple[WeighedMeasure, ...] = Field((), max_length=60, description="up to 60 measures")
    scoops: tuple[Scoop, ...] = Field((), max_length=20, description="up to 20 scoops")
    pans: tuple[Pan, ...] = Field((), max_length=20, description="up to 20 pans")
    ingredients: tuple[Ingredient, ...] = Field((), max_length=200, description="up to 200 ingredients")
    stock: tuple[LarderStock, ...] = Field((), max_length=400, description="up to 400 entries")
    currency: str = Field("", max_length=6, description="at most 6 letters")
    estimates: dict[EstimateId, OwnEstimate] = Field({}, description="of the table of estimates, this kitchen's own")
    learned: dict[EstimateId, LearnedValue] = Field(
        {}, description="what its log says of the table; worked out, never typed"
    )
    together: tuple[LearnedCorrelation, ...] = Field(
        (), max_length=2000, description="how those go together; worked out, never typed"
    )
    pace: dict[str, float] = Field(
        {}, max_length=200, description="how quick its hands are at a step, over what is usual"
    )
    own_days: tuple[OwnDay, ...] = Field((), max_length=40, description="up to 40 days and seasons")
    clock_hours: Literal[24, 12] = Field(24, description="24 or 12")
    time_factor: float = Field(1.0, ge=0.5, le=2.0, description="0.5 to 2: this kitchen's time over the model's")

    @model_validator(mode="before")
    @classmethod
    def _of_any_time(cls, content: Any) -> Any:
        return upgrade_settings(content)

    @field_validator("steamers", "pots")
    @classmethod
    def _told_apart(cls, value: tuple[Steamer | Pot, ...]) -> tuple[Steamer | Pot, ...]:
        for i, item in enumerate(value):
            if any(other.name == item.name for other in value[:i]):
                raise PydanticCustomError(
                    "kemble_twice",
                    'is called "{name}" like another',
                    {"path": f"{i}.name", "name": item.name, "accepts": "a name of its own"},
                )
        return value

    def steamer(self, name: str = "", across_mm: float = 0.0) -> Steamer:
        """The steamer of that name; else the first that takes a tin so wide, else the widest; a usual one if none."""
        named = next((steamer for steamer in self.steamers if steamer.name == name), None)
        takes = next((steamer for steamer in self.steamers if steamer.room_mm >= across_mm), None)
        return named or takes or max(self.steamers, key=lambda steamer: steamer.diameter_mm, default=Steamer())

    def pot(self, name: str = "") -> Pot:
        """The pot of that name, else the first; a usual one if there is none."""
        return next((pot for pot in self.pots if pot.name == name), next(iter(self.pots), Pot()))

    @field_validator("estimates")
    @classmethod
    def _of_their_kind(cls, value: dict[EstimateId, OwnEstimate]) -> dict[EstimateId, OwnEstimate]:
        for name, own in value.items():
            if ESTIMATES[name].shape == "log" and own.low <= 0:
                raise PydanticCustomError(
                    "kemble_estimate",
                    "cannot be nothing or less",
                    {"path": f"{name}.low", "accepts": f"above 0 {ESTIMATES[name].unit}"},
                )
        return value

    def clock_words(self, instant: datetime) -> str:
        """The time of an instant on the kitchen's clock, by 24 hours or by 12 as chosen."""
        local = instant.astimezone(self.zone)
        return f"{local:%H:%M}" if self.clock_hours == 24 else f"{local.hour % 12 or 12}:{local:%M} {local:%p}".lower()

    @property
    def known(self) -> dict[EstimateId, Estimate]:
        """The table of estimates, with this kitchen's own in their rows."""
        own = {
            name: ESTIMATES[name].within(own_estimate.value, own_estimate.low, own_estimate.high)
            for name, own_estimate in self.estimates.items()
        }
        said = {
            name: ESTIMATES[name].within(learned_value.value, learned_value.low, learned_value.high)
            for name, learned_value in self.learned.items()
        }
        return {**ESTIMATES, **own, **said}

    @cached_property
    def go_together(self) -> dict[tuple[EstimateId, EstimateId], float]:
        """How rows that were learned go together, by both their names."""
        return {(pair.one, pair.other): pair.r for pair in self.together}

    @field_validator("timezone")
    @classmethod
    def _known_zone(cls, value: str) -> str:
        try:
            ZoneInfo(value)
        except (ZoneInfoNotFoundError, ValueError, OSError):
            raise PydanticCustomError(
                "kemble_zone",
                '"{zone}" is not a known time zone',
                {"zone": value, "accepts": "a name such as Europe/Lisbon or UTC"},
            ) from None
        return value

    @model_validator(mode="after")
    def _its_own_names(self) -> Kitchen:
        own = {item.id for item in self.ingredients}
        for i, item in enumerate(self.ingredients):
            if item.id not in larder() and not item.id.startswith(OWN):
                raise PydanticCustomError(
                    "kemble_own",
                    '"{name}" is not in the larder',
                    {
                        "path": f"ingredients.{i}.id",
                        "name": item.id,
                        "accepts": f"an ingredient of the larder, or a new name that begins with {OWN}",
                    },
                )
        for field in ("weighed", "stock"):
            for i, entry in enumerate(getattr(self, field)):
                if entry.ingredient not in larder() and entry.ingredient not in own:
                    raise PydanticCustomError(
                        "kemble_ingredient",
                        '"{name}" is not in this kitchen\'s larder',
                        {
                            "path": f"{field}.{i}.ingredient",
                            "name": entry.ingredient,
                            "accepts": "an ingredient of the larder",
                        },
                    )
        for i, entry in enumerate(self.weighed):
            if UNITS[entry.measure].kind == "own" and entry.measure not in self.own_ml:
                raise PydanticCustomError(
                    "kemble_measure",
                    "weigh the cup or spoon itself with water first",
                    {"path": f"weighed.{i}.measure", "accepts": "a cup or a spoon that has been weighed"},
                )
        return self

    @property
    def own_ml(self) -> dict[str, float]:
        """What the kitchen's own cup and spoon hold: the grams of water that fill them are their ml."""
        held = {"cup_own": self.own_cup_ml, "spoon_own": self.own_spoon_ml}
        return {unit: ml for unit, ml in held.items() if ml is not None}

    @property
    def spoons(self) -> Spoons:
        """The drawer that household measures are told in: the cook's own cup and spoon where they are known."""
        usual = SPOONS[self.measures]
        return Spoons(self.own_cup_ml or usual.cup, self.own_spoon_ml or usual.tbsp, usual.tsp)

    @property
    def zone(self) -> ZoneInfo:
        return ZoneInfo(self.timezone)

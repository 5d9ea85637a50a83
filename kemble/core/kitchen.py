"""The kitchen: what the cook has, how high it stands, and what has been measured there."""

from __future__ import annotations

from math import hypot, pi
from typing import Literal
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import BaseModel, ConfigDict, Field, field_validator
from pydantic_core import PydanticCustomError

from kemble.core.quantity import Measures, TemperatureUnit

Level = Literal["low", "medium", "high"]


class _Equipment(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Tin(_Equipment):
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
            return pi * self.diameter_mm**2 / 4
        return self.length_mm * self.width_mm

    @property
    def across_mm(self) -> float:
        """The widest way across: what the pot it stands in must take."""
        return self.diameter_mm if self.shape == "round" else hypot(self.length_mm, self.width_mm)

    @property
    def size(self) -> str:
        """The size in words, in centimetres."""
        if self.shape == "round":
            return f"{self.diameter_mm / 10:g} cm round"
        return f"{self.length_mm / 10:g} × {self.width_mm / 10:g} cm"


class Steamer(_Equipment):
    """Pot and rack. The water may rise to `gap_mm` below the rack and must stay above `low_mm`."""

    diameter_mm: float = Field(260.0, ge=120, le=600, description="120 to 600 mm across")
    rack_mm: float = Field(38.0, ge=15, le=200, description="15 to 200 mm from floor to rack")
    gap_mm: float = Field(10.0, ge=0, le=50, description="0 to 50 mm of air under the rack")
    low_mm: float = Field(12.0, ge=3, le=60, description="3 to 60 mm: never let the water below this")
    tiers: int = Field(2, ge=1, le=5, description="1 to 5 tiers")


class Pot(_Equipment):
    """The boiling pot."""

    diameter_mm: float = Field(240.0, ge=120, le=600, description="120 to 600 mm across")
    water_ml: float = Field(3000.0, ge=500, le=20000, description="500 to 20 000 ml of water")


class Burner(_Equipment):
    """Net power into the pot at each level, in watts: what is left after the room has had its share."""

    low_w: float = Field(380.0, ge=50, le=6000, description="50 to 6000 W")
    medium_w: float = Field(620.0, ge=50, le=6000, description="50 to 6000 W")
    high_w: float = Field(1500.0, ge=50, le=6000, description="50 to 6000 W")

    def net_w(self, level: Level) -> float:
        return {"low": self.low_w, "medium": self.medium_w, "high": self.high_w}[level]


class Quiet(_Equipment):
    """Hours in which no hands are to be asked for, on the kitchen's own clock."""

    begins: str = Field("22:00", pattern=r"^([01]\d|2[0-3]):[0-5]\d$", description="a time such as 22:00")
    ends: str = Field("07:00", pattern=r"^([01]\d|2[0-3]):[0-5]\d$", description="a time such as 07:00")

    @property
    def minutes(self) -> tuple[int, int]:
        """Minutes after midnight at which quiet begins and ends."""
        return _minutes(self.begins), _minutes(self.ends)


def _minutes(clock: str) -> int:
    hours, minutes = clock.split(":")
    return int(hours) * 60 + int(minutes)


class Kitchen(_Equipment):
    """Everything about the place that changes an answer. Every field has a sensible default."""

    name: str = Field("My kitchen", min_length=1, max_length=80, description="a name of 1 to 80 letters")
    altitude_m: float = Field(0.0, ge=-400, le=5500, description="-400 to 5500 m above the sea")
    room_c: float = Field(21.0, ge=5, le=45, description="5 to 45 °C")
    fridge_c: float = Field(5.0, ge=0, le=10, description="0 to 10 °C")
    freezer_c: float = Field(-18.0, ge=-35, le=-5, description="-35 to -5 °C")
    measures: Measures = Field("metric", description="us or metric cups and spoons")
    temperature_unit: TemperatureUnit = Field("C", description="C or F")
    timezone: str = Field("UTC", description="a time zone such as Europe/Lisbon")
    cooks: int = Field(1, ge=1, le=12, description="1 to 12 cooks")
    burners: int = Field(4, ge=1, le=12, description="1 to 12 burners")
    tins: tuple[Tin, ...] = Field((Tin(),), max_length=40, description="up to 40 tins")
    steamer: Steamer = Steamer()
    pot: Pot = Pot()
    burner: Burner = Burner()
    quiet: Quiet = Quiet()
    time_factor: float = Field(1.0, ge=0.5, le=2.0, description="0.5 to 2: this kitchen's time over the model's")

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

    @property
    def zone(self) -> ZoneInfo:
        return ZoneInfo(self.timezone)

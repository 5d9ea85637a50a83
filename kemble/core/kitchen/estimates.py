"""What nobody knows exactly of a kitchen and of what is cooked: one table, each with a range and what would narrow it.

Every row is a kitchen estimate unless its source says otherwise. `low` and `high` are where one in twenty lies below and
one in twenty above. A kitchen may hold a value and a range of its own for any of them (`Kitchen.estimates`).
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal, get_args

EstimateId = Literal[
    "burner",
    "lid_w",
    "leak_ml_s",
    "steam_h",
    "foil_h",
    "conductivity",
    "gel_c",
    "start_c",
    "depth",
    "clear_min",
    "colour_min",
    "oven_c",
    "oven_h",
    "drying",
    "firm_c",
    "golden_min",
    "size",
    "leaf_h",
    "grain_needs",
    "tight",
    "ground_min",
    "float_share",
    "bed_mm",
    "touch_c",
]
Measurement = Literal["kettle", "oven", "depth", "warmth", "scale", "log"]
Shape = Literal["log", "plain"]

_EDGE = 1.6449  # how many standard deviations lie between the middle and where one in twenty begins


@dataclass(frozen=True, slots=True)
class Estimate:
    """One row. `shape` "log": its logarithm is normal, it cannot be negative; "plain": it is normal itself. `narrows` is
    the measurement that settles it, `after` how much of its range is left then."""

    words: str
    value: float
    low: float
    high: float
    unit: str
    moves: str
    shape: Shape = "log"
    narrows: Measurement | None = None
    after: float = 1.0
    bends: bool = False  # what it moves bends so that one end says little of the other

    @property
    def sigma(self) -> float:
        """Its standard deviation: of the logarithm, or of itself."""
        if self.shape == "log":
            return math.log(self.high / self.low) / (2 * _EDGE)
        return (self.high - self.low) / (2 * _EDGE)

    def at(self, z: float) -> float:
        """Its value when it is so many standard deviations off."""
        return self.value * math.exp(z * self.sigma) if self.shape == "log" else self.value + z * self.sigma

    def within(self, value: float, low: float, high: float) -> Estimate:
        """The same row as a kitchen holds it."""
        return replace(self, value=value, low=low, high=high)


ESTIMATES: Mapping[EstimateId, Estimate] = {
    "burner": Estimate("the burner's power", 1.0, 0.75, 1.33, "x", "all that boils or steams", "log", "kettle", 0.2),
    "lid_w": Estimate("what lid and wall lose", 130.0, 60.0, 230.0, "W", "steam left for the cake"),
    "leak_ml_s": Estimate(
        "air that comes in past the lid", 20.0, 8.0, 50.0, "ml/s", "how hot the steam is", bends=True
    ),
    "steam_h": Estimate("how steam gives its heat", 800.0, 450.0, 1450.0, "W/m²K", "tins and packets in steam"),
    "foil_h": Estimate("heat through a cover of foil", 55.0, 35.0, 90.0, "W/m²K", "covered tins"),
    "conductivity": Estimate("how well the batter conducts", 1.0, 0.92, 1.09, "x", "everything with a heart"),
    "gel_c": Estimate("where this starch gels", 0.0, -4.0, 4.0, "°C off", "set", "plain"),
    "start_c": Estimate(
        "how warm it goes in", 0.0, -5.0, 5.0, "°C off", "everything that is heated", "plain", "warmth", 0.2
    ),
    "depth": Estimate("how deep it really stands", 1.0, 0.92, 1.09, "x", "tins", "log", "depth", 0.25),
    "clear_min": Estimate(
        "time at heat until it is clear and chewy",
        15.0,
        10.0,
        22.0,
        "min at heat",
        "steamed batter",
        "log",
        "log",
        0.5,
    ),
    "colour_min": Estimate("time at heat until it is brown", 65.0, 45.0, 95.0, "min at heat", "the long school"),
    "oven_c": Estimate("what the oven is off its dial", 0.0, -12.0, 12.0, "°C off", "bakes", "plain", "oven", 0.25),
    "oven_h": Estimate("how the oven gives its heat", 23.0, 18.0, 29.0, "W/m²K", "bakes", "log", "log", 0.5),
    "drying": Estimate("how freely a thick batter dries", 0.10, 0.065, 0.155, "of open water", "bakes"),
    "firm_c": Estimate("where egg and starch spring back", 95.0, 92.0, 97.5, "°C", "bakes", "plain"),
    "golden_min": Estimate(
        "browning until it is called golden", 5.0, 3.4, 7.4, "min browning", "bakes", "log", "log", 0.5
    ),
    "size": Estimate("how alike the pieces are", 1.0, 0.94, 1.065, "x", "balls and packets", "log", "scale", 0.4),
    "leaf_h": Estimate("heat through a wet leaf", 1.0, 0.65, 1.5, "x", "parcels and packets"),
    "grain_needs": Estimate("time at heat of this grain", 1.0, 0.8, 1.28, "x", "grain", "log", "log", 0.5),
    "tight": Estimate("how slowly a tight parcel drinks", 3.0, 2.2, 4.0, "x", "parcels"),
    "ground_min": Estimate("time at heat of ground grain", 10.0, 6.0, 15.0, "min at heat", "packets"),
    "float_share": Estimate("how much has swelled when it floats", 0.85, 0.7, 0.95, "of the dough", "balls", "plain"),
    "bed_mm": Estimate("how evenly steam comes through a bed", 1.0, 0.75, 1.35, "x", "steamed grain"),
    "touch_c": Estimate(
        "what quick, dusted hands bear", 60.0, 56.0, 64.0, "°C at the skin", "working it warm", "plain"
    ),
}
assert set(ESTIMATES) == set(get_args(EstimateId))

# What settles some of it: what is done, and how long that takes.
MEASUREMENTS: Mapping[Measurement, tuple[str, float]] = {
    "kettle": ("time one kettle", 5.0),
    "oven": ("put a thermometer in the oven", 20.0),
    "depth": ("measure the depth with a stick", 1.0),
    "warmth": ("put a thermometer in what goes in", 1.0),
    "scale": ("weigh out every piece", 5.0),
    "log": ("log three makings", 0.0),
}

"""A kitchen scale: the lines it sends, its readings, and when the weight is at rest.

The line protocol is written down in docs/scale.md. Nothing here opens a port.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from pydantic import Field, model_validator

from kemble.core.devices.device_lines import DeviceLine, parsed
from kemble.core.facts.quantity import UNITS

VERSION = 1
NEW_LUMP_G = 0.8  # a settled change of less than this is no lump; kitchen estimate


class ScaleHello(DeviceLine):
    """What a scale says of itself when it is connected."""

    scale: Literal[1]
    name: str = Field("scale", max_length=60)
    capacity_g: float = Field(5000.0, gt=0, le=1_000_000, allow_inf_nan=False)
    step_g: float = Field(0.1, gt=0, le=1000, allow_inf_nan=False)


class ScaleReading(DeviceLine):
    """One reading. `t` is the scale's own clock in seconds; `over` says that it is loaded beyond what it can tell."""

    t: float = Field(allow_inf_nan=False)
    grams: float = Field(0.0, ge=-1_000_000, le=1_000_000, allow_inf_nan=False)
    steady: bool = False
    over: bool = False

    @model_validator(mode="before")
    @classmethod
    def _in_grams(cls, data: Any) -> Any:
        """`weight` in `unit` becomes grams."""
        if not isinstance(data, dict) or "grams" in data:
            return data
        if data.get("over") is True:
            return {**data, "grams": 0.0, "steady": False}
        weight, unit = data.get("weight"), data.get("unit", "g")
        known = UNITS.get(unit) if isinstance(unit, str) else None
        if known is None or known.kind != "mass":
            raise ValueError(f"unit {unit!r} is not g, kg, oz or lb")
        if isinstance(weight, bool) or not isinstance(weight, int | float):
            raise ValueError("weight is missing or not a number")
        return {**data, "grams": weight * known.factor}


def read_line(line: bytes) -> ScaleHello | ScaleReading:
    """A line of the scale. Raises DeviceError for anything that is not one."""
    return parsed(line, "scale", ScaleHello, ScaleReading)


@dataclass(frozen=True, slots=True)
class SettledWeight:
    """The weight that the tray has come to rest at. `first`: it lay there when the watch began, and is nothing new."""

    grams: float
    first: bool = False


@dataclass(slots=True)
class SettlingDetector:
    """Tells when the tray lies still at another weight than before. One for each watch; keeps state."""

    settled_g: float | None = None
    last_t: float | None = None

    def still(self, reading: ScaleReading) -> SettledWeight | None:
        """Where it has come to rest; None while it moves, or when nothing came on it or was taken off.

        A reading with the same time stamp as the one before is the same reading, and tells nothing new.
        """
        if reading.t == self.last_t:
            return None
        self.last_t = reading.t
        if reading.over or not reading.steady:
            return None
        if self.settled_g is None:
            self.settled_g = reading.grams
            return SettledWeight(reading.grams, first=True)
        by = reading.grams - self.settled_g
        if abs(by) < NEW_LUMP_G:
            # Creep is followed, so that drift over an hour never adds up to a lump.
            self.settled_g += 0.2 * by
            return None
        self.settled_g = reading.grams
        return SettledWeight(reading.grams)

"""A thermometer: the lines it sends, and what a core temperature says of the rest of a heating.

The line protocol is written down in docs/probe.md. Nothing here opens a port.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, model_validator

from kemble.core.devices.device_lines import DeviceLine, parsed
from kemble.core.facts.quantity import TEMPERATURE_UNITS, TemperatureUnit, from_celsius, to_celsius
from kemble.core.physics.conduction import Array
from kemble.core.sentences import Words, say
from kemble.core.stations.heat.core_curve import TemperatureCurve

# A probe's tip is seldom at the very heart, and a home one is a degree or two off. Kitchen estimate, 1 to 3 °C.
READING_SD_C = 2.0
_TOO_SOON_MIN = 1.0  # the tip is still warming up
_MOST_FACTOR = 3.0  # beyond it the reading is of something else
_EDGES = 2 * 1.645  # standard deviations from first check to latest


class ProbeHello(DeviceLine):
    """What a thermometer says of itself when it is connected."""

    probe: Literal[1]
    name: str = Field("thermometer", max_length=60)


class ProbeReading(DeviceLine):
    """One reading. `t` is the probe's own clock in seconds; `out` says that nothing is plugged into it."""

    t: float = Field(allow_inf_nan=False)
    celsius: float = Field(0.0, ge=-60, le=400, allow_inf_nan=False)
    out: bool = False

    @model_validator(mode="before")
    @classmethod
    def _in_celsius(cls, data: Any) -> Any:
        """`temperature` in `unit` becomes °C."""
        if not isinstance(data, dict) or "celsius" in data:
            return data
        if data.get("out") is True:
            return {**data, "celsius": 0.0}
        degrees, unit = data.get("temperature"), data.get("unit", "C")
        if unit not in TEMPERATURE_UNITS:
            raise ValueError(f"unit {unit!r} is not C or F")
        if isinstance(degrees, bool) or not isinstance(degrees, int | float):
            raise ValueError("temperature is missing or not a number")
        return {**data, "celsius": to_celsius(degrees, unit)}


def read_probe(line: bytes) -> ProbeHello | ProbeReading:
    """A line of the thermometer. Raises DeviceError for anything that is not one."""
    return parsed(line, "probe", ProbeHello, ProbeReading)


class CoreReading(BaseModel):
    """One reading of the heart: so many minutes into the heat, so hot."""

    model_config = ConfigDict(frozen=True)

    minute: float
    celsius: float


class RefittedWindow(BaseModel):
    """The window told anew from what was probed, beside what it was. Minutes from the start of the heat.

    `factor` is how much slower it goes than it was told; `weight` how much of that is the readings' own, 0 to 1.
    """

    model_config = ConfigDict(frozen=True)

    minute: float
    celsius: float
    factor: float
    weight: float
    first: float
    done: float
    latest: float
    was_done: float
    says: Words


def refit(
    curve: TemperatureCurve,
    window: tuple[float, float, float],
    readings: Sequence[CoreReading],
    unit: TemperatureUnit = "C",
) -> RefittedWindow | None:
    """What the readings say of the rest: one factor on all its times, between what was told and what was read.

    `curve` is the core temperature as it was told, `window` its first check, done and latest. None without a reading.

    The factor's logarithm is normal about 0, as wide as the window was; a reading tells at what minute of the told
    curve it should have been, as surely as the curve is steep there (error propagation). Prior and readings are
    weighted by their precisions, one after another.
    """
    if not readings:
        return None
    first, done, latest = window
    minutes, core = np.array(curve.minutes), np.maximum.accumulate(np.array(curve.core_c))
    spread = max(0.03, math.log(latest / first) / _EDGES) if first > 0 else 0.3
    mean, precision = 0.0, 1.0 / spread**2
    for core_reading in readings:
        seen = _log_factor(minutes, core, core_reading)
        if seen is None:
            continue
        log_factor, sd = seen
        mean = (mean * precision + log_factor / sd**2) / (precision + 1.0 / sd**2)
        precision += 1.0 / sd**2
    factor, sd = math.exp(mean), 1.0 / math.sqrt(precision)
    last = readings[-1]
    now = done * factor
    # As wide as is left of the doubt, at least two minutes in a hundred either way.
    low, high = now * math.exp(-1.645 * max(sd, 0.02)), now * math.exp(1.645 * max(sd, 0.02))
    return RefittedWindow(
        minute=last.minute,
        celsius=last.celsius,
        factor=factor,
        weight=1.0 - (1.0 / spread**2) / precision,
        first=low,
        done=now,
        latest=high,
        was_done=done,
        says=_refit_sentence(last, now, done, unit),
    )


def _log_factor(minutes: Array, core: Array, core_reading: CoreReading) -> tuple[float, float] | None:
    """Logarithm of (minute / the minute of the told curve that is so hot), and its standard deviation.

    None where the curve says nothing: before it has begun to rise, or where it is flat.
    """
    if core_reading.minute < _TOO_SOON_MIN:
        return None
    low, high = float(core[0]), float(core[-1])
    at = min(max(core_reading.celsius, low + 1e-6), high - 1e-6)
    told = float(np.interp(at, core, minutes))
    step = 0.5 * READING_SD_C
    earlier, later = (float(np.interp(min(max(at + by, low), high), core, minutes)) for by in (-step, step))
    if later <= earlier or told <= 0:
        return None
    # Minutes that a standard deviation of the reading stands for; where it is flat, they are many.
    sd_minutes = (later - earlier) / (2 * step) * READING_SD_C
    if core_reading.celsius <= low + READING_SD_C or core_reading.celsius >= high - READING_SD_C:
        sd_minutes *= 3.0  # beyond what was told the curve cannot say how far
    most = math.log(_MOST_FACTOR)
    return min(max(math.log(core_reading.minute / told), -most), most), max(0.01, sd_minutes / told)


def _refit_sentence(last: CoreReading, now: float, was: float, unit: TemperatureUnit) -> str:
    told = say(
        "At {minute:.0f} minutes the heart is {from_celsius:.0f} °{unit}: ",
        minute=round(last.minute),  # never "-0"
        from_celsius=from_celsius(last.celsius, unit),
        unit=unit,
    )
    if last.minute >= now:
        return told + say("done by the curve. Look at it now.")
    if round(now) == round(was):
        return told + say("as told, done at {was:.0f}.", was=was)
    return told + say("done at {now:.0f}, not {was:.0f}.", now=now, was=was)

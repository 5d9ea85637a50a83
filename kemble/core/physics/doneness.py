"""When starch is cooked: the temperature at which it gels, and how far it has gone after a heating."""

from __future__ import annotations

import math

import numpy as np

from kemble.core.physics.conduction import Array, time_at_level

# A gel turns from milky to clear some degrees above where it forms (12-18), and a stick comes out clean when that
# second change is four fifths done at the slowest point. Kitchen estimates.
CLEAR_ABOVE_GEL_C = 15.0
CLEARED = 0.8
COOKED = 0.98  # share of the starch gelled when no raw starch is tasted; kitchen estimate
HOT_C = 72.0  # a heart this warm is hot to the tongue and warmed through; kitchen estimate, 68-76 °C
_GAS = 8.314  # J/(mol K)
_GEL_ENERGY = 250_000.0  # J/mol; kitchen estimate, 200-300 kJ/mol
_GEL_RATE = 0.005  # 1/s at the gel temperature; kitchen estimate: two thirds gone in 200 s


def gel_temperature_c(sugar_to_water: float, water_to_starch: float) -> float:
    """Where waxy rice starch gels, in °C, from two mass ratios.

    Kitchen estimate: 65 °C in plain water; sugar adds 15.5 r + 5 r**2, that is 9 at one part to two of water and
    20.5 at equal parts; water under 1.2 of the starch adds up to 12 more.

    Takes: `sugar_to_water` by weight, 0 to 2; `water_to_starch` by weight, above 0.
    Gives: °C.
    Holds: waxy rice starch; give or take 4 °C.
    From: kitchen estimate.
    """
    r = min(max(sugar_to_water, 0.0), 2.0)
    dry = max(0.0, 1.2 - water_to_starch)
    return 65.0 + 15.5 * r + 5.0 * r * r + 12.0 * min(dry, 1.0)


def gelled(times: Array, celsius: Array, gel_c: float) -> Array:
    """Share of the starch that has gelled, 0 to 1, along `times` (s) for temperatures (times, …) in °C.

    First order with an Arrhenius rate about the gel temperature; trapezoids between the samples.

    Takes: `times` in s, rising; `celsius` (times, …) in °C; `gel_c` in °C.
    Gives: shares, 0 to 1.
    Holds: wet starch, 40 to 130 °C.
    From: first-order kinetics (Arrhenius); its energy, 200 to 300 kJ/mol, a kitchen estimate.
    """
    result: Array = 1.0 - np.exp(-_gelling(times, celsius, gel_c))
    return result


def _gelling(times: Array, celsius: Array, gel_c: float) -> Array:
    """The integral of the rate: minus the logarithm of the share that has not gelled."""
    exponent = (_GEL_ENERGY / _GAS / (gel_c + 273.15)) - _GEL_ENERGY / _GAS / (celsius + 273.15)
    rate = np.exp(exponent)
    dt = (times[1:] - times[:-1]).reshape(-1, *([1] * (celsius.ndim - 1)))
    gone = np.zeros_like(celsius)
    ((rate[1:] + rate[:-1]) * (dt * (_GEL_RATE / 2))).cumsum(axis=0, out=gone[1:])
    return gone


def clear_s(times: Array, celsius: Array, gel_c: float) -> float | None:
    """Seconds until starch that gels at `gel_c` is cooked and has turned clear; None when it does not come to it.

    Takes: `times` in s; `celsius` at each; `gel_c` in °C.
    Gives: s; None where it never clears.
    Holds: as `gelled`.
    From: kitchen estimate: fifteen kelvin over the gel point, four fifths done.
    """
    gone = _gelling(times, celsius, gel_c)
    # At a gel temperature that lies higher the rate is lower by one factor, whatever the temperature is.
    slower = math.exp(_GEL_ENERGY / _GAS * (1.0 / (gel_c + CLEAR_ABOVE_GEL_C + 273.15) - 1.0 / (gel_c + 273.15)))
    cooked = time_at_level(times, gone, -math.log(1.0 - COOKED))
    clear = time_at_level(times, gone, -math.log(1.0 - CLEARED) / slower)
    return None if cooked is None or clear is None else max(cooked, clear)


COOK_Z_C = 30.0  # °C that make cooking grain ten times as fast; kitchen estimate, 25-33


def cook_value_min(times: Array, celsius: Array) -> Array:
    """Minutes at 100 °C that a heating is worth, along `times` (s): the integral of 10 ** ((T - 100) / z).

    Takes: `times` in s; `celsius` at each.
    Gives: min at 100 °C, summed up at each time.
    Holds: 70 to 120 °C.
    From: the usual lethality integral; z, 25 to 33 K, a kitchen estimate.
    """
    rate = 10.0 ** ((celsius - 100.0) / COOK_Z_C)
    gone = np.zeros_like(rate)
    ((rate[1:] + rate[:-1]) * (times[1:] - times[:-1])).cumsum(out=gone[1:])
    return gone / 120.0


SOAKED_NEEDS_MIN = 18.0  # minutes at 100 °C of grain that took up all it can; kitchen estimate, 15-25
UNSOAKED_MORE_MIN = 42.0  # ... and more of it in steam when it was not soaked at all; kitchen estimate
IN_WATER_MORE_MIN = 14.0  # ... or in water, which it drinks while it cooks; kitchen estimate, 10-18


def grain_needs_min(uptake_pct: float, most_pct: float, *, in_water: bool = False) -> float:
    """Minutes at 100 °C until grain has no hard heart, by how much of what it can take up it took up in the soak.

    Takes: `uptake_pct`, `most_pct` in % of the dry weight.
    Gives: min at 100 °C.
    Holds: soaked or not, in steam or `in_water`.
    From: kitchen estimate.
    """
    short = 1.0 - min(max(uptake_pct / most_pct, 0.0), 1.0)
    return float(SOAKED_NEEDS_MIN + (IN_WATER_MORE_MIN if in_water else UNSOAKED_MORE_MIN) * short**1.5)

"""Units, household measures, and rounding that says its error.

The factors are plain numbers in one table so that the hot path makes no unit objects; the tests hold
the table against Pint, an independent reference.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from dataclasses import dataclass
from itertools import product
from typing import Literal, get_args

UnitId = Literal[
    "g",
    "kg",
    "oz",
    "lb",
    "ml",
    "l",
    "cup_us",
    "cup_metric",
    "cup_rice_cooker",
    "tbsp_us",
    "tbsp_metric",
    "tbsp_20",
    "tsp_us",
    "tsp_metric",
    "pinch",
    "piece",
]
Measures = Literal["us", "metric"]
TemperatureUnit = Literal["C", "F"]


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit. `factor` turns an amount into grams (mass), millilitres (volume) or pieces (count)."""

    id: UnitId
    kind: Literal["mass", "volume", "count"]
    factor: float
    name: str


_PINCH_G = 0.3  # kitchen estimate: a pinch between thumb and two fingers, 0.2-0.5 g

UNITS: dict[str, Unit] = {
    unit.id: unit
    for unit in (
        Unit("g", "mass", 1.0, "g"),
        Unit("kg", "mass", 1000.0, "kg"),
        Unit("oz", "mass", 28.349523125, "oz"),
        Unit("lb", "mass", 453.59237, "lb"),
        Unit("ml", "volume", 1.0, "ml"),
        Unit("l", "volume", 1000.0, "l"),
        Unit("cup_us", "volume", 236.5882365, "US cup"),
        Unit("cup_metric", "volume", 250.0, "metric cup"),
        Unit("cup_rice_cooker", "volume", 180.0, "rice-cooker cup"),
        Unit("tbsp_us", "volume", 14.78676478125, "US tbsp"),
        Unit("tbsp_metric", "volume", 15.0, "metric tbsp"),
        Unit("tbsp_20", "volume", 20.0, "20 ml tbsp"),
        Unit("tsp_us", "volume", 4.92892159375, "US tsp"),
        Unit("tsp_metric", "volume", 5.0, "metric tsp"),
        Unit("pinch", "mass", _PINCH_G, "pinch"),
        Unit("piece", "count", 1.0, "piece"),
    )
}
assert set(UNITS) == set(get_args(UnitId))


def grams(value: float, unit: UnitId, *, g_per_ml: float, g_per_piece: float | None = None) -> float:
    """Mass in grams of `value` `unit` of something with density `g_per_ml` (g/ml).

    Raises ValueError when counted in pieces and no weight of one piece is known.
    """
    u = UNITS[unit]
    if u.kind == "mass":
        return value * u.factor
    if u.kind == "volume":
        return value * u.factor * g_per_ml
    if g_per_piece is None:
        raise ValueError("is not counted in pieces; weigh it in g or measure it in ml")
    return value * g_per_piece


def amount_of(mass_g: float, unit: UnitId, *, g_per_ml: float, g_per_piece: float | None = None) -> float:
    """The inverse of `grams`: how many `unit` weigh `mass_g`."""
    return mass_g / grams(1.0, unit, g_per_ml=g_per_ml, g_per_piece=g_per_piece)


def to_celsius(value: float, unit: TemperatureUnit) -> float:
    """Degrees Celsius from a reading in C or F."""
    return value if unit == "C" else (value - 32.0) / 1.8


def from_celsius(value_c: float, unit: TemperatureUnit) -> float:
    """A reading in C or F from degrees Celsius."""
    return value_c if unit == "C" else value_c * 1.8 + 32.0


@dataclass(frozen=True, slots=True)
class Household:
    """The household measure nearest to a weight. `error_pct` is (measured - meant) / meant, in per cent."""

    text: str
    error_pct: float


# Measures that exist in a drawer. Large ones first; each with the counts a cook would accept.
_CUP_STEPS: tuple[tuple[float, str], ...] = (
    (0.0, ""),
    (0.25, "¼"),
    (1 / 3, "1/3"),
    (0.5, "½"),
    (2 / 3, "2/3"),
    (0.75, "¾"),
    *((float(n), str(n)) for n in range(1, 13)),
    *((n + 0.5, f"{n}½") for n in range(1, 6)),
)
_TBSP_STEPS: tuple[tuple[float, str], ...] = tuple((float(n), str(n)) for n in range(12))
_TSP_STEPS: tuple[tuple[float, str], ...] = (
    (0.0, ""),
    (0.25, "¼"),
    (0.5, "½"),
    (0.75, "¾"),
    (1.0, "1"),
    (1.25, "1¼"),
    (1.5, "1½"),
    (1.75, "1¾"),
    (2.0, "2"),
    (2.5, "2½"),
)
_EFFORT_A_PER_CENT = 0.6  # how much more measuring one per cent nearer is worth; kitchen estimate


def _combinations(measures: Measures) -> list[tuple[float, float, str]]:
    """Every sensible combination as (ml, effort, words), made once per system."""
    cup, tbsp, tsp = (UNITS[f"{name}_{measures}"].factor for name in ("cup", "tbsp", "tsp"))
    found = []
    for (c, cup_text), (b, tbsp_text), (s, tsp_text) in product(_CUP_STEPS, _TBSP_STEPS, _TSP_STEPS):
        if not (c or b or s) or (c and s) or (b > 4 and s):
            continue
        words = [
            f"{text} {name}{'s' if name == 'cup' and n > 1 else ''}"
            for n, text, name in ((c, cup_text, "cup"), (b, tbsp_text, "tbsp"), (s, tsp_text, "tsp"))
            if n
        ]
        effort = len(words) + (b + s) / 6  # a pile of spoons is miscounted
        found.append((c * cup + b * tbsp + s * tsp, effort, " + ".join(words)))
    return sorted(found)


_COMBINATIONS: dict[Measures, list[tuple[float, float, str]]] = {
    "us": _combinations("us"),
    "metric": _combinations("metric"),
}


def household(mass_g: float, *, g_per_ml: float, measures: Measures) -> Household | None:
    """The measures that exist nearest to `mass_g`, and the error of using them.

    None when the amount is larger than any sensible pile of cups (about three litres).
    Weighs nearness against the effort of measuring: fewer kinds and fewer spoons win over the last per cent.
    """
    ml = mass_g / g_per_ml
    smallest = _COMBINATIONS[measures][0][0]
    if ml < smallest * 0.75:
        pinches = max(1, round(mass_g / _PINCH_G))
        text = "a pinch" if pinches == 1 else f"{pinches} pinches"
        return Household(text, 100.0 * (pinches * _PINCH_G - mass_g) / mass_g)
    if ml > _COMBINATIONS[measures][-1][0] * 1.05:
        return None

    def clumsiness(option: tuple[float, float, str]) -> float:
        return option[1] + _EFFORT_A_PER_CENT * 100.0 * abs(option[0] - ml) / ml

    options = _COMBINATIONS[measures]
    near = options[bisect_left(options, (ml * 0.85,)) : bisect_right(options, (ml * 1.15,))]
    near = near or [min(options, key=lambda option: abs(option[0] - ml))]
    best = min(near, key=clumsiness)
    return Household(best[2], 100.0 * (best[0] - ml) / ml)

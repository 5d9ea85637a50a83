"""Units, household measures, and rounding that says its error.

The factors are plain numbers in one table so that the hot path makes no unit objects; the tests hold
the table against Pint, an independent reference.
"""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import product
from typing import Literal, NamedTuple, get_args

from kemble.core.sentences import format_figure, remember_by_language, say, translate

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
    "quart_us",
    "gallon_us",
    "drop",
    "cup_own",
    "spoon_own",
    "pinch",
    "piece",
    "pack",
]
Measures = Literal["us", "metric", "metric_20"]
TemperatureUnit = Literal["C", "F"]
LengthUnit = Literal["mm", "in"]
WeightUnit = Literal["g", "oz"]
VolumeUnit = Literal["ml", "fl oz"]
TEMPERATURE_UNITS: tuple[TemperatureUnit, ...] = get_args(TemperatureUnit)


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit. `factor` turns an amount into grams (mass), millilitres (volume), pieces or packs.

    A kitchen's own cup and spoon hold what the cook has weighed: their factor is not in this table. `listed` is its
    name in a list of units: what it holds comes first, so that one cup is told from another at a glance.
    """

    id: UnitId
    kind: Literal["mass", "volume", "own", "count", "pack"]
    factor: float
    name: str
    listed: str


_A_GRAIN_G = 0.005
_DROP_ML = 0.05  # kitchen estimate: of a thin liquid from a bottle's neck, 0.03-0.08 ml
_PINCH_G = 0.3  # kitchen estimate: a pinch between thumb and two fingers, 0.2-0.5 g

UNITS: dict[str, Unit] = {
    unit.id: unit
    for unit in (
        Unit("g", "mass", 1.0, "g", "g"),
        Unit("kg", "mass", 1000.0, "kg", "kg"),
        Unit("oz", "mass", 28.349523125, "oz", "oz"),
        Unit("lb", "mass", 453.59237, "lb", "lb"),
        Unit("ml", "volume", 1.0, "ml", "ml"),
        Unit("l", "volume", 1000.0, "l", "l"),
        Unit("cup_us", "volume", 236.5882365, "US cup", "cup 237, US"),
        Unit("cup_metric", "volume", 250.0, "metric cup", "cup 250, metric"),
        Unit("cup_rice_cooker", "volume", 180.0, "rice-cooker cup", "cup 180, rice cooker"),
        Unit("tbsp_us", "volume", 14.78676478125, "US tbsp", "tbsp 14.8, US"),
        Unit("tbsp_metric", "volume", 15.0, "metric tbsp", "tbsp 15"),
        Unit("tbsp_20", "volume", 20.0, "20 ml tbsp", "tbsp 20"),
        Unit("tsp_us", "volume", 4.92892159375, "US tsp", "tsp 4.9, US"),
        Unit("tsp_metric", "volume", 5.0, "metric tsp", "tsp 5"),
        Unit("quart_us", "volume", 946.352946, "US quart", "quart 946, US"),
        Unit("gallon_us", "volume", 3785.411784, "US gallon", "gallon 3.8 l, US"),
        Unit("drop", "volume", _DROP_ML, "drop", "drop"),
        Unit("cup_own", "own", 1.0, "own cup", "our cup"),
        Unit("spoon_own", "own", 1.0, "own spoon", "our spoon"),
        Unit("pinch", "mass", _PINCH_G, "pinch", "pinch"),
        Unit("piece", "count", 1.0, "piece", "piece"),
        Unit("pack", "pack", 1.0, "pack", "pack"),
    )
}
assert set(UNITS) == set(get_args(UnitId))


def grams(
    value: float,
    unit: UnitId,
    *,
    g_per_ml: float,
    g_per_piece: float | None = None,
    g_per_pack: float | None = None,
    own_ml: Mapping[str, float] | None = None,
) -> float:
    """Mass in grams of `value` `unit` of something with density `g_per_ml` (g/ml).

    `own_ml` says what the kitchen's own cup and spoon hold. Raises ValueError, in words, when the unit needs a figure
    that is not there: the weight of a piece or of a pack, or a cup that nobody has weighed yet.
    """
    u = UNITS[unit]
    if u.kind == "mass":
        return value * u.factor
    if u.kind == "volume":
        return value * u.factor * g_per_ml
    if u.kind == "own":
        if not own_ml or unit not in own_ml:
            raise ValueError("is measured in this kitchen's own, which has not been weighed yet")
        return value * own_ml[unit] * g_per_ml
    if u.kind == "pack":
        if g_per_pack is None:
            raise ValueError("is not sold in a pack we know; weigh it in g or measure it in ml")
        return value * g_per_pack
    if g_per_piece is None:
        raise ValueError("is not counted in pieces; weigh it in g or measure it in ml")
    return value * g_per_piece


def to_celsius(value: float, unit: TemperatureUnit) -> float:
    """Degrees Celsius from a reading in C or F."""
    return value if unit == "C" else (value - 32.0) / 1.8


def from_celsius(value_c: float, unit: TemperatureUnit) -> float:
    """A reading in C or F from degrees Celsius."""
    return value_c if unit == "C" else value_c * 1.8 + 32.0


def span_words(minutes: float) -> str:
    """ "45 min", "2 h", "2 h 10 min": hours from an hour and a half on."""
    whole = round(minutes)
    if whole < 90:
        return say("{whole} min", whole=whole)
    hours, left = divmod(whole, 60)
    return say("{hours} h {left} min", hours=hours, left=left) if left else f"{hours} h"


INCH_MM = 25.4
OUNCE_G = 28.349523
FLUID_OUNCE_ML = 29.573530


def length_words(mm: float, unit: LengthUnit, decimals: int = 0) -> str:
    """A length as it is read: "31 mm", or "1.22 in", which is to a quarter of a millimetre."""
    return f"{format_figure(mm / INCH_MM, '.2f')} in" if unit == "in" else f"{format_figure(mm, f'.{decimals}f')} mm"


def weight_words(grams: float, unit: WeightUnit, decimals: int | None = None) -> str:
    """A weight in words: grams to so many decimals (left out: whole ones from ten on, else a tenth where there is one);
    ounces to a hundredth, from ten on to a tenth.

    >>> weight_words(126.3, "g"), weight_words(0.5, "g"), weight_words(9.04, "g", 1)
    ('126 g', '0.5 g', '9.0 g')
    >>> weight_words(126, "oz"), weight_words(1260, "oz")
    ('4.44 oz', '44.4 oz')
    """
    if unit == "oz":
        ounces = grams / OUNCE_G
        return f"{format_figure(ounces, '.2f' if abs(ounces) < 10 else '.1f')} oz"
    if decimals is None:
        decimals = 0 if abs(grams) >= 9.95 or abs(grams - round(grams)) < 0.05 else 1
    return f"{format_figure(grams, f'.{decimals}f')} g"


def volume_words(ml: float, unit: VolumeUnit) -> str:
    """A volume in words: whole millilitres, or fluid ounces (of the US) to a tenth.

    >>> volume_words(250, "ml"), volume_words(250, "fl oz")
    ('250 ml', '8.5 fl oz')
    """
    return f"{format_figure(ml / FLUID_OUNCE_ML, '.1f')} fl oz" if unit == "fl oz" else f"{ml:.0f} ml"


def size_words(*sides_mm: float, unit: LengthUnit) -> str:
    """The size of a vessel, a bag or a cutter, in centimetres or to a tenth of an inch.

    >>> size_words(180, unit="mm"), size_words(200, 300, unit="mm"), size_words(180, unit="in")
    ('18 cm', '20 × 30 cm', '7.1 in')
    """
    if unit == "in":
        return " × ".join(format_figure(side / INCH_MM, ".1f") for side in sides_mm) + " in"
    return " × ".join(format_figure(side / 10, "g") for side in sides_mm) + " cm"


@dataclass(frozen=True, slots=True)
class HouseholdMeasure:
    """The household measure nearest to a weight. `error_pct` is (measured - meant) / meant, in per cent."""

    text: str
    error_pct: float


# Measures that exist in a drawer. Large ones first; each with the counts a cook would accept.
_CUP_STEPS: tuple[tuple[float, str], ...] = (
    (0.0, ""),
    (0.25, "¼"),
    (1 / 3, "⅓"),
    (0.5, "½"),
    (2 / 3, "⅔"),
    (0.75, "¾"),
    *((float(n), str(n)) for n in range(1, 13)),
    *((n + part, f"{n}{mark}") for n in range(1, 6) for part, mark in ((0.25, "¼"), (0.5, "½"), (0.75, "¾"))),
)
_TBSP_STEPS: tuple[tuple[float, str], ...] = tuple((float(n), str(n)) for n in range(7))
_SPOONS_BESIDE_A_CUP = 3  # four of them are another quarter of a cup
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
    (3.0, "3"),
    (3.5, "3½"),
)
_EFFORT_A_PER_CENT = 0.6  # how much more measuring one per cent nearer is worth; kitchen estimate


class Spoons(NamedTuple):
    """What a drawer holds: the cup, the large and the small spoon, in ml."""

    cup: float
    tbsp: float
    tsp: float


SPOONS: dict[Measures, Spoons] = {
    "us": Spoons(UNITS["cup_us"].factor, UNITS["tbsp_us"].factor, UNITS["tsp_us"].factor),
    "metric": Spoons(UNITS["cup_metric"].factor, UNITS["tbsp_metric"].factor, UNITS["tsp_metric"].factor),
    "metric_20": Spoons(UNITS["cup_metric"].factor, UNITS["tbsp_20"].factor, UNITS["tsp_metric"].factor),
}


@remember_by_language(32)
def _combinations(spoons: Spoons) -> list[tuple[float, float, str]]:
    """Every sensible combination as (ml, effort, words), made once for each drawer."""
    result = []
    for (c, cup_text), (b, tbsp_text), (s, tsp_text) in product(_CUP_STEPS, _TBSP_STEPS, _TSP_STEPS):
        if not (c or b or s) or (c and s) or (b > 4 and s) or (c and b > _SPOONS_BESIDE_A_CUP):
            continue
        words = [
            f"{text} {translate('cups' if name == 'cup' and n > 1 else name)}"
            for n, text, name in ((c, cup_text, "cup"), (b, tbsp_text, "tbsp"), (s, tsp_text, "tsp"))
            if n
        ]
        effort = len(words) + (b + s) / 6  # a pile of spoons is miscounted
        result.append((c * spoons.cup + b * spoons.tbsp + s * spoons.tsp, effort, " + ".join(words)))
    return sorted(result)


@remember_by_language(4096)
def household(mass_g: float, *, g_per_ml: float, spoons: Spoons) -> HouseholdMeasure | None:
    """The measures that exist nearest to `mass_g`, and the error of using them.

    None when the amount is larger than any sensible pile of cups (about three litres), or less than a grain.
    Weighs nearness against the effort of measuring: fewer kinds and fewer spoons win over the last per cent.

    >>> household(300, g_per_ml=0.56, spoons=SPOONS["metric"]).text
    '2 cups + 2 tbsp'
    """
    if mass_g < _A_GRAIN_G:
        return None
    ml = mass_g / g_per_ml
    options = _combinations(spoons)
    smallest = options[0][0]
    if ml < smallest * 0.75:
        pinches = max(1, round(mass_g / _PINCH_G))
        text = say("a pinch") if pinches == 1 else say("{pinches} pinches", pinches=pinches)
        return HouseholdMeasure(text, 100.0 * (pinches * _PINCH_G - mass_g) / mass_g)
    if ml > options[-1][0] * 1.05:
        return None

    def clumsiness(option: tuple[float, float, str]) -> float:
        return option[1] + _EFFORT_A_PER_CENT * 100.0 * abs(option[0] - ml) / ml

    near = options[bisect_left(options, (ml * 0.85,)) : bisect_right(options, (ml * 1.15,))]
    near = near or [min(options, key=lambda option: abs(option[0] - ml))]
    best = min(near, key=clumsiness)
    return HouseholdMeasure(best[2], 100.0 * (best[0] - ml) / ml)


_LEVEL_SPOONS: tuple[tuple[float, str, str], ...] = (
    (0.5, "tsp", "½ tsp"),
    (1.0, "tsp", "1 tsp"),
    (1.5, "tsp", "1½ tsp"),
    (2.0, "tsp", "2 tsp"),
    (1.0, "tbsp", "1 tbsp"),
    (1.5, "tbsp", "1½ tbsp"),
    (2.0, "tbsp", "2 tbsp"),
    (3.0, "tbsp", "3 tbsp"),
    (4.0, "tbsp", "4 tbsp"),
)


def nearest_spoon(
    mass_g: float, *, g_per_ml: float, spoons: Spoons, scoops: tuple[tuple[str, float], ...] = ()
) -> HouseholdMeasure:
    """The one level spoon, or the kitchen's own scoop (name and ml), nearest to `mass_g`, with its error."""
    level = [(words, n * getattr(spoons, spoon)) for n, spoon, words in _LEVEL_SPOONS]
    text, ml = min([*scoops, *level], key=lambda item: abs(math.log(item[1] * g_per_ml / mass_g)))
    return HouseholdMeasure(text, 100.0 * (ml * g_per_ml - mass_g) / mass_g)

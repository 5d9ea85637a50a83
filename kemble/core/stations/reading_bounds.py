"""What a scale or thermometer can show at a step; Kemble asks about a reading beyond that."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.heat.heat_stages import HeatStageResult

_SCALES = 1.02  # two weighings of one thing by kitchen scales need not agree better
_TAKES_UP = 1.3  # what is cooked in steam or water may take up so much; kitchen estimate
_SOAKS = 1.7  # ... and grain in a soak
_THERMOMETERS_C = 3.0  # what a kitchen thermometer may be off near the boil
_PAN_C = 12.0  # sugar raises where it boils, and the floor of a pan is hotter; kitchen estimate
# Of what is weighed by the piece, as shares of what it should be: beyond that it is another thing on the scale.
_PIECE = (0.4, 2.5)


class ReadingBounds(BaseModel):
    """What a reading at this step can be at all; one beyond it is asked about. `weight`, `heat`: why, in words."""

    model_config = ConfigDict(frozen=True)

    least_g: float | None = None
    most_g: float | None = None
    weight: str = ""
    most_c: float | None = None
    heat: str = ""

    def doubt(self, *, grams: float | None = None, celsius: float | None = None) -> str:
        """Why a reading cannot be, in words; empty where it can."""
        if grams is not None and self.most_g is not None and grams > self.most_g:
            return say("That is more than it can be: {weight}.", weight=self.weight)
        if grams is not None and self.least_g is not None and grams < self.least_g:
            return say("That is less than it can be: {weight}.", weight=self.weight)
        if celsius is not None and self.most_c is not None and celsius > self.most_c:
            return say("It cannot be so hot: {heat}.", heat=self.heat)
        return ""


_Range = tuple[float, float, str]


def bounds_of(
    calculation: Calculation, key: str | None, stages: Sequence[HeatStageResult], *, has_window: bool
) -> ReadingBounds | None:
    """What can be read at a step at which the scale should show the fact `key`; None where anything can."""
    weight = _weight_bounds(calculation, key) if key else None
    heat = _heat_bound(calculation, stages) if has_window else None
    if weight is None and heat is None:
        return None
    least, most, why = weight or (None, None, "")
    most_c, hot = heat or (None, "")
    return unchecked_model(ReadingBounds, least_g=least, most_g=most, weight=why, most_c=most_c, heat=hot)


def _weight_bounds(calculation: Calculation, key: str) -> _Range:
    told = calculation.fact_book.number(key)
    if key.startswith("part."):
        return _of_part(calculation, key, told)
    rule = _RULES.get(key)
    if rule:
        return rule(calculation, key, told)
    low, high = _PIECE
    return low * told, high * told, say("it should be about {told}", told=calculation.weight(told))


def _pan_g(calculation: Calculation, name: str) -> float:
    return next((pan.empty_g for pan in calculation.kitchen.pans if pan.name == name), 0.0)


def _of_part(calculation: Calculation, key: str, told: float) -> _Range:
    """A part weighed when done: at least what of it is not water, at most what went in."""
    role = next(role for role in calculation.bowl.parts if role == key.split(".")[1])
    bowl = calculation.bowl.parts[role]
    pan = _pan_g(calculation, bowl.part.pan) if key.endswith("scale_g") else 0.0
    raw = bowl.grams
    held = 0.5 * bowl.composition.solids  # a cloth, a sieve or a skin may keep half of it
    most = max(raw * _SCALES, told - pan)
    if told - pan > raw:
        most = _TAKES_UP * (told - pan)  # beans and leaves take up water that is on no line
    return (
        min(held, told - pan) + pan,
        most + pan,
        say("{raw} went in{in_pan}", raw=calculation.weight(raw), in_pan=_in_pan(calculation, pan)),
    )


def _cooked_bounds(calculation: Calculation, key: str, told: float) -> _Range:
    """The base when cooked: at least its solids, at most what went in and what steam or water may have brought."""
    pan = _pan_g(calculation, calculation.bowl.base.part.pan) if key == "mix.scale_g" else 0.0
    raw = calculation.fact_book.number("mix.batch_g")
    open_pan = told - pan < raw and calculation.way.base == "flour"
    most = max(told - pan, raw) * (_SCALES if open_pan else _TAKES_UP)
    least = min(0.9 * calculation.bowl.base.composition.solids, 0.9 * (told - pan))
    return (
        least + pan,
        most + pan,
        say("{raw} went in{in_pan}", raw=calculation.weight(raw), in_pan=_in_pan(calculation, pan)),
    )


def _batch_bounds(calculation: Calculation, key: str, told: float) -> _Range:
    return 0.5 * told, _SCALES * told, say("its lines weigh {told}", told=calculation.weight(told))


def _soaked_bounds(calculation: Calculation, key: str, told: float) -> _Range:
    dry = calculation.fact_book.number("grain.dry_g")
    return (
        dry,
        _SOAKS * dry,
        say("{dry} were dry, and grain takes up at most two thirds of that", dry=calculation.weight(dry)),
    )


def _poured_bounds(calculation: Calculation, key: str, told: float) -> _Range:
    return 0.5 * told, 1.6 * told, say("the sheet says {told}", told=calculation.weight(told))


_RULES: Mapping[str, Callable[[Calculation, str, float], _Range]] = {
    "mix.batch_g": _batch_bounds,
    "mix.cooked_g": _cooked_bounds,
    "mix.scale_g": _cooked_bounds,
    "grain.soaked_g": _soaked_bounds,
    "grain.cook_water_g": _poured_bounds,
}


def _in_pan(calculation: Calculation, pan_g: float) -> str:
    return say(", in a pan of {pan_g}", pan_g=calculation.weight(pan_g)) if pan_g else ""


def _heat_bound(calculation: Calculation, stages: Sequence[HeatStageResult]) -> tuple[float, str]:
    """The hottest that anything can be in this heat."""
    method = calculation.heated
    if method == "bake":
        oven = max([calculation.sheet.heat.oven_c, *(stage.oven_c or 0.0 for stage in stages)])
        return oven + _THERMOMETERS_C, say("the oven is at {oven}", oven=calculation.degrees(oven))
    over = _PAN_C if method in ("pan", "gather", "microwave") else 0.0
    return calculation.boil_c + over + _THERMOMETERS_C, say(
        "water boils at {boil_c} here", boil_c=calculation.degrees(calculation.boil_c)
    )

"""Thermal properties of food from its composition, and of water and air from altitude.

Source of the food properties: the Choi-Okos correlations (1986) for conductivity, density and specific heat of
the components between -40 and 150 °C. Starch and sugar are both counted as carbohydrate, salt and the rest as ash.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from kemble.core.kitchen.larder import Composition

Array = NDArray[np.float64]

# Polynomials in °C, lowest power first: conductivity W/(m K), density kg/m3, specific heat J/(kg K).
_CONDUCTIVITY = {
    "water": (5.7109e-1, 1.7625e-3, -6.7036e-6),
    "protein": (1.7881e-1, 1.1958e-3, -2.7178e-6),
    "fat": (1.8071e-1, -2.7604e-4, -1.7749e-7),
    "carbohydrate": (2.0141e-1, 1.3874e-3, -4.3312e-6),
    "fibre": (1.8331e-1, 1.2497e-3, -3.1683e-6),
    "ash": (3.2962e-1, 1.4011e-3, -2.9069e-6),
    "ice": (2.2196, -6.2489e-3, 1.0154e-4),
}
_DENSITY = {
    "water": (9.9718e2, 3.1439e-3, -3.7574e-3),
    "protein": (1.3299e3, -5.1840e-1),
    "fat": (9.2559e2, -4.1757e-1),
    "carbohydrate": (1.5991e3, -3.1046e-1),
    "fibre": (1.3115e3, -3.6589e-1),
    "ash": (2.4238e3, -2.8063e-1),
    "ice": (9.1689e2, -1.3071e-1),
}
_SPECIFIC_HEAT = {
    "water": (4.1762e3, -9.0864e-2, 5.4731e-3),
    "protein": (2.0082e3, 1.2089, -1.3129e-3),
    "fat": (1.9842e3, 1.4733, -4.8008e-3),
    "carbohydrate": (1.5488e3, 1.9625, -5.9399e-3),
    "fibre": (1.8459e3, 1.8306, -4.6509e-3),
    "ash": (1.0926e3, 1.8896, -3.6817e-3),
    "ice": (2.0623e3, 6.0769),
}

LATENT_ICE = 333_600.0  # J/kg, heat of fusion of ice at 0 °C
WATER_J_PER_ML_K = 4.19  # heat capacity of liquid water
LATENT_STEAM = 2_257_000.0  # J/kg, heat of evaporation of water at 100 °C
# Vapour from a wet surface over heat to it, as heat: L / (R T rho c) with Lewis' number 1, in warm to hot air.
LEWIS_K_PER_PA = 0.0138


@dataclass(frozen=True, slots=True)
class Material:
    """Conductivity k in W/(m K), density rho in kg/m3, specific heat cp in J/(kg K)."""

    k: float
    rho: float
    cp: float

    @property
    def alpha(self) -> float:
        """Thermal diffusivity in m2/s."""
        return self.k / (self.rho * self.cp)


def fractions(composition: Composition) -> dict[str, float]:
    """Mass fractions of the Choi-Okos components. They add up to 1.

    Takes: `composition` in g.
    Gives: shares by mass, 1 in all.
    Holds: any food.
    From: Choi-Okos correlations' components.
    """
    total = composition.total
    return {
        "water": composition.water / total,
        "protein": composition.protein / total,
        "fat": composition.fat / total,
        "carbohydrate": (composition.starch + composition.sugar) / total,
        "fibre": composition.fibre / total,
        "ash": (composition.salt + composition.other) / total,
    }


@lru_cache(maxsize=128)
def _component_properties(celsius: float) -> Mapping[str, tuple[float, float, float]]:
    """Density, conductivity and specific heat of every component; few temperatures are asked for, and often."""
    return {
        name: tuple(  # type: ignore[misc]
            sum(c * celsius**power for power, c in enumerate(table[name]))
            for table in (_DENSITY, _CONDUCTIVITY, _SPECIFIC_HEAT)
        )
        for name in _DENSITY
    }


def properties(parts: Mapping[str, float], celsius: float) -> Material:
    """Properties of a food at one temperature, from mass fractions (which may name "ice").

    Conductivity in parallel by volume fraction, density by volumes, specific heat by mass.

    Takes: `parts` by mass, 1 in all; `celsius` from -40 to 150.
    Gives: W/(m K), kg/m3, J/(kg K).
    Holds: foods without air in them.
    From: Choi-Okos correlations.
    """
    at = _component_properties(celsius)
    volume = k = cp = 0.0
    for name, share in parts.items():
        if share > 0:
            density, conducts, holds = at[name]
            volume += share / density
            k += share / density * conducts
            cp += share * holds
    return Material(k=k / volume, rho=1.0 / volume, cp=cp)


def pressure_pa(altitude_m: float) -> float:
    """Air pressure of the International Standard Atmosphere, in Pa, below 11 km.

    Takes: `altitude_m` in m, under 11 000.
    Gives: Pa.
    Holds: a standard day; weather moves it by 3 %.
    From: International Standard Atmosphere.
    """
    return float(101_325.0 * (1.0 - 2.25577e-5 * altitude_m) ** 5.25588)


_BELOW, _ABOVE = (
    (8.07131, 1730.63, 233.426),
    (8.14019, 1810.94, 244.485),
)  # of Antoine's equation, under and over 100 °C


def saturation_pa(celsius: float) -> float:
    """Vapour pressure of water in Pa, 1 to 200 °C: Antoine's equation, its constants for below and above 100 °C.

    Takes: `celsius` from 1 to 200.
    Gives: Pa.
    Holds: within 0.9 % of steam tables (tests).
    From: Antoine's equation, two sets of constants.
    """
    a, b, c = _BELOW if celsius < 100.0 else _ABOVE
    return float(133.322 * 10.0 ** (a - b / (celsius + c)))


def saturations_pa(celsius: Array) -> Array:
    """The same of many temperatures.

    Takes: `celsius` from 1 to 200, many.
    Gives: Pa.
    Holds: as `saturation_pa`.
    From: as `saturation_pa`.
    """
    a, b, c = (np.where(celsius < 100.0, below, above) for below, above in zip(_BELOW, _ABOVE, strict=True))
    result: Array = 133.322 * 10.0 ** (a - b / (celsius + c))
    return result


def boiling_point_c(altitude_m: float) -> float:
    """Boiling point of water in °C: Antoine's equation for water (1-100 °C constants, mmHg) at that pressure.

    `altitude_m` in metres above the sea, -400 to 5500: what a kitchen may be.

    Takes: `altitude_m` from -400 to 5500 m.
    Gives: °C.
    Holds: within 0.25 K of steam tables to 3000 m (tests).
    From: standard atmosphere, Antoine's equation.

    >>> [round(boiling_point_c(m), 1) for m in (0, 1600, 3000)]
    [100.0, 94.7, 90.0]
    """
    mmhg = pressure_pa(altitude_m) / 133.322
    return 1730.63 / (8.07131 - math.log10(mmhg)) - 233.426


def freezing_point_c(composition: Composition) -> float:
    """Where ice first forms, in °C: Raoult's law for the sugar (as sucrose) and salt in the water, at most -25.

    The ideal law: near for a syrup up to about 60 % sugar, too warm beyond.

    Takes: `composition` in g.
    Gives: °C, at most -25.
    Holds: sugar up to about 60 % of the syrup.
    From: Raoult's law.

    >>> round(freezing_point_c(Composition(water=50, sugar=50)), 1)
    -5.4
    """
    if composition.water <= 0:
        return -25.0
    moles = composition.sugar / 342.3 + 2 * composition.salt / 58.44
    return max(-25.0, -1.86 * moles / (composition.water / 1000.0))


def water_activity(composition: Composition) -> float:
    """What sugar (as sucrose), salt and protein leave of water's vapour pressure: Raoult's law by moles.

    Takes: `composition` in g.
    Gives: a share of water's vapour pressure, 0 to 1.
    Holds: sugar up to about 60 % of the syrup.
    From: Raoult's law, by moles.
    """
    if composition.water <= 0:
        return 1.0
    moles = composition.sugar / 342.3 + 2 * composition.salt / 58.44 + composition.protein / 30_000.0
    water = composition.water / 18.015
    return water / (water + moles)


def boils_at_c(composition: Composition, boil_c: float) -> float:
    """Where water boils that holds so much sugar and salt: 0.51 K more for each mole in a kilogram of it.

    Takes: `composition` in g; `boil_c` of water in °C.
    Gives: °C.
    Holds: thin and middling syrups.
    From: ebullioscopic constant of water.
    """
    if composition.water <= 0:
        return boil_c
    moles = composition.sugar / 342.3 + 2 * composition.salt / 58.44
    return boil_c + min(12.0, 0.51 * moles / (composition.water / 1000.0))


def ice_fraction(composition: Composition, celsius: float) -> float:
    """Ice in kg per kg of food at a temperature; see `ice_fractions`.

    Takes: `composition` in g; `celsius`.
    Gives: kg of ice for each kg.
    Holds: as `ice_fractions`.
    From: as `ice_fractions`.
    """
    return float(ice_fractions(composition, np.array([celsius]))[0])


def ice_fractions(composition: Composition, celsius: Array) -> Array:
    """Ice in kg per kg of food along temperatures: (free water) x (1 - Tf / T).

    Water bound to 0.3 of its weight by protein, starch and fibre never freezes (kitchen estimate, 0.2-0.4).

    Takes: `composition` in g; `celsius`, many.
    Gives: kg of ice for each kg.
    Holds: -40 to 0 °C.
    From: Raoult's law; bound water, 0.2 to 0.4 of the solids, a kitchen estimate.
    """
    begins = freezing_point_c(composition)
    bound = 0.3 * (composition.protein + composition.starch + composition.fibre)
    free = max(0.0, composition.water - bound) / composition.total
    stays = np.divide(begins, celsius, out=np.ones(len(celsius)), where=celsius < begins)
    frozen: Array = free * (1.0 - stays)
    return frozen

"""Freezing food: its heat content over temperature, freezing a filling ball hard, and thawing it."""

from __future__ import annotations

import math

import numpy as np

from kemble.core.kitchen.larder import Composition
from kemble.core.physics.conduction import TemperatureDependentMaterial
from kemble.core.physics.thermal import LATENT_ICE, fractions, ice_fraction, ice_fractions, properties

# Heat of setting of the fat, with the share that sets above -18 °C folded in. Kitchen estimate, 30-60 kJ/kg of fat:
# butter and coconut oil set almost wholly, nut oils hardly.
FAT_SETS_J_PER_KG = 45_000.0

_GRID = np.linspace(-40.0, 110.0, 151)
_COARSE = slice(None, None, 15)  # the correlations are smooth: eleven points carry them


def food(composition: Composition, *, fat_sets: bool) -> TemperatureDependentMaterial:
    """A food as tables over -40 to 110 °C: heat content (J/m3) with its ice, conductivity (W/(m K)).

    `fat_sets` adds the melting of its fat, spread smoothly over -10 to 30 °C (kitchen estimate).

    Takes: `composition` in g; `fat_sets` whether its fat melts in it.
    Gives: heat content and conductivity as tables.
    Holds: -40 to 110 °C.
    From: Choi-Okos correlations, Raoult's law for its ice; the fat a kitchen estimate.
    """
    parts = fractions(composition)
    materials = [properties(parts, float(t)) for t in _GRID[_COARSE]]
    k = np.interp(_GRID, _GRID[_COARSE], [m.k for m in materials])
    capacity = np.interp(_GRID, _GRID[_COARSE], [m.rho * m.cp for m in materials])
    sensible = np.concatenate(([0.0], np.cumsum((capacity[1:] + capacity[:-1]) / 2 * np.diff(_GRID))))
    ice = ice_fractions(composition, _GRID)
    melted = LATENT_ICE * (ice[0] - ice)
    if fat_sets:
        share = np.clip((_GRID + 10.0) / 40.0, 0.0, 1.0)
        melted += FAT_SETS_J_PER_KG * parts["fat"] * share * share * (3.0 - 2.0 * share)
    return TemperatureDependentMaterial(_GRID, sensible + properties(parts, 20.0).rho * melted, k)


def freeze_hard_s(composition: Composition, *, diameter_m: float, start_c: float, shelf_c: float, h: float) -> float:
    """Seconds for a ball to freeze hard: Plank's equation for a sphere (P = 1/6, R = 1/24), with sensible heat.

    The latent heat is that of the ice formed at the shelf's temperature and of the fat that sets; both are taken at
    one setting temperature of 5 °C below the room side of the freezer (kitchen estimate). Sensible heat before and
    after by a lumped cooling.

    Takes: `composition` in g; `diameter_m` in m; `start_c`, `shelf_c` in °C; `h` in W/(m2 K).
    Gives: s.
    Holds: a ball, cold from all round, on a shelf under its setting temperature.
    From: Plank's equation; the setting heat of fat a kitchen estimate.
    """
    parts = fractions(composition)
    food = properties(parts, 0.0)
    sets_c = -4.0
    latent = LATENT_ICE * ice_fraction(composition, shelf_c) + FAT_SETS_J_PER_KG * parts["fat"]
    plank = food.rho * latent / (sets_c - shelf_c) * (diameter_m / (6 * h) + diameter_m**2 / (24 * food.k))
    lumped = food.rho * food.cp * diameter_m / 6 * (1 / h + diameter_m / (10 * food.k))
    hard_c = shelf_c + 5.0
    return plank + lumped * math.log((start_c - shelf_c) / (hard_c - shelf_c))


def soften_s(
    composition: Composition, *, diameter_m: float, frozen_c: float, soft_c: float, room_c: float, h: float
) -> float:
    """Seconds on the counter until a frozen ball has warmed to `soft_c`: lumped, ice and fat counted in the heat.

    Takes: `composition` in g; `diameter_m` in m; `frozen_c`, `soft_c`, `room_c` in °C; `h` in W/(m2 K).
    Gives: s.
    Holds: small balls in still air, which are nearly as warm within as without.
    From: conservation of heat, one lump.
    """
    parts = fractions(composition)
    food = properties(parts, 0.0)
    melted = LATENT_ICE * (ice_fraction(composition, frozen_c) - ice_fraction(composition, soft_c))
    fat = FAT_SETS_J_PER_KG * parts["fat"] * (soft_c - frozen_c) / 40.0
    heat = food.cp * (soft_c - frozen_c) + melted + fat
    mean_drive = room_c - (soft_c + frozen_c) / 2
    return food.rho * diameter_m / 6 * heat / (h * mean_drive)

"""A wet batter in an oven: heat from the air above and through the tin below, spent on warming and on drying.

One dimension, by finite volumes, implicit in time. What evaporates from the top follows the vapour pressure at its
surface; once the top has given up so much water it has a skin that lets little through, and browns. Inside, water
boils off where the batter reaches the boiling point: nothing there gets hotter while it is wet.

m, °C, s, W/(m2 K), Pa; heat in J/m2, water in kg/m2.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from scipy.linalg.lapack import dgtsv

from kemble.core.physics.conduction import Array, Body
from kemble.core.physics.thermal import LATENT_STEAM, LEWIS_K_PER_PA, Material, saturation_pa

OVEN_H = 23.0  # W/(m2 K), air and radiation together; kitchen estimate, 20-35
DOOR_DROP_C = 30.0  # the air is so much colder when the door has been open, and is back by a factor e in ...
DOOR_BACK_S = 300.0  # ... that time; kitchen estimates
# Of the vapour that open water would give off, a thick sweet batter gives this share. Kitchen estimate, 0.06-0.15.
WET_SHARE = 0.10
DRY_SHARE = 0.004  # ... and through its skin
SKIN_KG_PER_M2 = 0.55  # water given up by the top when it has a skin; kitchen estimate, 0.3-0.9
OVEN_VAPOUR_PA = 12_000.0  # in an oven with something wet in it; kitchen estimate
STEPS = 72
_PIN = 1e5  # how stiffly a boiling cell is held, over its own inertia
CELLS = 24
BROWN_AT_C = 120.0  # ... a minute here is one of browning, twice that for each ...
BROWN_TWICE_C = 8.0  # ... so much hotter
BROWN_MIN = 5.0  # minutes of browning until a sugared top is golden; kitchen estimate, an index
_TOP_M = 0.002  # what boils off so near the top dries it too


@dataclass(frozen=True, slots=True)
class Oven:
    """Air at `air_c`; `h_top` to the open surface, `h_floor` through the tin; water boils at `boil_c`."""

    air_c: float
    boil_c: float
    h_top: float
    h_floor: float


@dataclass(frozen=True, slots=True)
class Baked:
    """Along `times`: cells (times, cells) and the top in °C; per m2 of tray the heat taken up and stored, the water
    gone (`dried`) and what of that left by the top (`top_dried`)."""

    times: Array
    cells: Array
    top: Array
    heat: Array
    dried: Array
    top_dried: Array
    stored: Array


def bake(
    body: Body, material: Material, water: float, start_c: float, oven: Oven, end_s: float, steps: int = STEPS
) -> Baked:
    """March a slab of batter for `end_s`. `water` is its mass fraction of water; it never dries below none.

    Energy is kept: what comes in is stored, or has left as vapour.
    """
    times = end_s * np.linspace(0.0, 1.0, steps + 1) ** 1.4
    n = len(body.volumes)
    half = np.diff(body.edges) / (2 * body.k)
    volumes = body.volumes
    near_top = body.centres > body.edges[-1] - _TOP_M
    capacity = volumes * body.heat_capacity
    kept = volumes * material.rho * water * LATENT_STEAM  # J/m2 that each cell's water can still take
    temperature = np.full(n, start_c)
    cells, top = np.empty((len(times), n)), np.empty(len(times))
    heat, dried, top_dried, stored = np.zeros((4, len(times)))
    cells[0], top[0] = start_c, start_c
    g = np.zeros(n + 1)
    g[1:-1] = 1.0 / (half[:-1] + half[1:])
    g[0] = 1.0 / (half[0] + 1.0 / oven.h_floor)
    neighbours = g[:-1] + g[1:]  # the top's is added at each step
    beside = -g[1:-1]
    gone_kg = rate_kg = 0.0
    surface = start_c
    for i, dt in enumerate(np.diff(times), start=1):
        air = oven.air_c - DOOR_DROP_C * math.exp(-(times[i - 1] + dt / 2) / DOOR_BACK_S)
        share = _share(gone_kg + 0.5 * dt * rate_kg)  # as dry as it will be half way through the step
        drying, slope = _drying(surface, share, oven)
        left = float(kept.sum())
        if drying * dt > 0.5 * left:  # nearly dry all through: it cannot give off what it does not hold
            drying, slope = 0.5 * left / dt, 0.0
        h_eff = oven.h_top + slope
        around = (oven.h_top * air - drying + slope * surface) / h_eff
        g_top = 1.0 / (half[-1] + 1.0 / h_eff)
        inertia = capacity / dt
        diagonal = inertia + neighbours
        diagonal[-1] += g_top
        right = inertia * temperature
        right[0] += g[0] * air
        right[-1] += g_top * around
        solved, pin = _step(beside, diagonal, right, inertia, kept, oven.boil_c)
        surface = float(solved[-1] + (around - solved[-1]) * g_top * half[-1])
        evaporated = max(0.0, drying + slope * (surface - top[i - 1])) * dt
        flow_top = g_top * (around - solved[-1])
        flow_floor = g[0] * (air - solved[0])
        _take(kept, evaporated)
        boiled = boiled_top = 0.0
        temperature = solved
        if pin is not None:
            surplus = np.maximum(0.0, pin * (solved - oven.boil_c) * dt)
            over = np.minimum(surplus, kept)
            kept -= over
            temperature = solved + (surplus - over) / capacity
            boiled, boiled_top = float(over.sum()), float(over[near_top].sum())
        left_top = (evaporated + boiled_top) / LATENT_STEAM
        gone_kg, rate_kg = gone_kg + left_top, left_top / dt
        heat[i] = heat[i - 1] + dt * (flow_top + flow_floor) + evaporated
        dried[i] = dried[i - 1] + (evaporated + boiled) / LATENT_STEAM
        top_dried[i] = gone_kg
        stored[i] = float((capacity * (temperature - start_c)).sum())
        cells[i], top[i] = temperature, surface
    return Baked(times, cells, top, heat, dried, top_dried, stored)


def browned(times: Array, top: Array) -> Array:
    """Minutes of browning along `times`: an index, each minute worth 1 at 120 °C and twice that 8 °C hotter."""
    rate = 2.0 ** ((np.minimum(top, 220.0) - BROWN_AT_C) / BROWN_TWICE_C)
    gone = np.cumsum((rate[1:] + rate[:-1]) / 2 * np.diff(times)) / 60.0
    return np.concatenate(([0.0], gone))


def _step(
    beside: Array, diagonal: Array, right: Array, inertia: Array, kept: Array, boil_c: float
) -> tuple[Array, Array | None]:
    """The temperatures of a step, and how stiffly each cell is held at the boiling point; None when none is.

    A wet cell stays there: what comes in beyond that boils its water off. Held are those that would still be hotter
    with their neighbours held.
    """
    free = _solve(beside, diagonal, right)
    if free.max() <= boil_c:
        return free, None
    boils, stiff = (free > boil_c) & (kept > 0), _PIN * inertia
    while boils.any():
        pin = np.where(boils, stiff, 0.0)
        solved = _solve(beside, diagonal + pin, right + pin * boil_c)
        cooler = boils & (solved < boil_c)
        if not cooler.any():
            return solved, pin
        boils &= ~cooler
    return free, None


def _solve(beside: Array, diagonal: Array, right: Array) -> Array:
    """The temperatures of a step: a symmetric tridiagonal system with `beside` next to its diagonal."""
    _, _, _, solved, _ = dgtsv(beside, diagonal, beside, right)
    result: Array = solved
    return result


def _take(kept: Array, joules: float) -> None:
    """Water that left the top, out of the cells from the top down."""
    for i in range(len(kept) - 1, -1, -1):
        taken = min(joules, kept[i])
        kept[i] -= taken
        joules -= taken
        if joules <= 0:
            return


def _share(gone_kg: float) -> float:
    """Of what an open water would give off: falls from wet to skin as the top dries."""
    return DRY_SHARE + (WET_SHARE - DRY_SHARE) * math.exp(-((gone_kg / SKIN_KG_PER_M2) ** 2))


def _drying(surface_c: float, share: float, oven: Oven) -> tuple[float, float]:
    """Heat that leaves the top as vapour (W/m2), and how that rises with its temperature (W/(m2 K))."""
    factor = oven.h_top * LEWIS_K_PER_PA * share
    at, beside = saturation_pa(surface_c), saturation_pa(surface_c + 0.5)
    drive = max(0.0, at - OVEN_VAPOUR_PA)
    return factor * drive, factor * (beside - at) / 0.5 if drive > 0 else 0.0

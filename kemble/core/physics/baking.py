"""A wet batter in an oven: heat from the air above and through the tin below, spent on warming and on drying.

One dimension, by finite volumes, implicit in time. What evaporates from the top follows the vapour pressure at its
surface; once the top has given up so much water it has a skin that lets little through, and browns. Inside, water
boils off where the batter reaches the boiling point: nothing there gets hotter while it is wet.

m, °C, s, W/(m2 K), Pa; heat in J/m2, water in kg/m2.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from scipy.linalg.lapack import dptsv

from kemble.core.physics.conduction import Array, ConductingBody
from kemble.core.physics.thermal import LATENT_STEAM, LEWIS_K_PER_PA, Material, saturations_pa

OVEN_H = 23.0  # W/(m2 K), air and radiation together; kitchen estimate, 20-35
DOOR_DROP_C = 30.0  # the air is so much colder when the door has been open, and is back by a factor e in ...
DOOR_BACK_S = 300.0  # ... that time; kitchen estimates
# Of the vapour that open water would give off, a thick sweet batter gives this share. Kitchen estimate, 0.06-0.15.
WET_SHARE = 0.10
DRY_SHARE = 0.004  # ... and through its skin
SKIN_KG_PER_M2 = 0.55  # water given up by the top when it has a skin; kitchen estimate, 0.3-0.9
OVEN_VAPOUR_PA = 12_000.0  # in an oven with something wet in it; kitchen estimate
STEPS = 48
_PIN = 1e5  # how stiffly a boiling cell is held, over its own inertia
_MOST_TRIES = 12  # to find which cells boil; one or two do
CELLS = 20
BROWN_AT_C = 120.0  # ... a minute here is one of browning, twice that for each ...
BROWN_TWICE_C = 8.0  # ... so much hotter
BROWN_MIN = 5.0  # minutes of browning until a sugared top is golden; kitchen estimate, an index
_TOP_M = 0.002  # what boils off so near the top dries it too


@dataclass(frozen=True, slots=True)
class Oven:
    """Air at `air_c`, and from some seconds on at another (`later`); `h_top` to the open surface, `h_floor` through the
    tin; water boils at `boil_c`. `rewets`: (s, kg/m2) of water laid on the top, which is wet again from then."""

    air_c: float
    boil_c: float
    h_top: float
    h_floor: float
    later: tuple[tuple[float, float], ...] = ()
    rewets: tuple[tuple[float, float], ...] = ()
    wet_share: float = WET_SHARE
    activity: float = 1.0  # of the water in the batter: what its sugar leaves of the vapour pressure


@dataclass(frozen=True, slots=True)
class BakeCurves:
    """Along `times`: cells (times, cells), the coldest of them and the top in °C; per m2 of tray the heat taken up and stored, the water
    gone (`dried`) and what of that left by the top (`top_dried`); minutes of browning."""

    times: Array
    cells: Array
    coldest: Array
    top: Array
    heat: Array
    dried: Array
    top_dried: Array
    stored: Array
    browning: Array


@dataclass(frozen=True, slots=True)
class OvenSlab:
    """A slab of batter of some mass fraction of `water` that goes into an oven at `start_c` for `end_s`, in a tin that
    holds `tin_j` (J/(m2 K)) itself."""

    body: ConductingBody
    material: Material
    water: float
    start_c: float
    oven: Oven
    end_s: float
    tin_j: float = 0.0


def bake(tray: OvenSlab, steps: int = STEPS) -> BakeCurves:
    """March one tray.

    Takes: `tray` a slab in an oven (SI units inside); `steps` of its time.
    Gives: the marched tray: °C, water in kg/m2.
    Holds: batters poured in a tin; finer cells and steps change it by under 3 % (tests).
    From: conservation of heat and water; Lewis' relation for vapour; its shares a kitchen estimate.
    """
    return bake_all([tray], steps)[0]


def bake_all(trays: Sequence[OvenSlab], steps: int = STEPS, upto: int | None = None) -> list[BakeCurves]:
    """March trays of as many cells side by side, each for its own time, or for so many (`upto`) of its steps. None dries
    below no water.

    Energy is kept: what comes in is stored, or has left as vapour. Side by side they cost hardly more than one: a step
    solves them all as one system whose blocks do not touch.

    Takes: `trays` of as many cells each; `steps` of each one's time; `upto` so many of them only.
    Gives: a marched tray each.
    Holds: as `bake`.
    From: as `bake`.
    """
    steps, of = upto or steps, steps
    times = np.outer([tray.end_s for tray in trays], np.linspace(0.0, steps / of, steps + 1) ** 1.4)
    n, many = len(trays[0].body.volumes), len(trays)
    half = np.array([np.diff(tray.body.edges) / (2 * tray.body.k) for tray in trays])
    volumes = np.array([tray.body.volumes for tray in trays])
    near_top = np.array([tray.body.centres > tray.body.edges[-1] - _TOP_M for tray in trays])
    capacity = volumes * np.array([tray.body.heat_capacity for tray in trays])
    capacity[:, 0] += [tray.tin_j for tray in trays]
    wet = np.array([tray.material.rho * tray.water * LATENT_STEAM for tray in trays])
    by_capacity = 1.0 / capacity
    kept = volumes * wet[:, None]  # J/m2 that each cell's water can still take
    start = np.array([tray.start_c for tray in trays])
    air_c, boil_c, h_top, h_floor, wet_share, activity = (
        np.array([getattr(tray.oven, name) for tray in trays])
        for name in ("air_c", "boil_c", "h_top", "h_floor", "wet_share", "activity")
    )
    temperature = np.repeat(start[:, None], n, axis=1)
    cells, top = np.empty((steps + 1, many, n)), np.empty((steps + 1, many))
    flowed, evaporated, boiled, boiled_top = np.zeros((4, steps + 1, many))  # J/m2 in each step
    cells[0], top[0] = temperature, start
    lasts = np.ascontiguousarray(np.diff(times, axis=1).T)
    middles = (times[:, 1:] + times[:, :-1]) / 2
    airs = np.ascontiguousarray((_airs(trays, air_c, middles) - DOOR_DROP_C * np.exp(-middles / DOOR_BACK_S)).T)
    rewets = [(j, at, kg) for j, tray in enumerate(trays) for at, kg in tray.oven.rewets]
    inertias = capacity / lasts[:, :, None]
    boil_at = np.repeat(boil_c[:, None], n, axis=1)
    stiffs = _PIN * inertias
    helds = stiffs * boil_at  # what a cell that is so held draws from the boiling point
    by_air, halves = h_top * airs, 0.5 / lasts
    given, wetter, rises = h_top * LEWIS_K_PER_PA, wet_share - DRY_SHARE, activity * _PER_C
    half_top, every, none = half[:, -1].copy(), np.ones(n), np.zeros((many, n))
    near_top = near_top.astype(float)
    between = 1.0 / (half[:, :-1] + half[:, 1:])
    g_floor = 1.0 / (half[:, 0] + 1.0 / h_floor)
    floors = g_floor * airs
    neighbours = np.zeros((many, n))
    neighbours[:, :-1] += between
    neighbours[:, 1:] += between
    neighbours[:, 0] += g_floor  # the top's is added at each step
    diagonals = inertias + neighbours
    beside = np.zeros((many, n))
    beside[:, :-1] = -between
    beside = beside.ravel()[:-1]
    boils = np.zeros((many, n))  # 1 where a cell is held
    gone_kg, next_kg, surface = np.zeros(many), np.zeros(many), start.copy()
    for i, dt in enumerate(lasts, start=1):
        for j, at, kg in rewets:
            if times[j, i - 1] < at <= times[j, i]:
                gone_kg[j], kept[j, -1] = 0.0, kept[j, -1] + kg * LATENT_STEAM
        gives = given * _evaporation_share(
            gone_kg + dt * next_kg, wetter
        )  # as dry as it will be half way through the step
        drying, slope = _drying(surface, gives, activity, rises)
        left = (kept @ every) * halves[i - 1]
        if np.count_nonzero(drying > left):  # nearly dry all through: it cannot give off what it does not hold
            drying, slope = np.minimum(drying, left), np.where(drying > left, 0.0, slope)
        h_eff = h_top + slope
        around = (by_air[i - 1] - drying + slope * surface) / h_eff
        g_top = 1.0 / (half_top + 1.0 / h_eff)
        diagonal, right = diagonals[i - 1], inertias[i - 1] * temperature
        diagonal[:, -1] += g_top
        right[:, 0] += floors[i - 1]
        right[:, -1] += g_top * around
        held = _BoilingCells(stiffs[i - 1], helds[i - 1], boil_at, _wet_cells(kept))
        solved, pin, boils = _solve_step(beside, diagonal, right, held, boils)
        last = solved[:, -1]
        into_top = g_top * (around - last)
        surface = last + into_top * half_top
        vapour = np.maximum(none[:, 0], drying + slope * (surface - top[i - 1])) * dt
        _take_water_off_top(kept, vapour, none)
        temperature, left_top = solved, vapour
        if pin is not None:
            surplus = solved - boil_at
            surplus *= pin
            surplus *= dt[:, None]
            np.maximum(surplus, none, out=surplus)
            over = np.minimum(surplus, kept)
            kept -= over
            surplus -= over
            temperature = solved + surplus * by_capacity
            boiled[i], near = over @ every, (over * near_top) @ every
            boiled_top[i], left_top = near, vapour + near
        left_kg = left_top * (1.0 / LATENT_STEAM)
        gone_kg, next_kg = gone_kg + left_kg, left_kg * halves[i - 1]
        flowed[i] = dt * (into_top + floors[i - 1] - g_floor * solved[:, 0])
        evaporated[i], cells[i], top[i] = vapour, temperature, surface
    heat = np.cumsum(flowed + evaporated, axis=0)
    dried = np.cumsum(evaporated + boiled, axis=0) / LATENT_STEAM
    top_dried = np.cumsum(evaporated + boiled_top, axis=0) / LATENT_STEAM
    stored = ((cells - start[:, None]) * capacity).sum(axis=2)
    browning = browned(times.T, top)
    coldest = cells.min(axis=2)
    return [
        BakeCurves(
            times[j],
            cells[:, j],
            coldest[:, j],
            top[:, j],
            heat[:, j],
            dried[:, j],
            top_dried[:, j],
            stored[:, j],
            browning[:, j],
        )
        for j in range(many)
    ]


def _airs(trays: Sequence[OvenSlab], air_c: Array, at: Array) -> Array:
    """°C of the air round each tray at the seconds `at` (trays, steps)."""
    airs = np.repeat(air_c[:, None], at.shape[1], axis=1)
    for j, tray in enumerate(trays):
        for begins, celsius in tray.oven.later:
            airs[j, at[j] >= begins] = celsius
    return airs


def browned(times: Array, top: Array) -> Array:
    """Minutes of browning along `times`: an index, each minute worth 1 at 120 °C and twice that 8 °C hotter.

    Takes: `times` in s, `top` in °C at each.
    Gives: minutes of browning, an index.
    Holds: sugared tops.
    From: kitchen estimate.
    """
    rate = 2.0 ** ((np.minimum(top, 220.0) - BROWN_AT_C) / BROWN_TWICE_C)
    gone = np.zeros_like(rate)
    ((rate[1:] + rate[:-1]) * (times[1:] - times[:-1])).cumsum(axis=0, out=gone[1:])
    return gone / 120.0


class _BoilingCells(NamedTuple):
    """How stiffly a boiling cell is held in a step, what it draws then, where it boils, and which hold water at all
    (None: every one)."""

    stiff: Array
    draws: Array
    boil_c: Array
    wet: Array | None


def _solve_step(
    beside: Array, diagonal: Array, right: Array, held: _BoilingCells, boils: Array
) -> tuple[Array, Array | None, Array]:
    """The temperatures of a step, how stiffly each cell is held at the boiling point (None when none is), and which are.

    A wet cell stays there: what comes in beyond that boils its water off. Held are those that would otherwise be hotter;
    let go those that would be cooler (an active set, begun with the last step's, the front moved on where a cell has dried:
    that is nearly always right).
    """
    stiff, draws, boil_c, wet = held
    if wet is not None:
        left = boils * wet
        if np.count_nonzero(left) < np.count_nonzero(
            boils
        ):  # what a cell boiled off that has dried, its neighbour does
            dried = boils - left
            left[:, 1:] += dried[:, :-1]
            left[:, :-1] += dried[:, 1:]
            left = (left > 0) * wet
        boils = left
    for _ in range(_MOST_TRIES):
        pin = boils * stiff if np.count_nonzero(boils) else None
        if pin is None:
            solved = _solve_tridiagonal(beside, diagonal, right)
        else:
            solved = _solve_tridiagonal(beside, diagonal + pin, right + boils * draws, scratch=True)
        hotter = (solved > boil_c).astype(float)
        if wet is not None:
            hotter *= wet
        if not np.count_nonzero(hotter != boils):
            break
        boils = hotter
    return solved, pin, boils


def _solve_tridiagonal(beside: Array, diagonal: Array, right: Array, *, scratch: bool = False) -> Array:
    """The temperatures of a step: symmetric tridiagonal blocks with `beside` next to the diagonal, 0 between blocks.
    `scratch`: the diagonal and the right side are not wanted afterwards."""
    _, _, solved, _ = dptsv(diagonal.ravel(), beside, right.ravel(), overwrite_d=scratch, overwrite_b=scratch)
    result: Array = solved.reshape(right.shape)
    return result


def _wet_cells(kept: Array) -> Array | None:
    """1 where a cell holds water, 0 where none; None where all do."""
    return None if np.count_nonzero(kept) == kept.size else (kept > 0).astype(float)


def _take_water_off_top(kept: Array, joules: Array, none: Array) -> None:
    """Water that left the top, out of the cells from the top down. `none`: zeros of its shape."""
    top = kept[:, -1]
    if not np.count_nonzero(joules > top):
        top -= joules
        return
    down = kept[:, ::-1]
    wants = down - down.cumsum(axis=1)
    wants += joules[:, None]
    np.maximum(wants, none, out=wants)
    down -= np.minimum(wants, down, out=wants)


def _evaporation_share(gone_kg: Array, wetter: Array) -> Array:
    """Of what an open water would give off: falls from wet (by so much more than a skin) to skin as the top dries."""
    dry = gone_kg * (1.0 / SKIN_KG_PER_M2)
    dry *= -dry
    result: Array = np.exp(dry, out=dry) * wetter + DRY_SHARE
    return result


_PER_C = 2.0  # how many rows the table of vapour pressures has for a kelvin, from 0 °C
_PA = saturations_pa(np.arange(0.0, 401.0, 1.0 / _PER_C))
_PA_RISES = np.diff(_PA)


def _drying(surface_c: Array, gives: Array, activity: Array, rises: Array) -> tuple[Array, Array]:
    """Heat that leaves the top as vapour (W/m2), and how that rises with its temperature (W/(m2 K)). It `gives` so much
    for each Pa; `rises` is the activity over the rows of the table."""
    at = surface_c * _PER_C
    row = at.astype(np.intp)
    rise = _PA_RISES.take(row, mode="clip")
    drive = (_PA.take(row, mode="clip") + rise * (at - row)) * activity - OVEN_VAPOUR_PA
    if np.count_nonzero(drive <= 0):
        gives = gives * (drive > 0)
    return gives * drive, gives * rise * rises

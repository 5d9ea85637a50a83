"""A stirred mass over a burner or in a microwave oven: one temperature, power in, vapour out; and what a burner gives.

Stirring keeps it even, so it is one lump: heat capacity by composition, vapour from the open top by its pressure there.
Power in W, heat in J, times in s, temperatures in °C, areas in m2.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from kemble.core.physics.conduction import Array
from kemble.core.physics.thermal import LATENT_STEAM, LEWIS_K_PER_PA, WATER_J_PER_ML_K, saturation_pa

STILL_AIR_H = 7.5  # W/(m2 K), still warm air over something wet; the table of estimates has its range
ROOM_VAPOUR_PA = 1_200.0
SWEET_SHARE = 0.9  # of the pressure over plain water; kitchen estimate
_STEPS = 240


@dataclass(frozen=True, slots=True)
class StirredCurves:
    """Along `times`: °C, and the heat put in, stored and gone as vapour, in J."""

    times: Array
    celsius: Array
    put_in: Array
    stored: Array
    dried: Array

    @property
    def lost_kg(self) -> Array:
        result: Array = self.dried / LATENT_STEAM
        return result


def stir(
    *,
    mass_kg: float,
    cp: float,
    start_c: float,
    boil_c: float,
    power_w: float,
    open_m2: float,
    end_s: float,
    still_h: float = STILL_AIR_H,
) -> StirredCurves:
    """Heat a stirred mass of specific heat `cp`, J/(kg K), under air that takes vapour by `still_h`, W/(m2 K). It gets no
    hotter than `boil_c`: the surplus dries it.

    Heat from the pan to the air is in `power_w`, which is net. Energy is kept to rounding.

    Takes: `mass_kg`; `cp` in J/(kg K); `start_c`, `boil_c` in °C; `power_w` in W; `open_m2` in m2; `end_s` in s;
        `still_h` in W/(m2 K).
    Gives: °C and kg over the time.
    Holds: one lump, stirred all the while.
    From: conservation of heat; Lewis' relation, its film a kitchen estimate.
    """
    dt = end_s / _STEPS
    at, gone, capacity = start_c, 0.0, mass_kg * cp
    factor = open_m2 * still_h * LEWIS_K_PER_PA
    celsius, dried = [at], [gone]  # lists: numpy takes longer to hand over one number than to reckon with many
    for _ in range(_STEPS):
        over_room = SWEET_SHARE * saturation_pa(at if at > 1.0 else 1.0) - ROOM_VAPOUR_PA
        vapour_w = factor * over_room if over_room > 0 else 0.0
        heat = (power_w - vapour_w) * dt
        surplus = (at + heat / capacity - boil_c) * capacity
        if surplus < 0:
            surplus = 0.0
        at += (heat - surplus) / capacity
        gone = gone + vapour_w * dt + surplus
        celsius.append(at)
        dried.append(gone)
    times, path = np.linspace(0.0, end_s, _STEPS + 1), np.array(celsius)
    return StirredCurves(times, path, power_w * times, capacity * (path - start_c), np.array(dried))


def cools_s(
    *,
    joules_per_k: float,
    start_c: float,
    to_c: float,
    room_c: float,
    open_m2: float,
    wall_m2: float,
    still_h: float = STILL_AIR_H,
    wall_h: float = 11.0,
) -> float:
    """Seconds in which a pan of syrup that stands open falls to `to_c`: vapour and warm air leave its open top, warm air its
    wall. At the start nearly all of what leaves is vapour, so that it cools quickly at first and slowly at the end.

    Takes: `joules_per_k` of syrup and pan, J/K; `start_c`, `to_c` over `room_c`, in °C; `open_m2`, `wall_m2` in m2; `still_h`,
        `wall_h` in W/(m2 K).
    Gives: s; 0 where it is no warmer than that at the start, infinite where the room is as warm.
    Holds: one lump, stirred now and then; a syrup as sweet as a batter's.
    From: conservation of heat; Lewis' relation, its film a kitchen estimate.
    """
    if start_c <= to_c:
        return 0.0
    if to_c <= room_c:
        return math.inf
    fall = (start_c - to_c) / _STEPS
    seconds = 0.0
    for i in range(_STEPS):
        at = start_c - (i + 0.5) * fall  # the time of each small fall, by what leaves in its middle
        vapour = max(0.0, SWEET_SHARE * saturation_pa(at) - ROOM_VAPOUR_PA) * LEWIS_K_PER_PA
        leaves_w = still_h * open_m2 * (at - room_c + vapour) + wall_h * wall_m2 * (at - room_c)
        seconds += joules_per_k * fall / leaves_w
    return seconds


KETTLE_KEEPS = 0.96  # of a covered kettle's heat is in its water; the rest in the metal. Kitchen estimate, 0.94-0.98


def kettle_w(*, water_ml: float, start_c: float, boil_c: float, seconds: float) -> float:
    """Net power of a burner in W, from the time it takes to bring so much water to the boil, lid on.

    Heat of the water over the time; what the pot's own metal took is added. Raises ValueError unless the water, the
    time and the rise are above nothing.

    Takes: `water_ml` above 0; `start_c` under `boil_c`, in °C; `seconds` above 0.
    Gives: W.
    Holds: lid on, from cold to the boil.
    From: heat of the water; what the kettle keeps, 94 to 98 % in the water, a kitchen estimate.
    """
    if water_ml <= 0 or seconds <= 0 or boil_c <= start_c:
        raise ValueError("water, time and rise must be above nothing")
    return water_ml * WATER_J_PER_ML_K * (boil_c - start_c) / KETTLE_KEEPS / seconds


def oven_h(*, water_ml: float, across_mm: float, start_c: float, end_c: float, oven_c: float, seconds: float) -> float:
    """W/(m2 K) that an oven gives, from a round metal tin of water under foil that it warms in so many seconds.

    One lump: floor, wall up to the water and foil take heat alike, from air at `oven_c`. Raises ValueError unless the
    water, the time and the rise are above nothing and the oven hotter than the water at last.

    Takes: `water_ml`, `across_mm` above 0; `start_c` under `end_c`, under `oven_c`, in °C; `seconds` above 0.
    Gives: W/(m2 K).
    Holds: a thin metal tin under foil, water that is stirred once before it is read.
    From: conservation of heat, one lump.
    """
    if water_ml <= 0 or seconds <= 0 or across_mm <= 0 or not start_c < end_c < oven_c:
        raise ValueError("water, time and rise must be above nothing, and the oven hotter")
    floor = math.pi * (across_mm / 1000.0) ** 2 / 4
    wall = math.pi * across_mm / 1000.0 * (water_ml / 1e6 / floor)
    slow = math.log((oven_c - start_c) / (oven_c - end_c))
    return water_ml * WATER_J_PER_ML_K * slow / ((2 * floor + wall) * seconds)

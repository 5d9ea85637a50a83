"""Steam as a kitchen has it: so much vapour as the burner gives, air that comes in past the lid, a load that takes its share.

Two balances at every moment. Of heat: what condenses on the load, on lid and wall is never more than the burner boils
off, so at first the load is short of vapour and air is drawn back in. Of air: what comes in past the lid leaves only as
fast as the vapour that is to spare drives it out, so the steam the load feels is as hot as the dew point of the mix.

Seconds, °C, W, J; air and vapour in ml/s at the boil.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kemble.core.physics.conduction import Array
from kemble.core.physics.thermal import LATENT_STEAM, pressure_pa, saturation_pa

_VAPOUR_ML_PER_G = 1673.0  # of saturated steam at 100 °C (steam tables)
# Air in steam lies as a film on what it condenses on: with a twentieth of air half as much heat comes through. Kitchen
# estimate, 12-30.
_FILM = 20.0
_LEAST_MIX = 1e-3


@dataclass(frozen=True, slots=True)
class SteamSupply:
    """What reaches the steam space of a pot: `net_w` into the water, less what lid and wall lose; air that comes in."""

    net_w: float
    lid_w: float
    leak_ml_s: float
    altitude_m: float

    @property
    def to_spare_w(self) -> float:
        """What boils off for the load and the leak."""
        return max(0.0, self.net_w - self.lid_w)

    def dew_c(self, taken_w: float = 0.0) -> float:
        """°C at which the mix condenses while the load takes so much."""
        return float(self.dews_c(np.array([taken_w]))[0])

    def air(self, taken_w: float = 0.0) -> float:
        """The share of air in the mix, by volume."""
        spare_ml_s = max(0.0, self.to_spare_w - taken_w) / LATENT_STEAM * 1000.0 * _VAPOUR_ML_PER_G
        return self.leak_ml_s / max(_LEAST_MIX, self.leak_ml_s + spare_ml_s)

    def dews_c(self, taken_w: Array) -> Array:
        """The same for many loads."""
        spare_ml_s = np.maximum(0.0, self.to_spare_w - taken_w) / LATENT_STEAM * 1000.0 * _VAPOUR_ML_PER_G
        vapour = 1.0 - self.leak_ml_s / np.maximum(_LEAST_MIX, self.leak_ml_s + spare_ml_s)
        # Antoine's equation the other way round, at the vapour's share of the air's pressure here.
        mmhg = pressure_pa(self.altitude_m) * np.maximum(0.02, vapour) / 133.322
        result: Array = 1730.63 / (8.07131 - np.log10(mmhg)) - 233.426
        return result

    def leak_at(self, celsius: float) -> float:
        """ml/s of air that come in past the lid where a thermometer in its idle steam shows so much; 0 at the boil."""
        vapour = min(1.0, saturation_pa(celsius) / pressure_pa(self.altitude_m))
        spare_ml_s = self.to_spare_w / LATENT_STEAM * 1000.0 * _VAPOUR_ML_PER_G
        return spare_ml_s * (1.0 - vapour) / vapour

    @property
    def film(self) -> float:
        """Of the surface coefficient of steam without air, so much is left."""
        return 1.0 / (1.0 + _FILM * self.air())


_HOT_ENOUGH_C = 0.15  # so near to what it comes to
_FEW = 4
_SHARES = np.linspace(0.0, 1.0, 25) ** 0.5  # of the vapour that the load may take, closer together near all of it


def felt(
    times: Array, taken: Array, stages: Sequence[tuple[float, SteamSupply]], start_c: float, cools: PotCooling
) -> Array:
    """°C that surrounds the load along even `times` (s), from when it is put in; `stages` are (from this second, steam).

    `taken` (J/K, along the same times) is what the load has taken up so long after its surroundings rose by one kelvin.
    The load is as warm as its surroundings at first; in each step these rise to where what the load draws leaves just
    the vapour whose dew point they have. The more it draws the less is to spare, so there is one such temperature.
    Without a flame they fall towards the room.

    Takes: `times` in s, even; `taken` in J/K at each; `stages` of (from this second, steam); `start_c` in °C;
        `cools` how it falls without a flame.
    Gives: °C at each time.
    Holds: a load in a lidded steamer that takes up no more than the burner gives.
    From: conservation of heat; dew point of a mix of vapour and air.
    """
    step = float(times[1] - times[0])
    each = np.diff(taken)  # J/K drawn in each step after a rise at its beginning
    back, n = each[::-1], len(each)
    rises, around = np.zeros(n + 1), np.empty(n + 1)
    now, at_stage = start_c, -1
    draws: list[float] = []
    dews: list[float] = []
    steam, first = stages[0][1], float(each[0])
    for i in range(n):
        while at_stage + 1 < len(stages) and times[i] >= stages[at_stage + 1][0] - 1e-9:
            at_stage += 1
            steam = stages[at_stage][1]
            may = _SHARES * steam.to_spare_w
            draws, dews = (may * step).tolist(), steam.dews_c(may).tolist()
        if steam.to_spare_w <= 0:
            goal = cools.room_c + (now - cools.room_c) * math.exp(-step / cools.tau_s)
        else:
            owed = float(rises[:i] @ back[n - i - 1 : n - 1]) if i else 0.0  # what earlier rises draw in this step
            goal = max(start_c, _meets(now - owed / first, first, draws, dews))
        rises[i], now = goal - now, goal
        around[i] = goal
        if i > _FEW and dews and at_stage == len(stages) - 1 and 0.0 <= dews[0] - now < _HOT_ENOUGH_C:
            around[i:] = dews[0]  # it draws next to nothing now, and draws ever less
            return around
    around[-1] = now
    return around


def _meets(idle_c: float, takes: float, draws: Sequence[float], dews: Sequence[float]) -> float:
    """°C at which what is drawn leaves just the vapour of that dew point: it rises from `idle_c` by a kelvin for each
    `takes` J drawn, and the dew point falls. By halves, then along a straight line."""

    def over(at: int) -> float:
        return idle_c + draws[at] / takes - dews[at]

    low, high = -1, len(draws)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if over(middle) < 0 else (low, middle)
    if low < 0:
        return dews[0]
    if high == len(draws):
        return idle_c + draws[-1] / takes
    under = over(low)
    return dews[low] + under / (under - over(high)) * (dews[high] - dews[low])


@dataclass(frozen=True, slots=True)
class PotCooling:
    """How a pot without a flame falls towards the room: by a factor e in `tau_s`."""

    room_c: float
    tau_s: float

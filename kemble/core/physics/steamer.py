"""Water under the rack: what boils off, when it runs low, what to top up with."""

from __future__ import annotations

import math
from dataclasses import dataclass

from kemble.core.physics.thermal import LATENT_STEAM


@dataclass(frozen=True, slots=True)
class WaterPlan:
    """Millilitres at the start, grams lost a minute, and each top-up as (minute, ml)."""

    start_ml: float
    full_ml: float
    low_ml: float
    loss_g_per_min: float
    top_ups: tuple[tuple[float, float], ...]

    def level_ml(self, minute: float) -> float:
        added = sum(ml for at, ml in self.top_ups if at <= minute)
        return self.start_ml + added - self.loss_g_per_min * minute


def loss_g_per_min(net_w: float) -> float:
    """Grams of water boiled off a minute by `net_w` watts that reach a boiling pot: power / heat of evaporation."""
    return net_w / LATENT_STEAM * 1000.0 * 60.0


def water_plan(*, diameter_mm: float, full_mm: float, low_mm: float, net_w: float, minutes: float) -> WaterPlan:
    """The water for `minutes` of steaming in a round pot filled to `full_mm`, never to fall under `low_mm`.

    Starts full, or with just what is needed plus a fifth to spare; tops up to full at the low mark, the last time
    with what is still needed.
    """
    per_mm = math.pi * diameter_mm**2 / 4 / 1000.0  # ml in a millimetre of depth
    full, low = full_mm * per_mm, low_mm * per_mm
    rate = loss_g_per_min(net_w)
    need = rate * minutes * 1.2
    start = min(full, low + need)
    top_ups: list[tuple[float, float]] = []
    lasts = (start - low) / rate
    while lasts < minutes and len(top_ups) < 40:
        ml = min(full - low, rate * (minutes - lasts) * 1.2)
        top_ups.append((lasts, ml))
        lasts += ml / rate
    return WaterPlan(start, full, low, rate, tuple(top_ups))

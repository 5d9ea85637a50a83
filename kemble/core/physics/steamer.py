"""Water under the rack: what boils off, when it runs low, what to top up with; and what a lifted lid costs."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from kemble.core.physics.stove import ROOM_VAPOUR_PA, STILL_AIR_H
from kemble.core.physics.thermal import LATENT_STEAM, LEWIS_K_PER_PA, saturation_pa

_TO_SPARE = 1.2  # so many times what is needed is poured; kitchen estimate
_JUG_ML = 10.0  # the lines of a jug, to which a cook pours a top-up
_DRAUGHT = 2.0  # the steam that stood under the lid goes at once; kitchen estimate


@dataclass(frozen=True, slots=True)
class SteamerStage:
    """So many watts into the water, for so many minutes; the last stage goes on as long as it must."""

    minutes: float
    net_w: float


@dataclass(frozen=True, slots=True)
class WaterPlan:
    """Millilitres at the start, and each top-up as (minute, ml). `stages` in order."""

    start_ml: float
    full_ml: float
    low_ml: float
    stages: tuple[SteamerStage, ...]
    top_ups: tuple[tuple[float, float], ...]

    def level_ml(self, minute: float) -> float:
        """What is under the rack at a minute; just after a top-up at its own minute."""
        added = sum(ml for at, ml in self.top_ups if at <= minute)
        return self.start_ml + added - boiled_off_g(self.stages, minute)


def loss_g_per_min(net_w: float) -> float:
    """Grams of water boiled off a minute by `net_w` watts that reach a boiling pot: power / heat of evaporation.

    Takes: `net_w` in W, from 0.
    Gives: g/min.
    Holds: water at the boil, near sea level (the heat of evaporation changes by 1 % to 3000 m).
    From: heat of evaporation.

    >>> round(loss_g_per_min(620.0), 1)
    16.5
    """
    return net_w / LATENT_STEAM * 1000.0 * 60.0


def boiled_off_g(stages: Sequence[SteamerStage], minute: float) -> float:
    """Grams boiled off by a minute.

    Takes: `stages` of the burner in W, each from its minute; `minute` from 0.
    Gives: g.
    Holds: as `loss_g_per_min`.
    From: heat of evaporation.
    """
    gone = begun = 0.0
    for stage in stages:
        spent = minute - begun if stage is stages[-1] else min(stage.minutes, minute - begun)
        if spent <= 0:
            break
        gone += loss_g_per_min(stage.net_w) * spent
        begun += spent
    return gone


def _minute_of(stages: Sequence[SteamerStage], grams: float) -> float:
    """The minute by which so much has boiled off."""
    begun = gone = 0.0
    for stage in stages:
        rate = loss_g_per_min(stage.net_w)
        if stage is stages[-1] or gone + rate * stage.minutes >= grams:
            return begun + (grams - gone) / rate if rate > 0 else math.inf
        gone, begun = gone + rate * stage.minutes, begun + stage.minutes
    raise ValueError("no stage")


def water_plan(
    *, diameter_mm: float, full_mm: float, low_mm: float, stages: Sequence[SteamerStage], minutes: float
) -> WaterPlan:
    """The water for `minutes` of steaming in a round pot filled to `full_mm`, never to fall under `low_mm`.

    Starts full, or with just what is needed plus a fifth to spare; tops up to full at the low mark, the last time
    with what is still needed, to the next line of a jug.

    Takes: `diameter_mm`, `full_mm`, `low_mm` of the pot in mm; `stages` in W; `minutes` of steaming.
    Gives: ml at the start and at each top-up.
    Holds: a round pot, boiling all the while.
    From: conservation of mass; a fifth to spare a kitchen estimate.
    """
    per_mm = math.pi * diameter_mm**2 / 4 / 1000.0  # ml in a millimetre of depth
    full, low = full_mm * per_mm, low_mm * per_mm
    need = boiled_off_g(stages, minutes)
    start = min(full, low + _TO_SPARE * need)
    top_ups: list[tuple[float, float]] = []
    added = 0.0
    fits = _JUG_ML * math.floor((full - low) / _JUG_ML) or full - low
    while len(top_ups) < 40:
        lasts = _minute_of(stages, start - low + added)
        if lasts >= minutes:
            break
        ml = min(fits, _JUG_ML * math.ceil((need - boiled_off_g(stages, lasts)) * _TO_SPARE / _JUG_ML))
        top_ups.append((lasts, ml))
        added += ml
    return WaterPlan(start, full, low, tuple(stages), tuple(top_ups))


def lifted_lid_s(*, open_m2: float, net_w: float, boil_c: float, open_s: float) -> float:
    """Seconds that one look under the lid costs: those it is open, and those in which the burner makes good what left.

    What leaves an open boiling surface is vapour by Lewis' relation, doubled for the steam that stood there.

    Takes: `open_m2` of boiling water in m2; `net_w` in W; `boil_c` in °C; `open_s` in s.
    Gives: s.
    Holds: one look at a time.
    From: Lewis' relation; doubled, a kitchen estimate.
    """
    flux = STILL_AIR_H * (boil_c - 20.0 + LEWIS_K_PER_PA * (saturation_pa(boil_c) - ROOM_VAPOUR_PA))
    return open_s + _DRAUGHT * flux * open_m2 * open_s / net_w

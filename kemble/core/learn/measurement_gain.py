"""Which measurement would help most: by how much it would narrow the time windows of what a kitchen makes.

The posterior of the learner is a normal; an observation narrows it whatever it shows, so what it would bring is known
beforehand (the expected shrinking, by Kalman's update).
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from pydantic import BaseModel, ConfigDict

from kemble.core.kitchen.estimates import ANEW, ESTIMATES, MEASUREMENTS, EstimateId, Measurement
from kemble.core.learn.posterior import Array, LearningResult, Prior
from kemble.core.physics.time_spread import EDGE, Spread
from kemble.core.sentences import Words, say, translate

_LOOK_MIN = 5.0  # between two looks
_LOOK_SD, _READ_SD, _PAN_SD = 0.07, 0.05, 0.02
_LEAST_MIN = 0.3  # what brings less is not worth a word
_OF_TASTE = frozenset(name for name, row in ESTIMATES.items() if row.narrows == "taste")


@dataclass(frozen=True, slots=True)
class MadeSheet:
    """A sheet that is made here: what it is called, and what its heat hangs on, by the craft's table."""

    title: str
    heat: Spread


class MeasurementGain(BaseModel):
    """One thing to do. `brings_min`: so many minutes less of the half-windows of all sheets together; `takes_min` its own
    time; `measurement` one of the table's, where it is one."""

    model_config = ConfigDict(frozen=True)

    says: Words
    brings_min: float
    takes_min: float
    measurement: Measurement | None = None
    because: Words = ""


@dataclass(slots=True)
class _KnownCovariance:
    """What is known of every row that any sheet hangs on: their covariance, in the craft's standard deviations."""

    names: list[EstimateId]
    covariance: Array

    def vector(self, moves: Iterable[tuple[EstimateId, float]]) -> Array:
        at = {name: i for i, name in enumerate(self.names)}
        result = np.zeros(len(self.names))
        for name, move in moves:
            if name in at:
                result[at[name]] = move
        return result

    def after(self, vector: Array, sd: float) -> Array:
        """The covariance once something that hangs on them like that was seen, with so much noise."""
        spread = self.covariance @ vector
        gain: Array = self.covariance - np.outer(spread, spread) / (vector @ spread + sd**2)
        return gain


def rank_measurements(
    made: Sequence[MadeSheet], learnt: LearningResult, priors: Mapping[EstimateId, Prior], *, most: int = 6
) -> list[MeasurementGain]:
    """What would narrow the windows of the sheets most, the best first."""
    known = _known_covariance(made, learnt, priors)
    if not known.names:
        return []
    gains = [*_measurements(made, known), *_makings(made, known)]
    worth = [gain for gain in gains if gain.brings_min >= _LEAST_MIN]
    return sorted(worth, key=lambda gain: -gain.brings_min)[:most]


def _known_covariance(
    made: Sequence[MadeSheet], learnt: LearningResult, priors: Mapping[EstimateId, Prior]
) -> _KnownCovariance:
    names = sorted({share.id for made_sheet in made for share in made_sheet.heat.shares if share.id not in ANEW})
    covariance = np.diag([priors.get(name, Prior()).sd ** 2 for name in names]).astype(float)
    at = {name: i for i, name in enumerate(names)}
    inside = [(i, at[name]) for i, name in enumerate(learnt.names) if name in at]
    for i, a in inside:
        for j, b in inside:
            covariance[a, b] = learnt.covariance[i, j]
    return _KnownCovariance(names, covariance)


def _moves(heat: Spread, but: frozenset[EstimateId] = frozenset()) -> list[tuple[EstimateId, float]]:
    return [
        (share.id, (share.at_high - share.at_low) / 2 / EDGE)
        for share in heat.shares
        if share.id not in ANEW and share.id not in but
    ]


def _chance(heat: Spread) -> float:
    """The variance of what is another with every making."""
    return sum(((share.at_high - share.at_low) / 2 / EDGE) ** 2 for share in heat.shares if share.id in ANEW)


def _half_min(made_sheet: MadeSheet, known: _KnownCovariance, covariance: Array) -> float:
    vector = known.vector(_moves(made_sheet.heat))
    sd = math.sqrt(float(vector @ covariance @ vector) + _chance(made_sheet.heat))
    return made_sheet.heat.likely * math.sinh(EDGE * sd)


def _minutes_gained(made: Sequence[MadeSheet], known: _KnownCovariance, covariance: Array) -> float:
    return sum(
        _half_min(made_sheet, known, known.covariance) - _half_min(made_sheet, known, covariance) for made_sheet in made
    )


def _measurements(made: Sequence[MadeSheet], known: _KnownCovariance) -> list[MeasurementGain]:
    gains = []
    for name, (does, takes) in MEASUREMENTS.items():
        rows = [row for row in known.names if ESTIMATES[row].narrows == name]
        if not rows or name == "log":
            continue
        covariance = known.covariance
        for row in rows:
            after = ESTIMATES[row].after
            step = _KnownCovariance(known.names, covariance)
            covariance = step.after(step.vector([(row, 1.0)]), after)
        words = ", ".join(translate(ESTIMATES[row].words) for row in rows[:2])
        gains.append(
            MeasurementGain(
                says=f"{does[:1].upper()}{does[1:]}",
                brings_min=_minutes_gained(made, known, covariance),
                takes_min=takes,
                measurement=name,
                because=say("it settles {words}", words=words),
            )
        )
    return gains


def _makings(made: Sequence[MadeSheet], known: _KnownCovariance) -> list[MeasurementGain]:
    """A sheet made once more: looked at every few minutes, or its heart read, beside looked at only in the end."""
    gains = []
    for made_sheet in made:
        vector, chance = known.vector(_moves(made_sheet.heat)), _chance(made_sheet.heat)
        between = (_LOOK_MIN / made_sheet.heat.likely) / math.sqrt(12)
        often = known.after(vector, math.sqrt(_LOOK_SD**2 + between**2 + chance))
        gains.append(
            MeasurementGain(
                says=say(
                    "Make {title} and look every {look_min:.0f} min from {first:.0f}, not once at {latest:.0f}",
                    title=made_sheet.title,
                    look_min=_LOOK_MIN,
                    first=made_sheet.heat.first,
                    latest=made_sheet.heat.latest,
                ),
                brings_min=_minutes_gained(made, known, often),
                takes_min=made_sheet.heat.likely,
                because=say("when it was not yet done says as much as when it was"),
            )
        )
        hot = known.vector(_moves(made_sheet.heat, _OF_TASTE))
        if np.abs(hot).max(initial=0.0) > 0.02:
            read = known.after(hot, math.sqrt(_READ_SD**2 + chance))
            gains.append(
                MeasurementGain(
                    says=say(
                        "Stick a thermometer into {title} once, about {likely:.0f} min in",
                        title=made_sheet.title,
                        likely=0.6 * made_sheet.heat.likely,
                    ),
                    brings_min=_minutes_gained(made, known, read),
                    takes_min=1.0,
                    because=say("it tells the heat from how it is liked"),
                )
            )
    return gains

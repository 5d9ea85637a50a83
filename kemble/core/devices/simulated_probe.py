"""A thermometer that is not there: stuck into a rehearsed batch it reads the heart that was solved for it, with a lag,
noise, and a truth of its own that is a little quicker or slower than was told.

Pure but for its own random numbers: time is passed in, so that a test or a rehearsal sets the clock.
"""

from __future__ import annotations

import json
import math
import random
from dataclasses import dataclass, field

import numpy as np

from kemble.core.stations.heat.core_curve import TemperatureCurve

LAG_S = 12.0  # time constant of a stout tip in a batter
NOISE_C = 0.25
STEP_C = 0.1
TRUTH_SD = 0.08  # of the logarithm of how much slower this batch really is
ROOM_C = 21.0


@dataclass
class SimulatedProbe:
    """State of the simulated thermometer. `minute` is always the batch's own clock, whatever the wall clock does."""

    seed: int = 1
    noise_c: float = NOISE_C
    name: str = "simulated thermometer"
    _curve: TemperatureCurve | None = None
    _factor: float = 1.0
    _shown: float = ROOM_C
    _last_minute: float | None = None
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)  # noqa: S311  # noise, no secret

    def put_into(self, curve: TemperatureCurve, truth: int) -> None:
        """Stick it into a batch. `truth` is the seed of how it really goes: the same batch always goes the same."""
        self._curve, self._last_minute = curve, None
        self._factor = math.exp(random.Random(truth).gauss(0.0, TRUTH_SD))  # noqa: S311

    def pull_out(self) -> None:
        self._curve, self._last_minute = None, None

    @property
    def factor(self) -> float:
        """How much slower than was told the batch really goes."""
        return self._factor

    def hello(self) -> str:
        return json.dumps({"probe": 1, "name": self.name})

    def reading(self, t: float, minute: float | None) -> str:
        """The line that it says at `t`, when the batch it is in has been in the heat for `minute`. None: it has not."""
        if self._curve is None or minute is None:
            self._shown, self._last_minute = ROOM_C, None
            return json.dumps({"t": round(t, 3), "out": True})
        core = float(np.interp(minute / self._factor, self._curve.minutes, self._curve.core_c))
        if self._last_minute is None:
            self._shown = core  # it has been in long enough
        else:
            gone_s = max(0.0, minute - self._last_minute) * 60.0
            self._shown += (core - self._shown) * (1.0 - math.exp(-gone_s / LAG_S))
        self._last_minute = minute
        shown = self._shown + self._random.gauss(0.0, self.noise_c)
        return json.dumps({"t": round(t, 3), "temperature": round(round(shown / STEP_C) * STEP_C, 2), "unit": "C"})

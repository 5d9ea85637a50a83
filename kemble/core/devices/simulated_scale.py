"""A kitchen scale that is not there: a tray that can be loaded, settling, noise, drift, a zero, an overload, a plug.

Pure but for its own random numbers: time is passed in, so that a test or a rehearsal sets the clock.
"""

from __future__ import annotations

import json
import math
import random
from dataclasses import dataclass, field

SETTLING_S = 0.22  # time constant of the tray
RINGING_HZ = 2.6
STEADY_AFTER_S = 1.5  # the swing of a usual piece has died down to less than a step by then
NOISE_G = 0.06
DRIFT_G_PER_MIN = 0.03
STEP_G = 0.1
CAPACITY_G = 5000.0


@dataclass
class SimulatedScale:
    """State of the simulated scale. Times in seconds, weights in grams."""

    seed: int = 1
    noise_g: float = NOISE_G
    drift_g_per_min: float = DRIFT_G_PER_MIN
    name: str = "simulated scale"
    _load: float = 0.0
    _before: float = 0.0
    _moved_at: float = -math.inf
    _zero: float = 0.0
    _zero_at: float = 0.0
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)  # noqa: S311  # noise, no secret

    def put(self, grams: float, t: float) -> None:
        """Put a lump on the tray."""
        self._shift(self._load + grams, t)

    def lift(self, t: float) -> None:
        """Take everything off."""
        self._shift(0.0, t)

    def zero(self, t: float) -> None:
        """Call what lies there now nothing, as a tare does."""
        self._zero, self._zero_at = self._tray(t), t

    @property
    def load_g(self) -> float:
        return self._load

    def hello(self) -> str:
        return json.dumps({"scale": 1, "name": self.name, "capacity_g": CAPACITY_G, "step_g": STEP_G})

    def reading(self, t: float) -> str:
        """The line that the scale says at `t`."""
        if self._load > CAPACITY_G:
            return json.dumps({"t": round(t, 3), "over": True})
        drift = self.drift_g_per_min * (t - self._zero_at) / 60.0
        shown = self._tray(t) - self._zero + drift + self._random.gauss(0.0, self.noise_g)
        steady = t - self._moved_at >= STEADY_AFTER_S
        weight = round(round(shown / STEP_G) * STEP_G, 3)
        return json.dumps({"t": round(t, 3), "weight": weight + 0.0, "unit": "g", "steady": steady})

    def _shift(self, load: float, t: float) -> None:
        self._before, self._load, self._moved_at = self._tray(t), load, t

    def _tray(self, t: float) -> float:
        """What lies on the springs: it swings to the load."""
        since = t - self._moved_at
        if math.isinf(since):
            return self._load
        swing = math.exp(-since / SETTLING_S) * math.cos(2 * math.pi * RINGING_HZ * since)
        return self._load + (self._before - self._load) * swing

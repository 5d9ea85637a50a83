"""A curve of temperature over time, as the screens draw it."""

from __future__ import annotations

import numpy as np

from kemble.core.physics.conduction import Array
from kemble.core.stations.working import Drawn

SOLVER = "conduction by finite volumes; properties by the Choi-Okos correlations"


class Curve(Drawn):
    """Minutes and °C of the same length."""

    minutes: tuple[float, ...]
    heart_c: tuple[float, ...]
    surface_c: tuple[float, ...]


def drawn_curve(minutes: Array, heart: Array, surface: Array) -> Curve:
    """About a hundred points are enough to draw."""
    step = max(1, len(minutes) // 100)
    return Curve.model_construct(
        minutes=tuple(np.round(minutes[::step], 3).tolist()),
        heart_c=tuple(np.round(heart[::step], 2).tolist()),
        surface_c=tuple(np.round(surface[::step], 2).tolist()),
    )

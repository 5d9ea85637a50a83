"""The predicted core temperature over time, and its time window."""

from __future__ import annotations

import numpy as np

from kemble.core.facts.fact import FactBook
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.physics.conduction import Array
from kemble.core.stations.calculation import AnswerModel

SOLVER = "conduction by finite volumes; properties by the Choi-Okos correlations"


class TemperatureCurve(AnswerModel):
    """Minutes and °C of the same length."""

    minutes: tuple[float, ...]
    core_c: tuple[float, ...]
    surface_c: tuple[float, ...]


class CoreCurve(AnswerModel):
    """The core temperature as it was told for one load, and its window, in minutes from the start of the heat."""

    curve: TemperatureCurve
    first: float
    done: float
    latest: float


def core_curve(curve: TemperatureCurve, fact_book: FactBook, stands_min: float = 0.0) -> CoreCurve:
    """The curve with the window that the heat has entered, less the stages (`stands_min`) behind what is looked for."""
    first, done, latest = (
        max(0.0, fact_book.number(f"heat.{name}_min") - stands_min) for name in ("first_check", "done", "latest")
    )
    return unchecked_model(CoreCurve, curve=curve, first=first, done=done, latest=latest)


def drawn_curve(minutes: Array, core: Array, surface: Array) -> TemperatureCurve:
    """About a hundred points are enough to draw."""
    step = max(1, len(minutes) // 100)
    return unchecked_model(
        TemperatureCurve,
        minutes=tuple(np.round(minutes[::step], 3).tolist()),
        core_c=tuple(np.round(core[::step], 2).tolist()),
        surface_c=tuple(np.round(surface[::step], 2).tolist()),
    )

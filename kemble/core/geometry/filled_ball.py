"""A filled piece as a sphere in a sphere: any two of its measures give all of them."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

Measure = Literal["outer_g", "inner_g", "piece_g", "outer_share", "skin_mm", "diameter_mm"]
MEASURES: tuple[Measure, ...] = ("outer_g", "inner_g", "piece_g", "outer_share", "skin_mm", "diameter_mm")

_ML_OF_A_CUBIC_MM = 1 / 1000.0
_SPHERE = 4 / 3 * math.pi * _ML_OF_A_CUBIC_MM  # ml of a sphere of 1 mm radius


def sphere_mm(volume_ml: float) -> float:
    """Diameter in mm of a sphere of `volume_ml`."""
    return 2.0 * math.cbrt(volume_ml / _SPHERE)


def sphere_ml(diameter_mm: float) -> float:
    """Volume in ml of a sphere `diameter_mm` across."""
    return _SPHERE * (diameter_mm / 2) ** 3


@dataclass(frozen=True, slots=True)
class PieceDensities:
    """What the piece is made of: densities of the outer layer and of what lies in it, and a heart within that.

    `heart_g` and `heart_ml` are of a whole fruit or nut; both 0 when there is none.
    """

    outer_g_per_ml: float
    inner_g_per_ml: float
    heart_g: float = 0.0
    heart_ml: float = 0.0


@dataclass(frozen=True, slots=True)
class Ball:
    """One piece. `inner_g` is everything inside the outer layer, the heart with it."""

    outer_g: float
    inner_g: float
    stuff: PieceDensities

    @property
    def piece_g(self) -> float:
        return self.outer_g + self.inner_g

    @property
    def outer_share(self) -> float:
        return self.outer_g / self.piece_g

    @property
    def inner_ml(self) -> float:
        return self.stuff.heart_ml + (self.inner_g - self.stuff.heart_g) / self.stuff.inner_g_per_ml

    @property
    def core_mm(self) -> float:
        return sphere_mm(self.inner_ml)

    @property
    def diameter_mm(self) -> float:
        return sphere_mm(self.inner_ml + self.outer_g / self.stuff.outer_g_per_ml)

    @property
    def skin_mm(self) -> float:
        return (self.diameter_mm - self.core_mm) / 2

    @property
    def heart_mm(self) -> float:
        return sphere_mm(self.stuff.heart_ml)


def ball_of(given: Mapping[Measure, float], stuff: PieceDensities) -> Ball | None:
    """The ball that has the two measures given; None when there is none (no outer layer, or nothing round the heart).

    Raises ValueError unless exactly two measures are given. Weight and diameter together are one measure too many
    when both layers are as dense: then there is none as well.
    """
    if len(given) != 2:
        raise ValueError("a ball follows from exactly two measures")
    result = _solve_by_thickness(dict(given), stuff) if "skin_mm" in given else _solve_by_weights(given, stuff)
    if result is None:
        return None
    outer, inner = result
    if not (outer > 0 and inner > 0 and inner >= stuff.heart_g - 1e-9) or math.isinf(outer + inner):
        return None
    return Ball(outer, inner, stuff)


def _solve_by_weights(given: Mapping[Measure, float], stuff: PieceDensities) -> tuple[float, float] | None:
    """Every measure but the thickness is linear in the two weights: outer, inner."""
    rows, right = [], []
    for measure, value in given.items():
        if measure == "outer_g":
            row, rhs = (1.0, 0.0), value
        elif measure == "inner_g":
            row, rhs = (0.0, 1.0), value
        elif measure == "piece_g":
            row, rhs = (1.0, 1.0), value
        elif measure == "outer_share":
            row, rhs = (1.0 - value, -value), 0.0
        else:  # diameter: the volumes add up
            row = (1 / stuff.outer_g_per_ml, 1 / stuff.inner_g_per_ml)
            rhs = sphere_ml(value) - stuff.heart_ml + stuff.heart_g / stuff.inner_g_per_ml
        rows.append(row)
        right.append(rhs)
    (a, b), (c, d) = rows
    det = a * d - b * c
    if abs(det) < 1e-9:
        return None
    return (right[0] * d - b * right[1]) / det, (a * right[1] - right[0] * c) / det


def _solve_by_thickness(given: dict[Measure, float], stuff: PieceDensities) -> tuple[float, float] | None:
    """A skin so thick: one unknown is left, the core's radius, and the other measure is a cubic in it."""
    skin = given.pop("skin_mm")
    ((measure, value),) = given.items()
    ko, ki = _SPHERE * stuff.outer_g_per_ml, _SPHERE * stuff.inner_g_per_ml
    # Weights as cubics in r, highest power first.
    outer = np.array([0.0, 3 * skin, 3 * skin**2, skin**3]) * ko
    inner = np.array([ki, 0.0, 0.0, stuff.heart_g - stuff.heart_ml * stuff.inner_g_per_ml])
    target = np.array([0.0, 0.0, 0.0, 1.0])
    if measure == "diameter_mm":
        radius = value / 2 - skin
    else:
        cubic = {
            "outer_g": outer - value * target,
            "inner_g": inner - value * target,
            "piece_g": outer + inner - value * target,
            "outer_share": outer - value * (outer + inner),
        }[measure]
        roots = np.roots(cubic)
        real = roots.real[(abs(roots.imag) < 1e-7 * (1 + abs(roots.real))) & (roots.real > 0)]
        if not len(real):
            return None
        radius = float(real.max())
    if radius <= 0:
        return None
    return float(np.polyval(outer, radius)), float(np.polyval(inner, radius))

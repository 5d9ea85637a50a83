"""Transient conduction in one dimension, by finite volumes that are exact in time.

A body is cut into cells; with properties held constant the cells' temperatures obey a linear system whose modes
come from one symmetric tridiagonal eigenproblem, so any instant is a sum of decaying exponentials: no time step,
no time-stepping error. A finite cylinder or a brick is the product of its one-dimensional bodies (Carslaw and
Jaeger, Conduction of Heat in Solids). Where ice melts the system is not linear; `thaw` marches it instead,
conserving enthalpy.

Lengths in m, temperatures in °C, times in s, surface coefficients h in W/(m2 K); h = inf is a fixed surface.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dptsv, dstev

from kemble.core.physics.thermal import Material

Array = NDArray[np.float64]

CELLS = 40


@dataclass(frozen=True, slots=True)
class ConductingBody:
    """Cells along one coordinate. Areas and volumes are per unit of the other dimensions.

    `edges` (n+1) m; `volumes` (n); `areas` (n+1); `k`, `heat_capacity` (n) per cell; `h_low`, `h_high` at the
    two ends (0 where the end is a centre or an insulated face).
    """

    edges: Array
    volumes: Array
    areas: Array
    k: Array
    heat_capacity: Array  # J/(m3 K)
    h_low: float
    h_high: float

    @property
    def centres(self) -> Array:
        return (self.edges[:-1] + self.edges[1:]) / 2

    def conductances(self, k: Array) -> Array:
        """W/K across each of the n+1 faces: half cells in series, surfaces with their coefficient."""
        half = (self.edges[1:] - self.edges[:-1]) / (2 * k)
        g = np.empty_like(self.edges)
        np.divide(self.areas[1:-1], half[:-1] + half[1:], out=g[1:-1])
        g[0] = self.areas[0] / (half[0] + 1.0 / self.h_low) if self.h_low > 0 else 0.0
        g[-1] = self.areas[-1] / (half[-1] + 1.0 / self.h_high) if self.h_high > 0 else 0.0
        return g


def _body(
    edges: Array, power: int, layers: Sequence[tuple[Material, int]], h_low: float, h_high: float
) -> ConductingBody:
    """`power` 0 for a slab, 1 for a cylinder, 2 for a sphere: area goes with r**power. `layers` from within, each of so
    many cells."""
    raised = edges ** (power + 1) if power else edges
    ks, heat_capacities = (
        [np.full(cells, each) for each, (_, cells) in zip(result, layers, strict=True)]
        for result in ([m.k for m, _ in layers], [m.rho * m.cp for m, _ in layers])
    )
    return ConductingBody(
        edges=edges,
        volumes=(raised[1:] - raised[:-1]) / (power + 1) if power else raised[1:] - raised[:-1],
        areas=edges**power if power else np.ones_like(edges),
        k=ks[0] if len(ks) == 1 else np.concatenate(ks),
        heat_capacity=heat_capacities[0] if len(ks) == 1 else np.concatenate(heat_capacities),
        h_low=h_low,
        h_high=h_high,
    )


def _edges(length: float, cells: int, *, both_ends: bool) -> Array:
    """Cell edges crowded towards the heated end or ends, where the first minutes are steep."""
    return length * _crowded(cells, both_ends)


@lru_cache
def _evenly(cells: int) -> Array:
    even = np.linspace(0.0, 1.0, cells + 1)
    even.flags.writeable = False  # one for all
    return even


@lru_cache
def _crowded(cells: int, both_ends: bool) -> Array:
    u = np.linspace(0.0, 1.0, cells + 1)
    crowded: Array = u - 0.7 * np.sin(2 * math.pi * u) / (2 * math.pi) if both_ends else 1.7 * u - 0.7 * u**2
    crowded.flags.writeable = False  # one for all
    return crowded


def slab(
    thickness: float, material: Material, h_low: float, h_high: float, cells: int = CELLS, *, even: bool = False
) -> ConductingBody:
    """A layer heated or cooled from below (`h_low`) and above (`h_high`). `even`: cells all alike, not crowded.

    Takes: `thickness` in m, above 0; its `material`; `h_low`, `h_high` in W/(m2 K), 0 for a side that passes nothing; `cells` from
        3.
    Gives: a body of finite volumes, for each m2.
    Holds: any film, constant properties.
    From: conservation of heat (finite volumes).
    """
    edges = thickness * _evenly(cells) if even else _edges(thickness, cells, both_ends=True)
    return _body(edges, 0, [(material, cells)], h_low, h_high)


def cylinder(radius: float, material: Material, h: float, cells: int = CELLS) -> ConductingBody:
    """A long cylinder heated or cooled round its side.

    Takes: `radius` in m, above 0; its `material`; `h` in W/(m2 K); `cells` from 3.
    Gives: a body of finite volumes, for each m of length.
    Holds: long against its width; multiply with a slab for a short one.
    From: conservation of heat; products of one-dimensional bodies by Carslaw and Jaeger.
    """
    return _body(_edges(radius, cells, both_ends=False), 1, [(material, cells)], 0.0, h)


def sphere(shells: Sequence[tuple[float, Material]], h: float, cells: int = CELLS) -> ConductingBody:
    """A ball of concentric shells, each given as (outer radius, material), from the heart out.

    Takes: `shells` of (outer radius in m, material), rising; `h` in W/(m2 K); `cells` from 3.
    Gives: a body of finite volumes.
    Holds: shells that touch without a gap.
    From: conservation of heat (finite volumes).
    """
    radius = shells[-1][0]
    counts = [max(6, round(cells * (outer - inner) / radius)) for inner, outer in _spans(shells)]
    edges = np.concatenate(
        [
            np.linspace(inner, outer, n + 1)[(1 if i else 0) :]
            for i, ((inner, outer), n) in enumerate(zip(_spans(shells), counts, strict=True))
        ]
    )
    return _body(edges, 2, [(material, n) for (_, material), n in zip(shells, counts, strict=True)], 0.0, h)


def _spans(shells: Sequence[tuple[float, Material]]) -> list[tuple[float, float]]:
    outers = [outer for outer, _ in shells]
    return list(zip([0.0, *outers[:-1]], outers, strict=True))


def film_share(body: ConductingBody, end: int) -> float:
    """How far the surface at an end (0 or -1) lags its surroundings, as a share of the last cell's lag.

    Takes: `body`; `end` 0 (low) or -1 (high).
    Gives: a share, 0 to 1.
    Holds: a steady film.
    From: series of resistances.
    """
    h = body.h_low if end == 0 else body.h_high
    if h <= 0:
        return 1.0
    low = 0 if end == 0 else len(body.edges) - 2
    half = float((body.edges[low + 1] - body.edges[low]) / (2 * body.k[end]))
    return (1.0 / h) / (1.0 / h + half)


_GONE = 20.0  # so many times its own time, and e**-20 of a mode is left


class DecayModes:
    """A body's way of settling to its surroundings: (T - around) decays as a sum of exponentials."""

    def __init__(self, body: ConductingBody) -> None:
        g = body.conductances(body.k)
        capacity = body.volumes * body.heat_capacity
        root = np.sqrt(capacity)
        diagonal = (g[:-1] + g[1:]) / capacity
        beside = g[1:-1] / (root[:-1] * root[1:])
        self._rates, shapes, failed = dstev(diagonal, -beside)
        if failed:
            raise ArithmeticError("the modes of this body were not found")
        # What each mode has in each cell of an even start.
        self._in_cells = shapes.T * (root @ shapes)[:, None] / root
        self._film_low = film_share(body, 0)
        self._film_high = film_share(body, -1)

    def remaining(self, times: Array) -> Array:
        """(times, cells): the share of the first difference that is left, from an even start. `times` rise from 0 or later."""
        result = np.empty((len(times), len(self._rates)))
        begun = 0 if times[0] > 0 else 1
        result[:begun] = 1.0
        # Modes that are gone by the first sample after the start are nowhere seen.
        slow = int(self._rates.searchsorted(_GONE / times[begun]))
        np.matmul(np.exp(times[begun:, None] * -self._rates[:slow]), self._in_cells[:slow], out=result[begun:])
        return result

    def surfaces(self, remaining: Array) -> tuple[Array, Array]:
        """The same share at the low and the high surface."""
        return remaining[:, 0] * self._film_low, remaining[:, -1] * self._film_high

    @staticmethod
    def centre(remaining: Array, body: ConductingBody) -> Array:
        """The share at the centre of a cylinder or sphere: a parabola through the two innermost cells."""
        a, b = body.centres[0] ** 2, body.centres[1] ** 2
        result: Array = remaining[:, 0] - (remaining[:, 1] - remaining[:, 0]) * a / (b - a)
        return result


def following(times: Array, left: Array, around: float | Array, start_c: float) -> Array:
    """°C along `times` of a point at which `left` of a first difference is left, in surroundings that stay as they are
    or change along `times`: Duhamel's sum, each change of theirs answered as the first difference is. Surroundings that
    change want even times: each holds its value until the next.

    Takes: `times` in s, even; `left` a share at each; `around` in °C, one or one for each time; `start_c` in °C.
    Gives: °C at each time.
    Holds: a linear body, each change held until the next time.
    From: Duhamel's sum.
    """
    if isinstance(around, float):
        result: Array = around + (start_c - around) * left
        return result
    rises = around.copy()
    rises[0] -= start_c
    rises[1:] -= around[:-1]
    steady: Array = start_c + np.convolve(rises, 1.0 - left)[: len(times)]
    return steady


@dataclass(frozen=True, slots=True)
class TemperatureDependentMaterial:
    """A material whose properties change with temperature, as tables over a grid of °C.

    `enthalpy` in J/m3 must rise with `celsius`; `k` in W/(m K).
    """

    celsius: Array
    enthalpy: Array
    k: Array


def thaw(
    body: ConductingBody,
    layers: Sequence[tuple[TemperatureDependentMaterial, int]],
    start: Array,
    around: float,
    times: Array,
) -> tuple[Array, Array]:
    """Heat a body whose layers may thaw. Returns (times, cells) temperatures and the heat taken up (J, times).

    `layers` gives each substance and its number of cells, from the heart out, all tabulated on one even grid that
    reaches past every temperature; `start` (cells) °C; `times` from 0.
    Marched twice, once with each of its steps halved: what both say of the heat held is carried on to steps of no
    length (Richardson), so that the time error falls with the square of the step. Energy is conserved to rounding.

    Takes: `body` in its `layers`; `start` in °C for each cell; `around` in °C; `times` in s, from 0.
    Gives: °C (times, cells) and J taken up (times).
    Holds: heat contents that rise with temperature, one grid for all layers.
    From: conservation of energy, implicit steps carried on to none (Richardson).
    """
    tables = _PropertyTables(body, layers)
    begin = tables.held(np.clip(start.astype(float), tables.grid[0], tables.grid[-1] - 1.0))
    halved = np.empty(2 * len(times) - 1)
    halved[::2], halved[1::2] = times, (times[:-1] + times[1:]) / 2
    held = 2.0 * _march(tables, begin, around, halved)[::2] - _march(tables, begin, around, times)
    heat: Array = (held - begin) @ body.volumes
    return tables.celsius(held), heat


class _PropertyTables:
    """Every cell's properties by its temperature: one flat table of each, so that a step gathers all cells at once
    whatever they are made of."""

    def __init__(self, body: ConductingBody, layers: Sequence[tuple[TemperatureDependentMaterial, int]]) -> None:
        counts = [n for _, n in layers]
        self.body = body
        self.grid = layers[0][0].celsius
        self.per_c = 1.0 / float(self.grid[1] - self.grid[0])
        self.resistivity = np.concatenate([1.0 / s.k for s, _ in layers])
        self.slope = np.concatenate([np.append(np.diff(s.enthalpy), 0.0) * self.per_c for s, _ in layers])
        self.first = np.repeat(np.arange(len(layers)) * len(self.grid), counts)
        # The tables of heat stand one above the other, so that one look-up serves all cells.
        self._apart = np.repeat(np.arange(len(layers)) * _APART, counts)
        self._heats = np.concatenate([s.enthalpy + i * _APART for i, (s, _) in enumerate(layers)])
        self._celsius = np.tile(self.grid, len(layers))
        self._steps = np.arange(len(self._heats), dtype=float)

    def held(self, celsius: Array) -> Array:
        """J/m3 in each cell at these temperatures."""
        at = (celsius - self.grid[0]) * self.per_c + self.first
        result: Array = np.interp(at, self._steps, self._heats) - self._apart
        return result

    def celsius(self, held: Array) -> Array:
        """°C of each cell that holds so much."""
        result: Array = np.interp(held + self._apart, self._heats, self._celsius)
        return result


_APART = 1e10  # J/m3, more than any food holds


def _march(tables: _PropertyTables, held: Array, around: float, times: Array) -> Array:
    """Heat held in J/m3 (times, cells), each step implicit with the slopes of its beginning.

    What a cell takes up is its slope times its rise: just what flowed into it, as the step's equations say.
    """
    body, slopes, resistivity = tables.body, tables.slope, tables.resistivity
    half, volumes, areas = np.diff(body.edges) / 2, body.volumes, body.areas
    film_low = 1.0 / body.h_low if body.h_low > 0 else math.inf
    film_high = 1.0 / body.h_high if body.h_high > 0 else math.inf
    held = held.copy()
    celsius = tables.celsius(held)
    result = np.empty((len(times), len(held)))
    result[0] = held
    inner, coldest, per_c, first = areas[1:-1], tables.grid[0], tables.per_c, tables.first
    for i, dt in enumerate(np.diff(times).tolist(), start=1):
        at = ((celsius - coldest) * per_c).astype(np.intp) + first
        resistance = half * resistivity.take(at)
        slope = slopes.take(at)
        g = inner / (resistance[:-1] + resistance[1:])
        diagonal = volumes * slope / dt
        right = diagonal * celsius
        diagonal[:-1] += g
        diagonal[1:] += g
        low, high = areas[0] / (resistance[0] + film_low), areas[-1] / (resistance[-1] + film_high)
        diagonal[0] += low
        diagonal[-1] += high
        right[0] += low * around
        right[-1] += high * around
        _, _, solved, _ = dptsv(diagonal, -g, right)
        held += slope * (solved - celsius)
        celsius = tables.celsius(held)
        result[i] = held
    return result


def time_at_level(times: Array, curve: Array, level: float) -> float | None:
    """The first time at which a curve reaches `level` from below, between samples by a straight line.

    Takes: `times` rising; `curve` at each; `level` in the curve's unit.
    Gives: in the unit of the times; None if it never comes there.
    Holds: from below.
    From: a straight line between samples.
    """
    above = curve >= level
    i = int(above.argmax())
    if not above[i]:
        return None
    if i == 0:
        return float(times[0])
    (low, high), (before, after) = curve[i - 1 : i + 1].tolist(), times[i - 1 : i + 1].tolist()
    return float(before + (level - low) / (high - low) * (after - before))

"""Learning from observations: one normal posterior over the table of estimates, in whatever order they came.

Each estimate is a number of standard deviations from the craft's own value, its prior a standard normal (narrower and off
the middle where something was measured). A sight's logarithm is a sum of what each estimate moves it by, a parabola
through its two ends; chance of a single making (`ANEW`) adds to its noise. Times that were looked at now and then lie
between two looks (censored, probit). The posterior's mode by Gauss-Newton, its width by Laplace; odd sights count less, by
weights of a Student-t with four degrees of freedom. Standard methods; the numbers held against simulated kitchens in
tests/core/learn.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

from kemble.core.computing_guard import computes
from kemble.core.kitchen.document import LearnedCorrelation, LearnedValue, OwnEstimate
from kemble.core.kitchen.estimates import ANEW, ESTIMATES, Estimate, EstimateId
from kemble.core.learn.observations import Observation
from kemble.core.physics.time_spread import EDGE

Array = NDArray[np.floating]
_FREEDOM = 4.0  # of the Student-t: an odd making of four standard deviations counts a quarter
_FARTHEST = 3.0  # standard deviations from the craft's own value
_TURNS = 12
_SETTLED = 1e-4
_AT_ONCE = 400  # makings whose pulls are worked side by side; more take room and no less time
_TOUCHES = 1e-3  # a sight that hardly hangs on a row has not moved it
_TOGETHER = 0.03  # a weaker correlation moves no window
_MOVED = 0.05  # of a prior's width: a row that moved or narrowed less has not been learned


@dataclass(frozen=True, slots=True)
class Prior:
    """Of one estimate: where it lies before any making, in the craft's standard deviations, and how surely."""

    mean: float = 0.0
    sd: float = 1.0


def prior_of(row: Estimate, own: OwnEstimate | None) -> Prior:
    """The craft's own, or what somebody measured, on the craft's scale."""
    if own is None:
        return Prior()
    low, value, high = (_off(row, value) for value in (own.low, own.value, own.high))
    return Prior(value, max(0.02, (high - low) / 2 / EDGE))


def _off(row: Estimate, value: float) -> float:
    """How many standard deviations a value lies from the row's own: the inverse of `Estimate.at`."""
    if row.shape == "log":
        share = math.log(max(value, 1e-9) / row.value)
        end = math.log((row.high if share > 0 else row.low) / row.value)
    else:
        share = value - row.value
        end = (row.high if share > 0 else row.low) - row.value
    return EDGE * share / abs(end) if end else 0.0


@dataclass(slots=True)
class _ObservationArrays:
    """Sights as arrays: `slope` and `bend` of every estimate in every sight, where what was seen lies, and its noise."""

    names: list[EstimateId]
    slope: Array
    bend: Array
    low: Array
    high: Array
    sd: Array
    batch: NDArray[np.int64]

    def at(self, z: Array) -> tuple[Array, Array]:
        """What each sight would be, as a logarithm over what was told, and how that hangs on each estimate."""
        return self.slope @ z + self.bend @ (z * z), self.slope + 2 * self.bend * z


def _observation_arrays(batches: Sequence[Sequence[Observation]]) -> _ObservationArrays:
    sights = [(number, observation) for number, batch in enumerate(batches) for observation in batch]
    names = sorted({name for _, observation in sights for name in observation.moves if name not in ANEW})
    at = {name: i for i, name in enumerate(names)}
    slope, bend = np.zeros((len(sights), len(names))), np.zeros((len(sights), len(names)))
    low, high, sd = (np.empty(len(sights)) for _ in range(3))
    for row, (_, each_observation) in enumerate(sights):
        noise = each_observation.sd**2
        for name, (down, up) in each_observation.moves.items():
            if name in ANEW:
                noise += ((up - down) / 2 / EDGE) ** 2
                continue
            slope[row, at[name]] = (up - down) / 2 / EDGE
            bend[row, at[name]] = (up + down) / 2 / EDGE**2
        low[row] = -math.inf if each_observation.low is None else math.log(each_observation.low / each_observation.told)
        high[row] = (
            math.inf if each_observation.high is None else math.log(each_observation.high / each_observation.told)
        )
        sd[row] = math.sqrt(noise)
    return _ObservationArrays(
        names, slope, bend, low, high, sd, np.array([number for number, _ in sights], dtype=np.int64)
    )


@dataclass(frozen=True, slots=True)
class LearnedEstimate:
    """One estimate as it is learned: where it lies and how surely, on the craft's scale; the makings that moved it, each by
    how much it alone pulls."""

    z: float
    sd: float
    prior: Prior
    pulls: Mapping[int, float] = field(default_factory=dict)

    @property
    def has_moved(self) -> bool:
        return abs(self.z - self.prior.mean) > _MOVED * self.prior.sd or self.sd < (1 - _MOVED) * self.prior.sd


@dataclass(frozen=True, slots=True)
class LearningResult:
    """All that was learned. `names` and `covariance` tell how the rows hang together; `odd` are the makings that count less
    than half."""

    rows: Mapping[EstimateId, LearnedEstimate]
    names: tuple[EstimateId, ...] = ()
    covariance: Array = field(default_factory=lambda: np.zeros((0, 0)))
    odd: tuple[int, ...] = ()

    def known(self) -> dict[EstimateId, LearnedValue]:
        """The rows that were learned, as values with their ranges; what a kitchen then works with.

        What was measured, or set back and held, stays as it is: makings of before may have gone by another burner.
        """
        learned_values_by_estimate_id = {}
        for name, row in self.rows.items():
            if not row.has_moved or row.prior != Prior():
                continue
            table = ESTIMATES[name]
            low, value, high = (table.at(row.z + off * row.sd) for off in (-EDGE, 0.0, EDGE))
            low, value, high = (
                max(-100.0, min(10_000.0, each_value)) for each_value in (min(low, value), value, max(value, high))
            )
            learned_values_by_estimate_id[name] = LearnedValue(value=value, low=low, high=high, batches=len(row.pulls))
        return learned_values_by_estimate_id

    def together(self) -> list[LearnedCorrelation]:
        """How the rows that were learned go together, as far as it matters."""
        known = set(self.known())
        at = [i for i, name in enumerate(self.names) if name in known]
        sd = np.sqrt(np.diag(self.covariance))
        learned_correlations = []
        for n, i in enumerate(at):
            for j in at[n + 1 :]:
                r = float(self.covariance[i, j] / (sd[i] * sd[j]))
                if abs(r) > _TOGETHER:
                    learned_correlations.append(
                        LearnedCorrelation(one=self.names[i], other=self.names[j], r=round(r, 4))
                    )
        return learned_correlations


@computes
def learn(batches: Sequence[Sequence[Observation]], priors: Mapping[EstimateId, Prior] | None = None) -> LearningResult:
    """What some makings say together. The same for any order of them, to rounding; nothing of none."""
    problem = _observation_arrays(batches)
    if not problem.names:
        return LearningResult({})
    given = priors or {}
    before = [given.get(name, Prior()) for name in problem.names]
    mean, precision = np.array([prior.mean for prior in before]), np.array([1 / prior.sd**2 for prior in before])
    z, hessian, weights = _mode(problem, mean, precision)
    covariance = np.linalg.inv(hessian)
    sd = np.sqrt(np.diag(covariance))
    pulls = _influences(problem, z, hessian)
    rows = {
        name: LearnedEstimate(float(z[i]), float(sd[i]), before[i], pulls.get(i, {}))
        for i, name in enumerate(problem.names)
    }
    return LearningResult(rows, tuple(problem.names), covariance, _odd(problem, weights))


def _mode(problem: _ObservationArrays, mean: Array, precision: Array) -> tuple[Array, Array, Array]:
    """The posterior's mode, its curvature there, and how much each sight counted."""
    z: Array = mean.copy()
    hessian: Array = np.diag(precision)
    weights: Array = np.ones(len(problem.sd))
    for _ in range(_TURNS):
        pull, curve, jacobian, weights = _likelihood_slopes(problem, z)
        hessian = np.diag(precision) + (jacobian * curve[:, None]).T @ jacobian
        gradient = jacobian.T @ pull - precision * (z - mean)
        step = np.linalg.solve(hessian, gradient)
        longest = np.abs(step).max()
        z[:] = np.clip(z + step * min(1.0, 1.0 / longest if longest > 0 else 1.0), -_FARTHEST, _FARTHEST)
        if longest < _SETTLED:
            break
    return z, hessian, weights


def _likelihood_slopes(problem: _ObservationArrays, z: Array) -> tuple[Array, Array, Array, Array]:
    """Of every sight the slope and curvature of its logarithmic likelihood in what it would be, and its weight."""
    would, jacobian = problem.at(z)
    sd = problem.sd
    exact = problem.low == problem.high
    off = np.where(exact, problem.high - would, np.clip(would, problem.low, problem.high) - would)
    far = off / sd
    weights = (_FREEDOM + 1) / (_FREEDOM + far**2)
    weights = np.minimum(weights, 1.0)
    pull, curve = np.where(exact, off / sd**2, 0.0), np.where(exact, 1 / sd**2, 0.0)
    between = ~exact
    if between.any():
        a = np.clip((problem.low[between] - would[between]) / sd[between], -8.0, 8.0)
        b = np.clip((problem.high[between] - would[between]) / sd[between], -8.0, 8.0)
        slope, bend = _probit(a, b)
        pull[between], curve[between] = slope / sd[between], bend / sd[between] ** 2
    return weights * pull, weights * curve, jacobian, weights


def _probit(a: Array, b: Array) -> tuple[Array, Array]:
    """Slope and curvature of log(Φ(b) − Φ(a)) in the middle of the normal, in its standard deviations."""
    # Of the two tails the one that is not nothing, so that the difference keeps its figures.
    flip = a + b > 0
    lo, hi = np.where(flip, -b, a), np.where(flip, -a, b)
    log_width = log_ndtr(hi) + np.log1p(-np.exp(np.minimum(log_ndtr(lo) - log_ndtr(hi), -1e-12)))
    density = np.exp(-0.5 * np.array([a, b]) ** 2 - 0.9189385332046727 - log_width)
    slope = density[0] - density[1]
    bend = slope**2 - (a * density[0] - b * density[1])
    return slope, np.maximum(bend, 1e-9)


def _influences(problem: _ObservationArrays, z: Array, hessian: Array) -> dict[int, dict[int, float]]:
    """For each estimate, which makings moved it, and by how much: where it is, less where it would be without each (one
    step of Newton, from the mode)."""
    pull, curve, jacobian, _ = _likelihood_slopes(problem, z)
    order, numbers, starts = _grouped(problem.batch)
    result: dict[int, dict[int, float]] = {}
    for chunk in range(0, len(numbers), _AT_ONCE):
        firsts = starts[chunk : chunk + _AT_ONCE]
        end = starts[chunk + _AT_ONCE] if chunk + _AT_ONCE < len(starts) else len(order)
        mine, at = order[firsts[0] : end], firsts - firsts[0]
        own = jacobian[mine]
        curves = np.add.reduceat(own[:, :, None] * own[:, None, :] * curve[mine, None, None], at)
        pulled = np.add.reduceat(own * pull[mine, None], at)
        moved = np.linalg.solve(hessian - curves, pulled[:, :, None])[:, :, 0]
        touched = np.maximum.reduceat(np.abs(own), at) > _TOUCHES
        for row, i in zip(*np.nonzero(touched), strict=True):
            result.setdefault(int(i), {})[int(numbers[chunk + row])] = float(moved[row, i])
    return result


def _grouped(batch: NDArray[np.int64]) -> tuple[NDArray[np.int64], NDArray[np.int64], NDArray[np.int64]]:
    """Sights in the order of their makings, the makings' numbers, and where each begins."""
    order = np.argsort(batch, kind="stable").astype(np.int64)
    numbers, starts = np.unique(batch[order], return_index=True)
    return order, numbers, starts.astype(np.int64)


def _odd(problem: _ObservationArrays, weights: Array) -> tuple[int, ...]:
    """Makings whose sights count less than half on the mean."""
    order, numbers, starts = _grouped(problem.batch)
    counts = np.diff(np.append(starts, len(order)))
    return tuple(int(number) for number in numbers[np.add.reduceat(weights[order], starts) / counts < 0.5])

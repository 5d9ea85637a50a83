"""How quick this kitchen's cooks are at each step, over the usual time, shrunk towards their pace at all steps."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

_STEP_SD = 0.25  # logarithm: how hands differ from step to step; kitchen estimate
_ALL_SD = 0.3  # ... and from cook to cook
_ONCE_SD = 0.25  # ... and from one making to the next
_MOST = math.log(3.0)
_LEAST = 0.05  # a pace so near to the usual is that


def paces(seen: Mapping[str, Sequence[float]]) -> dict[str, float]:
    """For each step so many times the usual minutes, from logarithms of took over told; only where it is another.

    Two levels: steps about the cook, the cook about the usual; closed form, by precisions.
    """
    clean = {step: [min(_MOST, max(-_MOST, log)) for log in logs] for step, logs in seen.items() if logs}
    if not clean:
        return {}
    weight, total = 1 / _ALL_SD**2, 0.0
    for logs in clean.values():
        precision = 1 / (_STEP_SD**2 + _ONCE_SD**2 / len(logs))
        weight += precision
        total += precision * sum(logs) / len(logs)
    cook = total / weight
    result = {}
    for step, logs in clean.items():
        own = len(logs) / _ONCE_SD**2
        log = (own * sum(logs) / len(logs) + cook / _STEP_SD**2) / (own + 1 / _STEP_SD**2)
        if abs(log) > _LEAST:
            result[step] = round(math.exp(log), 3)
    return result

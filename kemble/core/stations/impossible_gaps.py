"""Waits of at most so long that no plan can keep, whatever hands and burners there are: found before a plan is tried."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

from kemble.core.cards.card_parts import StepDependency


def gaps_that_cannot_hold(
    minutes: Mapping[str, float], waits: Mapping[str, Sequence[StepDependency]]
) -> list[tuple[str, int]]:
    """Gaps to give up, as (step, number of its wait), so that the steps of so many `minutes` can all lie somewhere: of each
    circle the longest gap."""
    lasts = {step: float(math.ceil(max(1.0, lasting) - 1e-9)) for step, lasting in minutes.items()}
    left = {step: list(waits[step]) for step in lasts}
    given_up: list[tuple[str, int]] = []
    while gaps := _gaps_on_a_circle(lasts, left):
        step, i = max(gaps, key=lambda gap: left[gap[0]][gap[1]].at_most or 0.0)
        left[step][i] = replace(left[step][i], at_most=None)
        given_up.append((step, i))
    return given_up


def _gaps_on_a_circle(
    lasts: Mapping[str, float], waits: Mapping[str, Sequence[StepDependency]]
) -> list[tuple[str, int]]:
    """The gaps on a circle of waits that no beginnings can satisfy: as (step, number of its wait); none where they can.

    Beginnings are pushed later, as the shortest paths of a simple temporal network are (Bellman and Ford): what is still
    pushed after as many rounds as there are steps lies on such a circle.
    """
    edges: list[tuple[str, str, float, tuple[str, int] | None]] = []
    for step in lasts:
        for i, wait in enumerate(waits[step]):
            edges.append((wait.step, step, lasts[wait.step] + round(wait.at_least), None))
            if wait.at_most is not None:
                edges.append((step, wait.step, -(lasts[wait.step] + math.floor(wait.at_most)), (step, i)))
    begins = dict.fromkeys(lasts, 0.0)
    pushed_by: dict[str, tuple[str, tuple[str, int] | None]] = {}
    pushed = ""
    for _ in range(len(lasts) + 1):
        pushed = ""
        for before, after, least, gap in edges:
            if begins[before] + least > begins[after] + 1e-6:
                begins[after], pushed_by[after], pushed = begins[before] + least, (before, gap), after
        if not pushed:
            return []
    for _ in lasts:  # back onto the circle itself
        pushed = pushed_by[pushed][0]
    gaps, at = [], pushed
    while True:
        at, gap = pushed_by[at]
        if gap is not None:
            gaps.append(gap)
        if at == pushed:
            return gaps

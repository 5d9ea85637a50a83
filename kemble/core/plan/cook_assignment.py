"""Which cook or helper does each step of a day; a child and a new helper do only what is safe."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from kemble.core.plan.day_solver import PlanRequest, SolvedDay, Task
from kemble.core.plan.resources import HANDS_OF_A_COOK, hands_for
from kemble.core.sentences import say


@dataclass
class _Cook:
    name: str
    begins: float
    ends: float
    safe_only: bool
    has: list[Task] = field(default_factory=list)


def assign_cooks(asked: PlanRequest, solved: SolvedDay) -> dict[str, str]:
    """The person for every task that takes hands; nobody is named where there is one cook and no helper.

    In order of the clock: whoever may, is there and has the hands free; helpers before cooks for what they may, then
    whoever had the step before it.
    """
    cooks = asked.kitchen.cooks + asked.more_cooks
    people = [_Cook(say("cook {i}", i=i + 1), -math.inf, math.inf, safe_only=False) for i in range(cooks)]
    people += [
        _Cook(helper.name, solved.clock.minute(helper.begins), solved.clock.minute(helper.ends), helper.safe_only)
        for helper in asked.helpers
    ]
    if len(people) == 1:
        return {}
    given: dict[str, str] = {}
    starts = solved.starts
    for task in sorted(solved.tasks, key=lambda task: (starts[task.key], -hands_for(task.step))):
        need, a = hands_for(task.step), starts[task.key]
        b = a + task.length
        if not need:
            continue
        may = [cook for cook in people if cook.begins <= a and b <= cook.ends and _safe(cook, task)]
        may = [cook for cook in may if _busy(cook, starts, a, b) + need <= HANDS_OF_A_COOK]
        if not may:
            continue
        before = {given.get(wait) for wait, _, _ in task.waits}
        chosen = min(
            may,
            key=lambda cook: (not cook.safe_only, cook.name.startswith("cook "), cook.name not in before, cook.name),
        )
        chosen.has.append(task)
        given[task.key] = chosen.name
    return given


def _safe(person: _Cook, task: Task) -> bool:
    return not person.safe_only or task.step.work not in ("stove", "knife")


def _busy(person: _Cook, starts: Mapping[str, int], a: int, b: int) -> int:
    """The most hands that they have in anything between two minutes."""
    spans = [(starts[task.key], task.length, hands_for(task.step)) for task in person.has]
    edges = [a, *(begin for begin, _, _ in spans if a < begin < b)]
    return max(sum(hands for begin, length, hands in spans if begin <= at < begin + length) for at in edges)

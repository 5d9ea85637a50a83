"""What was predicted of a batch, what happened, and how it tasted on just-about-right scales."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.taste_scales import TasteId
from kemble.core.cards.way import Way
from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import refuse
from kemble.core.plan.schedule import Plan
from kemble.core.run.events import AnyEvent
from kemble.core.run.run_state import state_of
from kemble.core.run.weighed_pieces import PIECES, mean_without_practice
from kemble.core.sentences import Words, say

Verdict = Literal["just right", "too soft", "too firm", "untasted"]
VERDICT_BY: TasteId = "softness"
SCALE = (-2, -1, 0, 1, 2)


class ComparedPrediction(BaseModel):
    """One prediction beside what happened, in the same unit."""

    model_config = ConfigDict(frozen=True)

    step: str
    label: Words
    unit: str
    predicted: float
    low: float | None
    high: float | None
    happened: float

    @property
    def within(self) -> bool:
        low = self.low if self.low is not None else self.predicted
        high = self.high if self.high is not None else self.predicted
        return low <= self.happened <= high


def compared(
    plan: Plan, events: Sequence[AnyEvent], facts: Mapping[str, Fact], now: datetime
) -> list[ComparedPrediction]:
    """Minutes of every step that has a window or takes longer than ten, and each target weight with the last reading, or
    the mean of the pieces that were meant."""
    state = {s.id: s for s in state_of(plan, events, now).steps}
    predictions = []
    for scheduled in plan.scheduled:
        step, was = scheduled.step, state[scheduled.step.id]
        if was.started and was.ended and (step.window or step.minutes > 10):
            minutes, window = (was.ended - was.started).total_seconds() / 60, step.ours.window
            predictions.append(
                ComparedPrediction(
                    step=step.id,
                    label=step.title,
                    unit="min",
                    predicted=step.ours.minutes,
                    low=window.first_check if window else None,
                    high=window.latest if window else None,
                    happened=minutes,
                )
            )
        if was.weights and step.target:
            fact, grams = facts.get(step.target.key), [step_weight.grams for step_weight in was.weights]
            predictions.append(
                ComparedPrediction(
                    step=step.id,
                    label=step.target.label,
                    unit="g",
                    predicted=step.target.grams,
                    low=fact.low if fact else None,
                    high=fact.high if fact else None,
                    happened=mean_without_practice(grams) if step.target.key in PIECES else grams[-1],
                )
            )
    return predictions


def check_tastes(way: Way, tastes: Mapping[str, int]) -> None:
    """Raises Refused for a scale that the way does not have or a mark outside -2 to 2."""
    known = list(way.scales)
    for name, mark in tastes.items():
        if name not in known:
            refuse(f"tastes.{name}", say("is not a scale of this way"), ", ".join(known))
        if mark not in SCALE:
            refuse(f"tastes.{name}", say("{mark} is off the scale", mark=mark), say("-2, -1, 0, 1 or 2"))


def verdict(tastes: Mapping[str, int]) -> Verdict:
    """The word for the dot on the map, from the mark for softness."""
    mark = tastes.get(VERDICT_BY)
    if mark is None:
        return "untasted"
    return "just right" if mark == 0 else "too soft" if mark > 0 else "too firm"

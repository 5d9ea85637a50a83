"""Pieces weighed one after another: the first few are practice and are averaged apart."""

from __future__ import annotations

from collections.abc import Sequence
from statistics import fmean, stdev

from pydantic import BaseModel, ConfigDict

from kemble.core.geometry.hand_moves import PRACTICE
from kemble.core.plan.schedule import Plan
from kemble.core.run.event_fold import events_that_count
from kemble.core.run.events import AnyEvent
from kemble.core.sentences import Words

# Targets that are one piece, weighed again for each; any other is weighed once, and the last reading counts.
BASE_PIECES = ("shape.base_g", "shape.piece_g")
PIECES = (*BASE_PIECES, "shape.filling_g")


class WeighedPieces(BaseModel):
    """The pieces of one step in grams, in order: `practice` the first few, `meant` all after them. `mean_g` and `spread_g`
    (a standard deviation) are of those that were meant, and of the practice while there are no others."""

    model_config = ConfigDict(frozen=True)

    step: str
    label: Words
    key: str
    told_g: float
    practice: list[float]
    meant: list[float]
    mean_g: float
    spread_g: float | None


def parted(grams: Sequence[float]) -> tuple[list[float], list[float]]:
    """Practice, and what was meant."""
    return list(grams[:PRACTICE]), list(grams[PRACTICE:])


def mean_without_practice(grams: Sequence[float]) -> float:
    """The mean of what was meant; of the practice while there is no other."""
    practice, meant = parted(grams)
    return fmean(meant or practice)


def weighed_pieces(plan: Plan, events: Sequence[AnyEvent]) -> list[WeighedPieces]:
    """Of each step at which pieces were weighed, in the order of the plan."""
    grams: dict[str, list[float]] = {}
    for event in events_that_count(plan, events):
        if event.kind == "weighed":
            grams.setdefault(event.step, []).append(event.grams)
    weighed_pieceses = []
    for scheduled in plan.scheduled:
        step, target = scheduled.step, scheduled.step.target
        if target is None or target.key not in PIECES or step.id not in grams:
            continue
        practice, meant = parted(grams[step.id])
        weighed_pieceses.append(
            WeighedPieces(
                step=step.id,
                label=target.label,
                key=target.key,
                told_g=target.grams,
                practice=practice,
                meant=meant,
                mean_g=mean_without_practice(grams[step.id]),
                spread_g=stdev(meant or practice) if len(meant or practice) > 1 else None,
            )
        )
    return weighed_pieceses

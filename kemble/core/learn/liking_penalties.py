"""How much each taste costs of the liking, where enough tasters said both.

Mean drop analysis, as in sensory work: of those who found it too little (or too much) of a taste, how much less they liked
it than those who found it just right, and how many they are.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from statistics import fmean

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.taste_scales import SCALES, TasteId
from kemble.core.sentences import Words

ENOUGH = 8  # tastings with a liking before anything is said
_SIDE = 0.2  # of them on one side, at the least


class LikingPenalty(BaseModel):
    """One side of a taste: how many in a hundred said so, by how much less they liked it, and the product of both."""

    model_config = ConfigDict(frozen=True)

    taste: str
    words: Words
    share_pct: float
    drop: float
    weight: float


def penalties(tasted: Sequence[tuple[Mapping[str, int], int]]) -> list[LikingPenalty]:
    """The heaviest first; empty where too few have said how they liked it. `tasted`: marks, and liking from 1 to 9."""
    if len(tasted) < ENOUGH:
        return []
    liking_penalty = []
    for taste, scale in SCALES.items():
        told = [(marks[taste], liking) for marks, liking in tasted if taste in marks]
        right = [liking for mark, liking in told if mark == 0]
        for side, words in ((-1, scale.too_little), (1, scale.too_much)):
            off = [liking for mark, liking in told if mark * side > 0]
            if not right or len(off) < _SIDE * len(told) or len(off) < 2:
                continue
            drop, share = fmean(right) - fmean(off), 100 * len(off) / len(told)
            if drop > 0:
                liking_penalty.append(_penalty(taste, words, share, drop))
    return sorted(liking_penalty, key=lambda penalty: -penalty.weight)


def _penalty(taste: TasteId, words: str, share: float, drop: float) -> LikingPenalty:
    return LikingPenalty(taste=taste, words=words, share_pct=share, drop=drop, weight=share / 100 * drop)

"""What to change next time: one or two ratios of a sheet, by how much, and the taste expected, from earlier tastings.

Each taste is a mark from too little (-2) over just right (0) to too much (2), and is taken to be straight in the ratios,
each in half-widths of its way's band, about the band's middle; with a level of the way's own and one of each sheet
(partially pooled). A Bayesian linear model in closed form: before any batch the craft's rule is all there is, and every
batch moves it as far as it is surer than that. Slopes of the rule are kitchen estimates.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from pydantic import BaseModel, ConfigDict

from kemble.core.cards.taste_scales import SCALES, TasteId
from kemble.core.cards.way import Way
from kemble.core.learn.posterior import Array
from kemble.core.sentences import Words, say

Lever = Literal["hydration_pct", "sugar_pct", "fat_pct"]
LEVERS: tuple[Lever, ...] = ("hydration_pct", "sugar_pct", "fat_pct")
WORDS: Mapping[Lever, str] = {"hydration_pct": "water", "sugar_pct": "sugar", "fat_pct": "fat"}

# The craft's rule: by how many marks a taste moves when a ratio goes from the middle of its band to its edge, and how
# surely. What is not here moves nothing that the rule knows of.
_RULE: Mapping[TasteId, tuple[tuple[float, float], tuple[float, float], tuple[float, float]]] = {
    "softness": ((1.6, 0.6), (0.5, 0.5), (0.2, 0.4)),
    "sweetness": ((0.0, 0.3), (1.6, 0.6), (0.0, 0.2)),
    "chew": ((-0.8, 0.6), (0.2, 0.5), (-0.3, 0.4)),
    "richness": ((-0.2, 0.3), (0.1, 0.3), (1.4, 0.6)),
    "fragrance": ((0.0, 0.2), (0.0, 0.2), (1.2, 0.6)),
    "stickiness": ((0.8, 0.6), (0.5, 0.5), (-0.6, 0.5)),
}
_NO_RULE = ((0.0, 0.3), (0.0, 0.3), (0.0, 0.3))
_WAY_SD, _SHEET_SD, _MARK_SD = 0.6, 0.5, 0.55  # of a way's level, of a sheet's about it, of one tasting
_FARTHEST = 0.45  # half-widths that one trial may go
_A_CHANGE = 0.05  # squared marks that a further change must bring to be worth making
_WELL = 0.35  # marks off on the mean: less is left as it is
_GRID = np.round(np.arange(-_FARTHEST, _FARTHEST + 0.001, 0.05), 3)
_EDGE = 1.6449


@dataclass(frozen=True, slots=True)
class TastedBatch:
    """One batch that was tasted: how, at which ratios, and which sheet it is of."""

    sheet: int
    ratios: Mapping[Lever, float]
    tastes: Mapping[str, int]


class ExpectedTaste(BaseModel):
    """How a taste is expected to come out: marks off just right, and where nine in ten of tries lie."""

    model_config = ConfigDict(frozen=True)

    taste: str
    words: Words
    now: float
    after: float
    low: float
    high: float


class RatioChange(BaseModel):
    """One ratio from where it is to where it should be, in per cent of the base."""

    model_config = ConfigDict(frozen=True)

    lever: Lever
    words: Words
    was: float
    to: float


class Proposal(BaseModel):
    """What to do the next time. `kind` please: what is expected to taste best; learn: what would tell most. `rests_on` how
    many tastings it rests on beside the craft's rule."""

    model_config = ConfigDict(frozen=True)

    kind: Literal["please", "learn"]
    says: Words
    changes: list[RatioChange]
    expected: list[ExpectedTaste]
    because: list[str]
    rests_on: int


class TasteAdvice(BaseModel):
    """Of a taste that no ratio moves: what so many of those who marked it said, and what the craft does about it."""

    model_config = ConfigDict(frozen=True)

    taste: str
    words: Words
    said: int
    of: int
    does: str


def advise_on_tastes(way: Way, marked: Sequence[Mapping[str, int]]) -> list[TasteAdvice]:
    """What more than half of those who marked it found off the same way, the most of them first."""
    taste_advices = []
    for taste in way.scales:
        scale, marks = SCALES[taste], [item[taste] for item in marked if taste in item]
        for side, words, does in ((-1, scale.too_little, scale.more), (1, scale.too_much, scale.less)):
            said = sum(1 for mark in marks if mark * side > 0)
            if does and 2 * said > len(marks):
                taste_advices.append(TasteAdvice(taste=taste, words=words, said=said, of=len(marks), does=does))
    return sorted(taste_advices, key=lambda taste_advice: -taste_advice.said / taste_advice.of)


class TasteModel:
    """How tastes hang on ratios, for one way: what is known after some batches."""

    def __init__(self, way: Way, batches: Sequence[TastedBatch]) -> None:
        self.way = way
        self.batches = [tasted for tasted in batches if tasted.tastes]
        self._middle = np.array([_middle(way, lever)[0] for lever in LEVERS])
        self.half = np.array([_middle(way, lever)[1] for lever in LEVERS])
        self._sheets = sorted({tasted.sheet for tasted in self.batches})
        self._mean: dict[str, Array] = {}
        self._covariance: dict[str, Array] = {}
        marked = {taste for tasted in self.batches for taste in tasted.tastes}
        # What only some are asked counts once somebody has said it, where it hangs on the ratios at all.
        more = [taste for taste in way.more_tastes if taste in _RULE and taste in marked]
        self.tastes: tuple[TasteId, ...] = (*way.tastes, *more)
        for taste in self.tastes:
            self._fit(taste)

    def scaled(self, ratios: Mapping[Lever, float]) -> Array:
        """Ratios in half-widths of their bands."""
        scaled: Array = (np.array([ratios[lever] for lever in LEVERS]) - self._middle) / self.half
        return scaled

    def _row(self, sheet: int, u: Array) -> Array:
        own = np.array([1.0 if sheet == each_sheet else 0.0 for each_sheet in self._sheets])
        return np.concatenate([[1.0], u, own])

    def _fit(self, taste: TasteId) -> None:
        rule = _RULE.get(taste, _NO_RULE)
        mean = np.array([0.0, *(slope for slope, _ in rule), *(0.0 for _ in self._sheets)])
        sd = np.array([_WAY_SD, *(width for _, width in rule), *(_SHEET_SD for _ in self._sheets)])
        told = [tasted for tasted in self.batches if taste in tasted.tastes]
        precision: Array = np.diag(1 / sd**2)
        pull: Array = precision @ mean
        for tasted in told:
            row = self._row(tasted.sheet, self.scaled(tasted.ratios))
            precision = precision + np.outer(row, row) / _MARK_SD**2
            pull = pull + row * tasted.tastes[taste] / _MARK_SD**2
        self._covariance[taste] = np.linalg.inv(precision)
        self._mean[taste] = self._covariance[taste] @ pull

    def at(self, taste: str, sheet: int, u: Array) -> tuple[float, float]:
        """The mark expected there, and its standard deviation with that of a tasting."""
        row = self._row(sheet, u)
        unknown = 0.0 if sheet in self._sheets else _SHEET_SD**2
        variance = float(row @ self._covariance[taste] @ row) + unknown
        return float(row @ self._mean[taste]), math.sqrt(variance + _MARK_SD**2)

    def loss(self, sheet: int, u: Array) -> float:
        """Expected squared marks off just right, over the way's tastes."""
        result = 0.0
        for taste in self.tastes:
            mean, sd = self.at(taste, sheet, u)
            result += mean**2 + sd**2
        return result

    def slope(self, taste: str, lever: int) -> float:
        """Marks by which a taste moves with a ratio from the middle of its band to its edge."""
        return float(self._mean[taste][1 + lever])

    def slope_sd_of(self, taste: str, lever: int) -> float:
        """How unsure that is."""
        return math.sqrt(float(self._covariance[taste][1 + lever, 1 + lever]))

    def slope_sd(self, lever: int) -> float:
        """How unsure the tastes' slopes in a ratio still are, together."""
        return math.sqrt(sum(float(self._covariance[taste][1 + lever, 1 + lever]) for taste in self.tastes))


def _middle(way: Way, lever: Lever) -> tuple[float, float]:
    band = {"hydration_pct": way.hydration, "sugar_pct": way.sugar, "fat_pct": way.fat}[lever]
    return (band.low + band.high) / 2, max(1e-6, (band.high - band.low) / 2)


def proposals(way: Way, batches: Sequence[TastedBatch], sheet: int, ratios: Mapping[Lever, float]) -> list[Proposal]:
    """What to change of a sheet the next time, to please and to learn. Empty where nothing was tasted, or all is well and
    nothing is left to learn by ratios."""
    tongue = TasteModel(way, batches)
    if not tongue.batches:
        return []
    u = tongue.scaled(ratios)
    proposal = [_please(tongue, sheet, ratios, u)]
    learning = _learn(tongue, sheet, ratios, u)
    if learning is not None:
        proposal.append(learning)
    return proposal


def _please(tongue: TasteModel, sheet: int, ratios: Mapping[Lever, float], u: Array) -> Proposal:
    """The change of one ratio, or two, that is expected to leave the least that is off."""
    now = tongue.loss(sheet, u)
    best: Array = np.zeros(3)
    best_loss, alone = now, {}
    worst = max(abs(tongue.at(taste, sheet, u)[0]) for taste in tongue.tastes)
    for i in range(3):
        losses = [tongue.loss(sheet, _move_by(u, {i: step})) for step in _GRID]
        alone[i] = now - min(losses)
        if min(losses) + _A_CHANGE < best_loss:
            best, best_loss = _step_vector({i: float(_GRID[int(np.argmin(losses))])}), min(losses) + _A_CHANGE
    for i in range(3):
        for j in range(i + 1, 3):
            for a in _GRID[::2]:
                for b in _GRID[::2]:
                    loss = tongue.loss(sheet, _move_by(u, {i: float(a), j: float(b)})) + 2 * _A_CHANGE
                    if loss < best_loss:
                        best, best_loss = _step_vector({i: float(a), j: float(b)}), loss
    if worst < _WELL:
        best = np.zeros(3)
    changes = _changes(tongue, ratios, best)
    because = _because(tongue, sheet, u, changes, alone)
    says = (
        say("Leave it as it is.")
        if not changes
        else f"{' and '.join(_change_words(ratio_change) for ratio_change in changes)}."
    )
    return Proposal(
        kind="please",
        says=says[:1].upper() + says[1:],
        changes=changes,
        expected=_expected(tongue, sheet, u, best),
        because=because,
        rests_on=len(tongue.batches),
    )


def _learn(tongue: TasteModel, sheet: int, ratios: Mapping[Lever, float], u: Array) -> Proposal | None:
    """One ratio moved as far as one trial may go, where least is known of what it does; to the side that pleases more."""
    unsure = [tongue.slope_sd(i) for i in range(3)]
    order = sorted(range(3), key=lambda i: -unsure[i])
    i = next((number for number in order if _can_change(tongue, ratios, number)), None)
    if i is None or unsure[i] < 0.35:
        return None
    sides = [(tongue.loss(sheet, _move_by(u, {i: side})), side) for side in (-_FARTHEST, _FARTHEST)]
    step = _step_vector({i: min(sides)[1]})
    changes = _changes(tongue, ratios, step)
    if not changes:
        return None
    says = say("Only {words}: what that does is what is least known here.", words=_change_words(changes[0]))
    return Proposal(
        kind="learn",
        says=says,
        changes=changes,
        expected=_expected(tongue, sheet, u, step),
        because=[
            say(
                "How {words} tells in this way rests on {grounds}.",
                words=WORDS[LEVERS[i]],
                grounds=say("the craft’s rule alone") if len(tongue.batches) < 3 else say("few tastings"),
            )
        ],
        rests_on=len(tongue.batches),
    )


def _can_change(tongue: TasteModel, ratios: Mapping[Lever, float], lever: int) -> bool:
    """Whether a sheet has any of it to change."""
    return bool(ratios[LEVERS[lever]] > 0.05 * float(tongue.half[lever]))


def _step_vector(by: Mapping[int, float]) -> Array:
    result = np.zeros(3)
    for i, value in by.items():
        result[i] = value
    return result


def _move_by(u: Array, by: Mapping[int, float]) -> Array:
    return u + _step_vector(by)


def _changes(tongue: TasteModel, ratios: Mapping[Lever, float], step: Array) -> list[RatioChange]:
    ratio_changes = []
    for i, lever in enumerate(LEVERS):
        by = float(step[i] * tongue.half[i])
        if abs(by) < 0.4 or not _can_change(tongue, ratios, i):
            continue
        to = max(0.0, ratios[lever] + by)
        ratio_changes.append(RatioChange(lever=lever, words=WORDS[lever], was=round(ratios[lever], 1), to=round(to, 1)))
    return ratio_changes


def _change_words(change: RatioChange) -> str:
    way = "more" if change.to > change.was else "less"
    return say("{way} {words}, {to:.0f} % and not {was:.0f}", way=way, words=change.words, to=change.to, was=change.was)


def _expected(tongue: TasteModel, sheet: int, u: Array, step: Array) -> list[ExpectedTaste]:
    expected_tastes = []
    for taste in tongue.tastes:
        now, _ = tongue.at(taste, sheet, u)
        then, sd = tongue.at(taste, sheet, u + step)
        expected_tastes.append(
            ExpectedTaste(
                taste=taste,
                words=mark_words(taste, then),
                now=round(now, 2),
                after=round(then, 2),
                low=round(then - _EDGE * sd, 2),
                high=round(then + _EDGE * sd, 2),
            )
        )
    return expected_tastes


def mark_words(taste: TasteId, mark: float) -> str:
    """A mark, or a mean of some, as it is said."""
    if abs(mark) < _WELL:
        return say("just right")
    end = SCALES[taste].too_much if mark > 0 else SCALES[taste].too_little
    return say("a little {end}", end=end) if abs(mark) < 1.5 else say("much {end}", end=end)


def _because(
    tongue: TasteModel, sheet: int, u: Array, changes: Sequence[RatioChange], alone: Mapping[int, float]
) -> list[str]:
    """Why these and not others."""
    off = {taste: tongue.at(taste, sheet, u)[0] for taste in tongue.tastes}
    said = [
        say("It is {mark_words}.", mark_words=mark_words(taste, mark))
        for taste, mark in off.items()
        if abs(mark) >= _WELL
    ]
    if not said:
        said = [say("Every taste is just right, or nearly.")]
    chosen = {ratio_change.lever for ratio_change in changes}
    for i, lever in enumerate(LEVERS):
        if lever not in chosen and changes and alone[i] < _A_CHANGE:
            said.append(
                say(
                    "{first}{others} would change little of that.",
                    first=WORDS[lever][:1].upper(),
                    others=WORDS[lever][1:],
                )
            )
    said.append(
        say("This is the craft’s rule: too little was tasted yet to know better.")
        if len(tongue.batches) < 3
        else say("It rests on {tastings} tastings of this way.", tastings=len(tongue.batches))
    )
    return said

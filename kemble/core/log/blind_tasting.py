"""A blind tasting: which taster gets which cup under which code, and what the answers can show.

Triangle: three cups, two alike; who cannot tell finds the odd one once in three. Paired: two cups; who has no preference
takes either once in two. Exact binomial tests, as sensory work has them; "not told apart" is an answer like another.
"""

from __future__ import annotations

import math
import random
from collections.abc import Callable, Sequence
from itertools import cycle, islice
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.facts.problems import refuse
from kemble.core.sentences import Words, say

Kind = Literal["triangle", "paired"]
_CHANCE: dict[Kind, float] = {"triangle": 1 / 3, "paired": 1 / 2}
# Every order as often as every other, over the tasters.
_ORDERS: dict[Kind, tuple[str, ...]] = {
    "triangle": ("AAB", "BBA", "ABA", "BAB", "BAA", "ABB"),
    "paired": ("AB", "BA"),
}
SURE = 0.05
MOST_TASTERS = 60


class BlindTastingDesign(BaseModel):
    """The document: what is compared, how, by how many, and the seed of its codes."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    a: str = Field(min_length=1, max_length=60, description="what one half is, in 1 to 60 letters")
    b: str = Field(min_length=1, max_length=60, description="what the other half is, in 1 to 60 letters")
    kind: Kind = Field("triangle", description="triangle or paired")
    tasters: int = Field(6, ge=2, le=MOST_TASTERS, description="a whole number from 2 to 60")
    seed: int = Field(1, ge=0, le=2**31, description="a whole number")


class TastingCup(BaseModel):
    """One cup: its code, and (for whoever serves) which half is in it."""

    model_config = ConfigDict(frozen=True)

    code: str
    half: Literal["A", "B"]


class TasterAnswer(BaseModel):
    """A taster's choice: of three the odd one, of two the one they like better."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    taster: int = Field(ge=1, le=MOST_TASTERS, description="the number of a taster")
    code: str = Field(min_length=3, max_length=3, description="the three figures on a cup")


class StoredAnswer(TasterAnswer):
    """An answer as it is kept: `by` is who gave it, by a name that means something only where it is kept; "" for whoever
    serves, on behalf of a taster."""

    by: str = Field("", max_length=40, description="at most 40 letters")


def check_seat(split: BlindTastingDesign, answers: Sequence[StoredAnswer], answer: TasterAnswer, by: str) -> None:
    """Raises Refused unless who asks may give that answer: a taster has one seat, nobody answers for another, and what the
    cups held is known once all have answered, so that nobody changes anything from there on."""
    if len(answers) >= split.tasters:
        refuse("taster", say("can change nothing any more: all have answered"), say("a tasting that still goes on"))
    for given in answers:
        if given.taster == answer.taster and given.by != by:
            refuse("taster", say("{taster} has answered already", taster=answer.taster), say("another number"))
        if given.taster != answer.taster and given.by == by:
            refuse("taster", say("is another than you are"), say("{taster}, as whom you answered", taster=given.taster))


class TastingVerdict(BaseModel):
    """What the answers say: `right` of `answered` (of a pair: those for `a`), how likely that is by chance alone, between
    which shares the true one lies nineteen times in twenty, and how many right would have been enough."""

    model_config = ConfigDict(frozen=True)

    answered: int
    right: int
    chance: float
    low: float
    high: float
    needs: int | None
    told_apart: bool
    says: Words


def cups_of(split: BlindTastingDesign) -> list[list[TastingCup]]:
    """The cups of every taster, in the order in which they stand; no code twice."""
    chance = random.Random(split.seed)  # noqa: S311 - an order, not a secret
    orders = list(_ORDERS[split.kind])
    chance.shuffle(orders)
    given = list(islice(cycle(orders), split.tasters))
    codes = chance.sample(range(101, 1000), sum(len(order) for order in given))
    tasting_cupses, at = [], 0
    for order in given:
        cups = []
        for half in order:
            cups.append(TastingCup(code=str(codes[at]), half="A" if half == "A" else "B"))
            at += 1
        tasting_cupses.append(cups)
    return tasting_cupses


def is_right(split: BlindTastingDesign, cups: Sequence[TastingCup], code: str) -> bool:
    """Of three: whether that is the odd one. Of two: whether it is A."""
    half = next(cup.half for cup in cups if cup.code == code)
    alike = sum(cup.half == half for cup in cups)
    return alike == 1 if split.kind == "triangle" else half == "A"


def verdict(split: BlindTastingDesign, answers: Sequence[TasterAnswer]) -> TastingVerdict:
    """What can be said after some answers; each taster's newest counts."""
    cups = cups_of(split)
    newest = {taster_answer.taster: taster_answer for taster_answer in answers}
    right = sum(
        is_right(split, cups[taster_answer.taster - 1], taster_answer.code) for taster_answer in newest.values()
    )
    n, p0 = len(newest), _CHANCE[split.kind]
    if split.kind == "triangle":
        chance = tail(n, right, p0)
    else:
        more = max(right, n - right)
        chance = min(1.0, 2 * tail(n, more, p0))
    told = n > 0 and chance < SURE
    low, high = interval(n, right)
    return TastingVerdict(
        answered=n,
        right=right,
        chance=chance,
        low=low,
        high=high,
        needs=_needs(split),
        told_apart=told,
        says=_verdict_sentence(split, n, right, told=told),
    )


def tail(n: int, k: int, p: float) -> float:
    """The chance of k or more of n, each with chance p: the exact binomial."""
    return sum(math.comb(n, i) * p**i * (1 - p) ** (n - i) for i in range(k, n + 1))


def interval(n: int, k: int) -> tuple[float, float]:
    """Clopper and Pearson's exact interval of a share, nineteen times in twenty; all of it when nobody has answered."""
    if n == 0:
        return 0.0, 1.0
    low = 0.0 if k == 0 else _find_root(lambda p: tail(n, k, p) - 0.025)
    high = 1.0 if k == n else _find_root(lambda p: 0.025 - (1 - tail(n, k + 1, p)))
    return low, high


def _find_root(rises: Callable[[float], float]) -> float:
    """Where something that rises from below nothing to above it is nothing, between 0 and 1."""
    a, b = 0.0, 1.0
    for _ in range(60):
        middle = (a + b) / 2
        if rises(middle) < 0:
            a = middle
        else:
            b = middle
    return (a + b) / 2


def _needs(split: BlindTastingDesign) -> int | None:
    """How many of all tasters must be right (or of one mind) for it to be no chance; None when all of them are too few."""
    sides = 1 if split.kind == "triangle" else 2
    for k in range(split.tasters + 1):
        if k > split.tasters / 2 * (sides - 1) and sides * tail(split.tasters, k, _CHANCE[split.kind]) < SURE:
            return k
    return None


def _verdict_sentence(split: BlindTastingDesign, n: int, right: int, *, told: bool) -> str:
    if n == 0:
        return say("Nobody has answered yet.")
    needs = _needs(split)
    if needs is None:
        return say("{tasters} tasters are too few to say anything, whatever they answer.", tasters=split.tasters)
    if split.kind == "triangle":
        if told:
            return say("Told apart: {right} of {answers} found the odd one.", right=right, answers=n)
        return say(
            "Not told apart: {right} of {answers} found the odd one, and {needs} of {tasters} would be needed.",
            right=right,
            answers=n,
            needs=needs,
            tasters=split.tasters,
        )
    liked = split.a if right * 2 > n else split.b
    if told:
        return say(
            "{liked} is liked better: by {times} of {answers}.", liked=liked, times=max(right, n - right), answers=n
        )
    return say(
        "Neither is liked better: {right} of {answers} for {a}; {needs} of {tasters} of one mind would be needed.",
        right=right,
        answers=n,
        a=split.a,
        needs=needs,
        tasters=split.tasters,
    )

"""The titles of steps by their ids."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from typing import get_args

from kemble.core.cards.card_parts import Step
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.facts.vocabulary import PartRole
from kemble.core.sentences import translate

_ROLES = frozenset(get_args(PartRole))


def title_of(step: str) -> str:
    """As its card calls it; of a part's step with the part's role, "filling-season". What no card has goes by its id.

    Of a step that several cards have, as the first of them calls it.

    >>> title_of("sieve"), title_of("topping-ready"), title_of("put-topping")
    ('Sieve the batter', 'Make the topping ready', 'put topping')
    """
    role, _, of_part = step.partition("-")
    if role in _ROLES and (title := _step_titles(True).get(of_part)) is not None:
        return translate(title).replace("{name}", translate(role))
    return translate(_step_titles(False).get(step, step.replace("-", " ")))


@cache
def _step_titles(of_parts: bool) -> dict[str, str]:
    cards: Iterable[tuple[Step, ...]] = (card.steps for card in (FAMILIES if of_parts else WAYS).values())
    result: dict[str, str] = {}
    for steps in cards:
        for step in steps:
            result.setdefault(step.id, step.title)
    return result

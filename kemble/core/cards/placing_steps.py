"""The step that puts a part in, on or under the cake, for a way that has no step of its own for it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from kemble.core.cards.card_parts import Sentence, Where, always


@dataclass(frozen=True, slots=True)
class PlacingCard:
    """Words for one place; {name} stands for the part's name. Before the way's steps `before`, the first that it has."""

    title: str
    words: tuple[Sentence, ...]
    minutes: float
    before: tuple[str, ...] = ()
    tools: tuple[str, ...] = ("spoon",)


PLACING: Mapping[Where, PlacingCard] = {
    "wall": PlacingCard(
        "Press the {name} on wall and floor",
        always("On the buttered tin, even into the corners; tip out what does not hold."),
        5,
        ("pour", "level"),
    ),
    "under": PlacingCard(
        "Lay the {name} under it",
        always("One even layer, to the edge; turned out, it is the top."),
        5,
        ("pour", "level"),
    ),
    "through": PlacingCard(
        "Fold in the {name}", always("Last, in a few strokes, so that it stays whole."), 3, ("pour", "level")
    ),
    "over": PlacingCard("Put on the {name}", always("Even, to the edge."), 4),
    "within": PlacingCard("Put the {name} inside", always("In the middle, none at the seam."), 6, ("pour", "level")),
    "round": PlacingCard("Coat it with the {name}", always("All round, a few at a time; shake off what is loose."), 6),
}

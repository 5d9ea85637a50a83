"""The cook's cups: what cooks' own hold, and what each holds of a thing as this cook fills it, beside what was weighed here."""

from __future__ import annotations

from typing import NamedTuple

from kemble.core.facts.quantity import SPOONS, UNITS
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import WEIGHED_ONCE, Shelf
from kemble.core.sentences import say

# How large a cup is that nobody measured: from a tea cup filled to the eye to a rim-full mug, as shares of the one written.
# Kitchen estimate.
CUP = (-0.15, 0.1)
_WATER_ONCE = 0.01  # a cup of water on the scale


class CupRow(NamedTuple):
    """In grams: the craft's range, low, usual and high; and the kitchen's own, weighed once."""

    words: str
    craft: tuple[float, float, float]
    own: tuple[float, float, float]


def cups(kitchen: Kitchen) -> list[CupRow]:
    """The cup itself, in grams of water, and every measure of an ingredient that was weighed."""
    result = []
    if kitchen.own_cup_ml is not None:
        usual = SPOONS[kitchen.measures].cup
        craft = (usual * (1 + CUP[0]), usual, usual * (1 + CUP[1]))
        result.append(
            CupRow(say("what your cup holds, of water"), craft, _range_about(kitchen.own_cup_ml, _WATER_ONCE))
        )
    plain = Shelf(kitchen.model_copy(update={"weighed": ()}))
    for entry in kitchen.weighed:
        item = plain.item(entry.ingredient)
        if item is None:
            continue
        ml = plain.own_ml[entry.measure] if UNITS[entry.measure].kind == "own" else UNITS[entry.measure].factor
        usual = ml * plain.g_per_ml(item)
        low, high = plain.packing(item, entry.measure)
        words = say("{name} of {item}", name=UNITS[entry.measure].name, item=item.name.lower())
        result.append(
            CupRow(words, (usual * (1 + low), usual, usual * (1 + high)), _range_about(entry.grams, WEIGHED_ONCE))
        )
    return result


def _range_about(value: float, share: float) -> tuple[float, float, float]:
    return value * (1 - share), value, value * (1 + share)

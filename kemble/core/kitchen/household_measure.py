"""What a cook measures an ingredient with where nothing is weighed."""

from __future__ import annotations

from kemble.core.facts.quantity import HouseholdMeasure, Spoons, household
from kemble.core.kitchen.larder import Ingredient
from kemble.core.sentences import say

_NEAR_ENOUGH_PCT = 12.0  # as far as one egg is from another


def household_measure(item: Ingredient, grams: float, *, g_per_ml: float, spoons: Spoons) -> HouseholdMeasure | None:
    """Eggs in halves, leaves and string by the piece, anything else by cup and spoon; None where nothing comes near.

    Leaves are never measured in cups: where nobody has said what one weighs, there is no measure.
    """
    grams = round(grams, 3)
    if grams <= 0:
        return None
    if item.group == "leaf":
        return _pieces(item, grams)
    return _eggs(item, grams) or household(grams, g_per_ml=g_per_ml, spoons=spoons)


def _pieces(item: Ingredient, grams: float) -> HouseholdMeasure | None:
    if not item.g_per_piece:
        return None
    count = max(1, round(grams / item.g_per_piece))
    error = 100 * (count * item.g_per_piece - grams) / grams
    return HouseholdMeasure(say("1 of it") if count == 1 else say("{count} of them", count=count), error)


def _eggs(item: Ingredient, grams: float) -> HouseholdMeasure | None:
    """Where that comes near: "2 eggs" and not a third of a cup."""
    each = item.g_per_piece
    if item.group != "egg" or not each:
        return None
    halves = max(1, round(2 * grams / each))
    error = 100 * (halves * each / 2 - grams) / grams
    if abs(error) > _NEAR_ENOUGH_PCT:
        return None
    whole = f"{halves // 2 or ''}{'½' if halves % 2 else ''}"
    name = item.name.split(",")[0].lower()
    return HouseholdMeasure(f"{whole} {name}{'s' if halves > 2 else ''}", error)

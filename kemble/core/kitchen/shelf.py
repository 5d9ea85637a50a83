"""The shelf: the larder as one kitchen has it, with the cook's own figures, own ingredients and own cups."""

from __future__ import annotations

from kemble.core.facts.quantity import UNITS, UnitId, grams
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient, State, larder


class Shelf:
    """Turns amounts into grams and back as this kitchen measures them. Holds no state of its own."""

    def __init__(self, kitchen: Kitchen) -> None:
        self.items = larder()
        if kitchen.ingredients:
            self.items = {**self.items, **{item.id: item for item in kitchen.ingredients}}
        self.own_ml = kitchen.own_ml
        self.spoons = kitchen.spoons
        self.weighed = {entry.ingredient: entry.grams / self._ml(entry.measure) for entry in kitchen.weighed}

    def _ml(self, measure: UnitId) -> float:
        return self.own_ml[measure] if UNITS[measure].kind == "own" else UNITS[measure].factor

    def item(self, ingredient: str) -> Ingredient | None:
        return self.items.get(ingredient)

    def g_per_ml(self, item: Ingredient, state: State | None = None) -> float:
        """Density in g/ml: in the state that is named, else as this cook fills a cup, else as is usual."""
        if state is not None and state in item.density:
            return item.density[state]
        return self.weighed.get(item.id, item.g_per_ml)

    def grams(self, item: Ingredient, value: float, unit: UnitId, state: State | None = None) -> float:
        """Raises ValueError, in words, for a unit that this ingredient or this kitchen has no figure for."""
        return grams(
            value,
            unit,
            g_per_ml=self.g_per_ml(item, state),
            g_per_piece=item.g_per_piece,
            g_per_pack=item.pack[1] if item.pack else None,
            own_ml=self.own_ml,
        )

    def amount(self, item: Ingredient, mass_g: float, unit: UnitId, state: State | None = None) -> float:
        """The inverse of `grams`: how many `unit` weigh `mass_g`."""
        return mass_g / self.grams(item, 1.0, unit, state)

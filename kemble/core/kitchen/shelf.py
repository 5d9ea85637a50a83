"""The shelf: the larder of one kitchen, with its own figures, ingredients and cups."""

from __future__ import annotations

from kemble.core.facts.quantity import UNITS, UnitId, grams
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient, State, larder

# What finds its own level, and is as heavy whoever fills the cup.
_POURS = ("liquid", "fat", "egg")
_ONE_DENSITY = 0.08  # of what the larder has one density of; kitchen estimate, 0.05-0.12
WEIGHED_ONCE = 0.03  # a cup filled the same way again; kitchen estimate, 0.02-0.05


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

    def packing(self, item: Ingredient, unit: UnitId, state: State | None = None) -> tuple[float, float]:
        """How far off an amount may be, low and high, as shares of it: a cup is as it was filled.

        Nothing for what is weighed or counted. Of a cup, the loosest and the fullest that the larder knows of it; a
        tenth of that once this kitchen has weighed one, or where the filling is said.
        """
        if UNITS[unit].kind not in ("volume", "own") or item.group in _POURS:
            return 0.0, 0.0
        usual = self.g_per_ml(item, state)
        low, high = min(item.density.values()) / usual - 1, max(item.density.values()) / usual - 1
        if len(item.density) == 1:
            low, high = -_ONE_DENSITY, _ONE_DENSITY
        if item.id in self.weighed or state is not None:
            low, high = -WEIGHED_ONCE, WEIGHED_ONCE
        return min(0.0, low), max(0.0, high)

    def amount(self, item: Ingredient, mass_g: float, unit: UnitId, state: State | None = None) -> float:
        """The inverse of `grams`: how many `unit` weigh `mass_g`."""
        return mass_g / self.grams(item, 1.0, unit, state)

"""Diets: what a sheet must not contain, and what replaces it.

Each exchange is one that the cook could make by hand on its line, with water and sugar held; what has no stand-in is
said and left. Kitchen choices, no medical advice: the packet says what else may be in it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from kemble.core.kitchen.larder import Ingredient, Tag

DietId = Literal["vegan", "no-egg", "no-dairy", "no-nuts", "no-alcohol", "no-refined-sugar"]


@dataclass(frozen=True, slots=True)
class Diet:
    """What may not be in it: by allergen, by what it is, by name."""

    label: str
    allergens: tuple[str, ...] = ()
    tags: tuple[Tag, ...] = ()
    ids: tuple[str, ...] = ()

    def bars(self, item: Ingredient) -> bool:
        named = item.id in self.ids or any(allergen in self.allergens for allergen in item.allergens)
        return named or any(tag in self.tags for tag in item.tags)


_FROM_ANIMALS = ("lard", "poultry-fat", "rendered-fat", "chicken-thigh", "pork-belly", "soup-base")

DIETS: Mapping[DietId, Diet] = {
    "vegan": Diet("nothing from animals", ("milk", "egg"), ("honey",), _FROM_ANIMALS),
    "no-egg": Diet("no egg", ("egg",)),
    "no-dairy": Diet("no dairy", ("milk",)),
    "no-nuts": Diet("no nuts", ("tree nut", "peanut")),
    "no-alcohol": Diet("no alcohol", (), ("alcohol",)),
    "no-refined-sugar": Diet("no refined sugar", (), (), ("white-sugar", "icing-sugar", "glucose-syrup", "rock-sugar")),
}

# What stands in for what, the first that a diet lets in; "" leaves it out.
STANDS_IN: Mapping[str, tuple[str, ...]] = {
    "butter": ("coconut-oil", "sunflower-oil"),
    "ghee": ("coconut-oil",),
    "lard": ("coconut-oil",),
    "poultry-fat": ("sunflower-oil",),
    "rendered-fat": ("coconut-oil",),
    "milk": ("soy-milk", "oat-drink"),
    "skimmed-milk": ("oat-drink", "soy-milk"),
    "evaporated-milk": ("coconut-milk-thin",),
    "double-cream": ("coconut-milk-thick",),
    "yogurt": ("soy-milk",),
    "sour-cream": ("coconut-milk-thick",),
    "condensed-milk": ("rice-syrup",),
    "egg": ("",),
    "egg-yolk": ("",),
    "egg-white": ("",),
    "milk-powder": ("",),
    "chicken-thigh": ("tofu",),
    "pork-belly": ("tofu",),
    "hard-cheese": ("",),
    "aged-cheese": ("",),
    "cream-cheese": ("coconut-oil",),
    "vanilla": ("",),
    "mild-honey": ("maple-syrup", "rice-syrup"),
    "buckwheat-honey": ("date-syrup", "maple-syrup"),
    "walnut": ("sunflower-seed", "pumpkin-seed"),
    "hazelnut": ("pumpkin-seed", "sunflower-seed"),
    "almond": ("sunflower-seed",),
    "cashew": ("sunflower-seed",),
    "pecan": ("pumpkin-seed",),
    "pine-nut": ("sunflower-seed",),
    "pistachio": ("pumpkin-seed",),
    "peanut": ("sunflower-seed",),
    "walnut-raw": ("sunflower-seed",),
    "hazelnut-raw": ("pumpkin-seed",),
    "peanut-raw": ("sunflower-seed",),
    "walnut-oil": ("sunflower-oil",),
    "hazelnut-oil": ("sunflower-oil",),
    "peanut-oil": ("sunflower-oil",),
    "peanut-butter": ("tahini",),
    "almond-butter": ("tahini",),
    "rice-wine": ("apple-juice",),
    "white-sugar": ("coconut-sugar", "palm-sugar"),
    "icing-sugar": ("coconut-sugar",),
    "rock-sugar": ("palm-sugar",),
    "glucose-syrup": ("rice-syrup",),
}


def stand_in(item: Ingredient, diet: Diet, items: Mapping[str, Ingredient]) -> str | None:
    """What to take instead; "" to leave it out; None where nothing here stands in for it."""
    for name in STANDS_IN.get(item.id, ()):
        if not name or (name in items and not diet.bars(items[name])):
            return name
    return None

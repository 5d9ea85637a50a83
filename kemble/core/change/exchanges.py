"""Exchanges: one ingredient for another that does the same work.

Within a group of the larder the rule is one line of a table: a sugar is replaced by its sweetness, a fat by its fat, a
liquid by its water. What does not fit a group has a rule of its own. Re-balancing the rest is `adjust`'s.
"""

from __future__ import annotations

from dataclasses import dataclass

from kemble.core.kitchen.larder import Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import say

# What is kept when one of a group stands in for another of it; "mass" for those weighed like for like.
_KEEPS: dict[str, str] = {
    "sugar": "sugar",
    "fat": "fat",
    "liquid": "water",
    "nut": "mass",
    "legume": "mass",
    "dust": "mass",
    "paste": "mass",
    "fruit": "mass",
    "grain": "mass",
    "leaf": "mass",
}

# What changes when this comes in, in a cook's words.
_BRINGS: dict[str, str] = {
    "buckwheat-honey": "A dark, malty taste; browns sooner and stays soft longer.",
    "mild-honey": "Rounder; browns sooner and stays soft longer.",
    "maple-syrup": "Thin and fragrant; a third of it is water.",
    "barley-malt": "Less sweet than it weighs, a taste of toast; there is wheat or barley in it.",
    "rice-syrup": "Less sweet than it weighs; a shine.",
    "glucose-syrup": "Less sweet than it weighs; keeps sugar from graining.",
    "dark-slab-sugar": "Deeper taste and colour.",
    "dark-brown-sugar": "Deeper taste and colour.",
    "black-treacle": "Bitter and very dark: start with part of it.",
    "condensed-milk": "Milk comes with it.",
    "coconut-oil": "No water in it; sets harder in the cold, no milk.",
    "butter": "Brings its own water, and milk; sets in the cold.",
    "lard": "No water; the shortest bite. Not for everyone's table.",
    "sunflower-oil": "Stays liquid: a filling bound with it will not set.",
    "coconut-milk-thin": "Less rich: the fat falls.",
    "coconut-milk-thick": "Richer: the fat rises, and there is less water in each ml.",
    "water": "Plainer, and leaner.",
    "plain-rice": "Shorter, less sticky: not for pounding.",
}
_PLAIN = "Much the same to work with."


@dataclass(frozen=True, slots=True)
class Exchange:
    """One ingredient for others. `keeps` is the component held, "mass", or "solids"; `share` what of it is replaced.

    `to` lists what comes in; a second one is water that goes with a dry one, to the weight of what went out.
    """

    to: str
    label: str
    keeps: str
    says: str
    share: float = 1.0
    with_water: bool = False

    def masses(self, item: Ingredient, grams: float, shelf: Shelf) -> list[tuple[str, float]]:
        """What stands in its place, in grams."""
        if not self.to:
            return []
        comes = shelf.items[self.to]
        out = grams * self.share
        if self.keeps == "mass":
            mass = out
        elif self.keeps == "solids":
            mass = out * item.per_100_g.solids / comes.per_100_g.solids
        else:
            mass = out * getattr(item.per_100_g, self.keeps) / getattr(comes.per_100_g, self.keeps)
        result = [(item.id, grams - out)] if self.share < 1 else []
        result.append((self.to, mass))
        if self.with_water and out > mass:
            result.append(("water", out - mass))
        return result


def _left_out(says: str) -> tuple[Exchange, ...]:
    return (Exchange("", say("leave it out"), "mass", says),)


_OWN_RULES: dict[str, tuple[Exchange, ...]] = {
    "egg": _left_out("Without egg it sets flatter and denser, with less spring. Its water is made up."),
    "egg-yolk": _left_out("Without yolk it is paler and leaner. Its water is made up."),
    "egg-white": _left_out("Without white it has less spring. Its water is made up."),
    "milk-powder": _left_out("Without milk powder it browns less."),
    "hard-cheese": _left_out("Without the cheese its salt is gone too: taste."),
    "aged-cheese": _left_out("Without the cheese its salt is gone too: taste."),
    "vanilla": _left_out("The extract is made with alcohol; a scraped pod has none."),
    "rice-wine": (Exchange("apple-juice", "Apple juice", "water", "Sweeter, no bite, no alcohol."),),
    "peanut-butter": (Exchange("tahini", "Sesame paste", "mass", "Sesame: a little bitter; an allergen too."),),
    "almond-butter": (Exchange("tahini", "Sesame paste", "mass", "Sesame: a little bitter; an allergen too."),),
    "pork-belly": (Exchange("tofu", "Tofu, firm", "mass", "Leaner: a spoon of oil with it."),),
    "chicken-thigh": (Exchange("tofu", "Tofu, firm", "mass", "Milder: season it more."),),
    "cream-cheese": (Exchange("coconut-oil", "Coconut oil", "fat", "No water and no salt in it; sets in the cold."),),
    "fresh-herb": (
        Exchange(
            "herb-powder", "powder and water", "solids", "Powder and water: even colour, less scent.", with_water=True
        ),
    ),
    "herb-powder": (
        Exchange("fresh-herb", "fresh tops", "solids", "Fresh tops bring their own water, and more scent."),
    ),
    "sweet-rice-flour": (
        Exchange(
            "cocoa",
            "cocoa for a part of it",
            "mass",
            "Eight parts in a hundred of cocoa: darker, drier, a shorter stretch. It drinks: a little more water helps.",
            share=0.08,
        ),
    ),
    "cocoa": (
        Exchange("sweet-rice-flour", "flour again", "mass", "All flour again: paler, a longer stretch, drinks less."),
    ),
    "milk": (
        Exchange(
            "milk-powder", "powder and water", "solids", "Powder and water: keeps in the cupboard.", with_water=True
        ),
    ),
}


def exchanges(item: Ingredient, shelf: Shelf) -> list[Exchange]:
    """Everything that can stand in for an ingredient: its own rules first, then others of its group."""
    keeps = _KEEPS.get(item.group)
    exchange = list(_OWN_RULES.get(item.id, ()))
    if keeps is None:
        return exchange
    for other in shelf.items.values():
        if other.id == item.id or other.group != item.group:
            continue
        if keeps != "mass" and min(getattr(x.per_100_g, keeps) for x in (item, other)) < 5:
            continue
        exchange.append(Exchange(other.id, other.name, keeps, _BRINGS.get(other.id, _PLAIN)))
    return exchange


def exchange_for(item: Ingredient, to: str, shelf: Shelf) -> Exchange | None:
    return next((swap for swap in exchanges(item, shelf) if swap.to == to), None)

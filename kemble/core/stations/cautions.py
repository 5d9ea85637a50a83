"""Which cautions a sheet calls for: its way's, its parts', its steps', and what its ingredients bring."""

from __future__ import annotations

from collections.abc import Iterable

from kemble.core.cards.cautions import BROUGHT, CAUTIONS, Caution
from kemble.core.cards.way import Way
from kemble.core.kitchen.larder import Ingredient
from kemble.core.sentences import say
from kemble.core.sheet.bowl import Bowl


def allergens(bowl: Bowl, brought: Iterable[Ingredient] = ()) -> list[str]:
    """Every allergen in any part of the sheet, and of what its steps bring, in alphabetical order."""
    return sorted({name for item in (*bowl.items, *brought) for name in item.allergens})


def perishable(bowl: Bowl) -> bool:
    return any(item.perishable for item in bowl.items)


def cautions_of_ingredients(bowl: Bowl) -> list[str]:
    """The cautions that the ingredients bring, whatever is made of them."""
    tags = {tag for item in bowl.items for tag in item.tags}
    return [*(["spoilage"] if perishable(bowl) else []), *(caution for tag, caution in BROUGHT.items() if tag in tags)]


def cautions(bowl: Bowl, way: Way, step_cautions: Iterable[str], brought: Iterable[Ingredient] = ()) -> list[Caution]:
    """The cautions of a sheet: its way's, its parts', its steps', and what its ingredients bring."""
    ids = [*way.cautions, *step_cautions]
    ids += [c for part in bowl.parts.values() if part.family for c in part.family.cautions]
    ids += cautions_of_ingredients(bowl)
    caution = [CAUTIONS[caution_id] for caution_id in dict.fromkeys(ids)]
    holds = allergens(bowl, brought)
    if holds:
        caution.append(
            Caution(
                id="allergens",
                title=say("Allergens"),
                says=say(
                    "Contains {allergens}. Rice is free of gluten only if its mill is: read the packet.",
                    allergens=", ".join(holds),
                ),
            )
        )
    return caution

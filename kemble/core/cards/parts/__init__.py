"""The parts made beside the base, one file a family. A module here that defines FAMILY is a family."""

from __future__ import annotations

import importlib
import pkgutil

from kemble.core.cards.card_contract import check_family
from kemble.core.cards.card_parts import OutputDestination
from kemble.core.cards.family import Family
from kemble.core.facts.vocabulary import PartRole


def _load_families() -> dict[str, Family]:
    modules = (importlib.import_module(f"{__name__}.{info.name}") for info in pkgutil.iter_modules(__path__))
    families = [check_family(module.FAMILY, module) for module in modules if hasattr(module, "FAMILY")]
    return {family.id: family for family in sorted(families, key=lambda family: family.id)}


FAMILIES: dict[str, Family] = _load_families()

USUAL: dict[PartRole, str] = {
    "syrup": "coconut-syrup",
    "filling": "fruit-filling",
    "broth": "sweet-broth",
    "topping": "strewn",
    "coat": "coat",
    "glaze": "glaze",
    "oil": "infused-oil",
    "herb": "green-herb",
    "wrapper": "wrapper",
    "heart": "whole-heart",
    "liquid": "blended-liquid",
    "crust": "strewn",
    "layer": "strewn",
    "decoration": "strewn",
}
"""What a part of a role is where neither the sheet, its way nor its ingredients tell."""

RESTS: dict[PartRole, OutputDestination] = {
    "syrup": OutputDestination("whole", "over"),
    "filling": OutputDestination("whole", "within"),
    "broth": OutputDestination("beside"),
    "topping": OutputDestination("whole", "over"),
    "coat": OutputDestination("whole", "round"),
    "glaze": OutputDestination("whole", "over"),
    "oil": OutputDestination("kept"),
    "herb": OutputDestination("base"),
    "wrapper": OutputDestination("beside"),
    "heart": OutputDestination("whole", "within"),
    "liquid": OutputDestination("base"),
    "crust": OutputDestination("whole", "wall"),
    "layer": OutputDestination("whole", "under"),
    "decoration": OutputDestination("whole", "over"),
}
"""Where what is made of a part goes, where neither the sheet nor its way says."""

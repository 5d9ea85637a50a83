"""The larder: what each ingredient is made of, how dense it is, and whom it may harm."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

Group = Literal["flour", "liquid", "sugar", "fat", "egg", "nut", "fruit", "paste", "flavour", "salt", "dust"]

SOURCE = "typical composition, rounded; the packet knows better"


class Composition(BaseModel):
    """Grams of each component in a mass of food. Linear: compositions add and scale."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    water: float = Field(0.0, ge=0)
    starch: float = Field(0.0, ge=0)
    sugar: float = Field(0.0, ge=0)
    fat: float = Field(0.0, ge=0)
    protein: float = Field(0.0, ge=0)
    fibre: float = Field(0.0, ge=0)
    salt: float = Field(0.0, ge=0)
    other: float = Field(0.0, ge=0)

    @property
    def total(self) -> float:
        return sum(self.parts)

    @property
    def parts(self) -> tuple[float, ...]:
        """Values in the order of COMPONENTS."""
        return tuple(getattr(self, name) for name in COMPONENTS)

    def scaled(self, factor: float) -> Composition:
        return Composition._of(value * factor for value in self.parts)

    @staticmethod
    def summed(parts: Iterable[Composition]) -> Composition:
        totals = dict.fromkeys(COMPONENTS, 0.0)
        for part in parts:
            for name, value in zip(COMPONENTS, part.parts, strict=True):
                totals[name] += value
        return Composition._of(totals.values())

    @staticmethod
    def _of(parts: Iterable[float]) -> Composition:
        """From values in the order of COMPONENTS, known to be good: sums and shares of good ones."""
        fields: dict[str, Any] = dict(zip(COMPONENTS, parts, strict=True))
        return Composition.model_construct(**fields)


COMPONENTS: tuple[str, ...] = tuple(Composition.model_fields)


class Ingredient(BaseModel):
    """One thing on the shelf. Composition in g per 100 g, density in g/ml as measured in a cup."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: str
    name: str
    aliases: tuple[str, ...] = ()
    group: Group
    per_100_g: Composition
    g_per_ml: float = Field(gt=0.1, lt=2.5)
    g_per_piece: float | None = Field(None, gt=0)
    allergens: tuple[str, ...] = ()
    perishable: bool = False
    pack_g: float | None = Field(None, gt=0)
    look_alike: str = ""
    caution: str = ""

    @model_validator(mode="after")
    def _adds_up(self) -> Ingredient:
        total = self.per_100_g.total
        if abs(total - 100.0) > 1.0:
            raise ValueError(f"the composition of {self.name} adds up to {total:.1f} g in 100 g")
        return self

    def composition(self, mass_g: float) -> Composition:
        """What is in `mass_g` of it. Scaled to the total, so that no gram is lost to rounding."""
        return self.per_100_g.scaled(mass_g / self.per_100_g.total)


@cache
def larder() -> dict[str, Ingredient]:
    """Every ingredient by id, read once from the data file beside this module."""
    text = files(__package__).joinpath("ingredients.toml").read_text(encoding="utf-8")
    return {key: Ingredient(id=key, **entry) for key, entry in tomllib.loads(text).items()}


def nearest(unknown: str, limit: int = 3) -> list[str]:
    """The ids most like a misspelt or informal name, for an error that helps."""
    import difflib

    wanted = unknown.strip().lower().replace(" ", "-")
    names: dict[str, str] = {}
    for item in larder().values():
        for name in (item.id, item.name, *item.aliases):
            names[name.lower().replace(" ", "-")] = item.id
    hits = difflib.get_close_matches(wanted, list(names), n=limit * 2, cutoff=0.5)
    return list(dict.fromkeys(names[hit] for hit in hits))[:limit]

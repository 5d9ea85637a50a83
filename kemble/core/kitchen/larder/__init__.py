"""The larder: what each ingredient is made of, how dense it is, how it is sold, and whom it may harm."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import Group

GROUPS: dict[Group, str] = {
    "flour": "flour",
    "grain": "whole grain",
    "legume": "dry beans",
    "liquid": "liquids",
    "sugar": "sugars, honeys, syrups",
    "fat": "fats and oils",
    "egg": "eggs",
    "nut": "nuts and seeds",
    "fruit": "fruit",
    "paste": "pastes and purées",
    "flavour": "flavours",
    "herb": "green herbs",
    "savoury": "savoury",
    "salt": "salt",
    "dust": "starches and dusts",
    "leaf": "leaves, paper, string",
}
"""What each group of ingredients is called, in the order in which the larder is shown."""
State = Literal["spooned", "sifted", "packed", "whole", "sliced", "ground", "melted", "poured"]

SOURCE = "typical composition, rounded; the packet knows better"
SOURCES = {
    "table": "typical of food composition tables, rounded",
    "label": "typical of packet labels, rounded; yours knows better",
    "kitchen": "kitchen estimate",
    "cook": "this kitchen's own figures",
}
OWN = "own-"
DENSITY = (0.02, 2.5)  # g/ml of any food
MOST_PACK_G = 50_000.0
"""What the id of a cook's own ingredient begins with."""


class Composition(BaseModel):
    """Grams of each component in a mass of food. Linear: compositions add and scale."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    water: float = 0.0
    starch: float = 0.0
    sugar: float = 0.0
    fat: float = 0.0
    protein: float = 0.0
    fibre: float = 0.0
    salt: float = 0.0
    other: float = 0.0

    @property
    def total(self) -> float:
        return sum(self.parts)

    @property
    def solids(self) -> float:
        """All that is not water."""
        return self.total - self.water

    @property
    def parts(self) -> tuple[float, ...]:
        """Values in the order of COMPONENTS."""
        return (
            self.water,
            self.starch,
            self.sugar,
            self.fat,
            self.protein,
            self.fibre,
            self.salt,
            self.other,
        )

    def scaled(self, factor: float) -> Composition:
        return self if factor == 1.0 else Composition.of(value * factor for value in self.parts)

    def with_water(self, grams: float) -> Composition:
        """The same solids in `grams` of water (never below none)."""
        return Composition.of((max(0.0, grams), *self.parts[1:]))

    @staticmethod
    def summed(parts: Iterable[Composition]) -> Composition:
        rows = [part.parts for part in parts]
        return Composition.of(map(sum, zip(*rows, strict=True))) if rows else Composition()

    @staticmethod
    def of(parts: Iterable[float]) -> Composition:
        """From values in the order of COMPONENTS, known to be good: sums and shares of good ones."""
        fields: dict[str, Any] = dict(zip(COMPONENTS, parts, strict=True))
        return unchecked_model(Composition, **fields)


COMPONENTS: tuple[str, ...] = tuple(Composition.model_fields)


Tag = Literal["honey", "alcohol", "tap", "wraps", "cooked", "raw-starch", "raw-nut", "dried-fruit", "steeped"]
"""What an ingredient is, where something hangs on it: a caution, the shopping, the leaves to a parcel, beans not to soak, dust
to brush off, a leaf to take out."""


class IngredientComposition(Composition):
    """Of 100 g of an ingredient."""

    water: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    starch: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    sugar: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    fat: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    protein: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    fibre: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    salt: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")
    other: float = Field(0.0, ge=0, le=100, description="0 to 100 g in 100 g")

    @staticmethod
    def of_100_g(composition: Composition) -> IngredientComposition:
        """Of 100 g of such a mass, which may not be empty."""
        factor = 100.0 / composition.total
        fields: dict[str, Any] = {name: getattr(composition, name) * factor for name in COMPONENTS}
        return unchecked_model(IngredientComposition, **fields)


class Ingredient(BaseModel):
    """One thing on the shelf. Composition in g per 100 g; densities in g/ml by state, the usual state first."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: str = Field(pattern=r"^[a-z][a-z0-9-]{1,60}$", description="small letters, figures and dashes")
    name: str = Field(min_length=1, max_length=60, description="a name of 1 to 60 letters")
    aliases: tuple[str, ...] = Field((), max_length=20, description="at most 20 other names")
    group: Group = Field(description="the shelf it stands on")
    per_100_g: IngredientComposition
    density: dict[State, float] = Field(min_length=1, description="g/ml by state, each from 0.02 to 2.5")
    g_per_piece: float | None = Field(None, gt=0, le=5000, description="above 0, at most 5000 g")
    packs: dict[str, float] = Field({}, max_length=6, description="at most 6 packs, each a name and its grams")
    allergens: tuple[str, ...] = Field((), max_length=12, description="at most 12 allergens")
    perishable: bool = False
    tags: tuple[Tag, ...] = Field(
        (),
        max_length=4,
        description="what it is: honey, alcohol, tap, wraps, cooked, raw-starch, raw-nut, dried-fruit or steeped",
    )
    source: Literal["table", "label", "kitchen", "cook"] = "cook"
    look_alike: str = Field("", max_length=300, description="at most 300 letters")
    caution: str = Field("", max_length=300, description="at most 300 letters")

    @model_validator(mode="before")
    @classmethod
    def _of_before_tags(cls, data: Any) -> Any:
        """A cook's own ingredient that was kept before there were tags goes by its name and its caution, as then."""
        if isinstance(data, dict) and "tags" not in data and str(data.get("id", "")).startswith(OWN):
            told = {"honey": "honey" in data["id"], "alcohol": "alcohol" in str(data.get("caution", ""))}
            return {**data, "tags": tuple(tag for tag, is_so in told.items() if is_so)}
        return data

    @model_validator(mode="after")
    def _holds_together(self) -> Ingredient:
        total = self.per_100_g.total
        if abs(total - 100.0) > 1.0:
            raise PydanticCustomError(
                "kemble_composition",
                "the composition adds up to {total} g in 100 g",
                {"path": "per_100_g", "total": f"{total:.1f}", "accepts": "parts that add up to 100 g, give or take 1"},
            )
        for state, density in self.density.items():
            if not DENSITY[0] <= density <= DENSITY[1]:
                raise PydanticCustomError(
                    "kemble_density",
                    "{density} g/ml is no density of food",
                    {"path": f"density.{state}", "density": density, "accepts": "0.02 to 2.5 g/ml"},
                )
        for name, grams in self.packs.items():
            if not 0 < grams <= MOST_PACK_G:
                raise PydanticCustomError(
                    "kemble_pack",
                    "a pack cannot weigh {grams} g",
                    {"path": f"packs.{name}", "grams": grams, "accepts": "above 0, at most 50 000 g"},
                )
        return self

    @property
    def g_per_ml(self) -> float:
        """Density in its usual state."""
        return next(iter(self.density.values()))

    @property
    def pack(self) -> tuple[str, float] | None:
        """The usual pack: its name and its grams."""
        return next(iter(self.packs.items()), None)

    def composition(self, mass_g: float) -> Composition:
        """What is in `mass_g` of it. Scaled to the total, so that no gram is lost to rounding."""
        return self.per_100_g.scaled(mass_g / self.per_100_g.total)


@cache
def larder() -> dict[str, Ingredient]:
    """Every ingredient by id, read once from the shelves beside this module."""
    shelves = sorted(files(__package__).joinpath("shelves").iterdir(), key=lambda shelf: shelf.name)
    return {
        key: Ingredient(id=key, **entry)
        for shelf in shelves
        for key, entry in tomllib.loads(shelf.read_text(encoding="utf-8")).items()
    }

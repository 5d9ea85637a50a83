"""The parts of a sheet: their lines, what they take of each other, and where what they make goes."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any, get_args

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.cards.card_parts import Where
from kemble.core.cards.parts import FAMILIES, RESTS
from kemble.core.cards.ways import WAYS
from kemble.core.facts.quantity import UNITS, UnitId, grams
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PART_ID, PartId, PartRole, role_of
from kemble.core.kitchen.larder import OWN, State, larder
from kemble.core.kitchen.larder.names import closest_names

MOST_AMOUNT = 50_000.0  # 50 kg or 50 l: beyond any kitchen this serves

ROLES: tuple[PartRole, ...] = get_args(PartRole)


class SheetModel(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Amount(SheetModel):
    """How much, in any unit of `kemble.core.facts.quantity`."""

    value: float = Field(
        gt=0,
        le=MOST_AMOUNT,
        allow_inf_nan=False,
        description="a number above 0 and at most 50 000",
    )
    unit: UnitId = Field("g", description="g, kg, oz, lb, ml, l, a cup, a spoon, pinch, piece or pack")


JOINS = "a step of the way at which it goes in; left out, from the start"


class PartialAmount(SheetModel):
    """Some of what a part makes: a share of it, or an amount by weight or measure."""

    share: float | None = Field(None, gt=0, le=1, allow_inf_nan=False, description="a share above 0 and at most 1")
    amount: Amount | None = None

    @model_validator(mode="after")
    def _said_once(self) -> PartialAmount:
        if (self.share is None) == (self.amount is None):
            raise PydanticCustomError(
                "kemble_some",
                "is said twice" if self.share else "is not said",
                {"accepts": "either a share or an amount"},
            )
        if self.amount and UNITS[self.amount.unit].kind not in ("mass", "volume"):
            raise PydanticCustomError(
                "kemble_unit",
                "cannot be counted in {unit}",
                {"path": "amount.unit", "unit": self.amount.unit, "accepts": "g, ml, a cup or a spoon"},
            )
        return self


class Take(PartialAmount):
    """Some of what another part of the sheet makes, taken as an ingredient. `of` is a part, or "part.output"."""

    of: str = Field(
        max_length=40, description='a part of the sheet, as "syrup", or one of its outputs, as "topping.oil"'
    )
    joins: str = Field("", max_length=40, description=JOINS)

    @property
    def source(self) -> tuple[PartId, str]:
        """The part that makes it, and which of its outputs; "" is what the part is made for."""
        part, _, output = self.of.partition(".")
        return part, output


class OutputPlace(SheetModel):
    """Where the rest of what a part makes goes. Of a tin under, wall, through or over; of a piece within or round."""

    to: PartId = Field("whole", max_length=40, description="a part of the sheet, or whole, beside or kept")
    where: Where | None = Field(None, description="under, wall, through, over, within or round")
    joins: str = Field("", max_length=40, description=JOINS)


class Split(SheetModel):
    """A share of a line that goes in at its own step, or (with `to`) into another part. Shares add up to 1."""

    share: float = Field(gt=0, le=1, allow_inf_nan=False, description="a share above 0 and at most 1")
    at: str = Field("", max_length=60, description="a few words: where this share goes")
    to: PartId | None = Field(None, max_length=40, description="a part of the sheet")
    joins: str = Field("", max_length=40, description=JOINS)


class Line(SheetModel):
    """One ingredient in a part. `reserve` is held back from the part, for a glaze or a topping.

    `state` is how a cup of it is filled, where that is not the usual way.
    """

    ingredient: str = Field(max_length=80, description="an ingredient of the larder")
    amount: Amount
    state: State | None = Field(None, description="spooned, sifted, packed, whole, sliced, ground, melted or poured")
    splits: tuple[Split, ...] = Field((), max_length=6, description="at most 6 shares that add up to 1")
    reserve: Amount | None = None
    reserve_for: str = Field("", max_length=60, description="a few words: what it is kept for")
    joins: str = Field("", max_length=40, description=JOINS)
    soak_min: float | None = Field(
        None, ge=0, le=2880, allow_inf_nan=False, description="0 to 2880 minutes, of dry beans soaked and drained"
    )

    @field_validator("ingredient")
    @classmethod
    def _in_the_larder(cls, value: str) -> str:
        if value not in larder() and not value.startswith(OWN):
            like = closest_names(value)
            raise PydanticCustomError(
                "kemble_ingredient",
                '"{name}" is not in the larder',
                {"name": value, "accepts": " or ".join(like) if like else "an ingredient of the larder"},
            )
        return value

    @model_validator(mode="after")
    def _holds_together(self) -> Line:
        if self.splits and abs(sum(split.share for split in self.splits) - 1.0) > 1e-6:
            raise PydanticCustomError(
                "kemble_splits",
                "the splits add up to {total}",
                {"total": round(sum(s.share for s in self.splits), 4), "accepts": "shares that add up to 1"},
            )
        self._check_amounts()
        return self

    def _check_amounts(self) -> None:
        """What can be told without a kitchen; the rest is told when the line is weighed in one."""
        item = larder().get(self.ingredient)
        amounts = [self.amount, *([self.reserve] if self.reserve else [])]
        if item is None or any(UNITS[amount.unit].kind == "own" for amount in amounts):
            return
        try:
            whole, *held = (
                grams(
                    amount.value,
                    amount.unit,
                    g_per_ml=item.g_per_ml,
                    g_per_piece=item.g_per_piece,
                    g_per_pack=item.pack[1] if item.pack else None,
                )
                for amount in amounts
            )
        except ValueError as error:
            raise PydanticCustomError(
                "kemble_unit", "{what} {why}", {"what": item.name, "why": str(error), "accepts": ""}
            ) from None
        if held and held[0] >= whole:
            raise PydanticCustomError(
                "kemble_reserve",
                "the reserve is as much as the line",
                {"accepts": "less than the line's own amount"},
            )


class MadeFor(SheetModel):
    """A share of a part that is made here for another sheet too."""

    sheet: str = Field(min_length=1, max_length=120, description="the title of the other sheet")
    share: float = Field(gt=0, lt=1, allow_inf_nan=False, description="a share above 0 and under 1")


class Part(SheetModel):
    """A formula of its own. Takes, rests, facts and steps name it by its `id`: its role, or of a further part of that role
    "syrup-2" and so on. `family` is what kind of part it is; left out, it follows from way and lines.

    `lines` are its ingredients, `takes` what it takes of other parts. `rest` says of each output where it goes once
    others have taken theirs; left out, as is usual in its way. `each_g` is how much of it goes on or in a piece,
    `each_mm` how large a whole fruit or nut is across; `pan` is the pan it is finished in. `kept` is held back from it;
    `made_for` leaves for other sheets; `made_on` says that another sheet makes it.
    """

    role: PartRole = Field("base", description=", ".join(ROLES))
    id: PartId = Field(
        "",
        max_length=40,
        description='the role, also where it is left out; of a further part of it "syrup-2" to "syrup-9"',
    )
    name: str = Field("", max_length=60, description="a name of at most 60 letters")
    family: str = Field("", max_length=40, description=" or ".join(FAMILIES))
    schools: dict[str, str] = Field({}, max_length=8, description="choices of this kind of part")
    lines: tuple[Line, ...] = Field((), max_length=40, description="at most 40 lines")
    takes: tuple[Take, ...] = Field((), max_length=12, description="at most 12 takes")
    rest: dict[str, OutputPlace] = Field({}, max_length=4, description="a place for an output of this part")
    each_g: float | None = Field(None, gt=0, le=500, allow_inf_nan=False, description="above 0, at most 500 g a piece")
    each_mm: float | None = Field(None, ge=2, le=100, allow_inf_nan=False, description="2 to 100 mm across")
    pan: str = Field("", max_length=40, description="a pan of the kitchen")
    kept: PartialAmount | None = None
    kept_for: str = Field("", max_length=60, description="a few words: what it is kept for")
    made_for: tuple[MadeFor, ...] = Field((), max_length=8, description="at most 8 sheets")
    made_on: str = Field("", max_length=120, description="the title of the sheet that makes it")

    @property
    def called(self) -> str:
        """Its name; its role where it has none."""
        return self.name or self.id

    @model_validator(mode="before")
    @classmethod
    def _named(cls, content: Any) -> Any:
        if isinstance(content, Mapping) and not content.get("id"):
            return {**content, "id": content.get("role", "base")}
        return content

    @model_validator(mode="after")
    def _named_by_its_role(self) -> Part:
        if self.role != role_of(self.id) or not re.match(PART_ID, self.id):
            raise PydanticCustomError(
                "kemble_part_id",
                '"{id}" is not of the role {role}',
                {"path": "id", "id": self.id, "role": self.role, "accepts": f"{self.role}, or {self.role}-2 to -9"},
            )
        return self

    @field_validator("family")
    @classmethod
    def _known_family(cls, value: str) -> str:
        if value and value not in FAMILIES:
            raise PydanticCustomError(
                "kemble_family", '"{name}" is not a known part', {"name": value, "accepts": " or ".join(FAMILIES)}
            )
        return value

    @model_validator(mode="after")
    def _known_schools(self) -> Part:
        """Against the family that is written, or against every family of the role while it is to be told."""
        if self.family and self.role not in FAMILIES[self.family].roles:
            fitting = [family.id for family in FAMILIES.values() if self.role in family.roles]
            raise PydanticCustomError(
                "kemble_family",
                "{name} is no {role}",
                {
                    "path": "family",
                    "name": FAMILIES[self.family].name.lower(),
                    "role": self.role,
                    "accepts": " or ".join(fitting) or "nothing here",
                },
            )
        families = [FAMILIES[self.family]] if self.family else [f for f in FAMILIES.values() if self.role in f.roles]
        choices = [choice for family in families for choice in family.choices]
        for choice_id, school in self.schools.items():
            schools = [s.id for choice in choices if choice.id == choice_id for s in choice.schools]
            if school not in schools:
                raise PydanticCustomError(
                    "kemble_school",
                    '"{school}" is not known' if schools else "is not a choice of this part",
                    {
                        "path": f"schools.{choice_id}",
                        "school": school,
                        "accepts": " or ".join(schools) or ", ".join(choice.id for choice in choices),
                    },
                )
        return self

    @model_validator(mode="after")
    def _leaves_something(self) -> Part:
        if not self.lines and not self.takes:
            raise PydanticCustomError(
                "kemble_empty", "the part is empty", {"path": "lines", "accepts": "a line, or a take of another part"}
            )
        if self.rest and self.role == "base":
            raise PydanticCustomError(
                "kemble_rest", "the base goes nowhere else", {"path": "rest", "accepts": "a place for another part"}
            )
        held = self.kept.share or 0.0 if self.kept else 0.0
        away = held + sum(other.share for other in self.made_for)
        if away >= 1:
            raise PydanticCustomError(
                "kemble_shares",
                "{away} of it is kept back or made for others: none is left",
                {"away": f"{away:.0%}", "accepts": "shares that leave some for this sheet"},
            )
        if self.role == "base" and (self.kept or self.made_for or self.made_on):
            raise PydanticCustomError(
                "kemble_shares", "the base is not shared", {"accepts": "shares on the parts beside the base"}
            )
        if self.each_mm is not None and self.role != "heart":
            raise PydanticCustomError(
                "kemble_heart",
                "is only of a whole fruit or nut in the middle",
                {"path": "each_mm", "accepts": "a part with role heart, or nothing here"},
            )
        return self


def place_of(way_id: str, part: Part, output: str = "") -> OutputPlace:
    """Where the rest of an output goes: as the part says, else as is usual in this way; "" is its main output.

    What is made beside the main output is kept, unless the part says otherwise.
    """
    said = part.rest.get(output)
    if said is None and output and part.family and FAMILIES[part.family].main(part.role).id == output:
        said = part.rest.get("")
    if said is not None:
        return said
    if output:
        return unchecked_model(OutputPlace, to="kept")
    usual = WAYS[way_id].rests.get(part.role) or RESTS[part.role]
    return unchecked_model(OutputPlace, to=usual.to, where=usual.where, joins=usual.joins)

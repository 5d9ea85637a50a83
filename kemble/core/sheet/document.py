"""The sheet: one formula being worked out. One JSON document; unknown keys are refused."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Annotated, Any, Literal, get_args

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError, field_validator, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.cards.card import Goes, Where
from kemble.core.cards.parts import FAMILIES, RESTS
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused, problems_from, refuse
from kemble.core.facts.quantity import UNITS, UnitId, grams
from kemble.core.facts.vocabulary import PartRole
from kemble.core.geometry.rolled import CutterShape, Packing
from kemble.core.geometry.tray import PATTERNS, Pattern
from kemble.core.kitchen.document import Level, StageLevel, Tin
from kemble.core.kitchen.larder import OWN, State, larder
from kemble.core.kitchen.larder.names import nearest
from kemble.core.sheet.flow import check_flow
from kemble.core.sheet.lifting import lifted
from kemble.core.text import clean_document
from kemble.core.words import say

FORMAT: Literal["kemble-sheet"] = "kemble-sheet"
VERSION: Literal[2] = 2
MOST_BYTES = 200_000
MOST_AMOUNT = 50_000.0  # 50 kg or 50 l: beyond any kitchen this serves

ROLES: tuple[PartRole, ...] = get_args(PartRole)


class _Document(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Amount(_Document):
    """How much, in any unit of `kemble.core.facts.quantity`."""

    value: float = Field(
        gt=0,
        le=MOST_AMOUNT,
        allow_inf_nan=False,
        description="a number above 0 and at most 50 000",
    )
    unit: UnitId = Field("g", description="g, kg, oz, lb, ml, l, a cup, a spoon, pinch, piece or pack")


JOINS = "a step of the way at which it goes in; left out, from the start"


class Some(_Document):
    """Some of what a part makes: a share of it, or an amount by weight or measure."""

    share: float | None = Field(None, gt=0, le=1, allow_inf_nan=False, description="a share above 0 and at most 1")
    amount: Amount | None = None

    @model_validator(mode="after")
    def _said_once(self) -> Some:
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


class Take(Some):
    """Some of what another part of the sheet makes, taken as an ingredient. `of` is a part, or "part.output"."""

    of: str = Field(
        max_length=40, description='a part of the sheet, as "syrup", or one of its outputs, as "topping.oil"'
    )
    joins: str = Field("", max_length=40, description=JOINS)

    @property
    def source(self) -> tuple[str, str]:
        """The part that makes it, and which of its outputs; "" is what the part is made for."""
        role, _, output = self.of.partition(".")
        return role, output


class Place(_Document):
    """Where the rest of what a part makes goes. Of a tin under, wall, through or over; of a piece within or round."""

    to: Goes = Field("whole", description="a part of the sheet, or whole, beside or kept")
    where: Where | None = Field(None, description="under, wall, through, over, within or round")
    joins: str = Field("", max_length=40, description=JOINS)


class Split(_Document):
    """A share of a line that goes in at its own step, or (with `to`) into another part. Shares add up to 1."""

    share: float = Field(gt=0, le=1, allow_inf_nan=False, description="a share above 0 and at most 1")
    at: str = Field("", max_length=60, description="a few words: where this share goes")
    to: PartRole | None = Field(None, description="a part of the sheet")
    joins: str = Field("", max_length=40, description=JOINS)


class Line(_Document):
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
            like = nearest(value)
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


class MadeFor(_Document):
    """A share of a part that is made here for another sheet too."""

    sheet: str = Field(min_length=1, max_length=120, description="the title of the other sheet")
    share: float = Field(gt=0, lt=1, allow_inf_nan=False, description="a share above 0 and under 1")


class Part(_Document):
    """A formula of its own. `family` is what kind of part it is; left out, it follows from way and lines.

    `lines` are its ingredients, `takes` what it takes of other parts. `rest` says of each output where it goes once
    others have taken theirs; left out, as is usual in its way. `each_g` is how much of it goes on or in a piece,
    `each_mm` how large a whole fruit or nut is across; `pan` is the pan it is finished in. `kept` is held back from it;
    `made_for` leaves for other sheets; `made_on` says that another sheet makes it.
    """

    role: PartRole = Field("base", description=", ".join(ROLES))
    name: str = Field("", max_length=60, description="a name of at most 60 letters")
    family: str = Field("", max_length=40, description=" or ".join(FAMILIES))
    schools: dict[str, str] = Field({}, max_length=8, description="choices of this kind of part")
    lines: tuple[Line, ...] = Field((), max_length=40, description="at most 40 lines")
    takes: tuple[Take, ...] = Field((), max_length=12, description="at most 12 takes")
    rest: dict[str, Place] = Field({}, max_length=4, description="a place for an output of this part")
    each_g: float | None = Field(None, gt=0, le=500, allow_inf_nan=False, description="above 0, at most 500 g a piece")
    each_mm: float | None = Field(None, ge=2, le=100, allow_inf_nan=False, description="2 to 100 mm across")
    pan: str = Field("", max_length=40, description="a pan of the kitchen")
    kept: Some | None = None
    kept_for: str = Field("", max_length=60, description="a few words: what it is kept for")
    made_for: tuple[MadeFor, ...] = Field((), max_length=8, description="at most 8 sheets")
    made_on: str = Field("", max_length=120, description="the title of the sheet that makes it")

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


Water = Literal["all", "poured", "own"]


class Grain(_Document):
    """How whole grain is made ready: rinsed, soaked so long in water so warm, drained.

    `water` is what the liquid lines of the base say: all the water that the cooked grain is to have; what is poured on
    once it has drained; or the grain's own, in which it is soaked and cooked, nothing drained.
    """

    rinses: int = Field(3, ge=0, le=12, description="a whole number from 0 to 12")
    soak_min: float = Field(480.0, ge=0, le=2880, allow_inf_nan=False, description="0 to 2880 minutes")
    soak_c: float = Field(18.0, ge=1, le=55, allow_inf_nan=False, description="1 to 55 °C; hotter, it begins to gel")
    drain_min: float = Field(30.0, ge=0, le=240, allow_inf_nan=False, description="0 to 240 minutes")
    water: Water = Field("all", description="all, poured or own")


class Pieces(_Document):
    """How many, and at most two of a piece's own measures; what is left out follows, shared equally.

    `filling_g` is everything inside the skin, a whole fruit or nut with it. With a coat outside (half-crushed balls)
    the skin is the coat.
    """

    count: int | None = Field(None, ge=1, le=500, description="a whole number from 1 to 500")
    dough_g: float | None = Field(None, gt=0, le=500, allow_inf_nan=False, description="above 0, at most 500 g")
    filling_g: float | None = Field(None, gt=0, le=300, allow_inf_nan=False, description="above 0, at most 300 g")
    piece_g: float | None = Field(None, gt=0, le=800, allow_inf_nan=False, description="above 0, at most 800 g")
    skin_pct: float | None = Field(
        None, ge=1, le=99, allow_inf_nan=False, description="1 to 99 per cent of the piece's weight"
    )
    skin_mm: float | None = Field(None, ge=0.2, le=60, allow_inf_nan=False, description="0.2 to 60 mm")
    diameter_mm: float | None = Field(None, ge=5, le=150, allow_inf_nan=False, description="5 to 150 mm")
    bare_pct: float | None = Field(
        None, ge=0, le=60, allow_inf_nan=False, description="0 to 60 per cent of what is within, left showing"
    )
    trim_pct: float | None = Field(
        None,
        ge=0,
        le=50,
        allow_inf_nan=False,
        description="0 to 50 per cent of the dough, pinched off once it is closed",
    )

    @property
    def measures(self) -> dict[str, float]:
        """The measures of a piece that are said, by their field's name."""
        values = {name: getattr(self, name) for name in PIECE_MEASURES}
        return {name: value for name, value in values.items() if value is not None}

    @model_validator(mode="after")
    def _two_at_most(self) -> Pieces:
        said = self.measures
        if len(said) > 2:
            raise PydanticCustomError(
                "kemble_pieces",
                "{count} measures of a piece are one too many: two of them give the rest",
                {"path": list(said)[-1], "count": len(said), "accepts": "at most two of " + ", ".join(PIECE_MEASURES)},
            )
        return self


PIECE_MEASURES = ("dough_g", "filling_g", "piece_g", "skin_pct", "skin_mm", "diameter_mm")


class Rolled(_Document):
    """Dough rolled out and cut with a cutter. Left out, the cutter is the disc that the piece wants.

    With `length_mm` and `width_mm` all of it is rolled to that size: how thick it is then, and what a cut weighs.
    """

    cutter_mm: float | None = Field(None, ge=10, le=300, allow_inf_nan=False, description="10 to 300 mm across")
    shape: CutterShape = Field("round", description="round or square")
    packing: Packing = Field("hexagonal", description="square or hexagonal")
    gap_mm: float = Field(2.0, ge=0, le=30, allow_inf_nan=False, description="0 to 30 mm between cuts")
    again: int = Field(1, ge=0, le=5, description="trimmings rolled again 0 to 5 times")
    board_length_mm: float = Field(450.0, ge=100, le=1500, allow_inf_nan=False, description="100 to 1500 mm")
    board_width_mm: float = Field(300.0, ge=100, le=1500, allow_inf_nan=False, description="100 to 1500 mm")
    length_mm: float | None = Field(None, ge=50, le=1500, allow_inf_nan=False, description="50 to 1500 mm")
    width_mm: float | None = Field(None, ge=50, le=1500, allow_inf_nan=False, description="50 to 1500 mm")


Wrapped = Literal["leaf", "foil", "leaf-foil"]


class Wrap(_Document):
    """One leaf measured, how many go to a parcel, what is round a packet and how thick it is folded.

    Without a measure nothing is worked out from the leaf.
    """

    leaf_length_mm: float | None = Field(None, ge=60, le=1200, allow_inf_nan=False, description="60 to 1200 mm")
    leaf_width_mm: float | None = Field(None, ge=20, le=500, allow_inf_nan=False, description="20 to 500 mm")
    leaves: int | None = Field(None, ge=1, le=4, description="1 to 4 leaves to a parcel")
    outer: Wrapped | None = Field(None, description="leaf, foil or leaf-foil")
    thick_mm: float | None = Field(None, ge=6, le=60, allow_inf_nan=False, description="6 to 60 mm")

    @property
    def leaf_mm(self) -> tuple[float, float] | None:
        """Length and width of one leaf, if both are said."""
        return (self.leaf_length_mm, self.leaf_width_mm) if self.leaf_length_mm and self.leaf_width_mm else None


class MoreTins(_Document):
    """Further tins of another size that the same batch is poured into."""

    tin: Tin
    count: int = Field(1, ge=1, le=12, description="1 to 12 tins")


Lining = Literal["none", "paper", "leaf"]


class Vessel(_Document):
    """The tins a batter is poured into, all filled to one depth."""

    tin: Tin = Tin()
    lining: Lining = Field("none", description="none, paper or leaf")
    count: int = Field(1, ge=1, le=12, description="1 to 12 tins")
    more: tuple[MoreTins, ...] = Field((), max_length=5, description="at most 5 further sizes of tin")

    @property
    def tins(self) -> tuple[tuple[Tin, int], ...]:
        """Every size of tin, and how many of it."""
        return (self.tin, self.count), *((more.tin, more.count) for more in self.more)

    @property
    def floor_mm2(self) -> float:
        """The floor of all the tins together."""
        return sum(tin.floor_mm2 * count for tin, count in self.tins)


class Bag(_Document):
    """A bag in which a cooked mass is rolled to a sheet; inside measures."""

    length_mm: float = Field(260.0, ge=80, le=600, allow_inf_nan=False, description="80 to 600 mm")
    width_mm: float = Field(200.0, ge=80, le=600, allow_inf_nan=False, description="80 to 600 mm")


class HeatStage(_Document):
    """One stage of the heat. Without a level or an oven's temperature it keeps the sheet's own; without minutes it goes
    on until it is done. `says` is what to do or to look for."""

    level: StageLevel | None = Field(None, description="off, low, medium or high")
    oven_c: float | None = Field(None, ge=120, le=260, allow_inf_nan=False, description="120 to 260 °C")
    minutes: float | None = Field(None, ge=0.5, le=720, allow_inf_nan=False, description="0.5 to 720 minutes")
    top_up_ml: float = Field(
        0.0, ge=0, le=5000, allow_inf_nan=False, description="0 to 5000 ml, topped up boiling as it begins"
    )
    says: str = Field("", max_length=80, description="a few words: what to do, or to look for")


class Heat(_Document):
    """How strong the heat is, all the way or by `stages`."""

    level: Level = Field("medium", description="low, medium or high")
    oven_c: float = Field(175.0, ge=120, le=260, allow_inf_nan=False, description="120 to 260 °C")
    griddle_c: float | None = Field(None, ge=120, le=260, allow_inf_nan=False, description="120 to 260 °C")
    vessel: str = Field("", max_length=40, description="a steamer or a pot of the kitchen; left out, one that fits")
    stages: tuple[HeatStage, ...] = Field((), max_length=6, description="at most 6 stages")

    @field_validator("stages")
    @classmethod
    def _one_until_done(cls, value: tuple[HeatStage, ...]) -> tuple[HeatStage, ...]:
        if sum(stage.minutes is None for stage in value) > 1:
            raise PydanticCustomError(
                "kemble_stages",
                "goes on until it is done in more than one stage",
                {"accepts": "minutes for every stage but one"},
            )
        return value


class Taught(_Document):
    """A time that somebody gave: a relative, a teacher, a book."""

    minutes: float = Field(gt=0, le=6000, allow_inf_nan=False, description="above 0, at most 6000 minutes")
    by: str = Field("", max_length=60, description="a few words: who says so")


# The way's own heat, its rest and its soak; or any step of the sheet, by its id.
TaughtOf = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]*$", max_length=60)]


class Start(_Document):
    """Temperatures at which the pieces or the batter go into the heat, in °C. A batter's is the way's usual, left out."""

    batter_c: float | None = Field(None, ge=1, le=90, description="1 to 90 °C")
    dough_c: float = Field(26.0, ge=1, le=95, description="1 to 95 °C")
    scald_pct: float | None = Field(
        None, ge=0, le=100, allow_inf_nan=False, description="0 to 100 per cent of the dough's water, poured on boiling"
    )


class Cut(_Document):
    """How a tray is cut: so many pieces, or pieces of a side, or of a weight.

    `even`: in a round tray every piece of the same area, nothing left over. `small` pieces are cut once more, for
    small children and old people.
    """

    pattern: Pattern = Field("squares", description=", ".join(PATTERNS))
    pieces: int = Field(24, ge=1, le=400, description="a whole number from 1 to 400")
    side_mm: float | None = Field(None, ge=5, le=600, allow_inf_nan=False, description="5 to 600 mm")
    long_mm: float | None = Field(None, ge=5, le=600, allow_inf_nan=False, description="5 to 600 mm, the longer side")
    piece_g: float | None = Field(None, gt=0, le=2000, allow_inf_nan=False, description="above 0, at most 2000 g")
    even: bool = False
    small: int = Field(0, ge=0, le=400, description="a whole number from 0 to 400")

    @model_validator(mode="after")
    def _one_way_to_say_it(self) -> Cut:
        if self.side_mm is not None and self.piece_g is not None:
            raise PydanticCustomError(
                "kemble_cut",
                "is one measure too many beside the side",
                {"path": "piece_g", "accepts": "either a side or a weight"},
            )
        return self


class Sheet(_Document):
    """A formula with everything that its working needs. Only `way` and `parts` have no default."""

    format: Literal["kemble-sheet"] = Field(FORMAT, description=f'"{FORMAT}"')
    version: Literal[2] = Field(VERSION, description="2")
    title: str = Field("Untitled sheet", min_length=1, max_length=120, description="1 to 120 letters")
    way: str = Field(max_length=40, description="one of " + ", ".join(WAYS))
    schools: dict[str, str] = Field({}, max_length=12, description="choices of the way")
    parts: tuple[Part, ...] = Field(min_length=1, max_length=12, description="1 to 12 parts, one of them the base")
    grain: Grain = Grain()
    pieces: Pieces = Pieces()
    rolled: Rolled = Rolled()
    vessel: Vessel = Vessel()
    bag: Bag = Bag()
    wrap: Wrap = Wrap()
    heat: Heat = Heat()
    start: Start = Start()
    taught: dict[TaughtOf, Taught] = Field(
        {}, max_length=40, description="times taught for heat, rest or soak, or for a step by its id: at most 40"
    )
    cut: Cut = Cut()
    serve: str | None = Field(
        None,
        pattern=r"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$",
        description="a date and time on the kitchen's clock, such as 2026-12-05T15:30",
    )

    @model_validator(mode="before")
    @classmethod
    def _of_any_version(cls, content: Any) -> Any:
        return lifted(content)

    @field_validator("way")
    @classmethod
    def _known_way(cls, value: str) -> str:
        if value not in WAYS:
            raise PydanticCustomError(
                "kemble_way", '"{way}" is not a known way', {"way": value, "accepts": " or ".join(WAYS)}
            )
        return value

    @model_validator(mode="after")
    def _fits_its_way(self) -> Sheet:
        way = WAYS[self.way]
        for choice_id, school in self.schools.items():
            choice = next((c for c in way.choices if c.id == choice_id), None)
            if choice is None:
                raise PydanticCustomError(
                    "kemble_school",
                    "is not a choice of this way",
                    {"path": f"schools.{choice_id}", "accepts": ", ".join(c.id for c in way.choices)},
                )
            if school not in [s.id for s in choice.schools]:
                raise PydanticCustomError(
                    "kemble_school",
                    '"{school}" is not known',
                    {
                        "path": f"schools.{choice_id}",
                        "school": school,
                        "accepts": " or ".join(s.id for s in choice.schools),
                    },
                )
        roles = [part.role for part in self.parts]
        if len(set(roles)) < len(roles):
            raise PydanticCustomError(
                "kemble_parts",
                "a role occurs in two parts",
                {"path": "parts", "accepts": "each role at most once"},
            )
        if "base" not in roles:
            raise PydanticCustomError(
                "kemble_parts",
                "the base part is missing",
                {"path": "parts", "accepts": "a part with role base"},
            )
        self._check_base()
        self._check_shares(set(roles))
        check_flow(self)
        return self

    def _check_base(self) -> None:
        kind = WAYS[self.way].base
        items = [larder().get(line.ingredient) for line in self.base.lines]
        if not any(item is None or item.group == kind for item in items):
            raise PydanticCustomError(
                "kemble_parts",
                "the base has no {kind}",
                {
                    "path": "parts",
                    "kind": "flour" if kind == "flour" else "whole grain",
                    "accepts": f"a base with a line of sweet rice{' flour' if kind == 'flour' else ''}",
                },
            )

    def _check_shares(self, roles: set[PartRole]) -> None:
        for p, part in enumerate(self.parts):
            for i, line in enumerate(part.lines):
                for j, split in enumerate(line.splits):
                    if split.to is not None and split.to not in roles:
                        raise PydanticCustomError(
                            "kemble_split_to",
                            "there is no {to} on this sheet",
                            {
                                "path": f"parts.{p}.lines.{i}.splits.{j}.to",
                                "to": split.to,
                                "accepts": " or ".join(role for role in ROLES if role in roles),
                            },
                        )

    def place(self, part: Part, output: str = "") -> Place:
        """Where the rest of an output goes: as the part says, else as is usual in this way; "" is its main output.

        What is made beside the main output is kept, unless the part says otherwise.
        """
        said = part.rest.get(output)
        if said is None and output and part.family and FAMILIES[part.family].main(part.role).id == output:
            said = part.rest.get("")
        if said is not None:
            return said
        if output:
            return Place(to="kept")
        usual = WAYS[self.way].rests.get(part.role) or RESTS[part.role]
        return Place(to=usual.to, where=usual.where, joins=usual.joins)

    def part(self, role: PartRole) -> Part | None:
        return next((part for part in self.parts if part.role == role), None)

    @property
    def base(self) -> Part:
        return next(part for part in self.parts if part.role == "base")

    @property
    def in_tray(self) -> bool:
        """Whether it lies in tins or a bag and is cut, rather than portioned into pieces."""
        way = WAYS[self.way]
        sheeted = way.sheeted_when
        return way.form == "tin" or (sheeted is not None and self.school(sheeted[0]) == sheeted[1])

    def school(self, choice_id: str) -> str:
        """The school followed for a choice: the sheet's own, else the way's default; "" for a way without the choice."""
        choice = WAYS[self.way].choice(choice_id)
        return (self.schools.get(choice_id) or choice.default) if choice else ""


def read_sheet(data: str | bytes) -> Sheet:
    """A sheet from its JSON text. Raises Refused, naming each path, for anything else."""
    size = len(data.encode() if isinstance(data, str) else data)
    if size > MOST_BYTES:
        refuse(
            "the document",
            say("is {size:,} bytes long", size=size),
            say("at most {most_bytes:,} bytes", most_bytes=MOST_BYTES),
        )
    try:
        content = clean_document(json.loads(data))
    except Refused:
        raise
    except (ValueError, RecursionError):
        refuse("the document", say("is not JSON"), say("one JSON object, a kemble-sheet"))
    return sheet_from(content)


def sheet_from(content: object) -> Sheet:
    """A sheet from parsed JSON. Raises Refused, naming each path, for anything else.

    >>> line = {"ingredient": "sweet-rice-flour", "amount": {"value": -3, "unit": "g"}}
    >>> try:
    ...     sheet_from({"way": "boiled-balls", "parts": [{"role": "base", "lines": [line]}]})
    ... except Refused as refused:
    ...     print(refused.problems[0].path, "|", refused.problems[0].accepts)
    parts.0.lines.0.amount.value | a number above 0 and at most 50 000
    """
    try:
        return Sheet.model_validate(content)
    except ValidationError as error:
        raise Refused(problems_from(error, Sheet)) from None


def default_sheet(way_id: str) -> Sheet:
    """The way's own starting sheet, ready to edit. Raises Refused for a way that does not exist."""
    return sheet_from({"way": way_id, **_starting(way_id)})


def blank_sheet(way_id: str) -> Sheet:
    """A sheet with nothing in it but the way's flour or grain. Raises Refused for a way that does not exist."""
    start = _starting(way_id)
    base = next(part for part in start["parts"] if part["role"] == "base")
    part = {"role": "base", "name": base["name"], "lines": base["lines"][:1]}
    return sheet_from({"way": way_id, "title": say("Blank sheet"), "parts": [part]})


def _starting(way_id: str) -> Mapping[str, Any]:
    if way_id not in WAYS:
        refuse("way", say('"{way_id}" is not a known way', way_id=way_id), " or ".join(WAYS))
    return WAYS[way_id].starting_sheet

"""The sheet's document. One JSON document; unknown keys are refused."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from typing import Any, Literal

from pydantic import Field, ValidationError, field_validator, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused, problems_from, refuse
from kemble.core.facts.vocabulary import PartId, PartRole, role_of
from kemble.core.geometry.rolled_dough import CutterShape, Packing
from kemble.core.geometry.tray_cutting import PATTERNS, Pattern
from kemble.core.kitchen.document import Level, StageLevel, Tin
from kemble.core.kitchen.larder import larder
from kemble.core.sentences import say
from kemble.core.sheet.method import MOST_ENTRIES, Method, check_method, stages_in
from kemble.core.sheet.part_flow import check_flow
from kemble.core.sheet.parts import OutputPlace, Part, SheetModel, place_of
from kemble.core.sheet.upgrades import upgrade_sheet
from kemble.core.text_cleaning import clean_document

FORMAT: Literal["kemble-sheet"] = "kemble-sheet"
VERSION: Literal[3] = 3
MOST_BYTES = 200_000


Water = Literal["all", "poured", "own"]


class Grain(SheetModel):
    """How whole grain is made ready: rinsed, soaked so long in water so warm, drained.

    `water` is what the liquid lines of the base say: all the water that the cooked grain is to have; what is poured on
    once it has drained; or the grain's own, in which it is soaked and cooked, nothing drained.
    """

    rinses: int = Field(3, ge=0, le=12, description="a whole number from 0 to 12")
    soak_min: float = Field(480.0, ge=0, le=2880, allow_inf_nan=False, description="0 to 2880 minutes")
    soak_c: float = Field(18.0, ge=1, le=55, allow_inf_nan=False, description="1 to 55 °C; hotter, it begins to gel")
    drain_min: float = Field(30.0, ge=0, le=240, allow_inf_nan=False, description="0 to 240 minutes")
    water: Water = Field("all", description="all, poured or own")


class Pieces(SheetModel):
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


class RolledDough(SheetModel):
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


class Wrap(SheetModel):
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


class MoreTins(SheetModel):
    """Further tins of another size that the same batch is poured into."""

    tin: Tin
    count: int = Field(1, ge=1, le=12, description="1 to 12 tins")


Lining = Literal["none", "paper", "leaf"]


class Vessel(SheetModel):
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


class Bag(SheetModel):
    """A bag in which a cooked mass is rolled to a sheet; inside measures."""

    length_mm: float = Field(260.0, ge=80, le=600, allow_inf_nan=False, description="80 to 600 mm")
    width_mm: float = Field(200.0, ge=80, le=600, allow_inf_nan=False, description="80 to 600 mm")


class HeatStage(SheetModel):
    """One stage of the heat. Without a level or an oven's temperature it keeps the sheet's own; without minutes it goes
    on until it is done. `says` is what to do or to look for."""

    level: StageLevel | None = Field(None, description="off, low, medium-low, medium, medium-high or high")
    oven_c: float | None = Field(None, ge=120, le=260, allow_inf_nan=False, description="120 to 260 °C")
    minutes: float | None = Field(None, ge=0.5, le=720, allow_inf_nan=False, description="0.5 to 720 minutes")
    top_up_ml: float = Field(
        0.0, ge=0, le=5000, allow_inf_nan=False, description="0 to 5000 ml, topped up boiling as it begins"
    )
    says: str = Field("", max_length=80, description="a few words: what to do, or to look for")


class Heat(SheetModel):
    """How strong the heat is, all the way or by `stages`."""

    level: Level = Field("medium", description="low, medium-low, medium, medium-high or high")
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


class StartTemperatures(SheetModel):
    """Temperatures at which the pieces or the batter go into the heat, in °C. A batter's is the way's usual, left out."""

    batter_c: float | None = Field(None, ge=1, le=90, description="1 to 90 °C")
    dough_c: float = Field(26.0, ge=1, le=95, description="1 to 95 °C")
    scald_pct: float | None = Field(
        None, ge=0, le=100, allow_inf_nan=False, description="0 to 100 per cent of the dough's water, poured on boiling"
    )


class Cut(SheetModel):
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


class Sheet(SheetModel):
    """A formula with everything that its working needs. Only `way` and `parts` have no default."""

    format: Literal["kemble-sheet"] = Field(FORMAT, description=f'"{FORMAT}"')
    version: Literal[3] = Field(VERSION, description="3")
    title: str = Field("Untitled sheet", min_length=1, max_length=120, description="1 to 120 letters")
    way: str = Field(max_length=40, description="one of " + ", ".join(WAYS))
    schools: dict[str, str] = Field({}, max_length=12, description="choices of the way")
    parts: tuple[Part, ...] = Field(min_length=1, max_length=12, description="1 to 12 parts, one of them the base")
    grain: Grain = Grain()
    pieces: Pieces = Pieces()
    rolled: RolledDough = RolledDough()
    vessel: Vessel = Vessel()
    bag: Bag = Bag()
    wrap: Wrap = Wrap()
    heat: Heat = Heat()
    start: StartTemperatures = StartTemperatures()
    method: Method = Field((), max_length=MOST_ENTRIES, description="at most 80 entries")
    cut: Cut = Cut()
    serve: str | None = Field(
        None,
        pattern=r"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$",
        description="a date and time on the kitchen's clock, such as 2026-12-05T15:30",
    )

    @model_validator(mode="before")
    @classmethod
    def _of_any_version(cls, content: Any) -> Any:
        return upgrade_sheet(content)

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
        ids = [part.id for part in self.parts]
        if len(set(ids)) < len(ids):
            twice = next(part_id for part_id in ids if ids.count(part_id) > 1)
            raise PydanticCustomError(
                "kemble_parts",
                'two parts are called "{id}"',
                {"path": "parts", "id": twice, "accepts": f"an id of its own for each, such as {role_of(twice)}-2"},
            )
        if [part.role for part in self.parts].count("base") > 1:
            raise PydanticCustomError(
                "kemble_parts", "there are two bases", {"path": "parts", "accepts": "one part with role base"}
            )
        if "base" not in ids:
            raise PydanticCustomError(
                "kemble_parts",
                "the base part is missing",
                {"path": "parts", "accepts": "a part with role base"},
            )
        self._check_base()
        self._check_shares(ids)
        check_flow(WAYS[self.way], self.parts, len(self.heat.stages), stages_in(self.method))
        check_method(self.method)
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

    def _check_shares(self, ids: Sequence[PartId]) -> None:
        for p, part in enumerate(self.parts):
            for i, line in enumerate(part.lines):
                for j, split in enumerate(line.splits):
                    if split.to is not None and split.to not in ids:
                        raise PydanticCustomError(
                            "kemble_split_to",
                            "there is no {to} on this sheet",
                            {
                                "path": f"parts.{p}.lines.{i}.splits.{j}.to",
                                "to": split.to,
                                "accepts": " or ".join(ids),
                            },
                        )

    def place(self, part: Part, output: str = "") -> OutputPlace:
        """Where the rest of an output goes on this sheet; "" is its main output."""
        return place_of(self.way, part, output)

    def part(self, part_id: PartId) -> Part | None:
        return next((part for part in self.parts if part.id == part_id), None)

    def parts_of(self, role: PartRole) -> tuple[Part, ...]:
        return tuple(part for part in self.parts if part.role == role)

    @property
    def base(self) -> Part:
        return next(part for part in self.parts if part.id == "base")

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

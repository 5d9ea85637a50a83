"""The class of a way's card; each file in `ways/` fills in one.

Everything the stations, the plan and the screens need to know of a way is here as data, so that a new way is
one new file. Nothing in it computes but the outline of a zone.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from kemble.core.cards.card_parts import (
    NONE,
    Adds,
    Band,
    Brings,
    CauseEvidence,
    Choice,
    Count,
    Cue,
    Fault,
    Minutes,
    OutputDestination,
    Rhythm,
    School,
    Sentence,
    Step,
    StepDependency,
    StepId,
    Variant,
    always,
    stage_of,
)
from kemble.core.cards.taste_scales import TasteId
from kemble.core.facts.vocabulary import PartRole

__all__ = [
    "Adds",
    "Band",
    "Brings",
    "CauseEvidence",
    "Choice",
    "Count",
    "Cue",
    "Fault",
    "Limit",
    "Minutes",
    "OutputDestination",
    "RecipeSigns",
    "Rhythm",
    "School",
    "Sentence",
    "Step",
    "StepDependency",
    "Variant",
    "Way",
    "always",
    "outline",
]

BaseKind = Literal["flour", "grain"]
Form = Literal["tin", "ball", "pull", "parcel", "packet"]
HeatMethod = Literal["steam", "dish", "grain", "boil", "bake", "gather", "wrapped", "pan", "microwave"]
FinishKind = Literal["toast", "toast-pan", "griddle", "fry", "fry-plain", "fry-deep"]
GrainCook = Literal["steam", "lid", "cooker", "parcel", "ground"]
Schools = Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Limit:
    """A working band on any fact, and what to say on either side of it."""

    fact: str
    low: float
    high: float
    too_little: str
    too_much: str


@dataclass(frozen=True, slots=True)
class RecipeSigns:
    """How a pasted recipe shows that it is of this way.

    `ingredients`: sets of groups or ids, each with its rank; a list that holds all of a set points to the way, the lowest
    rank of all ways first. `method`: a pattern of what its method says, in `words` for the cook. `heat`: a pattern of the
    verbs of its heat, by which the times of the cake are told from others.
    """

    ingredients: tuple[tuple[int, tuple[str, ...]], ...]
    method: str = ""
    words: str = ""
    heat: str = ""


@dataclass(frozen=True, slots=True)
class Way:
    """A family of making, read like a recipe card."""

    id: str
    name: str
    says: str
    kin: tuple[str, ...]  # dishes of this family, by their own names: sought by, shown beside, never the name
    said: tuple[str, ...]  # everyday words somebody may seek it by
    form: Form
    heat: HeatMethod
    hydration: Band
    sugar: Band
    fat: Band
    midway: tuple[float, float]  # hydration and sugar of a batch that is neither soft nor firm
    zone: tuple[tuple[float, float], ...]  # the working zone on the map: hydration, sugar
    zone_words: tuple[tuple[float, float, str], ...]  # what lies in which direction
    choices: tuple[Choice, ...]
    steps: tuple[Step, ...]
    faults: tuple[Fault, ...]
    tastes: tuple[TasteId, ...]  # scales of kemble.core.cards.taste_scales, asked of everybody
    cautions: tuple[str, ...]  # ids in kemble.core.cards.cautions
    starting_sheet: Mapping[str, Any]
    signs: RecipeSigns
    base: BaseKind = "flour"
    more_tastes: tuple[TasteId, ...] = ()  # for whoever has more to say
    portions: Literal["raw", "cooked"] = "raw"  # weighed out and shaped before its heat, or after
    counted: tuple[PartRole, ...] = ("base",)  # the parts whose raw lines the ratios and the batch count
    cooks: tuple[str, ...] = ()  # the steps in which the base is cooked; what joins at a later one is not in that heat
    rests: Mapping[PartRole, OutputDestination] = field(
        default_factory=dict
    )  # where a part's rest goes, other than is usual
    parts: Mapping[PartRole, str] = field(default_factory=dict)  # the usual family of each part
    grain_cook: Mapping[str, GrainCook] = field(default_factory=dict)  # by school of the choice "grain"
    wraps: Literal["inside", "outside"] = "inside"  # where the filling lies
    least_skin_mm: float = 0.0  # under it the outer layer tears
    least_skin_by: tuple[tuple[str, str, float], ...] = ()  # choice, school, and the least there
    rolled_when: tuple[str, str] | None = None  # the choice and school in which dough is rolled out and cut round
    sheeted_when: tuple[str, str] | None = None  # ... in which the mass is sheeted in a bag, set and cut in blocks
    usual_piece_g: float = 18.0
    cook_loss_pct: Band = NONE  # of the base part's mass, negative where it gains
    cook_loss_by: tuple[tuple[str, str, Band], ...] = ()  # choice, school, and the loss there
    limits: tuple[Limit, ...] = ()
    heat_by: tuple[tuple[str, str, HeatMethod], ...] = ()  # choice, school, and the heat there
    finishes: tuple[tuple[str, str, FinishKind], ...] = ()  # choice, school, and what is done once it has set
    finish_by: tuple[tuple[str, str, FinishKind], ...] = ()  # ... otherwise than usual, by another choice
    board_mm: float = 20.0  # how thick the cooked mass lies while it cools
    batter_c: float = 45.0  # at which a batter usually goes into its heat
    batter_by: tuple[tuple[str, str, float], ...] = ()  # choice, school, and at which it does there
    scalds: tuple[tuple[str, str, float], ...] = ()  # choice, school, and the share of the water poured on boiling
    hands_salt_pct: float = 0.0  # of salt in the water that hands are wetted with; none where they are not
    handle_c: tuple[float, float] = (65.0, 40.0)  # the handling window of the cooked mass, °C
    restores: str = "steam it, five minutes"  # what softens it again once the cold has hardened it
    leaves_each: int = 0  # leaves to a parcel
    words: Mapping[str, str] = field(default_factory=dict)  # what this way calls its dough, filling and piece

    def choice(self, choice_id: str) -> Choice | None:
        return next((choice for choice in self.choices if choice.id == choice_id), None)

    def step(self, step_id: StepId) -> Step | None:
        return next((step for step in self.steps if step.id == step_id), None)

    @property
    def scales(self) -> tuple[TasteId, ...]:
        """Every scale that a tongue may mark."""
        return (*self.tastes, *self.more_tastes)

    @property
    def last_cook(self) -> int:
        """Where among the steps the base is cooked: what joins after it was not in the heat."""
        return max((i for i, step in enumerate(self.steps) if step.id in self.cooks), default=-1)

    def joins_late(self, step_id: str) -> bool:
        """Whether what joins at a step does so once the base is cooked."""
        if not step_id:
            return False
        whole, stage = stage_of(step_id)
        at = next((i for i, step in enumerate(self.steps) if step.id in (step_id, whole)), -1)
        return bool(self.cooks) and (at > self.last_cook or (at == self.last_cook and stage > 1))

    def loss(self, schools: Schools) -> Band:
        """Water lost by the base in its heat, in per cent of its mass, by the schools followed."""
        return next(
            (band for choice, school, band in self.cook_loss_by if schools.get(choice) == school), self.cook_loss_pct
        )

    def heat_of(self, schools: Schools) -> HeatMethod:
        """The heat, by the schools followed."""
        return next((heat for choice, school, heat in self.heat_by if schools.get(choice) == school), self.heat)

    def batter(self, schools: Schools) -> float:
        """°C at which a batter goes into its heat, by the schools followed."""
        result = (celsius for choice, school, celsius in self.batter_by if schools.get(choice) == school)
        return next(result, self.batter_c)

    def scalded(self, schools: Schools) -> float | None:
        """The share of the dough's water that is poured on boiling; None in a way that does not ask."""
        return next((share for choice, school, share in self.scalds if schools.get(choice) == school), None)

    def least_skin(self, schools: Schools) -> float:
        """The thinnest outer layer that holds, in mm, by the schools followed."""
        result = (least for choice, school, least in self.least_skin_by if schools.get(choice) == school)
        return next(result, self.least_skin_mm)

    def word(self, of: str) -> str:
        """What this way calls its dough ("dough"), filling ("filling") or piece ("piece")."""
        return self.words.get(of, of)

    @property
    def many_pieces(self) -> str:
        """What it calls several of its pieces: "balls"."""
        return f"{self.word('piece')}s"


def outline(hydration: Band, sugar: Band) -> tuple[tuple[float, float], ...]:
    """The outline of a working zone on the map: the two bands with their corners rounded off.

    A band of sugar that begins at none is cut straight there, so that a sheet without sugar lies inside.
    """
    floor = sugar.low if sugar.low > 0 else -0.15 * sugar.high
    points = []
    for i in range(14):
        turn = 2 * math.pi * (i + 0.5) / 14
        across, up = math.cos(turn), math.sin(turn)
        x = hydration.middle + (hydration.high - hydration.low) / 2 * math.copysign(abs(across) ** 0.55, across)
        y = floor + (sugar.high - floor) / 2 * (1 + math.copysign(abs(up) ** 0.55, up))
        points.append((round(x, 1), round(max(0.0, y), 1)))
    return tuple(points)

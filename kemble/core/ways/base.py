"""The card of a way: the data that one file in this folder fills in.

Everything the stations, the plan and the screens need to know of a way is here as data, so that a new way is
one new file. Nothing in it computes.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

Hands = Literal["held", "minded", "free"]
Resource = Literal["burner", "steamer", "oven", "freezer", "fridge", "counter"]
Form = Literal["tin", "ball"]
HeatMethod = Literal["steam", "boil"]


@dataclass(frozen=True, slots=True)
class Band:
    """A working range, in per cent of flour or dry grain."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2


@dataclass(frozen=True, slots=True)
class School:
    """One side of a choice on which cooks differ, and what it buys."""

    id: str
    label: str
    buys: str


@dataclass(frozen=True, slots=True)
class Choice:
    id: str
    station: Literal["mix", "shape", "heat", "cut"]  # where it is made
    title: str
    default: str
    schools: tuple[School, ...]


@dataclass(frozen=True, slots=True)
class Minutes:
    """How long a step takes: a fixed part, a part a piece, and a fact of the sheet (times a factor)."""

    fixed: float = 0.0
    per_piece: float = 0.0
    fact: str | None = None
    times_fact: str | None = None


@dataclass(frozen=True, slots=True)
class After:
    """This step begins once `step` has ended, at least and at most so many minutes later."""

    step: str
    at_least: float = 0.0
    at_most: float | None = None


@dataclass(frozen=True, slots=True)
class Cue:
    """What to look at to know it is done: the question, and how yes and no look."""

    question: str
    how: str
    yes: str
    no: str
    looks: str  # name of the drawing that shows both


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the work. `when` limits it to schools; `part` to sheets that have that part."""

    id: str
    title: str
    words: str
    minutes: Minutes
    hands: Hands
    after: tuple[After, ...] = ()
    uses: tuple[Resource, ...] = ()
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    part: str | None = None
    cue: Cue | None = None
    window: tuple[str, str, str] | None = None  # facts: first check, done, latest
    weigh: str | None = None  # fact that the scale should show
    lists: str | None = None  # part whose lines are to hand at this step
    lists_groups: tuple[str, ...] = ()  # only these groups of them; all, when empty
    caution: str = ""


@dataclass(frozen=True, slots=True)
class Evidence:
    """A fact that makes a cause likely when it lies on that side of the way's band or of a number."""

    fact: str
    side: Literal["low", "high"]
    than: float


@dataclass(frozen=True, slots=True)
class Fault:
    id: str
    seen: str
    cause: str
    now: str
    next_time: str
    evidence: tuple[Evidence, ...] = ()


@dataclass(frozen=True, slots=True)
class Taste:
    """A just-about-right scale: two ends and the middle."""

    id: str
    too_little: str
    too_much: str


@dataclass(frozen=True, slots=True)
class Way:
    """A family of making, read like a recipe card."""

    id: str
    name: str
    says: str
    kin: tuple[str, ...]  # search only, never shown as the name
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
    tastes: tuple[Taste, ...]
    cautions: tuple[str, ...]  # ids in kemble.core.cautions
    starting_sheet: Mapping[str, Any]
    least_skin_mm: float = 0.0
    cook_loss_pct: Band = Band(0.0, 0.0)

    def choice(self, choice_id: str) -> Choice:
        return next(choice for choice in self.choices if choice.id == choice_id)

    def step(self, step_id: str) -> Step:
        return next(step for step in self.steps if step.id == step_id)

"""What the cards of the ways and of the parts are written in: bands, schools, steps, cues, faults. Data; computes nothing."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from kemble.core.facts.vocabulary import PartRole

# The steps that code asks a way for; any other is between the card and the plan.
StepId = Literal["ball", "freeze-filling", "shape", "snip", "wrap"]
# What kind of work a step is: at the heat, with a blade, fit for a child or a new helper, or that and floury.
Work = Literal["stove", "knife", "safe", "messy"]
Hands = Literal["held", "minded", "free"]
Resource = Literal["burner", "steamer", "oven", "freezer", "fridge", "machine", "counter"]
Looks = Literal[
    "stick",
    "ball",
    "dough",
    "grain",
    "spoon",
    "bean",
    "bake",
    "pan",
    "packet",
    "puff",
    "amber",
    "straw",
    "curd",
    "strand",
]


# Where something lies in or on what is eaten: in a tin under, at the wall, through or over; of a piece within or round.
Where = Literal["under", "wall", "through", "over", "within", "round"]
Goes = PartRole | Literal["whole", "beside", "kept"]


def stage_step(step_id: str, number: int) -> str:
    """The step of one stage of a heat: the first is the card's own, "bake", the next "bake-2"."""
    return step_id if number == 1 else f"{step_id}-{number}"


def stage_of(step_id: str) -> tuple[str, int]:
    """The card's step and the number of its stage."""
    step, _, number = step_id.rpartition("-")
    return (step, int(number)) if step and number.isdecimal() else (step_id, 1)


@dataclass(frozen=True, slots=True)
class OutputDestination:
    """Where what is made of a part goes, once others have taken their share: into another part, into or on the whole,
    beside it on the table, or kept. `joins` is the way's step at which it goes in; empty, from the start."""

    to: Goes
    where: Where | None = None
    joins: str = ""


@dataclass(frozen=True, slots=True)
class Band:
    """A working range, in per cent of flour or dry grain unless said otherwise."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2


NONE = Band(0.0, 0.0)


# Added to a group, an ingredient or a role: it goes in at this very step.
GOES_IN = " goes in"
# Between a group or an ingredient and the role of the part that it is a line of.
OF_PART = " of the "


@dataclass(frozen=True, slots=True)
class Sentence:
    """One sentence of a step, and the traits that it presumes: it is said where the making has all of them, and none of
    `unless`.

    A trait is one that a school declares ("covered"); the role of a part that the sheet has ("filling"); what a line is, by
    its group, tag or id ("egg"; in a way's step of the base, of a part "foil of the wrapper"); or one of these that goes in
    at this very step ("salt goes in").
    """

    text: str
    presumes: tuple[str, ...]
    unless: tuple[str, ...] = ()


def always(*texts: str) -> tuple[Sentence, ...]:
    """Sentences that presume nothing: they are true wherever their step is done."""
    return tuple(Sentence(text, ()) for text in texts)


@dataclass(frozen=True, slots=True)
class School:
    """One side of a choice on which cooks differ, what it buys, and the traits that a making has by it."""

    id: str
    label: str
    buys: str
    traits: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Choice:
    """A question on which cooks differ. `under`: it is open only under that school of another choice. `default_for`: of a part,
    another default in the ways of a form."""

    id: str
    station: Literal["mix", "shape", "heat", "cut"]  # where it is made
    title: str
    default: str
    schools: tuple[School, ...]
    under: tuple[str, str] | None = None
    default_for: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Minutes:
    """How long a step takes: a fixed part, a part a piece, and a fact of the sheet."""

    fixed: float = 0.0
    per_piece: float = 0.0
    fact: str | None = None


@dataclass(frozen=True, slots=True)
class StepDependency:
    """This step begins once `step` has ended, at least and at most so many minutes later.

    `step` may be the role of a part: then it waits for the last step of making that part.
    """

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
    looks: Looks  # the drawing that shows both


@dataclass(frozen=True, slots=True)
class Rhythm:
    """Something to be done again and again while a step goes on: every so many seconds, in words."""

    every_s: int
    says: str


@dataclass(frozen=True, slots=True)
class Count:
    """Something to be counted while it is done: so many of it, in words."""

    of: int
    what: str


# Grams that a station calculates and that a step's vessel gains or loses: grain and beans take up water in their soaks, the heat drives it off or
# brings it, some of the batch clings to bowls (seen by who weighs it); of the water that the recipe pours, so much is in the
# soaked grain already.
Amount = Literal["soak", "beans", "heat", "clings", "stands-in", "scald"]


@dataclass(frozen=True, slots=True)
class Adds:
    """What goes into a step's vessel: lines by group, tag or id, and parts by role; with neither, all that is left of the lines.

    Of the kinds "soaking" stands for the lines that have a soak of their own. `but`: not what is of such a kind. `share` is of what earlier claims leave, or `by` an amount in grams; `when` limits it to schools. `act` says at which
    moment of the step it goes in.
    """

    kinds: tuple[str, ...] = ()
    parts: tuple[PartRole, ...] = ()
    but: tuple[str, ...] = ()
    share: float = 1.0
    by: Amount | None = None
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    act: str = ""

    @property
    def takes_rest(self) -> bool:
        return not self.kinds and not self.parts


@dataclass(frozen=True, slots=True)
class Variant:
    """What a step is otherwise where the making has these traits, and none of `unless`; what is empty stays as it is."""

    presumes: tuple[str, ...]
    unless: tuple[str, ...] = ()
    title: str = ""
    tools: tuple[str, ...] = ()
    cue: Cue | None = None

    @property
    def changes(self) -> dict[str, Any]:
        """The fields of the step that it changes."""
        said = {"title": self.title, "tools": self.tools, "cue": self.cue}
        return {name: value for name, value in said.items() if value}


@dataclass(frozen=True, slots=True)
class Brings:
    """Something that a step needs and no line of the sheet says: so many grams, and so many for each piece, or as much as a
    fact says; kitchen estimates. Wanted where the making has these traits, and none of `unless`. It is bought, and not
    counted as eaten."""

    ingredient: str
    what_for: str
    grams: float = 0.0
    per_piece: float = 0.0
    fact: str = ""
    presumes: tuple[str, ...] = ()
    unless: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the work. {name} in the title of a part's step stands for what the part is called. `when` limits it to schools, `part` to sheets that have that part, `presumes` to makings with these traits: bought paste is not soaked.

    As a transfer: `at` is the vessel that it stands in; `tips` are vessels that are emptied into that first, `adds` what else
    goes in, `changes` what then comes or goes by itself. `becomes` is what it holds afterwards. `each` names the fact of one
    piece's weight, where the content is divided: what is over stays behind. `scale` says what the scale shows: all that the
    vessel holds, the liquid that is added, or what is tipped in.
    `asks` is an order trap: what must be so before this step begins, asked while there is still time. `needed`: why no cook may
    leave it out.
    """

    id: str
    title: str
    words: tuple[Sentence, ...]
    minutes: Minutes
    hands: Hands
    after: tuple[StepDependency, ...] = ()
    uses: tuple[Resource, ...] = ()
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    part: PartRole | None = None
    presumes: tuple[str, ...] = ()
    asks: tuple[Sentence, ...] = ()
    brings: tuple[Brings, ...] = ()
    needed: str = ""
    cue: Cue | None = None
    window: tuple[str, str, str] | None = None  # facts: first check, done, latest
    weigh: str | None = None  # fact that the scale should show
    at: str = ""
    tips: tuple[str, ...] = ()
    adds: tuple[Adds, ...] = ()
    changes: tuple[Amount, ...] = ()
    becomes: str = ""
    each: str = ""
    scale: Literal["holds", "liquid", "tipped"] = "holds"
    variants: tuple[Variant, ...] = ()
    cautions: tuple[str, ...] = ()  # ids in kemble.core.cards.cautions, shown at this step
    work: Work = "safe"
    tools: tuple[str, ...] = ()  # to set out before it
    rhythm: Rhythm | None = None
    count: Count | None = None  # where it goes by the piece, the pieces are counted


@dataclass(frozen=True, slots=True)
class CauseEvidence:
    """A fact that makes a cause likely when it lies on that side of a number."""

    fact: str
    side: Literal["low", "high"]
    than: float


@dataclass(frozen=True, slots=True)
class Fault:
    """Something that can go wrong. `of`: it shows only in what has one of these parts."""

    id: str
    seen: str
    cause: str
    now: str
    next_time: str
    evidence: tuple[CauseEvidence, ...] = ()
    of: tuple[PartRole, ...] = ()

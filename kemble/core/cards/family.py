"""The card of a part family: what the part makes, and the weight at which it is done."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from kemble.core.cards.card_parts import (
    NONE,
    Adds,
    Band,
    Brings,
    Choice,
    Cue,
    Fault,
    Minutes,
    Rhythm,
    School,
    Sentence,
    Step,
    StepDependency,
    Variant,
    always,
)
from kemble.core.facts.vocabulary import Group, PartRole

__all__ = [
    "Adds",
    "Band",
    "Brings",
    "Choice",
    "Cue",
    "Family",
    "FamilyOutput",
    "Fault",
    "Minutes",
    "PartFinish",
    "Rhythm",
    "School",
    "Sentence",
    "Sets",
    "Step",
    "StepDependency",
    "Variant",
    "always",
]

Boils = Literal["syrup", "paste"]
Rule = Literal["mixed", "solids", "times-dry", "loss", "curd", "fry", "press"]


@dataclass(frozen=True, slots=True)
class PartFinish:
    """When it is done, as a weight.

    mixed: what went in. solids: boiled down until solids are `target` per cent of it. times-dry: `target` times the
    dry legumes. loss: `target` per cent of it gone (negative where it gains). curd: thick coconut cream parted into
    oil and curds, `target` per cent of its fat as oil. fry: something wet fried in oil and strained; what it loses is
    water, and `target` per cent of its raw weight is oil that it holds. press: wrung out twice, `target` per cent of
    what comes out of fat in the first.
    `boils`: it boils down in an open pan, and how; a paste from `boils_from` times the dry legumes.
    """

    rule: Rule = "mixed"
    target: Band = NONE
    says: str = "everything that goes in"
    boils: Boils | None = None
    boils_from: float = 0.0


@dataclass(frozen=True, slots=True)
class Sets:
    """What is drier than `solids_pct` sets hard as it cools, and must be where it goes `within_min` after it is made."""

    solids_pct: float
    within_min: float


@dataclass(frozen=True, slots=True)
class FamilyOutput:
    """One of the things that a part makes, what it is called (as its role is, where it has no name of its own), and the
    group of ingredients it then counts among."""

    id: str
    name: str
    group: Group
    says: str = ""  # how much of it is made, where that is not what the family's finish says
    main_of: tuple[PartRole, ...] = ()  # the roles in which it is what the part is made for; else the first is


@dataclass(frozen=True, slots=True)
class Family:
    """A part of one kind, read like a recipe card. Its steps are put before those of the way that uses it."""

    id: str
    name: str
    says: str
    roles: tuple[PartRole, ...]
    finish: PartFinish
    lines: tuple[Mapping[str, Any], ...]  # a starting formula
    steps: tuple[Step, ...]  # the last one is the one that others wait for
    outputs: tuple[FamilyOutput, ...]
    choices: tuple[Choice, ...] = ()  # on which cooks differ; chosen on the part
    tells: tuple[str, ...] = ()  # groups or ids of ingredients that give the family away
    sweetened: str = ""  # the group that its sugar is measured on ...
    sugar: Band | None = None  # ... and the working band, per cent
    faults: tuple[Fault, ...] = ()
    cautions: tuple[str, ...] = ()
    casts_off: tuple[str, ...] = ()  # tags of what is taken out once it has given its taste: never eaten
    spare_pct: float = 0.0  # made or soaked over and above, because some tear
    sets: Sets | None = None
    # Under these schools of the way it is made in the way's own pot, at the way's steps: by choice.
    made_in_pot: Mapping[str, tuple[str, ...]] = field(default_factory=dict)

    def under(self, school: Callable[[str], str]) -> Family:
        """The family where these schools of the way are followed, by choice: what the way makes in its own pot has no steps of
        its own, and goes in as it is."""
        if any(school(choice) in named for choice, named in self.made_in_pot.items()):
            return replace(self, finish=PartFinish(), steps=())
        return self

    def main(self, role: PartRole) -> FamilyOutput:
        """What a part of this kind is made for, in its role."""
        return next((output for output in self.outputs if role in output.main_of), self.outputs[0])

    def school(self, chosen: Mapping[str, str], choice_id: str, form: str) -> str:
        """The school followed for a choice: the part's own, else the family's default in ways of this form."""
        choice = next((choice for choice in self.choices if choice.id == choice_id), None)
        default = choice.default_for.get(form, choice.default) if choice else ""
        return chosen.get(choice_id) or default

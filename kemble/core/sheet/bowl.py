"""The bowl: a sheet's lines weighed on one kitchen's shelf, each share carried to the part it goes to.

Every gram of a line ends in exactly one place: held in reserve, in its own part, or in another part.
"""

from __future__ import annotations

from dataclasses import dataclass

from kemble.core.cards.family import Family
from kemble.core.cards.parts import FAMILIES, USUAL
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Problem, Refused, refuse
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.larder import Composition, Ingredient
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.document import Line, Part, Sheet


@dataclass(frozen=True, slots=True)
class Share:
    """Some grams of a line, the part they go to, and at what moment."""

    to: PartRole
    grams: float
    at: str


@dataclass(frozen=True, slots=True)
class WeighedLine:
    """One line, weighed. `part` and `index` are its place on the sheet."""

    part: int
    index: int
    role: PartRole
    line: Line
    item: Ingredient
    grams: float
    reserve_g: float
    g_per_ml: float
    shares: tuple[Share, ...]

    @property
    def used_g(self) -> float:
        return self.grams - self.reserve_g

    @property
    def ref(self) -> str:
        """Where the line stands, for a because."""
        return f"sheet:parts.{self.role}.lines.{self.index}"


@dataclass(frozen=True, slots=True)
class Contribution:
    """What of one line goes into a part."""

    weighed: WeighedLine
    grams: float

    @property
    def item(self) -> Ingredient:
        return self.weighed.item

    @property
    def composition(self) -> Composition:
        return self.item.composition(self.grams)


@dataclass(frozen=True, slots=True)
class PartBowl:
    """Everything that goes into one part, whichever line of the sheet it comes from."""

    part: Part
    family: Family | None
    contributions: tuple[Contribution, ...]
    composition: Composition

    @property
    def role(self) -> PartRole:
        return self.part.role

    @property
    def grams(self) -> float:
        return sum(contribution.grams for contribution in self.contributions)

    def of_group(self, *groups: str) -> float:
        """Grams of the ingredients of some groups."""
        return sum(contribution.grams for contribution in self.contributions if contribution.item.group in groups)


@dataclass(frozen=True, slots=True)
class Bowl:
    lines: tuple[WeighedLine, ...]
    parts: dict[PartRole, PartBowl]

    @property
    def base(self) -> PartBowl:
        return self.parts["base"]

    @property
    def items(self) -> list[Ingredient]:
        """Every ingredient of the sheet, once."""
        return list({one.item.id: one.item for one in self.lines}.values())


class _NotWeighed(Exception):
    def __init__(self, says: str, accepts: str) -> None:
        super().__init__(says)
        self.says, self.accepts = says, accepts


def weigh(sheet: Sheet, shelf: Shelf) -> Bowl:
    """Weigh every line. Raises Refused, naming each line that this kitchen cannot weigh."""
    problems: list[Problem] = []
    lines: list[WeighedLine] = []
    for p, part in enumerate(sheet.parts):
        for i, line in enumerate(part.lines):
            try:
                lines.append(_weighed(p, i, part, line, shelf))
            except _NotWeighed as error:
                problems.append(Problem(path=f"parts.{p}.lines.{i}", says=error.says, accepts=error.accepts))
    if problems:
        raise Refused(problems)
    bowl = Bowl(tuple(lines), {part.role: _fill(sheet, part, lines) for part in sheet.parts})
    kind = WAYS[sheet.way].base
    if bowl.base.of_group(kind) <= 0:
        says = f"no {'flour' if kind == 'flour' else 'whole grain'} stays in the base"
        refuse("parts", says, "a base with some of its own in it")
    return bowl


def _weighed(p: int, i: int, part: Part, line: Line, shelf: Shelf) -> WeighedLine:
    item = shelf.item(line.ingredient)
    if item is None:
        raise _NotWeighed(f'"{line.ingredient}" is not in this kitchen\'s larder', "an ingredient of the larder")
    try:
        whole = shelf.grams(item, line.amount.value, line.amount.unit, line.state)
        held = shelf.grams(item, line.reserve.value, line.reserve.unit, line.state) if line.reserve else 0.0
    except ValueError as error:
        raise _NotWeighed(f"{item.name} {error}", "g, ml, or a cup that has been weighed") from None
    if held >= whole:
        raise _NotWeighed("the reserve is as much as the line", "less than the line's own amount")
    used = whole - held
    shares = tuple(Share(split.to or part.role, split.share * used, split.at) for split in line.splits) or (
        Share(part.role, used, ""),
    )
    return WeighedLine(p, i, part.role, line, item, whole, held, shelf.g_per_ml(item, line.state), shares)


def _fill(sheet: Sheet, part: Part, lines: list[WeighedLine]) -> PartBowl:
    contributions = []
    for one in lines:
        grams = sum(share.grams for share in one.shares if share.to == part.role)
        if grams > 0:
            contributions.append(Contribution(one, grams))
    # A part whose every line is carried elsewhere is still a part, with nothing in it.
    return PartBowl(
        part,
        family_of(sheet, part, [one.item for one in lines if one.role == part.role]),
        tuple(contributions),
        Composition.summed(one.composition for one in contributions),
    )


def family_of(sheet: Sheet, part: Part, items: list[Ingredient]) -> Family | None:
    """The family a part belongs to: as written, else as its ingredients tell, the way's usual first."""
    if part.role == "base":
        return None
    if part.family:
        return FAMILIES[part.family]
    usual = FAMILIES.get(WAYS[sheet.way].parts.get(part.role, ""))
    names = {name for item in items for name in (item.id, item.group)}
    if usual and (not usual.tells or names.intersection(usual.tells)):
        return usual
    told = (one for one in FAMILIES.values() if part.role in one.roles and names.intersection(one.tells))
    return next(told, usual or FAMILIES[USUAL[part.role]])

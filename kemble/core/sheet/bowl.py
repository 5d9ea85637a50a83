"""The bowl: a sheet's ingredients weighed in one kitchen, and carried through its parts in working order.

One pass: a part is made of its lines and of what it takes of parts made before it; what it makes goes to those who take
of it, is held back, and its rest goes on. Every gram of a line ends in exactly one place: held in reserve, boiled off or
left behind where its part is made, or in one of the places where an output goes.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from math import isclose

from kemble.core.cards.family import Family
from kemble.core.cards.parts import FAMILIES, USUAL
from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Problem, Refused, refuse
from kemble.core.facts.quantity import grams as grams_of
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, PartRole
from kemble.core.kitchen.larder import Composition, Ingredient, IngredientComposition
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.part_flow import working_order
from kemble.core.sheet.part_yields import PartInput, PartYield, as_weighed, calculate_yields
from kemble.core.sheet.parts import Line, OutputPlace, Part, PartialAmount, Take

_THIN_PCT = 80.0  # of water: nothing that is worth a pan is left of it when that is gone
_STEEPED: dict[PartRole, str] = {"syrup": "leaf-infusion", "broth": "sweet-broth"}  # what such a part is instead
_DRY_BEAN_WATER = 0.13  # of a dry bean is water


@dataclass(frozen=True, slots=True)
class LineShare:
    """Some grams of a line, the part they go to, and at what moment."""

    to: PartId
    grams: float
    at: str
    joins: str = ""


@dataclass(frozen=True, slots=True)
class WeighedLine:
    """One line, weighed. `part` and `index` are its place on the sheet."""

    part: int
    index: int
    part_id: PartId
    line: Line
    item: Ingredient
    grams: float
    reserve_g: float
    g_per_ml: float
    shares: tuple[LineShare, ...]
    packing: tuple[float, float] = (0.0, 0.0)  # how far off it may be, low and high, as shares of it

    @property
    def used_g(self) -> float:
        return self.grams - self.reserve_g

    @property
    def ref(self) -> str:
        """Where the line stands, for a because."""
        return f"sheet:parts.{self.part_id}.lines.{self.index}"


@dataclass(frozen=True)
class Contribution:
    """What of one line, or of another part, goes into a part, and at which step. `ref` is where it stands."""

    ref: str
    item: Ingredient
    grams: float
    composition: Composition
    joins: str = ""
    weighed: WeighedLine | None = None  # the line that it comes from ...
    taken: TakenOutput | None = None  # ... or what is taken of another part

    @cached_property
    def kinds(self) -> tuple[str, ...]:
        """What a card may call it by: the ingredient, its group and tags; "soaking" what has a soak of its own, "dry-legume" beans
        that are not cooked, "thickener" flour and starch."""
        soaking = ("soaking",) if self.weighed and self.weighed.line.soak_min else ()
        dry = ("dry-legume",) if self.item.group == "legume" and "cooked" not in self.item.tags else ()
        thickener = ("thickener",) if self.item.group == "flour" or "raw-starch" in self.item.tags else ()
        return (self.item.id, self.item.group, *self.item.tags, *soaking, *dry, *thickener)


@dataclass(frozen=True, slots=True)
class TakenOutput:
    """What a part takes of another's output: so much is asked, and so much is there. `index` is -1 for its rest."""

    source: PartId
    output: str
    taker: PartId
    index: int
    asked: float
    grams: float

    @property
    def short_g(self) -> float:
        return max(0.0, self.asked - self.grams)


@dataclass(frozen=True, slots=True)
class PartOutput:
    """One output of a part, and where it goes: taken by other parts, kept, made for other sheets, and its rest."""

    part_id: PartId
    made: PartYield
    item: Ingredient
    taken: float
    kept: float
    away: float
    place: OutputPlace

    @property
    def rest(self) -> float:
        return max(0.0, self.made.grams - self.taken - self.kept - self.away)

    def composition(self, grams: float) -> Composition:
        """What is in so many grams of it."""
        return self.made.composition.scaled(grams / self.made.grams) if self.made.grams else Composition()


@dataclass(frozen=True, slots=True)
class PartBowl:
    """Everything that goes into one part, whichever line or part it comes from, and what is made of it."""

    part: Part
    family: Family | None
    contributions: tuple[Contribution, ...]
    composition: Composition
    outputs: tuple[PartOutput, ...] = ()  # what it is made for first

    @property
    def id(self) -> PartId:
        return self.part.id

    @property
    def grams(self) -> float:
        return sum(contribution.grams for contribution in self.contributions)

    @property
    def main(self) -> PartOutput:
        return self.outputs[0]

    def of_group(self, *groups: str) -> float:
        """Grams of the ingredients of some groups."""
        return sum(contribution.grams for contribution in self.contributions if contribution.item.group in groups)


def dry_beans_g(going: Iterable[Contribution]) -> float:
    """Grams of beans as they would weigh dry, those that were bought cooked with them."""
    return sum(
        contribution.composition.solids / (1 - _DRY_BEAN_WATER)
        if "cooked" in contribution.item.tags
        else contribution.grams
        for contribution in going
        if contribution.item.group == "legume"
    )


@dataclass(frozen=True, slots=True)
class Bowl:
    lines: tuple[WeighedLine, ...]
    parts: dict[PartId, PartBowl]  # as the sheet has them
    order: tuple[PartId, ...] = ()  # as they are made
    taken: tuple[TakenOutput, ...] = ()

    @property
    def base(self) -> PartBowl:
        return self.parts["base"]

    def of_role(self, role: PartRole) -> list[PartBowl]:
        """The parts of a role, as the sheet has them."""
        return [part for part in self.parts.values() if part.part.role == role]

    @property
    def items(self) -> list[Ingredient]:
        """Every ingredient of the sheet, once."""
        return list({line.item.id: line.item for line in self.lines}.values())


class _UnweighableLine(Exception):
    def __init__(self, says: str, accepts: str) -> None:
        super().__init__(says)
        self.says, self.accepts = says, accepts


def weigh(sheet: Sheet, shelf: Shelf, weighed: Mapping[str, float] | None = None) -> Bowl:
    """Weigh every line. Raises Refused, naming each line that this kitchen cannot weigh.

    `weighed` are facts that a scale has shown, in grams: of a part that was weighed when done, that is what it made.
    """
    problems: list[Problem] = []
    lines: list[WeighedLine] = []
    for p, part in enumerate(sheet.parts):
        for i, line in enumerate(part.lines):
            try:
                lines.append(_weigh_line(p, i, part, line, shelf))
            except _UnweighableLine as error:
                problems.append(Problem(path=f"parts.{p}.lines.{i}", says=error.says, accepts=error.accepts))
    if problems:
        raise Refused(problems)
    bowl = _BowlBuilder(sheet, lines, weighed or {}).bowl()
    kind = WAYS[sheet.way].base
    if bowl.base.of_group(kind) <= 0:
        says = say("no {base} stays in the base", base="flour" if kind == "flour" else say("whole grain"))
        refuse("parts", says, say("a base with some of its own in it"))
    return bowl


def _weigh_line(p: int, i: int, part: Part, line: Line, shelf: Shelf) -> WeighedLine:
    item = shelf.item(line.ingredient)
    if item is None:
        raise _UnweighableLine(f'"{line.ingredient}" is not in this kitchen\'s larder', "an ingredient of the larder")
    try:
        whole = shelf.grams(item, line.amount.value, line.amount.unit, line.state)
        held = shelf.grams(item, line.reserve.value, line.reserve.unit, line.state) if line.reserve else 0.0
    except ValueError as error:
        raise _UnweighableLine(f"{item.name} {error}", "g, ml, or a cup that has been weighed") from None
    if held >= whole:
        raise _UnweighableLine("the reserve is as much as the line", "less than the line's own amount")
    used = whole - held
    shares = tuple(
        LineShare(split.to or part.id, split.share * used, split.at, split.joins or line.joins) for split in line.splits
    ) or (LineShare(part.id, used, "", line.joins),)
    return WeighedLine(
        p,
        i,
        part.id,
        line,
        item,
        whole,
        held,
        shelf.g_per_ml(item, line.state),
        shares,
        shelf.packing(item, line.amount.unit, line.state),
    )


@dataclass(slots=True)
class _BowlBuilder:
    """The one pass over the parts, in working order."""

    sheet: Sheet
    lines: list[WeighedLine]
    weighed: Mapping[str, float] = field(default_factory=dict)
    made: dict[PartId, tuple[PartYield, ...]] = field(default_factory=dict)
    items: dict[tuple[PartId, str], Ingredient] = field(default_factory=dict)
    left: dict[tuple[PartId, str], float] = field(default_factory=dict)
    held: dict[PartId, tuple[float, float]] = field(default_factory=dict)  # kept, and made for other sheets
    taken: list[TakenOutput] = field(default_factory=list)
    filled: set[PartId] = field(default_factory=set)

    def bowl(self) -> Bowl:
        order = working_order(WAYS[self.sheet.way], self.sheet.parts)
        parts = {part.id: part for part in self.sheet.parts}
        filled = {part_id: self._made(parts[part_id]) for part_id in order}
        whole = {
            part.id: PartBowl(*filled[part.id], self._had(part) if part.id != "base" else ())
            for part in self.sheet.parts
        }
        return Bowl(tuple(self.lines), whole, order, tuple(self.taken))

    def _made(self, part: Part) -> tuple[Part, Family | None, tuple[Contribution, ...], Composition]:
        """Fill a part and make it. A part whose every line is carried elsewhere is still a part, with nothing in it."""
        lines, takes = tuple(self._of_lines(part)), tuple(self._of_takes(part))
        self.filled.add(part.id)
        going = (*lines, *takes, *self._of_rests(part))
        inside = Composition.summed(contribution.composition for contribution in going)
        family = family_of(self.sheet, part, [line.item for line in self.lines if line.part_id == part.id])
        family = family and family.under(self.sheet.school)
        casts_off = family.casts_off if family else ()
        stays = [each for each in going if not any(tag in casts_off for tag in each.item.tags)]
        if part.id != "base":
            dry_g = dry_beans_g(going)
            fat_g = sum(contribution.composition.fat for contribution in going if contribution.item.group == "fat")
            eaten = Composition.summed(each.composition for each in stays or going)
            made = calculate_yields(family, PartInput(part.role, eaten, dry_g, fat_g))
            if f"part.{part.id}.made_g" in self.weighed:
                made = as_weighed(made, self.weighed[f"part.{part.id}.made_g"])
            self.made[part.id] = made
            for part_yield in made:
                self.items[part.id, part_yield.output.id] = _as_ingredient(
                    part, part_yield, part_yield is made[0], going
                )
                self.left[part.id, part_yield.output.id] = part_yield.grams
            self._hold_back(part, made[0])
        return part, family, going, inside

    def _hold_back(self, part: Part, main: PartYield) -> None:
        """What is kept and what is made for other sheets is set aside before anything is taken."""
        away = main.grams * sum(other.share for other in part.made_for)
        kept = min(self._asked(part.kept, part.id, main), main.grams - away) if part.kept else 0.0
        self.held[part.id] = (kept, away)
        self.left[part.id, main.output.id] -= kept + away

    def _asked(self, some: PartialAmount, part_id: PartId, of: PartYield) -> float:
        if some.share is not None:
            return some.share * of.grams
        assert some.amount is not None
        density = self.items[part_id, of.output.id].g_per_ml
        return grams_of(some.amount.value, some.amount.unit, g_per_ml=density, g_per_piece=None, g_per_pack=None)

    def _of_lines(self, part: Part) -> Iterator[Contribution]:
        for line in self.lines:
            by_step: dict[str, float] = {}
            for share in line.shares:
                if share.to == part.id:
                    by_step[share.joins] = by_step.get(share.joins, 0.0) + share.grams
            for joins, grams in by_step.items():
                if grams > 0:
                    yield Contribution(line.ref, line.item, grams, line.item.composition(grams), joins, weighed=line)

    def _of_takes(self, part: Part) -> Iterator[Contribution]:
        for index, take in enumerate(part.takes):
            source, output = self._output_of(take)
            asked = self._asked(take, source, output)
            got = max(0.0, min(asked, self.left[source, output.output.id]))
            yield from self._give(TakenOutput(source, output.output.id, part.id, index, asked, got), output, take.joins)

    def _output_of(self, take: Take) -> tuple[PartId, PartYield]:
        part_id, output = take.source
        source: PartId = next(name for name in self.made if name == part_id)
        made = self.made[source]
        return source, next((part_yield for part_yield in made if part_yield.output.id == output), made[0])

    def _of_rests(self, part: Part) -> Iterator[Contribution]:
        """What is left of the parts whose rest goes into this one. What its way counts raw is counted there."""
        for part_id, made in self.made.items():
            source = next(part for part in self.sheet.parts if part.id == part_id)
            for part_yield in made:
                place = self._place(source, part_yield)
                left = self.left[part_id, part_yield.output.id] - self._still_to_take(part_id, part_yield)
                if place.to != part.id or left <= 0 or (part.id == "base" and counts_raw(self.sheet, source)):
                    continue
                yield from self._give(
                    TakenOutput(part_id, part_yield.output.id, part.id, -1, left, left), part_yield, place.joins
                )

    def _still_to_take(self, part_id: PartId, made: PartYield) -> float:
        """What parts that are filled later take of an output: its rest is what they leave."""
        waiting = [part for part in self.sheet.parts if part.id not in self.filled]
        return sum(
            self._asked(take, part_id, made)
            for part in waiting
            for take in part.takes
            if take.source[0] == part_id and self._output_of(take)[1] is made
        )

    def _place(self, part: Part, made: PartYield) -> OutputPlace:
        is_main = made is self.made[part.id][0]
        return self.sheet.place(part, "" if is_main and made.output.id not in part.rest else made.output.id)

    def _give(self, taken: TakenOutput, of: PartYield, joins: str) -> Iterator[Contribution]:
        self.taken.append(taken)
        self.left[taken.source, taken.output] -= taken.grams
        if taken.grams <= 0:
            return
        composition = of.composition.scaled(taken.grams / of.grams)
        item = self.items[taken.source, taken.output]
        yield Contribution(f"part.{taken.source}.made_g", item, taken.grams, composition, joins, taken=taken)

    def _had(self, part: Part) -> tuple[PartOutput, ...]:
        outputs = []
        for i, part_yield in enumerate(self.made[part.id]):
            kept, away = self.held[part.id] if i == 0 else (0.0, 0.0)
            took = sum(
                taken.grams for taken in self.taken if (taken.source, taken.output) == (part.id, part_yield.output.id)
            )
            item = self.items[part.id, part_yield.output.id]
            outputs.append(PartOutput(part.id, part_yield, item, took, kept, away, self._place(part, part_yield)))
        return tuple(outputs)


def counts_raw(sheet: Sheet, part: Part) -> bool:
    """Whether the ratios of the way count what goes into this part, before it is made, with the base's own."""
    return part.role != "base" and part.role in WAYS[sheet.way].counted and sheet.place(part).to == "base"


# Outputs that lie loose, with air between, as what they are made of does.
_LOOSE = ("nut", "dust", "fruit", "savoury")


def _g_per_ml(made: PartYield, per_100: Composition, of: tuple[Contribution, ...]) -> float:
    """What is only made ready takes the room that it took before; of what is mixed or cooked, its components' own."""
    if made.output.group in _LOOSE and of and isclose(made.grams, sum(contribution.grams for contribution in of)):
        room = sum(
            contribution.grams / (contribution.weighed.g_per_ml if contribution.weighed else contribution.item.g_per_ml)
            for contribution in of
        )
        return made.grams / room
    return properties(fractions(per_100), 25.0).rho / 1000.0


def _as_ingredient(part: Part, made: PartYield, is_main: bool, of: tuple[Contribution, ...]) -> Ingredient:
    """An output as other parts take it: like one from the larder."""
    inside = made.composition
    per_100 = IngredientComposition.of_100_g(inside) if inside.total else IngredientComposition(water=100.0)
    return unchecked_model(
        Ingredient,
        id=f"made-{part.id}-{made.output.id}",
        name=(part.name if is_main else "") or made.output.name or part.id,
        group=made.output.group,
        per_100_g=per_100,
        density={"poured": _g_per_ml(made, per_100, of)},
        allergens=tuple(dict.fromkeys(name for contribution in of for name in contribution.item.allergens)),
        perishable=any(contribution.item.perishable for contribution in of),
        tags=tuple(dict.fromkeys(tag for contribution in of for tag in contribution.item.tags)),
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
    told = (family for family in FAMILIES.values() if part.role in family.roles and names.intersection(family.tells))
    likely = next(told, usual or FAMILIES[USUAL[part.role]])
    thin = bool(items) and all(item.per_100_g.water >= _THIN_PCT for item in items)
    if thin and likely.finish.rule == "solids":
        # Water with a leaf in it is no syrup: boiled down to its solids, nothing would be left.
        return FAMILIES[_STEEPED.get(part.role, likely.id)]
    if thin and part.role == "liquid" and any("steeped" in item.tags for item in items):
        return FAMILIES["leaf-infusion"]
    return likely

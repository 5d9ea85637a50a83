"""The steps of a sheet before their minutes are known: those of its parts, then its way's, as schools and parts call for; what
goes in at each, and what each waits for.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from kemble.core.cards.card_parts import Step, StepDependency
from kemble.core.facts.vocabulary import PartId
from kemble.core.sentences import say, translate
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.claims import Amounts, Ingoing, StepOnSheet, offers_of_part, settle_claims
from kemble.core.stations.ledger import LedgerStep, is_food, vessels_emptied
from kemble.core.stations.traits import in_its_words, traits_of
from kemble.core.stations.way_steps import followed, own_steps, waiting_for_every_part


@dataclass(frozen=True, slots=True)
class SheetStep:
    """A card's step on this sheet: its id here, the part it belongs to, what its card's names stand for here, what goes in at
    it, and what it waits for, by ids, beside what its card says."""

    id: str
    step: Step
    part_id: PartId | None
    names: Mapping[str, str]
    goes_in: Sequence[Ingoing] = ()
    waits: tuple[StepDependency, ...] = ()


@dataclass(frozen=True, slots=True)
class StepOrder:
    """By step what it waits for; and, where that was asked for, of that what it cannot be done without: what makes what it
    uses, fills its vessels or heats what it stands on. All else is habit. `in_vessels`: the steps as the ledger folds them."""

    waits: Mapping[str, Sequence[StepDependency]]
    needs: Mapping[str, Collection[str]]
    in_vessels: Sequence[LedgerStep]


def title_on_sheet(sheet_step: SheetStep, calculation: Calculation) -> str:
    """A step's title, with the name of the part that it makes where the card asks for it, or a sheet has several such."""
    title = translate(sheet_step.step.title)
    if not sheet_step.part_id:
        return title
    part = calculation.bowl.parts[sheet_step.part_id].part
    if "{name}" in title:
        return title.replace("{name}", part.called)
    if len(calculation.bowl.of_role(part.role)) > 1:
        return say("{title}: {name}", title=title, name=part.called)
    return title


def steps_in_vessels(placed: Sequence[SheetStep], kept: Mapping[str, SheetStep]) -> list[LedgerStep]:
    steps: list[LedgerStep] = []
    left_out: dict[PartId | None, list[Step]] = {}
    filled: dict[PartId | None, set[str]] = {}
    for each in placed:
        if each.id not in kept:
            left_out.setdefault(each.part_id, []).append(each.step)
            continue
        tips = vessels_emptied(each.step, filled.setdefault(each.part_id, set()), left_out.get(each.part_id, ()))
        steps.append(LedgerStep(each.id, each.step, each.part_id, each.goes_in, tips))
        if tips or any(is_food(ingoing) for ingoing in each.goes_in):
            filled[each.part_id].add(each.step.at)
    return steps


def lay_steps(calculation: Calculation, way_steps: Sequence[Step], amounts: Amounts) -> list[SheetStep]:
    """The steps of every part that is made here, then the way's own; each in the words that are true of this making."""
    sheet_steps: list[SheetStep] = []
    last_of: dict[PartId, str] = {}

    def is_called(step: Step, part_id: PartId | None = None) -> bool:
        return is_called_for(SheetStep(step.id, step, part_id, {}), calculation)

    made = {
        part_id
        for part_id, bowl in calculation.bowl.parts.items()
        if bowl.family and not bowl.part.made_on and any(is_called(step, part_id) for step in bowl.family.steps)
    }
    for part_id in calculation.bowl.order:
        bowl = calculation.bowl.parts[part_id]
        if bowl.family is None or not bowl.family.steps or bowl.part.made_on:
            continue
        names = {step.id: f"{part_id}-{step.id}" for step in bowl.family.steps}
        claims = settle_claims(
            offers_of_part(calculation.bowl, bowl, made.__contains__),
            [
                StepOnSheet(step.id, step, is_called(step, part_id), partial(school_followed_by, calculation, part_id))
                for step in bowl.family.steps
            ],
            {},
        )
        for step in bowl.family.steps:
            going = claims.get(step.id, ())
            own = in_its_words(waiting_for_every_part(step, calculation.bowl), traits_of(calculation, part_id), going)
            sheet_steps.append(SheetStep(names[step.id], own, part_id, {**names, **last_of}, going))
        last_of[part_id] = names[bowl.family.steps[-1].id]
    of_way, claims = own_steps(calculation, way_steps, last_of, is_called, made.__contains__, amounts)
    names = {**{step.id: step.id for step in of_way}, **last_of}
    traits = traits_of(calculation, None)
    for step in of_way:
        going = claims.get(step.id, ())
        sheet_steps.append(SheetStep(step.id, in_its_words(step, traits, going), None, names, going))
    return sheet_steps


def is_called_for(sheet_step: SheetStep, calculation: Calculation) -> bool:
    step, fact_book = sheet_step.step, calculation.fact_book
    if any(school_followed(sheet_step, choice, calculation) not in schools for choice, schools in step.when.items()):
        return False
    if step.part is not None and not calculation.bowl.of_role(step.part):
        return False
    if step.presumes and not traits_of(calculation, sheet_step.part_id).issuperset(step.presumes):
        return False
    fact = fact_of(sheet_step)
    if fact is not None:
        return fact in fact_book and (fact_book.number(fact) > 0 or step.minutes.fixed > 0)
    return True


def school_followed(sheet_step: SheetStep, choice: str, calculation: Calculation) -> str:
    """What is followed: a part's step goes by its part's schools, the way's by the sheet's."""
    if sheet_step.part_id is None:
        return followed(calculation, choice)
    return school_followed_by(calculation, sheet_step.part_id, choice)


def school_followed_by(calculation: Calculation, part_id: PartId, choice: str) -> str:
    bowl = calculation.bowl.parts[part_id]
    assert bowl.family is not None
    return bowl.family.school(bowl.part.schools, choice, calculation.way.form)


def order_of_steps(
    placed: Sequence[SheetStep], kept: Mapping[str, SheetStep], *, with_needs: bool = False
) -> StepOrder:
    """What each step waits for: what its card says, and whatever last filled its vessel or one that it empties. In place of a
    step that is not called for it waits for what that waited for.

    Beside steps that are called for, those further back only keep the order: how long they may lie was said of
    another path. One pass: a step follows the ones that it names; one that comes later in `placed` is not waited for.
    """
    in_vessels = steps_in_vessels(placed, kept)
    vessels = {each.id: (each.step.at, *each.tips) for each in in_vessels if each.step.at}
    waits: dict[str, list[StepDependency]] = {}
    before: dict[str, set[str]] = {}
    on_cards: dict[str, set[str]] = {}  # as before, but for what only the cook has put there
    needs: dict[str, tuple[str, ...]] = {}
    boiling: list[str] = []
    filled_by: dict[tuple[PartId | None, str], str] = {}
    for sheet_step in placed:
        named = [
            (sheet_step.names[after.step], after) for after in sheet_step.step.after if after.step in sheet_step.names
        ]
        named = [(name, after) for name, after in named if name in waits]
        put_behind = {wait.step for wait in sheet_step.waits}.difference(name for name, _ in named)
        named += [(wait.step, wait) for wait in sheet_step.waits if wait.step in waits]
        here = [StepDependency(name, after.at_least, after.at_most) for name, after in named if name in kept]
        # Where one of them follows another, that other was named for when this one is left out: it is waited for already.
        here = _last_of(here, on_cards)
        further = _last_of(
            list(dict.fromkeys(wait for name, _ in named if name not in kept for wait in waits[name])), on_cards
        )
        if here:
            known = {wait.step for wait in here}.union(*(before[wait.step] for wait in here))
            further = [StepDependency(wait.step) for wait in further if wait.step not in known]
        own = [*here, *further]
        behind = {wait.step for wait in own}.union(*(before[wait.step] for wait in own))
        used = list(_used_by(sheet_step, kept, waits, vessels.get(sheet_step.id, ()), filled_by))
        if with_needs:
            heated = [name for name in boiling if sheet_step.part_id is None and _share_heat(sheet_step, kept[name])]
            sharing = [wait.step for wait in own if _share_heat(sheet_step, kept[wait.step])]
            needs[sheet_step.id] = tuple(dict.fromkeys((*used, *heated, *sharing)))
            if sheet_step.id in kept and fact_of(sheet_step) == "heat.to_boil_min":
                boiling.append(sheet_step.id)
        for name in used:
            if name not in behind:
                own.append(StepDependency(name))
                behind |= {name, *before[name]}
        if sheet_step.id in vessels:
            filled_by[sheet_step.part_id, sheet_step.step.at] = sheet_step.id
        waits[sheet_step.id], before[sheet_step.id] = own, behind
        by_card = [wait.step for wait in own if wait.step not in put_behind]
        on_cards[sheet_step.id] = set(by_card).union(*(on_cards[name] for name in by_card))
    return StepOrder(waits, needs, in_vessels)


def _last_of(waits: list[StepDependency], on_cards: Mapping[str, Collection[str]]) -> list[StepDependency]:
    """Those that no other of them follows."""
    if len(waits) < 2:
        return waits
    earlier = {name for wait in waits for name in on_cards[wait.step]}
    return [wait for wait in waits if wait.step not in earlier]


def _share_heat(step: SheetStep, before: SheetStep) -> bool:
    """Whether one heats up what the other is done on."""
    return bool(set(step.step.uses).intersection(before.step.uses) - {"counter"})


def _used_by(
    sheet_step: SheetStep,
    kept: Mapping[str, SheetStep],
    waits: Mapping[str, Sequence[StepDependency]],
    vessels: Sequence[str],
    filled_by: Mapping[tuple[PartId | None, str], str],
) -> Iterator[str]:
    """The steps that made what a step uses: the last of each part that goes in at it, and what filled its vessels."""
    for part_id in dict.fromkeys(ingoing.part_id for ingoing in sheet_step.goes_in):
        last = sheet_step.names.get(part_id) if part_id else None
        if last is not None:
            yield from [last] if last in kept else [wait.step for wait in waits.get(last, ())]
    for vessel in vessels:
        if (sheet_step.part_id, vessel) in filled_by:
            yield filled_by[sheet_step.part_id, vessel]


def fact_of(sheet_step: SheetStep) -> str | None:
    """The fact that the step's minutes come from; a part's card says * where its part stands."""
    fact = sheet_step.step.minutes.fact
    return fact.replace("*", sheet_step.part_id) if fact and sheet_step.part_id else fact

"""The way's own steps on one sheet: what they wait for, and those that put a part where the way has no step for it.

A step waits for every part that goes in at it. Nothing else orders parts, so that no order can be wrong.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kemble.core.cards.card_parts import Minutes, Step, StepDependency
from kemble.core.cards.parts import RESTS
from kemble.core.cards.placing_steps import PLACING
from kemble.core.facts.vocabulary import PartRole
from kemble.core.sentences import translate
from kemble.core.sheet.bowl import Contribution, PartOutput
from kemble.core.sheet.parts import Part
from kemble.core.stations.calculation import Calculation

LIES_READY_MIN = 120.0  # what was put on or under may wait so long for the step that it is put there for


@dataclass(frozen=True, slots=True)
class OwnStep:
    """A step of the way as it is on this sheet, with what is put on at it."""

    step: Step
    puts: tuple[Contribution, ...] = ()


@dataclass(frozen=True, slots=True)
class _PlacingStep:
    """A step that puts an output where it goes, and the way's step that it comes before."""

    before: str
    at: int  # in which order, where several come before the same step: the wall before what lies on the floor
    own: OwnStep


def own_steps(calculation: Calculation, steps: Sequence[Step], last_of: Mapping[PartRole, str]) -> list[OwnStep]:
    """`steps` are the way's, its heat in stages; `last_of` names the last step of making each part that is made here: what a role stands for in an After.

    A part that is not made here holds nothing up. One that no step names (a broth to a cake) must be there when it is
    served.
    """
    moved = {role for role, bowl in calculation.bowl.parts.items() if _is_moved(calculation, bowl.part)}
    named = {after.step for step in steps for after in step.after} - moved
    puts = _placing_steps(calculation, [step.id for step in steps], last_of, named)
    joins = _joining_parts(calculation, last_of, named, {put.own.step.id for put in puts})
    settled = named.union(*joins.values(), *({after.step for after in put.own.step.after} for put in puts))
    own_step: list[OwnStep] = []
    for step in steps:
        if step.part in moved:
            continue
        before = [after for after in step.after if after.step not in moved]
        here = [put.own for put in puts if put.before == step.id]
        # What is put on comes one after another between the step and all that it waits for: how long that may lie is
        # how soon the first of them begins.
        order = tuple(before)
        for put in here:
            own_step.append(replace(put, step=replace(put.step, after=(*put.step.after, *order))))
            order = (
                StepDependency(put.step.id, 0, LIES_READY_MIN),
                *(StepDependency(after.step, after.at_least) for after in before),
            )
        known = {after.step for after in before}
        before = [
            *order,
            *(StepDependency(role) for role in dict.fromkeys(joins.get(step.id, ())) if role not in known),
        ]
        if step is steps[-1]:
            before += [StepDependency(role) for role in last_of if role not in settled]
        after = tuple(before)
        own_step.append(OwnStep(step if after == step.after else replace(step, after=after)))
    return own_step


def _joining_parts(
    calculation: Calculation, last_of: Mapping[PartRole, str], named: set[str], puts: set[str]
) -> dict[str, list[PartRole]]:
    """By step of the way: the parts that go into the base at it, and those whose place names it."""
    way, bowl = calculation.way, calculation.bowl
    mixed = [step.id for step in way.steps if step.lists == "base"]
    # Whole grain is listed where it is rinsed; what else goes in does so at the stove.
    usual = mixed[:1] if mixed and way.base == "flour" else way.cooks
    joins: dict[str, list[PartRole]] = {}
    for contribution in bowl.base.contributions:
        if contribution.taken and contribution.taken.source in last_of:
            for step in (contribution.joins,) if contribution.joins else usual:
                joins.setdefault(step, []).append(contribution.taken.source)
    for role in last_of:
        place = bowl.parts[role].main.place
        if place.joins and place.to != "base" and role not in named and f"put-{role}" not in puts:
            joins.setdefault(place.joins, []).append(role)
    return joins


def _placing_steps(
    calculation: Calculation, steps: Sequence[str], last_of: Mapping[PartRole, str], named: set[str]
) -> list[_PlacingStep]:
    placings = []
    for role in last_of:
        for i, had in enumerate(calculation.bowl.parts[role].outputs):
            if had.rest > 0 and not (i == 0 and role in named):
                put = _placing_step(steps, had, f"put-{role}" if i == 0 else f"put-{role}-{had.made.output.id}")
                placings += [put] if put else []
    return sorted(placings, key=lambda put: put.at)


def _placing_step(steps: Sequence[str], had: PartOutput, step_id: str) -> _PlacingStep | None:
    """The step for an output that goes in or on the whole; None for what goes elsewhere."""
    place = had.place
    if place.to != "whole" or place.where is None:
        return None
    card = PLACING[place.where]
    name = had.item.name[:1].lower() + had.item.name[1:]
    step = Step(
        step_id,
        translate(card.title).format(name=name),
        card.words,
        Minutes(card.minutes),
        "held",
        after=(StepDependency(had.role),),
        uses=("counter",),
        work="messy",
        tools=card.tools,
    )
    before = place.joins or next((name for name in card.before if name in steps), steps[-1])
    goes = Contribution(f"part.{had.role}.made_g", had.item, had.rest, had.composition(had.rest))
    return _PlacingStep(before, list(PLACING).index(place.where), OwnStep(step, (goes,)))


def _is_moved(calculation: Calculation, part: Part) -> bool:
    """Whether the sheet puts a part elsewhere, or at another step, than its way's own steps do."""
    said, usual = part.rest.get(""), calculation.way.rests.get(part.role) or RESTS.get(part.role)
    if said is None or usual is None:
        return False
    return (said.to, said.where, said.joins) != (usual.to, usual.where, usual.joins)

"""The way's own steps on one sheet: what they wait for, and those that put a part where the way has no step for it.

A step waits for every part that goes in at it. Nothing else orders parts, so that no order can be wrong.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, replace

from kemble.core.cards.card_parts import Minutes, Step, StepDependency
from kemble.core.cards.parts import RESTS
from kemble.core.cards.placing_steps import PLACING
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.sentences import translate
from kemble.core.sheet.bowl import Bowl, PartBowl, PartOutput
from kemble.core.sheet.parts import Part
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.claims import (
    Amounts,
    Ingoing,
    Offer,
    StepOnSheet,
    offers_of_output,
    offers_of_part,
    settle_claims,
)

_FULL_WORK_G = 60.0  # so much to lay on, or more, takes the card's minutes, less takes less; kitchen estimate
_LEAST_MIN = 1.0
_FEWEST_WITH_TWO_ALIKE = 3  # parts: the base and two of a role
LIES_READY_MIN = 120.0  # what was put on or under may wait so long for the step that it is put there for


@dataclass(frozen=True, slots=True)
class _PlacingStep:
    """A step that puts an output where it goes, and the way's step that it comes before."""

    before: str
    at: int  # in which order, where several come before the same step: the wall before what lies on the floor
    output: PartOutput
    step: Step


def own_steps(
    calculation: Calculation,
    steps: Sequence[Step],
    last_of: Mapping[PartId, str],
    is_called: Callable[[Step], bool],
    is_made: Callable[[PartId], bool],
    amounts: Amounts,
) -> tuple[list[Step], dict[str, list[Ingoing]]]:
    """The way's own steps on this sheet, and by step what goes in at it.

    `steps` are the way's, its heat in stages; `last_of` names the last step of making each part that is made here: what a
    part stands for in a wait. A part that is not made here holds nothing up. One that no step takes must be there when it
    is served.
    """
    moved = {part_id for part_id, bowl in calculation.bowl.parts.items() if _is_moved(calculation, bowl.part)}
    staying = {role_of(part_id) for part_id in calculation.bowl.parts if part_id not in moved}
    gone = {role_of(part_id) for part_id in moved} - staying
    steps = [waiting_for_every_part(step, calculation.bowl) for step in steps if step.part not in gone]
    named = _parts_named(steps, calculation.bowl) - moved
    puts = _placing_steps(calculation, steps, last_of, named)
    placed = _with_placing_steps(steps, puts, moved)
    claims = settle_claims(
        _offers(calculation, puts, is_made, named, steps[-1].id),
        [StepOnSheet(step.id, step, is_called(step), lambda choice: followed(calculation, choice)) for step in placed],
        amounts,
    )
    settled = {ingoing.part_id for going in claims.values() for ingoing in going}.union(
        after.step for step in placed for after in step.after
    )
    late = tuple(StepDependency(part_id) for part_id in last_of if part_id not in settled)
    placed[-1] = replace(placed[-1], after=(*placed[-1].after, *late))
    return placed, claims


def followed(calculation: Calculation, choice: str) -> str:
    """The school that the way's steps go by; of the grain's water and rinses, what the sheet says."""
    if choice == "grain.water":
        return calculation.sheet.grain.water
    if choice == "grain.rinses":
        return "some" if calculation.sheet.grain.rinses else "none"
    return calculation.schools.get(choice, "")


def waiting_for_every_part(step: Step, bowl: Bowl) -> Step:
    """The step with a wait for each part of a role that its card waits for, where the sheet has several."""
    if len(bowl.parts) < _FEWEST_WITH_TWO_ALIKE:
        return step
    waits = tuple(
        wait if wait.step == part_id else replace(wait, step=part_id)
        for wait in step.after
        for part_id in [part.id for part in bowl.parts.values() if part.part.role == wait.step] or [wait.step]
    )
    return step if waits == step.after else replace(step, after=waits)


def _parts_named(steps: Sequence[Step], bowl: Bowl) -> set[PartId]:
    roles = {role for step in steps for adds in step.adds for role in adds.parts}
    return {part_id for part_id in bowl.parts if role_of(part_id) in roles}


def _with_placing_steps(steps: Sequence[Step], puts: Sequence[_PlacingStep], moved: set[PartId]) -> list[Step]:
    """What is put on comes one after another between a step and all that it waits for: how long that may lie is how soon the
    first of them begins."""
    placed: list[Step] = []
    for step in steps:
        before = [after for after in step.after if after.step not in moved]
        order = tuple(before)
        for put in (put for put in puts if put.before == step.id):
            placed.append(replace(put.step, at=_placing_vessel(put, step), after=(*put.step.after, *order)))
            order = (
                StepDependency(put.step.id, 0, LIES_READY_MIN),
                *(StepDependency(after.step, after.at_least) for after in before),
            )
        placed.append(step if order == step.after else replace(step, after=order))
    return placed


def _placing_vessel(put: _PlacingStep, step: Step) -> str:
    """What lies under or at the wall goes into the vessel that is filled next; the rest to where the mass is by then."""
    if put.output.place.where in ("under", "wall") or not step.tips:
        return step.at
    return step.tips[0]


def _offers(
    calculation: Calculation,
    puts: Sequence[_PlacingStep],
    is_made: Callable[[PartId], bool],
    named: Collection[PartId],
    last: str,
) -> list[Offer]:
    """What is to go into the base, in or on the whole, or beside it: at the `last` step, where no step names it."""
    put_at = {(put.output.part_id, put.output.made.output.id): put.step.id for put in puts}
    offers = offers_of_part(calculation.bowl, calculation.bowl.base, is_made)
    for part in calculation.bowl.parts.values():
        for output in part.outputs:
            at = put_at.get((output.part_id, output.made.output.id))
            if at is None and output.place.to == "beside" and not output.place.joins and output.part_id not in named:
                at = last
            offers += offers_of_output(calculation.bowl, output, is_made, at)
    return offers


def _placing_steps(
    calculation: Calculation, steps: Sequence[Step], last_of: Mapping[PartId, str], named: set[PartId]
) -> list[_PlacingStep]:
    placings = []
    for part_id, bowl in calculation.bowl.parts.items():
        for i, output in enumerate(bowl.outputs):
            if output.rest > 0 and not (i == 0 and part_id in named):
                put = _placing_step(
                    steps,
                    output,
                    f"put-{part_id}" if i == 0 else f"put-{part_id}-{output.made.output.id}",
                    made=StepDependency(part_id, 0, _sets_within(bowl, output)) if part_id in last_of else None,
                )
                placings += [put] if put else []
    return sorted(placings, key=lambda put: put.at)


def _placing_step(
    steps: Sequence[Step], output: PartOutput, step_id: str, *, made: StepDependency | None
) -> _PlacingStep | None:
    """The step for an output that goes in or on the whole, once it is made; None for what goes elsewhere."""
    place, ids = output.place, [step.id for step in steps]
    if place.to != "whole" or place.where is None:
        return None
    card = PLACING[place.where]
    name = output.item.name[:1].lower() + output.item.name[1:]
    step = Step(
        step_id,
        translate(card.title).format(name=name),
        card.words,
        Minutes(max(_LEAST_MIN, card.minutes * min(1.0, output.rest / _FULL_WORK_G))),
        "held",
        after=(made,) if made else (),
        uses=("counter",),
        work="messy",
        tools=card.tools,
    )
    # The step that it was to join may be one that went when the part was put elsewhere.
    before = next(name for name in (place.joins, *card.before, ids[-1]) if name in ids)
    return _PlacingStep(before, list(PLACING).index(place.where), output, step)


def _sets_within(bowl: PartBowl, output: PartOutput) -> float | None:
    """Minutes after which it can no longer be put anywhere; None for what stays as it is."""
    sets, inside = bowl.family and bowl.family.sets, output.made.composition
    return sets.within_min if sets and 100 * inside.solids > sets.solids_pct * inside.total else None


def _is_moved(calculation: Calculation, part: Part) -> bool:
    """Whether the sheet puts a part elsewhere, or at another step, than its way's own steps do."""
    said, usual = part.rest.get(""), calculation.way.rests.get(part.role) or RESTS.get(part.role)
    if said is None or usual is None:
        return False
    return (said.to, said.where, said.joins) != (usual.to, usual.where, usual.joins)

"""The ledger of vessels: what each vessel holds before a step, what comes in and goes, and what it holds after.

A fold over the steps that schools and parts call for. Grams of food only: leaf, paper and string are tare.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from kemble.core.cards.card_contract import MADE
from kemble.core.cards.card_parts import Amount, Step
from kemble.core.facts.fact import FactBook
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.sentences import Words
from kemble.core.sheet.bowl import Bowl
from kemble.core.stations.calculation import AnswerModel
from kemble.core.stations.claims import Amounts, Ingoing

_A_CRUMB_G = 0.05


class VesselContent(AnswerModel):
    """What a vessel holds, by what it has become, in grams."""

    name: Words
    grams: float
    vessel: Words = ""  # kept plans of before do not say


class VesselEntry(AnswerModel):
    """A step's vessel in grams: what is in it before, what is tipped in from others, what is added, what comes (or, negative,
    goes) by itself, what is in it after, and what that is then called. `beside_g`: left over where it was divided."""

    vessel: Words
    before_g: float
    tipped: tuple[VesselContent, ...] = ()
    added_g: float = 0.0
    change_g: float = 0.0
    beside_g: float = 0.0
    after_g: float
    holds: Words


@dataclass(frozen=True, slots=True)
class LedgerStep:
    """A step with what goes in at it; `part_id` is the part that it makes, none for the way's own. `tips`: the vessels that are
    emptied here, those of steps before it that are not called for among them."""

    id: str
    step: Step
    part_id: PartId | None
    goes_in: Sequence[Ingoing]
    tips: tuple[str, ...] = ()


@dataclass(slots=True)
class _Ledger:
    facts: FactBook
    bowl: Bowl
    amounts: Amounts
    left_over: Mapping[PartId, float]
    holds: dict[tuple[PartId | None, str], tuple[str, float]] = field(default_factory=dict)
    used: float = 1.0  # of the base: what is over where it is divided goes into no heat

    def enter(self, here: LedgerStep, *, changes: Sequence[Amount], is_done: bool, later_g: float) -> VesselEntry:
        step, owner = here.step, here.part_id
        name, before = self.holds.get((owner, step.at), ("", 0.0))
        tipped = [
            (vessel, *self.holds.pop((owner, vessel)))
            for vessel in dict.fromkeys(here.tips)
            if vessel != step.at and (owner, vessel) in self.holds
        ]
        added = sum(each.grams for each in here.goes_in if is_food(each) and not _is_tare(owner))
        beside = self._left_over(here, tipped[0][2] if tipped else 0.0)
        # Of what is divided here itself, what no piece takes is counted by its pieces already.
        part_ids = {each.part_id for each in here.goes_in if each.part_id} if not step.each or tipped else set()
        untaken = sum(max(0.0, self.left_over.get(part_id, 0.0)) for part_id in part_ids)
        total = before + sum(grams for _, _, grams in tipped) + added - beside - untaken
        after = total + self._change(here, total, changes, is_done=is_done, later_g=later_g)
        becomes = step.becomes or next((called for _, called, _ in tipped if called), "") or name
        if not becomes and len(here.goes_in) == 1:
            becomes = here.goes_in[0].contribution.item.name
        if owner is not None and is_done:
            becomes = self.bowl.parts[owner].main.item.name
        if after > _A_CRUMB_G or before or tipped:
            self.holds[owner, step.at] = (becomes, after)
        if beside > _A_CRUMB_G and tipped:
            self.holds[owner, tipped[0][0]] = (tipped[0][1], beside)
        return unchecked_model(
            VesselEntry,
            vessel=step.at,
            before_g=before,
            tipped=tuple(
                unchecked_model(VesselContent, name=called, grams=grams, vessel=vessel)
                for vessel, called, grams in tipped
                if grams > _A_CRUMB_G
            ),
            added_g=added,
            change_g=after - total,
            beside_g=beside + untaken,
            after_g=after,
            holds=becomes,
        )

    def _change(
        self, here: LedgerStep, total: float, changes: Sequence[Amount], *, is_done: bool, later_g: float
    ) -> float:
        """Grams that come or, negative, go by themselves."""
        if here.part_id is not None:
            made = sum(each.made.grams for each in self.bowl.parts[here.part_id].outputs if each.item.group != "leaf")
            return made - later_g - total if is_done else 0.0
        return self.used * sum(self.amounts.get(amount, 0.0) for amount in changes)

    def _left_over(self, here: LedgerStep, tipped_g: float) -> float:
        """What is over once so many pieces of their weight are made of the mass that is tipped in and what joins it."""
        step = here.step
        if not step.each or step.each not in self.facts or "shape.pieces" not in self.facts:
            return 0.0
        joins = sum(each.grams for each in here.goes_in if is_food(each) and (each.part_id is None or not tipped_g))
        mass = tipped_g + joins
        within = {each.part_id for each in here.goes_in if each.part_id} if step.each != "shape.base_g" else set()
        lacking = sum(max(0.0, -self.left_over.get(part_id, 0.0)) for part_id in within)
        wanted = self.facts.number("shape.pieces") * self.facts.number(step.each)
        left = max(0.0, mass - max(0.0, wanted - lacking))
        if here.part_id is None and tipped_g and mass:
            self.used *= 1 - left / mass
        return left


def is_food(ingoing: Ingoing) -> bool:
    return not _is_tare(ingoing.part_id)


def _is_tare(part_id: PartId | None) -> bool:
    """Whether it is leaf or paper: round what is eaten, never eaten."""
    return part_id is not None and role_of(part_id) == "wrapper"


def fold_ledger(
    steps: Sequence[LedgerStep],
    bowl: Bowl,
    facts: FactBook,
    amounts: Amounts,
    left_over: Mapping[PartId, float],
) -> dict[str, VesselEntry]:
    """By step that stands in a vessel, its entry. `steps` in working order; `left_over`: grams of a part that no piece takes,
    such as the dust that is brushed off; negative, what the pieces lack of it."""
    ledger = _Ledger(facts, bowl, amounts, left_over)
    last_change = {amount: here.id for here in steps if here.part_id is None for amount in here.step.changes}
    clings_at = next((here.id for here in steps if here.step.weigh == "mix.batch_g"), None)
    done_at = {here.part_id: here.id for here in steps if here.part_id is not None}
    done_at |= {here.part_id: here.id for here in steps if here.part_id is not None and here.step.weigh == MADE}
    entries: dict[str, VesselEntry] = {}
    for i, here in enumerate(steps):
        if not here.step.at:
            continue
        is_done = here.part_id is not None and done_at[here.part_id] == here.id
        later = sum(
            ingoing.grams
            for each in (steps[i + 1 :] if is_done else ())
            if each.part_id == here.part_id
            for ingoing in each.goes_in
            if is_food(ingoing)
        )
        entries[here.id] = ledger.enter(
            here,
            changes=[
                *(amount for amount in here.step.changes if last_change.get(amount) == here.id),
                *(("clings",) if here.id == clings_at else ()),
            ],
            is_done=is_done,
            later_g=later,
        )
    return entries


def shown_on_scale(entry: VesselEntry, here: LedgerStep) -> float:
    """Grams that the scale should show at a step, by what its card has weighed."""
    if here.step.scale == "tipped":
        return sum(content.grams for content in entry.tipped)
    if here.step.scale == "liquid":
        return sum(ingoing.grams for ingoing in here.goes_in if ingoing.contribution.item.group == "liquid")
    return entry.after_g


def vessels_emptied(step: Step, filled: Collection[str], left_out: Sequence[Step]) -> tuple[str, ...]:
    """The vessels that a step empties: of one that is not `filled`, its own among them, since steps before it are left out,
    those that these would have emptied into it."""
    tips = list(step.tips)
    if any(vessel in filled for vessel in tips):
        return step.tips  # what it empties is there: the others are of choices that are not followed
    for earlier in reversed(left_out):
        if earlier.at in (step.at, *tips) and earlier.at not in filled:
            instead = [vessel for vessel in earlier.tips if vessel not in tips]
            at = tips.index(earlier.at) + 1 if earlier.at in tips else len(tips)
            tips[at:at] = instead
    return tuple(tips)

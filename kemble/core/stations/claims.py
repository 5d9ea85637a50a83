"""What goes in at which step: every line of the sheet, and what is made of every part, at one step and once.

A line goes in where it says that it joins; else at the first step that names it; else at the first that takes all that is
left. A part that is bought ready has no step of its own: its lines go in where the part does.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

from kemble.core.cards.card_parts import Adds, Amount, Step, stage_of
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.sheet.bowl import Bowl, Contribution, PartBowl, PartOutput

_A_CRUMB_G = 1e-6


@dataclass(frozen=True, slots=True)
class Ingoing:
    """So many grams that go in at a step, at which moment of it (`act`). `part_id` is the part that they are of."""

    contribution: Contribution
    grams: float
    part_id: PartId | None = None
    act: str = ""

    @property
    def share(self) -> float:
        """Of its contribution."""
        return self.grams / self.contribution.grams if self.contribution.grams else 0.0


@dataclass(slots=True)
class Offer:
    """Something that is to go in somewhere: a contribution, the part that it is of, and where it says that it joins."""

    contribution: Contribution
    part_id: PartId | None = None
    joins: str = ""
    is_line: bool = True  # one of the vessel's own formula, which a step that takes all that is left takes
    left: float = field(init=False)

    def __post_init__(self) -> None:
        self.left = self.contribution.grams


@dataclass(frozen=True, slots=True)
class StepOnSheet:
    """A step as a claimant: whether schools and parts call for it, and how to ask which school is followed."""

    id: str
    step: Step
    called_for: bool
    followed: Callable[[str], str]


Amounts = Mapping[Amount, float]


@dataclass(slots=True)
class _Claims:
    by_step: dict[str, list[Ingoing]] = field(default_factory=dict)

    def give(self, step_id: str, offer: Offer, grams: float, act: str = "") -> None:
        grams = min(grams, offer.left)
        if grams > _A_CRUMB_G:
            offer.left -= grams
            self.by_step.setdefault(step_id, []).append(Ingoing(offer.contribution, grams, offer.part_id, act))


def settle_claims(offers: Sequence[Offer], steps: Sequence[StepOnSheet], amounts: Amounts) -> dict[str, list[Ingoing]]:
    """By step what goes in at it. Of an amount that several steps could take, the last has it."""
    claims = _Claims()
    open_claims = [
        (each, adds)
        for each in steps
        if each.called_for
        for adds in each.step.adds
        if all(each.followed(choice) in schools for choice, schools in adds.when.items())
    ]
    for offer in offers:
        place = step_along_the_mass(offer.joins, steps) if offer.joins else None
        if place is not None:
            claims.give(place, offer, offer.left)
    last_with = {adds.by: each.id for each, adds in open_claims}
    for each, adds in open_claims:
        named = (
            () if adds.takes_rest else [offer for offer in offers if offer.left > _A_CRUMB_G and _names(adds, offer)]
        )
        if adds.by is None:
            for offer in named:
                claims.give(each.id, offer, adds.share * offer.left, adds.act)
        elif last_with[adds.by] == each.id:
            budget = amounts.get(adds.by, 0.0)
            for offer in named:
                grams = min(budget, offer.left)
                budget -= grams
                claims.give(each.id, offer, grams, adds.act)
    for each, adds in open_claims:
        for offer in offers if adds.takes_rest else ():
            if offer.is_line:
                claims.give(each.id, offer, offer.left, adds.act)
    acts = {each.id: [adds.act for adds in each.step.adds if adds.act] for each, _ in open_claims}
    order = {id(offer.contribution): i for i, offer in enumerate(offers)}
    for step_id, going in claims.by_step.items():
        moments = ["", *acts.get(step_id, ())]
        going.sort(key=lambda ingoing: (moments.index(ingoing.act), order[id(ingoing.contribution)]))
    return claims.by_step


def _names(adds: Adds, offer: Offer) -> bool:
    if any(kind in adds.but for kind in offer.contribution.kinds):
        return False
    if offer.part_id is not None and role_of(offer.part_id) in adds.parts:
        return True
    return offer.is_line and offer.part_id is None and any(kind in adds.kinds for kind in offer.contribution.kinds)


def step_along_the_mass(step_id: str, steps: Sequence[StepOnSheet]) -> str | None:
    """The step itself where it is called for; else the next one that is, at which what its vessel holds goes on. Of a stage
    that only the method gives, its step."""
    ids = [each.id for each in steps]
    step_id = step_id if step_id in ids else stage_of(step_id)[0]
    at = ids.index(step_id) if step_id in ids else None
    if at is None:
        return None
    if steps[at].called_for:
        return step_id
    vessel = steps[at].step.at
    later = [each for each in steps[at + 1 :] if each.called_for and each.step.at]
    return next(
        (each.id for each in later if vessel in (each.step.at, *each.step.tips)), later[0].id if later else None
    )


def offers_of_part(bowl: Bowl, part: PartBowl, is_made: Callable[[PartId], bool]) -> list[Offer]:
    """What is to go into a part."""
    return [offer for contribution in part.contributions for offer in _as_it_goes_in(bowl, contribution, is_made)]


def offers_of_output(
    bowl: Bowl, output: PartOutput, is_made: Callable[[PartId], bool], put_at: str | None
) -> list[Offer]:
    """What of an output goes in or on the whole (at the step `put_at`, where it has one of its own), beside it, or into the
    base that counts it raw."""
    if output.rest <= _A_CRUMB_G or output.place.to not in ("whole", "beside", "base"):
        return []
    grams = output.rest
    contribution = Contribution(f"part.{output.part_id}.made_g", output.item, grams, output.composition(grams))
    lines = _lines_of(bowl, contribution, output.part_id, is_made)
    return [Offer(line, output.part_id, put_at or output.place.joins, is_line=False) for line in lines]


def _as_it_goes_in(bowl: Bowl, contribution: Contribution, is_made: Callable[[PartId], bool]) -> Iterator[Offer]:
    taken = contribution.taken
    if taken is None:
        yield Offer(contribution, None, contribution.joins)
        return
    for lines in _lines_of(bowl, contribution, taken.source, is_made):
        yield Offer(lines, taken.source, contribution.joins)


def _lines_of(
    bowl: Bowl, contribution: Contribution, source: PartId, is_made: Callable[[PartId], bool]
) -> Iterable[Contribution]:
    """The contribution of a part that is made; of one that is bought ready, its share of the part's lines."""
    part = bowl.parts[source]
    if is_made(source) or part.part.made_on or not part.contributions:
        return [contribution]
    share = contribution.grams / part.grams
    lines = (
        replace(line, grams=share * line.grams, composition=line.composition.scaled(share), joins=contribution.joins)
        for line in part.contributions
    )
    return [
        went_in
        for line in lines
        for went_in in (_lines_of(bowl, line, line.taken.source, is_made) if line.taken else [line])
    ]

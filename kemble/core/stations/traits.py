"""What this making is like, in the words that cards ask by; and of a step what it then says, and is called."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import replace
from typing import Any

from kemble.core.cards.card_parts import GOES_IN, OF_PART, Brings, Choice, Sentence, Step, Variant
from kemble.core.facts.vocabulary import PartId, role_of
from kemble.core.sentences import translate
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.claims import Ingoing


def traits_of(calculation: Calculation, part_id: PartId | None) -> frozenset[str]:
    """The traits of a part, or of the whole for the way's steps: of the schools that are followed, of the parts that the sheet
    has, and of what their lines are."""
    known = calculation.traits.get(part_id)
    if known is None:
        known = calculation.traits[part_id] = frozenset(_find_traits(calculation, part_id))
    return known


def _find_traits(calculation: Calculation, part_id: PartId | None) -> set[str]:
    bowl = calculation.bowl
    part = bowl.parts[part_id] if part_id else bowl.base
    traits = {kind for each in part.contributions for kind in each.kinds}
    traits |= {role_of(each) for each in bowl.parts}
    traits |= _of_schools(calculation.way.choices, lambda choice: calculation.schools.get(choice.id, ""))
    if part.family is not None and part_id is not None:
        school, form = part.family.school, calculation.way.form
        traits |= _of_schools(part.family.choices, lambda choice: school(part.part.schools, choice.id, form))
    if part_id is None:
        traits |= {
            f"{kind}{OF_PART}{role_of(other.part.id)}"
            for other in bowl.parts.values()
            for each in other.contributions
            for kind in each.kinds
        }
    return traits


def _of_schools(choices: Iterable[Choice], followed: Callable[[Choice], str]) -> set[str]:
    """Of a choice that is open only under another's school, nothing where that is not followed."""
    chosen = {choice.id: followed(choice) for choice in choices}
    return {
        trait
        for choice in choices
        if choice.under is None or chosen.get(choice.under[0]) == choice.under[1]
        for school in choice.schools
        if school.id == chosen[choice.id]
        for trait in school.traits
    }


def in_its_words(step: Step, traits: frozenset[str], goes_in: Iterable[Ingoing]) -> Step:
    """The step as its card has it in this making: the sentences that are true of it, its title, tools and cue."""
    traits = traits.union(f"{name}{GOES_IN}" for ingoing in goes_in for name in _names_of(ingoing))
    of_step: dict[str, Sequence[Sentence | Brings]] = {"words": step.words, "asks": step.asks, "brings": step.brings}
    changes: dict[str, Any] = {}
    for name, said in of_step.items():
        true = tuple(each for each in said if holds(each, traits))
        if len(true) < len(said):
            changes[name] = true
    changes |= _of_variants(step, traits)
    return replace(step, **changes) if changes else step


def in_its_variants(step: Step, traits: frozenset[str]) -> Step:
    """The step with what its variants change where the making has these traits."""
    changes = _of_variants(step, traits)
    return replace(step, **changes) if changes else step


def _of_variants(step: Step, traits: frozenset[str]) -> dict[str, Any]:
    """What the variants change; a later one goes before an earlier."""
    return {name: to for each in step.variants if holds(each, traits) for name, to in each.changes.items()}


def holds(said: Sentence | Variant | Brings, traits: Collection[str]) -> bool:
    """Whether what it presumes is so."""
    for name in said.presumes:
        if name not in traits:
            return False
    return not any(name in traits for name in said.unless) if said.unless else True


def joined(words: Iterable[Sentence]) -> str:
    """Sentences as they are read, in the reader's language."""
    return " ".join(translate(sentence.text) for sentence in words)


def _names_of(ingoing: Ingoing) -> Iterable[str]:
    return (*ingoing.contribution.kinds, *((role_of(ingoing.part_id),) if ingoing.part_id else ()))

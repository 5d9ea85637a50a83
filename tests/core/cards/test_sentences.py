"""Every sentence of a card says what it presumes; what it names is there wherever it is said."""

import re
from typing import get_args

import pytest

from kemble.core.cards.card_parts import GOES_IN, OF_PART, Brings, Sentence, Step, Variant
from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.family import Family
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.way import Way
from kemble.core.cards.ways import WAYS
from kemble.core.facts.vocabulary import Group, PartRole
from kemble.core.kitchen.larder import Tag, larder

CARDS: dict[str, Way | Family] = {
    **{f"way {way.id}": way for way in WAYS.values()},
    **{f"part {card.id}": card for card in FAMILIES.values()},
}
STEPS = [(name, step) for name, card in CARDS.items() for step in card.steps]
SCHOOL_TRAITS = {
    trait for card in CARDS.values() for choice in card.choices for school in choice.schools for trait in school.traits
}
KINDS = {*get_args(Group), *get_args(Tag), *larder(), "soaking", "dry-legume", "thickener"}

# What a sentence may name only where the making has it: the word, and what the sentence must then presume, one of these.
NAMED = {
    r"\beggs?\b": {"egg", "egg-fried"},
    r"\bbutter\b(?! the| it)": {"butter", "nut"},
    r"\bthe (?:flavoured )?oil\b": {"fat", "oil"},
    r"\bthe fat\b": {"fat"},
    r"\bsalt\b": {"salt"},
    r"\bsugar\b": {"sugar"},
    r"\bleaf\b|\b(?:the|two|fresh) leaves\b": {"wraps", "leaf-lined"},
    r"\bfoil\b": {"kitchen-foil", "covered"},
    r"\bstring\b": {"kitchen-string"},
    r"\bstarch\b": {"starched", "thickener"},
    r"\broasted flour\b": {"soy-dusted"},
    r"\bfillings?\b": {"filling"},
    r"\bglaze\b": {"glaze"},
    r"\bsyrup\b": {"syrup"},
    r"\bbroth\b": {"broth"},
    r"\bthe coat\b": {"coat"},
    r"\bbeans?\b": {"legume", "dry-legume", "soaking"},
    r"\bnuts?\b": {"nut", "raw-nut", "heart"},
    r"\bfruit\b": {"fruit", "heart", "dried-fruit"},
    r"\bgloves\b": {"gloved"},
    r"\bscissors\b": {"scissors"},
    r"\bblade\b": {"by-machine"},
    r"\bmilk\b": {"milk", "coconut-milk-thin", "legume"},
    r"\brind\b": {"orange-rind", "lemon-rind"},
    r"\bcrumbs\b": {"crumbed"},
    r"\bcooker\b": {"in-cooker"},
}


def names_in(said):
    """What a sentence presumes, without whether it goes in at this step or is of a part."""
    return {re.split(f"{GOES_IN}|{OF_PART}", name)[0] for name in said.presumes}


def sentences():
    for name, step in STEPS:
        for sentence in (*step.words, *step.asks):
            yield pytest.param(name, step, sentence, id=f"{name} {step.id}: {sentence.text[:30]}")


@pytest.mark.parametrize(("name", "step", "sentence"), sentences())
def test_what_a_sentence_names_it_presumes(name, step, sentence):
    """Or its step does, has it among its tools, or its card makes it before."""
    card = CARDS[name]
    there = names_in(sentence) | set(step.presumes) | {step.part}
    made = " ".join((*step.tools, *(tool for variant in step.variants for tool in variant.tools)))
    made += " ".join(each.becomes for each in card.steps) + " " + card.name.lower()
    for pattern, wanted in NAMED.items():
        for word in re.findall(pattern, sentence.text.lower()):
            singular = word.removeprefix("the ").removesuffix("s")
            assert wanted & there or singular in made, (
                f"“{sentence.text}” names {word} and presumes {sentence.presumes}"
            )


def test_the_words_that_are_looked_for_are_all_said_by_some_card():
    """A pattern that matches nothing guards nothing."""
    texts = [said.text.lower() for _, step in STEPS for said in (*step.words, *step.asks)]
    assert [pattern for pattern in NAMED if not any(re.search(pattern, text) for text in texts)] == []


def said_of(step: Step) -> list[Sentence | Variant | Brings]:
    return [*step.words, *step.asks, *step.variants, *step.brings]


def test_what_a_step_brings_is_in_the_larder():
    brought = {brings.ingredient for _, step in STEPS for brings in step.brings}
    assert brought
    assert sorted(brought - set(larder())) == []


def asked() -> set[str]:
    """Every trait that a step, or what is said at one, goes by."""
    names = {name for _, step in STEPS for name in step.presumes}
    return names | {name for _, step in STEPS for said in said_of(step) for name in (*said.presumes, *said.unless)}


def test_a_step_that_stands_in_any_method_presumes_nothing():
    """Nothing is known of the cake that a common step is put into."""
    assert all(said.presumes == () == said.unless for common in COMMON_STEPS.values() for said in common.words)


def test_every_trait_that_is_presumed_some_making_can_have():
    for name in asked():
        bare, *of_role = re.split(OF_PART, name.removesuffix(GOES_IN))
        assert bare in KINDS | SCHOOL_TRAITS | set(get_args(PartRole)), name
        assert not of_role or of_role[0] in get_args(PartRole), name


def test_every_trait_of_a_school_is_asked_for():
    assert sorted(SCHOOL_TRAITS - asked()) == []

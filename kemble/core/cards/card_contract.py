"""What code may ask a card for, and the check of every card when it is loaded.

Code may ask a card for the choices, steps and scales that stand here, and for no others: their ids are types, so that a
name that nobody agreed on does not compile. A card may use what stands here and whatever it brings along itself. Where
it does neither, it is refused with its file and line.
"""

from __future__ import annotations

import ast
import itertools
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping
from pathlib import Path
from types import ModuleType
from typing import Literal, get_args

from kemble.core.cards.card_parts import GOES_IN, Choice, Step
from kemble.core.cards.cautions import CAUTIONS
from kemble.core.cards.family import Family
from kemble.core.cards.taste_scales import SCALES
from kemble.core.cards.way import Way
from kemble.core.facts.vocabulary import KEYS, PartRole

ChoiceId = Literal[
    "cook", "course", "cover", "dense", "done", "finish", "grain", "pot", "pound", "rest", "start", "until"
]

# The schools that code tells apart. A card that has such a choice takes its schools from here; a way that has it not is
# worked as if the first were followed. None: any schools, for the card itself says what each of them does.
ASKED: Mapping[ChoiceId, tuple[str, ...] | None] = {
    "cook": None,
    "course": ("steady", "strong-first"),
    "cover": ("open", "covered"),
    "dense": ("dense", "leavened"),
    "finish": None,
    "done": ("float-then-simmer", "float"),
    "grain": None,
    "pot": ("water", "broth", "thickened"),
    "pound": ("machine", "mortar", "bowl"),
    "rest": ("cool", "chill", "overnight"),
    "start": ("chilled", "frozen"),
    "until": ("clear", "colour"),
}
# What a card may ask like a choice, though a field of the sheet says it.
OF_THE_SHEET: Mapping[str, set[str]] = {"grain.water": {"all", "poured", "own"}, "grain.rinses": {"some", "none"}}
MADE = "made"  # what the scale should show at a part's step: the part, done, in its pan where that is known
# The heats that need what is heated in a tin, and those that need pieces.
_IN_A_TIN = frozenset({"steam", "bake"})
_IN_PIECES = frozenset({"boil", "wrapped"})


class CardError(ValueError):
    """A card that does not keep to the contract. Its text names the file, the line and what is wrong there."""


def check_way(way: Way, module: ModuleType) -> Way:
    """The way, when it keeps to the contract. Raises CardError otherwise."""
    _refuse_any(_faults_of_way(way), module)
    return way


def check_family(family: Family, module: ModuleType) -> Family:
    """The family, when it keeps to the contract. Raises CardError otherwise."""
    _refuse_any(_faults_of_family(family), module)
    return family


Said = tuple[str, str]  # what in the card it is about, as it is written there; and what is wrong


def _faults_of_way(way: Way) -> Iterator[Said]:
    schools = {choice.id: {school.id for school in choice.schools} for choice in way.choices}
    yield from _choices(way.choices)
    yield from step_findings(way.steps, schools)
    by_school = (
        *((choice.id, *choice.under) for choice in way.choices if choice.under),
        *(("heat_by", *row[:2]) for row in way.heat_by),
        *(("finish_by", *row[:2]) for row in way.finish_by),
        *(("batter_by", *row[:2]) for row in way.batter_by),
        *(("scalds", *row[:2]) for row in way.scalds),
        *(("finishes", *row[:2]) for row in way.finishes),
        *(("cook_loss_by", *row[:2]) for row in way.cook_loss_by),
        *(("least_skin_by", *row[:2]) for row in way.least_skin_by),
        *(("rolled_when", *row) for row in (way.rolled_when,) if row),
        *(("sheeted_when", *row) for row in (way.sheeted_when,) if row),
    )
    for where, choice, school in by_school:
        if school not in schools.get(choice, ()):
            yield where, f'there is no school "{school}" of a choice "{choice}"'
    if len(way.grain_cook) > 1:
        for school in sorted(schools.get("grain", set()) ^ set(way.grain_cook)):
            yield "grain_cook", f'"{school}" stands in grain_cook or in the choice "grain", but not in both'
    ids = [step.id for step in way.steps]
    yield from unknown_names(way.cooks, ids, "step")
    yield from unknown_names((rest.joins for rest in way.rests.values() if rest.joins), ids, "step")
    if not way.cooks:
        yield "cooks", "a way says in which of its steps the base is cooked"
    if way.base == "grain" and not way.grain_cook:
        yield "grain_cook", "a way that begins from grain says how it is cooked"
    for heat in (way.heat, *(heat for _, _, heat in way.heat_by)):
        if (heat in _IN_A_TIN and way.form != "tin") or (heat in _IN_PIECES and way.form == "tin"):
            yield heat, f'a {way.form} is not heated by "{heat}"'
    yield from unknown_names(way.scales, SCALES, "scale of taste")
    yield from duplicate_ids(way.scales, "scale of taste")
    if "softness" not in way.tastes:
        yield "tastes", "softness is asked of every batch: it gives the verdict on the map"
    yield from unknown_names(way.cautions, CAUTIONS, "caution")
    yield from unknown_names((limit.fact for limit in way.limits), KEYS, "fact")
    yield from unknown_names((told.fact for fault in way.faults for told in fault.evidence), KEYS, "fact")
    yield from duplicate_ids((fault.id for fault in way.faults), "fault")


def _faults_of_family(family: Family) -> Iterator[Said]:
    schools = {choice.id: {school.id for school in choice.schools} for choice in family.choices}
    yield from _choices(family.choices)
    yield from step_findings(family.steps, schools, family.roles[0])
    yield from duplicate_ids((output.id for output in family.outputs), "output")
    for output in family.outputs:
        yield from unknown_names(output.main_of, family.roles, "role of this family")
    if not family.steps:
        yield "steps", "a family has a step that others can wait for"
    yield from unknown_names(family.cautions, CAUTIONS, "caution")
    yield from unknown_names((told.fact for fault in family.faults for told in fault.evidence), KEYS, "fact")
    yield from duplicate_ids((fault.id for fault in family.faults), "fault")


def _choices(choices: tuple[Choice, ...]) -> Iterator[Said]:
    yield from duplicate_ids((choice.id for choice in choices), "choice")
    asked = {str(choice): schools for choice, schools in ASKED.items()}
    for choice in choices:
        schools = [school.id for school in choice.schools]
        yield from duplicate_ids(schools, f'school of "{choice.id}"')
        for default in (choice.default, *choice.default_for.values()):
            if default not in schools:
                yield choice.id, f'the default "{default}" is none of its schools'
        known = asked.get(choice.id)
        for school in schools:
            if known is not None and school not in known:
                yield school, f'code does not know the school "{school}" of "{choice.id}"; it knows {", ".join(known)}'


def step_findings(steps: tuple[Step, ...], schools: Mapping[str, set[str]], role: PartRole = "base") -> Iterator[Said]:
    """`role` stands for the * in the facts of a part's step."""
    ids = {step.id for step in steps}
    yield from duplicate_ids((step.id for step in steps), "step")
    yield from _rest_findings(steps, schools)
    schools = {**schools, **OF_THE_SHEET}
    for step_id in sorted(ids.intersection(get_args(PartRole))):
        yield step_id, f'"{step_id}" is a part: a step that is called so could not be told from it'
    for step in steps:
        for wait in step.after:
            if wait.step not in ids and wait.step not in get_args(PartRole):
                yield step.id, f'it waits for "{wait.step}", which is no step and no part'
        for name in step.presumes:
            if name.endswith(GOES_IN):
                yield step.id, f'"{name}" is not known before it is settled which steps there are'
        for choice, called in step.when.items():
            for school in called:
                if school not in schools.get(choice, ()):
                    yield step.id, f'it is for the school "{school}" of "{choice}", which is not there'
        facts = [step.minutes.fact, step.weigh if step.weigh != MADE else None, *(step.window or ())]
        for _, wrong in unknown_names([fact.replace("*", role) for fact in facts if fact], KEYS, "fact"):
            yield step.id, wrong
        for _, wrong in unknown_names(step.cautions, CAUTIONS, "caution"):
            yield step.id, wrong


def _rest_findings(steps: tuple[Step, ...], schools: Mapping[str, set[str]]) -> Iterator[Said]:
    """Whatever schools are followed, some step takes all that no other names: no line is bought and goes in nowhere."""
    takers = [step for step in steps if step.part is None and any(adds.takes_rest for adds in step.adds)]
    asked = sorted({choice for step in takers for choice in step.when if choice in schools})
    for chosen in itertools.product(*(sorted(schools[choice]) for choice in asked)):
        follows = dict(zip(asked, chosen, strict=True))
        if not any(all(follows.get(choice) in said for choice, said in step.when.items()) for step in takers):
            under = ", ".join(f"{choice} {school}" for choice, school in follows.items()) or "any school"
            yield "steps", f"under {under} no step takes what is left of the lines"
            return


def unknown_names(result: Iterable[str], known: Collection[str], what: str) -> Iterator[Said]:
    for name in result:
        if name not in known:
            yield name, f'"{name}" is no {what}'


def duplicate_ids(ids: Iterable[str], what: str) -> Iterator[Said]:
    seen = set[str]()
    for each_id in ids:
        if each_id in seen:
            yield each_id, f'"{each_id}" is a {what} twice'
        seen.add(each_id)


def _refuse_any(faults: Iterator[Said], module: ModuleType) -> None:
    for about, wrong in faults:
        file = Path(module.__file__ or module.__name__)
        raise CardError(f"{file.name}, line {line_number_about(file, about)}: {wrong}")


def line_number_about(file: Path, about: str) -> int:
    """The last line of a card that says `about` first in a call, as a keyword, or anywhere as a word of its own."""
    tree = ast.parse(file.read_text(encoding="utf-8"))
    tests: tuple[Callable[[ast.AST], bool], ...] = (
        lambda node: isinstance(node, ast.Call) and bool(node.args) and mentions_word(node.args[0], about),
        lambda node: isinstance(node, ast.keyword) and node.arg == about,
        lambda node: mentions_word(node, about),
    )
    for test in tests:
        lines = [getattr(node, "lineno", 1) for node in ast.walk(tree) if test(node)]
        if lines:
            return max(lines)
    return 1


def mentions_word(node: ast.AST, word: str) -> bool:
    return isinstance(node, ast.Constant) and node.value == word

"""Steps that cost hours by a choice that nobody may have made: what they cost, and what other choice would begin how much later."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.card_parts import Choice, School, Step, stage_of
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.computing_guard import computes
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen
from kemble.core.sentences import Words, translate
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.soaks import SOAKS, soaked
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult, work

LONG_MIN = 120.0  # by itself: from so long on a step is told to cost hours
WORTH_MIN = 30.0  # another choice is offered where the work then begins at least so much later
# Choices that make a step long without being named on its card, by the fact of its minutes.
_BY_FACT: Mapping[str, str] = {"rest.cut_after_min": "rest", "rest.freeze_filling_min": "start"}
GRAIN_SOAK = "grain.soak_min"


class QuickerChoice(BaseModel):
    """Another choice for a long step: of the sheet, or of its `part`; or so many minutes of soak at so many °C. `later_min`: the
    work begins so much later with it."""

    model_config = ConfigDict(frozen=True)

    label: Words
    later_min: float
    part: PartId | None = None
    choice: str = ""
    school: str = ""
    soak_min: float | None = None
    soak_c: float | None = None


class LongStep(BaseModel):
    """A step that costs hours, by which choice, and what would take less."""

    model_config = ConfigDict(frozen=True)

    step: str
    title: Words
    minutes: float
    by: Words
    instead: list[QuickerChoice]


@computes
def long_steps(sheet: Sheet, kitchen: Kitchen) -> list[LongStep]:
    """Every step of hours that another choice would spare, the longest first; the one that spares most of each first."""
    worked = work(sheet, kitchen)
    if worked.problems:
        return []
    now = span_min(worked.steps)
    long: list[LongStep] = []
    for step in worked.steps:
        if step.hands != "free" or step.minutes < LONG_MIN:
            continue
        by, others = _other_choices(sheet, step, worked)
        instead = sorted(_quicker(others, kitchen, now), key=lambda quicker: -quicker.later_min)
        if instead:
            long.append(LongStep(step=step.id, title=step.title, minutes=step.minutes, by=by, instead=instead))
    return sorted(long, key=lambda step: -step.minutes)


def span_min(steps: Sequence[StepResult]) -> float:
    """Minutes from the first step to the table where nobody waits for hands or a burner: the longest way through the waits."""
    ends: dict[str, float] = {}
    for step in steps:
        ends[step.id] = max((ends[wait.step] + wait.at_least for wait in step.after), default=0.0) + step.minutes
    return max((ends[step.id] for step in steps if step.serves), default=0.0)


def _quicker(others: Sequence[tuple[QuickerChoice, Sheet]], kitchen: Kitchen, now: float) -> Iterator[QuickerChoice]:
    for choice, sheet in others:
        worked: WorkResult = work(sheet, kitchen)
        later = now - span_min(worked.steps)
        if not worked.problems and later >= WORTH_MIN:
            yield choice.model_copy(update={"later_min": later})


def _other_choices(sheet: Sheet, step: StepResult, worked: WorkResult) -> tuple[str, list[tuple[QuickerChoice, Sheet]]]:
    """The words of the choice that makes a step long, and each other one with the sheet under it."""
    if step.fact == GRAIN_SOAK:
        now = next((label for _, minutes, label, _ in SOAKS if minutes == sheet.grain.soak_min), "")
        changed = [(label, soaked(sheet, soak)) for soak, minutes, label, _ in SOAKS if minutes < sheet.grain.soak_min]
        return translate(now), [
            (
                QuickerChoice(label=label, later_min=0, soak_min=other.grain.soak_min, soak_c=other.grain.soak_c),
                other,
            )
            for label, other in changed
        ]
    choice = _choice_of(sheet, step, worked)
    if choice is None:
        return "", []
    part_id = step.part
    followed = _followed(sheet, part_id, choice)
    return translate(followed.label), [
        (
            QuickerChoice(label=school.label, later_min=0, part=part_id, choice=choice.id, school=school.id),
            _with_school(sheet, part_id, choice.id, school.id),
        )
        for school in choice.schools
        if school.id != followed.id
    ]


def _choice_of(sheet: Sheet, step: StepResult, worked: WorkResult) -> Choice | None:
    """The choice that a step is there for, or whose school makes it so long."""
    way = WAYS[sheet.way]
    choices: Sequence[Choice] = way.choices
    steps: Sequence[Step] = way.steps
    card_id = stage_of(step.id)[0]
    if step.part is not None:
        family = FAMILIES[next(part.family for part in worked.parts if part.id == step.part)]
        choices, steps, card_id = family.choices, family.steps, card_id.removeprefix(f"{step.part}-")
    card = next((card for card in steps if card.id == card_id), None)
    named = [*(card.when if card else ()), *([_BY_FACT[step.fact]] if step.fact in _BY_FACT else [])]
    return next((choice for choice in choices if choice.id in named), None)


def _followed(sheet: Sheet, part_id: PartId | None, choice: Choice) -> School:
    part = sheet.part(part_id) if part_id else None
    usual = choice.default_for.get(WAYS[sheet.way].form, choice.default)
    said = part.schools.get(choice.id, usual) if part else sheet.school(choice.id)
    return next(school for school in choice.schools if school.id == said)


def _with_school(sheet: Sheet, part_id: PartId | None, choice: str, school: str) -> Sheet:
    if part_id is None:
        return sheet.model_copy(update={"schools": {**sheet.schools, choice: school}})
    parts = tuple(
        part.model_copy(update={"schools": {**part.schools, choice: school}}) if part.id == part_id else part
        for part in sheet.parts
    )
    return sheet.model_copy(update={"parts": parts})

"""The steps of a sheet: its way's steps that its schools and parts call for, with durations from the facts."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.facts import Book
from kemble.core.quantity import Measures, household
from kemble.core.sheet import PartRole, Sheet
from kemble.core.ways.base import After, Minutes, Step, Way


class Worded(BaseModel):
    model_config = ConfigDict(frozen=True)


class CueWorked(Worded):
    question: str
    how: str
    yes: str
    no: str
    looks: str


class Wait(Worded):
    """This step begins at least and at most so many minutes after `step` has ended."""

    step: str
    at_least: float
    at_most: float | None


class Window(Worded):
    """Minutes from the step's start."""

    first_check: float
    done: float
    latest: float


class Target(Worded):
    """What the scale should show."""

    key: str
    label: str
    grams: float


class ToHand(Worded):
    """One ingredient to have ready: grams, the household measure nearest to it, and where its shares go."""

    name: str
    grams: float
    household: str
    splits: list[str]


class StepWorked(Worded):
    """One step with its minutes. `hands`: held takes a cook whole, minded a little, free not at all."""

    id: str
    title: str
    words: str
    minutes: float
    hands: Literal["held", "minded", "free"]
    uses: list[str]
    after: list[Wait]
    cue: CueWorked | None
    window: Window | None
    target: Target | None
    to_hand: list[ToHand]
    caution: str


def steps_of(sheet: Sheet, way: Way, book: Book, measures: Measures) -> list[StepWorked]:
    """The steps in the way's order. A step left out hands its predecessors on to those that waited for it."""
    kept = {step.id for step in way.steps if _called_for(step, sheet)}
    return [_worked(step, sheet, way, kept, book, measures) for step in way.steps if step.id in kept]


def _called_for(step: Step, sheet: Sheet) -> bool:
    if any(sheet.school(choice) not in schools for choice, schools in step.when.items()):
        return False
    roles: dict[str, PartRole] = {"filling": "filling", "broth": "broth", "coat": "coat", "base": "base"}
    return step.part is None or sheet.part(roles[step.part]) is not None


def _waits(step: Step, way: Way, kept: set[str]) -> list[After]:
    found: list[After] = []
    for after in step.after:
        if after.step in kept:
            found.append(after)
        else:
            found.extend(_waits(way.step(after.step), way, kept))
    return found


def _minutes(minutes: Minutes, book: Book) -> float:
    pieces = next((book.number(key) for key in ("shape.pieces", "cut.pieces") if key in book), 0.0)
    total = minutes.fixed + minutes.per_piece * pieces
    if minutes.fact:
        total += book.number(minutes.fact) * (book.number(minutes.times_fact) if minutes.times_fact else 1.0)
    return total


def _to_hand(step: Step, sheet: Sheet, measures: Measures) -> list[ToHand]:
    part = next((part for part in sheet.parts if part.role == step.lists), None)
    found = []
    for line in part.lines if part else ():
        if step.lists_groups and line.item.group not in step.lists_groups:
            continue
        near = household(line.used_g, g_per_ml=line.item.g_per_ml, measures=measures)
        found.append(
            ToHand.model_construct(
                name=line.item.name,
                grams=line.used_g,
                household=near.text if near else "",
                splits=[f"{split.share * line.used_g:.0f} g {split.at}" for split in line.splits],
            )
        )
    return found


def _worked(step: Step, sheet: Sheet, way: Way, kept: set[str], book: Book, measures: Measures) -> StepWorked:
    minutes = _minutes(step.minutes, book)
    window = None
    if step.window:
        # With several loads, one after another, the window is that of the last.
        before = minutes - book.number(step.window[1])
        first, done, latest = (before + book.number(key) for key in step.window)
        window = Window.model_construct(first_check=first, done=done, latest=latest)
    target = None
    if step.weigh and step.weigh in book:
        target = Target.model_construct(
            key=step.weigh, label=book.facts[step.weigh].label, grams=book.number(step.weigh)
        )
    return StepWorked.model_construct(
        id=step.id,
        title=step.title,
        words=step.words,
        minutes=minutes,
        hands=step.hands,
        uses=list(step.uses),
        after=[
            Wait.model_construct(step=a.step, at_least=a.at_least, at_most=a.at_most) for a in _waits(step, way, kept)
        ],
        cue=CueWorked(**{name: getattr(step.cue, name) for name in CueWorked.model_fields}) if step.cue else None,
        window=window,
        target=target,
        to_hand=_to_hand(step, sheet, measures),
        caution=step.caution,
    )

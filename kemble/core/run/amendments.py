"""What a cook changes of the method while it is being made: a plan with such entries laid on it.

The page folds the same (web/src/runs/amendments.ts).
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from datetime import timedelta

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.sentences import Words, translate
from kemble.core.sheet.method import OWN_HANDS, OWN_MIN, Entry, OwnStep, StepChange
from kemble.core.stations.steps import GivenTime, StepResult, StepWait, with_given_time


def with_amendments(plan: Plan, entries: Sequence[StepChange | OwnStep]) -> Plan:
    """The plan as these entries change it, one after another. One for a step that it does not have changes nothing."""
    scheduled = list(plan.scheduled)
    for entry in entries:
        scheduled = _with_own(scheduled, entry) if isinstance(entry, OwnStep) else _with_change(scheduled, entry)
    return plan.model_copy(update={"scheduled": scheduled}) if entries else plan


def _with_change(scheduled: list[ScheduledStep], entry: StepChange) -> list[ScheduledStep]:
    return [_changed(each, entry) if each.step.id == entry.step else each for each in scheduled]


def _changed(scheduled: ScheduledStep, entry: StepChange) -> ScheduledStep:
    step = scheduled.step
    if entry.words:
        step = step.model_copy(update={"own_words": entry.words})
    if entry.minutes is None:
        return scheduled.model_copy(update={"step": step})
    step = with_given_time(step, GivenTime(minutes=entry.minutes, by=entry.by))
    return scheduled.model_copy(update={"step": step, "ends": scheduled.starts + timedelta(minutes=step.minutes)})


def _with_own(scheduled: list[ScheduledStep], own: OwnStep) -> list[ScheduledStep]:
    """One more step behind another; whatever waited for that waits for it too."""
    at = next((i for i, each in enumerate(scheduled) if each.step.id == own.after), None)
    if at is None or own.minutes is None or any(each.step.id == own.own for each in scheduled):
        return scheduled
    before = scheduled[at]
    step = StepResult(
        id=own.own,
        part=before.step.part,
        entry=own.own,
        title=own.title,
        words="",
        own_words=own.words,
        minutes=own.minutes,
        hands=OWN_HANDS[own.hands or "both"],
        uses=[],
        after=[StepWait(step=own.after, at_least=0, at_most=None)],
        cue=None,
        window=None,
        target=None,
        to_hand=[],
        cautions=[],
    )
    added = ScheduledStep(
        step=step,
        starts=before.ends,
        ends=before.ends + timedelta(minutes=own.minutes),
        dish=before.dish,
        who=before.who,
    )
    wait = StepWait(step=own.own, at_least=0, at_most=None)
    waiting = [
        each.model_copy(update={"step": each.step.model_copy(update={"after": [*each.step.after, wait]})})
        if any(other.step == own.after for other in each.step.after) and wait not in each.step.after
        else each
        for each in scheduled
    ]
    return [*waiting[: at + 1], added, *waiting[at + 1 :]]


class MethodOffer(BaseModel):
    """What the sheet says of its method now and this batch does not do yet: an entry to amend it by, or, without one, a step
    to leave out."""

    model_config = ConfigDict(frozen=True)

    step: str
    title: Words
    minutes: float | None
    entry: StepChange | OwnStep | None


def offers_of(
    began_with: Sequence[Entry], now: Sequence[Entry], plan: Plan, begun: Collection[str]
) -> list[MethodOffer]:
    """What has changed in a sheet's method since a batch of it began, for the steps that are still to come. `plan` is the
    batch's as it is now."""
    if tuple(began_with) == tuple(now):
        return []
    by_entry = {each.step.entry or each.step.id: each.step for each in plan.scheduled}
    known = set(began_with)
    offers: list[MethodOffer] = []
    for entry in now:
        if entry in known:
            continue
        if isinstance(entry, OwnStep):
            offers += _own_step_offer(entry, {each.step.id: each.step for each in plan.scheduled}, begun)
        elif isinstance(entry, StepChange) and (step := by_entry.get(entry.step)) and step.id not in begun:
            offers += _change_offer(entry, step)
    return offers


def _change_offer(entry: StepChange, step: StepResult) -> Iterator[MethodOffer]:
    if entry.skip:
        yield MethodOffer(step=step.id, title=step.title, minutes=None, entry=None)
        return
    minutes = entry.minutes if entry.uses_given and entry.per is None and entry.minutes != step.minutes else None
    words = entry.words if entry.words != step.own_words else ""
    if minutes is not None or words:
        change = StepChange(step=step.id, minutes=minutes, by=entry.by if minutes else "", words=words)
        yield MethodOffer(step=step.id, title=step.title, minutes=minutes, entry=change)


def _own_step_offer(own: OwnStep, steps: Mapping[str, StepResult], begun: Collection[str]) -> Iterator[MethodOffer]:
    if own.own in steps or own.after not in steps or own.per is not None:
        return
    if any(own.after in [wait.step for wait in step.after] and step.id in begun for step in steps.values()):
        return  # its place has gone by
    card = COMMON_STEPS.get(own.common)
    title = own.title.strip() or (translate(card.title) if card else "")
    minutes = own.minutes or (card.minutes if card else OWN_MIN)
    entry = OwnStep(own=own.own, title=title, words=own.words, minutes=minutes, hands=own.hands, after=own.after)
    yield MethodOffer(step=own.own, title=title, minutes=minutes, entry=entry)

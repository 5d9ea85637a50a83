"""What a cook changes of the method while it is being made: a plan with such entries laid on it.

The page folds the same (web/src/runs/amendments.ts).
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.sheet.method import OWN_HANDS, OwnStep, StepChange
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

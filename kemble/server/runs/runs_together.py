"""Runs that are made together: begun from an occasion, and what is left of them planned anew when things went otherwise."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime

from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import Fact
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.log.fault_evidence import BatchFacts
from kemble.core.plan.occasion import Helper
from kemble.core.plan.resources import HelperHours
from kemble.core.plan.schedule import Plan, ScheduledStep, kitchen_time, table_at
from kemble.core.run.actual_batch import reworked
from kemble.core.run.event_fold import events_that_count, plan_now, rests_of
from kemble.core.run.events import AddedIngredient, AnyEvent, PlanRest, RestReplanned
from kemble.core.run.replan import OpenRun, Otherwise, ReplannedRuns, replan
from kemble.core.sentences import say
from kemble.core.sheet.document import sheet_from
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult
from kemble.server.models import Run
from kemble.server.runs.records import add_event
from kemble.server.sheets.work_results import result_for
from kemble.server.storage.fair_lock import WORKING, writing

LATE_MIN = 2.0  # a flow so much earlier or later than its plan has it is planned anew
# Of a step that is worked anew, what changes; how it hangs together with the others is the plan's.
_ANEW = (
    *("minutes", "between", "window", "hangs", "given", "predicted"),
    *("target", "to_hand", "vessel", "count", "bounds", "words"),
)


def rethink(run: Run, now: datetime) -> bool:
    """Plan the rest of the run and of all that is made with it, if what has happened asks for it. Whether it did.

    What was weighed and added goes into the chain first, so that pieces, times and targets follow. Asked twice about the
    same happenings, by two devices or after a lost answer, it is done once.
    """
    last = _newest(run)
    if run.finished:
        return False
    uid = _uid(last, run)
    if run.events.filter(uid=uid).exists():
        return False
    kitchen = run.kitchen.settings
    with WORKING:
        rest = _replan_flow(run, kitchen, now)
    if rest is None:
        return False
    with writing():
        if run.events.filter(uid=uid).exists():
            return False
        for each_run, told in rest:
            own = uid if each_run.pk == run.pk else _uid_in_other_run(uid, each_run.pk)
            at = max(now, last.at) if last else now
            add_event(
                each_run, RestReplanned(uid=own, at=at, kind="replanned", of=last.uid if last else None, rest=told)
            )
    return True


def _newest(run: Run) -> AnyEvent | None:
    return next((event for event in reversed(run.log) if event.kind not in ("replanned", "noted")), None)


def _uid_in_other_run(uid: str, other: int) -> str:
    """The uid of a plan of the rest in another run of the flow than the one for which it was made."""
    return f"{uid}-{other}"


def _uid(last: AnyEvent | None, run: Run) -> str:
    """One plan of the rest for each last word: of a run of which nothing was told yet, that it has begun."""
    return f"rest-{hashlib.sha256(f'{run.pk} {last.uid if last else None}'.encode()).hexdigest()[:24]}"


def _replan_flow(run: Run, kitchen: Kitchen, now: datetime) -> list[tuple[Run, PlanRest]] | None:
    """What is left of every run of the flow, where it is to lie elsewhere than it does."""
    flow = [each_run for each_run in run.flowing if each_run.finished is None]
    anew = _recalculate_by_actual(run, kitchen)
    logs = {run.pk: run.log for run in flow}
    orphans = _orphans(logs, {run.pk: run.kept.plan for run in flow})
    plans = [
        _with_recalculated_steps(
            plan_now(each_run.kept.plan, [event for event in logs[each_run.pk] if event.uid not in orphans]),
            anew[0] if anew and each_run.pk == run.pk else None,
        )
        for each_run in flow
    ]
    going = [
        OpenRun(run.title, plan, run.state_by(plan, now), run.kept.plan.serve)
        for run, plan in zip(flow, plans, strict=True)
    ]
    drift = max((abs(_drift(open_run)) for open_run in going), default=0.0)
    if anew is None and drift < LATE_MIN and not orphans:
        return None
    replanned_runs = replan(going, kitchen, now=now, helpers=_helpers(run, kitchen), otherwise=_other_schools(flow))
    says = list(anew[1]) if anew else []
    if replanned_runs is None:
        if anew is None:
            return None
        replanned_runs = ReplannedRuns([[] for _ in flow], 0, [], [])
    return [
        (
            each_run,
            PlanRest(
                scheduled=_scheduled(each_run, plan, steps, now),
                says=[*(says if each_run.pk == run.pk else []), *replanned_runs.says],
                choices=list(replanned_runs.choices),
                facts=_otherwise_than_told(each_run, anew[0]) if anew and each_run.pk == run.pk else None,
                core=anew[0].core if anew and each_run.pk == run.pk else None,
                late_min=replanned_runs.later_min,
            ),
        )
        for each_run, plan, steps in zip(flow, plans, replanned_runs.scheduled, strict=True)
    ]


def _orphans(logs: Mapping[int, Sequence[AnyEvent]], plans: Mapping[int, Plan]) -> set[str]:
    """Uids of plans of the rest that fell in the run for which they were made and hold in another of its flow still."""
    planned = {pk: [event.uid for event in log if event.kind == "replanned"] for pk, log in logs.items()}
    stand = {pk: {event.uid for event in events_that_count(plans[pk], log)} for pk, log in logs.items() if planned[pk]}
    fell = [uid for pk, uids in planned.items() for uid in uids if uid not in stand[pk]]
    result: set[str] = set()
    for pk, uids in planned.items():
        left = {_uid_in_other_run(uid, pk) for uid in fell}
        hold = [uid for uid in uids if uid in stand[pk]]
        if hold and hold[-1] in left:  # one that another lies over holds no more
            result |= left
    return result


def _recalculate_by_actual(run: Run, kitchen: Kitchen) -> tuple[WorkResult, Sequence[str]] | None:
    """The run worked by what was weighed and added, and what moved; None when that is as it goes already."""
    kept = run.kept
    try:
        recalculated = reworked(kept.sheet, kitchen, kept.plan, run.log, kept.facts, facts_now(run))
    except Refused as refused:
        return result_for(kept.sheet, kitchen), [say("It cannot be worked with that: {refused}.", refused=refused)]
    return (recalculated.worked, recalculated.says) if recalculated else None


def facts_now(run: Run) -> dict[str, Fact]:
    """The facts by which a run goes: those that it began with, or those of the newest plan of its rest that moved any."""
    told = run.kept.facts
    moved = next((rest.facts for rest in reversed(rests_of(run.kept.plan, run.log)) if rest.facts is not None), None)
    return told if moved is None else {**told, **moved}


def happened_in(run: Run, now: datetime) -> BatchFacts:
    """A run as witnesses of a fault see it."""
    plan = plan_now(run.kept.plan, run.log)
    return BatchFacts(
        facts=facts_now(run),
        steps={scheduled_step.step.id: scheduled_step.step for scheduled_step in plan.scheduled},
        states={state.id: state for state in run.state(now).steps},
        events=events_that_count(run.kept.plan, run.log),
    )


def added_of(run: Run) -> list[AddedIngredient]:
    """What went in beside what the sheet says, as far as that stands."""
    return [event.added for event in events_that_count(run.kept.plan, run.log) if event.kind == "added"]


def added_words(run: Run) -> list[str]:
    """What went in beside what the sheet says: "15 g of Sweet rice flour to the base"."""
    shelf, parts = Shelf(run.kitchen.settings), {part.id: part.called for part in run.kept.sheet.parts}
    result = []
    for added in added_of(run):
        item = shelf.item(added.ingredient)
        result.append(
            say(
                "{grams:g} g of {name} to the {get}",
                grams=added.grams,
                name=item.name if item else added.ingredient,
                get=parts.get(added.part, added.part),
            )
        )
    return result


def _otherwise_than_told(run: Run, worked: WorkResult) -> dict[str, Fact]:
    told = run.kept.facts
    return {key: fact for key, fact in worked.facts.items() if told.get(key) != fact}


def _with_recalculated_steps(plan: Plan, worked: WorkResult | None) -> Plan:
    """The plan with its steps as they are worked anew."""
    if worked is None:
        return plan
    by_id = {step.id: step for step in worked.steps}
    scheduled = [
        scheduled_step.model_copy(update={"step": _anew(scheduled_step.step, by_id[scheduled_step.step.id])})
        if scheduled_step.step.id in by_id
        else scheduled_step
        for scheduled_step in plan.scheduled
    ]
    return plan.model_copy(update={"scheduled": scheduled})


def _anew(step: StepResult, now: StepResult) -> StepResult:
    return step.model_copy(update={name: getattr(now, name) for name in _ANEW})


def _drift(going: OpenRun) -> float:
    """Minutes by which a run ends later than its plan has it."""
    return (going.state.expected_serve - table_at(going.plan.scheduled)).total_seconds() / 60


def _scheduled(run: Run, plan: Plan, moved: Sequence[ScheduledStep], now: datetime) -> list[ScheduledStep]:
    """The steps of a run that are not done: those that moved where they lie now, the running ones as they began."""
    at = {scheduled_step.step.id: scheduled_step for scheduled_step in moved}
    done = {state.id for state in run.state_by(plan, now).steps if state.status == "done"}
    return [
        at.get(scheduled_step.step.id, scheduled_step)
        for scheduled_step in plan.scheduled
        if scheduled_step.step.id not in done
    ]


def _helpers(run: Run, kitchen: Kitchen) -> list[HelperHours]:
    """Who helps on the occasion that the flow is made for."""
    if run.occasion is None:
        return []
    return [_helping(helper, kitchen) for helper in run.occasion.occasion.helpers]


def _helping(helper: Helper, kitchen: Kitchen) -> HelperHours:
    begins, ends = (kitchen_time(kitchen, at) for at in (helper.begins, helper.ends))
    return HelperHours(helper.name, begins, ends, helper.safe_only)


def _other_schools(flow: Sequence[Run]) -> Otherwise:
    """Other schools of resting and cutting: what is heated already is heated."""

    def others(number: int) -> Iterable[tuple[str, Sequence[StepResult]]]:
        run = flow[number]
        sheet, kitchen = run.kept.sheet, run.kitchen.settings
        for choice in WAYS[sheet.way].choices:
            if choice.station != "cut":
                continue
            for school in choice.schools:
                if sheet.school(choice.id) == school.id:
                    continue
                document = sheet.model_dump(mode="json")
                worked = result_for(
                    sheet_from({**document, "schools": {**document["schools"], choice.id: school.id}}), kitchen
                )
                if not worked.problems:
                    yield school.label, worked.steps

    return others

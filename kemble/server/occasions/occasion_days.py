"""The day of an occasion: its sheets fetched, scaled and worked, its plan made, kept, and made again when it must be."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime

from django.utils import timezone
from pydantic import ValidationError

from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.facts.problems import Refused, refuse
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import ChangedDish, Others
from kemble.core.plan.day_solver import Dish
from kemble.core.plan.occasion import (
    DayPlan,
    Occasion,
    OccasionDish,
    asked_of,
    dish_of,
    plan_day,
    serving_instant,
    steps_without_parts,
)
from kemble.core.plan.plan_progress import PlanProgress
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet, sheet_from
from kemble.core.sheet.soaks import SOAKS, soaked
from kemble.core.stations.work_sheet import WorkResult
from kemble.server.models import KitchenRecord, OccasionRecord, SheetRecord
from kemble.server.occasions.planning_jobs import PlanningJob, planning_of
from kemble.server.sheets.work_results import result_fingerprint, result_for
from kemble.server.storage.fair_lock import writing


@dataclass(frozen=True)
class WorkedDish:
    """One sheet of an occasion, at the size that it is made in, worked."""

    record: SheetRecord
    sheet: Sheet
    worked: WorkResult
    problem: str = ""


def scale_to_people(sheet: Sheet, asked: OccasionDish, people: int | None, kitchen: Kitchen) -> Sheet:
    """The sheet as the occasion has it: by its schools, for so many people where it says how many pieces each has, and so
    many times of that."""
    if asked.schools:
        document = sheet.model_dump(mode="json")
        sheet = sheet_from({**document, "schools": {**document["schools"], **asked.schools}})
    if asked.soak and WAYS[sheet.way].base == "grain":
        sheet = soaked(sheet, asked.soak)
    if asked.each is not None and people is not None:
        sheet = adjust(sheet, Adjustment(by="people", people=people, each=asked.each), kitchen).sheet
    if asked.factor != 1.0:
        grams = result_for(sheet, kitchen).facts["mix.batch_g"].value
        sheet = adjust(sheet, Adjustment(by="batch", grams=asked.factor * float(grams)), kitchen).sheet
    return sheet


def others_of(kitchen: KitchenRecord, occasion: Occasion, made: Sequence[WorkedDish]) -> Others:
    """How a dish could be made otherwise: its grain soaked otherwise (overnight in the fridge first), by each other school
    of its rest and its heat, and half of it."""
    settings = kitchen.settings

    def others(dish: int) -> Iterator[ChangedDish]:
        asked, worked_dish = occasion.dishes[dish], made[dish]
        people = occasion.people_of(asked)
        way = WAYS[worked_dish.sheet.way]
        tries: list[tuple[str, str, OccasionDish]] = []
        if way.base == "grain":
            tries += [
                (
                    say("soaked {label}", label=label) + (say(", in the fridge") if side == "overnight" else ""),
                    buys,
                    asked.model_copy(update={"soak": side}),
                )
                for side, minutes, label, buys in reversed(SOAKS)
                if minutes and minutes != worked_dish.sheet.grain.soak_min
            ]
        tries += [
            (
                f"{choice.title.lower()}: {school.label}",
                school.buys,
                asked.model_copy(update={"schools": {**asked.schools, choice.id: school.id}}),
            )
            for choice in sorted(way.choices, key=lambda choice: choice.station != "cut")
            if choice.station in ("cut", "heat")
            for school in choice.schools
            if worked_dish.sheet.school(choice.id) != school.id
        ]
        tries.append(
            (say("half as much"), say("half as much to eat"), asked.model_copy(update={"factor": asked.factor / 2}))
        )
        for says, costs, other in tries:
            try:
                sheet = scale_to_people(worked_dish.record.sheet, other, people, settings)
            except Refused:
                continue
            worked = result_for(sheet, settings)
            if worked.problems:
                continue
            choice, school = next(iter(other.schools.items() - asked.schools.items()), ("", ""))
            yield ChangedDish(
                says=says,
                costs=costs,
                steps=steps_without_parts(worked.steps, asked.there),
                choice=choice,
                school=school,
                soak=other.soak if other.soak != asked.soak else "",
                factor=other.factor,
            )

    return others


def made_of(kitchen: KitchenRecord, occasion: Occasion) -> list[WorkedDish]:
    """Every sheet of an occasion, worked. Raises Refused for a sheet that is not there."""
    settings = kitchen.settings
    records = {row.pk: row for row in kitchen.sheets.filter(pk__in={dish.sheet for dish in occasion.dishes})}
    dishes = []
    for i, dish in enumerate(occasion.dishes):
        record = records.get(dish.sheet)
        if record is None:
            refuse(
                f"dishes.{i}.sheet",
                say("sheet {sheet} is not there", sheet=dish.sheet),
                say("a sheet of this kitchen, not thrown away"),
            )
        try:
            sheet = scale_to_people(record.sheet, dish, occasion.people_of(dish), settings)
        except Refused as refused:
            refuse(
                f"dishes.{i}.each",
                say("{title} cannot be made so large: {refused}", title=record.title, refused=refused),
                say("another size"),
            )
        worked = result_for(sheet, settings)
        dishes.append(WorkedDish(record, sheet, worked, worked.problems[0].sentence if worked.problems else ""))
    return dishes


def dishes_of(kitchen: KitchenRecord, occasion: Occasion, made: Sequence[WorkedDish], now: datetime) -> list[Dish]:
    """What the day is to be planned for. Raises Refused when a sheet cannot be worked, or a time will not do."""
    for i, dish in enumerate(made):
        if dish.problem:
            refuse(
                f"dishes.{i}.sheet",
                say("{title} cannot be worked: {problem}", title=dish.record.title, problem=dish.problem),
                say("a sheet that works"),
            )
    settings = kitchen.settings
    dishes = [
        dish_of(
            dish.record.title,
            steps_without_parts(dish.worked.steps, asked.there),
            serving_instant(occasion, settings, asked.serving, now),
            asked.days_before,
        )
        for asked, dish in zip(occasion.dishes, made, strict=True)
    ]
    asked_of(occasion, dishes, settings, now)
    return dishes


def planned_by(kitchen: KitchenRecord, occasion: Occasion, made: Sequence[WorkedDish]) -> str:
    """What a day was made from: the code and the kitchen, the occasion, and its sheets as they stand."""
    said = occasion.model_dump_json() + "".join(f" {dish.record.pk}.{dish.record.revision}" for dish in made)
    return f"{result_fingerprint(kitchen.settings)} {hashlib.sha256(said.encode()).hexdigest()[:20]}"


@dataclass(frozen=True)
class OccasionDay:
    """The day of an occasion, its sheets as they are made, and its planning when that is on or was stopped: the day is
    the one before it then."""

    day: DayPlan
    made: list[WorkedDish]
    planning: PlanningJob | None = None


def kept_day(record: OccasionRecord, patience_s: float | None = None) -> OccasionDay:
    """The day as it was kept; made again when its occasion, its sheets, the kitchen or the code have changed, or its begin
    has gone by: waited for as long as that (None: to the end).

    What cannot be planned any more (a sheet thrown away, a time that is past) is the day as it was last.
    """
    kitchen, occasion, now = record.kitchen, record.occasion, timezone.now()
    last = _last_plan(record)
    try:
        made = made_of(kitchen, occasion)
    except Refused:
        return OccasionDay(last, [])
    by = planned_by(kitchen, occasion, made)
    stale = last.plan is not None and last.plan.begin < now
    if not made or (record.planned_by == by and not stale):
        return OccasionDay(last, made)
    try:
        dishes = dishes_of(kitchen, occasion, made, now)
    except Refused:
        return OccasionDay(last, made)

    def plan(watch: PlanProgress) -> DayPlan:
        others = others_of(kitchen, occasion, made)
        return plan_day(
            occasion, dishes, kitchen.settings, now=now, before=last.plan, others=others, watch=watch
        )  # fmt: skip

    began = f" {last.plan.begin.isoformat()}" if stale and last.plan else ""
    planning = planning_of(record.pk, by + began, now, plan)
    day = planning.day(patience_s)
    if day is None:
        return OccasionDay(last, made, planning)
    if day.plan is None and stale and last.plan is not None:
        return OccasionDay(last, made)  # it is under way
    record.day, record.planned_by = day.model_dump(mode="json"), by
    with writing():
        kept = OccasionRecord.objects.filter(pk=record.pk, revision=record.revision)
        kept.update(day=record.day, planned_by=by)
    return OccasionDay(day, made)


def _last_plan(record: OccasionRecord) -> DayPlan:
    try:
        return DayPlan.model_validate(record.day)
    except ValidationError:
        return DayPlan()  # one sheet's plan of before


def first_serving(occasion: Occasion, kitchen: Kitchen, now: datetime) -> datetime:
    """When people eat first."""
    return min(serving_instant(occasion, kitchen, i, now) for i in range(len(occasion.servings)))


@dataclass(frozen=True, slots=True)
class CheckedOccasion:
    """An occasion that can be planned: what is stored of it beside its document."""

    occasion: Occasion
    title: str
    serve: datetime


def check_occasion(kitchen: KitchenRecord, occasion: Occasion) -> CheckedOccasion:
    """Work every sheet of an occasion, before it is stored. Raises Refused for what will not do."""
    made, now = made_of(kitchen, occasion), timezone.now()
    dishes_of(kitchen, occasion, made, now)
    title = occasion.title or (made[0].record.title if made else say("An occasion"))
    return CheckedOccasion(occasion, title, first_serving(occasion, kitchen.settings, now))


def store_occasion(record: OccasionRecord, checked: CheckedOccasion) -> None:
    """The occasion into its row; its day is planned by whoever asks for it. Call inside `writing()`."""
    occasion = checked.occasion
    same = record.pk and [(occasion_dish.sheet, occasion_dish.serving) for occasion_dish in record.occasion.dishes] == [
        (occasion_dish.sheet, occasion_dish.serving) for occasion_dish in occasion.dishes
    ]
    record.title, record.serve = checked.title, checked.serve
    record.document = occasion.model_dump(mode="json")
    if not same:
        record.day = DayPlan().model_dump(mode="json")  # another table: nothing lies where it did
    record.planned_by = ""
    record.save()

"""An occasion: when people eat, how many, which sheets at which size, what is there already, who helps; and its day."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.computing_guard import computes
from kemble.core.facts.problems import refuse
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.clashes import Clash, Others, explain_clash
from kemble.core.plan.cook_assignment import assign_cooks
from kemble.core.plan.day_solver import Dish, PlanRequest, SolvedDay, key_of, solve_day
from kemble.core.plan.on_time_odds import OnTimeOdds, simulate_on_time_odds
from kemble.core.plan.plan_progress import PlanningStopped, PlanProgress
from kemble.core.plan.resources import HelperHours
from kemble.core.plan.schedule import Plan, kitchen_time, plan_of, table_at
from kemble.core.sentences import say
from kemble.core.sheet.soaks import SoakId
from kemble.core.stations.steps import StepResult

WALL = "a date and time on the kitchen's clock, such as 2026-12-05T15:30"
MOST_DISHES = 60
_MOST_AHEAD = timedelta(days=400)
_SECONDS, _SECONDS_OF_MANY, _FEW = 5.0, 20.0, 6
_SAFER = 3  # tries to be nine times in ten in time
_MOVED_MIN = 5  # a step that lies so much elsewhere is told to have moved


class _OccasionModel(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Serving(_OccasionModel):
    """A time at which people eat, and how many of them."""

    at: str = Field(max_length=16, description=WALL)
    name: str = Field("", max_length=60, description="at most 60 letters")
    people: int | None = Field(None, ge=1, le=500, description="a whole number from 1 to 500")


class OccasionDish(_OccasionModel):
    """One sheet on the table. It is made for the people of its serving, `each` pieces for one, or as it stands, so many
    times; so many `days_before`; by other `schools` than the sheet's; its grain soaked otherwise (`soak`: overnight is in
    the fridge); without the parts that are there already."""

    sheet: int = Field(ge=1, le=2**53 - 1, description="the number of a sheet")
    serving: int = Field(0, ge=0, le=7, description="the number of a serving, from 0")
    each: float | None = Field(None, gt=0, le=50, allow_inf_nan=False, description="above 0, at most 50 pieces")
    days_before: int = Field(0, ge=0, le=6, description="0 to 6 days")
    schools: dict[str, str] = Field(
        {}, max_length=12, description="choices of its way that are followed otherwise here"
    )
    soak: SoakId | Literal[""] = ""
    factor: float = Field(1.0, ge=0.05, le=20, allow_inf_nan=False, description="0.05 to 20 times as much")
    there: tuple[PartId, ...] = Field((), max_length=12, description="parts that are there already")


class Helper(_OccasionModel):
    """Somebody who helps for a while; `safe_only` a child or somebody new."""

    name: str = Field(min_length=1, max_length=40, description="a name of 1 to 40 letters")
    begins: str = Field(max_length=16, description=WALL)
    ends: str = Field(max_length=16, description=WALL)
    safe_only: bool = False


class Pinned(_OccasionModel):
    """A step that is to begin at a time, whatever else moves."""

    dish: int = Field(ge=0, lt=MOST_DISHES, description="the number of a dish, from 0")
    step: str = Field(min_length=1, max_length=60, description="a step of it")
    at: str = Field(max_length=16, description=WALL)


class Occasion(_OccasionModel):
    """The document. `simulate_on_time_odds` "likely": counted back by what is likely; "safe": nine times in ten in time. `quiet`: quiet
    hours are kept."""

    format: Literal["kemble-occasion"] = "kemble-occasion"
    version: Literal[1] = 1
    title: str = Field("", max_length=120, description="at most 120 letters")
    servings: tuple[Serving, ...] = Field(min_length=1, max_length=8, description="1 to 8 servings")
    dishes: tuple[OccasionDish, ...] = Field((), max_length=MOST_DISHES, description="up to 60 sheets")
    helpers: tuple[Helper, ...] = Field((), max_length=12, description="up to 12 helpers")
    pins: tuple[Pinned, ...] = Field((), max_length=60, description="up to 60 pins")
    sure: Literal["likely", "safe"] = "likely"
    quiet: bool = True
    note: str = Field("", max_length=2000, description="at most 2000 letters")

    @model_validator(mode="after")
    def _fits(self) -> Occasion:
        for i, dish in enumerate(self.dishes):
            if dish.serving >= len(self.servings):
                raise PydanticCustomError(
                    "kemble_serving",
                    "is not one of this occasion",
                    {"path": f"dishes.{i}.serving", "accepts": f"0 to {len(self.servings) - 1}"},
                )
        for i, pin in enumerate(self.pins):
            if pin.dish >= len(self.dishes):
                raise PydanticCustomError(
                    "kemble_pin",
                    "is not one of this occasion",
                    {"path": f"pins.{i}.dish", "accepts": "one of its dishes"},
                )
        return self

    def people_of(self, dish: OccasionDish) -> int | None:
        return self.servings[dish.serving].people


class ShiftedStep(BaseModel):
    """A step that lies elsewhere than before."""

    model_config = ConfigDict(frozen=True)

    dish: int
    step: str
    by_min: float


class DayPlan(BaseModel):
    """The day of an occasion: its plan, or why there is none; how sure it is; what moved against the plan before."""

    model_config = ConfigDict(frozen=True)

    plan: Plan | None = None
    clash: Clash | None = None
    sure: OnTimeOdds | None = None
    moved: list[ShiftedStep] = []
    late_min: int = 0


def steps_without_parts(steps: Sequence[StepResult], there: Sequence[str]) -> list[StepResult]:
    """The steps without those of parts that are there already; what waited for them waits for nothing of them."""
    gone = {step.id for step in steps if step.part in there}
    return [
        step.model_copy(update={"after": [wait for wait in step.after if wait.step not in gone]})
        for step in steps
        if step.id not in gone
    ]


def dish_of(title: str, steps: Sequence[StepResult], serve: datetime, days_before: int) -> Dish:
    """A sheet on the table, made so many days before. What has a finish (fried, toasted) is finished on the day."""
    if not days_before:
        return Dish(title, steps, serve)
    sooner = serve - timedelta(days=days_before)
    at = next((i for i, step in enumerate(steps) if step.fact.startswith("finish.")), None)
    if at is None:
        return Dish(title, steps, sooner)
    return Dish(title, steps, serve, made_by=sooner, later=frozenset(step.id for step in steps[at:]))


def serving_instant(occasion: Occasion, kitchen: Kitchen, number: int, now: datetime) -> datetime:
    """The instant of a serving. Raises Refused for one that is past, or more than thirteen months off."""
    path = f"servings.{number}.at"
    at = kitchen_time(kitchen, occasion.servings[number].at, path)
    if at <= now:
        local = now.astimezone(kitchen.zone)
        refuse(path, say("{at:%Y-%m-%d %H:%M} is past", at=at), say("a time after {local:%Y-%m-%d %H:%M}", local=local))
    if at > now + _MOST_AHEAD:
        refuse(path, say("is more than thirteen months off"), say("a time within thirteen months"))
    return at


def asked_of(occasion: Occasion, dishes: Sequence[Dish], kitchen: Kitchen, now: datetime) -> PlanRequest:
    """What the occasion asks of the day. `dishes` are its sheets worked, in its order, each on the table by its time."""
    helpers = []
    for i, helper in enumerate(occasion.helpers):
        begins, ends = (
            kitchen_time(kitchen, getattr(helper, name), f"helpers.{i}.{name}") for name in ("begins", "ends")
        )
        if ends <= begins:
            refuse(f"helpers.{i}.ends", say("is not after it begins"), say("a time after the helper comes"))
        helpers.append(HelperHours(helper.name, begins, ends, helper.safe_only))
    pins = {}
    for i, pin in enumerate(occasion.pins):
        if all(step.id != pin.step for step in dishes[pin.dish].steps):
            refuse(f"pins.{i}.step", say("“{step}” is no step of that sheet", step=pin.step), say("a step of it"))
        pins[key_of(pin.dish, pin.step)] = kitchen_time(kitchen, pin.at, f"pins.{i}.at")
    return PlanRequest(
        dishes=tuple(dishes),
        kitchen=kitchen,
        helpers=tuple(helpers),
        pins=pins,
        not_before=now,
        quiet=occasion.quiet,
    )


@computes
def plan_day(
    occasion: Occasion,
    dishes: Sequence[Dish],
    kitchen: Kitchen,
    *,
    now: datetime,
    before: Plan | None = None,
    others: Others | None = None,
    seconds: float | None = None,
    watch: PlanProgress | None = None,
) -> DayPlan:
    """The best day, moved as little as may be from the plan `before`; or the clash, with what would help.

    Raises Refused for an occasion without a sheet and for times that are none, Stopped when the watch was told to stop
    before a plan was found.
    """
    if not dishes:
        refuse("dishes", say("are none"), say("at least one sheet"))
    watch = watch or PlanProgress()
    asked = replace(asked_of(occasion, dishes, kitchen, now), seconds=seconds or _seconds_for(len(dishes)), watch=watch)
    if before is not None:
        asked = replace(
            asked,
            like={
                key_of(scheduled_step.dish, scheduled_step.step.id): scheduled_step.starts
                for scheduled_step in before.scheduled
            },
        )
    solved = solve_day(asked)
    if solved is None and watch.stopped:
        raise PlanningStopped
    if solved is None:
        titles = [dish.title for dish in dishes]
        clash = explain_clash(asked, titles=titles, others=others) or Clash(
            says=say("No plan was found in the time that it may take: it may be there all the same."),
            bonds=[],
            remedies=[],
        )
        return DayPlan(clash=clash)
    watch.at("chance")
    told = simulate_on_time_odds(asked, solved, assign_cooks(asked, solved))
    if occasion.sure == "safe":
        asked, solved, told = _safer(asked, solved, told)
    plan = plan_of(asked, solved).model_copy(update={"serve": max(dish.serve for dish in dishes)})
    return DayPlan(plan=plan, sure=told, moved=_shifted_steps(before, plan))


def _seconds_for(dishes: int) -> float:
    """How long the best day is looked for: whoever waits sees how far it is, and may take what is found."""
    return _SECONDS if dishes <= _FEW else _SECONDS_OF_MANY


def _safer(asked: PlanRequest, solved: SolvedDay, told: OnTimeOdds) -> tuple[PlanRequest, SolvedDay, OnTimeOdds]:
    """The day begun so much earlier that every dish is in time nine times in ten, or as nearly as there is time for."""
    asked.watch.at("safer")
    earlier = [0.0] * len(asked.dishes)
    for _ in range(_SAFER):
        if all(dish_on_time_odds.earlier_min <= 0 for dish_on_time_odds in told.dishes):
            break
        for dish_on_time_odds in told.dishes:
            earlier[dish_on_time_odds.dish] += dish_on_time_odds.earlier_min
        by = tuple(
            replace(dish, serve=dish.serve - timedelta(minutes=off))
            for dish, off in zip(asked.dishes, earlier, strict=True)
        )
        sooner = replace(asked, dishes=by)
        placed = solve_day(sooner)
        if placed is None:
            break
        solved, told = placed, simulate_on_time_odds(asked, placed, assign_cooks(sooner, placed))
    return asked, solved, told


def _shifted_steps(before: Plan | None, plan: Plan) -> list[ShiftedStep]:
    if before is None:
        return []
    was = {(scheduled_step.dish, scheduled_step.step.id): scheduled_step.starts for scheduled_step in before.scheduled}
    shifted_steps = []
    for scheduled_step in plan.scheduled:
        then = was.get((scheduled_step.dish, scheduled_step.step.id))
        by = (scheduled_step.starts - then).total_seconds() / 60 if then else 0.0
        if abs(by) >= _MOVED_MIN:
            shifted_steps.append(ShiftedStep(dish=scheduled_step.dish, step=scheduled_step.step.id, by_min=by))
    return shifted_steps


def plan_of_dish(plan: Plan, dish: int) -> Plan:
    """One dish's own plan out of a day's, as a making follows it."""
    own = [
        scheduled_step.model_copy(update={"dish": 0})
        for scheduled_step in plan.scheduled
        if scheduled_step.dish == dish
    ]
    if not own:
        refuse("dish", say("is none of this day"), say("the number of a dish of it"))
    return plan.model_copy(update={"scheduled": own, "begin": own[0].starts, "serve": table_at(own)})

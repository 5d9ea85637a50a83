"""When a day cannot be done: the fewest constraints that conflict, in words, and the nearest days that work."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import islice
from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.plan.day_solver import Constraint, Day, Dish, PlanRequest, SolvedDay, Task, solve_day
from kemble.core.plan.plan_progress import PlanningStopped
from kemble.core.plan.resources import HelperHours, named, there_are
from kemble.core.sentences import Words, say
from kemble.core.sheet.soaks import SoakId
from kemble.core.stations.steps import StepResult

_SECONDS, _SECONDS_A_DISH = 0.6, 0.2  # for each try, at least; deterministic but for a machine that is busy
_LATER_MOST_MIN = 3 * 24 * 60
_HELP_MIN = 15  # helpers come and go on the quarter

WayOutKind = Literal["later", "helper", "before", "quiet", "unpin", "school", "soak", "smaller", "without"]
_MOST_OTHERS = 8  # other makings of a dish that are tried
_ENOUGH = 3  # of those that work


class ConflictingConstraint(BaseModel):
    """One bond of a clash: the steps it is about, and what it says."""

    model_config = ConfigDict(frozen=True)

    kind: str
    dish: int | None = None
    step: str = ""
    says: Words


class PlanFix(BaseModel):
    """One way out that works: what it costs, and what of the occasion it changes. Of `later` the minutes, of `helper`
    from when to when, of `before` the dish and its days, of `unpin` the step, of `school`, `soak` and `smaller` the dish and
    what of it is otherwise."""

    model_config = ConfigDict(frozen=True)

    kind: WayOutKind
    says: Words
    costs: Words
    minutes: int = 0
    begins: datetime | None = None
    ends: datetime | None = None
    dish: int | None = None
    step: str = ""
    choice: Words = ""
    school: str = ""
    soak: SoakId | Literal[""] = ""
    factor: float = 1.0


@dataclass(frozen=True, slots=True)
class ChangedDish:
    """A dish made otherwise: what of it is another school or another soak, or how much less, and its steps then."""

    says: str
    costs: str
    steps: Sequence[StepResult]
    choice: str = ""
    school: str = ""
    soak: SoakId | Literal[""] = ""
    factor: float = 1.0


# Other ways to make a dish of the day, by its number; worked where sheets are known.
Others = Callable[[int], Iterable[ChangedDish]]


class Clash(BaseModel):
    """Why a day cannot be done: bonds that cannot all hold, none of them idle; a sentence; and what would help."""

    model_config = ConfigDict(frozen=True)

    says: Words
    bonds: list[ConflictingConstraint]
    remedies: list[PlanFix]


def clashing(asked: PlanRequest) -> list[Constraint]:
    """Bonds that cannot all hold, and of which each is needed for that: taken out alone, the rest can. Empty when the
    day can be done (or nothing is found in the time). Raises Stopped when it was stopped before they were as few as can be.
    """
    asked.watch.at("clash")
    day = Day(asked, switched=True)
    core = day.clash(day.bonds)
    if core is None:
        _check_not_stopped(asked)
        return []
    kept = sorted(core, key=_weight)
    for bond in list(kept):
        rest = [constraint for constraint in kept if constraint != bond]
        smaller = day.clash(rest)
        _check_not_stopped(asked)
        if smaller is not None:
            among = set(smaller)
            kept = [constraint for constraint in kept if constraint in among]
    return kept


def _check_not_stopped(asked: PlanRequest) -> None:
    if asked.watch.stopped:
        raise PlanningStopped


def _weight(bond: Constraint) -> tuple[int, str, str]:
    """What is tried first to be left out: what says least."""
    order = ("quiet", "gap", "wait", "place", "hands", "serve", "now", "pin")
    return (order.index(bond.kind), bond.task, bond.about)


def explain_clash(asked: PlanRequest, *, titles: Sequence[str], others: Others | None = None) -> Clash | None:
    """The clash of a day in words, with remedies that were tried and work. None when it can be done."""
    bonds = clashing(asked)
    if not bonds:
        return None
    tasks = {task.key: task for task in Day(asked).tasks}
    said = [_clashing(asked, bond, tasks, titles) for bond in bonds]
    return Clash(says=_sentence(asked, bonds, tasks), bonds=said, remedies=remedies(asked, bonds, titles, others))


def _clashing(
    asked: PlanRequest, bond: Constraint, tasks: dict[str, Task], titles: Sequence[str]
) -> ConflictingConstraint:
    task = tasks.get(bond.task)
    return ConflictingConstraint(
        kind=bond.kind,
        dish=task.dish if task else None,
        step=task.step.id if task else "",
        says=_constraint_sentence(asked, bond, task, tasks, titles),
    )


def _constraint_sentence(
    asked: PlanRequest, bond: Constraint, task: Task | None, tasks: dict[str, Task], titles: Sequence[str]
) -> str:
    zone = asked.kitchen.zone
    if task is None:
        if bond.kind == "now" and asked.not_before:
            return say("it is {now:%H:%M on %A} already", now=asked.not_before.astimezone(zone))
        return say("quiet from {begins} to {ends}", begins=asked.kitchen.quiet.begins, ends=asked.kitchen.quiet.ends)
    name = f"“{task.step.title}”"
    if bond.kind in ("wait", "gap"):
        before = f"“{tasks[bond.about].step.title}”"
        least, most = next((least, most) for key, least, most in task.waits if key == bond.about)
        if bond.kind == "gap":
            return say("{name} begins at most {most} min after {before}", name=name, most=most, before=before)
        return say("{name} follows {before}", name=name, before=before) + (
            say(", {least} min later at least", least=least) if least else ""
        )
    if bond.kind == "hands":
        return say("{name} is {hands} for {length} min", name=name, hands=task.step.hands, length=task.length)
    if bond.kind == "place":
        return say(
            "{name} takes {thing} for {length} min", name=name, thing=_resource_words(bond.about), length=task.length
        )
    if bond.kind == "pin":
        return say("{name} is pinned at {at:%H:%M on %A}", name=name, at=asked.pins[bond.task].astimezone(zone))
    dish = asked.dishes[task.dish]
    if bond.about == "made" and dish.made_by is not None:
        return say("{name} is done by {by:%H:%M on %A}", name=name, by=dish.made_by.astimezone(zone))
    serve = dish.serve.astimezone(zone)
    return say("{titles} is on the table at {serve:%H:%M on %A}", titles=titles[task.dish], serve=serve)


def _resource_words(use: str) -> str:
    return named(use) or say("the {use}", use=use)


def _sentence(asked: PlanRequest, bonds: Sequence[Constraint], tasks: dict[str, Task]) -> str:
    """The clash as a cook would say it."""
    kitchen = asked.kitchen
    cooks = kitchen.cooks + asked.more_cooks
    places: dict[str, list[str]] = {}
    held = [f"“{tasks[bond.task].step.title}”" for bond in bonds if bond.kind == "hands"]
    for constraint in bonds:
        if constraint.kind == "place":
            places.setdefault(constraint.about, []).append(f"“{tasks[constraint.task].step.title}”")
    parts = []
    if len(held) > 1:
        there = say("one cook") if cooks == 1 else say("{cooks} cooks", cooks=cooks)
        helped = say(" and {helpers} to help", helpers=len(asked.helpers)) if asked.helpers else ""
        parts.append(
            say(
                "{steps} want hands at once, and there {is_or_are} {there}{helped}",
                steps=_and(held),
                is_or_are="is" if cooks == 1 else "are",
                there=there,
                helped=helped,
            )
        )
    elif held:
        parts.append(say("{held} falls into quiet hours, or where nobody is there", held=held[0]))
    for use, names in places.items():
        there_is = there_are(kitchen, use) or 0
        if there_is == 0:
            parts.append(
                say(
                    "{steps} wants {thing}, and this kitchen has none",
                    steps=_and(names),
                    thing=re.sub(r"^the (?=[aeiou])", "an ", _resource_words(use)).replace("the ", "a "),
                )
            )
        elif len(names) > 1:
            number = "one" if there_is == 1 else str(there_is)
            parts.append(
                say(
                    "{steps} want {thing} at once, and there is {number}",
                    steps=_and(names),
                    thing=_resource_words(use),
                    number=number,
                )
            )
    if any(constraint.kind == "pin" for constraint in bonds):
        parts.append(say("a pin holds a step where its gaps do not let it lie"))
    if any(constraint.kind == "now" for constraint in bonds) and not parts:
        parts.append(say("it should have been begun already"))
    told = "; ".join(parts) or say("its gaps and times do not fit into each other")
    return told[0].upper() + told[1:] + "."


def _and(names: Sequence[str]) -> str:
    result = list(dict.fromkeys(names))
    return result[0] if len(result) == 1 else ", ".join(result[:-1]) + " and " + result[-1]


def remedies(
    asked: PlanRequest, bonds: Sequence[Constraint], titles: Sequence[str], others: Others | None = None
) -> list[PlanFix]:
    """The nearest days that work, each tried: so much later, quiet hours worked into, a helper for a while, a dish the
    day before, a pin let go, a dish made otherwise or less of it, a dish left out."""
    asked.watch.at("ways out")
    tries = replace(asked, seconds=max(_SECONDS, _SECONDS_A_DISH * len(asked.dishes)))
    fixes = [_later(tries), *_quiet(tries, bonds), _helper(tries, bonds), *_unpinned(tries, bonds)]
    dishes = sorted({int(constraint.task.split(":")[0]) for constraint in bonds if constraint.task})
    if others is not None:
        fixes += _try_other_schools(tries, dishes, titles, others)
    if len(asked.dishes) > 1:
        fixes += [_try_day_before(tries, dish, titles) for dish in dishes]
        if not any(fixes):
            fixes += [_try_without_dish(tries, dish, titles) for dish in dishes]
    return [fix for fix in fixes if fix is not None]


def _later(asked: PlanRequest) -> PlanFix | None:
    placed = solve_day(replace(asked, later_min=_LATER_MOST_MIN))
    if placed is None or not placed.later:
        return None
    hours, minutes = divmod(placed.later, 60)
    told = f"{hours} h {minutes:02d}" if hours else say("{minutes} min", minutes=minutes)
    return PlanFix(
        kind="later", says=say("{told} later", told=told), costs=say("everybody eats later"), minutes=placed.later
    )


def _quiet(asked: PlanRequest, bonds: Sequence[Constraint]) -> list[PlanFix]:
    if not asked.quiet or not any(constraint.kind in ("quiet", "hands") for constraint in bonds):
        return []
    if solve_day(replace(asked, quiet=False)) is None:
        return []
    quiet = asked.kitchen.quiet
    return [
        PlanFix(
            kind="quiet",
            says=say("work into the quiet hours"),
            costs=say("not quiet from {begins}", begins=quiet.begins),
        )
    ]


def _helper(asked: PlanRequest, bonds: Sequence[Constraint]) -> PlanFix | None:
    """One more pair of hands, for as short a time as will do: for where the clash lies, widened until it works."""
    if not any(constraint.kind == "hands" for constraint in bonds):
        return None
    placed = solve_day(replace(asked, more_cooks=1))
    if placed is None:
        return None
    spans = [
        (placed.starts[task.key], placed.starts[task.key] + task.length)
        for task in placed.tasks
        if any(constraint.kind == "hands" and constraint.task == task.key for constraint in bonds)
    ]
    begins, ends = min(a for a, _ in spans), max(b for _, b in spans)
    for wider in (0, 30, 90):
        a, b = (
            _quarter_hour_before(placed, begins - wider, up=False),
            _quarter_hour_before(placed, ends + wider, up=True),
        )
        helping = HelperHours(say("a helper"), a, b)
        if solve_day(replace(asked, helpers=(*asked.helpers, helping))) is not None:
            zone = asked.kitchen.zone
            told = say(
                "a helper from {begins:%H:%M} to {ends:%H:%M}",
                begins=a.astimezone(zone),
                ends=b.astimezone(zone),
            )
            lasts = (b - a).total_seconds() / 60
            return PlanFix(
                kind="helper", says=told, costs=say("{lasts:.0f} min of somebody", lasts=lasts), begins=a, ends=b
            )
    return None


def _quarter_hour_before(placed: SolvedDay, minute: float, *, up: bool) -> datetime:
    instant = placed.clock.at(minute)
    over = timedelta(minutes=instant.minute % _HELP_MIN, seconds=instant.second)
    return instant - over + (timedelta(minutes=_HELP_MIN) if up and over else timedelta())


def _unpinned(asked: PlanRequest, bonds: Sequence[Constraint]) -> list[PlanFix]:
    fixes = []
    for bond in bonds:
        if bond.kind != "pin":
            continue
        rest = {key: instant for key, instant in asked.pins.items() if key != bond.task}
        if solve_day(replace(asked, pins=rest)) is not None:
            dish, step = bond.task.split(":", 1)
            says = say("let the pin go")
            fixes.append(PlanFix(kind="unpin", says=says, costs=say("it lies where it can"), dish=int(dish), step=step))
    return fixes


def _try_other_schools(
    asked: PlanRequest, dishes: Sequence[int], titles: Sequence[str], others: Others
) -> list[PlanFix]:
    """Dishes of the clash made by another school, or less of them: those that work."""
    fixes: list[PlanFix] = []
    for dish in dishes:
        for changed_dish in islice(others(dish), _MOST_OTHERS):
            steps = tuple(
                replace(each, steps=changed_dish.steps) if i == dish else each for i, each in enumerate(asked.dishes)
            )
            if solve_day(replace(asked, dishes=steps)) is None:
                continue
            fixes.append(
                PlanFix(
                    kind="school" if changed_dish.choice else "soak" if changed_dish.soak else "smaller",
                    says=f"{titles[dish]}: {changed_dish.says}" if len(titles) > 1 else changed_dish.says,
                    costs=changed_dish.costs,
                    dish=dish,
                    choice=changed_dish.choice,
                    school=changed_dish.school,
                    soak=changed_dish.soak,
                    factor=changed_dish.factor,
                )
            )
            if len(fixes) >= _ENOUGH:
                return fixes
    return fixes


def _try_day_before(asked: PlanRequest, dish: int, titles: Sequence[str]) -> PlanFix | None:
    """A dish made the day before, and kept."""
    moved = [_a_day_sooner(each_dish) if i == dish else each_dish for i, each_dish in enumerate(asked.dishes)]
    if solve_day(replace(asked, dishes=tuple(moved))) is None:
        return None
    return PlanFix(
        kind="before",
        says=say("{titles} the day before", titles=titles[dish]),
        costs=say("it is kept for a day"),
        dish=dish,
    )


def _a_day_sooner(dish: Dish) -> Dish:
    """Made a day sooner; what is finished on the day still is."""
    if dish.made_by is not None:
        return replace(dish, made_by=dish.made_by - timedelta(days=1))
    return replace(dish, serve=dish.serve - timedelta(days=1))


def _try_without_dish(asked: PlanRequest, dish: int, titles: Sequence[str]) -> PlanFix | None:
    """The day without a dish. Dishes keep their numbers: it only loses its steps."""
    rest = tuple(each_dish for i, each_dish in enumerate(asked.dishes) if i != dish)
    if solve_day(replace(asked, dishes=rest, pins={}, like={})) is None:
        return None
    return PlanFix(
        kind="without", says=say("without {titles}", titles=titles[dish]), costs=say("one dish less"), dish=dish
    )

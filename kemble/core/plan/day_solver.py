"""A day solved: every step of every dish to the minute, by CP-SAT, under the bonds that the craft and the kitchen lay on it.

A *bond* is one thing that must hold: a wait between two steps, a step's hands, its place on the stove, a dish on the
table by its time, a pin. Each has a name of its own, so that a day which cannot be done says which bonds clash.
Counting back, the work begins as late as it can and then keeps every step as late as it can; counting forward, it is
done as soon as it can. The core has no clock: instants come in as arguments, aware of their time zone.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from typing import Any, Literal

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.plan_progress import PlanProgress, gap_pct
from kemble.core.plan.resources import DAY, Clock, HelperHours, hands_for, hands_over_time, quiet_spans, there_are
from kemble.core.stations.steps import StepResult

EARLY_MIN = 45  # a dish of several may be ready so long before it is eaten
MOST_SECONDS = 10.0
_PROVEN_DISHES, _NEAR_ENOUGH = 3, 0.002  # of more dishes a plan so near the best there can be is good enough
_FIRST_COUNTS = 20  # how much more beginning late is worth than any one step's being late, for each step
_MOVED_COUNTS = 6  # ... and how much a minute that a step is moved from where it was costs
_MOST_DAYS = 12

Kind = Literal["wait", "gap", "hands", "place", "serve", "now", "quiet", "pin"]


@dataclass(frozen=True, slots=True)
class Constraint:
    """One thing that must hold: its kind, the task it is laid on, and the task or the thing that it is about. A *wait* is
    that it comes after another, a *gap* that it comes soon enough."""

    kind: Kind
    task: str = ""
    about: str = ""


@dataclass(frozen=True, slots=True)
class Dish:
    """One sheet on the table at an instant: its steps, by ids of their own. What is finished later (fried on day three,
    toasted from the freezer) is made by `made_by`, but for its steps of the `later` day."""

    title: str
    steps: Sequence[StepResult]
    serve: datetime
    made_by: datetime | None = None
    later: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Task:
    """A step of a dish, in whole minutes. `waits`: (task, at least, at most) after the end of another. `is_last`: with its end
    the dish is on the table; `is_after`: it comes once that is so, such as packing what is left."""

    key: str
    dish: int
    step: StepResult
    length: int
    waits: tuple[tuple[str, int, int | None], ...]
    is_last: bool
    is_after: bool = False


def key_of(dish: int, step: str) -> str:
    return f"{dish}:{step}"


def tasks_of(dishes: Sequence[Dish]) -> list[Task]:
    """Every step of every dish, none of no length."""
    served = [served_step(dish.steps) for dish in dishes]
    after = [_steps_after(dish.steps, step) for dish, step in zip(dishes, served, strict=True)]
    return [
        Task(
            key=key_of(i, step.id),
            dish=i,
            step=step,
            length=max(1, math.ceil(step.minutes - 1e-9)),
            waits=tuple(
                (key_of(i, wait.step), round(wait.at_least), None if wait.at_most is None else math.floor(wait.at_most))
                for wait in step.after
            ),
            is_last=step is served[i],
            is_after=step.id in after[i],
        )
        for i, dish in enumerate(dishes)
        for step in dish.steps
    ]


def without_gaps(dish: Dish) -> Dish:
    """The dish without its gaps: what can no longer be in time is done as soon as it can."""
    loose = [
        step.model_copy(update={"after": [wait.model_copy(update={"at_most": None}) for wait in step.after]})
        for step in dish.steps
    ]
    return replace(dish, steps=loose)


def served_step(steps: Sequence[StepResult]) -> StepResult:
    """The one with whose end people eat; of steps that do not say, the last."""
    return next((step for step in steps if step.serves), steps[-1])


def _steps_after(steps: Sequence[StepResult], served: StepResult) -> set[str]:
    """What waits for serving, over however many steps."""
    after: set[str] = set()
    for _ in steps:
        more = {step.id for step in steps if any(wait.step in after or wait.step == served.id for wait in step.after)}
        if more == after:
            break
        after = more
    return after


@dataclass(frozen=True, slots=True)
class PlanRequest:
    """What is asked of a day. `pins`: tasks at an instant. `like`: where tasks were before, from which they are moved as
    little as may be. `later`: every serving may be so many minutes later. `watch` is told how it goes, and may stop it."""

    dishes: Sequence[Dish]
    kitchen: Kitchen
    helpers: Sequence[HelperHours] = ()
    pins: Mapping[str, datetime] = field(default_factory=dict)
    like: Mapping[str, datetime] = field(default_factory=dict)
    not_before: datetime | None = None
    quiet: bool = True
    forward_from: datetime | None = None
    later_min: int = 0
    more_cooks: int = 0
    may_be_early: bool = False  # in the middle of it a dish is ready when it is
    seconds: float = MOST_SECONDS
    watch: PlanProgress = field(default_factory=PlanProgress, compare=False)


@dataclass(frozen=True, slots=True)
class SolvedDay:
    """Where every task lies, in minutes after the clock's origin; proven the best there is, or at most `gap_pct` from it.
    `later`: by how many minutes the servings were put off."""

    clock: Clock
    starts: Mapping[str, int]
    tasks: Sequence[Task]
    proven: bool
    gap_pct: float
    later: int = 0


class Day:
    """The model of a day: built once, with every bond on or off by itself."""

    def __init__(self, asked: PlanRequest, *, switched: bool = False) -> None:
        from ortools.sat.python import cp_model  # a second to import, and only plans need it

        self.asked = asked
        self.tasks = tasks_of(asked.dishes)
        self.clock, self.horizon = _span(asked, self.tasks)
        if switched:
            self.horizon *= 2  # the end of what is looked at must not hold what no bond holds
        self._cp = cp_model
        self.model = cp_model.CpModel()
        self._switched = switched
        self._literals: dict[Constraint, Any] = {}
        self.starts = {task.key: self.model.new_int_var(0, self.horizon - task.length, task.key) for task in self.tasks}
        self.later = self.model.new_int_var(0, asked.later_min, "later") if asked.later_min else 0
        self._spans: dict[str, Any] = {}
        self._lay()

    @property
    def bonds(self) -> list[Constraint]:
        return list(self._literals)

    def _on(self, bond: Constraint) -> list[Any]:
        """The literal under which a bond holds; nothing where every bond does."""
        if not self._switched:
            self._literals.setdefault(bond, None)
            return []
        if bond not in self._literals:
            self._literals[bond] = self.model.new_bool_var(f"{bond.kind} {bond.task} {bond.about}")
        return [self._literals[bond]]

    def _hold(self, bond: Constraint, *constraints: Any) -> None:
        on = self._on(bond)
        for constraint in constraints:
            added = self.model.add(constraint)
            if on:
                added.only_enforce_if(*on)

    def _span_of(self, task: Task, bond: Constraint) -> Any:
        """The task as an interval that is there when the bond holds."""
        on = self._on(bond)
        if on:
            return self.model.new_optional_fixed_size_interval_var(
                self.starts[task.key], task.length, on[0], f"{bond.kind}{task.key}{bond.about}"
            )
        if task.key not in self._spans:
            self._spans[task.key] = self.model.new_fixed_size_interval_var(self.starts[task.key], task.length, task.key)
        return self._spans[task.key]

    def _end(self, task: Task) -> Any:
        return self.starts[task.key] + task.length

    def _lay(self) -> None:
        self._waits()
        self._hands()
        self._places()
        self._table()
        asked = self.asked
        if asked.not_before is not None:
            least = math.ceil(self.clock.minute(asked.not_before))
            if least > 0:
                self._hold(Constraint("now"), *(start >= least for start in self.starts.values()))
        for key, instant in asked.pins.items():
            if key in self.starts:
                self._hold(Constraint("pin", key), self.starts[key] == round(self.clock.minute(instant)))

    def _waits(self) -> None:
        by_key = {task.key: task for task in self.tasks}
        for task in self.tasks:
            for before, least, most in task.waits:
                end = self._end(by_key[before])
                self._hold(Constraint("wait", task.key, before), self.starts[task.key] >= end + least)
                if most is not None:
                    self._hold(Constraint("gap", task.key, before), self.starts[task.key] <= end + most)

    def _hands(self) -> None:
        asked = self.asked
        cooks = asked.kitchen.cooks + asked.more_cooks
        quiet = quiet_spans(asked.kitchen, self.clock.origin, self.horizon) if asked.quiet else []
        handed = [task for task in self.tasks if hands_for(task.step)]
        skilled = [helper for helper in asked.helpers if not helper.safe_only]
        groups = [(handed, list(asked.helpers))]
        if len(skilled) < len(asked.helpers):
            groups.append(([task for task in handed if task.step.work in ("stove", "knife")], skilled))
        for tasks, helpers in groups:
            there = hands_over_time(cooks, helpers, quiet, self.clock, self.horizon)
            spans = [self._span_of(task, Constraint("hands", task.key)) for task in tasks]
            demands = [hands_for(task.step) for task in tasks]
            for a, b, short in there.short:
                if short == there.most and self._switched:
                    on = self._on(Constraint("quiet"))
                    span = self.model.new_optional_fixed_size_interval_var(a, b - a, on[0], f"quiet{a}")
                else:
                    span = self.model.new_fixed_size_interval_var(a, b - a, f"short{a}")
                spans.append(span)
                demands.append(short)
            if spans:
                self.model.add_cumulative(spans, demands, there.most)

    def _places(self) -> None:
        users: dict[str, list[Task]] = {}
        for task in self.tasks:
            for use in task.step.uses:
                users.setdefault(use, []).append(task)
        for use, tasks in users.items():
            most = there_are(self.asked.kitchen, use)
            if most is None or (len(tasks) <= most and not self._switched):
                continue
            spans = [self._span_of(task, Constraint("place", task.key, use)) for task in tasks]
            self.model.add_cumulative(spans, [1] * len(tasks), most)

    def _table(self) -> None:
        asked, several = self.asked, len(self.asked.dishes) > 1
        if asked.forward_from is not None:
            return
        for task in self.tasks:
            serve = round(self.clock.minute(asked.dishes[task.dish].serve)) + self.later
            if task.is_last and asked.may_be_early:
                self._hold(Constraint("serve", task.key), self._end(task) <= serve)
            elif task.is_last:
                least = serve - (EARLY_MIN if several else 0)
                self._hold(Constraint("serve", task.key), self._end(task) <= serve, self._end(task) >= least)
            elif not self._switched and not task.is_after:
                self.model.add(self._end(task) <= serve)
            dish = asked.dishes[task.dish]
            if dish.made_by is not None and task.step.id not in dish.later:
                made = round(self.clock.minute(dish.made_by)) + self.later
                self._hold(Constraint("serve", task.key, "made"), self._end(task) <= made)

    def solve(self) -> SolvedDay | None:
        """The best plan, deterministically; None when there is none within the time, or until it is stopped."""
        model, asked = self.model, self.asked
        starts = list(self.starts.values())
        many = len(starts)
        if asked.forward_from is not None:
            end = model.new_int_var(0, self.horizon, "end")
            model.add_max_equality(end, [self._end(task) for task in self.tasks])
            goal = many * _FIRST_COUNTS * end + sum(starts)
        else:
            first = model.new_int_var(0, self.horizon, "first")
            model.add_min_equality(first, starts)
            begun = many * _FIRST_COUNTS * (self.horizon - first)
            goal = begun + sum(
                self.starts[task.key] if task.is_after else self.horizon - self.starts[task.key] for task in self.tasks
            )
            if asked.later_min:
                goal += many * many * _FIRST_COUNTS * 10 * self.later
        if asked.like:
            goal += self._moved()
        model.minimize(goal)
        solver = self._solver(asked.seconds)
        if len(asked.dishes) > _PROVEN_DISHES:
            solver.parameters.relative_gap_limit = _NEAR_ENOUGH
        status = self._run(solver, self._telling(solver) if asked.watch.stage == "plan" else None)
        if status not in (self._cp.OPTIMAL, self._cp.FEASIBLE):
            return None
        result, bound = solver.objective_value, solver.best_objective_bound
        proven = result - bound < 0.5
        return SolvedDay(
            clock=self.clock,
            starts={key: solver.value(start) for key, start in self.starts.items()},
            tasks=self.tasks,
            proven=proven,
            gap_pct=0.0 if proven else gap_pct(result, bound),
            later=solver.value(self.later) if asked.later_min else 0,
        )

    def _moved(self) -> Any:
        """What it costs to move tasks from where they were."""
        cost: Any = 0
        for key, instant in self.asked.like.items():
            if key not in self.starts:
                continue
            was = round(self.clock.minute(instant))
            if not 0 <= was <= self.horizon:
                continue
            self.model.add_hint(self.starts[key], was)
            off = self.model.new_int_var(0, self.horizon, f"off{key}")
            self.model.add_abs_equality(off, self.starts[key] - was)
            cost += _MOVED_COUNTS * off
        return cost

    def _solver(self, seconds: float) -> Any:
        solver = self._cp.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 7
        solver.parameters.max_time_in_seconds = seconds
        return solver

    def _run(self, solver: Any, nearer: Any = None) -> Any:
        watch = self.asked.watch
        if watch.stopped:
            return self._cp.UNKNOWN
        with watch.over(solver):
            return solver.solve(self.model, nearer)

    def _telling(self, solver: Any) -> Any:
        """What tells the watch of every better plan, and of every better bound."""
        watch = self.asked.watch

        class Telling(self._cp.CpSolverSolutionCallback):  # type: ignore[name-defined,misc]
            def on_solution_callback(self) -> None:
                watch.near(self.objective_value, self.best_objective_bound)
                solver.best_bound_callback = lambda bound, result=self.objective_value: watch.near(result, bound)

        return Telling()

    def clash(self, under: Iterable[Constraint]) -> list[Constraint] | None:
        """Of the bonds `under`, some that cannot all hold; None when all of them can. Of a model that is switched."""
        chosen = set(under)
        self.model.clear_assumptions()
        self.model.add_assumptions([self._literals[bond] for bond in chosen])
        solver = self._solver(self.asked.seconds)
        if self._run(solver) != self._cp.INFEASIBLE:
            return None
        by_index = {literal.index: bond for bond, literal in self._literals.items()}
        core = [by_index[index] for index in solver.sufficient_assumptions_for_infeasibility() if index in by_index]
        return core or list(chosen)


def _span(asked: PlanRequest, tasks: Sequence[Task]) -> tuple[Clock, int]:
    """The clock's origin and how many minutes of it are looked at."""
    paths = []
    for i in range(len(asked.dishes)):
        own = [task for task in tasks if task.dish == i]
        paths.append(sum(task.length for task in own) + sum(least for task in own for _, least, _ in task.waits))
    longest = min(max(paths, default=0) + 2 * DAY, _MOST_DAYS * DAY)
    if len(asked.dishes) > 1:
        longest = min(longest + sum(paths) // 4, _MOST_DAYS * DAY)
    if asked.forward_from is not None:
        origin = asked.forward_from.astimezone(UTC).replace(second=0, microsecond=0)
        if asked.forward_from != origin:
            origin += timedelta(minutes=1)
        return Clock(origin), longest
    serves = [(dish.made_by or dish.serve).astimezone(UTC).replace(second=0, microsecond=0) for dish in asked.dishes]
    origin = min(serves) - timedelta(minutes=longest)
    last = max(dish.serve.astimezone(UTC) for dish in asked.dishes)
    horizon = longest + math.ceil((last - min(serves)).total_seconds() / 60) + asked.later_min
    horizon += sum(task.length + sum(least for _, least, _ in task.waits) for task in tasks if task.is_after)
    return Clock(origin), horizon


def solve_day(asked: PlanRequest) -> SolvedDay | None:
    """The best plan of a day; None when there is none."""
    return Day(asked).solve()

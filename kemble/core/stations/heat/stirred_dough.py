"""Stirred: a mass in an open pan under the spoon, or in a microwave oven in bursts; its time from the power put in.

A raw dough is done when it has cleared; cooked rice in its syrup (gather) when it has dried until the pan comes clean.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.conduction import Array, time_at_level
from kemble.core.physics.doneness import clear_s
from kemble.core.physics.stove import StirredCurves, stir
from kemble.core.physics.thermal import fractions, properties
from kemble.core.sentences import say
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import drawn_curve
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range

SOLVER = "energy balance of a stirred mass; vapour by Lewis' relation"
PAN_MM = 240.0  # where the kitchen's list does not say which pan
BURST_MIN = 1.0  # on, before it is out to be stirred
_COVERED_M2 = 0.0015  # what a plate over the bowl leaves open
_END_S = 3600.0
_FOLDED_UNDER_C = 18.0  # rice and syrup, just folded together, are so much under the boil
Method = Literal["pan", "microwave", "gather"]
_ALWAYS: tuple[EstimateId, ...] = ("start_c", "still_air_h", "gel_c")
# By method: what its power goes with, what its loss goes with, and all that its window hangs on.
_BY: dict[Method, tuple[EstimateId, EstimateId, tuple[EstimateId, ...]]] = {
    "pan": ("burner", "clears_loss", ("burner", "clears_loss", "pan_work_min", "still_air_h", "gel_c", "start_c")),
    "microwave": (
        "microwave_gives",
        "clears_loss",
        ("microwave_gives", "clears_loss", "burst_out_min", "gel_c", "start_c"),
    ),
    "gather": ("burner", "gather_loss", ("burner", "gather_loss", "pan_work_min", "still_air_h")),
}


class StirredDrawing(AnswerModel):
    """Where the heat goes, in kJ until it is done, and what is lost in g. `bursts` of a microwave oven, else 0."""

    kind: Literal["stirred"] = "stirred"
    method: Method
    power_w: float
    warm_kj: float
    dry_kj: float
    lost_g: float
    pan_mm: float
    bursts: int


@dataclass(frozen=True, slots=True)
class _StirredMass:
    kg: float
    cp: float
    start_c: float
    boil_c: float
    power_w: float
    open_m2: float
    still_h: float  # W/(m2 K) of the air over it
    gel_c: float
    lose_kg: float  # the least that its way loses in this heat
    cooked: bool  # it comes cooked, and only dries

    def stirred(self) -> StirredCurves:
        return stir(
            mass_kg=self.kg,
            cp=self.cp,
            start_c=self.start_c,
            boil_c=self.boil_c,
            power_w=self.power_w,
            open_m2=self.open_m2,
            still_h=self.still_h,
            end_s=_END_S,
        )

    def clear_s(self, run: StirredCurves) -> float | None:
        """Seconds of heat until it has gelled, turned from milky to clear, and dried to where it holds together."""
        if self.cooked:
            return time_at_level(run.times, run.lost_kg, self.lose_kg)
        moments = (
            clear_s(run.times, run.celsius, self.gel_c),
            time_at_level(run.times, run.lost_kg, self.lose_kg),
        )
        return None if None in moments else max(m for m in moments if m is not None)


def stirred(
    calculation: Calculation, base: Composition, boil_c: float, method: Method
) -> OwnHeatResult[StirredDrawing] | None:
    """When it clears, what the power goes into, and what would change that. None when it does not clear."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    pan = next((pan for pan in kitchen.pans if pan.name == calculation.bowl.base.part.pan), None)
    across = pan.across_mm if pan else PAN_MM
    oven = method == "microwave"
    rated = kitchen.microwave_w if oven else kitchen.burner.net_w(calculation.sheet.heat.level)
    least = 1.0 if method == "gather" else max(0.0, calculation.way.loss(calculation.schools).low) / 100
    cp = properties(fractions(base), 60.0).cp
    power, loses, which = _BY[method]

    def mass(is_: Mapping[EstimateId, float], of_power: float = 1.0, twice: float = 1.0) -> _StirredMass:
        """The mass as estimates, a share of the power and another amount make it."""
        return _StirredMass(
            kg=twice * base.total / 1000.0,
            cp=cp,
            start_c=boil_c - _FOLDED_UNDER_C if method == "gather" else kitchen.room_c + is_["start_c"],
            boil_c=boil_c,
            power_w=of_power * is_[power] * rated,
            open_m2=_COVERED_M2 if oven else math.pi * (across / 1000.0) ** 2 / 4,
            still_h=is_["still_air_h"],
            gel_c=calculation.gel_c(is_),
            lose_kg=is_[loses] * least * twice * base.total / 1000.0,
            cooked=method == "gather",
        )

    def minutes(stirred_mass: _StirredMass, is_: Mapping[EstimateId, float]) -> float | None:
        clear = stirred_mass.clear_s(stirred_mass.stirred())
        return None if clear is None else _clock(clear / 60.0, method, is_)

    middle = {name: calculation.likely(name) for name in (*_ALWAYS, power, loses, "pan_work_min", "burst_out_min")}
    likely = mass(middle)
    run = likely.stirred()
    clear = likely.clear_s(run)
    afterwards = {"gel_c", loses, "pan_work_min", "burst_out_min"}  # what is asked of the same run
    runs: dict[tuple[tuple[EstimateId, float], ...], StirredCurves] = {(): run}  # by what is otherwise than likely

    def run_with(of: Mapping[EstimateId, float]) -> tuple[float | None, StirredCurves]:
        """Seconds until it clears, and its curves, with some estimates otherwise than likely."""
        each_mass = mass({**middle, **of})
        key = tuple((name, at) for name, at in of.items() if at != middle[name] and name not in afterwards)
        if key not in runs:
            runs[key] = each_mass.stirred()
        return each_mass.clear_s(runs[key]), runs[key]

    def solve(of: Mapping[EstimateId, float]) -> float | None:
        result, _ = run_with(of)
        return None if result is None else _clock(result / 60.0, method, {**middle, **of})

    def heart_c(of: Mapping[EstimateId, float]) -> float | None:
        result, curves = run_with(of)
        return None if result is None else float(np.interp(result, curves.times, curves.celsius))

    window = enter_heat_window(calculation, solve, which)
    if clear is None or window is None:
        calculation.problem(
            "heat.level",
            say(
                "{power_w:.0f} W into {total} do not clear it within the hour: it dries as fast as it warms",
                power_w=likely.power_w,
                total=calculation.weight(base.total),
            ),
            say("a higher level, a smaller batch or a narrower pan"),
        )
        return None
    first, done, latest = window.first, window.likely, window.latest
    _enter_stirred(calculation, likely, (first, done, latest), method, across)

    def at_clear(values: Array) -> float:
        return float(np.interp(clear or 0.0, run.times, values))

    lost_g = 1000.0 * at_clear(run.lost_kg)
    _enter_lost(calculation, lost_g, middle, loses, oven=oven)
    says = say("the mass at the likely time")
    which = (power, loses, "still_air_h", "gel_c")
    enter_with_range(calculation, "heat.heart_done_c", says, heart_c, which, source=SOLVER, of=["heat.done_min"])
    for key, other, says in (
        ("heat.double_min", mass(middle, twice=2.0), say("twice as much in the same pan")),
        ("heat.level_min", mass(middle, of_power=0.7), say("a third less heat")),
    ):
        longer = minutes(other, middle)
        if longer is not None:
            fact_book.add(key, longer * kitchen.time_factor - done, says, source=SOLVER, of=["heat.done_min"])
    _advise_on_stirring(calculation, method, done, 100 * lost_g / base.total)
    # The stirring on at the end of a pan goes on in the heat; what lies between bursts stretches all of it.
    stretch = _clock(1.0, method, middle) if method == "microwave" else 1.0
    on_the_clock = run.times / 60.0 * stretch * kitchen.time_factor
    shown = on_the_clock <= 1.15 * latest
    curve = drawn_curve(on_the_clock[shown], run.celsius[shown], run.celsius[shown])
    drawing = unchecked_model(
        StirredDrawing,
        kind="stirred",
        method=method,
        power_w=likely.power_w,
        warm_kj=at_clear(run.stored) / 1000.0,
        dry_kj=at_clear(run.dried) / 1000.0,
        lost_g=lost_g,
        pan_mm=across,
        bursts=math.ceil(clear / 60.0 / BURST_MIN) if method == "microwave" else 0,
    )
    return OwnHeatResult(drawing, curve)


def _enter_lost(
    calculation: Calculation,
    lost_g: float,
    middle: Mapping[EstimateId, float],
    loses: EstimateId,
    *,
    oven: bool,
) -> None:
    """What has boiled off by the likely time."""
    which: tuple[EstimateId, ...] = (loses, "still_air_h")
    enter_with_range(
        calculation,
        "heat.lost_g",
        say("vapour past the cover by then") if oven else say("vapour from the open top by then"),
        lambda of: lost_g * math.prod(of[name] / middle[name] for name in which),
        which,
        source=SOLVER,
        of=["heat.done_min"],
    )


def _clock(heat_min: float, method: Method, is_: Mapping[EstimateId, float]) -> float:
    """Minutes on the clock for so many of heat: the stirring on at the end, or between the bursts."""
    if method == "microwave":
        return heat_min * (1 + is_["burst_out_min"] / BURST_MIN)
    return heat_min + is_["pan_work_min"]


def _enter_stirred(
    calculation: Calculation, mass: _StirredMass, window: tuple[float, float, float], method: Method, across_mm: float
) -> None:
    fact_book, level = calculation.fact_book, calculation.sheet.heat.level
    first, done, latest = window
    if method != "microwave":
        of: Origins = [
            calculation.from_kitchen(
                f"burner.{level}_w", say("net power at {level} heat", level=level), mass.power_w, "W"
            ),
            calculation.from_kitchen("pans", say("pan across"), across_mm, "mm"),
        ]
    else:
        rated = calculation.kitchen.microwave_w
        of = [calculation.from_kitchen("microwave_w", say("microwave oven"), rated, "W"), *calculation.school("cook")]
    fact_book.add(
        "heat.power_w",
        mass.power_w,
        say("{microwave_gives:.0%} of what the oven is rated at", microwave_gives=calculation.likely("microwave_gives"))
        if method == "microwave"
        else say("net into the pan"),
        source=KITCHEN_ESTIMATE if method == "microwave" else "kitchen",
        of=list(of[:1]),
    )
    of += ["mix.batch_g", "mix.gel_temperature_c", "heat.power_w"]
    of.append(calculation.from_kitchen("room_c", "room", calculation.kitchen.room_c, "°C"))
    of.append(
        calculation.from_kitchen("time_factor", say("this kitchen's time factor"), calculation.kitchen.time_factor)
    )
    source = say("{solver}; clearing a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE)
    says = say("it has turned clear, lost the least that its way loses, and is one even mass")
    if method == "gather":
        gathers = calculation.likely("gather_loss")
        says = say(
            "{gathers:.1%} of it has gone as vapour: it gathers on the spoon, and the floor stays bare", gathers=gathers
        )
    if method == "microwave":
        says = say("it has gelled and turned clear all through, stirred between the bursts")
    fact_book.add("heat.first_check_min", first, say("one in twenty is done by then"), source=source, of=of)
    fact_book.add("heat.done_min", done, says, source=source, of=of, low=first, high=latest)
    fact_book.add("heat.latest_min", latest, say("nineteen in twenty are done by then"), source=source, of=of)


def _advise_on_stirring(calculation: Calculation, method: Method, done: float, lost_pct: float) -> None:
    loss = calculation.way.loss(calculation.schools)
    if method == "pan" and lost_pct > loss.high + 2:
        says = say(
            "It loses {lost_pct:.0f} % of its water by then: stiffer than it looks. Cook to weight, or use a narrower pan.",
            lost_pct=lost_pct,
        )
        calculation.advise("heat", "look", says, 2)
    if method == "microwave":
        calculation.advise(
            "heat", "look", say("A white core in the middle is not done: stir it in, and give one burst more."), 2
        )
    elif method == "gather":
        calculation.advise(
            "heat", "look", say("Low heat, never still. Draw the spoon through: the floor stays bare."), 3
        )
    else:
        says = say("Never leave it: bottom to top, corner to corner. Milky to clear, one mass, leaves the pan.")
        calculation.advise("heat", "look", says, 3)
    if done > 25:
        calculation.advise("heat", "look", say("So much in one pan is hard to turn: two batches are sooner done."), 1)

"""The steamer: the water under the rack over the whole time, each level of heat, tiers and loads, and a lifted lid."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import LEVELS, Level
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics.steamer import SteamerStage, WaterPlan, lifted_lid_s, loss_g_per_min, water_plan
from kemble.core.physics.thermal import LATENT_STEAM
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import HeatStage
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.heat_stages import stages_of_sheet, steamer_stages
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

_POINTS = 80


class LevelAt(AnswerModel):
    """One level of heat: what boils off, how long the first water lasts, and what comes of it."""

    level: Level
    g_per_min: float
    lasts_min: float
    says: Words


class SteamerDrawing(AnswerModel):
    """The pot from the side, and how high the water stands along `minutes`."""

    pot_mm: float
    rack_mm: float
    gap_mm: float
    low_mm: float
    start_mm: float
    tiers: int
    minutes: tuple[float, ...]
    water_mm: tuple[float, ...]
    levels: tuple[LevelAt, ...]


def says_of(calculation: Calculation, g_per_min: float) -> str:
    """What so much steam does to a top."""
    if g_per_min > calculation.likely("fierce_g_min"):
        return say("fierce: an open top creases")
    if g_per_min < calculation.likely("weak_g_min"):
        return say("weak: a pale, dry rim")
    return say("wisps from the lid")


def per_mm(calculation: Calculation) -> float:
    """Millilitres in a millimetre of water in the pot."""
    return math.pi * calculation.steamer.diameter_mm**2 / 4 / 1000.0


def steamer(calculation: Calculation) -> SteamerDrawing:
    """The water for the whole of `heat.latest_min`, entered; a lid lifted once; and the drawing."""
    fact_book, pot = calculation.fact_book, calculation.steamer
    minutes = fact_book.number("heat.latest_min")
    stages = tuple(
        replace(stage, net_w=stage.net_w * calculation.likely("burner"))
        for stage in steamer_stages(calculation, stages_of_sheet(calculation), minutes)
    )
    plan = water_plan(
        diameter_mm=pot.diameter_mm,
        full_mm=pot.full_mm,
        low_mm=pot.low_mm,
        stages=stages,
        minutes=minutes,
    )
    _enter_water(calculation, plan)
    rate = fact_book.number("heat.water_loss_g_per_min")
    if rate > calculation.likely("fierce_g_min") and calculation.asked("cover") == "open":
        calculation.advise(
            "heat",
            "look",
            say("{rate} a minute is fierce: the top creases. Turn it down.", rate=calculation.weight(rate)),
            1,
        )
    if rate < calculation.likely("weak_g_min"):
        says = say(
            "{rate} a minute is weak: a pale, dry rim. Turn it up until wisps leave the lid.",
            rate=calculation.weight(rate),
        )
        calculation.advise("heat", "look", says, 1)
    lit_w = _last_lit(calculation, stages) / calculation.likely("burner")
    lifted_lid(calculation, pot.diameter_mm, lit_w, _pot(calculation))
    return _drawing(calculation, plan, minutes)


def lifted_lid(calculation: Calculation, across_mm: float, net_w: float, pot: Origin) -> None:
    """What one look under a lid `across_mm` wide costs over a burner that gives `net_w`."""
    open_m2, boil_c = math.pi * (across_mm / 1000) ** 2 / 4, calculation.fact_book.number("heat.boil_c")

    def solve(is_: Mapping[EstimateId, float]) -> float:
        seconds = lifted_lid_s(open_m2=open_m2, net_w=net_w * is_["burner"], boil_c=boil_c, open_s=is_["look_s"])
        return seconds / 60.0 * calculation.kitchen.time_factor

    enter_with_range(
        calculation,
        "heat.lid_min",
        say(
            "{look_s:.0f} seconds open, and the heat that went out with the steam made good",
            look_s=calculation.likely("look_s"),
        ),
        solve,
        ("look_s", "burner"),
        source=say("vapour by Lewis' relation; {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["heat.boil_c", pot],
    )


def _pot(calculation: Calculation) -> Origin:
    pot = calculation.steamer
    return calculation.from_kitchen(
        "steamer",
        pot.name,
        say(
            "{diameter_mm} across, water {low_mm} to {full_mm} deep",
            diameter_mm=calculation.length(pot.diameter_mm),
            low_mm=calculation.length(pot.low_mm),
            full_mm=calculation.length(pot.full_mm),
        ),
    )


def _last_lit(calculation: Calculation, stages: Sequence[SteamerStage]) -> float:
    """W under the pot when somebody looks: at the last level that is not off."""
    lit = [stage.net_w for stage in stages if stage.net_w > 0]
    return lit[-1] if lit else calculation.likely("burner") * calculation.kitchen.burner.low_w


def _power(calculation: Calculation, stage: HeatStage, *, first: bool) -> Origin:
    level = stage.level or calculation.sheet.heat.level
    if level == "off":
        return calculation.from_sheet("heat.stages", say("then off"), 0.0, "W")
    label = say("net power at {level} heat", level=level) if first else say("then at {level} heat", level=level)
    return calculation.from_kitchen(f"burner.{level}_w", label, calculation.kitchen.burner.net_w(level), "W")


def _enter_water(calculation: Calculation, plan: WaterPlan) -> None:
    fact_book = calculation.fact_book
    said = stages_of_sheet(calculation)
    power = [_power(calculation, stage, first=i == 0) for i, stage in enumerate(said)]
    strongest = loss_g_per_min(max(stage.net_w for stage in plan.stages))
    burner: EstimateId = "burner"
    enter_with_range(
        calculation,
        "heat.water_loss_g_per_min",
        say("net power over {mj:.3f} MJ for each kilogram", mj=LATENT_STEAM / 1e6)
        + (say(", while it is strong") if len(plan.stages) > 1 else ""),
        scaled_by_estimates(strongest / calculation.likely(burner), burner),
        (burner,),
        source=say("heat of evaporation"),
        of=power,
    )
    fact_book.add(
        "heat.water_ml",
        plan.start_ml,
        say("to a centimetre under the rack, or what is needed and a fifth more"),
        source=KITCHEN_ESTIMATE,
        of=["heat.water_loss_g_per_min", "heat.latest_min", _pot(calculation)],
    )
    if not plan.top_ups:
        return
    at, ml = plan.top_ups[0]
    enter_with_range(
        calculation,
        "heat.top_up_at_min",
        say("when the water falls to the low mark"),
        lambda is_: at * calculation.likely(burner) / is_[burner],
        (burner,),
        source=say("heat of evaporation"),
        of=["heat.water_ml", "heat.water_loss_g_per_min"],
    )
    fact_book.add(
        "heat.top_up_ml",
        ml,
        say("what the rest of the time will boil off and a fifth more, or as much as goes in"),
        source=KITCHEN_ESTIMATE,
        of=["heat.top_up_at_min", "heat.latest_min"],
    )
    says = say(
        "Top up at {at:.0f} minutes with {ml}, boiling: cold water stops the steam.", at=at, ml=calculation.volume(ml)
    )
    calculation.advise("heat", "look", says, 3)


def _drawing(calculation: Calculation, plan: WaterPlan, minutes: float) -> SteamerDrawing:
    pot, ml_per_mm = calculation.steamer, per_mm(calculation)
    # A level just before each top-up and one at it, so that the drawing has its step.
    at = sorted(
        {round(minutes * i / _POINTS, 3) for i in range(_POINTS + 1)}
        | {t for top_up, _ in plan.top_ups for t in (top_up - 1e-3, top_up)}
    )
    return unchecked_model(
        SteamerDrawing,
        pot_mm=pot.diameter_mm,
        rack_mm=pot.rack_mm,
        gap_mm=pot.gap_mm,
        low_mm=pot.low_mm,
        start_mm=plan.start_ml / ml_per_mm,
        tiers=pot.tiers,
        minutes=tuple(at),
        water_mm=tuple(round(plan.level_ml(t) / ml_per_mm, 2) for t in at),
        levels=tuple(_level(calculation, plan, level) for level in LEVELS),
    )


def _level(calculation: Calculation, plan: WaterPlan, level: Level) -> LevelAt:
    rate = loss_g_per_min(calculation.likely("burner") * calculation.kitchen.burner.net_w(level))
    return unchecked_model(
        LevelAt,
        level=level,
        g_per_min=rate,
        lasts_min=(plan.start_ml - plan.low_ml) / rate,
        says=says_of(calculation, rate),
    )

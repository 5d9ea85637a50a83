"""Stages of a heat: boil, low, off and stand; bake bare, glaze, bake again. One stage may go on until it is done."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import StageLevel
from kemble.core.physics.conduction import Array
from kemble.core.physics.steamer import SteamerStage
from kemble.core.physics.thermal import WATER_J_PER_ML_K
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import HeatStage
from kemble.core.stations.calculation import AnswerModel, Calculation

Heats = Literal["heat", "grain"]
STRONG_MIN = 10.0  # of strong steam at first, as the school has it that then turns it down
_NAMES: dict[StageLevel, str] = {
    "off": "heat off, lid shut",
    "low": "low heat",
    "medium-low": "medium-low heat",
    "medium": "medium heat",
    "medium-high": "medium-high heat",
    "high": "high heat",
}


class HeatStageResult(AnswerModel):
    """One stage of a heat, in minutes from when the heat began. `of` tells the way's own heat from that of grain which
    is cooked ahead of it; `is_open` is the one that goes on until it is done."""

    of: Heats
    name: Words
    says: Words = ""
    level: StageLevel | None = None
    oven_c: float | None = None
    starts_min: float
    minutes: float
    is_open: bool = False
    top_up_ml: float = 0.0


_ONE_STAGE = (HeatStage(),)


def stages_of_sheet(calculation: Calculation) -> tuple[HeatStage, ...]:
    """The stages as the sheet says them; in its school's words where it says none; else one, until it is done."""
    said = calculation.sheet.heat.stages
    if said:
        return said
    if calculation.asked("course") == "strong-first":
        return (unchecked_model(HeatStage, level="high", minutes=STRONG_MIN), unchecked_model(HeatStage, level="low"))
    if calculation.heated == "bake" and calculation.asked("finish") == "bare":
        glaze = say("Brush on the glaze; it bubbles and sets")
        return (
            unchecked_model(HeatStage, says=say("Bare, in the middle of the oven")),
            unchecked_model(HeatStage, minutes=calculation.likely("glaze_min"), says=glaze),
        )
    return _ONE_STAGE


def stage_minutes_after_open(stages: Sequence[HeatStage]) -> float:
    """Of the stages behind the one that goes on until it is done."""
    at = _open_stage_index(stages)
    return sum((stage.minutes or 0.0 for stage in stages[at + 1 :]), 0.0)


def minutes_after_open_stage(stages: Sequence[HeatStageResult]) -> float:
    """Of the way's own heat, the minutes behind the stage that goes on until it is done."""
    own = [stage for stage in stages if stage.of == "heat"]
    at = next((i for i, stage in enumerate(own) if stage.is_open), len(own))
    return sum((stage.minutes for stage in own[at + 1 :]), 0.0)


def _open_stage_index(stages: Sequence[HeatStage]) -> int:
    """Which stage gives way: the one without minutes, else the last."""
    return next((i for i, stage in enumerate(stages) if stage.minutes is None), len(stages) - 1)


def window_with_stages(stages: Sequence[HeatStage], window: tuple[float, float, float]) -> tuple[float, float, float]:
    """A window of the doneness alone, with what the sheet's stages add: those behind it, or all of them where every one
    has its minutes and they last longer."""
    first, done, latest = window
    if any(stage.minutes is None for stage in stages):
        after = stage_minutes_after_open(stages)
        return first + after, done + after, latest + after
    said = sum(stage.minutes or 0.0 for stage in stages)
    return (first, done, latest) if said <= done else (said, said, max(latest, said))


def _net_w(calculation: Calculation, level: StageLevel, *, steamer: bool) -> float:
    """W into the water: the burner's, or a steamer's own machine's at every level but off."""
    own = calculation.steamer.watts
    if steamer and own is not None:
        return 0.0 if level == "off" else calculation.likely("machine_gives") * own
    return calculation.kitchen.burner.net_w(level)


def steamer_stages(
    calculation: Calculation, stages: Sequence[HeatStage], whole_min: float = math.inf, *, steamer: bool = True
) -> tuple[SteamerStage, ...]:
    """What each stage gives to the water of a heat that takes `whole_min` in all; the last goes on as it must."""
    at = _open_stage_index(stages)
    others = sum(stage.minutes or 0.0 for i, stage in enumerate(stages) if i != at)
    return tuple(
        SteamerStage(
            max(0.0, whole_min - others) if i == at else stage.minutes or 0.0,
            _net_w(calculation, stage.level or calculation.sheet.heat.level, steamer=steamer),
        )
        for i, stage in enumerate(stages)
    )


def oven_air_by_time(
    calculation: Calculation, stages: Sequence[HeatStage], offset_c: float = 0.0
) -> tuple[tuple[float, float], ...]:
    """The oven's air as (from this second of the physics' clock, °C), up to the stage that goes on."""
    begins, result = 0.0, []
    for stage in stages[: _open_stage_index(stages) + 1]:
        result.append((begins, (stage.oven_c or calculation.sheet.heat.oven_c) + offset_c))
        begins += (stage.minutes or 0.0) * 60.0 / calculation.kitchen.time_factor
    return tuple(result)


def surroundings_c(
    calculation: Calculation, stages: Sequence[HeatStage], times: Array, boil_c: float, water_ml: float
) -> float | Array:
    """What surrounds the load along `times` s: the boil, and from where the burner is off a shut pot that cools."""
    begins = 0.0
    for stage in stages[: _open_stage_index(stages) + 1]:
        if stage.level == "off":
            room = calculation.kitchen.room_c
            cools_s = shut_cools_s(
                calculation.likely("shut_h"), water_ml * WATER_J_PER_ML_K, math.pi * (water_ml / 1e6) ** (2 / 3) * 2
            )
            since = np.maximum(0.0, times - begins * 60.0 / calculation.kitchen.time_factor)
            result: Array = room + (boil_c - room) * np.exp(-since / cools_s)
            return result
        begins += stage.minutes or 0.0
    return boil_c


def shut_cools_s(h: float, joules_per_k: float, open_m2: float) -> float:
    """Seconds in which a shut pot, which gives h W/(m2 K) to the room, falls towards it by a factor e."""
    return joules_per_k / (h * open_m2)


def heat_stage_results(
    calculation: Calculation, stages: Sequence[HeatStage], of: Heats, whole_min: float
) -> tuple[HeatStageResult, ...]:
    """The stages of a heat that takes `whole_min` in all; empty where there is only one."""
    if len(stages) < 2:
        return ()
    results: list[HeatStageResult] = []
    at = _open_stage_index(stages)
    others = sum(stage.minutes or 0.0 for i, stage in enumerate(stages) if i != at)
    begins, oven = 0.0, calculation.heated == "bake" and of == "heat"
    for i, stage in enumerate(stages):
        minutes = max(0.5, whole_min - others) if i == at else stage.minutes or 0.0
        level = None if oven else stage.level or calculation.sheet.heat.level
        oven_c = (stage.oven_c or calculation.sheet.heat.oven_c) if oven else None
        results.append(
            unchecked_model(
                HeatStageResult,
                of=of,
                name=_NAMES[level] if level else calculation.degrees(oven_c or 0.0),
                says=stage.says,
                level=level,
                oven_c=oven_c,
                starts_min=begins,
                minutes=minutes,
                is_open=i == at,
                top_up_ml=stage.top_up_ml,
            )
        )
        begins += minutes
    said = stages[at].minutes
    if said is not None and whole_min > others + said + 0.5:
        says = say(
            "The stages are {others:.0f} minutes; it is done at about {whole_min:.0f}. The last is told longer.",
            others=others + said,
            whole_min=whole_min,
        )
        calculation.advise(of if of == "heat" else "mix", "look", says, 1)
    return tuple(results)

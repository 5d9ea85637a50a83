"""A heat in several stages as several steps, each with its own clock."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from kemble.core.cards.card_parts import Minutes, Sentence, Step, StepDependency, always, stage_step
from kemble.core.kitchen.document import StageLevel
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.heat.heat_stages import HeatStageResult
from kemble.core.stations.traits import in_its_variants, traits_of

GRAIN_AHEAD = "grain.cook_min"  # the fact that a step's minutes come from when grain is cooked ahead of the way's heat
_AT_MOST_MIN = 2.0  # one stage follows another at once
_WORDS: dict[StageLevel, str] = {
    "off": "Off. The lid stays shut: it goes on in its own heat.",
    "low": "Turn it low.",
    "medium-low": "Turn it to medium-low.",
    "medium": "Turn it to medium.",
    "medium-high": "Turn it to medium-high.",
    "high": "Turn it high.",
}


def staged_steps(
    calculation: Calculation, way_steps: Sequence[Step], stages: Sequence[HeatStageResult]
) -> Sequence[Step]:
    """The way's steps, a heat of several stages as so many steps. Several loads keep their one: each goes through them."""
    if not stages or ("heat.loads" in calculation.fact_book and calculation.fact_book.number("heat.loads") > 1):
        return way_steps
    steps: list[Step] = []
    last_of: dict[str, str] = {}
    for step in way_steps:
        if any(after.step in last_of for after in step.after):
            waits = tuple(replace(after, step=last_of.get(after.step, after.step)) for after in step.after)
            step = replace(step, after=waits)
        own = _stages_of(step, stages)
        if len(own) < 2:
            steps.append(step)
            continue
        steps += _steps_of_stages(calculation, step, own)
        last_of[step.id] = steps[-1].id
    return steps


def _stages_of(step: Step, stages: Sequence[HeatStageResult]) -> list[HeatStageResult]:
    if step.window:
        return [stage for stage in stages if stage.of == "heat"]
    return [stage for stage in stages if stage.of == "grain" and step.minutes.fact == GRAIN_AHEAD]


def _steps_of_stages(calculation: Calculation, step: Step, stages: Sequence[HeatStageResult]) -> list[Step]:
    step = in_its_variants(step, traits_of(calculation, None))
    fact_book, fact = calculation.fact_book, step.minutes.fact or ""
    short = fact_book.number(fact) - stages[-1].starts_min - stages[-1].minutes if fact in fact_book else 0.0
    steps: list[Step] = []
    for number, stage in enumerate(stages, start=1):
        first, last = number == 1, number == len(stages)
        # What the step lasts longer or shorter than its heat (a glaze that ends it, a spare ten minutes) is the last's.
        lasts = max(0.5, stage.minutes + (short if last else 0.0))
        off = stage.level == "off"
        steps.append(
            replace(
                step,
                id=stage_step(step.id, number),
                title=f"{step.title}: {stage.name}",
                words=_stage_words(calculation, step, stage, first=first),
                minutes=Minutes(fixed=lasts),
                hands="free" if off else step.hands,
                after=step.after if first else (StepDependency(steps[-1].id, 0, _AT_MOST_MIN),),
                uses=() if off else step.uses,
                tools=step.tools if first else (),
                work="safe" if off else step.work,
                asks=step.asks if first else (),
                brings=step.brings if first else (),
                cue=step.cue if stage.is_open or (step.window is None and last) else None,
                window=step.window if stage.is_open else None,
                weigh=step.weigh if first else None,
                tips=step.tips if first else (),
                adds=step.adds if first else (),
                changes=step.changes if last else (),
                cautions=step.cautions if first or last else (),
                variants=(),
            )
        )
    return steps


def _stage_words(calculation: Calculation, step: Step, stage: HeatStageResult, *, first: bool) -> tuple[Sentence, ...]:
    said = stage.says.rstrip(".") + "." if stage.says else ""
    top_up = (
        say("Top up with {top_up_ml}, boiling.", top_up_ml=calculation.volume(stage.top_up_ml))
        if stage.top_up_ml
        else ""
    )
    own = step.words if first else ()
    turn = "" if said or first or stage.level is None else _WORDS[stage.level]
    return (*own, *always(*(words for words in (said, turn, top_up) if words)))

"""What a batch shows of the estimates: each time, weight and temperature that was predicted with a range.

A sight keeps what was told by the craft's own table, what was seen, and how the first hangs on the estimates (the moves
that the windows are made of already, physics/time_spread.py). So it can be learned from for ever, in any order, without its
sheet, and whatever the kitchen has come to know meanwhile.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np

from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.estimates import ESTIMATES, EstimateId
from kemble.core.physics.time_spread import Spread
from kemble.core.run.events import AnyEvent
from kemble.core.run.run_state import StepState
from kemble.core.sentences import say
from kemble.core.sheet.document import Sheet
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult, work_with_spreads

Kind = Literal["time", "weight", "reading", "taught"]
_HELD_SD = (
    0.10  # logarithm: what an eye calls done in a pan that it watches, from one making to the next; kitchen estimate
)
_LOOK_SD = 0.07  # ... and of something that is looked at now and then
_TAUGHT_SD = 0.25  # ... and a time out of somebody's mouth
_WEIGHT_SD = 0.02
_READING_SD_C = 1.5
_AT_ONCE_MIN = 2.0  # what is ended so soon after a call was done when it came
_LEAST_MIN = 1.0  # what was ended sooner was not made
_MOST_TIMES = 4.0  # ... nor was what took so many times as long: a clock that was forgotten
_DONE = "heat.done_min"


@dataclass(frozen=True, slots=True)
class Observation:
    """One thing seen. `told` by the craft's table, `low` and `high` where what was seen lies (the same where it is known;
    None where that side is open), in one unit; `sd` of its logarithm. `moves`: for each estimate how the logarithm of
    what is told moves when it goes to its low and to its high end."""

    kind: Kind
    key: str
    says: str
    told: float
    low: float | None
    high: float | None
    sd: float
    moves: Mapping[EstimateId, tuple[float, float]]

    @property
    def document(self) -> dict[str, Any]:
        return {
            "kind": self.kind,
            "key": self.key,
            "says": self.says,
            "told": round(self.told, 4),
            "low": None if self.low is None else round(self.low, 4),
            "high": None if self.high is None else round(self.high, 4),
            "sd": round(self.sd, 5),
            "moves": {name: [round(a, 5), round(b, 5)] for name, (a, b) in self.moves.items()},
        }


def observation_from(document: Mapping[str, Any]) -> Observation:
    """A sight as it was kept; an estimate that is no more is left out."""
    moves = {name: (a, b) for name, (a, b) in document["moves"].items() if name in ESTIMATES}
    return Observation(**{**document, "moves": moves})


@dataclass(frozen=True, slots=True)
class BatchObservations:
    """All that a making shows, and in words what of it was left out and why."""

    sights: Sequence[Observation]
    left_out: Sequence[str]
    paces: Mapping[str, float] = field(default_factory=dict)  # of steps that hands make: logarithm of took over told


def observe_run(
    sheet: Sheet,
    kitchen: Kitchen,
    steps: Mapping[str, StepResult],
    states: Mapping[str, StepState],
    events: Sequence[AnyEvent],
) -> BatchObservations:
    """What a run of `sheet` shows: every step that was ended and is told with a range, every weight that is, every
    reading of a heart, every time that somebody gave.

    Times are told anew by the craft's own table: what the kitchen has learned or measured is no part of a sight.
    """
    plain = kitchen.model_copy(update={"estimates": {}, "learned": {}, "together": (), "pace": {}, "time_factor": 1.0})
    worked, spreads = work_with_spreads(sheet, plain)
    told_steps = {step.id: step for step in worked.steps}
    sights: list[Observation] = []
    left_out: list[str] = []
    paces: dict[str, float] = {}
    for name in steps:
        state, told = states.get(name), told_steps.get(name)
        if state is None or told is None:
            continue
        told = told.model_copy(update={"given": steps[name].given})  # as it was given in that batch, too
        sights += _observe_time(told, state, events, spreads, left_out)
        pace = _observe_pace(told, state, spreads)
        if pace is not None:
            paces[name] = pace
        sights += _weight(told, state, spreads)
        sights += _observe_readings(told, state, worked, spreads)
    sights += _taught(worked, spreads)
    return BatchObservations(sights, left_out, paces)


def _moves(spread: Spread, but: frozenset[str] = frozenset()) -> dict[EstimateId, tuple[float, float]]:
    return {share.id: (share.at_low, share.at_high) for share in spread.shares if share.id not in but}


def _spread_of(step: StepResult, spreads: Mapping[str, Spread]) -> tuple[str, Spread] | None:
    """What a step's time is told by: that of its heat where it has a window, else of its own fact."""
    key = _DONE if step.window else step.fact
    if key == "rest.cut_after_min":  # on the counter or in the fridge: whichever it was told by
        among = [item for item in ("rest.cut_counter_min", "rest.cut_fridge_min") if item in spreads]
        key = min(among, key=lambda name: abs(spreads[name].likely - step.ours.minutes), default=key)
    return (key, spreads[key]) if key in spreads else None


def _observe_time(
    step: StepResult,
    state: StepState,
    events: Sequence[AnyEvent],
    spreads: Mapping[str, Spread],
    left_out: list[str],
) -> list[Observation]:
    result = _spread_of(step, spreads)
    if result is None or state.started is None or state.ended is None:
        return []
    key, of = result
    ours = step.ours
    told = ours.window.done if ours.window else ours.minutes
    before = max(0.0, told - of.likely) if step.window else 0.0  # loads before the last
    took = (state.ended - state.started).total_seconds() / 60 - before
    if took < _LEAST_MIN:
        left_out.append(say("{title}: ended after {minutes:.0f} minutes", title=step.title, minutes=max(0.0, took)))
        return []
    if took > _MOST_TIMES * of.likely:
        left_out.append(
            say(
                "{title}: {took:.0f} minutes, {likely:.0f} told: a clock that was forgotten",
                title=step.title,
                took=took,
                likely=of.likely,
            )
        )
        return []
    if _ended_by_its_given_clock(step, state, events, took + before):
        left_out.append(
            say("{title}: ended when its given time was up: that shows nothing of when it was done", title=step.title)
        )
        return []
    factor = told / of.likely if not step.window and of.likely else 1.0
    says = say("{title}: {took:.0f} min, {likely:.0f} told", title=step.title, took=took, likely=of.likely * factor)
    is_held = step.hands == "held" or (step.window is not None and step.hands == "minded" and key != _DONE)
    looked = _said_not_yet(step.id, state, events) if is_held else _looked_at(step.id, state, events)
    low = max([at - before for at in looked if 0 < at - before < took - _AT_ONCE_MIN], default=None)
    if is_held and low is None:  # somebody stood by and saw when it was done
        low = took
    return [
        Observation("time", key, says, of.likely * factor, low, took, _HELD_SD if is_held else _LOOK_SD, _moves(of))
    ]


def _ended_by_its_given_clock(step: StepResult, state: StepState, events: Sequence[AnyEvent], took: float) -> bool:
    """Whether a step that is done by its looks was ended because a given time rang: nobody looked, and nothing was read."""
    given = step.given
    if given is None or not given.is_used or step.hands == "held":
        return False
    looked = state.probed or any(event.kind == "not_yet" and event.step == step.id for event in events)
    return not looked and abs(took - given.minutes) <= _AT_ONCE_MIN


def _observe_pace(step: StepResult, state: StepState, spreads: Mapping[str, Spread]) -> float | None:
    """How quick hands were at a step that nothing but they tells: logarithm of took over told."""
    told = step.ours.minutes
    if step.hands == "free" or step.window or _spread_of(step, spreads) or not state.started or not state.ended:
        return None
    took = (state.ended - state.started).total_seconds() / 60
    if took < _LEAST_MIN or told <= 0 or took > _MOST_TIMES * told:
        return None
    return math.log(took / told)


def _said_not_yet(step: str, state: StepState, events: Sequence[AnyEvent]) -> list[float]:
    """Minutes at which somebody said that a step was not yet done."""
    began = state.started
    assert began is not None
    return [
        (event.at - began).total_seconds() / 60
        for event in events
        if event.kind == "not_yet" and event.step == step and event.at >= began
    ]


def _looked_at(step: str, state: StepState, events: Sequence[AnyEvent]) -> list[float]:
    """Minutes at which a step was looked at and was not yet done: where that was said, and where somebody was called, at
    the first look and when it was likely done, and went on all the same."""
    began = state.started
    assert began is not None
    said = _said_not_yet(step, state, events)
    called = [at for at in (state.first_check, None if said else state.due) if at is not None]
    return [*said, *((at - began).total_seconds() / 60 for at in called)]


def _weight(step: StepResult, state: StepState, spreads: Mapping[str, Spread]) -> list[Observation]:
    target = step.target
    if target is None or not state.weights or target.key not in spreads:
        return []
    of, grams = spreads[target.key], state.weights[-1].grams + target.beyond_g
    says = say("{label}: {grams:.0f} g, {likely:.0f} told", label=target.label, grams=grams, likely=of.likely)
    return [Observation("weight", target.key, says, of.likely, grams, grams, _WEIGHT_SD, _moves(of))]


# What a heart's temperature does not hang on: what is called done once it is hot.
_CALLED_DONE = frozenset(name for name, row in ESTIMATES.items() if row.narrows == "taste")


def _observe_readings(
    step: StepResult, state: StepState, worked: WorkResult, spreads: Mapping[str, Spread]
) -> list[Observation]:
    """A heart that was read: at what minute of the told curve it should have been so hot, as surely as that is steep."""
    core = worked.core
    if core is None or step.window is None or _DONE not in spreads:
        return []
    minutes, curve = np.array(core.curve.minutes), np.maximum.accumulate(np.array(core.curve.core_c))
    observations = []
    for read in state.probed:
        if read.minute < 2 or not curve[0] + 3 < read.celsius < curve[-1] - 2:
            continue
        at = float(np.interp(read.celsius, curve, minutes))
        earlier, later = (
            float(np.interp(min(max(read.celsius + by, curve[0]), curve[-1]), curve, minutes)) for by in (-1.0, 1.0)
        )
        sd = max(0.02, (later - earlier) / 2 * _READING_SD_C / max(at, 1.0))
        if at <= 0 or sd > 0.5:
            continue
        says = say(
            "{title}: {celsius:.0f} °C at {minute:.0f} min, told at {at:.0f}",
            title=step.title,
            celsius=read.celsius,
            minute=read.minute,
            at=at,
        )
        moves = _moves(spreads[_DONE], _CALLED_DONE)
        observations.append(
            Observation("reading", _DONE, says, at, read.minute, read.minute, math.hypot(sd, 0.03), moves)
        )
    return observations


# What a sheet's own words for a taught time stand for.
_OF_TAUGHT = {"rest": "rest.cut_after_min"}


def _taught(worked: WorkResult, spreads: Mapping[str, Spread]) -> list[Observation]:
    """What somebody said that it takes."""
    observations = []
    for given_time_comparison in worked.given_times:
        step = next((step for step in worked.steps if step.id == given_time_comparison.of), None)
        key = (
            _DONE
            if given_time_comparison.of == "heat" or (step and step.window)
            else _OF_TAUGHT.get(given_time_comparison.of) or (step.fact if step else "")
        )
        if key not in spreads:
            continue
        of = spreads[key]
        says = say(
            "taught: {minutes:.0f} min, {likely:.0f} told", minutes=given_time_comparison.minutes, likely=of.likely
        )
        observations.append(
            Observation(
                "taught",
                key,
                says,
                of.likely,
                given_time_comparison.minutes,
                given_time_comparison.minutes,
                _TAUGHT_SD,
                _moves(of),
            )
        )
    return observations


def each_taught_once(batches: Sequence[Sequence[Observation]]) -> list[list[Observation]]:
    """The batches' observations, oldest first, where a time that somebody taught counts at the first making of it only: it was
    said once, however often the sheet is made."""
    taught: set[tuple[str, float | None, float]] = set()
    result: list[list[Observation]] = []
    for observations in batches:
        kept: list[Observation] = []
        for observation in observations:
            said = (observation.key, observation.low, observation.told)
            if observation.kind != "taught" or said not in taught:
                kept.append(observation)
            if observation.kind == "taught":
                taught.add(said)
        result.append(kept)
    return result


def document_of(seen: BatchObservations) -> dict[str, Any]:
    """What is kept of a batch's sights."""
    return {
        "sights": [observation.document for observation in seen.sights],
        "left_out": list(seen.left_out),
        "paces": {step: round(log, 4) for step, log in seen.paces.items()},
    }

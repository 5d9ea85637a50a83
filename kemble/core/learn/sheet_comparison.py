"""Compares two sheets of one way: the ranges that their amounts leave open, on one map and one time axis.

What was told by the cup is as the cup was filled, and as large as it was. Each such unknown is moved to its ends alone,
what that does to the ratios and to the time is taken as straight between them, and what is independent adds by squares;
so every cloud is an ellipse that nine in ten of such kitchens lie in. What explains the difference in time is found by
taking over one thing of hers at a time into mine.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean

import numpy as np
from pydantic import BaseModel, ConfigDict

from kemble.core.cards.taste_scales import SCALES, TasteId
from kemble.core.cards.way import Way
from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import number_of
from kemble.core.facts.problems import refuse
from kemble.core.facts.quantity import span_words
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.learn.measured_cups import CUP
from kemble.core.learn.next_time import LEVERS, WORDS, TastedBatch, TasteModel, mark_words
from kemble.core.learn.posterior import Array
from kemble.core.physics.time_spread import EDGE
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.method import HEAT
from kemble.core.sheet.parts import Amount, Line
from kemble.core.stations.steps import StepResult
from kemble.core.stations.work_sheet import WorkResult, work

_NINE_IN_TEN = math.sqrt(4.605)  # chi-square of two degrees, at 0.9
_MOST_UNKNOWN = 8
_WORTH_MIN = 1.0  # a difference in time that is worth a word
_WORTH_MARK = 0.15  # ... and one in a taste

# What of a sheet may be taken over into another, in words; by the sheet's own fields.
_TAKES: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("the tin and how many", ("vessel",)),
    ("the amounts", ("parts",)),
    ("the schools", ("schools",)),
    ("the heat", ("heat",)),
    ("how warm it goes in", ("start",)),
    ("the soak", ("grain",)),
    ("the pieces", ("pieces", "rolled", "wrap")),
)


class Interval(BaseModel):
    """A value, and where nine in ten lie."""

    model_config = ConfigDict(frozen=True)

    likely: float
    low: float
    high: float


class MapPosition(BaseModel):
    """Water and sugar in per cent of the base."""

    model_config = ConfigDict(frozen=True)

    water: float
    sugar: float


class Unknowns(BaseModel):
    """What nobody knows of a sheet's amounts: `weigh` what settles it, and by how many per cent its cloud then shrinks."""

    model_config = ConfigDict(frozen=True)

    words: Words
    weigh: str
    narrows_pct: float


class SheetRegion(BaseModel):
    """One of the two: where its ratios lie (the ellipse's outline), its time, what was
    given for it, and what is open, the most telling first."""

    model_config = ConfigDict(frozen=True)

    title: str
    hydration: Interval
    sugar: Interval
    outline: list[MapPosition]
    minutes: Interval | None
    given_min: float | None
    open: list[Unknowns]


class ExplainedDifference(BaseModel):
    """Of an outcome in which they differ, by how much hers is over mine, and the shares of that, in words."""

    model_config = ConfigDict(frozen=True)

    outcome: str
    says: Words
    by: list[str]
    sure: bool  # told apart: nine times in ten it is on this side


class StepDifference(BaseModel):
    """A step that the two do otherwise: how long each of them takes for it, in words; empty where one does not do it."""

    model_config = ConfigDict(frozen=True)

    title: Words
    hers: Words
    mine: Words


class Comparison(BaseModel):
    model_config = ConfigDict(frozen=True)

    hers: SheetRegion
    mine: SheetRegion
    explained: list[ExplainedDifference]
    methods: list[StepDifference]
    weigh: str  # the one weighing that would narrow it most; "" where nothing is open


@dataclass(frozen=True, slots=True)
class _UnknownAmount:
    """Something of a sheet that may be otherwise: which lines it moves, together, and to what shares at its two ends."""

    words: str
    weigh: str
    lines: frozenset[tuple[int, int]]
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class _SheetSpread:
    """A sheet worked, and how water, sugar (in per cent) and the logarithm of its minutes move in one standard deviation of
    each unknown."""

    sheet: Sheet
    worked: WorkResult
    unknown: Sequence[_UnknownAmount]
    moves: Array  # (unknown, 3)
    own_sd: float  # of the logarithm of its minutes, by what its kitchen leaves open

    @property
    def ratios(self) -> Array:
        return np.array([number_of(self.worked.facts, f"mix.{lever}") for lever in LEVERS])

    @property
    def minutes(self) -> float | None:
        fact = self.worked.facts.get("heat.done_min")
        return float(fact.value) if fact and not isinstance(fact.value, str) and fact.value > 0 else None

    @property
    def covariance(self) -> Array:
        """Of water and sugar."""
        covariance: Array = self.moves[:, :2].T @ self.moves[:, :2]
        return covariance


def compare_sheets(
    hers: Sheet, mine: Sheet, kitchen: Kitchen, tasted: Sequence[TastedBatch] = (), keys: tuple[int, int] = (0, 0)
) -> Comparison:
    """The two beside each other. `tasted` of their way, and by which numbers the two sheets go in it. Raises Refused for
    sheets of two ways, and where one cannot be worked."""
    if hers.way != mine.way:
        refuse(
            "mine",
            say("is a {mine}, hers a {hers}", mine=WAYS[mine.way].name.lower(), hers=WAYS[hers.way].name.lower()),
            say("two sheets of one way"),
        )
    her, me = _spread_of_sheet(hers, kitchen), _spread_of_sheet(mine, kitchen)
    for path, spread in (("hers", her), ("mine", me)):
        if spread.worked.problems:
            refuse(
                path,
                say("cannot be worked: {sentence}", sentence=spread.worked.problems[0].sentence),
                say("a sheet without problems"),
            )
    clouds = [_cloud(spread) for spread in (her, me)]
    opened = [(cloud.open[0].narrows_pct, cloud.title, cloud.open[0]) for cloud in clouds if cloud.open]
    most = max(opened, key=lambda item: item[0], default=None)
    return Comparison(
        hers=clouds[0],
        mine=clouds[1],
        explained=[
            *_ratios(her, me),
            *_explain_time(her, me, kitchen),
            *_tastes(her, me, WAYS[hers.way], tasted, keys),
        ],
        methods=_methods(her.worked, me.worked),
        weigh=say(
            "{weigh}: the cloud of {whose} becomes {smaller_pct:.0f} % smaller",
            weigh=most[2].weigh,
            whose=most[1],
            smaller_pct=most[0],
        )
        if most
        else "",
    )


_ALIKE_SHARE = 0.1  # of a step's minutes: nearer than that it takes both as long


def _methods(hers: WorkResult, mine: WorkResult) -> list[StepDifference]:
    """What one does and the other does not, or takes another time for, or says otherwise; in working order."""
    theirs = {step.id: step for step in hers.steps}
    own = {step.id: step for step in mine.steps}
    differences = []
    for step in (*hers.steps, *(step for step in mine.steps if step.id not in theirs)):
        her, me = theirs.get(step.id), own.get(step.id)
        if her and me and _is_alike(her, me):
            continue
        differences.append(StepDifference(title=step.title, hers=_step_in_words(her), mine=_step_in_words(me)))
    return differences


def _is_alike(her: StepResult, me: StepResult) -> bool:
    room = max(1.0, _ALIKE_SHARE * max(her.minutes, me.minutes))
    return her.own_words == me.own_words and abs(her.minutes - me.minutes) <= room


def _step_in_words(step: StepResult | None) -> str:
    if step is None:
        return ""
    words = f" “{step.own_words}”" if step.own_words else ""
    return f"{span_words(step.minutes)}{words}"


def _unknown(sheet: Sheet, shelf: Shelf) -> list[_UnknownAmount]:
    """How full the cups were of each thing that packs; and how large the cup was, of all that were filled by it."""
    unknowns_by_name: dict[str, _UnknownAmount] = {}
    by_cup: set[tuple[int, int]] = set()
    for p, part in enumerate(sheet.parts):
        for i, line in enumerate(part.lines):
            item, unit = shelf.item(line.ingredient), line.amount.unit
            if item is None:
                continue
            if unit.startswith("cup_") and unit not in ("cup_own", "cup_rice_cooker"):
                by_cup.add((p, i))
            low, high = shelf.packing(item, unit, line.state)
            if high - low > 0.005:
                was = unknowns_by_name.get(item.id)
                lines = (was.lines if was else frozenset()) | {(p, i)}
                name = item.name.lower()
                unknowns_by_name[item.id] = _UnknownAmount(
                    say("how a cup of {name} is filled", name=name),
                    say("Weigh a cup of {name}", name=name),
                    lines,
                    low,
                    high,
                )
    cups = (
        [_UnknownAmount(say("how large the cup is"), say("Weigh the cup full of water"), frozenset(by_cup), *CUP)]
        if by_cup
        else []
    )
    return [*cups, *unknowns_by_name.values()][:_MOST_UNKNOWN]


def _spread_of_sheet(sheet: Sheet, kitchen: Kitchen) -> _SheetSpread:
    worked = work(sheet, kitchen)
    unknown = _unknown(sheet, Shelf(kitchen))
    moves = np.zeros((len(unknown), 3))
    for row, unknown_amount in enumerate(unknown):
        low, high = (
            _log_point(work(_with_lines_scaled(sheet, unknown_amount.lines, 1.0 + end), kitchen))
            for end in (unknown_amount.low, unknown_amount.high)
        )
        moves[row] = (high - low) / (2 * EDGE)
    return _SheetSpread(sheet, worked, unknown, moves, _own_sd(worked))


def _log_point(worked: WorkResult) -> Array:
    fact = worked.facts.get("heat.done_min")
    minutes = float(fact.value) if fact and not isinstance(fact.value, str) and fact.value > 0 else 1.0
    return np.array(
        [
            number_of(worked.facts, "mix.hydration_pct"),
            number_of(worked.facts, "mix.sugar_pct"),
            math.log(minutes),
        ]
    )


def _own_sd(worked: WorkResult) -> float:
    fact = worked.facts.get("heat.done_min")
    if fact is None or not fact.low or not fact.high:
        return 0.0
    return math.log(fact.high / fact.low) / (2 * EDGE)


def _with_lines_scaled(sheet: Sheet, lines: frozenset[tuple[int, int]], factor: float) -> Sheet:
    """The sheet with so many times as much of some of its lines."""

    def moved(p: int, i: int, line: Line) -> Line:
        if (p, i) not in lines:
            return line
        amount: Amount = line.amount.model_copy(update={"value": line.amount.value * factor})
        return line.model_copy(update={"amount": amount})

    parts = tuple(
        part.model_copy(update={"lines": tuple(moved(p, i, line) for i, line in enumerate(part.lines))})
        for p, part in enumerate(sheet.parts)
    )
    return sheet.model_copy(update={"parts": parts})


def _cloud(seen: _SheetSpread) -> SheetRegion:
    water, sugar, _ = (float(ratio) for ratio in seen.ratios)
    sd_water, sd_sugar = (math.sqrt(max(0.0, float(seen.covariance[i, i]))) for i in (0, 1))
    minutes = None
    if seen.minutes is not None:
        sd = math.sqrt(seen.own_sd**2 + float((seen.moves[:, 2] ** 2).sum()))
        ends = (seen.minutes * math.exp(EDGE * sign * sd) for sign in (-1, 1))
        minutes = Interval(likely=seen.minutes, low=next(ends), high=next(ends))
    heats = {HEAT, *(step.id for step in seen.worked.steps if step.window)}
    given = next((time for time in seen.worked.given_times if time.of in heats), None)
    return SheetRegion(
        title=seen.sheet.title,
        hydration=Interval(likely=water, low=water - EDGE * sd_water, high=water + EDGE * sd_water),
        sugar=Interval(likely=sugar, low=sugar - EDGE * sd_sugar, high=sugar + EDGE * sd_sugar),
        outline=_outline(water, sugar, seen.covariance),
        minutes=minutes,
        given_min=given.minutes if given else None,
        open=_open_unknowns(seen),
    )


def _outline(x: float, y: float, covariance: Array) -> list[MapPosition]:
    """The ellipse that nine in ten lie in, from its axes."""
    sizes, axes = np.linalg.eigh(covariance)
    radii = _NINE_IN_TEN * np.sqrt(np.maximum(sizes, 0.0))
    around = np.linspace(0.0, 2 * math.pi, 49)
    points = axes @ np.array([radii[0] * np.cos(around), radii[1] * np.sin(around)])
    return [MapPosition(water=round(x + float(a), 2), sugar=round(max(0.0, y + float(b)), 2)) for a, b in points.T]


_AFTER = 0.1  # of an unknown's spread that a weighing leaves


def _open_unknowns(seen: _SheetSpread) -> list[Unknowns]:
    """What is open, by how much its cloud shrinks once it is settled: in the length of both its axes together."""
    unknownses = []
    whole = _size(seen.moves)
    if whole <= 0:
        return []
    for row, unknown in enumerate(seen.unknown):
        left = seen.moves.copy()
        left[row] *= _AFTER
        unknownses.append(
            Unknowns(words=unknown.words, weigh=unknown.weigh, narrows_pct=100 * (1 - _size(left) / whole))
        )
    return sorted(
        (unknowns for unknowns in unknownses if unknowns.narrows_pct >= 1), key=lambda unknowns: -unknowns.narrows_pct
    )


def _size(moves: Array) -> float:
    return math.sqrt(float((moves[:, :2] ** 2).sum()))


def _ratios(hers: _SheetSpread, mine: _SheetSpread) -> list[ExplainedDifference]:
    differences = []
    for i, lever in enumerate(LEVERS[:2]):
        there, here = float(hers.ratios[i]), float(mine.ratios[i])
        sd = math.sqrt(float(hers.covariance[i, i] + mine.covariance[i, i]))
        if abs(there - here) < 1.0 and sd < 1.0:
            continue
        sure = abs(there - here) > EDGE * sd
        says = say(
            "{way}: hers has {there:.0f} %, mine {here:.0f}",
            way="more" if there > here else "less",
            there=there,
            here=here,
        )
        if not sure:
            low, high = (there - here + sign * EDGE * sd for sign in (-1, 1))
            says = say(
                "{says}; as they are measured it may be {low:+.0f} to {high:+.0f}", says=says, low=low, high=high
            )
        differences.append(ExplainedDifference(outcome=WORDS[lever], says=says, by=[], sure=sure))
    return differences


def _explain_time(hers: _SheetSpread, mine: _SheetSpread, kitchen: Kitchen) -> list[ExplainedDifference]:
    """Her time against mine; and, of what is hers, what makes the difference when mine takes it over alone."""
    if hers.minutes is None or mine.minutes is None:
        return []
    by = hers.minutes - mine.minutes
    if abs(by) < _WORTH_MIN:
        return []
    document, other = mine.sheet, hers.sheet
    said = []
    for words, fields in _TAKES:
        if all(getattr(document, name) == getattr(other, name) for name in fields):
            continue
        tried = work(document.model_copy(update={name: getattr(other, name) for name in fields}), kitchen)
        fact = tried.facts.get("heat.done_min")
        if tried.problems or fact is None or isinstance(fact.value, str):
            continue
        alone = float(fact.value) - mine.minutes
        if abs(alone) >= _WORTH_MIN:
            said.append((abs(alone), say("{words} alone: {longer}", words=words, longer=_longer(alone))))
    sd = math.hypot(*(math.sqrt(spread.own_sd**2 + float((spread.moves[:, 2] ** 2).sum())) for spread in (hers, mine)))
    # The kitchen's own unknowns are the same for both: only what the amounts leave open can change the sign.
    apart = math.hypot(*(math.sqrt(float((spread.moves[:, 2] ** 2).sum())) for spread in (hers, mine)))
    sure = abs(math.log(hers.minutes / mine.minutes)) > EDGE * apart
    says = say("{longer} in its heat, give or take {edge:.0f} %", longer=_longer(by), edge=100 * EDGE * sd)
    return [
        ExplainedDifference(outcome="time", says=says, by=[name for _, name in sorted(said, reverse=True)], sure=sure)
    ]


def _longer(minutes: float) -> str:
    return say("{by:.0f} min longer", by=minutes) if minutes > 0 else say("{by:.0f} min shorter", by=-minutes)


def _tastes(
    hers: _SheetSpread, mine: _SheetSpread, way: Way, tasted: Sequence[TastedBatch], keys: tuple[int, int]
) -> list[ExplainedDifference]:
    """How hers is expected to taste beside mine, and which ratio makes it so; by the craft's rule until enough was tasted."""
    tongue = TasteModel(way, tasted)
    step = tongue.scaled(dict(zip(LEVERS, hers.ratios, strict=True))) - tongue.scaled(
        dict(zip(LEVERS, mine.ratios, strict=True))
    )
    differences = []
    for taste in tongue.tastes:
        each = [tongue.slope(taste, i) * float(step[i]) for i in range(len(LEVERS))]
        by = sum(each)
        if abs(by) < _WORTH_MARK:
            continue
        # How unsure the slopes are, and how unsure where on the map the two lie.
        slopes_sd = math.sqrt(sum((tongue.slope_sd_of(taste, i) * float(step[i])) ** 2 for i in range(len(LEVERS))))
        where = [
            (tongue.slope(taste, i) / float(tongue.half[i])) ** 2 * float(hers.covariance[i, i] + mine.covariance[i, i])
            for i in (0, 1)
        ]
        sd = math.hypot(slopes_sd, math.sqrt(sum(where)))
        said = sorted(
            ((abs(value), i, value) for i, value in enumerate(each) if abs(value) >= _WORTH_MARK), reverse=True
        )
        words = SCALES[taste].too_much if by > 0 else SCALES[taste].too_little
        told = [
            say("{words}: {one:+.1f} marks of {by:+.1f}", words=WORDS[LEVERS[i]], one=value, by=by)
            for _, i, value in said
        ]
        differences.append(
            ExplainedDifference(
                outcome=taste,
                says=say(
                    "nearer to {words}, by {marks:.1f} marks{marked}",
                    words=words,
                    marks=abs(by),
                    marked=_taste_words(tasted, keys, taste),
                ),
                by=told,
                sure=abs(by) > EDGE * sd,
            )
        )
    return differences


def _taste_words(tasted: Sequence[TastedBatch], keys: tuple[int, int], taste: TasteId) -> str:
    """What was said of both, where both were tasted."""
    marks = [
        [
            tasted_batch.tastes[taste]
            for tasted_batch in tasted
            if tasted_batch.sheet == key and taste in tasted_batch.tastes
        ]
        for key in keys
    ]
    if not all(marks):
        return ""
    hers, mine = (mark_words(taste, fmean(each)) for each in marks)
    return say("; tasted, hers was {hers} and mine {mine}", hers=hers, mine=mine)

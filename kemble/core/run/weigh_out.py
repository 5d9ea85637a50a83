"""Weighing out: one mass is shared into pieces on the scale, each aimed at what is left.

A bench is an append-only list of marks; its state is a fold over them. Every gram is in a piece or still in the mass.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import datetime
from statistics import fmean, stdev
from typing import Any, Literal, Self, get_args

from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kemble.core.facts.problems import refuse
from kemble.core.facts.quantity import WeightUnit, weight_words
from kemble.core.sentences import say

MarkKind = Literal["piece", "guess", "whole", "undone", "closed"]
FEW_FOR_A_DRIFT = 6  # pieces before a trend is told
_SURE = 2.0  # a trend this many standard errors from none is told
_MOST_PIECES = 500
MOST_MARKS = 4000  # on one bench, those taken back with them
_A_SLIVER = 0.35  # of a piece: what is left at the end that makes none; kitchen estimate
_SMALL_PIECE = 0.75  # of a piece: smaller makes a piece for a child; kitchen estimate


class _BenchModel(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class BenchSetup(_BenchModel):
    """What is shared out: a mass of `total_g` in `pieces`, each within `tolerance_pct` of its target.

    `drill`: the weight is guessed before it is weighed, to train the eye.
    """

    what: str = Field(min_length=1, max_length=60, description="what is shared out, in 1 to 60 letters")
    total_g: float = Field(gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")
    pieces: int = Field(ge=1, le=_MOST_PIECES, description="a whole number from 1 to 500")
    tolerance_pct: float = Field(5.0, ge=0.5, le=50, description="0.5 to 50 per cent")
    drill: bool = False
    unit: WeightUnit = Field("g", description="g or oz: what is said of it is said in these")

    def weight(self, grams: float, decimals: int | None = None) -> str:
        return weight_words(grams, self.unit, decimals)

    @model_validator(mode="after")
    def _heavy_enough(self) -> Self:
        if self.total_g / self.pieces < 0.5:
            raise PydanticCustomError(
                "kemble_bench",
                "{each} g a piece is less than a kitchen scale tells",
                {"path": "pieces", "each": round(self.total_g / self.pieces, 2), "accepts": "fewer pieces"},
            )
        return self


class MarkContent(_BenchModel):
    """What is marked on the bench. piece: `grams` of the next piece. guess: its weight by eye, before it is weighed.

    whole: all that is left of the mass weighs `grams`. undone: takes the last mark back. closed: nothing more.
    """

    uid: str = Field(min_length=8, max_length=64, description="8 to 64 letters or figures, new for each mark")
    kind: MarkKind = Field(description=", ".join(get_args(MarkKind)))
    grams: float | None = Field(None, gt=0, le=50_000, allow_inf_nan=False, description="above 0, at most 50 000 g")


class BenchMarkEvent(MarkContent):
    """A marking, and when it was made."""

    at: datetime

    @property
    def document(self) -> dict[str, Any]:
        """All it says beside who sent it and when: what is kept of it."""
        return self.model_dump(mode="json", exclude={"uid", "at"}, exclude_defaults=True)


def mark_from(uid: str, at: datetime, document: dict[str, Any]) -> BenchMarkEvent:
    """A mark as it was kept."""
    return BenchMarkEvent.model_validate({**document, "uid": uid, "at": at})


class WeighedPiece(BaseModel):
    """One piece: what it was aimed at, what it weighs, how far off in per cent, and the guess in a drill."""

    model_config = ConfigDict(frozen=True)

    grams: float
    target_g: float
    off_pct: float
    outside: bool
    guess_g: float | None = None


class GuessAccuracy(BaseModel):
    """How the eye does: mean and spread of guess over weight, in per cent. `guesses` says how many that is of."""

    model_config = ConfigDict(frozen=True)

    guesses: int
    bias_pct: float
    spread_pct: float | None


class BenchState(BaseModel):
    """Where a bench stands. Grams; `next_g` is None when nothing more is to be weighed. `says` is what to do now."""

    model_config = ConfigDict(frozen=True)

    weighed: list[WeighedPiece]
    first_g: float  # the target of the first piece
    next_g: float | None
    low_g: float | None  # the tolerance about the next target
    high_g: float | None
    left_g: float
    left_pieces: int
    guess_g: float | None  # a guess that waits for its weight
    mean_g: float | None
    sd_g: float | None
    cv_pct: float | None
    drift_g: float | None  # grams a piece, when there is a trend
    outside: int
    eye: GuessAccuracy | None
    closed: bool
    says: str


def marks_that_count(marks: Sequence[BenchMarkEvent]) -> list[BenchMarkEvent]:
    """The marks that count: each uid once, those taken back left out."""
    kept: list[BenchMarkEvent] = []
    seen: set[str] = set()
    for mark in marks:
        if mark.uid in seen:
            continue
        seen.add(mark.uid)
        if mark.kind == "undone":
            if kept:
                kept.pop()
        else:
            kept.append(mark)
    return kept


def check_mark(setup: BenchSetup, marks: Sequence[BenchMarkEvent], mark: BenchMarkEvent) -> None:
    """Raises Refused for a mark that makes no sense here."""
    if len(marks) >= MOST_MARKS:
        refuse("kind", say("a bench holds {most_marks} marks", most_marks=MOST_MARKS), say("a new bench"))
    state = bench_of(setup, marks)
    if state.closed and mark.kind != "undone":
        refuse("kind", say("the bench is closed"), say("undone, or a new bench"))
    if mark.kind in ("piece", "guess", "whole") and mark.grams is None:
        refuse("grams", say("is missing"), say("the weight in g"))
    if mark.kind == "guess" and not setup.drill:
        refuse("kind", say("guesses belong to a drill"), "piece")
    if mark.kind == "piece" and mark.grams is not None:
        if setup.drill and state.guess_g is None:
            refuse("kind", say("guess it before it is weighed"), say("guess, then piece"))
        if state.left_pieces == 0:
            refuse("kind", say("every piece is weighed"), say("closed, or undone"))
        # A hair more than is left is the scale's business: it and the first weighing need not agree to the gram.
        if state.left_g <= 0 or mark.grams > state.left_g * 1.02 + 1.0:
            says = say(
                "{grams:g} g is more than the {left_g:.0f} g that are left", grams=mark.grams, left_g=state.left_g
            )
            refuse("grams", says, say("one piece, or what is left weighed anew"))


def bench_of(setup: BenchSetup, marks: Sequence[BenchMarkEvent]) -> BenchState:
    """The state after some marks."""
    left, pieces, guess, closed = setup.total_g, setup.pieces, None, False
    weighed: list[WeighedPiece] = []
    for mark in marks_that_count(marks):
        grams = mark.grams or 0.0
        if mark.kind == "closed":
            closed = True
        elif mark.kind == "guess":
            guess = grams
        elif mark.kind == "whole":
            left = grams
        elif mark.kind == "piece" and pieces:
            weighed.append(_weighed_piece(grams, left / pieces, setup.tolerance_pct, guess))
            left, pieces, guess = max(0.0, left - grams), pieces - 1, None
    target = left / pieces if pieces and left > 0 and not closed else None
    off = (setup.tolerance_pct / 100) * (target or 0.0)
    grams_of = [piece.grams for piece in weighed]
    mean = fmean(grams_of) if weighed else None
    sd = stdev(grams_of) if len(weighed) > 1 else None
    state = BenchState(
        weighed=weighed,
        first_g=setup.total_g / setup.pieces,
        next_g=target,
        low_g=target - off if target else None,
        high_g=target + off if target else None,
        left_g=left,
        left_pieces=pieces,
        guess_g=guess,
        mean_g=mean,
        sd_g=sd,
        cv_pct=100 * sd / mean if sd is not None and mean else None,
        drift_g=_drift(grams_of),
        outside=sum(piece.outside for piece in weighed),
        eye=eye_of(weighed),
        closed=closed,
        says="",
    )
    return state.model_copy(update={"says": _sentence_for_now(setup, state)})


def _weighed_piece(grams: float, target: float, tolerance_pct: float, guess: float | None) -> WeighedPiece:
    off = 100 * (grams - target) / target if target > 0 else 0.0
    return WeighedPiece(
        grams=grams, target_g=target, off_pct=off, outside=abs(off) > tolerance_pct + 1e-9, guess_g=guess
    )


def eye_of(weighed: Sequence[WeighedPiece]) -> GuessAccuracy | None:
    """Bias and spread of the guesses; None when there are none."""
    off = [100 * (piece.guess_g - piece.grams) / piece.grams for piece in weighed if piece.guess_g is not None]
    if not off:
        return None
    return GuessAccuracy(guesses=len(off), bias_pct=fmean(off), spread_pct=stdev(off) if len(off) > 1 else None)


def _drift(grams: Sequence[float]) -> float | None:
    """The slope of weight over number by least squares, when it is twice its standard error or more."""
    n = len(grams)
    if n < FEW_FOR_A_DRIFT:
        return None
    x0, y0 = (n - 1) / 2, fmean(grams)
    sxx = sum((i - x0) ** 2 for i in range(n))
    slope = sum((i - x0) * (g - y0) for i, g in enumerate(grams)) / sxx
    rest = sum((g - y0 - slope * (i - x0)) ** 2 for i, g in enumerate(grams))
    error = math.sqrt(rest / (n - 2) / sxx)
    return slope if abs(slope) > _SURE * error and abs(slope) * n > 0.1 else None


def _sentence_for_now(setup: BenchSetup, state: BenchState) -> str:
    """The one sentence for now."""
    if state.closed or state.left_pieces == 0:
        return _leftover_sentence(setup, state)
    if state.next_g is None:
        return say(
            "Nothing is left for {left_pieces} more: take a little from each of the heaviest.",
            left_pieces=state.left_pieces,
        )
    usual = state.mean_g or state.first_g
    fits = round(state.left_g / state.first_g)
    if (
        state.weighed
        and state.next_g < state.first_g * (1 - 2 * setup.tolerance_pct / 100)
        and fits < state.left_pieces
    ):
        if fits < 1:
            return say(
                "Stop here: {left_g} make no further piece. Press them into the lightest.",
                left_g=setup.weight(state.left_g),
            )
        return say(
            "Stop at {pieces}: {left_g} make {fits} more of their size, not {left_pieces}.",
            pieces=len(state.weighed) + fits,
            left_g=setup.weight(state.left_g),
            fits=fits,
            left_pieces=state.left_pieces,
        )
    if (
        state.weighed
        and state.next_g > state.first_g * (1 + 2 * setup.tolerance_pct / 100)
        and fits > state.left_pieces
    ):
        return say(
            "There is enough for {fits} more, not {left_pieces}: make {others} more pieces, or each heavier.",
            fits=fits,
            left_pieces=state.left_pieces,
            others=fits - state.left_pieces,
        )
    if state.left_pieces == 1:
        return say("The last one takes all that is left: {left_g}.", left_g=setup.weight(state.left_g))
    last = state.weighed[-1] if state.weighed else None
    if last and last.outside:
        by = last.grams - last.target_g
        return say(
            "That one is {off} too {side}: mend it, or go on; the rest make up for it.",
            off=setup.weight(abs(by), 1),
            side="heavy" if by > 0 else "light",
        )
    if state.drift_g is not None:
        way = "heavier" if state.drift_g > 0 else "lighter"
        return say(
            "They grow {way}, by {drift} a piece: look at the target, not at the last one.",
            way=way,
            drift=setup.weight(abs(state.drift_g), 1),
        )
    if len(state.weighed) >= 4 and abs(usual / state.first_g - 1) > setup.tolerance_pct / 200:
        side = "heavy" if usual > state.first_g else "light"
        return say("Your hand runs {off_pct:.0f} % {side}.", off_pct=100 * abs(usual / state.first_g - 1), side=side)
    return say("Guess it, then put it on.") if setup.drill and state.guess_g is None else say("Put the next one on.")


def _leftover_sentence(setup: BenchSetup, state: BenchState) -> str:
    """How to use what is left when the last piece is weighed."""
    if not state.weighed:
        return say("Closed before a piece was weighed.")
    mean = state.mean_g or state.first_g
    done = say("{pieces} pieces, {mean} on the mean", pieces=len(state.weighed), mean=setup.weight(mean, 1))
    if state.left_g < 0.5:
        return say("{done}, nothing left.", done=done)
    if state.left_g >= mean * _SMALL_PIECE:
        more = max(1, math.floor(state.left_g / mean + 1 - _SMALL_PIECE))
        return say(
            "{done}. {left} left: {more} more {pieces}.",
            done=done,
            left=setup.weight(state.left_g),
            more=more,
            pieces="piece" if more == 1 else "pieces",
        )
    if state.left_g >= mean * _A_SLIVER:
        return say(
            "{done}. {left_g} left: one small piece, for a child or the cook.",
            done=done,
            left_g=setup.weight(state.left_g),
        )
    light = sorted(state.weighed, key=lambda piece: piece.grams)[: max(1, len(state.weighed) // 4)]
    return say(
        "{done}. {left} left: {each} to each of the {pieces} lightest.",
        done=done,
        left=setup.weight(state.left_g),
        each=setup.weight(state.left_g / len(light), 1),
        pieces=len(light),
    )

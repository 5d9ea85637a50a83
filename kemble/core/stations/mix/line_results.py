"""Lines: each line of the bowl as it is shown, with its household measure, where it goes, and what is odd about it."""

from __future__ import annotations

from kemble.core.facts.quantity import UNITS, HouseholdMeasure, household
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import WeighedLine
from kemble.core.stations.calculation import AnswerModel, Calculation

_NEAR_ENOUGH_PCT = 12.0  # as far as one egg is from another


class LineDestination(AnswerModel):
    """Some grams of a line and where they go: a part (`to`), or into reserve when `to` is empty."""

    to: str
    at: str
    grams: float


class LineResult(AnswerModel):
    """One line of the bowl as it is shown: grams, share of the flour, nearest household measure, where it goes.

    What has a default came later than the first kept runs, which must open still.
    """

    part: int
    line: int
    role: str = "base"
    name: Words
    group: str
    grams: float
    used_g: float
    pct: float
    water_g: float = 0.0
    household: str
    household_error_pct: float
    carried: tuple[LineDestination, ...] = ()
    allergens: tuple[Words, ...]
    look_alike: Words
    question: Words = ""


def worked_line(working: Calculation, one: WeighedLine, base_g: float) -> LineResult:
    item = one.item
    near = _counted(one) or household(round(one.grams, 3), g_per_ml=one.g_per_ml, spoons=working.shelf.spoons)
    carried = [
        unchecked_model(LineDestination, to=share.to, at=share.at, grams=share.grams)
        for share in one.shares
        if one.line.splits
    ]
    if one.reserve_g:
        carried.append(
            unchecked_model(LineDestination, to="", at=one.line.reserve_for or say("kept back"), grams=one.reserve_g)
        )
    return unchecked_model(
        LineResult,
        part=one.part,
        line=one.index,
        role=one.role,
        name=item.name,
        group=item.group,
        grams=one.grams,
        used_g=one.used_g,
        pct=100.0 * one.used_g / base_g,
        water_g=item.per_100_g.water * one.used_g / 100,
        household=near.text if near else "",
        household_error_pct=near.error_pct if near else 0.0,
        carried=tuple(carried),
        allergens=item.allergens,
        look_alike=item.look_alike,
        question=question(working, one),
    )


def _counted(one: WeighedLine) -> HouseholdMeasure | None:
    """Eggs are counted, in halves, where that comes near: "2 eggs" and not a third of a cup."""
    each = one.item.g_per_piece
    if one.item.group != "egg" or not each:
        return None
    halves = max(1, round(2 * one.grams / each))
    error = 100 * (halves * each / 2 - one.grams) / one.grams
    if abs(error) > _NEAR_ENOUGH_PCT:
        return None
    whole = f"{halves // 2 or ''}{'½' if halves % 2 else ''}"
    name = one.item.name.split(",")[0].lower()
    return HouseholdMeasure(f"{whole} {name}{'s' if halves > 2 else ''}", error)


def question(working: Calculation, one: WeighedLine) -> str:
    """What is unlikely about how a line is measured, as a question; empty when nothing is."""
    unit = one.line.amount.unit
    densities = one.item.density.values()
    low, high = 0.8 * min(densities), 1.25 * max(densities)
    if UNITS[unit].kind in ("volume", "own") and not low <= one.g_per_ml <= high:
        cup = one.g_per_ml * working.shelf.spoons.cup
        return say(
            "A cup of it would weigh {cup}; {low} to {high} is usual. Another cup, another packet?",
            cup=working.weight(cup),
            low=working.weight(low * 250),
            high=working.weight(high * 250),
        )
    if unit in ("cup_us", "cup_metric") and one.item.group == "grain":
        return say(
            "{first}{others}, {factor}? A rice cooker's own holds {volume}.",
            first=UNITS[unit].name[0].upper(),
            others=UNITS[unit].name[1:],
            factor=working.volume(UNITS[unit].factor),
            volume=working.volume(180),
        )
    kinds = {other.line.amount.unit for other in working.bowl.lines if other.line.amount.unit.startswith("cup_")} - {
        "cup_own"
    }
    if unit.startswith("cup_") and unit != "cup_own" and len(kinds) > 1:
        others = " and ".join(sorted(UNITS[kind].name for kind in kinds if kind != unit))
        return say(
            "{factor} here, but {others} on another line. Are they two cups?",
            factor=working.volume(UNITS[unit].factor),
            others=others,
        )
    return ""

"""Each ingredient line as it is shown: its household measure, where it goes, and what is odd about it."""

from __future__ import annotations

from kemble.core.facts.quantity import UNITS
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import PartId
from kemble.core.kitchen.household_measure import household_measure
from kemble.core.sentences import Words, say
from kemble.core.sheet.bowl import WeighedLine
from kemble.core.stations.calculation import AnswerModel, Calculation


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
    part_id: PartId = "base"
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


def line_result(calculation: Calculation, line: WeighedLine, base_g: float) -> LineResult:
    item = line.item
    near = household_measure(item, line.grams, g_per_ml=line.g_per_ml, spoons=calculation.shelf.spoons)
    carried = [
        unchecked_model(LineDestination, to=share.to, at=share.at, grams=share.grams)
        for share in line.shares
        if line.line.splits
    ]
    if line.reserve_g:
        carried.append(
            unchecked_model(LineDestination, to="", at=line.line.reserve_for or say("kept back"), grams=line.reserve_g)
        )
    return unchecked_model(
        LineResult,
        part=line.part,
        line=line.index,
        part_id=line.part_id,
        name=item.name,
        group=item.group,
        grams=line.grams,
        used_g=line.used_g,
        pct=100.0 * line.used_g / base_g,
        water_g=item.per_100_g.water * line.used_g / 100,
        household=near.text if near else "",
        household_error_pct=near.error_pct if near else 0.0,
        carried=tuple(carried),
        allergens=item.allergens,
        look_alike=item.look_alike,
        question=question(calculation, line),
    )


def question(calculation: Calculation, line: WeighedLine) -> str:
    """What is unlikely about how a line is measured, as a question; empty when nothing is."""
    unit = line.line.amount.unit
    densities = line.item.density.values()
    low, high = 0.8 * min(densities), 1.25 * max(densities)
    if UNITS[unit].kind in ("volume", "own") and not low <= line.g_per_ml <= high:
        cup = line.g_per_ml * calculation.shelf.spoons.cup
        return say(
            "A cup of it would weigh {cup}; {low} to {high} is usual. Another cup, another packet?",
            cup=calculation.weight(cup),
            low=calculation.weight(low * 250),
            high=calculation.weight(high * 250),
        )
    if unit in ("cup_us", "cup_metric") and line.item.group == "grain":
        return say(
            "{first}{others}, {factor}? A rice cooker's own holds {volume}.",
            first=UNITS[unit].name[0].upper(),
            others=UNITS[unit].name[1:],
            factor=calculation.volume(UNITS[unit].factor),
            volume=calculation.volume(180),
        )
    kinds = {
        other.line.amount.unit for other in calculation.bowl.lines if other.line.amount.unit.startswith("cup_")
    } - {"cup_own"}
    if unit.startswith("cup_") and unit != "cup_own" and len(kinds) > 1:
        others = " and ".join(sorted(UNITS[kind].name for kind in kinds if kind != unit))
        return say(
            "{factor} here, but {others} on another line. Are they two cups?",
            factor=calculation.volume(UNITS[unit].factor),
            others=others,
        )
    return ""

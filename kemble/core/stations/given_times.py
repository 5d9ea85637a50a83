"""A time that somebody gave, compared with Kemble's: what is true at that minute, and what would explain the difference."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics.soaking import most_pct, uptake_pct
from kemble.core.sentences import Words, say
from kemble.core.sheet.method import HEAT, NAMES_BY_FACT, REST, SOAK, StepChange
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.doneness_checks import share_of
from kemble.core.stations.steps import StepResult

_SAME = 0.08  # of the likely time: nearer than that is the same
_ALONE = 2.3  # standard deviations that one unknown may be off and still explain it: one in a hundred
# What has come by a minute, in the order in which it comes.
_BY_THEN: tuple[tuple[str, str, str], ...] = (
    ("heat.core_hot_min", "hot at the heart since {at}", "hot at the heart only from {at}"),
    ("heat.float_min", "floating since {at}", "floats only from {at}"),
    ("heat.top_sets_min", "the top set since {at}", "the top soft until {at}"),
    ("heat.set_min", "set through since {at}", "set through only at {at}"),
    ("heat.skin_min", "a skin since {at}", "no skin until {at}"),
    ("heat.dried_min", "dried to its chew since {at}", "moister than its way usually is until {at}"),
    ("heat.browns_min", "golden since {at}", "still pale: golden at {at}"),
)


class GivenTimeComparison(AnswerModel):
    """A given time against ours: `done_pct` of makings are done by then; what is true at that minute; what would explain
    the difference."""

    of: str
    minutes: float
    by: str
    ours_min: float
    done_pct: float | None = None
    says: tuple[Words, ...] = ()
    explains: str = ""


def compare_given_times(calculation: Calculation, steps: Sequence[StepResult]) -> tuple[GivenTimeComparison, ...]:
    """Every given time that there is something of ours to hold it against."""
    by_id = {step.id: step for step in steps}
    comparisons = []
    for entry in calculation.sheet.method:
        if not isinstance(entry, StepChange) or entry.minutes is None:
            continue
        step = by_id.get(entry.step)
        if compare := _HOW.get(_name_that_follows(step) if step else entry.step):
            comparisons.append(compare(calculation, entry.step, entry.minutes, entry.by))
        elif step is not None:
            minutes = step.given.minutes if step.given else entry.minutes
            comparisons.append(_compare_step(calculation, step, minutes, entry.by))
    return tuple(comparison for comparison in comparisons if comparison is not None)


def _name_that_follows(step: StepResult) -> str:
    """What a way's step is called whatever the choices: its heat, its rest, its soak."""
    if step.part is not None:
        return ""
    return HEAT if step.window else NAMES_BY_FACT.get(step.fact, "")


def _compare_step(calculation: Calculation, step: StepResult, minutes: float, by: str) -> GivenTimeComparison:
    """Any other step: where theirs lies in what ours may be, and what would explain it."""
    says, share = [], None
    ours, judged = step.ours, step.cue is not None or step.hands != "free"
    if ours.between:
        least, most = ours.between.least, ours.between.most
        share = round(100 * share_of(minutes, least, ours.minutes, most)) if judged else None
        place = "under" if minutes < least else "over" if minutes > most else "within"
        says.append(
            say("it is {place} what ours may be, {least:.0f} to {most:.0f}", place=place, least=least, most=most)
        )
    hot = calculation.fact_book.number("heat.to_boil_min") if "heat.to_boil_min" in calculation.fact_book else 0.0
    if step.fact == "heat.to_boil_min" and minutes < hot:
        says.append(say("the water has begun to sing, and does not boil yet"))
    beside = ours.minutes - calculation.fact_book.number(step.fact) if step.fact in calculation.fact_book else 0.0
    return unchecked_model(
        GivenTimeComparison,
        of=step.id,
        minutes=minutes,
        by=by,
        ours_min=ours.minutes,
        done_pct=share,
        says=tuple(says),
        explains=_explain_difference(calculation, step.fact, minutes - beside, ours.minutes - beside) if judged else "",
    )


def _compare_heat(calculation: Calculation, of: str, minutes: float, by: str) -> GivenTimeComparison | None:
    fact_book = calculation.fact_book
    if "heat.done_min" not in fact_book:
        return None
    first, done, latest = (fact_book.number(f"heat.{name}_min") for name in ("first_check", "done", "latest"))
    says = [
        (since if fact_book.number(key) <= minutes else until).format(at=f"{fact_book.number(key):.0f}")
        for key, since, until in _BY_THEN
        if key in fact_book and fact_book.number(key) > 0.5
    ]
    dries = latest + (latest - done)
    if minutes > dries:
        says.append(say("past {dries:.0f} the rim dries, or colours, whatever else it does", dries=dries))
    return unchecked_model(
        GivenTimeComparison,
        of=of,
        minutes=minutes,
        by=by,
        ours_min=done,
        done_pct=round(100 * share_of(minutes, first, done, latest)),
        says=tuple(says),
        explains=_explain_difference(calculation, "heat.done_min", minutes, done, calculation.kitchen.time_factor),
    )


def _explain_difference(calculation: Calculation, key: str, minutes: float, done: float, factor: float = 1.0) -> str:
    """Which unknown would make our time theirs. `factor`: of the cook's clock on the one that was propagated."""
    if done > 0 and abs(minutes / done - 1) < _SAME:
        return say("The same as ours.")
    spread = calculation.spreads.get(key)
    stands = done - spread.likely * factor if spread else 0.0
    if spread is None or minutes <= stands:
        return ""
    ratio = (minutes - stands) / (done - stands)
    offs = [(off, share.id) for share in spread.shares if (off := share.off_for(ratio)) is not None]
    near = sorted((off for off in offs if abs(off[0]) <= _ALONE), key=lambda estimate_id: abs(estimate_id[0]))[:2]
    longer = "longer" if ratio > 1 else "shorter"
    if not near:
        return say(
            "No one thing that we do not know makes it so much {longer}: they mean something else by done.",
            longer=longer,
        )
    told = " or ".join(_estimate_words(calculation, off, name) for off, name in near)
    return say("So much {longer} it would be with {told}.", longer=longer, told=told)


def _estimate_words(calculation: Calculation, off: float, name: EstimateId) -> str:
    row = calculation.estimates[name]
    value = row.at(off)
    amount = say("{value:.2g} times as usual", value=value) if row.unit == "x" else f"{value:.3g} {row.unit}"
    return say("{words} at {amount} (we take {value:.3g})", words=row.words, amount=amount, value=row.value)


def _compare_rest(calculation: Calculation, of: str, minutes: float, by: str) -> GivenTimeComparison | None:
    fact_book = calculation.fact_book
    key = "rest.cut_after_min"
    if key not in fact_book:
        return None
    fact = fact_book.facts[key]
    ours = fact_book.number(key)
    low, high = fact.low or ours * 0.8, fact.high or ours * 1.25
    school = calculation.asked("rest")
    cooled = "rest.cut_counter_min" if school == "cool" else "rest.cut_fridge_min"
    says = [say("it is cold enough to cut clean") if minutes >= ours else say("it is still too warm to cut clean")]
    if minutes < low:
        says.append(say("an oiled blade, wiped each time, if it cannot wait"))
    return unchecked_model(
        GivenTimeComparison,
        of=of,
        minutes=minutes,
        by=by,
        ours_min=ours,
        done_pct=round(100 * share_of(minutes, low, ours, high)),
        says=tuple(says),
        explains=_explain_difference(calculation, cooled, minutes, ours) if school != "overnight" else "",
    )


def _compare_soak(calculation: Calculation, of: str, minutes: float, by: str) -> GivenTimeComparison | None:
    if calculation.way.base != "grain":
        return None
    grain = calculation.sheet.grain
    took, most = uptake_pct(minutes, grain.soak_c), most_pct(grain.soak_c)
    full = 100 * took / most
    says = [
        say("it has taken up {took:.0f} % of its dry weight by then, {full:.0f} % of what it can", took=took, full=full)
    ]
    if full > 93:
        says.append(say("longer adds nothing but a sour smell in a warm room"))
    return unchecked_model(
        GivenTimeComparison,
        of=of,
        minutes=minutes,
        by=by,
        ours_min=float(grain.soak_min),
        says=tuple(says),
    )


_HOW: dict[str, Callable[[Calculation, str, float, str], GivenTimeComparison | None]] = {
    HEAT: _compare_heat,
    REST: _compare_rest,
    SOAK: _compare_soak,
}

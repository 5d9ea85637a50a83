"""Grain: rinsed, soaked and drained, and the liquid that is then still to be poured on."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from kemble.core.cards.card_parts import Band
from kemble.core.cards.way import GrainCook
from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE, WEIGHED, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics.soaking import half_min, legume_uptake_pct, most_pct, uptake_pct
from kemble.core.sentences import say
from kemble.core.sheet.bowl import Contribution
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

PELEG = "Peleg's equation; its constants a kitchen estimate"
RINSE_MIN = 1.5  # a rinse is that long under water
CLING_MIN = 15.0  # what clings to grain just poured off falls by two thirds in this time on the sieve
UNSOAKED_PCT = 24.0  # under this much the hearts stay hard in steam: then it is spoken of

# Water lost in cooking, in per cent of what is in the pot; negative where steam condenses on it.
LOSS: dict[GrainCook, Band] = {
    "steam": Band(-9.0, -4.0),
    "lid": Band(4.0, 9.0),
    "cooker": Band(3.0, 6.0),
    "ground": Band(3.0, 8.0),
    "parcel": Band(0.0, 0.0),
}
_SOFT_PCT = 58.0  # of water on dry grain, under which it is not soft however long it stands
_LEFT_SHARE = 0.04  # of the dry grain: so much water on the floor is spoken of
HOW: dict[GrainCook, str] = {
    "steam": "steamed",
    "lid": "simmered under a lid",
    "cooker": "in a rice cooker",
    "ground": "ground and stirred",
    "parcel": "boiled in its parcel",
}
_POURED: tuple[GrainCook, ...] = ("lid", "cooker", "ground")


class GrainResult(AnswerModel):
    """The soak as a curve of minutes against per cent taken up, where it stands on it, and the weights."""

    minutes: tuple[float, ...]
    uptake_pct: tuple[float, ...]
    soak_min: float
    soak_c: float
    at_pct: float
    most_pct: float
    dry_g: float
    soaked_g: float
    cook_water_g: float | None
    cooked_g: float
    how: str


@dataclass(frozen=True, slots=True)
class SoakedGrain:
    """Grams: the dry grain, the water it brings into the bowl, and the water in the soak that is on no line of the sheet.

    `stands_in`: so much of the plain water on the sheet is that of the soak.
    """

    dry: float
    held: float
    beside: float
    cook: GrainCook
    stands_in: float = 0.0


def cook_of(calculation: Calculation) -> GrainCook:
    """How the grain is cooked, by the school followed."""
    cooks = calculation.way.grain_cook
    school = calculation.asked("grain")
    return cooks[school] if school in cooks else next(iter(cooks.values()))


def soaked_beans_g(calculation: Calculation) -> float:
    """The water that dry beans of the base took up in a soak of their own; entered once, 0 where none were soaked."""
    fact_book = calculation.fact_book
    if "grain.bean_uptake_g" in fact_book:
        return fact_book.number("grain.bean_uptake_g")
    soaks = [
        (contribution, contribution.weighed.line.soak_min)
        for contribution in calculation.bowl.base.contributions
        if contribution.weighed and contribution.item.group == "legume" and contribution.weighed.line.soak_min
    ]
    if not soaks:
        return 0.0
    celsius = calculation.sheet.grain.soak_c
    leaves = [
        leaf(contribution.ref, f"{contribution.item.name}, soaked", minutes, "min") for contribution, minutes in soaks
    ]
    fact_book.add(
        "grain.bean_soak_min",
        max(minutes for _, minutes in soaks),
        say("the longest that the sheet says of its beans"),
        source="sheet",
        of=[*leaves],
    )
    takes: EstimateId = "uptake"
    return enter_with_range(
        calculation,
        "grain.bean_uptake_g",
        say("what the beans took up in their soak, drained"),
        scaled_by_estimates(
            sum(contribution.grams * legume_uptake_pct(minutes, celsius) / 100 for contribution, minutes in soaks),
            takes,
        ),
        (takes,),
        source=PELEG,
        of=[
            *leaves,
            calculation.from_sheet("grain.soak_c", "water", celsius, "°C"),
        ],
    )


def soak_grain(calculation: Calculation) -> SoakedGrain | None:
    """Facts of rinsing, soaking and draining. None for a way that begins from flour."""
    if calculation.way.base != "grain":
        return None
    fact_book, asked = calculation.fact_book, calculation.sheet.grain
    cook = cook_of(calculation)
    own_water = asked.water == "own" and cook in _POURED
    wet = (asked.soak_min > 0 or asked.rinses > 0) and not own_water
    dry = _enter_dry(calculation, own_water=own_water)
    taken = _enter_taken(calculation, dry, wet=wet)
    takes: EstimateId = "uptake"
    uptake = dry * taken / 100
    fact_book.add(
        "grain.uptake_g", uptake, say("on the dry weight"), source=CONSERVATION, of=["grain.dry_g", "grain.uptake_pct"]
    )
    clings: EstimateId = "cling_pct"
    each_pct = dry / 100 * math.exp(-asked.drain_min / CLING_MIN) if wet else 0.0
    cling = enter_with_range(
        calculation,
        "grain.cling_g",
        say("a film between the grains, gone in an hour on the sieve"),
        scaled_by_estimates(each_pct, clings),
        (clings,),
        source=KITCHEN_ESTIMATE,
        of=["grain.dry_g", "grain.drain_min"],
    )
    likely = calculation.likely(takes)
    enter_with_range(
        calculation,
        "grain.soaked_g",
        say("what the scale should show when it has drained: less, and it wants longer in the water"),
        lambda is_: dry + uptake * is_[takes] / likely + each_pct * is_[clings],
        (takes, clings),
        source=CONSERVATION,
        of=["grain.dry_g", "grain.uptake_g", "grain.cling_g"],
    )
    _advise_on_soak(calculation, cook, taken)
    held = uptake + cling
    if cook not in _POURED:
        return SoakedGrain(dry, held, held, cook)
    stands_in = min(held, _plain_water_g(calculation)) if asked.water == "all" else 0.0
    _pour(calculation, held, stands_in)
    return SoakedGrain(dry, held, 0.0 if asked.water == "own" else held - stands_in, cook, stands_in)


def _poured_liquids(calculation: Calculation) -> list[Contribution]:
    """The liquids of the base that are in the pot with the grain."""
    return [
        contribution
        for contribution in calculation.bowl.base.contributions
        if contribution.item.group == "liquid" and not calculation.way.joins_late(contribution.joins)
    ]


def _plain_water_g(calculation: Calculation) -> float:
    """Only water is what a soak can stand in for: milk that is not poured would leave its fat out too."""
    return sum(contribution.grams for contribution in _poured_liquids(calculation) if contribution.item.id == "water")


def _enter_dry(calculation: Calculation, *, own_water: bool) -> float:
    """The grain as weighed dry, in grams; how it is soaked and drained."""
    fact_book, asked = calculation.fact_book, calculation.sheet.grain
    kernels = [
        contribution for contribution in calculation.bowl.base.contributions if contribution.item.group == "grain"
    ]
    dry = fact_book.add(
        "grain.dry_g",
        sum(contribution.grams for contribution in kernels),
        say("the grain of the base, as weighed dry"),
        source=CONSERVATION,
        of=[leaf(contribution.ref, contribution.item.name, contribution.grams, "g") for contribution in kernels],
    )
    fact_book.add(
        "grain.soak_min",
        asked.soak_min,
        say("as on the sheet"),
        source="sheet",
        of=[calculation.from_sheet("grain.soak_min", "soak", asked.soak_min, "min")],
    )
    fact_book.add(
        "grain.drain_min",
        0.0 if own_water else asked.drain_min,
        say("nothing is drained") if own_water else say("as on the sheet"),
        source="sheet",
        of=[calculation.from_sheet("grain.drain_min", "drain", asked.drain_min, "min")],
    )
    return dry


def _enter_taken(calculation: Calculation, dry: float, *, wet: bool) -> float:
    """Water gained in the soak and the rinses, in per cent of the dry grain; by the scale, where it has shown it."""
    fact_book, asked = calculation.fact_book, calculation.sheet.grain
    warm = calculation.from_sheet("grain.soak_c", "water", asked.soak_c, "°C")
    fact_book.add("grain.soak_end_pct", most_pct(asked.soak_c), say("after days"), source=PELEG, of=[warm])
    takes: EstimateId = "uptake"
    rinses = calculation.from_sheet("grain.rinses", say("rinses, a minute and a half each"), asked.rinses)
    taken = enter_with_range(
        calculation,
        "grain.uptake_pct",
        say("water gained in the soak and the rinses"),
        scaled_by_estimates(uptake_pct(asked.soak_min + RINSE_MIN * asked.rinses, asked.soak_c), takes),
        (takes,),
        source=PELEG,
        of=["grain.soak_min", "grain.soak_end_pct", warm, rinses],
    )
    shown = calculation.weighed.get("grain.soaked_g")
    if shown is not None:
        cling = dry / 100 * math.exp(-asked.drain_min / CLING_MIN) * calculation.likely("cling_pct") if wet else 0.0
        says = say("what the scale showed when it had drained, less the dry grain and the film between")
        taken = fact_book.add(
            "grain.uptake_pct", max(0.0, 100 * (shown - cling - dry) / dry), says, source=WEIGHED, of=["grain.dry_g"]
        )
    return taken


def _pour(calculation: Calculation, held: float, stands_in: float) -> None:
    """All the water of the pot and the liquid to pour, whichever of the two the sheet says."""
    said = calculation.sheet.grain.water
    fact_book = calculation.fact_book
    liquids = _poured_liquids(calculation)
    asked = sum(contribution.grams for contribution in liquids)
    of: Origins = [
        leaf(contribution.ref, contribution.item.name, round(contribution.grams, 1), "g") for contribution in liquids
    ]
    if said == "poured":
        fact_book.add(
            "grain.total_water_g",
            asked + held,
            say("what is poured on, and what soaking, rinsing and draining left in the grain"),
            source=CONSERVATION,
            of=[*of, "grain.uptake_g", "grain.cling_g"],
        )
        fact_book.add("grain.cook_water_g", asked, say("the liquid of the base, as poured"), source="sheet", of=of)
        return
    if said == "own":
        fact_book.add("grain.total_water_g", asked, say("the liquid that it soaks and cooks in"), source="sheet", of=of)
        fact_book.add(
            "grain.cook_water_g", asked, say("the grain soaks in it; nothing is drained"), source="sheet", of=of
        )
        return
    fact_book.add(
        "grain.total_water_g",
        asked + held - stands_in,
        say("the liquid of the base: soaked up and poured on together"),
        source=CONSERVATION,
        of=of,
    )
    fact_book.add(
        "grain.cook_water_g",
        asked - stands_in,
        say("all the liquid of the base, less what soaking, rinsing and draining left in the grain"),
        source=CONSERVATION,
        of=["grain.total_water_g", "grain.uptake_g", "grain.cling_g"],
    )
    if stands_in < held - 0.05:
        says = say(
            "The grain absorbs {held} of water in the soak. You can leave out only {plain}, all the plain water in your "
            "recipe. Soak the grain for less time, or drain it longer: else the rice is too wet.",
            held=calculation.weight(held),
            plain=calculation.weight(stands_in),
        )
        calculation.advise("mix", "look", says, 0)


def enter_cooked_grain(calculation: Calculation, soaked: SoakedGrain, batch_g: float) -> tuple[float, float, float]:
    """Cooked grain in grams: likely, low, high; the fact entered. `batch_g` is all that is in the pot."""
    fact_book = calculation.fact_book
    if soaked.cook == "parcel":
        solids = batch_g - soaked.beside
        water = calculation.estimates["drinks_pct"]
        fact_book.add(
            "grain.pot_water_g",
            max(0.0, soaked.dry * water.value / 100 - soaked.beside),
            say(
                "boiled long, grain ends with {low:g} to {high:g} % of water on its dry weight",
                low=water.low,
                high=water.high,
            ),
            source=KITCHEN_ESTIMATE,
            of=["grain.dry_g", "grain.uptake_g"],
        )
        likely, low, high = (
            solids + max(soaked.beside, soaked.dry * share / 100) for share in (water.value, water.low, water.high)
        )
        of: Origins = ["grain.dry_g", "grain.uptake_g", "grain.pot_water_g"]
    else:
        loss = LOSS[soaked.cook]
        likely, low, high = (batch_g * (1 - share / 100) for share in (loss.middle, loss.high, loss.low))
        of = ["grain.dry_g", "grain.uptake_g"]
    fact_book.add(
        "grain.cooked_g",
        likely,
        say("{how}: the grain and its water, less or with what the heat takes or brings", how=HOW[soaked.cook]),
        source=say(
            "{conservation}; losses a {kitchen_estimate}", conservation=CONSERVATION, kitchen_estimate=KITCHEN_ESTIMATE
        ),
        of=of,
        low=low,
        high=high,
    )
    if soaked.cook in ("lid", "cooker"):
        _enter_water_left(calculation, soaked, batch_g)
    return likely, low, high


def _enter_water_left(calculation: Calculation, soaked: SoakedGrain, batch_g: float) -> None:
    """Whether all the water gets taken up: what is in the pot, less what leaves it, less what soft grain can hold."""
    fact_book, water = calculation.fact_book, calculation.fact_book.number("grain.total_water_g")
    gone = batch_g * LOSS[soaked.cook].middle / 100

    def solve(is_: Mapping[EstimateId, float]) -> float:
        return max(0.0, water - gone * is_["lid_lost"] - soaked.dry * is_["pot_holds_pct"] / 100)

    which: tuple[EstimateId, ...] = ("pot_holds_pct", "lid_lost")
    ends = [calculation.estimates[name] for name in which]
    most = solve({name: row.low for name, row in zip(which, ends, strict=True)})
    left = fact_book.add(
        "grain.left_water_g",
        solve({name: row.value for name, row in zip(which, ends, strict=True)}),
        say("what is in the pot, less what leaves under the lid, less what soft grain can hold"),
        source=say(
            "{conservation}; what grain holds a {kitchen_estimate}",
            conservation=CONSERVATION,
            kitchen_estimate=KITCHEN_ESTIMATE,
        ),
        of=["grain.total_water_g", "grain.dry_g", *(calculation.estimated(name) for name in which)],
        low=solve({name: row.high for name, row in zip(which, ends, strict=True)}),
        high=most,
    )
    needs = soaked.dry * _SOFT_PCT / 100
    if left > _LEFT_SHARE * soaked.dry:
        says = say(
            "About {left} of water stay on the floor, {most} at most: pour less, or stand it longer ajar.",
            left=calculation.weight(left),
            most=calculation.weight(most),
        )
        calculation.advise("heat", "look", says, 2)
    elif water - gone < needs:
        says = say(
            "It is dry before it is soft: {water} of water for grain that wants {needs}. Pour more.",
            water=calculation.weight(water - gone),
            needs=calculation.weight(needs),
        )
        calculation.advise("heat", "look", says, 1)


def grain_worked(calculation: Calculation, soaked: SoakedGrain) -> GrainResult:
    """The soaking curve to twice the asked time, three hours at the least."""
    fact_book, asked = calculation.fact_book, calculation.sheet.grain
    last = max(180.0, 1.6 * asked.soak_min, 3 * half_min(asked.soak_c))
    minutes = tuple(round(last * (i / 60) ** 1.6, 2) for i in range(61))
    return unchecked_model(
        GrainResult,
        minutes=minutes,
        uptake_pct=tuple(round(uptake_pct(m + RINSE_MIN * asked.rinses, asked.soak_c), 2) for m in minutes),
        soak_min=asked.soak_min,
        soak_c=asked.soak_c,
        at_pct=fact_book.number("grain.uptake_pct"),
        most_pct=fact_book.number("grain.soak_end_pct"),
        dry_g=soaked.dry,
        soaked_g=fact_book.number("grain.soaked_g"),
        cook_water_g=fact_book.number("grain.cook_water_g") if "grain.cook_water_g" in fact_book else None,
        cooked_g=fact_book.number("grain.cooked_g"),
        how=HOW[soaked.cook],
    )


def _advise_on_soak(calculation: Calculation, cook: GrainCook, taken: float) -> None:
    asked = calculation.sheet.grain
    if cook in ("steam", "ground") and taken < UNSOAKED_PCT:
        says = say(
            "Only {taken:.0f} % taken up: the hearts stay hard. It wants {unsoaked_pct:.0f} % at least.",
            taken=taken,
            unsoaked_pct=UNSOAKED_PCT,
        )
        calculation.advise("mix", "look", says, 1)
    if asked.soak_min > 240 and asked.soak_c > 22:
        says = say(
            "A long soak at {soak_c} sours. Over four hours it belongs in the cold.",
            soak_c=calculation.degrees(asked.soak_c),
        )
        calculation.advise("mix", "look", says, 2)
    if cook in ("steam", "ground") and asked.drain_min < 20:
        calculation.advise(
            "mix", "look", say("Drain it truly dry, half an hour on the sieve: wet grain steams to mush."), 3
        )

"""Times that are not the way's own heat: a pot brought to the boil, caramel, beans to soft, a batter's rest, setting.

Solved from mass and burner where they are a matter of heat, else from a table by kind; each with its window.
"""

from __future__ import annotations

import math
from collections.abc import Mapping

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins, leaf
from kemble.core.kitchen.document import Level
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.stove import cools_s
from kemble.core.physics.thermal import WATER_J_PER_ML_K, fractions, properties
from kemble.core.sentences import say
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.calculation import Calculation, StandsIn
from kemble.core.stations.heat.stirred_dough import PAN_MM
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

BALANCE = f"energy balance; what is lost on the way a {KITCHEN_ESTIMATE}"
# Sugar warmed from the room to amber: 1.3 J/(g K) over 155 K, and 120 J/g to melt it (tables, rounded). Of the burner's
# power a dry pan of sugar takes a third: it is taken off and put back, and never hurried.
_CARAMEL_J_PER_G = 1.3 * 155 + 120
_MELTS_BY_K = 55.0
_PAN_J_PER_K_M2 = 8000.0  # what a pan of two millimetres of steel takes itself, by its floor
_MELT_J_PER_G = 3.4 * _MELTS_BY_K  # syrup and butter, from the room to where no grain is felt
_OVER_GEL_C = 10.0  # a mass is stirred on to so much over where its starch gels

# Minutes from the boil until they crush, not soaked; how old they are is in the table of estimates.
_BEANS: Mapping[str, float] = {
    "small-red-bean": 85.0,
    "white-bean": 80.0,
    "mung-bean-split": 32.0,
    "soybean": 130.0,
    "black-eyed-pea": 55.0,
    "lentil": 22.0,
}
_OTHER_BEAN = 80.0


def enter_other_times(calculation: Calculation, stands_in: StandsIn | None) -> None:
    """Enter every such time that a step of the sheet goes by."""
    way = calculation.way
    used = {step.minutes.fact for step in way.steps}
    base, chosen = calculation.bowl.base, calculation.from_sheet("way", "way", way.name)
    sugar_g = base.of_group("sugar")
    if "heat.to_boil_min" in used:
        _enter_to_the_boil(calculation, stands_in)
    if sugar_g and "heat.caramel_min" in used:
        _enter_caramel(calculation, "heat.caramel_min", sugar_g, ["mix.sugar_pct"])
    if "heat.melt_min" in used:
        _melted(calculation)
    if "heat.syrup_cools_min" in used and sugar_g and calculation.schools.get("into") == "cooled":
        _syrup_cooled(calculation)
    if "heat.thicken_min" in used:
        _thickened(calculation)
    if "rest.batter_min" in used:
        says = say("until the flour has drunk, and the bubbles are out of it")
        rest: EstimateId = "batter_rest_min"
        enter_with_range(
            calculation,
            "rest.batter_min",
            says,
            scaled_by_estimates(1.0, rest),
            (rest,),
            source=KITCHEN_ESTIMATE,
            of=[chosen],
        )
    if "rest.rigid_min" in used and calculation.follows(way.sheeted_when):
        says = say("covered, in the cold, until a blade goes through without a drag")
        sets: EstimateId = "rigid_h"
        enter_with_range(
            calculation,
            "rest.rigid_min",
            says,
            scaled_by_estimates(60.0, sets),
            (sets,),
            source=KITCHEN_ESTIMATE,
            of=[chosen],
        )
    _enter_of_parts(calculation)
    if "keep.hard_after_h" in calculation.fact_book and any(kind == "fry" for _, _, kind in way.finishes):
        says = say("firm enough for thin slices that hold in a pan: one to two days, longer the sweeter")
        share: EstimateId = "firm_share"
        of: Origins = ["keep.hard_after_h"]
        enter_with_range(
            calculation,
            "rest.firm_h",
            says,
            lambda is_: is_[share] * calculation.fact_with("keep.hard_after_h", is_),
            (share, *calculation.rows_of("keep.hard_after_h")),
            source=KITCHEN_ESTIMATE,
            of=of,
        )


def _enter_of_parts(calculation: Calculation) -> None:
    """Beans to soft and sugar to amber, of the parts that are made here."""
    for bowl in calculation.bowl.parts.values():
        if bowl.family is None or bowl.part.made_on:
            continue
        if bowl.family.id == "bean-paste":
            _enter_beans(calculation, bowl)
        if bowl.family.id == "burnt-sugar" and bowl.of_group("sugar"):
            _enter_caramel(
                calculation, f"part.{bowl.id}.caramel_min", bowl.of_group("sugar"), [f"part.{bowl.id}.raw_g"]
            )


def _power(calculation: Calculation, level: Level) -> tuple[float, Origin]:
    """Net power in W at a level, and where it is from."""
    watts = calculation.kitchen.burner.net_w(level)
    return watts, calculation.from_kitchen(
        f"burner.{level.replace('-', '_')}_w", say("net power at {level} heat", level=level), watts, "W"
    )


def _enter_to_the_boil(calculation: Calculation, stands_in: StandsIn | None) -> None:
    """The water that the heat begins with, cold from the tap, at high heat under a lid."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    if "heat.water_ml" not in fact_book:
        return
    watts, power = _power(calculation, "high")
    boiled = stands_in is not None and stands_in.kind == "pot"
    if calculation.steamer.watts and not boiled:
        watts = calculation.steamer.watts
        power = calculation.from_kitchen("steamer.watts", say("the steamer's own machine"), watts, "W")
    of: Origins = ["heat.water_ml", "heat.boil_c", power]
    each_k = fact_book.number("heat.water_ml") * WATER_J_PER_ML_K / watts / 60.0 * kitchen.time_factor

    def solve(is_: Mapping[EstimateId, float]) -> float:
        return each_k * (calculation.boil_c - is_["tap_c"]) / is_["burner"]

    says = say("cold from the tap, lid on")
    enter_with_range(calculation, "heat.to_boil_min", says, solve, ("burner", "tap_c"), source=BALANCE, of=of)


def _enter_caramel(calculation: Calculation, key: str, sugar_g: float, of: Origins) -> None:
    watts, power = _power(calculation, "medium")
    joules, factor = sugar_g * _CARAMEL_J_PER_G, calculation.kitchen.time_factor

    def solve(is_: Mapping[EstimateId, float]) -> float:
        minutes = joules / (is_["caramel_takes"] * is_["burner"] * watts) / 60.0
        return max(is_["caramel_least_min"], minutes) * factor

    says = say("dry in the pan to amber, swirled, taken off before it is dark: by its colour, not the clock")
    which: tuple[EstimateId, ...] = ("caramel_takes", "burner", "caramel_least_min")
    enter_with_range(calculation, key, says, solve, which, source=BALANCE, of=[*of, power])


def _melted(calculation: Calculation) -> None:
    """Sugar melted in the base's liquid, warmed to where no grain is felt."""
    joules = calculation.bowl.base.of_group("sugar", "liquid") * _MELT_J_PER_G
    watts, power = _power(calculation, "medium")
    factor = calculation.kitchen.time_factor

    def solve(is_: Mapping[EstimateId, float]) -> float:
        minutes = joules / (is_["melt_takes"] * is_["burner"] * watts) / 60.0
        return max(is_["melt_least_min"], minutes) * factor

    says = say("warm enough that no grain is felt under the spoon; it need not boil")
    which: tuple[EstimateId, ...] = ("melt_takes", "burner", "melt_least_min")
    enter_with_range(calculation, "heat.melt_min", says, solve, which, source=BALANCE, of=[power])


def _syrup_cooled(calculation: Calculation) -> None:
    """The syrup of the base, left in its pan from when its sugar has melted, or from the boil where it was burnt."""
    base, kitchen = calculation.bowl.base, calculation.kitchen
    inside = Composition.summed(
        each.composition for each in base.contributions if each.item.group in ("sugar", "liquid")
    )
    pan = next((pan for pan in kitchen.pans if pan.name == base.part.pan), None)
    across_m = (pan.across_mm if pan else PAN_MM) / 1000.0
    syrup = properties(fractions(inside), 60.0)
    deep_m = inside.total / 1000.0 / syrup.rho / (math.pi * across_m**2 / 4)
    start_c = calculation.boil_c if calculation.schools.get("syrup") == "burnt" else kitchen.room_c + _MELTS_BY_K

    def solve(is_: Mapping[EstimateId, float]) -> float:
        seconds = cools_s(
            joules_per_k=inside.total / 1000.0 * syrup.cp + _PAN_J_PER_K_M2 * math.pi * across_m**2 / 4,
            start_c=start_c,
            to_c=max(is_["bath_c"], kitchen.room_c + is_["room_c"] + 2.0),
            room_c=kitchen.room_c + is_["room_c"],
            open_m2=math.pi * across_m**2 / 4,
            wall_m2=math.pi * across_m * deep_m,
            still_h=is_["still_air_h"],
            wall_h=is_["counter_h"],
        )
        return seconds / 60.0 * kitchen.time_factor

    enter_with_range(
        calculation,
        "heat.syrup_cools_min",
        say(
            "from {start} to {bath} in an open pan of {across}",
            start=calculation.degrees(start_c),
            bath=calculation.degrees(calculation.likely("bath_c")),
            across=calculation.length(across_m * 1000.0),
        ),
        solve,
        ("bath_c", "still_air_h", "room_c", "counter_h"),
        source=say("balance of heat; vapour by Lewis' relation"),
        of=[
            leaf("sheet:parts", say("sugar and liquid"), round(inside.total, 1), "g"),
            calculation.from_kitchen("pans", say("pan"), round(across_m * 1000.0), "mm"),
            calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C"),
        ],
    )


def _thickened(calculation: Calculation) -> None:
    """Ground grain stirred into its boiling milk: the cold grain warmed to where it gels, and a little longer."""
    fact_book = calculation.fact_book
    cp = properties(fractions(calculation.bowl.base.composition), 60.0).cp
    watts, power = _power(calculation, "medium")
    joules_k = fact_book.number("mix.batch_g") / 1000.0 * cp
    mixed = _mixed_c(calculation)

    def solve(is_: Mapping[EstimateId, float]) -> float:
        warms = (
            joules_k
            * max(5.0, calculation.gel_c(is_) + _OVER_GEL_C - mixed)
            / (is_["thicken_takes"] * is_["burner"] * watts)
        )
        return is_["thicken_min"] + warms / 60.0

    says = say("from the first spoon until the spoon leaves a furrow; never left")
    which: tuple[EstimateId, ...] = ("thicken_min", "thicken_takes", "burner", "gel_c")
    of: Origins = ["mix.batch_g", "mix.gel_temperature_c", power]
    enter_with_range(calculation, "heat.thicken_min", says, solve, which, source=BALANCE, of=of)


def _mixed_c(calculation: Calculation) -> float:
    """°C of boiling milk and grain at the room's warmth, put together."""
    base = calculation.bowl.base
    wet, dry = base.of_group("liquid"), base.of_group("grain", "legume")
    hot, cold = wet * 4.1 * calculation.boil_c, dry * 2.4 * calculation.kitchen.room_c
    return (hot + cold) / max(1.0, wet * 4.1 + dry * 2.4)


def _enter_beans(calculation: Calculation, bowl: PartBowl) -> None:
    assert bowl.family is not None
    dry = [
        contribution
        for contribution in bowl.contributions
        if contribution.item.group == "legume" and "cooked" not in contribution.item.tags
    ]
    if not dry:
        return
    slowest = (
        max(_BEANS.get(contribution.item.id, _OTHER_BEAN) for contribution in dry) * calculation.kitchen.time_factor
    )
    school = bowl.family.school(bowl.part.schools, "soak", calculation.way.form)
    which: tuple[EstimateId, ...] = ("beans",)
    if school == "overnight":
        which = ("beans", "beans_soaked")
    elif school == "lid":
        which = ("beans", "beans_lid")
    says = say("from the boil until {beans} crush between two fingers, ", beans=dry[0].item.name.lower()) + (
        say("soaked overnight") if school == "overnight" else say("not soaked")
    )
    key, of = f"part.{bowl.id}.soft_min", [f"part.{bowl.id}.raw_g"]
    enter_with_range(
        calculation, key, says, scaled_by_estimates(slowest, *which), which, source=KITCHEN_ESTIMATE, of=[*of]
    )

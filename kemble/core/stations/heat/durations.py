"""Times that are not the way's own heat: a pot brought to the boil, caramel, beans to soft, a batter's rest, setting.

Solved from mass and burner where they are a matter of heat, else from a table by kind; each with its window.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origins
from kemble.core.physics.thermal import WATER_J_PER_ML_K, fractions, properties
from kemble.core.sheet.bowl import PartBowl
from kemble.core.stations.working import Working

BALANCE = f"energy balance; what is lost on the way a {KITCHEN_ESTIMATE}"
TAP_C = 15.0  # of cold water; kitchen estimate, 8-22
_LESS, _MORE = 0.78, 1.35  # of a time that goes with the burner's power
# Sugar warmed from the room to amber: 1.3 J/(g K) over 155 K, and 120 J/g to melt it (tables, rounded). Of the burner's
# power a dry pan of sugar takes a third: it is taken off and put back, and never hurried.
_CARAMEL_J_PER_G, _CARAMEL_TAKES, _CARAMEL_LEAST_MIN = 1.3 * 155 + 120, 0.33, 4.0
_MELT_TAKES, _MELT_LEAST_MIN = 0.7, 3.0
# A mass that thickens is stirred from near the boil until it has gelled and lost its raw taste.
_THICKEN_MIN, _THICKEN_TAKES = 1.5, 0.6


class Window(NamedTuple):
    """Minutes, and between which they lie."""

    likely: float
    low: float
    high: float


# Simmered from the boil until they crush, not soaked; kitchen estimates. A night's soak takes a third off, a lid that is
# never lifted a tenth.
_BEANS: Mapping[str, Window] = {
    "small-red-bean": Window(85.0, 65.0, 110.0),
    "white-bean": Window(80.0, 60.0, 110.0),
    "mung-bean-split": Window(32.0, 22.0, 45.0),
    "soybean": Window(130.0, 100.0, 180.0),
    "black-eyed-pea": Window(55.0, 40.0, 75.0),
    "lentil": Window(22.0, 15.0, 30.0),
}
_OTHER_BEAN = Window(80.0, 50.0, 120.0)
_SOAKED, _LID = 0.68, 0.92
# A batter stands until its flour has drunk and its bubbles are gone; a block until it can be cut; kitchen estimates.
BATTER_RESTS = Window(20.0, 10.0, 60.0)
RIGID = Window(1200.0, 720.0, 2880.0)
_FIRM_SHARE = Window(0.42, 0.25, 0.85)  # of the hours until a cake is hard: then it slices thin, and is not yet hard


def durations(working: Working) -> None:
    """Enter every such time that a step of the sheet goes by."""
    way = working.way
    used = {step.minutes.fact for step in way.steps}
    sugar_g = working.bowl.base.of_group("sugar")
    if "heat.to_boil_min" in used:
        _to_the_boil(working)
    if sugar_g and "heat.caramel_min" in used:
        _caramel(working, "heat.caramel_min", sugar_g, ["mix.sugar_pct"])
    if "heat.melt_min" in used:
        _melted(working)
    if "heat.thicken_min" in used:
        _thickened(working)
    if "rest.batter_min" in used:
        says = "until the flour has drunk, and the bubbles are out of it"
        _enter(working, "rest.batter_min", BATTER_RESTS, says, [])
    if "rest.rigid_min" in used and working.follows(way.sheeted_when):
        _enter(working, "rest.rigid_min", RIGID, "covered, in the cold, until a blade goes through without a drag", [])
    for bowl in working.bowl.parts.values():
        if bowl.family is None or bowl.part.made_on:
            continue
        if bowl.family.id == "bean-paste":
            _beans(working, bowl)
        if bowl.family.id == "burnt-sugar" and bowl.of_group("sugar"):
            _caramel(working, f"part.{bowl.role}.caramel_min", bowl.of_group("sugar"), [f"part.{bowl.role}.raw_g"])
    if "keep.hard_after_h" in working.book and any(kind == "fry" for _, _, kind in way.finishes):
        hours = working.book.number("keep.hard_after_h")
        firm = Window(*(hours * share for share in _FIRM_SHARE))
        says = "firm enough for thin slices that hold in a pan: one to two days, longer the sweeter"
        _enter(working, "rest.firm_h", firm, says, ["keep.hard_after_h"])


def _enter(working: Working, key: str, window: Window, says: str, of: Origins, source: str = KITCHEN_ESTIMATE) -> None:
    way = working.from_sheet("way", "way", working.way.name)
    working.book.add(key, window.likely, says, source=source, of=of or [way], low=window.low, high=window.high)


def _spread(minutes: float) -> Window:
    return Window(minutes, minutes * _LESS, minutes * _MORE)


def _to_the_boil(working: Working) -> None:
    """The water that the heat begins with, cold from the tap, at high heat under a lid."""
    book, kitchen = working.book, working.kitchen
    if "heat.water_ml" not in book:
        return
    own = kitchen.steamer.watts
    watts = own if own and working.way.heat_of(working.schools) != "boil" else kitchen.burner.high_w
    seconds = book.number("heat.water_ml") * WATER_J_PER_ML_K * (working.boil_c - TAP_C) / watts
    of: Origins = [
        "heat.water_ml",
        "heat.boil_c",
        working.from_kitchen("burner.high_w", "net power at high heat", watts, "W"),
        working.estimated("burner"),
    ]
    minutes = seconds / 60.0 * kitchen.time_factor
    _enter(working, "heat.to_boil_min", _spread(minutes), "cold from the tap, lid on", of, BALANCE)


def _caramel(working: Working, key: str, sugar_g: float, of: Origins) -> None:
    watts = working.kitchen.burner.medium_w
    minutes = max(_CARAMEL_LEAST_MIN, sugar_g * _CARAMEL_J_PER_G / (_CARAMEL_TAKES * watts) / 60.0)
    power = working.from_kitchen("burner.medium_w", "net power at medium heat", watts, "W")
    says = "dry in the pan to amber, swirled, taken off before it is dark: by its colour, not the clock"
    _enter(working, key, _spread(minutes * working.kitchen.time_factor), says, [*of, power], BALANCE)


def _melted(working: Working) -> None:
    """Sugar melted in the base's liquid, warmed to where no grain is felt."""
    base = working.bowl.base
    grams = base.of_group("sugar", "liquid")
    watts = working.kitchen.burner.medium_w
    minutes = max(_MELT_LEAST_MIN, grams * 3.4 * 55.0 / (_MELT_TAKES * watts) / 60.0)
    power = working.from_kitchen("burner.medium_w", "net power at medium heat", watts, "W")
    says = "warm enough that no grain is felt under the spoon; it need not boil"
    _enter(working, "heat.melt_min", _spread(minutes * working.kitchen.time_factor), says, [power], BALANCE)


def _thickened(working: Working) -> None:
    """Ground grain stirred into its boiling milk: the cold grain warmed to where it gels, and a little longer."""
    book = working.book
    base, kitchen = working.bowl.base, working.kitchen
    kg = book.number("mix.batch_g") / 1000.0
    gel = book.number("mix.gel_temperature_c") + 10.0
    cool = kg * properties(fractions(base.composition), 60.0).cp * max(5.0, gel - _mixed_c(working))
    minutes = _THICKEN_MIN + cool / (_THICKEN_TAKES * kitchen.burner.medium_w) / 60.0
    window = Window(minutes, minutes * 0.6, minutes * 1.9)
    power = working.from_kitchen("burner.medium_w", "net power at medium heat", kitchen.burner.medium_w, "W")
    of: Origins = ["mix.batch_g", "mix.gel_temperature_c", power]
    says = "from the first spoon until the spoon leaves a furrow; never left"
    _enter(working, "heat.thicken_min", window, says, of, BALANCE)


def _mixed_c(working: Working) -> float:
    """°C of boiling milk and grain at the room's warmth, put together."""
    base = working.bowl.base
    wet, dry = base.of_group("liquid"), base.of_group("grain", "legume")
    hot, cold = wet * 4.1 * working.boil_c, dry * 2.4 * working.kitchen.room_c
    return (hot + cold) / max(1.0, wet * 4.1 + dry * 2.4)


def _beans(working: Working, bowl: PartBowl) -> None:
    assert bowl.family is not None
    dry = [one for one in bowl.contributions if one.item.group == "legume" and "cooked" not in one.item.tags]
    if not dry:
        return
    slowest = max((_BEANS.get(one.item.id, _OTHER_BEAN) for one in dry), key=lambda window: window.likely)
    school = bowl.family.school(bowl.part.schools, "soak")
    share = _SOAKED if school == "overnight" else _LID if school == "lid" else 1.0
    says = f"from the boil until {dry[0].item.name.lower()} crush between two fingers, " + (
        "soaked overnight" if school == "overnight" else "not soaked"
    )
    window = Window(*(minutes * share * working.kitchen.time_factor for minutes in slowest))
    _enter(working, f"part.{bowl.role}.soft_min", window, says, [f"part.{bowl.role}.raw_g"])

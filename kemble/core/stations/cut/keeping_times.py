"""Keep: how long it stays soft and sound at room temperature, cold and frozen, what limits it, and what restores it.

All of it an index from kitchen experience, never a safety validation.
"""

from __future__ import annotations

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins, leaf
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics import shelf_life
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

INDEX = "an index, not a safety validation"


def keep(calculation: Calculation) -> None:
    """Facts of keeping: what spoils limits it first, then what hardens it."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    spoils = list(dict.fromkeys(item.name for item in calculation.bowl.items if item.perishable))
    perishable = bool(spoils)
    room = calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    soon = leaf("sheet:parts", say("what spoils in it"), ", ".join(spoils) or "nothing")
    at_room = fact_book.add(
        "keep.room_h",
        shelf_life.room_h(fact_book.number("mix.sugar_in_water_pct"), perishable=perishable, room_c=kitchen.room_c),
        say("{spoils} in it: two hours at most", spoils=spoils[0])
        if spoils
        else say("more sugar keeps longer; {index}", index=INDEX),
        source=KITCHEN_ESTIMATE,
        of=["mix.sugar_in_water_pct", soon, room],
    )
    _eaten(calculation, perishable=perishable, soon=soon, room=room)
    fact_book.add(
        "keep.cold_h",
        shelf_life.cold_h(perishable=perishable),
        say("covered, in the fridge; {index}", index=INDEX),
        source=KITCHEN_ESTIMATE,
        of=[soon],
    )
    fact_book.add(
        "keep.frozen_days",
        shelf_life.frozen_days(perishable=perishable),
        say("wrapped tight, frozen the day it is made; {index}", index=INDEX),
        source=KITCHEN_ESTIMATE,
        of=[soon],
    )
    hard = _hard(calculation, "keep.hard_after_h", kitchen.room_c, say("sugar and fat keep it soft, cold hardens it"))
    _hard(
        calculation,
        "keep.hard_cold_h",
        kitchen.fridge_c,
        say("starch sets again two to three times as fast in the cold"),
    )
    first = spoils[0] if perishable and at_room <= hard else say("it turns hard") if hard < at_room else say("it sours")
    both: Origins = ["keep.room_h", "keep.hard_after_h"]
    fact_book.add("keep.limited_by", first, say("whichever comes first"), source=KITCHEN_ESTIMATE, of=[*both, soon])
    fact_book.add(
        "keep.eat_within_h",
        min(at_room, hard),
        say("out on the counter, covered: soft and sound; {index}", index=INDEX),
        source=KITCHEN_ESTIMATE,
        of=both,
    )
    way = leaf("way:restores", say("this way"), calculation.way.name)
    fact_book.add(
        "keep.restore",
        calculation.way.restores,
        say("heat melts starch that has set"),
        source=KITCHEN_ESTIMATE,
        of=[way],
    )


def _eaten(calculation: Calculation, *, perishable: bool, soon: Origin, room: Origin) -> None:
    """What cooks do, beside the rule that is safe; and what that means for a cake that is left a night to set."""
    cooked = calculation.way.portions == "raw" or calculation.way.form == "tin"
    wet = any(
        item.perishable and item.group in ("fruit", "liquid", "egg")
        for part in calculation.bowl.parts.values()
        if part.part.role in ("filling", "heart", "topping", "layer")
        for item in (contribution.item for contribution in part.contributions)
    )
    likely, least, most = shelf_life.eaten_h(
        perishable=perishable, cooked=cooked, wet=wet, room_c=calculation.kitchen.room_c
    )
    says = say("what cooks do with what is cooked through")
    if wet:
        says = say("what cooks do with a wet or uncooked filling")
    beside = say("; the safe rule is the two hours out, and what we advise") if perishable else ""
    calculation.fact_book.add(
        "keep.eaten_h",
        likely,
        f"{says}{beside}",
        source=KITCHEN_ESTIMATE,
        of=[soon, room],
        low=least,
        high=most,
    )
    if perishable and calculation.asked("rest") == "overnight":
        says = say(
            "A night on the counter is what many cooks do with a cake that is cooked through. The safe rule is two hours out: set it in the cold, covered, and it slices as well."
        )
        calculation.advise("cut", "look", says, 1)


def _hard(calculation: Calculation, key: str, celsius: float, says: str) -> float:
    fact_book = calculation.fact_book
    sweet = "whole.sweetness_pct" if "whole.sweetness_pct" in fact_book else "mix.sugar_pct"
    sugar, fat, water = (fact_book.number(name) for name in (sweet, "mix.fat_pct", "mix.hydration_pct"))
    soon: EstimateId = "hard"
    hours = shelf_life.hard_after_h(sugar, fat, water, celsius=celsius)
    place = calculation.from_kitchen(
        "room_c" if key == "keep.hard_after_h" else "fridge_c", say("kept at"), celsius, "°C"
    )
    return enter_with_range(
        calculation,
        key,
        f"{says}; {INDEX}",
        scaled_by_estimates(hours, soon),
        (soon,),
        source=KITCHEN_ESTIMATE,
        of=[sweet, "mix.fat_pct", "mix.hydration_pct", place],
    )

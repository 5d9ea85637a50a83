"""Scalding: how much of a dough's water is poured on boiling, and what that does as far as it is known."""

from __future__ import annotations

from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.physics.thermal import WATER_J_PER_ML_K
from kemble.core.sentences import say
from kemble.core.sheet.bowl import Contribution
from kemble.core.stations.calculation import Calculation
from kemble.core.stations.time_windows import enter_with_range, scaled_by_estimates

_BOILING = "boil"  # in the words of a share
_FLOUR_J_PER_G_K = 1.6
# Of the flour, in per cent of its weight: water that a dough takes more, by the share scalded: about 4 at a third, 9 at
# all of it.
_TAKES = (12.0, -3.0)


def _is_water(contribution: Contribution) -> bool:
    return "water" in contribution.item.id.split("-")


def _poured_boiling_g(contribution: Contribution) -> float:
    """Grams of a line of which its own shares say that they are boiling."""
    line = contribution.weighed
    return sum(share.grams for share in line.shares if _BOILING in share.at.lower()) if line else 0.0


def scald(calculation: Calculation, flour_g: float) -> None:
    """Enter what is poured on boiling, the dough's warmth, and what it takes; nothing in a way that does not scald."""
    usual = calculation.way.scalded(calculation.schools)
    if usual is None:
        return
    fact_book = calculation.fact_book
    waters = [each for each in calculation.bowl.base.contributions if _is_water(each)]
    water = sum(each.grams for each in waters)
    said, boiling = calculation.sheet.start.scald_pct, [(each, _poured_boiling_g(each)) for each in waters]
    split_g = sum(grams for _, grams in boiling)
    of: Origins
    if said is not None:
        share = said / 100.0
        of = [calculation.from_sheet("start.scald_pct", say("of the water"), round(said), "%")]
    elif split_g:
        share = split_g / water
        words = say("shares of the line that are boiling")
        of = [leaf(each.ref, words, round(grams, 1), "g") for each, grams in boiling if grams]
    else:
        share, of = usual, [*calculation.school("dough")]
    hot = fact_book.add("mix.scald_g", share * water, say("of the dough's own water"), source=CONSERVATION, of=of)
    fact_book.add("mix.scald_cool_g", water - hot, say("the rest of it"), source=CONSERVATION, of=["mix.scald_g"])
    if not hot:
        return
    room, boils = calculation.kitchen.room_c, calculation.boil_c
    hot_j, rest_j = hot * WATER_J_PER_ML_K, (water - hot) * WATER_J_PER_ML_K + flour_g * _FLOUR_J_PER_G_K
    cools: EstimateId = "poured_c"
    enter_with_range(
        calculation,
        "mix.scald_c",
        say("boiling water, cool water and flour at the room's warmth, put together"),
        lambda is_: (hot_j * (boils - is_[cools]) + rest_j * room) / (hot_j + rest_j),
        (cools,),
        source=say("energy balance"),
        of=["mix.scald_g", "mix.base_g", calculation.from_kitchen("room_c", "room", room, "°C")],
    )
    cooks: EstimateId = "scald_cooks"
    each = 100.0 * hot / flour_g if flour_g else 0.0
    enter_with_range(
        calculation,
        "mix.scald_cooked_pct",
        say("boiling water cooks nine tenths of its weight of flour: that part stretches, and makes a tenderer skin"),
        lambda is_: min(100.0, is_[cooks] * each),
        (cooks,),
        source=KITCHEN_ESTIMATE,
        of=["mix.scald_g", "mix.base_g"],
    )
    takes: EstimateId = "scald_takes"
    enter_with_range(
        calculation,
        "mix.scald_takes_g",
        say("to be as firm as a dough mixed cool: what is cooked holds more"),
        scaled_by_estimates(flour_g * share * (_TAKES[0] + _TAKES[1] * share) / 100.0, takes),
        (takes,),
        source=KITCHEN_ESTIMATE,
        of=["mix.scald_g", "mix.base_g"],
    )

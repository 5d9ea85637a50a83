"""Scalding: how much of a dough's water is poured on boiling, and what that does as far as it is known."""

from __future__ import annotations

from kemble.core.facts.fact import CONSERVATION, KITCHEN_ESTIMATE
from kemble.core.physics.thermal import WATER_J_PER_ML_K
from kemble.core.stations.working import Working

_FLOUR_J_PER_G_K = 1.6
_ON_THE_WAY_C = 4.0  # the kettle's water has cooled so much when it meets the flour; kitchen estimate, 2-8
_COOKS = 0.9  # g of flour that a g of boiling water cooks; kitchen estimate, 0.6-1.3
# Of the flour, in per cent of its weight: water that a dough takes more, by the share scalded. Kitchen estimate: about
# 4 at a third, 9 at all of it, half or half as much again.
_TAKES = (12.0, -3.0)
_HALF, _HALF_MORE = 0.5, 1.5


def scald(working: Working, flour_g: float) -> None:
    """Enter what is poured on boiling, the dough's warmth, and what it takes; nothing in a way that does not scald."""
    usual = working.way.scalded(working.schools)
    if usual is None:
        return
    said = working.sheet.start.scald_pct
    share = usual if said is None else said / 100.0
    book = working.book
    water = sum(one.grams for one in working.bowl.base.contributions if "water" in one.item.id.split("-"))
    said_of = [working.from_sheet("start.scald_pct", "of the water", round(100 * share), "%")]
    of = said_of if said is not None else working.school("dough")
    hot = book.add("mix.scald_g", share * water, "of the dough's own water", source=CONSERVATION, of=of)
    book.add("mix.scald_cool_g", water - hot, "the rest of it", source=CONSERVATION, of=["mix.scald_g"])
    if not hot:
        return
    room, boils = working.kitchen.room_c, working.boil_c - _ON_THE_WAY_C
    hot_j, rest_j = hot * WATER_J_PER_ML_K, (water - hot) * WATER_J_PER_ML_K + flour_g * _FLOUR_J_PER_G_K
    book.add(
        "mix.scald_c",
        (hot_j * boils + rest_j * room) / (hot_j + rest_j),
        "boiling water, cool water and flour at the room's warmth, put together",
        source="energy balance",
        of=["mix.scald_g", "mix.base_g", working.from_kitchen("room_c", "room", room, "°C")],
    )
    cooked = min(100.0, 100.0 * _COOKS * hot / flour_g) if flour_g else 0.0
    book.add(
        "mix.scald_cooked_pct",
        cooked,
        "boiling water cooks nine tenths of its weight of flour: that part stretches, and makes a tenderer skin",
        source=KITCHEN_ESTIMATE,
        of=["mix.scald_g", "mix.base_g"],
        low=cooked * 0.65,
        high=min(100.0, cooked * 1.45),
    )
    takes = flour_g * share * (_TAKES[0] + _TAKES[1] * share) / 100.0
    book.add(
        "mix.scald_takes_g",
        takes,
        "to be as firm as a dough mixed cool: what is cooked holds more",
        source=KITCHEN_ESTIMATE,
        of=["mix.scald_g", "mix.base_g"],
        low=_HALF * takes,
        high=_HALF_MORE * takes,
    )

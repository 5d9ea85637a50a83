"""Her way and mine: what cups leave open, by hand and against ten thousand drawn kitchens; what makes the difference."""

import math

import numpy as np
import pytest

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen, WeighedMeasure
from kemble.core.learn.next_time import TastedBatch
from kemble.core.learn.sheet_comparison import compare_sheets
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()
MINE = default_sheet("set-cake")


def hers(*, cups=True, **more):
    """The cake with flour and water by the cup, as it was told."""
    document = MINE.model_dump(mode="json")
    document["title"] = "The great-aunt's"
    if cups:
        document["parts"][0]["lines"][0]["amount"] = {"value": 2.5, "unit": "cup_us"}
        document["parts"][0]["lines"][1]["amount"] = {"value": 2.0, "unit": "cup_us"}
    return sheet_from({**document, **more})


def said(told, outcome):
    return next(item for item in told.explained if item.outcome == outcome)


def test_what_is_weighed_leaves_nothing_open():
    told = compare_sheets(hers(cups=False), MINE, KITCHEN)
    assert told.hers.open == []
    assert told.weigh == ""
    assert told.hers.hydration.low == told.hers.hydration.high
    assert told.explained == []


def test_the_cup_of_flour_is_what_would_tell_most():
    """Flour packs and water does not; how large the cup is moves both, and the ratio by what else is not by the cup."""
    told = compare_sheets(hers(), MINE, KITCHEN)
    assert [unknowns.weigh for unknowns in told.hers.open] == [
        "Weigh a cup of sweet rice flour",
        "Weigh the cup full of water",
    ]
    assert told.hers.open[0].narrows_pct > 5 * told.hers.open[1].narrows_pct
    assert told.weigh.startswith("Weigh a cup of sweet rice flour: the cloud of The great-aunt's")


def test_the_cloud_against_ten_thousand_drawn_kitchens():
    """Flour's share drawn between its ends as a normal with one in twenty beyond each; the ratios worked from grams alone:
    the same range to a tenth of its width. How large the cup is cancels: both lines are by it."""
    told = compare_sheets(hers(), MINE, KITCHEN)
    facts = work(hers(), KITCHEN).facts
    rng = np.random.default_rng(3)
    from kemble.core.kitchen.shelf import Shelf

    shelf = Shelf(KITCHEN)
    low, high = shelf.packing(shelf.item("sweet-rice-flour"), "cup_us")
    packs = 1 + (low + high) / 2 + rng.normal(size=10_000) * (high - low) / (2 * 1.6449)
    water = facts["mix.hydration_pct"].value / packs
    spread = np.quantile(water, 0.95) - np.quantile(water, 0.05)
    assert told.hers.hydration.high - told.hers.hydration.low == pytest.approx(spread, rel=0.1)


def test_nine_in_ten_lie_in_the_outline():
    """The outline is an ellipse about the likely ratios; its farthest point lies 2.146 standard deviations out."""
    told = compare_sheets(hers(), MINE, KITCHEN).hers
    sd = (told.hydration.high - told.hydration.likely) / 1.6449
    assert max(map_position.water for map_position in told.outline) - told.hydration.likely == pytest.approx(
        2.146 * sd, rel=0.02
    )
    assert len({(map_position.water, map_position.sugar) for map_position in told.outline}) > 20


def test_a_weighed_cup_shrinks_the_cloud_as_it_was_said():
    wide = compare_sheets(hers(), MINE, KITCHEN)
    once = WeighedMeasure(ingredient="sweet-rice-flour", measure="cup_us", grams=140)
    narrow = compare_sheets(hers(), MINE, Kitchen(weighed=(once,)))
    assert narrow.hers.hydration.high - narrow.hers.hydration.low < 0.5 * (
        wide.hers.hydration.high - wide.hers.hydration.low
    )


def test_what_makes_her_time_longer_is_tried_one_by_one():
    """The same amounts in a glass tin twice as small: the tin alone makes all of the difference, the heat none of it."""
    tin = {"shape": "round", "diameter_mm": 150, "height_mm": 80, "material": "glass"}
    document = MINE.model_dump(mode="json")
    vessel = {**document["vessel"], "tin": {**document["vessel"]["tin"], **tin}}
    told = compare_sheets(hers(cups=False, vessel=vessel), MINE, KITCHEN)
    time = said(told, "time")
    there = work(hers(cups=False, vessel=vessel), KITCHEN).facts["heat.done_min"].value
    here = work(MINE, KITCHEN).facts["heat.done_min"].value
    assert time.by == [f"the tin and how many alone: {there - here:.0f} min longer"]
    assert time.says.startswith(f"{there - here:.0f} min longer")
    assert time.sure


def test_more_water_is_told_as_softer_and_by_the_water():
    """Half as much water again, weighed: softer by the craft's slope of 1.6 marks a half band; and what both were said to be."""
    document = MINE.model_dump(mode="json")
    document["parts"][0]["lines"][1]["amount"]["value"] *= 1.2
    wetter = sheet_from({**document, "title": "hers"})
    told = said(compare_sheets(wetter, MINE, KITCHEN), "softness")
    assert "too soft" in told.says
    assert told.by[0].startswith("water: +")
    ratios = {"hydration_pct": 150.0, "sugar_pct": 78.0, "fat_pct": 7.0}
    tasted = [TastedBatch(1, ratios, {"softness": 1}), TastedBatch(2, ratios, {"softness": 0})]
    both = said(compare_sheets(wetter, MINE, KITCHEN, tasted, (1, 2)), "softness")
    assert "hers was a little too soft and mine just right" in both.says


def test_what_the_cup_leaves_open_is_not_told_as_a_difference():
    told = said(compare_sheets(hers(), MINE, KITCHEN), "water")
    assert not told.sure
    assert "as they are measured it may be" in told.says


def test_two_ways_and_what_cannot_be_worked_are_refused():
    with pytest.raises(Refused, match="two sheets of one way"):
        compare_sheets(default_sheet("pounded"), MINE, KITCHEN)
    document = MINE.model_dump(mode="json")
    document["parts"][0]["lines"][0]["amount"]["value"] = 9000  # no tin holds it
    over = sheet_from(document)
    with pytest.raises(Refused) as refused:
        compare_sheets(over, MINE, KITCHEN)
    assert refused.value.problems[0].path == "hers"


def test_her_own_word_on_the_time_stands_on_the_clock():
    told = compare_sheets(hers(method=[{"step": "heat", "minutes": 60, "by": "the great-aunt"}]), MINE, KITCHEN)
    assert told.hers.given_min == 60
    assert told.mine.given_min is None
    assert told.hers.minutes.low < told.hers.minutes.likely < told.hers.minutes.high
    assert math.isclose(told.mine.minutes.likely, work(MINE, KITCHEN).facts["heat.done_min"].value)


def test_what_they_do_otherwise_is_told_step_by_step():
    method = [
        {"step": "rest-batter", "minutes": 45, "words": "Until it is still."},
        {"step": "sieve", "skip": True},
        {"own": "own-rim", "title": "Wipe the rim", "after": "pour", "minutes": 2},
    ]
    document = MINE.model_dump(mode="json")
    other = sheet_from({**document, "method": method})
    told = {step.title: (step.hers, step.mine) for step in compare_sheets(other, MINE, KITCHEN).methods}
    assert told["Rest the batter"][0] == "45 min “Until it is still.”"
    assert told["Sieve the batter"] == ("", "5 min")
    assert told["Wipe the rim"] == ("2 min", "")
    assert compare_sheets(MINE, MINE, KITCHEN).methods == []

"""How large a bowl, pan or jug is wanted: by hand."""

import pytest
from sheets_by_hand import KITCHEN, line

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import larder
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.vessel_sizes import kind_of_vessel, size_in_words, tools_with_size
from kemble.core.stations.work_sheet import work


def tools_of(sheet, kitchen=KITCHEN):
    return {step.id: step.tools for step in work(sheet, kitchen).steps}


def test_the_pan_of_a_syrup_and_the_bowl_of_a_batter():
    """375 g of water and 240 of brown sugar in a pan, with room to boil up two and a half times; 300 g of flour to it in the
    bowl with oil and salt, and room to stir: twice as much."""
    sheet = default_sheet("set-cake")
    tools = tools_of(sheet)
    ml = {item: larder()[item].g_per_ml for item in ("light-brown-sugar", "sweet-rice-flour", "sunflower-oil", "salt")}
    syrup = 375 / 1.0 + 240 / ml["light-brown-sugar"]
    batter = syrup + 300 / ml["sweet-rice-flour"] + 18 / ml["sunflower-oil"] + 1 / ml["salt"]
    assert any(f"({size_in_words(2.5 * syrup, 'ml')} or more)" in tool for tool in tools["melt"])
    assert f"bowl ({size_in_words(2 * batter, 'ml')} or more)" in tools["mix"]


def test_twice_the_sheet_wants_a_larger_one():
    small = default_sheet("crushed-balls")
    parts = [
        part.model_copy(update={"lines": tuple(
            each.model_copy(update={"amount": each.amount.model_copy(update={"value": 4 * each.amount.value})})
            for each in part.lines
        )})
        for part in small.parts
    ]  # fmt: skip
    large = small.model_copy(update={"parts": tuple(parts)})
    assert "wide bowl (1 l or more)" in tools_of(small)["soak"]
    # 240 g of grain are 286 ml: soaking in 0.86 l, and in four times that.
    assert "wide bowl (4 l or more)" in tools_of(large)["soak"]


@pytest.mark.parametrize("way", WAYS)
def test_what_is_no_bowl_has_no_size(way):
    for tools in tools_of(default_sheet(way)).values():
        for tool in tools:
            assert "or more" not in tool or kind_of_vessel(tool.partition(" (")[0])


def test_a_bowl_that_is_emptied_is_filled_from_nothing():
    """Two fillings of 60 g each, a bowl each: neither is as large as one for both."""
    document = default_sheet("leaf-parcels").model_dump()
    nuts = {"role": "filling", "id": "filling-2", "name": "nuts", "lines": [line("chestnut-cooked", 60)]}
    document["parts"] = [*document["parts"], nuts]
    tools = tools_of(sheet_from(document))
    assert tools["filling-2-season"] != tools["filling-season"]


def test_sizes_as_they_are_sold():
    assert [size_in_words(ml, "ml") for ml in (100, 500, 501, 2900, 29_000, 90_000)] == [
        "0.5 l", "0.5 l", "1 l", "3 l", "30 l", "90 l",
    ]  # fmt: skip
    assert "qt" in " ".join(tools_of(default_sheet("set-cake"), Kitchen(volume_unit="fl oz"))["mix"])


def test_a_step_without_such_a_tool_stays_as_it_is():
    assert tools_with_size(["whisk", "spoon"], "bowl", 900, "ml") == ["whisk", "spoon"]
    assert tools_with_size(["wide pan", "pan"], "pan", 900, "ml") == ["wide pan (1 l or more)", "pan"]
    assert tools_with_size(["bowl"], "tray", 900, "ml") == ["bowl"]

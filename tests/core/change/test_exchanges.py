"""One ingredient for another."""

import pytest
from sheets_by_hand import KITCHEN, a_sheet, facts, line

from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.exchanges import exchanges
from kemble.core.kitchen.larder import larder
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.document import default_sheet


def swapped(sheet, part, index, ingredient):
    return adjust(sheet, Adjustment(by="exchange", part=part, line=index, ingredient=ingredient), KITCHEN)


class TestExchange:
    def test_sugar_for_honey_keeps_sweetness_and_water(self):
        """240 g light brown sugar, 97.6 %: 234.24 g of sugar; honey at 81.5 % would be 287.4 g, and brings 50.3 g water."""
        sheet = default_sheet("set-cake")
        before = facts(sheet)
        after = swapped(sheet, 0, 2, "mild-honey")
        result = facts(after.sheet)
        assert result["mix.sugar_pct"] == pytest.approx(before["mix.sugar_pct"])
        assert result["mix.hydration_pct"] == pytest.approx(before["mix.hydration_pct"])
        honey = after.sheet.base.lines[2]
        assert honey.ingredient == "mild-honey"
        assert honey.amount.value == pytest.approx(240 * 0.976 / 0.815, rel=2e-3)
        assert any("less water" in says for says in after.says)

    def test_thick_for_thin_milk_says_what_the_fat_does(self):
        after = swapped(default_sheet("tray-rice"), 1, 0, "coconut-milk-thin")
        assert any("Fat goes from 29 to" in says for says in after.says)

    def test_an_egg_left_out_is_made_up_in_water(self):
        sheet = default_sheet("batter-bake")
        before = facts(sheet)
        after = swapped(sheet, 0, 3, "")
        assert [each_line.ingredient for each_line in after.sheet.base.lines] == [
            each_line.ingredient for each_line in sheet.base.lines if each_line.ingredient != "egg"
        ]
        assert facts(after.sheet)["mix.hydration_pct"] == pytest.approx(before["mix.hydration_pct"])
        assert any("Egg goes from 43 to 0" in says for says in after.says)

    def test_fresh_herb_for_powder_and_water_weighs_the_same(self):
        """60 g fresh herb: 13 % solids, 7.8 g; powder of 93 % solids, 8.39 g, and 51.61 g of water."""
        base = default_sheet("stirred-rounds").model_dump()["parts"][0]["lines"]
        sheet = a_sheet("stirred-rounds", ("base", base), ("herb", [line("fresh-herb", 60)]))
        herb, water = swapped(sheet, 1, 0, "herb-powder").sheet.parts[1].lines
        assert (herb.ingredient, water.ingredient) == ("herb-powder", "water")
        assert herb.amount.value == pytest.approx(60 * 0.13 / 0.93)
        assert herb.amount.value + water.amount.value == pytest.approx(60)

    def test_cocoa_takes_the_place_of_part_of_the_flour(self):
        sheet = default_sheet("stirred-rounds")
        flour, cocoa = swapped(sheet, 0, 0, "cocoa").sheet.base.lines[:2]
        assert (flour.ingredient, cocoa.ingredient) == ("sweet-rice-flour", "cocoa")
        assert flour.amount.value + cocoa.amount.value == pytest.approx(200)
        assert cocoa.amount.value == pytest.approx(16)

    @pytest.mark.parametrize("name", sorted(larder()))
    def test_whatever_is_offered_can_be_worked(self, name):
        """Every exchange keeps its component, there and back, to the gram."""
        shelf = Shelf(KITCHEN)
        item = larder()[name]
        for swap in exchanges(item, shelf):
            masses = swap.masses(item, 100.0, shelf)
            assert all(grams > 0 for _, grams in masses) or swap.to == ""
            if swap.keeps not in ("mass", "solids") and masses:
                other = larder()[masses[0][0]]
                kept = getattr(other.per_100_g, swap.keeps) * masses[0][1] / 100
                assert kept == pytest.approx(getattr(item.per_100_g, swap.keeps))

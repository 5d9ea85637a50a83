"""What several sheets need, in packs."""

import pytest
from sheets_by_hand import KITCHEN

from kemble.core.change.shopping import shopping
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from


class TestShopping:
    def test_two_sheets_in_packs_with_the_larder_taken_off(self):
        """Flour 300 + 240 = 540 g; 150 g are there: 390 g, one bag of 500, 110 left. Water is not bought."""
        kitchen = Kitchen.model_validate({"stock": [{"ingredient": "sweet-rice-flour", "grams": 150}]})
        shopping_list = shopping([default_sheet("set-cake"), default_sheet("boiled-balls")], kitchen)
        flour = next(
            shopping_line for shopping_line in shopping_list.lines if shopping_line.ingredient == "sweet-rice-flour"
        )
        assert (flour.need_g, flour.buy_g, flour.packs, flour.left_g) == pytest.approx((540, 390, 1, 110))
        assert flour.sheets == ["Steamed set cake", "Boiled balls"]
        assert "water" not in {shopping_line.ingredient for shopping_line in shopping_list.lines}
        assert shopping_list.cost is None
        assert "tree nut" in shopping_list.allergens
        assert "Sweet rice flour: 1 bag of 500 g (390 g needed)" in shopping_list.text

    def test_a_price_switches_cost_on(self):
        kitchen = Kitchen.model_validate(
            {"stock": [{"ingredient": "sweet-rice-flour", "price": 2.4, "pack_g": 250}], "currency": "cr"}
        )
        shopping_list = shopping([default_sheet("set-cake")], kitchen)
        assert shopping_list.cost == pytest.approx(4.8)
        assert shopping_list.unpriced == len(shopping_list.lines) - 1
        assert "About 4.80 cr, " in shopping_list.text

    def test_leaves_have_their_spares(self):
        """11 parcels of two leaves and 15 % over are 26; the sheet's 20 leave 6 to add, of 4 g each."""
        document = default_sheet("leaf-parcels").model_dump()
        document["parts"][2]["lines"][0]["amount"]["value"] = 20
        leaf = next(
            shopping_line
            for shopping_line in shopping([sheet_from(document)], KITCHEN).lines
            if shopping_line.ingredient == "bamboo-leaf"
        )
        assert (leaf.need_g, leaf.spare_g, leaf.pieces) == pytest.approx((80, 24, 26))

    def test_nothing_to_buy_of_what_is_there(self):
        kitchen = Kitchen.model_validate({"stock": [{"ingredient": "salt", "grams": 900}]})
        salt = next(
            shopping_line
            for shopping_line in shopping([default_sheet("set-cake")], kitchen).lines
            if shopping_line.ingredient == "salt"
        )
        assert (salt.packs, salt.buy_g) == (0, 0)
        assert "In the larder already\n- Salt" in shopping([default_sheet("set-cake")], kitchen).text

    @pytest.mark.parametrize(("there", "packs"), [(150.0, 1), (149.9999999, 1), (149.9, 2)])
    def test_a_hair_over_a_pack_is_no_second_pack(self, there, packs):
        """300 g of flour, in bags of 150 g: what is lost in reckoning buys no bag, a tenth of a gram does."""
        stock = [{"ingredient": "sweet-rice-flour", "grams": there, "pack_g": 150}]
        lines = shopping([default_sheet("set-cake")], Kitchen.model_validate({"stock": stock})).lines
        assert next(line.packs for line in lines if line.ingredient == "sweet-rice-flour") == packs

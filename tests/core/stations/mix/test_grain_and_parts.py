"""Grain and the parts beside the base, against sums done by hand."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sheets_by_hand import KITCHEN, a_sheet, facts, line, rice
from thorough import examples

from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.soaking import soak_for, uptake_pct
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


class TestGrain:
    def test_peleg_by_hand(self):
        """At 20 °C the grain ends at 33 + 0.2 x 20 = 37 %, half of it in 25 min: an hour gives 37 x 60 / 85 = 26.12 %."""
        assert uptake_pct(60, 20) == pytest.approx(26.118, abs=0.001)
        assert uptake_pct(25, 20) == pytest.approx(18.5)
        assert soak_for(26.118, 20) == pytest.approx(60, abs=0.01)
        assert soak_for(37.1, 20) is None

    def test_the_water_follows_from_the_soak(self):
        """240 g take up 62.68 g; 10 % clings and after 15 min on the sieve 1/e of it is left: 8.83 g.

        350 g of water in all, so 350 - 62.68 - 8.83 = 278.49 g are still to pour.
        """
        result = facts(rice())
        assert result["grain.uptake_g"] == pytest.approx(62.68, abs=0.01)
        assert result["grain.cling_g"] == pytest.approx(24 / math.e, abs=0.01)
        assert result["grain.soaked_g"] == pytest.approx(240 + 62.68 + 8.83, abs=0.01)
        assert result["grain.cook_water_g"] == pytest.approx(278.49, abs=0.01)

    @settings(max_examples=examples(40), deadline=None)
    @given(st.floats(0, 1440), st.floats(2, 45), st.integers(0, 6), st.floats(0, 90))
    def test_soaked_overnight_or_not_at_all_it_cooks_to_the_same(self, minutes, celsius, rinses, drain):
        dry = facts(rice(0))
        wet = facts(rice(minutes, soak_c=celsius, rinses=rinses, drain_min=drain))
        assert wet["grain.cooked_g"] == pytest.approx(dry["grain.cooked_g"])
        assert wet["mix.hydration_pct"] == pytest.approx(dry["mix.hydration_pct"])
        held = wet["grain.uptake_g"] + wet["grain.cling_g"]
        assert wet["grain.cook_water_g"] + held == pytest.approx(dry["grain.cook_water_g"])

    @given(st.floats(1, 1000), st.floats(1, 1000), st.floats(3, 50))
    def test_longer_and_warmer_is_never_less(self, item, other, celsius):
        assert uptake_pct(item + other, celsius) >= uptake_pct(item, celsius)
        assert uptake_pct(item, celsius + 2) >= uptake_pct(item, celsius)

    def test_a_soak_that_brings_more_than_the_sheet_asks_is_said(self):
        sheet = a_sheet(
            "crushed-balls", ("base", [line("sweet-rice", 400), line("water", 80)]), grain={"soak_min": 900}
        )
        worked = work(sheet, KITCHEN)
        assert worked.facts["grain.cook_water_g"].value == 0
        assert any(
            "You can leave out only 80 g, all the plain water in your recipe" in advice.says for advice in worked.advice
        )

    def test_the_map_moves_the_soak_where_nothing_is_poured(self):
        """Steamed grain can only drink: 33 % of water is a soak of so long, 60 % no soak at all."""
        sheet = default_sheet("pounded")
        there = adjust(sheet, Adjustment(by="ratio", hydration_pct=33), KITCHEN).sheet
        assert facts(there)["mix.hydration_pct"] == pytest.approx(33)
        assert there.grain.soak_min < sheet.grain.soak_min
        assert there.parts == sheet.parts
        with pytest.raises(Refused, match="takes up to 35 %"):
            adjust(sheet, Adjustment(by="ratio", hydration_pct=60), KITCHEN)

    def test_short_and_warm_soaks_are_warned_of(self):
        short = default_sheet("pounded").model_copy(update={"grain": sheet_grain(soak_min=10, soak_c=10)})
        assert any("hearts stay hard" in advice.says for advice in work(short, KITCHEN).advice)
        sour = default_sheet("pounded").model_copy(update={"grain": sheet_grain(soak_min=600, soak_c=30)})
        assert any("sours" in advice.says for advice in work(sour, KITCHEN).advice)


def sheet_grain(**grain):
    return default_sheet("pounded").grain.model_copy(update=grain)


class TestParts:
    def test_bean_paste_ends_at_a_multiple_of_its_beans(self):
        """130 g dry, sugar in: 2.6 to 3.2 times, 377 g likely; the pan weighs 1240 g."""
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"][1]["pan"] = "the wide pan"
        kitchen = Kitchen(pans=[{"name": "the wide pan", "empty_g": 1240}])
        fact = work(sheet_from(document), kitchen).facts
        made = fact["part.filling.made_g"]
        assert (made.low, made.value, made.high) == pytest.approx((338, 377, 416))
        assert fact["part.filling.scale_g"].value == pytest.approx(377 + 1240)
        step = next(s for s in work(sheet_from(document), kitchen).steps if s.id == "filling-dry")
        assert step.target.grams == pytest.approx(1617)

    def test_bean_paste_weighs_no_more_than_went_in(self):
        """350 g of beans, 405 of water and 200 of sugar are 955 g, where 2.9 times the beans would be 1015. Where no water is
        said the pot's is taken up: 1015 g."""
        for water, made in ((405, 955), (None, 1015)):
            document = default_sheet("stirred-rounds").model_dump(mode="json")
            beans = next(line for line in document["parts"][1]["lines"] if "bean" in line["ingredient"])
            lines = [{**beans, "amount": {"value": 350}}, {"ingredient": "white-sugar", "amount": {"value": 200}}]
            document["parts"][1]["lines"] = lines + (
                [{"ingredient": "water", "amount": {"value": water}}] if water else []
            )
            fact = work(sheet_from(document), Kitchen()).facts["part.filling.made_g"]
            assert fact.value == pytest.approx(made, abs=1), water

    def test_stirred_dough_is_done_at_a_weight_too(self):
        """521 g less 10 % in an open pan, in a pan of 1000 g: the scale stops at 1468.9; steamed it loses 1.5 %."""
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"][0]["pan"] = "the pan"
        kitchen = Kitchen(pans=[{"name": "the pan", "empty_g": 1000}])
        worked = work(sheet_from(document), kitchen)
        assert worked.facts["mix.scale_g"].value == pytest.approx(1000 + 521 * 0.9)
        assert next(s for s in worked.steps if s.id == "stir").target.grams == pytest.approx(1468.9)
        assert worked.parts[0].reduced
        document["schools"] = {"cook": "steam"}
        assert facts(sheet_from(document))["mix.cooked_g"] == pytest.approx(521 * 0.985)

    def test_the_schools_of_a_part_change_its_steps(self):
        document = default_sheet("stirred-rounds").model_dump()

        def steps(**schools):
            document["parts"][1]["schools"] = schools
            return {step.id: step for step in work(sheet_from(document), KITCHEN).steps}

        usual = steps()
        assert {"filling-soak", "filling-simmer"} <= set(usual)
        assert [wait.step for wait in usual["filling-dry"].after] == ["filling-simmer"]
        quick = steps(soak="none", mash="smooth")
        assert not {"filling-soak", "filling-simmer"} & set(quick)
        assert [wait.step for wait in quick["filling-sieve"].after] == ["filling-simmer-dry"]
        assert [wait.step for wait in quick["filling-dry"].after] == ["filling-sieve"]
        with pytest.raises(Refused, match='"never" is not known'):
            steps(soak="never")
        with pytest.raises(Refused, match="is not a choice of this part"):
            steps(colour="green")

    def test_sugar_of_a_paste_against_its_band(self):
        """100 g of light brown sugar at 97.6 % on 130 g of beans are 75 %; 60 to 100 works."""
        document = default_sheet("stirred-rounds").model_dump()
        assert facts(sheet_from(document))["part.filling.sugar_pct"] == pytest.approx(97.6 / 1.3, abs=0.1)
        document["parts"][1]["lines"][2]["amount"]["value"] = 60
        assert any(
            "Little sugar in the bean paste" in advice.says for advice in work(sheet_from(document), KITCHEN).advice
        )

    def test_a_topping_is_shared_over_the_pieces_of_a_tray(self):
        """98 g of curds on 30 pieces; at 5 g each they are enough for 19."""
        base, syrup = default_sheet("tray-rice").model_dump()["parts"]
        curds = {
            "role": "topping",
            "name": "curds",
            "family": "coconut-curd",
            "lines": [line("coconut-milk-thick", 400)],
        }
        whole = {
            "way": "tray-rice",
            "parts": [base, syrup, curds],
            "vessel": default_sheet("tray-rice").vessel.model_dump(),
        }
        whole["cut"] = {"pieces": 30}
        result = facts(sheet_from(whole))
        assert result["part.topping.piece_g"] == pytest.approx(result["part.topping.made_g"] / 30)
        curds["each_g"] = 5
        worked = work(sheet_from(whole), KITCHEN)
        assert worked.facts["shape.short_of"].value == "curds"
        assert any("curds is enough for 20 of 30" in advice.says for advice in worked.advice)

    def test_a_syrup_is_done_at_its_solids(self):
        """294 g thick milk: 37 % solids, 108.78 g. 200 g slab sugar: 194. 1 g salt: 0.998. In all 303.78 of 495.

        At 70 % solids that weighs 433.97 g.
        """
        result = facts(default_sheet("tray-rice"))
        assert result["part.syrup.raw_g"] == pytest.approx(495.0)
        assert result["part.syrup.made_g"] == pytest.approx(433.97, abs=0.05)
        assert result["part.syrup.loss_g"] == pytest.approx(495 - 433.97, abs=0.05)

    def test_curds_and_oil_of_coconut_cream(self):
        """400 g: 112 g fat, of which 69 % parts as oil, 77.28 g; the other 70.72 g of solids with 28 % water are 98.22 g."""
        base = default_sheet("tray-rice").model_dump()["parts"][0]["lines"]
        sheet = a_sheet("tray-rice", ("base", base), ("topping", [line("coconut-milk-thick", 400)]))
        document = sheet.model_dump()
        document["parts"][1]["family"] = "coconut-curd"
        result = facts(sheet_from(document))
        assert result["part.topping.oil_g"] == pytest.approx(77.28)
        assert result["part.topping.made_g"] == pytest.approx((400 * 0.37 - 77.28) / 0.72, abs=0.01)

    def test_the_shortest_of_all_the_parts_is_named(self):
        """54 pulls of 9 g; 100 g of coat at 3 g is enough for 33."""
        document = default_sheet("folded-pulls").model_dump()
        document["parts"][1]["lines"] = [line("hazelnut", 100)]
        worked = work(sheet_from(document), KITCHEN)
        assert worked.facts["part.coat.enough_for"].value == pytest.approx(100 / 3)
        assert worked.facts["shape.short_of"].value == "sweet ground nut"
        assert any("enough for 33 of 54" in advice.says for advice in worked.advice)

    def test_a_line_may_be_split_between_parts(self):
        """300 g of sugar: a third into the rice, two thirds into the syrup; 30 g held back first."""
        base = [
            line("sweet-rice", 400),
            line("water", 600),
            line(
                "white-sugar",
                330,
                reserve={"value": 30, "unit": "g"},
                splits=[
                    {"share": 1 / 3, "at": "with the rice"},
                    {"share": 2 / 3, "at": "from the start", "to": "syrup"},
                ],
            ),
        ]
        sheet = a_sheet("tray-rice", ("base", base), ("syrup", [line("coconut-milk-thick", 300)]))
        bowl = weigh(sheet, Shelf(KITCHEN))
        assert bowl.parts["base"].of_group("sugar") == pytest.approx(100)
        assert bowl.parts["syrup"].of_group("sugar") == pytest.approx(200)
        carried = work(sheet, KITCHEN).lines[2].carried
        assert [(line_destination.to, round(line_destination.grams)) for line_destination in carried] == [
            ("base", 100),
            ("syrup", 200),
            ("", 30),
        ]

    def test_a_split_to_a_part_that_is_not_there(self):
        with pytest.raises(Refused, match="no topping on this sheet"):
            a_sheet(
                "set-cake",
                ("base", [line("sweet-rice-flour", 300, splits=[{"share": 1, "at": "x", "to": "topping"}])]),
            )

    def test_kept_back_and_made_for_others_leave_the_rest(self):
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"][1].update(
            kept={"share": 0.1}, kept_for="a glaze", made_for=[{"sheet": "Other", "share": 0.4}]
        )
        result = facts(sheet_from(document))
        assert result["part.filling.away_g"] == pytest.approx(377 * 0.4)
        assert result["part.filling.kept_g"] == pytest.approx(37.7)
        assert result["part.filling.have_g"] == pytest.approx(377 * 0.5)
        document["parts"][1]["kept"] = {"share": 0.7}
        with pytest.raises(Refused, match="none is left"):
            sheet_from(document)


@pytest.mark.parametrize(("grams", "text"), [(100, "2 eggs"), (78, "1½ eggs"), (25, "½ egg"), (52, "1 egg")])
def test_eggs_are_counted(grams, text):
    """Of 50 to 53 g each: two of them, and not a third of a cup."""
    lines = [line("sweet-rice-flour", 200), line("milk", 300), line("egg", grams)]
    shown = work(a_sheet("batter-bake", ("base", lines)), KITCHEN).lines[2]
    assert shown.household == text


class TestWhatAPartIs:
    def test_water_with_a_fragrant_leaf_is_no_syrup(self):
        """300 g of water with 20 g of leaf, called a syrup: steeped, most of it is there; boiled to its solids, 3 g were."""
        base = [line("sweet-rice-flour", 200), line("water", 200), line("white-sugar", 150)]
        steeped = [line("water", 300), line("tropical-leaf", 20)]
        worked = work(a_sheet("set-cake", ("base", base), ("syrup", steeped)), KITCHEN)
        part = next(part for part in worked.parts if part.role == "syrup")
        assert part.family == "leaf-infusion"
        assert part.made_g > 200

    def test_with_sugar_in_it_it_is_one(self):
        base = [line("sweet-rice-flour", 200), line("water", 200), line("white-sugar", 50)]
        syrup = [line("water", 300), line("tropical-leaf", 20), line("white-sugar", 200)]
        worked = work(a_sheet("set-cake", ("base", base), ("syrup", syrup)), KITCHEN)
        assert next(part for part in worked.parts if part.role == "syrup").family == "coconut-syrup"


class TestLiquidParts:
    """A liquid that is blended goes on whole; a leaf that gives its taste is taken out and never eaten."""

    def liquid(self, role, *lines, **more):
        document = default_sheet("set-cake").model_dump()
        rest = {"": {"to": "base", "joins": "mix"}}
        document["parts"] = [*document["parts"], {"role": role, "lines": list(lines), "rest": rest, **more}]
        worked = work(sheet_from(document), Kitchen())
        return next(part for part in worked.parts if part.role == role), worked

    def test_blended_is_no_infusion(self):
        """250 g of milk and 80 of mash: 1 to 5 % stays behind, 3 of 100 likely."""
        part, worked = self.liquid("liquid", line("milk", 250), line("sweet-potato-mash", 80))
        assert part.family == "blended-liquid"
        assert part.made_g == pytest.approx(330 * 0.97)
        assert [step.id for step in worked.steps if step.part == "liquid"] == ["liquid-blend", "liquid-strain"]

    def test_a_leaf_in_the_pot_is_not_eaten(self):
        """300 g of water with 24 g of leaf: of the 300, 10 % stays in the leaf or steams away."""
        part, _ = self.liquid("liquid", line("water", 300), line("tropical-leaf", 24))
        assert part.family == "leaf-infusion"
        assert part.raw_g == pytest.approx(324)
        assert part.made_g == pytest.approx(270)

    def test_nor_in_a_syrup(self):
        """The same syrup with a leaf in it and without weighs the same when it is done, to the gram."""
        sweet = line("white-sugar", 200), line("coconut-milk-thick", 200)
        (plain, _), (scented, _) = self.liquid("syrup", *sweet), self.liquid("syrup", *sweet, line("tropical-leaf", 24))
        assert scented.made_g == pytest.approx(plain.made_g)
        assert scented.raw_g == pytest.approx(plain.raw_g + 24)

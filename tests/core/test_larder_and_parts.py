"""Grain, parts, exchanges, own cups, shopping and sharing, against sums done by hand."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.exchange import exchanges
from kemble.core.change.sharing import share_part, unshare_part
from kemble.core.change.shopping import shopping
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import larder
from kemble.core.kitchen.shelf import Shelf
from kemble.core.physics.soaking import soak_for, uptake_pct
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.chain import work

KITCHEN = Kitchen()


def line(ingredient, value, unit="g", **more):
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}, **more}


def a_sheet(way, *parts, **more):
    return sheet_from({"way": way, "parts": [{"role": role, "lines": lines} for role, lines in parts], **more})


def facts(sheet, kitchen=KITCHEN):
    return {key: fact.value for key, fact in work(sheet, kitchen).facts.items()}


def rice(soak_min=60, **grain):
    base = [line("sweet-rice", 240), line("water", 350), line("white-sugar", 16)]
    soak = {"soak_min": soak_min, "soak_c": 20, "rinses": 0, "drain_min": 15, **grain}
    return a_sheet("crushed-balls", ("base", base), grain=soak)


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
        found = facts(rice())
        assert found["grain.uptake_g"] == pytest.approx(62.68, abs=0.01)
        assert found["grain.cling_g"] == pytest.approx(24 / math.e, abs=0.01)
        assert found["grain.soaked_g"] == pytest.approx(240 + 62.68 + 8.83, abs=0.01)
        assert found["grain.cook_water_g"] == pytest.approx(278.49, abs=0.01)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(0, 1440), st.floats(2, 45), st.integers(0, 6), st.floats(0, 90))
    def test_soaked_overnight_or_not_at_all_it_cooks_to_the_same(self, minutes, celsius, rinses, drain):
        dry = facts(rice(0))
        wet = facts(rice(minutes, soak_c=celsius, rinses=rinses, drain_min=drain))
        assert wet["grain.cooked_g"] == pytest.approx(dry["grain.cooked_g"])
        assert wet["mix.hydration_pct"] == pytest.approx(dry["mix.hydration_pct"])
        held = wet["grain.uptake_g"] + wet["grain.cling_g"]
        assert wet["grain.cook_water_g"] + held == pytest.approx(dry["grain.cook_water_g"])

    @given(st.floats(1, 1000), st.floats(1, 1000), st.floats(3, 50))
    def test_longer_and_warmer_is_never_less(self, one, other, celsius):
        assert uptake_pct(one + other, celsius) >= uptake_pct(one, celsius)
        assert uptake_pct(one, celsius + 2) >= uptake_pct(one, celsius)

    def test_a_soak_that_brings_more_than_the_sheet_asks_is_said(self):
        sheet = a_sheet(
            "crushed-balls", ("base", [line("sweet-rice", 400), line("water", 80)]), grain={"soak_min": 900}
        )
        worked = work(sheet, KITCHEN)
        assert worked.facts["grain.cook_water_g"].value == 0
        assert any("soak alone" in one.says for one in worked.advice)

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
        assert any("hearts stay hard" in one.says for one in work(short, KITCHEN).advice)
        sour = default_sheet("pounded").model_copy(update={"grain": sheet_grain(soak_min=600, soak_c=30)})
        assert any("sours" in one.says for one in work(sour, KITCHEN).advice)


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
        assert any("Little sugar in the bean paste" in one.says for one in work(sheet_from(document), KITCHEN).advice)

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
        found = facts(sheet_from(whole))
        assert found["part.topping.piece_g"] == pytest.approx(found["part.topping.made_g"] / 30)
        curds["each_g"] = 5
        worked = work(sheet_from(whole), KITCHEN)
        assert worked.facts["shape.short_of"].value == "curds"
        assert any("curds is enough for 20 of 30" in one.says for one in worked.advice)

    def test_a_syrup_is_done_at_its_solids(self):
        """294 g thick milk: 37 % solids, 108.78 g. 200 g slab sugar: 194. 1 g salt: 0.998. In all 303.78 of 495.

        At 70 % solids that weighs 433.97 g.
        """
        found = facts(default_sheet("tray-rice"))
        assert found["part.syrup.raw_g"] == pytest.approx(495.0)
        assert found["part.syrup.made_g"] == pytest.approx(433.97, abs=0.05)
        assert found["part.syrup.loss_g"] == pytest.approx(495 - 433.97, abs=0.05)

    def test_curds_and_oil_of_coconut_cream(self):
        """400 g: 112 g fat, of which 69 % parts as oil, 77.28 g; the other 70.72 g of solids with 28 % water are 98.22 g."""
        base = default_sheet("tray-rice").model_dump()["parts"][0]["lines"]
        sheet = a_sheet("tray-rice", ("base", base), ("topping", [line("coconut-milk-thick", 400)]))
        document = sheet.model_dump()
        document["parts"][1]["family"] = "coconut-curd"
        found = facts(sheet_from(document))
        assert found["part.topping.oil_g"] == pytest.approx(77.28)
        assert found["part.topping.made_g"] == pytest.approx((400 * 0.37 - 77.28) / 0.72, abs=0.01)

    def test_the_shortest_of_all_the_parts_is_named(self):
        """54 pulls of 9 g; 100 g of coat at 3 g is enough for 33."""
        document = default_sheet("folded-pulls").model_dump()
        document["parts"][1]["lines"] = [line("hazelnut", 100)]
        worked = work(sheet_from(document), KITCHEN)
        assert worked.facts["part.coat.enough_for"].value == pytest.approx(100 / 3)
        assert worked.facts["shape.short_of"].value == "sweet ground nut"
        assert any("enough for 33 of 54" in one.says for one in worked.advice)

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
        assert [(one.to, round(one.grams)) for one in carried] == [("base", 100), ("syrup", 200), ("", 30)]

    def test_a_split_to_a_part_that_is_not_there(self):
        with pytest.raises(Refused, match="no topping on this sheet"):
            a_sheet(
                "set-cake",
                ("base", [line("sweet-rice-flour", 300, splits=[{"share": 1, "at": "x", "to": "topping"}])]),
            )

    def test_kept_back_and_made_for_others_leave_the_rest(self):
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"][1].update(kept=0.1, kept_for="a glaze", made_for=[{"sheet": "Other", "share": 0.4}])
        found = facts(sheet_from(document))
        assert found["part.filling.away_g"] == pytest.approx(377 * 0.4)
        assert found["part.filling.kept_g"] == pytest.approx(37.7)
        assert found["part.filling.have_g"] == pytest.approx(377 * 0.5)
        document["parts"][1]["kept"] = 0.7
        with pytest.raises(Refused, match="none is left"):
            sheet_from(document)


class TestOwnMeasures:
    def test_a_cup_of_this_cooks_flour(self):
        """A metric cup, as this cook fills it, holds 128 g of sweet rice flour, not 140."""
        kitchen = Kitchen(weighed=[{"measure": "cup_metric", "ingredient": "sweet-rice-flour", "grams": 128}])
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 2, "cup_metric"), line("water", 300)]))
        assert facts(sheet)["mix.base_g"] == pytest.approx(280)
        assert facts(sheet, kitchen)["mix.base_g"] == pytest.approx(256)

    def test_the_cooks_own_cup(self):
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 2, "cup_own"), line("water", 300)]))
        assert facts(sheet, Kitchen(own_cup_ml=200))["mix.base_g"] == pytest.approx(2 * 200 * 0.56)
        problem = work(sheet, KITCHEN).problems[0]
        assert problem.path == "parts.0.lines.0"
        assert "not been weighed" in problem.says

    def test_a_packed_cup_weighs_more(self):
        spooned, packed = (
            facts(
                a_sheet(
                    "set-cake", ("base", [line("sweet-rice-flour", 1, "cup_metric", state=state), line("water", 300)])
                )
            )
            for state in (None, "packed")
        )
        assert (spooned["mix.base_g"], packed["mix.base_g"]) == pytest.approx((140, 165))

    def test_an_unlikely_cup_is_questioned(self):
        kitchen = Kitchen(weighed=[{"measure": "cup_metric", "ingredient": "sweet-rice-flour", "grams": 260}])
        sheet = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 1, "cup_metric"), line("water", 300)]))
        assert "Another cup" in work(sheet, kitchen).lines[0].question
        assert work(sheet, KITCHEN).lines[0].question == ""

    def test_cups_of_the_wrong_kind_are_questioned(self):
        grain = a_sheet("crushed-balls", ("base", [line("sweet-rice", 2, "cup_us"), line("water", 300)]))
        assert "rice cooker" in work(grain, KITCHEN).lines[0].question
        mixed = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 1, "cup_us"), line("water", 1, "cup_metric")]))
        assert "two cups" in work(mixed, KITCHEN).lines[0].question

    def test_own_ingredients_and_own_figures(self):
        own = larder()["sweet-rice-flour"].model_dump() | {
            "id": "own-mill",
            "name": "Flour from the mill",
            "per_100_g": {"water": 20, "starch": 80},
        }
        kitchen = Kitchen.model_validate({"ingredients": [own]})
        sheet = a_sheet("set-cake", ("base", [line("own-mill", 300), line("water", 300)]))
        assert facts(sheet, kitchen)["mix.water_g"] == pytest.approx(360)
        assert "not in this kitchen" in work(sheet, KITCHEN).problems[0].says
        milk = larder()["milk"].model_dump() | {"per_100_g": {"water": 90, "sugar": 5, "fat": 2, "protein": 3}}
        richer = Kitchen.model_validate({"ingredients": [milk]})
        cake = a_sheet("set-cake", ("base", [line("sweet-rice-flour", 100), line("milk", 100)]))
        assert facts(cake, richer)["mix.hydration_pct"] == pytest.approx(90)

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"per_100_g": {"water": 20, "starch": 70}}, "adds up to 90.0 g"),
            ({"id": "mill"}, "not in the larder"),
            ({"density": {"spooned": 9}}, "no density of food"),
            ({"packs": {"bag": -1}}, "cannot weigh"),
        ],
    )
    def test_figures_that_cannot_be(self, change, says):
        own = larder()["sweet-rice-flour"].model_dump() | {"id": "own-mill"} | change
        with pytest.raises(ValidationError, match=says):
            Kitchen.model_validate({"ingredients": [own]})

    def test_stock_of_what_is_not_there(self):
        with pytest.raises(ValidationError, match="not in this kitchen's larder"):
            Kitchen.model_validate({"stock": [{"ingredient": "own-nothing", "grams": 5}]})


def swapped(sheet, part, index, ingredient):
    return adjust(sheet, Adjustment(by="exchange", part=part, line=index, ingredient=ingredient), KITCHEN)


class TestExchange:
    def test_sugar_for_honey_keeps_sweetness_and_water(self):
        """240 g light brown sugar, 97.6 %: 234.24 g of sugar; honey at 81.5 % would be 287.4 g, and brings 50.3 g water."""
        sheet = default_sheet("set-cake")
        before = facts(sheet)
        after = swapped(sheet, 0, 2, "mild-honey")
        found = facts(after.sheet)
        assert found["mix.sugar_pct"] == pytest.approx(before["mix.sugar_pct"])
        assert found["mix.hydration_pct"] == pytest.approx(before["mix.hydration_pct"])
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
        assert [one.ingredient for one in after.sheet.base.lines] == [
            one.ingredient for one in sheet.base.lines if one.ingredient != "egg"
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


class TestShopping:
    def test_two_sheets_in_packs_with_the_larder_taken_off(self):
        """Flour 300 + 240 = 540 g; 150 g are there: 390 g, one bag of 500, 110 left. Water is not bought."""
        kitchen = Kitchen.model_validate({"stock": [{"ingredient": "sweet-rice-flour", "grams": 150}]})
        found = shopping([default_sheet("set-cake"), default_sheet("boiled-balls")], kitchen)
        flour = next(one for one in found.lines if one.ingredient == "sweet-rice-flour")
        assert (flour.need_g, flour.buy_g, flour.packs, flour.left_g) == pytest.approx((540, 390, 1, 110))
        assert flour.sheets == ["Steamed set cake", "Boiled balls"]
        assert "water" not in {one.ingredient for one in found.lines}
        assert found.cost is None
        assert "tree nut" in found.allergens
        assert "Sweet rice flour: 1 bag of 500 g (390 g needed)" in found.text

    def test_a_price_switches_cost_on(self):
        kitchen = Kitchen.model_validate(
            {"stock": [{"ingredient": "sweet-rice-flour", "price": 2.4, "pack_g": 250}], "currency": "cr"}
        )
        found = shopping([default_sheet("set-cake")], kitchen)
        assert found.cost == pytest.approx(4.8)
        assert found.unpriced == len(found.lines) - 1
        assert "About 4.80 cr, " in found.text

    def test_leaves_have_their_spares(self):
        """11 parcels of two leaves and 15 % over are 26; the sheet's 20 leave 6 to add, of 4 g each."""
        document = default_sheet("leaf-parcels").model_dump()
        document["parts"][2]["lines"][0]["amount"]["value"] = 20
        leaf = next(one for one in shopping([sheet_from(document)], KITCHEN).lines if one.ingredient == "bamboo-leaf")
        assert (leaf.need_g, leaf.spare_g, leaf.pieces) == pytest.approx((80, 24, 26))

    def test_nothing_to_buy_of_what_is_there(self):
        kitchen = Kitchen.model_validate({"stock": [{"ingredient": "salt", "grams": 900}]})
        salt = next(one for one in shopping([default_sheet("set-cake")], kitchen).lines if one.ingredient == "salt")
        assert (salt.packs, salt.buy_g) == (0, 0)
        assert "In the larder already\n- Salt" in shopping([default_sheet("set-cake")], kitchen).text


class TestSharing:
    def two(self):
        rounds = default_sheet("stirred-rounds").model_copy(update={"title": "Rounds"})
        balls = default_sheet("crushed-balls").model_copy(update={"title": "Balls"})
        return rounds, balls

    def test_one_makes_it_for_both_and_no_gram_is_lost(self):
        rounds, balls = self.two()
        mine, theirs = facts(rounds)["part.filling.made_g"], facts(balls)["part.filling.made_g"]
        giver, taker = share_part(rounds, balls, "filling", KITCHEN)
        found = facts(giver)
        assert found["part.filling.made_g"] == pytest.approx(mine + theirs)
        assert found["part.filling.have_g"] == pytest.approx(mine)
        assert found["part.filling.away_g"] == pytest.approx(theirs)
        assert facts(taker)["part.filling.made_g"] == pytest.approx(theirs)
        assert not [step for step in work(taker, KITCHEN).steps if step.id.startswith("filling-")]

    def test_it_is_bought_once(self):
        giver, taker = share_part(*self.two(), "filling", KITCHEN)
        both = shopping([giver, taker], KITCHEN)
        beans = next(one for one in both.lines if one.ingredient == "small-red-bean")
        assert beans.need_g == pytest.approx(130 + 228)
        assert shopping([taker], KITCHEN).notes == ["bean paste for Balls: Rounds makes it, but is not on this list."]

    def test_and_back(self):
        rounds, balls = self.two()
        giver, taker = unshare_part(*share_part(rounds, balls, "filling", KITCHEN), "filling")
        shelf = Shelf(KITCHEN)
        for was, now in ((rounds, giver),):
            before, after = ([one.grams for one in weigh(sheet, shelf).lines] for sheet in (was, now))
            assert after == pytest.approx(before, abs=0.01)
        assert taker.part("filling").made_on == ""

    @pytest.mark.parametrize(("role", "says"), [("base", "no base to share"), ("broth", "no broth to share")])
    def test_what_is_not_there(self, role, says):
        with pytest.raises(Refused, match=says):
            share_part(*self.two(), role, KITCHEN)

    def test_not_twice(self):
        giver, taker = share_part(*self.two(), "filling", KITCHEN)
        with pytest.raises(Refused, match="has it from Rounds"):
            share_part(giver, taker, "filling", KITCHEN)

"""Stations against sums done by hand."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.kitchen.document import Burner, Kitchen, Pot
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.mix.mix import inside
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(altitude_m=0)


def line(ingredient, value, unit="g", **more):
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}, **more}


def cake(*lines, **more):
    return sheet_from({"way": "set-cake", "parts": [{"role": "base", "lines": list(lines)}], **more})


def balls(pieces, dough=(260, 208), filling=(("date", 216),), **more):
    parts = [{"role": "base", "lines": [line("sweet-rice-flour", dough[0]), line("water", dough[1])]}]
    if filling:
        parts.append({"role": "filling", "name": "date", "lines": [line(*item) for item in filling]})
    return sheet_from({"way": "boiled-balls", "parts": parts, "pieces": pieces, **more})


def value(sheet, key, kitchen=KITCHEN):
    return work(sheet, kitchen).facts[key].value


class TestMix:
    def test_effective_hydration_counts_the_water_in_everything(self):
        """Milk 100 g: 87.8 water, 4.7 sugar, 3.6 fat. Honey 50 g: 9.0 water, 40.25 sugar. Butter 20 g: 3.2, 0.14, 16.4.

        On 200 g flour: water (87.8 + 9.0 + 3.2) / 200 = 50.0 %; sugar 45.09 / 200 = 22.5 %; fat 20.0 / 200 = 10.0 %.
        """
        sheet = cake(line("sweet-rice-flour", 200), line("milk", 100), line("buckwheat-honey", 50), line("butter", 20))
        assert value(sheet, "mix.hydration_pct") == pytest.approx(50.0, abs=0.1)
        assert value(sheet, "mix.sugar_pct") == pytest.approx(22.55, abs=0.1)
        assert value(sheet, "mix.fat_pct") == pytest.approx(10.0, abs=0.05)

    def test_the_because_lists_each_contribution(self):
        sheet = cake(line("sweet-rice-flour", 200), line("milk", 100), line("buckwheat-honey", 50))
        inputs = work(sheet, KITCHEN).facts["mix.hydration_pct"].because.inputs
        result = {origin.label: origin.value for origin in inputs}
        assert result["water in milk, whole"] == pytest.approx(87.8)
        assert result["water in buckwheat honey"] == pytest.approx(9.0)

    def test_a_reserve_stays_out_of_the_batch(self):
        sheet = cake(
            line("sweet-rice-flour", 300),
            line("water", 400, "ml", reserve={"value": 50, "unit": "ml"}),
            line("white-sugar", 200),
        )
        assert value(sheet, "mix.batch_g") == pytest.approx(300 + 350 + 200)

    def test_volume_from_the_components(self):
        """Choi-Okos at 25 °C: water 994.9, carbohydrate 1591.3, fat 915.2 kg/m3, in a batter without flour's small parts.

        Starch alone as flour is not to be had; 100 g water, 100 g white sugar, 100 g potato starch stand in by volume.
        """
        from kemble.core.kitchen.larder import larder
        from kemble.core.physics.thermal import fractions, properties

        water = properties(fractions(larder()["water"].composition(100)), 25).rho
        sugar = properties(fractions(larder()["white-sugar"].composition(100)), 25).rho
        assert water == pytest.approx(994.9, abs=0.1)
        assert sugar == pytest.approx(1591.3 * 0.999 + 0.6, abs=1.5)

    def test_dry_and_wet_are_said(self):
        dry = cake(
            line("sweet-rice-flour", 300),
            line("water", 150),
            line("white-sugar", 240),
            line("sunflower-oil", 18),
        )
        assert any("Dry for this way" in advice.says for advice in work(dry, KITCHEN).advice)
        wrong = cake(line("rice-flour", 300), line("water", 375), line("white-sugar", 240))
        assert work(wrong, KITCHEN).advice[0].says.startswith("Plain rice flour")

    def test_inside_a_polygon(self):
        square = ((0.0, 0.0), (2.0, 0.0), (2.0, 2.0), (0.0, 2.0))
        assert inside((1.0, 1.0), square)
        assert not inside((3.0, 1.0), square)


class TestShape:
    def test_what_runs_out_first(self):
        """468 g dough at 18 g is 26; 216 g filling at 9 g is 24; 24 x 18 = 432 leaves 36 g of dough."""
        sheet = balls({"dough_g": 18, "filling_g": 9})
        facts = work(sheet, KITCHEN).facts
        assert facts["shape.base_enough_for"].value == pytest.approx(26.0)
        assert facts["shape.filling_enough_for"].value == pytest.approx(24.0)
        assert facts["shape.pieces"].value == 24
        assert facts["shape.short_of"].value == "filling"
        assert facts["shape.left_over_g"].value == pytest.approx(36.0)

    def test_each_remedy_comes_out_even(self):
        sheet = balls({"dough_g": 18, "filling_g": 9})
        fewer, thinner, more = work(sheet, KITCHEN).drawings.shape.remedies
        assert (fewer.pieces.count, fewer.pieces.filling_g) == (24, 9)
        assert (thinner.pieces.count, thinner.pieces.filling_g) == (None, pytest.approx(216 / 26, abs=0.01))
        assert (more.role, more.factor) == ("filling", pytest.approx(26 * 9 / 216))

    def test_skin_and_diameter_from_volumes(self):
        """Worked back: the two spheres hold the two masses at their densities."""
        facts = work(balls({"dough_g": 18, "filling_g": 9}), KITCHEN).facts
        outer, core = facts["shape.diameter_mm"].value, facts["shape.core_mm"].value
        assert facts["shape.skin_mm"].value == pytest.approx((outer - core) / 2)
        shell_ml = math.pi / 6 * (outer**3 - core**3) / 1000
        assert shell_ml * facts["mix.density_g_per_ml"].value == pytest.approx(18.0, rel=1e-6)

    def test_rope_and_disc_hold_the_dough(self):
        facts = work(balls({"dough_g": 18, "filling_g": 9}), KITCHEN).facts
        dough_mm3 = 18 / facts["mix.density_g_per_ml"].value * 1000
        rope = math.pi / 4 * facts["shape.rope_mm"].value ** 2 * facts["shape.rope_cut_mm"].value
        assert rope == pytest.approx(dough_mm3)
        disc = math.pi / 4 * facts["shape.disc_mm"].value ** 2 * 0.85 * facts["shape.skin_mm"].value
        assert disc == pytest.approx(dough_mm3)

    def test_count_alone_shares_everything(self):
        facts = work(balls({"count": 24}), KITCHEN).facts
        assert facts["shape.base_g"].value == pytest.approx(468 / 24)
        assert facts["shape.filling_g"].value == pytest.approx(216 / 24)
        assert facts["shape.short_of"].value == "nothing"

    def test_plain_balls(self):
        facts = work(balls({"dough_g": 12}, filling=None), KITCHEN).facts
        assert facts["shape.pieces"].value == 39
        assert "shape.skin_mm" not in facts

    def test_a_thin_skin_is_said(self):
        worked = work(balls({"dough_g": 8, "filling_g": 14}), KITCHEN)
        assert any("tears" in advice.says for advice in worked.advice)

    @pytest.mark.parametrize(
        ("pieces", "filling", "path"),
        [
            ({"dough_g": 500}, (("date", 216),), "pieces.dough_g"),
            ({"count": 500, "dough_g": 0.3, "filling_g": 0.3}, (("date", 216),), "pieces"),
            ({"dough_g": 0.5, "filling_g": 200}, (("date", 216),), "pieces"),
            ({"filling_g": 250}, (("date", 216),), "pieces.filling_g"),
            ({"filling_g": 9}, None, "pieces.filling_g"),
        ],
    )
    def test_pieces_that_cannot_be(self, pieces, filling, path):
        problems = work(balls(pieces, filling=filling), KITCHEN).problems
        assert [problem.path for problem in problems] == [path]

    def test_depth_in_a_round_tin(self):
        """786 ml over a floor of pi x 90 x 90 = 25 447 mm2."""
        facts = work(default_sheet("set-cake"), KITCHEN).facts
        assert facts["shape.depth_mm"].value == pytest.approx(facts["mix.volume_ml"].value * 1000 / (math.pi * 8100))

    def test_a_tin_smaller_than_its_batter(self):
        sheet = default_sheet("set-cake").model_dump()
        sheet["vessel"]["tin"]["height_mm"] = 25
        worked = work(sheet_from(sheet), KITCHEN)
        assert worked.problems[0].path == "vessel.tin"
        assert "2 tins" in worked.problems[0].accepts
        assert "mix.hydration_pct" in worked.facts
        assert worked.steps == []


def with_tin(**tin):
    sheet = default_sheet("set-cake").model_dump()
    sheet["vessel"]["tin"].update(tin)
    return sheet


class TestSteam:
    def test_a_fifteen_centimetre_tin_four_deep(self):
        """The craft: 90-95 °C at the heart in roughly 40-55 min of steam, from a warm syrup."""
        sheet = with_tin(diameter_mm=150)
        wanted = 40 * math.pi * 75**2 / 1000
        factor = wanted / work(sheet_from(sheet), KITCHEN).facts["mix.volume_ml"].value
        for item in sheet["parts"][0]["lines"]:
            item["amount"]["value"] *= factor
        facts = work(sheet_from(sheet), KITCHEN).facts
        assert facts["shape.depth_mm"].value == pytest.approx(40.0, abs=0.1)
        assert 36 <= facts["heat.set_min"].value <= 55  # clear at the heart, at 90 to 95 °C
        assert facts["heat.first_check_min"].value < 48
        assert facts["heat.set_min"].value <= facts["heat.done_min"].value <= 65
        assert facts["heat.latest_min"].value <= 80
        assert 90 <= facts["heat.heart_done_c"].value <= 98

    @settings(max_examples=examples(15), deadline=None)
    @given(st.floats(150, 240), st.floats(5, 40), st.floats(0, 2500))
    def test_deeper_colder_and_higher_take_longer(self, diameter, start, altitude):
        sheet = with_tin(diameter_mm=diameter, height_mm=90)
        sheet["start"]["batter_c"] = start
        here = work(sheet_from(sheet), Kitchen(altitude_m=altitude)).facts
        assert here["heat.first_check_min"].value < here["heat.done_min"].value < here["heat.latest_min"].value
        assert here["heat.deeper_min"].value > 0
        higher = work(sheet_from(sheet), Kitchen(altitude_m=altitude + 400)).facts
        assert higher["heat.done_min"].value > here["heat.done_min"].value
        sheet["start"]["batter_c"] = start + 10
        assert (
            work(sheet_from(sheet), Kitchen(altitude_m=altitude)).facts["heat.done_min"].value
            < here["heat.done_min"].value
        )

    def test_foil_and_glass_slow_it(self):
        plain = value(sheet_from(with_tin()), "heat.done_min")
        assert value(sheet_from(with_tin(material="glass")), "heat.done_min") > plain
        covered = with_tin() | {"schools": {"cover": "covered"}}
        assert value(sheet_from(covered), "heat.done_min") == pytest.approx(
            plain + value(sheet_from(with_tin()), "heat.cover_min"),
            abs=0.5,  # a what-if takes the likely one's steam
        )

    def test_a_square_tin_beats_a_long_one_of_the_same_floor(self):
        """Sides nearer to the heart help a little: 200 x 130 against 260 x 100."""
        wide = value(sheet_from(with_tin(shape="oblong", length_mm=200, width_mm=130)), "heat.done_min")
        long = value(sheet_from(with_tin(shape="oblong", length_mm=400, width_mm=65)), "heat.done_min")
        assert long < wide

    def test_a_kitchens_own_time_factor(self):
        plain = value(default_sheet("set-cake"), "heat.done_min")
        assert value(default_sheet("set-cake"), "heat.done_min", Kitchen(time_factor=1.2)) == pytest.approx(1.2 * plain)

    def test_a_weak_burner_and_a_fierce_one_are_said(self):
        weak = work(default_sheet("set-cake"), Kitchen(burner=Burner(medium_w=200)))
        assert any("weak" in advice.says for advice in weak.advice)
        fierce = work(default_sheet("set-cake"), Kitchen(burner=Burner(medium_w=1400)))
        assert any("fierce" in advice.says for advice in fierce.advice)
        assert "heat.top_up_at_min" in fierce.facts

    def test_two_tins_in_one_tier_are_two_loads(self):
        sheet = with_tin()
        sheet["vessel"]["count"] = 3
        kitchen = Kitchen(steamers=({"tiers": 2},))
        worked = work(sheet_from(sheet), kitchen)
        assert worked.facts["heat.loads"].value == 2
        steam = next(step for step in worked.steps if step.id == "steam")
        assert steam.minutes == pytest.approx(2 * worked.facts["heat.done_min"].value + 3)  # three to change them
        assert steam.window.done == pytest.approx(steam.minutes)


class TestBoil:
    def test_float_is_not_hot_within(self):
        facts = work(balls({"dough_g": 18, "filling_g": 9}), KITCHEN).facts
        assert 2 <= facts["heat.float_min"].value <= 6
        assert facts["heat.float_min"].value < facts["heat.core_hot_min"].value
        assert 7 <= facts["heat.core_hot_min"].value <= 13

    def test_a_chilled_filling_is_sooner_hot(self):
        frozen = value(balls({"dough_g": 18, "filling_g": 9}), "heat.core_hot_min")
        chilled = value(balls({"dough_g": 18, "filling_g": 9}, schools={"start": "chilled"}), "heat.core_hot_min")
        assert chilled < frozen - 0.5

    def test_who_stops_at_the_float_is_told(self):
        worked = work(balls({"dough_g": 18, "filling_g": 9}, schools={"done": "float"}), KITCHEN)
        assert worked.facts["heat.done_min"].value == worked.facts["heat.float_min"].value
        assert any("Simmer on" in advice.says for advice in worked.advice)

    @settings(max_examples=examples(12), deadline=None)
    @given(st.floats(10, 40), st.floats(0.2, 0.45))
    def test_bigger_takes_longer(self, dough, share):
        small = work(
            balls({"dough_g": dough, "filling_g": dough * share}, dough=(600, 480), filling=(("date", 500),)),
            KITCHEN,
        )
        large = work(
            balls(
                {"dough_g": dough * 1.2, "filling_g": dough * share * 1.2},
                dough=(600, 480),
                filling=(("date", 500),),
            ),
            KITCHEN,
        )
        assert large.facts["heat.core_hot_min"].value > small.facts["heat.core_hot_min"].value

    def test_a_small_pot_takes_more_loads(self):
        sheet = balls({"dough_g": 18, "filling_g": 9})
        assert value(sheet, "heat.loads", Kitchen(pots=(Pot(diameter_mm=160, water_ml=1500),))) > value(
            sheet, "heat.loads"
        )


class TestRestAndCut:
    def test_pieces_too_small_to_cut(self):
        sheet = default_sheet("set-cake").model_dump()
        sheet["cut"]["pieces"] = 400
        assert work(sheet_from(sheet), KITCHEN).problems[0].path == "cut.pieces"

    def test_cut_pieces_and_offcuts_are_the_whole_cake(self):
        facts = work(default_sheet("set-cake"), KITCHEN).facts
        whole = facts["cut.pieces"].value * facts["cut.piece_g"].value / (1 - facts["cut.offcut_pct"].value / 100)
        assert whole == pytest.approx(facts["mix.cooked_g"].value)

    def test_it_is_handled_before_it_is_cut(self):
        for school in ("cool", "chill", "overnight"):
            sheet = default_sheet("set-cake").model_dump()
            sheet["schools"]["rest"] = school
            facts = work(sheet_from(sheet), KITCHEN).facts
            assert facts["rest.handle_from_min"].value < facts["rest.cut_after_min"].value
        assert facts["rest.cut_after_min"].value >= 14 * 60

    def test_filling_balls_freeze_in_the_crafts_time(self):
        """The craft: 8-12 g balls want 40-60 min on a -18 °C shelf."""
        sheet = balls({"dough_g": 18, "filling_g": 9}, filling=(("walnut", 96), ("date", 98), ("butter", 22)))
        assert 40 <= value(sheet, "rest.freeze_filling_min") <= 60

    def test_butter_makes_it_perishable(self):
        sheet = balls({"dough_g": 18, "filling_g": 9}, filling=(("date", 190), ("butter", 26)))
        worked = work(sheet, KITCHEN)
        assert worked.facts["keep.room_h"].value == 2
        assert {"spoilage", "allergens", "choking", "hot-heart"} <= {caution.id for caution in worked.cautions}
        assert worked.allergens == ["milk"]


class TestWhatStaysOnAPiece:
    """60 g of potato starch are laid out for rounds of some 43 mm; a film of 0.2 mm at 0.7 g/ml stays on each."""

    def test_starch_is_brushed_off(self):
        worked = work(default_sheet("stirred-rounds"), KITCHEN)
        facts, steps = worked.facts, {step.id: step for step in worked.steps}
        across, count = facts["shape.diameter_mm"].value, facts["shape.pieces"].value
        each = facts["part.coat.piece_g"]
        assert each.value == pytest.approx(math.pi * across**2 * 0.2 * 0.7 / 1000)
        assert (each.low, each.high) == (pytest.approx(each.value / 2), pytest.approx(2 * each.value))
        inside = facts["shape.pieces"].value * (facts["shape.base_g"].value + facts["shape.filling_g"].value)
        assert facts["whole.g"].value < inside + 60  # the rest of the starch is on the board
        assert steps["serve"].vessel.after_g == pytest.approx(facts["whole.g"].value, rel=0.002)
        assert facts["whole.g"].value == pytest.approx(
            facts["mix.cooked_g"].value * min(1, count * facts["shape.base_g"].value / facts["mix.cooked_g"].value)
            + count * (facts["shape.filling_g"].value + each.value)
        )

    def test_what_is_meant_to_be_eaten_is_not(self):
        document = default_sheet("stirred-rounds").model_dump()
        coat = next(part for part in document["parts"] if part["role"] == "coat")
        coat["lines"] = [{"ingredient": "roasted-soy-flour", "amount": {"value": 60}}]
        facts = work(sheet_from(document), KITCHEN).facts
        assert facts["part.coat.piece_g"].value == pytest.approx(60 / facts["shape.pieces"].value)

    def test_as_much_as_the_cook_says(self):
        document = default_sheet("stirred-rounds").model_dump()
        next(part for part in document["parts"] if part["role"] == "coat")["each_g"] = 2.5
        assert work(sheet_from(document), KITCHEN).facts["part.coat.piece_g"].value == 2.5

    def test_what_is_kept_is_no_share_of_a_piece(self):
        """Oil that shallots were fried in, put by: it is made, and no gram of it goes on a pull."""
        document = default_sheet("folded-pulls").model_dump()
        oil = {"role": "oil", "family": "infused-oil", "rest": {"": {"to": "kept"}}}
        oil["lines"] = [
            {"ingredient": name, "amount": {"value": grams}}
            for name, grams in (("sunflower-oil", 109), ("shallot", 60))
        ]
        document["parts"] = [*document["parts"], oil]
        facts = work(sheet_from(document), KITCHEN).facts
        assert "part.oil.made_g" in facts
        assert "part.oil.piece_g" not in facts

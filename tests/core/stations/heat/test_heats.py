"""Heats and rests by sums done by hand, by what must grow with what, and by what cooks report."""

import math
import re

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.change.school_comparison import COMPARED, compare_schools, questions
from kemble.core.facts.problems import Refused
from kemble.core.facts.vocabulary import KEYS
from kemble.core.kitchen.document import Burner, Kitchen, Pan, Steamer
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.heat.steam import wall_h
from kemble.core.stations.work_sheet import work

SEA = Kitchen(altitude_m=0, room_c=20)


def document(way, *, schools=None, **more):
    result = default_sheet(way).model_dump(mode="json")
    result["schools"].update(schools or {})
    return merged(result, more)


def merged(under, over):
    """A document with some of it otherwise, however deep."""
    both = {key: merged(under.get(key, {}), value) if isinstance(value, dict) else value for key, value in over.items()}
    return {**under, **both}


def worked(way, kitchen=SEA, **more):
    result = work(sheet_from(document(way, **more)), kitchen)
    assert result.problems == []
    return result


def told(way, kitchen=SEA, **more):
    return {key: fact.value for key, fact in worked(way, kitchen, **more).facts.items()}


def of_grain(way, grams, **more):
    """The way's own sheet with so much dry grain and its water in step."""
    result = document(way)
    lines = next(part for part in result["parts"] if part["role"] == "base")["lines"]
    times = grams / lines[0]["amount"]["value"]
    for line in lines:
        line["amount"]["value"] *= times
    return work(sheet_from({**result, **more}), SEA)


class TestGrainInSteam:
    def test_by_hand(self):
        """672 g of drained grain, 500 of them dry with 0.86 solids: 36 % water, so (0.36 x 4180 + 0.64 x 1600) = 2530 J/(kg K).

        0.672 x 2530 x 78.4 K = 133 kJ; of 620 W lid and wall lose 130, four fifths of the rest warm the bed: 340 s. Then
        its time at heat, in steam of 98.4 °C: 490 W make 363 ml/s of vapour, with 20 of air.
        """
        result = told("pounded")
        kg = result["grain.soaked_g"] / 1000
        water = 1 - 0.86 * 500 / result["grain.soaked_g"]
        vapour = 490 / 2257 * 1673
        assert vapour == pytest.approx(363, abs=1)
        steam = 1730.63 / (8.07131 - math.log10(760 * vapour / (vapour + 20))) - 233.426
        through = kg * (4180 * water + 1600 * (1 - water)) * (steam - 20) / (0.8 * 490) / 60
        assert through == pytest.approx(5.67, abs=0.1)
        assert result["heat.core_hot_min"] == pytest.approx(through, abs=0.02)
        at_heat = result["heat.needs_min"] / 10 ** ((steam - 100) / 30)
        assert result["heat.done_min"] == pytest.approx(through + at_heat, abs=0.05)
        # What the grain took up as heat condensed on it: 133 kJ, and the rest to the boil, over 2257 J/g.
        assert result["heat.gained_g"] == pytest.approx(through * 60 * 392 / 2257 * 80 / (steam - 20), rel=0.01)

    def test_as_cooks_steam_it(self):
        """Soaked grain wants 15 to 25 minutes at 100 °C; cooks tell 20 to 40 with the steam coming through."""
        result = told("pounded")
        assert 15 <= result["heat.first_check_min"] < result["heat.done_min"] < result["heat.latest_min"] <= 40

    def test_unsoaked_it_takes_far_longer(self):
        dry, soaked = told("pounded", grain={"soak_min": 0, "rinses": 0}), told("pounded")
        assert dry["heat.done_min"] > 2 * soaked["heat.done_min"]
        assert soaked["heat.unsoaked_min"] == pytest.approx(
            dry["heat.done_min"] - soaked["heat.done_min"], abs=3
        )  # the soaked grain, cooked as long as the dry: there is its water to warm as well

    def test_the_bed_lies_on_as_few_tiers_as_it_may(self):
        """A 260 mm basket is 531 cm2; 672 g at 0.72 g/ml stand 17.6 mm deep on one of them."""
        assert told("pounded")["heat.depth_mm"] == pytest.approx(672.1 / 0.72 / 53.09, abs=0.1)
        # Eight kilograms dry would stand 281 mm deep: five times 60, so three loads on two tiers, 47 mm each.
        much = of_grain("pounded", 8000).facts
        assert much["heat.depth_mm"].value == pytest.approx(281 / 6, abs=1)
        assert much["heat.loads"].value == 3
        assert much["heat.all_loads_min"].value == pytest.approx(3 * much["heat.done_min"].value + 6)

    @settings(max_examples=examples(15), deadline=None)
    @given(st.floats(300, 2500), st.floats(1.05, 2.0))
    def test_more_grain_takes_longer(self, grams, times):
        item, more = of_grain("pounded", grams).facts, of_grain("pounded", grams * times).facts
        assert more["heat.done_min"].value > item["heat.done_min"].value

    @settings(max_examples=examples(10), deadline=None)
    @given(st.floats(0, 2500), st.floats(200, 2000))
    def test_higher_up_takes_longer(self, altitude, more):
        low, high = (told("pounded", Kitchen(altitude_m=m)) for m in (altitude, altitude + more))
        assert high["heat.done_min"] > low["heat.done_min"]


class TestUnderALid:
    def test_its_stretches_add_up(self):
        result = worked("crushed-balls")
        drawing = result.drawings.heat
        assert [phase.name for phase in drawing.phases] == ["to the boil", "simmers", "stands shut"]
        assert sum(phase.minutes for phase in drawing.phases) == pytest.approx(result.facts["heat.done_min"].value)

    def test_to_the_boil_by_hand(self):
        """607.5 g of grain, water and salt: warmed 80 K by 1500 W at about 3.2 kJ/(kg K), 104 s."""
        phases = worked("crushed-balls").drawings.heat.phases
        assert phases[0].minutes == pytest.approx(0.6075 * 3200 * 80 / 1500 / 60, rel=0.1)

    def test_as_cooks_tell_it(self):
        """Twenty to thirty minutes in a pot with its stand; a rice cooker forty to sixty with a gentle one."""
        pot, cooker = told("crushed-balls"), told("crushed-balls", schools={"grain": "cooker"})
        assert 18 <= pot["heat.first_check_min"] <= pot["heat.done_min"] <= 30
        assert cooker["heat.done_min"] > pot["heat.done_min"]
        assert 38 <= cooker["heat.latest_min"] <= 60

    def test_what_it_had_is_what_it_needs(self):
        """The cook value of the drawn curve, added up here anew, is what it needs at the likely time."""
        result = worked("crushed-balls")
        curve = result.core.curve
        minutes, celsius = np.array(curve.minutes), np.array(curve.core_c)
        until = minutes <= result.facts["heat.done_min"].value + 0.01
        worth = np.trapezoid((10 ** ((celsius - 100) / 30))[until], minutes[until])
        assert worth == pytest.approx(result.facts["heat.needs_min"].value, rel=0.03)

    def test_a_lifted_lid_costs_a_minute(self):
        assert 0.4 < told("crushed-balls")["heat.lid_min"] < 2


class TestAhead:
    def test_grain_for_a_syrup_is_taken_off_short(self):
        """Four fifths of what it needs, and its step lasts as long."""
        result = worked("tray-rice")
        alone = work(sheet_from(document("crushed-balls", grain={"soak_min": 120, "soak_c": 18, "rinses": 3})), SEA)
        assert result.facts["heat.needs_min"].value == pytest.approx(0.8 * alone.facts["heat.needs_min"].value)
        steps = [step for step in result.steps if step.id.startswith("cook-grain")]
        assert sum(step.minutes for step in steps) == pytest.approx(result.facts["grain.cook_min"].value)
        assert [step.window for step in steps] == [None, None, None]

    @pytest.mark.parametrize("school", ["lid", "cooker", "steamer"])
    def test_however_it_is_cooked(self, school):
        assert 12 <= told("tray-rice", schools={"grain": school})["grain.cook_min"] <= 40


class TestADishInSteam:
    def test_its_depth_by_hand(self):
        """521 g of batter at 1.17 g/ml in a dish 15 cm across, 177 cm2."""
        result = told("stirred-rounds", schools={"cook": "steam"})
        assert result["heat.depth_mm"] == pytest.approx(521 / 1.17 / 17.67, rel=0.03)

    def test_as_cooks_steam_it(self):
        result = told("stirred-rounds", schools={"cook": "steam"})
        assert 12 <= result["heat.done_min"] <= 30

    def test_a_wider_dish_is_sooner_done(self):
        wide = {"tin": {"diameter_mm": 220}}
        assert (
            told("stirred-rounds", schools={"cook": "steam"}, vessel=wide)["heat.done_min"]
            < told("stirred-rounds", schools={"cook": "steam"})["heat.done_min"]
        )

    def test_one_too_small_is_refused(self):
        small = {"tin": {"diameter_mm": 60, "height_mm": 30}}
        result = work(sheet_from(document("stirred-rounds", schools={"cook": "steam"}, vessel=small)), SEA)
        assert [problem.path for problem in result.problems] == ["vessel.tin"]


class TestTins:
    def test_walls_in_series_by_hand(self):
        """1 / (1/900 + 1/250 + 1/300) = 118 W/(m2 K) for glass lined with leaf in steam."""
        tin = default_sheet("set-cake").vessel.tin
        glass = tin.model_copy(update={"material": "glass"})
        assert wall_h(glass, 900.0, "leaf") == pytest.approx(118.4, abs=0.1)
        assert wall_h(tin, 900.0) == 900.0

    def test_leaf_and_glass_take_longer_than_bare_metal(self):
        bare = told("set-cake")
        leaf = told("set-cake", vessel={"lining": "leaf"})
        glass = told("set-cake", vessel={"tin": {"material": "glass"}})
        assert bare["heat.done_min"] < leaf["heat.done_min"]
        assert glass["heat.done_min"] - bare["heat.done_min"] == pytest.approx(bare["heat.tin_min"], abs=0.2)
        assert glass["heat.tin_min"] == pytest.approx(-bare["heat.tin_min"], abs=0.2)

    def test_strong_steam_finds_an_open_top_soft(self):
        steady, strong = told("set-cake"), told("set-cake", schools={"course": "strong-first"})
        assert steady["heat.top_looks"] == "smooth, matt"
        assert strong["heat.top_looks"] == "creased"
        covered = told("set-cake", schools={"course": "strong-first", "cover": "covered"})
        assert covered["heat.top_looks"] == "smooth, a little wet"
        low, high = (told("set-cake", heat={"level": level})["heat.done_min"] for level in ("low", "high"))
        assert high < strong["heat.done_min"] < low

    def test_the_water_is_drawn_as_it_falls(self):
        result = worked("set-cake", Kitchen(altitude_m=0, burner=Burner(medium_w=1500)))
        assert "heat.top_up_at_min" in result.facts
        steamer = result.drawings.heat.steamer
        assert steamer.water_mm[0] == pytest.approx(steamer.start_mm, abs=0.01)
        assert min(steamer.water_mm) >= steamer.low_mm - 0.1
        ml_per_mm = math.pi * 26**2 / 4 / 10
        fell = (steamer.water_mm[0] - steamer.water_mm[10]) * ml_per_mm
        assert fell == pytest.approx(loss_g_per_min(1500) * steamer.minutes[10], rel=0.02)

    def test_each_level_says_what_comes_of_it(self):
        burner = Burner(low_w=150, medium_w=620, high_w=2500)
        levels = worked("set-cake", Kitchen(burner=burner)).drawings.heat.steamer.levels
        assert [(level.level, level.says) for level in levels] == [
            ("low", "weak: a pale, dry rim"),
            ("medium-low", "wisps from the lid"),
            ("medium", "wisps from the lid"),
            ("medium-high", "fierce: an open top creases"),
            ("high", "fierce: an open top creases"),
        ]
        assert levels[0].lasts_min / levels[4].lasts_min == pytest.approx(2500 / 150)

    def test_a_level_between_is_half_way_until_it_is_measured(self):
        """By hand: between 150 and 620 W, and between 620 and 2500 W."""
        burner = Burner(low_w=150, medium_w=620, high_w=2500)
        assert (burner.net_w("medium-low"), burner.net_w("medium-high")) == (385, 1560)
        measured = burner.model_copy(update={"medium_low_w": 300, "medium_high_w": 900})
        assert (measured.net_w("medium-low"), measured.net_w("medium-high")) == (300, 900)


class TestGlazed:
    def glazed(self, **more):
        result = document("batter-bake", **more)
        glaze = {"ingredient": "light-brown-sugar", "amount": {"value": 40, "unit": "g"}}
        result["parts"].append({"role": "glaze", "family": "glaze", "lines": [glaze]})
        return work(sheet_from(result), SEA)

    def test_a_glaze_goes_on_for_the_last_minutes(self):
        result = self.glazed()
        done = result.facts["heat.done_min"].value
        assert result.facts["heat.glaze_at_min"].value == pytest.approx(done - 8.0)
        minutes = {step.id: step.minutes for step in result.steps}
        assert minutes["bake"] + minutes["brush"] == pytest.approx(done)

    def test_without_one_it_bakes_through(self):
        result = worked("batter-bake")
        assert "heat.glaze_at_min" not in result.facts
        assert next(step for step in result.steps if step.id == "bake").minutes == result.facts["heat.done_min"].value

    def test_rice_goes_in_hot_with_it_and_is_done_when_it_is_brown(self):
        result = told("tray-rice")
        assert result["heat.done_min"] == pytest.approx(result["heat.browns_min"])
        assert 20 <= result["heat.done_min"] <= 40
        cooler = told("tray-rice", heat={"oven_c": 160})
        assert cooler["heat.done_min"] > result["heat.done_min"]


class TestGathered:
    def test_end_by_weight_by_hand(self):
        """Six in a hundred of it go as vapour: at least 0.06 x m x 2257 J/g at 620 W."""
        result = told("tray-rice", schools={"finish": "set"})
        assert result["heat.lost_g"] == pytest.approx(0.06 * result["mix.cooked_g"], rel=0.01)
        assert result["heat.done_min"] > result["heat.lost_g"] * 2257 / 620 / 60

    def test_a_weaker_flame_takes_longer(self):
        low = told("tray-rice", schools={"finish": "set"}, heat={"level": "low"})
        assert low["heat.done_min"] > told("tray-rice", schools={"finish": "set"})["heat.done_min"]


class TestPounding:
    def test_by_hand(self):
        """720 g: 7 minutes by machine and 3 a kilogram; 9 and 9 in a mortar."""
        machine, mortar = told("pounded"), told("pounded", schools={"pound": "mortar"})
        kg = machine["mix.cooked_g"] / 1000
        assert machine["heat.pound_min"] == pytest.approx(7 + 3 * kg)
        assert mortar["heat.pound_min"] == pytest.approx(9 + 9 * kg)
        # A ball of it has 4.836 V^(2/3) of skin; from 92 to 60 °C in a room at 20 it takes ln(72/40) = 0.588 of m c / (h A).
        assert mortar["heat.pound_hot_min"] / machine["heat.pound_hot_min"] == pytest.approx(12 / 26)

    def test_a_mass_that_cools_too_soon_is_said_to(self):
        result = worked("pounded", schools={"pound": "bowl"})
        assert result.facts["heat.pound_min"].value > result.facts["heat.pound_hot_min"].value
        assert any("steam it in between" in advice.says for advice in result.advice)

    def test_a_larger_mass_stays_hot_longer(self):
        large, small = of_grain("pounded", 1500).facts, of_grain("pounded", 300).facts
        assert large["heat.pound_hot_min"].value > small["heat.pound_hot_min"].value

    def test_only_what_is_pounded(self):
        assert not [way for way in WAYS if way != "pounded" and "heat.pound_min" in told(way)]


class TestFinishing:
    def test_slices_fried_in_egg(self):
        """Each side crisp when 0.3 kg/m2 have gone at 260 x 65 W/m2, 40 s, and 48 s more to be gold."""
        result = told("set-cake", schools={"finish": "fry"})
        assert result["finish.side_min"] == pytest.approx((0.3 * 2_257_000 / (260 * 65) + 48) / 60, abs=0.1)
        assert result["finish.all_min"] == pytest.approx(result["finish.loads"] * result["finish.each_min"])

    def test_blocks_toasted_until_they_puff(self):
        result = told("pounded", schools={"finish": "block"})
        assert 4 <= result["finish.each_min"] <= 15
        assert result["finish.frozen_min"] > 1

    def test_a_thicker_packet_takes_longer_on_the_griddle(self):
        thin = told("ground-packets", schools={"finish": "griddle"})
        assert thin["finish.each_min"] > 4
        assert "finish.each_min" not in told("ground-packets")

    def test_its_step_lasts_as_long(self):
        result = worked("set-cake", schools={"finish": "fry"})
        fry = next(step for step in result.steps if step.id == "fry")
        assert fry.minutes == pytest.approx(result.facts["finish.all_min"].value)
        assert "hot-oil" in fry.cautions


class TestReducing:
    def reduced(self, kitchen=SEA, pan=""):
        result = document("tray-rice")
        next(part for part in result["parts"] if part["role"] == "syrup")["pan"] = pan
        return {key: fact.value for key, fact in work(sheet_from(result), kitchen).facts.items()}

    def test_by_hand(self):
        """620 W boil off 16.5 g a minute, in a pan 20 cm across (at most 9 x 3.14 dm2 = 28)."""
        result = self.reduced()
        assert result["part.syrup.boil_off_g_per_min"] == pytest.approx(16.48, abs=0.01)
        gone = result["part.syrup.raw_g"] - result["part.syrup.made_g"]
        warm = result["part.syrup.boil_off_min"] - gone / 16.48
        # From 20 to 100 °C; 37 % water, 40 % sugar and 18 % fat: 0.37 x 4180 + 0.4 x 1600 + 0.18 x 2000 = 2550 J/(kg K).
        assert warm == pytest.approx(result["part.syrup.raw_g"] / 1000 * 2550 * 80 / 620 / 60, rel=0.08)

    def test_a_narrow_pan_lets_less_go(self):
        """12 cm across are 1.13 dm2: 10.2 g a minute, whatever the burner has."""
        narrow = Kitchen(room_c=20, pans=(Pan(name="narrow", empty_g=500, across_mm=120),))
        result = self.reduced(narrow, "narrow")
        assert result["part.syrup.boil_off_g_per_min"] == pytest.approx(9 * math.pi * 1.2**2 / 4, abs=0.01)
        assert result["part.syrup.boil_off_min"] > self.reduced()["part.syrup.boil_off_min"]

    def test_a_paste_dries_over_low_heat_and_its_step_lasts_as_long(self):
        result = worked("crushed-balls")
        assert result.facts["part.filling.boil_off_g_per_min"].value == pytest.approx(loss_g_per_min(380))
        dry = next(step for step in result.steps if step.id == "filling-dry")
        assert dry.minutes == pytest.approx(result.facts["part.filling.boil_off_min"].value)


# Where heat has to come in, a lower boil takes longer; where water has to go off, it goes sooner.
HIGHER_IS_SLOWER = [
    ("set-cake", {}),
    ("set-cake", {"cover": "covered"}),
    ("boiled-balls", {}),
    ("boiled-balls", {"done": "float"}),
    ("crushed-balls", {}),
    ("crushed-balls", {"grain": "cooker"}),
    ("folded-pulls", {"cook": "steam"}),
    ("stirred-rounds", {"cook": "steam"}),
    ("ground-packets", {}),
    ("leaf-parcels", {}),
    ("pounded", {}),
    ("tray-rice", {}),
]
HIGHER_IS_SOONER = [("stirred-rounds", {}), ("folded-pulls", {}), ("batter-bake", {}), ("tray-rice", {"finish": "set"})]
STARTED = [
    ("set-cake", "batter_c", 5, 80),
    ("batter-bake", "batter_c", 5, 80),
    ("tray-rice", "batter_c", 30, 85),
    ("boiled-balls", "dough_c", 5, 60),
    ("ground-packets", "dough_c", 5, 80),
    ("leaf-parcels", "dough_c", 5, 80),
]


class TestWhatGrowsWithWhat:
    @pytest.mark.parametrize(("way", "schools"), HIGHER_IS_SLOWER)
    @settings(max_examples=examples(6), deadline=None)
    @given(st.floats(0, 2500), st.floats(150, 1500))
    def test_higher_up_it_takes_longer(self, way, schools, altitude, more):
        low, high = (told(way, Kitchen(altitude_m=m), schools=schools) for m in (altitude, altitude + more))
        assert high["heat.done_min"] > low["heat.done_min"]

    @pytest.mark.parametrize(("way", "schools"), HIGHER_IS_SOONER)
    def test_higher_up_it_dries_sooner(self, way, schools):
        low, high = (told(way, Kitchen(altitude_m=m), schools=schools) for m in (0, 2000))
        key = "heat.dried_min" if "heat.dried_min" in low else "heat.done_min"  # a cooler top browns later
        assert high[key] < low[key]

    @pytest.mark.parametrize(("way", "field", "least", "most"), STARTED)
    @settings(max_examples=examples(6), deadline=None)
    @given(data=st.data())
    def test_a_warmer_start_is_sooner_done(self, way, field, least, most, data):
        cold = data.draw(st.floats(least, most - 3))
        warm = data.draw(st.floats(cold + 2, most))
        item, other = (told(way, start={field: celsius}) for celsius in (cold, warm))
        assert other["heat.done_min"] < item["heat.done_min"]

    @pytest.mark.parametrize("way", ["set-cake", "batter-bake"])
    @settings(max_examples=examples(8), deadline=None)
    @given(st.floats(170, 300), st.floats(0.75, 0.93))
    def test_deeper_takes_longer(self, way, across, narrower):
        """The same batter in a narrower tin stands deeper."""
        wide, deep = (
            told(way, vessel={"tin": {"shape": "round", "diameter_mm": d, "height_mm": 200}})
            for d in (across, across * narrower)
        )
        assert deep["heat.depth_mm"] > wide["heat.depth_mm"]
        assert deep["heat.done_min"] > wide["heat.done_min"]

    @pytest.mark.parametrize("way", sorted(WAYS))
    @settings(max_examples=examples(4), deadline=None)
    @given(st.floats(0.5, 2.0))
    def test_the_kitchens_own_factor_moves_all_of_it(self, way, factor):
        item, other = told(way), told(way, Kitchen(altitude_m=0, room_c=20, time_factor=factor))
        assert other["heat.done_min"] / item["heat.done_min"] == pytest.approx(factor, rel=0.12)


class TestLoads:
    def test_trays_over_shelves(self):
        """Five trays on two shelves: three loads, two changes of three minutes."""
        result = told("batter-bake", vessel={"count": 5, "tin": {"diameter_mm": 120}})
        assert result["heat.loads"] == 3
        assert result["heat.all_loads_min"] == pytest.approx(3 * result["heat.done_min"] + 6)
        waits = result["heat.all_loads_min"] - result["heat.done_min"]
        assert result["heat.waits_c"] == pytest.approx(20 + (result["heat.heart_done_c"] - 20) * math.exp(-waits / 75))

    def test_packets_side_by_side(self):
        """A tier 260 mm across takes three quarters of 531 cm2; a packet 63 mm wide, 39.7: ten, on two tiers twenty."""
        result = told("ground-packets")
        each = math.floor(0.75 * math.pi * 260**2 / 4 / result["shape.side_mm"] ** 2)
        small = Kitchen(steamers=(Steamer(diameter_mm=180, tiers=1),))
        fewer = told("ground-packets", small)
        across = math.floor(0.75 * math.pi * 180**2 / 4 / fewer["shape.side_mm"] ** 2)
        assert result["heat.loads"] == math.ceil(result["shape.pieces"] / (2 * each))
        assert fewer["heat.loads"] == math.ceil(fewer["shape.pieces"] / across) > 1

    def test_parcels_under_the_water_and_topped_up(self):
        """Three litres, a tenth of a litre every ten minutes at 380 W: 15 % gone after 450 / 10.1 = 44.5 min."""
        result = told("leaf-parcels")
        assert result["heat.top_up_at_min"] == pytest.approx(450 / 10.102, abs=0.1)
        assert result["heat.top_up_ml"] == pytest.approx(450)

    def test_a_fuller_pot_lags(self):
        assert 0 < told("boiled-balls")["heat.fuller_min"] < 2

    def test_a_larger_ball_takes_nearly_its_square(self):
        """35.2 mm and half a centimetre more: (40.2 / 35.2) squared is 1.30, and the water's own film a little less."""
        result = told("boiled-balls")
        more = result["heat.thicker_min"] / result["heat.done_min"]
        assert 0.2 < more < (1 + 5 / result["shape.diameter_mm"]) ** 2 - 1


class TestRestAndKeep:
    def test_by_counter_and_by_fridge_whatever_is_chosen(self):
        result = [told("set-cake", schools={"rest": rest}) for rest in ("cool", "chill", "overnight")]
        assert len({round(item["rest.cut_counter_min"], 3) for item in result}) == 1
        assert result[0]["rest.cut_after_min"] == result[0]["rest.cut_counter_min"]
        assert result[1]["rest.cut_after_min"] == result[1]["rest.cut_fridge_min"]
        assert result[2]["rest.cut_after_min"] == 14 * 60

    def test_a_rolled_sheet_is_chilled_and_has_no_hurry(self):
        """By hand, lumped: 8 mm from 65 to 16 °C in a fridge at 5: rho c L / 2h x ln(60/11)."""
        result = worked("stirred-rounds", schools={"wrap": "chill"})
        thick = result.facts["shape.sheet_thick_mm"].value / 1000
        lumped = 1180 * 2950 * thick / 2 / 9 * math.log(60 / 11) / 60
        assert result.facts["rest.chill_min"].value == pytest.approx(lumped, rel=0.15)
        roll = next(step for step in result.steps if step.id == "roll")
        assert roll.minutes == pytest.approx(result.facts["rest.chill_min"].value + 5)

    def test_the_actual_mass_cools(self):
        """3 kg lie 2.5 l over 900 cm2, 28 mm and not 18: longer until it is past use. A parcel cools as a ball."""
        little, much = of_grain("pounded", 400).facts, of_grain("pounded", 2000).facts
        assert much["rest.handle_until_min"].value > 1.3 * little["rest.handle_until_min"].value
        thick = next(
            each_input for each_input in much["rest.handle_from_min"].because.inputs if each_input.ref == "way:board"
        )
        assert thick.value == pytest.approx(much["mix.volume_ml"].value / 90, abs=0.1)
        parcel = worked("leaf-parcels").facts
        across = next(
            each_input for each_input in parcel["rest.handle_from_min"].because.inputs if each_input.ref == "way:parcel"
        )
        assert across.value == pytest.approx(parcel["shape.diameter_mm"].value, abs=0.1)

    def test_first_touch_by_hand(self):
        """Skin at 33 °C and dough meet at a warmth between theirs: what bears 60 °C bears a surface of 33 + 27 (1400 + e) / e,
        e the root of k rho c. Wet hands bear five degrees less, scissors anything."""
        dusted = worked("stirred-rounds").facts["rest.handle_from_min"]
        oiled = worked("stirred-rounds", schools={"dust": "oil"}).facts["rest.handle_from_min"]
        assert 0 <= dusted.low <= dusted.value <= 5
        assert oiled.value > dusted.value
        surface = float(re.search(r"under (\d+)", dusted.because.says).group(1))
        gives = 1400 / ((surface - 33) / 27 - 1)
        assert 1150 < gives < 1450  # of a wet starch gel: 0.45 to 0.5 W/(m K), 1150 kg/m3, 3000 to 3500 J/(kg K)
        assert told("folded-pulls")["rest.handle_from_min"] == 0

    def test_hands_against_the_window(self):
        """Fifteen rounds, a minute and 0.7 each: 11.5 for one cook, half for two."""
        alone, two = told("stirred-rounds"), told("stirred-rounds", Kitchen(room_c=20, cooks=2))
        assert alone["rest.shaping_min"] == pytest.approx(1 + 0.7 * alone["shape.pieces"])
        assert two["rest.shaping_min"] == pytest.approx(alone["rest.shaping_min"] / 2)

    def test_what_spoils_limits_it_first(self):
        cake, baked = told("set-cake"), told("batter-bake")
        assert baked["keep.room_h"] == baked["keep.eat_within_h"] == 2
        assert baked["keep.limited_by"] in ("Milk, whole", "Coconut milk, thick", "Egg", "Butter")
        assert baked["keep.frozen_days"] < cake["keep.frozen_days"]
        assert cake["keep.limited_by"] in ("it turns hard", "it sours")

    def test_cold_hardens_it_sooner(self):
        """At 5 °C the index runs 1 + 2 x 15/16 = 2.875 times as fast as at 20."""
        result = told("set-cake")
        assert result["keep.hard_after_h"] / result["keep.hard_cold_h"] == pytest.approx(2.875, rel=0.01)

    @pytest.mark.parametrize("way", sorted(WAYS))
    def test_every_keeping_is_said_to_be_an_index(self, way):
        facts = worked(way).facts
        for key in ("keep.cold_h", "keep.frozen_days", "keep.hard_after_h", "keep.hard_cold_h", "keep.eat_within_h"):
            assert "an index, not a safety validation" in facts[key].because.says
        assert facts["keep.restore"].value == WAYS[way].restores


class TestSides:
    @pytest.mark.parametrize("way", sorted(WAYS))
    def test_each_side_is_the_sheet_worked_that_way(self, way):
        sheet = default_sheet(way)
        for question in questions(WAYS[way]):
            schools_compared = compare_schools(sheet, SEA, question.id)
            assert len(schools_compared.sides) >= 2
            assert sum(side.followed for side in schools_compared.sides) == 1
            assert all(
                len(side.shown) == len(schools_compared.rows) == len(schools_compared.units)
                for side in schools_compared.sides
            )
            for i, _ in enumerate(schools_compared.rows):
                assert (
                    len({side.shown[i] for side in schools_compared.sides}) > 1
                )  # a row that tells nothing is not shown
            if question.id == "soak":
                continue
            for side in schools_compared.sides:
                alone = told(way, schools={question.id: side.id})
                assert side.done == alone.get("heat.done_min")

    def test_float_and_on(self):
        """At the float the frozen heart is cold; simmered on, it is hot. Both are shown."""
        schools_compared = compare_schools(default_sheet("boiled-balls"), SEA, "done")
        row = schools_compared.rows.index("heart when done")
        by = {side.id: side for side in schools_compared.sides}
        assert float(by["float"].shown[row]) < 10
        assert float(by["float-then-simmer"].shown[row]) >= 72
        assert "Simmer on" in " ".join(by["float"].says)

    def test_soaked_and_not_with_the_water_cut_to_match(self):
        schools_compared = compare_schools(default_sheet("crushed-balls"), SEA, "soak")
        pour = schools_compared.rows.index("liquid to pour on")
        poured = [float(side.shown[pour]) for side in schools_compared.sides]
        assert poured == sorted(poured, reverse=True)
        done = [side.done for side in schools_compared.sides]
        assert done == sorted(done, reverse=True)

    def test_what_is_compared_has_words(self):
        assert set(COMPARED) <= set(KEYS)

    def test_a_side_that_cannot_be_worked_says_why(self):
        small = {"tin": {"diameter_mm": 60, "height_mm": 30}}
        schools_compared = compare_schools(sheet_from(document("stirred-rounds", vessel=small)), SEA, "cook")
        steamed = next(side for side in schools_compared.sides if side.id == "steam")
        assert steamed.done is None
        assert "deep in a dish" in steamed.problems[0].says

    def test_a_question_that_is_not_asked(self):
        with pytest.raises(Refused, match="not asked here"):
            compare_schools(default_sheet("set-cake"), SEA, "soak")


def test_a_brick_is_the_product_of_three_slabs():
    """An oblong tin against a march of all its cells in three dimensions, written here: fixed and convective surfaces."""
    from kemble.core.kitchen.document import Tin
    from kemble.core.physics.steaming import PotCooling, SteamSupply
    from kemble.core.physics.thermal import Material
    from kemble.core.stations.heat.steam import _STEPS, _SteamedTin

    plenty = SteamSupply(1e9, 0.0, 0.0, 0.0)
    k, rho, cp = 0.45, 1170.0, 2790.0
    sides_m, cells = (0.06, 0.05, 0.03), (24, 20, 12)
    for h in (math.inf, 120.0):
        celsius = np.full(cells, 20.0)
        steps = [side / n for side, n in zip(sides_m, cells, strict=True)]
        dt = 0.12 * min(steps) ** 2 / (k / rho / cp)
        times, hearts = [0.0], [20.0]
        for i in range(1, int(1500 / dt)):
            change = np.zeros(cells)
            for axis, dx in enumerate(steps):
                flow = np.diff(celsius, axis=axis) * k / dx
                ends = [np.take(celsius, [at], axis=axis) for at in (0, -1)]
                skin = 1.0 / (dx / 2 / k + (0.0 if math.isinf(h) else 1 / h))
                edges = [(ends[0] - 100.0) * skin, (100.0 - ends[1]) * skin]
                change += np.diff(np.concatenate((edges[0], flow, edges[1]), axis=axis), axis=axis) / dx
            celsius += dt * change / (rho * cp)
            times.append(i * dt)
            hearts.append(float(celsius[11:13, 9:11, 5:7].mean()))
        tin = Tin(shape="oblong", length_mm=60, width_mm=50, height_mm=40)
        ours = _SteamedTin(
            depth=0.03,
            tin=tin,
            lining="none",
            material=Material(k, rho, cp),
            steam_h=h,
            foil_h=None,
            conducts=1.0,
            tin_j=3200.0,
            start_c=20.0,
            stages=((0.0, plenty),),
            at_once=1,
            cools=PotCooling(20.0, 1500.0),
            gel_c=75.0,
            needs=0.0,
        )
        steamed_curves = ours.curves(1400.0, np.full(_STEPS + 1, 100.0))
        later = steamed_curves.times > 30
        assert np.abs(steamed_curves.core - np.interp(steamed_curves.times, times, hearts))[later].max() < 0.5


class TestFinishedAnotherWay:
    def test_both_faces_at_once_are_quicker_than_one_after_the_other(self):
        """Four to eight minutes in the glow; in a pan each face has the heat half of the time."""
        glow, pan = (told("pounded", schools={"finish": "block", "puff": school}) for school in ("glow", "pan"))
        assert 3.5 <= glow["finish.each_min"] <= 8
        assert pan["finish.each_min"] > 1.2 * glow["finish.each_min"]
        assert "finish.side_min" not in glow
        assert pan["finish.side_min"] == pytest.approx(pan["finish.each_min"] / 2)
        assert glow["finish.frozen_min"] < 0.9 * glow["finish.each_min"]  # hardly more from the freezer

    def test_deep_oil_is_the_quickest_and_a_hotter_pan_quicker(self):
        egg, plain, deep = (
            told("set-cake", schools={"finish": "fry", "fried": school})["finish.each_min"]
            for school in ("egg", "plain", "deep")
        )
        assert deep < egg < plain
        hot = told("set-cake", schools={"finish": "fry"}, heat={"griddle_c": 200})["finish.each_min"]
        assert hot < egg

    def test_a_steamer_with_its_own_machine(self):
        """900 W rated, 0.92 of it into the water: 828 W less 130 are 31 g of vapour a minute less what the lid takes."""
        own = Kitchen(altitude_m=0, room_c=20, steamers=(Steamer(watts=900),))
        result = told("set-cake", own)
        assert result["heat.water_loss_g_per_min"] == pytest.approx(loss_g_per_min(828))
        assert result["heat.done_min"] < told("set-cake")["heat.done_min"]
        assert told("set-cake", own, heat={"level": "low"})["heat.done_min"] == result["heat.done_min"]

    def test_low_medium_and_high_are_in_order_for_every_steamed_way(self):
        for way, schools in (
            ("set-cake", {}),
            ("stirred-rounds", {"cook": "steam"}),
            ("ground-packets", {}),
            ("pounded", {}),
        ):
            low, medium, high = (
                told(way, schools=schools, heat={"level": level})["heat.done_min"]
                for level in ("low", "medium", "high")
            )
            assert low > medium > high, way


@pytest.mark.parametrize("start", ["frozen", "chilled"])
def test_balls_taken_out_when_they_float_are_told_no_rest(start):
    """Their middle is cold then, so that no cooling of the whole says when they can be eaten; simmered on, it does."""
    content = default_sheet("boiled-balls").model_dump(mode="json")
    for done, has_rest in (("float", False), ("float-then-simmer", True)):
        content["schools"].update(start=start, done=done)
        worked = work(sheet_from(content), Kitchen())
        assert worked.problems == []
        assert ("rest.handle_until_min" in worked.facts) is has_rest
        assert (worked.cooling is not None) is has_rest
        assert any("cannot say how long to let it stand" in each.says for each in worked.advice) is not has_rest
        assert "rest.soften_min" in worked.facts

"""A stirred mass over a burner: the straight line it rises by, its energy, and the windows that cooks would give."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.kitchen.document import Burner, Kitchen, Pan
from kemble.core.physics.stove import cools_s, stir
from kemble.core.physics.thermal import LATENT_STEAM
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(altitude_m=0)


def told(way="stirred-rounds", kitchen=KITCHEN, **more):
    worked = work(sheet_from({**default_sheet(way).model_dump(mode="json"), **more}), kitchen)
    assert worked.problems == []
    return {key: fact.value for key, fact in worked.facts.items()}


class TestStir:
    def test_shut_in_it_rises_by_power_over_heat_capacity(self):
        """500 W into half a kilogram of 3500 J/(kg K): 0.2857 °C a second, so 51.4 after three minutes."""
        run = stir(mass_kg=0.5, cp=3500, start_c=20, boil_c=100, power_w=500, open_m2=0, end_s=180)
        assert run.celsius[-1] == pytest.approx(20 + 51.43, abs=0.01)

    def test_at_the_boil_all_of_the_power_dries_it(self):
        """500 W over 2.257 MJ/kg: 13.3 g a minute."""
        run = stir(mass_kg=0.5, cp=3500, start_c=100, boil_c=100, power_w=500, open_m2=0, end_s=600)
        assert run.lost_kg[-1] == pytest.approx(500 * 600 / LATENT_STEAM)
        assert run.celsius.max() == 100

    @settings(max_examples=examples(30))
    @given(st.floats(0.05, 3), st.floats(100, 3000), st.floats(0, 0.1), st.floats(5, 60))
    def test_energy_is_kept(self, kg, watts, area, start):
        run = stir(mass_kg=kg, cp=3400, start_c=start, boil_c=99, power_w=watts, open_m2=area, end_s=1200)
        assert np.allclose(run.put_in, run.stored + run.dried, rtol=1e-9, atol=1e-6 * watts)

    def test_a_wide_pan_over_a_low_flame_never_gets_there(self):
        run = stir(mass_kg=0.5, cp=3400, start_c=20, boil_c=100, power_w=150, open_m2=0.06, end_s=3600)
        assert run.celsius[-1] < 85


class TestTheStation:
    def test_as_cooks_time_them(self):
        """Half a kilogram is stirred for five to fifteen minutes, by the flame; a microwave oven takes four to nine."""
        for way in ("stirred-rounds", "folded-pulls"):
            for level in ("low", "medium"):
                result = told(way, heat={"level": level})
                assert 4 <= result["heat.first_check_min"] < result["heat.done_min"] < result["heat.latest_min"] <= 16
        bursts = told(schools={"cook": "microwave"})
        assert 3.5 <= bursts["heat.first_check_min"] < bursts["heat.done_min"] < bursts["heat.latest_min"] <= 10

    def test_it_loses_what_its_way_loses(self):
        result = told()
        assert 5 - 1e-6 <= 100 * result["heat.lost_g"] / result["mix.batch_g"] <= 15
        assert told(schools={"cook": "microwave"})["heat.lost_g"] < 3

    @settings(max_examples=examples(12), deadline=None)
    @given(st.floats(0.5, 2.5), st.floats(500, 1500))
    def test_more_of_it_and_less_heat_take_longer(self, times, watts):
        document = default_sheet("stirred-rounds").model_dump(mode="json")
        for line in document["parts"][0]["lines"]:
            line["amount"]["value"] *= times
        at = Kitchen(altitude_m=0, burner=Burner(medium_w=watts))
        usual = told(kitchen=at)["heat.done_min"]
        scaled = work(sheet_from(document), at).facts["heat.done_min"].value
        assert (scaled > usual) == (times > 1) or times == pytest.approx(1, abs=0.02)
        weak = Kitchen(altitude_m=0, burner=Burner(medium_w=watts * 0.8))
        assert told(kitchen=weak)["heat.done_min"] > usual

    def test_a_stronger_microwave_oven_is_sooner_done(self):
        strong = Kitchen(altitude_m=0, microwave_w=1100)
        usual = told(schools={"cook": "microwave"})["heat.done_min"]
        assert told(kitchen=strong, schools={"cook": "microwave"})["heat.done_min"] < usual

    def test_a_flame_too_low_for_so_much(self):
        document = default_sheet("stirred-rounds").model_dump(mode="json")
        for line in document["parts"][0]["lines"]:
            line["amount"]["value"] *= 8
        weak = Kitchen(altitude_m=0, burner=Burner(low_w=60, medium_w=60))
        problem = work(sheet_from(document), weak).problems[0]
        assert problem.path == "heat.level"
        assert "higher level" in problem.accepts


class TestSyrupThatCools:
    def test_as_small_steps_of_time_have_it(self):
        """Marched by the second, with Tetens' vapour pressure in place of Antoine's: within 2 %."""
        of = {"joules_per_k": 2400.0, "room_c": 21.0, "open_m2": 0.04, "wall_m2": 0.006}
        at, seconds = 76.0, 0
        while at > 43.0:
            vapour = 0.9 * 610.78 * 10 ** (7.5 * at / (at + 237.3)) - 1200.0
            gone_w = 7.5 * 0.04 * (at - 21.0 + vapour * 0.0138) + 11.0 * 0.006 * (at - 21.0)
            at -= gone_w / 2400.0
            seconds += 1
        assert cools_s(start_c=76.0, to_c=43.0, **of) == pytest.approx(seconds, rel=0.02)

    def test_without_vapour_it_falls_as_newton_has_it(self):
        """No open top: 2000 J/K over 11 W/(m2 K) and 0.05 m2, from 60 to 40 in 20 °C: 3636 s times ln 2 = 2520 s."""
        seconds = cools_s(joules_per_k=2000, start_c=60, to_c=40, room_c=20, open_m2=0, wall_m2=0.05)
        assert seconds == pytest.approx(2520.5, rel=0.001)

    def test_at_its_ends(self):
        of = {"joules_per_k": 2000.0, "open_m2": 0.03, "wall_m2": 0.01}
        assert cools_s(start_c=40, to_c=43, room_c=20, **of) == 0.0
        assert cools_s(start_c=60, to_c=30, room_c=31, **of) == float("inf")

    def test_on_a_sheet(self):
        """More of it, a narrower pan, a warmer room, from the boil: each cools more slowly; and with a window."""
        content = default_sheet("set-cake").model_dump(mode="json")
        usual = told("set-cake")["heat.syrup_cools_min"]
        burnt = told("set-cake", schools={**content["schools"], "syrup": "burnt"})["heat.syrup_cools_min"]
        warm = told("set-cake", KITCHEN.model_copy(update={"room_c": 27.0}))["heat.syrup_cools_min"]
        narrow = KITCHEN.model_copy(update={"pans": (Pan(name="small pan", across_mm=160, empty_g=500),)})
        content["parts"][0]["pan"] = "small pan"
        small = told("set-cake", narrow, parts=content["parts"])["heat.syrup_cools_min"]
        for part in content["parts"]:
            for line in part["lines"]:
                line["amount"]["value"] *= 1.4
        more = told("set-cake", parts=content["parts"], vessel={**content["vessel"], "count": 2})[
            "heat.syrup_cools_min"
        ]
        assert usual < min(burnt, warm, small, more)
        worked = work(default_sheet("set-cake"), KITCHEN)
        step = next(step for step in worked.steps if step.id == "cool-syrup")
        assert step.minutes == pytest.approx(usual)
        assert step.between.least < usual < step.between.most

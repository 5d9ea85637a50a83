"""A stirred mass over a burner: the straight line it rises by, its energy, and the windows that cooks would give."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.kitchen.document import Burner, Kitchen
from kemble.core.physics.stove import stir
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

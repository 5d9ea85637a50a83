"""A batter in the oven, against steam tables, conduction alone, energy, finer grids, and what must grow with what."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from iapws import IAPWS97
from thorough import examples

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.physics import baking, conduction
from kemble.core.physics.baking import Oven, OvenSlab, bake, bake_all, browned
from kemble.core.physics.conduction import DecayModes
from kemble.core.physics.thermal import LATENT_STEAM, Material, boiling_point_c, saturation_pa
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

BATTER = Material(k=0.45, rho=1170.0, cp=2790.0)
OVEN = Oven(air_c=175.0, boil_c=100.0, h_top=23.0, h_floor=23.0)
KITCHEN = Kitchen(altitude_m=0)


def baked(depth=0.025, water=0.43, start=21.0, oven=OVEN, minutes=90, cells=baking.CELLS, steps=baking.STEPS):
    body = conduction.slab(depth, BATTER, oven.h_floor, oven.h_top, cells, even=True)
    return bake(OvenSlab(body, BATTER, water, start, oven, minutes * 60.0), steps)


def tray(kitchen=KITCHEN, **more):
    worked = work(sheet_from({**default_sheet("batter-bake").model_dump(mode="json"), **more}), kitchen)
    assert worked.problems == []
    return {key: fact.value for key, fact in worked.facts.items()}


def square(height=60, **more):
    return {"tin": {"shape": "oblong", "length_mm": 200, "width_mm": 200, "height_mm": height, **more}}


@pytest.mark.parametrize("celsius", range(5, 200, 5))
def test_the_vapour_pressure_of_water_as_steam_tables_have_it(celsius):
    table = IAPWS97(T=celsius + 273.15, x=1).P * 1e6
    assert saturation_pa(celsius) == pytest.approx(table, rel=0.009)


@pytest.mark.parametrize("altitude", [0, 240, 1000, 2500, 4000])
def test_water_boils_where_its_vapour_pressure_is_the_airs(altitude):
    pressure = 101_325 * (1 - 2.25577e-5 * altitude) ** 5.25588
    table = IAPWS97(P=pressure / 1e6, x=1).T - 273.15
    assert boiling_point_c(altitude) == pytest.approx(table, abs=0.25)


@given(st.floats(0.008, 0.07), st.floats(0.1, 0.7), st.floats(2, 60), st.floats(130, 250))
@settings(max_examples=examples(20), deadline=None)
def test_energy_is_kept(depth, water, start, air):
    result = baked(depth, water, start, Oven(air, 100.0, 23.0, 23.0))
    gone = result.stored + result.dried * LATENT_STEAM
    assert np.abs(result.heat - gone).max() <= 0.005 * result.heat[-1]
    assert result.dried[-1] <= depth * BATTER.rho * water * (1 + 1e-9)  # never more than there was


def test_without_drying_it_is_conduction_alone(monkeypatch):
    """No vapour, a boiling point out of reach, a door that was never open: the modes of a slab, within half a kelvin."""
    monkeypatch.setattr(baking, "DRY_SHARE", 0.0)
    monkeypatch.setattr(baking, "DOOR_DROP_C", 0.0)
    dry = Oven(175.0, 900.0, 23.0, 23.0, wet_share=0.0)
    result = baked(oven=dry, cells=40, steps=600)
    body = conduction.slab(0.025, BATTER, 23.0, 23.0, 40, even=True)
    left = DecayModes(body).remaining(result.times)
    exact = 175.0 + (21.0 - 175.0) * left
    later = result.times > 60
    assert np.abs(result.cells - exact)[later].max() < 0.5


def test_finer_cells_and_shorter_steps_change_little():
    """The minute at which the heart is at 90 °C, and at which a kilogram a square metre is gone: within 3 %."""

    def told(cells, steps):
        result = baked(cells=cells, steps=steps)
        heart = result.cells.min(axis=1)
        return np.interp(90, heart, result.times), np.interp(1.0, result.dried, result.times)

    used = told(baking.CELLS, baking.STEPS)
    fine, finest = told(48, 400), told(96, 1600)
    assert used == pytest.approx(finest, rel=0.03)
    errors = [max(abs(a / b - 1) for a, b in zip(item, finest, strict=True)) for item in (used, fine)]
    assert errors[1] < errors[0]


def test_nothing_wet_is_hotter_than_boiling():
    result = baked()
    assert result.cells[:, 8:-8].max() <= 100.0 + 0.01  # the middle is wet all through an hour and a half
    assert result.top[-1] > 100  # and the top is not


def test_side_by_side_each_is_as_it_is_alone():
    def tray_of(depth, start, air):
        oven = Oven(air, 100.0, 23.0, 23.0)
        body = conduction.slab(depth, BATTER, oven.h_floor, oven.h_top, baking.CELLS, even=True)
        return OvenSlab(body, BATTER, 0.43, start, oven, 4000 * depth / 0.02)

    trays = [tray_of(0.02, 21, 175), tray_of(0.035, 5, 160), tray_of(0.012, 60, 220)]
    for together, alone in zip(bake_all(trays, 40), [bake(tray, 40) for tray in trays], strict=True):
        assert np.allclose(together.cells, alone.cells, atol=1e-9)
        assert np.allclose(together.dried, alone.dried, atol=1e-12)


def test_browning_counts_double_for_eight_degrees():
    times = np.array([0.0, 600.0])
    assert browned(times, np.array([120.0, 120.0]))[-1] == pytest.approx(10)
    assert browned(times, np.array([128.0, 128.0]))[-1] == pytest.approx(20)


class TestTheStation:
    def test_a_tray_as_cooks_bake_it(self):
        """Two fingers deep at 175 °C: cooks look from half an hour on and take it out golden after 40 to 60 minutes."""
        result = tray(vessel=square())
        assert 20 < result["shape.depth_mm"] < 22
        assert 30 <= result["heat.first_check_min"] <= result["heat.done_min"] <= result["heat.latest_min"] <= 70
        assert 40 <= result["heat.done_min"] <= 55
        assert result["heat.core_hot_min"] < result["heat.done_min"]
        assert result["heat.dried_pct"] >= 5.99  # the least that the way loses

    @settings(max_examples=examples(15), deadline=None)
    @given(st.floats(150, 230), st.floats(1.1, 1.6))
    def test_deeper_takes_longer_and_a_hotter_oven_less(self, oven_c, times):
        wide = {"tin": {"shape": "oblong", "length_mm": 300, "width_mm": 200, "height_mm": 90}}
        deep = {"tin": {"shape": "oblong", "length_mm": 300 / times, "width_mm": 200, "height_mm": 90}}
        at = {"heat": {"oven_c": oven_c}}
        shallow = tray(vessel=wide, **at)["heat.done_min"]
        assert tray(vessel=deep, **at)["heat.done_min"] > shallow
        assert tray(vessel=wide, heat={"oven_c": oven_c + 15})["heat.done_min"] < shallow

    def test_a_colder_start_and_a_cooler_oven_cost_what_is_told(self):
        usual = tray(vessel=square())
        cold = tray(vessel=square(), start={"batter_c": 5})
        weak = tray(vessel=square(), heat={"oven_c": 160})
        assert cold["heat.done_min"] - usual["heat.done_min"] == pytest.approx(usual["heat.colder_min"], abs=0.5)
        assert weak["heat.done_min"] - usual["heat.done_min"] == pytest.approx(usual["heat.cooler_min"], abs=0.5)

    def test_glass_is_slower_than_metal(self):
        assert tray(vessel=square(material="glass"))["heat.done_min"] > tray(vessel=square())["heat.done_min"]

    def test_higher_up_it_dries_at_a_lower_boil(self):
        low, high = tray(vessel=square()), tray(Kitchen(altitude_m=3000), vessel=square())
        assert high["heat.heart_done_c"] < low["heat.heart_done_c"]
        assert math.isfinite(high["heat.done_min"])

    def test_the_top_before_the_heart_is_told(self):
        deep = default_sheet("batter-bake").model_dump(mode="json")
        deep["vessel"] = {"tin": {"shape": "round", "diameter_mm": 150, "height_mm": 90}}
        advice = [advice.says for advice in work(sheet_from(deep), KITCHEN).advice]
        assert any("lay foil over it" in name for name in advice)

    def test_a_batter_too_deep_to_set(self):
        deep = default_sheet("batter-bake").model_dump(mode="json")
        deep["vessel"] = {"tin": {"shape": "round", "diameter_mm": 90, "height_mm": 200}}
        deep["heat"] = {"oven_c": 120}
        assert work(sheet_from(deep), KITCHEN).problems[0].path == "vessel"

    @pytest.mark.parametrize("oven", [0, 119, 261, "hot", None])
    def test_an_oven_that_is_none(self, oven):
        with pytest.raises(Refused, match="oven_c"):
            sheet_from({**default_sheet("batter-bake").model_dump(mode="json"), "heat": {"oven_c": oven}})

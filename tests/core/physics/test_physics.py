"""Correlations against figures from tables and sums done by hand."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.kitchen.larder import Composition, larder
from kemble.core.physics.doneness import gel_temperature_c, gelled
from kemble.core.physics.freezing import freeze_hard_s
from kemble.core.physics.shelf_life import hard_after_h, room_h
from kemble.core.physics.steamer import SteamerStage, boiled_off_g, lifted_lid_s, loss_g_per_min, water_plan
from kemble.core.physics.stove import kettle_w
from kemble.core.physics.thermal import (
    boiling_point_c,
    fractions,
    freezing_point_c,
    ice_fraction,
    pressure_pa,
    properties,
)


@pytest.mark.parametrize(
    ("altitude_m", "celsius"),
    [(0, 100.0), (240, 99.2), (500, 98.3), (1000, 96.7), (1500, 95.0), (2000, 93.3), (3000, 90.0)],
)
def test_boiling_point_at_height(altitude_m, celsius):
    """Steam-table figures at the standard atmosphere's pressure."""
    assert boiling_point_c(altitude_m) == pytest.approx(celsius, abs=0.25)


def test_pressure_of_the_standard_atmosphere():
    assert pressure_pa(0) == pytest.approx(101_325)
    assert pressure_pa(2000) == pytest.approx(79_495, rel=0.001)


def test_water_has_the_properties_of_water():
    water = properties({"water": 1.0}, 60.0)
    assert water.k == pytest.approx(0.651, abs=0.01)
    assert water.rho == pytest.approx(983, abs=3)
    assert water.cp == pytest.approx(4185, abs=25)


def test_fractions_add_up():
    for item in larder().values():
        assert sum(fractions(item.per_100_g).values()) == pytest.approx(1.0)


@pytest.mark.parametrize(("sugar_to_water", "rise"), [(0.0, 0.0), (0.5, 9.0), (1.0, 20.5)])
def test_sugar_raises_the_gel_temperature(sugar_to_water, rise):
    assert gel_temperature_c(sugar_to_water, 2.0) == pytest.approx(65.0 + rise)


def test_want_of_water_raises_it_too():
    assert gel_temperature_c(0.0, 0.7) > gel_temperature_c(0.0, 1.0) > gel_temperature_c(0.0, 1.5)


def test_gelling_at_a_steady_temperature_is_first_order():
    """At the gel temperature the rate is 0.005 a second: after 300 s, 1 - exp(-1.5) = 0.7769."""
    times = np.linspace(0, 300, 31)
    assert gelled(times, np.full(31, 75.0), 75.0)[-1] == pytest.approx(1 - math.exp(-1.5))
    assert gelled(times, np.full(31, 20.0), 75.0)[-1] < 1e-4


def test_a_kilowatt_boils_off_26_6_grams_a_minute():
    """1000 W x 60 s / 2257 J/g."""
    assert loss_g_per_min(1000.0) == pytest.approx(26.58, abs=0.01)


def test_the_water_under_the_rack():
    """20 cm pot: 31.416 ml a mm. 25 mm full, 10 mm low, 620 W = 16.48 g/min.

    (25 - 10) x 31.416 = 471.2 ml last 28.59 min; 11.41 min more boil off 188.0, and a fifth more is 225.7 ml: 230 by
    the jug.
    """
    plan = water_plan(diameter_mm=200, full_mm=25, low_mm=10, stages=[SteamerStage(math.inf, 620)], minutes=40)
    assert plan.start_ml == pytest.approx(785.4, abs=0.1)
    assert len(plan.top_ups) == 1
    at, ml = plan.top_ups[0]
    assert at == pytest.approx(28.59, abs=0.01)
    assert ml == pytest.approx(230.0)


@given(
    st.floats(120, 500),
    st.floats(15, 80),
    st.floats(100, 3000),
    st.floats(5, 300),
    st.floats(0, 30),
    st.floats(100, 3000),
)
def test_the_steamer_never_runs_below_its_low_mark(diameter_mm, full_mm, net_w, minutes, first, strong_w):
    stages = [SteamerStage(first, strong_w), SteamerStage(math.inf, net_w)]
    plan = water_plan(diameter_mm=diameter_mm, full_mm=full_mm, low_mm=10, stages=stages, minutes=minutes)
    if len(plan.top_ups) == 40:
        return  # a puddle under a blowtorch: no plan of top-ups helps
    for minute in np.linspace(0, minutes, 200):
        level = plan.level_ml(float(minute))
        assert plan.low_ml - 1e-6 <= level <= plan.full_ml + 1e-6


def test_strong_then_gentle_boils_off_each_by_its_own_power():
    """Ten minutes of 1500 W and twenty of 380: 10 x 39.88 + 20 x 10.10 = 600.8 g."""
    stages = [SteamerStage(10.0, 1500.0), SteamerStage(math.inf, 380.0)]
    assert boiled_off_g(stages, 30.0) == pytest.approx(600.8, abs=0.1)
    assert boiled_off_g(stages, 5.0) == pytest.approx(199.4, abs=0.1)
    plan = water_plan(diameter_mm=200, full_mm=25, low_mm=10, stages=stages, minutes=30)
    # 471.2 ml: 398.8 in the first ten minutes, the other 72.4 in 7.17 more.
    assert plan.top_ups[0][0] == pytest.approx(17.17, abs=0.02)


def test_a_litre_in_six_minutes_twenty():
    """1000 ml x 4.19 J/(ml K) x 80 K = 335.2 kJ in 380 s: 882 W in the water, 919 with what the kettle took."""
    assert kettle_w(water_ml=1000, start_c=20, boil_c=100, seconds=380) == pytest.approx(335_200 / 380 / 0.96)
    for wrong in ({"water_ml": 0}, {"seconds": 0}, {"start_c": 100}):
        with pytest.raises(ValueError, match="above nothing"):
            kettle_w(**{"water_ml": 1000, "start_c": 20, "boil_c": 100, "seconds": 380, **wrong})


def test_a_look_under_the_lid_costs_more_over_a_weak_flame():
    """An open surface of 1 m2 at 100 °C loses 7.5 x (80 + 0.0138 x (101 300 - 1200)) = 10.96 kW; doubled, for 20 s."""
    over = lifted_lid_s(open_m2=0.05, net_w=600.0, boil_c=100.0, open_s=20.0)
    assert over == pytest.approx(20 + 2 * 10_960 * 0.05 * 20 / 600, rel=0.01)
    assert lifted_lid_s(open_m2=0.05, net_w=300.0, boil_c=100.0, open_s=20.0) > over


def test_ice_by_raoult():
    """10 g sugar in 90 g water: 29.2 mmol in 0.09 kg = 0.325 molal, -0.604 °C. Half the ice of -6.04 °C... nine tenths."""
    syrup = Composition(water=90, sugar=10)
    assert freezing_point_c(syrup) == pytest.approx(-0.604, abs=0.002)
    assert ice_fraction(syrup, -6.04) == pytest.approx(0.9 * 0.9, abs=0.002)
    assert ice_fraction(syrup, 0.0) == 0.0


def test_freezing_by_plank():
    """A 25 mm ball of pure water from 0 °C on a -18 °C shelf, h = 9, worked by hand.

    Correlations at 0 °C: k 0.5711, rho 997.2, cp 4176. Ice at -18: 1 (sugar-free, so it freezes at once).
    Plank: 997.2 x 333600 / 14 x (0.025/54 + 0.025**2/(24 x 0.5711)) = 12 084 s.
    Sensible: 997.2 x 4176 x 0.025/6 x (1/9 + 0.025/5.711) x ln(18/5) = 2566 s.
    """
    water = larder()["water"].composition(10.0)
    seconds = freeze_hard_s(water, diameter_m=0.025, start_c=0.0, shelf_c=-18.0, h=9.0)
    assert seconds == pytest.approx(12_084 + 2_566, rel=0.01)


def test_keeping_is_an_index_with_the_right_signs():
    base = hard_after_h(80, 6, 130, celsius=20)
    assert hard_after_h(90, 6, 130, celsius=20) > base
    assert hard_after_h(80, 8, 130, celsius=20) > base
    assert hard_after_h(80, 6, 130, celsius=4) == pytest.approx(base / 3)
    assert room_h(36, perishable=True, room_c=21) == 2.0
    assert room_h(36, perishable=False, room_c=28) == pytest.approx(room_h(36, perishable=False, room_c=21) / 2)

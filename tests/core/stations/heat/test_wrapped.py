"""Parcels and packets: cook values by hand, against a closed form, and what must grow with what."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.kitchen.document import Kitchen
from kemble.core.physics.doneness import cook_value_min, grain_needs_min
from kemble.core.physics.thermal import Material
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.heat.wrapped_parcels import _WrappedPiece
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(altitude_m=0)
GRAIN = Material(k=0.48, rho=1120.0, cp=3200.0)


def told(way, kitchen=KITCHEN, **more):
    worked = work(sheet_from({**default_sheet(way).model_dump(mode="json"), **more}), kitchen)
    assert worked.problems == []
    return {key: fact.value for key, fact in worked.facts.items()}


class TestCookValue:
    def test_by_hand(self):
        """Ten minutes at 100 °C are ten; at 70 °C, thirty degrees below, a tenth of that; at 85 °C 0.316 of it."""
        times = np.array([0.0, 600.0])
        assert cook_value_min(times, np.full(2, 100.0))[-1] == pytest.approx(10)
        assert cook_value_min(times, np.full(2, 70.0))[-1] == pytest.approx(1)
        assert cook_value_min(times, np.full(2, 85.0))[-1] == pytest.approx(10 * 10**-0.5)

    def test_soaked_grain_wants_the_quarter_of_an_hour_that_cooks_give_it(self):
        assert 15 <= grain_needs_min(36, 36.6) <= 25
        assert grain_needs_min(0, 36.6) == 60
        needs = [grain_needs_min(taken, 36.6) for taken in range(0, 37, 4)]
        assert needs == sorted(needs, reverse=True)


def test_the_heart_of_a_parcel_as_the_series_for_a_sphere_has_it():
    """A sphere of 50 mm in water at 100 °C, h 320: the first six terms of its series, within half a kelvin."""
    radius, h, start, around = 0.025, 320.0, 26.0, 100.0
    biot = h * radius / GRAIN.k
    roots = []
    for n in range(6):  # z cot z = 1 - Bi, one root in each (n pi, (n + 1) pi)
        low, high = n * math.pi + 1e-9, (n + 1) * math.pi - 1e-9
        for _ in range(80):
            middle = (low + high) / 2
            if 1 - middle / math.tan(middle) - biot < 0:
                low = middle
            else:
                high = middle
        roots.append((low + high) / 2)
    times = np.linspace(0, 5400, 60)
    fourier = GRAIN.alpha * times / radius**2
    series = sum(
        4 * (math.sin(z) - z * math.cos(z)) / (2 * z - math.sin(2 * z)) * np.exp(-(z**2) * fourier) for z in roots
    )
    piece = _WrappedPiece(thick=0.05, side=None, material=GRAIN, h=h, start_c=start)
    heart, _ = piece.curves(times, float(around))
    later = times > 200
    assert np.abs(heart - (around + (start - around) * series))[later].max() < 0.5


class TestTheStation:
    def test_packets_and_parcels_as_cooks_time_them(self):
        """Flat packets want about half an hour of steam; parcels are boiled long, an hour to two and a half."""
        packets, parcels = told("ground-packets"), told("leaf-parcels")
        assert 20 <= packets["heat.first_check_min"] < packets["heat.done_min"] < packets["heat.latest_min"] <= 46
        assert 60 <= parcels["heat.first_check_min"] < parcels["heat.done_min"] < parcels["heat.latest_min"] <= 150

    def test_hot_is_not_yet_soft(self):
        result = told("leaf-parcels")
        assert result["heat.core_hot_min"] < result["heat.done_min"] / 2

    def test_hardly_soaked_grain_is_boiled_longer_and_told_to_be(self):
        soaks = [told("leaf-parcels", grain={"soak_min": m})["heat.done_min"] for m in (0, 30, 120, 600)]
        assert soaks == sorted(soaks, reverse=True)
        sheet = sheet_from({**default_sheet("leaf-parcels").model_dump(mode="json"), "grain": {"soak_min": 30}})
        assert any("Hardly soaked" in advice.says for advice in work(sheet, KITCHEN).advice)

    @settings(max_examples=examples(12), deadline=None)
    @given(st.floats(40, 160), st.floats(0, 2800), st.sampled_from(["ground-packets", "leaf-parcels"]))
    def test_heavier_higher_and_colder_take_longer(self, grams, altitude, way):
        at = Kitchen(altitude_m=altitude)
        usual = told(way, at, pieces={"dough_g": grams}, start={"dough_c": 26})["heat.done_min"]
        assert told(way, at, pieces={"dough_g": grams * 1.3}, start={"dough_c": 26})["heat.done_min"] > usual - 1e-6
        assert told(way, Kitchen(altitude_m=altitude + 500), pieces={"dough_g": grams})["heat.done_min"] > usual
        assert told(way, at, pieces={"dough_g": grams}, start={"dough_c": 8})["heat.done_min"] > usual

    def test_thicker_and_colder_cost_what_is_told(self):
        usual = told("ground-packets")
        cold = told("ground-packets", start={"dough_c": 5})
        assert cold["heat.done_min"] - usual["heat.done_min"] == pytest.approx(usual["heat.colder_min"], abs=0.1)
        assert usual["heat.thicker_min"] > 0

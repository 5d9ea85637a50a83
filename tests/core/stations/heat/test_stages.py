"""Heats in several stages: their sums by hand, their order, their clocks, and what is laid on between."""

import math
from datetime import UTC, datetime

import numpy as np
import pytest
from pydantic import ValidationError

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.physics.baking import Oven, OvenSlab, bake
from kemble.core.physics.conduction import following, slab
from kemble.core.physics.doneness import cook_value_min
from kemble.core.physics.steamer import SteamerStage, boiled_off_g, loss_g_per_min, water_plan
from kemble.core.physics.thermal import Material
from kemble.core.plan.schedule import plan_from
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

SEA = Kitchen(altitude_m=0, room_c=20)
WET = Material(rho=1100.0, cp=3300.0, k=0.45)


def staged(way, *stages, kitchen=SEA, **more):
    content = default_sheet(way).model_dump(mode="json")
    content["heat"]["stages"] = list(stages)
    content.update(more)
    result = work(sheet_from(content), kitchen)
    assert result.problems == []
    return result


def heats(result, of="heat"):
    return [(stage.name, pytest.approx(stage.minutes)) for stage in result.stages if stage.of == of]


class TestPhysics:
    def test_a_point_in_changing_surroundings_as_the_exponential_has_it(self):
        """A lump of one time constant in surroundings that rise evenly lags by that constant: T = r (t - τ + τ e^-t/τ)."""
        tau, rate = 300.0, 0.02
        times = np.linspace(0.0, 1800.0, 400)
        told = following(times, np.exp(-times / tau), rate * times, 0.0)
        assert (
            np.abs(told - rate * (times - tau + tau * np.exp(-times / tau))).max() < 0.05
        )  # each step holds its value

    def test_surroundings_that_stay_give_the_same_either_way(self):
        times = np.linspace(0.0, 3600.0, 181) ** 1.0
        left = np.exp(-times / 700.0)
        item = following(times, left, 96.0, 25.0)
        assert following(times, left, np.full(len(times), 96.0), 25.0) == pytest.approx(item)

    def test_an_oven_turned_up_is_that_much_hotter_from_then(self):
        def top(later):
            tray = OvenSlab(slab(0.02, WET, 20.0, 20.0, 24, even=True), WET, 0.45, 21.0, later, 3600.0)
            return bake(tray)

        low = top(Oven(150.0, 100.0, 20.0, 20.0))
        turned = top(Oven(150.0, 100.0, 20.0, 20.0, later=((1800.0, 200.0),)))
        before, after = low.times < 1750, low.times > 2100
        assert turned.top[before] == pytest.approx(low.top[before])
        assert (turned.top[after] > low.top[after] + 3).all()
        assert turned.heat == pytest.approx(turned.stored + turned.dried * 2.257e6, rel=0.005)

    def test_a_top_that_is_glazed_is_wet_again(self):
        def baked(**more):
            tray = OvenSlab(
                slab(0.02, WET, 20.0, 20.0, 24, even=True), WET, 0.45, 21.0, Oven(180, 100, 20, 20, **more), 5400.0
            )
            return bake(tray)

        bare, glazed = baked(), baked(rewets=((3600.0, 0.2),))
        soon = (bare.times > 3650) & (bare.times < 4300)
        assert (glazed.top[soon] < bare.top[soon] - 2).all()

    def test_a_pot_that_is_off_boils_nothing_off(self):
        """Ten minutes at 1500 W, then off: 1500 / 2.257e6 a second for 600 s is 399 g, and no more for ever."""
        stages = (SteamerStage(10.0, 1500.0), SteamerStage(math.inf, 0.0))
        assert boiled_off_g(stages, 90) == pytest.approx(399, abs=1)
        told = water_plan(diameter_mm=260, full_mm=28, low_mm=12, stages=stages, minutes=90)
        assert told.top_ups == ()
        assert told.start_ml == pytest.approx(math.pi * 13**2 * 1.2 + 1.2 * 10 * loss_g_per_min(1500), rel=1e-6)


class TestStages:
    def test_the_one_without_minutes_goes_on_until_it_is_done(self):
        plain = work(sheet_from(default_sheet("batter-bake").model_dump(mode="json")), SEA).facts["heat.done_min"].value
        bare = staged("batter-bake", {"minutes": None}, {"oven_c": 190, "minutes": 8, "says": "glaze it"})
        assert heats(bare) == [("175 °C", plain), ("190 °C", 8)]
        assert bare.facts["heat.done_min"].value == pytest.approx(plain + 8)
        low = staged("batter-bake", {"oven_c": 150, "minutes": 20}, {"oven_c": 175})
        assert low.facts["heat.done_min"].value > plain + 1

    def test_stages_that_all_have_minutes_last_as_long_as_they_say(self):
        told = staged("set-cake", {"level": "medium", "minutes": 70}, {"level": "low", "minutes": 80})
        assert told.facts["heat.done_min"].value == 150
        short = staged("set-cake", {"level": "high", "minutes": 5}, {"level": "low", "minutes": 5})
        assert short.facts["heat.done_min"].value > 12
        assert any("The last is told longer" in advice.says for advice in short.advice)

    def test_water_goes_by_the_level_of_each_stage(self):
        """70 minutes at 620 W, 80 at 380: 1154 + 808 g, against the start and its top-ups."""
        told = staged("set-cake", {"level": "medium", "minutes": 70}, {"level": "low", "minutes": 80}).facts
        assert told["heat.water_loss_g_per_min"].value == pytest.approx(620 / 2257 * 60)
        only = staged("set-cake", {"level": "low", "minutes": 70}, {"level": "low", "minutes": 80}).facts
        assert only["heat.water_ml"].value + only.get("heat.top_up_ml", only["heat.water_ml"]).value > 380 / 2257 * 9000

    def test_a_pot_of_grain_by_its_stages_has_had_what_it_needs(self):
        """The open stage is as long as the others leave of the time at heat; worked again by the trapezium."""
        result = staged(
            "crushed-balls", {"level": "high", "minutes": 8}, {"level": "low"}, {"level": "off", "minutes": 12}
        )
        assert [stage.level for stage in result.stages] == ["high", "low", "off"]
        curve = result.core.curve
        end = sum(stage.minutes for stage in result.stages)
        minutes, celsius = np.array(curve.minutes), np.array(curve.core_c)
        assert minutes[-1] == pytest.approx(end, abs=1.0)
        assert cook_value_min(minutes * 60, celsius)[-1] == pytest.approx(
            result.facts["heat.needs_min"].value, rel=0.03
        )

    def test_a_pot_that_says_none_has_three(self):
        result = work(default_sheet("crushed-balls"), SEA)
        assert [stage.name for stage in result.stages] == ["to the boil", "lowest flame", "off, lid shut"]
        assert sum(stage.minutes for stage in result.stages) == pytest.approx(result.facts["heat.done_min"].value)

    def test_two_that_go_on_are_refused(self):
        with pytest.raises((ValidationError, Refused), match="more than one stage"):
            staged("batter-bake", {"oven_c": 150}, {"oven_c": 190})


class TestSteps:
    def test_each_has_its_own_clock_and_line(self):
        result = staged(
            "leaf-parcels", {"level": "high", "minutes": 20}, {"level": "low"}, {"level": "off", "minutes": 30}
        )
        boils = [step for step in result.steps if step.id in {"boil", "boil-2", "boil-3"}]
        assert [step.id for step in boils] == ["boil", "boil-2", "boil-3"]
        assert [bool(step.window) for step in boils] == [False, True, False]
        assert [bool(step.cue) for step in boils] == [False, True, False]
        assert (boils[2].uses, boils[2].hands) == ([], "free")
        done = result.facts["heat.done_min"].value
        assert boils[1].window.done == pytest.approx(done - 20 - 30)
        assert result.core.done == pytest.approx(done - 30)  # what a thermometer moves is what is looked for
        lies = {
            scheduled_step.step.id: scheduled_step
            for scheduled_step in plan_from(result.steps, SEA, begin=datetime(2026, 12, 5, 9, tzinfo=UTC)).scheduled
        }
        assert lies["boil"].ends <= lies["boil-2"].starts < lies["boil-3"].starts
        after = next(step for step in result.steps if any(wait.step == "boil-3" for wait in step.after))
        assert after.id not in {"boil", "boil-2"}

    def test_what_is_laid_on_midway_goes_on_between_two_stages(self):
        content = default_sheet("batter-bake").model_dump(mode="json")
        content["heat"]["stages"] = [{"minutes": 25}, {"oven_c": 190}]
        content["parts"].append(
            {
                "role": "topping",
                "name": "crumbs",
                "lines": [{"ingredient": "peanut", "amount": {"value": 60, "unit": "g"}}],
                "rest": {"": {"to": "whole", "where": "over", "joins": "bake-2"}},
            }
        )
        result = work(sheet_from(content), SEA)
        assert result.problems == []
        ids = [step.id for step in result.steps]
        assert ids.index("bake") < ids.index("put-topping") < ids.index("bake-2")
        put = next(step for step in result.steps if step.id == "put-topping")
        assert "bake" in {wait.step for wait in put.after}
        content["parts"][-1]["rest"][""]["joins"] = "bake-3"
        with pytest.raises(Refused, match="no step"):
            sheet_from(content)

"""Times beside the way's own heat, and what they hang on: by hand, and against draws of the same solvers."""

import numpy as np
import pytest

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen, OwnEstimate
from kemble.core.kitchen.estimates import ESTIMATES
from kemble.core.physics import time_spread
from kemble.core.physics.steaming import SteamSupply
from kemble.core.physics.stove import oven_h
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations import time_windows
from kemble.core.stations.work_sheet import work


def sheet(way, **schools):
    content = default_sheet(way).model_dump(mode="json")
    content["schools"].update(schools)
    return content


def told(content, **own):
    rows = {}
    for name, value in own.items():
        row = ESTIMATES[name]
        rows[name] = OwnEstimate(value=value, low=min(row.low, value), high=max(row.high, value))
    return work(sheet_from(content), Kitchen(estimates=rows)).facts


@pytest.mark.long
@pytest.mark.parametrize("way", sorted(WAYS))
def test_every_other_window_as_draws_have_it(way, monkeypatch):
    """Each time and amount that the table spreads, drawn 1500 times from the rows it hangs on, on logarithms as the
    spread is: its ends within 12 % of its width from those of the draws, or within 6 % of themselves."""
    caught, real = [], time_spread.spread

    def catch(solve, rows, which, **more):
        spread = real(solve, rows, which, **more)
        if more.get("both_ways") == len(which) and spread is not None:
            caught.append((solve, rows, tuple(which), spread))
        return spread

    monkeypatch.setattr(time_windows, "spread", catch)
    work(default_sheet(way), Kitchen())
    assert len(caught) > 5
    rng, compared = np.random.default_rng(11), 0
    for solve, rows, which, found_spread in caught:
        draws = {name: [rows[name].at(z) for z in rng.normal(0, 1, 1500).tolist()] for name in which}
        values = [solve({name: of[i] for name, of in draws.items()}) for i in range(1500)]
        if all(value is None for value in values):
            continue  # asked of bakes marched beside: what each end alone moves, never several at once
        compared += 1
        ends = np.quantile([value for value in values if value is not None], [0.05, 0.95])
        wide = found_spread.latest - found_spread.first
        for end, drawn in zip((found_spread.first, found_spread.latest), ends, strict=True):
            assert end == pytest.approx(drawn, abs=max(0.12 * wide, 0.06 * drawn)), (way, which)
    assert compared >= 4


class TestByHand:
    def test_a_steamer_is_topped_up_at_one_minute_wherever_it_is_said(self):
        """A burner that is known to be a fifth stronger: what the drawing, the advice and the table of flames say of the water
        goes by that, 1.2 times as much a minute."""
        stronger = OwnEstimate(value=1.2, low=1.15, high=1.25)
        usual, strong = (work(default_sheet("set-cake"), Kitchen(estimates=own)) for own in ({}, {"burner": stronger}))
        loss = "heat.water_loss_g_per_min"
        assert strong.facts[loss].value == pytest.approx(1.2 * usual.facts[loss].value)
        at, ml = (strong.facts[f"heat.top_up_{name}"].value for name in ("at_min", "ml"))
        assert at == pytest.approx(usual.facts["heat.top_up_at_min"].value / 1.2)
        assert any(f"Top up at {at:.0f} minutes with {ml:.0f} ml" in advice.says for advice in strong.advice)
        level = next(each for each in strong.drawings.heat.steamer.levels if each.level == "medium")
        assert level.lasts_min == pytest.approx(at)
        assert level.g_per_min == pytest.approx(strong.facts[loss].value)

    def test_a_pot_to_the_boil(self):
        """2 l from 15 to 99.3 °C or so at the burner's high: 4.19 J/(ml K) over its watts. At 8 °C tap it takes longer
        by the rise's share."""
        facts = told(sheet("boiled-balls"))
        boil_c, ml = facts["heat.boil_c"].value, facts["heat.water_ml"].value
        watts = Kitchen().burner.high_w
        assert facts["heat.to_boil_min"].value == pytest.approx(ml * 4.186 * (boil_c - 15) / watts / 60, rel=0.003)
        colder = told(sheet("boiled-balls"), tap_c=8.0)["heat.to_boil_min"].value
        assert colder / facts["heat.to_boil_min"].value == pytest.approx((boil_c - 8) / (boil_c - 15))

    def test_a_window_of_one_factor_has_that_factor_s_ends(self):
        facts = told(sheet("pounded"))
        pound = facts["heat.pound_min"]
        assert [pound.low / pound.value, pound.high / pound.value] == pytest.approx([0.7, 1.4])

    def test_hard_hands_are_slow_hands(self):
        quick, slow = (told(sheet("pounded"), hand_work=many)["rest.shaping_min"].value for many in (1.0, 1.3))
        assert slow / quick == pytest.approx(1.3)

    def test_syrup_by_its_stages(self):
        """At the boil, then what has gone over the rate: coats at 66 % of solids, done at 70, sets stiff from 74."""
        facts = told(sheet("tray-rice"))
        boils, coats, done, stiff = (
            facts[f"part.syrup.{name}_min"].value for name in ("boils", "coats", "boil_off", "stiff")
        )
        assert boils < coats < done < stiff
        raw, made, rate = (facts[f"part.syrup.{name}"].value for name in ("raw_g", "made_g", "boil_off_g_per_min"))
        assert done - boils == pytest.approx((raw - made) / rate)
        solids = 0.70 * made
        assert stiff - coats == pytest.approx((solids / 0.66 - solids / 0.74) / rate)

    def test_whether_all_the_water_is_taken_up(self):
        """Poured so that 60 % of water on the dry grain is more than it loses and holds: that much stays on the floor."""
        content = sheet("crushed-balls")
        facts = told(content)
        dry, water = facts["grain.dry_g"].value, facts["grain.total_water_g"].value
        assert facts["grain.left_water_g"].value == 0
        for line in content["parts"][0]["lines"]:
            if line["ingredient"] == "water":
                line["amount"]["value"] *= 3
        wet = told(content)
        more = wet["grain.total_water_g"].value
        assert more == pytest.approx(3 * water, rel=0.02)
        pot = dry + more
        left = more - 0.065 * pot - 1.5 * dry
        assert wet["grain.left_water_g"].value == pytest.approx(left, rel=0.05)
        answer = work(sheet_from(content), Kitchen())
        assert any("stay on the floor" in advice.says for advice in answer.advice)

    def test_too_little_water_is_told(self):
        content = sheet("crushed-balls")
        for line in content["parts"][0]["lines"]:
            if line["ingredient"] == "water":
                line["amount"]["value"] *= 0.45
        assert any("dry before it is soft" in advice.says for advice in work(sheet_from(content), Kitchen()).advice)

    def test_a_layer_in_the_tin_is_warmed_with_it(self):
        """What lies under the batter lies in the heat: the heart takes longer than without."""
        content = default_sheet("set-cake").model_dump(mode="json")
        plain = told(content)
        paste = {
            "role": "layer", "family": "strewn", "name": "walnuts", "schools": {}, "pan": "",
            "lines": [
                {"ingredient": "walnut", "amount": {"value": 220, "unit": "g"}},
            ],
            "rest": {"": {"to": "whole", "where": "under", "joins": ""}},
        }  # fmt: skip
        content["parts"].append(paste)
        layered = told(content)
        assert layered["heat.depth_mm"].value > plain["heat.depth_mm"].value + 3
        assert layered["shape.depth_mm"].value == pytest.approx(plain["shape.depth_mm"].value)
        assert layered["heat.set_min"].value > plain["heat.set_min"].value + 1

    def test_a_clay_dish_takes_heat_of_its_own_from_the_steam(self):
        content = default_sheet("set-cake").model_dump(mode="json")
        content["vessel"]["tin"]["material"] = "ceramic"
        light, heavy = (told(content, tin_j=share)["heat.set_min"].value for share in (0.5, 1.5))
        assert heavy > light + 0.1


class TestMeasured:
    def test_an_oven_by_a_tin_of_water(self):
        """500 ml in 200 mm: 16 mm deep, two floors of 0.0314 m2 and a wall of 0.01. 20 to 45 °C in 15 min at 175:
        h = 500 × 4.186 × ln(155 / 130) / (0.0728 × 900) = 5.6."""
        result = oven_h(water_ml=500, across_mm=200, start_c=20, end_c=45, oven_c=175, seconds=900)
        assert result == pytest.approx(5.62, rel=0.01)
        with pytest.raises(ValueError, match="hotter"):
            oven_h(water_ml=500, across_mm=200, start_c=20, end_c=180, oven_c=175, seconds=900)

    def test_a_lid_by_the_steam_under_it(self):
        """What comes in at a temperature gives that temperature back."""
        idle = SteamSupply(net_w=900.0, lid_w=130.0, leak_ml_s=20.0, altitude_m=240.0)
        assert idle.leak_at(idle.dew_c()) == pytest.approx(20.0, rel=0.02)
        assert idle.leak_at(101.0) == 0.0


class TestGivenTimes:
    def given(self, of, minutes, way="boiled-balls", **schools):
        content = {**sheet(way, **schools), "method": [{"step": of, "minutes": minutes, "by": "a book", "use": "ours"}]}
        return work(sheet_from(content), Kitchen())

    def test_any_step_by_its_id(self):
        plain = work(default_sheet("boiled-balls"), Kitchen())
        step = next(step for step in plain.steps if step.between and step.fact == "heat.to_boil_min")
        answer = self.given(step.id, step.between.most * 1.02)
        (item,) = answer.given_times
        assert item.of == step.id
        assert item.ours_min == pytest.approx(step.minutes)
        assert item.done_pct >= 95
        assert item.says[0].startswith("it is over what ours may be")
        assert "the burner's power" in item.explains

    def test_the_same_as_ours(self):
        plain = work(default_sheet("boiled-balls"), Kitchen())
        step = next(step for step in plain.steps if step.fact == "heat.to_boil_min")
        (item,) = self.given(step.id, step.minutes).given_times
        assert item.explains == "The same as ours."

    def test_a_step_that_is_not_on_the_sheet_says_nothing(self):
        assert self.given("no-such-step", 10.0).given_times == []

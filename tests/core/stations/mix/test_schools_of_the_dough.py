"""Scalding, a bare tip, trimming, salted hands, beans bought cooked and whole things under the knife: sums by hand."""

import math

import pytest

from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

SEA = Kitchen(altitude_m=0, room_c=20)


def told(way, schools=None, parts=None, **more):
    content = default_sheet(way).model_dump(mode="json")
    content["schools"].update(schools or {})
    there = {part["role"] for part in parts or []}
    content["parts"] = [part for part in content["parts"] if part["role"] not in there] + (parts or [])
    for key, value in more.items():
        content[key] = {**content[key], **value}
    result = work(sheet_from(content), SEA)
    assert result.problems == []
    return result


def value(result, key):
    return result.facts[key].value


def line(ingredient, grams, **more):
    return {"ingredient": ingredient, "amount": {"value": grams, "unit": "g"}, **more}


class TestScalding:
    def test_half_of_the_water_boiling(self):
        """Of 100 g of water on 125 of flour: (50 x 4.19 x 96 + (50 x 4.19 + 125 x 1.6) x 20) over their sum, and
        0.9 x 50 / 125 of the flour cooked; 125 x 0.5 x (12 - 1.5) % more water."""
        result = told("boiled-balls", start={"scald_pct": 50})
        water = value(result, "mix.scald_g") + value(result, "mix.scald_cool_g")
        flour = value(result, "mix.base_g")
        hot = rest = water / 2 * 4.19
        rest += flour * 1.6
        assert value(result, "mix.scald_g") == pytest.approx(water / 2)
        assert value(result, "mix.scald_c") == pytest.approx((hot * 96 + rest * 20) / (hot + rest), abs=0.3)
        assert value(result, "mix.scald_cooked_pct") == pytest.approx(90 * water / 2 / flour)
        assert value(result, "mix.scald_takes_g") == pytest.approx(flour * 0.5 * 0.105)

    def test_a_share_of_the_line_that_is_boiling_is_that_water(self):
        """35 % of 192 g, 67.2 g, are poured boiling once, not beside the third that the school would pour."""
        document = default_sheet("boiled-balls").model_dump()
        water = document["parts"][0]["lines"][1]
        water["splits"] = [{"share": 0.35, "at": "boiling"}, {"share": 0.65, "at": "cool"}]
        result = work(sheet_from(document), SEA)
        assert value(result, "mix.scald_g") == pytest.approx(67.2)
        dough = next(step for step in result.steps if step.id == "dough")
        waters = [(item.act, item.grams, item.splits) for item in dough.to_hand if item.name == "Water"]
        assert waters == [("boiling", pytest.approx(67.2), []), ("cool", pytest.approx(124.8), [])]

    def test_of_two_lines_of_water_the_boiling_one_is_named(self):
        document = default_sheet("boiled-balls").model_dump()
        cool, hot = line("water", 120), line("water", 72)
        hot["splits"] = [{"share": 0.5, "at": "Boiling"}, {"share": 0.5, "at": "by the spoon"}]
        document["parts"][0]["lines"] = [document["parts"][0]["lines"][0], cool, hot]
        fact = work(sheet_from(document), SEA).facts["mix.scald_g"]
        assert fact.value == pytest.approx(36)
        assert [(origin.ref, origin.value) for origin in fact.because.inputs] == [("sheet:parts.base.lines.2", 36)]

    def test_a_cool_dough_has_no_boiling_water(self):
        dough = next(step for step in told("boiled-balls", {"dough": "cool"}).steps if step.id == "dough")
        assert [item.act for item in dough.to_hand if item.name == "Water"] == ["cool"]

    def test_schools_are_shares_of_the_same(self):
        by_school = [told("boiled-balls", {"dough": school}) for school in ("cool", "scald", "boiling")]
        assert [value(result, "mix.scald_g") for result in by_school] == pytest.approx(
            [share * value(by_school[2], "mix.scald_g") for share in (0, 1 / 3, 1)]
        )
        assert "mix.scald_c" not in by_school[0].facts

    def test_between_schools_the_skin_may_be_between(self):
        leasts = [
            value(told("boiled-balls", start={"scald_pct": share}), "shape.least_skin_mm") for share in (0, 20, 60, 100)
        ]
        assert leasts == sorted(leasts, reverse=True)
        assert len(set(leasts)) == 4


class TestPiece:
    def test_a_bare_tip_leaves_a_thicker_skin(self):
        """The same dough over seven tenths of the sphere is as thick as ten sevenths of it over all of it."""
        said = {"count": None, "dough_g": 14, "filling_g": 20}
        bare = told("stirred-rounds", pieces={**said, "bare_pct": 30})
        more = told("stirred-rounds", pieces={**said, "dough_g": 20})
        assert value(bare, "shape.skin_mm") == pytest.approx(value(more, "shape.skin_mm"), rel=1e-6)
        assert value(bare, "shape.base_g") == 14

    def test_what_is_pinched_off_is_begun_with(self):
        """24 g that stay are 30 to begin with when a fifth is pinched off."""
        result = told("stirred-rounds", pieces={"dough_g": 24, "trim_pct": 20})
        assert value(result, "shape.pinch_g") == pytest.approx(30)
        assert value(result, "shape.trim_g") == pytest.approx(6 * value(result, "shape.pieces"))

    def test_salted_water_for_the_hands(self):
        result = told("crushed-balls")
        ml = 200 + 3 * value(result, "shape.pieces")
        assert value(result, "shape.hand_water_ml") == pytest.approx(ml)
        assert value(result, "shape.hand_salt_g") == pytest.approx(0.015 * ml)


class TestBeansBoughtCooked:
    def part(self, *lines):
        return {"role": "filling", "name": "paste", "family": "bean-paste", "lines": [*lines, line("white-sugar", 80)]}

    def test_they_weigh_as_they_would_dry_and_are_not_soaked(self):
        """240 g with 36 % of solids are 86.4, as 99.3 g of dry beans hold: 2.9 times that is the paste."""
        result = told("stirred-rounds", parts=[self.part(line("small-red-bean-cooked", 240))])
        assert value(result, "part.filling.made_g") == pytest.approx(2.9 * 240 * 0.36 / 0.87, rel=0.01)
        ids = {step.id for step in result.steps}
        assert not ids & {"filling-soak", "filling-simmer", "filling-simmer-dry", "filling-simmer-lid"}
        assert "filling-dry" in ids
        dry = told("stirred-rounds", parts=[self.part(line("small-red-bean", 100), line("water", 300))])
        assert {"filling-soak", "filling-simmer"} <= {step.id for step in dry.steps}


class TestMadeFromRaw:
    def test_curds_of_milk_pressed_here(self):
        """The first pressing goes into the pan of curds: its fat is theirs and the oil's, to the gram."""
        pressed = {
            "role": "liquid",
            "name": "milk",
            "family": "coconut-pressings",
            "lines": [line("coconut-fresh", 500), line("water", 400)],
            "rest": {"thin": {"to": "base"}},
        }
        curds = {
            "role": "topping",
            "name": "curds",
            "family": "coconut-curd",
            "lines": [],
            "takes": [{"of": "liquid", "share": 1}],
        }
        result = told("tray-rice", parts=[pressed, curds])
        made = {part.role: part for part in result.parts}
        assert value(result, "part.topping.raw_g") == pytest.approx(made["liquid"].outputs[0].made_g)
        assert value(result, "part.topping.made_g") > 20
        assert value(result, "part.topping.oil_g") > 20


def test_whole_things_that_the_knife_meets():
    """Walnuts of 5 g are 21.2 mm across; a grid of cuts over the tray meets width x length / area of them."""
    content = default_sheet("batter-bake").model_dump(mode="json")
    content["parts"][0]["lines"].append(line("walnut", 100, state="whole"))
    result = work(sheet_from(content), SEA)
    tray = result.drawings.cut.trays[0]
    length = sum(math.dist(each_line[:2], each_line[2:]) for each_line in tray.lines)
    across = (6 * 5 * 1000 / math.pi) ** (1 / 3)
    share = min(1.0, across * length / (tray.length_mm * tray.width_mm))
    assert value(result, "cut.met") == pytest.approx(100 / 5 * share, rel=1e-6)
    assert any("lie under the knife" in advice.says for advice in result.advice)
    content["parts"][0]["lines"][-1]["state"] = "ground"
    assert "cut.met" not in work(sheet_from(content), SEA).facts

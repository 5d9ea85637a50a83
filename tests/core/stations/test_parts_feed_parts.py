"""What was summed wrong while a sheet was one bowl, each by hand; and that no order of steps can be wrong."""

from datetime import UTC, datetime
from functools import partial
from typing import get_args

import pytest
from sheets_by_hand import KITCHEN, line
from thorough import times

from kemble.core.cards.parts import FAMILIES, RESTS, USUAL
from kemble.core.cards.ways import WAYS
from kemble.core.change.shopping import shopping
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan import schedule
from kemble.core.plan.day_solver import MOST_SECONDS, PlanRequest
from kemble.core.plan.schedule import plan_from
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def part(role, *lines, **more):
    return {"role": role, "lines": list(lines), **more}


def with_parts(way, *parts, base=(), **more):
    """The way's own starting sheet with further parts, and what its base takes."""
    document = default_sheet(way).model_dump(mode="json")
    document["parts"][0]["takes"] = list(base)
    document["parts"] += list(parts)
    return sheet_from({**document, **more})


def told(sheet, kitchen=KITCHEN):
    worked = work(sheet, kitchen)
    assert worked.problems == []
    return {key: fact.value for key, fact in worked.facts.items()}, worked


def shelves(sheet):
    return {shopping_line.ingredient: shopping_line.need_g for shopping_line in shopping([sheet], KITCHEN).lines}


class TestInfusedOil:
    """109 g of oil, 60 g of shallots: the crisps hold 16 % of 60, 9.6 g, so 99.4 g of oil. The crisps are the shallots'
    12.12 g of solids and those 9.6, with a twentieth of water: 21.72 / 0.95 = 22.86 g."""

    oil = part("oil", line("sunflower-oil", 109), line("shallot", 60), family="infused-oil", name="shallot oil")

    def test_there_is_less_oil_than_went_in(self):
        result, _ = told(with_parts("folded-pulls", self.oil))
        assert result["part.oil.made_g"] == pytest.approx(99.4)
        assert result["part.oil.also_g"] == pytest.approx(22.86, abs=0.01)

    def test_it_is_the_batters_fat_and_is_bought_once(self):
        plain, _ = told(with_parts("folded-pulls", self.oil))
        sheet = with_parts("folded-pulls", self.oil, base=[{"of": "oil", "amount": {"value": 30, "unit": "g"}}])
        result, _ = told(sheet)
        gained = (result["mix.fat_pct"] - plain["mix.fat_pct"]) * result["mix.base_g"] / 100
        assert gained == pytest.approx(30)
        assert result["part.oil.have_g"] == pytest.approx(69.4)
        bought = shelves(sheet)
        assert (bought["sunflower-oil"], bought["shallot"]) == (109, 60)
        assert bought.keys() == shelves(with_parts("folded-pulls", self.oil)).keys()


class TestOnePanOfCream:
    """400 g of cream with 28 % fat: 69 % of 112 g parts as oil, 77.28 g. Of 148 g of solids 70.72 are left, 98.22 with
    28 % of water."""

    cream = part("topping", line("coconut-milk-thick", 400), family="coconut-curd", name="curds")

    def test_curds_and_oil_from_the_same_pan(self):
        sheet = with_parts(
            "tray-rice", self.cream, base=[{"of": "topping.oil", "amount": {"value": 20, "unit": "g"}, "joins": "fold"}]
        )
        result, worked = told(sheet)
        assert result["part.topping.made_g"] == pytest.approx(98.22, abs=0.01)
        assert result["part.topping.also_g"] == pytest.approx(77.28)
        oil = next(each_part for each_part in worked.parts if each_part.role == "topping").outputs[1]
        assert [(flow.to, round(flow.grams, 2)) for flow in oil.goes] == [("base", 20.0), ("kept", 57.28)]
        thick = default_sheet("tray-rice").part("syrup").lines[0].amount.value * 0.98
        assert shelves(sheet)["coconut-milk-thick"] == pytest.approx(400 + thick)

    def test_more_than_there_is_is_told(self):
        sheet = with_parts("tray-rice", self.cream, base=[{"of": "topping.oil", "amount": {"value": 90, "unit": "g"}}])
        result, worked = told(sheet)
        assert result["part.topping.short_g"] == pytest.approx(90 - 77.28)
        assert any("77 g are made, and the rice by 13 g goes short" in item.says for item in worked.advice)


def test_taking_of_a_part_with_nothing_in_it_is_told():
    """Every line of the syrup is carried into the base: the glaze that takes of it gets nothing."""
    empty = part("syrup", line("mild-honey", 40, splits=[{"share": 1, "to": "base"}]))
    glaze = part("glaze", line("milk", 20), takes=[{"of": "syrup", "amount": {"value": 10, "unit": "g"}}])
    result, worked = told(with_parts("batter-bake", empty, glaze))
    assert result["part.syrup.short_g"] == pytest.approx(10)
    assert any("0 g are made" in item.says and "Put something into it" in item.says for item in worked.advice)


def test_a_batter_sweetened_by_its_own_caramel():
    """150 g of sugar: 149.85 of solids, 65 % of 230.54 g. On 200 g of flour they are 74.9 %."""
    document = {
        "way": "set-cake",
        "parts": [
            part("base", line("sweet-rice-flour", 200), line("water", 100), line("sunflower-oil", 12)),
            part("syrup", line("white-sugar", 150), line("water", 120), family="burnt-sugar"),
        ],
    }
    result, worked = told(sheet_from(document))
    assert result["part.syrup.made_g"] == pytest.approx(230.54, abs=0.01)
    assert result["mix.sugar_pct"] == pytest.approx(100 * 149.85 / 200)
    assert result["mix.batch_g"] == pytest.approx(312 + 230.54, abs=0.01)
    assert not any("Little sugar" in item.says for item in worked.advice)
    order = [step.id for step in worked.steps]
    assert order.index("syrup-burn") < order.index("mix")
    assert "syrup-burn" in {wait.step for step in worked.steps if step.id in ("melt", "mix") for wait in step.after}


def test_a_tray_glazed_with_its_own_syrup_weighs_what_it_did():
    plain, _ = told(default_sheet("tray-rice"))
    glazed, worked = told(
        with_parts("tray-rice", part("glaze", takes=[{"of": "syrup", "amount": {"value": 60, "unit": "g"}}]))
    )
    assert glazed["mix.cooked_g"] == pytest.approx(plain["mix.cooked_g"] - 60)
    assert glazed["whole.g"] == pytest.approx(plain["whole.g"]) == pytest.approx(plain["mix.cooked_g"])
    assert glazed["whole.sugar_pct"] == pytest.approx(plain["whole.sugar_pct"])
    assert not any("Little sugar" in item.says for item in worked.advice)


@pytest.mark.parametrize("way", ["stirred-rounds", "pounded"])
def test_herb_kneaded_in_is_weighed_out_with_the_dough(way):
    """30 g of herb lose 5 %: 28.5 g that no heat had, and every piece has."""
    plain, _ = told(default_sheet(way))
    green, worked = told(with_parts(way, part("herb", line("fresh-herb", 30), family="green-herb")))
    assert green["mix.batch_g"] == pytest.approx(plain["mix.batch_g"])
    assert green["mix.gel_temperature_c"] == pytest.approx(plain["mix.gel_temperature_c"])
    assert green["mix.cooked_g"] == pytest.approx(plain["mix.cooked_g"] + 28.5)
    step = next(step for step in worked.steps if step.id == "green")
    assert [round(item.grams, 1) for item in step.to_hand] == [28.5]


class TestOnATin:
    nuts = part("topping", line("hazelnut", 60), name="hazelnuts")

    def test_a_topping_weighs_and_goes_on_before_the_oven(self):
        plain, _ = told(default_sheet("batter-bake"))
        result, worked = told(with_parts("batter-bake", self.nuts))
        assert result["whole.g"] == pytest.approx(plain["mix.cooked_g"] + 60)
        assert result["cut.piece_g"] == pytest.approx(plain["cut.piece_g"] * result["whole.g"] / plain["whole.g"])
        steps = {step.id: step for step in worked.steps}
        assert "topping-whisk" not in steps
        assert {"topping-ready", "pour"} <= {wait.step for wait in steps["put-topping"].after}
        assert "put-topping" in {wait.step for wait in steps["bake"].after}
        assert [item.name for item in steps["put-topping"].to_hand] == ["hazelnuts"]

    def test_its_steps_say_what_it_is(self):
        titles = [step.title for step in told(with_parts("batter-bake", self.nuts))[1].steps]
        assert "Make the hazelnuts ready" in titles
        assert "Put on the hazelnuts" in titles
        assert not any("{" in title for title in titles)

    def test_or_once_it_has_cooled_when_the_sheet_says_so(self):
        late = {**self.nuts, "rest": {"": {"to": "whole", "where": "over", "joins": "cut"}}}
        steps = {step.id: step for step in told(with_parts("batter-bake", late))[1].steps}
        assert "cool" in {wait.step for wait in steps["put-topping"].after}
        assert "put-topping" not in {wait.step for wait in steps["bake"].after}

    def test_each_lies_as_thick_as_it_takes_room(self):
        """60 g of ground nuts at 0.45 g/ml are 133 ml: 3.33 mm over 20 by 20 cm. 30 g of sugar at 0.85 on floor and wall:
        35.3 ml over 400 cm2 and 80 cm of rim as high as the batter."""
        crust = part("crust", line("white-sugar", 30), name="sugar crust")
        result, worked = told(with_parts("batter-bake", self.nuts, crust))
        plain, _ = told(default_sheet("batter-bake"))
        layers = {layer.where: layer.mm for layer in worked.drawings.shape.layers}
        assert layers["over"] == pytest.approx(1000 * 60 / 0.45 / 40_000)
        assert layers["wall"] == pytest.approx(1000 * 30 / 0.85 / (40_000 + 800 * result["shape.depth_mm"]))
        assert result["shape.depth_mm"] == pytest.approx(plain["shape.depth_mm"])
        assert result["shape.headroom_mm"] == pytest.approx(plain["shape.headroom_mm"] - sum(layers.values()))

    def test_what_is_folded_in_raises_the_batter(self):
        fruit = part("layer", line("strawberry", 120), rest={"": {"to": "whole", "where": "through", "joins": "pour"}})
        result, _ = told(with_parts("batter-bake", fruit))
        plain, _ = told(default_sheet("batter-bake"))
        assert result["shape.depth_mm"] == pytest.approx(plain["shape.depth_mm"] + 1000 * 120 / 0.6 / 40_000)

    def test_crust_and_fruit_are_in_the_tin_before_the_batter(self):
        crust = part("crust", line("white-sugar", 30), name="sugar crust")
        fruit = part("layer", line("strawberry", 120), name="strawberries")
        steps = {step.id: step for step in told(with_parts("batter-bake", crust, fruit))[1].steps}
        assert "put-layer" in {wait.step for wait in steps["pour"].after}
        assert "put-crust" in {wait.step for wait in steps["put-layer"].after}


class TestWater:
    def test_soaked_beans_bring_it(self):
        """105 x 480 / (480 + 120 e^0.06) = 82.97 % of the beans' dry weight, on the grain."""
        document = default_sheet("ground-packets").model_dump(mode="json")
        i = next(i for i, item in enumerate(document["parts"][0]["lines"]) if "soybean" in item["ingredient"])
        beans = document["parts"][0]["lines"][i]["amount"]["value"]
        plain, _ = told(sheet_from(document))
        document["parts"][0]["lines"][i]["soak_min"] = 480
        document["grain"]["soak_c"] = 18
        base = told(
            sheet_from(
                {
                    **document,
                    "parts": [
                        {
                            **document["parts"][0],
                            "lines": [{**item, "soak_min": None} for item in document["parts"][0]["lines"]],
                        },
                        *document["parts"][1:],
                    ],
                }
            )
        )[0]
        soaked, _ = told(sheet_from(document))
        assert soaked["grain.bean_uptake_g"] == pytest.approx(beans * 0.8297, rel=1e-3)
        gained = (soaked["mix.hydration_pct"] - base["mix.hydration_pct"]) * plain["mix.base_g"] / 100
        assert gained == pytest.approx(soaked["grain.bean_uptake_g"])

    def test_whole_fruit_keeps_most_of_its_own(self):
        """100 g of strawberries, 91 of water, give up a tenth: 9.1 g. In weight and volume they count whole."""
        document = default_sheet("batter-bake").model_dump(mode="json")
        plain, _ = told(sheet_from(document))
        document["parts"][0]["lines"].append(line("strawberry", 100))
        result, _ = told(sheet_from(document))
        assert (result["mix.hydration_pct"] - plain["mix.hydration_pct"]) * result["mix.base_g"] / 100 == pytest.approx(
            9.1
        )
        assert result["mix.batch_g"] == pytest.approx(plain["mix.batch_g"] + 100)

    @pytest.mark.parametrize("way", ["crushed-balls", "tray-rice", "ground-packets"])
    def test_poured_and_all_are_told_whichever_is_said(self, way):
        document = default_sheet(way).model_dump(mode="json")
        all_in, _ = told(sheet_from(document))
        document["grain"]["water"] = "poured"
        poured, _ = told(sheet_from(document))
        held = poured["grain.uptake_g"] + poured["grain.cling_g"]
        assert poured["grain.cook_water_g"] == pytest.approx(all_in["grain.total_water_g"])
        assert poured["grain.total_water_g"] == pytest.approx(poured["grain.cook_water_g"] + held)
        assert poured["mix.batch_g"] == pytest.approx(all_in["mix.batch_g"] + held)

    def test_grain_left_in_its_own_water_holds_no_more_than_was_poured(self):
        document = default_sheet("crushed-balls").model_dump(mode="json")
        document["grain"]["water"] = "own"
        own, _ = told(sheet_from(document))
        assert own["grain.cling_g"] == 0
        assert own["grain.cook_water_g"] == own["grain.total_water_g"]
        assert own["mix.hydration_pct"] == pytest.approx(told(default_sheet("crushed-balls"))[0]["mix.hydration_pct"])


class TestACup:
    def test_is_a_range_until_it_is_weighed(self):
        """Two cups of flour at 0.56 g/ml, 0.49 sifted to 0.66 packed: 12.5 % less to 17.9 % more of it."""
        document = default_sheet("boiled-balls").model_dump(mode="json")
        document["parts"][0]["lines"][0]["amount"] = {"value": 2, "unit": "cup_metric"}
        worked = work(sheet_from(document), KITCHEN)
        water = worked.facts["mix.hydration_pct"]
        assert water.low == pytest.approx(water.value / (0.66 / 0.56))
        assert water.high == pytest.approx(water.value / (0.49 / 0.56))
        assert any("Weigh one cup of" in advice.says for advice in worked.advice)
        known = Kitchen.model_validate(
            {"weighed": [{"ingredient": "sweet-rice-flour", "measure": "cup_metric", "grams": 140}]}
        )
        narrow = work(sheet_from(document), known).facts["mix.hydration_pct"]
        assert narrow.high - narrow.low == pytest.approx(narrow.value * (1 / 0.97 - 1 / 1.03))

    def test_and_what_is_weighed_is_none(self):
        assert work(default_sheet("boiled-balls"), KITCHEN).facts["mix.hydration_pct"].low is None


def every_part(way):
    """The way's starting sheet with a part of every other role beside it, as far as a sheet holds them."""
    document = default_sheet(way).model_dump(mode="json")
    document["vessel"]["tin"]["height_mm"] = 150
    there = {item["role"] for item in document["parts"]}
    for role in get_args(PartRole):
        if role != "base" and role not in there and len(document["parts"]) < 12:
            family = WAYS[way].parts.get(role) or USUAL[role]
            document["parts"].append(part(role, *FAMILIES[family].lines, name=f"the {role}", family=family))
    return sheet_from(document)


@pytest.mark.parametrize("way", WAYS)
def test_no_step_begins_before_what_flows_into_it_is_made(way, monkeypatch):
    """An order checker of its own: by the plan's clock, and by nothing that the steps say of each other.

    Any plan must pass, so that a few seconds are enough to look for one: none of these is proven in the usual ten."""
    monkeypatch.setattr(schedule, "PlanRequest", partial(PlanRequest, seconds=times(MOST_SECONDS, 3.0)))
    sheet = every_part(way)
    worked = work(sheet, KITCHEN)
    assert worked.problems == []
    plan = plan_from(worked.steps, KITCHEN, begin=datetime(2026, 12, 5, 8, tzinfo=UTC))
    clock = {scheduled_step.step.id: (scheduled_step.starts, scheduled_step.ends) for scheduled_step in plan.scheduled}
    last = max(end for _, end in clock.values())
    for each_part in sheet.parts[1:]:
        mine = [when for step, when in clock.items() if step.startswith(f"{each_part.role}-")]
        assert mine, f"nothing makes the {each_part.role}"
        made = max(end for _, end in mine)
        uses = [
            (step.id, clock[step.id][0])
            for step in worked.steps
            if not step.id.startswith(f"{each_part.role}-")
            and any(each_part.name == hand.name for hand in step.to_hand)
        ]
        assert all(begins >= made for _, begins in uses), (each_part.role, uses)
        assert made <= last
    order = [
        scheduled_step.step.id
        for scheduled_step in sorted(plan.scheduled, key=lambda scheduled_step: scheduled_step.starts)
    ]
    for first, then in BEFORE.get(way, ()):
        if first in order and then in order:
            assert clock[first][1] <= clock[then][0], f"{then} begins before {first} is done"


# What a cook knows of each way, whatever the cards say.
BEFORE = {
    "batter-bake": [("put-crust", "pour"), ("put-layer", "pour"), ("wrapper-trim", "line"), ("line", "pour"), ("put-topping", "bake"), ("pour", "bake"), ("glaze-whisk", "brush")],
    "set-cake": [("put-crust", "pour"), ("wrapper-trim", "line"), ("line", "pour"), ("syrup-burn", "mix"), ("pour", "steam")],
    "tray-rice": [("wrapper-trim", "line"), ("line", "level"), ("syrup-reduce", "fold"), ("put-crust", "level"), ("glaze-whisk", "bake")],
    "stirred-rounds": [("herb-blanch", "green"), ("green", "portion")],
    "leaf-parcels": [("wrapper-trim", "fold")],
}  # fmt: skip


def test_every_role_has_a_place():
    assert set(RESTS) == set(get_args(PartRole)) - {"base"} == set(USUAL)


@pytest.mark.parametrize("way", ["stirred-rounds", "boiled-balls", "crushed-balls", "folded-pulls"])
def test_a_second_coat_goes_on_after_the_first(way):
    coats = [
        part("coat", line("potato-starch", 40), family="coat"),
        part("decoration", line("roasted-soy-flour", 30), family="coat", rest={"": {"to": "whole", "where": "round"}}),
    ]
    content = default_sheet(way).model_dump(mode="json")
    content["parts"] = [item for item in content["parts"] if item["role"] != "coat"] + coats
    worked = work(sheet_from(content), Kitchen())
    assert worked.problems == []
    ids = [step.id for step in worked.steps]
    first = "put-coat" if "put-coat" in ids else "coat-lay"
    assert ids.index(first) < ids.index("put-decoration") < ids.index("serve")

"""The ledger of vessels: every gram at one step, once; what is on the scale; where it ends."""

import json
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ledger_laws import adds_up, all_behind, has_every_gram_once
from sheets_by_hand import a_sheet, line
from sheets_drawn import sheets
from thorough import examples

from kemble.core.cards.card_parts import Where
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()


def every_school():
    """Every starting sheet; and with every school of its way, and of its parts' families, that is not the usual one."""
    for way in WAYS.values():
        start = json.loads(default_sheet(way.id).model_dump_json())
        yield way.id, start
        for choice in way.choices:
            for school in choice.schools:
                if school.id != choice.default:
                    schools = {**start["schools"], choice.id: school.id}
                    if choice.under:
                        schools[choice.under[0]] = choice.under[1]
                    yield f"{way.id}, {choice.id} {school.id}", {**start, "schools": schools}
        bowls = work(sheet_from(start), KITCHEN).parts
        for i, part in enumerate(start["parts"]):
            family = next((bowl.family for bowl in bowls if bowl.role == part["role"]), "")
            for choice in FAMILIES[family].choices if family else ():
                for school in choice.schools:
                    if school.id != choice.default:
                        parts = json.loads(json.dumps(start["parts"]))
                        parts[i]["schools"] = {choice.id: school.id}
                        yield f"{way.id}, {part['role']} {choice.id} {school.id}", {**start, "parts": parts}


SHEETS = dict(every_school())


@pytest.mark.parametrize("name", SHEETS)
def test_every_gram_goes_in_at_one_step_once(name):
    worked = work(sheet_from(SHEETS[name]), KITCHEN)
    assert worked.problems == []
    has_every_gram_once(worked)
    adds_up(worked)


@pytest.mark.parametrize("name", SHEETS)
def test_what_is_served_is_what_the_finished_cake_weighs(name):
    worked = work(sheet_from(SHEETS[name]), KITCHEN)
    beside = sum(part.have_g for part in worked.parts if part.role == "broth")
    assert worked.steps[-1].vessel.after_g == pytest.approx(worked.facts["whole.g"].value + beside, rel=0.002)


def lies_beside(worked, sheet):
    """Grams that stand beside the cake: what is said to, and what would be within where the mass is rolled into a sheet."""
    sheeted = sheet.in_tray and WAYS[sheet.way].form != "tin"
    return sum(
        flow.grams
        for part in worked.parts
        for output in part.outputs
        for flow in output.goes
        if output.group != "leaf" and (flow.to == "beside" or (sheeted and flow.where == "within"))
    )


@pytest.mark.long
@settings(max_examples=examples(150), deadline=None)
@given(sheets())
def test_of_a_random_sheet_too(sheet):
    worked = work(sheet, KITCHEN)
    if worked.problems or worked.steps[-1].vessel is None:
        return
    has_every_gram_once(worked)
    adds_up(worked)
    served = worked.steps[-1].vessel.after_g
    assert served == pytest.approx(worked.facts["whole.g"].value + lies_beside(worked, sheet), rel=0.003, abs=0.5)


# By hand, from what each card tells a cook to do: which line goes in at which step, under which school.
TRUTH = {
    "set-cake": {
        "": {"melt": ["Water", "Light brown sugar"], "mix": ["Sweet rice flour", "Sunflower oil", "Salt"]},
        "syrup burnt": {"burn": ["Light brown sugar", "Water"], "mix": ["Sweet rice flour", "Sunflower oil", "Salt"]},
        "into hot": {"melt": ["Water", "Light brown sugar"], "beat-hot": ["Sweet rice flour", "Sunflower oil", "Salt"]},
        "into liquid": {
            "melt": ["Water", "Light brown sugar"],
            "cool-liquid": ["Water"],
            "mix": ["Sweet rice flour", "Sunflower oil", "Salt"],
        },
    },
    "tray-rice": {
        "": {
            "syrup-reduce": ["Coconut milk, thick", "Dark slab sugar", "Salt"],
            "rinse": ["Sweet rice, long grain"],
            "drain": ["Water"],
            "cook-grain": ["Coconut milk, thin", "Water", "Salt"],
            "fold": ["coconut syrup"],
        },
        "grain steamer": {
            "syrup-reduce": ["Coconut milk, thick", "Dark slab sugar", "Salt"],
            "rinse": ["Sweet rice, long grain"],
            "steam-grain": ["Coconut milk, thin", "Water", "Salt"],
            "fold": ["coconut syrup"],
        },
    },
    "boiled-balls": {
        "": {
            "filling-grind": ["Hazelnuts, roasted", "Light brown sugar", "Butter"],
            "ball-filling": ["hazelnut filling"],
            "dough": ["Sweet rice flour", "Water", "Water"],  # a third boiling, the rest cool
        }
    },
    "ground-packets": {
        "": {
            "wrapper-soak-leaves": ["Banana leaf"],
            "wrapper-trim": ["Kitchen foil, sheets"],
            "rinse": ["Sweet rice, short grain", "Soybeans, dry"],
            "drain": ["Water"],
            "soften-leaf": ["leaf and foil"],
            "milk": ["Water", "Light brown sugar", "Salt"],
        }
    },
    "pounded": {
        "": {
            "coat-lay": ["Roasted soy flour", "White sugar"],
            "rinse": ["Sweet rice, short grain"],
            "lay-board": ["roasted flour"],
            "pound": ["Water"],
        }
    },
    "leaf-parcels": {
        "": {
            "filling-season": ["Chestnuts, cooked", "Dried mushrooms", "Shallots"],
            "wrapper-soak-leaves": ["Bamboo leaves, dried"],
            "wrapper-trim": ["Kitchen string, lengths"],
            "rinse": ["Sweet rice, short grain"],
            "season": ["Sunflower oil", "Salt"],
            "fold": ["chestnut and mushroom", "leaves"],
        },
        "season plain": {
            "filling-season": ["Chestnuts, cooked", "Dried mushrooms", "Shallots"],
            "wrapper-soak-leaves": ["Bamboo leaves, dried"],
            "wrapper-trim": ["Kitchen string, lengths"],
            "rinse": ["Sweet rice, short grain"],
            "fold": ["chestnut and mushroom", "leaves", "Sunflower oil", "Salt"],
        },
    },
    "crushed-balls": {
        "": {
            "filling-soak": ["Small red beans, dry"],
            "filling-simmer": ["Water"],
            "filling-dry": ["Light brown sugar", "Salt"],
            "rinse": ["Sweet rice, short grain", "Plain rice, short grain"],
            "drain": ["Water"],
            "ball-paste": ["bean paste"],
            "cook-grain": ["Water"],
            "crush": ["White sugar", "Salt"],
        },
        "filling soak none": {
            "filling-simmer-dry": ["Small red beans, dry", "Water"],
            "filling-dry": ["Light brown sugar", "Salt"],
            "rinse": ["Sweet rice, short grain", "Plain rice, short grain"],
            "drain": ["Water"],
            "ball-paste": ["bean paste"],
            "cook-grain": ["Water"],
            "crush": ["White sugar", "Salt"],
        },
    },
    "folded-pulls": {
        "": {
            "coat-lay": ["Hazelnuts, roasted", "White sugar"],
            "mix": ["Sweet rice flour", "Water", "White sugar", "Salt", "Shallot oil"],
            "fold-pan": ["Shallot oil"],
            "snip": ["sweet ground nut"],
        },
        "cook steam": {
            "coat-lay": ["Hazelnuts, roasted", "White sugar"],
            "mix": ["Sweet rice flour", "Water", "White sugar", "Salt", "Shallot oil"],
            "work-oil": ["Shallot oil"],
            "snip": ["sweet ground nut"],
        },
    },
    "stirred-rounds": {
        "": {
            "filling-soak": ["Small red beans, dry"],
            "filling-simmer": ["Water"],
            "filling-dry": ["Light brown sugar", "Salt"],
            "coat-lay": ["Potato starch"],
            "ball-filling": ["bean paste"],
            "board": ["starch"],
            "mix": ["Sweet rice flour", "Water", "White sugar", "Salt"],
        }
    },
    "batter-bake": {
        "": {
            "whisk": [
                "Milk, whole",
                "Coconut milk, thick",
                "Egg, without shell",
                "Butter",
                "Light brown sugar",
                "Salt",
            ],
            "flour": ["Sweet rice flour"],
        },
        "butter soft": {
            "cream": [
                "Milk, whole",
                "Coconut milk, thick",
                "Egg, without shell",
                "Butter",
                "Light brown sugar",
                "Salt",
            ],
            "flour": ["Sweet rice flour"],
        },
    },
}


@pytest.mark.parametrize(("way", "school"), [(way, school) for way, by_school in TRUTH.items() for school in by_school])
def test_lines_go_in_where_the_card_tells_a_cook_to_put_them(way, school):
    worked = work(sheet_from(SHEETS[f"{way}, {school}" if school else way]), KITCHEN)
    lists = {step.id: sorted(item.name for item in step.to_hand) for step in worked.steps if step.to_hand}
    assert lists == {step: sorted(names) for step, names in TRUTH[way][school].items()}


class TestTargets:
    def test_what_joins_later_is_not_on_the_scale_yet(self):
        """200 flour, 290 water, 12 sugar, 1 salt, and a quarter of 28 of oil: 510. The other 21 go in at the heat."""
        steps = {step.id: step for step in work(default_sheet("folded-pulls"), KITCHEN).steps}
        assert steps["mix"].target.grams == pytest.approx(510)
        assert steps["mix"].target.beyond_g == pytest.approx(21)

    def test_only_the_liquid_is_poured(self):
        """600 g of liquid, of which 71 are in the soaked grain by then."""
        worked = work(default_sheet("crushed-balls"), KITCHEN)
        pot = next(step for step in worked.steps if step.id == "cook-grain")
        assert pot.target.grams == pytest.approx(
            350 - worked.facts["grain.uptake_g"].value - worked.facts["grain.cling_g"].value
        )
        assert [item.grams for item in pot.to_hand] == pytest.approx([pot.target.grams])

    def test_milk_is_poured_whole_however_long_the_grain_soaked(self):
        """A soak is of water: it stands in for no milk, whose fat would be counted and never poured."""
        sheet = a_sheet(
            "crushed-balls",
            ("base", [line("sweet-rice", 400), line("coconut-milk-thin", 500)]),
            grain={"soak_min": 900},
        )
        worked = work(sheet, KITCHEN)
        pot = next(step for step in worked.steps if step.id == "cook-grain")
        assert [item.grams for item in pot.to_hand] == pytest.approx([500])
        assert worked.facts["grain.cook_water_g"].value == pytest.approx(500)

    def test_a_batch_that_weighs_less_has_left_some_in_the_bowl(self):
        """934 g went in and the scale shows 920: 14 clung; the rest of it is steamed."""
        worked = work(default_sheet("set-cake"), KITCHEN, {"mix.batch_g": 920.0})
        steps = {step.id: step for step in worked.steps}
        assert steps["mix"].vessel.change_g == pytest.approx(-14)
        assert steps["serve"].vessel.after_g == pytest.approx(worked.facts["whole.g"].value, abs=0.1)


class TestReadyParts:
    def test_a_fruit_without_paste_goes_into_the_piece_where_it_is_closed(self):
        """Eighteen hazelnuts of 1.4 g go in, of 40 g; the other 15 are left over."""
        base = [line("sweet-rice", 500), line("water", 15)]
        worked = work(a_sheet("pounded", ("base", base), ("heart", [line("hazelnut", 40)])), KITCHEN)
        steps = {step.id: step for step in worked.steps}
        assert [item.name for item in steps["shape"].to_hand] == ["hearts"]
        each, pieces = worked.facts["shape.filling_g"].value, worked.facts["shape.pieces"].value
        over = steps["shape"].vessel.tipped[0].grams - pieces * worked.facts["shape.base_g"].value
        assert steps["shape"].vessel.beside_g == pytest.approx(40 - pieces * each + over, abs=0.1)

    def test_a_filling_that_is_bought_goes_in_as_it_is(self):
        """Ready paste has no step of its own: it is to hand where it is balled."""
        base = [line("sweet-rice-flour", 200), line("water", 160)]
        sheet = a_sheet("boiled-balls", ("base", base), ("filling", [line("red-bean-paste", 200)]))
        steps = {step.id: step for step in work(sheet, KITCHEN).steps}
        assert [(item.name, item.grams) for item in steps["ball-filling"].to_hand] == [("Red bean paste, sweet", 200)]

    def test_a_topping_that_stands_beside_is_carried_out_with_the_rest(self):
        """Walnuts in a bowl beside the cake: no step of the way names them, and they are on the table all the same."""
        document = json.loads(default_sheet("set-cake").model_dump_json())
        beside = {"role": "topping", "lines": [line("walnut", 80)], "rest": {"": {"to": "beside"}}}
        worked = work(sheet_from({**document, "parts": [*document["parts"], beside]}), KITCHEN)
        output = next(part for part in worked.parts if part.role == "topping").outputs[0]
        assert [item.grams for item in worked.steps[-1].to_hand if item.name == output.name] == pytest.approx([80])

    def test_a_topping_made_elsewhere_is_put_on_too(self):
        document = json.loads(default_sheet("set-cake").model_dump_json())
        document["parts"].append(
            {
                "role": "topping",
                "name": "curds",
                "family": "coconut-curd",
                "made_on": "Another tray",
                "lines": [line("coconut-milk-thick", 200)],
            }
        )
        worked = work(sheet_from(document), KITCHEN)
        assert "put-topping" in [step.id for step in worked.steps]
        assert not any(step.id.startswith("topping-") for step in worked.steps)


def test_what_joins_at_a_step_that_is_left_out_goes_where_its_vessel_goes_on():
    """Sugar is to join at the soak, and nothing is soaked: it is not lost, and lies in no tray; it goes where the grain goes."""
    document = json.loads(default_sheet("crushed-balls").model_dump_json())
    document["grain"]["soak_min"] = 0
    document["parts"][0]["lines"][-1]["joins"] = "soak"
    worked = work(sheet_from(document), KITCHEN)
    name = worked.lines[len(document["parts"][0]["lines"]) - 1].name
    own = [step for step in worked.steps if not step.id.startswith("filling-")]
    assert [step.id for step in own if name in [item.name for item in step.to_hand]] == ["drain"]
    has_every_gram_once(worked)


class TestHeldBack:
    def test_a_reserve_is_told_once_where_its_line_goes_in(self):
        """300 g of flour of which 20 are kept for the board: 280 go in, and the step says what stays out."""
        document = json.loads(default_sheet("set-cake").model_dump_json())
        document["parts"][0]["lines"][0] |= {"reserve": {"value": 20, "unit": "g"}, "reserve_for": "the board"}
        steps = work(sheet_from(document), KITCHEN).steps
        told = [(step.id, item.grams, item.held_back) for step in steps for item in step.to_hand if item.held_back]
        assert told == [("mix", 280, "hold back 20 g: the board")]

    def test_of_a_line_that_goes_in_twice_it_is_told_the_first_time(self):
        document = json.loads(default_sheet("set-cake").model_dump_json())
        document["schools"]["into"] = "liquid"
        document["parts"][0]["lines"][1] |= {"reserve": {"value": 25, "unit": "g"}}
        steps = work(sheet_from(document), KITCHEN).steps
        assert [(step.id, item.held_back) for step in steps for item in step.to_hand if item.name == "Water"] == [
            ("melt", "hold back 25 g"),
            ("cool-liquid", ""),
        ]


@pytest.mark.parametrize("name", SHEETS)
def test_a_step_waits_for_the_mass_it_uses_and_the_vessel_it_goes_into(name):
    worked = work(sheet_from(SHEETS[name]), KITCHEN)
    steps = {step.id: step for step in worked.steps}
    filled = {}
    for step in worked.steps:
        if step.vessel is not None:
            behind = all_behind(steps, step.id)
            if step.vessel.before_g:
                assert filled[step.part, step.vessel.vessel] in behind
            for content in step.vessel.tipped:
                assert any(steps[other].vessel and steps[other].vessel.holds == content.name for other in behind)
            filled[step.part, step.vessel.vessel] = step.id


class TestBeans:
    def worked(self):
        base = [line("sweet-rice", 400), line("water", 400), line("small-red-bean", 100, soak_min=480)]
        return work(a_sheet("crushed-balls", ("base", base)), KITCHEN)

    def test_a_soak_of_their_own_is_a_step_that_begins_in_time(self):
        steps = {step.id: step for step in self.worked().steps}
        assert steps["soak-beans"].minutes == pytest.approx(490)  # eight hours, and ten minutes to sort them
        assert [(item.name, item.grams) for item in steps["soak-beans"].to_hand] == [("Small red beans, dry", 100)]
        assert "soak-beans" in all_behind(steps, "cook-grain")

    def test_they_go_into_the_pot_with_the_water_they_took_up(self):
        worked = self.worked()
        steps = {step.id: step for step in worked.steps}
        soaked = 100 + worked.facts["grain.bean_uptake_g"].value
        contents = {content.name: content.grams for content in steps["cook-grain"].vessel.tipped}
        assert contents["soaked beans"] == pytest.approx(soaked)
        assert contents["soaked grain"] == pytest.approx(worked.facts["grain.soaked_g"].value)

    def test_beans_without_one_are_rinsed_with_the_grain(self):
        base = [line("sweet-rice", 400), line("water", 400), line("small-red-bean", 100)]
        steps = {step.id: step for step in work(a_sheet("crushed-balls", ("base", base)), KITCHEN).steps}
        assert "soak-beans" not in steps
        assert "Small red beans, dry" in [item.name for item in steps["rinse"].to_hand]


class TestGrainThatIsNotRinsed:
    @pytest.mark.parametrize(
        ("soak_min", "drain_min", "first"), [(120, 30, "soak"), (0, 30, "drain"), (0, 0, "cook-grain")]
    )
    def test_goes_in_at_the_first_step_that_is_done(self, soak_min, drain_min, first):
        document = default_sheet("tray-rice").model_dump(mode="json")
        document["grain"] |= {"rinses": 0, "soak_min": soak_min, "drain_min": drain_min}
        worked = work(sheet_from(document), KITCHEN)
        assert "rinse" not in [step.id for step in worked.steps]
        took = [step.id for step in worked.steps if any(item.group == "grain" for item in step.to_hand)]
        assert took == [first]
        has_every_gram_once(worked)
        adds_up(worked)


def test_of_one_batter_each_tin_gets_its_share_by_its_floor():
    """By hand: one round tin of 20 cm, π/4 · 200² = 31 416 mm², and two oblong ones of 150 by 75 mm, 11 250 mm² each."""
    document = default_sheet("batter-bake").model_dump(mode="json")
    document["vessel"] = {
        "tin": {"shape": "round", "diameter_mm": 200, "height_mm": 60},
        "more": [{"tin": {"shape": "oblong", "length_mm": 150, "width_mm": 75}, "count": 2}],
    }
    pour = next(step for step in work(sheet_from(document), KITCHEN).steps if step.id == "pour")
    whole = pour.vessel.after_g
    floor = 31415.93 + 2 * 11250
    assert [(tin.count, tin.grams) for tin in pour.tins] == [
        (1, pytest.approx(whole * 31415.93 / floor)),
        (2, pytest.approx(whole * 11250 / floor)),
    ]
    assert pour.target is None  # of the whole batch: no scale shows that at a tin
    alone = next(step for step in work(default_sheet("batter-bake"), KITCHEN).steps if step.id == "pour")
    assert (alone.tins, alone.target.key) == ([], "mix.batch_g")


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize(
    "part",
    [
        {"role": "liquid", "lines": [line("water", 100), line("bay-leaf", 2)]},
        {"role": "oil", "family": "infused-oil", "lines": [line("sunflower-oil", 60), line("shallot", 30)]},
    ],
    ids=["infusion", "oil"],
)
def test_what_joins_from_the_start_is_waited_for(way, part):
    document = json.loads(default_sheet(way).model_dump_json())
    document["parts"].append({**part, "rest": {"": {"to": "base"}}})
    worked = work(sheet_from(document), KITCHEN)
    steps = {step.id: step for step in worked.steps}
    last = [step.id for step in worked.steps if step.part == part["role"]][-1]
    made = next(each.outputs[0].name for each in worked.parts if each.role == part["role"])
    at = [step.id for step in worked.steps if any(item.name == made for item in step.to_hand)]
    assert at
    assert all(last in all_behind(steps, step) for step in at)


@given(
    way=st.sampled_from(sorted(WAYS)),
    role=st.sampled_from(["glaze", "syrup"]),
    where=st.sampled_from(get_args(Where)),
    at=st.integers(0, 20),
)
@settings(max_examples=examples(60))
def test_a_part_put_anywhere_before_any_step_goes_in_once(way, role, where, at):
    """Caramel that lines the tin where its card would brush it on: the step that it was to join is gone with the brushing."""
    document = default_sheet(way).model_dump()
    steps = ["", *(step.id for step in WAYS[way].steps)]
    place = {"to": "whole", "where": where, "joins": steps[at % len(steps)]}
    lines = [line("white-sugar", 90), line("water", 30)]
    caramel = {"role": role, "family": "burnt-sugar", "name": "caramel", "lines": lines, "rest": {"": place}}
    document["parts"] = [*(part for part in document["parts"] if part["role"] != role), caramel]
    worked = work(sheet_from(document), KITCHEN)
    assert worked.problems == []
    has_every_gram_once(worked)
    adds_up(worked)


@pytest.mark.parametrize(("water", "within"), [(25, 5.0), (90, None)])
def test_caramel_is_in_the_tin_before_it_sets(water, within):
    """90 g of sugar and 25 of water are 78 % solids and set hard; with 90 of water it is a syrup, poured when one likes."""
    document = default_sheet("batter-bake").model_dump()
    lines = [line("white-sugar", 90), line("water", water)]
    place = {"to": "whole", "where": "under"}
    caramel = {"role": "glaze", "family": "burnt-sugar", "lines": lines, "rest": {"": place}}
    document["parts"] = [*document["parts"], caramel]
    steps = {step.id: step for step in work(sheet_from(document), KITCHEN).steps}
    wait = next(wait for wait in steps["put-glaze"].after if wait.step == "glaze-burn")
    assert wait.at_most == within
    assert any(wait.step == "line" for wait in steps["put-glaze"].after)


def test_soup_is_thickened_once_in_the_pot_of_the_balls():
    """By hand: 840 juice, 40 honey, 24 flour. Nine tenths of juice and honey are in the pot before the balls; a tenth, 88 g, is
    kept back cold, and the flour goes in with it after them."""
    lines = [line("apple-juice", 840), line("mild-honey", 40), line("sweet-rice-flour", 24)]
    soup = {"role": "broth", "family": "slurry-soup", "name": "soup", "lines": lines}
    document = default_sheet("boiled-balls").model_dump()
    document["parts"] = [*(part for part in document["parts"] if part["role"] != "broth"), soup]
    listed = {}
    for pot in ("water", "thickened"):
        document["schools"]["pot"] = pot
        worked = work(sheet_from(document), KITCHEN)
        has_every_gram_once(worked)
        listed[pot] = {step.id: {item.name: item.grams for item in step.to_hand} for step in worked.steps}
    assert "bind" not in listed["water"]
    assert listed["water"]["broth-thicken"] == pytest.approx(
        {"Apple juice": 840, "Honey, mild": 40, "Sweet rice flour": 24}
    )
    assert "broth-thicken" not in listed["thickened"]
    assert listed["thickened"]["boil-broth"] == pytest.approx({"Apple juice": 756, "Honey, mild": 36})
    assert listed["thickened"]["bind"] == pytest.approx({"Apple juice": 84, "Honey, mild": 4, "Sweet rice flour": 24})

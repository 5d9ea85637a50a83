"""How a way's steps become a sheet's."""

import sys
import textwrap
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from sheets_by_hand import KITCHEN, a_sheet, line

import kemble.core.cards.ways as ways_package
from kemble.core.cards.faults import faults_of
from kemble.core.cards.ways import WAYS, _load_ways
from kemble.core.change.shopping import shopping
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.occasion import steps_without_parts
from kemble.core.plan.schedule import plan_for
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

SERVE = datetime(2026, 12, 5, 15, 30, tzinfo=UTC)


def worked(way, **changes):
    document = default_sheet(way).model_dump()
    for path, value in changes.items():
        place, keys = document, path.split("__")
        for key in keys[:-1]:
            place = place[int(key) if key.isdigit() else key]
        place[keys[-1]] = value
    return work(sheet_from(document), KITCHEN)


class TestSteps:
    def test_a_school_takes_its_own_step(self):
        melted = [step.id for step in worked("set-cake").steps]
        burnt = [step.id for step in worked("set-cake", schools__syrup="burnt").steps]
        assert "melt" in melted
        assert "burn" not in melted
        assert "burn" in burnt
        assert "melt" not in burnt

    def test_molten_sugar_is_warned_of_only_where_it_is_made(self):
        assert "molten-sugar" not in {caution.id for caution in worked("set-cake").cautions}
        assert "molten-sugar" in {caution.id for caution in worked("set-cake", schools__syrup="burnt").cautions}

    def test_a_part_that_is_not_there_asks_for_no_step(self):
        document = default_sheet("boiled-balls").model_dump()
        document["parts"] = document["parts"][:1]
        document["pieces"] = {"dough_g": 15}
        plain = {step.id: step for step in work(sheet_from(document), KITCHEN).steps}
        assert not {"filling-grind", "filling-chill", "ball-filling", "freeze-filling", "broth-steep"} & set(plain)
        assert [wait.step for wait in plain["wrap"].after] == ["divide"]

    def test_a_step_left_out_hands_on_whom_it_waited_for(self, monkeypatch):
        """Without melt and burn, cool-syrup waits for nothing; were cool-syrup left out, mix would wait for melt."""
        way = WAYS["set-cake"]
        without = replace(
            way, steps=tuple(replace(step, part="coat") if step.id == "cool-syrup" else step for step in way.steps)
        )
        monkeypatch.setitem(WAYS, "set-cake", without)
        steps_by_name = {step.id: step for step in work(default_sheet("set-cake"), KITCHEN).steps}
        assert "cool-syrup" not in steps_by_name
        assert {wait.step for wait in steps_by_name["mix"].after} == {"melt", "line"}

    def test_an_alternative_not_taken_sets_no_clock(self):
        """Steamed dough is folded and cooled; nothing of the pan's own path is waited for, nor anything twice."""
        steps = {step.id: step for step in worked("stirred-rounds", schools__cook="steam").steps}
        next_one = steps.get("cool") or steps["portion"]  # hands may take it at once: then there is nothing to wait for
        assert [wait.step for wait in next_one.after] == ["fold"]
        assert [wait.step for wait in steps["fold"].after] == ["steam-dough"]

    def test_a_part_comes_before_the_step_that_uses_it(self):
        steps = {step.id: step for step in worked("stirred-rounds").steps}
        assert [wait.step for wait in steps["ball-filling"].after] == ["filling-cool"]
        assert steps["filling-dry"].target.grams == pytest.approx(130 * 2.9)

    def test_a_bought_paste_is_neither_soaked_nor_simmered(self):
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"][1]["lines"] = [{"ingredient": "red-bean-paste", "amount": {"value": 380, "unit": "g"}}]
        steps = {step.id: step for step in work(sheet_from(document), KITCHEN).steps}
        assert not [name for name in steps if name.startswith("filling-")]
        assert steps["ball-filling"].after == []

    def test_a_part_that_no_step_names_is_ready_when_it_is_served(self):
        document = default_sheet("set-cake").model_dump()
        document["parts"] = [
            *document["parts"],
            {"role": "broth", "lines": [{"ingredient": "pear-juice", "amount": {"value": 400}}]},
        ]
        steps = {step.id: step for step in work(sheet_from(document), KITCHEN).steps}
        assert "broth-steep" in [wait.step for wait in steps["serve"].after]

    def test_grain_that_is_not_soaked_asks_for_no_soak(self):
        assert "soak" in {step.id for step in worked("tray-rice").steps}
        unsoaked = {step.id: step for step in worked("tray-rice", grain__soak_min=0).steps}
        assert "soak" not in unsoaked
        assert [wait.step for wait in unsoaked["drain"].after] == ["rinse"]

    def test_order_traps_are_asked_before_it_is_late(self):
        steps = {step.id: step for step in worked("batter-bake").steps}
        assert "lined" in steps["pour"].asks

    def test_minutes_by_the_piece(self):
        """Wrapping: 2 min and 0.7 for each of 24; with 12 pieces 10.4."""
        steps = {step.id: step for step in worked("boiled-balls").steps}
        assert steps["wrap"].minutes == pytest.approx(2 + 0.7 * 24)
        fewer = {step.id: step for step in worked("boiled-balls", pieces__dough_g=36, pieces__filling_g=18).steps}
        assert fewer["wrap"].minutes == pytest.approx(2 + 0.7 * 12)

    def test_the_scale_is_told_what_to_show(self):
        steps = {step.id: step for step in worked("boiled-balls").steps}
        assert steps["wrap"].target.grams == pytest.approx(27.0)
        assert steps["filling-grind"].target.grams == pytest.approx(216.0)
        assert steps["serve"].target is None

    def test_what_is_to_hand_at_each_step(self):
        cake = {step.id: step for step in worked("set-cake").steps}
        assert [item.name for item in cake["melt"].to_hand] == ["Water", "Light brown sugar"]
        assert (cake["mix"].to_hand[0].name, cake["mix"].to_hand[0].grams) == ("Sweet rice flour", 300)
        assert cake["steam"].to_hand == []
        balls = {step.id: step for step in worked("boiled-balls").steps}
        assert [item.name for item in balls["filling-grind"].to_hand][-1] == "Butter"
        waters = [(item.act, item.grams) for item in balls["dough"].to_hand if item.name == "Water"]
        assert waters == [("boiling", pytest.approx(64)), ("cool", pytest.approx(128))]

    def test_a_window_is_that_of_the_last_load(self):
        small = Kitchen(pots=({"diameter_mm": 160, "water_ml": 1500},))
        balls = work(default_sheet("boiled-balls"), small)
        boil = next(step for step in balls.steps if step.id == "boil")
        loads, done = balls.facts["heat.loads"].value, balls.facts["heat.done_min"].value
        assert loads > 1
        before = (loads - 1) * (done + 3)  # three minutes to change them
        assert boil.minutes == pytest.approx(before + done)
        assert boil.window.done == pytest.approx(before + done)
        assert boil.window.first_check == pytest.approx(before + balls.facts["heat.first_check_min"].value)


@pytest.fixture
def one_more_file(tmp_path, monkeypatch):
    """A way of its own in one file, laid where the ways lie."""
    text = """
        from dataclasses import replace

        from kemble.core.cards.ways.boiled_balls import WAY as BALLS

        WAY = replace(BALLS, id="tiny-balls", name="Tiny balls", kin=("beads",))
    """
    (tmp_path / "tiny_balls.py").write_text(textwrap.dedent(text))
    monkeypatch.setattr(ways_package, "__path__", [*ways_package.__path__, str(tmp_path)])
    yield
    sys.modules.pop("kemble.core.cards.ways.tiny_balls", None)


def test_adding_a_way_is_a_matter_of_one_file(one_more_file, monkeypatch):
    ways_by_name = _load_ways()
    assert set(ways_by_name) == {*WAYS, "tiny-balls"}
    monkeypatch.setitem(WAYS, "tiny-balls", ways_by_name["tiny-balls"])
    answer = work(default_sheet("tiny-balls"), KITCHEN)
    assert answer.problems == []
    assert answer.facts["shape.pieces"].value == 24
    assert [step.id for step in answer.steps][-1] == "serve"


class TestMadeFromRaw:
    def steps(self, nut):
        base = [line("sweet-rice-flour", 200), line("water", 160)]
        filling = [line(nut, 90), line("light-brown-sugar", 40), line("butter", 30)]
        step_result = work(a_sheet("boiled-balls", ("base", base), ("filling", filling)), KITCHEN).steps
        return {step.id: step for step in step_result}

    def test_raw_nuts_are_roasted_first_and_ground_cold(self):
        steps = self.steps("peanut-raw")
        assert [item.name for item in steps["filling-roast"].to_hand] == ["Peanuts, raw"]
        assert ("filling-roast", 20) in [(wait.step, wait.at_least) for wait in steps["filling-grind"].after]

    def test_roasted_ones_are_not(self):
        steps = self.steps("peanut")
        assert "filling-roast" not in steps
        assert len(steps["filling-grind"].to_hand) == 3

    def test_grain_in_its_own_water_is_not_drained(self):
        document = default_sheet("crushed-balls").model_dump(mode="json")
        document["grain"]["water"] = "own"
        steps = [step.id for step in work(sheet_from(document), KITCHEN).steps]
        assert "soak" in steps
        assert "drain" not in steps


class TestPace:
    def minutes(self, way, step, **pace):
        steps = {each.id: each for each in work(default_sheet(way), Kitchen(pace=pace)).steps}
        return steps[step].minutes

    def test_a_part_s_pace_is_read_by_the_id_that_it_is_kept_under(self):
        """Filling ground at twice the usual minutes; a way's own grinding is another step."""
        usual = self.minutes("boiled-balls", "filling-grind")
        assert self.minutes("boiled-balls", "filling-grind", **{"filling-grind": 2.0}) == pytest.approx(2 * usual)
        assert self.minutes("boiled-balls", "filling-grind", grind=2.0) == pytest.approx(usual)
        packets = self.minutes("ground-packets", "grind")
        assert self.minutes("ground-packets", "grind", grind=2.0) == pytest.approx(2 * packets)


def test_a_part_that_is_there_already_takes_its_own_steps_only():
    """Ball the filling is a step of the way, whatever its name begins with; the filling's own steps say whose they are."""
    steps = work(default_sheet("boiled-balls"), KITCHEN).steps
    own = steps[0].model_copy(update={"id": "filling-my-own", "part": None, "after": []})
    left = [step.id for step in steps_without_parts([own, *steps], ["filling"])]
    assert left[:2] == ["filling-my-own", "ball-filling"]
    assert not {"filling-grind", "filling-chill"} & set(left)


class TestWordsFollowTheSchool:
    def step(self, way, step, **schools):
        sheet = default_sheet(way).model_dump()
        sheet["schools"].update(schools)
        return next(each for each in work(sheet_from(sheet), KITCHEN).steps if each.id == step)

    def test_brown_asks_for_colour_and_clear_for_clearness(self):
        assert "clear" in self.step("set-cake", "steam").cue.question
        brown = self.step("set-cake", "steam", until="colour").cue
        assert "brown" in brown.question
        assert brown.looks == "amber"

    def test_what_is_fried_plain_goes_through_no_egg(self):
        assert "egg" in self.step("set-cake", "fry", finish="fry").words
        for fried in ("plain", "deep"):
            step = self.step("set-cake", "fry", finish="fry", fried=fried)
            assert "egg" not in f"{step.title} {step.words} {' '.join(step.tools)}"

    def test_with_nothing_poured_off_nothing_is_told_to_be(self):
        beans = [line("small-red-bean", 150), line("water", 500), line("light-brown-sugar", 100)]
        sheet = sheet_from(
            {
                "way": "stirred-rounds",
                "parts": [
                    {"role": "base", "lines": [line("sweet-rice-flour", 200), line("water", 250)]},
                    {"role": "filling", "family": "bean-paste", "schools": {"soak": "lid"}, "lines": beans},
                ],
            }
        )
        step = next(each for each in work(sheet, KITCHEN).steps if each.id == "filling-simmer-lid")
        assert "pour that water off" not in step.words
        assert "none of it is poured off" in step.words

    def test_a_covered_cake_has_no_lid_in_a_cloth_and_brown_is_looked_for_where_it_can_be_seen(self):
        open_pot, covered = (self.step("set-cake", "raise-steam", cover=cover) for cover in ("open", "covered"))
        assert "lid in a cloth" in open_pot.tools
        assert "cloth" not in f"{covered.words} {covered.tools}"
        assert "foil" in self.step("set-cake", "pour", cover="covered").words
        assert "under the foil" in self.step("set-cake", "steam", until="colour", cover="covered").cue.question
        assert "foil" not in self.step("set-cake", "steam", until="colour").cue.question

    def test_a_lining_is_of_what_was_chosen(self):
        for lining, word, other in (
            ("paper", "paper", "crumbs"),
            ("crust", "crumbs", "paper"),
            ("leaf", "leaf", "paper"),
        ):
            step = self.step("batter-bake", "line", lining=lining)
            assert word in step.words
            assert other not in f"{step.words} {step.tools}"

    def test_only_what_goes_in_is_named(self):
        """A batter of flour, sugar and water: no oil goes in last, and no salt."""
        document = default_sheet("set-cake").model_dump()
        base = document["parts"][0]
        names = {"sunflower-oil": "oil", "salt": "salt"}
        for left_out, word in names.items():
            lines = [each for each in base["lines"] if each["ingredient"] != left_out]
            steps = work(sheet_from({**document, "parts": [{**base, "lines": lines}]}), KITCHEN).steps
            assert word not in next(each for each in steps if each.id == "mix").words
            assert word in self.step("set-cake", "mix").words

    def test_what_joins_earlier_is_not_named_again_later(self):
        """Oil that is stirred into the hot syrup is no longer the oil that goes in last."""
        document = default_sheet("set-cake").model_dump()
        oil = next(each for each in document["parts"][0]["lines"] if each["ingredient"] == "sunflower-oil")
        oil["splits"] = [{"share": 1, "joins": "melt"}]
        mix = next(each for each in work(sheet_from(document), KITCHEN).steps if each.id == "mix")
        assert "oil" not in mix.words

    def test_foil_alone_has_no_leaf_to_trim_and_no_plants_to_beware_of(self):
        document = default_sheet("ground-packets").model_dump()
        wrapper = next(part for part in document["parts"] if part["role"] == "wrapper")
        wrapper["lines"] = [each for each in wrapper["lines"] if each["ingredient"] == "kitchen-foil"]
        steps = work(sheet_from(document), KITCHEN).steps
        assert wrapper["lines"]
        assert [each.id for each in steps if "leaves" in each.id] == []
        assert all("plants" not in each.cautions for each in steps)
        for each in steps:
            assert "leaf" not in f"{each.title} {each.words} {each.asks}".lower(), each.id

    def test_pieces_without_a_filling_are_not_filled(self):
        document = default_sheet("boiled-balls").model_dump()
        document["parts"] = [part for part in document["parts"] if part["role"] != "filling"]
        document["pieces"]["filling_g"] = None
        steps = work(sheet_from(document), KITCHEN).steps
        wrap = next(each for each in steps if each.id == "wrap")
        assert wrap.title == "Roll the balls"
        assert all("filling" not in f"{each.title} {each.words} {each.asks}" for each in steps)

    def test_what_is_pounded_in_a_mortar_has_no_blade(self):
        for pound, word in (("machine", "blade"), ("mortar", "mallet"), ("bowl", "pin")):
            step = self.step("pounded", "pound", pound=pound)
            said = f"{step.words} {step.asks} {' '.join(step.tools)}"
            assert word in said
            assert ("blade" in said) == (pound == "machine")

    def test_what_is_stirred_says_how_often_by_a_clock(self):
        assert self.step("stirred-rounds", "stir").rhythm.every_s == 15
        assert self.step("tray-rice", "fold").rhythm.every_s == 20

    def test_how_often_it_is_rinsed_is_said(self):
        for rinses, times in ((1, "once"), (2, "twice"), (5, "5 times")):
            sheet = default_sheet("crushed-balls").model_dump()
            sheet["grain"]["rinses"] = rinses
            words = next(each for each in work(sheet_from(sheet), KITCHEN).steps if each.id == "rinse").words
            assert f"pour it off: {times}." in words

    def test_without_a_syrup_nothing_is_folded_into_one(self):
        document = default_sheet("tray-rice").model_dump()
        document["parts"] = [part for part in document["parts"] if part["role"] != "syrup"]
        for finish in ("bake", "set"):
            document["schools"]["finish"] = finish
            steps = {each.id: each for each in work(sheet_from(document), KITCHEN).steps}
            assert "fold" not in steps
            assert steps["level"].vessel.after_g == pytest.approx(
                work(sheet_from(document), KITCHEN).facts["mix.cooked_g"].value
            )

    def test_foil_alone_has_no_leaf_to_trim_and_no_wild_plant(self):
        base = [line("sweet-rice", 300), line("water", 300)]
        foil = work(
            a_sheet("ground-packets", ("base", base), ("wrapper", [line("kitchen-foil", 12, "piece")])), KITCHEN
        )
        assert not [step.id for step in foil.steps if step.id.startswith("wrapper-")]
        assert "plants" not in [caution.id for caution in foil.cautions]
        leaf = work(a_sheet("ground-packets", ("base", base), ("wrapper", [line("banana-leaf", 12, "piece")])), KITCHEN)
        assert "wrapper-trim" in [step.id for step in leaf.steps]
        assert "plants" in [caution.id for caution in leaf.cautions]

    def test_shallots_are_done_pale_gold(self):
        oil = [line("shallot", 60), line("sunflower-oil", 80)]
        base = [line("sweet-rice-flour", 200), line("water", 290)]
        steps = work(a_sheet("folded-pulls", ("base", base), ("oil", oil)), KITCHEN).steps
        assert next(each for each in steps if each.id == "oil-fry").cue.looks == "straw"


def test_a_filling_s_fault_is_asked_only_where_there_is_one():
    way = WAYS["boiled-balls"]
    assert "leaks" not in {fault.id for fault in faults_of(way, ["base", "broth"])}
    assert "leaks" in {fault.id for fault in faults_of(way, ["base", "filling"])}
    assert "thin-broth" not in {fault.id for fault in faults_of(way, ["base", "filling"])}


def test_a_glaze_under_the_cake_shortens_no_bake():
    document = default_sheet("batter-bake").model_dump()
    plain = work(sheet_from(document), KITCHEN).facts["heat.bare_min"].value
    glaze = {"role": "glaze", "lines": [line("milk", 60), line("light-brown-sugar", 30)]}
    over = sheet_from({**document, "parts": [*document["parts"], glaze]})
    assert work(over, KITCHEN).facts["heat.bare_min"].value < plain
    under = {**glaze, "rest": {"": {"to": "whole", "where": "under", "joins": "pour"}}}
    below = work(sheet_from({**document, "parts": [*document["parts"], under]}), KITCHEN).facts
    assert "heat.glaze_at_min" not in below


def test_one_date_on_top_is_laid_there_in_a_minute():
    """A date of 8 g takes the minute that anything takes; 200 g of walnuts the four of the card."""
    for ingredient, grams, minutes in (("date", 8, 1), ("walnut", 200, 4)):
        document = default_sheet("set-cake").model_dump()
        document["parts"] = [*document["parts"], {"role": "decoration", "lines": [line(ingredient, grams)]}]
        steps = {step.id: step for step in work(sheet_from(document), KITCHEN).steps}
        assert steps["put-decoration"].minutes == pytest.approx(minutes)


class TestHotOven:
    def test_it_is_heated_to_what_the_sheet_says_and_is_hot_when_it_is_needed(self):
        result = worked("batter-bake", heat__oven_c=190)
        step = next(step for step in result.steps if step.id == "heat-oven")
        assert step.words.startswith("Heat it to 190 °C")
        plan = plan_for(result.steps, KITCHEN, serve=SERVE, now=SERVE - timedelta(days=1))
        at = {scheduled.step.id: scheduled for scheduled in plan.scheduled}
        assert timedelta(0) <= at["bake"].starts - at["heat-oven"].ends <= timedelta(minutes=10)

    def test_rice_that_is_stirred_until_the_pan_is_clean_needs_none(self):
        assert "heat-oven" in [step.id for step in worked("tray-rice").steps]
        assert "heat-oven" not in [step.id for step in worked("tray-rice", schools={"finish": "set"}).steps]


class TestBrings:
    """What no line of the sheet says, and a cook needs: at its step, among the allergens, on the shopping list."""

    def brought(self, way, **schools):
        sheet = default_sheet(way).model_dump()
        sheet["schools"].update(schools)
        worked = work(sheet_from(sheet), KITCHEN)
        return worked, {(step.id, item.ingredient): item for step in worked.steps for item in step.brings}

    def test_slices_in_egg_want_an_egg_and_say_so(self):
        """24 slices, 4 g of egg each: 96 g."""
        worked, brought = self.brought("set-cake", finish="fry")
        assert brought["fry", "egg"].grams == pytest.approx(96)
        assert "egg" in worked.allergens
        worked, brought = self.brought("set-cake", finish="fry", fried="plain")
        assert ("fry", "egg") not in brought
        assert "egg" not in worked.allergens

    def test_hands_take_salted_water_by_the_piece(self):
        worked, brought = self.brought("crushed-balls")
        assert brought["ball", "water"].grams == worked.facts["shape.hand_water_ml"].value
        assert brought["ball", "salt"].grams == worked.facts["shape.hand_salt_g"].value

    def test_starch_for_the_board_where_no_coat_lies_on_it(self):
        with_coat = self.brought("stirred-rounds")[1]
        assert ("board", "potato-starch") not in with_coat
        document = default_sheet("stirred-rounds").model_dump()
        document["parts"] = [part for part in document["parts"] if part["role"] != "coat"]
        board = next(step for step in work(sheet_from(document), KITCHEN).steps if step.id == "board")
        assert [(item.name, item.grams) for item in board.brings] == [("Potato starch", 60.0)]

    def test_it_is_bought(self):
        """300 g of flour and 18 g of oil on the lines; 4 g of oil for the tin beside."""
        lines = {line.ingredient: line for line in shopping([default_sheet("set-cake")], KITCHEN).lines}
        assert lines["sunflower-oil"].need_g == pytest.approx(18 + 4)
        assert "water" not in lines

"""A recipe out of anything and into everything: by hand, over a small corpus of ours, and back again for every way."""

import json
import time
from contextlib import suppress

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sheets_drawn import sheets
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.formats.method_text import MethodFinding, read_method
from kemble.core.formats.recipe_reader import laid_on, read_recipe, sheet_of
from kemble.core.formats.recipe_writer import FORMATS, written
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()


def says(line):
    """(path, value) of all that a line of a method says."""
    return {
        finding.path: finding.value for finding in read_method([line])[0].says if finding.path and finding.path != "way"
    }


def asks(line):
    return [finding.asks for finding in read_method([line])[0].says if finding.asks]


@pytest.mark.parametrize(
    ("line", "path", "value"),
    [
        ("Preheat the oven to 350°F.", "heat.oven_c", 176.7),
        ("Bake at 180 C until golden.", "heat.oven_c", 180.0),
        ("Set the oven to 375 degrees Fahrenheit", "heat.oven_c", 190.6),
        ("Pour into a 9 x 13 inch pan.", "vessel.tin.length_mm", 330.2),
        ("Pour into a 9 x 13 inch pan.", "vessel.tin.width_mm", 228.6),
        ("Line a 33x23 cm tin with paper.", "vessel.tin.length_mm", 330.0),
        ("Grease an 8-inch square pan", "vessel.tin.width_mm", 203.2),
        ("Oil an 18 cm round tin.", "vessel.tin.diameter_mm", 180.0),
        ("a 20cm springform", "vessel.tin.diameter_mm", 200.0),
        ("Soak the rice overnight, or at least four hours.", "grain.soak_min", 600.0),
        ("Soak the rice for 6 to 8 hours.", "grain.soak_min", 420.0),
        ("Cover tightly with foil.", "schools.cover", "covered"),
        ("Cut into 24 pieces.", "pieces", 24),
        ("Divide the dough into 12 equal portions.", "pieces", 12),
    ],
)
def test_what_a_line_says(line, path, value):
    assert says(line)[path] == pytest.approx(value) if isinstance(value, float) else says(line)[path] == value


@pytest.mark.parametrize(
    ("line", "of", "minutes"),
    [
        ("Steam over medium heat for 45 to 60 minutes.", "heat", 52.5),
        ("Steam for an hour and a half.", "heat", 90.0),
        ("Bake 1 hour 15 minutes.", "heat", 75.0),
        ("Steam for 1½ hours, topping up with water.", "heat", 90.0),
        ("Simmer 3 hours.", "heat", 180.0),
        ("Microwave for three minutes.", "heat", 3.0),
        ("Let it cool for 2 hours before cutting.", "rest", 120.0),
        ("Chill overnight.", "rest", 600.0),
        ("For half an hour, steam it.", "heat", 30.0),
    ],
)
def test_a_given_time_is_that_of_its_verb(line, of, minutes):
    assert says(line)[f"method.{of}"]["minutes"] == pytest.approx(minutes)


def test_what_is_not_of_the_cake_is_not_taken():
    assert "method.heat" not in says("Bring the water to the boil for 5 minutes.")
    assert "method.heat" not in says("Preheat the steamer 10 minutes.")
    assert says("Serves 8 people in 8 pieces.") == {}
    assert says("A 2-inch piece of ginger.") == {}
    assert says("Enjoy.") == {}


def test_what_is_not_clear_is_asked():
    assert asks("Bake at 400.") == []  # no degree, nothing is said
    assert "which kind" in asks("Bake at 400° for an hour.")[0]
    assert "No oven" in asks("Bake at 40 C.")[0]
    assert "Inches or centimetres" in asks("a pan, 8 x 8")[0]
    assert "of what" in asks("Wait 20 minutes.")[0]


PAGE = """<html><head><title>x</title><script>alert(1)</script>
<script type="application/ld+json; charset=utf-8">{"@graph":[{"@type":"WebSite"},{"@type":["Thing","Recipe"],
"name":"Tea &amp; orange cake","recipeYield":["24","24 pieces"],"cookTime":"PT1H10M",
"recipeIngredient":["300 g glutinous rice flour","390 ml black tea","1 1/4 cups brown sugar","<b>1 tbsp</b> oil"],
"recipeInstructions":[{"@type":"HowToSection","name":"Batter","itemListElement":[{"@type":"HowToStep","text":"Melt the sugar in the tea."}]},
{"@type":"HowToStep","text":"Steam in an 18 cm round tin, <b>slowly</b>."}]}]}</script></head><body>junk</body></html>"""


class TestRead:
    def test_a_page_s_source(self):
        told = read_recipe(PAGE, KITCHEN)
        assert (told.source, told.title, told.yields, told.way) == (
            "recipe",
            "Tea & orange cake",
            "24 pieces",
            "set-cake",
        )
        assert [line.ingredient for line in told.listed.lines] == [
            "sweet-rice-flour", "black-tea", "light-brown-sugar", "sunflower-oil",
        ]  # fmt: skip
        given = [finding.value for line in told.method for finding in line.says if finding.path == "method.heat"]
        assert [item["minutes"] for item in given] == [70.0]
        assert not any("<" in line.text for line in told.method)
        assert told.because == ["it is steamed"]

    def test_plain_text_with_its_headings(self):
        text = "# Grandmother's cake\nServes 8\n\n## Ingredients\n- 1 lb sweet rice flour\n- 2 cups water\n\n## Method\n1. Bake in the oven.\n"
        told = read_recipe(text, KITCHEN)
        assert (told.title, told.yields, told.way) == ("Grandmother's cake", "Serves 8", "batter-bake")
        assert [line.ingredient for line in told.listed.lines] == ["sweet-rice-flour", "water"]
        assert [line.text for line in told.method] == ["1. Bake in the oven."]
        assert any("how many pieces" in question for question in told.asks)
        assert any("Which cup" in question for question in told.asks)

    def test_a_bare_list_is_a_list(self):
        told = read_recipe("300 g sweet rice flour\n380 ml water\n200 g brown sugar", KITCHEN)
        assert len(told.listed.lines) == 3
        assert told.method == []
        assert told.way == told.listed.way

    def test_the_method_tells_the_way_from_another_of_the_same_list(self):
        flour = "Ingredients\n300 g sweet rice flour\n300 ml water\nMethod\n"
        assert read_recipe(flour + "Steam it in a tin.", KITCHEN).way == "set-cake"
        assert (
            read_recipe(flour + "Shape balls and drop them into boiling water until they float.", KITCHEN).way
            == "boiled-balls"
        )
        assert read_recipe(flour + "Microwave, stirring, until it is sticky.", KITCHEN).way == "stirred-rounds"
        grain = "Ingredients\n500 g sweet rice\nMethod\n"
        assert read_recipe(grain + "Steam it, then pound it in a mortar.", KITCHEN).way == "pounded"
        assert read_recipe(grain + "Wrap in leaves and tie; boil.", KITCHEN).way == "leaf-parcels"

    def test_two_that_differ_are_asked_about(self):
        text = "Ingredients\n300 g sweet rice flour\nMethod\nHeat the oven to 180 C.\nBake at 160 C."
        assert any("oven c: 160.0, 180.0" in question for question in read_recipe(text, KITCHEN).asks)

    @pytest.mark.parametrize(
        "text",
        [
            "", " ", "\x00", "{", "[" * 5000, '{"@type":"Recipe"}', '{"@type":"Recipe","recipeIngredient":{"a":[1,null,true]}}',
            '{"format":"kemble-sheet"}', '{"format":"kemble-sheet","parts":"x"}', "<script type='application/ld+json'>{</script>",
            "<html>" + "<div>" * 20000, json.dumps({"@graph": [[[[[[[[[[[[[[{"@type": "Recipe"}]]]]]]]]]]]]]]}),
            "Method\n" * 300, "a" * 120_000, "9" * 5000 + " g rice\n", "1/0 cup rice", "Bake 1/0 hours at 9999 F in a 0 x 0 inch pan",
        ],
    )  # fmt: skip
    def test_hostile_things_are_read_or_asked_about(self, text):
        began = time.perf_counter()
        told = read_recipe(text, KITCHEN)
        assert told.sheet is None
        assert time.perf_counter() - began < 5

    @settings(max_examples=examples(60), suppress_health_check=[HealthCheck.too_slow], deadline=None)
    @given(st.text(max_size=400))
    def test_any_text_is_read(self, text):
        read_recipe(text, KITCHEN)
        read_method([text])


class TestWritten:
    @pytest.mark.parametrize("way", sorted(WAYS))
    @pytest.mark.parametrize("how", ["kemble", "recipe"])
    def test_what_we_wrote_is_read_as_it_was(self, way, how):
        sheet = default_sheet(way)
        told = read_recipe(written(sheet, work(sheet, KITCHEN), how), KITCHEN)
        assert (told.source, told.sheet) == ("sheet", sheet)

    @pytest.mark.long
    @settings(max_examples=examples(60), deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(sheets(), st.text(alphabet=st.characters(exclude_categories=["Cs", "Cc"]), max_size=40))
    def test_any_sheet_comes_back_as_it_was(self, sheet, words):
        """Whatever is in it, whatever it is called; as a file, and as recipe data in a page's source."""
        named = sheet_from({**sheet.model_dump(), "title": f"A cake {words}"[:120].strip()})
        worked = work(named, KITCHEN)
        assert read_recipe(written(named, worked, "kemble"), KITCHEN).sheet == named
        data = written(named, worked, "recipe")
        assert read_recipe(data, KITCHEN).sheet == named
        page = f'<html><body><p>A page</p><script type="application/ld+json">{data}</script></body></html>'
        assert read_recipe(page, KITCHEN).sheet == named

    @pytest.mark.parametrize("way", sorted(WAYS))
    def test_recipe_data_without_our_sheet_gives_the_same_amounts(self, way):
        """As another program would keep it: every line read back to its ingredient and, to a per cent, its grams."""
        sheet = default_sheet(way)
        worked = work(sheet, KITCHEN)
        document = json.loads(written(sheet, worked, "recipe"))
        del document["kemble:sheet"]
        told = read_recipe(json.dumps(document), KITCHEN)
        lines = [line for line in told.listed.lines if line.kind == "line"]
        assert [line.unit for line in lines] == ["g"] * len(worked.lines)
        for read, line in zip(lines, worked.lines, strict=True):
            assert read.value == pytest.approx(line.grams, rel=0.01, abs=0.5)

    @pytest.mark.parametrize("how", sorted(FORMATS))
    def test_a_sheet_that_cannot_be_worked_is_written_all_the_same(self, how):
        document = default_sheet("set-cake").model_dump(mode="json")
        document["parts"][0]["lines"][0]["amount"]["value"] = 9000
        sheet = sheet_from(document)
        assert sheet.title in written(sheet, work(sheet, KITCHEN), how)

    def test_for_people_it_says_amounts_in_both_and_every_step(self):
        sheet = default_sheet("set-cake")
        worked = work(sheet, KITCHEN)
        for how in ("markdown", "text"):
            text = written(sheet, worked, how)
            assert "300 g" in text
            assert all(step.title in text for step in worked.steps)
            assert f"likely {worked.facts['heat.done_min'].value:.0f})" in text


class TestLaidOn:
    def test_the_whole_of_a_clear_recipe_is_a_sheet(self):
        """By hand: two lines, a tin, an oven, an hour, two hours and 24 pieces; the first of two tins holds."""
        text = (
            "Pan cake\nIngredients\n300 g sweet rice flour\n390 ml water\n200 g brown sugar\nMethod\n"
            "Heat the oven to 180 C and oil an 8-inch square pan.\nBake for 1 hour.\nOr bake in a 9 x 13 inch pan.\n"
            "Cool for 2 hours and cut into 25 squares."
        )
        sheet = sheet_of(read_recipe(text, KITCHEN))
        assert (sheet.title, sheet.way, sheet.heat.oven_c, sheet.cut.pieces) == ("Pan cake", "batter-bake", 180.0, 25)
        assert (sheet.vessel.tin.shape, sheet.vessel.tin.length_mm) == ("oblong", 203.2)
        assert [(entry.step, entry.minutes) for entry in sheet.method] == [("heat", 60.0), ("rest", 120.0)]
        assert not work(sheet, KITCHEN).problems

    def test_what_a_way_has_no_place_for_is_left(self):
        says = [
            finding
            for line in read_method(["Soak overnight in a 9 x 13 inch pan; shape into 20 balls."])
            for finding in line.says
        ]
        balls = laid_on(default_sheet("boiled-balls"), says)
        assert balls.pieces.count == 20
        assert balls.vessel == default_sheet("boiled-balls").vessel
        assert balls.method == ()
        assert balls.grain == default_sheet("boiled-balls").grain

    def test_what_is_not_clear_is_refused_by_its_line(self):
        with pytest.raises(Refused, match="larder"):
            sheet_of(read_recipe("300 g sweet rice flour\n1 tsp snark", KITCHEN))
        with pytest.raises(Refused, match="no way"):
            sheet_of(read_recipe("200 g brown sugar", KITCHEN))
        with pytest.raises(Refused, match="diameter"):
            laid_on(default_sheet("set-cake"), [MethodFinding(path="vessel.tin.diameter_mm", value=2.0)])

    @settings(max_examples=examples(40), deadline=None)
    @given(st.text(max_size=40), st.one_of(st.none(), st.floats(allow_nan=False), st.text(max_size=9)))
    def test_no_path_breaks_a_sheet(self, path, value):
        for item in (path, f"vessel.{path}", f"heat.{path}", f"method.{path}"):
            with suppress(Refused):
                laid_on(default_sheet("set-cake"), [MethodFinding(path=item[:80], value=value)])


def test_a_method_is_written_with_the_time_that_is_used_and_the_cooks_words_first():
    document = default_sheet("set-cake").model_dump(mode="json")
    document["method"] = [
        {"step": "rest-batter", "minutes": 15, "by": "my aunt", "words": "No more, or it settles."},
        {"step": "sieve", "skip": True},
        {"own": "own-rim", "title": "Wipe the rim", "after": "pour", "minutes": 2},
        {"text": "Mother hummed.", "after": "steam"},
    ]
    sheet = sheet_from(document)
    text = written(sheet, work(sheet, KITCHEN), "text")
    assert "Rest the batter: “No more, or it settles.” Bubbles rise" in text
    assert "(15 min (my aunt; Kemble 20 min))" in text
    assert "Wipe the rim" in text
    assert "“Mother hummed.”" in text
    assert "Sieve" not in text
    again = read_recipe(written(sheet, work(sheet, KITCHEN), "recipe"), KITCHEN)
    assert again.sheet == sheet

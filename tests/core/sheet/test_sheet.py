import json
from contextlib import suppress

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.facts.problems import Refused
from kemble.core.geometry.tray_cutting import PATTERNS
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient, IngredientComposition, larder
from kemble.core.kitchen.larder.names import closest_names, names_of, normalize_name
from kemble.core.sheet.document import MOST_BYTES, PIECE_MEASURES, default_sheet, read_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def document(way="set-cake"):
    return json.loads(default_sheet(way).model_dump_json())


SYRUP = {"role": "syrup", "lines": [{"ingredient": "white-sugar", "amount": {"value": 90}}]}


def refused(content):
    with pytest.raises(Refused) as caught:
        sheet_from(content)
    return caught.value.problems[0]


@pytest.mark.parametrize("value", [0, -5, "a lot", 1e12, float("nan"), float("inf"), None, [], "1,5x"])
def test_an_amount_must_be_one(value):
    content = document()
    content["parts"][0]["lines"][1]["amount"]["value"] = value
    problem = refused(content)
    assert problem.path == "parts.0.lines.1.amount.value"
    assert "above 0 and at most 50 000" in problem.accepts


@pytest.mark.parametrize(
    ("change", "path", "accepts"),
    [
        (lambda d: d["parts"][0]["lines"][0].update(ingredient="sweet rice flower"), "parts.0.lines.0.ingredient", "sweet-rice-flour"),
        (lambda d: d.update(way="fried-air"), "way", "set-cake"),
        (lambda d: d.update(titel="x"), "titel", "title"),
        (lambda d: d["schools"].update(syrup="treacle"), "schools.syrup", "melted or burnt"),
        (lambda d: d["schools"].update(hat="on"), "schools.hat", "syrup"),
        (lambda d: d.update(version=4), "version", "3"),
        (lambda d: d.update(parts=[]), "parts", "1 to 12 parts"),
        (lambda d: d["parts"][0].update(role="filling", id="filling"), "parts", "role base"),
        (lambda d: d["parts"][0].update(role="filling"), "parts.0.id", "filling-2"),
        (lambda d: d["parts"].extend([SYRUP, SYRUP]), "parts", "such as syrup-2"),
        (lambda d: d["parts"].append({**SYRUP, "id": "filling-2"}), "parts.1.id", "syrup-2"),
        (lambda d: d["parts"].append({**SYRUP, "id": "syrup-1"}), "parts.1.id", "syrup-2"),
        (lambda d: d["parts"].append({**d["parts"][0], "id": "base-2"}), "parts", "one part with role base"),
        (lambda d: d["parts"][0]["lines"].pop(0), "parts", "sweet rice flour"),
        (lambda d: d["vessel"]["tin"].update(height_mm=3), "vessel.tin.height_mm", "10 to 200 mm"),
        (lambda d: d.update(serve="tomorrow"), "serve", "2026-12-05T15:30"),
        (lambda d: d["cut"].update(pieces=2.5), "cut.pieces", "1 to 400"),
        (lambda d: d["parts"][0]["lines"][0]["amount"].update(unit="bucket"), "parts.0.lines.0.amount.unit", "kg"),
        (lambda d: d["parts"][0]["lines"][1].update(splits=[{"share": 0.5, "at": "now"}]), "parts.0.lines.1", "add up to 1"),
        (lambda d: d["parts"][0]["lines"][1].update(reserve={"value": 9, "unit": "kg"}), "parts.0.lines.1", "less than"),
        (lambda d: d["parts"][0]["lines"][0]["amount"].update(unit="piece"), "parts.0.lines.0", ""),
    ],
)  # fmt: skip
def test_each_problem_names_its_field(change, path, accepts):
    content = document()
    change(content)
    problem = refused(content)
    assert problem.path == path
    assert accepts in problem.accepts
    assert problem.sentence.count("\n") == 0


@pytest.mark.parametrize("text", ["", "{", "[]", "null", "3", '"sheet"', b"\xff\xfe", "[" * 5000])
def test_what_is_no_sheet_at_all(text):
    with pytest.raises(Refused):
        read_sheet(text)


def test_five_megabytes():
    with pytest.raises(Refused, match=f"at most {MOST_BYTES:,} bytes"):
        read_sheet(b" " * 5_000_000)


def test_only_way_and_parts_are_needed():
    sheet = sheet_from({"way": "set-cake", "parts": document()["parts"]})
    assert sheet.school("syrup") == "melted"
    assert sheet.serve is None


@pytest.mark.parametrize("way", sorted(WAYS))
def test_a_sheet_survives_its_own_json(way):
    sheet = default_sheet(way)
    assert read_sheet(sheet.model_dump_json()) == sheet


junk = st.recursive(
    st.none() | st.booleans() | st.floats(allow_nan=True) | st.integers() | st.text(max_size=20),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)


@given(junk)
def test_nothing_but_a_refusal_ever_comes_of_junk(content):
    with pytest.raises(Refused):
        sheet_from(content)


@given(st.data())
def test_junk_in_any_one_place_is_refused_or_worked(data):
    content = document(data.draw(st.sampled_from(sorted(WAYS))))
    place, key = content, data.draw(st.sampled_from(sorted(content)))
    while isinstance(place[key], dict | list) and place[key] and data.draw(st.booleans()):
        place = place[key]
        key = data.draw(st.sampled_from(sorted(place) if isinstance(place, dict) else range(len(place))))
    place[key] = data.draw(junk)
    # Anything but Refused would fail the test; and whatever is accepted can be worked.
    with suppress(Refused):
        work(sheet_from(content), Kitchen())


numbers = st.one_of(st.floats(1e-9, 5e4), st.sampled_from([1e-12, 0.001, 1, 499, 50_000]))


@pytest.mark.long
@settings(max_examples=examples(150), deadline=None)
@given(st.data())
def test_any_amounts_shares_and_schools_are_worked(data):
    """Sheets that no cook would write, but that a sheet may be: work() answers each, with facts or with problems."""
    content = document(data.draw(st.sampled_from(sorted(WAYS))))
    roles = [part["role"] for part in content["parts"]]
    for part in content["parts"]:
        for line in part["lines"]:
            if data.draw(st.booleans()):
                line["amount"]["value"] = data.draw(numbers)
            if data.draw(st.integers(0, 3)) == 0:
                line["splits"] = [{"share": 1.0, "at": "", "to": data.draw(st.sampled_from(roles))}]
        if part["role"] != "base":
            part["kept"] = data.draw(
                st.sampled_from([None, {"share": 0.999}, {"amount": {"value": 3, "unit": "tbsp_us"}}])
            )
            part["each_g"] = data.draw(st.none() | st.floats(1e-6, 500))
    content["pieces"] = {
        "count": data.draw(st.none() | st.integers(1, 500)),
        **data.draw(st.dictionaries(st.sampled_from(PIECE_MEASURES), st.floats(1e-6, 300), max_size=2)),
    }
    content["cut"] = data.draw(st.builds(dict, pattern=st.sampled_from(PATTERNS), pieces=st.integers(1, 400),
                                         side_mm=st.none() | st.floats(5, 600), even=st.booleans()))  # fmt: skip
    content["schools"] = {
        choice.id: data.draw(st.sampled_from([school.id for school in choice.schools]))
        for choice in WAYS[content["way"]].choices
    }
    if data.draw(st.booleans()):
        content["parts"].append({"role": "heart", "each_mm": data.draw(st.none() | st.floats(2, 100)),
                                 "lines": [{"ingredient": "cherry", "amount": {"value": data.draw(numbers)}}]})  # fmt: skip
    content["grain"] = {"soak_min": data.draw(st.floats(0, 2880)), "soak_c": data.draw(st.floats(1, 55))}
    with suppress(Refused):
        sheet = sheet_from(content)
        worked = work(sheet, Kitchen())
        assert worked.problems or worked.facts["heat.done_min"].value > 0
        for to in ({"by": "base", "grams": 300}, {"by": "pieces", "count": 40, "piece_g": 30},
                   {"by": "ratio", "hydration_pct": 120}, {"by": "people", "people": 400, "each": 9},
                   {"by": "filling_share", "share_pct": 30},
                   {"by": "exchange", "part": 0, "line": 1, "ingredient": "milk"}):  # fmt: skip
            with suppress(Refused):
                work(adjust(sheet, Adjustment.model_validate(to), Kitchen()).sheet, Kitchen())


class TestLarder:
    def test_every_composition_adds_up(self):
        for item in larder().values():
            assert item.per_100_g.total == pytest.approx(100.0, abs=0.5), item.id

    @given(st.sampled_from(sorted(larder())), st.floats(0.1, 5000))
    def test_no_gram_is_lost(self, name, mass):
        assert larder()[name].composition(mass).total == pytest.approx(mass)

    def test_one_that_does_not_add_up_is_refused_with_the_sum(self):
        with pytest.raises(ValidationError, match=r"adds up to 90\.0 g"):
            Ingredient(
                id="own-x", name="X", group="sugar", per_100_g=IngredientComposition(sugar=90), density={"packed": 1.0}
            )

    def test_there_are_enough_and_each_says_where_its_figures_come_from(self):
        assert len(larder()) >= 120
        assert {item.source for item in larder().values()} <= {"table", "label", "kitchen"}
        assert all(item.g_per_ml == next(iter(item.density.values())) for item in larder().values())

    def test_no_two_ingredients_answer_to_one_name(self):
        names = [
            name for item in larder().values() for name in {normalize_name(name) for name in (item.name, *item.aliases)}
        ]
        assert len(names) == len(set(names)), sorted(name for name in names if names.count(name) > 1)
        assert set(names_of(larder().values()).values()) == set(larder())

    def test_what_spoils_and_what_harms_is_marked(self):
        """By the craft's cautions: coconut, egg, dairy, fresh meat spoil; nuts, soy, sesame, egg, milk, wheat harm."""
        for name in ("coconut-milk-thick", "coconut-milk-thin", "egg", "milk", "butter", "pork-belly", "strawberry"):
            assert larder()[name].perishable, name
        for name, allergen in (("walnut", "tree nut"), ("tahini", "sesame"), ("soy-sauce", "wheat"), ("tofu", "soy"),
                               ("peanut-butter", "peanut"), ("egg-yolk", "egg"), ("condensed-milk", "milk"),
                               ("barley-malt", "wheat")):  # fmt: skip
            assert allergen in larder()[name].allergens, name

    def test_the_nearest_names_help(self):
        assert closest_names("glutinous rice flour")[0] == "sweet-rice-flour"
        assert "water" in closest_names("watr")

    def test_both_packets_are_told_apart(self):
        assert "sweet" in larder()["rice-flour"].look_alike

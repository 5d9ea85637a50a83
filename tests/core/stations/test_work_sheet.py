"""What must hold of the whole chain, whatever the sheet."""

import json
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sheets_drawn import ALL, sheets
from thorough import examples

from kemble.core.cards import ways
from kemble.core.cards.card_contract import OF_THE_SHEET
from kemble.core.cards.cautions import CAUTIONS
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.change import adjust as adjusting
from kemble.core.change.adjust import Adjustment, scale
from kemble.core.facts.fact import ripple
from kemble.core.facts.problems import Refused
from kemble.core.facts.vocabulary import KEYS, role_of
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.bowl import weigh
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import WorkResult, work

KITCHEN = Kitchen()
SHELF = Shelf(KITCHEN)
COMMON = ["mix.hydration_pct", "mix.sugar_pct", "mix.fat_pct", "mix.salt_pct", "mix.batch_g", "mix.cooked_g",
          "mix.volume_ml", "mix.sugar_in_water_pct", "mix.gel_temperature_c", "mix.softness", "mix.tenderness",
          "heat.first_check_min", "heat.done_min", "heat.latest_min", "rest.handle_from_min", "keep.room_h",
          "keep.cold_h", "keep.hard_after_h"]  # fmt: skip
PIECES = ["shape.pieces", "shape.piece_g", "shape.base_g", "shape.diameter_mm", "shape.short_of",
          "rest.handle_until_min"]  # fmt: skip
OF_A_FORM = {
    "tin": ["shape.depth_mm", "rest.cut_after_min", "cut.rows", "cut.columns", "cut.pieces", "cut.piece_g",
            "cut.corners", "cut.offcut_pct"],
    "ball": PIECES,
    "pull": [*PIECES, "shape.rope_cut_mm", "part.coat.enough_for"],
    "parcel": [*PIECES, "shape.filling_g", "shape.wrappers", "grain.pot_water_g"],
    "packet": [*PIECES, "shape.thick_mm", "shape.side_mm", "shape.foil_mm", "shape.wrappers"],
}  # fmt: skip
OF_A_WAY = {
    "boiled-balls": ["heat.float_min", "heat.core_hot_min", "heat.water_ml", "heat.loads", "rest.freeze_filling_min",
                     "shape.filling_g", "shape.skin_mm", "shape.disc_mm", "shape.rope_cut_mm"],
    "set-cake": ["heat.depth_mm", "heat.water_ml", "heat.loads"],
}  # fmt: skip
GRAIN = ["grain.soak_min", "grain.uptake_pct", "grain.soaked_g", "grain.cooked_g"]


def adjust(sheet, to, kitchen=KITCHEN):
    return adjusting.adjust(sheet, to, kitchen).sheet


def weighed(sheet, kitchen=KITCHEN):
    """Grams of every line, in order."""
    return [line.grams for line in weigh(sheet, Shelf(kitchen)).lines]


@pytest.mark.parametrize("way", ALL)
def test_the_promised_keys_are_there(way):
    facts = work(default_sheet(way), KITCHEN).facts
    promised = COMMON + OF_A_FORM[WAYS[way].form] + OF_A_WAY.get(way, [])
    for key in promised + (GRAIN if WAYS[way].base == "grain" else []):
        assert key in facts, key


@pytest.mark.long
@settings(max_examples=examples(25), deadline=None)
@given(sheets())
def test_the_same_sheet_gives_the_same_answer(sheet):
    first, second = work(sheet, KITCHEN), work(sheet, KITCHEN)
    assert first.model_dump_json() == second.model_dump_json()
    assert ripple(first.facts, second.facts) == []


@pytest.mark.long
@settings(max_examples=examples(25), deadline=None)
@given(sheets())
def test_an_answer_survives_its_json(sheet):
    """Facts are built unchecked for speed; here they are checked against their own types."""
    worked = work(sheet, KITCHEN)
    assert WorkResult.model_validate_json(worked.model_dump_json()).model_dump() == worked.model_dump()


@pytest.mark.long
@settings(max_examples=examples(25), deadline=None)
@given(sheets())
def test_every_because_goes_down_to_the_inputs(sheet):
    facts = work(sheet, KITCHEN).facts
    for fact in facts.values():
        assert fact.because.says
        assert fact.because.source
        for origin in fact.because.inputs:
            assert origin.ref in facts or origin.ref.split(":")[0] in ("sheet", "kitchen", "way", "larder", "estimate")
        if fact.low is not None:
            assert fact.low <= fact.value <= fact.high


@pytest.mark.long
@settings(max_examples=examples(60), deadline=None)
@given(sheets())
def test_no_gram_is_lost_from_lines_to_parts_to_pieces(sheet):
    """Every gram of every line is in one part or in reserve; every gram of a part in pieces, left over, kept or away."""
    facts = {key: fact.value for key, fact in work(sheet, KITCHEN).facts.items()}
    bowl = weigh(sheet, Shelf(KITCHEN))
    parts = {role: part.grams for role, part in bowl.parts.items()}
    held = sum(line.reserve_g for line in bowl.lines)
    assert sum(parts.values()) + held == pytest.approx(sum(weighed(sheet)), rel=1e-9)
    for role, grams in parts.items():
        assert bowl.parts[role].composition.total == pytest.approx(grams, rel=1e-9)
        if role == "base":
            continue
        assert facts[f"part.{role}.raw_g"] == pytest.approx(grams)
        made, away = facts[f"part.{role}.made_g"], facts.get(f"part.{role}.away_g", 0.0)
        kept = facts.get(f"part.{role}.kept_g", 0.0)
        assert facts.get(f"part.{role}.have_g", made) + away + kept == pytest.approx(made)
    way = WAYS[sheet.way]
    counted = sum(
        grams
        * (1.0 if part == "base" else facts.get(f"part.{part}.have_g", facts[f"part.{part}.made_g"])
           / facts[f"part.{part}.made_g"])
        for part, grams in parts.items()
        if role_of(part) in way.counted
    )  # fmt: skip
    soaked = 0.0
    if way.base == "grain":
        soaked = facts["grain.uptake_g"] + facts["grain.cling_g"]
        if "grain.cook_water_g" in facts:  # it stands in for plain water, as far as there is any
            liquids = [each for each in bowl.base.contributions if each.item.group == "liquid"]
            soaked -= sum(each.grams for each in liquids) - facts["grain.cook_water_g"]
    assert facts["mix.batch_g"] == pytest.approx(counted + soaked)
    if "shape.pieces" in facts:
        count = facts["shape.pieces"]
        dough = facts["mix.cooked_g" if way.portions == "cooked" else "mix.batch_g"]
        over_dough = dough - count * facts["shape.base_g"]
        assert over_dough >= -1e-6
        if "shape.filling_g" in facts:
            filling = sum(
                facts.get(f"part.{part.id}.have_g", facts[f"part.{part.id}.made_g"])
                for part in sheet.parts_of("filling")
            )
            hearts = count * facts.get("shape.heart_g", 0.0)
            over_filling = filling - (count * facts["shape.filling_g"] - hearts)
            assert over_filling >= -1e-6
            whole = count * facts["shape.piece_g"] + over_dough + over_filling
            assert whole == pytest.approx(dough + filling + hearts)
            assert facts["shape.left_over_g"] in (
                pytest.approx(over_dough), pytest.approx(over_filling), pytest.approx(0.0)
            )  # fmt: skip
    if "cut.pieces" in facts:
        whole = facts["cut.pieces"] * facts["cut.piece_g"] / (1 - facts["cut.offcut_pct"] / 100)
        assert whole == pytest.approx(facts["mix.cooked_g"])
        trays = work(sheet, KITCHEN).drawings.cut.trays
        cells = sum(tray.count * cell.grams for tray in trays for cell in tray.cells)
        assert cells == pytest.approx(facts["mix.cooked_g"], rel=1e-4)


@pytest.mark.long
@settings(max_examples=examples(40), deadline=None)
@given(sheets(), st.floats(0.2, 5.0))
def test_ratios_survive_scaling_and_scaling_can_be_undone(sheet, factor):
    scaled = scale(sheet, factor)
    before, after = work(sheet, KITCHEN).facts, work(scaled, KITCHEN).facts
    for key in ("mix.hydration_pct", "mix.sugar_pct", "mix.fat_pct", "mix.gel_temperature_c"):
        assert after[key].value == pytest.approx(before[key].value)
    assert weighed(scale(scaled, 1 / factor)) == pytest.approx(weighed(sheet), abs=0.01)


@pytest.mark.long
@settings(max_examples=examples(40), deadline=None)
@given(st.floats(90, 190), st.floats(40, 130))
def test_ratios_come_out_as_asked_and_back(hydration, sugar):
    sheet = default_sheet("set-cake")
    facts = work(sheet, KITCHEN).facts
    there = adjust(sheet, Adjustment(by="ratio", hydration_pct=hydration, sugar_pct=sugar))
    facts_by_name = work(there, KITCHEN).facts
    assert facts_by_name["mix.hydration_pct"].value == pytest.approx(hydration)
    assert facts_by_name["mix.sugar_pct"].value == pytest.approx(sugar)
    assert facts_by_name["mix.base_g"].value == facts["mix.base_g"].value
    back = adjust(
        there,
        Adjustment(by="ratio", hydration_pct=facts["mix.hydration_pct"].value, sugar_pct=facts["mix.sugar_pct"].value),
    )
    assert weighed(back) == pytest.approx(weighed(sheet), abs=0.01)


@settings(max_examples=examples(30), deadline=None)
@given(st.floats(95, 165), st.floats(62, 108))
def test_water_in_the_sugar_and_sugar_in_the_water_are_solved_together(hydration, sugar):
    """Honey brings water, juice brings sugar: neither may be set without the other."""
    document = default_sheet("set-cake").model_dump()
    base = list(document["parts"][0]["lines"])
    document["parts"][0]["lines"] = base
    base[1] = {"ingredient": "orange-juice", "amount": {"value": 330, "unit": "ml"}}
    base[2] = {"ingredient": "buckwheat-honey", "amount": {"value": 9, "unit": "oz"}}
    sheet = sheet_from(document)
    facts = work(adjust(sheet, Adjustment(by="ratio", hydration_pct=hydration, sugar_pct=sugar)), KITCHEN).facts
    assert facts["mix.hydration_pct"].value == pytest.approx(hydration)
    assert facts["mix.sugar_pct"].value == pytest.approx(sugar)


@pytest.mark.parametrize("unit", ["kg", "oz", "lb", "cup_us", "cup_metric", "cup_rice_cooker", "tbsp_20"])
def test_the_unit_a_line_is_written_in_changes_nothing(unit):
    document = default_sheet("set-cake").model_dump()
    before = work(sheet_from(document), KITCHEN).facts
    flour = document["parts"][0]["lines"][0]
    flour["amount"] = {"value": SHELF.amount(SHELF.items["sweet-rice-flour"], 300, unit), "unit": unit}
    after = work(sheet_from(document), KITCHEN).facts
    assert {key: fact.shown for key, fact in after.items()} == {key: fact.shown for key, fact in before.items()}


# For each route: the sheet it is tried on, there, and the fact that must come out.
ROUTES = [
    ("set-cake", {"by": "base", "grams": 410}, "mix.base_g", 410),
    ("set-cake", {"by": "batch", "grams": 700}, "mix.batch_g", 700),
    ("tray-rice", {"by": "cooked", "grams": 900}, "mix.cooked_g", 900),
    ("set-cake", {"by": "depth", "mm": 40}, "shape.depth_mm", 40),
    ("tray-rice", {"by": "depth", "mm": 18}, "shape.depth_mm", 18),
    ("batter-bake", {"by": "pieces", "count": 16, "piece_g": 50}, "mix.cooked_g", 800),
    ("boiled-balls", {"by": "pieces", "count": 30, "piece_g": 20, "filling_g": 8}, "mix.batch_g", 600),
    ("stirred-rounds", {"by": "pieces", "count": 30, "piece_g": 40}, "mix.cooked_g", 1200),
    ("crushed-balls", {"by": "people", "people": 24, "each": 1.5}, "shape.pieces", 36),
    ("batter-bake", {"by": "people", "people": 24, "each": 2}, "mix.cooked_g", 48 * 35.53),
    ("stirred-rounds", {"by": "filling_share", "share_pct": 40}, "mix.filling_share_pct", 40),
    ("crushed-balls", {"by": "line", "part": 1, "line": 0, "grams": 310}, "part.filling.made_g", 310 * 2.9),
    ("boiled-balls", {"by": "part", "role": "filling", "factor": 1.5}, "part.filling.made_g", 324),
    ("crushed-balls", {"by": "part", "part_id": "filling", "factor": 2}, "part.filling.made_g", 1322.4),
    ("crushed-balls", {"by": "have", "role": "filling", "grams": 310}, "mix.base_g", 240 * 310 / 661.2),
    ("batter-bake", {"by": "ratio", "fat_pct": 30}, "mix.fat_pct", 30),
    ("tray-rice", {"by": "ratio", "sugar_pct": 65}, "mix.sugar_pct", 65),
    ("pounded", {"by": "ratio", "hydration_pct": 35}, "mix.hydration_pct", 35),
]


@pytest.mark.parametrize(("way", "to", "key", "value"), ROUTES)
def test_every_way_of_scaling_comes_out_as_asked(way, to, key, value):
    result = work(adjust(default_sheet(way), Adjustment.model_validate(to)), KITCHEN)
    assert result.problems == []
    assert result.facts[key].value == pytest.approx(value, rel=1e-3)


@pytest.mark.parametrize("way", ALL)
@pytest.mark.parametrize(
    ("to", "back"),
    [
        ({"by": "base", "grams": 517.3}, ("grams", "mix.base_g")),
        ({"by": "batch", "grams": 1333.0}, ("grams", "mix.batch_g")),
        ({"by": "cooked", "grams": 777.0}, ("grams", "mix.cooked_g")),
        ({"by": "line", "part": 0, "line": 0, "grams": 123.4}, ("grams", "mix.base_g")),
    ],
)
def test_scaling_by_any_route_and_back(way, to, back):
    """Fixing a weight, and then fixing what it was before, gives the same sheet within 0.01 g on every line."""
    sheet = default_sheet(way)
    name, key = back
    before = work(sheet, KITCHEN).facts[key].value
    if to["by"] == "line":
        before = weighed(sheet)[0]
    there = adjust(sheet, Adjustment.model_validate(to))
    again = adjust(there, Adjustment.model_validate({**to, name: before}))
    assert weighed(again) == pytest.approx(weighed(sheet), abs=0.01)
    assert weighed(there) != pytest.approx(weighed(sheet), abs=1.0)


def test_a_line_in_another_unit_is_the_same_line():
    """390 ml of tea at 1.0 g/ml are 390 g, 1.56 metric cups, and 2 of a cook's cup of 195 ml."""
    kitchen = Kitchen(own_cup_ml=195)
    sheet = default_sheet("set-cake")
    adjustment = Adjustment(by="line", part=0, line=1, grams=390)
    sheet = adjust(sheet, adjustment, kitchen)
    for unit, value in (("cup_metric", 1.56), ("cup_own", 2.0), ("kg", 0.39)):
        there = adjust(sheet, Adjustment(by="unit", part=0, line=1, unit=unit), kitchen)
        assert there.base.lines[1].amount.value == pytest.approx(value)
        assert weighed(there, kitchen) == pytest.approx(weighed(sheet, kitchen))
    with pytest.raises(Refused, match="not counted in pieces"):
        adjust(sheet, Adjustment(by="unit", part=0, line=1, unit="piece"), kitchen)


def test_so_much_of_a_line_in_the_unit_it_is_written_in():
    """Of 1.56 cups there are 0.78: half of everything, whatever a cup weighs here."""
    for kitchen in (Kitchen(), Kitchen(own_cup_ml=195)):
        sheet = adjust(default_sheet("set-cake"), Adjustment(by="unit", part=0, line=1, unit="cup_metric"), kitchen)
        cups = sheet.base.lines[1].amount.value
        half = adjust(sheet, Adjustment(by="line", part=0, line=1, amount=cups / 2), kitchen)
        assert half.base.lines[1].amount.value == pytest.approx(cups / 2)
        assert weighed(half, kitchen) == pytest.approx([grams / 2 for grams in weighed(sheet, kitchen)])


@pytest.mark.parametrize("way", [way for way in ALL if WAYS[way].form != "tin"])
def test_scaling_by_pieces_and_back(way):
    """A sheet for 20 pieces, made for 31 heavier ones, and for 20 again."""
    adjustment = Adjustment(by="pieces", count=20, piece_g=21.0)
    twenty = adjust(default_sheet(way), adjustment)
    assert work(twenty, KITCHEN).facts["shape.pieces"].value == 20
    there = adjust(twenty, Adjustment(by="pieces", count=31, piece_g=27.5))
    assert work(there, KITCHEN).facts["shape.pieces"].value == 31
    assert weighed(adjust(there, adjustment)) == pytest.approx(weighed(twenty), abs=0.01)


@pytest.mark.long
@settings(max_examples=examples(40), deadline=None)
@given(st.sampled_from(["set-cake", "batter-bake", "tray-rice", "stirred-rounds", "folded-pulls"]), st.data())
def test_one_ratio_moves_and_the_others_hold(way, data):
    """Milk brings fat, honey water, butter both: all are solved together, and the flour stays."""
    sheet = default_sheet(way)
    before = {key: fact.value for key, fact in work(sheet, KITCHEN).facts.items()}
    names = ["hydration_pct", "sugar_pct", "fat_pct"]
    if not any(line.ingredient in ("butter", "sunflower-oil", "shallot-oil") for line in sheet.base.lines):
        names.remove("fat_pct")
    name = data.draw(st.sampled_from(names))
    wanted = before[f"mix.{name}"] * data.draw(st.floats(0.9, 1.2))
    after = work(adjust(sheet, Adjustment(by="ratio", **{name: wanted})), KITCHEN).facts
    for other in names:
        expected = wanted if other == name else before[f"mix.{other}"]
        assert after[f"mix.{other}"].value == pytest.approx(expected), other
    assert after["mix.base_g"].value == pytest.approx(before["mix.base_g"])


def test_fat_that_was_not_asked_for_gives_way():
    """So much milk brings more fat than there was butter to take away: the water comes out as asked all the same."""
    document = default_sheet("batter-bake").model_dump()
    document["parts"][0]["lines"][4]["amount"]["value"] = 3
    there = adjust(sheet_from(document), Adjustment(by="ratio", hydration_pct=215))
    assert work(there, KITCHEN).facts["mix.hydration_pct"].value == pytest.approx(215)
    assert there.base.lines[4].amount.value == 3


@pytest.mark.parametrize(
    ("way", "to", "says"),
    [
        ("stirred-rounds", {"fat_pct": 4}, "no fat to change"),
        ("boiled-balls", {"sugar_pct": 4}, "no sugar to change"),
    ],
)
def test_a_ratio_that_no_line_can_move(way, to, says):
    with pytest.raises(Refused, match=says):
        adjust(default_sheet(way), Adjustment(by="ratio", **to))


@pytest.mark.parametrize(
    ("to", "path"),
    [
        ({"by": "base"}, "to.grams"),
        ({"by": "ratio"}, "to"),
        ({"by": "pieces", "piece_g": 30}, "to.count"),
        ({"by": "pieces", "count": 30}, "to.piece_g"),
        ({"by": "line", "part": 0, "line": 30, "grams": 10}, "to.line"),
        ({"by": "filling_share", "share_pct": 30}, "to.by"),
        ({"by": "exchange", "part": 0, "line": 2}, "to.ingredient"),
        ({"by": "exchange", "part": 0, "line": 2, "ingredient": "egg"}, "to.ingredient"),
        ({"by": "part", "role": "broth", "factor": 2}, "to.role"),
        ({"by": "have", "role": "broth", "grams": 200}, "to.role"),
        ({"by": "part", "part_id": "filling-2", "factor": 2}, "to.part_id"),
        ({"by": "ratio", "hydration_pct": 0.1, "sugar_pct": 80}, "to.hydration_pct"),
        ({"by": "base", "grams": 49_000}, "parts.0.lines.1.amount.value"),
    ],
)
def test_an_adjustment_that_cannot_be_made(to, path):
    with pytest.raises(Refused) as caught:
        adjusting.adjust(default_sheet("set-cake"), Adjustment.model_validate(to), KITCHEN)
    assert caught.value.problems[0].path == path


def test_a_change_ripples_and_says_old_and_new():
    sheet = default_sheet("set-cake")
    before = work(sheet, KITCHEN).facts
    wetter = adjust(sheet, Adjustment(by="ratio", hydration_pct=140, sugar_pct=before["mix.sugar_pct"].value))
    moved = {change.key: change for change in ripple(before, work(wetter, KITCHEN).facts)}
    assert round(moved["mix.hydration_pct"].old) == 126
    assert moved["mix.hydration_pct"].new == pytest.approx(140)
    assert "heat.done_min" in moved
    assert "mix.sugar_pct" not in moved


def names_only_what_exists(steps, also=()):
    """Steps follow steps before them; their facts, cautions and ids exist."""
    ids = [step.id for step in steps]
    assert len(set(ids)) == len(ids)
    assert not set(ids) & set(also)
    for i, step in enumerate(steps):
        assert all(after.step in [*ids[:i], *also] for after in step.after), step.id
        facts = [step.minutes.fact, *(step.window or ())]
        # A part's card says * where the role of its part stands.
        assert all(fact.replace("*", "filling") in KEYS for fact in facts if fact), step.id
        assert step.weigh in (None, "made") or step.weigh in KEYS, step.id
        assert set(step.cautions) <= set(CAUTIONS), step.id


class TestWays:
    def test_every_file_of_the_shelf_is_a_way(self):
        shelf = Path(ways.__file__).parent
        cards = [file for file in shelf.glob("*.py") if "\nWAY = " in file.read_text(encoding="utf-8")]
        assert sorted(file.stem.replace("_", "-") for file in cards) == ALL

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_a_card_names_only_what_exists(self, way):
        names_only_what_exists(way.steps, also=way.parts)
        for step in way.steps:
            for choice, schools in step.when.items():
                known = OF_THE_SHEET.get(choice) or {school.id for school in way.choice(choice).schools}
                assert set(schools) <= known
        assert all(choice.default in [school.id for school in choice.schools] for choice in way.choices)
        assert all(evidence.fact in KEYS for fault in way.faults for evidence in fault.evidence)
        assert all(limit.fact in KEYS for limit in way.limits)
        assert all(family in FAMILIES and role in FAMILIES[family].roles for role, family in way.parts.items())
        assert {"choking", "public"} <= set(way.cautions) <= set(CAUTIONS)
        assert (way.grain_cook != {}) == (way.base == "grain")
        assert all(school in [s.id for s in way.choice(choice).schools] for choice, school, _ in way.finishes)
        assert way.restores
        assert len(way.faults) >= 4
        assert len(way.tastes) == 3

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_every_school_can_be_worked(self, way):
        for choice in way.choices:
            for school in choice.schools:
                sheet = default_sheet(way.id).model_copy(update={"schools": {choice.id: school.id}})
                worked = work(sheet, KITCHEN)
                assert worked.problems == []
                assert worked.steps[-1].id == "serve"
                # Nothing hangs loose: every step but the last is waited for by another.
                waited = {wait.step for step in worked.steps for wait in step.after}
                assert {step.id for step in worked.steps} - waited == {"serve"}, (choice.id, school.id)

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_its_starting_sheet_works_and_lies_in_its_zone(self, way):
        worked = work(default_sheet(way.id), KITCHEN)
        assert worked.problems == []
        assert worked.drawings.mix.in_zone
        assert not [advice for advice in worked.advice if advice.rank < 4 and advice.station in ("mix", "shape")]

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_the_zone_lies_in_the_bands(self, way):
        for hydration, sugar in (*way.zone, way.midway):
            assert way.hydration.low <= hydration <= way.hydration.high
            assert way.sugar.low <= sugar <= way.sugar.high


class TestFamilies:
    @pytest.mark.parametrize("family", FAMILIES.values(), ids=list(FAMILIES))
    def test_a_card_names_only_what_exists(self, family):
        names_only_what_exists(family.steps)
        assert set(family.cautions) <= set(CAUTIONS)
        schools = {choice.id: {school.id for school in choice.schools} for choice in family.choices}
        assert all(choice.default in schools[choice.id] for choice in family.choices)
        assert all(set(wanted) <= schools[choice] for step in family.steps for choice, wanted in step.when.items())
        assert family.steps
        assert family.faults
        assert family.roles

    @pytest.mark.parametrize("family", FAMILIES.values(), ids=list(FAMILIES))
    def test_its_starting_lines_are_a_part_of_it(self, family):
        """Put on a sheet without its family's name, each is known for what it is, and yields something."""
        way = next((way for way in WAYS.values() if way.parts.get(family.roles[0]) == family.id), WAYS["boiled-balls"])
        document = default_sheet(way.id).model_dump()
        document["parts"] = [part for part in document["parts"] if part["role"] != family.roles[0]]
        document["parts"].append({"role": family.roles[0], "family": family.id, "lines": list(family.lines)})
        worked = work(sheet_from(document), KITCHEN)
        role = family.roles[0]
        assert 0 < worked.facts[f"part.{role}.made_g"].value <= worked.facts[f"part.{role}.raw_g"].value + 1e-9
        assert any(step.id == f"{role}-{family.steps[-1].id}" for step in worked.steps)


def _numbers(document, path=()):
    """Every place of a sheet document that holds a number, or may hold one."""
    places = document.items() if isinstance(document, dict) else enumerate(document)
    for key, value in places:
        if isinstance(value, dict | list):
            yield from _numbers(value, (*path, key))
        elif value is None or (isinstance(value, int | float) and not isinstance(value, bool)):
            yield (*path, key)


@pytest.mark.long
@settings(max_examples=examples(150), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(st.data())
def test_any_sheet_that_can_be_read_can_be_worked(data):
    """Total: whatever the document lets through, facts or problems come back, never an exception."""
    document = json.loads(default_sheet(data.draw(st.sampled_from(sorted(WAYS)))).model_dump_json())
    for _ in range(data.draw(st.integers(1, 3))):
        *path, key = data.draw(st.sampled_from(sorted(_numbers(document), key=str)))
        owner = document
        for step in path:
            owner = owner[step]
        extreme = st.sampled_from([5e-324, 1e-300, 1e-9, 0, 1, 0.5, 30, 499.99, 800, 2000, 50_000])
        owner[key] = data.draw(extreme)
    try:
        sheet = sheet_from(document)
    except Refused:
        return
    answer = work(sheet, KITCHEN)
    assert answer.facts or answer.problems
    assert not [problem for problem in answer.problems if problem.path == "the sheet"]


@pytest.mark.parametrize(
    ("way", "field", "path"),
    [
        ("set-cake", ("cut", "piece_g"), "cut.piece_g"),
        ("boiled-balls", ("pieces", "filling_g"), "pieces.filling_g"),
        ("leaf-parcels", ("pieces", "dough_g"), "pieces.dough_g"),
    ],
)
def test_the_smallest_number_there_is_is_refused_by_name(way, field, path):
    document = json.loads(default_sheet(way).model_dump_json())
    document[field[0]][field[1]] = 5e-324
    assert [problem.path for problem in work(sheet_from(document), KITCHEN).problems] == [path]


@pytest.mark.parametrize("broken", ["weigh", "rest", "steps_of", "core_curve"])
def test_a_fault_of_ours_raises_as_it_is(monkeypatch, broken):
    """It is never told as if the sheet were at fault."""

    def fails(*_):
        raise ZeroDivisionError("a fault put in")

    monkeypatch.setattr(f"kemble.core.stations.work_sheet.{broken}", fails)
    with pytest.raises(ZeroDivisionError, match="a fault put in"):
        work(default_sheet("set-cake"), KITCHEN)

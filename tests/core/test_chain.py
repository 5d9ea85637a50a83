"""What must hold of the whole chain, whatever the sheet."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kemble.core.adjust import Adjustment, adjust, scale
from kemble.core.cautions import CAUTIONS
from kemble.core.chain import Worked, work
from kemble.core.facts import ripple
from kemble.core.kitchen import Kitchen
from kemble.core.problems import Refused
from kemble.core.quantity import amount_of
from kemble.core.sheet import default_sheet, sheet_from
from kemble.core.vocabulary import KEYS
from kemble.core.ways import WAYS

KITCHEN = Kitchen()
ALL = sorted(WAYS)
COMMON = ["mix.hydration_pct", "mix.sugar_pct", "mix.fat_pct", "mix.salt_pct", "mix.batch_g", "mix.cooked_g",
          "mix.volume_ml", "mix.sugar_in_water_pct", "mix.gel_temperature_c", "heat.first_check_min", "heat.done_min",
          "heat.latest_min", "heat.depth_mm", "heat.water_ml", "heat.loads", "rest.handle_from_min", "keep.room_h",
          "keep.cold_h", "keep.hard_after_h"]  # fmt: skip
OF_A_FORM = {
    "tin": ["rest.cut_after_min", "cut.rows", "cut.columns", "cut.pieces", "cut.piece_g", "cut.corners", "cut.offcut_pct"],
    "ball": ["shape.pieces", "shape.piece_g", "shape.base_g", "shape.filling_g", "shape.diameter_mm", "shape.skin_mm",
             "shape.disc_mm", "shape.rope_cut_mm", "shape.short_of", "heat.float_min", "heat.core_hot_min",
             "rest.handle_until_min", "rest.freeze_filling_min"],
}  # fmt: skip


@st.composite
def sheets(draw):
    """Random sheets of every way, within what a kitchen might try; splits and reserves included."""
    document = default_sheet(draw(st.sampled_from(ALL))).model_dump()
    for part in document["parts"]:
        for line in part["lines"]:
            line["amount"]["value"] *= draw(st.floats(0.7, 1.4))
            line["reserve"] = (
                {"value": line["amount"]["value"] * 0.1, "unit": line["amount"]["unit"]}
                if draw(st.booleans())
                else None
            )
    document["schools"] = {
        choice.id: draw(st.sampled_from([school.id for school in choice.schools]))
        for choice in WAYS[document["way"]].choices
    }
    return sheet_from(document)


@pytest.mark.parametrize("way", ALL)
def test_the_promised_keys_are_there(way):
    facts = work(default_sheet(way), KITCHEN).facts
    for key in COMMON + OF_A_FORM[WAYS[way].form]:
        assert key in facts, key


@settings(max_examples=25, deadline=None)
@given(sheets())
def test_the_same_sheet_gives_the_same_answer(sheet):
    first, second = work(sheet, KITCHEN), work(sheet, KITCHEN)
    assert first.model_dump_json() == second.model_dump_json()
    assert ripple(first.facts, second.facts) == []


@settings(max_examples=25, deadline=None)
@given(sheets())
def test_an_answer_survives_its_json(sheet):
    """Facts are built unchecked for speed; here they are checked against their own types."""
    worked = work(sheet, KITCHEN)
    assert Worked.model_validate_json(worked.model_dump_json()).model_dump() == worked.model_dump()


@settings(max_examples=25, deadline=None)
@given(sheets())
def test_every_because_goes_down_to_the_inputs(sheet):
    facts = work(sheet, KITCHEN).facts
    for fact in facts.values():
        assert fact.because.says
        assert fact.because.source
        for origin in fact.because.inputs:
            assert origin.ref in facts or origin.ref.split(":")[0] in ("sheet", "kitchen", "way", "larder")
        if fact.low is not None:
            assert fact.low <= fact.value <= fact.high


@settings(max_examples=25, deadline=None)
@given(sheets())
def test_no_gram_is_lost_between_lines_and_pieces(sheet):
    worked = work(sheet, KITCHEN)
    facts = worked.facts
    used = sum(line.used_g for line in sheet.base.lines)
    assert facts["mix.batch_g"].value == pytest.approx(used)
    assert sum(share.grams for share in worked.drawings.mix.bar) == pytest.approx(used, abs=2.5)
    if "shape.pieces" in facts:
        filling = sheet.part("filling")
        made = facts["shape.pieces"].value * facts["shape.piece_g"].value
        short = facts["shape.short_of"].value
        over_dough = used - facts["shape.pieces"].value * facts["shape.base_g"].value
        over_filling = (
            sum(line.used_g for line in filling.lines) - facts["shape.pieces"].value * facts["shape.filling_g"].value
        )
        assert made + over_dough + over_filling == pytest.approx(used + sum(line.used_g for line in filling.lines))
        assert facts["shape.left_over_g"].value == pytest.approx(
            {"filling": over_dough, "dough": over_filling, "nothing": 0.0}[short]
        )


@settings(max_examples=40, deadline=None)
@given(sheets(), st.floats(0.2, 5.0))
def test_ratios_survive_scaling_and_scaling_can_be_undone(sheet, factor):
    scaled = scale(sheet, factor)
    before, after = work(sheet, KITCHEN).facts, work(scaled, KITCHEN).facts
    for key in ("mix.hydration_pct", "mix.sugar_pct", "mix.fat_pct", "mix.gel_temperature_c"):
        assert after[key].value == pytest.approx(before[key].value)
    back = scale(scaled, 1 / factor)
    for part, was in zip(back.parts, sheet.parts, strict=True):
        for line, had in zip(part.lines, was.lines, strict=True):
            assert line.grams == pytest.approx(had.grams, abs=0.01)


@settings(max_examples=40, deadline=None)
@given(st.floats(90, 190), st.floats(40, 130))
def test_ratios_come_out_as_asked_and_back(hydration, sugar):
    sheet = default_sheet("set-cake")
    facts = work(sheet, KITCHEN).facts
    there = adjust(sheet, Adjustment(by="ratio", hydration_pct=hydration, sugar_pct=sugar))
    found = work(there, KITCHEN).facts
    assert found["mix.hydration_pct"].value == pytest.approx(hydration)
    assert found["mix.sugar_pct"].value == pytest.approx(sugar)
    assert found["mix.base_g"].value == facts["mix.base_g"].value
    back = adjust(
        there,
        Adjustment(by="ratio", hydration_pct=facts["mix.hydration_pct"].value, sugar_pct=facts["mix.sugar_pct"].value),
    )
    for line, had in zip(back.base.lines, sheet.base.lines, strict=True):
        assert line.grams == pytest.approx(had.grams, abs=0.01)


@settings(max_examples=30, deadline=None)
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
    flour["amount"] = {"value": amount_of(300, unit, g_per_ml=0.56), "unit": unit}
    after = work(sheet_from(document), KITCHEN).facts
    assert {key: fact.shown for key, fact in after.items()} == {key: fact.shown for key, fact in before.items()}


def test_the_other_ways_of_scaling():
    sheet = default_sheet("set-cake")
    assert work(adjust(sheet, Adjustment(by="base", grams=410)), KITCHEN).facts["mix.base_g"].value == pytest.approx(
        410
    )
    assert work(adjust(sheet, Adjustment(by="batch", grams=700)), KITCHEN).facts["mix.batch_g"].value == pytest.approx(
        700
    )
    assert work(adjust(sheet, Adjustment(by="depth", mm=40)), KITCHEN).facts["shape.depth_mm"].value == pytest.approx(
        40
    )
    balls = default_sheet("boiled-balls")
    more = work(adjust(balls, Adjustment(by="part", role="filling", factor=1.5)), KITCHEN).facts
    assert more["mix.filling_g"].value == pytest.approx(1.5 * work(balls, KITCHEN).facts["mix.filling_g"].value)


@pytest.mark.parametrize(
    ("to", "path"),
    [
        ({"by": "base"}, "to.grams"),
        ({"by": "ratio", "hydration_pct": 100}, "to.sugar_pct"),
        ({"by": "part", "role": "broth", "factor": 2}, "to.role"),
        ({"by": "ratio", "hydration_pct": 0.1, "sugar_pct": 80}, "to.hydration_pct"),
        ({"by": "base", "grams": 49_000}, "parts.0.lines.1.amount.value"),
    ],
)
def test_an_adjustment_that_cannot_be_made(to, path):
    with pytest.raises(Refused) as caught:
        adjust(default_sheet("set-cake"), Adjustment.model_validate(to))
    assert caught.value.problems[0].path == path


def test_a_change_ripples_and_says_old_and_new():
    sheet = default_sheet("set-cake")
    before = work(sheet, KITCHEN).facts
    wetter = adjust(sheet, Adjustment(by="ratio", hydration_pct=140, sugar_pct=before["mix.sugar_pct"].value))
    moved = {one.key: one for one in ripple(before, work(wetter, KITCHEN).facts)}
    assert moved["mix.hydration_pct"].old == "126"
    assert moved["mix.hydration_pct"].new == "140"
    assert "heat.done_min" in moved
    assert "mix.sugar_pct" not in moved


class TestWays:
    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_a_card_names_only_what_exists(self, way):
        ids = [step.id for step in way.steps]
        assert len(set(ids)) == len(ids)
        for i, step in enumerate(way.steps):
            assert all(after.step in ids[:i] for after in step.after), step.id
            facts = [step.minutes.fact, step.minutes.times_fact, step.weigh, *(step.window or ())]
            assert all(fact in KEYS for fact in facts if fact), step.id
            assert not step.caution or step.caution in CAUTIONS
            for choice, schools in step.when.items():
                assert set(schools) <= {school.id for school in way.choice(choice).schools}
        assert all(choice.default in [school.id for school in choice.schools] for choice in way.choices)
        assert all(evidence.fact in KEYS for fault in way.faults for evidence in fault.evidence)
        assert {"choking", "public"} <= set(way.cautions) <= set(CAUTIONS)

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_its_starting_sheet_works_and_lies_in_its_zone(self, way):
        worked = work(default_sheet(way.id), KITCHEN)
        assert worked.problems == []
        assert worked.drawings.mix.in_zone
        assert not [advice for advice in worked.advice if advice.rank < 3 and advice.station in ("mix", "shape")]

    @pytest.mark.parametrize("way", WAYS.values(), ids=ALL)
    def test_the_zone_lies_in_the_bands(self, way):
        for hydration, sugar in (*way.zone, way.midway):
            assert way.hydration.low <= hydration <= way.hydration.high
            assert way.sugar.low <= sugar <= way.sugar.high

"""A parcel from its leaf and a mould's lining, by sums done by hand."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.geometry.leaf_folds import leaves_for, leaves_to_line, lining_of, parcel_of
from kemble.core.kitchen.document import Kitchen, Tin
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

SEA = Kitchen(altitude_m=0, room_c=20)


def told(way, kitchen=SEA, **more):
    content = default_sheet(way).model_dump(mode="json")
    for key, value in more.items():
        content[key] = {**content[key], **value}
    result = work(sheet_from(content), kitchen)
    assert result.problems == []
    return result


def test_two_leaves_of_sixty_fold_a_parcel_of_ninety():
    """60 + 0.6 x 60 = 96 wide, 0.95 of that is an edge of 91.2; its tetrahedron 91.2³ / 8.485 = 89.4 ml."""
    parcel = parcel_of(400, 60, 2)
    assert parcel.edge_mm == pytest.approx(91.2)
    assert parcel.holds_ml == pytest.approx(89.4, abs=0.1)
    assert parcel.string_mm == pytest.approx(3 * 2 * 91.2 + 220)


def test_a_short_leaf_does_not_go_round():
    assert parcel_of(180, 100, 2).edge_mm == pytest.approx(50)


@given(length=st.floats(100, 900), width=st.floats(30, 300), ml=st.floats(5, 500))
def test_the_fewest_leaves_that_hold_it(length, width, ml):
    result = leaves_for(ml, length, width)
    holds = [parcel_of(length, width, n).holds_ml for n in range(1, 5)]
    assert holds == sorted(holds)
    assert result == next((n for n, most in enumerate(holds, start=1) if most >= ml), None)


def test_a_round_tin_of_180_by_60():
    """Round it 565.5, and 20 lapped; 60 + 15 + 10 wide; floor 25 447 and wall 33 929 mm2: 59 376 over 0.78 x 500 x 120
    and a quarter more are two leaves."""
    tin = Tin(shape="round", diameter_mm=180, height_mm=60)
    lining = lining_of(tin.floor_mm2, tin.rim_mm, tin.height_mm)
    assert lining.strip_long_mm == pytest.approx(math.pi * 180 + 20)
    assert lining.strip_wide_mm == 85
    assert leaves_to_line(lining.area_mm2, 500, 120) == 2


class TestOnASheet:
    def test_what_a_parcel_of_these_leaves_holds(self):
        """0.88 x 89.4 ml x 0.95 = 74.7 g, grain and filling in the sheet's proportion, and string for all of them."""
        result = told("leaf-parcels", wrap={"leaf_length_mm": 400, "leaf_width_mm": 60})
        facts = {key: fact.value for key, fact in result.facts.items()}
        assert facts["shape.leaf_holds_g"] == pytest.approx(74.7, abs=0.1)
        within = facts.get("shape.leaf_filling_g", 0)
        assert facts["shape.leaf_rice_g"] + within == pytest.approx(facts["shape.leaf_holds_g"])
        assert facts["shape.leaf_rice_g"] / facts["shape.leaf_holds_g"] == pytest.approx(
            facts["shape.base_g"] / facts["shape.piece_g"]
        )
        assert facts["shape.string_m"] == pytest.approx(facts["shape.pieces"] * (6 * 91.2 + 220) / 1000)

    def test_a_parcel_too_heavy_for_its_leaf_is_told_and_taken_lighter(self):
        small = {"leaf_length_mm": 300, "leaf_width_mm": 40}
        result = told("leaf-parcels", wrap=small)
        assert any("of these leaves fold round" in advice.says for advice in result.advice)
        remedy = result.drawings.shape.remedies[-1]
        again = told("leaf-parcels", wrap=small, pieces=remedy.pieces.model_dump())
        holds = again.facts["shape.leaf_holds_g"].value
        assert again.facts["shape.piece_g"].value == pytest.approx(holds, rel=0.01)
        assert not any("of these leaves fold round" in advice.says for advice in again.advice)

    def test_nothing_is_said_of_a_leaf_that_nobody_measured(self):
        assert "shape.leaf_holds_g" not in told("leaf-parcels").facts

    def test_a_flatter_packet_is_wider_and_done_sooner(self):
        """Half as thick is wider by the root of two."""
        thick, flat = told("ground-packets", wrap={"thick_mm": 18}), told("ground-packets", wrap={"thick_mm": 9})
        side = "shape.side_mm"
        assert flat.facts[side].value == pytest.approx(thick.facts[side].value * math.sqrt(2))
        assert flat.facts["shape.packet_ml"].value == pytest.approx(thick.facts["shape.packet_ml"].value)
        assert flat.facts["heat.done_min"].value < thick.facts["heat.done_min"].value - 3

    def test_foil_alone_is_quicker_than_leaf_and_foil_and_wants_no_leaves(self):
        both, foil, leaf = (
            told("ground-packets", wrap={"outer": outer}).facts for outer in ("leaf-foil", "foil", "leaf")
        )
        done = "heat.done_min"
        assert leaf[done].value < foil[done].value < both[done].value
        assert "shape.foil_mm" not in leaf
        assert "shape.wrappers" not in foil

    def test_a_sheet_rolled_to_a_size(self):
        """All the dough over 400 x 250: its volume over a tenth of a square metre; a round of 80 takes 50.27 cm2 of it."""
        result = told(
            "stirred-rounds", schools={"wrap": "chill"}, rolled={"length_mm": 400, "width_mm": 250, "cutter_mm": 80}
        )
        facts = {key: fact.value for key, fact in result.facts.items()}
        assert facts["shape.rolled_mm"] == pytest.approx(
            facts["shape.sheet_cm2"] * facts["shape.sheet_thick_mm"] / 1000
        )
        by_thickness = facts["shape.base_g"] * facts["shape.rolled_mm"] / facts["shape.sheet_thick_mm"]
        assert facts["shape.rolled_cut_g"] == pytest.approx(by_thickness)

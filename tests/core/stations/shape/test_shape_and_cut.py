"""Pieces by any two measures, a heart within, tools, trays of several sizes, bags and cuts: through work(), by hand."""

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.change.adjust import Adjustment
from kemble.core.change.adjust import adjust as adjusted
from kemble.core.facts.problems import Refused
from kemble.core.geometry.filled_ball import Ball, PieceDensities
from kemble.core.geometry.tray_cutting import PATTERNS
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import PIECE_MEASURES, default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(altitude_m=0)
FACT = dict(zip(PIECE_MEASURES, ("base_g", "filling_g", "piece_g", "skin_pct", "skin_mm", "diameter_mm"), strict=True))


def line(ingredient, value, unit="g"):
    return {"ingredient": ingredient, "amount": {"value": value, "unit": unit}}


def rounds(pieces, *more, way="stirred-rounds", **rest):
    """Dough and bean paste, and what else is said."""
    document = default_sheet(way).model_dump(mode="json")
    return sheet_from({**document, "parts": [*document["parts"], *more], "pieces": pieces, **rest})


def heart(**more):
    return {"role": "heart", "name": "cherry", "lines": [line("cherry", 20, "piece")], **more}


def facts_of(sheet, kitchen=KITCHEN):
    worked = work(sheet, kitchen)
    assert worked.problems == []
    return {key: fact.value for key, fact in worked.facts.items()}


def problem(sheet):
    return work(sheet, KITCHEN).problems[0]


class TestTwoMeasures:
    @pytest.mark.parametrize("way", ["stirred-rounds", "boiled-balls", "crushed-balls"])
    def test_any_two_give_the_piece_that_dough_and_filling_gave(self, way):
        usual = facts_of(rounds({"dough_g": 24, "filling_g": 18}, way=way))
        sizes = {name: usual[f"shape.{fact}"] for name, fact in FACT.items()}
        for two in itertools.combinations(sizes, 2):
            if set(two) == {"piece_g", "diameter_mm"}:
                continue  # as good as one measure where dough and filling are about as dense
            result = facts_of(rounds({name: sizes[name] for name in two}, way=way))
            for name, fact in FACT.items():
                assert result[f"shape.{fact}"] == pytest.approx(sizes[name], rel=1e-4), (two, name)

    def test_the_count_is_one_of_them(self):
        """12 rounds share the dough; a skin of 4 mm then says the rest."""
        result = facts_of(rounds({"count": 12, "skin_mm": 4}))
        assert result["shape.base_g"] == pytest.approx(result["mix.cooked_g"] / 12)
        assert result["shape.skin_mm"] == pytest.approx(4)

    def test_one_alone_shares_dough_and_filling_evenly(self):
        result = facts_of(rounds({"piece_g": 50}))
        assert result["shape.base_enough_for"] == pytest.approx(result["shape.filling_enough_for"])
        assert result["shape.piece_g"] == pytest.approx(50)

    def test_three_are_one_too_many(self):
        with pytest.raises(Refused) as caught:
            rounds({"dough_g": 20, "skin_mm": 4, "diameter_mm": 40})
        assert caught.value.problems[0].path == "pieces.diameter_mm"
        assert "two of them give the rest" in caught.value.problems[0].says

    @pytest.mark.parametrize(
        ("pieces", "path"),
        [
            ({"skin_mm": 30, "diameter_mm": 40}, "pieces.diameter_mm"),
            ({"piece_g": 20, "dough_g": 25}, "pieces.piece_g"),
            ({"dough_g": 490}, "pieces.dough_g"),
        ],
    )
    def test_no_such_piece(self, pieces, path):
        assert problem(rounds(pieces)).path == path

    def test_a_plain_piece_has_one(self):
        plain = default_sheet("pounded").model_dump(mode="json")
        result = facts_of(sheet_from({**plain, "pieces": {"diameter_mm": 40}}))
        assert result["shape.diameter_mm"] == pytest.approx(40)
        for pieces, path in (({"skin_mm": 4}, "skin_mm"), ({"dough_g": 30, "diameter_mm": 40}, "diameter_mm")):
            assert problem(sheet_from({**plain, "pieces": pieces})).path == f"pieces.{path}"

    @pytest.mark.parametrize("value", [0, -4, math.nan, math.inf, "much"])
    def test_a_measure_must_be_one(self, value):
        for name in PIECE_MEASURES:
            with pytest.raises(Refused):
                rounds({name: value})


class TestSkin:
    def says(self, sheet):
        return [advice.says for advice in work(sheet, KITCHEN).advice if advice.station == "shape"]

    def test_it_is_told_before_it_tears(self):
        """Wrapped warm it holds to 3 mm."""
        assert any(
            "under 3.0 mm it tears" in message for message in self.says(rounds({"filling_g": 25, "skin_mm": 2.9}))
        )
        assert any(
            "hardly more than the 3.0 mm" in message for message in self.says(rounds({"filling_g": 25, "skin_mm": 3.2}))
        )
        assert not any("tears" in message for message in self.says(rounds({"filling_g": 25, "skin_mm": 4.5})))

    def test_by_the_school(self):
        chilled = rounds({"filling_g": 25, "skin_mm": 3.3}, schools={"wrap": "chill"})
        assert any("under 3.5 mm it tears" in message for message in self.says(chilled))


class TestHeart:
    def test_paste_goes_round_it(self):
        """30 g within, a cherry of 7: 23 g of paste. Its sphere and the core's differ by twice the paste."""
        result = facts_of(rounds({"dough_g": 30, "filling_g": 30}, heart()))
        assert (result["shape.heart_g"], result["shape.paste_g"]) == (7, 23)
        assert result["shape.paste_mm"] == pytest.approx((result["shape.core_mm"] - result["shape.heart_mm"]) / 2)
        assert result["shape.filling_enough_for"] == pytest.approx(result["part.filling.made_g"] / 23)

    def test_its_own_weight_and_size(self):
        result = facts_of(rounds({"dough_g": 30, "filling_g": 30}, heart(each_g=10, each_mm=24)))
        assert (result["shape.heart_g"], result["shape.heart_mm"]) == (10, pytest.approx(24))

    def test_it_can_run_out_first(self):
        result = facts_of(rounds({"dough_g": 20, "filling_g": 18}, heart(lines=[line("cherry", 5, "piece")])))
        assert result["shape.short_of"] == "cherry"

    def test_without_paste(self):
        plain = default_sheet("pounded").model_dump(mode="json")
        result = facts_of(sheet_from({**plain, "parts": [*plain["parts"], heart()], "pieces": {"dough_g": 30}}))
        assert result["shape.core_mm"] == pytest.approx(result["shape.heart_mm"])
        assert "shape.paste_g" not in result

    def test_in_a_way_that_is_coated_it_lies_in_the_dough(self):
        """With paste outside there are three layers; without any, the rice alone is round it."""
        coated = rounds({"dough_g": 27, "filling_g": 38}, heart(), way="crushed-balls")
        result = facts_of(coated)
        assert result["shape.core_mm"] > result["shape.heart_mm"]
        assert (result["shape.base_g"], result["shape.paste_g"]) == (pytest.approx(27), pytest.approx(31))
        bare = coated.model_dump(mode="json")
        bare["parts"] = [part for part in bare["parts"] if part["role"] != "filling"]
        result = facts_of(sheet_from({**bare, "pieces": {"dough_g": 27}}))
        assert result["shape.core_mm"] == pytest.approx(result["shape.heart_mm"])
        assert result["shape.base_g"] == 27

    def test_a_crumb_of_one_is_none(self):
        plain = default_sheet("boiled-balls").model_dump(mode="json")
        plain["parts"] = [part for part in plain["parts"] if part["role"] != "filling"]
        crumb = heart(lines=[line("cherry", 0.03)])
        result = facts_of(sheet_from({**plain, "parts": [*plain["parts"], crumb], "pieces": {"dough_g": 18}}))
        assert "shape.heart_g" not in result
        assert result["heat.done_min"] > 0

    def test_thin_paste_is_told(self):
        worked = work(rounds({"dough_g": 30, "filling_g": 9}, heart()), KITCHEN)
        assert any("it shows through" in advice.says for advice in worked.advice)

    @pytest.mark.parametrize(
        ("pieces", "part", "path"),
        [
            ({"dough_g": 30, "filling_g": 5}, heart(), "pieces.filling_g"),
            ({"dough_g": 30}, {"role": "heart", "name": "it", "lines": [line("raisin", 50)]}, "parts"),
        ],
    )
    def test_more_of_it_than_filling_or_nobody_knows_how_heavy(self, pieces, part, path):
        result = problem(rounds(pieces, part))
        assert result.path == path

    def test_only_a_heart_is_measured_across(self):
        with pytest.raises(Refused) as caught:
            rounds({}, {"role": "broth", "lines": [line("water", 20)], "each_mm": 20})
        assert caught.value.problems[0].path.endswith("each_mm")

    def test_so_many_pieces_scale_it_too(self):
        sheet = adjusted(
            rounds({"dough_g": 30, "filling_g": 30}, heart()),
            Adjustment(by="pieces", count=40, piece_g=30, filling_g=30),
            KITCHEN,
        ).sheet
        result = facts_of(sheet)
        assert result["shape.pieces"] == 40
        assert result["part.heart.made_g"] == pytest.approx(40 * 7)
        assert result["part.filling.made_g"] == pytest.approx(40 * 23)


class TestTools:
    def test_the_nearest_spoon_and_the_kitchens_own_scoop(self):
        """25 g of paste at its density: two level tablespoons are 30 ml; a scoop of 19 ml is nearer."""
        usual = facts_of(rounds({"dough_g": 30, "filling_g": 25}))
        scooped = Kitchen(altitude_m=0, scoops=[{"name": "the scoop", "ml": 19}])
        mine = facts_of(rounds({"dough_g": 30, "filling_g": 25}), scooped)
        assert (usual["shape.scoop"], mine["shape.scoop"]) == ("1½ tbsp", "the scoop")
        assert abs(mine["shape.scoop_g"] - 25) < abs(usual["shape.scoop_g"] - 25)

    def test_a_cut_from_the_sheet_weighs_what_a_piece_wants(self):
        sheet = rounds({"dough_g": 30, "filling_g": 25}, schools={"wrap": "chill"}, rolled={"cutter_mm": 80})
        result = facts_of(sheet)
        disc_ml = math.pi * 40**2 * result["shape.sheet_thick_mm"] / 1000
        assert disc_ml * result["mix.density_g_per_ml"] == pytest.approx(30)
        cut = result["shape.cut_of_sheet"]
        assert cut * 30 + result["shape.trimmings_g"] == pytest.approx(result["mix.cooked_g"])

    def test_the_size_it_is_rolled_to_makes_the_piece(self):
        """All the dough over 300 by 200 mm; a cutter of 80 mm takes pi 40 x 40 / 60 000 of it, 8.38 in a hundred."""
        size = {"cutter_mm": 80, "length_mm": 300, "width_mm": 200}
        result = facts_of(rounds({}, schools={"wrap": "chill"}, rolled=size))
        share = math.pi * 40**2 / 60_000
        assert result["shape.base_g"] == pytest.approx(share * result["mix.cooked_g"])
        ml = result["mix.cooked_g"] / result["mix.density_g_per_ml"]
        assert (
            result["shape.sheet_thick_mm"]
            == pytest.approx(ml * 1000 / 60_000)
            == pytest.approx(result["shape.rolled_mm"])
        )
        assert result["shape.cut_first"] == 6  # three by two of 82 mm; laid closer, a third row finds no room
        assert result["shape.pieces"] == 11  # with the trimmings, as far as the dough goes

    def test_what_the_cook_says_of_a_piece_goes_before_the_size(self):
        size = {"cutter_mm": 80, "length_mm": 300, "width_mm": 200}
        result = facts_of(rounds({"dough_g": 30, "filling_g": 25}, schools={"wrap": "chill"}, rolled=size))
        assert result["shape.base_g"] == 30

    def test_a_cutter_wider_than_the_sheet(self):
        wide = rounds({"dough_g": 60, "filling_g": 25}, schools={"wrap": "chill"}, rolled={"cutter_mm": 300, "shape": "square", "board_width_mm": 200})  # fmt: skip
        assert problem(wide).path == "rolled.cutter_mm"


def cake(**more):
    return sheet_from({**default_sheet("set-cake").model_dump(mode="json"), **more})


ROUND = {"shape": "round", "diameter_mm": 150, "height_mm": 60}
LOAF = {"shape": "oblong", "length_mm": 150, "width_mm": 75, "height_mm": 40}


class TestTins:
    def test_one_depth_in_all(self):
        """786 ml or so over one round of 150 and two loaves: pi x 75 x 75 + 2 x 150 x 75 = 40 171 mm2."""
        result = facts_of(cake(vessel={"tin": ROUND, "count": 1, "more": [{"tin": LOAF, "count": 2}]}))
        assert result["shape.depth_mm"] == pytest.approx(
            result["mix.volume_ml"] * 1000 / (math.pi * 75**2 + 2 * 150 * 75)
        )
        assert result["shape.tins"] == 3

    def test_the_lowest_runs_over_first(self):
        low = {**LOAF, "height_mm": 15}
        result = problem(cake(vessel={"tin": ROUND, "more": [{"tin": low}]}))
        assert result.path == "vessel.tin"
        assert "the lowest 15 mm high" in result.says

    def test_too_little_is_said(self):
        worked = work(cake(vessel={"tin": {**ROUND, "diameter_mm": 400}, "count": 1}), KITCHEN)
        assert any("Too little for these tins" in advice.says for advice in worked.advice)

    def test_filled_to_a_depth_by_all_the_floors(self):
        sheet = cake(vessel={"tin": ROUND, "more": [{"tin": LOAF}]})
        assert facts_of(adjusted(sheet, Adjustment(by="depth", mm=25), KITCHEN).sheet)[
            "shape.depth_mm"
        ] == pytest.approx(25)

    @settings(max_examples=examples(25), deadline=None)
    @given(st.sampled_from(PATTERNS), st.integers(1, 40), st.integers(1, 3), st.booleans())
    def test_pieces_of_all_tins_and_offcuts_are_the_cake(self, pattern, pieces, loaves, even):
        sheet = cake(
            vessel={"tin": ROUND, "more": [{"tin": LOAF, "count": loaves}]},
            cut={"pattern": pattern, "pieces": pieces, "even": even},
        )
        worked = work(sheet, KITCHEN)
        facts = {key: fact.value for key, fact in worked.facts.items()}
        assert facts["cut.pieces"] >= pieces
        trays = worked.drawings.cut.trays
        assert sum(t.count * c.grams for t in trays for c in t.cells) == pytest.approx(facts["mix.cooked_g"], rel=1e-4)


class TestCut:
    def test_by_weight(self):
        """Strips of a hundredth of the cake each: a hundred of them are too thin; a tenth is ten strips."""
        tenth = facts_of(cake())["mix.cooked_g"] / 10
        square = {"shape": "oblong", "length_mm": 200, "width_mm": 150, "height_mm": 60}
        result = facts_of(cake(vessel={"tin": square}, cut={"pattern": "strips", "piece_g": tenth}))
        assert (result["cut.pieces"], result["cut.piece_mm"]) == (10, pytest.approx(20))
        assert result["cut.piece_g"] == pytest.approx(tenth)

    def test_by_side(self):
        square = {"shape": "oblong", "length_mm": 200, "width_mm": 150, "height_mm": 60}
        result = facts_of(cake(vessel={"tin": square}, cut={"side_mm": 50}))
        assert (result["cut.pieces"], result["cut.offcut_pct"]) == (12, pytest.approx(0, abs=1e-9))

    def test_corners_and_edges_are_counted(self):
        square = {"shape": "oblong", "length_mm": 200, "width_mm": 200, "height_mm": 60}
        result = facts_of(cake(vessel={"tin": square}, cut={"pieces": 25}))
        assert (result["cut.corners"], result["cut.edges"]) == (4, 12)

    def test_some_are_cut_small(self):
        square = {"shape": "oblong", "length_mm": 200, "width_mm": 200, "height_mm": 60}
        drawn = work(cake(vessel={"tin": square}, cut={"pieces": 25, "small": 11}), KITCHEN).drawings.cut
        small = [cell.kind for cell in drawn.trays[0].cells if cell.small]
        assert (small.count("inner"), small.count("edge")) == (9, 2)

    @pytest.mark.parametrize(
        ("cut", "path"),
        [
            ({"pieces": 400}, "cut.pieces"),
            ({"side_mm": 6}, "cut.side_mm"),
            ({"side_mm": 400}, "cut.side_mm"),
            ({"piece_g": 0.1}, "cut.piece_g"),
            ({"piece_g": 1900}, "cut.piece_g"),
            ({"pattern": "diamonds", "side_mm": 170}, "cut.side_mm"),
        ],
    )
    def test_a_cut_that_cannot_be(self, cut, path):
        assert problem(cake(cut=cut)).path == path

    def test_a_cut_that_says_too_much_or_nonsense(self):
        for cut, path in (
            ({"side_mm": 40, "piece_g": 30}, "cut.piece_g"),
            ({"pattern": "hearts"}, "cut.pattern"),
            ({"pieces": 0}, "cut.pieces"),
        ):
            with pytest.raises(Refused) as caught:
                cake(cut=cut)
            assert caught.value.problems[0].path == path


class TestBag:
    def block(self, **more):
        document = default_sheet("pounded").model_dump(mode="json")
        return sheet_from({**document, "schools": {"finish": "block"}, **more})

    def test_as_thick_as_its_mass_over_the_bag(self):
        result = facts_of(self.block(bag={"length_mm": 300, "width_mm": 200}))
        volume_ml = result["mix.cooked_g"] / result["mix.density_g_per_ml"]
        assert result["shape.depth_mm"] == pytest.approx(volume_ml * 1000 / 60_000)
        assert result["cut.pieces"] * result["cut.piece_g"] == pytest.approx(result["mix.cooked_g"])

    def test_too_thin_and_too_thick_are_told(self):
        for size, word in ((600, "thin"), (120, "thick")):
            worked = work(self.block(bag={"length_mm": size, "width_mm": size * 2 / 3}), KITCHEN)
            assert any(f"mm {word}" in advice.says for advice in worked.advice), word

    def test_rolled_to_a_thickness(self):
        sheet = adjusted(self.block(), Adjustment(by="depth", mm=14), KITCHEN).sheet
        assert facts_of(sheet)["shape.depth_mm"] == pytest.approx(14)

    def test_so_many_people_share_blocks(self):
        sheet = adjusted(self.block(), Adjustment(by="people", people=12, each=3), KITCHEN).sheet
        assert facts_of(sheet)["cut.pieces"] == 36


def test_the_size_of_a_piece_goes_by_the_density_of_each_layer():
    """20 g at 1.25 g/ml round 10 g at 0.8 are 16 and 12.5 ml: a ball of 28.5 ml, 37.90 mm across; its core 28.79."""
    ball = Ball(20.0, 10.0, PieceDensities(1.25, 0.8))
    assert ball.diameter_mm == pytest.approx(37.90, abs=0.01)
    assert ball.core_mm == pytest.approx(28.79, abs=0.01)


@pytest.mark.parametrize("way", ["boiled-balls", "crushed-balls"])
def test_dough_and_filling_have_densities_of_their_own(way):
    """Whichever of the two is outside."""
    result = work(default_sheet(way), Kitchen())
    drawing = result.drawings.shape
    assert drawing.dough_g_per_ml == pytest.approx(result.facts["mix.density_g_per_ml"].value)
    assert abs(drawing.filling_g_per_ml - drawing.dough_g_per_ml) > 0.01

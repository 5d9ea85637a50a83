"""Spheres, sheets and trays against volumes worked back, brute force, Shapely and random points."""

import itertools
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import MultiPoint, Point, Polygon
from shapely.ops import unary_union
from thorough import examples

from kemble.core.geometry.filled_ball import MEASURES, Ball, PieceDensities, ball_of, sphere_ml, sphere_mm
from kemble.core.geometry.rolled_dough import cutter_mm2, place_cutters, rollings
from kemble.core.geometry.tray_cutting import PATTERNS, CutRequest, cut_tray
from kemble.core.geometry.tray_floor import Tray, disc_area

OBLONG, ROUND = Tray(190, 140), Tray(180, 180, round=True)


class TestBall:
    def test_a_sphere_by_hand(self):
        """2 cm across: 4/3 pi 1^3 = 4.18879 ml."""
        assert sphere_ml(20) == pytest.approx(4.18879, rel=1e-5)
        assert sphere_mm(4.18879) == pytest.approx(20, rel=1e-5)

    def test_sphere_in_sphere_by_hand(self):
        """Densities of 1: a 10 mm core (0.5236 ml) in a 20 mm ball (4.1888 ml) leaves a skin of 5 mm and 3.6652 g."""
        ball = ball_of({"diameter_mm": 20, "skin_mm": 5}, PieceDensities(1, 1))
        assert ball.inner_g == pytest.approx(0.523599, rel=1e-5)
        assert ball.outer_g == pytest.approx(3.665191, rel=1e-5)

    @settings(max_examples=examples(60))
    @given(
        st.floats(2, 80), st.floats(0.5, 60), st.floats(0.8, 1.4), st.floats(0.6, 1.5), st.floats(0, 0.9), st.floats(0.5, 1.3)
    )  # fmt: skip
    def test_any_two_measures_give_the_rest(self, outer, inner, dense, within, heart_share, heart_dense):
        heart = inner * heart_share
        stuff = PieceDensities(dense, within, heart, heart / heart_dense)
        ball = Ball(outer, inner, stuff)
        for two in itertools.combinations(MEASURES, 2):
            if set(two) == {"piece_g", "diameter_mm"} and abs(dense - within) < 0.05:
                continue  # nearly the same measure
            found_ball = ball_of({name: getattr(ball, name) for name in two}, stuff)
            assert found_ball is not None, two
            # Where two balls share both measures (a thick skin round little), either is an answer.
            for name in two:
                assert getattr(found_ball, name) == pytest.approx(getattr(ball, name), rel=1e-3, abs=1e-6), two

    def test_skin_and_core_hold_what_they_weigh(self):
        ball = ball_of({"piece_g": 45, "skin_mm": 4}, PieceDensities(1.12, 1.25, 8, 7.5))
        shell = math.pi / 6 * (ball.diameter_mm**3 - ball.core_mm**3) / 1000 * 1.12
        paste = math.pi / 6 * (ball.core_mm**3 - ball.heart_mm**3) / 1000 * 1.25
        assert shell == pytest.approx(ball.outer_g)
        assert paste + 8 == pytest.approx(ball.inner_g)

    @pytest.mark.parametrize(
        "given",
        [
            {"piece_g": 20, "outer_g": 25},
            {"diameter_mm": 20, "skin_mm": 11},
            {"inner_g": 5, "piece_g": 20},  # less than the heart
            {"outer_share": 0.999, "inner_g": 3},
        ],
    )
    def test_no_such_ball(self, given):
        assert ball_of(given, PieceDensities(1.1, 1.2, 8, 7)) is None

    def test_two_measures_and_no_other_number(self):
        with pytest.raises(ValueError, match="two measures"):
            ball_of({"piece_g": 20}, PieceDensities(1, 1))


class TestRolled:
    def test_two_rows_by_hand(self):
        """100 x 60 mm, 30 mm cutters touching: 3 in a row, 2 rows. Hexagonal, rows 26 mm apart: 3 and 2."""
        assert len(place_cutters(100, 60, 30, 0, "square")) == 6
        assert len(place_cutters(100, 56, 30, 0, "hexagonal")) == 5
        assert len(place_cutters(100, 56, 30, 0, "square")) == 3

    @settings(max_examples=examples(60))
    @given(
        st.floats(60, 500),
        st.floats(60, 400),
        st.floats(20, 90),
        st.floats(0, 8),
        st.sampled_from(["square", "hexagonal"]),
    )
    def test_no_cut_overlaps_and_none_hangs_over(self, length, width, cutter, gap, packing):
        cutter_places = place_cutters(length, width, cutter, gap, packing)
        for p in cutter_places:
            assert cutter / 2 - 1e-6 <= p.x <= length - cutter / 2 + 1e-6
            assert cutter / 2 - 1e-6 <= p.y <= width - cutter / 2 + 1e-6
        for a, b in itertools.combinations(cutter_places[:80], 2):
            assert math.hypot(a.x - b.x, a.y - b.y) >= cutter + gap - 1e-6
        # Never more than geometry allows: discs in a plane cover at most pi / sqrt(12) of it (the sheet grown by the
        # half cell that each disc at the edge may claim outside).
        pitch = cutter + gap
        assert len(cutter_places) * math.sqrt(3) / 2 * pitch**2 <= (length + pitch) * (width + pitch)
        assert (cutter_places == []) == (cutter > min(length, width) + 1e-9)

    @settings(max_examples=examples(40))
    @given(st.floats(8_000, 300_000), st.floats(25, 90), st.sampled_from(["round", "square"]), st.integers(0, 4))
    def test_rolled_again_no_dough_is_lost(self, area, cutter, shape, again):
        found_rollings = rollings(
            area, board=(450, 300), cutter=cutter, shape=shape, gap=2, packing="hexagonal", again=again
        )
        assert len(found_rollings) <= again + 1
        left = area
        for rolling in found_rollings:
            assert rolling.sheets * rolling.length * rolling.width == pytest.approx(left)
            assert rolling.length <= 450 + 1e-6
            assert rolling.width <= 300 + 1e-6
            left -= rolling.count * cutter_mm2(cutter, shape)
            assert rolling.left_mm2 == pytest.approx(left, abs=1e-3)
        assert sum(r.count for r in found_rollings) <= area / cutter_mm2(cutter, shape) + 1e-9

    def test_rolling_again_gives_more(self):
        counts = [
            sum(r.count for r in rollings(60_000, board=(450, 300), cutter=70, shape="round", gap=2, packing="hexagonal", again=n))
            for n in range(4)
        ]  # fmt: skip
        assert counts == sorted(counts)
        assert counts[0] < counts[-1] <= 15  # 60 000 mm2 over 3848 mm2 is 15.6

    @pytest.mark.parametrize("board", [(1400, 110), (110, 1400), (150, 150)])
    def test_a_board_of_any_shape(self, board):
        rolling = rollings(200_000, board=board, cutter=60, shape="round", gap=2, packing="hexagonal", again=1)
        assert rolling
        assert all(r.length <= board[0] + 1e-6 and r.width <= board[1] + 1e-6 for r in rolling)

    def test_a_cutter_wider_than_the_sheet(self):
        assert rollings(60_000, board=(450, 300), cutter=310, shape="square", gap=0, packing="square", again=2) == []


@pytest.mark.parametrize("tray", [OBLONG, ROUND, Tray(200, 200), Tray(140, 260)], ids=str)
@pytest.mark.parametrize("pattern", PATTERNS)
class TestEveryPattern:
    @pytest.mark.parametrize("count", [1, 2, 7, 12, 24, 50])
    @pytest.mark.parametrize("even", [False, True])
    def test_pieces_and_offcuts_are_the_tray(self, tray, pattern, count, even):
        cutting = cut_tray(tray, pattern, CutRequest(count=count, even=even))
        assert len(cutting.pieces) >= count
        assert sum(cell.area for cell in cutting.cells) == pytest.approx(tray.area, rel=1e-5)

    def test_by_shapely_no_piece_overlaps_another_and_each_has_its_area(self, tray, pattern):
        cutting = cut_tray(tray, pattern, CutRequest(count=24))
        shapes = [Polygon(cell.outline) for cell in cutting.cells]
        for cell, shape in zip(cutting.cells, shapes, strict=True):
            # Arcs are drawn as chords of four degrees: the drawing lacks a part in five hundred of a segment.
            assert shape.area == pytest.approx(cell.area, rel=5e-3, abs=3.0)
        assert unary_union(shapes).area == pytest.approx(sum(shape.area for shape in shapes), rel=3e-4)
        floor = (
            Point(tray.radius, tray.radius).buffer(tray.radius, 256)
            if tray.round
            else MultiPoint([(0, 0), (tray.length, tray.width)]).envelope
        )
        assert unary_union(shapes).difference(floor.buffer(0.01)).area < 0.5

    def test_every_whole_piece_is_as_large_as_the_others(self, tray, pattern):
        cutting = cut_tray(tray, pattern, CutRequest(count=24, even=True))
        areas = [cell.area for cell in cutting.pieces]
        assert max(areas) == pytest.approx(min(areas), rel=1e-5)

    def test_the_knife_stays_on_the_tray_and_on_its_rulers(self, tray, pattern):
        cutting = cut_tray(tray, pattern, CutRequest(count=24, even=True))
        for line in cutting.lines:
            for x, y in line:
                assert -1e-6 <= x <= tray.length + 1e-6
                assert -1e-6 <= y <= tray.width + 1e-6
        for ruler in cutting.rulers:
            assert all(0 <= tick <= ruler.length for tick in ruler.ticks)
            assert len(set(ruler.ticks)) == len(ruler.ticks)


class TestByHand:
    def test_an_oblong_tray_is_shared_without_a_crumb(self):
        cutting = cut_tray(OBLONG, "squares", CutRequest(count=24))
        assert (cutting.rows, cutting.columns) == (4, 6)
        kinds = [cell.kind for cell in cutting.cells]
        assert (kinds.count("corner"), kinds.count("edge"), kinds.count("inner")) == (4, 12, 8)
        assert cutting.rulers[0].ticks == pytest.approx([190 / 6 * i for i in range(1, 6)])
        assert cutting.rulers[1].ticks == pytest.approx([35, 70, 105])

    def test_a_prime_number_takes_the_next_even_grid(self):
        assert len(cut_tray(Tray(200, 200), "squares", CutRequest(count=23)).pieces) in (24, 25)

    def test_squares_of_five_centimetres(self):
        """190 x 140: 3 by 2 whole ones, and a strip of 40 on both sides: 5 cut short and 1 in the corner."""
        cutting = cut_tray(OBLONG, "squares", CutRequest(side=50))
        assert len(cutting.pieces) == 6
        assert sorted(round(c.area) for c in cutting.cells if c.kind == "offcut") == [
            1600,
            2000,
            2000,
            2000,
            2000,
            2000,
        ]

    def test_by_weight_is_by_area(self):
        """A hundredth of a 200 x 200 tray is a square of 20."""
        cutting = cut_tray(Tray(200, 200), "squares", CutRequest(area=400))
        assert cutting.side == pytest.approx(20)
        assert len(cutting.pieces) == 100

    def test_strips_of_a_round_tray_of_the_same_area(self):
        """Two strips meet in the middle; of four, the outer ones are 0.298 of the diameter wide (half a radius is 0.25)."""
        assert cut_tray(ROUND, "strips", CutRequest(count=2, even=True)).rulers[0].ticks == pytest.approx(
            [90], abs=1e-4
        )
        first, middle, last = cut_tray(ROUND, "strips", CutRequest(count=4, even=True)).rulers[0].ticks
        d = 1 - first / 90
        assert math.acos(d) - d * math.sqrt(1 - d * d) == pytest.approx(math.pi / 4, abs=1e-6)
        assert (middle, last) == pytest.approx((90, 180 - first), abs=1e-4)

    def test_rings_of_the_same_area(self):
        """Two rings: the inner one has its share of the area, so the square root of it of the radius."""
        cutting = cut_tray(ROUND, "rings", CutRequest(count=24))
        inner = sum(
            math.hypot(*(sum(p[i] for p in c.outline) / len(c.outline) - 90 for i in (0, 1)))
            < cutting.rings[0] * 90 * 0.9
            for c in cutting.cells
        )
        assert cutting.rings[0] == pytest.approx(math.sqrt(inner / 24))

    def test_wedges_of_an_oblong_are_of_the_same_area_though_not_alike(self):
        cutting = cut_tray(Tray(300, 100), "wedges", CutRequest(count=8))
        for cell in cutting.cells:
            assert Polygon(cell.outline).area == pytest.approx(300 * 100 / 8)

    def test_a_whole_diamond(self):
        """Sides of 40 at 60 degrees: 40 x 40 x sin 60 = 1385.6 mm2."""
        cutting = cut_tray(OBLONG, "diamonds", CutRequest(side=40))
        assert cutting.pieces[0].area == pytest.approx(1385.64, rel=1e-5)

    def test_a_piece_larger_than_the_tray(self):
        assert cut_tray(ROUND, "squares", CutRequest(side=150)) is None
        assert cut_tray(OBLONG, "strips", CutRequest(side=300)) is None

    @pytest.mark.parametrize("wanted", [1, 4, 5, 9, 12, 16, 21, 24])
    def test_squares_in_a_round_tray_lie_whole_inside(self, wanted):
        cutting = cut_tray(ROUND, "squares", CutRequest(count=wanted))
        assert len(cutting.pieces) >= wanted
        for cell in cutting.pieces:
            assert max(math.hypot(x - 90, y - 90) for x, y in cell.outline) <= 90 + 1e-6

    def test_no_larger_square_gives_as_many(self):
        """Brute force over the four ways to lay the grid, a fifth of a millimetre larger."""
        side = cut_tray(ROUND, "squares", CutRequest(count=24)).side + 0.2

        def count(ox, oy):
            xs, ys = ([(i + o) * side for i in range(-8, 8)] for o in (ox, oy))
            return sum(
                max(math.hypot(x + a, y + b) for a in (0, side) for b in (0, side)) <= 90 for x in xs for y in ys
            )

        assert max(count(ox, oy) for ox in (0, 0.5) for oy in (0, 0.5)) < 24


@settings(max_examples=examples(80))
@given(st.lists(st.tuples(st.floats(-40, 220), st.floats(-40, 220)), min_size=3, max_size=7))
def test_the_part_of_an_outline_on_a_disc_as_shapely_has_it(points):
    hull = MultiPoint(points).convex_hull
    if hull.geom_type != "Polygon":
        return
    expected = hull.intersection(Point(90, 90).buffer(90, 2048)).area
    assert disc_area(list(hull.exterior.coords)[:-1], 90) == pytest.approx(expected, rel=1e-3, abs=0.5)


@pytest.mark.long
def test_cut_cells_of_a_round_tray_as_random_points_have_them():
    """A million points on the disc: a cell's share of them is its area, within four standard errors."""
    rng = np.random.default_rng(7)
    xy = rng.uniform(0, 180, size=(1_000_000, 2))
    xy = xy[np.hypot(*(xy - 90).T) <= 90]
    cutting = cut_tray(ROUND, "squares", CutRequest(side=31))
    for cell in cutting.cells:
        xs, ys = zip(*cell.outline, strict=True)
        inside = ((xy >= (min(xs), min(ys))) & (xy <= (max(xs), max(ys)))).all(axis=1).mean()
        share = cell.area / ROUND.area
        assert inside == pytest.approx(share, abs=4 * math.sqrt(share / len(xy)))

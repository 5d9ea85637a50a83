"""Hands: bend lines, levels and lengths by hand; every frame of every sheet lies on its paper."""

import math

import pytest
from sheets_by_hand import KITCHEN

from kemble.core.cards.ways import WAYS
from kemble.core.geometry.hand_moves import cone, draw_skin_over, level, packet, rope, stretch_over_ball, turned_out
from kemble.core.geometry.leaf_folds import LeafParcel
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.shape.hand_drawings import hands_of
from kemble.core.stations.work_sheet import work


def strokes(frame, kind):
    return [stroke for stroke in frame.strokes if stroke.kind == kind]


class TestCone:
    FRAMES = cone(340, 90, 2, 0.6, 93, [("grain", 20.0), ("filling", 15.0), ("grain", 20.0)], 780)

    def test_it_bends_at_sixty_and_a_hundred_and_twenty_degrees(self):
        """Three equilateral triangles about one point: both bends are an edge long, and sixty degrees apart."""
        bends = strokes(self.FRAMES[0], "bend")
        assert len(bends) == 2
        angles = []
        for bend in bends:
            (ax, ay), (bx, by) = bend.points
            assert math.dist(*bend.points) == pytest.approx(93.0)
            angles.append(math.degrees(math.atan2(ay - by, bx - ax)))
        assert angles == pytest.approx([60.0, 120.0])
        tip = bends[0].points[0]
        assert tip == pytest.approx((170.0, 90 * 1.6))  # the middle of the near edge

    def test_it_stands_as_high_as_what_is_in_it(self):
        """A cone an eighth full stands half as high; all of it by the cube root."""
        assert level(1 / 8) == pytest.approx(0.5)
        assert level(1.4) == 1.0
        whole = LeafParcel(93).holds_ml
        grain = strokes(self.FRAMES[2], "grain")
        height = 93 * math.sqrt(3) / 2
        top = min(y for _, y in grain[-1].points)
        assert height - top == pytest.approx(height * (55.0 / whole) ** (1 / 3), rel=1e-6)

    def test_it_is_laid_of_as_many_leaves(self):
        assert len(strokes(self.FRAMES[0], "leaf")) + len(strokes(self.FRAMES[0], "under")) == 2


class TestPacket:
    def test_it_bends_a_thickness_beside_its_edges(self):
        """61 mm in a sheet of 204 by 147, 18 thick: along at 43 − 18, 43, 104 and 104 + 18."""
        lines = sorted(
            stroke.points[0][1] for stroke in strokes(packet(61, 18, 204, 147)[0], "bend") if stroke.points[0][0] == 0
        )
        assert lines == pytest.approx([25.0, 43.0, 104.0, 122.0])


class TestOver:
    def test_how_far_it_must_stretch(self):
        """Half the girth of a ball of 34 on each side: a disc of 85 must get 1.26 times as long."""
        assert stretch_over_ball(85, 34) == pytest.approx(math.pi * 34 / 85)
        frames = draw_skin_over(85, 34, 44, "the dough", "filling")
        assert "1.3 times" in frames[2].says
        assert [frame.estimate for frame in frames] == [False, True, True, False]

    def test_the_last_is_as_large_as_the_piece(self):
        box = draw_skin_over(85, 34, 44, "the dough", "filling")[-1].box
        assert box[2] == pytest.approx(44.0)


def test_a_rope_is_cut_as_often_as_there_are_pieces():
    frame = rope(25, 30, 6)[0]
    assert [stroke.points[0][0] for stroke in strokes(frame, "cut")] == [30, 60, 90, 120, 150]
    assert "first 3 are practice" in frame.says


def test_a_tin_is_drawn_as_deep_as_it_is_filled():
    cake = strokes(turned_out(180, 60, 30, lined=True)[0], "cake")[0]
    ys = [y for _, y in cake.points]
    assert (min(ys), max(ys)) == (30, 60)


@pytest.mark.parametrize("way", WAYS)
def test_every_frame_is_drawn(way):
    """No frame is empty, none has a point that is no number, all of it within its box."""
    sheet = default_sheet(way)
    drawn = hands_of(sheet, work(sheet, KITCHEN))
    for frames in drawn.steps.values():
        for frame in frames:
            left, top, wide, high = frame.box
            assert wide > 5
            assert high > 5
            assert frame.says
            for stroke in frame.strokes:
                for x, y in stroke.points:
                    assert left - 1e-6 <= x <= left + wide + 1e-6
                    assert top - 1e-6 <= y <= top + high + 1e-6


def test_ways_that_are_shaped_have_their_moves():
    steps = {way: set(hands_of(default_sheet(way), work(default_sheet(way), KITCHEN)).steps) for way in WAYS}
    assert {way for way, step in steps.items() if not step} == {"pounded"}
    assert steps["leaf-parcels"] == {"fold"}
    assert steps["boiled-balls"] >= {"divide", "wrap"}

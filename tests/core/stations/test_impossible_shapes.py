"""What cannot be is drawn as it was asked for, says where it fails, and no station works with it."""

import pytest

from kemble.core.formats.recipe_card import card_html
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

BALLS = default_sheet("boiled-balls")
CAKE = default_sheet("set-cake")


def balls(**measures):
    return work(BALLS.model_copy(update={"pieces": type(BALLS.pieces)(**measures)}), Kitchen())


@pytest.mark.parametrize(
    ("measures", "cannot"),
    [
        ({"dough_g": 0.4, "filling_g": 9}, "dough"),  # under half a gram
        ({"dough_g": 18, "skin_mm": 0.2}, "filling"),  # 18 g, 0.2 mm thick, go round a ball of kilograms
        ({"dough_g": 18, "skin_mm": 40}, "size"),  # 18 g are a ball of 30 mm
    ],
)
def test_a_piece_that_cannot_be(measures, cannot):
    worked = balls(**measures)
    assert worked.problems
    assert worked.drawings.shape.cannot == cannot
    assert worked.drawings.heat is None
    assert worked.steps == []


def test_one_that_can_be():
    assert balls(dough_g=18, filling_g=9).drawings.shape.cannot == ""


def test_a_card_shows_none_that_cannot_be():
    """It is for whoever makes it: a piece drawn to size on it would be made."""
    sheet = BALLS.model_copy(update={"pieces": type(BALLS.pieces)(dough_g=18, filling_g=9)})
    assert "<svg" in card_html(sheet, work(sheet, Kitchen()))
    sheet = BALLS.model_copy(update={"pieces": type(BALLS.pieces)(dough_g=18, skin_mm=0.2)})
    assert "<svg" not in card_html(sheet, work(sheet, Kitchen()))


def test_a_tin_too_low_by_so_much():
    """The batter stands as deep as in any tin of that floor; 2 mm below the brim the tin is full."""
    depth = float(work(CAKE, Kitchen()).facts["shape.depth_mm"].value)
    vessel = CAKE.vessel.model_copy(update={"tin": CAKE.vessel.tin.model_copy(update={"height_mm": 20.0})})
    worked = work(CAKE.model_copy(update={"vessel": vessel}), Kitchen())
    assert worked.problems[0].path == "vessel.tin"
    assert worked.drawings.shape.depth_mm == pytest.approx(depth)
    assert worked.drawings.shape.over_mm == pytest.approx(depth - 18, abs=1e-6)
    assert worked.drawings.cut is None


def test_a_tray_that_is_not_cut_so():
    """A piece heavier than the whole tray: the tray stays, without a knife's line."""
    cut = CAKE.cut.model_copy(update={"piece_g": 1990.0})
    worked = work(CAKE.model_copy(update={"cut": cut}), Kitchen())
    assert [problem.path for problem in worked.problems] == ["cut.piece_g"]
    (tray,) = worked.drawings.cut.trays
    assert worked.drawings.cut.cannot
    assert (tray.length_mm, tray.cells, tray.lines) == (CAKE.vessel.tin.diameter_mm, (), ())

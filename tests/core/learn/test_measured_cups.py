"""A cook's cups beside the craft's, by hand."""

import pytest

from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.learn.measured_cups import cups


def test_what_was_weighed_stands_beside_what_cooks_have():
    """A cup of 231 g of water where 250 is usual; 126 g of flour in it, to 3 %, where the larder has 0.56 to 0.66 g/ml."""
    flour = {"measure": "cup_own", "ingredient": "sweet-rice-flour", "grams": 126}
    cup, filled = cups(Kitchen(own_cup_ml=231, weighed=(flour,)))
    assert cup.craft == pytest.approx((212.5, 250, 275))
    assert cup.own == pytest.approx((228.7, 231, 233.3), abs=0.1)
    assert filled.own == pytest.approx((122.2, 126, 129.8), abs=0.1)
    densities = Shelf(Kitchen()).items["sweet-rice-flour"].density.values()
    assert filled.craft[0] == pytest.approx(231 * min(densities))
    assert filled.craft[2] == pytest.approx(231 * max(densities))
    assert "sweet rice flour" in filled.words


def test_nothing_weighed_is_no_row():
    assert cups(Kitchen()) == []

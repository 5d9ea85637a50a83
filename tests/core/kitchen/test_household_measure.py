"""What a cook measures with: eggs in halves, leaves by the piece, the rest by cup and spoon."""

import pytest

from kemble.core.facts.quantity import SPOONS
from kemble.core.kitchen.household_measure import household_measure
from kemble.core.kitchen.larder import larder


def measured(name, grams):
    item = larder()[name]
    return household_measure(item, grams, g_per_ml=item.g_per_ml, spoons=SPOONS["metric"])


def test_leaves_and_string_by_the_piece():
    leaf = larder()["bamboo-leaf"].g_per_piece
    near = measured("bamboo-leaf", 28.4 * leaf)
    assert (near.text, near.error_pct) == ("28 of them", pytest.approx(-100 * 0.4 / 28.4))
    assert measured("bamboo-leaf", 0.8 * leaf).text == "1 of it"


def test_a_leaf_of_which_nobody_said_what_it_weighs_has_none():
    item = larder()["bamboo-leaf"].model_copy(update={"g_per_piece": None})
    assert household_measure(item, 100, g_per_ml=0.1, spoons=SPOONS["metric"]) is None


def test_flour_by_cup_and_spoon():
    assert "cup" in measured("sweet-rice-flour", 300).text


def test_nothing_is_no_measure():
    assert measured("sweet-rice-flour", 0) is None

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.facts.quantity import (
    SPOONS,
    UNITS,
    Spoons,
    from_celsius,
    grams,
    household,
    length_words,
    size_words,
    span_words,
    to_celsius,
)

PINT = pint.UnitRegistry()
NAMES = {
    "g": "gram", "kg": "kilogram", "oz": "ounce", "lb": "pound", "ml": "milliliter", "l": "liter",
    "cup_us": "cup", "tbsp_us": "tablespoon", "tsp_us": "teaspoon", "cup_metric": "250 milliliter",
    "cup_rice_cooker": "180 milliliter", "tbsp_metric": "15 milliliter", "tbsp_20": "20 milliliter",
    "tsp_metric": "5 milliliter",
}  # fmt: skip


@pytest.mark.parametrize("unit", sorted(NAMES))
def test_factors_agree_with_pint(unit):
    base = "gram" if UNITS[unit].kind == "mass" else "milliliter"
    assert UNITS[unit].factor == pytest.approx(PINT(NAMES[unit]).to(base).magnitude, rel=1e-9)


def test_volume_goes_by_density():
    assert grams(1, "cup_metric", g_per_ml=0.56) == pytest.approx(140.0)
    assert grams(2, "piece", g_per_ml=1.0, g_per_piece=50.0) == 100.0


def test_pieces_of_what_is_not_counted():
    with pytest.raises(ValueError, match="not counted in pieces"):
        grams(1, "piece", g_per_ml=1.0)


def test_own_cups_and_packs():
    """A cook's own cup holds 231 g of water: of flour at 0.56 that is 129.4 g. Two tins of 400 g are 800."""
    assert grams(1, "cup_own", g_per_ml=0.56, own_ml={"cup_own": 231.0}) == pytest.approx(129.36)
    assert grams(2, "pack", g_per_ml=1.0, g_per_pack=400.0) == 800.0
    with pytest.raises(ValueError, match="has not been weighed"):
        grams(1, "cup_own", g_per_ml=1.0)
    with pytest.raises(ValueError, match="pack we know"):
        grams(1, "pack", g_per_ml=1.0)


def test_temperatures():
    assert to_celsius(350, "F") == pytest.approx(176.667, abs=0.001)
    assert from_celsius(100, "F") == 212.0
    assert to_celsius(180, "C") == 180


@pytest.mark.parametrize(
    ("mass_g", "density", "measures", "text"),
    [
        (250.0, 1.0, "metric", "1 cup"),
        (236.6, 1.0, "us", "1 cup"),
        (375.0, 1.0, "metric", "1½ cups"),
        (15.0, 1.0, "metric", "1 tbsp"),
        (2.5, 1.0, "metric", "½ tsp"),
        (0.3, 1.2, "metric", "a pinch"),
        (265.0, 1.0, "metric", "1 cup + 1 tbsp"),
    ],
)
def test_household_measures(mass_g, density, measures, text):
    assert household(mass_g, g_per_ml=density, spoons=SPOONS[measures]).text == text


def test_household_says_its_error():
    """18 g of oil at 0.92 is 19.57 ml; a spoon and a teaspoon are 20: 2.2 % over."""
    near = household(18.0, g_per_ml=0.92, spoons=SPOONS["metric"])
    assert near.text == "1 tbsp + 1 tsp"
    assert near.error_pct == pytest.approx(2.2, abs=0.05)


@given(st.floats(5.0, 2500.0), st.sampled_from(sorted(SPOONS)))
def test_household_is_never_far_off(ml, measures):
    near = household(ml, g_per_ml=1.0, spoons=SPOONS[measures])
    assert abs(near.error_pct) < 12.5


def test_household_in_the_cooks_own_cup():
    """310 g of water in a cup that holds 155: two of them, exactly."""
    near = household(310.0, g_per_ml=1.0, spoons=Spoons(155.0, 15.0, 5.0))
    assert (near.text, near.error_pct) == ("2 cups", pytest.approx(0.0))


def test_no_pile_of_cups():
    assert household(9000.0, g_per_ml=1.0, spoons=SPOONS["us"]) is None


def test_lengths_in_words():
    """31 / 25.4 = 1.2205 in; 180 / 25.4 = 7.09 in; 203.2 x 304.8 mm are 8 x 12 in."""
    assert (length_words(31, "mm"), length_words(2.96, "mm", 1)) == ("31 mm", "3.0 mm")
    assert length_words(31, "in") == "1.22 in"
    assert (size_words(180, unit="mm"), size_words(205, 300, unit="mm")) == ("18 cm", "20.5 × 30 cm")
    assert (size_words(180, unit="in"), size_words(203.2, 304.8, unit="in")) == ("7.1 in", "8.0 × 12.0 in")


@pytest.mark.parametrize(
    ("grams", "text"), [(312.5, "1¼ cups"), (437.5, "1¾ cups"), (60.0, "4 tbsp"), (62.5, "¼ cup"), (45.0, "3 tbsp")]
)
def test_measures_are_those_a_cook_would_say(grams, text):
    """At 1 g/ml, of a cup of 250 ml and a spoon of 15."""
    assert household(grams, g_per_ml=1.0, spoons=SPOONS["metric"]).text == text


@pytest.mark.parametrize(
    ("minutes", "words"),
    [(0.4, "0 min"), (89.4, "89 min"), (89.6, "1 h 30 min"), (120, "2 h"), (600, "10 h"), (1505, "25 h 5 min")],
)
def test_a_span_is_told_in_hours_from_an_hour_and_a_half_on(minutes, words):
    assert span_words(minutes) == words

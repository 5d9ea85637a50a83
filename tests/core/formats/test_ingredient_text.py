"""A pasted list against a corpus written by hand: amount, unit and ingredient as a person reads them."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.facts.quantity import UNITS
from kemble.core.formats.ingredient_text import MOST_LINES, read_list
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import larder

METRIC, US = Kitchen(measures="metric"), Kitchen(measures="us")
CUPS = {"cup": "cup_metric", "tbsp": "tbsp_metric", "tsp": "tsp_metric"}
CORPUS = [
    tuple(row.split("\t"))
    for row in Path(__file__).with_name("ingredient_lines.tsv").read_text(encoding="utf-8").splitlines()
]


def one(text, kitchen=METRIC):
    lines = read_list(text, kitchen).lines
    assert len(lines) == 1
    return lines[0]


def is_right(text, value, unit, ingredient):
    read = one(text)
    amount_right = read.value is None if value == "-" else read.value == pytest.approx(float(value), rel=1e-3)
    unit_right = read.unit is None if unit == "-" else read.unit == CUPS.get(unit, unit)
    return amount_right and unit_right and read.ingredient == (None if ingredient == "?" else ingredient)


def test_the_corpus_is_read():
    """At least 95 % right; whatever is wrong must at least have been asked about or be told as a guess."""
    assert len(CORPUS) >= 150
    wrong = [row for row in CORPUS if not is_right(*row)]
    assert len(wrong) <= 0.05 * len(CORPUS), wrong
    for text, *_ in wrong:
        read = one(text)
        assert read.asks or read.guessed or read.left_over, text


def test_the_corpus_names_only_what_exists():
    for text, _, unit, ingredient in CORPUS:
        assert ingredient == "?" or ingredient in larder(), text
        assert unit == "-" or CUPS.get(unit, unit) in UNITS, text


def test_a_cup_is_the_kitchens_own_kind():
    assert one("1 cup milk", US).unit == "cup_us"
    assert one("1 cup milk", Kitchen(own_cup_ml=231)).unit == "cup_own"
    assert "231 ml" in one("1 cup milk", Kitchen(own_cup_ml=231)).guessed[0]
    assert one("1 rice cooker cup sweet rice", US).unit == "cup_rice_cooker"


def test_what_was_understood_is_told_in_grams():
    """1½ metric cups of sweet rice flour at 0.56 g/ml are 210 g."""
    read = one("1 ½ cups sweet rice flour")
    assert read.understood == "1.5 metric cups sweet rice flour, 210 g"
    assert read.guessed == ["a cup as a metric cup, 250 ml"]
    assert read.asks == ""


@pytest.mark.parametrize(
    ("text", "asks"),
    [
        ("1 tin coconut milk", "Thick or thin"),
        ("200 g rice flour", "sweet rice flour"),
        ("Salt, to taste", "No amount"),
        ("glutinus rice flour 200 g", "Read as"),
        ("Stir until thick", "could not be read"),
        ("3 g of frobnicated snark", "No ingredient"),
        ("900 kg sugar", "a great deal"),
        ("2 pieces water", "not counted in pieces"),
    ],
)
def test_what_is_unsure_is_asked(text, asks):
    assert asks in one(text).asks


def test_headings_begin_parts():
    text = "Dough:\n200 g sweet rice flour\nFor the filling:\n100 g walnuts\nTopping\n20 g poppy seeds"
    lines = read_list(text, METRIC).lines
    assert [line.kind for line in lines] == ["heading", "line"] * 3
    assert [line.role for line in lines if line.kind == "line"] == ["base", "filling", "topping"]


@pytest.mark.parametrize(
    ("text", "way"),
    [
        ("300 g sweet rice flour\n200 g sugar\n300 ml water", "set-cake"),
        ("300 g sweet rice flour\n2 eggs\n60 g butter\n200 g sugar\n300 ml milk", "batter-bake"),
        ("400 g sweet rice\n1 tin coconut milk\n200 g sugar", "tray-rice"),
        ("400 g sweet rice\n20 bamboo leaves", "leaf-parcels"),
        ("400 g sweet rice\n60 g soybeans", "ground-packets"),
        ("200 g sweet rice flour\n100 g hazelnuts", "boiled-balls"),
        ("200 g sugar", None),
    ],
)
def test_the_way_a_list_points_to(text, way):
    assert read_list(text, METRIC).way == way


@given(st.text(max_size=300))
def test_nothing_is_dropped_and_nothing_breaks(text):
    """Every line that holds anything comes back, in order, word for word."""
    lines = read_list(text, METRIC).lines
    assert [line.text for line in lines] == [" ".join(row.split()) for row in text.splitlines() if row.strip()]
    for line in lines:
        assert line.kind == "heading" or line.ingredient or line.asks


def test_a_list_without_end():
    lines = read_list("1 g salt\n" * 5000, METRIC).lines
    assert len(lines) <= MOST_LINES + 800
    assert "too long" in lines[-1].asks


@pytest.mark.parametrize("line", ["1" * 20_000, "½" * 20_000, "1/" * 10_000, "a" * 20_000])
def test_a_line_that_nobody_wrote_is_left_unread(line):
    """Reading takes the square of a line's length, so there is a length beyond which it is no line."""
    (parsed_ingredient_line,) = read_list(f"{line}\n", Kitchen()).lines[:1]
    assert (parsed_ingredient_line.kind, parsed_ingredient_line.asks) == ("unread", "This line is too long to read.")
    assert len(parsed_ingredient_line.text) == 300


@pytest.mark.parametrize(
    ("text", "value", "unit", "ingredient"),
    [
        ("a third of the tin of condensed milk", 0.3333, "pack", "condensed-milk"),
        ("2/3 of a can coconut cream", 0.6667, "pack", "coconut-milk-thick"),
        ("1 quart milk", 1, "quart_us", "milk"),
        ("2 tbsp chicken fat", 2, "tbsp_metric", "poultry-fat"),
        ("1 cup sour cream", 1, "cup_metric", "sour-cream"),
        ("1 tsp ground ginger", 1, "tsp_metric", "ginger-ground"),
        ("an inch of ginger", 8, "g", "ginger"),
        ("a glug of olive oil", 1, "tbsp_metric", "olive-oil"),
        ("3 drops food colouring", 3, "drop", "food-colour"),
        ("1 cup peach nectar", 1, "cup_metric", "peach-nectar"),
        ("100 g raw peanuts", 100, "g", "peanut-raw"),
        ("1 can sweet corn", 1, "pack", "sweetcorn"),
        ("200 g ripe jackfruit", 200, "g", "jackfruit"),
        ("2 tbsp rose petal jam", 2, "tbsp_metric", "petal-jam"),
    ],
)
def test_what_home_cooks_of_this_craft_use(text, value, unit, ingredient):
    read = one(text)
    assert (read.value, read.unit, read.ingredient) == (pytest.approx(value), unit, ingredient)


@pytest.mark.parametrize(
    ("text", "asks"),
    [
        ("1 quart milk", "American"),
        ("an inch of ginger", "8 g"),
        ("a glug of oil", "tablespoon"),
        ("200 g dark unrefined sugar", "slab"),
        ("1 cup nectar", "Of which fruit"),
        ("20 g ginger", "Fresh, or ground"),
    ],
)
def test_what_could_be_read_otherwise_is_asked(text, asks):
    read = one(text)
    assert asks in " ".join([read.asks, *read.guessed])

"""Recipe data as other programs write it, a corpus of our own: at least 95 % of amounts, units, times and yields are read
right, in whatever the data is wrapped. What is wanted of each stands beside it in the file, by hand."""

import html
import json
from pathlib import Path

import pytest

from kemble.core.formats.recipe_reader import read_recipe
from kemble.core.kitchen.document import Kitchen

CORPUS = json.loads((Path(__file__).resolve().parents[2] / "fixtures" / "recipes" / "corpus.json").read_text("utf-8"))
# In grams and millilitres, by the tables that the kitchen's default measures stand for.
GRAMS = {"g": 1, "kg": 1000, "lb": 453.592, "oz": 28.3495}
MILLILITRES = {"ml": 1, "l": 1000, "tsp": 5, "tbsp": 15, "cup": 250, "fl oz": 29.5735}
COUNTED = {"piece": 1, "pinch": 1}


def bare(document):
    return json.dumps(document)


def page(document):
    """As a page carries it: after another script, in a graph, its words as entities."""
    graph = {"@context": "https://schema.org", "@graph": [{"@type": "WebPage", "name": "x"}, document]}
    text = html.escape(document["name"])
    return (
        f"<!doctype html><html><head><title>{text}</title><script>var a = '{{';</script>"
        f'<script type="application/ld+json">{json.dumps(graph)}</script></head><body><p>1 cup of nothing</p></body></html>'
    )


def listed(document):
    return json.dumps([{"@type": ["Thing"]}, {**document, "@type": ["Recipe", "NewsArticle"]}])


def is_amount(line, value, unit):
    if unit == "heading":
        return line.kind == "heading"
    if unit == "ask":
        return bool(line.asks)
    if value is None:
        return line.value is None
    measure = (line.unit or "").removesuffix("_metric")
    for table in (GRAMS, MILLILITRES, COUNTED):
        if unit in table and measure in table:
            room = 0.11 if unit == "pinch" else 0.01  # a good pinch is a little more than one
            return line.value is not None and abs(line.value * table[measure] / (value * table[unit]) - 1) <= room
    return False


def said(told, path):
    for line in told.method:
        for say in line.says:
            if say.path == path:
                return say.value["minutes"] if isinstance(say.value, dict) else say.value
    return None


@pytest.mark.parametrize("wrapped", [bare, page, listed])
def test_nineteen_in_twenty_are_right(wrapped):
    right = {"amounts": [], "times": [], "others": []}
    for case in CORPUS:
        told = read_recipe(wrapped(case["document"]), Kitchen())
        assert told.title == case["document"]["name"]
        assert len(told.listed.lines) == len(case["amounts"])
        for line, wanted in zip(told.listed.lines, case["amounts"], strict=True):
            right["amounts"].append((is_amount(line, *wanted), line.text))
        for path, value in case["says"]:
            result = said(told, path)
            good = isinstance(result, int | float) and abs(result - value) <= 0.01 * value
            right["times" if path.startswith("method") else "others"].append((good, f"{told.title}: {path} {result}"))
    assert len(right["amounts"]) >= 90
    for what, result in right.items():
        share = sum(good for good, _ in result) / len(result)
        assert share >= 0.95, (what, share, [text for good, text in result if not good])


@pytest.mark.parametrize(
    ("yields", "pieces"),
    [
        ("24 pieces", 24),
        ("about 30 pieces", 30),
        ("Makes 10", 10),
        ({"@type": "QuantitativeValue", "value": 25, "unitText": "balls"}, 25),
        (["16", "16 squares"], 16),
        ("8 servings", None),
        ("Serves 8", None),
        ("8", None),  # pieces or people: nobody knows
        ("1 cake", None),
        (None, None),
    ],
)
def test_what_it_yields(yields, pieces):
    document = {
        "@type": "Recipe",
        "name": "A cake",
        "recipeIngredient": ["200 g sweet rice flour"],
        "recipeYield": yields,
    }
    assert said(read_recipe(json.dumps(document), Kitchen()), "pieces") == pieces


def test_a_cooking_time_stands_where_the_method_tells_none():
    document = {
        "@type": "Recipe",
        "name": "A cake",
        "cookTime": "PT1H30M",
        "recipeIngredient": ["200 g sweet rice flour"],
        "recipeInstructions": "Steam until clear.",
    }
    assert said(read_recipe(json.dumps(document), Kitchen()), "method.heat") == 90


@pytest.mark.parametrize(
    ("line", "value", "asks"),
    [
        ("2 quinces", 2, True),  # no weight of one is known
        ("1 krm salt", 1, True),  # no such measure
        ("300 sweet rice flour", 300, False),  # so many are grams
        ("3 eggs", 3, False),
        ("1 cup + 2 tbsp water", 1.12, False),
        ("1 cup plus 2 tbsp water", 1.12, False),
        ("1 cup (250 ml) water", 1, False),
    ],
)
def test_a_number_without_a_measure_is_no_silent_weight(line, value, asks):
    document = {"@type": "Recipe", "name": "x", "recipeIngredient": [line]}
    (parsed_ingredient_line,) = read_recipe(json.dumps(document), Kitchen()).listed.lines
    assert parsed_ingredient_line.value == pytest.approx(value)
    assert bool(parsed_ingredient_line.asks) is asks

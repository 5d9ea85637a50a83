"""A press for each diet: what goes, what comes in for it, in every part; and what is said of it."""

import pytest
from sheets_by_hand import KITCHEN, a_sheet, line

from kemble.core.cards.ways import WAYS
from kemble.core.change.adjust import Adjustment, adjust
from kemble.core.change.diets import DIETS, STANDS_IN
from kemble.core.change.exchanges import exchange_for
from kemble.core.kitchen.larder import larder
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def without(sheet, diet):
    return adjust(sheet, Adjustment(by="diet", diet=diet), KITCHEN)


def ingredients(sheet, role="base"):
    return [each_line.ingredient for each_line in sheet.part(role).lines]


def test_a_bake_without_anything_from_animals():
    before = work(default_sheet("batter-bake"), KITCHEN)
    done = without(default_sheet("batter-bake"), "vegan")
    after = work(done.sheet, KITCHEN)
    assert {"milk", "egg"} <= set(before.allergens)
    assert not {"milk", "egg"} & set(after.allergens)
    assert {"soy-milk", "coconut-oil"} <= set(ingredients(done.sheet))
    assert "egg" not in ingredients(done.sheet)
    for key in ("mix.hydration_pct", "mix.sugar_pct"):
        assert after.facts[key].value == pytest.approx(before.facts[key].value, abs=0.5)
    says = " ".join(done.says)
    assert "Nothing for egg" in says
    assert "flatter and denser" in says
    assert "Egg goes from" in says


def test_nuts_in_a_filling_by_weight():
    sheet = a_sheet(
        "boiled-balls",
        ("base", [line("sweet-rice-flour", 200), line("water", 160)]),
        ("filling", [line("walnut", 90), line("date", 90)]),
    )
    done = without(sheet, "no-nuts")
    assert ingredients(done.sheet, "filling") == ["sunflower-seed", "date"]
    assert done.sheet.part("filling").lines[0].amount.value == pytest.approx(90)


def test_what_has_no_stand_in_is_said_and_stays():
    lines = [line("sweet-rice-flour", 200), line("water", 160), line("fermented-rice", 30)]
    done = without(a_sheet("stirred-rounds", ("base", lines)), "no-alcohol")
    assert "fermented-rice" in ingredients(done.sheet)
    assert any("Nothing here stands in for sweet rice, fermented" in message for message in done.says)


def test_a_part_is_not_emptied():
    document = default_sheet("batter-bake").model_dump(mode="json")
    document["parts"].append({"role": "glaze", "lines": [line("egg-yolk", 1, "piece")]})
    done = without(sheet_from(document), "no-egg")
    assert ingredients(done.sheet, "glaze") == ["egg-yolk"]


@pytest.mark.parametrize("diet", DIETS)
@pytest.mark.parametrize("way", WAYS)
def test_twice_is_as_once(way, diet):
    once = without(default_sheet(way), diet)
    again = without(once.sheet, diet)
    assert again.sheet == once.sheet
    assert work(once.sheet, KITCHEN).problems == []


def test_every_stand_in_is_an_exchange_of_its_own():
    shelf = Shelf(KITCHEN)
    missing = [
        (what, instead)
        for what, options in STANDS_IN.items()
        for instead in options
        if exchange_for(larder()[what], instead, shelf) is None
    ]
    assert missing == []


def test_takes_by_amount_scale_with_their_part():
    document = default_sheet("tray-rice").model_dump(mode="json")
    document["parts"].append({"role": "glaze", "takes": [{"of": "syrup", "amount": {"value": 40, "unit": "g"}}]})
    document["parts"][1]["kept"] = {"amount": {"value": 10, "unit": "g"}}
    sheet = sheet_from(document)
    base = work(sheet, KITCHEN).facts["mix.base_g"].value
    twice = adjust(sheet, Adjustment(by="base", grams=2 * base), KITCHEN).sheet
    assert twice.part("glaze").takes[0].amount.value == pytest.approx(80)
    assert twice.part("syrup").kept.amount.value == pytest.approx(20)

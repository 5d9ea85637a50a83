"""Her way and mine at the door: two sheets of one kitchen and one way, by their numbers."""

import pytest

pytestmark = pytest.mark.django_db


@pytest.fixture
def hers(owner, sheet):
    """The same cake, its flour by the cup."""
    document = {**sheet["sheet"], "title": "Hers"}
    document["parts"][0]["lines"][0]["amount"] = {"value": 2.5, "unit": "cup_us"}
    return owner.ask("POST", "/sheets", {"sheet": document}).body


def test_both_are_told_with_what_stays_open(owner, sheet, hers):
    told = owner.ask("GET", f"/beside?hers={hers['id']}&mine={sheet['id']}").body
    assert told["hers"]["title"] == "Hers"
    assert told["hers"]["open"]
    assert told["mine"]["open"] == []
    assert told["weigh"].startswith("Weigh a cup of sweet rice flour")
    turned = owner.ask("GET", f"/beside?hers={sheet['id']}&mine={hers['id']}").body
    assert turned["mine"] == told["hers"]


def test_what_was_tasted_of_both_is_told(owner, sheet, hers):
    for item, mark in ((hers, 2), (sheet, 0)):
        run = owner.ask("POST", "/runs", {"sheet": item["id"]}).body["id"]
        owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"sweetness": mark}})
    told = owner.ask("GET", f"/beside?hers={hers['id']}&mine={sheet['id']}").body
    sweet = next((item["says"] for item in told["explained"] if item["outcome"] == "sweetness"), "")
    assert "hers was much too sweet and mine just right" in sweet


def test_of_two_ways_or_of_another_kitchen_it_is_refused(owner, stranger, sheet, hers):
    balls = owner.ask("POST", "/sheets", {"way": "boiled-balls"}).body
    assert owner.ask("GET", f"/beside?hers={balls['id']}&mine={sheet['id']}").status_code == 422
    assert owner.ask("GET", f"/beside?hers=999999&mine={sheet['id']}").status_code == 404
    assert owner.ask("GET", f"/beside?hers={10**30}&mine={sheet['id']}").status_code == 422
    assert stranger.ask("GET", f"/beside?hers={hers['id']}&mine={sheet['id']}").status_code == 404

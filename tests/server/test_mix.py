"""Pasted lists, exchanges, the kitchen's own larder, shopping and shared parts over the API."""

import pytest

from kemble.core.kitchen.larder import larder

pytestmark = pytest.mark.django_db


def new(owner, way, title=None):
    opened = owner.ask("POST", "/sheets", {"way": way}).body
    if title:
        sheet = {**opened["sheet"], "title": title}
        saved = owner.ask("PUT", f"/sheets/{opened['id']}", {"revision": 1, "sheet": sheet}).body
        opened = {**opened, **saved, "sheet": sheet}
    return opened


def with_kitchen(owner, **change):
    settings = owner.ask("GET", "/kitchen").body["kitchen"]
    return owner.ask("PUT", "/kitchen", {"kitchen": {**settings, **change}})


def test_a_pasted_list_comes_back_line_by_line(owner):
    text = "1 ½ cups sweet rice flour\n200 ml water\na pinch of salt\n2 large eggs\n1 tin coconut milk\nsnark"
    lines = owner.ask("POST", "/read-recipe", {"text": text}).body["listed"]["lines"]
    assert [line["ingredient"] for line in lines] == [
        "sweet-rice-flour", "water", "salt", "egg", "coconut-milk-thick", None,
    ]  # fmt: skip
    assert lines[4]["asks"].startswith("Thick or thin")
    assert lines[5]["kind"] == "unread"
    assert owner.ask("POST", "/read-recipe", {"text": "x" * 120_001}).body["problems"][0]["path"] == "text"


def test_a_blank_sheet_has_its_flour_and_works(owner):
    for way, first in (("set-cake", "sweet-rice-flour"), ("tray-rice", "sweet-rice-long")):
        opened = owner.ask("POST", "/sheets", {"way": way, "blank": True}).body
        assert [line["ingredient"] for line in opened["sheet"]["parts"][0]["lines"]] == [first]
        assert opened["worked"]["facts"]["mix.hydration_pct"]["value"] >= 0


def test_exchanges_are_offered_and_made(owner, document):
    offered = owner.ask("GET", "/larder/light-brown-sugar/exchanges").body
    assert {"mild-honey", "dark-slab-sugar"} <= {item["to"] for item in offered}
    assert owner.ask("GET", "/larder/snark/exchanges").status_code == 404
    to = {"by": "exchange", "part": 0, "line": 2, "ingredient": "mild-honey"}
    answer = owner.ask("POST", "/adjust", {"sheet": document, "to": to}).body
    assert answer["sheet"]["parts"][0]["lines"][2]["ingredient"] == "mild-honey"
    assert any("less water" in says for says in answer["says"])


def test_a_composition_that_does_not_add_up_is_refused_with_the_sum(owner):
    own = {
        "id": "own-mill",
        "name": "Mill flour",
        "group": "flour",
        "per_100_g": {"water": 14, "starch": 60},
        "density": {"spooned": 0.55},
    }
    answer = with_kitchen(owner, ingredients=[own])
    assert answer.status_code == 422
    problem = answer.body["problems"][0]
    assert problem["path"] == "kitchen.ingredients.0.per_100_g"
    assert "74.0 g" in problem["says"]
    own["per_100_g"]["starch"] = 86
    assert with_kitchen(owner, ingredients=[own]).status_code == 200
    mine = next(item for item in owner.ask("GET", "/larder").body if item["id"] == "own-mill")
    assert mine["own"]
    assert len(owner.ask("GET", "/larder").body) == len(larder()) + 1


def test_own_figures_are_this_kitchens_alone(owner, stranger, document):
    flour = larder()["sweet-rice-flour"].model_dump(mode="json") | {"g_per_piece": None}
    flour["density"] = {"spooned": 0.4}
    assert with_kitchen(owner, ingredients=[flour]).status_code == 200
    document["parts"][0]["lines"][0]["amount"] = {"value": 2, "unit": "cup_metric"}

    def base(client):
        return client.ask("POST", "/work", {"sheet": document}).body["worked"]["facts"]["mix.base_g"]["value"]

    assert base(owner) == pytest.approx(200)
    assert base(stranger) == pytest.approx(280)


def test_shopping_for_two_sheets(owner, stranger):
    cake, balls = new(owner, "set-cake"), new(owner, "boiled-balls")
    with_kitchen(owner, stock=[{"ingredient": "sweet-rice-flour", "grams": 100}])
    wanted = [{"sheet": cake["id"], "times": 2}, {"sheet": balls["id"]}]
    answer = owner.ask("POST", "/shopping", {"wanted": wanted}).body
    flour = next(line for line in answer["lines"] if line["ingredient"] == "sweet-rice-flour")
    assert flour["need_g"] == pytest.approx(2 * 300 + 240)
    assert flour["buy_g"] == pytest.approx(740)
    assert flour["packs"] == 2
    assert answer["cost"] is None
    assert stranger.ask("POST", "/shopping", {"wanted": wanted}).status_code == 404
    assert owner.ask("POST", "/shopping", {"wanted": []}).body["lines"] == []


def test_a_part_is_shared_and_given_back(owner, stranger):
    rounds, balls = new(owner, "stirred-rounds", "Rounds"), new(owner, "crushed-balls", "Balls")
    body = {"role": "filling", "with_sheet": balls["id"]}
    shared = owner.ask("POST", f"/sheets/{rounds['id']}/share", body).body
    assert shared["revision"] == rounds["revision"] + 1
    assert shared["sheet"]["parts"][1]["made_for"][0]["sheet"] == "Balls"
    other = owner.ask("GET", f"/sheets/{balls['id']}").body
    assert other["sheet"]["parts"][1]["made_on"] == "Rounds"
    assert owner.ask("POST", f"/sheets/{rounds['id']}/share", body).status_code == 422
    back = owner.ask("POST", f"/sheets/{rounds['id']}/unshare", body).body
    assert back["sheet"]["parts"][1]["made_for"] == []
    for body in ({"role": "filling", "with_sheet": rounds["id"]}, {"role": "broth", "with_sheet": balls["id"]}):
        assert owner.ask("POST", f"/sheets/{rounds['id']}/share", body).status_code == 422
    assert stranger.ask("POST", f"/sheets/{rounds['id']}/share", body).status_code == 404


def test_parts_are_there_to_be_added(owner):
    result = owner.ask("GET", "/parts").body
    assert len(result) >= 14
    assert all(part["lines"] and part["roles"] and part["finish"] for part in result)

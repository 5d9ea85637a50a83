"""Sheets over the API: bad input, saving out of turn, working, adjusting."""

import copy
import json
import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.sheet.document import default_sheet
from kemble.server.learning import posterior
from kemble.server.models import Batch
from kemble.server.sheets import work_results

pytestmark = pytest.mark.django_db


def put(document, *path_and_value):
    *path, value = path_and_value
    changed = copy.deepcopy(document)
    place = changed
    for step in path[:-1]:
        place = place[step]
    place[path[-1]] = value
    return changed


AMOUNT = ("parts", 0, "lines", 1, "amount", "value")


@pytest.mark.parametrize("value", [0, -5, "a lot", 1e12, float("nan")])
def test_a_bad_amount_names_its_field(owner, document, value):
    answer = owner.ask("POST", "/work", {"sheet": put(document, *AMOUNT, value)})
    assert answer.status_code == 422
    problem = answer.body["problems"][0]
    assert problem["path"] == "sheet.parts.0.lines.1.amount.value"
    assert problem["accepts"] == "a number above 0 and at most 50 000"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        (("parts", 0, "lines", 0, "ingredient", "flower"), "sheet.parts.0.lines.0.ingredient"),
        (("way", "toast"), "sheet.way"),
        (("colour", "green"), "sheet.colour"),
        (("serve", "noon"), "sheet.serve"),
        (("vessel", "tin", "height_mm", 20), "vessel.tin"),
        (("cut", "pieces", 400), "cut.pieces"),
    ],
)
def test_other_bad_input(owner, document, change, path):
    answer = owner.ask("POST", "/work", {"sheet": put(document, *change)})
    assert answer.status_code == 422
    assert answer.body["problems"][0]["path"] == path
    assert answer.body["problems"][0]["accepts"]


def test_what_could_be_worked_comes_with_the_refusal(owner, document):
    answer = owner.ask("POST", "/work", {"sheet": put(document, "vessel", "tin", "height_mm", 20)})
    assert answer.body["worked"]["facts"]["mix.hydration_pct"]["value"] == pytest.approx(126.3, abs=0.1)


@pytest.mark.parametrize("body", ["", "{", "[]", "null", b"\xff\xfe", '{"sheet": 3}', "{}"])
def test_what_is_no_document(owner, body):
    answer = owner.ask("POST", "/work", body)
    assert answer.status_code in (400, 422)
    assert answer.body["problems"]


@pytest.mark.parametrize("size", [300_000, 5_000_000])
def test_a_document_too_long(owner, document, size):
    answer = owner.ask("POST", "/work", json.dumps({"sheet": put(document, "title", "x" * size)}))
    assert answer.status_code == 413
    assert "256,000 bytes" in answer.body["problems"][0]["accepts"]


junk = (
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=12) | st.lists(st.integers(), max_size=3)
)


@settings(max_examples=examples(60), deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.data())
def test_junk_anywhere_is_a_refusal_and_never_a_crash(owner, data):
    document = json.loads(default_sheet(data.draw(st.sampled_from(["set-cake", "boiled-balls"]))).model_dump_json())
    place, key = document, data.draw(st.sampled_from(sorted(document)))
    while isinstance(place[key], dict | list) and place[key] and data.draw(st.booleans()):
        place = place[key]
        key = data.draw(st.sampled_from(sorted(place) if isinstance(place, dict) else list(range(len(place)))))
    place[key] = data.draw(junk)
    answer = owner.ask("POST", "/work", {"sheet": document})
    assert answer.status_code in (200, 422)


def test_a_ripple_says_what_moved(owner, document):
    wetter = put(document, *AMOUNT, 420)
    answer = owner.ask("POST", "/work", {"sheet": wetter, "before": document})
    moved = {item["key"]: (item["old"], item["new"]) for item in answer.body["moved"]}
    assert [round(value) for value in moved["mix.hydration_pct"]] == [126, 141]
    assert "heat.done_min" in moved


def test_an_adjustment_tells_against_the_sheet_before(owner, document):
    wetter = put(document, *AMOUNT, 420)
    to = {"by": "base", "grams": 400}
    answer = owner.ask("POST", "/adjust", {"sheet": wetter, "to": to, "before": document})
    assert answer.body["sheet"]["parts"][0]["lines"][0]["amount"]["value"] == 400
    moved = {item["key"]: (item["old"], item["new"]) for item in answer.body["moved"]}
    assert [round(value) for value in moved["mix.hydration_pct"]] == [126, 141]


def test_a_sheet_is_saved_with_its_revisions(owner, sheet):
    drier = put(sheet["sheet"], *AMOUNT, 350)
    answer = owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": drier})
    assert answer.body["revision"] == 2
    again = owner.ask("GET", f"/sheets/{sheet['id']}").body
    assert again["revision"] == 2
    assert again["sheet"]["parts"][0]["lines"][1]["amount"]["value"] == 350
    assert again["worked"]["facts"] == owner.ask("POST", "/work", {"sheet": drier}).body["worked"]["facts"]


def test_saving_out_of_turn_overwrites_nothing(owner, sheet):
    first = owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": put(sheet["sheet"], *AMOUNT, 350)})
    assert first.status_code == 200
    second = owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": put(sheet["sheet"], *AMOUNT, 410)})
    assert second.status_code == 409
    assert second.body["problems"][0]["path"] == "revision"
    kept = owner.ask("GET", f"/sheets/{sheet['id']}").body["sheet"]
    assert kept["parts"][0]["lines"][1]["amount"]["value"] == 350
    copied = owner.ask("POST", "/sheets", {"sheet": put(sheet["sheet"], *AMOUNT, 410)})
    assert copied.body["id"] != sheet["id"]


def test_a_sheet_that_cannot_be_worked_is_saved_all_the_same(owner, sheet):
    small = put(sheet["sheet"], "vessel", "tin", "height_mm", 20)
    answer = owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": small})
    assert answer.status_code == 200
    opened = owner.ask("GET", f"/sheets/{sheet['id']}").body
    assert opened["worked"]["problems"][0]["path"] == "vessel.tin"
    assert owner.ask("GET", "/sheets").status_code == 200
    for path, body in (
        ("/runs", {"sheet": sheet["id"]}),
        ("/occasions", {"sheet": sheet["id"], "serve": "2099-01-01T12:00"}),
    ):
        assert owner.ask("POST", path, body).status_code == 422


class TestWhereWeFail:
    """A fault put into the core: it is logged with its sheet, told with a number, and stops nothing else."""

    @pytest.fixture
    def broken(self, monkeypatch):
        def fails(*_):
            raise ZeroDivisionError("a fault put in")

        def puts_in():
            work_results._remembered_result.cache_clear()
            posterior._heat_of.cache_clear()
            monkeypatch.setattr("kemble.core.stations.work_sheet.rest", fails)

        yield puts_in
        work_results._remembered_result.cache_clear()
        posterior._heat_of.cache_clear()

    def test_a_sheet_is_opened_saved_and_listed_and_the_cook_is_told(self, owner, sheet, broken, caplog):
        broken()
        opened = owner.ask("GET", f"/sheets/{sheet['id']}")
        assert opened.status_code == 200
        (problem,) = opened.body["worked"]["problems"]
        number = re.fullmatch(r"cannot be calculated: Kemble failed, .* \(number (\w{6})\)", problem["says"])[1]
        assert f"number {number}" in caplog.text
        assert "a fault put in" in caplog.text
        assert '"way":"set-cake"' in caplog.text
        saved = owner.ask(
            "PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": {**sheet["sheet"], "title": "Other"}}
        )
        assert saved.status_code == 200
        cards = {card["id"]: card for card in owner.ask("GET", "/sheets").body["sheets"]}
        assert "Kemble failed" in cards[sheet["id"]]["problem"]
        assert "Kemble failed" in owner.ask("POST", "/work", {"sheet": sheet["sheet"]}).body["problems"][0]["says"]
        assert owner.ask("POST", "/runs", {"sheet": sheet["id"]}).status_code == 422

    def test_a_batch_is_logged_and_teaches_nothing(self, owner, sheet, broken):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        broken()
        logged = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 1}})
        assert logged.status_code == 200
        assert Batch.objects.get(pk=logged.body["id"]).seen["sights"] == []
        assert owner.ask("GET", "/learned").status_code == 200


def test_the_kitchen_changes_the_answer(owner, sheet):
    settings_ = owner.ask("GET", "/kitchen").body["kitchen"]
    assert owner.ask("PUT", "/kitchen", {"kitchen": {**settings_, "altitude_m": 2000}}).body["set_up"]
    there = owner.ask("GET", f"/sheets/{sheet['id']}").body["worked"]["facts"]
    assert there["heat.boil_c"]["value"] == pytest.approx(93.3, abs=0.3)
    assert there["heat.done_min"]["value"] > sheet["worked"]["facts"]["heat.done_min"]["value"]


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("altitude_m", 99999),
        ("timezone", "Mars/Base"),
        ("name", ""),
        ("quiet", {"begins": "25:00"}),
        ("cooks", 0),
    ],
)
def test_a_kitchen_that_cannot_be(owner, field, value):
    settings_ = owner.ask("GET", "/kitchen").body["kitchen"]
    answer = owner.ask("PUT", "/kitchen", {"kitchen": {**settings_, field: value}})
    assert answer.status_code == 422
    assert answer.body["problems"][0]["path"].startswith(f"kitchen.{field}")


def test_ways_and_larder_are_there_to_choose_from(owner):
    assert {way["id"] for way in owner.ask("GET", "/ways").body} == set(WAYS)
    assert len(owner.ask("GET", "/larder").body) >= 120


def test_sheets_in_the_order_that_is_asked_for_with_what_they_look_like(owner):
    """The newest first, by title, or by way; a tray from the side, a ball with its filling."""
    for way, title in (("set-cake", "Zest"), ("boiled-balls", "Amber"), ("set-cake", "Maple")):
        made = owner.ask("POST", "/sheets", {"way": way}).body
        owner.ask("PUT", f"/sheets/{made['id']}", {"revision": 1, "sheet": {**made["sheet"], "title": title}})
    titles = {
        by: [item["title"] for item in owner.ask("GET", f"/sheets?by={by}").body["sheets"]][:3]
        for by in ("changed", "title", "way")
    }
    assert titles == {
        "changed": ["Maple", "Amber", "Zest"],
        "title": ["Amber", "Maple", "Zest"],
        "way": ["Amber", "Maple", "Zest"],
    }
    assert owner.ask("GET", "/sheets?by=colour").status_code == 422
    cards = {item["title"]: item for item in owner.ask("GET", "/sheets").body["sheets"]}
    ball, tray = cards["Amber"]["section"], cards["Zest"]["section"]
    facts = owner.ask("GET", f"/sheets/{cards['Amber']['id']}").body["worked"]["facts"]
    assert ball == {
        "kind": "piece",
        "wide_mm": pytest.approx(facts["shape.diameter_mm"]["value"]),
        "high_mm": pytest.approx(facts["shape.diameter_mm"]["value"]),
        "core_mm": pytest.approx(facts["shape.core_mm"]["value"]),
    }
    assert tray["kind"] == "tin"
    assert tray["wide_mm"] > tray["high_mm"] > 5


class TestWhatIsLeftOutStays:
    """Of a document that is saved over another one, a field that is not named is not emptied."""

    def test_of_the_kitchen(self, owner):
        before = owner.ask("GET", "/kitchen").body
        named = {**before["kitchen"], "name": "The annexe", "cooks": 3}
        owner.ask("PUT", "/kitchen", {"kitchen": named, "revision": before["revision"]})
        for some in ({}, {"altitude_m": 700}):
            assert owner.ask("PUT", "/kitchen", {"kitchen": some}).status_code == 200
        now = owner.ask("GET", "/kitchen").body["kitchen"]
        assert now == {**named, "altitude_m": 700}

    def test_of_an_occasion(self, owner, sheet):
        occasion = {
            "title": "Mending circle",
            "note": "by the window",
            "servings": [{"at": "2027-01-09T15:30", "people": 24}],
            "dishes": [{"sheet": sheet["id"]}],
        }
        made = owner.ask("POST", "/occasions", {"occasion": occasion}).body
        later = {"servings": [{"at": "2027-01-09T16:30", "people": 24}]}
        now = owner.ask("PUT", f"/occasions/{made['id']}", {"occasion": later}).body["occasion"]
        assert now == {**made["occasion"], "servings": [{**made["occasion"]["servings"][0], "at": "2027-01-09T16:30"}]}

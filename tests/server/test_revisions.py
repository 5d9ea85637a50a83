"""Revisions seen, named, gone back to and branched from; batches and sheets side by side."""

from datetime import UTC, datetime

import pytest
import time_machine

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as traveller:
        yield traveller


def saved(owner, sheet, revision, change):
    document = owner.ask("GET", f"/sheets/{sheet['id']}").body["sheet"]
    change(document)
    return owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": revision, "sheet": document}).body


def more_water(document):
    line = next(item for item in document["parts"][0]["lines"] if item["ingredient"] != "sweet-rice-flour")
    line["amount"]["value"] += 20


def larger_tin(document):
    document["vessel"]["tin"]["diameter_mm"] = 200


@pytest.fixture
def kept(owner, sheet):
    saved(owner, sheet, 1, more_water)
    saved(owner, sheet, 2, larger_tin)
    return sheet


class TestRevisions:
    def test_every_one_says_what_changed(self, owner, kept):
        page = owner.ask("GET", f"/sheets/{kept['id']}/revisions").body
        assert [item["number"] for item in page["revisions"]] == [3, 2, 1]
        third, second, first = page["revisions"]
        assert third["changed"] == ["tin, diameter 200, not 180"]
        assert len(second["changed"]) == 1
        assert ", not " in second["changed"][0]
        assert first["changed"] == []
        assert page["at"] == 3

    def test_a_batch_stands_with_the_one_it_was_made_from(self, owner, kept):
        run = owner.ask("POST", "/runs", {"sheet": kept["id"]}).body["id"]
        batch = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 0}}).body
        saved(owner, kept, 3, more_water)
        page = owner.ask("GET", f"/sheets/{kept['id']}/revisions").body
        made = {item["number"]: [each["batch"] for each in item["batches"]] for item in page["revisions"]}
        assert made == {4: [], 3: [batch["id"]], 2: [], 1: []}

    def test_named_and_found(self, owner, kept):
        owner.ask("PUT", f"/sheets/{kept['id']}/revisions/2", {"name": "For the mending circle"})
        result = owner.ask("GET", f"/sheets/{kept['id']}/revisions?find=mending").body["revisions"]
        assert [(item["number"], item["name"]) for item in result] == [(2, "For the mending circle")]

    def test_gone_back_to_it_is_the_newest(self, owner, kept):
        first = owner.ask("GET", f"/sheets/{kept['id']}/revisions/1").body
        assert first == kept["sheet"]
        assert owner.ask("PUT", f"/sheets/{kept['id']}", {"revision": 3, "sheet": first}).body["revision"] == 4
        assert owner.ask("GET", f"/sheets/{kept['id']}").body["sheet"] == kept["sheet"]

    def test_it_is_one_kitchen_s(self, stranger, kept):
        for path in ("revisions", "revisions/1"):
            assert stranger.ask("GET", f"/sheets/{kept['id']}/{path}").status_code == 404
        assert stranger.ask("PUT", f"/sheets/{kept['id']}/revisions/1", {"name": "mine"}).status_code == 404

    def test_one_that_is_not_there(self, owner, kept):
        assert owner.ask("GET", f"/sheets/{kept['id']}/revisions/9").status_code == 404


class TestSideBySide:
    def batch(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        return owner.ask("POST", f"/runs/{run}/outcome", {}).body["id"]

    def test_only_what_differs(self, owner, sheet):
        first = self.batch(owner, sheet)
        saved(owner, sheet, 1, larger_tin)
        second = self.batch(owner, sheet)
        result = owner.ask("GET", f"/compare?batches={first},{second}").body
        assert [item["id"] for item in result["columns"]] == [first, second]
        keys = {row["key"] for row in result["rows"]}
        assert "shape.depth_mm" in keys
        assert "mix.hydration_pct" not in keys
        assert all(len(set(row["values"])) > 1 for row in result["rows"])
        assert result["differs"] == [[], ["tin, diameter 200, not 180"]]

    def test_batches_and_sheets_together(self, owner, sheet):
        other = owner.ask("POST", "/sheets", {"way": "boiled-balls"}).body
        result = owner.ask("GET", f"/compare?batches={self.batch(owner, sheet)}&sheets={other['id']}").body
        assert [item["kind"] for item in result["columns"]] == ["batch", "sheet"]
        pieces = next(row for row in result["rows"] if row["key"] == "shape.pieces")
        assert pieces["values"][0] is None

    @pytest.mark.parametrize("query", ["", "batches=1", "batches=a,b", "batches=1,2,3,4,5", "sheets=99999999999999999"])
    def test_what_cannot_be_compared(self, owner, sheet, query):
        assert owner.ask("GET", f"/compare?{query}").status_code in (404, 422)

    def test_it_is_one_kitchen_s(self, owner, stranger, sheet):
        numbers = f"{self.batch(owner, sheet)},{self.batch(owner, sheet)}"
        assert stranger.ask("GET", f"/compare?batches={numbers}").status_code == 404

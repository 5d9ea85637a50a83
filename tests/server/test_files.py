"""Sheets out and in at the door: every format is a file, and what is read saves nothing."""

import csv
import io
import json

import pytest
from PIL import ImageFile

from kemble.server.models import SheetRecord

pytestmark = pytest.mark.django_db


def test_every_format_is_a_file_of_its_own_kind(owner, sheet):
    formats = owner.ask("GET", "/formats").body
    kinds = {}
    for each_format in formats:
        answer = owner.get(f"/api/sheets/{sheet['id']}/as/{each_format['id']}")
        assert answer.status_code == 200
        assert answer["X-Content-Type-Options"] == "nosniff"
        assert answer["Content-Disposition"].startswith('attachment; filename="steamed-set-cake.')
        kinds[each_format["id"]] = answer["Content-Type"]
    assert kinds == {
        "kemble": "application/json; charset=utf-8",
        "recipe": "application/ld+json; charset=utf-8",
        "markdown": "text/markdown; charset=utf-8",
        "text": "text/plain; charset=utf-8",
    }


def test_a_name_of_letters_that_no_header_takes(owner, sheet):
    document = {**sheet["sheet"], "title": 'Müsli "\r\nX: y" ケーキ'}
    other = owner.ask("POST", "/sheets", {"sheet": document}).body
    answer = owner.get(f"/api/sheets/{other['id']}/as/text")
    assert answer.status_code == 200
    assert "\n" not in answer["Content-Disposition"]
    assert document["title"].split()[0] in answer.content.decode()


class TestPaper:
    def test_a_card_and_templates_are_shown_as_pdf(self, owner, sheet):
        for what in ("card", "templates"):
            answer = owner.get(f"/api/sheets/{sheet['id']}/paper/{what}.pdf")
            assert (answer.status_code, answer["Content-Type"]) == (200, "application/pdf")
            assert answer["Content-Disposition"] == f'inline; filename="steamed-set-cake-{what}.pdf"'
            assert answer.content.startswith(b"%PDF-")

    def test_printing_makes_nothing_else_lenient(self, owner, sheet):
        """The library that prints lets pictures pass that are cut off, in all of the process; ours are refused still."""
        owner.get(f"/api/sheets/{sheet['id']}/paper/card.pdf")
        assert ImageFile.LOAD_TRUNCATED_IMAGES is False

    def test_every_pattern_is_a_drawing(self, owner, sheet):
        told = owner.ask("GET", f"/sheets/{sheet['id']}/templates").body
        assert [item["id"] for item in told][:2] == ["floor", "strip"]
        for item in told:
            answer = owner.get(f"/api/sheets/{sheet['id']}/templates/{item['id']}.svg")
            assert answer["Content-Type"] == "image/svg+xml"
            assert answer["Content-Disposition"].startswith("attachment")
            assert answer.content.startswith(b"<svg ")

    def test_what_there_is_none_of(self, owner, stranger, sheet):
        refused = owner.ask("GET", f"/sheets/{sheet['id']}/templates/moon.svg")
        assert (refused.status_code, refused.body["problems"][0]["path"]) == (422, "template")
        pounded = owner.ask("POST", "/sheets", {"way": "pounded"}).body
        assert owner.ask("GET", f"/sheets/{pounded['id']}/templates").body == []
        assert owner.ask("GET", f"/sheets/{pounded['id']}/paper/templates.pdf").status_code == 422
        assert owner.ask("GET", f"/sheets/{sheet['id']}/paper/poster.pdf").status_code == 422
        assert stranger.ask("GET", f"/sheets/{sheet['id']}/paper/card.pdf").status_code == 404


def test_out_and_in_again_it_is_the_same_and_nothing_is_saved(owner, sheet):
    for how in ("kemble", "recipe"):
        text = owner.get(f"/api/sheets/{sheet['id']}/as/{how}").content.decode()
        told = owner.ask("POST", "/read-recipe", {"text": text}).body
        assert told["sheet"] == sheet["sheet"]
    assert SheetRecord.objects.count() == 1
    again = owner.ask("POST", "/sheets", {"sheet": told["sheet"]}).body
    assert again["worked"]["facts"]["heat.done_min"]["value"] == sheet["worked"]["facts"]["heat.done_min"]["value"]


def rows_of(owner, name):
    answer = owner.get(f"/api/tables/{name}.csv")
    assert answer["Content-Type"] == "text/csv; charset=utf-8"
    return list(csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig"))))


def test_the_log_as_tables(owner, stranger, sheet):
    """A batch, its steam told and happened, and two weighings; words that a spreadsheet would run are words."""
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body
    for i, item in enumerate(run["plan"]["scheduled"]):
        for kind in ("started", "done"):
            body = {"uid": f"{kind}-{i:04}", "kind": kind, "step": item["step"]["id"]}
            owner.ask("POST", f"/runs/{run['id']}/events", body)
    outcome = {"tastes": {"softness": 1}, "note": '=HYPERLINK("http://x")', "pieces": 20}
    owner.ask("POST", f"/runs/{run['id']}/outcome", outcome)
    (batch,) = rows_of(owner, "batches")
    assert (batch["title"], batch["verdict"], batch["pieces"]) == ("Steamed set cake", "too soft", "20")
    assert batch["softness -2 to 2"] == "1"
    assert batch["chew -2 to 2"] == ""
    assert batch["note"] == '\'=HYPERLINK("http://x")'
    steam = next(row for row in rows_of(owner, "measured") if row["step"] == "steam")
    window = next(item["step"]["window"] for item in run["plan"]["scheduled"] if item["step"]["id"] == "steam")
    assert float(steam["least"]) == pytest.approx(window["first_check"], rel=1e-4)
    assert steam["unit"] == "min"
    assert rows_of(owner, "weighings") == []
    assert rows_of(stranger, "batches") == []
    assert owner.get("/api/tables/secrets.csv").status_code == 422


def test_what_is_not_there_or_not_theirs(owner, stranger, sheet):
    assert owner.get(f"/api/sheets/{sheet['id']}/as/pdf").status_code == 422
    assert stranger.get(f"/api/sheets/{sheet['id']}/as/text").status_code == 404
    odd = json.dumps({"format": "kemble-sheet", "version": 2, "way": "pudding", "parts": []})
    assert owner.ask("POST", "/read-recipe", {"text": odd}).body["asks"]

"""Text that comes in: what nobody can read is refused by its name, the rest is cleaned; and so is what was stored before."""

import json

import pytest
from asking import Asking, table
from test_every_route import ROUTES, address

from kemble.server.models import OccasionRecord, Run, RunEvent, SheetRecord

pytestmark = pytest.mark.django_db
BODIES = [
    (method, path)
    for method, path, told in ROUTES
    if "application/json" in told.get("requestBody", {}).get("content", {})
]
HALF = "\ud800"


@pytest.mark.parametrize(("method", "path"), BODIES, ids=[f"{method} {path}" for method, path in BODIES])
@pytest.mark.parametrize("bad", [HALF, "\x00", "\x1b[2J"], ids=["half an emoji", "NUL", "escape"])
def test_every_body_refuses_what_is_no_character_by_its_field(owner, method, path, bad):
    for body, where in (
        ({"title": f"tea {bad}"}, "title"),
        ({"sheet": {"parts": [{"name": bad}]}}, "sheet.parts.0.name"),
    ):
        answer = owner.ask(method, address(path), json.dumps(body))
        assert answer.status_code == 422, answer.content
        assert answer.body["problems"][0]["path"] == where


def test_signing_in_is_no_exception(db):
    answer = Asking().ask("POST", "/session", json.dumps({"username": HALF, "password": "x"}))
    assert (answer.status_code, answer.body["problems"][0]["path"]) == (422, "username")


def test_nor_is_a_query_or_a_form(owner, sheet):
    assert owner.ask("GET", "/sheets?find=%00").body["problems"][0]["path"] == "find"
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    form = {"uid": "12345678", "step": "mix\x00"}
    answer = owner.post(f"/api/runs/{run}/pictures", form, HTTP_HOST="127.0.0.1:8000")
    assert answer.json()["problems"][0]["path"] == "step"


@pytest.mark.parametrize("body", ["[" * 5000 + "]" * 5000, '{"a":' * 5000 + "1" + "}" * 5000], ids=["lists", "objects"])
def test_what_is_nested_without_end_is_refused(owner, body):
    assert owner.ask("POST", "/sheets", body).status_code in (400, 422)


def test_lines_are_kept_in_notes_and_nowhere_else(owner, sheet):
    document = {**sheet["sheet"], "title": "Walnut\r\nand\tdate"}
    owner.ask("PUT", f"/sheets/{sheet['id']}", {"sheet": document, "revision": 1})
    assert owner.ask("GET", f"/sheets/{sheet['id']}").body["sheet"]["title"] == "Walnut and date"
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    event = {"uid": "12345678", "kind": "noted", "text": "thin\r\nthen\tthick"}
    assert owner.ask("POST", f"/runs/{run}/events", event).body["text"] == "thin\nthen thick"


def test_a_table_may_have_tabs_between_its_columns(owner, sheet):
    text = "made\ttitle\tnote\r\n2026-11-20 15:30\tsteamed set cake\tsoft\r\n"
    answer = owner.ask("POST", "/tables", {"text": text, "keep": True})
    assert answer.body["added"] == 1, answer.body


class TestStoredBefore:
    """Rows as a version stored them that did not look at text yet."""

    def test_an_occasion_with_a_line_feed_in_its_title_gives_its_calendar(self, owner, sheet):
        made = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve="2026-12-20T15:30")}).body["id"]
        row = OccasionRecord.objects.get(pk=made)
        OccasionRecord.objects.filter(pk=made).update(
            title="Mending\ncircle\x00", document={**row.document, "title": "Mending\ncircle\x00"}
        )
        answer = owner.get(f"/api/occasions/{made}/day.ics", HTTP_HOST="127.0.0.1:8000")
        assert answer.status_code == 200
        assert b"Mending circle\r\n" in answer.content
        assert owner.ask("GET", f"/occasions/{made}").body["occasion"]["title"] == "Mending circle"

    def test_a_sheet_and_an_event_are_read_clean(self, owner, sheet):
        row = SheetRecord.objects.get(pk=sheet["id"])
        SheetRecord.objects.filter(pk=row.pk).update(document={**row.document, "title": f"Cake\r\n{HALF}of tea"})
        assert owner.ask("GET", f"/sheets/{row.pk}").body["sheet"]["title"] == "Cake of tea"
        run = owner.ask("POST", "/runs", {"sheet": row.pk}).body["id"]
        kept = json.loads(Run.objects.get(pk=run).frozen)
        kept["sheet"]["title"] = f"Cake\r\n{HALF}of tea"
        Run.objects.update(frozen=kept)
        assert Run.objects.get(pk=run).kept.sheet.title == "Cake of tea"
        owner.ask("POST", f"/runs/{run}/events", {"uid": "12345678", "kind": "noted", "text": "thin"})
        RunEvent.objects.update(document={"kind": "noted", "text": f"thin\r\n{HALF}"})
        (event,) = owner.ask("GET", f"/runs/{run}").body["events"]
        assert event["text"] == "thin\n"

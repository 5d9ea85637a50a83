"""Markup, script and marks that turn the writing round, in every name that somebody may give: shown as they are written, on
every screen, on paper, in calendars and tables; never done."""

import io
import json
import re
import sqlite3
import zipfile
from contextlib import closing

import pytest
from playwright.sync_api import expect
from serving import until
from visiting import Visitor

pytestmark = pytest.mark.browser

MARKUP = '<img src=x onerror="hit()">'
TURNED = "\u202e"
# Fields that somebody writes, in the documents of each table: names, titles, notes.
WRITTEN = {"title", "name", "note", "text", "what", "a", "b", "made_on", "label"}
DOCUMENTS = {
    "kitchen_kitchen": "document", "kitchen_sheetrecord": "document", "kitchen_sheetrevision": "document",
    "kitchen_occasion": "document", "kitchen_runevent": "document", "kitchen_bench": "setup", "kitchen_splitbatch": "document",
    "kitchen_run": "frozen",
}  # fmt: skip
COLUMNS = {
    "kitchen_sheetrecord": ("title",), "kitchen_occasion": ("title",), "kitchen_run": ("title",),
    "kitchen_batch": ("title", "note"), "kitchen_splitbatch": ("title",), "kitchen_tasting": ("who", "note"),
    "kitchen_stock": ("title",), "kitchen_sheetrevision": ("name",), "kitchen_removed": ("title",), "kitchen_browser": ("name",),
}  # fmt: skip


def hostile(text):
    return f"{MARKUP}{TURNED}{text}"[:40]


def spoiled(document, table):
    """The document with every written field of it hostile; of a run what was worked out stays as it is."""
    if isinstance(document, dict):
        kept = (
            ("facts", "cautions", "plan", "core", "learned", "together")
            if table in ("kitchen_run", "kitchen_kitchen")
            else ()
        )
        return {
            key: value
            if key in kept
            else hostile(value)
            if key in WRITTEN and isinstance(value, str) and value
            else spoiled(value, table)
            for key, value in document.items()
        }
    if isinstance(document, list):
        return [spoiled(item, table) for item in document]
    return document


@pytest.fixture
def spoiled_kitchen(kitchen):
    """The demo kitchen with hostile names everywhere, laid into its database from outside."""
    hand = kitchen.hand()
    halves = {"a": "less water", "b": "more water", "kind": "paired", "tasters": 2, "seed": 3}
    hand.ask("POST", "/splits", {"title": "Two waters", "split": halves})
    batch = hand.ask("GET", "/log")["batches"][0]["id"]
    hand.ask("POST", f"/log/{batch}/tastings", {"who": "Wren", "liking": 7, "note": "good"})
    run = hand.ask("GET", "/runs")[0]["id"]
    for kind, text in (("noted", "Lid in a cloth."), ("fault", "specks")):
        hand.ask("POST", f"/runs/{run}/events", {"uid": f"hostile-{kind}", "kind": kind, "text": text})
    hand.ask("PUT", "/sheets/1/revisions/1", {"name": "the first"})
    sheet = hand.ask("GET", "/sheets/2")
    hand.ask("DELETE", f"/sheets/{hand.ask('POST', '/sheets', {'sheet': sheet['sheet']})['id']}")
    kitchen.stop()
    with closing(sqlite3.connect(kitchen.data / "kemble.sqlite3")) as database, database:
        for table, column in DOCUMENTS.items():
            for key, text in database.execute(f"SELECT id, {column} FROM {table}").fetchall():
                document = json.dumps(spoiled(json.loads(text), table))
                database.execute(f"UPDATE {table} SET {column} = ? WHERE id = ?", (document, key))
        for table, columns in COLUMNS.items():
            for column in columns:
                rows = database.execute(f"SELECT id, {column} FROM {table} WHERE {column} <> ''").fetchall()
                database.executemany(
                    f"UPDATE {table} SET {column} = ? WHERE id = ?", [(hostile(text), key) for key, text in rows]
                )
    kitchen.start("--demo", "--keep")
    return kitchen


PLACES = (
    "/", "/sheets/1/mix", "/sheets/2/shape", "/sheets/1/heat", "/sheets/1/cut", "/sheets/5/method", "/sheets/1/plan", "/sheets/1/revisions",
    "/sheets/1/strips", "/sheets/1/hands", "/sheets/1/beside", "/compare", "/occasions/1", "/occasions/1/for/Wren", "/year",
    "/log", "/log/learned", "/log/over-time", "/log/blind", "/log/blind/1", "/log/3", "/log/3/taste", "/larder", "/shopping",
    "/kitchen", "/household", "/dropped",
)  # fmt: skip
SHOWN_AT = {"/", "/sheets/1/mix", "/occasions/1", "/log", "/log/blind", "/kitchen", "/dropped"}  # and at Make
FILES = (
    "/sheets/1/as/markdown", "/sheets/1/as/text", "/sheets/1/as/recipe", "/sheets/1/as/kemble", "/occasions/1/day.ics",
    "/occasions/1/day.txt", "/tables/batches.csv", "/tables/measured.csv", "/tables/weighings.csv",
)  # fmt: skip


def test_on_every_screen_they_are_shown_and_not_done(watched, spoiled_kitchen):
    page, visitor = watched, Visitor(watched)
    run = spoiled_kitchen.hand().ask("GET", "/runs")[0]["id"]
    page.goto(spoiled_kitchen.url)
    for place in (*PLACES, f"/make/{run}", f"/make/{run}/outcome"):
        visitor.go(place)
        expect(page.get_by_role("heading").first).to_be_visible()
        if place in SHOWN_AT or place == f"/make/{run}":
            expect(page.locator("body")).to_contain_text(MARKUP, use_inner_text=True)
        assert page.locator('img[src="x"]').count() == 0, place
        text = page.evaluate("document.documentElement.outerHTML")
        assert not re.search("[\u202a-\u202e\u2066-\u2069]", text), place


def test_in_files_they_are_words(spoiled_kitchen):
    hand = spoiled_kitchen.hand()
    for path in FILES:
        status, content = hand.had(f"/api{path}")
        assert status == 200, path
        text = content.decode()
        assert TURNED not in text, path
        if path.endswith(".ics"):
            lines = text.replace("\r\n ", "").split("\r\n")
            assert all(re.match("[A-Z-]+[;:]", line) for line in lines if line), path
        if path.endswith(".csv"):
            assert not re.search('(^|,)"?[=+@-][^0-9]', text, re.MULTILINE), path
    status, content = hand.had("/api/archive")
    with zipfile.ZipFile(io.BytesIO(content)) as packed:
        assert MARKUP.encode() in packed.read("kitchen.json").replace(b'\\"', b'"')


def test_on_paper_they_are_words(spoiled_kitchen):
    """Each paper is made, and none of what they say was fetched or laid out as markup: that would leave a picture's frame."""
    hand = spoiled_kitchen.hand()
    for path in ("/sheets/1/paper/card.pdf", "/sheets/1/paper/templates.pdf"):
        status, content = hand.had(f"/api{path}")
        assert (status, content[:5]) == (200, b"%PDF-"), path
        assert b"/Subtype /Image" not in content, path


def test_a_fault_of_that_name_breaks_no_making(watched, spoiled_kitchen):
    page = watched
    run = spoiled_kitchen.hand().ask("GET", "/runs")[0]["id"]
    page.goto(f"{spoiled_kitchen.url}/make/{run}")
    page.get_by_role("button", name="Done").click()
    until(lambda: spoiled_kitchen.hand().ask("GET", f"/runs/{run}")["events"][-1]["kind"] in ("done", "replanned"))

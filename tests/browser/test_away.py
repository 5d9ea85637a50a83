"""Hours without the network, several devices, and a new version meanwhile: everything that was done comes in, in its order."""

import json
import re
import shutil
import sqlite3
import time
from contextlib import closing
from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import expect
from serving import ROOT, new_uid, redate, until
from test_without_network import kept_ready, now
from thorough import times

pytestmark = pytest.mark.browser

EVENTS = times(500, 120)
AWAY = timedelta(hours=6)


@pytest.fixture
def browser_context_args(browser_context_args):
    return {**browser_context_args, "service_workers": "allow"}


def open_run(page, kitchen):
    """The making that is on, opened; its number."""
    page.goto(kitchen.url)
    kept_ready(page)
    page.get_by_role("link", name=re.compile("Barley-malt and pumpkin seed cake.*table at")).click()
    expect(now(page)).to_be_visible()
    return int(page.url.rpartition("/")[2])


def note(page, text):
    page.get_by_role("button", name="Note", exact=True).click()
    page.get_by_label(re.compile("A note on")).fill(text)
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text(text).last).to_be_visible()


def told(run, at, text):
    """A note as the page keeps it until it is sent."""
    event = {"kind": "noted", "step": None, "grams": None, "celsius": None, "text": text, "of": None, "times": None}
    event |= {"added": None, "sure": False, "uid": new_uid(), "at": at.isoformat(), "device_at": at.isoformat()}
    event |= {"clock_error_s": 0}
    return {"one": {"uid": event["uid"], "lane": str(run), "run": run, "event": event}, "refused": None}


def keep(page, entries):
    page.evaluate("(entries) => localStorage.setItem('kemble-tellings', entries)", json.dumps(entries))


def notes_of(kitchen, run):
    return [event["text"] for event in kitchen.hand().ask("GET", f"/runs/{run}")["events"] if event["kind"] == "noted"]


def test_many_events_after_six_hours_come_in_in_their_order(watched, kitchen):
    page = watched
    run = open_run(page, kitchen)
    kitchen.stop()
    with closing(sqlite3.connect(kitchen.data / "kemble.sqlite3")) as database, database:
        redate(database, -AWAY)  # it was begun before the network went
    began = datetime.now(UTC) - AWAY
    keep(page, [told(run, began + i * AWAY / EVENTS, f"note {i}") for i in range(EVENTS)])
    opened = time.monotonic()
    page.reload()
    expect(now(page)).to_be_visible()
    expect(page.get_by_text(f"{EVENTS} kept here, to be sent")).to_be_visible()
    shown = time.monotonic() - opened
    kitchen.start("--demo", "--keep")
    began = time.monotonic()
    expect(page.get_by_text("kept here, to be sent")).to_have_count(0, timeout=180_000)
    until(lambda: page.evaluate("localStorage.getItem('kemble-tellings')") is None, within_s=180)
    print(f"shown in {shown:.1f} s, sent in {time.monotonic() - began:.1f} s")
    assert notes_of(kitchen, run) == [f"note {i}" for i in range(EVENTS)]
    note(page, "and on it goes")
    until(lambda: notes_of(kitchen, run)[-1] == "and on it goes")


def test_two_devices_away_on_one_run_end_at_the_same(watched, kitchen, browser):
    first = watched
    other = browser.new_context(service_workers="allow")
    other.add_cookies([kitchen.cookie])
    second = other.new_page()
    run = open_run(first, kitchen)
    assert open_run(second, kitchen) == run
    kitchen.kill()
    note(first, "the first: a blue cloth")
    note(second, "the second: a red lid")
    for page in (first, second):  # both see it done, and say so
        page.get_by_role("button", name="Done").click()
        expect(now(page)).to_have_attribute("data-now", "cool running")
    note(second, "the second: on the rack")
    kitchen.start("--demo", "--keep")
    for page in (first, second):
        expect(page.get_by_text("kept here, to be sent")).to_have_count(0, timeout=60_000)
        expect(page.get_by_text("Not taken")).to_have_count(0)
        expect(now(page)).to_have_attribute("data-now", "cool running")
    said = ["the first: a blue cloth", "the second: a red lid", "the second: on the rack"]
    until(lambda: notes_of(kitchen, run) == said)
    for page in (first, second):  # each has heard of the other's, and stands where the server does
        for text in ("the first: a blue cloth", "the second: on the rack"):
            expect(page.get_by_text(text).last).to_be_visible()
    steam = next(item for item in kitchen.hand().ask("GET", f"/runs/{run}")["state"]["steps"] if item["id"] == "steam")
    assert steam["status"] == "done"
    other.close()


@pytest.fixture
def next_version(tmp_path):
    """The front end as a later version would be built: every file of it under another name."""
    build = tmp_path / "next"
    shutil.copytree(ROOT / "web" / "dist", build, ignore=shutil.ignore_patterns("*.gz", "*.br"))
    renamed = {}
    for path in (build / "assets").iterdir():
        match = re.fullmatch(r"(.+-)([\w-]{8})(\.\w+)", path.name)
        if match:
            renamed[f"{match[1]}{match[2]}{match[3]}"] = f"{match[1]}{match[2][::-1].replace('-', '_')}{match[3]}"
    assert len(renamed) > 20
    names = re.compile("|".join(sorted(map(re.escape, renamed), key=len, reverse=True)))
    for path in [*build.glob("*.html"), *build.glob("*.js"), *build.glob("assets/*.js"), *build.glob("assets/*.css")]:
        path.write_text(names.sub(lambda name: renamed[name[0]], path.read_text()))
    for old, new in renamed.items():
        (build / "assets" / old).rename(build / "assets" / new)
    return build


def updated(kitchen, build):
    """The same kitchen served by the next version."""
    kitchen.environment |= {
        "DJANGO_SETTINGS_MODULE": "other_build",
        "PYTHONPATH": str(ROOT / "tests" / "helpers"),
        "KEMBLE_TEST_BUILD": str(build),
    }
    kitchen.start("--demo", "--keep")


def scripts(page):
    return page.evaluate("[...document.scripts].map((one) => one.src).join(' ')")


class TestAnUpdate:
    def test_an_old_page_goes_on_with_a_new_server(self, watched, kitchen, next_version):
        """Another tab brings in the new version, and with it the new worker: the old page goes on, and nothing is lost. (Where a
        part that it had not loaded is no more, it loads itself anew: newVersion.test.ts.)"""
        page = watched
        run = open_run(page, kitchen)
        old = scripts(page)
        kitchen.kill()
        note(page, "while it was away")
        updated(kitchen, next_version)
        until(lambda: notes_of(kitchen, run) == ["while it was away"])
        assert scripts(page) == old
        second = page.context.new_page()
        second.goto(kitchen.url)
        kept_ready(second)
        until(lambda: second.evaluate("caches.keys().then((names) => names.length)"))
        assert scripts(second) != old
        note(page, "by the old page")
        page.get_by_role("link", name=re.compile("Counter|Kemble")).first.click()
        page.get_by_role("link", name="Larder").first.click()
        expect(page.get_by_role("heading", name="Larder").first).to_be_visible()
        assert notes_of(kitchen, run) == ["while it was away", "by the old page"]

    def test_a_new_page_sends_what_an_old_one_kept(self, watched, kitchen, next_version):
        """In every form in which it was kept so far."""
        page = watched
        run = open_run(page, kitchen)
        kitchen.kill()
        at = datetime.now(UTC)
        entries = [told(run, at + timedelta(milliseconds=i), f"note {i}") for i in range(3)]
        newest = [entries[2]]
        del newest[0]["one"]["event"]["device_at"], newest[0]["one"]["event"]["clock_error_s"]
        before = [entries[0]["one"]["event"], {"one": entries[1]["one"]["event"], "refused": None}]
        page.evaluate("([key, kept]) => localStorage.setItem(key, kept)", [f"kemble-events-{run}", json.dumps(before)])
        keep(page, newest)
        updated(kitchen, next_version)
        page.reload()
        until(lambda: sorted(notes_of(kitchen, run)) == ["note 0", "note 1", "note 2"])

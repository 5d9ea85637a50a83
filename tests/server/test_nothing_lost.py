"""Writes sent twice, things thrown away and brought back, long lists, faults under a number, a database of the past."""

import copy
import json
import os
import sqlite3
import threading
from contextlib import closing
from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from asking import table
from django.db import OperationalError, connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from frozen import laid_out

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Tin
from kemble.core.sheet.document import default_sheet
from kemble.server.models import Batch, Bench, IdempotencyRecord, KitchenRecord, Run, SheetRecord, SheetRevision
from kemble.server.sheets import work_results
from kemble.server.storage import folder, trash
from kemble.server.storage.fair_lock import FairLock

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


def watered(opened, grams):
    sheet = copy.deepcopy(opened["sheet"])
    sheet["parts"][0]["lines"][1]["amount"]["value"] = grams
    return sheet


class TestSentTwice:
    """With an id, the second is answered as the first, whatever has happened in between."""

    def test_a_save(self, owner, sheet):
        first = {"revision": 1, "sheet": watered(sheet, 350), "uid": "save-number-one"}
        path = f"/sheets/{sheet['id']}"
        told = owner.ask("PUT", path, first).body
        assert told["revision"] == 2
        assert set(told) == {"revision"}  # what its sender does not know already
        assert owner.ask("PUT", path, {"revision": 2, "sheet": watered(sheet, 360)}).body["revision"] == 3
        again = owner.ask("PUT", path, first)
        assert again.status_code == 200
        assert again.body == told
        assert SheetRevision.objects.filter(record=sheet["id"]).count() == 3
        assert owner.ask("GET", path).body["revision"] == 3

    @pytest.mark.parametrize(
        ("path", "body", "rows"),
        [
            ("/sheets", {"way": "set-cake"}, SheetRecord),
            ("/runs", {"rehearse": True}, Run),
            ("/benches", {"setup": {"what": "dough", "total_g": 60, "pieces": 3}}, Bench),
        ],
    )
    def test_something_made(self, owner, sheet, path, body, rows):
        about = {} if path == "/sheets" else {"sheet": sheet["id"]}
        before = rows.objects.count()
        made = [owner.ask("POST", path, {**body, **about, "uid": "made-only-once"}).body["id"] for _ in range(3)]
        assert len(set(made)) == 1
        assert rows.objects.count() == before + 1
        other = owner.ask("POST", path, {**body, **about, "uid": "made-another-time"}).body["id"]
        assert other != made[0]

    def test_a_plan_pressed_twice_is_one(self, owner, sheet):
        serve = f"{timezone.now() + timedelta(days=2):%Y-%m-%dT15:30}"
        body = {"occasion": table(sheet, serve=serve, title="Tea", people=24)}
        made = {owner.ask("POST", "/occasions", {**body, "uid": f"press-number-{i}"}).body["id"] for i in range(2)}
        assert len(made) == 1
        assert (
            owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve, people=25)}).body["id"] not in made
        )

    def test_an_outcome(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        told = {"tastes": {"softness": 1}, "note": "Softer than I like.", "uid": "how-it-came-out"}
        batch = owner.ask("POST", f"/runs/{run}/outcome", told).body
        assert owner.ask("POST", f"/runs/{run}/outcome", told).body["id"] == batch["id"]
        empty = owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {}, "uid": "an-empty-form"})
        assert empty.status_code == 409
        assert owner.ask("GET", f"/log/{batch['id']}").body["note"] == "Softer than I like."

    def test_the_kitchen(self, owner):
        opened = owner.ask("GET", "/kitchen").body
        body = {"kitchen": {**opened["kitchen"], "name": "Annexe"}, "revision": 1, "uid": "the-kitchen-once"}
        assert [owner.ask("PUT", "/kitchen", body).body["revision"] for _ in range(2)] == [2, 2]
        late = owner.ask("PUT", "/kitchen", {**body, "uid": "the-kitchen-late"})
        assert late.status_code == 409

    def test_finished_and_what_was_on_its_way(self, owner, sheet):
        with time_machine.travel(NOW, tick=False) as clock:
            run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
            events = f"/runs/{run}/events"
            clock.shift(timedelta(minutes=10))
            finish = {"uid": "the-finish", "kind": "finished"}
            assert owner.ask("POST", events, finish).status_code == 200
            clock.shift(timedelta(minutes=10))
            again = owner.ask("POST", events, finish)
            assert (again.status_code, owner.ask("GET", f"/runs/{run}").body["state"]["status"]) == (200, "finished")
            before = {"uid": "noted-before", "kind": "noted", "text": "thick", "at": "2026-11-25T09:05:00Z"}
            assert owner.ask("POST", events, before).body["text"] == "thick"
            assert owner.ask("GET", f"/runs/{run}").body["state"]["notes"][0]["text"] == "thick"
            after = {"uid": "noted-after", "kind": "noted", "text": "late", "at": "2026-11-25T09:15:00Z"}
            refused = owner.ask("POST", events, after)
            assert refused.status_code == 422
            assert refused.body["problems"][0]["says"] == "is finished"

    def test_an_id_is_of_one_write(self, owner, sheet):
        owner.ask("POST", "/sheets", {"way": "set-cake", "uid": "used-for-a-sheet"})
        refused = owner.ask("POST", "/runs", {"sheet": sheet["id"], "uid": "used-for-a-sheet"})
        assert refused.status_code == 422
        assert refused.body["problems"][0]["path"] == "uid"
        assert Run.objects.count() == 0

    def test_receipts_are_forgotten_in_time(self, owner):
        owner.ask("POST", "/sheets", {"way": "set-cake", "uid": "made-only-once"})
        trash.purge(timezone.now() + timedelta(days=59))
        assert IdempotencyRecord.objects.count() == 1
        trash.purge(timezone.now() + timedelta(days=61))
        assert IdempotencyRecord.objects.count() == 0

    def test_an_id_that_was_used_for_something_else(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "uid": "used-once"}).body
        body = {"uid": "used-once", "tastes": {}, "faults": [], "note": ""}
        refused = owner.ask("POST", f"/runs/{run['id']}/outcome", body)
        assert (refused.status_code, refused.body["problems"][0]["path"]) == (422, "uid")

    def test_what_it_made_is_gone_for_good(self, owner, sheet):
        """The answer is kept for longer than what was thrown away: it says that nothing is there."""
        made = owner.ask("POST", "/sheets", {"way": "set-cake", "uid": "made-once"}).body
        SheetRecord.everything.filter(pk=made["id"]).delete()
        assert owner.ask("POST", "/sheets", {"way": "set-cake", "uid": "made-once"}).status_code == 404

    def test_a_form_without_its_boundary(self, owner):
        answer = owner.post("/api/scale/zero", b"x", content_type="multipart/form-data", HTTP_HOST="127.0.0.1:8000")
        assert (answer.status_code, answer.json()["problems"][0]["path"]) == (400, "Content-Type")


class TestBroughtBack:
    def drop(self, owner, path, kind):
        assert owner.ask("DELETE", path).status_code == 204
        assert owner.ask("DELETE", path).status_code == 204  # twice is once
        (result,) = [item for item in owner.ask("GET", "/dropped").body if item["kind"] == kind]
        return result

    def back(self, owner, result):
        for _ in range(2):
            assert owner.ask("POST", f"/dropped/{result['kind']}/{result['id']}").status_code == 204
        assert owner.ask("GET", "/dropped").body == []

    def test_a_sheet_with_its_plans(self, owner, sheet):
        serve = f"{timezone.now() + timedelta(days=2):%Y-%m-%dT15:30}"
        owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve)})
        result = self.drop(owner, f"/sheets/{sheet['id']}", "sheet")
        assert result["title"] == sheet["sheet"]["title"]
        assert owner.ask("GET", "/sheets").body["total"] == 0
        assert owner.ask("GET", "/occasions").body == []
        gone = owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": sheet["sheet"]})
        assert gone.status_code == 410
        assert "was thrown away on" in gone.body["problems"][0]["says"]
        self.back(owner, result)
        assert owner.ask("GET", f"/sheets/{sheet['id']}").body == sheet
        assert len(owner.ask("GET", "/occasions").body) == 1

    def test_a_plan(self, owner, sheet):
        serve = f"{timezone.now() + timedelta(days=2):%Y-%m-%dT15:30}"
        kept = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve=serve, title="Tea")}).body["id"]
        self.back(owner, self.drop(owner, f"/occasions/{kept}", "plan"))
        assert [item["id"] for item in owner.ask("GET", "/occasions").body] == [kept]

    def test_a_run(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        result = self.drop(owner, f"/runs/{run}", "run")
        late = owner.ask("POST", f"/runs/{run}/events", {"uid": "noted-late", "kind": "noted", "text": "x"})
        assert late.status_code == 410
        self.back(owner, result)
        assert [item["id"] for item in owner.ask("GET", "/runs").body] == [run]

    def test_a_batch(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        batch = owner.ask("POST", f"/runs/{run}/outcome", {"note": "Good."}).body["id"]
        result = self.drop(owner, f"/log/{batch}", "batch")
        assert owner.ask("GET", "/log").body["total"] == 0
        assert owner.ask("GET", f"/runs/{run}").body["batch"] is None
        self.back(owner, result)
        assert owner.ask("GET", f"/log/{batch}").body["note"] == "Good."

    def test_a_tin_and_an_ingredient(self, owner):
        opened = owner.ask("GET", "/kitchen").body["kitchen"]
        tin = {**opened["tins"][0], "name": "The dented one", "diameter_mm": 155}
        own = {
            "id": "own-hall-flour", "name": "Hall flour", "group": "flour",
            "per_100_g": {"water": 12, "starch": 80, "sugar": 0, "fat": 1, "protein": 6, "fibre": 1, "salt": 0, "other": 0},
            "density": {"spooned": 0.6}, "source": "cook",
        }  # fmt: skip
        with_both = {**opened, "tins": [*opened["tins"], tin], "ingredients": [own]}
        kept = owner.ask("PUT", "/kitchen", {"kitchen": with_both})
        assert kept.status_code == 200, kept.body
        changed = copy.deepcopy(with_both)
        changed["tins"][-1]["diameter_mm"] = 160
        owner.ask("PUT", "/kitchen", {"kitchen": changed})
        assert owner.ask("GET", "/dropped").body == []  # a tin that was changed is not one thrown away
        owner.ask("PUT", "/kitchen", {"kitchen": opened})
        lying = {item["kind"]: item for item in owner.ask("GET", "/dropped").body}
        assert {kind: item["title"] for kind, item in lying.items()} == {
            "tin": "The dented one",
            "ingredient": "Hall flour",
        }
        for item in lying.values():
            assert owner.ask("POST", f"/dropped/{item['kind']}/{item['id']}").status_code == 204
        again = owner.ask("GET", "/kitchen").body["kitchen"]
        assert again["tins"][-1]["diameter_mm"] == 160
        assert [item["id"] for item in again["ingredients"]] == ["own-hall-flour"]

    def test_a_tin_for_which_there_is_no_room(self, owner):
        opened = owner.ask("GET", "/kitchen").body["kitchen"]
        tin = Tin().model_dump(mode="json")
        owner.ask("PUT", "/kitchen", {"kitchen": {**opened, "tins": [tin, {**tin, "diameter_mm": 150}]}})
        owner.ask("PUT", "/kitchen", {"kitchen": {**opened, "tins": [tin]}})
        owner.ask("PUT", "/kitchen", {"kitchen": {**opened, "tins": [tin] * 40}})
        (result,) = owner.ask("GET", "/dropped").body
        refused = owner.ask("POST", f"/dropped/tin/{result['id']}")
        assert refused.status_code == 422
        assert refused.body["problems"][0]["path"] == "tins"
        assert len(owner.ask("GET", "/dropped").body) == 1

    def test_for_thirty_days(self, owner, sheet):
        bench = owner.ask(
            "POST", "/benches", {"sheet": sheet["id"], "setup": {"what": "dough", "total_g": 60, "pieces": 3}}
        ).body["id"]
        result = self.drop(owner, f"/sheets/{sheet['id']}", "sheet")
        dropped = datetime.fromisoformat(result["dropped"])
        assert datetime.fromisoformat(result["until"]) - dropped == timedelta(days=30)
        trash.purge(dropped + timedelta(days=29))
        assert SheetRecord.everything.count() == 1
        trash.purge(dropped + timedelta(days=31))
        assert SheetRecord.everything.count() == 0
        assert owner.ask("POST", f"/dropped/sheet/{sheet['id']}").status_code == 404
        assert owner.ask("GET", f"/benches/{bench}").body["sheet"] is None  # what the eye learned stays


def many_sheets(owner, count):
    kitchen = KitchenRecord.objects.get()
    document = default_sheet("set-cake").model_dump(mode="json")
    SheetRecord.objects.bulk_create(
        SheetRecord(kitchen=kitchen, title=f"Cake {i}", way="set-cake", document={**document, "title": f"Cake {i}"})
        for i in range(count)
    )


class TestLists:
    def queries(self, owner, path):
        for _ in range(2):
            owner.ask("GET", path)  # what was never worked is worked once, some of it at a time
        with CaptureQueriesContext(connection) as asked:
            assert owner.ask("GET", path).status_code == 200
        return len(asked)

    def test_a_page_of_sheets_takes_the_same_queries_however_many_there_are(self, owner):
        many_sheets(owner, 20)
        few = self.queries(owner, "/sheets")
        many_sheets(owner, 280)
        assert self.queries(owner, "/sheets") == few <= 6
        page = owner.ask("GET", "/sheets?page=15").body
        assert (page["page"], page["pages"], page["total"], len(page["sheets"])) == (15, 15, 300, 20)
        assert owner.ask("GET", "/sheets?page=99").body["page"] == 15

    def test_sheets_are_found_by_title_and_by_what_their_way_is_called(self, owner):
        for way in ("set-cake", "boiled-balls"):
            owner.ask("POST", "/sheets", {"way": way})
        assert [item["way"] for item in owner.ask("GET", "/sheets?find=tangyuan").body["sheets"]] == ["boiled-balls"]
        assert owner.ask("GET", "/sheets?find=nothing+like+it").body["total"] == 0

    def test_a_page_of_the_log_too(self, owner, sheet):
        run = Run.objects.get(pk=owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"])

        def log(count):
            runs = Run.objects.bulk_create(
                Run(
                    kitchen=run.kitchen, title=f"Batch {i}", way=run.way, frozen={},
                    began=run.began, clock_began=run.began,
                )
                for i in range(count)
            )  # fmt: skip
            Batch.objects.bulk_create(
                Batch(
                    run=each_run, kitchen=run.kitchen, title=each_run.title, way="set-cake", made=each_run.began, rehearsed=False,
                    hydration_pct=120.0, sugar_pct=80.0, verdict="just right" if i % 3 else "too soft",
                )
                for i, each_run in enumerate(runs)
            )  # fmt: skip

        log(30)
        few = self.queries(owner, "/log")
        log(270)
        assert self.queries(owner, "/log") == few <= 7
        page = owner.ask("GET", "/log?way=set-cake&page=2").body
        assert (page["page"], page["pages"], page["total"]) == (2, 15, 300)
        assert page["ways"] == [{"way": "set-cake", "batches": 300, "right": 200}]
        assert len(page["dots"]) == 60

    def test_a_card_follows_its_sheet_the_kitchen_and_the_code(self, owner, sheet, monkeypatch):
        def card():
            numbers = owner.ask("GET", "/sheets").body["sheets"][0]["numbers"]
            return [(number["key"], round(number["value"], number["decimals"])) for number in numbers]

        first = card()
        assert first[0] == ("mix.hydration_pct", 126)
        owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": watered(sheet, 420)})
        assert card()[0] == ("mix.hydration_pct", 141)
        higher = {**owner.ask("GET", "/kitchen").body["kitchen"], "altitude_m": 3000}
        before = card()
        owner.ask("PUT", "/kitchen", {"kitchen": higher})
        assert card()[-1] != before[-1]  # minutes in the steam
        again = []
        monkeypatch.setattr(work_results, "result_for", lambda sheet, kitchen: again.append(sheet) or work_results._remembered_result(
            sheet.model_dump_json(), kitchen.model_dump_json()
        ))  # fmt: skip
        card()
        assert again == []  # nothing has changed: nothing is worked
        monkeypatch.setattr(work_results, "core_version", lambda: "another")
        card()
        assert len(again) == 1

    def test_of_a_long_list_some_cards_are_worked_at_a_time(self, owner):
        """After an update none of them is right: the list is there at once, and says which numbers are still to come."""
        many_sheets(owner, 20)
        first = owner.ask("GET", "/sheets").body["sheets"]
        assert [item["pending"] for item in first] == [False] * 16 + [True] * 4
        assert all(bool(item["numbers"]) != item["pending"] for item in first)
        again = owner.ask("GET", "/sheets").body["sheets"]
        assert not any(item["pending"] for item in again)
        assert all(item["numbers"] for item in again)

    def test_a_sheet_that_cannot_be_worked_or_read_is_shown_as_that(self, owner, sheet):
        record = SheetRecord.objects.get()
        record.document["cut"]["piece_g"] = 5e-324
        record.card = {}
        record.save()
        kitchen = record.kitchen
        SheetRecord.objects.create(kitchen=kitchen, title="From afar", way="set-cake", document={"way": "toast"})
        shown = {item["title"]: item["problem"] for item in owner.ask("GET", "/sheets").body["sheets"]}
        assert shown["From afar"].startswith('way: "toast" is not a known way')
        assert "cut.piece_g" in shown[sheet["sheet"]["title"]]
        assert owner.ask("GET", "/occasions").status_code == 200


class TestFaults:
    @pytest.fixture
    def failing(self, owner, monkeypatch):
        """Asks for the ways while what reads them fails like that."""

        def ask(error):
            def fails(*_):
                raise error

            monkeypatch.setattr("kemble.server.api.cards.questions", fails)
            owner.raise_request_exception = False
            return owner.ask("GET", "/ways")

        return ask

    def test_a_fault_has_a_number_that_stands_in_the_log(self, failing, caplog):
        answer = failing(ZeroDivisionError("deep within"))
        assert answer.status_code == 500
        says = answer.body["problems"][0]["says"]
        number = says.rpartition("number ")[2].rstrip(")")
        assert len(number) == 6
        assert f"number {number}: GET /api/ways failed" in caplog.text
        assert "ZeroDivisionError: deep within" in caplog.text

    def test_a_full_disk_is_named(self, owner, caplog):
        owner.raise_request_exception = False
        with connection.cursor() as asked:
            asked.execute("PRAGMA page_count")
            (pages,) = asked.fetchone()
            asked.execute(f"PRAGMA max_page_count = {pages}")
        try:
            for _ in range(2_000):  # pages that are free within the file are taken up first
                answer = owner.ask("POST", "/sheets", {"way": "set-cake"})
                if answer.status_code != 200:
                    break
        finally:
            with connection.cursor() as asked:
                asked.execute("PRAGMA max_page_count = 1073741823")
        assert answer.status_code == 507
        assert answer.body["problems"][0]["path"] == "the disk"
        assert "the disk is full. POST /api/sheets was not kept" in caplog.text

    def test_a_database_that_stays_busy_asks_for_another_try(self, failing):
        busy = sqlite3.OperationalError("database is locked")
        busy.sqlite_errorcode = sqlite3.SQLITE_BUSY
        error = OperationalError("database is locked")
        error.__cause__ = busy
        answer = failing(error)
        assert (answer.status_code, answer.headers["Retry-After"]) == (503, "2")

    @pytest.mark.parametrize(("method", "path"), [("PATCH", "/sheets"), ("DELETE", "/ways"), ("PUT", "/runs")])
    def test_another_method_is_refused_in_words_a_program_reads(self, owner, method, path):
        answer = owner.ask(method, path)
        assert answer.status_code == 405
        assert answer.body["problems"][0]["says"] == f"does not take {method}"
        assert answer.headers["Allow"]

    @pytest.mark.parametrize("number", [2**53, 2**63, 2**64, 10**30])
    def test_no_number_is_too_large_to_refuse(self, owner, sheet, number):
        for method, path, body, status in (
            ("GET", f"/benches?sheet={number}", None, 422),
            ("POST", "/shopping", {"wanted": [{"sheet": number}]}, 422),
            ("PUT", f"/sheets/{sheet['id']}", {"revision": number, "sheet": sheet["sheet"]}, 422),
            ("GET", f"/sheets?page={number}", None, 422),
            ("GET", f"/sheets/{number}", None, 404),
            ("GET", f"/runs/{number}", None, 404),
            ("GET", f"/log/{number}", None, 404),
            ("POST", f"/dropped/sheet/{number}", None, 404),
        ):
            answer = owner.ask(method, path, body)
            assert answer.status_code == status, path
            assert answer.body["problems"]

    def test_a_refusal_repeats_what_was_typed(self, owner, sheet):
        answer = owner.ask("POST", "/work", {"sheet": watered(sheet, 60_000)})
        assert answer.body["problems"][0]["says"] == "60000 is too much"


class TestTurns:
    def test_are_taken_in_the_order_of_asking(self):
        turn, order = FairLock(), []

        def take(name):
            with turn:
                order.append(name)

        threads = []
        with turn, turn:  # one who holds it may take it again
            for name in range(8):
                threads.append(threading.Thread(target=take, args=(name,)))
                threads[-1].start()
                while len(turn._waiting) <= name:
                    pass
        for thread in threads:
            thread.join()
        assert order == list(range(8))

    def test_are_handed_on_when_somebody_stumbles(self):
        turn = FairLock()
        with pytest.raises(ZeroDivisionError), turn:
            raise ZeroDivisionError
        with turn:
            pass


class TestFolder:
    def test_a_backup_that_fails_leaves_no_file(self, tmp_path):
        broken = tmp_path / "broken.sqlite3"
        broken.write_bytes(b"SQLite format 3\0" + b"x" * 5000)
        with pytest.raises(OSError, match="could not be made"):
            folder.copy_database(broken, tmp_path / "copy.sqlite3")
        assert [path.name for path in tmp_path.iterdir()] == ["broken.sqlite3"]

    def test_a_backup_goes_on_a_stick_that_knows_no_links(self, tmp_path, monkeypatch):
        source = tmp_path / "live.sqlite3"
        with closing(sqlite3.connect(source)) as made:
            made.execute("CREATE TABLE cake (name)")

        def none_here(*_):
            raise PermissionError("Operation not permitted")

        monkeypatch.setattr(os, "link", none_here)
        folder.copy_database(source, tmp_path / "copy.sqlite3")
        assert sorted(path.name for path in tmp_path.iterdir()) == ["copy.sqlite3", "live.sqlite3"]

    def test_a_backup_is_whole_while_it_is_written_to(self, tmp_path):
        source, target = tmp_path / "live.sqlite3", tmp_path / "copy.sqlite3"
        with pytest.raises(FileNotFoundError):
            folder.copy_database(source, target)
        live = sqlite3.connect(source)
        live.executescript("PRAGMA journal_mode=WAL; CREATE TABLE cake (name); INSERT INTO cake VALUES ('quince');")
        live.execute("INSERT INTO cake VALUES ('not committed yet')")
        folder.copy_database(source, target)
        live.close()
        with closing(sqlite3.connect(target)) as copied:
            assert copied.execute("SELECT name FROM cake").fetchall() == [("quince",)]
        with pytest.raises(FileExistsError):
            folder.copy_database(source, target)

    @pytest.mark.parametrize("spoil", ["absent", "text", "other", "newer", "damaged"])
    def test_what_is_not_ours_is_not_restored(self, tmp_path, spoil):
        file, database = tmp_path / "backup.sqlite3", tmp_path / "kemble.sqlite3"
        database.write_text("the kitchen as it is")
        if spoil == "text":
            file.write_text("a letter")
        elif spoil != "absent":
            laid_out(3, file)
            with closing(sqlite3.connect(file)) as made:
                if spoil == "newer":
                    made.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('kitchen', '9999_x', '')")
                if spoil == "other":
                    made.execute("DROP TABLE kitchen_kitchen")
                made.commit()
        if spoil == "damaged":
            whole = bytearray(file.read_bytes())
            whole[8192:40960] = b"\xff" * (40960 - 8192)
            file.write_bytes(whole)
        with pytest.raises(folder.UnreadableDatabase):
            folder.restore_database(file, database, NOW)
        assert database.read_text() == "the kitchen as it is"
        assert not [path for path in tmp_path.iterdir() if "before" in path.name or "part" in path.name]


def test_a_kitchen_of_the_past_is_read_to_the_letter(past):
    """The batch stands in the log, and an "undone" of that time takes back what it took back then."""
    batch = Batch.objects.using("past").get()
    assert (batch.title, batch.way, batch.rehearsed, batch.note) == ("Steamed set cake", "set-cake", False, "Softer.")
    assert batch.made == datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
    assert batch.kitchen.settings.name == "The old annexe"
    run = Run.objects.using("past").get()
    steps = {step.id: step for step in run.state(run.began + timedelta(hours=1)).steps}
    melt = steps["melt"]
    # Started 9:12, weighed 9:16, undone 9:20 (the start: a weight could not be), started 9:24, done 9:28.
    assert [weight.grams for weight in melt.weights] == [931.0]
    assert (melt.started.minute, melt.ended.minute) == (24, 28)
    assert steps["cool-syrup"].status == "running"
    assert Bench.objects.using("past").get().marks.count() == 2
    sheet = SheetRecord.objects.using("past").get()
    assert sheet.sheet.way in WAYS
    assert sheet.document["version"] == 1  # as it was written then ...
    assert json.loads(sheet.sheet.model_dump_json())["version"] == 3  # ... and as it is read now

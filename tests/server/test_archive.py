"""The whole kitchen in one file: equal on return, put in beside or in place, and whatever else may come as a file."""

import io
import json
import zipfile
from contextlib import contextmanager
from datetime import UTC, datetime

import pytest
import time_machine
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection, transaction
from django.utils import timezone
from PIL import Image

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.server.accounts.owner import kitchen_of
from kemble.server.demo.load import load
from kemble.server.exports import archive as archives
from kemble.server.exports import archive_jobs, archive_staging
from kemble.server.exports.archive import SORTS, open_archive, write_archive
from kemble.server.exports.archive_staging import stage, take_beside, take_in_place
from kemble.server.models import Batch, CuePicture, KitchenRecord, OccasionRecord, Run, SheetRecord, Tasting
from kemble.server.storage.fair_lock import writing

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


def picture(**more):
    out = io.BytesIO()
    Image.new("RGB", (40, 30), (120, 80, 40)).save(out, "WEBP", **more)
    return out.getvalue()


@pytest.fixture(scope="module")
def content(django_db_setup, django_db_blocker):
    """The file of the demo's kitchen with all that one may hold: pictures, tastings, a blind table, something thrown away."""
    with django_db_blocker.unblock(), transaction.atomic(), time_machine.travel(NOW, tick=False):
        kitchen = load(NOW)
        run, batch = Run.objects.filter(kitchen=kitchen).last(), Batch.objects.filter(kitchen=kitchen).first()
        kitchen.pictures.create(
            run=run, uid="picture-1", title=run.title, way=run.way, step="steam", at=NOW, webp=picture()
        )
        Tasting.objects.create(
            batch=batch, uid="wren-1", who="Wren", at=NOW, tastes={"softness": 1}, liking=7, blind=True
        )
        kitchen.stock.create(batch=batch, title=batch.title, where="fridge", pieces=6, made=NOW)
        kitchen.splits.create(
            title="Two waters", document={"a": "less", "b": "more"}, answers=[{"taster": 1, "code": "123"}], made=NOW
        )
        kitchen.removed.create(kind="tin", title="the old tin", document={"name": "the old tin"}, trashed=NOW)
        SheetRecord.objects.filter(pk=kitchen.sheets.first().pk).update(trashed=NOW)
        result = packed(kitchen)
        transaction.set_rollback(True)
    return result


@pytest.fixture
def full(owner, content):
    """The owner's kitchen with all of that in it."""
    kitchen = KitchenRecord.objects.get(members__user__username="owner")
    put_in_its_place(kitchen, content)
    kitchen.refresh_from_db()
    return kitchen


@pytest.fixture
def other(stranger):
    return KitchenRecord.objects.exclude(members__user__username="owner").get()


def read_all(content):
    """Every row of a file, by sort."""
    with open_archive(io.BytesIO(content)) as reader:
        return {sort.name: [read.row for read in reader.rows(sort)] for sort in SORTS}


def staged(content):
    with open_archive(io.BytesIO(content)) as reader:
        return stage(reader)


def put_in_its_place(kitchen, content):
    take_in_place(kitchen, staged(content))
    assert not KitchenRecord.objects.exclude(staged=None).exists()


def put_in(kitchen, content, groups):
    taken = take_beside(kitchen, staged(content), groups)
    assert not KitchenRecord.objects.exclude(staged=None).exists()
    return taken


def packed(kitchen):
    out = io.BytesIO()
    write_archive(kitchen, out, NOW)
    return out.getvalue()


def changed(content, name, change):
    """The file with one of its files otherwise: `change` gets its bytes, and None takes it out."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        for info in old.infolist():
            data = old.read(info) if info.filename != name else change(old.read(info))
            if data is not None:
                new.writestr(info.filename, data)
    return out.getvalue()


def refused(content):
    with pytest.raises(Refused) as result:
        read_all(content)
    return result.value.problems[0]


class TestThereAndBack:
    def test_every_sort_of_thing_is_in_it(self, full):
        """Whatever belongs to a kitchen: a model that is not named would be lost without a word."""
        kept = {sort.model for sort in SORTS}
        belongs = {
            related_object.related_model
            for model in (KitchenRecord, SheetRecord, Run, Batch, *kept)
            for related_object in model._meta.related_objects  # type: ignore[attr-defined]
            if related_object.one_to_many or related_object.one_to_one
        }
        assert {item.__name__ for item in belongs - kept} == {
            "IdempotencyRecord",  # answers to pages, for sixty days
            "Member",  # who comes in is this machine's affair: names and passwords are in no archive
            "Invitation",
        }
        rows = read_all(packed(full))
        assert [name for name, row in rows.items() if not row] == []

    def test_put_in_it_is_the_same_file(self, full, content):
        """What the demo laid out, put in: not one byte of it is otherwise."""
        assert packed(full) == content
        assert full.settings.learned
        assert bytes(CuePicture.objects.get(kitchen=full).webp) == picture()

    def test_and_again_elsewhere_and_where_it_came_from(self, full, other, content):
        for kitchen in (other, full):
            put_in_its_place(kitchen, packed(full))
            kitchen.refresh_from_db()
            assert packed(kitchen) == content
        assert other.settings.learned == full.settings.learned

    def test_an_occasion_finds_its_sheets_under_their_new_numbers(self, full, other):
        put_in_its_place(other, packed(full))
        occasion = OccasionRecord.objects.get(kitchen=other)
        titles = [other.sheets.get(pk=dish.sheet).title for dish in occasion.occasion.dishes]
        assert titles == ["Black tea and orange cake", "Walnut and date balls", "Buckwheat honey and squash bake"]


class TestBeside:
    def test_only_what_was_chosen_comes_in(self, full, other):
        mine = other.document
        added = put_in(other, packed(full), ["sheets"]).added
        assert added["sheets"] == SheetRecord.objects.filter(kitchen=full).count()  # not what was thrown away
        assert not Run.objects.filter(kitchen=other)
        other.refresh_from_db()
        assert other.document == mine

    def test_put_in_twice_nothing_is_there_twice(self, full, other):
        for _ in range(2):
            added = put_in(other, packed(full), ["sheets", "log", "occasions", "benches"]).added
        assert set(added.values()) == {0}
        for rows in ("sheets", "runs", "occasions", "pictures", "benches", "splits"):
            mine, theirs = (getattr(kitchen, rows).filter(**live(rows)).count() for kitchen in (other, full))
            assert mine == theirs, rows

    def test_what_is_here_stays(self, full, other):
        own = other.sheets.create(title="Mine", way="set-cake", document=full.sheets.first().document)
        put_in(other, packed(full), ["sheets", "log"])
        assert other.sheets.filter(pk=own.pk).exists()
        made = Batch.objects.filter(kitchen=other).select_related("run__sheet").first()
        assert made.run.sheet.kitchen_id == other.pk

    def test_the_log_without_its_sheets(self, full, other):
        put_in(other, packed(full), ["log"])
        assert Batch.objects.filter(kitchen=other).count() == Batch.objects.filter(kitchen=full).count()
        assert not Run.objects.filter(kitchen=other, sheet__isnull=False).exists()


def live(rows):
    return {} if rows in ("benches", "splits") else {"trashed": None}


def events_of(content, count):
    """The file with so many events in its first run, each a few letters long."""

    def many(_):
        row = '{"run": 1, "uid": "many-%07d", "at": "2026-11-25T09:00:00+00:00", "document": {"kind": "noted", "text": "x"}}'
        return "\n".join(row % i for i in range(count)).encode()

    return changed(content, "events.jsonl", many)


class TestStaged:
    """What is read of a file is seen by nobody until it is taken, and leaves nothing behind when it is not."""

    def counts(self):
        return {sort.name: sort.model._base_manager.count() for sort in SORTS} | {
            "kitchens": KitchenRecord.objects.count()
        }

    def test_a_file_that_is_bad_at_its_end_leaves_nothing(self, full):
        before = self.counts()
        bad = changed(packed(full), "removed.jsonl", lambda data: data + b"{}")
        with pytest.raises(Refused):
            staged(bad)
        assert self.counts() == before

    def test_called_off_in_the_middle_it_leaves_nothing(self, full):
        before = self.counts()
        progress = archive_staging.StagingProgress()

        class Interrupted(archive_staging.StagingProgress):
            def check(self):
                progress.rows = self.rows
                self.stopped = self.rows > 300
                super().check()

        with open_archive(io.BytesIO(packed(full))) as reader, pytest.raises(archive_staging.StagingStopped):
            stage(reader, Interrupted())
        assert progress.rows > 300
        assert self.counts() == before

    def test_what_is_staged_is_not_to_be_seen(self, full, owner, content):
        seen = {path: owner.ask("GET", path).body for path in ("/sheets", "/log", "/dropped", "/occasions", "/runs")}
        waiting = staged(content)
        for path, body in seen.items():
            now = owner.ask("GET", path).body
            assert len(now) == len(body)
            if isinstance(now, dict):
                assert now["total"] == body["total"]
        archive_staging.discard(waiting)

    def test_a_stop_s_left_over_goes_and_what_was_begun_since_stays(self, full, content):
        staged(content)
        archive_staging.discard_left_over(NOW)
        assert KitchenRecord.objects.exclude(staged=None).count() == 1
        archive_staging.discard_left_over(timezone.now())
        assert not KitchenRecord.objects.exclude(staged=None).exists()

    def test_no_turn_to_write_holds_many_rows(self, full, other, content, monkeypatch):
        """Others write in between: no turn but the swap itself writes more than five hundred rows."""
        turns = []

        @contextmanager
        def counted():
            with writing():
                before = connection.connection.total_changes
                yield
                turns.append(connection.connection.total_changes - before)

        many = events_of(content, 3_000)
        monkeypatch.setattr(archive_staging, "writing", counted)
        put_in(other, many, ["sheets", "log", "occasions", "benches"])
        assert sum(turns) > 3_000
        assert max(turns) <= 500

    def test_runs_that_go_on_there_come_in_as_ended(self, full, other):
        going = Run.objects.filter(kitchen=full, finished=None)
        assert going.count() == 1
        last = going.get().events.order_by("at").last().at
        taken = put_in(other, packed(full), ["sheets", "log"])
        assert taken.ended == 1
        assert not Run.objects.filter(kitchen=other, finished=None).exists()
        came = Run.objects.get(kitchen=other, began=going.get().began)
        assert came.state().status == "finished"
        assert came.finished == last
        assert going.count() == 1  # here it goes on

    def test_in_place_they_go_on(self, full, other):
        put_in_its_place(other, packed(full))
        assert Run.objects.filter(kitchen=other, finished=None).count() == 1


class TestOverTheApi:
    @pytest.fixture(autouse=True)
    def _at_once(self, monkeypatch):
        """Each job is done before the answer, in this thread: with a thread of its own it is seen in test_processes.py."""
        monkeypatch.setattr(archive_jobs, "_start_thread", archive_jobs._guarded)
        monkeypatch.setattr(archive_jobs, "_jobs", {})

    def read(self, client, content):
        file = SimpleUploadedFile("kitchen.zip", content)
        answer = client.post("/api/archive/staged", {"file": file}, HTTP_HOST="127.0.0.1:8000")
        assert answer.status_code == 200, answer.content
        return json.loads(answer.content)

    def take(self, client, job, how, *groups):
        return client.ask("POST", f"/archive/staged/{job['id']}/take", {"how": how, "groups": groups})

    def test_had_looked_at_and_put_in(self, full, owner, other, stranger):
        answer = owner.get("/api/archive", HTTP_HOST="127.0.0.1:8000")
        content = b"".join(answer.streaming_content)
        assert answer["Content-Disposition"].startswith('attachment; filename="kemble-')
        job = self.read(owner, content)
        assert (job["state"], job["name"], job["read_pct"]) == ("ready", full.settings.name, 100)
        assert job["rows"] == sum(map(len, read_all(content).values()))
        sheets = next(item for item in job["groups"] if item["id"] == "sheets")
        assert sheets["here"] == full.sheets.count()
        taken = self.take(owner, job, "beside", "sheets", "log")
        assert (taken.body["state"], taken.body["added"]) == ("taken", 0)

    def test_asked_twice_it_is_done_once(self, full, owner, stranger, other):
        content = packed(full)
        put_in_its_place(full, packed(other))
        job = self.read(owner, content)
        first = self.take(owner, job, "beside", "sheets").body
        assert first["added"] > 0
        assert self.take(owner, job, "beside", "sheets").body == first
        assert full.sheets.count() == first["added"] // 2  # each with its one revision

    def test_in_place_of_what_is_here(self, full, owner, other):
        job = self.read(owner, packed(other))
        assert self.take(owner, job, "in place").body["state"] == "taken"
        assert not full.sheets.exists()

    def test_nothing_chosen(self, full, owner):
        told = self.take(owner, self.read(owner, packed(full)), "beside")
        assert (told.status_code, told.body["problems"][0]["path"]) == (422, "groups")

    def test_what_will_not_do_is_told_by_the_job(self, full, owner):
        job = self.read(owner, changed(packed(full), "stock.jsonl", lambda data: b"[]"))
        assert (job["state"], job["problems"][0]["path"]) == ("failed", "stock.1")
        assert self.take(owner, job, "in place").status_code == 422

    def test_called_off_nothing_of_it_stays(self, full, owner):
        job = self.read(owner, packed(full))
        assert owner.ask("DELETE", f"/archive/staged/{job['id']}").status_code == 204
        assert owner.ask("GET", f"/archive/staged/{job['id']}").status_code == 404
        assert not KitchenRecord.objects.exclude(staged=None).exists()

    def test_the_next_file_takes_the_place_of_one_that_was_not_taken(self, full, owner):
        first, second = self.read(owner, packed(full)), self.read(owner, packed(full))
        assert owner.ask("GET", f"/archive/staged/{first['id']}").status_code == 404
        assert owner.ask("GET", f"/archive/staged/{second['id']}").body["state"] == "ready"
        assert KitchenRecord.objects.exclude(staged=None).count() == 1

    def test_another_kitchen_s_is_not_to_be_found(self, full, owner, stranger, other):
        job = self.read(owner, packed(full))
        for method, path in (("GET", ""), ("DELETE", ""), ("POST", "/take")):
            body = {"how": "in place"} if path else None
            assert stranger.ask(method, f"/archive/staged/{job['id']}{path}", body).status_code == 404


class TestHostile:
    """Whatever comes is refused with where the trouble lies; nothing of it is kept."""

    @pytest.mark.parametrize("bad", [b"", b"PK", b"GIF89a", b"PK\x03\x04" + b"\0" * 200, b"{}"])
    def test_no_zip(self, bad):
        assert refused(bad).says == "is not a whole zip file"

    def test_cut_short(self, content):
        assert refused(content[: len(content) // 2]).path == "file"

    def test_a_bit_flipped(self, content):
        bad = bytearray(content)
        bad[len(bad) // 3] ^= 0x10
        assert refused(bytes(bad))

    def test_an_unknown_name_and_a_way_out_of_the_folder(self, content):
        for name in ("../../outside.txt", "/etc/cron", "setup.exe"):
            out = io.BytesIO(content)
            with zipfile.ZipFile(out, "a") as more:
                more.writestr(name, "x")
            assert name in refused(out.getvalue()).says

    def test_a_bomb(self, content, monkeypatch):
        """Ten megabytes of nothing pack to ten kilobytes: what it unpacks to is what counts."""
        monkeypatch.setattr(archives, "MOST_UNPACKED", 5_000_000)
        bad = changed(content, "sheets.jsonl", lambda data: data + b" " * 10_000_000)
        assert "unpacks to" in refused(bad).says

    def test_rows_without_end(self, content):
        """However small they are packed: how many of a sort may come is said."""
        most = next(sort.most for sort in SORTS if sort.name == "splits")
        row = b'{"title": "x", "document": {"a": "less", "b": "more"}, "made": "2026-11-25T09:00:00+00:00"}\n'
        told = refused(changed(content, "splits.jsonl", lambda data: row * (most + 1)))
        assert (told.path, told.accepts) == ("splits.jsonl", f"at most {most:,}")

    def test_packed_tighter_than_any_kitchen(self, content, monkeypatch):
        monkeypatch.setattr(archives, "MAX_RATIO", 500)
        bad = changed(content, "sheets.jsonl", lambda data: data + b" " * 10_000_000)
        assert "times its size" in refused(bad).says

    def test_a_bomb_that_lies_about_its_size(self, content, monkeypatch):
        monkeypatch.setattr(archives, "_MOST_LINE", 50_000)
        bad = changed(content, "sheets.jsonl", lambda data: b"[" * 60_000)
        assert refused(bad).path == "sheets.1"

    def test_deep(self, content):
        bad = changed(content, "splits.jsonl", lambda data: b'{"document": ' + b"[" * 100_000 + b"]" * 100_000)
        assert refused(bad).path == "splits.1"

    @pytest.mark.parametrize(
        ("name", "change", "path"),
        [
            ("kitchen.json", None, "kitchen.json"),
            ("kitchen.json", {"format": "other"}, "kitchen.json"),
            ("kitchen.json", {"version": 2}, "kitchen.json.version"),
            ("kitchen.json", {"kitchen": {"cooks": -1}}, "cooks"),
            ("sheets.jsonl", {"document": {"way": "fried-moon"}}, "sheets.1"),
            ("sheets.jsonl", {"title": "x" * 121}, "sheets.1.title"),
            ("sheets.jsonl", {"title": None}, "sheets.1.title"),
            ("sheets.jsonl", {"revision": "many"}, "sheets.1.revision"),
            ("sheets.jsonl", {"changed": "yesterday"}, "sheets.1.changed"),
            ("sheets.jsonl", {"changed": "2026-11-25T09:00:00"}, "sheets.1.changed"),
            ("sheets.jsonl", {"kitchen": 1}, "sheets.1.kitchen"),
            ("sheets.jsonl", {"id": 1}, "sheets.1.id"),
            ("revisions.jsonl", {"record": 9999}, "revisions.1.record"),
            ("revisions.jsonl", {"record": None}, "revisions.1.record"),
            ("runs.jsonl", {"frozen": {}}, "runs.1"),
            ("runs.jsonl", {"sheet": "1"}, "runs.1.sheet"),
            ("events.jsonl", {"document": {"kind": "danced"}}, "events.1"),
            ("batches.jsonl", {"tastes": {"softness": 40}}, "batches.1"),
            ("batches.jsonl", {"hydration_pct": float("nan")}, "batches.1"),
            ("batches.jsonl", {"faults": "specks"}, "batches.1.faults"),
            ("stock.jsonl", {"pieces": -6}, "stock.1.pieces"),
            ("pictures.jsonl", {"webp": "eA=="}, "pictures.1.webp"),
        ],
    )
    def test_one_value_that_will_not_do(self, content, name, change, path):
        def one(data):
            if change is None:
                return None
            first, *rest = data.split(b"\n") if name.endswith("l") else (data,)
            return b"\n".join([json.dumps({**json.loads(first), **change}).encode(), *rest])

        result = refused(changed(content, name, one))
        assert result.path.startswith(path)
        assert result.accepts

    def test_a_picture_that_is_none(self, content):
        bad = changed(content, "pictures/000001.webp", lambda data: b"<svg onload='x'/>")
        assert refused(bad).says == "cannot be read"
        assert refused(changed(content, "pictures/000001.webp", lambda data: None)).path == "pictures/000001.webp"

    def test_what_a_picture_says_beside_itself_is_left_out(self, content):
        exif = Image.Exif()
        exif[0x0110] = "a camera with a place"
        bad = changed(content, "pictures/000001.webp", lambda data: picture(exif=exif))
        (row,) = read_all(bad)["pictures"]
        assert b"a place" not in row.webp
        assert Image.open(io.BytesIO(row.webp)).size == (40, 30)


def test_an_empty_kitchen_there_and_back(owner, stranger, other):
    content = packed(other)
    mine = kitchen_of(KitchenRecord.objects.exclude(pk=other.pk).get().members.get().user)
    put_in_its_place(mine, content)
    mine.refresh_from_db()
    assert packed(mine) == content
    assert mine.settings == Kitchen(name="Elsewhere")

"""The whole kitchen in one file: equal on return, put in beside or in place, and whatever else may come as a file."""

import io
import json
import zipfile
from datetime import UTC, datetime

import pytest
import time_machine
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from PIL import Image

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.server import archive as archives
from kemble.server.archive import SORTS, read_archive, write_archive
from kemble.server.demo.load import load
from kemble.server.models import Batch, CuePicture, KitchenRecord, OccasionRecord, Run, SheetRecord, Tasting
from kemble.server.owner import kitchen_of
from kemble.server.unpacking import put_in, put_in_its_place

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
        kitchen.removed.create(kind="tin", title="the old tin", document={"name": "the old tin"}, dropped=NOW)
        SheetRecord.objects.filter(pk=kitchen.sheets.first().pk).update(dropped=NOW)
        found = packed(kitchen)
        transaction.set_rollback(True)
    return found


@pytest.fixture
def full(owner, content):
    """The owner's kitchen with all of that in it."""
    kitchen = KitchenRecord.objects.get(members__user__username="owner")
    put_in_its_place(kitchen, read_archive(io.BytesIO(content)))
    kitchen.refresh_from_db()
    return kitchen


@pytest.fixture
def other(stranger):
    return KitchenRecord.objects.exclude(members__user__username="owner").get()


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
    with pytest.raises(Refused) as found:
        read_archive(io.BytesIO(content))
    return found.value.problems[0]


class TestThereAndBack:
    def test_every_sort_of_thing_is_in_it(self, full):
        """Whatever belongs to a kitchen: a model that is not named would be lost without a word."""
        kept = {sort.model for sort in SORTS}
        belongs = {
            one.related_model
            for model in (KitchenRecord, SheetRecord, Run, Batch, *kept)
            for one in model._meta.related_objects
            if one.one_to_many or one.one_to_one
        }
        assert {one.__name__ for one in belongs - kept} == {
            "Receipt",  # answers to pages, for sixty days
            "Member",  # who comes in is this machine's affair: names and passwords are in no archive
            "Invitation",
        }
        rows = read_archive(io.BytesIO(packed(full))).rows
        assert [name for name, found in rows.items() if not found] == []

    def test_put_in_it_is_the_same_file(self, full, content):
        """What the demo laid out, put in: not one byte of it is otherwise."""
        assert packed(full) == content
        assert full.settings.learned
        assert bytes(CuePicture.objects.get(kitchen=full).webp) == picture()

    def test_and_again_elsewhere_and_where_it_came_from(self, full, other, content):
        for kitchen in (other, full):
            put_in_its_place(kitchen, read_archive(io.BytesIO(packed(full))))
            kitchen.refresh_from_db()
            assert packed(kitchen) == content
        assert other.settings.learned == full.settings.learned

    def test_an_occasion_finds_its_sheets_under_their_new_numbers(self, full, other):
        put_in_its_place(other, read_archive(io.BytesIO(packed(full))))
        occasion = OccasionRecord.objects.get(kitchen=other)
        titles = [other.sheets.get(pk=dish.sheet).title for dish in occasion.occasion.dishes]
        assert titles == ["Black tea and orange cake", "Walnut and date balls", "Buckwheat honey and squash bake"]


class TestBeside:
    def test_only_what_was_chosen_comes_in(self, full, other):
        mine = other.document
        added = put_in(other, read_archive(io.BytesIO(packed(full))), ["sheets"])
        assert added["sheets"] == SheetRecord.objects.filter(kitchen=full).count()  # not what was thrown away
        assert not Run.objects.filter(kitchen=other)
        other.refresh_from_db()
        assert other.document == mine

    def test_put_in_twice_nothing_is_there_twice(self, full, other):
        for _ in range(2):
            added = put_in(other, read_archive(io.BytesIO(packed(full))), ["sheets", "log", "occasions", "benches"])
        assert set(added.values()) == {0}
        for rows in ("sheets", "runs", "occasions", "pictures", "benches", "splits"):
            mine, theirs = (getattr(kitchen, rows).filter(**live(rows)).count() for kitchen in (other, full))
            assert mine == theirs, rows

    def test_what_is_here_stays(self, full, other):
        own = other.sheets.create(title="Mine", way="set-cake", document=full.sheets.first().document)
        put_in(other, read_archive(io.BytesIO(packed(full))), ["sheets", "log"])
        assert other.sheets.filter(pk=own.pk).exists()
        made = Batch.objects.filter(kitchen=other).select_related("run__sheet").first()
        assert made.run.sheet.kitchen_id == other.pk

    def test_the_log_without_its_sheets(self, full, other):
        put_in(other, read_archive(io.BytesIO(packed(full))), ["log"])
        assert Batch.objects.filter(kitchen=other).count() == Batch.objects.filter(kitchen=full).count()
        assert not Run.objects.filter(kitchen=other, sheet__isnull=False).exists()


def live(rows):
    return {} if rows in ("benches", "splits") else {"dropped": None}


class TestOverTheApi:
    def send(self, owner, path, content, **form):
        file = SimpleUploadedFile("kitchen.zip", content)
        answer = owner.post(f"/api{path}", {"file": file, **form}, HTTP_HOST="127.0.0.1:8000")
        return answer.status_code, json.loads(answer.content)

    def test_had_looked_at_and_put_in(self, full, owner, other, stranger):
        answer = owner.get("/api/archive", HTTP_HOST="127.0.0.1:8000")
        content = b"".join(answer.streaming_content)
        assert answer["Content-Disposition"].startswith('attachment; filename="kemble-')
        status, look = self.send(owner, "/archive/look", content)
        assert (status, look["name"]) == (200, full.settings.name)
        sheets = next(one for one in look["groups"] if one["id"] == "sheets")
        assert sheets["here"] == full.sheets.count()
        form = {"uid": "archive-1", "how": "beside", "groups": ["sheets", "log"]}
        assert self.send(owner, "/archive", content, **form) == (200, {"added": 0})

    def test_sent_twice_it_is_done_once(self, full, owner, stranger, other):
        content = packed(full)
        put_in_its_place(full, read_archive(io.BytesIO(packed(other))))
        form = {"uid": "archive-2", "how": "beside", "groups": ["sheets"]}
        first = self.send(owner, "/archive", content, **form)
        assert first[1]["added"] > 0
        assert self.send(owner, "/archive", content, **form) == first
        assert full.sheets.count() == first[1]["added"] // 2  # each with its one revision

    def test_in_place_of_what_is_here(self, full, owner, other):
        form = {"uid": "archive-3", "how": "in place"}
        assert self.send(owner, "/archive", packed(other), **form)[0] == 200
        assert not full.sheets.exists()

    def test_nothing_chosen(self, full, owner):
        status, told = self.send(owner, "/archive", packed(full), uid="archive-4", how="beside")
        assert (status, told["problems"][0]["path"]) == (422, "groups")


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

        found = refused(changed(content, name, one))
        assert found.path.startswith(path)
        assert found.accepts

    def test_a_picture_that_is_none(self, content):
        bad = changed(content, "pictures/000001.webp", lambda data: b"<svg onload='x'/>")
        assert refused(bad).says == "cannot be read"
        assert refused(changed(content, "pictures/000001.webp", lambda data: None)).path == "pictures/000001.webp"

    def test_what_a_picture_says_beside_itself_is_left_out(self, content):
        exif = Image.Exif()
        exif[0x0110] = "a camera with a place"
        bad = changed(content, "pictures/000001.webp", lambda data: picture(exif=exif))
        ((row, _),) = read_archive(io.BytesIO(bad)).rows["pictures"]
        assert b"a place" not in row.webp
        assert Image.open(io.BytesIO(row.webp)).size == (40, 30)


def test_an_empty_kitchen_there_and_back(owner, stranger, other):
    content = packed(other)
    mine = kitchen_of(KitchenRecord.objects.exclude(pk=other.pk).get().members.get().user)
    put_in_its_place(mine, read_archive(io.BytesIO(content)))
    mine.refresh_from_db()
    assert packed(mine) == content
    assert mine.settings == Kitchen(name="Elsewhere")

"""A kitchen of every version of the database is brought up to this one: nothing is lost, and all of it can be read."""

import io
import sqlite3
from contextlib import closing

import pytest
from django.core.management import call_command
from django.db import connections
from django.db.migrations.loader import MigrationLoader
from frozen import LARGE, VERSIONS, counted, laid_out

from kemble.core.stations.work_sheet import work
from kemble.server.exports.archive import SORTS, open_archive, write_archive
from kemble.server.models import Batch, KitchenRecord, OccasionRecord, Run, SheetRecord, SheetRevision
from kemble.server.storage.folder import check_database

TABLES = [
    "kitchen_kitchen", "kitchen_sheetrecord", "kitchen_sheetrevision", "kitchen_run", "kitchen_runevent", "kitchen_batch",
    "kitchen_bench", "kitchen_benchmark", "kitchen_occasion", "kitchen_tasting", "kitchen_stock",
]  # fmt: skip


def test_there_is_one_of_every_version():
    """Whoever adds a migration freezes a kitchen of the version before it."""
    ours = sorted(int(name[:4]) for app, name in MigrationLoader(None).disk_migrations if app == "kitchen")
    assert ours[:-1] == [version for version in VERSIONS if version != ours[-1]]


def test_the_large_one_has_some_two_hundred_of_each(tmp_path):
    rows = counted(laid_out(LARGE, tmp_path / "large.sqlite3"), [*TABLES, "kitchen_cuepicture", "kitchen_removed"])
    assert rows.pop("kitchen_kitchen") == 1
    assert min(rows.values()) >= 200, rows


@pytest.fixture(scope="module", params=VERSIONS, ids=lambda version: f"from {version:04d}")
def old(request, tmp_path_factory, django_db_blocker):
    """(file, what it held before): a kitchen of that version, brought up to this one once and then only read."""
    file = laid_out(request.param, tmp_path_factory.mktemp("old") / "old.sqlite3")
    before = counted(file, TABLES)
    connections.databases["old"] = {**connections.databases["default"], "NAME": str(file)}
    with django_db_blocker.unblock():
        call_command("migrate", database="old", verbosity=0)
        yield file, before
        connections["old"].close()
    del connections.databases["old"]
    del connections["old"]


def test_nothing_is_lost_and_all_of_it_is_read(old, request):
    file, before = old
    after = counted(file, TABLES)
    assert before["kitchen_sheetrecord"] >= 1
    assert before["kitchen_run"] >= 1
    assert {table: after[table] for table in before} == before
    check_database(file)
    with closing(sqlite3.connect(file)) as found:
        assert found.execute("PRAGMA foreign_key_check").fetchall() == []

    assert all(kitchen.settings.tins for kitchen in KitchenRecord.objects.using("old"))
    for row in SheetRecord.everything.using("old"):
        assert row.sheet.title == row.title
    for row in SheetRevision.objects.using("old"):
        assert row.sheet
    for run in Run.everything.using("old"):
        assert run.kept.plan.scheduled
        assert run.state().steps
    told = [one for batch in Batch.everything.using("old") for one in batch.compared]
    if request.node.callspec.params["old"] != 3:  # the one of that day holds a batch that nobody timed
        assert told
    assert all(one.predicted > 0 and one.happened >= 0 for one in told)
    for occasion in OccasionRecord.everything.using("old"):
        assert occasion.occasion.servings


def test_what_it_held_can_be_worked_and_taken_out_as_one_file(old):
    _, before = old
    kitchen = KitchenRecord.objects.using("old").first()
    for row in SheetRecord.objects.using("old").filter(way__in=("set-cake", "boiled-balls"))[:3]:
        assert not work(row.sheet, kitchen.settings).problems
    out = io.BytesIO()
    write_archive(kitchen, out, kitchen.created)
    with open_archive(out) as reader:
        found = {sort.name: sum(1 for _ in reader.rows(sort)) for sort in SORTS}
    for name, table in (("sheets", "sheetrecord"), ("runs", "run"), ("batches", "batch"), ("events", "runevent")):
        assert found[name] == before[f"kitchen_{table}"]

"""Backups by themselves: one a day, one before a new version changes the database; what stays, and what is said of a bad one."""

import shutil
import sqlite3
import stat
from collections import namedtuple
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from django.db.migrations.loader import MigrationLoader
from frozen import LARGE, counted, laid_out
from serving import Server, until

from kemble.server.storage import backups
from kemble.server.storage.encryption import SealedFile, is_sealed, seal, unseal
from kemble.server.storage.folder import UnreadableDatabase, check_database, make_private, restore_database

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
DAY = timedelta(days=1)


@pytest.fixture(autouse=True)
def _own_databases(django_db_blocker):
    """Databases in files of the test's own; that of the other tests is not touched."""
    with django_db_blocker.unblock():
        yield


@pytest.fixture
def database(tmp_path):
    """A kitchen of an older version, as it was kept."""
    return laid_out(3, tmp_path / "kemble.sqlite3")


def backup(days, why="daily", size=1_000_000):
    made = NOW - timedelta(days=days)
    return backups.Backup(Path(f"{why}-{days}"), made, why, size)


class TestKeep:
    def test_it_is_whole_and_one_a_day(self, tmp_path, database):
        daily = backups.DailyBackups(tmp_path, database)
        first = daily.look(NOW)
        check_database(first)
        assert daily.look(NOW + DAY / 2) is None
        second = daily.look(NOW + DAY)
        assert [each_backup.path for each_backup in backups.backups_in(tmp_path)] == [second, first]
        assert {each_backup.why for each_backup in backups.backups_in(tmp_path)} == {"daily"}

    def test_one_before_a_change_does_not_stand_for_the_day_s(self, tmp_path, database):
        backups.keep(tmp_path, database, NOW, "before")
        assert backups.is_due(tmp_path, NOW)

    def test_what_a_power_cut_left_is_cleared(self, tmp_path, database):
        backups.place_of(tmp_path).mkdir()
        left = backups.place_of(tmp_path) / ".kemble-abc.part"
        left.write_text("half")
        backups.keep(tmp_path, database, NOW, "daily")
        assert not left.exists()

    def test_sealed_it_tells_nothing_and_opens_with_the_passphrase_alone(self, tmp_path, database, settings):
        settings.PASSPHRASE = "seven grey herons"
        kept = backups.keep(tmp_path, database, NOW, "daily")
        assert kept.name.endswith(".sqlite3.sealed")
        assert is_sealed(kept)
        assert not is_sealed(database)
        assert stat.S_IMODE(kept.stat().st_mode) == 0o600
        assert [path.name for path in backups.place_of(tmp_path).iterdir()] == [kept.name]  # nothing plain beside it
        assert b"SQLite" not in kept.read_bytes()
        assert b"kitchen_sheetrecord" not in kept.read_bytes()
        unseal(kept, tmp_path / "open.sqlite3", "seven grey herons")
        check_database(tmp_path / "open.sqlite3")
        for wrong in ("seven grey heron", ""):
            with pytest.raises(SealedFile):
                unseal(kept, tmp_path / "again.sqlite3", wrong)
        assert not (tmp_path / "again.sqlite3").exists()
        assert [each_backup.path for each_backup in backups.backups_in(tmp_path)] == [kept]

    def test_one_flipped_bit_and_it_does_not_open(self, tmp_path, database, settings):
        settings.PASSPHRASE = "seven grey herons"
        kept = backups.keep(tmp_path, database, NOW, "daily")
        content = bytearray(kept.read_bytes())
        content[len(content) // 2] ^= 1
        kept.write_bytes(content)
        with pytest.raises(SealedFile):
            unseal(kept, tmp_path / "open.sqlite3", "seven grey herons")

    def test_sealed_twice_the_files_have_nothing_in_common(self, tmp_path, database):
        for name in ("a", "b"):
            seal(database, tmp_path / name, "seven grey herons")
        a, b = ((tmp_path / name).read_bytes()[16:1016] for name in ("a", "b"))
        assert sum(x == y for x, y in zip(a, b, strict=True)) < 100

    def test_other_files_are_none_of_ours(self, tmp_path, database):
        backups.place_of(tmp_path).mkdir()
        (backups.place_of(tmp_path) / "holiday.sqlite3").write_text("mine")
        backups.keep(tmp_path, database, NOW, "daily")
        assert (backups.place_of(tmp_path) / "holiday.sqlite3").read_text() == "mine"

    def test_one_that_does_not_hold_is_not_kept(self, tmp_path, database, monkeypatch):
        def torn(source, target):
            target.write_bytes(source.read_bytes()[:5000])

        monkeypatch.setattr(backups, "copy_database", torn)
        with pytest.raises(OSError, match="did not hold"):
            backups.keep(tmp_path, database, NOW, "daily")
        assert backups.backups_in(tmp_path) == []
        assert backups.DailyBackups(tmp_path, database).look(NOW) is None  # and the kitchen goes on

    def test_a_full_disk_is_said_and_not_filled(self, tmp_path, database, monkeypatch):
        usage = namedtuple("usage", "total used free")(10**9, 10**9 - 10**6, 10**6)  # type: ignore[call-arg]
        monkeypatch.setattr(shutil, "disk_usage", lambda _: usage)
        with pytest.raises(backups.DiskFull, match="1 MB left"):
            backups.keep(tmp_path, database, NOW, "daily")
        assert not backups.place_of(tmp_path).exists()


class TestWhatGoes:
    def test_by_number(self):
        """Twenty dailies and eight before changes: the newest fourteen and five stay."""
        all_of_them = sorted(
            [*(backup(i) for i in range(20)), *(backup(i + 0.5, "before") for i in range(8))],
            key=lambda item: item.made,
            reverse=True,
        )
        left = [item for item in all_of_them if item not in backups.backups_to_delete(all_of_them, NOW)]
        assert [item.why for item in left].count("daily") == 14
        assert [item.why for item in left].count("before") == 5
        assert left[0] is all_of_them[0]

    def test_by_age_but_for_the_newest_three(self):
        old = [backup(200 + i) for i in range(6)]
        assert backups.backups_to_delete(old, NOW) == old[3:]

    def test_by_size_together(self):
        """Of half a gigabyte each, four make two: the fifth and all before it go."""
        large = [backup(i, size=500_000_000) for i in range(8)]
        assert backups.backups_to_delete(large, NOW) == large[4:]


def test_a_new_version_keeps_a_copy_first_and_only_once(tmp_path, database):
    """Started on a kitchen of version 3: the copy lies by as it was, the database is changed, and a second start keeps none."""
    server = Server(tmp_path).start(come_in=False)
    server.stop()
    before = [each_backup for each_backup in backups.backups_in(tmp_path) if each_backup.why == "before"]
    assert len(before) == 1
    with closing(sqlite3.connect(before[0].path)) as kept:
        (newest,) = kept.execute("SELECT max(name) FROM django_migrations WHERE app = 'kitchen'").fetchone()
    assert newest.startswith("0003")
    server.start(come_in=False)
    until(lambda: any(each_backup.why == "daily" for each_backup in backups.backups_in(tmp_path)))
    server.stop()
    assert len([each_backup for each_backup in backups.backups_in(tmp_path) if each_backup.why == "before"]) == 1


def test_two_of_one_second_have_names_of_their_own(tmp_path, database):
    """A start that was killed once its backup was made, and tried again at once."""
    names = [backups.keep(tmp_path, database, NOW, "before").name for _ in range(2)]
    assert names == sorted(set(names))
    assert len(backups.backups_in(tmp_path)) == 2


def test_a_damaged_database_is_said_at_the_start_with_what_to_do(tmp_path, database):
    kept = backups.keep(tmp_path, database, NOW, "daily")
    whole = bytearray(database.read_bytes())
    whole[8192:40960] = b"\xff" * (40960 - 8192)
    database.write_bytes(whole)
    with pytest.raises(UnreadableDatabase, match=f"make restore FILE={kept}"):
        backups.sound(tmp_path, database)
    with pytest.raises(RuntimeError, match="make restore FILE="):
        Server(tmp_path).start()


@pytest.fixture(scope="module")
def of_today(tmp_path_factory, django_db_blocker):
    """A kitchen of this version: bringing one up to it takes seconds."""
    folder = tmp_path_factory.mktemp("of-today")
    with django_db_blocker.unblock():
        restore_database(laid_out(3, folder / "before.sqlite3"), folder / "kemble.sqlite3", NOW)
    return folder / "kemble.sqlite3"


@pytest.mark.parametrize("name", ["kitchen #2", "what? this", "100 % whole", "a%20b", "file:x", "ümlaut & more"])
def test_a_backup_may_have_any_name_and_lie_in_any_folder(tmp_path, of_today, name):
    folder = tmp_path / name
    folder.mkdir()
    file = shutil.copy(of_today, folder / f"{name}.sqlite3")
    check_database(file)
    restore_database(file, folder / "kemble.sqlite3", NOW)
    kept = backups.keep(folder, folder / "kemble.sqlite3", NOW, "daily")
    check_database(kept)


def test_no_invitation_outlives_a_restore(tmp_path):
    """One that was used since the backup would let somebody in a second time."""
    file, database = laid_out(LARGE, tmp_path / "backup.sqlite3"), tmp_path / "kemble.sqlite3"
    assert counted(file, ["kitchen_invitation"]) == {"kitchen_invitation": 6}
    restore_database(file, database, NOW)
    assert counted(database, ["kitchen_invitation", "kitchen_member"]) == {"kitchen_invitation": 0, "kitchen_member": 7}


def made_up(file, *, extra=""):
    """A database with the names of two of our tables, which says that every migration was applied."""
    with closing(sqlite3.connect(file)) as made:
        made.executescript(
            "CREATE TABLE django_migrations (id integer PRIMARY KEY, app text, name text, applied text);"
            "CREATE TABLE kitchen_kitchen (id integer PRIMARY KEY, document text);" + extra
        )
        made.executemany(
            "INSERT INTO django_migrations (app, name, applied) VALUES (?, ?, '2026-11-25')",
            list(MigrationLoader(None).disk_migrations),
        )
        made.commit()
    return file


def dumped(file):
    with closing(sqlite3.connect(file)) as database:
        return list(database.iterdump())


class TestWhatIsMadeUp:
    def test_is_not_restored(self, tmp_path):
        database = tmp_path / "kemble.sqlite3"
        database.write_text("the kitchen as it is")
        with pytest.raises(UnreadableDatabase, match=r"made-up\.sqlite3 could not be brought up to this version"):
            restore_database(made_up(tmp_path / "made-up.sqlite3"), database, NOW)
        assert database.read_text() == "the kitchen as it is"
        assert {path.name for path in tmp_path.iterdir()} == {"kemble.sqlite3", "made-up.sqlite3"}

    def test_nor_is_one_that_no_migration_can_change(self, tmp_path):
        file = laid_out(3, tmp_path / "backup.sqlite3")
        with closing(sqlite3.connect(file)) as spoiled:
            spoiled.execute("DROP TABLE kitchen_runevent")
            spoiled.commit()
        with pytest.raises(UnreadableDatabase, match="could not be brought up to this version"):
            restore_database(file, tmp_path / "kemble.sqlite3", NOW)
        assert [path.name for path in tmp_path.iterdir()] == ["backup.sqlite3"]

    def test_nor_one_that_acts_by_itself(self, tmp_path):
        file = laid_out(LARGE, tmp_path / "backup.sqlite3")
        with closing(sqlite3.connect(file)) as spoiled:
            spoiled.execute(
                "CREATE TRIGGER gift AFTER INSERT ON kitchen_sheetrecord BEGIN DELETE FROM kitchen_batch; END"
            )
            spoiled.commit()
        with pytest.raises(UnreadableDatabase, match="“gift”"):
            restore_database(file, tmp_path / "kemble.sqlite3", NOW)

    def test_laid_in_the_place_of_the_database_it_is_said_and_left_alone(self, tmp_path):
        database = made_up(tmp_path / "kemble.sqlite3")
        before = dumped(database)
        with pytest.raises(RuntimeError) as told:
            Server(tmp_path).start()
        assert "It is still there, as it was" in str(told.value)
        assert "Traceback" not in str(told.value)
        assert dumped(database) == before

    def test_and_so_is_one_that_cannot_be_changed_to_this_version(self, tmp_path):
        database = laid_out(3, tmp_path / "kemble.sqlite3")
        with closing(sqlite3.connect(database)) as spoiled:
            spoiled.execute("DROP TABLE kitchen_runevent")
            spoiled.commit()
        with pytest.raises(RuntimeError) as told:
            Server(tmp_path).start()
        (kept,) = backups.backups_in(tmp_path)
        assert f"make restore FILE={kept.path}" in str(told.value)
        assert "Traceback" not in str(told.value)
        assert counted(database, ["kitchen_sheetrecord"]) == {"kitchen_sheetrecord": 1}


def test_what_is_restored_is_of_this_version(tmp_path):
    database = tmp_path / "kemble.sqlite3"
    restore_database(laid_out(1, tmp_path / "old.sqlite3"), database, NOW)
    with closing(sqlite3.connect(database)) as restored:
        (newest,) = restored.execute("SELECT max(name) FROM django_migrations WHERE app = 'kitchen'").fetchone()
    assert newest == max(name for app, name in MigrationLoader(None).disk_migrations if app == "kitchen")
    assert stat.S_IMODE(database.stat().st_mode) == 0o600


def test_a_folder_that_was_open_to_others_is_closed(tmp_path):
    """Made by hand before Kemble came, and with a kitchen of a version that did not look."""
    data = tmp_path / "data"
    data.mkdir()
    laid_out(LARGE, data / "kemble.sqlite3")
    data.chmod(0o755)
    (data / "kemble.sqlite3").chmod(0o644)
    server = Server(data).start(come_in=False)
    until(lambda: backups.backups_in(data))
    there = [
        data,
        *data.glob("kemble.sqlite3*"),
        *(each_backup.path for each_backup in backups.backups_in(data)),
        data / "backups",
    ]
    assert len(there) >= 5  # the log that lies beside the database, too
    assert {path.name: oct(path.stat().st_mode & 0o077) for path in there} == dict.fromkeys(
        [path.name for path in there], "0o0"
    )
    server.stop()


def test_what_is_private_already_is_left_as_it_is(tmp_path):
    tmp_path.chmod(0o700)
    (tmp_path / "note").write_text("mine")
    (tmp_path / "note").chmod(0o400)
    make_private(tmp_path)
    assert stat.S_IMODE((tmp_path / "note").stat().st_mode) == 0o400


def test_a_first_start_that_is_killed_on_the_way_does_no_harm(tmp_path):
    """In the middle of being brought up to this version: the next start goes on from there."""
    database = laid_out(1, tmp_path / "kemble.sqlite3")
    before = counted(database, ["kitchen_sheetrecord", "kitchen_run", "kitchen_runevent"])
    for _ in range(3):
        server = Server(tmp_path, afresh=True)
        server._begin("serve", "--port", str(server.port))
        for line in server.said:
            if line.startswith("Bringing your kitchen up to this version"):
                break
        server.kill()
    Server(tmp_path).start(come_in=False).stop()
    assert counted(database, list(before)) == before
    check_database(database)

"""Against real processes: kills, restores, a folder that is held, and a forwarder on the same machine."""

import io
import socket
import sqlite3
import stat
import threading
import time
import zipfile
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path

import pytest
from serving import QUICK, Hand, Server, free_port, new_uid, run_forked, until
from thorough import times

WRITES = times(1_000, 250)  # of each of two clients
KILLS = times(20, 5)
ROWS = times(100_000, 15_000)


@pytest.fixture
def server(tmp_path, prepared):
    made = Server(prepared.copy("empty", tmp_path / "data")).start()
    yield made
    if made.is_up:
        made.stop()


def sheet_of(hand):
    return hand.ask("POST", "/sheets", {"way": "set-cake", "uid": new_uid()})


def watered(sheet, grams):
    sheet["parts"][0]["lines"][1]["amount"]["value"] = grams
    return sheet


class Cook(threading.Thread):
    """A device: tells of a run that another tells of too, and every other time saves a sheet of its own; each with an id,
    asked again until it is answered."""

    def __init__(self, server, run_number, steps):
        super().__init__()
        self.hand = server.hand()
        opened = sheet_of(self.hand)
        self.sheet, self.number, self.revision = opened["sheet"], opened["id"], opened["revision"]
        self.run_number, self.steps = run_number, steps
        self.events, self.refused = [], []
        self.done = 0

    def run(self):
        for i in range(WRITES):
            body = {"uid": new_uid(), **self.happening(i)}
            status, _ = self.hand.insist("POST", f"/runs/{self.run_number}/events", body)
            self.events.append(body["uid"])
            if i % 2 == 0 and status == 200:
                body = {"uid": new_uid(), "revision": self.revision, "sheet": watered(self.sheet, 300 + i % 40)}
                status, answer = self.hand.insist("PUT", f"/sheets/{self.number}", body)
                if status == 200:
                    self.revision = answer["revision"]
            if status != 200:
                self.refused.append((i, status))
            self.done += 1

    def happening(self, i):
        """A day's script: a step begun, counted, put off and ended, notes between; round and round."""
        step = self.steps[i // 5 % len(self.steps)]
        return (
            {"kind": "started", "step": step},
            {"kind": "counted", "step": step, "times": 1},
            {"kind": "not_yet", "step": step},
            {"kind": "noted", "step": step, "text": f"note {i}"},
            {"kind": "done", "step": step},
        )[i % 5]


def test_kills_lose_nothing_double_nothing_and_make_no_false_conflict(server):
    hand = server.hand()
    run = hand.ask("POST", "/runs", {"sheet": sheet_of(hand)["id"], "uid": new_uid()})
    steps = [item["step"]["id"] for item in run["plan"]["scheduled"]]
    cooks = [Cook(server, run["id"], steps), Cook(server, run["id"], steps)]
    for cook in cooks:
        cook.start()
    for kill in range(1, KILLS + 1):
        while sum(cook.done for cook in cooks) < kill * 2 * WRITES // (KILLS + 1):
            time.sleep(0.005)
        server.kill()
        server.start()
    for cook in cooks:
        cook.join()
    server.stop()
    assert [cook.refused for cook in cooks] == [[], []]
    with closing(sqlite3.connect(server.data / "kemble.sqlite3")) as kept:
        for cook in cooks:
            numbers = [n for (n,) in kept.execute(
                "SELECT number FROM kitchen_sheetrevision WHERE record_id = ? ORDER BY number", (cook.number,)
            )]  # fmt: skip
            assert numbers == list(range(1, WRITES // 2 + 2))
        uids = [u for (u,) in kept.execute(
            "SELECT uid FROM kitchen_runevent WHERE run_id = ? ORDER BY id", (run["id"],)
        )]  # fmt: skip
        assert len(uids) == len(set(uids)) == 2 * WRITES
        for cook in cooks:  # each one's own in the order in which it told them
            mine = set(cook.events)
            assert [uid for uid in uids if uid in mine] == cook.events


def test_fifty_savers_wait_their_turn_and_none_is_refused(server):
    hands = [server.hand() for _ in range(50)]
    opened = [sheet_of(hand) for hand in hands]
    with ThreadPoolExecutor(50) as pool:
        for turn in range(3):
            bodies = [
                {"uid": new_uid(), "revision": turn + 1, "sheet": watered(item["sheet"], 300 + turn)} for item in opened
            ]
            paths = [f"/api/sheets/{item['id']}" for item in opened]
            answers = pool.map(lambda hand, path, body: hand.try_to("PUT", path, body)[0], hands, paths, bodies)
            assert set(answers) == {200}


def test_restores_of_a_history_that_goes_on(server, tmp_path):
    """As the README says: stop, `make restore FILE=`, start. Stopped and killed in turns, so that a log stays behind."""
    for turn in range(times(6, 2)):
        hand = server.hand()
        kept = sheet_of(hand)["id"]
        file = tmp_path / f"backup-{turn}.sqlite3"
        assert server.manage("backup", str(file)).returncode == 0
        lost = sheet_of(hand)["id"]
        server.kill() if turn % 2 else server.stop()
        told = server.manage("restore", str(file))
        assert told.returncode == 0, told.stderr
        aside = next(server.data.glob("kemble-before-*.sqlite3"))
        assert str(aside) in told.stdout
        with closing(sqlite3.connect(aside)) as before:
            assert before.execute("SELECT count(*) FROM kitchen_sheetrecord WHERE id = ?", (lost,)).fetchone() == (1,)
        for path in server.data.glob("kemble-before-*"):
            path.unlink()
        server.session = None
        server.start()
        assert server.hand().ask("GET", f"/sheets/{kept}")["id"] == kept
        status, _ = server.hand().try_to("GET", f"/api/sheets/{lost}")
        assert status == 404


def kemble(server, *arguments, **environment):
    """The `kemble` command as somebody types it (in a process of its own: tests/test_cli.py)."""
    return run_forked("kemble", [*map(str, arguments)], {**server.environment, **environment})


class TestTheCommandLine:
    def test_a_sealed_backup_there_and_back(self, server, tmp_path):
        kept = sheet_of(server.hand())["id"]
        file = tmp_path / "kitchen.sealed"
        assert "KEMBLE_PASSPHRASE" in kemble(server, "backup", file).stderr
        secret = {"KEMBLE_PASSPHRASE": "seven grey herons"}
        assert kemble(server, "backup", file, **secret).returncode == 0
        lost = sheet_of(server.hand())["id"]
        server.stop()
        for wrong in ({}, {"KEMBLE_PASSPHRASE": "another"}):
            told = kemble(server, "restore", file, **wrong)
            assert (told.returncode, len(told.stderr.splitlines())) == (2, 1)
        assert kemble(server, "restore", file, **secret).returncode == 0
        assert not list(server.data.glob(".kemble-*"))
        server.session = None
        server.start()
        assert server.hand().ask("GET", f"/sheets/{kept}")["id"] == kept
        assert server.hand().try_to("GET", f"/api/sheets/{lost}")[0] == 404

    def test_a_kitchen_as_one_file_out_of_one_house_and_into_another(self, server, tmp_path):
        title = sheet_of(server.hand())["sheet"]["title"]
        file = tmp_path / "kitchen.zip"
        told = kemble(server, "backup", file)
        assert (told.returncode, "open to whoever has it" in told.stdout) == (0, True), told.stderr
        assert kemble(server, "backup", file).returncode == 2  # it is there already
        other = Server(tmp_path / "other")
        assert "in use" in kemble(server, "restore", file).stderr
        told = kemble(other, "restore", file, "--beside", "sheets")
        assert (told.returncode, "things of" in told.stdout) == (0, True), told.stderr
        assert "none of" in kemble(other, "restore", file, "--beside", "moons").stderr
        other.start()
        assert [item["title"] for item in other.hand().ask("GET", "/sheets")["sheets"]] == [title]
        other.stop()

    def test_what_is_no_backup(self, server, tmp_path):
        server.stop()
        for name, content in (("none.zip", b"PK"), ("none.sqlite3", b"SQLite"), ("none.sealed", b"kemble-sealed-1\nx")):
            (tmp_path / name).write_bytes(content)
            told = kemble(server, "restore", tmp_path / name, KEMBLE_PASSPHRASE="x")
            assert (told.returncode, len(told.stderr.splitlines())) == (2, 1), told.stderr
        told = kemble(server, "restore", tmp_path / "missing.sqlite3")
        assert (told.returncode, "no file" in told.stderr) == (2, True)


def test_a_folder_in_use_is_left_alone(server, tmp_path):
    hand = server.hand()
    sheet_of(hand)
    backup = tmp_path / "copy.sqlite3"
    assert server.manage("backup", str(backup)).returncode == 0  # this one may
    for refused in (("serve", "--demo", "--port", str(free_port())), ("restore", str(backup))):
        told = server.manage(*refused)
        assert told.returncode != 0
        assert "is in use by a Kemble that is running" in told.stderr
    assert hand.ask("GET", "/sheets")["total"] == 1


def test_a_stop_leaves_one_whole_file(server):
    sheet_of(server.hand())
    server.stop()
    assert sorted(path.name for path in server.data.glob("kemble.sqlite3*")) == ["kemble.sqlite3"]


def test_a_backup_is_private_and_lets_nobody_in(server, tmp_path):
    file = tmp_path / "copy.sqlite3"
    assert server.manage("backup", str(file)).returncode == 0
    assert stat.S_IMODE(file.stat().st_mode) == 0o600
    assert server.session.encode() not in file.read_bytes()
    with closing(sqlite3.connect(file)) as copy:
        for table in ("django_session", "kitchen_doorkey", "kitchen_passwordattempt", "kitchen_invitation"):
            assert copy.execute(f"SELECT count(*) FROM {table}").fetchone() == (0,)
        assert copy.execute("SELECT count(*) FROM kitchen_kitchen").fetchone() == (1,)


class Forwarder(threading.Thread):
    """A plain relay on this machine: whatever comes in on its port goes to the server, from this machine's address."""

    def __init__(self, to):
        super().__init__(daemon=True)
        self.to = to
        self.door = socket.create_server(("127.0.0.1", 0))
        self.port = self.door.getsockname()[1]

    def run(self):
        while True:
            try:
                outside, _ = self.door.accept()
            except OSError:
                return
            inside = socket.create_connection(("127.0.0.1", self.to))
            for source, target in ((outside, inside), (inside, outside)):
                threading.Thread(target=self.pour, args=(source, target), daemon=True).start()

    @staticmethod
    def pour(source, target):
        while part := source.recv(65536):
            target.sendall(part)
        target.shutdown(socket.SHUT_WR)


@pytest.mark.parametrize(
    "headers", [{}, {"X-Forwarded-For": "127.0.0.1"}, {"Forwarded": "for=127.0.0.1;host=localhost"}]
)
def test_a_forwarder_that_says_localhost_is_refused(server, headers):
    forwarder = Forwarder(server.port)
    forwarder.start()
    stranger = Hand(forwarder.port, host="localhost")
    assert stranger.try_to("GET", "/api/session", **headers)[1]["signed_in"] is False
    for path in ("/api/sheets", "/api/kitchen", "/api/log"):
        assert stranger.try_to("GET", path, **headers)[0] == 401
    stranger.try_to("GET", "/")
    assert stranger.try_to("POST", "/api/sheets", {"way": "set-cake"}, **headers)[0] == 401
    used = stranger.try_to("POST", "/api/session/key", {"key": server.key}, **headers)
    assert used[0] == 422  # the owner's browser has been in with it
    forwarder.door.close()
    assert server.hand().ask("GET", "/sheets")["total"] == 0


def test_only_a_trusted_proxy_is_believed(tmp_path, prepared):
    """Behind one, tries are counted by the address that it names, so that one household is not all of them."""
    for trusted, answers in (("127.0.0.1", [422] * 31), ("", [422] * 30 + [429])):
        data = prepared.copy("empty", tmp_path / (trusted or "none"))
        server = Server(data, KEMBLE_PROXY=trusted, **QUICK).start()
        hand = Hand(server.port)
        hand.try_to("GET", "/")
        given = []
        for i in range(31):  # each at another account: what they share is the place that they come from
            wrong = {"username": f"somebody-{i}", "password": "wrong guess"}
            given.append(hand.try_to("POST", "/api/session", wrong, **{"X-Forwarded-For": f"192.0.2.{i}"})[0])
        server.stop()
        assert given == answers


def test_asked_always_there_is_no_key_and_no_door_without_a_password(tmp_path):
    server = Server(tmp_path / "data", KEMBLE_ASK="1")
    with pytest.raises(RuntimeError, match="make password"):
        server.start()
    assert "everybody gives the password" in server.manage("key").stderr


def many_rows(hand, count):
    """The kitchen's own file with so many events in its first run: small when it is packed."""
    status, content = hand.had("/api/archive")
    assert status == 200
    out = io.BytesIO()
    row = (
        '{"run": 1, "uid": "many-%07d", "at": "2026-11-25T09:00:00+00:00", "document": {"kind": "noted", "text": "x"}}'
    )
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        for info in old.infolist():
            events = "\n".join(row % i for i in range(count)).encode()
            new.writestr(info.filename, events if info.filename == "events.jsonl" else old.read(info))
    return out.getvalue()


def memory_mb(server, row):
    return int(Path(f"/proc/{server.process.pid}/status").read_text().split(row)[1].split()[0]) / 1024


@pytest.mark.skipif(not Path("/proc/self/status").exists(), reason="memory is read as Linux tells it")
def test_very_many_rows_come_in_while_others_write(server):
    """Read as a stream: 300 MB above rest at the most, and nobody waits long for their turn to write."""
    hand = server.hand()
    sheet = sheet_of(hand)
    run = hand.ask("POST", "/runs", {"sheet": sheet["id"]})["id"]
    file = many_rows(hand, ROWS)
    assert len(file) < 20 * ROWS
    hand.ask("DELETE", f"/runs/{run}")
    rest = memory_mb(server, "VmRSS:")
    job = hand.send_file("/api/archive/staged", file)
    waits, writer = [], server.hand()
    revision = 1
    while (told := hand.ask("GET", f"/archive/staged/{job['id']}"))["state"] == "reading":
        began = time.monotonic()
        body = {"uid": new_uid(), "revision": revision, "sheet": watered(sheet["sheet"], 300 + revision)}
        revision = writer.ask("PUT", f"/sheets/{sheet['id']}", body)["revision"]
        waits.append(time.monotonic() - began)
    assert told["state"] == "ready", told
    assert told["rows"] > ROWS
    hand.ask("POST", f"/archive/staged/{job['id']}/take", {"how": "beside", "groups": ["log"]})
    told = until(lambda: (now := hand.ask("GET", f"/archive/staged/{job['id']}"))["state"] != "taking" and now)
    assert (told["state"], told["ended"]) == ("taken", 1)
    assert told["added"] > ROWS
    assert memory_mb(server, "VmHWM:") - rest < 300
    assert len(waits) > times(20, 3)
    print(f"memory +{memory_mb(server, 'VmHWM:') - rest:.0f} MB, {len(waits)} saves, the slowest {max(waits):.2f} s")

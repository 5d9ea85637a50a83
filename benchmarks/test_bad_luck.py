"""A kitchen of years and many hands: its lists, its first start, saves while a day is planned, and what it weighs after
twenty thousand requests. Run with `make bench`; nothing here can fail a build.
"""

import itertools
import json
import random
import threading
import time
from datetime import UTC, datetime, timedelta

import pytest
from large import blown_up
from promises import amount, measured
from serving import Server, new_uid
from test_load import p95
from test_memory import weighs

LISTS = (
    "/sheets", "/sheets?page=60", "/sheets?find=cake", "/sheets?by=title", "/sheets?size=50", "/log", "/log?page=200",
    "/log?find=cake", "/log?verdict=just+right&since=2020-01-01", "/log/over-time?of=hydration_pct", "/occasions", "/runs",
    "/benches?sheet=1", "/splits", "/to-eat", "/to-taste", "/dropped", "/learned", "/eye", "/kitchen", "/ways", "/larder",
    "/household", "/feasts", "/sheets/1", "/sheets/1/revisions", "/log/1", "/log/1/next", "/tables",
)  # fmt: skip


@pytest.fixture(scope="module")
def years(tmp_path_factory):
    """A server on a kitchen with 2,000 sheets and 10,000 batches."""
    data = tmp_path_factory.mktemp("years") / "data"
    data.mkdir()
    blown_up(10, data / "kemble.sqlite3", sheets=amount(2_000, 130), batches=amount(10_000, 300))
    server = Server(data, afresh=True).start()
    yield server
    server.stop()


def timed(hand, path):
    began = time.perf_counter()
    status, _ = hand.try_to("GET", f"/api{path}")
    assert status == 200, (path, status)
    return (time.perf_counter() - began) * 1000


def test_every_list_of_a_kitchen_of_years(years):
    hand = years.hand()
    print()
    for path in LISTS:
        cold = timed(hand, path)
        while path.startswith("/sheets?") or path == "/sheets":  # until all of its cards are worked
            if not any(item["pending"] for item in hand.ask("GET", path)["sheets"]):
                break
        warm = sorted(timed(hand, path) for _ in range(7))[3]
        print(f"  {path:<48} first {cold:6.0f} ms, then {warm:5.0f} ms")
        measured("list", warm)
    before = hand.ask("GET", "/kitchen")
    named = {**before["kitchen"], "altitude_m": before["kitchen"]["altitude_m"] + 100}
    hand.ask("PUT", "/kitchen", {"kitchen": named, "revision": before["revision"]})
    for path in ("/sheets?size=50", "/occasions"):
        anew = timed(hand, path)
        print(f"  {path} after the settings changed: {anew:.0f} ms")
        measured("list-first", anew)


def test_the_first_start_of_a_large_old_database(tmp_path):
    data = tmp_path / "data"
    data.mkdir()
    blown_up(1, data / "kemble.sqlite3", sheets=amount(2_000, 20), batches=amount(5_000, 30))
    size = (data / "kemble.sqlite3").stat().st_size
    server = Server(data, afresh=True)
    began = time.perf_counter()
    server._begin("serve", "--port", str(server.port))
    lines = []
    for line in server.said:
        lines.append(f"{time.perf_counter() - began:.1f} s {line.rstrip()}")
        if line.startswith("Kemble is at"):
            break
    took = time.perf_counter() - began
    server.stop()
    print(f"\n  {size / 1e6:.0f} MB of version 1: {took:.1f} s", *lines[:3], sep="\n    ")
    measured("start-old", took)
    began = time.perf_counter()
    server.start(come_in=False)
    again = time.perf_counter() - began
    server.kill()
    began = time.perf_counter()
    server.start(come_in=False)
    print(f"  started again: {again:.1f} s, after a kill {time.perf_counter() - began:.1f} s")
    measured("start-killed", time.perf_counter() - began)
    server.stop()


def test_twenty_savers_while_a_day_of_eight_sheets_is_planned(tmp_path, prepared):
    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    hands = [server.hand() for _ in range(20)]
    for hand in hands:
        hand.try_to("GET", "/")
    sheets = [hand.ask("POST", "/sheets", {"way": "set-cake", "uid": new_uid()}) for hand in hands]
    numbers = [item["id"] for item in hands[0].ask("GET", "/sheets?size=50")["sheets"] if item["id"] <= 17][:8]
    soonest = datetime.now(UTC) + timedelta(days=9)
    dishes = [{"sheet": number} for number in numbers]
    waits: list[float] = []
    ends = threading.Event()

    def save(hand, sheet):
        for revision in itertools.count(1):
            if ends.wait(random.uniform(0.5, 1.5)):
                return
            began = time.perf_counter()
            hand.ask("PUT", f"/sheets/{sheet['id']}", {"uid": new_uid(), "revision": revision, "sheet": sheet["sheet"]})
            waits.append((time.perf_counter() - began) * 1000)

    savers = [threading.Thread(target=save, args=pair) for pair in zip(hands, sheets, strict=True)]
    for saver in savers:
        saver.start()
    planner, planned, begins = server.hand(), 0, time.perf_counter()
    # One day after another, so that one is being planned all the while.
    while time.perf_counter() - begins < amount(25, 2):
        at = f"{soonest + timedelta(days=planned):%Y-%m-%d}T15:30"
        table = {"title": f"eight {planned}", "servings": [{"at": at, "people": 40}], "dishes": dishes}
        made = planner.ask("POST", "/occasions", {"occasion": table, "uid": new_uid()})
        while planner.ask("GET", f"/occasions/{made['id']}").get("planning"):
            pass
        planned += 1
    ends.set()
    for saver in savers:
        saver.join()
    server.stop()
    print(f"\n  {planned} days of eight sheets planned; {len(waits)} saves meanwhile, p95 {p95(waits):.0f} ms")
    measured("saves", p95(waits))


def test_it_does_not_grow_over_twenty_thousand_mixed_requests(tmp_path, prepared):
    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    hand, pid = server.hand(), server.process.pid
    sheet = hand.ask("POST", "/sheets", {"way": "set-cake", "uid": new_uid()})
    run = hand.ask("POST", "/runs", {"sheet": sheet["id"], "uid": new_uid()})["id"]
    chance, revision = random.Random(26), 1
    reads = (
        "/runs",
        "/kitchen",
        "/sheets",
        "/log",
        "/log/3",
        "/ways",
        "/larder",
        f"/runs/{run}",
        "/learned",
        "/occasions",
    )

    def mixed(count):
        nonlocal revision
        for i in range(count):
            kind = i % 10
            if kind < 6:
                assert hand.try_to("GET", f"/api{chance.choice(reads)}")[0] == 200
            elif kind < 8:
                uid = f"note-{chance.randrange(300):04d}"  # most of them sent before: the run does not grow without end
                event = {"uid": uid, "kind": "noted", "text": "x"}
                assert hand.try_to("POST", f"/api/runs/{run}/events", event)[0] == 200
            elif kind == 8:
                document = json.loads(json.dumps(sheet["sheet"]))
                document["parts"][0]["lines"][0]["amount"]["value"] = 300 + chance.random() * 100
                assert hand.try_to("POST", "/api/work", {"sheet": document})[0] == 200
            else:
                body = {"uid": new_uid(), "revision": revision, "sheet": sheet["sheet"]}
                revision = hand.ask("PUT", f"/sheets/{sheet['id']}", body)["revision"]

    time.sleep(amount(10, 0))  # until it has loaded what it loads after the first page
    mixed(amount(1_000, 20))
    before, _ = weighs(pid)
    grown = []
    for _ in range(amount(19, 2)):
        mixed(amount(1_000, 20))
        grown.append(weighs(pid)[0] - before)
        print(f"  {1_000 * (len(grown) + 1):,} requests: {grown[-1]:+.0f} MB", flush=True)
    server.stop()
    print(f"\n  {before:.0f} MB after a thousand; then " + ", ".join(f"{mb:+.0f}" for mb in grown))
    measured("memory-mixed", max(grown))


def test_many_wrong_passwords_at_once(tmp_path, prepared):
    """Ten at once, hashed in earnest, while somebody reads."""
    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    hand = server.hand()
    hand.ask("PUT", "/session/password", {"password": "mending circle tea"})
    guessers = [server.hand() for _ in range(amount(10, 2))]
    for guesser in guessers:
        guesser.cookies.pop("sessionid")
        guesser.try_to("GET", "/")
    wrong = {"username": "owner", "password": "wrong guess of mine"}
    threads = [threading.Thread(target=guesser.try_to, args=("POST", "/api/session", wrong)) for guesser in guessers]
    for thread in threads:
        thread.start()
    reads = []
    while any(thread.is_alive() for thread in threads):
        reads.append(timed(hand, "/sheets"))
    server.stop()
    print(f"\n  {len(reads)} reads meanwhile, p95 {p95(reads):.0f} ms")
    measured("reads-hashing", p95(reads))


def test_a_table_of_three_hundred_batches_while_others_save(tmp_path, prepared):
    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep").start()
    hand, writer = server.hand(), server.hand()
    titles = [item["title"] for item in hand.ask("GET", "/sheets?size=50")["sheets"]]
    rows = [
        f'2020-{1 + i % 12:02d}-{1 + i % 28:02d} {i % 24:02d}:{i % 60:02d},"{titles[i % 12]}",just right'
        for i in range(amount(300, 10))
    ]
    text = "\n".join(["made,title,verdict", *rows])
    sheet, waits, answer = hand.ask("POST", "/sheets", {"way": "set-cake"}), [], []

    def send():
        began = time.perf_counter()
        answer.append(hand.ask("POST", "/tables", {"text": text, "keep": True, "uid": new_uid()}))
        answer.append(time.perf_counter() - began)

    sending = threading.Thread(target=send)
    sending.start()
    for revision in itertools.count(1):
        began = time.perf_counter()
        writer.ask("PUT", f"/sheets/{sheet['id']}", {"uid": new_uid(), "revision": revision, "sheet": sheet["sheet"]})
        waits.append((time.perf_counter() - began) * 1000)
        if not sending.is_alive():
            break
    server.stop()
    told, took = answer
    print(
        f"\n  {told['added']} batches in {took:.1f} s; {len(waits)} saves meanwhile, p95 {p95(waits):.0f}, worst {max(waits):.0f} ms"
    )
    measured("saves-table", p95(waits))

"""Long lists and many hands, measured over plain HTTP against a real server. Run with `make bench`; nothing can fail here.

Fifty savers without a refusal; fifty pages whose sheets all differ are answered in turn, none left for last.
"""

import copy
import os
import statistics
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "tests" / "helpers"))

from promises import amount  # noqa: E402
from serving import Server, new_uid  # noqa: E402
from test_speed import told  # noqa: E402

HANDS = amount(50, 4)


@pytest.fixture
def server(tmp_path, prepared):
    made = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep", afresh=True).start()
    yield made
    made.stop()


def fill(server, sheets, batches):
    """Rows as the application makes them, put in by the database while the server stands still."""
    server.stop()
    code = f"""
import django; django.setup()
from kemble.server.models import Batch, KitchenRecord, Run, SheetRecord
kitchen, like, run = KitchenRecord.objects.get(), SheetRecord.objects.first(), Run.objects.filter(batch__isnull=False).first()
SheetRecord.objects.bulk_create(
    (SheetRecord(kitchen=kitchen, title=f"Cake {{i}}", way=like.way, document=like.document) for i in range({sheets})),
    batch_size=500)
runs = Run.objects.bulk_create(
    (Run(kitchen=kitchen, title=f"Batch {{i}}", way=run.way, frozen=run.frozen,
         began=run.began, clock_began=run.began, finished=run.began) for i in range({batches})), batch_size=100)
Batch.objects.bulk_create(
    (Batch(run=one, kitchen=kitchen, title=one.title, way=one.way, made=one.began, rehearsed=False,
           hydration_pct=120.0, sugar_pct=80.0, verdict="just right") for one in runs), batch_size=500)
"""
    command = [sys.executable, "-c", code]
    assert os.spawnve(os.P_WAIT, sys.executable, command, server.environment) == 0
    server.start("--demo", "--keep")


def timed(hand, path, rounds=20):
    result = []
    for _ in range(rounds):
        began = time.perf_counter()
        hand.ask("GET", path)
        result.append((time.perf_counter() - began) * 1000)
    return result


@pytest.mark.parametrize("count", [300, amount(2_000, 400)])
def test_a_shelf(server, count):
    fill(server, count, 0)
    hand = server.hand()
    first = timed(hand, "/sheets", 1)
    told(f"{count} sheets, first page, worked for the first time", first)
    told(f"{count} sheets, first page", timed(hand, "/sheets"), "shelf")
    told(f"{count} sheets, page 10 for the first time", timed(hand, "/sheets?page=10", 1))
    told(f"{count} sheets, one sought by name", timed(hand, "/sheets?find=Cake+29"))


def test_a_long_log(server):
    fill(server, 0, amount(10_000, 200))
    hand = server.hand()
    told("10 000 batches, first page", timed(hand, "/log"), "log")
    told("10 000 batches, page 400", timed(hand, "/log?page=400"))
    told("10 000 batches, one sought by its words", timed(hand, "/log?find=Batch+9876"))
    told("10 000 batches, of a verdict and a year", timed(hand, "/log?verdict=just+right&since=2026-01-01"))
    told("10 000 batches, hydration over time", timed(hand, "/log/over-time?of=hydration_pct", 5))
    told("a sheet with a map of 10 000 batches", timed(hand, "/sheets/1"))


def together(hands, ask):
    """Every hand asks at once; how long each waited, in ms, and what it was told."""

    def one(i):
        began = time.perf_counter()
        status = ask(hands[i], i)
        return (time.perf_counter() - began) * 1000, status

    with ThreadPoolExecutor(HANDS) as pool:
        return list(pool.map(one, range(HANDS)))


def test_fifty_pages_at_once(server):
    hands = [server.hand() for _ in range(HANDS)]
    for hand in hands:
        hand.try_to("GET", "/")
    sheets = [hands[0].ask("GET", f"/sheets/{1 + i % 16}")["sheet"] for i in range(HANDS)]
    alone = [copy.deepcopy(sheet) for sheet in sheets]

    def vary(sheet, by):
        sheet["parts"][0]["lines"][0]["amount"]["value"] += by
        return sheet

    began = time.perf_counter()
    for i, sheet in enumerate(alone):
        hands[0].ask("POST", "/work", {"sheet": vary(sheet, 0.01 * (i + 1))})
    told("fifty sheets, one after another, all of them", [(time.perf_counter() - began) * 1000])
    for turn in range(3):
        result = together(
            hands,
            lambda hand, i, turn=turn: hand.try_to(
                "POST", "/api/work", {"sheet": vary(copy.deepcopy(sheets[i]), 1 + turn + 0.01 * i)}
            )[0],
        )
        assert {status for _, status in result} == {200}
        waits = [wait for wait, _ in result]
        told(f"fifty pages at once, all differing, turn {turn + 1}", waits)
        print(f"    slowest over median: {max(waits) / statistics.median(waits):.1f}")


def test_fifty_savers(server):
    hands = [server.hand() for _ in range(HANDS)]
    for hand in hands:
        hand.try_to("GET", "/")
    opened = [hand.ask("POST", "/sheets", {"way": "set-cake", "uid": new_uid()}) for hand in hands]
    for turn in range(4):

        def save(hand, i, turn=turn):
            body = {"uid": new_uid(), "revision": 1 + turn, "sheet": opened[i]["sheet"]}
            return hand.try_to("PUT", f"/api/sheets/{opened[i]['id']}", body)[0]

        result = together(hands, save)
        told(
            f"fifty savers, turn {turn + 1}, {sum(status == 200 for _, status in result)} kept", [w for w, _ in result]
        )

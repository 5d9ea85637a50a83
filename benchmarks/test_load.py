"""Fifty cooks in one household, each with a making of their own: what they read and what they tell, as they press.

Promised on two cores: 95 % of reads under 200 ms, of events under 300 ms, no error, no lock that reaches a person.
"""

import random
import sys
import threading
import time
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests"))

from serving import Prepared, Server, new_uid  # noqa: E402

COOKS, LASTS_S = 50, 30.0
READS_MS, EVENTS_MS = 200, 300


class Cook(threading.Thread):
    """Presses every second or three: looks at the run, at the counter now and then, and tells what has happened."""

    def __init__(self, server, run, steps, seed, ends):
        super().__init__(daemon=True)
        self.hand, self.run_id, self.steps, self.ends = server.hand(), run, steps, ends
        self.hand.ask("GET", "/session")  # and its token
        self.chance = random.Random(seed)
        self.reads, self.events, self.wrong = [], [], []

    def run(self):
        told = 0
        while time.monotonic() < self.ends:
            time.sleep(self.chance.uniform(1.0, 3.0))
            self.ask(
                self.reads, "GET", self.chance.choice([f"/runs/{self.run_id}", f"/runs/{self.run_id}/news", "/runs"])
            )
            step = self.steps[told // 2 % len(self.steps)]
            event = {"uid": new_uid(), "kind": ("started", "done")[told % 2], "step": step, "sure": True}
            self.ask(self.events, "POST", f"/runs/{self.run_id}/events", event)
            told += 1

    def ask(self, times, method, path, body=None):
        begins = time.perf_counter()
        status, answer = self.hand.try_to(method, f"/api{path}", body)
        times.append((time.perf_counter() - begins) * 1000)
        if status != 200:
            self.wrong.append((status, answer))


@pytest.fixture(scope="module")
def server(tmp_path_factory):
    root = tmp_path_factory.mktemp("load")
    made = Server(Prepared(root).copy("demo", root / "data"), "--demo", "--keep").start()
    yield made
    made.stop()


def p95(times):
    return sorted(times)[int(0.95 * len(times))]


def test_fifty_cooks(server):
    hand = server.hand()
    sheets = hand.ask("GET", "/sheets?size=50")["sheets"]
    begun = []
    for i in range(COOKS):
        run = hand.ask("POST", "/runs", {"sheet": sheets[i % len(sheets)]["id"], "uid": new_uid()})
        begun.append((run["id"], [one["step"]["id"] for one in run["plan"]["scheduled"]]))
    ends = time.monotonic() + LASTS_S
    cooks = [Cook(server, run, steps, seed, ends) for seed, (run, steps) in enumerate(begun)]
    for cook in cooks:
        cook.start()
    for cook in cooks:
        cook.join()
    reads, events = ([ms for cook in cooks for ms in getattr(cook, name)] for name in ("reads", "events"))
    wrong = [one for cook in cooks for one in cook.wrong]
    print(
        f"\n  {COOKS} cooks, {LASTS_S:.0f} s: reads {len(reads)}, p95 {p95(reads):.0f} of {READS_MS} ms;"
        f" events {len(events)}, p95 {p95(events):.0f} of {EVENTS_MS} ms; wrong {len(wrong)}"
    )
    assert wrong == []
    for run, _ in begun:
        uids = [event["uid"] for event in hand.ask("GET", f"/runs/{run}")["events"]]
        assert len(uids) == len(set(uids))

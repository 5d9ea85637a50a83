"""Fifty cooks, each in a kitchen of their own with a making on: what they read and what they tell, as they press.

Promised on two cores (promises.py), with no error and no lock that reaches a person.
"""

import random
import re
import statistics
import sys
import threading
import time
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests"))

from promises import measured
from serving import Hand, Prepared, Server, new_uid

WAYS = ("set-cake", "boiled-balls", "batter-bake", "tray-rice", "stirred-rounds")

COOKS, LASTS_S = 50, 30.0


class Cook(threading.Thread):
    """Presses every second or three: looks at the run, at the counter now and then, and tells what has happened."""

    def __init__(self, hand, run, steps, seed, ends):
        super().__init__(daemon=True)
        self.hand, self.run_id, self.steps, self.ends = hand, run, steps, ends
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


# Said to the server's own shell: a user, a kitchen and a session for each cook.
SEATS = """
from django.contrib.auth import SESSION_KEY, BACKEND_SESSION_KEY, HASH_SESSION_KEY
from django.contrib.auth.models import User
from django.contrib.sessions.backends.db import SessionStore
from kemble.core.kitchen.document import Kitchen
from kemble.server.models import KitchenRecord, Member
for i in range({cooks}):
    user = User.objects.create_user(f"cook-{{i}}")
    kitchen = KitchenRecord.objects.create(document=Kitchen(name=f"Kitchen {{i}}").model_dump(mode="json"))
    Member.objects.create(kitchen=kitchen, user=user, role="owner")
    session = SessionStore()
    session[SESSION_KEY], session[BACKEND_SESSION_KEY] = str(user.pk), "django.contrib.auth.backends.ModelBackend"
    session[HASH_SESSION_KEY] = user.get_session_auth_hash()
    session.save()
    print("seat", session.session_key)
"""


@pytest.fixture(scope="module")
def hands(tmp_path_factory):
    """A browser for each cook, signed in."""
    root = tmp_path_factory.mktemp("load")
    server = Server(Prepared(root).copy("empty", root / "data")).start()
    told = server.manage("shell", "-v", "0", "-c", SEATS.format(cooks=COOKS))
    found = []
    for key in re.findall(r"seat (\S+)", told.stdout):
        hand = Hand(server.port)
        hand.cookies["sessionid"] = key
        hand.ask("GET", "/session")  # and its token
        found.append(hand)
    assert len(found) == COOKS, told.stderr
    yield found
    server.stop()


def p95(times):
    return sorted(times)[int(0.95 * len(times))]


def test_fifty_cooks(hands):
    begun = []
    for i, hand in enumerate(hands):
        sheet = hand.ask("POST", "/sheets", {"way": WAYS[i % len(WAYS)], "uid": new_uid()})
        run = hand.ask("POST", "/runs", {"sheet": sheet["id"], "uid": new_uid()})
        begun.append((hand, run["id"], [one["step"]["id"] for one in run["plan"]["scheduled"]]))
    ends = time.monotonic() + LASTS_S
    cooks = [Cook(hand, run, steps, seed, ends) for seed, (hand, run, steps) in enumerate(begun)]
    for cook in cooks:
        cook.start()
    for cook in cooks:
        cook.join()
    reads, events = ([ms for cook in cooks for ms in getattr(cook, name)] for name in ("reads", "events"))
    wrong = [one for cook in cooks for one in cook.wrong]
    print(
        f"\n  {COOKS} cooks, {LASTS_S:.0f} s: reads {len(reads)}, median {statistics.median(reads):.0f},"
        f" p95 {p95(reads):.0f} ms; events {len(events)}, median {statistics.median(events):.0f},"
        f" p95 {p95(events):.0f} ms; wrong {len(wrong)}"
    )
    measured("reads", p95(reads))
    measured("events", p95(events))
    measured("wrong", len(wrong))
    for hand, run, _ in begun:
        uids = [event["uid"] for event in hand.ask("GET", f"/runs/{run}")["events"]]
        assert len(uids) == len(set(uids))

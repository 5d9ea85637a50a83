"""Fifty cooks, each in a kitchen of their own with a making on: what they read and what they tell, as they press.

Promised on two cores (promises.py), with no error and no lock that reaches a person.
"""

import copy
import random
import re
import statistics
import sys
import threading
import time
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests" / "helpers"))

from promises import amount, measured
from serving import Hand, Prepared, Server, new_uid

WAYS = ("set-cake", "boiled-balls", "batter-bake", "tray-rice", "stirred-rounds")

COOKS, LASTS_S = amount(50, 3), amount(30.0, 4.0)
EDITS = 0.2  # of the presses


class Cook(threading.Thread):
    """Presses every second or three: looks at the run, at the counter now and then, and tells what has happened; one press
    in ten moves an amount of a sheet, and one in ten saves it."""

    def __init__(self, hand, sheet, run, steps, seed, ends):
        super().__init__(daemon=True)
        self.hand, self.sheet, self.run_id, self.steps, self.ends = hand, sheet, run, steps, ends
        self.chance, self.revision = random.Random(seed), 1
        self.reads, self.events, self.works, self.saves, self.wrong = [], [], [], [], []

    def run(self):
        told = 0
        while time.monotonic() < self.ends:
            time.sleep(self.chance.uniform(1.0, 3.0))
            kind = self.chance.random()
            if kind < EDITS:
                self.edit(saves=kind < EDITS / 2)
                continue
            self.ask(
                self.reads, "GET", self.chance.choice([f"/runs/{self.run_id}", f"/runs/{self.run_id}/news", "/runs"])
            )
            step = self.steps[told // 2 % len(self.steps)]
            event = {"uid": new_uid(), "kind": ("started", "done")[told % 2], "step": step, "sure": True}
            self.ask(self.events, "POST", f"/runs/{self.run_id}/events", event)
            told += 1

    def edit(self, saves):
        document = copy.deepcopy(self.sheet["sheet"])
        document["parts"][0]["lines"][0]["amount"]["value"] *= self.chance.uniform(0.95, 1.05)
        if not saves:
            self.ask(self.works, "POST", "/work", {"sheet": document})
            return
        body = {"uid": new_uid(), "revision": self.revision, "sheet": document}
        self.ask(self.saves, "PUT", f"/sheets/{self.sheet['id']}", body)
        self.revision += 1

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
    found_hands = []
    for key in re.findall(r"seat (\S+)", told.stdout):
        hand = Hand(server.port)
        hand.cookies["sessionid"] = key
        hand.ask("GET", "/session")  # and its token
        found_hands.append(hand)
    assert len(found_hands) == COOKS, told.stderr
    yield found_hands
    server.stop()


def p95(times):
    return sorted(times)[int(0.95 * len(times))] if times else 0.0


def test_fifty_cooks(hands):
    begun = []
    for i, hand in enumerate(hands):
        sheet = hand.ask("POST", "/sheets", {"way": WAYS[i % len(WAYS)], "uid": new_uid()})
        run = hand.ask("POST", "/runs", {"sheet": sheet["id"], "uid": new_uid()})
        begun.append((hand, sheet, run["id"], [item["step"]["id"] for item in run["plan"]["scheduled"]]))
    ends = time.monotonic() + LASTS_S
    cooks = [Cook(*item, seed, ends) for seed, item in enumerate(begun)]
    for cook in cooks:
        cook.start()
    for cook in cooks:
        cook.join()
    kinds = ("reads", "events", "works", "saves")
    times = {kind: [ms for cook in cooks for ms in getattr(cook, kind)] for kind in kinds}
    wrong = [item for cook in cooks for item in cook.wrong]
    told = "; ".join(
        f"{kind} {len(ms)}, median {statistics.median(ms or [0]):.0f}, p95 {p95(ms):.0f} ms"
        for kind, ms in times.items()
    )
    print(f"\n  {COOKS} cooks, {LASTS_S:.0f} s: {told}; wrong {len(wrong)}")
    for kind, ms in times.items():
        measured(kind if kind != "saves" else "saves-load", p95(ms))
    measured("wrong", len(wrong))
    for hand, _, run, _ in begun:
        uids = [event["uid"] for event in hand.ask("GET", f"/runs/{run}")["events"]]
        assert len(uids) == len(set(uids))

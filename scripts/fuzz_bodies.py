"""Bodies that no schema thinks of: sheets, events and occasions that were right once, with something in them that is deep,
huge, no number, half a character, in a circle, or five hundred times there. What they may be answered: what was asked for,
or a refusal that names a field; never a failure on the server's side.
"""

from __future__ import annotations

import copy
import json
import random
import time
from collections import Counter
from collections.abc import Callable
from typing import Any

from serving import Hand, new_uid

SLOW_S = 20.0
DEEP = "\u0000deep\u0000"  # stands for something that json.dumps would not write

Body = dict[str, Any]
Change = Callable[[random.Random, Any], Any]

STRANGE: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 0.1, -0.0, 1e308, -1e308, 5e-324, 2**53, 2**63, 10**40, float("nan"), float("inf"),
    -float("inf"), "", " ", "\u0000", "\ud800", "a\udfffb", "\u202e", "🍡" * 60, "x" * 130_000, "0", "1e400", "null", "NaN",
    [], {}, [[]], [None], {"": ""}, {"\ud800": 1}, [[[[[[]]]]]], DEEP, "2026-02-30T25:61", "9999-12-31T23:59", "0001-01-01T00:00",
    "2026-11-28T15:30+99:00", "g", "sweet-rice-flour", "base", "__proto__", "constructor", "../../etc", "%00", "{0.__class__}",
)  # fmt: skip


def places(document: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Where in a document something may be otherwise."""
    result = [path] if path else []
    if isinstance(document, dict):
        for key, value in document.items():
            result += places(value, (*path, key))
    elif isinstance(document, list):
        for i, value in enumerate(document):
            result += places(value, (*path, i))
    return result


def at(document: Any, path: tuple[Any, ...]) -> Any:
    for step in path:
        document = document[step]
    return document


def otherwise(chance: random.Random, document: Any) -> None:
    """One place of it with something strange, gone, there twice, or what stands at another place."""
    where = chance.choice(places(document))
    inside, last = at(document, where[:-1]), where[-1]
    kind = chance.randrange(5)
    if kind == 0:
        del inside[last]
    elif kind == 1:
        inside[last] = copy.deepcopy(at(document, chance.choice(places(document))))
    elif kind == 2 and isinstance(inside, list):
        inside.extend(copy.deepcopy(inside[last]) for _ in range(chance.choice((1, 2, 39, 500))))
    elif kind == 3 and isinstance(inside[last], int | float) and not isinstance(inside[last], bool):
        inside[last] = inside[last] * chance.choice((-1, 0, 1e-9, 0.001, 7, 1e6, 1e300))
    else:
        inside[last] = copy.deepcopy(chance.choice(STRANGE))


def in_a_circle(chance: random.Random, sheet: Body) -> None:
    """Parts of it that feed each other, or that are had from each other's sheets."""
    parts = sheet.get("parts")
    if not isinstance(parts, list) or not parts:
        return
    roles = [part.get("role") for part in parts if isinstance(part, dict)]
    for part in parts:
        if not isinstance(part, dict):
            continue
        to = chance.choice([*roles, "filling", "syrup", part.get("role")])
        part["takes"] = [{"of": to, "part": to, "share": chance.choice((0.5, 1, 2))}]
        part["outputs"] = [{"to": to, "share": 1.0}]
        part["made_on"] = chance.choice(["", str(sheet.get("title", "")), "another sheet"])
        part["made_for"] = [{"sheet": str(sheet.get("title", "")), "share": chance.choice((0.5, 1.0, 3.0))}]


def many_lines(chance: random.Random, sheet: Body) -> None:
    parts = sheet.get("parts")
    if isinstance(parts, list) and parts and isinstance(parts[0], dict) and parts[0].get("lines"):
        parts[0]["lines"] = [copy.deepcopy(chance.choice(parts[0]["lines"])) for _ in range(500)]


def written(chance: random.Random, body: Any) -> str:
    """The body as text, deep where it is to be."""
    text = json.dumps(body)
    if json.dumps(DEEP) in text:
        depth = chance.choice((50, 900, 5_000, 60_000))
        left, right = chance.choice((("[", "]"), ('{"a":', "}")))
        middle = "1" if right == "}" else ""
        text = text.replace(json.dumps(DEEP), left * depth + middle + right * depth)
    return text


class Bodies:
    """Right ones of one kitchen, to be spoiled."""

    def __init__(self, hand: Hand, chance: random.Random) -> None:
        self.hand, self.chance = hand, chance
        hand.try_to("GET", "/")  # for its token
        cards = hand.ask("GET", "/sheets?size=50")["sheets"]
        self.sheets = [hand.ask("GET", f"/sheets/{card['id']}") for card in cards]
        self.occasion = hand.ask("GET", f"/occasions/{hand.ask('GET', '/occasions')[0]['id']}")
        self.run = hand.ask("GET", f"/runs/{hand.ask('GET', '/runs')[0]['id']}")

    def sheet(self) -> tuple[str, str, Body]:
        opened = self.chance.choice(self.sheets)
        sheet = copy.deepcopy(opened["sheet"])
        kind = self.chance.randrange(8)
        if kind == 0:
            in_a_circle(self.chance, sheet)
        elif kind == 1:
            many_lines(self.chance, sheet)
        method, path, body = self.chance.choice(
            (
                ("POST", "/work", {"sheet": sheet, "before": copy.deepcopy(opened["sheet"])}),
                ("POST", "/work", {"sheet": sheet}),
                ("PUT", f"/sheets/{opened['id']}", {"uid": new_uid(), "revision": opened["revision"], "sheet": sheet}),
                ("POST", "/adjust", {"sheet": sheet, "to": {"by": "pieces", "pieces": 12}}),
                ("POST", "/adjust", {"sheet": sheet, "to": {"by": "ratio", "hydration_pct": 110}}),
            )
        )
        return method, path, body

    def event(self) -> tuple[str, str, Body]:
        steps = [item["step"]["id"] for item in self.run["plan"]["scheduled"]]
        kind = self.chance.choice(
            (
                "started",
                "done",
                "weighed",
                "probed",
                "noted",
                "added",
                "undone",
                "redone",
                "handed",
                "skipped",
                "amended",
            )
        )
        body = {
            "uid": new_uid(), "kind": kind, "step": self.chance.choice([*steps, None]), "text": "a note", "grams": 410.0,
            "celsius": 88.5, "times": 3, "of": new_uid(), "sure": True, "at": self.run["now"],
            "device_at": self.run["wall"], "device_now": self.run["wall"], "clock_error_s": 0.5,
            "added": {"ingredient": "water", "part": "base", "grams": 15},
            "entry": {"step": self.chance.choice(steps), "minutes": 9, "words": "Slowly."},
        }  # fmt: skip
        for key in self.chance.sample(sorted(set(body) - {"uid", "kind"}), self.chance.randrange(9)):
            del body[key]
        return "POST", f"/runs/{self.run['id']}/events", body

    def occasion_body(self) -> tuple[str, str, Body]:
        body = {"uid": new_uid(), "occasion": copy.deepcopy(self.occasion["occasion"])}
        if self.chance.random() < 0.5:
            return "POST", "/occasions", body
        return "PUT", f"/occasions/{self.occasion['id']}", body

    def one(self) -> tuple[str, str, str]:
        """A method, a path, and a body with up to four places that are otherwise."""
        method, path, body = self.chance.choice((self.sheet, self.sheet, self.event, self.occasion_body))()
        for _ in range(self.chance.randrange(5)):
            otherwise(self.chance, body)
            if not places(body):
                break
        return method, path, written(self.chance, body)


def wrong_with(status: int | None, answer: Any, took_s: float) -> str:
    """What is wrong with an answer; nothing with most."""
    if status is None:
        return "nobody answered"
    if status >= 500 or status in (401, 403):
        return f"answered {status}"
    if took_s > SLOW_S:
        return f"took {took_s:.0f} s"
    if status >= 400:
        problems = answer.get("problems") if isinstance(answer, dict) else None
        if not problems or not all(problem.get("path") and problem.get("says") for problem in problems):
            return f"answered {status} without a problem that names a field"
    return ""


def fuzz_bodies(hand: Hand, seconds: float, seed: int) -> int:
    """Send such bodies for so long. How many were answered wrongly; each is printed."""
    chance = random.Random(seed)
    bodies, answers, wrong = Bodies(hand, chance), Counter[int | None](), 0
    ends = time.monotonic() + seconds
    while time.monotonic() < ends:
        method, path, text = bodies.one()
        began = time.monotonic()
        status, answer = hand.try_to(method, f"/api{path}", text=text)
        answers[status] += 1
        result = wrong_with(status, answer, time.monotonic() - began)
        if result:
            wrong += 1
            print(f"{method} {path} {result}\n  {text[:2_000]}")
    told = ", ".join(f"{count:,} times {status}" for status, count in answers.most_common())
    print(f"Bodies of our own (seed {seed}): {told}; {wrong} wrong")
    return wrong

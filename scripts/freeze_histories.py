"""Writes histories of a run in which every kind of event follows every other, with the states that they lead to.

    python scripts/freeze_histories.py

Both folds are held to them: the server's (tests/core/run/test_histories.py) and the page's (web/src/runs/fold.test.ts).
They are frozen anew only when what an event does is meant to change.
"""

from __future__ import annotations

import gzip
import json
import random
import sys
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from itertools import product
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.run.event_fold import events_that_count
from kemble.core.run.events import KINDS, AnyEvent, PlanRest, StepEvent, event_from
from kemble.core.run.run_state import state_of
from kemble.core.stations.heat.core_curve import CoreCurve
from kemble.core.stations.steps import StepResult

FILE = ROOT / "tests" / "fixtures" / "histories" / "every-pair.json.gz"
SEED = 1616
TRIPLES, LONG, LONG_EVENTS = 250, 80, 14
BEGIN = datetime(2026, 12, 4, 9, 0, tzinfo=UTC)
CORE = CoreCurve.model_validate(
    {
        "curve": {"minutes": [0, 8, 16, 24, 40], "core_c": [25, 38, 62, 84, 97], "surface_c": [25, 90, 96, 98, 99]},
        "first": 22,
        "done": 27,
        "latest": 36,
    }
)


def step(name: str, hands: str, minutes: float, after: Sequence[tuple[str, float]] = (), **more: Any) -> StepResult:
    told = {
        "id": name, "title": name.title(), "words": "", "minutes": minutes, "hands": hands, "uses": [], "cue": None,
        "after": [{"step": before, "at_least": at_least, "at_most": None} for before, at_least in after],
        "window": None, "target": None, "to_hand": [], "cautions": [], **more,
    }  # fmt: skip
    return StepResult.model_validate(told)


def plan() -> Plan:
    """Something free between others, a window that a reading moves, a wait, two loads of one heat, and two cooks."""
    steps = [
        (0, "", step("soak", "free", 30)),
        (0, "Ana", step("syrup", "minded", 12)),
        (12, "Bo", step("mix", "held", 10, [("syrup", 0), ("soak", 0)])),
        (30, "", step("rest", "free", 15, [("mix", 0)])),
        (45, "Ana", step("steam", "minded", 34, [("rest", 2)], window={"first_check": 28, "done": 34, "latest": 44})),
        (79, "", step("cool", "free", 20, [("steam", 0)])),
        (104, "Bo", step("cut", "held", 8, [("cool", 5)])),
    ]
    scheduled = [
        ScheduledStep(
            step=step_result,
            starts=BEGIN + timedelta(minutes=at),
            ends=BEGIN + timedelta(minutes=at + step_result.minutes),
            who=who,
        )
        for at, who, step_result in steps
    ]
    return Plan(serve=BEGIN + timedelta(minutes=112), begin=BEGIN, scheduled=scheduled, proven=True, quiet_kept=True)


class Writer:
    """Writes one history after the other from one seed."""

    def __init__(self) -> None:
        self.chance, self.plan = random.Random(SEED), plan()
        self.ids = [scheduled.step.id for scheduled in self.plan.scheduled]

    def history(self, kinds: Sequence[str]) -> dict[str, Any]:
        """Events of these kinds, in this order, after what makes most of them say something."""
        at, events = BEGIN, list[AnyEvent]()
        begun = self.chance.randrange(len(self.ids))
        before = [(kind, each_id) for each_id in self.ids[:begun] for kind in ("started", "done")]
        wanted = [*before, ("started", self.ids[begun]), *((kind, None) for kind in kinds)]
        for number, (kind, of_step) in enumerate(wanted):
            at += timedelta(minutes=self.chance.choice([0, 0.5, 3, 8, 17]))
            events.append(self.event(kind, number, at, events, of_step or self.near(begun)))
        if self.chance.random() < 0.15:
            events.insert(-2, self.chance.choice(events[:-2]))  # sent twice
        now = at + timedelta(minutes=self.chance.choice([0, 1, 7, 30]))
        unit = self.chance.choice(["C", "F"])
        state = state_of(self.plan, events, now, CORE, unit)
        return {
            "now": now.isoformat(),
            "unit": unit,
            "events": [event.model_dump(mode="json") for event in events],
            "state": state.model_dump(mode="json"),
        }

    def near(self, begun: int) -> str:
        """A step at which the run is; now and then one that the plan does not have, as old plans may leave behind."""
        if self.chance.random() < 0.06:
            return "dance"
        return self.ids[max(0, min(len(self.ids) - 1, begun + self.chance.choice([-1, 0, 0, 0, 1])))]

    def event(self, kind: str, number: int, at: datetime, events: Sequence[AnyEvent], of_step: str) -> AnyEvent:
        carries: dict[str, Any] = {
            "counted": {"times": self.chance.randint(1, 40)},
            "weighed": {"grams": round(self.chance.uniform(5, 900), 1)},
            "probed": {"celsius": round(self.chance.uniform(30, 96), 1)},
            "added": {"added": {"ingredient": "water", "part": "base", "grams": 20}},
            "amended": {"entry": self.amendment(number, of_step)},
            "handed": {"text": self.chance.choice(["Ana", "Bo", "whoever is free"])},
            "noted": {"text": "The edge is pale."},
            "fault": {"text": "It cracks when it is folded."},
        }.get(kind, {})
        if kind in ("undone", "redone"):
            earlier = [event.uid for event in events if event.kind not in ("undone", "redone")]
            back = [event.of for event in events if event.kind == "undone" and event.of]
            newest = self.chance.random() < 0.5
            named = back if back and kind == "redone" else earlier[-1:] if newest else earlier
            carries = {"of": self.chance.choice(named)}
            if kind == "undone" and self.chance.random() < 0.25:
                carries = {}  # as early pages sent it
        if kind == "replanned":
            carries = self.rest(at, events)
        if issubclass(KINDS[kind], StepEvent):
            carries["step"] = "steam" if kind == "probed" else of_step
        elif kind in ("noted", "fault") and self.chance.random() < 0.5:
            carries["step"] = of_step
        return event_from({"kind": kind, "uid": f"event-{number:03}", "at": at, **carries})

    def amendment(self, number: int, of_step: str) -> dict[str, Any]:
        """Minutes and words for a step, or a step of the cook's own behind it."""
        if self.chance.random() < 0.4:
            title = {"own": f"own-step-{number}x", "title": "Wipe the rim", "after": of_step}
            return {**title, "minutes": self.chance.choice([2, 9.5]), "hands": self.chance.choice(["both", "none"])}
        minutes = self.chance.choice([None, 4, 25, 60])
        return {"step": of_step, "minutes": minutes, "by": "an aunt" if minutes else "", "words": "Slowly."}

    def rest(self, at: datetime, events: Sequence[AnyEvent]) -> dict[str, Any]:
        """The open steps some minutes later, some of them longer, now and then by another curve."""
        over = {event.step for event in events_that_count(self.plan, events) if event.kind == "done"}
        later = timedelta(minutes=self.chance.choice([5, 20, 45]))
        scheduled = []
        for scheduled_step in self.plan.scheduled:
            if scheduled_step.step.id in over:
                continue
            longer = self.chance.choice([0, 0, 6])
            own = scheduled_step.step.model_copy(update={"minutes": scheduled_step.step.minutes + longer})
            starts = scheduled_step.starts + later
            moved = {"step": own, "starts": starts, "ends": starts + timedelta(minutes=own.minutes)}
            scheduled.append(scheduled_step.model_copy(update=moved).model_dump(mode="json"))
        rest: dict[str, Any] = {
            "scheduled": scheduled,
            "says": [f"On the table {later.seconds // 60} min later."],
            "choices": self.chance.choice([[], ["Begin with two pots."]]),
        }
        if self.chance.random() < 0.5:
            hotter = [round(celsius + 1.5, 1) for celsius in CORE.curve.core_c]
            rest["core"] = {
                **CORE.model_dump(),
                "curve": {**CORE.curve.model_dump(), "core_c": hotter},
                "done": self.chance.choice([25, 42]),
            }
        last = events[-1].uid if events else None
        return {"rest": PlanRest.model_validate(rest), "of": last}


def histories() -> dict[str, Any]:
    writer = Writer()
    kinds = list(KINDS)
    wanted = [*product(kinds, repeat=2)]
    wanted += [tuple(writer.chance.choices(kinds, k=3)) for _ in range(TRIPLES)]
    wanted += [tuple(writer.chance.choices(kinds, k=LONG_EVENTS)) for _ in range(LONG)]
    return {
        "plan": writer.plan.model_dump(mode="json"),
        "core": CORE.model_dump(mode="json"),
        "histories": [writer.history(kinds) for kinds in wanted],
    }


def packed(document: dict[str, Any]) -> bytes:
    """The same histories are the same bytes."""
    return gzip.compress(json.dumps(document, separators=(",", ":")).encode(), mtime=0)


if __name__ == "__main__":
    FILE.write_bytes(packed(histories()))
    print(f"{len(histories()['histories'])} histories, {FILE.stat().st_size:,} bytes")

"""Frozen histories of runs: what each event led to stays so. The page folds the same ones (web/src/runs/fold.test.ts)."""

import gzip
import json
from datetime import datetime
from itertools import product
from pathlib import Path

import pytest

from kemble.core.plan.schedule import Plan
from kemble.core.run.events import KINDS, event_from
from kemble.core.run.run_state import RunState, state_of
from kemble.core.stations.heat.core_curve import CoreCurve

PLACE = Path(__file__).resolve().parents[2] / "fixtures" / "histories"


def histories():
    for file in sorted(PLACE.glob("*.json")):
        document = json.loads(file.read_text(encoding="utf-8"))
        for i, history in enumerate(document["histories"]):
            yield pytest.param(document["plan"], document["heart"], history, id=f"{file.stem}-{i}")


def plain(value):
    """Numbers to compare with a hair's room, everything else to the letter."""
    if isinstance(value, dict):
        return {key: plain(inner) for key, inner in value.items()}
    if isinstance(value, list):
        return [plain(inner) for inner in value]
    return pytest.approx(value, abs=1e-6) if isinstance(value, float) else value


def told_of_then(heart):
    """The core temperature as these histories were frozen with: by the word of that time."""
    curve = {**heart["curve"]}
    curve["core_c"] = curve.pop("heart_c")
    return CoreCurve.model_validate({**heart, "curve": curve})


@pytest.mark.parametrize(("plan", "heart", "history"), list(histories()))
def test_a_history_leads_where_it_led(plan, heart, history):
    state = state_of(
        Plan.model_validate(plan),
        [event_from(event) for event in history["events"]],
        datetime.fromisoformat(history["now"]),
        heart and told_of_then(heart),
        history["unit"],
    )
    assert json.loads(state.model_dump_json()) == plain(told_again(history["state"]))


def every_pair():
    return json.loads(gzip.decompress((PLACE / "every-pair.json.gz").read_bytes()))


class TestEveryPair:
    """Every kind of event after every other (scripts/freeze_histories.py)."""

    def test_each_leads_where_it_led(self):
        document = every_pair()
        plan, core = Plan.model_validate(document["plan"]), CoreCurve.model_validate(document["core"])
        for history in document["histories"]:
            events = [event_from(event) for event in history["events"]]
            state = state_of(plan, events, datetime.fromisoformat(history["now"]), core, history["unit"])
            kinds = [event.kind for event in events]
            assert json.loads(state.model_dump_json()) == plain(told_again(history["state"])), kinds

    def test_none_is_missing(self):
        pairs = {tuple(event["kind"] for event in history["events"][-2:]) for history in every_pair()["histories"]}
        assert pairs == set(product(KINDS, repeat=2))


def told_again(state):
    return json.loads(RunState.model_validate(state).model_dump_json())


START = {"kind": "started", "step": "melt"}
WEIGHT = {"kind": "weighed", "step": "melt", "grams": 931}
NOTE = {"kind": "noted", "text": "thick"}


class TestUndo:
    """By hand: any event is taken back by its id, and stands again when it is redone."""

    PLAN = Plan.model_validate(json.loads((PLACE / "set-cake.json").read_text(encoding="utf-8"))["plan"])

    def state(self, *events):
        made = [
            event_from({"uid": f"event-{i:03}", "at": f"2026-11-20T09:{i:02}:00Z", **event})
            for i, event in enumerate(events)
        ]
        return state_of(self.PLAN, made, datetime.fromisoformat("2026-11-20T10:00:00Z"))

    def melt(self, *events):
        return next(step for step in self.state(*events).steps if step.id == "melt")

    def test_a_weight(self):
        undone = self.melt(START, WEIGHT, {"kind": "undone", "of": "event-001"})
        assert (undone.weights, undone.status) == ([], "running")
        again = self.melt(START, WEIGHT, {"kind": "undone", "of": "event-001"}, {"kind": "redone", "of": "event-001"})
        assert [weight.grams for weight in again.weights] == [931]

    def test_a_note_and_a_fault(self):
        for event in (NOTE, {"kind": "fault", "text": "lumps"}):
            assert self.state(event, {"kind": "undone", "of": "event-000"}).notes == []

    def test_a_step_before_others(self):
        undone = self.melt(START, NOTE, {"kind": "undone", "of": "event-000"})
        assert undone.started is None

    def test_of_the_first_version_the_newest_mark_and_no_weight(self):
        undone = self.melt(START, WEIGHT, {"kind": "undone"})
        assert (undone.started, [weight.grams for weight in undone.weights]) == (None, [931])

    def test_what_is_finished_stays_so(self):
        assert self.state({"kind": "finished"}, {"kind": "undone", "of": "event-000"}).status == "finished"

    def test_what_was_never_there_is_not_taken_back(self):
        assert self.melt(START, {"kind": "undone", "of": "event-999"}).status == "running"

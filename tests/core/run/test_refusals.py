"""What a run refuses, to the letter: which field, what is wrong with it, what is accepted."""

from datetime import UTC, datetime

import pytest
from sheets_by_hand import KITCHEN, steps

from kemble.core.facts.problems import Refused
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import KINDS, check_event, told_event

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
PLAN = plan_from(steps(), KITCHEN, begin=NOW)
IDS = ", ".join(scheduled.step.id for scheduled in PLAN.scheduled)
KEMBLES = next(kind for kind, event_class in KINDS.items() if event_class.by_kemble)
COOKS = ", ".join(kind for kind, event_class in KINDS.items() if not event_class.by_kemble)


def refusal(kind, **told):
    with pytest.raises(Refused) as caught:
        check_event(PLAN, told_event({"uid": "event-001", "at": NOW, "kind": kind, **told}))
    (problem,) = caught.value.problems
    return problem.path, problem.says, problem.accepts


OWN = {"own": "own-wipe", "title": "Wipe the rim", "minutes": 2}


@pytest.mark.parametrize(
    ("told", "wrong"),
    [
        ({"kind": "done", "step": "dance"}, ("step", '"dance" is not a step of this run', IDS)),
        ({"kind": KEMBLES}, ("kind", f'"{KEMBLES}" is not for a cook to say', COOKS)),
        ({"kind": "noted", "text": " "}, ("text", "is empty", "1 to 1000 letters")),
        (
            {"kind": "amended", "entry": {"own": "own-wipe", "minutes": 2, "common": "turn-out", "after": "pour"}},
            ("entry", "is not a step of its own", "a title, minutes, and the step that it comes after"),
        ),
        (
            {"kind": "amended", "entry": {**OWN, "after": "dance"}},
            ("entry.after", '"dance" is not a step of this run', IDS),
        ),
        (
            {"kind": "amended", "entry": {"step": "dance", "minutes": 3}},
            ("entry.step", '"dance" is not a step of this run', IDS),
        ),
        (
            {"kind": "amended", "entry": {"step": "mix", "skip": True}},
            ("entry", "changes more than this batch can", "minutes, who gave them, and words"),
        ),
        (
            {"kind": "probed", "step": "mix", "celsius": 40.0, "sure": True},
            ("step", '"mix" has no window that a temperature could move', "steam"),
        ),
        (
            {"kind": "probed", "step": "steam", "celsius": 400.0},
            ("celsius", "It cannot be so hot: water boils at 100 °C here", "a reading that can be, or sure"),
        ),
    ],
)
def test_what_is_wrong_is_said_to_the_letter(told, wrong):
    assert refusal(**told) == wrong


def test_a_step_that_was_added_is_not_added_twice():
    added = PLAN.scheduled[0].step.model_copy(update={"id": "own-wipe"})
    plan = PLAN.model_copy(
        update={"scheduled": [PLAN.scheduled[0].model_copy(update={"step": added}), *PLAN.scheduled]}
    )
    entry = {**OWN, "after": "pour"}
    with pytest.raises(Refused) as caught:
        check_event(plan, told_event({"uid": "event-001", "at": NOW, "kind": "amended", "entry": entry}))
    (problem,) = caught.value.problems
    assert (problem.path, problem.says, problem.accepts) == (
        "entry.own",
        'there is a step "own-wipe" already',
        "another id",
    )

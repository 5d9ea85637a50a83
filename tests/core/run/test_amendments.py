"""What a cook changes of the method while it is being made: minutes, words, one more step, a step left out."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_from
from kemble.core.run.amendments import offers_of
from kemble.core.run.event_fold import plan_now
from kemble.core.run.events import check_event, event_from, told_event
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import default_sheet
from kemble.core.sheet.method import OwnStep, StepChange
from kemble.core.stations.work_sheet import work

NOON = datetime(2026, 12, 5, 12, 0, tzinfo=UTC)
PLAN = plan_from(work(default_sheet("set-cake"), Kitchen()).steps, Kitchen(), begin=NOON)


def event(kind, minute, number=1, **fields):
    return event_from({"kind": kind, "uid": f"event-{kind}-{number}", "at": NOON + timedelta(minutes=minute), **fields})


def states(*events, minute=60):
    return {state.id: state for state in state_of(PLAN, events, NOON + timedelta(minutes=minute)).steps}


def steps(*events):
    return {scheduled.step.id: scheduled.step for scheduled in plan_now(PLAN, events).scheduled}


def amended(minute=5, number=1, **entry):
    return event("amended", minute, number, entry=entry)


def test_minutes_change_the_clock_and_ours_stands_beside():
    change = amended(step="rest-batter", minutes=9, by="my aunt")
    step = steps(change)["rest-batter"]
    assert (step.minutes, step.given.by, step.predicted.minutes) == (9, "my aunt", 20)
    state = states(change, event("started", 10, step="rest-batter"))["rest-batter"]
    assert state.due == NOON + timedelta(minutes=19)


def test_the_newest_of_two_counts_and_one_that_is_undone_does_not():
    first, second = amended(step="mix", minutes=4), amended(6, 2, step="mix", minutes=11)
    assert steps(first, second)["mix"].minutes == 11
    assert steps(first, second, event("undone", 7, of=second.uid))["mix"].minutes == 4
    assert steps(first, second)["mix"].predicted.minutes == 7


def test_one_more_step_is_waited_for_by_what_waited():
    own = amended(own="own-wipe", title="Wipe the rim", after="pour", minutes=2, words="With a damp cloth.")
    plan = plan_now(PLAN, [own])
    ids = [scheduled.step.id for scheduled in plan.scheduled]
    assert ids.index("own-wipe") == ids.index("pour") + 1
    assert "own-wipe" in [wait.step for wait in steps(own)["steam"].after]
    assert steps(own)["own-wipe"].own_words == "With a damp cloth."
    assert states(own)["steam"].expected_starts >= states(own)["own-wipe"].expected_ends


def test_a_step_left_out_is_over_and_was_never_begun():
    left = event("skipped", 8, step="sieve")
    state = states(event("started", 7, step="sieve"), left)["sieve"]
    assert (state.status, state.started, state.ended) == ("done", None, NOON + timedelta(minutes=8))
    assert states(left, event("undone", 9, of=left.uid))["sieve"].status != "done"


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        ({"step": "dance", "minutes": 3}, "entry.step"),
        ({"step": "mix", "skip": True}, "entry"),
        ({"step": "mix", "after": "pour"}, "entry"),
        ({"own": "own-wipe", "title": "Wipe", "after": "dance", "minutes": 2}, "entry.after"),
        ({"own": "own-wipe", "title": "Wipe", "after": "pour"}, "entry"),
        ({"own": "own-wipe", "common": "turn-out", "after": "pour", "minutes": 2}, "entry"),
    ],
)
def test_what_a_batch_cannot_do_is_refused(entry, path):
    with pytest.raises(Refused) as refused:
        check_event(PLAN, amended(**entry))
    assert refused.value.problems[0].path == path


def test_an_entry_that_is_none_names_its_field():
    with pytest.raises(Refused) as refused:
        told_event(
            {"kind": "amended", "uid": "event-one", "at": NOON.isoformat(), "entry": {"step": "mix", "minutes": 0}}
        )
    assert refused.value.problems[0].path == "entry.minutes"


class TestOffers:
    """What the sheet says now and the batch does not do yet."""

    METHOD = (
        StepChange(step="rest-batter", minutes=9, by="my aunt", words="No more."),
        StepChange(step="heat", minutes=50),
        StepChange(step="sieve", skip=True),
        StepChange(step="mix", minutes=4, use="ours"),
        OwnStep(own="own-turn", common="turn-out", after="cool"),
        OwnStep(own="own-lost", title="Sing", after="dance"),
    )

    def offered(self, *begun, before=()):
        return {offer.step: offer for offer in offers_of(before, self.METHOD, PLAN, begun)}

    def test_minutes_words_steps_left_out_and_new_ones(self):
        offers = self.offered()
        assert set(offers) == {"rest-batter", "steam", "sieve", "own-turn"}
        assert offers["rest-batter"].entry == StepChange(step="rest-batter", minutes=9, by="my aunt", words="No more.")
        assert (offers["steam"].minutes, offers["sieve"].entry) == (50, None)
        assert (offers["own-turn"].title, offers["own-turn"].minutes) == ("Turn it out", 3)
        for offer in offers.values():
            if offer.entry:
                check_event(PLAN, amended(**offer.entry.model_dump()))

    def test_what_has_begun_or_was_so_from_the_start_is_not_offered(self):
        assert set(self.offered("rest-batter", "cut")) == {"steam", "sieve"}
        assert self.offered(before=self.METHOD) == {}
        assert set(self.offered(before=self.METHOD[:3])) == {"own-turn"}

"""Runs folded from events, with the clock in the test's hand."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from sheets_by_hand import KITCHEN, steps
from thorough import examples

from kemble.core.facts.problems import Refused
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import check_event, event_from, told_event
from kemble.core.run.run_state import state_of

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


PLAN = plan_from(steps(), KITCHEN, begin=NOW)


SLACK_MIN = 10 * 1.0  # a plan rounds each of the ten steps of its critical chain up to the minute


def event(kind, step=None, minute=0.0, **more):
    return event_from(
        {}, uid=f"uid-{kind}-{step}-{minute}", at=NOW + timedelta(minutes=minute), kind=kind, step=step, **more
    )


def look(events, minute):
    state = state_of(PLAN, events, NOW + timedelta(minutes=minute))
    return state, {step.id: step for step in state.steps}


def played(until):
    """Everything before `until`, done as planned."""
    result = []
    for scheduled_step in PLAN.scheduled:
        if scheduled_step.step.id == until:
            return result, (scheduled_step.starts - NOW).total_seconds() / 60
        for kind, at in (("started", scheduled_step.starts), ("done", scheduled_step.ends)):
            result.append(event(kind, scheduled_step.step.id, (at - NOW).total_seconds() / 60))
    raise AssertionError(until)


class TestRun:
    def test_it_begins_with_something_for_the_hands(self):
        state, result = look([], 0)
        assert state.focus in ("melt", "line")
        assert {name for name, item in result.items() if item.status == "ready"} == {"melt", "line"}
        assert state.late_min == 0

    def test_a_step_whose_time_has_not_come_does_not_push_in(self):
        """Line is done and melt is on: the steamer could be lit, but is not wanted for a good while."""
        events = [event("done", "line", 1), event("started", "melt", 1)]
        state, result = look(events, 2)
        assert result["raise-steam"].status == "ready"
        assert state.focus == "melt"

    def test_clocks_are_instants(self):
        before, at = played("steam")
        state, result = look([*before, event("started", "steam", at)], at + 5)
        steam = result["steam"]
        step = next(s.step for s in PLAN.scheduled if s.step.id == "steam")
        assert steam.due == NOW + timedelta(minutes=at + step.minutes)
        assert steam.first_check == NOW + timedelta(minutes=at + step.window.first_check)
        assert state.focus == "steam"

    def test_not_yet_moves_the_due_time_and_the_table(self):
        before, at = played("steam")
        events = [*before, event("started", "steam", at)]
        _, was_found = look(events, at + 1)
        now, result = look([*events, event("not_yet", "steam", at + 1)], at + 1)
        assert result["steam"].due - was_found["steam"].due == timedelta(minutes=5)
        assert 5 - SLACK_MIN <= now.late_min <= 5

    def test_a_free_step_starts_and_ends_by_itself(self):
        events = [event("done", "melt", 8)]
        _, result = look(events, 9)
        assert result["cool-syrup"].status == "running"
        assert result["cool-syrup"].started == NOW + timedelta(minutes=8)
        events += [event("done", "line", 10), event("started", "mix", 22)]
        _, result = look(events, 23)
        assert result["cool-syrup"].ended == NOW + timedelta(minutes=22)

    def test_idling_makes_it_late(self):
        state, _ = look([], 30)
        assert 30 - SLACK_MIN <= state.late_min <= 30

    def test_doing_it_faster_does_not_make_it_later(self):
        before, at = played("mix")
        state, _ = look([*before, event("started", "mix", at), event("done", "mix", at + 3)], at + 3)
        assert state.late_min <= 0

    def test_undo_takes_back_one_mark_after_another(self):
        events = [event("started", "melt", 0), event("done", "melt", 8), event("undone", None, 9)]
        _, result = look(events, 9)
        assert result["melt"].status == "running"
        assert result["cool-syrup"].status == "waiting"
        _, result = look([*events, event("undone", None, 10)], 10)
        assert result["melt"].status == "ready"
        _, result = look([*events, event("undone", None, 10), event("undone", None, 11)], 11)
        assert result["melt"].status == "ready"

    def test_undo_of_two_marks_made_at_once_takes_the_later_one(self):
        before, at = played("steam")
        _, result = look([*before, event("started", "steam", at), event("undone", None, at)], at)
        assert result["steam"].status == "ready"
        assert result["pour"].status == "done"

    def test_weights_and_notes_are_kept(self):
        state, result = look(
            [
                event("weighed", "mix", 3, grams=931.5),
                event("noted", "mix", 4, text="thick"),
                event("fault", None, 5, text="lumps"),
            ],
            6,
        )
        assert [weight.grams for weight in result["mix"].weights] == [931.5]
        assert [(note.kind, note.text) for note in state.notes] == [("noted", "thick"), ("fault", "lumps")]

    def test_to_the_end(self):
        before, at = played("serve")
        state, result = look([*before, event("done", "serve", at + 5), event("finished", None, at + 6)], at + 6)
        assert state.status == "finished"
        assert state.focus is None
        assert all(item.status == "done" for item in result.values())

    @settings(max_examples=examples(60), deadline=None)
    @given(
        st.lists(
            st.tuples(
                st.sampled_from(["started", "done", "not_yet", "undone"]),
                st.sampled_from([s.step.id for s in PLAN.scheduled]),
            ),
            max_size=30,
        )
    )
    def test_any_order_of_events_is_survived(self, marks):
        events = [event(kind, step, float(i)) for i, (kind, step) in enumerate(marks)]
        _, result = look(events, len(marks))
        assert len(result) == len(PLAN.scheduled)
        for item in result.values():
            assert item.expected_ends >= item.expected_starts
            assert item.ended is None or item.started is not None

    @pytest.mark.parametrize(
        ("bad", "path"),
        [
            ({"kind": "done", "step": "dance"}, "step"),
            ({"kind": "started"}, "step"),
            ({"kind": "weighed", "step": "mix"}, "grams"),
            ({"kind": "noted", "text": "  "}, "text"),
            ({"kind": "redone"}, "of"),
        ],
    )
    def test_an_event_that_makes_no_sense(self, bad, path):
        with pytest.raises(Refused) as caught:
            check_event(PLAN, told_event({"uid": "event-001", "at": NOW, **bad}))
        assert caught.value.problems[0].path == path

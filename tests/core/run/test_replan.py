"""The rest of a day planned anew: the table is kept where it can be, by hand; and held to by the checker of the plans."""

from datetime import UTC, datetime, timedelta

import pytest
from sheets_by_hand import KITCHEN

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.run.event_fold import events_that_count
from kemble.core.run.events import PlanRest, event_from, told_event
from kemble.core.run.replan import OpenRun, replan
from kemble.core.run.run_state import state_of
from kemble.core.stations.steps import StepResult, StepWait

NINE = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)


def at(minutes):
    return NINE + timedelta(minutes=minutes)


def step(name, minutes, hands="held", after=(), uses=()):
    waits = [StepWait(step=item, at_least=least, at_most=most) for item, least, most in after]
    rest = {"cue": None, "window": None, "target": None, "to_hand": [], "cautions": []}
    return StepResult(
        id=name, title=name.title(), words="", minutes=minutes, hands=hands, uses=list(uses), after=waits, **rest
    )


def plan(*rows, serve):
    scheduled = [ScheduledStep(step=row, starts=at(a), ends=at(a + row.minutes)) for row, a in rows]
    return Plan(serve=at(serve), begin=scheduled[0].starts, scheduled=scheduled, proven=True, quiet_kept=True)


def happened(*what):
    return [
        event_from({"uid": f"event-{i:03}", "at": at(minute), "kind": kind, "step": name})
        for i, (minute, kind, name) in enumerate(what)
    ]


def going(title, its, events, now):
    return OpenRun(title, its, state_of(its, events, at(now)), its.serve)


MIX, STEAM, COOL, CUT = (
    step("mix", 10),
    step("steam", 40, "free", [("mix", 0, None)], ["burner", "steamer"]),
    step("cool", 60, "free", [("steam", 0, None)]),
    step("cut", 10, "held", [("cool", 0, None)]),
)


def cake(slack=0):
    """Mix at nine, steam, cool, cut: on the table at eleven and the slack."""
    return plan((MIX, 0), (STEAM, 10), (COOL, 50), (CUT, 110 + slack), serve=120 + slack)


class TestTheTable:
    def test_is_kept_where_there_is_slack(self):
        """Begun a quarter late with half an hour in hand: the cut stays where it was."""
        its = cake(slack=30)
        now = replan(
            [going("cake", its, happened((15, "started", "mix"), (25, "done", "mix")), 25)], KITCHEN, now=at(25)
        )
        assert now.later_min == 0
        assert {scheduled_step.step.id: scheduled_step.starts for scheduled_step in now.scheduled[0]}["cut"] == at(140)

    def test_is_later_by_what_is_lost(self):
        """Fifteen minutes late without slack: fifteen minutes later, and that is said."""
        its = cake()
        state = [going("cake", its, happened((15, "started", "mix"), (25, "done", "mix")), 25)]
        now = replan(state, KITCHEN, now=at(25))
        assert now.later_min == 15
        assert now.says[0] == "On the table at 11:15, 15 min later than planned."
        assert not now.choices  # nobody's hands would make steam quicker

    def test_another_school_is_offered_where_it_helps(self):
        its = cake()
        chilled = [
            item.model_copy(update={"minutes": 30}) if item.id == "cool" else item for item in (MIX, STEAM, COOL, CUT)
        ]
        state = [going("cake", its, happened((15, "started", "mix"), (25, "done", "mix")), 25)]
        now = replan(state, KITCHEN, now=at(25), otherwise=lambda run: [("in the cold", chilled)])
        assert now.choices == ["cake, in the cold: in time."]

    def test_a_second_pair_of_hands_is_offered_where_it_helps(self):
        """Two held half hours for one cook, and forty minutes left: half an hour of it in time with two cooks."""
        a, b = plan((step("stir", 30), 0), serve=40), plan((step("wrap", 30), 0), serve=40)
        now = replan([going("one", a, [], 5), going("other", b, [], 5)], KITCHEN, now=at(5))
        assert now.later_min == 25
        assert now.choices == ["A second pair of hands from now on: in time."]
        assert replan([going("one", a, [], 5), going("other", b, [], 5)], Kitchen(cooks=2), now=at(5)).later_min == 0


class TestWhatHappened:
    def test_what_runs_is_not_moved_and_what_is_done_is_gone(self):
        its = cake()
        events = happened((0, "started", "mix"), (12, "done", "mix"))
        now = replan([going("cake", its, events, 30)], KITCHEN, now=at(30))
        assert [scheduled_step.step.id for scheduled_step in now.scheduled[0]] == ["cool", "cut"]
        assert now.scheduled[0][0].starts >= at(52)

    def test_what_is_left_of_a_wait_is_waited_for(self):
        """A rest of twenty minutes, of which five are gone: fifteen are left."""
        knead, wrap = step("knead", 10), step("wrap", 10, "held", [("knead", 20, None)])
        its = plan((knead, 0), (wrap, 30), serve=40)
        events = happened((10, "started", "knead"), (20, "done", "knead"))
        now = replan([going("balls", its, events, 25)], KITCHEN, now=at(25))
        assert now.scheduled[0][0].starts == at(40)

    def test_a_run_with_nothing_left_keeps_its_place_among_the_others(self):
        """The broth is done; of the cake the steam is left: two lists, the first empty."""
        broth = plan((step("simmer", 30, "free"), 0), serve=30)
        done = happened((0, "started", "simmer"), (30, "done", "simmer"))
        now = replan([going("broth", broth, done, 35), going("cake", cake(slack=60), [], 35)], KITCHEN, now=at(35))
        assert [[scheduled.step.id for scheduled in its] for its in now.scheduled] == [
            [],
            ["mix", "steam", "cool", "cut"],
        ]

    def test_a_table_that_is_kept_although_steps_move_is_said(self):
        """Ninety minutes late with ninety in hand: the mixing moves, the table does not."""
        now = replan([going("cake", cake(slack=90), [], 90)], KITCHEN, now=at(90))
        assert now.later_min == 0
        assert now.says[-1] == "The time at the table is kept."
        assert now.says[0].startswith("Mix: ")

    def test_two_that_run_at_once_are_no_clash(self):
        """One cook holds two pans, against all reason: that is so, and the rest is planned behind it."""
        item = plan((step("stir", 30), 0), (step("pour", 5, "held", [("stir", 0, None)]), 30), serve=60)
        two = plan((step("burn", 20), 0), serve=60)
        now = replan(
            [
                going("a", item, happened((0, "started", "stir")), 10),
                going("b", two, happened((2, "started", "burn")), 10),
            ],
            KITCHEN,
            now=at(10),
        )
        assert now.scheduled[0][0].starts >= at(30)

    def test_a_gap_that_is_broken_is_no_end(self):
        """Wrapped within ten minutes, and it is twenty: it is planned all the same, at once."""
        dough, wrap = step("dough", 10), step("wrap", 10, "held", [("dough", 0, 10)])
        its = plan((dough, 0), (wrap, 10), serve=20)
        events = happened((0, "started", "dough"), (10, "done", "dough"))
        now = replan([going("balls", its, events, 30)], KITCHEN, now=at(30))
        assert now.scheduled[0][0].starts == at(30)

    def test_when_all_is_done_there_is_nothing_to_plan(self):
        its = plan((MIX, 0), serve=10)
        assert (
            replan([going("x", its, happened((0, "started", "mix"), (9, "done", "mix")), 9)], KITCHEN, now=at(9))
            is None
        )


class TestTheFold:
    def test_the_rest_lies_where_it_was_laid(self):
        its = cake()
        rest = PlanRest(scheduled=[ScheduledStep(step=CUT, starts=at(150), ends=at(160))], says=["Cut later."])
        event = event_from({}, uid="rest-0001", at=at(30), kind="replanned", rest=rest)
        state = state_of(its, [event], at(31))
        assert state.steps[-1].planned_starts == at(150)
        assert state.says == ["Cut later."]
        assert state.late_min == pytest.approx(40.0)  # against the time that was promised

    def test_it_falls_with_what_it_was_made_for(self):
        """Five minutes more moved the rest; taken back, the rest lies where it lay, and redone it is moved again."""
        its = cake()
        more = event_from({"uid": "event-001", "at": at(12), "kind": "not_yet", "step": "mix"})
        rest = PlanRest(scheduled=[ScheduledStep(step=CUT, starts=at(150), ends=at(160))], says=["Cut later."])
        moved = event_from({}, uid="rest-0001", at=at(13), kind="replanned", of=more.uid, rest=rest)
        back = event_from({"uid": "event-002", "at": at(14), "kind": "undone", "of": more.uid})
        again = event_from({"uid": "event-003", "at": at(15), "kind": "redone", "of": more.uid})
        told = [
            state_of(its, events, at(16)) for events in ([more, moved], [more, moved, back], [more, moved, back, again])
        ]
        assert [run_state.steps[-1].planned_starts for run_state in told] == [at(150), at(110), at(150)]
        assert [run_state.says for run_state in told] == [["Cut later."], [], ["Cut later."]]

    def test_it_falls_with_anything_that_it_was_made_after(self):
        """Made for the second five minutes; the first are taken back, and it was planned from what is not so. A note
        bears on nothing: taken back, the plan stands. And what was away when it was made may stay away."""
        its = cake()
        first, second, back = happened((11, "not_yet", "mix"), (12, "not_yet", "mix"), (14, "undone", None))
        note = event_from({}, uid="event-010", at=at(10), kind="noted", text="Windy.")
        rest = PlanRest(scheduled=[ScheduledStep(step=CUT, starts=at(150), ends=at(160))], says=["Cut later."])
        moved = event_from({}, uid="rest-0001", at=at(13), kind="replanned", of=second.uid, rest=rest)

        def cut_at(*events):
            return state_of(its, events, at(16)).steps[-1].planned_starts

        def of(item):
            return back.model_copy(update={"of": item.uid})

        assert cut_at(note, first, second, moved) == at(150)
        assert cut_at(note, first, second, moved, of(note)) == at(150)
        assert cut_at(note, first, second, moved, of(first)) == at(110)
        assert cut_at(note, first, of(first), second, moved) == at(150)

    def test_it_is_not_for_a_cook_to_say(self):
        with pytest.raises(Refused, match="not for a cook"):
            told_event({"uid": "event-001", "at": NINE, "kind": "replanned"})

    def test_a_pause_stops_the_clock(self):
        """Ten minutes of stirring with a pause of four: due at fourteen."""
        its = plan((MIX, 0), serve=60)
        events = happened((0, "started", "mix"), (3, "paused", "mix"), (7, "resumed", "mix"))
        mix = state_of(its, events, at(8)).steps[0]
        assert (mix.due, mix.paused) == (at(14), None)
        held = state_of(its, events[:2], at(20)).steps[0]
        assert (held.paused, held.due) == (at(3), at(27))

    def test_counted_and_handed_over(self):
        its = plan((MIX, 0), serve=60)
        tap = {"kind": "counted", "step": "mix"}
        raw = [{**tap, "times": 1}, {**tap, "times": 10}, {"kind": "handed", "step": "mix", "text": "the helper"}]
        events = [event_from({"uid": f"event-{i:03}", "at": at(i), **item}) for i, item in enumerate(raw)]
        mix = state_of(its, events, at(8)).steps[0]
        assert (mix.count, mix.who) == (11, "the helper")


@pytest.mark.parametrize(("kind", "counts"), [("handed", True), ("noted", True), ("started", False), ("paused", False)])
def test_a_plan_of_the_rest_outlives_what_is_taken_back_only_if_that_moved_no_step(kind, counts):
    """The plan was made knowing an event before it. Who has a step in hand moves nothing; that it was begun does."""
    its = plan((MIX, 0), (STEAM, 10), serve=60)
    said = {"text": "the other cook"} if kind in ("handed", "noted") else {}
    events = [
        event_from({"uid": "before-1", "at": at(1), "kind": "started", "step": "mix"}),
        event_from({"uid": "before-2", "at": at(2), "kind": kind, "step": "mix", **said}),
        event_from({"uid": "the-rest", "at": at(3), "kind": "replanned", "of": "before-2", "rest": REST}),
        event_from({"uid": "taken-back", "at": at(4), "kind": "undone", "of": "before-2"}),
    ]
    assert ("the-rest" in {event.uid for event in events_that_count(its, events)}) is counts


REST = {"scheduled": [], "says": []}

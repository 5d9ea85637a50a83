"""Plans checked by a reader of their own; runs folded from events, with the clock in the test's hand."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.log.taste import check_tastes, compared, likely_fault, verdict
from kemble.core.plan.schedule import HANDS, HANDS_OF_A_COOK, kitchen_time, plan_for, plan_from, quiet_spans
from kemble.core.run.events import Event, check_event
from kemble.core.run.state import state_of
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.chain import work

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SERVE = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)
KITCHEN = Kitchen()


def steps(way="set-cake", kitchen=KITCHEN, **schools):
    sheet = default_sheet(way).model_dump()
    sheet["schools"].update(schools)
    return work(sheet_from(sheet), kitchen).steps


def broken(plan, kitchen, *, quiet=True):
    """Every rule that a plan breaks, read minute by minute."""
    found = []
    at = {s.step.id: s for s in plan.scheduled}
    for one in plan.scheduled:
        for wait in one.step.after:
            gap = (one.starts - at[wait.step].ends).total_seconds() / 60
            if gap < wait.at_least or (wait.at_most is not None and gap > wait.at_most):
                found.append(f"{one.step.id} begins {gap} min after {wait.step}")
    minute = plan.begin
    while minute < plan.serve:
        doing = [s.step for s in plan.scheduled if s.starts <= minute < s.ends]
        if sum(HANDS[step.hands] for step in doing) > HANDS_OF_A_COOK * kitchen.cooks:
            found.append(f"too few hands at {minute}")
        if (
            sum("burner" in step.uses for step in doing) > kitchen.burners
            or sum("steamer" in s.uses for s in doing) > 1
        ):
            found.append(f"too little equipment at {minute}")
        local = minute.astimezone(kitchen.zone)
        if quiet and (local.hour >= 22 or local.hour < 7) and any(step.hands != "free" for step in doing):
            found.append(f"hands in the night at {local}")
        minute += timedelta(minutes=1)
    return found


@pytest.mark.parametrize("way", sorted(WAYS))
@pytest.mark.parametrize("cooks", [1, 2])
def test_a_plan_keeps_every_rule(way, cooks):
    kitchen = Kitchen(cooks=cooks)
    plan = plan_for(steps(way), kitchen, serve=SERVE, now=NOW)
    assert plan.serve == SERVE
    assert plan.proven
    assert plan.late_min == 0
    assert broken(plan, kitchen) == []


@settings(max_examples=12, deadline=None)
@given(st.integers(0, 24 * 60 - 1), st.sampled_from(sorted(WAYS)))
def test_at_whatever_hour_people_eat(minute, way):
    serve = datetime(2026, 11, 28, tzinfo=UTC) + timedelta(minutes=minute)
    plan = plan_for(steps(way), KITCHEN, serve=serve, now=NOW)
    assert broken(plan, KITCHEN, quiet=plan.quiet_kept) == []
    # Parcels want hands for 153 minutes after a night that ends at seven: season 5, fold 28, water 18, boil 86, hang 12,
    # serve 4. Nothing wants more.
    if 9 * 60 + 33 <= minute < 22 * 60:
        assert plan.quiet_kept


def test_a_set_cake_left_a_night_begins_the_day_before_and_not_in_the_night():
    plan = plan_for(steps(rest="overnight"), KITCHEN, serve=SERVE, now=NOW)
    assert plan.begin.date() == SERVE.date() - timedelta(days=1)
    assert broken(plan, KITCHEN) == []


def test_it_begins_as_late_as_it_can():
    """The critical chain of the default set cake by hand: melt 8, cool 12, mix 7, sieve 5, rest 20, pour 3, steam,
    cool, cut, serve 5, each rounded up to the minute."""
    found = {step.id: step.minutes for step in steps()}
    chain = ["melt", "cool-syrup", "mix", "sieve", "rest-batter", "pour", "steam", "cool", "cut", "serve"]
    plan = plan_for(steps(), KITCHEN, serve=SERVE, now=NOW)
    assert SERVE - plan.begin == timedelta(minutes=sum(-(-found[name] // 1) for name in chain))


def test_a_serve_time_that_is_past_and_one_too_far():
    for serve in (NOW, NOW - timedelta(days=3), NOW + timedelta(days=61)):
        with pytest.raises(Refused) as caught:
            plan_for(steps(), KITCHEN, serve=serve, now=NOW)
        assert caught.value.problems[0].path == "serve"


def test_too_late_says_by_how_much_and_when_it_could_be():
    plan = plan_for(steps(), KITCHEN, serve=NOW + timedelta(hours=1), now=NOW)
    assert plan.late_min == pytest.approx((NOW - plan.begin).total_seconds() / 60)
    assert plan.earliest_serve == plan_from(steps(), KITCHEN, begin=NOW).serve
    assert plan.earliest_serve > NOW + timedelta(hours=3)


def test_forward_keeps_the_rules_too():
    plan = plan_from(steps("boiled-balls"), KITCHEN, begin=NOW)
    assert plan.begin == NOW
    assert broken(plan, KITCHEN, quiet=False) == []


def test_quiet_hours_follow_the_kitchens_clock_over_a_change_of_it():
    """Berlin, 25 October 2026: at 03:00 summer time the clock goes back to 02:00, so the night is an hour longer."""
    kitchen = Kitchen(timezone="Europe/Berlin")
    origin = datetime(2026, 10, 24, 12, 0, tzinfo=ZoneInfo("Europe/Berlin")).astimezone(UTC)
    assert quiet_spans(kitchen, origin, 24 * 60)[0] == (600, 600 + 10 * 60)
    assert quiet_spans(Kitchen(), origin, 24 * 60)[0][1] - quiet_spans(Kitchen(), origin, 24 * 60)[0][0] == 9 * 60


def test_a_wall_clock_time_is_the_kitchens():
    assert kitchen_time(Kitchen(timezone="Asia/Tokyo"), "2026-12-05T15:30").astimezone(UTC).hour == 6
    with pytest.raises(Refused):
        kitchen_time(KITCHEN, "2026-13-05T15:30")


PLAN = plan_from(steps(), KITCHEN, begin=NOW)
SLACK_MIN = 10 * 1.0  # a plan rounds each of the ten steps of its critical chain up to the minute


def event(kind, step=None, minute=0.0, **more):
    return Event(uid=f"uid-{kind}-{step}-{minute}", at=NOW + timedelta(minutes=minute), kind=kind, step=step, **more)


def look(events, minute):
    state = state_of(PLAN, events, NOW + timedelta(minutes=minute))
    return state, {step.id: step for step in state.steps}


def played(until):
    """Everything before `until`, done as planned."""
    found = []
    for one in PLAN.scheduled:
        if one.step.id == until:
            return found, (one.starts - NOW).total_seconds() / 60
        for kind, at in (("started", one.starts), ("done", one.ends)):
            found.append(event(kind, one.step.id, (at - NOW).total_seconds() / 60))
    raise AssertionError(until)


class TestRun:
    def test_it_begins_with_something_for_the_hands(self):
        state, found = look([], 0)
        assert state.focus in ("melt", "line")
        assert {name for name, one in found.items() if one.status == "ready"} == {"melt", "line"}
        assert state.late_min == 0

    def test_a_step_whose_time_has_not_come_does_not_push_in(self):
        """Line is done and melt is on: the steamer could be lit, but is not wanted for a good while."""
        events = [event("done", "line", 1), event("started", "melt", 1)]
        state, found = look(events, 2)
        assert found["raise-steam"].status == "ready"
        assert state.focus == "melt"

    def test_clocks_are_instants(self):
        before, at = played("steam")
        state, found = look([*before, event("started", "steam", at)], at + 5)
        steam = found["steam"]
        step = next(s.step for s in PLAN.scheduled if s.step.id == "steam")
        assert steam.due == NOW + timedelta(minutes=at + step.minutes)
        assert steam.first_check == NOW + timedelta(minutes=at + step.window.first_check)
        assert state.focus == "steam"

    def test_not_yet_moves_the_due_time_and_the_table(self):
        before, at = played("steam")
        events = [*before, event("started", "steam", at)]
        _, was_found = look(events, at + 1)
        now, found = look([*events, event("not_yet", "steam", at + 1)], at + 1)
        assert found["steam"].due - was_found["steam"].due == timedelta(minutes=5)
        assert 5 - SLACK_MIN <= now.late_min <= 5

    def test_a_free_step_starts_and_ends_by_itself(self):
        events = [event("done", "melt", 8)]
        _, found = look(events, 9)
        assert found["cool-syrup"].status == "running"
        assert found["cool-syrup"].started == NOW + timedelta(minutes=8)
        events += [event("done", "line", 10), event("started", "mix", 22)]
        _, found = look(events, 23)
        assert found["cool-syrup"].ended == NOW + timedelta(minutes=22)

    def test_idling_makes_it_late(self):
        state, _ = look([], 30)
        assert 30 - SLACK_MIN <= state.late_min <= 30

    def test_doing_it_faster_does_not_make_it_later(self):
        before, at = played("mix")
        state, _ = look([*before, event("started", "mix", at), event("done", "mix", at + 3)], at + 3)
        assert state.late_min <= 0

    def test_undo_takes_back_one_mark_after_another(self):
        events = [event("started", "melt", 0), event("done", "melt", 8), event("undone", None, 9)]
        _, found = look(events, 9)
        assert found["melt"].status == "running"
        assert found["cool-syrup"].status == "waiting"
        _, found = look([*events, event("undone", None, 10)], 10)
        assert found["melt"].status == "ready"
        _, found = look([*events, event("undone", None, 10), event("undone", None, 11)], 11)
        assert found["melt"].status == "ready"

    def test_undo_of_two_marks_made_at_once_takes_the_later_one(self):
        before, at = played("steam")
        _, found = look([*before, event("started", "steam", at), event("undone", None, at)], at)
        assert found["steam"].status == "ready"
        assert found["pour"].status == "done"

    def test_weights_and_notes_are_kept(self):
        state, found = look(
            [
                event("weighed", "mix", 3, grams=931.5),
                event("noted", "mix", 4, text="thick"),
                event("fault", None, 5, text="lumps"),
            ],
            6,
        )
        assert [one.grams for one in found["mix"].weights] == [931.5]
        assert [(note.kind, note.text) for note in state.notes] == [("noted", "thick"), ("fault", "lumps")]

    def test_to_the_end(self):
        before, at = played("serve")
        state, found = look([*before, event("done", "serve", at + 5), event("finished", None, at + 6)], at + 6)
        assert state.status == "finished"
        assert state.focus is None
        assert all(one.status == "done" for one in found.values())

    @settings(max_examples=60, deadline=None)
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
        _, found = look(events, len(marks))
        assert len(found) == len(PLAN.scheduled)
        for one in found.values():
            assert one.expected_ends >= one.expected_starts
            assert one.ended is None or one.started is not None

    @pytest.mark.parametrize(
        ("bad", "path"),
        [
            (event("done", "dance"), "step"),
            (event("started"), "step"),
            (event("weighed", "mix"), "grams"),
            (event("noted", None, text="  "), "text"),
        ],
    )
    def test_an_event_that_makes_no_sense(self, bad, path):
        with pytest.raises(Refused) as caught:
            check_event(PLAN, bad)
        assert caught.value.problems[0].path == path


class TestTaste:
    def test_told_beside_what_happened(self):
        before, at = played("steam")
        step = next(s.step for s in PLAN.scheduled if s.step.id == "steam")
        events = [
            *before,
            event("started", "steam", at),
            event("done", "steam", at + step.minutes + 4),
            event("weighed", "mix", 1, grams=900.0),
        ]
        facts = work(default_sheet("set-cake"), KITCHEN).facts
        found = {(one.step, one.unit): one for one in compared(PLAN, events, facts, NOW + timedelta(hours=9))}
        steam = found["steam", "min"]
        assert steam.happened - steam.predicted == pytest.approx(4.0)
        assert steam.within
        assert found["mix", "g"].happened == 900.0
        assert ("melt", "min") not in found  # eight minutes by the clock of the hands tell nothing

    @pytest.mark.parametrize(
        ("tastes", "word"),
        [
            ({}, "untasted"),
            ({"softness": 0}, "just right"),
            ({"softness": 2}, "too soft"),
            ({"softness": -1}, "too firm"),
        ],
    )
    def test_verdict(self, tastes, word):
        assert verdict(tastes) == word

    def test_scales_are_the_ways_own(self):
        check_tastes(WAYS["set-cake"], {"softness": -2, "chew": 0})
        for tastes in ({"colour": 1}, {"softness": 3}):
            with pytest.raises(Refused):
                check_tastes(WAYS["set-cake"], tastes)

    def test_a_fault_is_held_against_the_batchs_numbers(self):
        dry = default_sheet("boiled-balls").model_dump()
        dry["parts"][0]["lines"][1]["amount"]["value"] = 178
        facts = work(sheet_from(dry), KITCHEN).facts
        fault = next(one for one in WAYS["boiled-balls"].faults if one.id == "cracks")
        (told,) = likely_fault(fault, facts).evidence
        assert (told.fact.key, told.fact.shown, told.side, told.than) == ("mix.hydration_pct", "74", "low", 77)
        assert likely_fault(fault, work(default_sheet("boiled-balls"), KITCHEN).facts).evidence == []

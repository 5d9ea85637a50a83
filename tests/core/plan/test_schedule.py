"""Plans checked by a reader of their own."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.resources import HANDS, HANDS_OF_A_COOK, quiet_spans
from kemble.core.plan.schedule import kitchen_time, plan_for, plan_from
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


SERVE = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)


KITCHEN = Kitchen()


def steps(way="set-cake", kitchen=KITCHEN, **schools):
    sheet = default_sheet(way).model_dump()
    sheet["schools"].update(schools)
    return work(sheet_from(sheet), kitchen).steps


def broken(plan, kitchen, *, quiet=True):
    """Every rule that a plan breaks, read minute by minute."""
    result = []
    at = {s.step.id: s for s in plan.scheduled}
    for item in plan.scheduled:
        for wait in item.step.after:
            gap = (item.starts - at[wait.step].ends).total_seconds() / 60
            if gap < wait.at_least or (wait.at_most is not None and gap > wait.at_most):
                result.append(f"{item.step.id} begins {gap} min after {wait.step}")
    minute = plan.begin
    while minute < plan.serve:
        doing = [s.step for s in plan.scheduled if s.starts <= minute < s.ends]
        if sum(HANDS[step.hands] for step in doing) > HANDS_OF_A_COOK * kitchen.cooks:
            result.append(f"too few hands at {minute}")
        if (
            sum("burner" in step.uses for step in doing) > kitchen.burners
            or sum("steamer" in s.uses for s in doing) > 1
        ):
            result.append(f"too little equipment at {minute}")
        local = minute.astimezone(kitchen.zone)
        if quiet and (local.hour >= 22 or local.hour < 7) and any(step.hands != "free" for step in doing):
            result.append(f"hands in the night at {local}")
        minute += timedelta(minutes=1)
    return result


@pytest.mark.parametrize("way", sorted(WAYS))
@pytest.mark.parametrize("cooks", [1, 2])
def test_a_plan_keeps_every_rule(way, cooks):
    kitchen = Kitchen(cooks=cooks)
    plan = plan_for(steps(way), kitchen, serve=SERVE, now=NOW)
    assert plan.serve == SERVE
    assert plan.proven
    assert plan.late_min == 0
    assert broken(plan, kitchen) == []


@settings(max_examples=examples(12), deadline=None)
@given(st.integers(0, 24 * 60 - 1), st.sampled_from(sorted(WAYS)))
def test_at_whatever_hour_people_eat(minute, way):
    serve = datetime(2026, 11, 28, tzinfo=UTC) + timedelta(minutes=minute)
    plan = plan_for(steps(way), KITCHEN, serve=serve, now=NOW)
    assert broken(plan, KITCHEN, quiet=plan.quiet_kept) == []
    # Parcels want hands for 153 minutes after a night that ends at seven: season 5, fold 28, water 18, boil 86, hang 12,
    # serve 4. Nothing wants more.
    if 9 * 60 + 33 <= minute < 22 * 60:
        # Ground packets cannot be eaten between 13:50 and 14:46 without a hand in the night. Rinsed in the evening, their
        # soak ends at half past three at the latest; the milk within four hours of that, and all that lies between at its
        # longest, is 13:49. Rinsed at seven, soaked 300 minutes, drained, ground, cooled, wrapped and steamed, it is 14:46.
        assert plan.quiet_kept or (way == "ground-packets" and 13 * 60 + 50 <= minute <= 14 * 60 + 46)


@pytest.mark.parametrize(("minute", "kept"), [(13 * 60 + 49, True), (14 * 60, False), (14 * 60 + 47, True)])
def test_ground_packets_have_an_hour_that_wants_a_hand_in_the_night(minute, kept):
    serve = datetime(2026, 11, 28, tzinfo=UTC) + timedelta(minutes=minute)
    assert plan_for(steps("ground-packets"), KITCHEN, serve=serve, now=NOW).quiet_kept is kept


def test_a_set_cake_left_a_night_begins_the_day_before_and_not_in_the_night():
    plan = plan_for(steps(rest="overnight"), KITCHEN, serve=SERVE, now=NOW)
    assert plan.begin.date() == SERVE.date() - timedelta(days=1)
    assert broken(plan, KITCHEN) == []


def test_it_begins_as_late_as_it_can():
    """The critical chain of the default set cake by hand: melt 8, cool 12, mix 7, sieve 5, rest 20, pour 3, steam,
    cool, cut, serve 5, each rounded up to the minute."""
    result = {step.id: step.minutes for step in steps()}
    chain = ["melt", "cool-syrup", "mix", "sieve", "rest-batter", "pour", "steam", "cool", "cut", "serve"]
    plan = plan_for(steps(), KITCHEN, serve=SERVE, now=NOW)
    assert SERVE - plan.begin == timedelta(minutes=sum(-(-result[name] // 1) for name in chain))


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


@pytest.mark.parametrize("seconds", [1, 30, 59])
def test_begun_within_a_minute_it_is_planned_from_the_next(seconds):
    """Plans count in whole minutes, and nothing is planned for a moment that is over."""
    sharp = plan_from(steps("boiled-balls"), KITCHEN, begin=NOW + timedelta(minutes=1))
    late = plan_from(steps("boiled-balls"), KITCHEN, begin=NOW + timedelta(seconds=seconds))
    assert [(item.step.id, item.starts) for item in late.scheduled] == [
        (item.step.id, item.starts) for item in sharp.scheduled
    ]

"""Who does what, by hand: where tasks lie is given, and each has one person who may, is there and has the hands free."""

from datetime import UTC, datetime, timedelta

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.cook_assignment import assign_cooks
from kemble.core.plan.day_solver import Dish, PlanRequest, SolvedDay, key_of, tasks_of
from kemble.core.plan.resources import Clock, HelperHours
from kemble.core.stations.steps import StepResult, StepWait

NOON = datetime(2026, 12, 5, 12, 0, tzinfo=UTC)


def step(name, minutes, hands="held", after=(), work="safe"):
    waits = [StepWait(step=before, at_least=0, at_most=None) for before in after]
    rest = {"cue": None, "window": None, "target": None, "to_hand": [], "cautions": []}
    return StepResult(
        id=name, title=name, words="", minutes=minutes, hands=hands, work=work, uses=[], after=waits, **rest
    )


def who(steps, starts, *helpers, cooks=2, more_cooks=0):
    """Names by step. `starts`: minutes after noon."""
    dish = Dish("a cake", steps, NOON + timedelta(hours=5))
    asked = PlanRequest((dish,), Kitchen(cooks=cooks), helpers=helpers, more_cooks=more_cooks)
    at = {key_of(0, name): minute for name, minute in starts.items()}
    given = assign_cooks(asked, SolvedDay(Clock(NOON), at, tasks_of([dish]), proven=True, gap_pct=0.0))
    return {key.split(":")[1]: name for key, name in given.items()}


def helper(name, begins, ends, *, safe_only=False):
    return HelperHours(name, NOON + timedelta(minutes=begins), NOON + timedelta(minutes=ends), safe_only)


def test_a_cook_alone_is_not_named():
    assert who([step("stir", 30)], {"stir": 0}, cooks=1) == {}
    assert who([step("stir", 30)], {"stir": 0}, cooks=1, more_cooks=1) == {"stir": "cook 1"}


def test_both_hands_are_one_persons_and_whoever_began_goes_on():
    steps = [step("knead", 30), step("stir", 30), step("pour", 10, after=["stir"]), step("roll", 10, after=["knead"])]
    given = who(steps, {"knead": 0, "stir": 0, "pour": 30, "roll": 30})
    assert given["knead"] != given["stir"]
    assert (given["pour"], given["roll"]) == (given["stir"], given["knead"])


def test_what_goes_by_itself_is_nobodys():
    assert who([step("cool", 60, "free"), step("cut", 5)], {"cool": 0, "cut": 60}) == {"cut": "cook 1"}


def test_one_thing_can_be_watched_beside_what_takes_both_hands_as_far_as_hands_go():
    steps = [step("boil", 60, "minded"), step("stir", 20)]
    late = helper("Ash", 200, 300)
    assert who(steps, {"boil": 0, "stir": 10}, late, cooks=1) == {"boil": "cook 1", "stir": "cook 1"}
    more = [*steps, step("knead", 20)]
    assert "knead" not in who(more, {"boil": 0, "stir": 10, "knead": 10}, late, cooks=1)


def test_a_helper_comes_before_a_cook_while_there_and_a_child_first_where_it_is_safe():
    steps = [step("wash", 10), step("cut", 10, work="knife"), step("fry", 10, work="stove"), step("plate", 10)]
    starts = {"wash": 0, "cut": 10, "fry": 20, "plate": 40}
    given = who(steps, starts, helper("Wren", 0, 45, safe_only=True), helper("Ash", 0, 25))
    assert given == {"wash": "Wren", "cut": "Ash", "fry": "cook 1", "plate": "cook 1"}


def test_a_helper_stays_to_the_last_minute_and_no_longer():
    steps = [step("wash", 10)]
    assert who(steps, {"wash": 5}, helper("Wren", 5, 15)) == {"wash": "Wren"}
    assert who(steps, {"wash": 5}, helper("Wren", 6, 60)) == {"wash": "cook 1"}
    assert who(steps, {"wash": 5}, helper("Wren", 0, 14)) == {"wash": "cook 1"}

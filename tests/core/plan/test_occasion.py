"""An occasion's own rules by hand: when it may be, what moved against the plan before, one dish out of a day."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.occasion import Occasion, asked_of, dish_of, plan_day, plan_of_dish, serving_instant
from kemble.core.plan.schedule import kitchen_time, plan_for
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(timezone="Europe/Lisbon", cooks=2)
NOW = datetime(2026, 12, 1, 9, 0, tzinfo=UTC)
CAKE = work(default_sheet("set-cake"), KITCHEN).steps


def at(wall):
    return Occasion(servings=({"at": wall},))


class TestServing:
    def test_is_on_the_kitchens_clock(self):
        instant = serving_instant(at("2026-12-05T15:30"), KITCHEN, 0, NOW)
        assert instant == datetime(2026, 12, 5, 15, 30, tzinfo=UTC)
        summer = serving_instant(at("2027-07-05T15:30"), KITCHEN, 0, NOW)
        assert summer == datetime(2027, 7, 5, 14, 30, tzinfo=UTC)

    @pytest.mark.parametrize("wall", ["2026-12-01T09:00", "2026-11-30T09:01"])
    def test_what_is_past_or_now_is_refused(self, wall):
        with pytest.raises(Refused) as refused:
            serving_instant(at(wall), KITCHEN, 0, NOW)
        (problem,) = refused.value.problems
        assert (problem.path, problem.accepts) == ("servings.0.at", "a time after 2026-12-01 09:00")
        assert problem.says == f"{wall.replace('T', ' ')} is past"

    def test_thirteen_months_are_the_most(self):
        assert serving_instant(at("2028-01-05T09:00"), KITCHEN, 0, NOW)
        with pytest.raises(Refused, match="more than thirteen months off"):
            serving_instant(at("2028-01-05T09:01"), KITCHEN, 0, NOW)


class TestDay:
    def day(self, wall="2026-12-05T15:30", before=None):
        occasion = at(wall)
        serve = serving_instant(occasion, KITCHEN, 0, NOW)
        return plan_day(occasion, [dish_of("cake", CAKE, serve, 0)], KITCHEN, now=NOW, before=before)

    def test_what_moved_is_told_by_its_minutes(self):
        first = self.day()
        assert first.moved == []
        later = self.day("2026-12-05T16:10", before=first.plan)
        by = {moved.step: moved.by_min for moved in later.moved}
        assert set(by) == {step.id for step in CAKE}
        assert by["serve"] == by["cut"] == 40
        assert all(5 <= minutes <= 40 for minutes in by.values())  # what has slack moves less
        assert self.day(before=first.plan).moved == []
        assert self.day("2026-12-05T15:34", before=first.plan).moved == []  # under five minutes is nothing
        assert "serve" in {moved.step for moved in self.day("2026-12-05T15:35", before=first.plan).moved}

    def test_a_dish_has_its_own_plan_out_of_the_day(self):
        plan = self.day().plan
        own = plan_of_dish(plan, 0)
        assert [each.step.id for each in own.scheduled] == [each.step.id for each in plan.scheduled]
        assert (own.begin, own.serve) == (own.scheduled[0].starts, own.scheduled[-1].ends)
        with pytest.raises(Refused, match="none of this day"):
            plan_of_dish(plan, 1)

    def test_of_two_dishes_each_has_its_own(self):
        """A day of two cakes: the second's plan has its own steps alone, as the only dish of it, from its first to its table."""
        serve = serving_instant(at("2026-12-05T15:30"), KITCHEN, 0, NOW)
        dishes = [dish_of("cake", CAKE, serve, 0), dish_of("another", CAKE, serve, 0)]
        plan = plan_day(at("2026-12-05T15:30"), dishes, KITCHEN, now=NOW).plan
        second = plan_of_dish(plan, 1)
        its_own = [each for each in plan.scheduled if each.dish == 1]
        assert [each.starts for each in second.scheduled] == [each.starts for each in its_own]
        assert {each.dish for each in second.scheduled} == {0}
        assert len(second.scheduled) == len(CAKE) < len(plan.scheduled)
        assert (second.begin, second.serve) == (its_own[0].starts, its_own[-1].ends)


class TestWhatIsAsked:
    serve = datetime(2026, 12, 5, 15, 30, tzinfo=UTC)

    def asked(self, **more):
        occasion = Occasion.model_validate({"servings": [{"at": "2026-12-05T15:30"}], "dishes": [{"sheet": 1}], **more})
        return asked_of(occasion, [dish_of("cake", CAKE, self.serve, 0)], KITCHEN, NOW)

    def test_a_helper_is_there_from_when_to_when(self):
        helper = {"name": "Wren", "begins": "2026-12-05T10:00", "ends": "2026-12-05T12:30", "safe_only": True}
        (hours,) = self.asked(helpers=[helper]).helpers
        assert (hours.name, hours.safe_only) == ("Wren", True)
        assert (hours.begins, hours.ends) == (
            datetime(2026, 12, 5, 10, 0, tzinfo=UTC),
            datetime(2026, 12, 5, 12, 30, tzinfo=UTC),
        )

    def test_nothing_is_planned_before_now(self):
        assert self.asked().not_before == NOW

    def test_a_step_that_is_not_there_cannot_be_pinned(self):
        with pytest.raises(Refused) as refused:
            self.asked(pins=[{"dish": 0, "step": "fly", "at": "2026-12-05T10:00"}])
        (problem,) = refused.value.problems
        assert (problem.path, problem.accepts) == ("pins.0.step", "a step of it")
        assert problem.says == "“fly” is no step of that sheet"


def test_a_time_on_the_kitchens_clock():
    assert kitchen_time(KITCHEN, "2026-12-05T15:30") == datetime(2026, 12, 5, 15, 30, tzinfo=UTC)
    with pytest.raises(Refused) as refused:
        kitchen_time(KITCHEN, "soon")
    (problem,) = refused.value.problems
    assert (problem.path, problem.accepts) == ("serve", "a time such as 2026-12-05T15:30")
    assert problem.says == '"soon" is not a date and time'


class TestMadeBefore:
    def test_all_of_it_a_day_sooner(self):
        dish = dish_of("cake", CAKE, NOW, 2)
        assert (dish.serve, dish.made_by, dish.later) == (NOW - timedelta(days=2), None, frozenset())

    def test_what_is_fried_is_fried_on_the_day(self):
        document = {**default_sheet("set-cake").model_dump(mode="json"), "schools": {"finish": "fry"}}
        dish = dish_of("cake", work(sheet_from(document), KITCHEN).steps, NOW, 2)
        assert (dish.serve, dish.made_by) == (NOW, NOW - timedelta(days=2))
        assert dish.later == {"fry", "serve"}


def test_a_plan_can_lie_at_another_time_over_a_change_of_the_clocks():
    """Clocks in Lisbon go forward in the night to 28 March 2027: an hour of the wall is no hour of the cook's."""
    serve = datetime(2027, 3, 27, 23, 0, tzinfo=UTC)
    plan = plan_for(CAKE, KITCHEN, serve=serve, now=serve - timedelta(days=1))
    moved = plan.shifted(timedelta(hours=6))
    pairs = ((moved.serve, plan.serve), (moved.begin, plan.begin))
    assert [later.astimezone(UTC) - sooner.astimezone(UTC) for later, sooner in pairs] == [timedelta(hours=6)] * 2
    lasts = [(each.ends - each.starts) for each in plan.scheduled]
    assert [(each.ends.astimezone(UTC) - each.starts.astimezone(UTC)) for each in moved.scheduled] == lasts

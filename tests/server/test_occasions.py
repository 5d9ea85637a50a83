"""Occasions over the API: several sheets for one table, edited, pinned, taken along; and those kept before there were any."""

import threading
from datetime import UTC, datetime

import pytest
import time_machine
from asking import table
from icalendar import Calendar

from kemble.core.plan.occasion import plan_day
from kemble.core.plan.plan_progress import PlanningStopped
from kemble.server.models import OccasionRecord
from kemble.server.occasions import occasion_days, planning_jobs

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as travelled:
        yield travelled


@pytest.fixture
def balls(owner):
    return owner.ask("POST", "/sheets", {"way": "boiled-balls"}).body


def opened(owner, occasion):
    return owner.ask("GET", f"/occasions/{occasion}").body


def save(owner, result, **change):
    body = {"revision": result["revision"], "occasion": {**result["occasion"], **change}}
    return owner.ask("PUT", f"/occasions/{result['id']}", body)


def starts(result):
    return {(item["dish"], item["step"]["id"]): item["starts"] for item in result["day"]["plan"]["scheduled"]}


class TestSeveral:
    def test_two_sheets_have_one_plan(self, owner, sheet, balls):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, balls, title="Tea", people=12)}).body
        assert [dish["title"] for dish in result["dishes"]] == [sheet["sheet"]["title"], balls["sheet"]["title"]]
        assert {dish for dish, _ in starts(result)} == {0, 1}
        card = owner.ask("GET", "/occasions").body[0]
        assert (card["title"], card["people"], card["sheets"]) == ("Tea", 12, [sheet["id"], balls["id"]])
        assert 0 <= card["in_time_pct"] <= 100

    def test_so_many_people_make_it_so_large(self, owner, balls):
        """Twelve people with three each are thirty-six balls; of twenty four, seventy-two."""
        body = table(balls, people=12)
        body["dishes"][0]["each"] = 3
        result = owner.ask("POST", "/occasions", {"occasion": body}).body
        assert result["dishes"][0]["pieces"] == 36
        more = save(owner, result, servings=[{"at": "2026-11-28T15:30", "people": 24}]).body
        assert more["dishes"][0]["pieces"] == 72
        assert owner.ask("GET", f"/sheets/{balls['id']}").body["sheet"] == balls["sheet"]  # the sheet stays as it is

    def test_a_part_that_is_there_is_not_made(self, owner, balls):
        body = table(balls)
        result = owner.ask("POST", "/occasions", {"occasion": body}).body
        body["dishes"][0]["there"] = ["filling"]
        without = save(owner, result, dishes=body["dishes"]).body
        made = {step for _, step in starts(result)} - {step for _, step in starts(without)}
        assert made
        assert all(step.startswith("filling-") for step in made)

    def test_a_dish_begins_its_run_on_its_own_part_of_the_day(self, owner, sheet, balls):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, balls)}).body
        run = owner.ask("POST", "/runs", {"occasion": result["id"], "dish": 1}).body
        assert run["way"] == "boiled-balls"
        mine = {step: at for (dish, step), at in starts(result).items() if dish == 1}
        assert {item["step"]["id"]: item["starts"] for item in run["plan"]["scheduled"]} == mine
        assert owner.ask("POST", "/runs", {"occasion": result["id"], "dish": 2}).status_code == 422


class TestEdited:
    def test_a_pin_is_kept_and_little_else_moves(self, owner, sheet, balls):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, balls)}).body
        was = starts(result)
        at = datetime.fromisoformat(was[(0, "steam")])
        pin = {"dish": 0, "step": "steam", "at": f"{at:%Y-%m-%dT%H}:{at.minute:02d}"}
        pin["at"] = f"{at.replace(minute=(at.minute - 5) % 60, hour=at.hour - (at.minute < 5)):%Y-%m-%dT%H:%M}"
        now = save(owner, result, pins=[pin]).body
        assert starts(now)[(0, "steam")].startswith(pin["at"])
        moved = {(item["dish"], item["step"]) for item in now["day"]["moved"]}
        assert (0, "steam") in moved
        assert all(dish == 0 for dish, _ in moved)

    def test_saved_elsewhere_is_said_and_nothing_is_overwritten(self, owner, sheet):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        assert save(owner, result, title="First").status_code == 200
        assert save(owner, result, title="Second").status_code == 409
        assert opened(owner, result["id"])["occasion"]["title"] == "First"

    def test_sent_twice_is_saved_once(self, owner, sheet):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        body = {"revision": 1, "occasion": {**result["occasion"], "title": "Tea"}, "uid": "the-same-save-again"}
        answers = [owner.ask("PUT", f"/occasions/{result['id']}", body) for _ in range(2)]
        assert [answer.status_code for answer in answers] == [200, 200]
        assert answers[0].body["revision"] == answers[1].body["revision"] == 2

    def test_with_no_sheet_it_is_kept_and_has_no_day_yet(self, owner):
        result = owner.ask("POST", "/occasions", {"occasion": table(title="Tea")}).body
        assert result["day"]["plan"] is None
        assert result["day"]["clash"] is None
        assert owner.ask("GET", "/occasions").body[0]["title"] == "Tea"

    def test_what_cannot_be_done_is_kept_with_why(self, owner, sheet):
        """Eaten within the hour: the clash, and how much later it could be."""
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve="2026-11-25T10:00")}).body
        assert result["day"]["plan"] is None
        later = next(item for item in result["day"]["clash"]["remedies"] if item["kind"] == "later")
        at = datetime(2026, 11, 25, 10, 0, tzinfo=UTC).timestamp() + later["minutes"] * 60
        serve = f"{datetime.fromtimestamp(at, UTC):%Y-%m-%dT%H:%M}"
        assert save(owner, result, servings=[{"at": serve}]).body["day"]["plan"]

    def test_another_school_is_offered_and_taken(self, owner, sheet):
        """Chilled it cannot be cut before twenty to two, on the counter at a quarter past one: for twenty-five past the
        counter is offered, and taken it works."""
        chilled = {**sheet["sheet"], "schools": {**sheet["sheet"]["schools"], "rest": "chill"}}
        owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": chilled})
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, serve="2026-11-25T13:25")}).body
        school = next(item for item in result["day"]["clash"]["remedies"] if item["kind"] == "school")
        assert (school["choice"], school["school"]) == ("rest", "cool")
        dish = {**result["occasion"]["dishes"][0], "schools": {school["choice"]: school["school"]}}
        assert save(owner, result, dishes=[dish]).body["day"]["plan"]

    def test_a_soak_that_falls_into_the_night_may_stand_in_the_fridge(self, owner):
        """Soaked an hour and a half and eaten at nine: begun at seven it is too late, begun before ten at night it would
        stand drained too long. Overnight in the fridge it lies in between, and takes a shelf of it."""
        rice = owner.ask("POST", "/sheets", {"way": "pounded"}).body
        grain = {**rice["sheet"]["grain"], "soak_min": 90, "soak_c": 18}
        owner.ask("PUT", f"/sheets/{rice['id']}", {"revision": 1, "sheet": {**rice["sheet"], "grain": grain}})
        result = owner.ask("POST", "/occasions", {"occasion": table(rice, serve="2026-11-26T09:00")}).body
        soak = next(item for item in result["day"]["clash"]["remedies"] if item["kind"] == "soak")
        assert soak["soak"] == "overnight"
        dish = {**result["occasion"]["dishes"][0], "soak": soak["soak"]}
        steps = {
            item["step"]["id"]: item for item in save(owner, result, dishes=[dish]).body["day"]["plan"]["scheduled"]
        }
        assert steps["soak"]["step"]["uses"] == ["fridge"]
        assert steps["soak"]["step"]["minutes"] == 720

    @pytest.mark.parametrize(
        ("change", "path"),
        [
            ({"servings": []}, "occasion.servings"),
            ({"servings": [{"at": "2026-11-24T15:30"}]}, "servings.0.at"),
            ({"servings": [{"at": "2026-11-31T15:30"}]}, "servings.0.at"),
            ({"servings": [{"at": "tea time"}]}, "servings.0.at"),
            ({"dishes": [{"sheet": 999999}]}, "dishes.0.sheet"),
            ({"dishes": [{"sheet": 1, "serving": 3}]}, "occasion.dishes.0.serving"),
            ({"dishes": [{"sheet": 1}] * 61}, "occasion.dishes"),
            ({"pins": [{"dish": 4, "step": "steam", "at": "2026-11-28T12:00"}]}, "occasion.pins.0.dish"),
        ],
    )
    def test_what_will_not_do_names_its_field_and_changes_nothing(self, owner, sheet, change, path):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        answer = save(owner, result, **change)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path
        assert answer.body["problems"][0]["accepts"]
        assert opened(owner, result["id"])["revision"] == 1


class TestTakenAlong:
    def test_a_calendar_and_plain_text(self, owner, sheet, balls):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, balls, title="Tea")}).body
        calendar = owner.ask("GET", f"/occasions/{result['id']}/day.ics")
        assert calendar.headers["Content-Type"].startswith("text/calendar")
        events = Calendar.from_ical(calendar.content).walk("VEVENT")
        assert len(list(events)) == len(result["day"]["plan"]["scheduled"]) + 1
        text = owner.ask("GET", f"/occasions/{result['id']}/day.txt").content.decode()
        assert text.startswith("Tea\n===")
        assert "On the table" in text


class Slow:
    """A planner that holds until it is let go, or stopped: then there is nothing to show."""

    def __init__(self, monkeypatch, patience_s=0.0):
        self.go, self.asked = threading.Event(), 0
        real = plan_day

        def plan(*args, watch, **more):
            self.asked += 1
            while not self.go.wait(0.01):
                if watch.stopped:
                    raise PlanningStopped
            return real(*args, watch=watch, **more)

        monkeypatch.setattr(occasion_days, "plan_day", plan)
        monkeypatch.setattr(planning_jobs, "PATIENCE_S", patience_s)

    def finish(self, monkeypatch):
        self.go.set()
        monkeypatch.setattr(planning_jobs, "PATIENCE_S", 60.0)


class TestADayThatTakesLong:
    def test_it_is_saved_at_once_and_looked_at_until_it_is_there(self, owner, sheet, balls, monkeypatch):
        slow = Slow(monkeypatch)
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet, balls)}).body
        assert (result["day"]["plan"], result["planning"]["stopped"]) == (None, False)
        assert result["planning"]["says"] == "Looking for the best day"
        more = save(owner, result, title="Tea").body  # edited while it is planned: the newest counts
        assert (more["revision"], more["planning"]["stopped"]) == (2, False)
        slow.finish(monkeypatch)
        there = opened(owner, result["id"])
        assert there["planning"] is None
        assert {dish for dish, _ in starts(there)} == {0, 1}
        assert there["occasion"]["title"] == "Tea"
        assert opened(owner, result["id"])["day"] == there["day"]

    def test_asked_for_twice_it_is_planned_once(self, owner, sheet, monkeypatch):
        slow = Slow(monkeypatch)
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        for _ in range(3):
            assert opened(owner, result["id"])["planning"]
        owner.ask("GET", "/occasions")
        slow.finish(monkeypatch)
        assert opened(owner, result["id"])["day"]["plan"]
        assert slow.asked == 1

    def test_stopped_it_is_the_day_before_until_it_is_asked_for(self, owner, sheet, balls, monkeypatch):
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        slow = Slow(monkeypatch)
        save(owner, result, helpers=[{"name": "Wren", "begins": "2026-11-28T11:00", "ends": "2026-11-28T15:00"}])
        stopped = owner.ask("DELETE", f"/occasions/{result['id']}/planning").body
        assert stopped["planning"]["stopped"]
        assert stopped["day"] == result["day"]
        assert stopped["occasion"]["helpers"]  # it is saved all the same
        assert opened(owner, result["id"])["planning"]["stopped"]
        slow.finish(monkeypatch)
        assert opened(owner, result["id"])["planning"]["stopped"]  # not begun again by whoever looks
        again = owner.ask("POST", f"/occasions/{result['id']}/planning").body
        assert (again["planning"], again["day"]["plan"] is None) == (None, False)

    def test_a_run_waits_for_its_day(self, owner, sheet, monkeypatch):
        slow = Slow(monkeypatch)
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        threading.Timer(0.2, slow.go.set).start()
        assert owner.ask("POST", "/runs", {"occasion": result["id"]}).status_code == 200

    def test_a_server_that_is_stopped_waits_for_no_day(self, owner, sheet, monkeypatch):
        Slow(monkeypatch)
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        assert not result["planning"]["stopped"]
        planning_jobs.end()
        assert opened(owner, result["id"])["planning"]["stopped"]

    def test_nobody_stops_another_kitchens(self, owner, stranger, sheet, monkeypatch):
        slow = Slow(monkeypatch)
        result = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        for method in ("DELETE", "POST"):
            assert stranger.ask(method, f"/occasions/{result['id']}/planning").status_code == 404
        slow.finish(monkeypatch)
        assert opened(owner, result["id"])["day"]["plan"]


class TestYear:
    def test_feasts_and_the_kitchen_s_own_days(self, owner):
        kitchen = owner.ask("GET", "/kitchen").body["kitchen"]
        own = [
            {"name": "Wild herb", "day": "03-01", "until": "05-10", "begin_days": 2},
            {"name": "Quinces", "day": "11-01", "until": "12-20"},
        ]
        owner.ask("PUT", "/kitchen", {"kitchen": {**kitchen, "own_days": own}})
        result = {item["name"]: item for item in reversed(owner.ask("GET", "/feasts").body)}
        assert result["Winter solstice"]["day"] == "2026-12-21"
        assert result["Lunar-solar new year"]["day"] == "2027-02-06"
        assert result["Wild herb"]["begin"] == "2027-02-27"
        assert result["Quinces"]["day"] == "2026-11-01"  # it is in season
        assert [item["day"] for item in owner.ask("GET", "/feasts?days=30").body] == ["2026-11-01", "2026-12-21"]
        assert owner.ask("GET", "/feasts?days=9999").status_code == 422


def test_a_plan_of_one_sheet_becomes_an_occasion(past):
    kept = OccasionRecord.objects.using("past").get()
    assert (kept.title, kept.revision) == ("Tea", 1)
    occasion = kept.occasion
    assert [(serving.at, serving.people) for serving in occasion.servings] == [("2026-11-28T15:30", 9)]
    assert len(occasion.dishes) == 1

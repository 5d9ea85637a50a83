"""Plan, run, log over the API, with the clock in the test's hand; and the demo kitchen."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from asking import table
from django.core.management import call_command

from kemble.core.cards.ways import WAYS
from kemble.core.plan.schedule import Plan
from kemble.server.accounts.owner import local_owner
from kemble.server.demo import load as loading
from kemble.server.models import Batch, Run

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as traveller:
        yield traveller


def tell(owner, run, kind, step=None, uid=None, **more):
    body = {"uid": uid or f"{kind}-{step}-{len(more)}-{run}", "kind": kind, "step": step, **more}
    return owner.ask("POST", f"/runs/{run}/events", body)


def states(owner, run):
    return {step["id"]: step for step in owner.ask("GET", f"/runs/{run}").body["state"]["steps"]}


class TestPlan:
    def test_counted_back_and_kept_as_an_occasion(self, owner, sheet):
        plan = owner.ask("POST", "/plan", {"sheet": sheet["sheet"], "serve": "2026-11-28T15:30"})
        assert plan.body["serve"].startswith("2026-11-28T15:30")
        kept = owner.ask(
            "POST",
            "/occasions",
            {"occasion": table(sheet, title="Mending circle", people=24)},
        )
        assert [item["starts"] for item in kept.body["day"]["plan"]["scheduled"]] == [
            item["starts"] for item in plan.body["scheduled"]
        ]
        assert [item["title"] for item in owner.ask("GET", "/occasions").body] == ["Mending circle"]
        assert owner.ask("DELETE", f"/occasions/{kept.body['id']}").status_code == 204
        assert owner.ask("GET", "/occasions").body == []

    def test_without_a_time_it_is_begun_now(self, owner, sheet):
        """As the making would be that is begun in this moment, and nothing is late."""
        plan = owner.ask("POST", "/plan", {"sheet": sheet["sheet"]}).body
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        begun = owner.ask("GET", f"/runs/{run}").body["plan"]
        assert [(item["step"]["id"], item["starts"]) for item in plan["scheduled"]] == [
            (item["step"]["id"], item["starts"]) for item in begun["scheduled"]
        ]
        assert datetime.fromisoformat(plan["begin"]) == NOW
        assert plan["late_min"] == 0

    @pytest.mark.parametrize("serve", ["2026-11-24T15:30", "2027-11-28T15:30", "2026-02-30T15:30", "soon", ""])
    def test_a_time_that_will_not_do(self, owner, sheet, serve):
        answer = owner.ask("POST", "/plan", {"sheet": sheet["sheet"], "serve": serve})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "serve"

    def test_too_late_is_said(self, owner, sheet):
        plan = owner.ask("POST", "/plan", {"sheet": sheet["sheet"], "serve": "2026-11-25T10:00"}).body
        assert plan["late_min"] > 60
        assert plan["earliest_serve"] > plan["serve"]

    def test_the_serve_time_is_on_the_kitchens_clock(self, owner, sheet):
        kitchen = owner.ask("GET", "/kitchen").body["kitchen"]
        owner.ask("PUT", "/kitchen", {"kitchen": {**kitchen, "timezone": "Asia/Tokyo"}})
        plan = Plan.model_validate(
            owner.ask("POST", "/plan", {"sheet": sheet["sheet"], "serve": "2026-11-28T15:30"}).body
        )
        assert plan.serve == datetime(2026, 11, 28, 6, 30, tzinfo=UTC)


class TestRun:
    @pytest.fixture
    def run(self, owner, sheet):
        return owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]

    def test_clocks_go_on_while_nobody_looks(self, owner, run, clock):
        tell(owner, run, "started", "melt")
        clock.shift(timedelta(minutes=11))
        answer = owner.ask("GET", f"/runs/{run}")
        melt = states(owner, run)["melt"]
        lasts = next(
            item["step"]["minutes"] for item in answer.body["plan"]["scheduled"] if item["step"]["id"] == "melt"
        )
        assert answer.body["now"].startswith("2026-11-25T09:11")
        assert melt["started"].startswith("2026-11-25T09:00")
        due = datetime.fromisoformat(melt["due"]) - datetime.fromisoformat(melt["started"])
        assert due.total_seconds() / 60 == pytest.approx(lasts, abs=0.02)
        assert melt["late_min"] == pytest.approx(11 - lasts, abs=1)

    def test_an_event_sent_twice_is_one(self, owner, run):
        tell(owner, run, "not_yet", "melt", uid="the-same-one")
        answer = tell(owner, run, "not_yet", "melt", uid="the-same-one")
        assert answer.status_code == 200
        assert Run.objects.get(pk=run).events.count() == 1

    def test_an_event_kept_back_by_the_network_keeps_its_time(self, owner, run, clock):
        clock.shift(timedelta(minutes=10))
        kept = tell(owner, run, "started", "melt", at="2026-11-25T09:02:00Z").body
        assert kept["at"].startswith("2026-11-25T09:02")
        assert states(owner, run)["melt"]["started"].startswith("2026-11-25T09:02")

    @pytest.mark.parametrize("at", ["2026-11-26T09:00:00Z", "2020-01-01T00:00:00Z"])
    def test_a_page_whose_clock_is_off(self, owner, run, at):
        assert tell(owner, run, "started", "melt", at=at).body["at"].startswith("2026-11-25T09:00")
        assert states(owner, run)["melt"]["started"].startswith("2026-11-25T09:00")

    @pytest.mark.parametrize(
        ("event", "path"),
        [
            ({"kind": "done", "step": "dance"}, "step"),
            ({"kind": "weighed", "step": "mix", "grams": -3}, "grams"),
            ({"kind": "weighed", "step": "mix"}, "grams"),
            ({"kind": "exploded"}, "kind"),
            ({"kind": "noted", "text": ""}, "text"),
            ({"kind": "noted", "text": "x", "at": "2026-11-25T09:00:00"}, "at"),
            ({"kind": "noted", "text": "x", "at": "yesterday"}, "at"),
        ],
    )
    def test_an_event_that_makes_no_sense(self, owner, run, event, path):
        answer = owner.ask("POST", f"/runs/{run}/events", {"uid": "12345678", **event})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path

    def test_a_rehearsal_goes_sixty_times_as_fast(self, owner, sheet, clock):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
        tell(owner, run, "started", "melt")
        clock.shift(timedelta(seconds=8))
        answer = owner.ask("GET", f"/runs/{run}")
        assert answer.body["pace"] == 60
        assert answer.body["now"].startswith("2026-11-25T09:08")

    def test_a_run_from_an_occasion_keeps_its_plan(self, owner, sheet):
        occasion = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        real = owner.ask("POST", "/runs", {"occasion": occasion["id"]}).body
        assert real["plan"]["scheduled"] == occasion["day"]["plan"]["scheduled"]
        assert real["now"].startswith("2026-11-25T09:00")
        rehearsed = owner.ask("POST", "/runs", {"occasion": occasion["id"], "rehearse": True}).body
        assert rehearsed["now"] == occasion["day"]["plan"]["begin"]

    def test_an_occasion_follows_its_sheet(self, owner, sheet):
        """A deeper cake steams and cools longer: the plan that was kept begins earlier by itself."""
        kept = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        deeper = sheet["sheet"]
        deeper["vessel"]["tin"]["diameter_mm"] = 150
        owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": deeper})
        now = owner.ask("GET", "/occasions").body[0]
        assert now["begin"] < kept["day"]["plan"]["begin"]
        run = owner.ask("POST", "/runs", {"occasion": kept["id"]}).body
        assert run["plan"]["begin"] == now["begin"]
        deeper["vessel"]["tin"]["height_mm"] = 20
        owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 2, "sheet": deeper})
        # No cake fits that tin: the last plan that there was stands.
        assert owner.ask("GET", "/occasions").body[0]["begin"] == now["begin"]

    def test_an_occasion_begun_too_late_is_planned_from_now(self, owner, sheet, clock):
        kept = owner.ask("POST", "/occasions", {"occasion": table(sheet)}).body
        clock.move_to(datetime(2026, 11, 28, 15, 0, tzinfo=UTC))
        run = owner.ask("POST", "/runs", {"occasion": kept["id"]}).body
        state = run["state"]
        assert state["steps"][0]["planned_starts"].startswith("2026-11-28T15:00")
        assert state["serve"] == kept["day"]["plan"]["serve"]  # what was promised
        late = datetime.fromisoformat(state["expected_serve"]) - datetime.fromisoformat(state["serve"])
        assert state["late_min"] == pytest.approx(late.total_seconds() / 60)
        assert state["late_min"] > 60
        assert "later than planned" in state["says"][0]

    def test_a_run_does_not_change_with_its_sheet(self, owner, sheet, run):
        changed = sheet["sheet"]
        changed["vessel"]["tin"]["diameter_mm"] = 240
        owner.ask("PUT", f"/sheets/{sheet['id']}", {"revision": 1, "sheet": changed})
        facts = owner.ask("GET", f"/runs/{run}").body["facts"]
        assert facts["heat.done_min"]["value"] == sheet["worked"]["facts"]["heat.done_min"]["value"]

    def test_given_up_it_is_gone(self, owner, run):
        assert owner.ask("DELETE", f"/runs/{run}").status_code == 204
        assert owner.ask("GET", "/runs").body == []

    def test_neither_sheet_nor_occasion(self, owner):
        assert owner.ask("POST", "/runs", {}).status_code == 422


class TestClocks:
    def test_a_clock_that_runs_is_told_with_its_looks(self, owner, sheet):
        """The steam, begun at nine: its window from then on."""
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        tell(owner, run, "started", "steam")
        (card,) = owner.ask("GET", "/runs").body
        told = {item["step"]: item for item in card["clocks"]}
        step = next(item for item in sheet["worked"]["steps"] if item["id"] == "steam")
        began = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
        for name, minutes in (("first_check", "first_check"), ("due", "done"), ("latest", "latest")):
            at = datetime.fromisoformat(told["steam"][name])
            assert (at - began).total_seconds() / 60 == pytest.approx(step["window"][minutes], abs=0.02)
        assert told["steam"]["title"] == "Steam"


class TestToEat:
    def test_what_was_made_lately_keeps_for_so_long(self, owner, sheet, clock):
        """A cake keeps two days in the cold, by its own facts, from when its run was finished; then it is no more told."""
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        clock.shift(timedelta(hours=4))
        owner.ask("POST", f"/runs/{run}/outcome", {"note": "Good."})
        hours = sheet["worked"]["facts"]["keep.cold_h"]["value"]
        (item,) = owner.ask("GET", "/to-eat").body
        assert item["title"] == sheet["sheet"]["title"]
        left = datetime.fromisoformat(item["until"]) - datetime(2026, 11, 25, 13, 0, tzinfo=UTC)
        assert left.total_seconds() / 3600 == pytest.approx(hours, abs=0.01)
        clock.shift(timedelta(hours=hours + 1))
        assert owner.ask("GET", "/to-eat").body == []

    def test_a_rehearsal_leaves_nothing_to_eat(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
        owner.ask("POST", f"/runs/{run}/outcome", {"note": "Tried."})
        assert owner.ask("GET", "/to-eat").body == []


class TestLog:
    def test_from_the_run_to_the_log(self, owner, sheet, clock):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        tell(owner, run, "weighed", "mix", grams=940.0)
        tell(owner, run, "started", "steam")
        clock.shift(timedelta(minutes=27))
        tell(owner, run, "done", "steam")
        logged = owner.ask(
            "POST",
            f"/runs/{run}/outcome",
            {"tastes": {"softness": 1, "sweetness": 0}, "faults": ["specks"], "note": "Sieve it."},
        )
        batch = logged.body
        assert batch["verdict"] == "too soft"
        result = {(item["step"], item["unit"]): item for item in batch["compared"]}
        assert result["steam", "min"]["happened"] == pytest.approx(27.0)
        assert result["steam", "min"]["predicted"] == pytest.approx(sheet["worked"]["facts"]["heat.done_min"]["value"])
        assert result["mix", "g"]["happened"] == 940.0
        assert batch["faults"][0]["next_time"].startswith("sieve")
        assert owner.ask("GET", "/runs").body == []
        assert tell(owner, run, "started", "cut").status_code == 422
        assert [item["id"] for item in owner.ask("GET", "/log").body["batches"]] == [batch["id"]]
        assert [dot["id"] for dot in owner.ask("GET", f"/sheets/{sheet['id']}").body["dots"]] == [batch["id"]]
        anew = {"tastes": {"softness": 0}, "faults": [], "note": "", "pieces": None, "grams": None}
        assert owner.ask("PUT", f"/log/{batch['id']}", anew).body["verdict"] == "just right"
        for left_out in anew:
            some = {name: value for name, value in anew.items() if name != left_out}
            refused = owner.ask("PUT", f"/log/{batch['id']}", some)
            assert refused.status_code == 422
            assert [(item["path"], item["says"]) for item in refused.body["problems"]] == [(left_out, "is missing")]
        assert len(owner.ask("PUT", f"/log/{batch['id']}", {}).body["problems"]) == 5
        assert owner.ask("GET", f"/log/{batch['id']}").body["tastes"] == {"softness": 0}
        assert owner.ask("DELETE", f"/runs/{run}").status_code == 422

    def test_a_rehearsal_is_logged_but_is_no_dot(self, owner, sheet):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
        assert owner.ask("POST", f"/runs/{run}/outcome", {}).body["rehearsed"]
        assert owner.ask("GET", f"/sheets/{sheet['id']}").body["dots"] == []

    @pytest.mark.parametrize(
        ("outcome", "path"),
        [
            ({"tastes": {"softness": 5}}, "tastes.softness"),
            ({"tastes": {"heart": 0}}, "tastes.heart"),
            ({"faults": ["ghost"]}, "faults"),
            ({"note": "x" * 5000}, "note"),
        ],
    )
    def test_an_outcome_that_makes_no_sense(self, owner, sheet, outcome, path):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        answer = owner.ask("POST", f"/runs/{run}/outcome", outcome)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path
        assert Batch.objects.count() == 0


def whole_log(owner):
    """Every batch, way by way and page by page."""
    result = []
    for way in owner.ask("GET", "/log").body["ways"]:
        first = owner.ask("GET", f"/log?way={way['way']}&size=3").body
        pages = range(1, first["pages"] + 1)
        listed = [owner.ask("GET", f"/log?way={way['way']}&size=3&page={page}").body["batches"] for page in pages]
        result += [batch for page in listed for batch in page]
        assert len(result) == len({batch["id"] for batch in result})
    return result


class TestDemo:
    def test_every_screen_has_real_work_to_show_and_the_same_each_time(self, owner):
        loading.load(NOW)
        sheets, log = owner.ask("GET", "/sheets?size=50").body["sheets"], whole_log(owner)
        assert {sheet["way"] for sheet in sheets} == set(WAYS)
        assert len(log) == loading.PAST_BATCHES
        assert {batch["verdict"] for batch in log} >= {"just right", "too soft", "too firm"}
        assert len(owner.ask("GET", "/runs").body) == 1
        occasions = owner.ask("GET", "/occasions").body
        assert occasions
        assert all(occasion["serve"].startswith("2026-11-28T15:30") for occasion in occasions)
        for sheet in sheets:
            assert owner.ask("GET", f"/sheets/{sheet['id']}").body["worked"]["problems"] == []
        run = owner.ask("GET", "/runs").body[0]  # the cake in the steam is there now
        steam = next(step for step in run["state"]["steps"] if step["id"] == "steam")
        assert run["state"]["focus"] == "steam"
        assert steam["started"].startswith("2026-11-25T08:48")

        # And it is the same each time.
        first = [(item["title"], item["tastes"], item["hydration_pct"]) for item in whole_log(owner)]
        call_command("flush", interactive=False, verbosity=0)
        loading.load(NOW)
        owner.force_login(local_owner())
        assert [(item["title"], item["tastes"], item["hydration_pct"]) for item in whole_log(owner)] == first

    @pytest.mark.parametrize("day", range(7))
    def test_the_saturday_leaves_a_whole_day(self, day):
        now = NOW + timedelta(days=day, hours=3)
        saturday = loading.next_saturday(now, UTC)
        assert (saturday.weekday(), saturday.hour, saturday.minute) == (5, 15, 30)
        assert timedelta(days=1) < saturday - now < timedelta(days=9)

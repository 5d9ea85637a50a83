"""The log that pays back: what is learned moves what is told; tastings, next time, what is left out and why."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from asking import Asking
from django.contrib.auth.models import User

from kemble.server.accounts.owner import local_owner
from kemble.server.learning.posterior import relearn
from kemble.server.models import Batch, KitchenRecord, Member

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as traveller:
        yield traveller


def make(owner, clock, sheet, *, slow=1.0, outcome=None, but=None):
    """A sheet made step after step as told, each heat so many times as long; the batch. `but`: minutes of some steps."""
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body
    for i, item in enumerate(run["plan"]["scheduled"]):
        step = item["step"]
        minutes = (but or {}).get(step["id"], step["minutes"] * (slow if step["window"] else 1.0))
        owner.ask("POST", f"/runs/{run['id']}/events", {"uid": f"begun-{i:04}", "kind": "started", "step": step["id"]})
        clock.shift(timedelta(minutes=minutes))
        owner.ask("POST", f"/runs/{run['id']}/events", {"uid": f"ended-{i:04}", "kind": "done", "step": step["id"]})
    return owner.ask("POST", f"/runs/{run['id']}/outcome", outcome or {}).body


def told(owner, sheet):
    return owner.ask("GET", f"/sheets/{sheet['id']}").body["worked"]["facts"]["heat.done_min"]


class TestLearned:
    def test_a_slow_stove_is_known_after_a_few_makings(self, owner, sheet, clock):
        """A kitchen a quarter slow: told longer by the second making, in a narrower window, with its makings named."""
        before = told(owner, sheet)
        for _ in range(4):
            make(owner, clock, sheet, slow=1.25)
        after = told(owner, sheet)
        assert after["value"] > 1.03 * before["value"]
        assert after["high"] - after["low"] < before["high"] - before["low"]
        page = owner.ask("GET", "/learned").body
        assert page["batches"] == 4
        assert page["rows"]
        assert {len(row["pulls"]) for row in page["rows"]} <= {1, 2, 3, 4}
        assert page["teaches"] == sorted(page["teaches"], key=lambda item: -item["brings_min"])

    def test_another_tin_of_another_sheet_is_told_by_it(self, owner, sheet, clock):
        other = sheet["sheet"]
        other["vessel"]["tin"]["diameter_mm"] = 160
        deep = owner.ask("POST", "/sheets", {"sheet": other}).body
        before = told(owner, deep)["value"]
        for _ in range(3):
            make(owner, clock, sheet, slow=1.3)
        assert told(owner, deep)["value"] > 1.02 * before

    def test_a_row_set_back_is_held_and_let_go(self, owner, sheet, clock):
        before = told(owner, sheet)["value"]
        for _ in range(3):
            make(owner, clock, sheet, slow=1.3)
        rows = owner.ask("GET", "/learned").body["rows"]
        for row in rows:
            page = owner.ask("PUT", f"/learned/{row['id']}", {"held": True}).body
        assert all(row["held"] for row in page["rows"])
        assert told(owner, sheet)["value"] == pytest.approx(before, rel=0.01)
        for row in rows:
            page = owner.ask("PUT", f"/learned/{row['id']}", {"held": False}).body
        assert told(owner, sheet)["value"] > 1.02 * before
        assert page["moved"]

    def test_a_batch_left_out_says_what_that_moves(self, owner, sheet, clock):
        make(owner, clock, sheet)
        odd = make(owner, clock, sheet, slow=1.6)
        learned = told(owner, sheet)["value"]
        page = owner.ask("PUT", f"/log/{odd['id']}/left-out", {"left_out": True}).body
        assert page["moved"]
        assert [item["why"] for item in page["left_out"] if item["batch"] == odd["id"]] == [["you left it out"]]
        assert told(owner, sheet)["value"] < learned
        owner.ask("PUT", f"/log/{odd['id']}/left-out", {"left_out": False})
        assert told(owner, sheet)["value"] == pytest.approx(learned)

    def test_thrown_away_it_teaches_nothing_and_brought_back_it_does(self, owner, sheet, clock):
        before = told(owner, sheet)["value"]
        batch = make(owner, clock, sheet, slow=1.5)
        learned = told(owner, sheet)["value"]
        assert learned != before
        owner.ask("DELETE", f"/log/{batch['id']}")
        assert told(owner, sheet)["value"] == pytest.approx(before)
        owner.ask("POST", f"/dropped/batch/{batch['id']}")
        assert told(owner, sheet)["value"] == pytest.approx(learned)

    def test_a_rehearsal_teaches_nothing_and_is_in_no_list(self, owner, sheet, clock):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
        owner.ask("POST", f"/runs/{run}/outcome", {"tastes": {"softness": 2}})
        assert owner.ask("GET", "/learned").body["batches"] == 0
        assert owner.ask("GET", "/log").body["total"] == 0

    def test_saving_the_kitchen_keeps_nothing_that_was_learned(self, owner, sheet, clock):
        """What was learned is worked out, and comes back with the kitchen; saved, it is not typed into it."""
        make(owner, clock, sheet, slow=1.4)
        opened = owner.ask("GET", "/kitchen").body
        assert opened["kitchen"]["learned"]
        owner.ask("PUT", "/kitchen", {"kitchen": {**opened["kitchen"], "room_c": 24}, "revision": opened["revision"]})
        record = KitchenRecord.objects.get()
        assert not {"learned", "together", "pace"} & set(record.document)
        assert owner.ask("GET", "/kitchen").body["kitchen"]["learned"]

    def test_what_teaches_nothing_is_told_and_why(self, owner, sheet, clock):
        """A clock set wrong, a step ended at once, a batch without anything: the log opens and says so."""
        steam = next(step["id"] for step in sheet["worked"]["steps"] if step["window"])
        make(owner, clock, sheet, but={steam: 0.1})
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        owner.ask("POST", f"/runs/{run}/outcome", {})
        page = owner.ask("GET", "/learned").body
        whys = [why for item in page["left_out"] for why in item["why"]]
        assert any("ended after 0 minutes" in why for why in whys)
        assert any("no step of it" in why for why in whys)

    def test_a_deleted_sheet_takes_nothing_away(self, owner, sheet, clock):
        make(owner, clock, sheet, slow=1.4)
        rows = owner.ask("GET", "/learned").body["rows"]
        owner.ask("DELETE", f"/sheets/{sheet['id']}")
        assert owner.ask("GET", "/learned").body["rows"] == rows

    def test_it_is_one_kitchen_s(self, owner, stranger, sheet, clock):
        batch = make(owner, clock, sheet)
        assert stranger.ask("GET", "/learned").body["batches"] == 0
        assert stranger.ask("PUT", f"/log/{batch['id']}/left-out", {"left_out": True}).status_code == 404
        assert stranger.ask("GET", f"/log/{batch['id']}/next").status_code == 404
        assert stranger.ask("POST", f"/log/{batch['id']}/tastings", {"liking": 1}).status_code == 404

    def test_a_batch_of_before_has_nothing_kept_and_does_no_harm(self, owner, sheet, clock):
        make(owner, clock, sheet)
        Batch.objects.update(seen={})
        relearn(KitchenRecord.objects.get())
        assert owner.ask("GET", "/learned").body["rows"] == []

    def test_no_row_of_that_name(self, owner):
        assert owner.ask("PUT", "/learned/phlogiston", {"held": True}).status_code == 422


class TestTastings:
    def test_several_tongues_now_and_tomorrow(self, owner, sheet, clock):
        batch = make(owner, clock, sheet, outcome={"pieces": 20, "kept": [{"where": "fridge", "pieces": 6}]})
        item = {"uid": "wren-0001", "who": "Wren", "tastes": {"softness": 1}, "liking": 6}
        for _ in range(2):  # an answer was lost
            answer = owner.ask("POST", f"/log/{batch['id']}/tastings", item)
        assert [(each["who"], each["liking"], each["blind"]) for each in answer.body["tastings"]] == [
            ("Wren", 6, False)
        ]
        blind = {"uid": "ember-0001", "who": "Ember", "liking": 4, "blind": True}
        told = owner.ask("POST", f"/log/{batch['id']}/tastings", blind).body["tastings"][-1]
        assert (told["who"], told["blind"]) == ("Ember", True)
        clock.shift(timedelta(hours=24))
        assert [each["taste_again"] for each in owner.ask("GET", "/to-eat").body] == [True]
        owner.ask("POST", f"/log/{batch['id']}/tastings", {"uid": "wren-0002", "who": "Wren", "liking": 8})
        assert [each["taste_again"] for each in owner.ask("GET", "/to-eat").body] == [False]

    @pytest.mark.parametrize(
        "body", [{}, {"tastes": {"heart": 1}}, {"tastes": {"softness": 3}}, {"liking": 10}, {"liking": 0}]
    )
    def test_what_is_no_tasting(self, owner, sheet, clock, body):
        batch = make(owner, clock, sheet)
        assert owner.ask("POST", f"/log/{batch['id']}/tastings", body).status_code == 422

    def test_what_costs_most_of_the_liking(self, owner, sheet, clock):
        """Four of ten found it too soft and liked it 4; six just right and liked it 8: a drop of four."""
        batch = make(owner, clock, sheet)
        for i in range(10):
            soft = i < 4
            body = {"uid": f"tongue-{i:03}", "tastes": {"softness": int(soft)}, "liking": 4 if soft else 8}
            owner.ask("POST", f"/log/{batch['id']}/tastings", body)
        (item,) = owner.ask("GET", f"/log/{batch['id']}/next").body["penalties"]
        assert (item["words"], item["share_pct"], item["drop"]) == ("too soft", 40.0, 4.0)

    def test_what_no_ratio_moves_is_answered_by_the_craft(self, owner, sheet, clock):
        """Two of three tongues on two cakes of the sheet found it too pale: that is told with what cooks do about it."""
        first = make(owner, clock, sheet, outcome={"tastes": {"softness": 0, "colour": -1}})
        second = make(owner, clock, sheet, outcome={"tastes": {"softness": 0, "colour": 0}})
        assert owner.ask("GET", f"/log/{second['id']}/next").body["by_craft"] == []  # one of two is no more than half
        owner.ask("POST", f"/log/{first['id']}/tastings", {"uid": "wren-0001", "tastes": {"colour": -2}})
        (item,) = owner.ask("GET", f"/log/{second['id']}/next").body["by_craft"]
        assert (item["words"], item["said"], item["of"]) == ("too pale", 2, 3)
        assert "longer at heat" in item["does"]


class TestOverTime:
    def test_what_happened_beside_what_was_told(self, owner, sheet, clock):
        """Five cakes, a week apart, each steamed two minutes longer than the one before: said, with where each lay."""
        for i in range(5):
            make(owner, clock, sheet, slow=1.0 + 0.05 * i)
            clock.shift(timedelta(days=7))
        steam = next(step["id"] for step in sheet["worked"]["steps"] if step["window"])
        told = owner.ask("GET", f"/log/over-time?of=happened:{steam}:min").body
        assert (told["way"], told["of"]) == ("set-cake", f"happened:{steam}:min")
        over = [item["value"] / item["told"] for item in told["points"]]  # what is told follows what was learned
        assert over == [pytest.approx(1.0), *sorted(over[1:])]
        assert all(item["low"] <= item["told"] <= item["high"] for item in told["points"])
        assert told["drift"]["a_month"] > 0
        assert "more from month to month" in told["drift"]["says"]

    def test_any_fact_as_it_was_told_and_every_taste(self, owner, sheet, clock):
        facts = owner.ask("GET", f"/sheets/{sheet['id']}").body["worked"]["facts"]
        first = make(owner, clock, sheet, outcome={"tastes": {"softness": 1}, "pieces": 18})
        owner.ask("POST", f"/log/{first['id']}/tastings", {"uid": "wren-0001", "tastes": {"softness": -1}, "liking": 7})

        def value(of):
            return [item["value"] for item in owner.ask("GET", f"/log/over-time?of={of}").body["points"]]

        assert value("told:heat.done_min") == [pytest.approx(facts["heat.done_min"]["value"])]
        assert value("taste:softness") == [0.0]
        assert value("liking") == [7.0]
        assert value("pieces") == [18.0]
        assert value("taste:chew") == []

    def test_of_batches_from_before_it_was_kept_it_is_worked_anew(self, owner, sheet, clock):
        batch = make(owner, clock, sheet)
        kept = owner.ask("GET", "/log/over-time").body["points"]
        row = Batch.objects.get(pk=batch["id"])
        del row.seen["compared"]
        row.save()
        assert owner.ask("GET", "/log/over-time").body["points"] == kept

    def test_what_is_nothing_of_theirs(self, owner, stranger, sheet, clock):
        make(owner, clock, sheet)
        assert owner.ask("GET", "/log/over-time?of=phlogiston").status_code == 422
        assert owner.ask("GET", "/log/over-time?way=pudding").status_code == 422
        assert stranger.ask("GET", "/log/over-time").body["points"] == []

    def test_a_long_log_takes_no_more_queries(self, owner, sheet, clock, django_assert_max_num_queries):
        for _ in range(6):
            make(owner, clock, sheet)
        with django_assert_max_num_queries(9):
            owner.ask("GET", "/log/over-time")


class TestNextTime:
    def test_one_press_makes_it_the_next_revision(self, owner, sheet, clock):
        for _ in range(3):
            batch = make(owner, clock, sheet, outcome={"tastes": {"softness": 1, "sweetness": 1}})
        please = owner.ask("GET", f"/log/{batch['id']}/next").body["proposals"][0]
        changes = {item["lever"]: item["to"] for item in please["changes"]}
        assert set(changes) == {"hydration_pct", "sugar_pct"}
        body = {"kind": "please", "uid": "next-time-1"}
        saved = owner.ask("POST", f"/log/{batch['id']}/next", body).body
        assert owner.ask("POST", f"/log/{batch['id']}/next", body).body == saved == {"revision": 2}
        facts = owner.ask("GET", f"/sheets/{sheet['id']}").body["worked"]["facts"]
        for lever, to in changes.items():
            assert facts[f"mix.{lever}"]["value"] == pytest.approx(to, abs=0.2)

    def test_with_nothing_tasted_nothing_is_proposed(self, owner, sheet, clock):
        batch = make(owner, clock, sheet)
        assert owner.ask("GET", f"/log/{batch['id']}/next").body["proposals"] == []
        assert owner.ask("POST", f"/log/{batch['id']}/next", {"kind": "please"}).status_code == 422

    def test_of_a_sheet_that_is_gone_it_is_only_said(self, owner, sheet, clock):
        batch = make(owner, clock, sheet, outcome={"tastes": {"softness": 2}})
        owner.ask("DELETE", f"/sheets/{sheet['id']}")
        assert owner.ask("GET", f"/log/{batch['id']}/next").body["proposals"]
        assert owner.ask("POST", f"/log/{batch['id']}/next", {"kind": "please"}).status_code in (404, 410, 422)


class TestTheLog:
    def batch(self, owner, sheet, **outcome):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        return owner.ask("POST", f"/runs/{run}/outcome", outcome).body["id"]

    def found(self, owner, query):
        return [item["id"] for item in owner.ask("GET", f"/log?{query}").body["batches"]]

    def test_what_is_sought_is_found(self, owner, sheet, clock):
        soft = self.batch(owner, sheet, tastes={"softness": 2}, note="Lid in a blue cloth.")
        clock.shift(timedelta(days=3))
        right = self.batch(owner, sheet, tastes={"softness": 0})
        owner.ask("POST", f"/log/{right}/tastings", {"uid": "tongue-001", "who": "Wren", "liking": 7})
        other = owner.ask("POST", "/sheets", {"way": "set-cake"}).body
        third = self.batch(owner, other)
        assert self.found(owner, "find=blue") == [soft]
        assert self.found(owner, "find=wren") == [right]
        assert self.found(owner, "verdict=just right") == [right]
        assert self.found(owner, f"sheet={other['id']}") == [third]
        assert self.found(owner, "until=2026-11-26") == [soft]
        assert set(self.found(owner, "since=2026-11-28&until=2026-11-28")) == {right, third}
        assert self.found(owner, "find=nothing like that") == []

    def test_what_cannot_be_sought(self, owner):
        for query in ("verdict=tasty", "since=yesterday", "sheet=0"):
            assert owner.ask("GET", f"/log?{query}").status_code == 422

    def test_no_more_queries_for_a_longer_list(self, owner, sheet, clock, django_assert_max_num_queries):
        for _ in range(6):
            self.batch(owner, sheet, tastes={"softness": 1})
        with django_assert_max_num_queries(9):
            owner.ask("GET", "/log?find=cake&verdict=too soft")


BODY = {"split": {"a": "rested", "b": "not rested", "kind": "triangle", "tasters": 6, "seed": 3}}


class TestSplitBatch:
    def test_served_answered_and_told(self, owner):
        made = owner.ask("POST", "/splits", {**BODY, "uid": "split-0001"}).body
        assert owner.ask("POST", "/splits", {**BODY, "uid": "split-0001"}).body["id"] == made["id"]
        for number, cups in enumerate(made["served"]["cups"], start=1):
            halves = [cup["half"] for cup in cups]
            odd = next(cup["code"] for cup in cups if halves.count(cup["half"]) == 1)
            told = owner.ask("POST", f"/splits/{made['id']}/answers", {"taster": number, "code": odd}).body
        assert told["served"]["verdict"]["right"] == 6
        assert told["served"]["verdict"]["told_apart"]
        assert owner.ask("GET", "/splits").body[0]["says"] == "Told apart: 6 of 6 found the odd one."

    @pytest.fixture
    def table(self, owner, invited):
        """A table for three, and three tasters: (its number, its codes, the tasters)."""
        made = owner.ask("POST", "/splits", {"split": {**BODY["split"], "tasters": 3}}).body
        kitchen = local_owner().member.kitchen
        tasters = [invited["taster"]]
        for name in ("wren", "rye"):
            user = User.objects.create_user(name)
            Member.objects.create(kitchen=kitchen, user=user, role="taster")
            tasters.append(Asking())
            tasters[-1].force_login(user)
        return made["id"], made["codes"], tasters

    def answer(self, client, split, taster, code):
        return client.ask("POST", f"/splits/{split}/answers", {"taster": taster, "code": code})

    def test_a_taster_is_told_nothing_of_the_others_before_all_have_answered(self, table, owner):
        split, codes, tasters = table
        for number, taster in enumerate(tasters, start=1):
            asked = taster.ask("GET", f"/splits/{split}")
            assert asked.body["served"] is None
            assert (asked.body["answers"], asked.body["mine"]) == ([], None)
            assert asked.body["answered"] == list(range(1, number))
            assert not any(word in asked.content.decode() for word in ('"half"', '"seed"', '"right"'))
            assert taster.ask("GET", "/splits").body[0]["says"] == f"{number - 1} of 3 have answered"
            told = self.answer(taster, split, number, codes[number - 1][0]).body
            assert told["mine"] == number
        assert told["served"]["cups"] == owner.ask("GET", f"/splits/{split}").body["served"]["cups"]
        assert len(told["answers"]) == 3

    def test_a_taster_answers_once_for_one(self, table):
        """Not for another seat, not in another's place."""
        split, codes, (item, two, _) = table
        assert self.answer(item, split, 1, codes[0][0]).status_code == 200
        for taster, seat in ((item, 2), (item, 3), (two, 1)):
            refused = self.answer(taster, split, seat, codes[seat - 1][0])
            assert (refused.status_code, refused.body["problems"][0]["path"]) == (422, "taster")
        assert item.ask("GET", f"/splits/{split}").body["answered"] == [1]

    def test_it_can_be_changed_until_what_was_in_the_cups_is_told(self, table, owner):
        split, codes, tasters = table
        assert self.answer(tasters[0], split, 1, codes[0][0]).status_code == 200
        assert self.answer(tasters[0], split, 1, codes[0][1]).body["answers"] == [{"taster": 1, "code": codes[0][1]}]
        for number in (2, 3):
            self.answer(tasters[number - 1], split, number, codes[number - 1][0])
        refused = self.answer(tasters[0], split, 1, codes[0][2])
        assert (refused.status_code, "all have answered" in refused.body["problems"][0]["says"]) == (422, True)
        kept = owner.ask("GET", f"/splits/{split}").body["answers"]
        assert {"taster": 1, "code": codes[0][1]} in kept

    def test_whoever_serves_writes_down_what_is_said_aloud(self, table, owner):
        split, codes, (item, *_) = table
        assert self.answer(owner, split, 2, codes[1][0]).status_code == 200
        assert self.answer(owner, split, 3, codes[2][0]).status_code == 200
        assert self.answer(item, split, 2, codes[1][1]).status_code == 422
        assert self.answer(item, split, 1, codes[0][0]).body["served"]

    def test_what_is_no_answer(self, owner):
        made = owner.ask("POST", "/splits", BODY).body
        for body in ({"taster": 9, "code": "123"}, {"taster": 1, "code": "abc"}, {"taster": 0, "code": "123"}):
            assert owner.ask("POST", f"/splits/{made['id']}/answers", body).status_code == 422

    def test_it_is_one_kitchen_s(self, owner, stranger):
        made = owner.ask("POST", "/splits", BODY).body
        assert stranger.ask("GET", f"/splits/{made['id']}").status_code == 404
        assert stranger.ask("DELETE", f"/splits/{made['id']}").status_code == 404
        assert owner.ask("DELETE", f"/splits/{made['id']}").status_code == 204
        assert owner.ask("POST", f"/dropped/split/{made['id']}").status_code == 204
        assert owner.ask("GET", f"/splits/{made['id']}").status_code == 200

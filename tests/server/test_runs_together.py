"""Several sheets in one flow: begun together, planned anew together, the same on every device; pictures and stock."""

import io
import math
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest
import time_machine
from asking import table
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from kemble.core.run.events import event_from
from kemble.server.models import Run, RunEvent, Stock
from kemble.server.runs.runs_together import rethink

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SAID = {"tastes": {}, "faults": [], "note": "", "pieces": 20, "grams": None}


@pytest.fixture(autouse=True)
def clock():
    with time_machine.travel(NOW, tick=False) as traveller:
        yield traveller


@pytest.fixture
def rounds(owner):
    return owner.ask("POST", "/sheets", {"way": "stirred-rounds"}).body


@pytest.fixture
def flow(owner, sheet, rounds):
    """A cake and some rounds for one table, begun."""
    occasion = table(sheet)
    occasion["dishes"].append({"sheet": rounds["id"]})
    kept = owner.ask("POST", "/occasions", {"occasion": occasion}).body
    assert kept["day"]["plan"], kept["day"]["clash"]
    return owner.ask("POST", "/runs", {"occasion": kept["id"]}).body


def tell(owner, run, kind, number, step=None, **more):
    body = {"uid": f"event-{number:04}", "kind": kind, "step": step, **more}
    return owner.ask("POST", f"/runs/{run}/events", body)


def opened(owner, run):
    return owner.ask("GET", f"/runs/{run}").body


class TestBegun:
    def test_all_sheets_at_once(self, owner, flow):
        assert len(flow["flow"]) == 2
        titles = {opened(owner, item)["title"] for item in flow["flow"]}
        assert len(titles) == 2
        assert all(opened(owner, item)["flow"] == flow["flow"] for item in flow["flow"])

    def test_pressed_twice_it_goes_on(self, owner, flow):
        again = owner.ask("POST", "/runs", {"occasion": flow["occasion"]}).body
        assert again["flow"] == flow["flow"]

    def test_a_rehearsal_is_a_flow_of_its_own(self, owner, flow):
        played = owner.ask("POST", "/runs", {"occasion": flow["occasion"], "rehearse": True}).body
        assert len(played["flow"]) == 2
        assert not set(played["flow"]) & set(flow["flow"])

    def test_one_that_was_put_aside_is_left_out(self, owner, flow):
        first, second = flow["flow"]
        owner.ask("DELETE", f"/runs/{second}")
        assert opened(owner, first)["flow"] == [first]

    def test_it_is_one_kitchen_s(self, stranger, flow):
        for path in ("", "/news", "/hands", "/report", "/pictures"):
            assert stranger.ask("GET", f"/runs/{flow['id']}{path}").status_code == 404
        assert stranger.ask("POST", f"/runs/{flow['id']}/rest").status_code == 404


class TestTheRest:
    def run_late(self, owner, flow, clock):
        """The first step begun an hour and a half after its time."""
        first = opened(owner, flow["id"])["plan"]["scheduled"][0]
        clock.move_to(datetime.fromisoformat(first["starts"]) + timedelta(minutes=90))
        tell(owner, flow["id"], "started", 1, first["step"]["id"])
        return owner.ask("POST", f"/runs/{flow['id']}/rest").body

    def test_late_it_is_planned_anew_once(self, owner, flow, clock):
        told = self.run_late(owner, flow, clock)
        assert told["state"]["says"]
        planned = [event for event in told["events"] if event["kind"] == "replanned"]
        assert len(planned) == 1
        again = owner.ask("POST", f"/runs/{flow['id']}/rest").body  # another device, about the same
        assert [event["uid"] for event in again["events"]] == [event["uid"] for event in told["events"]]
        assert RunEvent.objects.filter(run__flow=Run.objects.get(pk=flow["id"]).flow).count() == 3

    def test_the_others_are_planned_with_it(self, owner, flow, clock):
        self.run_late(owner, flow, clock)
        other = next(item for item in flow["flow"] if item != flow["id"])
        assert any(event["kind"] == "replanned" for event in opened(owner, other)["events"])

    def test_taken_back_the_others_lie_where_they_lay(self, owner, flow, clock):
        """Three hours of "not yet" at the cake moved the rounds too; taken back, each lies where it lay before."""
        other, run = flow["id"], next(item for item in flow["flow"] if item != flow["id"])
        for number, each in enumerate((other, run)):
            first = opened(owner, each)["plan"]["scheduled"][0]
            clock.move_to(datetime.fromisoformat(first["starts"]))
            tell(owner, each, "started", number, first["step"]["id"])

        def lie():
            return [[item["planned_starts"] for item in opened(owner, each)["state"]["steps"]] for each in (run, other)]

        before = lie()
        for number in range(2, 38):
            tell(owner, run, "not_yet", number, first["step"]["id"])
        owner.ask("POST", f"/runs/{run}/rest")
        moved = lie()
        assert moved[0] != before[0]
        assert moved[1] != before[1]
        for number in range(2, 38):
            tell(owner, run, "undone", number + 100, of=f"event-{number:04}")
        owner.ask("POST", f"/runs/{run}/rest")
        assert lie() == before
        count = len(opened(owner, other)["events"])
        tell(owner, run, "noted", 300, text="All is well.")
        owner.ask("POST", f"/runs/{run}/rest")
        assert len(opened(owner, other)["events"]) == count  # and that is planned once

    def test_in_time_nothing_is_planned_anew(self, owner, flow, clock):
        first = opened(owner, flow["id"])["plan"]["scheduled"][0]
        clock.move_to(datetime.fromisoformat(first["starts"]))
        tell(owner, flow["id"], "started", 1, first["step"]["id"])
        assert [event["kind"] for event in owner.ask("POST", f"/runs/{flow['id']}/rest").body["events"]] == ["started"]

    def test_hands_are_in_one_thing_at_a_time(self, owner, flow, clock):
        """After planning anew no cook holds two things at once: read off the steps of both runs."""
        self.run_late(owner, flow, clock)
        held = []
        for number in flow["flow"]:
            run = opened(owner, number)
            hands = {item["step"]["id"]: item["step"]["hands"] for item in run["plan"]["scheduled"]}
            held += [
                (item["planned_starts"], item["planned_ends"])
                for item in run["state"]["steps"]
                if item["status"] in ("ready", "waiting") and hands[item["id"]] == "held"
            ]
        held.sort()
        assert all(a[1] <= b[0] for a, b in pairwise(held))


class TestWeighed:
    def test_the_dough_makes_the_pieces(self, owner, rounds):
        """Cooked to nine tenths: each piece as much lighter, and that is said; taken back, it is as told again."""
        run = owner.ask("POST", "/runs", {"sheet": rounds["id"]}).body
        facts = run["facts"]
        step = next(
            item["step"]
            for item in run["plan"]["scheduled"]
            if item["step"]["target"] and item["step"]["target"]["key"] == "mix.cooked_g"
        )
        grams = round(facts["mix.cooked_g"]["value"] * 0.9, 1)
        weight = tell(owner, run["id"], "weighed", 1, step["id"], grams=grams).body
        now = owner.ask("POST", f"/runs/{run['id']}/rest").body
        assert now["facts"]["mix.cooked_g"]["value"] == grams
        assert now["facts"]["mix.cooked_g"]["because"]["source"] == "weighed in this making"
        all_of_it = now["facts"]["shape.base_g"]["value"] * now["facts"]["shape.base_enough_for"]["value"]
        assert all_of_it == pytest.approx(grams)
        assert now["state"]["says"]
        targets = {
            item["step"]["id"]: item["step"]["target"]["grams"]
            for rest in [event["rest"] for event in now["events"] if event["kind"] == "replanned"]
            for item in rest["scheduled"]
            if item["step"]["target"]
        }
        assert targets["portion"] == pytest.approx(now["facts"]["shape.base_g"]["value"])
        tell(owner, run["id"], "undone", 2, of=weight["uid"])
        back = owner.ask("POST", f"/runs/{run['id']}/rest").body
        assert back["facts"] == facts

    def test_what_cannot_be_is_asked_about(self, owner, rounds):
        run = owner.ask("POST", "/runs", {"sheet": rounds["id"]}).body
        heavy = tell(owner, run["id"], "weighed", 1, "mix", grams=40_000)
        assert heavy.status_code == 422
        assert "more than it can be" in heavy.body["problems"][0]["says"]
        assert tell(owner, run["id"], "weighed", 2, "mix", grams=40_000, sure=True).status_code == 200

    def test_what_was_added_becomes_the_next_revision(self, owner, rounds):
        run = owner.ask("POST", "/runs", {"sheet": rounds["id"]}).body
        line = next(item for item in run["lines"] if item["part"] == "base")
        added = {"ingredient": line["ingredient"], "part": "base", "grams": 15}
        assert tell(owner, run["id"], "added", 1, added=added).status_code == 200
        batch = owner.ask("POST", f"/runs/{run['id']}/outcome", {"pieces": 14}).body
        assert batch["added"] == [f"15 g of {line['name']} to the {line['part_name']}"]
        was = rounds["sheet"]["parts"]
        saved = owner.ask("POST", f"/sheets/{rounds['id']}/as-made", {"run": run["id"], "uid": "as-made-01"}).body
        again = owner.ask("POST", f"/sheets/{rounds['id']}/as-made", {"run": run["id"], "uid": "as-made-01"}).body
        assert saved == again == {"revision": 2}
        now = owner.ask("GET", f"/sheets/{rounds['id']}").body["sheet"]["parts"]

        def grams(parts):
            base = next(part for part in parts if part["role"] == "base")
            return sum(item["amount"]["value"] for item in base["lines"] if item["ingredient"] == line["ingredient"])

        assert grams(now) == pytest.approx(grams(was) + 15)

    @pytest.mark.parametrize(
        ("added", "path"),
        [
            ({"ingredient": "gold", "part": "base", "grams": 5}, "ingredient"),
            ({"ingredient": "water", "part": "topping", "grams": 5}, "added.part"),
            ({"ingredient": "water", "part": "base", "grams": -5}, "added.grams"),
        ],
    )
    def test_what_cannot_be_added(self, owner, rounds, added, path):
        run = owner.ask("POST", "/runs", {"sheet": rounds["id"]}).body
        answer = tell(owner, run["id"], "added", 1, added=added)
        assert answer.status_code == 422
        assert path in answer.body["problems"][0]["path"]

    def test_nobody_but_the_kitchen_plans_the_rest(self, owner, rounds):
        run = owner.ask("POST", "/runs", {"sheet": rounds["id"]}).body
        assert tell(owner, run["id"], "replanned", 1).status_code == 422


class TestNews:
    def test_it_counts_what_every_run_was_told(self, owner, flow):
        first, second = flow["flow"]
        tell(owner, second, "noted", 1, text="Leaf is torn.")
        told = owner.ask("GET", f"/runs/{first}/news").body["events"]
        assert told == {str(first): 0, str(second): 1}

    def test_one_small_query_a_poll(self, owner, flow, django_assert_max_num_queries):
        with django_assert_max_num_queries(6):  # session, user, kitchen, flow, its clock, the counts
            owner.ask("GET", f"/runs/{flow['id']}/news")


COOK = {"late": 2, "heavy": 1, "forgetful": 2, "seed": 11}


class TestRehearsed:
    def test_a_simulated_cook_comes_to_the_end(self, owner, flow, clock):
        """What is to come does not count before its time; in the end every step is done, and what it showed is told."""
        begun = owner.ask("POST", "/runs", {"occasion": flow["occasion"], "rehearse": True, "cook": COOK}).body
        assert begun["pace"] == 60
        assert not [event for event in begun["events"] if event["kind"] == "done"]
        laid = RunEvent.objects.filter(run=begun["id"]).count()
        assert laid > 10
        half = begun["plan"]["scheduled"][len(begun["plan"]["scheduled"]) // 2]["starts"]
        gone = datetime.fromisoformat(half) - datetime.fromisoformat(begun["clock_began"])
        clock.shift(gone / 60)
        between = len(opened(owner, begun["id"])["events"])
        assert 0 < between < laid
        assert owner.ask("GET", f"/runs/{begun['id']}/news").body["events"][str(begun["id"])] == between
        clock.shift(timedelta(hours=1))  # sixty hours of it
        for number in begun["flow"]:
            assert {item["status"] for item in opened(owner, number)["state"]["steps"]} == {"done"}
        report = owner.ask("GET", f"/runs/{begun['id']}/report").body["report"]
        assert report["table"]  # very late is late on the table

    def test_it_leaves_nothing_behind(self, owner, flow, clock):
        begun = owner.ask("POST", "/runs", {"occasion": flow["occasion"], "rehearse": True, "cook": COOK}).body
        clock.shift(timedelta(hours=1))
        owner.ask("POST", f"/runs/{begun['id']}/outcome", {"pieces": 12, "kept": [{"where": "fridge", "pieces": 6}]})
        assert Stock.objects.count() == 0
        assert owner.ask("GET", "/to-eat").body == []


def picture(kind="PNG", size=(60, 40), **more):
    out = io.BytesIO()
    Image.new("RGB", size, (120, 30, 40)).save(out, kind, **more)
    return out.getvalue()


def send(owner, run, data, uid="picture-01", step="steam"):
    file = SimpleUploadedFile("cake.jpg", data, content_type="image/jpeg")
    answer = owner.post(f"/api/runs/{run}/pictures", {"uid": uid, "step": step, "picture": file})
    return answer.status_code, answer.json()


class TestPictures:
    @pytest.fixture
    def run(self, owner, sheet):
        return owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]

    @pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
    def test_it_is_kept_and_shown(self, owner, run, kind):
        status, card = send(owner, run, picture(kind))
        assert (status, card["step"]) == (200, "steam")
        shown = owner.get(f"/api/pictures/{card['id']}.webp")
        assert shown["Content-Type"] == "image/webp"
        assert Image.open(io.BytesIO(shown.content)).size == (60, 40)
        assert owner.ask("GET", f"/runs/{run}/pictures").body == [card]

    def test_what_came_to_the_table_is_no_step_and_is_kept(self, owner, run):
        assert send(owner, run, picture(), step="eaten")[0] == 200
        assert send(owner, run, picture(), uid="picture-02", step="nowhere")[0] == 422

    def test_the_next_making_sees_it(self, owner, sheet, run):
        send(owner, run, picture())
        later = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        assert [item["run"] for item in owner.ask("GET", f"/runs/{later}/pictures").body] == [run]

    def test_where_it_was_taken_is_removed_and_it_stands_upright(self, owner, run):
        exif = Image.Exif()
        exif[0x0112] = 6  # lying on its side
        exif.get_ifd(0x8825)[1] = "N"  # where
        data = picture("JPEG", size=(80, 40), exif=exif.tobytes())
        assert Image.open(io.BytesIO(data)).getexif().get_ifd(0x8825)
        _, card = send(owner, run, data)
        kept = Image.open(io.BytesIO(owner.get(f"/api/pictures/{card['id']}.webp").content))
        assert kept.size == (40, 80)
        assert not dict(kept.getexif())

    def test_a_large_one_is_made_small(self, owner, run):
        _, card = send(owner, run, picture(size=(4000, 1000)))
        kept = Image.open(io.BytesIO(owner.get(f"/api/pictures/{card['id']}.webp").content))
        assert kept.size == (1280, 320)

    def test_as_heavy_as_a_phone_takes_them(self, owner, run):
        """Noise does not pack: two megapixels of it weigh over a megabyte, as a phone's picture does."""
        noise = Image.effect_noise((1600, 1200), 90).convert("RGB")
        out = io.BytesIO()
        noise.save(out, "JPEG", quality=95)
        assert len(out.getvalue()) > 1_000_000
        assert send(owner, run, out.getvalue())[0] == 200

    def test_one_that_is_too_heavy_is_refused_in_words(self, owner, run):
        status, body = send(owner, run, b"\0" * (12 * 2**20 + 70_000))
        assert (status, body["problems"][0]["says"]) == (413, "is too long")

    def test_sent_twice_it_is_one(self, owner, run):
        assert send(owner, run, picture()) == send(owner, run, picture())

    @pytest.mark.parametrize(
        "data",
        [
            b"",
            b"<svg onload='alert(1)'/>",
            b"GIF89a" + b"\0" * 40,
            picture()[:60],
            b"\x89PNG\r\n\x1a\n" + b"\0" * 200,
        ],
        ids=["empty", "svg", "gif", "cut off", "nonsense"],
    )
    def test_what_is_no_picture(self, owner, run, data):
        status, body = send(owner, run, data)
        assert status == 422
        assert body["problems"][0]["path"] == "picture"

    def test_a_bomb_is_not_opened(self, owner, run):
        """Two hundred megapixels of one colour, a few kilobytes: refused by its size, before it is unpacked."""
        out = io.BytesIO()
        Image.new("1", (16_000, 12_500)).save(out, "PNG")
        assert len(out.getvalue()) < 100_000
        status, _ = send(owner, run, out.getvalue())
        assert status == 422

    def test_it_is_one_kitchen_s(self, owner, stranger, run):
        _, card = send(owner, run, picture())
        assert stranger.get(f"/api/pictures/{card['id']}.webp").status_code == 404
        assert stranger.ask("DELETE", f"/pictures/{card['id']}").status_code == 404
        assert send(stranger, run, picture(), uid="picture-02")[0] == 404

    def test_thrown_away_it_can_be_brought_back(self, owner, run):
        _, card = send(owner, run, picture())
        assert owner.ask("DELETE", f"/pictures/{card['id']}").status_code == 204
        assert owner.ask("GET", f"/runs/{run}/pictures").body == []
        assert owner.ask("POST", f"/dropped/picture/{card['id']}").status_code == 204
        assert len(owner.ask("GET", f"/runs/{run}/pictures").body) == 1


class TestPutBy:
    def logged(self, owner, sheet, **outcome):
        run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
        return owner.ask("POST", f"/runs/{run}/outcome", outcome)

    def test_what_is_kept_goes_to_stock_with_a_label(self, owner, sheet, clock):
        self.logged(owner, sheet, pieces=20, kept=[{"where": "fridge", "pieces": 8}, {"where": "freezer", "pieces": 4}])
        facts = sheet["worked"]["facts"]
        cold, frozen = owner.ask("GET", "/to-eat").body
        hours = (datetime.fromisoformat(cold["until"]) - NOW).total_seconds() / 3600
        assert hours == pytest.approx(facts["keep.cold_h"]["value"], abs=0.01)
        days = (datetime.fromisoformat(frozen["until"]) - NOW).total_seconds() / 86400
        assert days == pytest.approx(facts["keep.frozen_days"]["value"], abs=0.01)
        label = owner.ask("GET", f"/stock/{cold['stock']}/label").body
        assert (label["pieces"], label["where"]) == (8, "in the fridge")
        assert label["freshen"] == facts["keep.restore"]["value"]
        assert label["allergens"] == sheet["worked"]["allergens"]

    def test_eaten_it_is_gone(self, owner, sheet):
        self.logged(owner, sheet, pieces=20, kept=[{"where": "fridge", "pieces": 2}])
        (item,) = owner.ask("GET", "/to-eat").body
        assert owner.ask("PUT", f"/stock/{item['stock']}", {"pieces": 1}).body[0]["pieces"] == 1
        assert owner.ask("PUT", f"/stock/{item['stock']}", {"pieces": 0}).body == []

    def test_said_anew_it_is_in_place_of_what_was_said(self, owner, sheet):
        batch = self.logged(owner, sheet, pieces=20, kept=[{"where": "fridge", "pieces": 8}]).body
        owner.ask("PUT", f"/log/{batch['id']}", {**SAID, "kept": [{"where": "counter", "pieces": 3}]})
        assert [(item["where"], item["pieces"]) for item in owner.ask("GET", "/to-eat").body] == [("counter", 3)]
        owner.ask("PUT", f"/log/{batch['id']}", {**SAID, "note": "Chewy."})
        assert len(owner.ask("GET", "/to-eat").body) == 1  # nothing said of it, it stays as it was

    def test_no_more_than_there_were(self, owner, sheet):
        answer = self.logged(owner, sheet, pieces=10, kept=[{"where": "fridge", "pieces": 11}])
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "kept"

    def test_it_is_one_kitchen_s(self, owner, stranger, sheet):
        self.logged(owner, sheet, pieces=20, kept=[{"where": "fridge", "pieces": 2}])
        number = Stock.objects.get().pk
        assert stranger.ask("PUT", f"/stock/{number}", {"pieces": 1}).status_code == 404
        assert stranger.ask("GET", f"/stock/{number}/label").status_code == 404


def test_two_devices_that_were_apart_merge(owner, sheet, clock):
    """An hour apart, each with its own events, sent late and out of order: all stand, in the order they happened."""
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]
    clock.shift(timedelta(hours=1))
    phone = [("phone", minute) for minute in range(0, 60, 4)]
    tablet = [("tablet", minute) for minute in range(1, 60, 5)]
    for device, minute in [*phone, *reversed(tablet)]:
        at = (NOW + timedelta(minutes=minute)).isoformat()
        body = {"uid": f"{device}-{minute:04}", "kind": "noted", "text": f"{device} {minute}", "at": at}
        for _ in range(2):  # an answer was lost
            assert owner.ask("POST", f"/runs/{run}/events", body).status_code == 200
    notes = [item["text"] for item in opened(owner, run)["state"]["notes"]]
    expected = [f"{device} {minute}" for device, minute in sorted([*phone, *tablet], key=lambda item: item[1])]
    assert notes == expected


def test_a_rest_that_was_kept_is_read_again(owner, flow, clock):
    """What is kept of a plan of the rest is what was planned, to the letter."""
    TestTheRest().run_late(owner, flow, clock)
    row = next(row for row in RunEvent.objects.filter(run=flow["id"]) if row.event.kind == "replanned")
    assert event_from(row.document, uid=row.uid, at=row.at) == row.event
    assert row.event.rest.scheduled
    run = Run.objects.get(pk=flow["id"])
    assert not rethink(run, run.clock())
    assert math.isclose(row.event.rest.late_min, run.state().late_min, abs_tol=2)

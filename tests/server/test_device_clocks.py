"""Events of devices whose clocks are off come into their true order; what the clock showed is kept beside it."""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine

from kemble.server.models import Run, RunEvent
from kemble.server.web.middleware import TIME_HEADER

pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
SLOW = timedelta(hours=3)


@pytest.fixture
def clock():
    with time_machine.travel(NOW, tick=False) as travelled:
        yield travelled


@pytest.fixture
def run(clock, owner, sheet):
    return owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body["id"]


def tell(client, run, uid, *, kind="noted", **more):
    body = {"uid": f"event-no-{uid}", "kind": kind, "text": str(uid) if kind == "noted" else "", **more}
    answer = client.ask("POST", f"/runs/{run}/events", body)
    assert answer.status_code == 200, answer.body
    return answer.body


def iso(at):
    return at.isoformat()


def notes(run):
    """The notes of a run in their order, with the minute of each after nine."""
    events = Run.objects.get(pk=run).log
    return [(event.text, (event.at - NOW).total_seconds() / 60) for event in events if event.kind == "noted"]


def test_every_answer_says_what_time_it_is(owner, clock):
    for path in ("/sheets", "/nowhere", "/kitchen"):
        assert owner.ask("GET", path).headers[TIME_HEADER] == "2026-11-25T09:00:00.000+00:00"


def test_six_hours_of_a_phone_three_hours_slow_come_into_their_true_order(owner, run, clock):
    """It was offline and never heard what time it is; another device told of things meanwhile. All of it is sent at once."""
    pressed = [NOW + timedelta(minutes=20 * i) for i in range(1, 19)]
    for i in range(1, 19):
        clock.move_to(NOW + timedelta(minutes=20 * i + 10))
        tell(owner, run, f"tablet-{i}")
    clock.move_to(NOW + timedelta(hours=6, minutes=15))
    for i, at in enumerate(pressed, start=1):
        clock.shift(timedelta(seconds=1))  # each message is a while on its way
        sends = datetime.now(UTC) - SLOW
        tell(owner, run, f"phone-{i}", at=iso(at - SLOW), device_at=iso(at - SLOW), device_now=iso(sends))
    expected = []
    for i in range(1, 19):
        expected += [(f"phone-{i}", 20 * i), (f"tablet-{i}", 20 * i + 10)]
    assert notes(run) == expected
    row = RunEvent.objects.get(uid="event-no-phone-1")
    assert row.document["clock_error_s"] == 10_800
    assert row.event.device_at == pressed[0] - SLOW


def test_a_device_that_knows_its_error_is_believed(owner, run, clock):
    """It corrected what it tells by what it measured at its last contact; its clock was set before it sent."""
    clock.move_to(NOW + timedelta(hours=2))
    at = NOW + timedelta(hours=1)
    told = tell(
        owner, run, 1, at=iso(at), device_at=iso(at - SLOW), device_now=iso(datetime.now(UTC)), clock_error_s=10_800
    )
    assert datetime.fromisoformat(told["at"]) == at
    assert datetime.fromisoformat(told["device_at"]) == at - SLOW


def test_of_a_clock_that_is_right_nothing_is_kept(owner, run, clock):
    clock.move_to(NOW + timedelta(hours=2))
    at = NOW + timedelta(hours=1)
    now = iso(datetime.now(UTC) - timedelta(seconds=1))  # a second on its way
    tell(owner, run, 1, at=iso(at), device_at=iso(at), device_now=now, clock_error_s=0.2)
    tell(owner, run, 2, at=iso(at), device_at=iso(at), device_now=now)
    for row in RunEvent.objects.filter(uid__in=("event-no-1", "event-no-2")):
        assert not {"device_at", "clock_error_s"} & row.document.keys()


def test_what_cannot_be_is_moved_and_what_was_said_is_kept(owner, run, clock):
    """A page of before this was looked at says when, and nothing of its clock."""
    clock.move_to(NOW + timedelta(hours=1))
    for uid, said, kept in ((1, NOW - SLOW, NOW), (2, NOW + SLOW, NOW + timedelta(hours=1))):
        told = tell(owner, run, uid, at=iso(said))
        assert datetime.fromisoformat(told["at"]) == kept
        assert datetime.fromisoformat(told["device_at"]) == said


def test_in_a_rehearsal_the_run_s_own_clock_counts(owner, sheet, clock):
    """It goes sixty times as fast: ten seconds on the wall are ten minutes of it."""
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
    clock.move_to(NOW + timedelta(seconds=30))
    pressed, sends = NOW + timedelta(seconds=10) - SLOW, NOW + timedelta(seconds=30) - SLOW
    told = tell(owner, run, 1, at=iso(NOW), device_at=iso(pressed), device_now=iso(sends))
    assert datetime.fromisoformat(told["at"]) == NOW + timedelta(minutes=10)


@pytest.mark.parametrize("field", ["at", "device_at", "device_now"])
def test_an_instant_needs_its_zone(owner, run, field):
    body = {"uid": "event-no-1", "kind": "noted", "text": "x", field: "2026-11-25T09:00:00"}
    answer = owner.ask("POST", f"/runs/{run}/events", body)
    assert (answer.status_code, answer.body["problems"][0]["path"]) == (422, field)


@pytest.mark.parametrize("year", [1, 1970, 9999])
def test_a_clock_that_forgot_the_year_breaks_nothing(owner, run, clock, year):
    then = iso(datetime(year, 1, 1, tzinfo=UTC))
    told = tell(owner, run, 1, at=then, device_at=then, device_now=then)
    assert datetime.fromisoformat(told["at"]) == NOW


def test_nor_one_that_is_thousands_of_years_ahead_in_a_rehearsal(owner, sheet, clock):
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body["id"]
    told = tell(owner, run, 1, device_at="9999-12-31T00:00:00Z", device_now=iso(NOW))
    assert datetime.fromisoformat(told["at"]) == NOW

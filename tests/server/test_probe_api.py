"""The thermometer over the API: stuck into a run, read, noted; and what else the heat asks the server."""

import asyncio
import json
import math
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import ClassVar

import pytest
import time_machine

from kemble.core.cards.ways import WAYS
from kemble.core.facts.problems import Refused
from kemble.server.devices import probes
from kemble.server.devices.poller import DevicePoller, Listener
from kemble.server.devices.port import DeviceUnplugged, SimulatedProbePort
from kemble.server.devices.readers import ProbeReader
from kemble.server.models import KitchenRecord, Run

FIXTURES = Path(__file__).resolve().parents[1] / "fixtures" / "runs"
pytestmark = pytest.mark.django_db
NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


@pytest.fixture
def clock():
    with time_machine.travel(NOW, tick=False) as traveller:
        yield traveller


@pytest.fixture(autouse=True)
def _own_probes(monkeypatch):
    """Each test has thermometers of its own."""
    monkeypatch.setattr(probes._probes, "_pollers", {})
    monkeypatch.setattr(probes._probes, "_simulated", {})


def tell(owner, run, kind, step, **more):
    return owner.ask("POST", f"/runs/{run}/events", {"uid": f"{kind}-{step}-{run}", "kind": kind, "step": step, **more})


@pytest.fixture
def steaming(owner, sheet, clock, play_kitchen):
    """A run whose cake went in a moment ago, in a kitchen that plays."""
    run = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body
    ids = [item["step"]["id"] for item in run["plan"]["scheduled"]]
    for step in ids[: ids.index("steam")]:
        tell(owner, run["id"], "done", step)
    tell(owner, run["id"], "started", "steam")
    return owner.ask("GET", f"/runs/{run['id']}").body


def steam_of(answer):
    return next(step for step in answer["state"]["steps"] if step["id"] == "steam")


class TestProbing:
    def test_a_reading_moves_the_window(self, owner, steaming, clock):
        told = steaming["core"]["done"]
        clock.shift(timedelta(minutes=14))
        assert tell(owner, steaming["id"], "probed", "steam", celsius=52.0).body["celsius"] == 52.0
        probed = owner.ask("GET", f"/runs/{steaming['id']}").body
        refit = steam_of(probed)["refit"]
        assert refit["was_done"] == pytest.approx(told)
        assert refit["done"] > told + 2
        assert refit["says"].startswith("At 14 minutes the heart is 52 °C: done at ")
        assert steam_of(probed)["due"] > steam_of(steaming)["due"]

    @pytest.mark.parametrize(("celsius", "path"), [(None, "celsius"), (900, "celsius"), ("hot", "celsius")])
    def test_a_reading_that_is_none(self, owner, steaming, celsius, path):
        answer = tell(owner, steaming["id"], "probed", "steam", celsius=celsius)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path

    @pytest.mark.parametrize(("name", "done"), [("1-last-boiled-balls", 8.8), ("1-without-a-curve-leaf-parcels", None)])
    def test_a_run_of_old_opens_still(self, owner, steaming, name, done):
        """Frozen documents (tests/fixtures/runs), one with a core temperature in its drawing and one of before."""
        run = Run.objects.get(pk=steaming["id"])
        run.frozen = json.loads((FIXTURES / f"{name}.json").read_text(encoding="utf-8"))
        run.save()
        opened = owner.ask("GET", f"/runs/{run.pk}").body
        assert (opened["core"] and round(opened["core"]["done"], 1)) == done
        if done is None:
            assert owner.ask("POST", "/probe/stick", {"do": "into", "run": run.pk, "step": "steam"}).status_code == 422


class TestSticking:
    def test_it_reads_the_run_that_it_is_in(self, owner, steaming, clock):
        assert owner.ask("GET", "/probe").body["device"] == "simulated"
        stuck = owner.ask("POST", "/probe/stick", {"do": "into", "run": steaming["id"], "step": "steam"})
        assert stuck.status_code == 204
        port = probes.simulated(KitchenRecord.objects.first())
        clock.shift(timedelta(minutes=20))
        ear = ProbeReader()
        live, _ = ear.hear(port._reading().encode())
        assert 55 < live.celsius < 97  # type: ignore[attr-defined]  # near what was predicted for twenty minutes in steam
        assert owner.ask("POST", "/probe/stick", {"do": "out"}).status_code == 204
        live, _ = ear.hear(port._reading().encode())
        assert live.state == "out"

    @pytest.mark.parametrize(
        ("body", "path"),
        [
            ({"do": "into"}, "run"),
            ({"do": "into", "run": 1}, "run"),
            ({"do": "boil"}, "do"),
        ],
    )
    def test_what_it_cannot_be_stuck_into(self, owner, play_kitchen, body, path):
        answer = owner.ask("POST", "/probe/stick", body)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path

    def test_a_step_that_has_not_begun(self, owner, steaming):
        answer = owner.ask("POST", "/probe/stick", {"do": "into", "run": steaming["id"], "step": "cool"})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "step"

    def test_another_kitchens_run(self, stranger, steaming):
        answer = stranger.ask("POST", "/probe/stick", {"do": "into", "run": steaming["id"], "step": "steam"})
        assert answer.status_code == 404

    def test_a_real_one_is_put_in_by_hand(self, owner, settings):
        settings.PROBE = "socket://192.0.2.7:4001"
        assert owner.ask("GET", "/probe").body["device"] == "attached"
        refused = owner.ask("POST", "/probe/stick", {"do": "out"})
        assert refused.body["problems"][0]["says"] == "is a real one"

    def test_a_real_kitchen_without_one_has_none(self, owner):
        assert owner.ask("GET", "/probe").body["device"] == "none"
        refused = owner.ask("POST", "/probe/stick", {"do": "out"})
        assert (refused.status_code, refused.body["problems"][0]["says"]) == (422, "is not there")
        with pytest.raises(Refused):  # nor is there one to listen to
            probes.poller_of(KitchenRecord.objects.get())

    def test_the_plug(self, owner, play_kitchen):
        owner.ask("GET", "/probe")
        port = probes.simulated(KitchenRecord.objects.first())
        owner.ask("POST", "/probe/stick", {"do": "unplug"})
        with pytest.raises(DeviceUnplugged):
            port.read_line()
        owner.ask("POST", "/probe/stick", {"do": "plug"})
        assert port.read_line()


async def hear(watch, told, does=lambda: None):
    """What the watch tells first that is as `told` says, once `does` was done; it is done again until it is told: a
    listener that sleeps through a reading hears the next."""
    listener = Listener(asyncio.get_running_loop())
    watch.join(listener)
    try:
        async with asyncio.timeout(60):
            while True:
                does()
                live, _ = await listener.hear(0.5)
                if live is not None and told(live):
                    return live
    finally:
        watch.leave(listener)


class TestWatch:
    def test_out_nonsense_and_gone_are_told(self):
        port = SimulatedProbePort(seed=3)
        watch = DevicePoller(lambda: port, ProbeReader)
        assert "in nothing" in asyncio.run(hear(watch, lambda live: live.state == "out")).says
        garbled = asyncio.run(hear(watch, lambda live: live.state == "nonsense", port.garble))
        assert "makes no sense" in garbled.says
        gone = asyncio.run(hear(watch, lambda live: live.state == "gone", lambda: setattr(port, "plugged", False)))
        assert gone.says == "The thermometer is not there. Is it plugged in?"


class TestKettle:
    def test_a_litre_in_six_twenty(self, owner):
        """1000 x 4.19 x (100.0 - 15) / 0.96 / 380 = 976 W at the sea's own height."""
        told = owner.ask("POST", "/kitchen/kettle", {"water_ml": 1000, "start_c": 15, "seconds": 380}).body
        assert told["net_w"] == pytest.approx(976, abs=2)
        assert "26 g a minute" in told["says"]

    @pytest.mark.parametrize(
        ("body", "path"),
        [
            ({"water_ml": 5000, "start_c": 5, "seconds": 30}, "seconds"),
            ({"water_ml": 200, "start_c": 60, "seconds": 3600}, "seconds"),
            ({"water_ml": 0, "start_c": 15, "seconds": 300}, "water_ml"),
            ({"water_ml": 1000, "start_c": 99, "seconds": 300}, "start_c"),
            ({"water_ml": 1000, "start_c": 15, "seconds": -3}, "seconds"),
        ],
    )
    def test_what_is_no_test(self, owner, body, path):
        answer = owner.ask("POST", "/kitchen/kettle", body)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path


class TestMeasured:
    OVEN: ClassVar = {"water_ml": 1000, "across_mm": 200, "start_c": 20, "end_c": 58, "oven_c": 175, "minutes": 10}

    def test_an_oven_from_a_tin_of_water(self, owner):
        """1000 ml stand 32 mm deep: 0.0628 m2 of floor and foil, 0.02 of wall. 4186 x ln(155 / 117) / (0.0828 x 600)."""
        told = owner.ask("POST", "/kitchen/oven", self.OVEN).body
        assert told["estimate"] == "oven_h"
        assert told["value"] == pytest.approx(4186 * math.log(155 / 117) / (0.0828 * 600), rel=0.01)
        assert told["low"] < told["value"] < told["high"] < told["low"] * 1.2
        assert "is usual" in told["says"]

    def test_a_lid_from_the_steam_under_it(self, owner):
        """The nearer to the boil the less air; what is told is what the kitchen then holds."""
        leaky, tight = (
            owner.ask("POST", "/kitchen/steam", {"steam_c": celsius, "level": "medium"}).body
            for celsius in (94.0, 98.0)
        )
        assert leaky["value"] > 2 * tight["value"] > 2.0
        assert tight["estimate"] == "leak_ml_s"

    @pytest.mark.parametrize(
        ("where", "body", "path"),
        [
            ("oven", {**OVEN, "end_c": 24}, "end_c"),
            ("oven", {**OVEN, "minutes": 60, "end_c": 30}, "end_c"),
            ("oven", {**OVEN, "oven_c": 900}, "oven_c"),
            ("steam", {"steam_c": 70.5, "level": "high"}, "steam_c"),
            ("steam", {"steam_c": 96, "level": "fierce"}, "level"),
        ],
    )
    def test_what_is_no_measurement(self, owner, where, body, path):
        answer = owner.ask("POST", f"/kitchen/{where}", body)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path
        assert answer.body["problems"][0]["accepts"]


class TestSides:
    def test_every_way_has_questions(self, owner):
        ways = owner.ask("GET", "/ways").body
        assert {way["id"]: len(way["questions"]) for way in ways}.keys() == WAYS.keys()
        assert all(way["questions"] for way in ways)

    def test_beside_each_other(self, owner, document):
        sides = owner.ask("POST", "/sides", {"sheet": document, "question": "cover"}).body
        assert [side["label"] for side in sides["sides"]] == ["open", "covered with foil"]
        opened, covered = sides["sides"]
        assert opened["done"] < covered["done"]

    def test_a_question_that_is_not_asked_here(self, owner, document):
        answer = owner.ask("POST", "/sides", {"sheet": document, "question": "soak"})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == "question"

"""Benches and the scale through the API; the scale's port, real over a socket and simulated, with all that goes wrong."""

import asyncio
import json
import socket
import threading
from datetime import UTC, datetime, timedelta

import pytest
import time_machine
from django.contrib.auth.models import User
from django.test import AsyncClient

from kemble.core.devices.scale import read_line
from kemble.server.devices import poller, scales
from kemble.server.devices.poller import DevicePoller, Listener
from kemble.server.devices.port import DeviceUnplugged, SerialPort, SimulatedScalePort
from kemble.server.devices.readers import ScaleReader
from kemble.server.models import Run

pytestmark = pytest.mark.django_db

SETUP = {"what": "dough", "total_g": 100, "pieces": 4}


@pytest.fixture
def bench(owner, sheet):
    return owner.ask("POST", "/benches", {"sheet": sheet["id"], "setup": SETUP}).body


def mark(owner, bench, kind, grams=None, uid=None):
    mark.n = getattr(mark, "n", 0) + 1  # type: ignore[attr-defined]
    body = {"uid": uid or f"mark-{mark.n:06d}", "kind": kind, "grams": grams}  # type: ignore[attr-defined]
    return owner.ask("POST", f"/benches/{bench['id']}/marks", body)


class TestBench:
    def test_piece_after_piece(self, owner, bench):
        assert bench["state"]["next_g"] == 25
        assert mark(owner, bench, "piece", 28).body["state"]["next_g"] == 24
        assert mark(owner, bench, "undone").body["state"]["next_g"] == 25
        mark(owner, bench, "piece", 25)
        state = mark(owner, bench, "closed").body["state"]
        assert (state["closed"], state["left_g"], len(state["weighed"])) == (True, 75, 1)
        assert owner.ask("GET", f"/benches/{bench['id']}").body["state"] == state

    def test_sent_twice_it_is_one(self, owner, bench):
        for _ in range(2):
            answer = mark(owner, bench, "piece", 25, uid="the-same-mark")
        assert answer.status_code == 200
        assert answer.body["state"]["left_pieces"] == 3

    @pytest.mark.parametrize(
        ("kind", "grams", "path"),
        [("piece", None, "grams"), ("piece", -4, "grams"), ("piece", 140, "grams"), ("guess", 20, "kind"), ("song", 3, "kind")],
    )  # fmt: skip
    def test_a_mark_that_is_none(self, owner, bench, kind, grams, path):
        answer = mark(owner, bench, kind, grams)
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path
        assert owner.ask("GET", f"/benches/{bench['id']}").body["state"]["weighed"] == []

    @pytest.mark.parametrize(
        ("change", "path"),
        [
            ({"pieces": 0}, "setup.pieces"),
            ({"total_g": 0}, "setup.total_g"),
            ({"total_g": 3, "pieces": 200}, "setup.pieces"),
            ({"what": ""}, "setup.what"),
            ({"colour": "red"}, "setup.colour"),
        ],
    )
    def test_a_bench_that_makes_no_sense(self, owner, sheet, change, path):
        answer = owner.ask("POST", "/benches", {"sheet": sheet["id"], "setup": {**SETUP, **change}})
        assert answer.status_code == 422
        assert answer.body["problems"][0]["path"] == path

    def test_belongs_to_its_sheet_and_kitchen(self, owner, stranger, bench, sheet):
        assert [item["id"] for item in owner.ask("GET", f"/benches?sheet={sheet['id']}").body] == [bench["id"]]
        assert stranger.ask("GET", f"/benches?sheet={sheet['id']}").body == []
        assert stranger.ask("GET", f"/benches/{bench['id']}").status_code == 404
        assert mark(stranger, bench, "piece", 25).status_code == 404
        assert stranger.ask("POST", "/benches", {"sheet": sheet["id"], "setup": SETUP}).status_code == 404

    def test_the_eye_day_by_day(self, owner, sheet):
        """Ten per cent over on the first day, five on the second; the plain bench counts for nothing."""
        for day, over in ((0, 1.1), (1, 1.05)):
            with time_machine.travel(datetime(2026, 11, 20, 12, tzinfo=UTC) + timedelta(days=day), tick=False):
                setup = {**SETUP, "drill": True}
                drill = owner.ask("POST", "/benches", {"sheet": sheet["id"], "setup": setup}).body
                for grams in (20, 30):
                    mark(owner, drill, "guess", grams * over)
                    mark(owner, drill, "piece", grams)
                days = owner.ask("GET", "/eye").body
        assert [day["day"] for day in days] == ["2026-11-20", "2026-11-21"]
        assert [day["eye"]["bias_pct"] for day in days] == pytest.approx([10, 5])
        assert days[0]["eye"]["spread_pct"] == pytest.approx(0, abs=1e-6)


class DeviceReader:
    """Listens to a watch from a test, and waits for what it should say."""

    def __init__(self, open_port):
        self.watch = DevicePoller(open_port, ScaleReader)
        self.heard, self.stills = [], []

    async def until(self, told, does, within_s=60):
        """Listens until `told` is true of a reading or of the weights at rest; `does` is done again until it is."""
        listener = Listener(asyncio.get_running_loop())
        self.watch.join(listener)
        try:
            async with asyncio.timeout(within_s):
                while True:
                    does()
                    live, stills = await listener.hear(0.5)
                    self.stills += stills
                    if live is not None:
                        self.heard.append(live)
                    if told(live, self.stills):
                        return live
        finally:
            self.watch.leave(listener)

    def hears(self, told, does=lambda: None):
        return asyncio.run(self.until(told, does))


class TestSimulatedScale:
    def test_a_lump_comes_to_rest(self):
        port = SimulatedScalePort(seed=4)
        ear = DeviceReader(lambda: port)
        ear.hears(lambda live, stills: stills)
        port.put(25)
        ear.hears(lambda live, stills: len(stills) > 2)  # listening anew, it is told first what lay there
        port.lift()
        ear.hears(lambda live, stills: len(stills) > 4)
        assert [(lies.grams, lies.first) for lies in ear.stills] == [
            (pytest.approx(grams, abs=0.5), first)
            for grams, first in ((0, True), (0, True), (25, False), (25, True), (0, False))
        ]
        assert ear.heard[-1].name == "simulated scale"

    def test_the_plug_pulled_in_the_middle_and_put_back(self, monkeypatch):
        monkeypatch.setattr(poller, "TRY_AGAIN_S", 0.05)
        port = SimulatedScalePort(seed=4)
        port.put(40)
        ear = DeviceReader(lambda: port)
        ear.hears(lambda live, stills: live and live.steady)
        port.plugged = False
        gone = ear.hears(lambda live, stills: live and live.state == "gone")
        assert "plugged in" in gone.says
        assert not ear.watch.zero()
        port.plugged = True
        back = ear.hears(lambda live, stills: live and live.state == "ok")
        assert back.grams == pytest.approx(40, abs=0.5)
        assert [lies.first for lies in ear.stills] == [True] * len(ear.stills)  # what lies there is never a new lump

    def test_zero_and_too_much(self):
        port = SimulatedScalePort(seed=4)
        port.put(300)
        ear = DeviceReader(lambda: port)
        ear.hears(lambda live, stills: live and live.steady)
        assert ear.watch.zero()
        ear.hears(lambda live, stills: live and live.state == "ok" and abs(live.grams) < 0.5)
        port.put(6000)
        assert "Too heavy" in ear.hears(lambda live, stills: live and live.state == "over").says

    def test_nonsense_is_told_and_got_over(self):
        port = SimulatedScalePort(seed=4)
        ear = DeviceReader(lambda: port)
        ear.hears(lambda live, stills: live and live.state == "ok")
        told = ear.hears(lambda live, stills: live and live.state == "nonsense", port.garble)
        assert "makes no sense" in told.says
        ear.hears(lambda live, stills: live and live.state == "ok")

    def test_a_watch_ends_when_nobody_listens(self, monkeypatch):
        monkeypatch.setattr(poller, "IDLE_S", 0.1)
        ear = DeviceReader(lambda: SimulatedScalePort(seed=4))
        ear.hears(lambda live, stills: live and live.state == "ok")
        thread = ear.watch._thread
        thread.join(timeout=10)
        assert not thread.is_alive()
        ear.hears(lambda live, stills: live and live.state == "ok")  # and begins anew


def read_until_it_fails(port):
    for _ in range(20):
        port.read_line()


class TestRealScale:
    """A scale of thirty lines at the other end of a socket, as docs/scale.md has it."""

    @pytest.fixture
    def wire(self):
        server = socket.create_server(("127.0.0.1", 0))
        port = server.getsockname()[1]
        links, said = [], []

        def serve():
            link, _ = server.accept()
            links.append(link)
            said.extend(map(json.loads, link.makefile("rb")))

        thread = threading.Thread(target=serve, daemon=True)
        thread.start()
        yield f"socket://127.0.0.1:{port}", links, said
        for link in links:
            link.close()
        server.close()

    def test_its_lines_in_whatever_pieces_they_come(self, wire):
        address, links, said = wire
        port = SerialPort(address)
        port.write(b'{"do": "hello"}\n')
        while not links or not said:
            port.read_line()
        assert said == [{"do": "hello"}]
        links[0].sendall(b'{"t": 1, "weight": 2')
        assert port.read_line() == b""
        links[0].sendall(b'3.4, "steady": true}\r\n')
        assert read_line(port.read_line()).grams == 23.4
        port.close()

    def test_it_goes_away(self, wire):
        address, links, _ = wire
        port = SerialPort(address)
        while not links:
            port.read_line()
        links[0].shutdown(socket.SHUT_RDWR)
        with pytest.raises(DeviceUnplugged):
            read_until_it_fails(port)

    def test_nobody_is_there(self):
        with pytest.raises(DeviceUnplugged):
            SerialPort("socket://127.0.0.1:1")


class TestTheApi:
    def test_a_real_scale_is_the_owners_alone(self, owner, stranger, settings):
        assert owner.ask("GET", "/scale").body["device"] == "none"
        settings.SCALE = "socket://127.0.0.1:1"
        assert owner.ask("GET", "/scale").body["device"] == "attached"
        assert stranger.ask("GET", "/scale").body["device"] == "none"
        refused = owner.ask("POST", "/scale/load", {"do": "put", "grams": 20})
        assert refused.body["problems"][0]["says"] == "is a real one"

    def test_a_made_up_weight_never_gets_into_a_real_making(self, owner, sheet):
        """Only a rehearsal plays, and only while it goes on."""
        put = {"do": "put", "grams": 20}
        assert owner.ask("POST", "/scale/load", put).body["problems"][0]["says"] == "is not there"
        made = owner.ask("POST", "/runs", {"sheet": sheet["id"]}).body
        assert (made["scale"], made["probe"]) == ("none", "none")
        assert owner.ask("POST", "/scale/load", put).status_code == 422
        played = owner.ask("POST", "/runs", {"sheet": sheet["id"], "rehearse": True}).body
        assert (played["scale"], played["probe"]) == ("simulated", "simulated")
        assert owner.ask("POST", "/scale/load", put).status_code == 204
        assert owner.ask("GET", "/scale").body["device"] == "none"  # of the kitchen: its bench is a real one
        Run.objects.filter(pk=played["id"]).update(finished=datetime.now(UTC))
        assert owner.ask("POST", "/scale/load", put).status_code == 422

    def test_the_tray(self, owner, play_kitchen):
        assert owner.ask("POST", "/scale/load", {"do": "put", "grams": 20}).status_code == 204
        for wrong in ({"do": "put"}, {"do": "put", "grams": -1}, {"do": "sing"}):
            assert owner.ask("POST", "/scale/load", wrong).status_code == 422
        assert owner.ask("POST", "/scale/zero").body["problems"][0]["says"] == "is not there"

    @pytest.mark.django_db(transaction=True)
    def test_the_stream(self, owner, settings, play_kitchen):
        settings.ALLOWED_HOSTS = [*settings.ALLOWED_HOSTS, "testserver"]
        owner.ask("POST", "/scale/load", {"do": "lift"})
        owner.ask("POST", "/scale/load", {"do": "put", "grams": 31})

        async def listen():
            client = AsyncClient()
            await client.aforce_login(await User.objects.aget(username="owner"))
            answer = await client.get("/api/scale/live")
            assert answer["Content-Type"] == "text/event-stream"
            async with asyncio.timeout(60):
                async for part in answer.streaming_content:  # type: ignore[attr-defined]
                    event = part.decode()
                    if event.startswith("event: still"):
                        return json.loads(event.split("data: ")[1])["grams"]
            return None

        assert asyncio.run(listen()) == pytest.approx(31, abs=0.5)

    def test_the_stream_is_closed_to_whoever_is_not_signed_in(self, client):
        assert client.get("/api/scale/live", REMOTE_ADDR="192.0.2.7", HTTP_HOST="127.0.0.1").status_code == 401


@pytest.fixture(autouse=True)
def _own_scales(monkeypatch):
    """Each test has scales of its own."""
    monkeypatch.setattr(scales._scales, "_pollers", {})
    monkeypatch.setattr(scales._scales, "_simulated", {})

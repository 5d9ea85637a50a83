"""A watch on a scale: one thread reads its lines and tells everyone who listens, and no longer than somebody does."""

from __future__ import annotations

import asyncio
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from typing import Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.scale import Hello, Reading, Rest, ScaleError, Stillness, command, read_line
from kemble.kitchen.devices.port import Port, Unplugged

State = Literal["waiting", "ok", "over", "nonsense", "gone"]
SILENT_S = 3.0  # no line for so long: it is told as gone
TRY_AGAIN_S = 1.0
IDLE_S = 5.0  # the port is given back when nobody has listened for so long
NONSENSE_LINES = 3  # so many lines in a row that make no sense are told


class Live(BaseModel):
    """What the scale shows now. `says` is what is wrong, in words; empty when nothing is."""

    model_config = ConfigDict(frozen=True)

    state: State = "waiting"
    grams: float = 0.0
    steady: bool = False
    name: str = ""
    says: str = ""


class Listener:
    """One who listens, on an event loop of its own. Readings replace each other; weights at rest queue."""

    def __init__(self, loop: asyncio.AbstractEventLoop) -> None:
        self._loop = loop
        self._woken = asyncio.Event()
        self._latest: Live | None = None
        self._rests: list[Rest] = []

    def tell(self, live: Live, rest: Rest | None) -> None:
        def heard() -> None:
            self._latest = live
            if rest is not None:
                self._rests.append(rest)
            self._woken.set()

        with suppress(RuntimeError):  # the loop has closed: nobody is there
            self._loop.call_soon_threadsafe(heard)

    async def hear(self, patience_s: float) -> tuple[Live | None, list[Rest]]:
        """What is new: the latest reading, if it changed, and where it came to rest. Nothing when patience runs out."""
        with suppress(TimeoutError):
            await asyncio.wait_for(self._woken.wait(), patience_s)
        self._woken.clear()
        latest, rests = self._latest, self._rests
        self._latest, self._rests = None, []
        return latest, rests


class Watch:
    """Reads one scale while somebody listens. `open_port` is called again whenever it has gone away."""

    def __init__(self, open_port: Callable[[], Port]) -> None:
        self._open_port = open_port
        self._lock = threading.Lock()
        self._listeners: set[Listener] = set()
        self._thread: threading.Thread | None = None
        self._port: Port | None = None
        self._live = Live()
        self._lies: Rest | None = None  # what lay on the tray when it last was still; None while it is not there

    @property
    def live(self) -> Live:
        """What it last showed."""
        return self._live

    def join(self, listener: Listener) -> None:
        """Listen from now on; what it shows at present is told at once."""
        with self._lock:
            self._listeners.add(listener)
            listener.tell(self._live, self._lies)
            if self._thread is None:
                self._thread = threading.Thread(target=self._read, name="scale", daemon=True)
                self._thread.start()

    def leave(self, listener: Listener) -> None:
        with self._lock:
            self._listeners.discard(listener)

    def zero(self) -> bool:
        """Call what lies on it nothing. False when it is not there."""
        port = self._port
        if port is None:
            return False
        try:
            port.write(command("zero"))
        except Unplugged:
            return False
        return True

    def _read(self) -> None:
        heard_of = time.monotonic()
        while True:
            with self._lock:
                if self._listeners:
                    heard_of = time.monotonic()
                elif time.monotonic() - heard_of > IDLE_S:
                    self._thread = None
                    return
            try:
                self._port = self._open_port()
                self._port.write(command("hello"))
                self._follow(self._port)
            except Unplugged:
                self._tell(Live(state="gone", name=self._live.name, says="The scale is not there. Is it plugged in?"))
                time.sleep(TRY_AGAIN_S)
            finally:
                if self._port is not None:
                    self._port.close()
                    self._port = None

    def _follow(self, port: Port) -> None:
        """Read lines until nobody listens any more, or Unplugged is raised."""
        tray, name, nonsense = Stillness(), "", 0
        heard = listened = time.monotonic()
        while True:
            now = time.monotonic()
            if self._listeners:
                listened = now
            elif now - listened > IDLE_S:
                return
            line = port.read_line()
            if not line:
                if now - heard > SILENT_S:
                    raise Unplugged("silent")
                continue
            heard = now
            try:
                said = read_line(line)
            except ScaleError as error:
                nonsense += 1
                if nonsense >= NONSENSE_LINES:
                    self._tell(Live(state="nonsense", name=name, says=f"The scale says what makes no sense: {error}."))
                continue
            if isinstance(said, Hello):
                name = said.name
                continue
            nonsense = 0
            self._tell(_live(said, name), tray.still(said))

    def _tell(self, live: Live, rest: Rest | None = None) -> None:
        """Tell what changed; a scale at rest says nothing."""
        with self._lock:
            if rest is not None:
                self._lies = Rest(rest.grams, first=True)  # to whoever comes later it is nothing new
            elif live.state == "gone":
                self._lies = None
            if live == self._live and rest is None:
                return
            self._live = live
            for listener in self._listeners:
                listener.tell(live, rest)


def _live(reading: Reading, name: str) -> Live:
    if reading.over:
        return Live(state="over", name=name, says="Too heavy for the scale: take something off.")
    return Live(state="ok", grams=round(reading.grams, 1) + 0.0, steady=reading.steady, name=name)

"""Polls a device: one thread reads its lines and tells everyone who listens, and no longer than somebody does."""

from __future__ import annotations

import asyncio
import threading
import time
from collections.abc import Callable
from contextlib import suppress

from kemble.core.devices.device_lines import DeviceError, command
from kemble.core.devices.scale import SettledWeight
from kemble.server.devices.port import DevicePort, DeviceUnplugged
from kemble.server.devices.readers import DeviceReader, LiveReading

SILENT_S = 3.0  # no line for so long: it is told as gone
TRY_AGAIN_S = 1.0
IDLE_S = 5.0  # the port is given back when nobody has listened for so long
NONSENSE_LINES = 3  # so many lines in a row that make no sense are told


class Listener:
    """One who listens, on an event loop of its own. Readings replace each other; weights at rest queue."""

    def __init__(self, loop: asyncio.AbstractEventLoop) -> None:
        self._loop = loop
        self._woken = asyncio.Event()
        self._latest: LiveReading | None = None
        self._rests: list[SettledWeight] = []

    def tell(self, live: LiveReading, rest: SettledWeight | None) -> None:
        def heard() -> None:
            self._latest = live
            if rest is not None:
                self._rests.append(rest)
            self._woken.set()

        with suppress(RuntimeError):  # the loop has closed: nobody is there
            self._loop.call_soon_threadsafe(heard)

    async def hear(self, patience_s: float) -> tuple[LiveReading | None, list[SettledWeight]]:
        """What is new: the latest reading, if it changed, and where it came to rest. Nothing when patience runs out."""
        with suppress(TimeoutError):
            await asyncio.wait_for(self._woken.wait(), patience_s)
        self._woken.clear()
        latest, rests = self._latest, self._rests
        self._latest, self._rests = None, []
        return latest, rests


class DevicePoller:
    """Reads one device while somebody listens. `open_port` is called again whenever it has gone away; `new_reader` makes
    what understands its lines."""

    def __init__(self, open_port: Callable[[], DevicePort], new_reader: Callable[[], DeviceReader]) -> None:
        self._open_port = open_port
        self._new_reader = new_reader
        self._silent = new_reader()
        self._lock = threading.Lock()
        self._listeners: set[Listener] = set()
        self._thread: threading.Thread | None = None
        self._port: DevicePort | None = None
        self._live = self._silent.waiting()
        self._lies: SettledWeight | None = (
            None  # what lay on the tray when it last was still; None while it is not there
        )

    @property
    def live(self) -> LiveReading:
        """What it last showed."""
        return self._live

    def join(self, listener: Listener) -> None:
        """Listen from now on; what it shows at present is told at once."""
        with self._lock:
            self._listeners.add(listener)
            listener.tell(self._live, self._lies)
            if self._thread is None:
                self._thread = threading.Thread(target=self._read, name=self._silent.word, daemon=True)
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
        except DeviceUnplugged:
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
            except DeviceUnplugged:
                self._tell(self._silent.gone(self._live.name))
                time.sleep(TRY_AGAIN_S)
            finally:
                if self._port is not None:
                    self._port.close()
                    self._port = None

    def _follow(self, port: DevicePort) -> None:
        """Read lines until nobody listens any more, or Unplugged is raised."""
        ear, nonsense = self._new_reader(), 0
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
                    raise DeviceUnplugged("silent")
                continue
            heard = now
            try:
                said = ear.hear(line)
            except DeviceError as error:
                nonsense += 1
                if nonsense >= NONSENSE_LINES:
                    self._tell(ear.nonsense(str(error)))
                continue
            if said is None:  # it introduced itself
                continue
            nonsense = 0
            self._tell(*said)

    def _tell(self, live: LiveReading, rest: SettledWeight | None = None) -> None:
        """Tell what changed; a device that shows the same says nothing."""
        with self._lock:
            if rest is not None:
                self._lies = SettledWeight(rest.grams, first=True)  # to whoever comes later it is nothing new
            elif live.state == "gone":
                self._lies = None
            if live == self._live and rest is None:
                return
            self._live = live
            for listener in self._listeners:
                listener.tell(live, rest)

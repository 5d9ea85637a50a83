"""Ports that speak lines: a real one by its address, and those of the simulated scale and thermometer."""

from __future__ import annotations

import json
import random
import threading
import time
from collections import deque
from collections.abc import Callable
from typing import Protocol

import serial

from kemble.core.devices.device_lines import MOST_LINE_BYTES
from kemble.core.devices.simulated_probe import SimulatedProbe
from kemble.core.devices.simulated_scale import SimulatedScale
from kemble.core.stations.heat.core_curve import TemperatureCurve

READINGS_PER_S = 10
PROBE_READINGS_PER_S = 4


class DeviceUnplugged(Exception):
    """The device is not there, or went away."""


class DevicePort(Protocol):
    """One line at a time, in and out. Both raise Unplugged when the device is not there."""

    def read_line(self) -> bytes:
        """The next line without its end; empty when none came within half a second."""

    def write(self, line: bytes) -> None: ...

    def close(self) -> None: ...


class SerialPort:
    """A serial device or a socket, by pyserial's address: /dev/ttyUSB0, COM3, socket://192.0.2.7:4001."""

    def __init__(self, address: str) -> None:
        try:
            self._serial = serial.serial_for_url(address, baudrate=9600, timeout=0.5, write_timeout=1.0)
        except (serial.SerialException, OSError, ValueError) as error:
            raise DeviceUnplugged(str(error)) from None
        self._rest = b""

    def read_line(self) -> bytes:
        try:
            # In whatever pieces they come; a line that never ends is cut, not kept for ever.
            self._rest += self._serial.read_until(b"\n", MOST_LINE_BYTES + 2)
        except (serial.SerialException, OSError) as error:
            raise DeviceUnplugged(str(error)) from None
        if not self._rest.endswith(b"\n") and len(self._rest) <= MOST_LINE_BYTES:
            return b""
        line, self._rest = self._rest, b""
        return line.rstrip(b"\r\n")

    def write(self, line: bytes) -> None:
        try:
            self._serial.write(line)
        except (serial.SerialException, OSError) as error:
            raise DeviceUnplugged(str(error)) from None

    def close(self) -> None:
        self._serial.close()


class _SimulatedPort:
    """A simulated device on its own clock, with a plug to pull. Subclasses say what it says."""

    per_s = READINGS_PER_S

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._said: deque[bytes] = deque()
        self._began = time.monotonic()
        self._next = 0.0
        self.plugged = True

    @property
    def _now(self) -> float:
        return time.monotonic() - self._began

    def _hello(self) -> str:
        raise NotImplementedError

    def _reading(self) -> str:
        raise NotImplementedError

    def _do(self, what: str) -> None:
        """A command other than hello; devices without any leave it alone."""

    def read_line(self) -> bytes:
        time.sleep(max(0.0, self._next - self._now))
        with self._lock:
            if not self.plugged:
                raise DeviceUnplugged("the plug is out")
            self._next = self._now + 1 / self.per_s  # whatever it says takes its time, nonsense too
            return self._said.popleft() if self._said else self._reading().encode()

    def write(self, line: bytes) -> None:
        with self._lock:
            if not self.plugged:
                raise DeviceUnplugged("the plug is out")
            do = json.loads(line)["do"]
            if do == "hello":
                self._said.append(self._hello().encode())
            else:
                self._do(do)

    def close(self) -> None:
        """It stays as it is for the next watch."""

    def garble(self) -> None:
        """Say a few lines of nonsense, as a loose plug does."""
        with self._lock:
            self._said.extend([b"\x00\xff\xfe", b"ERR ??", b'{"t": "soon", "weight": "much"}'] * 2)


class SimulatedProbePort(_SimulatedPort):
    """The simulated thermometer, stuck into a batch by the batch's own clock."""

    per_s = PROBE_READINGS_PER_S

    def __init__(self, seed: int | None = None) -> None:
        super().__init__()
        self._probe = SimulatedProbe(seed=seed or random.randrange(10**6))  # noqa: S311  # noise, no secret
        self._minute: Callable[[], float | None] = lambda: None

    def put_into(self, curve: TemperatureCurve, truth: int, minute: Callable[[], float | None]) -> None:
        """`minute` tells how long the batch has been in the heat; None when it is not."""
        with self._lock:
            self._probe.put_into(curve, truth)
            self._minute = minute

    def pull_out(self) -> None:
        with self._lock:
            self._probe.pull_out()

    def _hello(self) -> str:
        return self._probe.hello()

    def _reading(self) -> str:
        return self._probe.reading(self._now, self._minute())


class SimulatedScalePort(_SimulatedPort):
    """The simulated scale, with a tray to load."""

    def __init__(self, seed: int | None = None) -> None:
        super().__init__()
        self._scale = SimulatedScale(seed=seed or random.randrange(10**6))  # noqa: S311  # noise, no secret
        self._hand = random.Random(seed)  # noqa: S311

    def _hello(self) -> str:
        return self._scale.hello()

    def _reading(self) -> str:
        return self._scale.reading(self._now)

    def _do(self, what: str) -> None:
        if what == "zero":
            self._scale.zero(self._now)

    def put(self, grams: float) -> None:
        with self._lock:
            self._scale.put(grams, self._now)

    def pinch(self, aim_g: float) -> None:
        """A lump such as a cook pinches who aims at so much: a little heavy, and never twice the same."""
        self.put(max(0.5, aim_g * self._hand.gauss(1.02, 0.05)))

    def lift(self) -> None:
        with self._lock:
            self._scale.lift(self._now)

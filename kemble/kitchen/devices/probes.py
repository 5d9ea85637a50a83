"""The thermometer of each kitchen: the real one that the server is told of for its owner's, a simulated one otherwise."""

from __future__ import annotations

import threading

from django.conf import settings

from kemble.kitchen.devices.ears import ProbeEar
from kemble.kitchen.devices.port import Port, SerialPort, SimulatedProbePort
from kemble.kitchen.devices.watch import Watch
from kemble.kitchen.models import Kitchen
from kemble.kitchen.owner import is_owners

_lock = threading.Lock()
_watches: dict[int, Watch] = {}
_simulated: dict[int, SimulatedProbePort] = {}


def is_simulated(kitchen: Kitchen) -> bool:
    """An address comes from whoever starts the server, never from a page: it could reach anything."""
    return not (settings.PROBE and is_owners(kitchen))


def simulated(kitchen: Kitchen) -> SimulatedProbePort:
    """The kitchen's simulated thermometer, made when it is first asked for."""
    with _lock:
        return _simulated.setdefault(kitchen.pk, SimulatedProbePort())


def watch_of(kitchen: Kitchen) -> Watch:
    """The watch on the kitchen's thermometer."""
    port = simulated(kitchen) if is_simulated(kitchen) else None

    def open_port() -> Port:
        return port or SerialPort(settings.PROBE)

    with _lock:
        return _watches.setdefault(kitchen.pk, Watch(open_port, ProbeEar))

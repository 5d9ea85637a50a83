"""One sort of device for every kitchen: the real one that the server is told of for its owner's, a simulated one for
every other."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Generic, TypeVar

from django.conf import settings

from kemble.server.devices.ears import Ear
from kemble.server.devices.port import Port, SerialPort
from kemble.server.devices.watch import Watch
from kemble.server.models import KitchenRecord
from kemble.server.owner import is_owners

Simulated = TypeVar("Simulated", bound=Port)


class Attached(Generic[Simulated]):
    """`setting` names the address in the settings, `new_simulated` makes a stand-in, `new_ear` what understands both."""

    def __init__(self, setting: str, new_simulated: Callable[[], Simulated], new_ear: Callable[[], Ear]) -> None:
        self._setting, self._new_simulated, self._new_ear = setting, new_simulated, new_ear
        self._lock = threading.Lock()
        self._watches: dict[int, Watch] = {}
        self._simulated: dict[int, Simulated] = {}

    def is_simulated(self, kitchen: KitchenRecord) -> bool:
        """An address comes from whoever starts the server, never from a page: it could reach anything."""
        return not (getattr(settings, self._setting) and is_owners(kitchen))

    def simulated(self, kitchen: KitchenRecord) -> Simulated:
        """The kitchen's simulated device, made when it is first asked for."""
        with self._lock:
            if kitchen.pk not in self._simulated:
                self._simulated[kitchen.pk] = self._new_simulated()
            return self._simulated[kitchen.pk]

    def watch_of(self, kitchen: KitchenRecord) -> Watch:
        """The watch on the kitchen's device."""
        port = self.simulated(kitchen) if self.is_simulated(kitchen) else None

        def open_port() -> Port:
            return port or SerialPort(getattr(settings, self._setting))

        with self._lock:
            return self._watches.setdefault(kitchen.pk, Watch(open_port, self._new_ear))

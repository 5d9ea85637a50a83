"""One sort of device for every kitchen: the real one that the server is told of for its owner's; a simulated one where
nothing is at stake, in a made-up kitchen and in a rehearsal; and none in any other."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Generic, Literal, TypeVar

from django.conf import settings

from kemble.core.facts.problems import refuse
from kemble.server.accounts.owner import is_owners
from kemble.server.devices.poller import DevicePoller
from kemble.server.devices.port import DevicePort, SerialPort
from kemble.server.devices.readers import DeviceReader
from kemble.server.models import KitchenRecord

Simulated = TypeVar("Simulated", bound=DevicePort)
Device = Literal["attached", "simulated", "none"]


class AttachedDevice(Generic[Simulated]):
    """`name` is what a page calls it, with its address in the settings under that in capitals; `new_simulated` makes a
    stand-in, `new_reader` what understands both."""

    def __init__(
        self, name: str, new_simulated: Callable[[], Simulated], new_reader: Callable[[], DeviceReader]
    ) -> None:
        self._name, self._new_simulated, self._new_reader = name, new_simulated, new_reader
        self._lock = threading.Lock()
        self._pollers: dict[int, DevicePoller] = {}
        self._simulated: dict[int, Simulated] = {}

    @property
    def _address(self) -> str:
        """It comes from whoever starts the server, never from a page: it could reach anything."""
        return str(getattr(settings, self._name.upper()))

    def stands_in(self, kitchen: KitchenRecord, *, rehearsed: bool = False) -> Device:
        """What there is in a kitchen, or in a rehearsal there: a made-up weight never gets into a real making."""
        if self._address and is_owners(kitchen):
            return "attached"
        return "simulated" if kitchen.demo or rehearsed else "none"

    def _here(self, kitchen: KitchenRecord) -> Device:
        return self.stands_in(kitchen, rehearsed=kitchen.runs.filter(pace__gt=1, finished=None).exists())

    def simulated(self, kitchen: KitchenRecord) -> Simulated:
        """The kitchen's simulated device, made when it is first asked for. Refused where there is none to play with."""
        here = self._here(kitchen)
        if here == "attached":
            refuse(self._name, "is a real one", "one that is put on, or in, by hand")
        if here == "none":
            refuse(self._name, "is not there", f"one attached as docs/{self._name}.md says, or a demo or a rehearsal")
        with self._lock:
            if kitchen.pk not in self._simulated:
                self._simulated[kitchen.pk] = self._new_simulated()
            return self._simulated[kitchen.pk]

    def poller_of(self, kitchen: KitchenRecord) -> DevicePoller:
        """What polls the kitchen's device. Refused where there is none."""
        port = None if self._here(kitchen) == "attached" else self.simulated(kitchen)

        def open_port() -> DevicePort:
            return port or SerialPort(self._address)

        with self._lock:
            return self._pollers.setdefault(kitchen.pk, DevicePoller(open_port, self._new_reader))

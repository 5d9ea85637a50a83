"""The thermometer of each kitchen."""

from __future__ import annotations

from kemble.server.devices.kitchen_devices import AttachedDevice
from kemble.server.devices.port import SimulatedProbePort
from kemble.server.devices.readers import ProbeReader

_probes = AttachedDevice("probe", SimulatedProbePort, ProbeReader)
stands_in, simulated, poller_of = _probes.stands_in, _probes.simulated, _probes.poller_of

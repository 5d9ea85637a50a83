"""The thermometer of each kitchen."""

from __future__ import annotations

from kemble.server.devices.attached import Attached
from kemble.server.devices.ears import ProbeEar
from kemble.server.devices.port import SimulatedProbePort

_probes = Attached("probe", SimulatedProbePort, ProbeEar)
stands_in, simulated, watch_of = _probes.stands_in, _probes.simulated, _probes.watch_of

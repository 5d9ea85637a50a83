"""The thermometer of each kitchen."""

from __future__ import annotations

from kemble.server.devices.attached import Attached
from kemble.server.devices.ears import ProbeEar
from kemble.server.devices.port import SimulatedProbePort

_probes = Attached("PROBE", SimulatedProbePort, ProbeEar)
is_simulated, simulated, watch_of = _probes.is_simulated, _probes.simulated, _probes.watch_of

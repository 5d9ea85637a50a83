"""The scale of each kitchen."""

from __future__ import annotations

from kemble.server.devices.attached import Attached
from kemble.server.devices.port import SimulatedPort
from kemble.server.devices.readers import ScaleReader

_scales = Attached("scale", SimulatedPort, ScaleReader)
stands_in, simulated, poller_of = _scales.stands_in, _scales.simulated, _scales.poller_of

"""The scale of each kitchen."""

from __future__ import annotations

from kemble.server.devices.attached import Attached
from kemble.server.devices.ears import ScaleEar
from kemble.server.devices.port import SimulatedPort

_scales = Attached("scale", SimulatedPort, ScaleEar)
stands_in, simulated, watch_of = _scales.stands_in, _scales.simulated, _scales.watch_of

"""The scale of each kitchen."""

from __future__ import annotations

from kemble.server.devices.kitchen_devices import AttachedDevice
from kemble.server.devices.port import SimulatedScalePort
from kemble.server.devices.readers import ScaleReader

_scales = AttachedDevice("scale", SimulatedScalePort, ScaleReader)
stands_in, simulated, poller_of = _scales.stands_in, _scales.simulated, _scales.poller_of

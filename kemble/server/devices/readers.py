"""Readers: each understands the lines of one kind of device, and says in words what is wrong with it."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal, Protocol

from pydantic import BaseModel, ConfigDict

from kemble.core.devices.probe import ProbeHello, read_probe
from kemble.core.devices.scale import ScaleHello, SettledWeight, SettlingDetector, read_line
from kemble.core.sentences import Words

State = Literal["waiting", "ok", "over", "out", "nonsense", "gone"]


class LiveReading(BaseModel):
    """What a device shows now. `says` is what is wrong, in words; empty when nothing is."""

    model_config = ConfigDict(frozen=True)

    state: State = "waiting"
    name: str = ""
    says: Words = ""


class ScaleLive(LiveReading):
    grams: float = 0.0
    steady: bool = False


class ProbeLive(LiveReading):
    celsius: float = 0.0


class DeviceReader(Protocol):
    """Keeps what it has heard; one for each time a device is opened."""

    word: str

    def hear(self, line: bytes) -> tuple[LiveReading, SettledWeight | None] | None:
        """What a line shows, and where it came to rest; None for an introduction. Raises DeviceError."""

    def waiting(self) -> LiveReading: ...

    def gone(self, name: str) -> LiveReading: ...

    def nonsense(self, why: str) -> LiveReading: ...


@dataclass
class ScaleReader:
    word: str = "scale"
    _name: str = ""
    _tray: SettlingDetector = field(default_factory=SettlingDetector)

    def hear(self, line: bytes) -> tuple[LiveReading, SettledWeight | None] | None:
        said = read_line(line)
        if isinstance(said, ScaleHello):
            self._name = said.name
            return None
        if said.over:
            says = "Too heavy for the scale: take something off."
            return ScaleLive(state="over", name=self._name, says=says), self._tray.still(said)
        grams = round(said.grams, 1) + 0.0
        return ScaleLive(state="ok", grams=grams, steady=said.steady, name=self._name), self._tray.still(said)

    def waiting(self) -> LiveReading:
        return ScaleLive()

    def gone(self, name: str) -> LiveReading:
        return ScaleLive(state="gone", name=name, says="The scale is not there. Is it plugged in?")

    def nonsense(self, why: str) -> LiveReading:
        return ScaleLive(state="nonsense", name=self._name, says=f"The scale says what makes no sense: {why}.")


@dataclass
class ProbeReader:
    word: str = "thermometer"
    _name: str = ""

    def hear(self, line: bytes) -> tuple[LiveReading, SettledWeight | None] | None:
        said = read_probe(line)
        if isinstance(said, ProbeHello):
            self._name = said.name
            return None
        if said.out:
            says = "The thermometer is in nothing that is in the heat."
            return ProbeLive(state="out", name=self._name, says=says), None
        return ProbeLive(state="ok", celsius=round(said.celsius, 1) + 0.0, name=self._name), None

    def waiting(self) -> LiveReading:
        return ProbeLive()

    def gone(self, name: str) -> LiveReading:
        return ProbeLive(state="gone", name=name, says="The thermometer is not there. Is it plugged in?")

    def nonsense(self, why: str) -> LiveReading:
        return ProbeLive(state="nonsense", name=self._name, says=f"The thermometer says what makes no sense: {why}.")

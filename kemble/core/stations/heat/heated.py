"""What the way's own heat hands on, whichever heat it is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

from kemble.core.stations.heat.curve import Curve
from kemble.core.stations.heat.stages import StageWorked
from kemble.core.stations.working import Drawn

D_co = TypeVar("D_co", bound=Drawn, covariant=True)


@dataclass(frozen=True, slots=True)
class OwnHeat(Generic[D_co]):
    """The drawing of a heat, its core temperature over time, and its stages where it has several."""

    drawing: D_co
    curve: Curve
    stages: tuple[StageWorked, ...] = ()

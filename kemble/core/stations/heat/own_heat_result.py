"""The result of the way's own heat, whichever heat it is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

from kemble.core.stations.calculation import AnswerModel
from kemble.core.stations.heat.core_curve import TemperatureCurve
from kemble.core.stations.heat.heat_stages import HeatStageResult

D_co = TypeVar("D_co", bound=AnswerModel, covariant=True)


@dataclass(frozen=True, slots=True)
class OwnHeatResult(Generic[D_co]):
    """The drawing of a heat, its core temperature over time, and its stages where it has several."""

    drawing: D_co
    curve: TemperatureCurve
    stages: tuple[HeatStageResult, ...] = ()

"""What a run stores when it begins: its sheet, its predicted facts and its plan. Written once and never changed.

Each document says its version. A new version is written when what is kept of a run changes; every old one is brought up
to the newest by the steps in `_UPGRADES`, and a frozen document of each lies in `tests/fixtures/runs`.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from kemble.core.cards.cautions import Caution
from kemble.core.facts.fact import Fact
from kemble.core.plan.schedule import Plan
from kemble.core.sheet.document import Sheet
from kemble.core.stations.heat.core_curve import CoreCurve
from kemble.core.stations.work_sheet import WorkResult

Document = dict[str, Any]


class FrozenRun(BaseModel):
    """`core` is None where no core temperature was told, or none was kept yet."""

    model_config = ConfigDict(frozen=True)

    version: Literal[2] = 2
    sheet: Sheet
    facts: dict[str, Fact]
    cautions: list[Caution]
    core: CoreCurve | None
    plan: Plan


def frozen(sheet: Sheet, worked: WorkResult, plan: Plan) -> FrozenRun:
    return FrozenRun(sheet=sheet, facts=worked.facts, cautions=worked.cautions, core=worked.core, plan=plan)


def frozen_from(document: Mapping[str, Any]) -> FrozenRun:
    """A run's document of any version. Raises KeyError for a version that is newer than this code."""
    result = dict(document)
    while result["version"] != FrozenRun.model_fields["version"].default:
        result = _UPGRADES[result["version"]](result)
    return FrozenRun.model_validate(result)


def _upgrade_from_1(document: Document) -> Document:
    """Version 1 kept the whole answer as it was, drawings and all, the core temperature in that of the heat.

    The steps of its first plans did not say yet what is to hand.
    """
    worked = document["worked"]
    facts, heat = worked["facts"], (worked.get("drawings") or {}).get("heat") or {}
    core = None
    if "curve" in heat and "heat.done_min" in facts:
        window = {name: facts[f"heat.{name}_min"]["value"] for name in ("first_check", "done", "latest")}
        told = heat["curve"]
        curve = {"minutes": told["minutes"], "core_c": told["heart_c"], "surface_c": told["surface_c"]}
        core = {"curve": curve, "first": window["first_check"], "done": window["done"], "latest": window["latest"]}
    steps = [{**item, "step": {"to_hand": [], **item["step"]}} for item in document["plan"]["scheduled"]]
    return {
        "version": 2,
        "sheet": document["sheet"],
        "facts": facts,
        "cautions": worked["cautions"],
        "core": core,
        "plan": {**document["plan"], "scheduled": steps},
    }


_UPGRADES: dict[int, Callable[[Document], Document]] = {1: _upgrade_from_1}

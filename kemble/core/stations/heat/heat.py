"""Heat: picks the heat that the way and its schools ask for, and runs it."""

from __future__ import annotations

from dataclasses import dataclass

from kemble.core.kitchen.larder import Composition
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation, StandsIn
from kemble.core.stations.heat.bake import BakeDrawing, bake_tray
from kemble.core.stations.heat.boil import BoilDrawing, boil
from kemble.core.stations.heat.grain_heat import GrainHeatDrawing, How, grain_ahead, grain_heat
from kemble.core.stations.heat.heat_stages import HeatStageResult
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.heat.pounding import pounding
from kemble.core.stations.heat.steam import SteamDrawing, steam_dish, steam_tin
from kemble.core.stations.heat.stirred_dough import StirredDrawing, stirred
from kemble.core.stations.heat.wrapped_parcels import WrappedDrawing, wrapped
from kemble.core.stations.mix.grain import cook_of
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import ShapeDrawing, TinDrawing

HeatDrawing = SteamDrawing | BoilDrawing | BakeDrawing | WrappedDrawing | StirredDrawing | GrainHeatDrawing


@dataclass(frozen=True, slots=True)
class HeatResult:
    """What Heat hands on. Without `own` the vessel or the curve gave no answer, and a problem is noted."""

    own: OwnHeatResult[HeatDrawing] | None
    stages: tuple[HeatStageResult, ...]  # of grain that is cooked ahead, and of the way's own heat
    stands_in: StandsIn | None = None


NOT_HEATED = HeatResult(None, ())  # where there is nothing to heat


def heat(
    calculation: Calculation, raw: Composition, shaped: Composition, filling: Composition | None, drawn: ShapeDrawing
) -> HeatResult:
    """Times of the way's own heat, and of grain that is cooked ahead of it.

    `raw` is what goes into the heat, `shaped` what is shaped: already cooked where the way portions it cooked.
    """
    boil_c = calculation.boil_c
    calculation.fact_book.add(
        "heat.boil_c",
        boil_c,
        say("air pressure at this height, and the boiling point there"),
        source=say("standard atmosphere and Antoine's equation"),
        of=[calculation.from_kitchen("altitude_m", say("height above the sea"), calculation.kitchen.altitude_m, "m")],
    )
    ahead: tuple[HeatStageResult, ...] = ()
    if calculation.heated == "gather" or (calculation.heated == "bake" and calculation.way.base == "grain"):
        ahead = grain_ahead(calculation, raw, boil_c, _grain_cook(calculation))
        raw = shaped
    own = _own_heat(calculation, raw, filling, drawn, boil_c)
    stands_in = _vessel_it_stands_in(calculation, own.drawing) if own else None
    pounding(calculation, shaped)
    return HeatResult(own, (*ahead, *(own.stages if own else ())), stands_in)


def _vessel_it_stands_in(calculation: Calculation, drawing: HeatDrawing) -> StandsIn | None:
    """Which steamer or pot it stands in; a named one that is not in the kitchen is said."""
    said = calculation.sheet.heat.vessel
    if getattr(drawing, "steamer", None) is not None:
        stands = StandsIn(kind="steamer", name=calculation.steamer.name)
    elif isinstance(drawing, BoilDrawing | WrappedDrawing):
        stands = StandsIn(kind="pot", name=calculation.pot.name)
    else:
        return None
    if said and said != stands.name:
        says = say(
            "There is no {kind} called {said} in this kitchen: worked out for the {name}.",
            kind=stands.kind,
            said=said,
            name=stands.name,
        )
        calculation.advise("heat", "look", says, 0)
    return stands


def _own_heat(
    calculation: Calculation, raw: Composition, filling: Composition | None, drawn: ShapeDrawing, boil_c: float
) -> OwnHeatResult[HeatDrawing] | None:
    method = calculation.heated
    match method, drawn:
        case "steam", TinDrawing():
            return steam_tin(calculation, raw, drawn, boil_c)
        case "dish", _:
            return steam_dish(calculation, raw, boil_c)
        case "grain", _:
            return grain_heat(calculation, raw, boil_c, _grain_cook(calculation))
        case "bake", TinDrawing():
            return bake_tray(calculation, raw, drawn, boil_c)
        case "gather", _:
            return stirred(calculation, raw, boil_c, "gather")
        case "boil", BallDrawing():
            return boil(calculation, raw, filling, drawn, boil_c)
        case "wrapped", BallDrawing():
            return wrapped(calculation, raw, drawn, boil_c)
        case ("pan" | "microwave") as stirred_in, _:
            return stirred(calculation, raw, boil_c, stirred_in)
    raise ValueError(f"{calculation.way.id} is not heated by {method} in this form")


def _grain_cook(calculation: Calculation) -> How:
    """How the grain is cooked, by the school followed."""
    cook = cook_of(calculation)
    assert cook in ("steam", "lid", "cooker")
    return cook

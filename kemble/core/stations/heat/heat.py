"""Heat: time told from the thing itself, by the way's own heat."""

from __future__ import annotations

from dataclasses import dataclass

from kemble.core.kitchen.larder import Composition
from kemble.core.sentences import say
from kemble.core.stations.calculation import Calculation, StandsIn
from kemble.core.stations.heat.bake import BakeDrawing, bake_tray
from kemble.core.stations.heat.boil import BoilDrawing, boil
from kemble.core.stations.heat.grain_heat import GrainHeatDrawing, How, grain_ahead, grain_heat
from kemble.core.stations.heat.heat_curve_result import HeatedWith
from kemble.core.stations.heat.heat_stages import HeatStageResult
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

    own: HeatedWith[HeatDrawing] | None
    stages: tuple[HeatStageResult, ...]  # of grain that is cooked ahead, and of the way's own heat
    stands_in: StandsIn | None = None


NOT_HEATED = HeatResult(None, ())  # where there is nothing to heat


def heat(
    working: Calculation, raw: Composition, shaped: Composition, filling: Composition | None, drawn: ShapeDrawing
) -> HeatResult:
    """Times of the way's own heat, and of grain that is cooked ahead of it.

    `raw` is what goes into the heat, `shaped` what is shaped: already cooked where the way portions it cooked.
    """
    boil_c = working.boil_c
    working.book.add(
        "heat.boil_c",
        boil_c,
        say("air pressure at this height, and the boiling point there"),
        source=say("standard atmosphere and Antoine's equation"),
        of=[working.from_kitchen("altitude_m", say("height above the sea"), working.kitchen.altitude_m, "m")],
    )
    ahead: tuple[HeatStageResult, ...] = ()
    if working.heated == "gather" or (working.heated == "bake" and working.way.base == "grain"):
        ahead = grain_ahead(working, raw, boil_c, _how(working))
        raw = shaped
    own = _own_heat(working, raw, filling, drawn, boil_c)
    stands_in = _stand(working, own.drawing) if own else None
    pounding(working, shaped)
    return HeatResult(own, (*ahead, *(own.stages if own else ())), stands_in)


def _stand(working: Calculation, drawing: HeatDrawing) -> StandsIn | None:
    """Which steamer or pot it stands in; a named one that is not in the kitchen is said."""
    said = working.sheet.heat.vessel
    if getattr(drawing, "steamer", None) is not None:
        stands = StandsIn(kind="steamer", name=working.steamer.name)
    elif isinstance(drawing, BoilDrawing | WrappedDrawing):
        stands = StandsIn(kind="pot", name=working.pot.name)
    else:
        return None
    if said and said != stands.name:
        says = say(
            "There is no {kind} called {said} in this kitchen: worked out for the {name}.",
            kind=stands.kind,
            said=said,
            name=stands.name,
        )
        working.advise("heat", "look", says, 0)
    return stands


def _own_heat(
    working: Calculation, raw: Composition, filling: Composition | None, drawn: ShapeDrawing, boil_c: float
) -> HeatedWith[HeatDrawing] | None:
    method = working.heated
    match method, drawn:
        case "steam", TinDrawing():
            return steam_tin(working, raw, drawn, boil_c)
        case "dish", _:
            return steam_dish(working, raw, boil_c)
        case "grain", _:
            return grain_heat(working, raw, boil_c, _how(working))
        case "bake", TinDrawing():
            return bake_tray(working, raw, drawn, boil_c)
        case "gather", _:
            return stirred(working, raw, boil_c, "gather")
        case "boil", BallDrawing():
            return boil(working, raw, filling, drawn, boil_c)
        case "wrapped", BallDrawing():
            return wrapped(working, raw, drawn, boil_c)
        case ("pan" | "microwave") as stirred_in, _:
            return stirred(working, raw, boil_c, stirred_in)
    raise ValueError(f"{working.way.id} is not heated by {method} in this form")


def _how(working: Calculation) -> How:
    """How the grain is cooked, by the school followed."""
    cook = cook_of(working)
    assert cook in ("steam", "lid", "cooker")
    return cook

"""Heat: time told from the thing itself, by the way's own heat."""

from __future__ import annotations

from kemble.core.kitchen.larder import Composition
from kemble.core.stations.heat.bake import BakeDrawing, bake_tray
from kemble.core.stations.heat.boil import BoilDrawing, boil
from kemble.core.stations.heat.grain_heat import GrainHeatDrawing, How, grain_ahead, grain_heat
from kemble.core.stations.heat.pounding import pounding
from kemble.core.stations.heat.steam import SteamDrawing, steam_dish, steam_tin
from kemble.core.stations.heat.stirred import StirredDrawing, stirred
from kemble.core.stations.heat.wrapped import WrappedDrawing, wrapped
from kemble.core.stations.mix.grain import cook_of
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import ShapeDrawing, TinDrawing
from kemble.core.stations.working import StandsIn, Working
from kemble.core.words import say

HeatDrawing = SteamDrawing | BoilDrawing | BakeDrawing | WrappedDrawing | StirredDrawing | GrainHeatDrawing


def heat(
    working: Working, raw: Composition, shaped: Composition, filling: Composition | None, drawn: ShapeDrawing
) -> HeatDrawing | None:
    """Times of the way's own heat. None when the vessel or the curve gives no answer (a problem is noted).

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
    drawing = _by_method(working, raw, shaped, filling, drawn, boil_c)
    if drawing:
        _stand(working, drawing)
    pounding(working, shaped)
    return drawing


def _stand(working: Working, drawing: HeatDrawing) -> None:
    """Which steamer or pot it stands in; a named one that is not in the kitchen is said."""
    said = working.sheet.heat.vessel
    if getattr(drawing, "steamer", None) is not None:
        stands = StandsIn(kind="steamer", name=working.steamer.name)
    elif isinstance(drawing, BoilDrawing | WrappedDrawing):
        stands = StandsIn(kind="pot", name=working.pot.name)
    else:
        return
    working.stands_in = stands
    if said and said != stands.name:
        says = say(
            "There is no {kind} called {said} in this kitchen: worked out for the {name}.",
            kind=stands.kind,
            said=said,
            name=stands.name,
        )
        working.advise("heat", "look", says, 0)


def _by_method(
    working: Working,
    raw: Composition,
    shaped: Composition,
    filling: Composition | None,
    drawn: ShapeDrawing,
    boil_c: float,
) -> HeatDrawing | None:
    method = working.heated
    match method, drawn:
        case "steam", TinDrawing():
            return steam_tin(working, raw, drawn, boil_c)
        case "dish", _:
            return steam_dish(working, raw, boil_c)
        case "grain", _:
            return grain_heat(working, raw, boil_c, _how(working))
        case "bake", TinDrawing():
            if working.way.base == "grain":  # its grain was cooked first
                grain_ahead(working, raw, boil_c, _how(working))
                return bake_tray(working, shaped, drawn, boil_c)
            return bake_tray(working, raw, drawn, boil_c)
        case "gather", _:
            grain_ahead(working, raw, boil_c, _how(working))
            return stirred(working, shaped, boil_c, "gather")
        case "boil", BallDrawing():
            return boil(working, raw, filling, drawn, boil_c)
        case "wrapped", BallDrawing():
            return wrapped(working, raw, drawn, boil_c)
        case ("pan" | "microwave") as stirred_in, _:
            return stirred(working, raw, boil_c, stirred_in)
    raise ValueError(f"{working.way.id} is not heated by {method} in this form")


def _how(working: Working) -> How:
    """How the grain is cooked, by the school followed."""
    cook = cook_of(working)
    assert cook in ("steam", "lid", "cooker")
    return cook

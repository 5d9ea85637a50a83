"""Heat: time told from the thing itself, by the way's own heat."""

from __future__ import annotations

from kemble.core.larder import Composition
from kemble.core.physics.thermal import boiling_point_c
from kemble.core.stations.bake import BakeDrawing, bake_tray
from kemble.core.stations.boil import BoilDrawing, boil
from kemble.core.stations.pieces import BallDrawing
from kemble.core.stations.shape import ShapeDrawing, TinDrawing
from kemble.core.stations.steam import SteamDrawing, steam
from kemble.core.stations.stirred import StirredDrawing, stirred
from kemble.core.stations.timed import TimedDrawing, timed
from kemble.core.stations.working import Working
from kemble.core.stations.wrapped import WrappedDrawing, wrapped

HeatDrawing = SteamDrawing | BoilDrawing | BakeDrawing | WrappedDrawing | StirredDrawing | TimedDrawing


def heat(working: Working, base: Composition, filling: Composition | None, drawn: ShapeDrawing) -> HeatDrawing | None:
    """Times of the way's own heat. None when the vessel or the curve gives no answer (a problem is noted)."""
    boil_c = boiling_point_c(working.kitchen.altitude_m)
    working.book.add(
        "heat.boil_c",
        boil_c,
        "air pressure at this height, and the boiling point there",
        source="standard atmosphere and Antoine's equation",
        of=[working.from_kitchen("altitude_m", "height above the sea", working.kitchen.altitude_m, "m")],
    )
    method = working.way.heat_of(working.schools)
    if method == "steam" and isinstance(drawn, TinDrawing):
        return steam(working, base, drawn, boil_c)
    if method == "bake" and isinstance(drawn, TinDrawing):
        return bake_tray(working, base, drawn, boil_c)
    if method == "boil" and isinstance(drawn, BallDrawing):
        return boil(working, base, filling, drawn, boil_c)
    if method == "wrapped" and isinstance(drawn, BallDrawing):
        return wrapped(working, base, drawn, boil_c)
    if method in ("pan", "microwave"):
        return stirred(working, base, boil_c, method)
    return timed(working)

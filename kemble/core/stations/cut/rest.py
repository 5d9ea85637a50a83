"""Rest: cooling until it can be handled and cut, freezing the filling, and how long it keeps."""

from __future__ import annotations

import math

import numpy as np

from kemble.core.cards.card import Step, StepId
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins, leaf
from kemble.core.facts.known import known
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, Body, Modes, when
from kemble.core.physics.freezing import freeze_hard_s, soften_s
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.stations.cut.keep import keep
from kemble.core.stations.heat.curve import SOLVER, Curve
from kemble.core.stations.heat.steam import wall_h
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import ShapeDrawing, TinDrawing
from kemble.core.stations.working import Drawn, Working

# W/(m2 K). Free cooling on a counter about 8-14, a fridge or freezer shelf about 6-12; kitchen estimates.
COUNTER_H = 11.0
SHELF_H = 9.0
HANDLE_C = 60.0
CUT_C = {"cool": 34.0, "chill": 24.0, "overnight": 24.0}
TO_FRIDGE_C = 55.0  # no longer steaming: it may go in the fridge without warming its neighbours
OVERNIGHT_MIN = 14 * 60.0
BITE_C = 65.0
STIFF_C = 45.0
BOARD_CM2 = 900.0  # a board on which a cooked mass is laid out; kitchen estimate
ROLLED_C = 16.0  # a rolled sheet so cold cuts round and can be held; kitchen estimate
SHAPED_AT: tuple[StepId, ...] = ("wrap", "shape", "ball", "snip")  # the step at which the mass must be in its window
SOFT_C = -6.0


class Cooling(Drawn):
    curve: Curve
    handle_c: float
    cut_c: float | None


def rest(working: Working, base: Composition, filling: Composition | None, drawn: ShapeDrawing) -> Cooling:
    """Cooling, freezing and keeping facts, and the cooling curve."""
    if isinstance(drawn, TinDrawing):
        drawing = _tin(working, base, drawn)
    elif working.way.portions == "cooked" or drawn.form != "ball":
        drawing = _board(working, base, drawn)
    else:
        drawing = _ball(working, base, filling, drawn)
    keep(working)
    return drawing


def _lies(working: Working, drawn: BallDrawing, material: Material) -> tuple[Body, Origin]:
    """What cools: a parcel hung up, a packet on the rack, or the cooked mass on its board, as thick as it is usually
    laid, and thicker when there is more of it than the board takes."""
    way, book = working.way, working.book
    if drawn.form == "parcel":
        thick = drawn.outer_mm
        body = conduction.sphere([(thick / 2000.0, material)], COUNTER_H)
        return body, leaf("way:parcel", "a ball of its weight across", round(thick, 1), "mm")
    thick = way.board_mm
    if drawn.form == "packet":
        thick = book.number("shape.thick_mm")
    elif way.portions == "cooked":
        thick = max(thick, book.number("mix.volume_ml") / BOARD_CM2 * 10.0)
    body = conduction.slab(thick / 1000.0, material, COUNTER_H, COUNTER_H)
    return body, leaf("way:board", "it lies thick", round(thick, 1), "mm")


def _board(working: Working, base: Composition, drawn: BallDrawing) -> Cooling:
    """A cooked mass on the board, or a parcel or packet out of its heat, until it can be handled and no longer."""
    book, kitchen, way = working.book, working.kitchen, working.way
    material = properties(fractions(base), 60.0)
    start = book.number("heat.heart_done_c")
    body, thick = _lies(working, drawn, material)
    slow_s = float(body.edges[-1]) * 1150.0 * material.cp / COUNTER_H  # its own slow time, and more
    times = np.linspace(0.0, 1.0, 140) ** 1.5 * max(3 * 3600.0, 2 * slow_s)
    modes = Modes(body)
    left = modes.remaining(times)
    core = kitchen.room_c + (start - kitchen.room_c) * left.max(axis=1)
    top = kitchen.room_c + (start - kitchen.room_c) * modes.surfaces(left)[1]
    begin_c, end_c = way.handle_c
    ends = when(times, -core, -max(end_c, kitchen.room_c + 2.0)) or float(times[-1])
    room = working.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    of: Origins = ["heat.heart_done_c", room, thick]
    begins = _first_touch(working, material, times, core if drawn.form in _EATEN else top, of)
    says = "it is past its best to eat warm" if drawn.form in _EATEN else "under this it stiffens and no longer seals"
    minutes = max(ends, begins) / 60
    book.add(
        "rest.handle_until_min",
        minutes,
        f"the heart has fallen to {working.degrees(end_c)}: {says}",
        source=f"{SOLVER}; the window a {KITCHEN_ESTIMATE}",
        of=of,
        low=max(begins / 60, minutes * 0.8),
        high=minutes * 1.25,
    )
    if working.follows(way.rolled_when) and "shape.sheet_thick_mm" in book:
        _chilled(working, material, begin_c)
    _shaping(working, max(ends, begins) - begins)
    if drawn.form in _EATEN:
        says = f"Open them under {working.degrees(begin_c)}: hotter within than the leaf lets feel."
    else:
        says = f"Work it until it is down to {working.degrees(end_c)}: dusted hands from the first minutes, cooler it cracks."
    working.advise("cut", "look", says, 5)
    shown = times <= min(ends * 1.4 + 300.0, float(times[-1]))
    return known(Cooling, curve=_drawn(times[shown], core[shown], top[shown]), handle_c=begin_c, cut_c=None)


_EATEN = ("parcel", "packet")  # they are opened and eaten warm, not worked
_HAND_C, _SKIN_E = 33.0, 1400.0  # a hand, and how readily its skin takes heat up, J/(m2 K s^0.5); kitchen estimates
# Against dusted hands: wet or oiled ones feel it sooner, gloves and tools later. K; kitchen estimates.
_HANDS_BEAR = {"oil": -4.0, "wet": -5.0, "gloves": 6.0}


def _first_touch(working: Working, material: Material, times: Array, curve: Array, of: Origins) -> float:
    """Seconds until hands can take it: where its surface has fallen so far that skin that touches it bears it. What is
    snipped is not touched; a parcel is opened once its heart can be eaten.

    Skin and dough meet at a warmth between theirs, by how readily each gives heat up (two half-spaces in contact).
    """
    way, book = working.way, working.book
    gives = math.sqrt(material.k * material.rho * material.cp)

    def surface_c(bears: float) -> float:
        return _HAND_C + (bears - _HAND_C) * (_SKIN_E + gives) / gives

    row = working.estimates["touch_c"]
    hands = _HANDS_BEAR["wet"] if way.hands_salt_pct else _HANDS_BEAR.get(working.sheet.school("dust"), 0.0)
    if way.form == "pull":
        goals, says = [math.inf] * 3, "oiled scissors go through at once; no hand need touch it"
    elif way.form in _EATEN:
        goals, says = [way.handle_c[0] + off for off in (5.0, 0.0, -5.0)], "cool enough to open and to eat"
    else:
        goals = [surface_c(bears + hands) for bears in (row.high, row.value, row.low)]
        says = f"the surface is under {working.degrees(goals[1])}: quick hands, well dusted or wet, bear it"
    first, likely, last = ((when(times, -curve, -goal) or 0.0) / 60 for goal in goals)
    book.add(
        "rest.handle_from_min",
        likely if likely >= _AT_ONCE_MIN else 0.0,
        says,
        source=f"{SOLVER}; what hands bear a {KITCHEN_ESTIMATE}",
        of=[*of, working.estimated("touch_c")],
        low=min(first, likely) if likely >= _AT_ONCE_MIN else 0.0,
        high=last,
    )
    return likely * 60.0


_AT_ONCE_MIN = 0.3


def _chilled(working: Working, material: Material, start_c: float) -> None:
    """A rolled sheet in the cold until it cuts: there is no window then, and no hurry."""
    kitchen, thick = working.kitchen, working.book.number("shape.sheet_thick_mm")
    modes = Modes(conduction.slab(thick / 1000.0, material, SHELF_H, SHELF_H))
    times = np.linspace(0.0, 1.0, 100) ** 1.5 * 3 * 3600.0
    core = kitchen.fridge_c + (start_c - kitchen.fridge_c) * modes.remaining(times).max(axis=1)
    minutes = (when(times, -core, -ROLLED_C) or float(times[-1])) / 60
    working.book.add(
        "rest.chill_min",
        minutes,
        f"the rolled sheet has fallen to {working.degrees(ROLLED_C)}: it cuts, and can be held",
        source=f"{SOLVER}; {KITCHEN_ESTIMATE}",
        of=["shape.sheet_thick_mm", working.from_kitchen("fridge_c", "fridge", kitchen.fridge_c, "°C")],
        low=minutes * 0.8,
        high=minutes * 1.3,
    )


def _shaping(working: Working, window_s: float) -> None:
    """How long the hands need for all the pieces, against the window that the mass gives them."""
    way, book = working.way, working.book
    shaped = next((step for step in way.steps if step.id in SHAPED_AT and _called(working, step)), None)
    if shaped is None or "shape.pieces" not in book:
        return
    pieces, cooks = book.number("shape.pieces"), working.kitchen.cooks
    needs = book.add(
        "rest.shaping_min",
        (shaped.minutes.fixed + shaped.minutes.per_piece * pieces) / cooks,
        "a little to begin with, and a little for each piece, over the cooks",
        source=KITCHEN_ESTIMATE,
        of=["shape.pieces", working.from_kitchen("cooks", "cooks", cooks)],
    )
    if needs > window_s / 60 and not working.follows(way.rolled_when):
        says = f"{pieces:.0f} pieces want {needs:.0f} minutes; it stays workable for {window_s / 60:.0f}. Keep half of it covered and warm."
        working.advise("cut", "look", says, 2)


def _called(working: Working, step: Step) -> bool:
    return all(working.schools.get(choice) in schools for choice, schools in step.when.items())


def _setting(working: Working) -> tuple[str, Origin]:
    """How it sets: as the cook chooses where the way has a choice; a sheet in a bag goes cold until it is rigid."""
    for chosen in working.school("rest"):
        return working.asked("rest"), chosen
    return "overnight", leaf("way:rest", "a sheet in its bag", "a night in the cold")


def _tin(working: Working, base: Composition, drawn: TinDrawing) -> Cooling:
    book, kitchen = working.book, working.kitchen
    school, chosen = _setting(working)
    start = book.number("heat.heart_done_c")
    material = properties(fractions(base), 60.0)
    depth = drawn.depth_mm / 1000.0
    side, lining = drawn.tin.least_mm, working.sheet.vessel.lining

    def cooling(h: float) -> tuple[Array, Array, Array]:
        """Seconds, and the shares of warmth left at the heart and on top."""
        times = np.linspace(0.0, 1.0, 140) ** 1.5 * 12 * 3600.0
        upright = Modes(conduction.slab(depth, material, wall_h(drawn.tin, h, lining), h))
        body = conduction.cylinder(side / 2000.0, material, wall_h(drawn.tin, h, lining))
        across = Modes.centre(Modes(body).remaining(times), body)
        left = upright.remaining(times)
        return times, left.max(axis=1) * across, upright.surfaces(left)[1] * across

    times, core_left, top_left = cooling(COUNTER_H)
    core = kitchen.room_c + (start - kitchen.room_c) * core_left
    top = kitchen.room_c + (start - kitchen.room_c) * top_left
    handle = when(times, -core, -HANDLE_C) or 0.0
    room = working.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    of: Origins = ["shape.depth_mm", "heat.heart_done_c", room]
    book.add(
        "rest.handle_from_min",
        handle / 60,
        f"the heart has fallen to {working.degrees(HANDLE_C)} on the counter",
        source=SOLVER,
        of=of,
    )
    cut_c = max(CUT_C[school], kitchen.room_c + 4.0) if school == "cool" else CUT_C[school]
    counter_c = max(CUT_C["cool"], kitchen.room_c + 4.0)
    counter_s = when(times, -core, -counter_c) or float(times[-1])
    moved = when(times, -core, -TO_FRIDGE_C) or 0.0
    cold, cold_left, cold_top = cooling(SHELF_H)
    chilled = kitchen.fridge_c + (TO_FRIDGE_C - kitchen.fridge_c) * cold_left
    fridge_s = moved + (when(cold, -chilled, -CUT_C["chill"]) or float(cold[-1]))
    fridge_says = (
        f"{moved / 60:.0f} min on the counter, then in the fridge until the heart is {working.degrees(CUT_C['chill'])}"
    )
    counter_says = f"the heart has fallen to {working.degrees(counter_c)} on the counter"
    fridge = working.from_kitchen("fridge_c", "fridge", kitchen.fridge_c, "°C")
    for key, seconds, words, place in (
        ("rest.cut_counter_min", counter_s, counter_says, room),
        ("rest.cut_fridge_min", fridge_s, fridge_says, fridge),
    ):
        book.add(key, seconds / 60, words, source=SOLVER, of=[*of, place], low=seconds / 75, high=seconds / 48)
    if school == "cool":
        cut_s, says = counter_s, counter_says
    else:
        cut_s, says = fridge_s, fridge_says
        if school == "overnight":
            cut_s, says = max(cut_s, OVERNIGHT_MIN * 60), "a night to set, covered"
        before = times < moved
        top_then = float(np.interp(moved, times, top))
        times = np.concatenate((times[before], moved + cold))
        core = np.concatenate((core[before], chilled))
        top = np.concatenate((top[before], kitchen.fridge_c + (top_then - kitchen.fridge_c) * cold_top / cold_top[0]))
    cut_min = cut_s / 60
    book.add(
        "rest.cut_after_min",
        cut_min,
        says,
        source=SOLVER,
        of=[*of, chosen],
        low=cut_min * 0.8,
        high=cut_min * 1.25,
    )
    book.add(
        "rest.cut_at_c",
        cut_c,
        "starch has set enough to part from an oiled knife",
        source=KITCHEN_ESTIMATE,
        of=[chosen],
    )
    working.advise(
        "cut",
        "look",
        f"Nothing cuts clean hot. Wait until the heart is {working.degrees(cut_c)}, and oil the knife.",
        5,
    )
    shown = times <= min(cut_s * 1.5, float(times[-1]))
    return known(Cooling, curve=_drawn(times[shown], core[shown], top[shown]), handle_c=HANDLE_C, cut_c=cut_c)


def _drawn(times: Array, core: Array, top: Array) -> Curve:
    return known(
        Curve,
        minutes=tuple(np.round(times / 60, 2).tolist()),
        core_c=tuple(np.round(core, 2).tolist()),
        surface_c=tuple(np.round(top, 2).tolist()),
    )


def _ball(working: Working, base: Composition, filling: Composition | None, drawn: BallDrawing) -> Cooling:
    book, kitchen = working.book, working.kitchen
    dough = properties(fractions(base), 60.0)
    outer, inner = drawn.outer_mm / 2000.0, drawn.core_mm / 2000.0
    shells = [(outer, dough)]
    if filling and inner > 0:
        shells = [(inner, properties(fractions(filling), 60.0)), (outer, dough)]
    body = conduction.sphere(shells, COUNTER_H)
    modes = Modes(body)
    times = np.linspace(0.0, 5400.0, 136)
    left = modes.remaining(times)
    start = book.number("heat.heart_done_c")
    gap = start - kitchen.room_c
    core = kitchen.room_c + gap * Modes.centre(left, body)
    skin = kitchen.room_c + gap * modes.surfaces(left)[1]
    safe = when(times, -core, -BITE_C) or 0.0
    stiff = when(times, -skin, -STIFF_C) or float(times[-1])
    room = working.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    of: Origins = ["shape.diameter_mm", "heat.heart_done_c", room]
    book.add(
        "rest.handle_from_min",
        safe / 60,
        f"the heart has fallen to {working.degrees(BITE_C)} in the bowl",
        source=SOLVER,
        of=of,
    )
    book.add(
        "rest.handle_until_min",
        max(stiff, safe) / 60,
        f"the skin has fallen to {working.degrees(STIFF_C)} and stiffens",
        source=SOLVER,
        of=of,
    )
    if filling and inner > 0 and working.way.step("freeze-filling"):
        _filling(working, filling, drawn.core_mm / 1000.0)
    working.advise("cut", "look", "Let a bowl stand two minutes: the middle is hotter than the skin.", 5)
    return known(Cooling, curve=_drawn(times, core, skin), handle_c=BITE_C, cut_c=None)


def _filling(working: Working, filling: Composition, diameter: float) -> None:
    book, kitchen = working.book, working.kitchen
    hard = freeze_hard_s(filling, diameter_m=diameter, start_c=12.0, shelf_c=kitchen.freezer_c, h=SHELF_H) / 60
    shelf = working.from_kitchen("freezer_c", "freezer shelf", kitchen.freezer_c, "°C")
    book.add(
        "rest.freeze_filling_min",
        hard,
        "its ice and fat set, then it follows the shelf",
        source="Plank's equation for a sphere, with sensible heat",
        of=["shape.core_mm", shelf],
        low=hard * 0.75,
        high=hard * 1.5,
    )
    soft = (
        soften_s(
            filling,
            diameter_m=diameter,
            frozen_c=kitchen.freezer_c,
            soft_c=SOFT_C,
            room_c=kitchen.room_c,
            h=COUNTER_H,
        )
        / 60
    )
    room = working.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    book.add(
        "rest.soften_min",
        soft,
        f"its outside has warmed to {working.degrees(SOFT_C)}",
        source=f"lumped warming; {KITCHEN_ESTIMATE}",
        of=["shape.core_mm", shelf, room],
        low=soft * 0.6,
        high=soft * 1.6,
    )
    wrap = working.way.step("wrap")
    if wrap is None:
        return
    each = wrap.minutes.per_piece
    book.add(
        "rest.take_out",
        max(1.0, float(int(soft / each))),
        "as many as are wrapped before the last one softens",
        source=KITCHEN_ESTIMATE,
        of=["rest.soften_min"],
    )

"""Rest: cooling until it can be handled and cut, freezing the filling, and how long it keeps."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from kemble.core.cards.card_parts import Step, StepId
from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins, leaf
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, DecayModes, time_at_level
from kemble.core.physics.freezing import freeze_hard_s, soften_s
from kemble.core.physics.thermal import Material, fractions, properties
from kemble.core.physics.time_spread import spread
from kemble.core.sentences import say
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.cut.keeping_times import keep
from kemble.core.stations.heat.core_curve import SOLVER, TemperatureCurve
from kemble.core.stations.heat.steam import wall_h
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.shape.shape import ShapeDrawing, TinDrawing
from kemble.core.stations.time_windows import WORTH_SHARE, enter_with_range, scaled_by_estimates

HANDLE_C = 60.0
CUT_C = {"cool": 34.0, "chill": 24.0, "overnight": 24.0}
TO_FRIDGE_C = 55.0  # no longer steaming: it may go in the fridge without warming its neighbours
OVERNIGHT_MIN = 14 * 60.0
_EVEN = np.linspace(0.0, 1.0, 136)
_TIMES = np.linspace(0.0, 1.0, 140) ** 1.5  # closer together at first
_CELLS = 24  # in still air a tray is nearly one lump: twice as many change no time by a quarter of a per cent
BITE_C = 65.0
STIFF_C = 45.0
SHAPED_AT: tuple[StepId, ...] = ("wrap", "shape", "ball", "snip")  # the step at which the mass must be in its window


class Cooling(AnswerModel):
    curve: TemperatureCurve
    handle_c: float
    cut_c: float | None


def rest(
    calculation: Calculation, base: Composition, filling: Composition | None, drawn: ShapeDrawing
) -> Cooling | None:
    """Cooling, freezing and keeping facts, and the cooling curve; None for what comes out of its heat cold at the heart."""
    drawing: Cooling | None
    if isinstance(drawn, TinDrawing):
        drawing = _tin(calculation, base, drawn)
    elif calculation.way.portions == "cooked" or drawn.form != "ball":
        drawing = _board(calculation, base, drawn)
    else:
        drawing = _ball(calculation, base, filling, drawn)
    keep(calculation)
    return drawing


class _CoolingPiece:
    """What cools in the room: a parcel hung up, a packet on the rack, or the cooked mass on its board, as thick as it is
    usually laid, and thicker when there is more of it than the board takes. Seconds, °C, W/(m2 K)."""

    def __init__(self, calculation: Calculation, base: Composition, drawn: BallDrawing) -> None:
        way, fact_book = calculation.way, calculation.fact_book
        self._calculation, self._form = calculation, drawn.form
        self._base = base
        self.material = properties(fractions(base), 60.0)
        self._known: dict[tuple[float, float, Material], tuple[Array, Array]] = {}
        self.follows: tuple[EstimateId, ...] = ("counter_h", "room_c", *calculation.rows_of("heat.heart_done_c"))
        self._thickens, self._is_laid = "", False  # the fact that it is as thick as; whether it covers the board
        self.thick_mm = drawn.outer_mm if drawn.form == "parcel" else way.board_mm
        if drawn.form == "packet":
            self.thick_mm, self._thickens = fact_book.number("shape.thick_mm"), "shape.thick_mm"
        elif drawn.form != "parcel" and way.portions == "cooked":
            laid_mm = fact_book.number("mix.volume_ml") / calculation.likely("board_cm2") * 10.0
            if laid_mm > self.thick_mm:
                self.thick_mm, self._thickens, self._is_laid = laid_mm, calculation.weighed_by, True
                self.follows = (*self.follows, "board_cm2")
        thickens = (self._thickens, calculation.weighed_by)
        self.follows = (*self.follows, *dict.fromkeys(row for key in thickens for row in calculation.rows_of(key)))
        half_m = self.thick_mm / 2000.0 if drawn.form == "parcel" else self.thick_mm / 1000.0
        slow_s = half_m * 1150.0 * self.material.cp / calculation.likely("counter_h")  # its own slow time, and more
        self.times = _TIMES * max(3 * 3600.0, 2 * slow_s)

    def celsius(self, is_: Mapping[EstimateId, float]) -> tuple[Array, Array]:
        """Along `times`: its heart and its surface, with some estimates otherwise than likely."""
        calculation = self._calculation
        room_c = calculation.kitchen.room_c + is_.get("room_c", calculation.likely("room_c"))
        gap = calculation.fact_with("heat.heart_done_c", is_) - room_c
        thicker = calculation.fact_with(self._thickens, is_, over_likely=True) if self._thickens else 1.0
        if self._is_laid:
            board_cm2 = calculation.likely("board_cm2")
            thicker *= board_cm2 / is_.get("board_cm2", board_cm2)
        counter_h = is_.get("counter_h", calculation.likely("counter_h"))
        heart, surface = self._left(counter_h, thicker, self.material_with(is_))
        return room_c + gap * heart, room_c + gap * surface

    def material_with(self, is_: Mapping[EstimateId, float]) -> Material:
        """What it is made of, wetter where its grain took up more."""
        by = self._calculation.weighed_by
        more_g = self._calculation.fact_with(by, is_) - self._calculation.fact_book.number(by) if by else 0.0
        if not more_g:
            return self.material
        return properties(fractions(self._base.with_water(self._base.water + more_g)), 60.0)

    def _left(self, counter_h: float, thicker: float, material: Material) -> tuple[Array, Array]:
        """The shares of its warmth that are left within and at its surface."""
        key = (counter_h, thicker, material)
        if key not in self._known:
            thick_m = thicker * self.thick_mm / 1000.0
            if self._form == "parcel":
                body = conduction.sphere([(thick_m / 2, material)], counter_h)
            else:
                body = conduction.slab(thick_m, material, counter_h, counter_h)
            modes = DecayModes(body)
            left = modes.remaining(self.times)
            self._known[key] = left.max(axis=1), modes.surfaces(left)[1]
        return self._known[key]

    @property
    def origin(self) -> Origin:
        says = say("a ball of its weight across") if self._form == "parcel" else say("it lies thick")
        return leaf("way:parcel" if self._form == "parcel" else "way:board", says, round(self.thick_mm, 1), "mm")


def _board(calculation: Calculation, base: Composition, drawn: BallDrawing) -> Cooling:
    """A cooked mass on the board, or a parcel or packet out of its heat, until it can be handled and no longer."""
    fact_book, kitchen, way = calculation.fact_book, calculation.kitchen, calculation.way
    piece = _CoolingPiece(calculation, base, drawn)
    material, times = piece.material, piece.times
    core, top = piece.celsius({})
    begin_c, end_c = way.handle_c

    def ends_s(is_: Mapping[EstimateId, float]) -> float:
        """Seconds until its heart is too cold to be worked."""
        goal = max(end_c + is_["ends_c"], kitchen.room_c + is_["room_c"] + 2.0)
        return time_at_level(times, -piece.celsius(is_)[0], -goal) or float(times[-1])

    which: tuple[EstimateId, ...] = ("ends_c", *piece.follows)
    ends = ends_s({name: calculation.likely(name) for name in which})
    room = calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    of: Origins = ["heat.heart_done_c", room, piece.origin]
    begins = _first_touch(calculation, piece, of)
    says = (
        say("it is past its best to eat warm")
        if drawn.form in _EATEN
        else say("under this it stiffens and no longer seals")
    )
    enter_with_range(
        calculation,
        "rest.handle_until_min",
        say("the heart has fallen to {end_c}: {says}", end_c=calculation.degrees(end_c), says=says),
        lambda is_: max(ends_s(is_), begins) / 60,
        which,
        source=say("{solver}; the window a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE),
        of=of,
        both_ways=_BOTH_WAYS,
    )
    if calculation.follows(way.rolled_when) and "shape.sheet_thick_mm" in fact_book:
        _chilled(calculation, material, begin_c)
    _shaping(calculation, max(ends, begins) - begins)
    if drawn.form in _EATEN:
        says = say(
            "Open them under {begin_c}: hotter within than the leaf lets feel.", begin_c=calculation.degrees(begin_c)
        )
    else:
        says = say(
            "Work it until it is down to {end_c}: dusted hands from the first minutes, cooler it cracks.",
            end_c=calculation.degrees(end_c),
        )
    calculation.advise("cut", "look", says, 5)
    shown = times <= min(ends * 1.4 + 300.0, float(times[-1]))
    return unchecked_model(
        Cooling, curve=_cooling_curve(times[shown], core[shown], top[shown]), handle_c=begin_c, cut_c=None
    )


_EATEN = ("parcel", "packet")  # they are opened and eaten warm, not worked
_HAND_C, _SKIN_E = 33.0, 1400.0  # a hand, and how readily its skin takes heat up, J/(m2 K s^0.5)
# Against dusted hands: wet or oiled ones feel it sooner, gloves and tools later.
_HANDS_BEAR: dict[str, tuple[EstimateId, float]] = {
    "oil": ("hands_oil_c", -1.0),
    "wet": ("hands_wet_c", -1.0),
    "gloves": ("gloves_c", 1.0),
}


def _first_touch(calculation: Calculation, piece: _CoolingPiece, of: Origins) -> float:
    """Seconds until hands can take it: where its surface has fallen so far that skin that touches it bears it. What is
    snipped is not touched; a parcel is opened once its heart can be eaten.

    Skin and dough meet at a warmth between theirs, by how readily each gives heat up (two half-spaces in contact).
    """
    way, fact_book = calculation.way, calculation.fact_book
    how = "wet" if way.hands_salt_pct else calculation.sheet.school("dust")
    name, sign = _HANDS_BEAR.get(how, (None, 0.0))
    bears: tuple[EstimateId, ...] = ("touch_c", name) if name else ("touch_c",)
    key, source = (
        "rest.handle_from_min",
        say("{solver}; what hands bear a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE),
    )
    if way.form == "pull":
        says = say("oiled scissors go through at once; no hand need touch it")
        return fact_book.add(key, 0.0, says, source=source, of=of)

    def goal_c(is_: Mapping[EstimateId, float]) -> float:
        """How warm its surface may be for the hands; opened, how warm its heart."""
        if way.form in _EATEN:
            return way.handle_c[0]
        skin_c = is_["touch_c"] + (sign * is_[name] if name else 0.0)
        material = piece.material_with(is_)
        gives = math.sqrt(material.k * material.rho * material.cp)
        return _HAND_C + (skin_c - _HAND_C) * (_SKIN_E + gives) / gives

    def begins_min(is_: Mapping[EstimateId, float]) -> float:
        heart, surface = piece.celsius(is_)
        curve = heart if way.form in _EATEN else surface
        return (time_at_level(piece.times, -curve, -goal_c(is_)) or 0.0) / 60

    which = (*piece.follows, *(() if way.form in _EATEN else bears))
    likely_min = begins_min({each: calculation.likely(each) for each in which})
    if way.form in _EATEN:
        says = say("cool enough to open and to eat")
    else:
        says = say(
            "the surface is under {goals}: quick hands, well dusted or wet, bear it",
            goals=calculation.degrees(goal_c({each: calculation.likely(each) for each in which})),
        )
    if likely_min < _AT_ONCE_MIN:
        tender = {each: calculation.likely(each) for each in which} | {"touch_c": calculation.estimates["touch_c"].low}
        of = [*of, calculation.estimated("touch_c")]
        return fact_book.add(key, 0.0, says, source=source, of=of, low=0.0, high=begins_min(tender))
    # Some kitchens can take it at once: no time has a logarithm then, a few minutes more have.
    late = spread(
        lambda is_: begins_min(is_) + _SHIFT_MIN,
        calculation.estimates,
        which,
        both_ways=_BOTH_WAYS,
        together=calculation.kitchen.go_together,
    )
    assert late is not None
    # Of the time itself, which is less, each moves a larger share.
    more = late.likely / likely_min
    shares = tuple(replace(each, at_low=more * each.at_low, at_high=more * each.at_high) for each in late.shares)
    calculation.spreads[key] = replace(late, likely=likely_min, shares=shares)
    first, last = late.first - _SHIFT_MIN, late.latest - _SHIFT_MIN
    low = first if first >= _AT_ONCE_MIN else 0.0
    of = [*of, *(calculation.estimated(share.id) for share in late.shares if share.share >= WORTH_SHARE)]
    return 60.0 * fact_book.add(key, likely_min, says, source=source, of=of, low=low, high=last)


_AT_ONCE_MIN = 0.3
_SHIFT_MIN = 5.0
_BOTH_WAYS = 3  # hands, air and room: the others move it little


def _chilled(calculation: Calculation, material: Material, start_c: float) -> None:
    """A rolled sheet in the cold until it cuts: there is no window then, and no hurry."""
    kitchen, thick = calculation.kitchen, calculation.fact_book.number("shape.sheet_thick_mm")
    shelf_h = calculation.likely("shelf_h")
    modes = DecayModes(conduction.slab(thick / 1000.0, material, shelf_h, shelf_h))
    times = _TIMES * 3 * 3600.0
    left = modes.remaining(times).max(axis=1)

    def solve(is_: Mapping[EstimateId, float]) -> float:
        """A sheet so thin in still air cools as that takes its heat."""
        cold_c = kitchen.fridge_c + is_["fridge_c"]
        at = time_at_level(times, -(cold_c + (start_c - cold_c) * left), -is_["rolled_c"]) or float(times[-1])
        thicker = calculation.fact_with("shape.sheet_thick_mm", is_, over_likely=True)
        return at * thicker * shelf_h / is_["shelf_h"] / 60

    cuts = calculation.degrees(calculation.likely("rolled_c"))
    enter_with_range(
        calculation,
        "rest.chill_min",
        say("the rolled sheet has fallen to {cuts}: it cuts, and can be held", cuts=cuts),
        solve,
        ("shelf_h", "rolled_c", "fridge_c", *calculation.rows_of("shape.sheet_thick_mm")),
        source=f"{SOLVER}; {KITCHEN_ESTIMATE}",
        of=["shape.sheet_thick_mm", calculation.from_kitchen("fridge_c", "fridge", kitchen.fridge_c, "°C")],
    )


def _shaping(calculation: Calculation, window_s: float) -> None:
    """How long the hands need for all the pieces, against the window that the mass gives them."""
    way, fact_book = calculation.way, calculation.fact_book
    shaped = next((step for step in way.steps if step.id in SHAPED_AT and _is_called_for(calculation, step)), None)
    if shaped is None or "shape.pieces" not in fact_book:
        return
    pieces, cooks = fact_book.number("shape.pieces"), calculation.kitchen.cooks
    hands: EstimateId = "hand_work"
    needs = enter_with_range(
        calculation,
        "rest.shaping_min",
        say("a little to begin with, and a little for each piece, over the cooks"),
        scaled_by_estimates((shaped.minutes.fixed + shaped.minutes.per_piece * pieces) / cooks, hands),
        (hands,),
        source=KITCHEN_ESTIMATE,
        of=["shape.pieces", calculation.from_kitchen("cooks", "cooks", cooks)],
    )
    if needs > window_s / 60 and not calculation.follows(way.rolled_when):
        says = say(
            "{pieces:.0f} pieces want {needs:.0f} minutes; it stays workable for {window_s:.0f}. Keep half of it covered and warm.",
            pieces=pieces,
            needs=needs,
            window_s=window_s / 60,
        )
        calculation.advise("cut", "look", says, 2)


def _is_called_for(calculation: Calculation, step: Step) -> bool:
    return all(calculation.schools.get(choice) in schools for choice, schools in step.when.items())


def _setting(calculation: Calculation) -> tuple[str, Origin]:
    """How it sets: as the cook chooses where the way has a choice; a sheet in a bag goes cold until it is rigid."""
    for chosen in calculation.school("rest"):
        return calculation.asked("rest"), chosen
    return "overnight", leaf("way:rest", say("a sheet in its bag"), say("a night in the cold"))


class _CoolingTray:
    """What lies in a tin as it cools: on the counter, then on a shelf of the fridge. Seconds, °C, W/(m2 K)."""

    def __init__(self, calculation: Calculation, base: Composition, drawn: TinDrawing) -> None:
        self.kitchen = calculation.kitchen
        self.start_c = calculation.fact_book.number("heat.heart_done_c")
        self._tin, self._lining = drawn.tin, calculation.sheet.vessel.lining
        self._material = properties(fractions(base), 60.0)
        self._depth = drawn.depth_mm / 1000.0
        self._known: dict[tuple[float, float], tuple[Array, Array]] = {}
        self.follows = calculation.rows_of(calculation.weighed_by)
        self._calculation = calculation
        self.times = _TIMES * 12 * 3600.0

    def deeper(self, is_: Mapping[EstimateId, float]) -> float:
        """How many times as deep it stands, with some estimates otherwise than likely."""
        return self._calculation.fact_with(self._calculation.weighed_by, is_, over_likely=True) if self.follows else 1.0

    def left(self, h: float, deeper: float = 1.0) -> tuple[Array, Array]:
        """The shares of warmth left at the heart and on top, where so much takes its heat."""
        if (h, deeper) not in self._known:
            upright = DecayModes(
                conduction.slab(deeper * self._depth, self._material, wall_h(self._tin, h, self._lining), h, _CELLS)
            )
            body = conduction.cylinder(
                self._tin.least_mm / 2000.0, self._material, wall_h(self._tin, h, self._lining), _CELLS
            )
            across = DecayModes.centre(DecayModes(body).remaining(self.times), body)
            left = upright.remaining(self.times)
            self._known[h, deeper] = left.max(axis=1) * across, upright.surfaces(left)[1] * across
        return self._known[h, deeper]

    def when_c(self, heart: Array, celsius: float) -> float | None:
        """Seconds until the heart has fallen to that."""
        return time_at_level(self.times, -heart, -celsius)

    def counter_min(self, is_: Mapping[EstimateId, float]) -> float:
        """Minutes until it cuts clean, left on the counter."""
        room_c = self.kitchen.room_c + is_["room_c"]
        goal = max(CUT_C["cool"] + is_["cuts_c"], room_c + 4.0)
        heart = room_c + (self.start_c - room_c) * self.left(is_["counter_h"], self.deeper(is_))[0]
        return (self.when_c(heart, goal) or float(self.times[-1])) / 60

    def fridge_min(self, is_: Mapping[EstimateId, float]) -> float:
        """Minutes until it cuts clean, on the counter first and then in the fridge."""
        room_c, cold_c = self.kitchen.room_c + is_["room_c"], self.kitchen.fridge_c + is_["fridge_c"]
        heart = room_c + (self.start_c - room_c) * self.left(is_["counter_h"], self.deeper(is_))[0]
        goes = self.when_c(heart, TO_FRIDGE_C) or 0.0
        chills = cold_c + (TO_FRIDGE_C - cold_c) * self.left(is_["shelf_h"], self.deeper(is_))[0]
        return (goes + (self.when_c(chills, CUT_C["chill"] + is_["cuts_c"]) or float(self.times[-1]))) / 60


def _tin(calculation: Calculation, base: Composition, drawn: TinDrawing) -> Cooling:
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    school, chosen = _setting(calculation)
    tray = _CoolingTray(calculation, base, drawn)
    times, room_c = tray.times, kitchen.room_c + calculation.likely("room_c")
    core, top = (room_c + (tray.start_c - room_c) * left for left in tray.left(calculation.likely("counter_h")))
    room = calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    fact_book.add(
        "rest.handle_from_min",
        (tray.when_c(core, HANDLE_C) or 0.0) / 60,
        say("the heart has fallen to {handle_c} on the counter", handle_c=calculation.degrees(HANDLE_C)),
        source=SOLVER,
        of=["shape.depth_mm", "heat.heart_done_c", room],
    )
    moved = tray.when_c(core, TO_FRIDGE_C) or 0.0
    cut_min = _enter_cut(calculation, tray, school, chosen, room, moved)
    cut_c = max(CUT_C[school], kitchen.room_c + 4.0) if school == "cool" else CUT_C[school]
    fact_book.add(
        "rest.cut_at_c",
        cut_c,
        say("starch has set enough to part from an oiled knife"),
        source=KITCHEN_ESTIMATE,
        of=[chosen],
    )
    says = say(
        "Nothing cuts clean hot. Wait until the heart is {cut_c}, and oil the knife.", cut_c=calculation.degrees(cut_c)
    )
    calculation.advise("cut", "look", says, 5)
    if school != "cool":
        cold_left, cold_top = tray.left(calculation.likely("shelf_h"))
        before, top_then = times < moved, float(np.interp(moved, times, top))
        chilled = kitchen.fridge_c + (TO_FRIDGE_C - kitchen.fridge_c) * cold_left
        core = np.concatenate((core[before], chilled))
        top = np.concatenate((top[before], kitchen.fridge_c + (top_then - kitchen.fridge_c) * cold_top / cold_top[0]))
        times = np.concatenate((times[before], moved + times))
    shown = times <= min(cut_min * 90.0, float(times[-1]))
    return unchecked_model(
        Cooling, curve=_cooling_curve(times[shown], core[shown], top[shown]), handle_c=HANDLE_C, cut_c=cut_c
    )


def _enter_cut(
    calculation: Calculation, tray: _CoolingTray, school: str, chosen: Origin, room: Origin, moved: float
) -> float:
    """When it cuts clean on the counter, and by the fridge; by the school followed, in minutes. `moved` in seconds."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    counter_c = max(CUT_C["cool"], kitchen.room_c + 4.0)
    counter_says = say("the heart has fallen to {counter_c} on the counter", counter_c=calculation.degrees(counter_c))
    fridge_says = say(
        "{moved:.0f} min on the counter, then in the fridge until the heart is {chill}",
        moved=moved / 60,
        chill=calculation.degrees(CUT_C["chill"]),
    )
    fridge = calculation.from_kitchen("fridge_c", "fridge", kitchen.fridge_c, "°C")
    on_counter: tuple[EstimateId, ...] = ("counter_h", "cuts_c", "room_c")
    by_fridge: tuple[EstimateId, ...] = ("counter_h", "shelf_h", "cuts_c", "room_c", "fridge_c")
    for key, words, solve, hangs, place in (
        ("rest.cut_counter_min", counter_says, tray.counter_min, on_counter, room),
        ("rest.cut_fridge_min", fridge_says, tray.fridge_min, by_fridge, fridge),
    ):
        of: Origins = ["shape.depth_mm", "heat.heart_done_c", room, place]
        which = (*hangs, *tray.follows)
        enter_with_range(calculation, key, words, solve, which, source=SOLVER, of=of, both_ways=1)
    by = "rest.cut_counter_min" if school == "cool" else "rest.cut_fridge_min"
    fact = fact_book.facts[by]
    low, cut_min, high = (float(end or fact_book.number(by)) for end in (fact.low, fact_book.number(by), fact.high))
    says = counter_says if school == "cool" else fridge_says
    if school == "overnight":
        low, cut_min, high = (max(end, OVERNIGHT_MIN) for end in (low, cut_min, high))
        says = say("a night to set, covered")
    fact_book.add("rest.cut_after_min", cut_min, says, source=SOLVER, of=[by, chosen], low=low, high=high)
    return cut_min


def _cooling_curve(times: Array, core: Array, top: Array) -> TemperatureCurve:
    return unchecked_model(
        TemperatureCurve,
        minutes=tuple(np.round(times / 60, 2).tolist()),
        core_c=tuple(np.round(core, 2).tolist()),
        surface_c=tuple(np.round(top, 2).tolist()),
    )


def _ball(
    calculation: Calculation, base: Composition, filling: Composition | None, drawn: BallDrawing
) -> Cooling | None:
    """A ball ladled out: eaten from when its heart can be bitten, until its skin is stiff."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    if filling and drawn.core_mm > 0 and calculation.way.step("freeze-filling"):
        _filling(calculation, filling, drawn.core_mm / 1000.0)
    if fact_book.number("heat.heart_done_c") < STIFF_C:
        heart = calculation.degrees(fact_book.number("heat.heart_done_c"))
        says = say(
            "The skin is hot, but the middle is at {heart}. Kemble cannot say how long to let it stand.", heart=heart
        )
        calculation.advise("cut", "look", says, 2)
        return None
    dough = properties(fractions(base), 60.0)
    outer, inner = drawn.outer_mm / 2000.0, drawn.core_mm / 2000.0
    shells = [(outer, dough)]
    if filling and inner > 0:
        shells = [(inner, properties(fractions(filling), 60.0)), (outer, dough)]
    body = conduction.sphere(shells, calculation.likely("counter_h"))
    modes = DecayModes(body)
    times = 5400.0 * _EVEN
    left = modes.remaining(times)
    start = fact_book.number("heat.heart_done_c")
    gap = start - kitchen.room_c
    core = kitchen.room_c + gap * DecayModes.centre(left, body)
    skin = kitchen.room_c + gap * modes.surfaces(left)[1]
    safe = time_at_level(times, -core, -BITE_C) or 0.0
    stiff = time_at_level(times, -skin, -STIFF_C) or float(times[-1])
    room = calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    of: Origins = ["shape.diameter_mm", "heat.heart_done_c", room]
    fact_book.add(
        "rest.handle_from_min",
        safe / 60,
        say("the heart has fallen to {bite_c} in the bowl", bite_c=calculation.degrees(BITE_C)),
        source=SOLVER,
        of=of,
    )
    fact_book.add(
        "rest.handle_until_min",
        max(stiff, safe) / 60,
        say("the skin has fallen to {stiff_c} and stiffens", stiff_c=calculation.degrees(STIFF_C)),
        source=SOLVER,
        of=of,
    )
    calculation.advise("cut", "look", say("Let a bowl stand two minutes: the middle is hotter than the skin."), 5)
    return unchecked_model(Cooling, curve=_cooling_curve(times, core, skin), handle_c=BITE_C, cut_c=None)


def _filling(calculation: Calculation, filling: Composition, diameter: float) -> None:
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    shelf = calculation.from_kitchen("freezer_c", say("freezer shelf"), kitchen.freezer_c, "°C")

    def hard_min(is_: Mapping[EstimateId, float]) -> float:
        shelf_c = kitchen.freezer_c + is_["freezer_c"]
        return freeze_hard_s(filling, diameter_m=diameter, start_c=12.0, shelf_c=shelf_c, h=is_["shelf_h"]) / 60

    enter_with_range(
        calculation,
        "rest.freeze_filling_min",
        say("its ice and fat set, then it follows the shelf"),
        hard_min,
        ("shelf_h", "freezer_c"),
        source=say("Plank's equation for a sphere, with sensible heat"),
        of=["shape.core_mm", shelf],
    )

    def soft_min(is_: Mapping[EstimateId, float]) -> float:
        return (
            soften_s(
                filling,
                diameter_m=diameter,
                frozen_c=min(kitchen.freezer_c + is_["freezer_c"], is_["soft_c"] - 0.5),
                soft_c=is_["soft_c"],
                room_c=kitchen.room_c + is_["room_c"],
                h=is_["counter_h"],
            )
            / 60
        )

    room = calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C")
    soft = enter_with_range(
        calculation,
        "rest.soften_min",
        say("its outside has warmed to {likely}", likely=calculation.degrees(calculation.likely("soft_c"))),
        soft_min,
        ("counter_h", "soft_c", "freezer_c", "room_c"),
        source=say("lumped warming; {kitchen_estimate}", kitchen_estimate=KITCHEN_ESTIMATE),
        of=["shape.core_mm", shelf, room],
    )
    wrap = calculation.way.step("wrap")
    if wrap is None:
        return
    each = wrap.minutes.per_piece
    fact_book.add(
        "rest.take_out",
        max(1.0, float(int(soft / each))),
        say("as many as are wrapped before the last one softens"),
        source=KITCHEN_ESTIMATE,
        of=["rest.soften_min"],
    )

"""Wrapped: parcels of grain boiled under a lid, flat packets in steam; heat comes through the leaf, and stays a while."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import conduction
from kemble.core.physics.conduction import Array, DecayModes, following, time_at_level
from kemble.core.physics.doneness import COOK_Z_C, HOT_C, cook_value_min, grain_needs_min
from kemble.core.physics.soaking import most_pct
from kemble.core.physics.steamer import loss_g_per_min
from kemble.core.physics.thermal import LATENT_STEAM, Material, fractions, properties
from kemble.core.sentences import say
from kemble.core.sheet.document import Wrapped
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import SOLVER, drawn_curve
from kemble.core.stations.heat.heat_stages import (
    heat_stage_results,
    stages_of_sheet,
    surroundings_c,
    window_with_stages,
)
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.heat.steam import STEAM, steam_stages
from kemble.core.stations.heat.steamer import SteamerDrawing, lifted_lid, steamer
from kemble.core.stations.shape.pieces import BallDrawing
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range

# Coefficients from the water or the steam to the grain, through leaf, foil and the air between, in W/(m2 K); how far
# they stray is `leaf_h` in the table of estimates.
LEAF_H = 320.0
# Of packets: a leaf alone, foil alone, or leaf and foil.
PACKET_H: dict[Wrapped, float] = {"leaf": 220.0, "foil": 110.0, "leaf-foil": 75.0}
_PARCEL: tuple[EstimateId, ...] = ("tight", "grain_needs", "leaf_h", "conductivity", "size")
_PACKET: tuple[EstimateId, ...] = ("ground_min", "leaf_h", "size", "conductivity", "leak_ml_s", "burner")
_SCALED: tuple[EstimateId, EstimateId, EstimateId] = ("size", "leaf_h", "conductivity")
_AROUND = frozenset({"leak_ml_s", "burner", "lid_w", *("tight", "grain_needs", "ground_min")})  # ... of the same body
_CELLS = 28  # twice as many change no time by 1 %
_AFTERWARDS = frozenset({"tight", "grain_needs", "ground_min"})  # what is asked of the same curves
_TIER_SHARE = 0.75  # of a tier that packets may cover, so that steam comes past
_POT_SHARE = 0.6  # of its water's volume that parcels may have and still lie under
_UNDER = 0.15  # of the pot's water gone, and the top parcels look out
_SPAN = 3.2  # of its own slow time that is looked at, and the cook value it needs
_SPARE = 5.0  # °C: what is put in is this much warmer or colder than told


class WrappedDrawing(AnswerModel):
    """`thick_mm` is across the shortest way: of the packet, or of a ball as heavy as the parcel."""

    kind: Literal["wrapped"] = "wrapped"
    form: Literal["parcel", "packet"]
    thick_mm: float
    side_mm: float
    steamer: SteamerDrawing | None  # of packets; parcels lie in the pot


@dataclass(frozen=True, slots=True)
class _WrappedPiece:
    """A packet as a flat square, or a parcel as a ball of its volume. m, °C, W/(m2 K)."""

    thick: float
    side: float | None  # of a packet; None for a parcel
    material: Material
    h: float
    start_c: float

    def left(self, times: Array) -> tuple[Array, Array]:
        """The share of the first difference that is left at the heart and under the leaf: the product of the bodies."""
        if self.side is None:
            body = conduction.sphere([(self.thick / 2, self.material)], self.h, _CELLS)
            modes = DecayModes(body)
            remains = modes.remaining(times)
            return DecayModes.centre(remains, body), modes.surfaces(remains)[1]
        flat = DecayModes(conduction.slab(self.thick, self.material, self.h, self.h, _CELLS))
        edge = (
            DecayModes(conduction.slab(self.side, self.material, self.h, self.h, _CELLS)).remaining(times).max(axis=1)
        )
        remains = flat.remaining(times)
        # It is square: both its edges are alike.
        return remains.max(axis=1) * edge**2, flat.surfaces(remains)[1] * edge**2

    def curves(self, times: Array, around: float | Array) -> tuple[Array, Array]:
        """The heart and the outside under the leaf, in °C, in what is `surroundings_c` it."""
        core, outside = self.left(times)
        return following(times, core, around, self.start_c), following(times, outside, around, self.start_c)

    @property
    def slow_s(self) -> float:
        """Its own slow time: half its thickness squared over the diffusivity, and what the leaf adds."""
        half = self.thick / 2
        return half**2 / self.material.alpha * (0.4 + self.material.k / (self.h * half))


def wrapped(
    calculation: Calculation, base: Composition, drawn: BallDrawing, boil_c: float
) -> OwnHeatResult[WrappedDrawing]:
    """When the heart has had its time at heat, and what would change that."""
    fact_book, factor = calculation.fact_book, calculation.kitchen.time_factor
    parcel = drawn.form == "parcel"
    thick_mm = drawn.outer_mm if parcel else fact_book.number("shape.thick_mm")
    likely = _likely_piece(calculation, base, thick_mm, parcel=parcel)
    needs = _needs_at(calculation, parcel, {})
    # The same minutes at a lower boil are worth less.
    slower = 10.0 ** ((100.0 - boil_c) / COOK_Z_C)
    times = np.linspace(0.0, 1.0, 200) * (_SPAN * likely.slow_s + 2.6 * needs * slower * 60.0)
    stages = stages_of_sheet(calculation)
    hot_c = (
        surroundings_c(calculation, stages, times, boil_c, calculation.pot.water_ml)
        if parcel
        else surroundings_c(calculation, stages, times, _steam_c(calculation, {}), calculation.steamer.full_ml)
    )

    def until(value: Array, need: float) -> float:
        """Minutes on the physics' clock until so much time at heat has been had."""
        at = time_at_level(times, value, need)
        return (float(times[-1]) if at is None else at) / 60.0

    def done(piece: _WrappedPiece, need: float, hot: float | Array) -> float:
        core, _ = piece.curves(times, hot)
        return until(cook_value_min(times, core), need)

    left_inside, left_outside = likely.left(times)
    core, outside = (following(times, item, hot_c, likely.start_c) for item in (left_inside, left_outside))
    value = cook_value_min(times, core)

    def thicker(of: Mapping[EstimateId, float]) -> float:
        return 1.0 if parcel else calculation.fact_with("shape.thick_mm", of, over_likely=True)

    def solve(of: Mapping[EstimateId, float]) -> float:
        need = _needs_at(calculation, parcel, of)
        moved = {name for name, value in of.items() if value != calculation.likely(name)}
        if moved <= _AFTERWARDS:
            return until(value, need)
        hot = hot_c if parcel else _steam_c(calculation, of)
        if moved <= _AROUND:
            return until(cook_value_min(times, following(times, left_inside, hot, likely.start_c)), need)
        size, leaf, conducts = (of.get(name, calculation.likely(name)) / calculation.likely(name) for name in _SCALED)
        m = likely.material
        thick = thicker(of)
        wrapped_piece = replace(
            likely,
            thick=likely.thick * size * thick,
            side=likely.side and likely.side / math.sqrt(thick),  # so much as before, folded thicker
            h=likely.h * leaf,
            material=replace(m, k=m.k * conducts),
        )
        return done(wrapped_piece, need, hot)

    spread = enter_heat_window(
        calculation, solve, _PARCEL if parcel else (*_PACKET, *calculation.rows_of("shape.thick_mm"))
    )
    assert spread is not None  # it is told at the end of what is looked at, at the latest
    alone = spread.likely
    window = window_with_stages(stages, (spread.first, spread.likely, spread.latest))
    in_stages = heat_stage_results(calculation, stages, "heat", window[1])
    minutes = times / 60.0 * factor
    _enter_wrapped(calculation, likely, window, thick_mm, needs)
    hot = time_at_level(minutes, core, HOT_C)
    _enter_heart(calculation, hot, float(np.interp(window[1], minutes, core)))
    for key, other, says in (
        ("heat.thicker_min", replace(likely, thick=likely.thick + 0.005), say("half a centimetre thicker")),
        ("heat.colder_min", replace(likely, start_c=5.0), say("straight from the fridge")),
    ):
        more = done(other, needs, hot_c) * factor - alone
        fact_book.add(key, more, says, source=SOLVER, of=["heat.done_min"])
    _advise_on_wrapped(calculation, parcel, hot, window[1])
    _enter_loads(calculation, likely, thick_mm)
    if parcel:
        _enter_pot(calculation, window[2])
    shown = minutes <= 1.12 * window[2]
    curve = drawn_curve(minutes[shown], core[shown], outside[shown])
    drawing = unchecked_model(
        WrappedDrawing,
        kind="wrapped",
        form="parcel" if parcel else "packet",
        thick_mm=thick_mm,
        side_mm=thick_mm if parcel else fact_book.number("shape.side_mm"),
        steamer=None if parcel else steamer(calculation),
    )
    return OwnHeatResult(drawing, curve, in_stages)


def _likely_piece(calculation: Calculation, base: Composition, thick_mm: float, *, parcel: bool) -> _WrappedPiece:
    """The parcel or packet as it is most likely."""
    material = properties(fractions(base), 70.0)
    return _WrappedPiece(
        thick=thick_mm / 1000.0 * calculation.likely("size"),
        side=None if parcel else calculation.fact_book.number("shape.side_mm") / 1000.0,
        material=replace(material, k=material.k * calculation.likely("conductivity")),
        h=(LEAF_H if parcel else PACKET_H[calculation.sheet.wrap.outer or "leaf-foil"]) * calculation.likely("leaf_h"),
        start_c=calculation.sheet.start.dough_c,
    )


def _enter_heart(calculation: Calculation, hot_min: float | None, done_c: float) -> None:
    """When the heart is hot, if it comes to that, and how hot it is at the likely time."""
    if hot_min is not None:
        says = say("the heart reaches {hot_c}", hot_c=calculation.degrees(HOT_C))
        calculation.fact_book.add(
            "heat.core_hot_min", hot_min, says, source=SOLVER, of=["heat.depth_mm", "heat.boil_c"]
        )
    says = say("the heart at the likely time")
    calculation.fact_book.add("heat.heart_done_c", done_c, says, source=SOLVER, of=["heat.done_min"])


def _enter_loads(calculation: Calculation, likely: _WrappedPiece, thick_mm: float) -> None:
    """Packets lie flat, side by side, on each tier; parcels lie under the water."""
    pieces = int(calculation.fact_book.number("shape.pieces"))
    if likely.side is None:
        at_once = _POT_SHARE * calculation.pot.water_ml / (math.pi * (thick_mm / 10) ** 3 / 6)
        room = calculation.from_kitchen("pot.water_ml", say("water in the pot"), calculation.pot.water_ml, "ml")
        loads(calculation, pieces, math.floor(at_once), "parcels", say("what lies under the water"), room)
        return
    across, tiers = calculation.steamer.diameter_mm, calculation.steamer.tiers
    each = math.floor(_TIER_SHARE * math.pi * across**2 / 4 / (likely.side * 1000) ** 2)
    room = calculation.from_kitchen("steamer.tiers", say("tiers of {across}", across=calculation.length(across)), tiers)
    loads(calculation, pieces, max(1, each) * tiers, "packets", say("tiers, with room for the steam"), room)


def _enter_pot(calculation: Calculation, latest: float) -> None:
    """What boils off under the lid at low heat, and when the parcels begin to look out."""
    fact_book, kitchen = calculation.fact_book, calculation.kitchen
    lit = [stage.level for stage in stages_of_sheet(calculation) if stage.level and stage.level != "off"]
    level = lit[-1] if lit else "low"
    net_w = kitchen.burner.net_w(level)
    rate = loss_g_per_min(net_w * calculation.likely("burner"))
    low = calculation.from_kitchen(f"burner.{level}_w", say("net power at {level} heat", level=level), net_w, "W")
    says = say("net power over {mj:.3f} MJ for each kilogram", mj=LATENT_STEAM / 1e6)
    fact_book.add("heat.water_loss_g_per_min", rate, says, source=say("heat of evaporation"), of=[low])
    lifted_lid(calculation, calculation.pot.diameter_mm, net_w, low)
    pot = calculation.from_kitchen("pot.water_ml", say("water in the pot"), calculation.pot.water_ml, "ml")
    fact_book.add(
        "heat.water_ml", calculation.pot.water_ml, say("as much as the pot holds"), source="kitchen", of=[pot]
    )
    at = _UNDER * calculation.pot.water_ml / rate
    if at < latest:
        burner: EstimateId = "burner"
        enter_with_range(
            calculation,
            "heat.top_up_at_min",
            say("{under:.0%} of the water gone: the top parcels look out of it", under=_UNDER),
            lambda is_: at * calculation.likely(burner) / is_[burner],
            (burner,),
            source=KITCHEN_ESTIMATE,
            of=["heat.water_ml", "heat.water_loss_g_per_min"],
        )
        fact_book.add(
            "heat.top_up_ml",
            _UNDER * calculation.pot.water_ml,
            say("what boiled off, each time"),
            source=say("heat of evaporation"),
            of=["heat.top_up_at_min"],
        )


def _needs_at(calculation: Calculation, parcel: bool, of: Mapping[EstimateId, float]) -> float:
    """Minutes at 100 °C that the heart needs. A parcel lies in water: its grain drinks while it cooks, so that a short
    soak costs little."""

    def is_(name: EstimateId) -> float:
        return of.get(name, calculation.likely(name))

    if not parcel:
        return is_("ground_min")
    most = most_pct(calculation.sheet.grain.soak_c)
    needs = grain_needs_min(calculation.fact_book.number("grain.uptake_pct"), most, in_water=True)
    return is_("tight") * is_("grain_needs") * needs


def _steam_c(calculation: Calculation, of: Mapping[EstimateId, float]) -> float:
    """°C of the steam round packets, which take little of it."""
    steam = [
        steam_supply
        for _, steam_supply in steam_stages(calculation, **{n: v for n, v in of.items() if n in STEAM})
        if steam_supply.net_w > 0
    ]
    return steam[-1].dew_c() if steam else calculation.boil_c


def _enter_wrapped(
    calculation: Calculation, likely: _WrappedPiece, window: tuple[float, float, float], thick_mm: float, needs: float
) -> None:
    fact_book, parcel = calculation.fact_book, likely.side is None
    first, done, latest = window
    size = "shape.diameter_mm" if parcel else "shape.thick_mm"
    of: Origins = [
        size,
        "heat.boil_c",
        "heat.needs_min",
        calculation.from_sheet("start.dough_c", say("goes in at"), likely.start_c, "°C"),
        calculation.from_kitchen("time_factor", say("this kitchen's time factor"), calculation.kitchen.time_factor),
    ]
    fact_book.add(
        "heat.needs_min",
        needs,
        say("grain soaked so long, taking its water through the leaf")
        if parcel
        else say("ground, and stirred until thick before"),
        source=KITCHEN_ESTIMATE,
        of=["grain.uptake_pct"],
    )
    fact_book.add("heat.depth_mm", thick_mm / 2, say("from the leaf to the heart"), source=GEOMETRY, of=[size])
    source = say("{solver}; time at heat a {kitchen_estimate}", solver=SOLVER, kitchen_estimate=KITCHEN_ESTIMATE)
    fact_book.add("heat.first_check_min", first, say("one in twenty is done by then"), source=source, of=of)
    says = say("the heart has had its time at heat: soft, with no white in it")
    fact_book.add("heat.done_min", done, says, source=source, of=of, low=first, high=latest)
    fact_book.add("heat.latest_min", latest, say("nineteen in twenty are done by then"), source=source, of=of)


def _advise_on_wrapped(calculation: Calculation, parcel: bool, hot: float | None, done: float) -> None:
    if hot is not None and done > hot + 10:
        says = say(
            "Hot to the heart at {hot:.0f} minutes, but not yet soft: grain wants time at heat as well.", hot=hot
        )
        calculation.advise("heat", "look", says, 4)
    if parcel:
        says = say("A plate on top keeps them under water; top up with boiling water, and leave the lid on.")
    else:
        says = say("Lay them flat with room to swell; seams up, lid in a cloth.")
    calculation.advise("heat", "before", says, 5)
    if parcel and not math.isclose(calculation.sheet.grain.soak_min, 0.0) and calculation.sheet.grain.soak_min < 60:
        calculation.advise("heat", "look", say("Hardly soaked: cut one open before you lift the rest out."), 3)

"""Whole grain in its heat: loose in the steamer, under a lid, or in a rice cooker. It needs heat, and time at heat."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kemble.core.facts.fact import GEOMETRY, KITCHEN_ESTIMATE, Origins
from kemble.core.facts.unchecked import unchecked_model
from kemble.core.kitchen.document import StageLevel
from kemble.core.kitchen.estimates import EstimateId
from kemble.core.kitchen.larder import Composition
from kemble.core.physics.conduction import Array
from kemble.core.physics.doneness import COOK_Z_C, cook_value_min, grain_needs_min
from kemble.core.physics.soaking import most_pct
from kemble.core.physics.steamer import SteamerStage
from kemble.core.physics.steaming import SteamSupply
from kemble.core.physics.thermal import LATENT_STEAM, fractions, properties
from kemble.core.physics.time_spread import Solve, spread
from kemble.core.sentences import Words, say
from kemble.core.sheet.document import HeatStage
from kemble.core.stations.calculation import AnswerModel, Calculation
from kemble.core.stations.heat.core_curve import drawn_curve
from kemble.core.stations.heat.heat_stages import (
    Heats,
    HeatStageResult,
    heat_stage_results,
    shut_cools_s,
    stages_of_sheet,
    steamer_stages,
    window_with_stages,
)
from kemble.core.stations.heat.loads import loads
from kemble.core.stations.heat.own_heat_result import OwnHeatResult
from kemble.core.stations.heat.steam import STEAM, steam_stages
from kemble.core.stations.heat.steamer import SteamerDrawing, lifted_lid, steamer
from kemble.core.stations.time_windows import enter_heat_window, enter_with_range

How = Literal["steam", "lid", "cooker"]
SOURCE = f"energy balance and cook value; time at heat a {KITCHEN_ESTIMATE}"
STAND_MIN = 10.0  # lid shut, heat off
_POINTS = 200
_FRONT_S = 60.0  # steam warms the grains it has come to within that: of the curve, not of when they are done
_LONGEST_S, _HALVINGS = 3 * 3600.0, 24


_PHASES: tuple[tuple[str, str, StageLevel], ...] = (
    ("to the boil", "High heat, lid on, until steam comes out at the lid.", "high"),
    ("lowest flame", "Turn it down as low as it goes. The lid stays shut.", "low"),
    ("off, lid shut", "Off the heat: it takes up the last of the water and comes off the bottom.", "off"),
)


class HeatPhase(AnswerModel):
    """One stretch of the heat, in minutes."""

    name: Words
    minutes: float


class GrainHeatDrawing(AnswerModel):
    """`bed_mm` is how deep the grain lies in a steamer's basket, or it and its water in the pot `across_mm` wide."""

    kind: Literal["grain"] = "grain"
    how: How
    phases: tuple[HeatPhase, ...]
    bed_mm: float
    across_mm: float
    steamer: SteamerDrawing | None


@dataclass(frozen=True, slots=True)
class _GrainPot:
    """Grain (and its water) in a heat. kg, J/(kg K), °C, W, m2; `needs` in minutes at 100 °C."""

    kg: float
    cp: float
    start_c: float
    boil_c: float
    room_c: float
    power_w: float
    open_m2: float
    needs: float
    how: How
    drinks_min: float  # the least it is simmered, to drink what was poured on
    stand_h: float  # W/(m2 K) from the shut pot to the room
    gently_min: float = 0.0  # a cooker that warms gently first
    stages: tuple[SteamerStage, ...] = ()  # under a lid, where the sheet says them; the last goes on until it is done

    @property
    def warm_s(self) -> float:
        """Until all of it boils, or the steam has come through."""
        return self.kg * self.cp * (self.boil_c - self.start_c) / self.power_w

    def curve(self, simmer_s: float) -> tuple[Array, Array]:
        """Seconds, and °C where it is slowest: the top of a steamed bed, all of a pot."""
        if self.stages:
            return self._staged(simmer_s)
        times = np.linspace(0.0, self.warm_s + simmer_s + STAND_MIN * 60.0, _POINTS)
        gap = self.boil_c - self.start_c
        if self.how == "steam":
            # Steam goes up as a front: the top stays cold until all below is hot.
            since = np.clip((times - self.warm_s) / _FRONT_S + 1.0, 0.0, 1.0)
            return times, self.start_c + gap * since
        rising = self.start_c + gap * np.minimum(1.0, times / self.warm_s)
        standing = np.maximum(0.0, times - self.warm_s - simmer_s)
        cooling = np.exp(-standing / self._cools_s)
        result: Array = np.where(standing > 0, self.room_c + (self.boil_c - self.room_c) * cooling, rising)
        return times, result

    @property
    def _cools_s(self) -> float:
        return shut_cools_s(self.stand_h, self.kg * self.cp, 2 * self.open_m2)

    def _staged(self, longer_s: float) -> tuple[Array, Array]:
        """Seconds and °C through the stages, the open one (of no minutes) for `longer_s`."""
        seconds = [longer_s if math.isinf(stage.minutes) else 60.0 * stage.minutes for stage in self.stages]
        times, celsius, at, now = [np.zeros(1)], [np.array([self.start_c])], 0.0, self.start_c
        for stage, lasts in zip(self.stages, seconds, strict=True):
            since = np.linspace(0.0, lasts, _POINTS // len(seconds) + 2)[1:]
            if stage.net_w > 0:
                hotter = np.minimum(self.boil_c, now + stage.net_w * since / (self.kg * self.cp))
            else:
                hotter = self.room_c + (now - self.room_c) * np.exp(-since / self._cools_s)
            times.append(at + since)
            celsius.append(hotter)
            at, now = at + lasts, float(hotter[-1])
        return np.concatenate(times), np.concatenate(celsius)

    def simmer_s(self) -> float:
        """Seconds at the boil until it has had what it needs, the stand counted in."""
        worth = float(10.0 ** ((self.boil_c - 100.0) / COOK_Z_C))  # of a minute at this boil
        if self.how == "steam":
            return 60.0 * self.needs / worth
        if self.stages:
            return self._longer_s()
        times, celsius = self.curve(0.0)
        beside = float(cook_value_min(times, celsius)[-1])
        return 60.0 * max(self.drinks_min, (self.needs - beside) / worth)

    def _longer_s(self) -> float:
        """Seconds that the open stage lasts, so that all of them together give what is needed; bisected."""
        least, most = 0.0, _LONGEST_S
        for _ in range(_HALVINGS):
            middle = (least + most) / 2
            worth = float(cook_value_min(*self._staged(middle))[-1])
            least, most = (least, middle) if worth >= self.needs else (middle, most)
        return most

    def minutes(self) -> float:
        if self.stages:
            return float(self._staged(self._longer_s())[0][-1]) / 60.0
        stand = 0.0 if self.how == "steam" else STAND_MIN
        return (self.warm_s + self.simmer_s()) / 60.0 + stand + self.gently_min


def grain_heat(calculation: Calculation, pot: Composition, boil_c: float, how: How) -> OwnHeatResult[GrainHeatDrawing]:
    """The way's own heat, for a way whose grain is all that is cooked: every heat fact, and the drawing."""
    fact_book, factor = calculation.fact_book, calculation.kitchen.time_factor
    needs = _needs(calculation, how, 1.0)
    likely = _pot(calculation, pot, boil_c, how, needs)
    said = stages_of_sheet(calculation) if calculation.sheet.heat.stages else ()
    if said and how == "lid":
        likely = replace(likely, stages=_on_the_stove(calculation, said))
    first, done, latest = (minutes * factor for minutes in _window_min(calculation, likely, told=True))
    stages: tuple[HeatStageResult, ...] = ()
    if said:
        if how != "lid":  # under a lid those behind the open one are counted already
            first, done, latest = window_with_stages(said, (first, done, latest))
        stages = heat_stage_results(calculation, said, "heat", done)
    simmer_s = likely.simmer_s()
    if how == "lid" and not said:
        stages = _phase_stages(calculation, likely, simmer_s, "heat")
    _enter_heat(calculation, likely, (first, done, latest))
    times, celsius = likely.curve(simmer_s)
    at_done = min(done / factor * 60.0, float(times[-1]))

    def heart_c(of: Mapping[EstimateId, float]) -> float:
        if how == "steam":
            return float(np.interp(at_done, times, celsius)) - likely.boil_c + _steam(calculation, of).dew_c()
        return float(np.interp(at_done, *replace(likely, stand_h=of["shut_h"]).curve(simmer_s)))

    enter_with_range(
        calculation,
        "heat.heart_done_c",
        say("the slowest grain at the likely time"),
        heart_c,
        STEAM if how == "steam" else ("shut_h",),
        source=SOURCE,
        of=["heat.done_min"],
    )
    _enter_others(calculation, likely, done)
    water, bed_mm, across_mm = None, 0.0, _vessel_mm(calculation, how)
    if how == "steam":
        bed_mm = _enter_bed(calculation)
        water = steamer(calculation)
        gained = 1000.0 * likely.kg * likely.cp * (boil_c - likely.start_c) / LATENT_STEAM
        fact_book.add(
            "heat.gained_g",
            gained,
            say("steam that turned to water on the cold grain"),
            source=say("heat taken up over heat of evaporation"),
            of=["grain.soaked_g", "heat.boil_c"],
        )
    else:
        bed_mm = pot.total / 1.1 * 1000.0 / (math.pi * across_mm**2 / 4)
    _advise_on_grain(calculation, how)
    minutes = times / 60.0 * factor
    shown = minutes <= 1.1 * latest
    curve = drawn_curve(minutes[shown], celsius[shown], np.full(int(shown.sum()), boil_c))
    drawing = unchecked_model(
        GrainHeatDrawing,
        kind="grain",
        how=how,
        phases=_phases(likely, simmer_s, factor),
        bed_mm=bed_mm,
        across_mm=across_mm,
        steamer=water,
    )
    return OwnHeatResult(drawing, curve, stages)


def grain_ahead(calculation: Calculation, pot: Composition, boil_c: float, how: How) -> tuple[HeatStageResult, ...]:
    """Grain that is cooked just short of done before the way's own heat: `grain.cook_min`, and its stages under a lid."""
    needs = _needs(calculation, how, calculation.likely("ahead_share"))
    likely = _pot(calculation, pot, boil_c, how, needs)
    factor = calculation.kitchen.time_factor
    first, done, latest = (minutes * factor for minutes in _window_min(calculation, likely, told=False))
    calculation.fact_book.add(
        "grain.cook_min",
        done,
        say("brought to the boil, simmered and stood until a little bite is left: the syrup does the rest")
        if how != "steam"
        else say("steamed until a little bite is left: the syrup does the rest"),
        source=SOURCE,
        of=["heat.needs_min", "heat.boil_c", *_from(calculation, likely)],
        low=first,
        high=latest,
    )
    return _phase_stages(calculation, likely, likely.simmer_s(), "grain") if how == "lid" else ()


def _on_the_stove(calculation: Calculation, said: Sequence[HeatStage]) -> tuple[SteamerStage, ...]:
    """The sheet's stages on the physics' clock; the open one without an end."""
    factor = calculation.kitchen.time_factor
    open_at = next((i for i, stage in enumerate(said) if stage.minutes is None), len(said) - 1)
    return tuple(
        replace(stage, minutes=math.inf if i == open_at else stage.minutes / factor)
        for i, stage in enumerate(steamer_stages(calculation, said, steamer=False))
    )


def _phase_stages(
    calculation: Calculation, likely: _GrainPot, simmer_s: float, of: Heats
) -> tuple[HeatStageResult, ...]:
    """To the boil, the lowest flame, and the stand with the lid shut: the stages of a pot of grain that says none."""
    factor, begins = calculation.kitchen.time_factor, 0.0
    results: list[HeatStageResult] = []
    for (name, says, level), minutes in zip(_PHASES, (likely.warm_s / 60.0, simmer_s / 60.0, STAND_MIN), strict=True):
        lasts = minutes * factor
        results.append(
            unchecked_model(
                HeatStageResult,
                of=of,
                name=name,
                says=says,
                level=level,
                starts_min=begins,
                minutes=lasts,
                is_open=level == "low",
            )
        )
        begins += lasts
    return tuple(results)


def _needs(calculation: Calculation, how: How, share: float) -> float:
    fact_book, in_water = calculation.fact_book, how != "steam"
    most = most_pct(calculation.sheet.grain.soak_c)
    of: Origins = ["grain.uptake_pct", "grain.soak_end_pct"]
    return fact_book.add(
        "heat.needs_min",
        share * grain_needs_min(fact_book.number("grain.uptake_pct"), most, in_water=in_water),
        say("grain that took up so much of what it can")
        + (say(", drinking while it cooks") if in_water else say(", in steam")),
        source=KITCHEN_ESTIMATE,
        of=of,
    )


def _pot(calculation: Calculation, pot: Composition, boil_c: float, how: How, needs: float) -> _GrainPot:
    kitchen, fact_book = calculation.kitchen, calculation.fact_book
    across = _vessel_mm(calculation, how) / 1000.0
    if how == "steam":
        # The grain alone stands in the steam; what is poured on or sprinkled comes after.
        kg = fact_book.number("grain.soaked_g") / 1000.0
        water = min(0.95, (kg * 1000.0 - 0.86 * fact_book.number("grain.dry_g")) / (kg * 1000.0))
        cp = 4180.0 * water + 1600.0 * (1 - water)
        steam = _steam(calculation, {})
        power, boil_c = max(1.0, steam.to_spare_w / calculation.likely("bed_mm")), steam.dew_c()
    else:
        kg, cp = pot.total / 1000.0, properties(fractions(pot), 60.0).cp
        power = kitchen.burner.high_w if how == "lid" else calculation.likely("cooker_gives") * kitchen.cooker_w
    return _GrainPot(
        kg=kg,
        cp=cp,
        start_c=kitchen.room_c,
        boil_c=boil_c,
        room_c=kitchen.room_c,
        power_w=power,
        open_m2=math.pi * across**2 / 4,
        needs=needs,
        how=how,
        drinks_min=calculation.likely("simmer_least_min"),
        stand_h=calculation.likely("shut_h"),
        gently_min=calculation.likely("cooker_gently_min") if how == "cooker" else 0.0,
    )


def _vessel_mm(calculation: Calculation, how: How) -> float:
    """Millimetres across the basket or the pot."""
    if how == "steam":
        return calculation.steamer.diameter_mm
    pan = next((pan for pan in calculation.kitchen.pans if pan.name == calculation.bowl.base.part.pan), None)
    return pan.across_mm if pan else 200.0


_WHICH: dict[How, tuple[EstimateId, ...]] = {
    "steam": ("grain_needs", "burner", "lid_w", "leak_ml_s", "bed_mm"),
    "lid": ("grain_needs", "burner", "simmer_least_min"),
    "cooker": ("grain_needs", "cooker_gives", "cooker_gently_min", "simmer_least_min"),
}


def _solver(calculation: Calculation, likely: _GrainPot) -> Solve:
    """Minutes of the same pot with estimates otherwise than likely."""
    gives = calculation.likely("cooker_gives")

    def solve(of: Mapping[EstimateId, float]) -> float:
        needs = likely.needs * of.get("grain_needs", 1.0) * _needs_more(calculation, likely.how, of)
        if likely.how != "steam":
            power = of.get("burner", 1.0) * of.get("cooker_gives", gives) / gives
            return replace(
                likely,
                needs=needs,
                power_w=likely.power_w * power,
                drinks_min=of["simmer_least_min"],
                gently_min=of.get("cooker_gently_min", 0.0),
            ).minutes()
        steam = _steam(calculation, of)
        warms = steam.to_spare_w / of["bed_mm"]
        return replace(likely, needs=needs, power_w=max(1.0, warms), boil_c=steam.dew_c()).minutes()

    return solve


def _needs_more(calculation: Calculation, how: How, of: Mapping[EstimateId, float]) -> float:
    """How many times as long grain wants that took up more or less in its soak, or is cooked less far ahead."""
    most = most_pct(calculation.sheet.grain.soak_c)
    now, likely = (
        grain_needs_min(uptake, most, in_water=how != "steam")
        for uptake in (calculation.fact_with("grain.uptake_pct", of), calculation.fact_book.number("grain.uptake_pct"))
    )
    ahead = calculation.likely("ahead_share")
    return now / likely * of.get("ahead_share", ahead) / ahead


def _steam(calculation: Calculation, of: Mapping[EstimateId, float]) -> SteamSupply:
    """The steam under the basket, at the first of its stages."""
    return steam_stages(calculation, **{name: value for name, value in of.items() if name in STEAM})[0][1]


def _window_min(calculation: Calculation, likely: _GrainPot, *, told: bool) -> tuple[float, float, float]:
    """First, done and latest in minutes of the physics; what they hang on is noted where it is the way's own heat."""
    solve, factor = _solver(calculation, likely), calculation.kitchen.time_factor if told else 1.0
    which = (*_WHICH[likely.how], *calculation.rows_of("grain.uptake_pct"))
    if told:
        found_spread = enter_heat_window(calculation, solve, which)
    else:
        together = calculation.kitchen.go_together
        found_spread = spread(solve, calculation.estimates, (*which, "ahead_share"), together=together)
        if found_spread:
            calculation.spreads["grain.cook_min"] = found_spread
    assert found_spread is not None  # grain is soft at last, whatever its pot
    return found_spread.first / factor, found_spread.likely / factor, found_spread.latest / factor


def _from(calculation: Calculation, likely: _GrainPot) -> Origins:
    kitchen = calculation.kitchen
    if likely.how == "cooker":
        power = calculation.from_kitchen("cooker_w", say("rice cooker"), kitchen.cooker_w, "W")
    elif likely.how == "lid":
        power = calculation.from_kitchen("burner.high_w", say("net power at high heat"), kitchen.burner.high_w, "W")
    else:
        power = calculation.from_kitchen("burner", say("net power under the steamer"), likely.power_w, "W")
    factor = calculation.from_kitchen("time_factor", say("this kitchen's time factor"), kitchen.time_factor)
    return [power, calculation.from_kitchen("room_c", "room", kitchen.room_c, "°C"), factor]


_SAYS: dict[How, str] = {
    "steam": "the steam has come through, and the grain has had its time at heat: no white heart",
    "lid": "to the boil, its time at heat on the lowest flame, and ten minutes' stand with the lid shut",
    "cooker": "the cooker's own time, and ten minutes' stand with the lid shut",
}


def _enter_heat(calculation: Calculation, likely: _GrainPot, window: tuple[float, float, float]) -> None:
    fact_book = calculation.fact_book
    first, done, latest = window
    of: Origins = ["heat.needs_min", "grain.soaked_g", "heat.boil_c", *_from(calculation, likely)]
    fact_book.add("heat.first_check_min", first, say("one in twenty is done by then"), source=SOURCE, of=of)
    fact_book.add("heat.done_min", done, _SAYS[likely.how], source=SOURCE, of=of, low=first, high=latest)
    fact_book.add("heat.latest_min", latest, say("nineteen in twenty are done by then"), source=SOURCE, of=of)
    hot = (likely.warm_s / 60.0) * calculation.kitchen.time_factor
    fact_book.add("heat.core_hot_min", hot, say("all of it is at the boil: hot, not yet soft"), source=SOURCE, of=of)


def _enter_others(calculation: Calculation, likely: _GrainPot, done: float) -> None:
    """What other grain, another amount, a lifted lid would cost."""
    fact_book, factor, how = calculation.fact_book, calculation.kitchen.time_factor, likely.how
    none = grain_needs_min(0.0, 1.0, in_water=how != "steam")
    for key, other, says in (
        ("heat.double_min", replace(likely, kg=2 * likely.kg), say("twice as much in the same heat")),
        ("heat.unsoaked_min", replace(likely, needs=none), say("the same grain, not soaked at all")),
    ):
        fact_book.add(key, max(0.0, other.minutes() * factor - done), says, source=SOURCE, of=["heat.done_min"])
    if how != "steam":
        low_w = calculation.kitchen.burner.low_w
        low = calculation.from_kitchen("burner.low_w", say("net power at low heat"), low_w, "W")
        lifted_lid(calculation, 2000.0 * math.sqrt(likely.open_m2 / math.pi), low_w, low)


def _enter_bed(calculation: Calculation) -> float:
    """How deep the grain lies on as many tiers as it wants, and the loads."""
    fact_book, kitchen = calculation.fact_book, calculation.steamer
    floor = math.pi * kitchen.diameter_mm**2 / 4
    thick = (
        fact_book.number("grain.soaked_g") / calculation.likely("bed_g_ml") * 1000.0 / floor
    )  # all of it on one tier
    most = calculation.likely("bed_most_mm")
    wanted = max(1, math.ceil(thick / most))
    tiers = min(wanted, kitchen.tiers)
    number = math.ceil(wanted / kitchen.tiers)
    room = calculation.from_kitchen(
        "steamer.tiers",
        say("tiers of {diameter_mm}", diameter_mm=calculation.length(kitchen.diameter_mm)),
        kitchen.tiers,
    )
    bed = fact_book.add(
        "heat.depth_mm",
        thick / (tiers * number),
        say(
            "the drained grain, loose, on {tiers} {tier_or_tiers}",
            tiers=tiers,
            tier_or_tiers="tier" if tiers == 1 else "tiers",
        ),
        source=GEOMETRY,
        of=["grain.soaked_g", room],
    )
    loads(
        calculation, number, 1, "basketfuls", say("{most} of grain on each tier", most=calculation.length(most)), room
    )
    return bed


def _phases(likely: _GrainPot, simmer_s: float, factor: float) -> tuple[HeatPhase, ...]:
    if likely.stages:
        return ()
    names = (
        (say("steam comes through"), say("at heat"))
        if likely.how == "steam"
        else (say("to the boil"), say("simmers"), say("stands shut"))
    )
    lengths = (likely.warm_s / 60.0, simmer_s / 60.0, STAND_MIN)
    return tuple(
        unchecked_model(HeatPhase, name=name, minutes=length * factor)
        for name, length in zip(names, lengths, strict=False)
    )


def _advise_on_grain(calculation: Calculation, how: How) -> None:
    if how == "steam":
        says = say(
            "Turn it once half way, and sprinkle it if the top looks dry. Three grains must crush with no white in them."
        )
    else:
        says = say("The lid stays shut until it has stood. Steam holes over the top, and no water on the floor.")
    calculation.advise("heat", "look", says, 5)

"""How fast the heat is solved, beside a plain method of lines with scipy's solve_ivp, in one and the same run.

Accuracy is the error of the minute at which the heart is hot, against a grid four times as fine.
"""

from __future__ import annotations

import statistics
import time

import numpy as np
import pytest
from promises import measured
from scipy.integrate import solve_ivp

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Composition
from kemble.core.physics import baking, conduction
from kemble.core.physics.baking import Oven, OvenSlab, bake_all
from kemble.core.physics.conduction import DecayModes, time_at_level
from kemble.core.physics.freezing import food
from kemble.core.physics.stove import stir
from kemble.core.physics.thermal import LATENT_STEAM, LEWIS_K_PER_PA, Material, saturation_pa
from kemble.core.sheet.document import default_sheet
from kemble.core.stations import work_sheet

KITCHEN = Kitchen(altitude_m=240)
BATTER = Material(k=0.45, rho=1170.0, cp=2790.0)
DOUGH = Composition(water=45, starch=50, protein=4, fat=1)
FILLING = Composition(water=10, sugar=40, fat=35, protein=10, fibre=5)
DEPTH, RADIUS, AROUND, START = 0.04, 0.075, 100.0, 45.0
HOT_C = 85.0
TIMES = np.linspace(0.0, 5400.0, 181)


def median_ms(solve, rounds):
    took = []
    for _ in range(rounds):
        began = time.perf_counter()
        solve()
        took.append(1000 * (time.perf_counter() - began))
    return statistics.median(took)


def beside(what, ours, plain, exact, *, rounds=40, plain_rounds=5):
    """Print both times and both errors; returns how many times faster ours is."""
    fast, slow = median_ms(ours, rounds), median_ms(plain, plain_rounds)
    off = [abs(solve() / exact - 1) * 100 for solve in (ours, plain)]
    print(
        f"\n  {what}: {fast:.2f} ms ({off[0]:.2f} % off), method of lines {slow:.1f} ms ({off[1]:.2f} % off): {slow / fast:.0f} times"
    )
    measured("solve", fast)
    measured("solve-times", slow / fast)
    return slow / fast


def tin(cells):
    """A round tin in steam: the heart as slab times cylinder, by decaying modes."""
    upright = conduction.slab(DEPTH, BATTER, 900.0, 900.0, cells)
    across = conduction.cylinder(RADIUS, BATTER, 900.0, cells)
    left = DecayModes(upright).remaining(TIMES).max(axis=1) * DecayModes.centre(
        DecayModes(across).remaining(TIMES), across
    )
    return time_at_level(TIMES, AROUND + (START - AROUND) * left, HOT_C)


def lines(body, start, around):
    """The same cells as a plain system of equations for solve_ivp: the largest difference left along TIMES."""
    g, capacity = body.conductances(body.k), body.volumes * body.heat_capacity

    def slope(_, celsius):
        outside = np.concatenate(([around], celsius, [around]))
        flow = g * np.diff(outside)
        return np.diff(flow) / capacity

    begin = np.full(len(body.volumes), start)
    return solve_ivp(slope, (0, TIMES[-1]), begin, method="BDF", t_eval=TIMES, rtol=1e-4, atol=1e-3).y.T


def test_a_tin_in_steam():
    def plain():
        upright = conduction.slab(DEPTH, BATTER, 900.0, 900.0)
        across = conduction.cylinder(RADIUS, BATTER, 900.0)
        shares = [(lines(body, START, AROUND) - AROUND) / (START - AROUND) for body in (upright, across)]
        left = shares[0].max(axis=1) * DecayModes.centre(shares[1], across)
        return time_at_level(TIMES, AROUND + (START - AROUND) * left, HOT_C)

    beside("a tin in steam", lambda: tin(conduction.CELLS), plain, tin(160))


def ball(cells, steps):
    """A ball of dough round a frozen filling in boiling water: enthalpy marched."""
    body, layers, start = _ball(cells)
    times = 1500.0 * np.linspace(0.0, 1.0, steps) ** 1.7
    celsius, _ = conduction.thaw(body, layers, start, AROUND, times)
    return time_at_level(times, celsius[:, 0], 72.0)


def _ball(cells):
    dough = Material(0.42, 1150.0, 2700.0)
    body = conduction.sphere([(0.012, dough), (0.0175, dough)], 1000.0, cells)
    inner = int(np.searchsorted(body.centres, 0.012))
    layers = [(food(FILLING, fat_sets=True), inner), (food(DOUGH, fat_sets=False), len(body.centres) - inner)]
    start = np.full(len(body.centres), 26.0)
    start[:inner] = -18.0
    return body, layers, start


def test_a_frozen_ball_in_the_pot():
    def plain(method):
        body, layers, start = _ball(conduction.CELLS)
        inner = layers[0][1]
        spans = [(slice(0, inner), layers[0][0]), (slice(inner, None), layers[1][0])]
        half = np.diff(body.edges) / 2

        def celsius_of(held):
            return np.concatenate([np.interp(held[cells], s.enthalpy, s.celsius) for cells, s in spans])

        def slope(_, held):
            celsius = celsius_of(held)
            k = np.concatenate([np.interp(celsius[cells], s.celsius, s.k) for cells, s in spans])
            resistance = half / k
            g = np.zeros(len(body.edges))
            g[1:-1] = body.areas[1:-1] / (resistance[:-1] + resistance[1:])
            g[-1] = body.areas[-1] / (resistance[-1] + 1 / body.h_high)
            return np.diff(g * np.diff(np.concatenate(([0.0], celsius, [AROUND])))) / body.volumes

        held = np.concatenate([np.interp(start[cells], s.celsius, s.enthalpy) for cells, s in spans])
        times = np.linspace(0, 1500, 131)
        result = solve_ivp(slope, (0, 1500), held, method=method, t_eval=times, rtol=1e-3, atol=1e4)
        return time_at_level(times, np.array([celsius_of(item)[0] for item in result.y.T]), 72.0)

    def ours():
        return ball(conduction.CELLS, 41)

    for method in ("RK45", "BDF"):
        name = f"a frozen ball in the pot, beside {method}"
        beside(name, ours, lambda method=method: plain(method), ball(160, 801), plain_rounds=3)


# What a sheet asks of the oven: as it is, all fast, all slow, deeper, in glass, in a cooler oven, from the fridge.
ASKED = [(0.025, 45.0, 175.0, 23.0), (0.025, 49.0, 175.0, 28.0), (0.025, 41.0, 175.0, 18.0), (0.035, 45.0, 175.0, 23.0)]
ASKED += [(0.025, 45.0, 175.0, 21.0), (0.025, 45.0, 160.0, 23.0), (0.025, 5.0, 175.0, 23.0)]


def trays(cells):
    oven_slabs = []
    for depth, start, air, h in ASKED:
        oven = Oven(air, 100.0, h, h)
        body = conduction.slab(depth, BATTER, h, h, cells, even=True)
        oven_slabs.append(OvenSlab(body, BATTER, 0.43, start, oven, 5400.0))
    return oven_slabs


def baked(cells, steps):
    """The minute at which the first of the seven is hot, all marched together."""
    bake_curveses = bake_all(trays(cells), steps)
    return time_at_level(bake_curveses[0].times, bake_curveses[0].cells.min(axis=1), HOT_C)


def test_seven_trays_in_the_oven():
    """The plain method holds what boils by turning a cell's surplus to vapour above the boiling point, stiffly."""

    def one(tray):
        body, oven = tray.body, tray.oven
        half, capacity = np.diff(body.edges) / (2 * body.k), body.volumes * body.heat_capacity
        between = 1.0 / (half[:-1] + half[1:])
        n = len(capacity)
        dry, wet = baking.DRY_SHARE, baking.WET_SHARE

        def slope(t, state):
            celsius, gone = state[:n], state[n]
            air = oven.air_c - baking.DOOR_DROP_C * np.exp(-t / baking.DOOR_BACK_S)
            share = dry + (wet - dry) * np.exp(-((gone / baking.SKIN_KG_PER_M2) ** 2))
            drive = max(0.0, saturation_pa(max(1.0, celsius[-1])) - baking.OVEN_VAPOUR_PA)
            drying = oven.h_top * LEWIS_K_PER_PA * share * drive
            flow = np.zeros(n + 1)
            flow[1:-1] = between * np.diff(celsius)
            flow[0] = (celsius[0] - air) / (half[0] + 1 / oven.h_floor)
            flow[-1] = (air - celsius[-1]) / (half[-1] + 1 / oven.h_top) - drying
            boils = np.maximum(0.0, celsius - oven.boil_c) * capacity  # a second to cool a kelvin: stiff
            return np.append((np.diff(flow) - boils) / capacity, (drying + boils[-1]) / LATENT_STEAM)

        times, begin = np.linspace(0, 5400, 181), np.append(np.full(n, tray.start_c), 0.0)
        result = solve_ivp(slope, (0, 5400), begin, method="BDF", t_eval=times, rtol=1e-4, atol=1e-3)
        return time_at_level(times, result.y[:n].min(axis=0), HOT_C)

    def plain():
        first, *_ = [one(tray) for tray in trays(baking.CELLS)]
        return first

    def ours():
        return baked(baking.CELLS, baking.STEPS)

    beside("seven trays in the oven", ours, plain, baked(96, 1600), plain_rounds=3)


def test_the_other_solves():
    """A stirred pan and a microwave oven, and a packet, each alone."""
    heat = {"mass_kg": 0.5, "cp": 3200.0, "start_c": 21.0, "boil_c": 100.0, "power_w": 620.0, "open_m2": 0.045}
    print(f"\n  a stirred pan: {median_ms(lambda: stir(**heat, end_s=3600.0), 40):.2f} ms")

    def packet():
        bodies = [conduction.slab(size, BATTER, 75.0, 75.0) for size in (0.018, 0.06, 0.06)]
        return [DecayModes(body).remaining(TIMES) for body in bodies]

    print(f"  a packet, three ways across: {median_ms(packet, 40):.2f} ms")


@pytest.mark.parametrize("way", sorted(WAYS))
def test_all_heat_facts(monkeypatch, way):
    """Heat, rest, keeping and finish of a sheet, within work()."""
    took: list[float] = []
    spent = [0.0]

    def timed(of):
        def run(*args):
            began = time.perf_counter()
            try:
                return of(*args)
            finally:
                spent[0] += time.perf_counter() - began

        return run

    for name in ("heat", "rest", "finishing"):
        monkeypatch.setattr(work_sheet, name, timed(getattr(work_sheet, name)))
    sheet = default_sheet(way)
    for _ in range(60):
        spent[0] = 0.0
        work_sheet.work(sheet, KITCHEN)
        took.append(1000 * spent[0])
    print(f"\n  heat facts of {way}: {statistics.median(took):.1f} ms")
    measured("heat", statistics.median(took))

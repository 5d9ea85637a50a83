"""The solver against closed-form series, written here from the series and not from the solver.

Series: one-dimensional conduction with a uniform start and a constant surrounding, in the usual form with
eigenvalues of the Biot number (Carslaw and Jaeger; any heat transfer text).
"""

import math

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.special import j0, j1, jn_zeros

from kemble.core.kitchen.larder import larder
from kemble.core.physics.conduction import DecayModes, cylinder, slab, sphere, thaw, time_at_level
from kemble.core.physics.freezing import food
from kemble.core.physics.thermal import Material

BATTER = Material(k=0.45, rho=1220.0, cp=3000.0)
START, AROUND = 40.0, 99.0
TERMS = 120


def roots(function, brackets):
    return np.array([brentq(function, low + 1e-9, high - 1e-9) for low, high in brackets])


def slab_series(x_over_l, fo, biot):
    if math.isinf(biot):
        z = (np.arange(TERMS) + 0.5) * math.pi
    else:
        z = roots(
            lambda z: z * math.sin(z) - biot * math.cos(z),
            [(n * math.pi, (n + 0.5) * math.pi) for n in range(TERMS)],
        )
    c = 4 * np.sin(z) / (2 * z + np.sin(2 * z))
    return (c * np.exp(-np.outer(fo, z**2))) @ np.cos(np.outer(z, x_over_l))


def sphere_series(r_over_r, fo, biot):
    if math.isinf(biot):
        z = (np.arange(TERMS) + 1) * math.pi
    else:
        z = roots(
            lambda z: (1 - biot) * math.sin(z) - z * math.cos(z),
            [(n * math.pi, (n + 1) * math.pi) for n in range(TERMS)],
        )
    c = 4 * (np.sin(z) - z * np.cos(z)) / (2 * z - np.sin(2 * z))
    return (c * np.exp(-np.outer(fo, z**2))) @ np.sinc(np.outer(z, r_over_r) / math.pi)


def cylinder_series(r_over_r, fo, biot):
    zeros = jn_zeros(0, TERMS + 1)
    if math.isinf(biot):
        z = zeros[:TERMS]
    else:
        z = roots(
            lambda z: z * j1(z) - biot * j0(z),
            list(zip([0.0, *zeros[: TERMS - 1]], zeros[:TERMS], strict=True)),
        )
    c = 2 / z * j1(z) / (j0(z) ** 2 + j1(z) ** 2)
    return (c * np.exp(-np.outer(fo, z**2))) @ j0(np.outer(z, r_over_r))


TIMES = np.linspace(60.0, 3600.0, 60)  # after the first minute


def celsius(share):
    return AROUND + (START - AROUND) * share


@pytest.mark.parametrize("h", [math.inf, 900.0, 60.0, 11.0])
@pytest.mark.parametrize("thickness", [0.012, 0.031, 0.06])
def test_slab_within_half_a_kelvin_everywhere(thickness, h):
    body = slab(thickness, BATTER, h, h)
    got = celsius(DecayModes(body).remaining(TIMES))
    half = thickness / 2
    want = celsius(slab_series(np.abs(body.centres - half) / half, BATTER.alpha * TIMES / half**2, h * half / BATTER.k))
    assert np.abs(got - want).max() < 0.5


@pytest.mark.parametrize("h", [math.inf, 1000.0, 25.0])
@pytest.mark.parametrize("radius", [0.010, 0.0175, 0.04])
def test_sphere_within_half_a_kelvin_everywhere(radius, h):
    body = sphere([(radius, BATTER)], h)
    modes = DecayModes(body)
    got = celsius(modes.remaining(TIMES))
    fo = BATTER.alpha * TIMES / radius**2
    want = celsius(sphere_series(body.centres / radius, fo, h * radius / BATTER.k))
    assert np.abs(got - want).max() < 0.5
    centre = celsius(DecayModes.centre(modes.remaining(TIMES), body))
    assert np.abs(centre - celsius(sphere_series(np.array([0.0]), fo, h * radius / BATTER.k))[:, 0]).max() < 0.5


@pytest.mark.parametrize("h", [math.inf, 900.0, 11.0])
@pytest.mark.parametrize(("radius", "depth"), [(0.09, 0.031), (0.075, 0.04), (0.05, 0.06)])
def test_finite_cylinder_within_half_a_kelvin_everywhere(radius, depth, h):
    """A round tin: the product of slab and cylinder, at every pair of their cells."""
    upright, across = slab(depth, BATTER, h, h), cylinder(radius, BATTER, h)
    got = celsius(DecayModes(upright).remaining(TIMES)[:, :, None] * DecayModes(across).remaining(TIMES)[:, None, :])
    half = depth / 2
    z = slab_series(np.abs(upright.centres - half) / half, BATTER.alpha * TIMES / half**2, h * half / BATTER.k)
    r = cylinder_series(across.centres / radius, BATTER.alpha * TIMES / radius**2, h * radius / BATTER.k)
    assert np.abs(got - celsius(z[:, :, None] * r[:, None, :])).max() < 0.5


def test_surface_of_a_slab():
    h, half = 60.0, 0.02
    body = slab(2 * half, BATTER, h, h)
    modes = DecayModes(body)
    low, high = modes.surfaces(modes.remaining(TIMES))
    want = slab_series(np.array([1.0]), BATTER.alpha * TIMES / half**2, h * half / BATTER.k)[:, 0]
    assert np.abs(celsius(high) - celsius(want)).max() < 0.5
    assert low == pytest.approx(high)


def test_finer_cells_come_nearer_to_the_series():
    half, h = 0.0155, 900.0

    def error(cells):
        body = slab(2 * half, BATTER, h, h, cells)
        want = slab_series(np.abs(body.centres - half) / half, BATTER.alpha * TIMES / half**2, h * half / BATTER.k)
        return np.abs(DecayModes(body).remaining(TIMES) - want).max()

    assert error(10) > 2.5 * error(20) > 5 * error(40)


def test_insulated_below_is_half_of_a_slab_twice_as_thick():
    conducting_body, two = slab(0.02, BATTER, 0.0, 900.0, 60), slab(0.04, BATTER, 900.0, 900.0, 120)
    bottom = DecayModes(conducting_body).remaining(TIMES)[:, 0]
    middle = DecayModes(two).remaining(TIMES)[:, 59:61].mean(axis=1)
    assert np.abs(celsius(bottom) - celsius(middle)).max() < 0.3


WATER = larder()["water"].composition(100.0)
DRY = larder()["walnut"].composition(100.0)


def marched(composition, start_c, *, radius=0.0175, around=AROUND, until=1500.0, steps=131):
    substance = food(composition, fat_sets=False)
    body = sphere([(radius, Material(0.4, 1100, 2500))], 1000.0)
    times = until * np.linspace(0.0, 1.0, steps) ** 1.7
    result, heat = thaw(body, [(substance, len(body.centres))], np.full(len(body.centres), start_c), around, times)
    return body, substance, times, result, heat


def test_thawing_without_ice_agrees_with_the_sphere_series():
    """With properties that hardly change, the march is the linear problem again."""
    radius = 0.0175
    body, substance, times, result, _ = marched(DRY, 40.0)
    inside = (substance.celsius >= 40) & (substance.celsius <= 99)
    k = substance.k[inside].mean()
    capacity = np.diff(np.interp([40.0, 99.0], substance.celsius, substance.enthalpy))[0] / 59.0
    fo = k / capacity * times / radius**2
    want = celsius(sphere_series(body.centres / radius, fo[1:], 1000.0 * radius / k))
    late = times[1:] > 60
    assert np.abs(result[1:][late] - want[late]).max() < 1.5


def test_halved_steps_come_nearer_by_more_than_half():
    """The heart of a frozen date at 72 °C: forty steps within 1 % of eight hundred, and of the second order."""
    date = larder()["date"].composition(100.0)

    def hot(steps):
        _, _, times, result, _ = marched(date, -18.0, steps=steps + 1)
        return time_at_level(times, result[:, 0], 72.0)

    finest = hot(800)
    errors = [abs(hot(steps) / finest - 1) for steps in (20, 40, 80)]
    assert errors[1] < 0.01
    assert errors[2] < 0.5 * errors[1] < 0.5 * 0.6 * errors[0]


@pytest.mark.parametrize("name", ["water", "walnut", "date", "butter"])
def test_a_march_keeps_its_energy(name):
    composition = larder()[name].composition(100.0)
    body, substance, _, result, heat = marched(composition, -18.0)
    held = np.interp(result, substance.celsius, substance.enthalpy) @ body.volumes
    assert heat[-1] == pytest.approx(held[-1] - held[0], rel=0.005)


def test_melting_water_takes_its_latent_heat():
    """Ice at -18 °C to water at 99 °C: 2.06 x 18 (ice, as water here: 4.2) + 333.6 + 4.18 x 99 kJ/kg."""
    body, _, _, _, heat = marched(WATER, -18.0, until=9000.0, steps=400)
    mass = body.volumes.sum() * 997.0
    per_kg = heat[-1] / mass / 1000.0
    assert per_kg == pytest.approx(4.18 * (18 + 99) + 333.6, rel=0.04)


def test_frozen_takes_longer_than_chilled():
    _, _, times, frozen, _ = marched(larder()["date"].composition(100.0), -18.0)
    _, _, _, chilled, _ = marched(larder()["date"].composition(100.0), 5.0)
    assert time_at_level(times, frozen[:, 0], 72.0) > time_at_level(times, chilled[:, 0], 72.0)


def test_when_reads_between_samples():
    times, curve = np.array([0.0, 10.0, 20.0]), np.array([0.0, 50.0, 60.0])
    assert time_at_level(times, curve, 25.0) == pytest.approx(5.0)
    assert time_at_level(times, curve, 61.0) is None
    assert time_at_level(times, curve, -1.0) == 0.0

"""Steam with air in it: both balances by hand, what must grow with what, and the energy of all that condenses."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from thorough import examples

from kemble.core.physics.conduction import time_at_level
from kemble.core.physics.doneness import clear_s, cook_value_min
from kemble.core.physics.steaming import PotCooling, SteamSupply, felt
from kemble.core.physics.thermal import LATENT_STEAM, saturation_pa

KEEPS = PotCooling(20.0, 1500.0)
TIMES = np.linspace(0.0, 5400.0, 181)


def lump(joules_per_k, tau_s):
    """Heat that a body of one time constant has taken up along TIMES after a rise of one kelvin."""
    return joules_per_k * (1 - np.exp(-TIMES / tau_s))


def test_the_dew_point_of_vapour_and_air_by_hand():
    """490 W boil off 0.217 g/s, 363 ml/s; with 20 ml/s of air 5.2 % of the mix is air: the vapour presses 96 050 Pa."""
    steam = SteamSupply(620, 130, 20, 0)
    assert steam.air() == pytest.approx(20 / (20 + 363.2), rel=1e-3)
    assert saturation_pa(steam.dew_c()) == pytest.approx(101_325 * (1 - steam.air()), rel=1e-3)
    assert steam.dew_c(245) < steam.dew_c()  # what the load takes is not to spare
    assert 96 < SteamSupply(380, 130, 20, 0).dew_c() < steam.dew_c() < SteamSupply(1500, 130, 20, 0).dew_c() < 100


def test_a_load_takes_no_more_than_there_is():
    """2.9 kJ/K from 45 °C to the boil is 155 kJ; at 490 W that takes over five minutes, however fast it could."""
    steam = SteamSupply(620, 130, 5, 0)
    taken = lump(2900, 30.0)
    around = felt(TIMES, taken, [(0.0, steam)], 45.0, KEEPS)
    rises = np.diff(around, prepend=45.0)
    drawn = np.convolve(rises, np.diff(taken))[: len(TIMES) - 1]
    step = TIMES[1]
    assert drawn.max() <= 490 * step * 1.001
    assert around[TIMES < 240].max() < 92
    assert around[-1] == pytest.approx(steam.dew_c(), abs=0.2)
    # All that it took up, to the last kelvin.
    assert drawn.sum() == pytest.approx(2900 * (around[-1] - 45), rel=0.01)


@settings(max_examples=examples(40), deadline=None)
@given(
    st.floats(200, 2500),
    st.floats(0, 180),
    st.floats(1, 150),
    st.floats(5, 60),
    st.floats(200, 9000),
    st.floats(20, 3000),
)
def test_more_flame_is_never_colder_and_a_leak_never_hotter(net, lid, leak, start, load, tau):
    def round_it(net_w, leak_ml_s):
        return felt(TIMES, lump(load, tau), [(0.0, SteamSupply(net_w, lid, leak_ml_s, 0))], start, KEEPS)

    usual = round_it(net, leak)
    assert (round_it(1.3 * net, leak) >= usual - 0.2).all()
    assert (round_it(net, 2 * leak) <= usual + 0.2).all()
    assert (np.diff(usual) > -0.2).all()
    assert usual.max() < 100.1


def test_without_a_flame_it_cools_and_with_one_again_it_comes_back():
    on, off = SteamSupply(620, 130, 10, 0), SteamSupply(0, 0, 10, 0)
    around = felt(TIMES, lump(1500, 300.0), [(0.0, on), (1800.0, off), (3600.0, on)], 40.0, KEEPS)
    before, last = around[np.searchsorted(TIMES, 1770.0)], around[np.searchsorted(TIMES, 3540.0)]
    assert last == pytest.approx(20 + (before - 20) * math.exp(-1770 / 1500), abs=1.0)
    assert around[-1] > before - 3


def test_film_of_air():
    """A twentieth of air in the mix lets half the heat through."""
    steam = SteamSupply(130 + LATENT_STEAM * 1e-3 * 19 * 20 / 1673.0, 130, 20, 0)
    assert steam.air() == pytest.approx(0.05)
    assert steam.film == pytest.approx(0.5)


@pytest.mark.long
@pytest.mark.parametrize(("net_w", "off"), [(380.0, 0.045), (620.0, 0.025), (1400.0, 0.01)])
def test_one_film_for_all_the_time_is_near_enough(net_w, off):
    """The stations hold the film of air on the load at what it is once the load is hot. Marched with a film that follows
    the air at every moment (a slab in 16 cells, its faces alike), the time until it is done is within a few per cent."""

    def done_s(follows):
        steam, k, heat, area = SteamSupply(net_w, 130.0, 20.0, 240.0), 0.42, 1150.0 * 3000.0, 0.025
        dx = 0.03 / 16
        dt = 0.2 * dx * dx / (k / heat)
        celsius, times, core = np.full(16, 25.0), [0.0], [25.0]
        while times[-1] < 4800:
            least, most = 0.0, steam.to_spare_w
            for _ in range(30):  # what the load takes leaves the vapour whose dew point draws just that
                taken = (least + most) / 2
                h = 800.0 * (1.0 / (1.0 + 20.0 * steam.air(taken)) if follows else steam.film)
                through = 1.0 / (1.0 / h + dx / 2 / k)
                into = through * (steam.dew_c(taken) - celsius[[0, -1]])
                least, most = (taken, most) if into.sum() * area > taken else (least, taken)
            into *= min(1.0, steam.to_spare_w / max(1.0, into.sum() * area))
            flow = k * np.diff(celsius) / dx
            celsius = celsius + dt / dx / heat * np.diff(np.concatenate(([-into[0]], flow, [into[1]])))
            times.append(times[-1] + dt)
            core.append(celsius[8])
        at, heart = np.array(times), np.array(core)
        return max(clear_s(at, heart, 75.0), time_at_level(at, cook_value_min(at, heart), 15.0))

    assert done_s(follows=True) / done_s(follows=False) == pytest.approx(1.0, abs=off)

"""Soaking: how much water whole grain takes up, by Peleg's equation."""

from __future__ import annotations

import math

# Kitchen estimates for polished sweet rice, water gained in per cent of the dry grain: it ends near 30 per cent in
# ice-cold water and 42 in warm; at 20 °C half is taken up in 25 minutes, and every 10 °C makes that a third quicker.
_END_AT_0_C = 33.0
_END_PER_C = 0.2
_HALF_AT_20_C = 25.0
_QUICKER_PER_C = 0.03


def most_pct(celsius: float) -> float:
    """What the grain takes up at the most, in per cent of its dry weight.

    Takes: `celsius` of the soak, 0 to 60.
    Gives: % of the dry weight.
    Holds: sweet rice, whole.
    From: kitchen estimate.
    """
    return _END_AT_0_C + _END_PER_C * celsius


def half_min(celsius: float) -> float:
    """Minutes in which half of that is taken up.

    Takes: `celsius` of the soak, 0 to 60.
    Gives: min.
    Holds: sweet rice, whole.
    From: kitchen estimate.
    """
    return _HALF_AT_20_C * math.exp(-_QUICKER_PER_C * (celsius - 20.0))


def uptake_pct(minutes: float, celsius: float) -> float:
    """Water gained by grain in a soak, in per cent of its dry weight: Peleg's equation M(t) = t / (k1 + k2 t), with 1/k2
    the most it takes up and k1/k2 the half time.

    Takes: `minutes` from 0; `celsius` from 0 to 60, under where the starch gels.
    Gives: % of the dry weight.
    Holds: sweet rice, whole; give or take 15 %.
    From: Peleg's equation; its constants a kitchen estimate.

    >>> round(uptake_pct(half_min(20.0), 20.0) / most_pct(20.0), 6)
    0.5
    """
    return most_pct(celsius) * minutes / (half_min(celsius) + minutes)


# Dry beans, split or small: they end near their own weight in water, half of it in two hours at 20 °C; kitchen estimate.
_BEANS_END_PCT = 105.0
_BEANS_HALF_AT_20_C = 120.0


def legume_uptake_pct(minutes: float, celsius: float) -> float:
    """Water gained by dry beans in a soak, in per cent of their dry weight; Peleg's equation again.

    Takes: `minutes` from 0; `celsius` from 0 to 60.
    Gives: % of the dry weight.
    Holds: small dry beans; give or take 15 %.
    From: Peleg's equation; its constants a kitchen estimate.
    """
    half = _BEANS_HALF_AT_20_C * math.exp(-_QUICKER_PER_C * (celsius - 20.0))
    return _BEANS_END_PCT * minutes / (half + minutes)


def soak_for(uptake: float, celsius: float) -> float | None:
    """Minutes until `uptake` per cent is taken up; None where the grain never takes up so much.

    Takes: `uptake` in % of the dry weight; `celsius` from 0 to 60.
    Gives: min; None where it never takes up so much.
    Holds: as `uptake_pct`.
    From: Peleg's equation, turned round.
    """
    most = most_pct(celsius)
    if uptake >= most:
        return None
    return half_min(celsius) * uptake / (most - uptake)

"""Setting, staling and spoiling, as an index."""

from __future__ import annotations


def hard_after_h(sugar_pct: float, fat_pct: float, hydration_pct: float, *, celsius: float) -> float:
    """Hours until a sweet-rice cake turns hard. An index from kitchen experience, not a measurement.

    Kitchen estimate: 8 h for a plain dough at 20 °C; 0.45 h more for each per cent of sugar, 0.5 h for each of fat,
    0.05 h for each of water over 80; retrogradation runs up to three times as fast at 4 °C.

    Takes: `sugar_pct`, `fat_pct`, `hydration_pct` in % of the flour; `celsius` from 0 to 30.
    Gives: h, an index.
    Holds: covered pieces.
    From: kitchen estimate.
    """
    at_room = 8.0 + 0.45 * sugar_pct + 0.5 * fat_pct + 0.05 * max(0.0, hydration_pct - 80.0)
    coldness = min(1.0, max(0.0, (20.0 - celsius) / 16.0))
    return at_room / (1.0 + 2.0 * coldness)


def room_h(sugar_in_water_pct: float, *, perishable: bool, room_c: float) -> float:
    """Hours at room temperature. Two at most with egg, milk, coconut or butter; less when the room is warm.

    Kitchen estimate, and no safety validation: 24 h plain and wet, up to 60 h at half sugar, halved every 7 °C over 21.

    Takes: `sugar_in_water_pct` in %; `room_c` in °C; `perishable` with egg, milk, coconut or butter.
    Gives: h.
    Holds: no safety validation; local food law comes first.
    From: kitchen estimate.
    """
    if perishable:
        return 2.0 if room_c <= 30 else 1.0
    hours = 24.0 + 36.0 * min(1.0, sugar_in_water_pct / 50.0)
    return float(hours * 0.5 ** (max(0.0, room_c - 21.0) / 7.0))


def eaten_h(*, perishable: bool, cooked: bool, wet: bool, room_c: float) -> tuple[float, float, float]:
    """Hours (likely, least, most) in which home cooks eat it, out or in the cold: what they do, not what is safe.

    Kitchen estimates: baked and steamed cakes with egg, butter or coconut cooked in, two to three days; what is filled or
    topped with something wet or uncooked, the same day, two at most; plain ones as long as they are soft.

    Takes: `perishable`, `cooked`, `wet` what is in or on it; `room_c` in °C.
    Gives: h: likely, least, most.
    Holds: what cooks do, not what is safe.
    From: kitchen estimate.
    """
    warm = 0.5 if room_c > 28 else 1.0
    if not perishable:
        return 48.0 * warm, 24.0 * warm, 72.0 * warm
    if cooked and not wet:
        return 54.0 * warm, 36.0 * warm, 72.0 * warm
    return 14.0 * warm, 8.0 * warm, 48.0 * warm


def cold_h(*, perishable: bool) -> float:
    """Hours in the fridge: two days with anything perishable, four without (kitchen estimate).

    Takes: `perishable` with egg, milk, coconut or butter.
    Gives: h.
    Holds: a fridge of 0 to 6 °C; no safety validation.
    From: kitchen estimate.
    """
    return 48.0 if perishable else 96.0


def frozen_days(*, perishable: bool) -> float:
    """Days in the freezer before it dries and tastes of it: three months plain, one with anything perishable (kitchen
    estimate).

    Takes: `perishable` with egg, milk, coconut or butter.
    Gives: days.
    Holds: wrapped, at -18 °C or under.
    From: kitchen estimate.
    """
    return 30.0 if perishable else 90.0

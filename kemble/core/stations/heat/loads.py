"""Loads: how many go in at once, how long they all take, and how warm the first is kept until the last is out."""

from __future__ import annotations

import math

from kemble.core.facts.fact import KITCHEN_ESTIMATE, Origin, Origins
from kemble.core.stations.working import Working

CHANGE_MIN = 3.0  # out with one load, in with the next, and the heat back up; kitchen estimate
COVERED_MIN_PER_E = 75.0  # under a cloth or a lid a load falls towards the room by a factor e in this; 50-110
KEPT_C = 60.0  # what waits longer than two hours is kept over this, or chilled


def loads(working: Working, count: int, at_once: int, things: str, over: str, room: Origin) -> int:
    """Enter how many loads `count` things make, all of them one after another, and how they wait. Returns the loads."""
    book = working.book
    number = math.ceil(count / max(1, at_once))
    of: Origins = [room]
    of += [key for key in ("shape.tins", "shape.pieces", "heat.load_pieces") if key in book]
    book.add("heat.loads", float(number), f"{things} over {over}", source="sheet and kitchen", of=of)
    done = book.number("heat.done_min")
    every = book.add(
        "heat.all_loads_min",
        number * done + (number - 1) * CHANGE_MIN,
        f"one after another, {CHANGE_MIN:.0f} minutes to change them" if number > 1 else "one load",
        source=KITCHEN_ESTIMATE,
        of=["heat.loads", "heat.done_min"],
        low=number * book.number("heat.first_check_min"),
        high=number * (book.number("heat.latest_min") + CHANGE_MIN),
    )
    if number == 1:
        return 1
    kitchen = working.kitchen
    waits = every - done
    core = book.number("heat.heart_done_c")
    kept = book.add(
        "heat.waits_c",
        kitchen.room_c + (core - kitchen.room_c) * math.exp(-waits / COVERED_MIN_PER_E),
        f"the first load after {waits:.0f} minutes under a lid or cloth, so that it neither dries nor stiffens",
        source=KITCHEN_ESTIMATE,
        of=["heat.all_loads_min", "heat.heart_done_c", working.from_kitchen("room_c", "room", kitchen.room_c, "°C")],
    )
    says = f"{count} {things} in {number} loads, {every:.0f} minutes in all. Cover the first: it waits at {working.degrees(kept)}."
    working.advise("heat", "look", says, 2)
    if waits > 120 and kept < KEPT_C:
        working.advise("heat", "look", "The first load waits over two hours in the warm: keep it hot, or chill it.", 1)
    return number

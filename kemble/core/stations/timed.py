"""Timed: a heat whose minutes the craft tells as a range at a usual size, longer or shorter with size."""

from __future__ import annotations

from typing import Literal

from kemble.core.facts import KITCHEN_ESTIMATE, Origins, leaf
from kemble.core.stations.working import Drawn, Working
from kemble.core.ways.base import Timed


class TimedDrawing(Drawn):
    """Minutes of the window on a ruler."""

    kind: Literal["timed"] = "timed"
    says: str
    first_check: float
    done: float
    latest: float


def _of(working: Working) -> Timed:
    """The first of the way's heats that the schools call for."""
    return next(
        one for one in working.way.timed if one.when is None or working.sheet.school(one.when[0]) == one.when[1]
    )


def timed(working: Working) -> TimedDrawing:
    """The window of the heat, scaled to this sheet's size and this kitchen's time factor."""
    book, kitchen = working.book, working.kitchen
    heat = _of(working)
    size = book.number(heat.fact) if heat.fact else heat.reference
    by = (size / heat.reference) ** heat.power * kitchen.time_factor
    of: Origins = [working.from_kitchen("time_factor", "this kitchen's time factor", kitchen.time_factor)]
    if heat.fact:
        usual = book.facts[heat.fact]
        of += [heat.fact, leaf("way:timed", f"usual {usual.label}", heat.reference, usual.unit)]
    if heat.when:
        of.append(working.school(heat.when[0]))
    first, done, latest = heat.first * by, heat.done * by, heat.latest * by
    source = f"{KITCHEN_ESTIMATE}, the craft's usual range"
    book.add("heat.first_check_min", first, f"{heat.says}: look from here on", source=source, of=of)
    book.add("heat.done_min", done, heat.says, source=source, of=of, low=first, high=latest)
    book.add("heat.latest_min", latest, f"{heat.says}: by now, or something is off", source=source, of=of)
    book.add(
        "heat.heart_done_c",
        min(heat.heart_c, book.number("heat.boil_c")),
        "the heart at the likely time",
        source=KITCHEN_ESTIMATE,
        of=["heat.done_min", "heat.boil_c"],
    )
    working.advise("heat", "look", f"Look at {first:.0f} minutes, not by the clock alone: the cue decides.", 6)
    return TimedDrawing.model_construct(kind="timed", says=heat.says, first_check=first, done=done, latest=latest)

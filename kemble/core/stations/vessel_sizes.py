"""How large a bowl, pan or jug is wanted: by the most that it holds at any step, and room to work in it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from kemble.core.facts.quantity import FLUID_OUNCE_ML, VolumeUnit
from kemble.core.facts.vocabulary import PartId
from kemble.core.sentences import format_figure, say
from kemble.core.stations.ledger import LedgerStep, VesselEntry

# Times what it holds, by the kind of vessel: stirring in a bowl, boiling up in a pan. Kitchen estimates.
_ROOM = {"bowl": 2.0, "pan": 2.5, "jug": 1.2}
_ROOM_TO_SOAK = 3.0  # of dry grain or beans: they swell, and water stands over them
_SOAKS = frozenset(("soak", "beans"))
_SIZES = (0.5, 1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 20.0, 30.0)  # litres or quarts
_QUART_ML = 32 * FLUID_OUNCE_ML


def vessel_sizes(steps: Sequence[LedgerStep], entries: Mapping[str, VesselEntry]) -> dict[str, float]:
    """By step the ml that its bowl, pan or jug should hold. `steps` in working order, `entries` by step as the ledger has them.

    What lies in it takes the room of what went in, as dry or as wet as it was; what boils off makes it less in proportion.
    Pieces that are shaped already are sized by their own stations.
    """
    holds: dict[tuple[PartId | None, str], float] = {}
    room: dict[tuple[PartId | None, str], float] = {}
    most: dict[tuple[PartId | None, str], float] = {}
    of_step: dict[str, tuple[PartId | None, str]] = {}
    shaped: set[PartId | None] = set()
    for here in steps:
        entry = entries.get(here.id)
        if entry is None:
            continue
        if here.step.each:
            shaped.add(here.part_id)
        vessel = here.part_id, entry.vessel
        came = sum(holds.pop((here.part_id, content.vessel), 0.0) for content in entry.tipped)
        added = sum(
            each.grams / (line.g_per_ml if (line := each.contribution.weighed) else each.contribution.item.g_per_ml)
            for each in here.goes_in
        )
        full = holds.get(vessel, 0.0) + came + added
        before_g = entry.after_g - entry.change_g
        holds[vessel] = full * entry.after_g / before_g if before_g > 0 else full
        if kind_of_vessel(entry.vessel) and here.part_id not in shaped:
            wanted = _ROOM_TO_SOAK if _SOAKS.intersection(here.step.changes) else _ROOM[kind_of_vessel(entry.vessel)]
            room[vessel] = max(room.get(vessel, 0.0), wanted)
            most[vessel] = max(most.get(vessel, 0.0), full)
            of_step[here.id] = vessel
    return {step: room[vessel] * most[vessel] for step, vessel in of_step.items() if most[vessel]}


@lru_cache(256)
def kind_of_vessel(name: str) -> str:
    """Bowl, pan or jug, as the last of its words says; empty for what is not sized here.

    >>> kind_of_vessel("second bowl"), kind_of_vessel("tray")
    ('bowl', '')
    """
    kind = name.rpartition(" ")[2]
    return kind if kind in _ROOM and name != "frying pan" else ""


def tools_with_size(tools: Sequence[str], vessel: str, ml: float | None, unit: VolumeUnit) -> list[str]:
    """The tools of a step, the first that is its vessel with the size that it should have."""
    kind = kind_of_vessel(vessel)
    at = next((i for i, tool in enumerate(tools) if kind and kind_of_vessel(tool) == kind), None)
    if not ml or at is None:
        return list(tools)
    sized = say("{tool} ({size} or more)", tool=tools[at], size=size_in_words(ml, unit))
    return [*tools[:at], sized, *tools[at + 1 :]]


def size_in_words(ml: float, unit: VolumeUnit) -> str:
    """The next size that a vessel comes in, in litres; in quarts where volumes are told in ounces.

    >>> size_in_words(1300, "ml"), size_in_words(1300, "fl oz")
    ('1.5 l', '1.5 qt')
    """
    litres, name = (ml / _QUART_ML, "qt") if unit == "fl oz" else (ml / 1000.0, "l")
    return f"{format_figure(next((size for size in _SIZES if size >= litres), litres), 'g')} {name}"

"""Where the work can hurt someone: short words, shown at the step where they matter.

Usual kitchen care, not a validated safety process; local food law and licensed practice come first.
"""

from __future__ import annotations

from collections.abc import Iterable

from pydantic import BaseModel, ConfigDict

from kemble.core.sheet import Sheet
from kemble.core.ways.base import Way


class Caution(BaseModel):
    model_config = ConfigDict(frozen=True)

    id: str
    title: str
    says: str


_TABLE: tuple[tuple[str, str, str], ...] = (
    (
        "choking",
        "Choking",
        "Sticky pieces can choke. Cut small for children and old people; sit, moisten, chew, with someone near. "
        "Not for infants or anyone who swallows badly.",
    ),
    ("steam", "Steam", "Heat down, then tilt the lid away from you. Dry cloths on the handles."),
    (
        "boil-dry",
        "Boiled dry",
        "A steamer that boils dry can scorch and crack. Heat off, and let it cool before any water goes in.",
    ),
    (
        "molten-sugar",
        "Molten sugar",
        "Amber sugar is far hotter than boiling water and clings. Off the heat, add hot liquid a little at a time, "
        "at arm's length: it erupts. No children at the stove.",
    ),
    (
        "hot-heart",
        "Hot heart",
        "The filling is hotter than the skin. Let a bowl stand two minutes; bite small.",
    ),
    (
        "public",
        "Serving the public",
        "For sale or public service, local food law, labelling and a licensed kitchen come first. "
        "These figures are not a safety validation.",
    ),
    (
        "spoilage",
        "Spoilage",
        "Something in it spoils: two hours out of the cold at the most, then chill it fast, and reheat it through.",
    ),
    ("infants", "Honey", "No honey for infants."),
)
CAUTIONS: dict[str, Caution] = {row[0]: Caution(id=row[0], title=row[1], says=row[2]) for row in _TABLE}


def allergens(sheet: Sheet) -> list[str]:
    """Every allergen in any part of the sheet, in alphabetical order."""
    return sorted({name for part in sheet.parts for line in part.lines for name in line.item.allergens})


def perishable(sheet: Sheet) -> bool:
    return any(line.item.perishable for part in sheet.parts for line in part.lines)


def cautions(sheet: Sheet, way: Way, step_cautions: Iterable[str]) -> list[Caution]:
    """The cautions of a sheet: its way's, its steps', and what its ingredients bring."""
    ids = [*way.cautions, *(c for c in step_cautions if c)]
    if perishable(sheet):
        ids.append("spoilage")
    if any(line.item.id.endswith("honey") for part in sheet.parts for line in part.lines):
        ids.append("infants")
    found = [CAUTIONS[caution_id] for caution_id in dict.fromkeys(ids)]
    names = allergens(sheet)
    if names:
        words = ", ".join(names)
        found.append(
            Caution(
                id="allergens",
                title="Allergens",
                says=f"Contains {words}. Rice is free of gluten only if its mill is: read the packet.",
            )
        )
    return found

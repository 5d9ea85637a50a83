"""An archive put into a kitchen: in its place, or beside what is there already, as much of it as is chosen."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from django.db import models

from kemble.core.plan.occasion import DayPlan
from kemble.server.archive import BY_NAME, SORTS, Archive, Row, Sort, renumbered
from kemble.server.learning import relearn
from kemble.server.models import KitchenRecord, OccasionRecord
from kemble.server.turns import writing

GroupId = Literal["settings", "sheets", "occasions", "log", "benches"]


@dataclass(frozen=True)
class Group:
    """What is chosen together: a word for it, and its sorts, what the others belong to first."""

    label: str
    sorts: tuple[str, ...]


GROUPS: Mapping[GroupId, Group] = {
    "settings": Group("the kitchen itself: its tins, its stove, what was measured", ()),
    "sheets": Group("sheets, with every revision", ("sheets", "revisions")),
    "log": Group(
        "makings, with their log, tastings and pictures", ("runs", "events", "batches", "tastings", "stock", "pictures")
    ),
    "occasions": Group("occasions", ("occasions",)),
    "benches": Group("what was weighed on the bench, and what was tasted blind", ("benches", "marks", "splits")),
}


def _said(document: Row) -> str:
    return json.dumps(document, sort_keys=True)


# By what a thing of the file is known to be here already. What belongs to such a one is here with it.
_KNOWN_BY: Mapping[str, Callable[[Any], object]] = {
    "sheets": lambda row: (row.title, _said(row.document)),
    "occasions": lambda row: (row.title, row.serve, _said(row.document)),
    "runs": lambda row: (row.title, row.began, row.clock_began, row.pace),
    "pictures": lambda row: row.uid,
    "benches": lambda row: (row.began, _said(row.setup)),
    "splits": lambda row: (row.title, row.made),
}


@dataclass(frozen=True)
class Found:
    """Of one group: how many of its first sort there are in the file, and how many of those are here already."""

    id: GroupId
    there: int
    here: int


def looked_at(kitchen: KitchenRecord, archive: Archive) -> list[Found]:
    """What an archive holds beside what is here."""
    found = [Found("settings", 1, int(archive.kitchen == kitchen.typed))]
    sheets = _here(kitchen, archive, "sheets", {})
    for name, group in GROUPS.items():
        if group.sorts:
            first = group.sorts[0]
            same = sheets if first == "sheets" else _here(kitchen, archive, first, sheets)
            found.append(Found(name, len(archive.rows[first]), len(same)))
    return found


def _here(kitchen: KitchenRecord, archive: Archive, name: str, sheets: Mapping[int, int]) -> dict[int, int]:
    """What of one sort in the file is here already: its number in the file, and its own."""
    by = _KNOWN_BY[name]
    known = {by(row): row.pk for row in BY_NAME[name].rows(kitchen) if getattr(row, "dropped", None) is None}
    found = {}
    for number, (row, _) in enumerate(archive.rows[name], start=1):
        key: object
        if isinstance(row, OccasionRecord):
            key = (row.title, row.serve, _said(renumbered(row.document, sheets.get)))
        else:
            key = by(row)
        if key in known and getattr(row, "dropped", None) is None:
            found[number] = known[key]
    return found


def put_in(kitchen: KitchenRecord, archive: Archive, groups: Iterable[GroupId]) -> dict[str, int]:
    """Add what was chosen, but for what is here already. The number of things added, by sort."""
    chosen = set(groups)
    wanted = {name for one in chosen for name in GROUPS[one].sorts}
    with writing():
        if "settings" in chosen:
            _settle(kitchen, archive)
        added = _insert(kitchen, archive, wanted, dropped=False)
    relearn(kitchen)
    return added


def put_in_its_place(kitchen: KitchenRecord, archive: Archive) -> dict[str, int]:
    """The kitchen becomes the one of the file, thrown-away things and all. Make a backup first."""
    with writing():
        for sort in reversed(SORTS):
            sort.rows(kitchen).delete()
        _settle(kitchen, archive)
        added = _insert(kitchen, archive, {sort.name for sort in SORTS}, dropped=True)
    relearn(kitchen)
    return added


def _settle(kitchen: KitchenRecord, archive: Archive) -> None:
    kitchen.document = archive.kitchen.model_dump(mode="json")
    kitchen.set_up, kitchen.revision = archive.set_up, kitchen.revision + 1
    kitchen.save(update_fields=["document", "set_up", "revision"])


def _insert(kitchen: KitchenRecord, archive: Archive, wanted: set[str], *, dropped: bool) -> dict[str, int]:
    """`dropped`: what was thrown away there too."""
    ids: dict[str, dict[int, int]] = {}
    fresh: dict[str, set[int]] = {}
    added: dict[str, int] = {}
    for sort in SORTS:
        ids[sort.name] = _here(kitchen, archive, sort.name, ids.get("sheets", {})) if sort.name in _KNOWN_BY else {}
        fresh[sort.name] = set()
        if sort.name not in wanted:
            continue
        new: dict[int, models.Model] = {}
        for number, (row, refs) in enumerate(archive.rows[sort.name], start=1):
            if number in ids[sort.name] or (not dropped and getattr(row, "dropped", None) is not None):
                continue
            if _placed(sort, row, refs, kitchen, ids, fresh):
                new[number] = row
        sort.model._default_manager.bulk_create(new.values(), batch_size=500)
        ids[sort.name] |= {number: row.pk for number, row in new.items()}
        fresh[sort.name] = set(new)
        added[sort.name] = len(new)
    return added


def _placed(
    sort: Sort,
    row: models.Model,
    refs: Mapping[str, int | None],
    kitchen: KitchenRecord,
    ids: Mapping[str, Mapping[int, int]],
    fresh: Mapping[str, set[int]],
) -> bool:
    """Whether a row has a place here, and if so put there: what belongs to nothing, or to what was here, has none."""
    for name, to in refs.items():
        of, one = sort.refs[name], sort.model._meta.get_field(name)
        must = not one.null
        if must and (to is None or to not in fresh[of]):
            return False
        setattr(row, f"{name}_id", ids[of].get(to) if to is not None else None)
    if hasattr(row, "kitchen_id"):
        row.kitchen_id = kitchen.pk
    if isinstance(row, OccasionRecord):
        had = bool(row.document.get("dishes"))
        row.document = renumbered(row.document, ids["sheets"].get)
        if had and not row.document["dishes"]:
            return False
        row.day = DayPlan().model_dump(mode="json")
    return True

"""An archive put into a kitchen: staged row by row where nobody sees it, then made visible by one short swap.

What is read of a file goes into a kitchen of its own that nobody belongs to, some rows at a time, so that everybody else
goes on writing. Then it is made ready (what was not chosen, and what is here already, goes), and at last the staged rows
become the kitchen's. What is left over is cleared away in the same small turns.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final, Literal

from django.db import models
from django.utils import timezone

from kemble.core.computing_guard import computes
from kemble.core.plan.occasion import DayPlan
from kemble.server.exports.archive import BY_NAME, SORTS, ArchiveReader, ArchiveRow, RecordType, Row, renumbered
from kemble.server.learning.posterior import relearn
from kemble.server.models import KitchenRecord, OccasionRecord, Run, RunEvent, SheetRecord
from kemble.server.storage.fair_lock import writing

GroupId = Literal["settings", "sheets", "occasions", "log", "benches"]

_ROWS_AT_ONCE: Final = 500
_PAIRS_AT_ONCE: Final = 50
_BYTES_AT_ONCE: Final = 4 * 2**20


@dataclass(frozen=True)
class RecordGroup:
    """What is chosen together: a word for it, and its sorts, what the others belong to first."""

    label: str
    sorts: tuple[str, ...]


GROUPS: Mapping[GroupId, RecordGroup] = {
    "settings": RecordGroup("the kitchen itself: its tins, its stove, what was measured", ()),
    "sheets": RecordGroup("sheets, with every revision", ("sheets", "revisions")),
    "log": RecordGroup(
        "batches, with their log, tastings and pictures", ("runs", "events", "batches", "tastings", "stock", "pictures")
    ),
    "occasions": RecordGroup("occasions", ("occasions",)),
    "benches": RecordGroup("what was weighed, and what was tasted blind", ("benches", "marks", "splits")),
}


def _digest(document: Row) -> bytes:
    return hashlib.sha256(json.dumps(document, sort_keys=True).encode()).digest()


# By what a staged row is known to be here already. What belongs to such a one is here with it.
_KNOWN_BY: Mapping[str, Callable[[Any], object]] = {
    "sheets": lambda row: (row.title, _digest(row.document)),
    "occasions": lambda row: (row.title, row.serve, _digest(row.document)),
    "runs": lambda row: (row.title, row.began, row.clock_began, row.pace),
    "pictures": lambda row: row.uid,
    "benches": lambda row: (row.began, _digest(row.setup)),
    "splits": lambda row: (row.title, row.made),
}
_NOT_NEEDED: Final = {"runs": ("frozen",), "pictures": ("webp",)}  # to know them again


class StagingStopped(Exception):
    """Somebody called it off."""


@dataclass(slots=True)
class StagingProgress:
    """How far it is: bytes read of how many, and rows. Whoever wants it to end sets `stopped`."""

    size: int = 0
    bytes_read: int = 0
    rows: int = 0
    stopped: bool = False

    def check(self) -> None:
        """Raises Stopped where somebody called it off."""
        if self.stopped:
            raise StagingStopped


@dataclass(frozen=True)
class GroupCount:
    """Of one group: how many of its first sort there are in the file, and how many of those are here already."""

    id: GroupId
    there: int
    here: int


@dataclass(frozen=True)
class TakenCounts:
    """What came in: how many rows by sort, and how many runs that were going on elsewhere came in as ended there."""

    added: Mapping[str, int]
    ended: int = 0

    @property
    def count(self) -> int:
        return sum(self.added.values())


# --- staged ------------------------------------------------------------------


def stage(reader: ArchiveReader, progress: StagingProgress | None = None) -> KitchenRecord:
    """Read a whole file into a kitchen that nobody sees. Raises Refused or Stopped; then nothing of it stays."""
    progress = progress or StagingProgress()
    progress.size = reader.size
    with writing():
        staged = KitchenRecord.objects.create(
            document=reader.kitchen.model_dump(mode="json"), set_up=reader.set_up, staged=timezone.now()
        )
    try:
        _stage_rows(staged, reader, progress)
    except BaseException:
        discard(staged)
        raise
    return staged


def _stage_rows(staged: KitchenRecord, reader: ArchiveReader, progress: StagingProgress) -> None:
    keys: dict[str, list[int]] = {}  # of every sort, by its number in the file less one
    for sort in SORTS:
        own = keys[sort.name] = []
        for rows in _chunks(reader.rows(sort)):
            progress.check()
            for read in rows:
                _attach_to_parent(sort, read, staged, keys)
            with writing():
                sort.model._default_manager.bulk_create([read.row for read in rows])
            own.extend(read.row.pk for read in rows)
            progress.rows += len(rows)
            progress.bytes_read = reader.bytes_read


def _chunks(rows: Iterator[ArchiveRow]) -> Iterator[list[ArchiveRow]]:
    """Some rows at a time: so many, or so large together."""
    chunk: list[ArchiveRow] = []
    size = 0
    for read in rows:
        chunk.append(read)
        size += read.size
        if len(chunk) >= _ROWS_AT_ONCE or size >= _BYTES_AT_ONCE:
            yield chunk
            chunk, size = [], 0
    if chunk:
        yield chunk


def _attach_to_parent(sort: RecordType, read: ArchiveRow, staged: KitchenRecord, keys: Mapping[str, list[int]]) -> None:
    """A row under what it belongs to."""
    row: Any = read.row
    for name, to in read.refs.items():
        setattr(row, f"{name}_id", None if to is None else keys[sort.refs[name]][to - 1])
    if hasattr(row, "kitchen_id"):
        row.kitchen_id = staged.pk
    if isinstance(row, OccasionRecord):
        sheets = keys["sheets"]
        row.document = renumbered(row.document, lambda to: sheets[to - 1] if 1 <= to <= len(sheets) else None)
        row.day = DayPlan().model_dump(mode="json")


# --- looked at ---------------------------------------------------------------


def looked_at(kitchen: KitchenRecord, staged: KitchenRecord) -> list[GroupCount]:
    """What is staged, beside what is here."""
    group_counts = [GroupCount("settings", 1, int(staged.typed == kitchen.typed))]
    sheets = _matching_rows(kitchen, staged, "sheets", {})
    for name, group in GROUPS.items():
        if group.sorts:
            first = group.sorts[0]
            same = sheets if first == "sheets" else _matching_rows(kitchen, staged, first, sheets)
            group_counts.append(GroupCount(name, BY_NAME[first].rows(staged).count(), len(same)))
    return group_counts


def _matching_rows(
    kitchen: KitchenRecord, staged: KitchenRecord, name: str, sheets: Mapping[int, int]
) -> dict[int, int]:
    """What of one sort is here already: by the key of what is staged, that of what is here."""
    by, sort = _KNOWN_BY[name], BY_NAME[name]
    known = {by(row): row.pk for row in _slim(sort, kitchen) if sort.name == "pictures" or not _is_trashed(row)}
    here = {}
    for row in _slim(sort, staged):
        if _is_trashed(row):
            continue
        if isinstance(row, OccasionRecord):
            row.document = renumbered(row.document, lambda to: sheets.get(to, to))
        key = by(row)
        if key in known:
            here[row.pk] = known[key]
    return here


def _slim(sort: RecordType, kitchen: KitchenRecord) -> Iterator[Any]:
    """The rows of a sort, without what is large in them and not needed to know them again."""
    return sort.rows(kitchen).defer(*_NOT_NEEDED.get(sort.name, ())).iterator(chunk_size=_ROWS_AT_ONCE)


def _is_trashed(row: Any) -> bool:
    return getattr(row, "trashed", None) is not None


# --- taken -------------------------------------------------------------------


@computes
def take_beside(
    kitchen: KitchenRecord, staged: KitchenRecord, groups: Iterable[GroupId], progress: StagingProgress | None = None
) -> TakenCounts:
    """Add what was chosen, but for what is here already and what was thrown away there. Runs that are going on there come in
    as ended: somebody else minds them."""
    progress, chosen = progress or StagingProgress(), set(groups)
    wanted = {name for group in chosen for name in GROUPS[group].sorts}
    _drop_what_was_thrown_away(staged, progress)
    _drop_what_is_here(kitchen, staged, progress)
    ended = _end_runs(staged) if "log" in chosen else 0
    _drop_what_is_not_wanted(staged, wanted, progress)
    added = {name: BY_NAME[name].rows(staged).count() for name in wanted}
    progress.check()
    with writing():
        if "settings" in chosen:
            _take_settings(kitchen, staged)
        _move_all(staged, kitchen)
    discard(staged)
    relearn(kitchen)
    return TakenCounts(added, ended)


@computes
def take_in_place(
    kitchen: KitchenRecord, staged: KitchenRecord, progress: StagingProgress | None = None
) -> TakenCounts:
    """The kitchen becomes the one of the file, thrown-away things and all. Make a backup first."""
    (progress or StagingProgress()).check()
    added = {sort.name: sort.rows(staged).count() for sort in SORTS}
    with writing():
        aside = KitchenRecord.objects.create(staged=timezone.now())
        _move_all(kitchen, aside)
        _take_settings(kitchen, staged)
        _move_all(staged, kitchen)
    for over in (staged, aside):
        discard(over)
    relearn(kitchen)
    return TakenCounts(added)


def _take_settings(kitchen: KitchenRecord, staged: KitchenRecord) -> None:
    kitchen.document, kitchen.set_up = staged.document, staged.set_up
    kitchen.revision += 1
    kitchen.save(update_fields=["document", "set_up", "revision"])


def _move_all(of: KitchenRecord, to: KitchenRecord) -> None:
    """Every row of one kitchen to another: what belongs to a row goes with it."""
    for sort in SORTS:
        if sort.of == "kitchen":
            sort.rows(of).order_by().update(kitchen=to)


def _drop_what_was_thrown_away(staged: KitchenRecord, progress: StagingProgress) -> None:
    for sort in reversed(SORTS):
        if any(column.name == "trashed" for column in sort.model._meta.concrete_fields):
            _delete(sort.rows(staged).exclude(trashed=None), progress)


def _drop_what_is_here(kitchen: KitchenRecord, staged: KitchenRecord, progress: StagingProgress) -> None:
    """Staged rows that are here already go; what refers to them refers to those that are here from now on."""
    sheets = _matching_rows(kitchen, staged, "sheets", {})
    for name in _KNOWN_BY:
        here = sheets if name == "sheets" else _matching_rows(kitchen, staged, name, sheets)
        for some in _in_chunks(list(here.items())):
            progress.check()
            with writing():
                for own, there in some:
                    for rows, ref in _rows_that_may_refer_to(name):
                        rows.filter(**{ref: own}).update(**{ref: there})
            _delete(BY_NAME[name].rows(staged).filter(pk__in=[own for own, _ in some]), progress)
    for row in OccasionRecord.everything.filter(kitchen=staged).iterator():
        document = renumbered(row.document, lambda to: sheets.get(to, to))
        if document != row.document:
            with writing():
                OccasionRecord.everything.filter(pk=row.pk).update(document=document)


def _rows_that_may_refer_to(name: str) -> Iterator[tuple[models.Manager[Any], str]]:
    """Rows of other sorts that may stand without what they refer to, and the field by which they do."""
    for other in SORTS:
        for ref, to in other.refs.items():
            if to == name and other.model._meta.get_field(ref).null:
                yield other.model._base_manager, ref


def _end_runs(staged: KitchenRecord) -> int:
    """Runs that were going on when the file was written are ended at the last thing that happened in them."""
    going = list(Run.objects.filter(kitchen=staged, finished=None).defer("frozen"))
    for run in going:
        last = run.events.order_by("at", "id").last()
        at = last.at if last else run.clock_began
        with writing():
            RunEvent.objects.create(run=run, uid=f"ended-elsewhere-{run.pk}", at=at, document={"kind": "finished"})
            Run.objects.filter(pk=run.pk).update(finished=_wall(run, at))
    return len(going)


def _wall(run: Run, at: datetime) -> datetime:
    """The wall's time of an instant of the run's own clock."""
    return run.began + (at - run.clock_began) / run.pace


def _drop_what_is_not_wanted(staged: KitchenRecord, wanted: set[str], progress: StagingProgress) -> None:
    """What was not chosen goes, and occasions that are left without their sheets."""
    for sort in reversed(SORTS):
        if sort.name not in wanted and sort.name != "removed" and sort.of == "kitchen":
            _delete(sort.rows(staged), progress)
    _delete(BY_NAME["removed"].rows(staged), progress)
    standing = set(SheetRecord.everything.filter(kitchen=staged).values_list("pk", flat=True))
    for row in OccasionRecord.everything.filter(kitchen=staged).iterator():
        here = {dish["sheet"] for dish in row.document["dishes"]} - standing
        known = here & set(SheetRecord.everything.filter(pk__in=here).values_list("pk", flat=True))
        document = renumbered(row.document, lambda to, there=standing | known: to if to in there else None)  # type: ignore[misc]
        with writing():
            if document["dishes"] or not row.document["dishes"]:
                OccasionRecord.everything.filter(pk=row.pk).update(document=document)
            else:
                row.delete()


# --- cleared away ------------------------------------------------------------


def discard(staged: KitchenRecord) -> None:
    """Everything that is staged goes, and the kitchen that held it."""
    assert staged.staged is not None
    for sort in reversed(SORTS):
        _delete(sort.rows(staged), StagingProgress())
    with writing():
        KitchenRecord.objects.filter(pk=staged.pk).delete()


def discard_left_over(before: datetime) -> None:
    """What a stop or a power cut left staged, begun before this start."""
    for staged in KitchenRecord.objects.filter(staged__lt=before):
        discard(staged)


def _delete(rows: models.QuerySet[Any], progress: StagingProgress) -> None:
    """Delete rows, some at a time, so that others write in between."""
    while keys := list(rows.order_by().values_list("pk", flat=True)[:_ROWS_AT_ONCE]):
        progress.check()
        with writing():
            rows.model._base_manager.filter(pk__in=keys).only("pk").delete()


def _in_chunks(pairs: list[tuple[int, int]]) -> Iterator[list[tuple[int, int]]]:
    for at in range(0, len(pairs), _PAIRS_AT_ONCE):
        yield pairs[at : at + _PAIRS_AT_ONCE]

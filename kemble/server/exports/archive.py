"""A whole kitchen in one file: a zip of JSON lines, one file for each sort of thing, and its pictures as they are.

What is numbered in the database is numbered anew in the file, from 1 in the order in which it was kept, so that a kitchen
that was taken out and put in is taken out as the same file. It is read as a stream, a row at a time. Nothing of the file is
believed: how large it unpacks, how many rows there are of a sort, which names it holds, every value by the field that it
is for, every document by the core's own readers.
"""

from __future__ import annotations

import json
import zipfile
import zlib
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import IO, Any, Final

from django.core.exceptions import ValidationError as FieldError
from django.db import models
from pydantic import ValidationError

from kemble.core.facts.problems import Refused, problems_from, refuse
from kemble.core.kitchen.document import LEARNED, Kitchen
from kemble.core.learn.observations import observation_from
from kemble.core.log.blind_tasting import BlindTastingDesign, StoredAnswer
from kemble.core.log.predictions import SCALE, ComparedPrediction
from kemble.core.plan.occasion import Occasion
from kemble.core.run.events import event_from
from kemble.core.run.frozen_run import frozen_from
from kemble.core.run.weigh_out import BenchSetup, mark_from
from kemble.core.sentences import say
from kemble.core.sheet.document import sheet_from
from kemble.core.text_cleaning import clean_stored, clean_stored_json
from kemble.server.models import (
    Batch,
    Bench,
    BenchMark,
    BlindTasting,
    CuePicture,
    KitchenRecord,
    OccasionRecord,
    RemovedEquipment,
    Run,
    RunEvent,
    SheetRecord,
    SheetRevision,
    Stock,
    Tasting,
)
from kemble.server.runs.pictures import MOST_BYTES as MOST_PICTURE
from kemble.server.runs.pictures import as_webp, is_plain_webp
from kemble.server.storage.fields import DocumentTextField

FORMAT, VERSION = "kemble-archive", 1
MOST_BYTES = 400 * 2**20  # of the file as it comes
MOST_UNPACKED = 2 * 2**30
MAX_RATIO: Final = 1_000  # of a file in it to its packed size; a kitchen's own come to some two hundred
_RATIO_FROM: Final = 2**20  # smaller ones may be packed as tightly as they will
_MOST_FILES = 60_000
_MOST_LINE = 8 * 2**20
_HEAD = "kitchen.json"
_ALWAYS = (1980, 1, 1, 0, 0, 0)  # the time on every file in it: the same kitchen is the same file

Row = dict[str, Any]


def _marks(tastes: Row) -> Row:
    if not all(isinstance(mark, int) and mark in SCALE for mark in tastes.values()):
        raise ValueError("a mark off the scale")
    return tastes


def _read_seen(seen: Row) -> list[object]:
    compared = [ComparedPrediction.model_validate(item) for item in seen.get("compared") or ()]
    return [*compared, *(observation_from(item) for item in seen.get("sights") or ())]


@dataclass(frozen=True)
class RecordType:
    """One sort of thing that a kitchen holds: its rows, which of its fields name rows of another sort, and what reads its
    documents (raising for one that is none). `most` rows of it are read. `leaves` are fields that are worked out anew."""

    name: str
    model: type[models.Model]
    of: str  # how a row knows its kitchen
    most: int
    reads: Callable[[Any], object]
    refs: Mapping[str, str] = field(default_factory=dict)
    leaves: tuple[str, ...] = ()

    def rows(self, kitchen: KitchenRecord) -> models.QuerySet[Any]:
        """Every one of them, thrown away or not, in the order in which they were kept."""
        manager = getattr(self.model, "everything", self.model._default_manager)
        query_set: models.QuerySet[Any] = manager.using(kitchen._state.db).filter(**{self.of: kitchen}).order_by("pk")
        return query_set

    @property
    def fields(self) -> list[models.Field[Any, Any]]:
        """What of a row is in the file."""
        return [
            column
            for column in self.model._meta.concrete_fields
            if not column.primary_key and column.name not in ("kitchen", *self.leaves)
        ]


SORTS: tuple[RecordType, ...] = (
    RecordType("sheets", SheetRecord, "kitchen", 10_000, lambda row: row.sheet, leaves=("card",)),
    RecordType("revisions", SheetRevision, "record__kitchen", 100_000, lambda row: sheet_from(row.document), {"record": "sheets"}),
    RecordType(
        "occasions",
        OccasionRecord,
        "kitchen", 5_000,
        lambda row: Occasion.model_validate(row.document),
        leaves=("planned_by", "day"),
    ),
    RecordType(
        "runs",
        Run,
        "kitchen", 20_000,
        lambda row: frozen_from(row.frozen),
        {"sheet": "sheets", "occasion": "occasions"},
    ),
    RecordType("events", RunEvent, "run__kitchen", 500_000, lambda row: event_from(row.document, uid=row.uid, at=row.at), {"run": "runs"}),
    RecordType("batches", Batch, "kitchen", 20_000, lambda row: (_marks(row.tastes), _read_seen(row.seen)), {"run": "runs"}),
    RecordType("tastings", Tasting, "batch__kitchen", 50_000, lambda row: _marks(row.tastes), {"batch": "batches"}),
    RecordType("stock", Stock, "kitchen", 20_000, lambda row: row.pieces, {"batch": "batches"}),
    RecordType("pictures", CuePicture, "kitchen", 20_000, lambda row: row.step, {"run": "runs"}),
    RecordType("benches", Bench, "kitchen", 20_000, lambda row: BenchSetup.model_validate(row.setup), {"sheet": "sheets"}),
    RecordType("marks", BenchMark, "bench__kitchen", 300_000, lambda row: mark_from(row.uid, row.at, row.document), {"bench": "benches"}),
    RecordType(
        "splits",
        BlindTasting,
        "kitchen", 5_000,
        lambda row: (BlindTastingDesign.model_validate(row.document), [StoredAnswer.model_validate(answer) for answer in row.answers]),
    ),
    RecordType("removed", RemovedEquipment, "kitchen", 10_000, lambda row: dict(row.document)),
)  # fmt: skip
BY_NAME: Mapping[str, RecordType] = {sort.name: sort for sort in SORTS}


def key_of(column: models.Field[Any, Any]) -> str:
    """What a field is called in the file: as its column, so that a file of before is read."""
    return column.db_column or column.name


def write_archive(kitchen: KitchenRecord, out: IO[bytes], made: datetime) -> None:
    """The kitchen into a file."""
    numbers: dict[str, dict[int, int]] = {}
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        head = {
            "format": FORMAT,
            "version": VERSION,
            "made": made.isoformat(timespec="seconds"),
            "set_up": kitchen.set_up,
            "kitchen": kitchen.document,
        }
        _write_member(packed, _HEAD, json.dumps(head, ensure_ascii=False, indent=1).encode())
        for sort in SORTS:
            known = numbers[sort.name] = {}
            with packed.open(_info(f"{sort.name}.jsonl"), "w", force_zip64=True) as file:
                for number, row in enumerate(sort.rows(kitchen).iterator(chunk_size=500), start=1):
                    known[row.pk] = number
                    file.write(json.dumps(_row_document(sort, row, numbers), ensure_ascii=False).encode() + b"\n")
            if sort.model is CuePicture:
                for row in sort.rows(kitchen).iterator(chunk_size=50):
                    _write_member(packed, _picture_name(known[row.pk]), bytes(row.webp), zipfile.ZIP_STORED)


def _row_document(sort: RecordType, row: models.Model, numbers: Mapping[str, Mapping[int, int]]) -> Row:
    told: Row = {}
    for column in sort.fields:
        key, value = key_of(column), getattr(row, column.attname)
        if key in sort.refs:
            told[key] = None if value is None else numbers[sort.refs[key]][value]
        elif isinstance(column, models.BinaryField):
            continue
        elif isinstance(column, DocumentTextField):
            told[key] = json.loads(value)
        elif isinstance(value, datetime | date):
            told[key] = value.isoformat()
        else:
            told[key] = value
    if isinstance(row, BlindTasting):  # who answered is a number that means something only here
        told["answers"] = [{"taster": answer["taster"], "code": answer["code"]} for answer in row.answers]
    if isinstance(row, OccasionRecord):
        told["document"] = renumbered(row.document, numbers["sheets"].get)
    return told


def renumbered(document: Row, number: Callable[[int], int | None]) -> Row:
    """An occasion's document with its sheets under other numbers, and without those that have none."""
    dishes: list[Row] = []
    places: dict[int, int] = {}
    for i, dish in enumerate(document.get("dishes", [])):
        now = number(dish["sheet"])
        if now is not None:
            places[i] = len(dishes)
            dishes.append({**dish, "sheet": now})
    pins = [{**pin, "dish": places[pin["dish"]]} for pin in document.get("pins", []) if pin["dish"] in places]
    return {**document, "dishes": dishes, "pins": pins}


def _picture_name(number: int) -> str:
    return f"pictures/{number:06d}.webp"


def _info(name: str, how: int = zipfile.ZIP_DEFLATED) -> zipfile.ZipInfo:
    info = zipfile.ZipInfo(name, _ALWAYS)
    info.compress_type = how
    return info


def _write_member(packed: zipfile.ZipFile, name: str, content: bytes, how: int = zipfile.ZIP_DEFLATED) -> None:
    packed.writestr(_info(name, how), content)


@dataclass(frozen=True, slots=True)
class ArchiveRow:
    """A row of the file: a model that is not kept yet, and what it refers to by the file's own numbers."""

    number: int
    row: models.Model
    refs: Mapping[str, int | None]
    size: int  # of what was read for it, in bytes


class ArchiveReader:
    """A kitchen's file that may be anything: its head, then its rows, one sort after the other in the order of SORTS.

    Everything raises Refused with where in the file the trouble lies.
    """

    def __init__(self, packed: zipfile.ZipFile) -> None:
        self._packed = packed
        self._names = set(packed.namelist())
        self.counts: dict[str, int] = {}
        with _refusing_broken_zip():
            _check_sizes(packed)
            head = _head(packed)
        self.kitchen, self.set_up, self.made = head.kitchen, head.set_up, head.made
        self.size = sum(info.file_size for info in packed.infolist())
        self.bytes_read = packed.getinfo(_HEAD).file_size

    def rows(self, sort: RecordType) -> Iterator[ArchiveRow]:
        """The rows of a sort, each once; those of the sorts that it refers to have been read before."""
        self.counts[sort.name] = 0
        name = f"{sort.name}.jsonl"
        if name not in self._names:
            return
        with _refusing_broken_zip(), self._packed.open(name) as file:
            while line := file.readline(_MOST_LINE + 1):
                number = self.counts[sort.name] = self.counts[sort.name] + 1
                if len(line) > _MOST_LINE:
                    refuse(
                        f"{sort.name}.{number}",
                        say("is over {most_line:,} bytes", most_line=_MOST_LINE),
                        say("at most {most_line:,} bytes", most_line=_MOST_LINE),
                    )
                if number > sort.most:
                    refuse(name, say("has over {most:,} rows", most=sort.most), say("at most {most:,}", most=sort.most))
                row, refs = _read_row(sort, number, line)
                self._check_refs(sort, number, refs)
                size = len(line) + (self._picture(number, row) if isinstance(row, CuePicture) else 0)
                self.bytes_read += size
                yield ArchiveRow(number, row, refs, size)

    def _check_refs(self, sort: RecordType, number: int, refs: Mapping[str, int | None]) -> None:
        for name, to in refs.items():
            if to is not None and not 1 <= to <= self.counts[sort.refs[name]]:
                refuse(
                    f"{sort.name}.{number}.{name}",
                    say("{to} is not in the file", to=to),
                    say("one of {refs}", refs=sort.refs[name]),
                )

    def _picture(self, number: int, row: CuePicture) -> int:
        """Its picture into a row: as it is when it is plain WebP, encoded anew when anything else came. Its size."""
        name = _picture_name(number)
        if name not in self._names:
            refuse(name, say("is missing"), say("a picture for each row of pictures.jsonl"))
        content = _content(self._packed, name, MOST_PICTURE)
        row.webp = content if is_plain_webp(content) else as_webp(content)
        return len(content)


@contextmanager
def open_archive(file: IO[bytes]) -> Iterator[ArchiveReader]:
    """A kitchen's file, to be read while this is open. Raises Refused for one that is none."""
    with _refusing_broken_zip():
        packed = zipfile.ZipFile(file)
    with packed:
        yield ArchiveReader(packed)


@contextmanager
def _refusing_broken_zip() -> Iterator[None]:
    """What a file that is no whole zip makes of its reader is a refusal."""
    try:
        yield
    except (zipfile.BadZipFile, zipfile.LargeZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError, OSError):
        refuse("file", say("is not a whole zip file"), say("a kitchen that Kemble wrote as one file"))


@dataclass(frozen=True)
class _ArchiveHead:
    kitchen: Kitchen
    set_up: bool
    made: str


def _check_sizes(packed: zipfile.ZipFile) -> None:
    infos = packed.infolist()
    if len(infos) > _MOST_FILES:
        refuse(
            "file",
            say("holds {files:,} files", files=len(infos)),
            say("at most {most_files:,}", most_files=_MOST_FILES),
        )
    if sum(info.file_size for info in infos) > MOST_UNPACKED:
        refuse("file", say("unpacks to more than two gigabytes"), say("a smaller one"))
    for info in infos:
        if info.file_size > max(_RATIO_FROM, MAX_RATIO * info.compress_size):
            refuse(
                info.filename[:60],
                say("unpacks to {ratio:,} times its size", ratio=info.file_size // max(1, info.compress_size)),
                say("at most {most:,} times", most=MAX_RATIO),
            )
    expected = {_HEAD, *(f"{sort.name}.jsonl" for sort in SORTS)}
    for info in infos:
        if info.filename not in expected and not info.filename.startswith("pictures/"):
            refuse(
                "file",
                say("holds “{filename}”", filename=info.filename[:60]),
                ", ".join(sorted(expected)) + say(" and pictures"),
            )


def _head(packed: zipfile.ZipFile) -> _ArchiveHead:
    try:
        told = clean_stored(json.loads(_content(packed, _HEAD, _MOST_LINE)))
    except (KeyError, ValueError, RecursionError):
        refuse(_HEAD, say("is missing or no JSON"), say("a kitchen that Kemble wrote as one file"))
    if not isinstance(told, dict) or told.get("format") != FORMAT:
        refuse(_HEAD, say("is not of a kitchen that Kemble wrote"), f'"format": "{FORMAT}"')
    if told.get("version") != VERSION:
        refuse(f"{_HEAD}.version", say("is of a newer Kemble"), f"{VERSION}")
    try:
        kitchen = Kitchen.model_validate({k: v for k, v in dict(told["kitchen"]).items() if k not in LEARNED})
    except (KeyError, TypeError, ValueError) as error:
        problems = problems_from(error, Kitchen) if isinstance(error, ValidationError) else []
        if problems:
            raise Refused(problems) from None
        refuse(f"{_HEAD}.kitchen", say("is missing"), say("a kitchen's settings"))
    return _ArchiveHead(kitchen, told.get("set_up") is True, str(told.get("made", ""))[:40])


def _content(packed: zipfile.ZipFile, name: str, most: int) -> bytes:
    """A file of it, no more than so many bytes of it whatever its own header says."""
    with packed.open(name) as file:
        content = file.read(most + 1)
    if len(content) > most:
        refuse(name, say("is over {most:,} bytes", most=most), say("at most {most:,} bytes", most=most))
    return content


def _read_row(sort: RecordType, number: int, line: bytes) -> tuple[models.Model, Mapping[str, int | None]]:
    where = f"{sort.name}.{number}"
    try:
        text = line.decode().rstrip("\n")
        told = clean_stored_json(text, json.loads(text, parse_constant=_no_number))
    except (ValueError, RecursionError):
        refuse(where, say("is no JSON"), say("one JSON object a line"))
    if not isinstance(told, dict):
        refuse(where, say("is no JSON object"), say("one JSON object a line"))
    known = {key_of(column): column for column in sort.fields if not isinstance(column, models.BinaryField)}
    for name in told.keys() - known.keys():
        refuse(f"{where}.{name[:40]}", say("is not known"), ", ".join(known))
    values: Row = {}
    refs: dict[str, int | None] = {}
    for name, column in known.items():
        if name in sort.refs:
            to = told.get(name)
            if (to is None and not column.null) or (
                to is not None and (not isinstance(to, int) or isinstance(to, bool))
            ):
                refuse(
                    f"{where}.{name}", say("is not a number in the file"), say("one of {refs}", refs=sort.refs[name])
                )
            refs[name] = to
        elif name in told:
            values[column.name] = _read_value(f"{where}.{name}", column, told[name])
        elif not column.has_default() and not column.null and not column.blank:
            refuse(f"{where}.{name}", say("is missing"), say("a value"))
    row = sort.model(**values)
    try:
        sort.reads(row)
    except Refused as refused:
        raise Refused([p.model_copy(update={"path": f"{where}.{p.path}"}) for p in refused.problems]) from None
    except (KeyError, TypeError, ValueError, AttributeError, models.ObjectDoesNotExist):
        refuse(where, say("is not whole"), say("one of {name} as Kemble writes them", name=sort.name))
    return row, refs


def _no_number(word: str) -> float:
    raise ValueError(f"{word} is no number")


def _read_value(where: str, column: models.Field[Any, Any], told: Any) -> Any:
    """A value as its field takes it."""
    if isinstance(column, models.JSONField):
        if not isinstance(told, type(column.get_default() if column.has_default() else {})):
            refuse(where, say("is of the wrong sort"), say("as Kemble writes it"))
        return told
    if isinstance(column, models.BooleanField | models.IntegerField | models.FloatField) and isinstance(told, str):
        refuse(where, say("is not a number"), say("as Kemble writes it"))
    if isinstance(column, models.CharField | models.TextField) and not isinstance(told, str):
        refuse(where, say("is not text"), "text")
    try:
        value = column.to_python(told)
        column.run_validators(value)
        if value is None and not column.null:
            refuse(where, say("is missing"), say("a value"))
        if isinstance(value, datetime) and value.tzinfo is None:
            refuse(where, say("has no time zone"), say("an instant such as 2026-12-05T15:30:00Z"))
    except (FieldError, OverflowError) as error:
        says = "; ".join(error.messages) if isinstance(error, FieldError) else say("is too large")
        refuse(where, say("will not do: {says}", says=says[:120]), f"a {column.get_internal_type()}")
    return value

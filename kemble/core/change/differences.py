"""What differs between two sheets, in a cook's words: lines, parts, schools, tin, pieces, heat, rest."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.step_names import title_of
from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import say, translate
from kemble.core.sheet.document import Sheet
from kemble.core.sheet.method import Entry, MethodText, OwnStep, StepChange
from kemble.core.sheet.parts import Line, Part

# Fields of a sheet that hold plain values, and what they are called.
_PLAIN: Mapping[str, str] = {
    "grain": "grain",
    "pieces": "pieces",
    "rolled": "rolled out",
    "vessel": "tin",
    "bag": "bag",
    "wrap": "leaf",
    "heat": "heat",
    "start": "start",
    "cut": "cut",
}
_UNITS = ("_mm", "_min", "_c", "_g", "_pct", "_ml")
_MOST = 12


def differences(before: Sheet, after: Sheet, shelf: Shelf) -> list[str]:
    """Each difference as a few words, the ingredients first; at most twelve, then how many more."""
    result = list(_all(before, after, shelf))
    more = len(result) - _MOST
    return result if more <= 0 else [*result[:_MOST], say("and {more} more", more=more)]


def _all(before: Sheet, after: Sheet, shelf: Shelf) -> Iterator[str]:
    if before.title != after.title:
        yield say("called “{title}”, not “{before}”", title=after.title, before=before.title)
    was, now = ({part.id: part for part in sheet.parts} for sheet in (before, after))
    for part_id in dict.fromkeys((*was, *now)):
        old, new = was.get(part_id), now.get(part_id)
        if old is None and new is not None:
            yield say("{called} is new", called=new.called)
        elif new is None and old is not None:
            yield say("{called} is gone", called=old.called)
        elif old is not None and new is not None and old != new:
            yield from _part_differences(old, new, shelf)
    yield from _schools(before, after)
    item, other = (sheet.model_dump(mode="json") for sheet in (before, after))
    yield from _method_differences(before, after)
    for name, words in _PLAIN.items():
        if item.get(name) != other.get(name):
            yield from _named_values(words, item.get(name), other.get(name))


def _part_differences(old: Part, new: Part, shelf: Shelf) -> Iterator[str]:
    was, now = _lines_by_ingredient(old), _lines_by_ingredient(new)
    for key in dict.fromkeys((*was, *now)):
        before, after = was.get(key), now.get(key)
        item = shelf.item(key[0])
        name = item.name if item else key[0]
        if before is None and after is not None:
            yield say("{name}, {amount}, is new", name=name, amount=_amount_words(after))
        elif after is None and before is not None:
            yield say("{name} is gone", name=name)
        elif before is not None and after is not None and before != after:
            if before.amount != after.amount:
                yield say(
                    "{name} {amount}, not {before}",
                    name=name,
                    amount=_amount_words(after),
                    before=_amount_words(before),
                )
            else:
                yield say("{name} goes in otherwise", name=name)
    if old.schools != new.schools or old.family != new.family:
        yield say("{called} is made otherwise", called=new.called)
    if old.takes != new.takes or old.rest != new.rest:
        yield say("{called} takes or goes otherwise", called=new.called)


def _lines_by_ingredient(part: Part) -> dict[tuple[str, int], Line]:
    """A part's lines by their ingredient, and the how many-th of it."""
    result: dict[tuple[str, int], Line] = {}
    for line in part.lines:
        nth = sum(1 for name, _ in result if name == line.ingredient)
        result[line.ingredient, nth] = line
    return result


def _amount_words(line: Line) -> str:
    return f"{line.amount.value:.4g} {line.amount.unit.replace('_', ' ')}"


def _schools(before: Sheet, after: Sheet) -> Iterator[str]:
    for choice in WAYS[after.way].choices:
        was, now = before.school(choice.id), after.school(choice.id)
        if was != now:
            label = next((school.label for school in choice.schools if school.id == now), now)
            yield f"{choice.title}: {label}"


def _method_differences(before: Sheet, after: Sheet) -> Iterator[str]:
    """Steps that the cook does otherwise, of their own, or no longer; by their titles."""
    was, now = ({_entry_name(entry): entry for entry in sheet.method} for sheet in (before, after))
    for name in dict.fromkeys((*was, *now)):
        old, new = was.get(name), now.get(name)
        if old == new:
            continue
        title = _entry_title(new or old)
        if isinstance(new, StepChange) and new.skip and not (isinstance(old, StepChange) and old.skip):
            yield say("“{title}” is left out", title=title)
        elif isinstance(new or old, MethodText | OwnStep) and (old is None or new is None):
            yield say("“{title}” is new", title=title) if new else say("“{title}” is gone", title=title)
        elif (minutes := getattr(new, "minutes", None)) and minutes != getattr(old, "minutes", None):
            yield say("“{title}”: {minutes:.4g} min", title=title, minutes=minutes)
        else:
            yield say("“{title}” is done otherwise", title=title)


def _entry_name(entry: Entry) -> str:
    return entry.step if isinstance(entry, StepChange) else entry.own if isinstance(entry, OwnStep) else entry.text


def _entry_title(entry: Entry | None) -> str:
    if isinstance(entry, OwnStep):
        return entry.title or translate(COMMON_STEPS[entry.common].title)
    return title_of(entry.step) if isinstance(entry, StepChange) else entry.text[:60] if entry else ""


def _named_values(words: str, was: Any, now: Any) -> Iterator[str]:
    """Values by their names."""
    old, new = dict(_flat(was)), dict(_flat(now))
    for path in dict.fromkeys((*old, *new)):
        if old.get(path) != new.get(path):
            name = path.rpartition(".")[2]
            plain = name.rpartition("_")[0] if name.endswith(_UNITS) else name
            yield say(
                "{words}, {field} {now}, not {before}",
                words=words,
                field=plain.replace("_", " "),
                now=_value_words(new.get(path)),
                before=_value_words(old.get(path)),
            )


def _flat(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every plain value in a document, by its path."""
    if isinstance(value, dict):
        for name, inner in value.items():
            yield from _flat(inner, f"{path}.{name}" if path else name)
    elif isinstance(value, list):
        for i, inner in enumerate(value):
            yield from _flat(inner, f"{path}.{i}")
    else:
        yield path, value


def _value_words(value: object) -> str:
    return "none" if value is None else f"{value:.4g}" if isinstance(value, int | float) else str(value)

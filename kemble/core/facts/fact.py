"""Facts: every number that Kemble shows, with its range and where it came from.

A station adds facts to a `FactBook` in working order; each fact names what it was worked out from, so that a
reader can go from any figure down to the sheet, the kitchen or the larder. The ripple after an edit is a
difference of two sets of facts.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from kemble.core.facts.unchecked import unchecked_model
from kemble.core.facts.vocabulary import KEYS, fact_label, vocabulary_key
from kemble.core.sentences import Words

KITCHEN_ESTIMATE = "kitchen estimate"
GEOMETRY = "geometry"
CONSERVATION = "conservation of mass"
WEIGHED = "weighed in this making"

Value = float | Words


class Origin(BaseModel):
    """One thing a fact came from: another fact, or a leaf in the sheet, the kitchen, the way or the larder.

    `ref` is a fact key, or "sheet:…", "kitchen:…", "way:…", "larder:…".
    """

    model_config = ConfigDict(frozen=True)

    ref: str
    label: Words
    value: Value
    unit: str


Origins = list[str | Origin]
"""Inputs of a fact: keys of facts already in the book, or ready origins."""


class Because(BaseModel):
    """Why a fact has its value: the relation in words, where the relation is from, and its inputs."""

    model_config = ConfigDict(frozen=True)

    says: Words
    source: Words
    inputs: tuple[Origin, ...]


class Fact(BaseModel):
    """A number (or a word) with a stable key. `low` and `high` bound an estimate, in the same unit."""

    model_config = ConfigDict(frozen=True)

    key: str
    label: Words
    value: Value
    unit: str
    decimals: int
    low: float | None = None
    high: float | None = None
    because: Because

    @property
    def shown(self) -> str:
        """The value as a reader sees it, rounded to the key's decimals."""
        return format_value(self.value, self.decimals)


def number_of(facts: Mapping[str, Fact], key: str) -> float:
    """The value of a numeric fact; none (0) where it is missing or a word."""
    fact = facts.get(key)
    return 0.0 if fact is None or isinstance(fact.value, str) else fact.value


class FactChange(BaseModel):
    """One fact that an edit changed, at the decimals at which it is shown. `old` or `new` is None where it came or went."""

    model_config = ConfigDict(frozen=True)

    key: str
    label: Words
    unit: str
    decimals: int
    old: Value | None
    new: Value | None


def format_value(value: Value, decimals: int) -> str:
    return value if isinstance(value, str) else f"{value:.{decimals}f}"


class FactBook:
    """The facts of one working, in the order in which they were found. Not shared between workings."""

    def __init__(self) -> None:
        self._facts: dict[str, Fact] = {}
        self._origins: dict[str, Origin] = {}  # of facts that others came from, as they are now

    def add(
        self,
        key: str,
        value: Value,
        says: str,
        *,
        source: str,
        of: Sequence[str | Origin] = (),
        low: float | None = None,
        high: float | None = None,
    ) -> float:
        """Enter a fact and return its value as a float (0.0 for a word).

        `of` lists what it came from: keys of facts already in the book, or ready Origins.
        Raises KeyError for a key outside the vocabulary or an input not yet known: a station out of order.
        """
        word = KEYS.get(key)
        label = word.label if word else fact_label(key)
        word = word or KEYS[vocabulary_key(key)]
        self._origins.pop(key, None)
        inputs = tuple(origin if isinstance(origin, Origin) else self.origin(origin) for origin in of)
        self._facts[key] = unchecked_model(
            Fact,
            key=key,
            label=label,
            value=value,
            unit=word.unit,
            decimals=word.decimals,
            low=low,
            high=high,
            because=unchecked_model(Because, says=says, source=source, inputs=inputs),
        )
        return 0.0 if isinstance(value, str) else value

    def origin(self, key: str) -> Origin:
        """A fact of this book as the input of another."""
        if (found_origin := self._origins.get(key)) is None:
            fact = self._facts[key]
            found_origin = self._origins[key] = unchecked_model(
                Origin, ref=key, label=fact.label, value=fact.value, unit=fact.unit
            )
        return found_origin

    def __contains__(self, key: str) -> bool:
        return key in self._facts

    def number(self, key: str) -> float:
        """The value of a numeric fact. Raises KeyError if it is missing, TypeError if it is a word."""
        value = self._facts[key].value
        if isinstance(value, str):
            raise TypeError(f"{key} is a word, not a number")
        return value

    @property
    def facts(self) -> dict[str, Fact]:
        return self._facts


def leaf(ref: str, label: str, value: Value, unit: str = "") -> Origin:
    """An input that is not a fact: something typed on the sheet, set in the kitchen, or given by the way."""
    plain = value if isinstance(value, str) else float(value)
    return unchecked_model(Origin, ref=ref, label=label, value=plain, unit=unit)


def ripple(before: Mapping[str, Fact], after: Mapping[str, Fact]) -> list[FactChange]:
    """What moved, as a reader would see it: facts equal at their shown decimals did not move."""
    moved = []
    for key in dict.fromkeys((*before, *after)):
        old, new = before.get(key), after.get(key)
        if (old and old.shown) != (new and new.shown):
            told = new or old
            assert told is not None
            moved.append(
                unchecked_model(
                    FactChange,
                    key=key,
                    label=told.label,
                    unit=told.unit,
                    decimals=told.decimals,
                    old=old.value if old else None,
                    new=new.value if new else None,
                )
            )
    return moved

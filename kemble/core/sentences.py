"""Sentences, and the language in which they are said.

The core writes English. What it puts together from parts goes through `say`, which keeps sentence and parts asunder until
the language is known; a table at the head of a module stays as it is written and is read in the language by whoever shows
it (`Tongue.read`). Without a tongue everything is English, at the cost of a format.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache, wraps
from typing import Annotated, Literal, ParamSpec, Protocol, TypeVar

from pydantic import PlainSerializer

Locale = Literal["en-GB", "en-US", "en-CA", "en-IN", "en-AU", "en-IE", "en-DE", "en-XA"]
"""A language, and how it is written where: its words, its marks of numbers, its days. en-DE is English with a decimal comma; en-XA is of nobody, and shows what is not in the catalogue (`kemble.words`)."""


class Translator(Protocol):
    """A language other than English, or other marks of numbers."""

    def read(self, words: str) -> str:
        """Words of a table; as they are where they are not in the catalogue."""

    def say(self, sentence: str, values: dict[str, object]) -> str:
        """A sentence with its values put in, numbers by the marks of the place."""

    def number(self, written: str) -> str:
        """A number as it is written there, from how it is written in code: 1.5 may be 1,5."""


_spoken: ContextVar[Translator | None] = ContextVar("spoken", default=None)


def say(sentence: str, /, **values: object) -> str:
    """A sentence of the catalogue. With values it is a format: `{name}` or `{name:.0f}`, a brace doubled.

    >>> say("{pieces} pieces of {each:.1f} g", pieces=12, each=30.04)
    '12 pieces of 30.0 g'
    """
    if (tongue := _spoken.get()) is not None:
        return tongue.say(sentence, values)
    return sentence.format(**values) if values else sentence


def format_figure(value: float, spec: str) -> str:
    """A number by itself, as it is written in the place: `spec` as in a format.

    >>> format_figure(4.449, ".2f")
    '4.45'
    """
    written = format(value, spec)
    tongue = _spoken.get()
    return written if tongue is None else tongue.number(written)


_BETWEEN_SENTENCES = re.compile(r"(?<=[.!?]) (?=\S)")


def translate(words: str) -> str:
    """Words that stand in a table, in what is spoken here: as a whole, else sentence by sentence, as a step's words are kept."""
    tongue = _spoken.get()
    if tongue is None:
        return words
    whole = tongue.read(words)
    return whole if whole != words else " ".join(map(tongue.read, _BETWEEN_SENTENCES.split(words)))


Words = Annotated[str, PlainSerializer(translate, return_type=str)]
"""A field of an answer that is read by people: whatever of it stands in the catalogue goes out in what is spoken here."""


Asked = ParamSpec("Asked")
Told = TypeVar("Told")


def remember_by_language(most: int) -> Callable[[Callable[Asked, Told]], Callable[Asked, Told]]:
    """Keeps the last answers of a function whose answers hold words: what was said in one language is not said in another."""

    def keeping(work: Callable[Asked, Told]) -> Callable[Asked, Told]:
        @lru_cache(maxsize=most)
        def kept(tongue: Translator | None, *args: Asked.args, **named: Asked.kwargs) -> Told:
            return work(*args, **named)

        @wraps(work)
        def asked(*args: Asked.args, **named: Asked.kwargs) -> Told:
            return kept(_spoken.get(), *args, **named)  # type: ignore[arg-type]

        return asked

    return keeping


def current_translator() -> Translator | None:
    """What is spoken here; None is English."""
    return _spoken.get()


def speak(tongue: Translator | None) -> None:
    """From here on, in this thread or task."""
    _spoken.set(tongue)


@contextmanager
def speaking(tongue: Translator | None) -> Iterator[None]:
    """For a while."""
    before = _spoken.set(tongue)
    try:
        yield
    finally:
        _spoken.reset(before)

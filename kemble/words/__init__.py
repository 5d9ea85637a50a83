"""The languages of the kitchen: what the core and the pages say, in one catalogue a language.

A folder a language: `core.po` for what the core says, `pages.po` for what stands in the pages. English is the source and
needs no catalogue to be spoken. `make words` builds those in `en`, which are not in git: a translator begins with them, and
the made-up language is made of them.
"""

from __future__ import annotations

import string
from collections.abc import Callable, Mapping
from functools import cache
from pathlib import Path
from typing import Any, NamedTuple

from babel.core import Locale
from babel.messages.pofile import read_po
from babel.numbers import get_decimal_symbol, get_group_symbol

from kemble.core.sentences import Translator

ROOT = Path(__file__).parent
SOURCE = "en"
MADE_UP = "en-XA"
"""Of no people: every word of the catalogue wears accents, so that one that is not in it can be seen."""

_ACCENTS = str.maketrans("aceinouyACEINOUY", "åçéîñöüýÅÇÉÎÑÖÜÝ")


class NumberMarks(NamedTuple):
    """What stands before the tenths of a number, and between its thousands."""

    decimal: str
    group: str


class Catalogue:
    """A language, or English by other marks of numbers. Holds what `kemble.core.sentences.Translator` asks for."""

    def __init__(self, result: Callable[[str], str | None], marks: NumberMarks) -> None:
        self._found = result
        self._marks = str.maketrans({".": marks.decimal, ",": marks.group})
        self._put = _SentenceFormatter(self)

    def read(self, words: str) -> str:
        """What the catalogue has for them; a word is found whether it stands there with a capital or without."""
        if (there := self._found(words)) is not None:
            return there
        if words[:1].islower() and (there := self._found(words[:1].upper() + words[1:])) is not None:
            return there[:1].lower() + there[1:]
        if words[:1].isupper() and (there := self._found(words[:1].lower() + words[1:])) is not None:
            return there[:1].upper() + there[1:]
        return words

    def say(self, sentence: str, values: dict[str, object]) -> str:
        there = self.read(sentence)
        if not values:
            return there
        return self._put.vformat(there, (), {k: self.read(v) if isinstance(v, str) else v for k, v in values.items()})

    def number(self, written: str) -> str:
        return written.translate(self._marks)


ENGLISH = NumberMarks(".", ",")


class _SentenceFormatter(string.Formatter):
    """Puts values into a sentence, numbers by the marks of the place."""

    def __init__(self, catalogue: Catalogue) -> None:
        self._catalogue = catalogue

    def format_field(self, value: Any, format_spec: str) -> str:
        written = format(value, format_spec)
        return self._catalogue.number(written) if isinstance(value, (int, float)) else written


def languages() -> list[str]:
    """Those that there is a catalogue for, the source first."""
    others = sorted(folder.name for folder in ROOT.iterdir() if (folder / "core.po").is_file())
    return [SOURCE, *(name for name in others if name != SOURCE)]


@cache
def tongue_of(locale: str) -> Translator | None:
    """What is spoken in a locale such as "en-GB"; None is English with a point in its numbers, as the core writes it."""
    if locale == MADE_UP:
        return Catalogue(accented(_messages(SOURCE)), NumberMarks(",", "."))
    language, place = locale.split("-")[0], Locale.parse(locale, sep="-")
    marks = NumberMarks(get_decimal_symbol(place), get_group_symbol(place))
    if language == SOURCE or language not in languages():
        return None if marks == ENGLISH else Catalogue(lambda words: None, marks)
    return Catalogue({source: said for source, said in _messages(language).items() if said}.get, marks)


def _messages(language: str) -> Mapping[str, str]:
    """What a language has; nothing where its catalogue was not built."""
    path = ROOT / language / "core.po"
    if not path.is_file():
        return {}
    with path.open("rb") as file:
        return {str(message.id): str(message.string) for message in read_po(file, locale=language) if message.id}


def accented(messages: Mapping[str, str]) -> Callable[[str], str | None]:
    """The made-up language: what is in the catalogue with accents on it, its `{values}` left alone."""

    def found(words: str) -> str | None:
        if words not in messages:
            return None
        if "{" not in words:
            return words.translate(_ACCENTS)
        told = ""
        for text, name, spec, _ in string.Formatter().parse(words):
            told += text.translate(_ACCENTS).replace("{", "{{").replace("}", "}}")
            if name is not None:
                told += f"{{{name}:{spec}}}" if spec else f"{{{name}}}"
        return told

    return found

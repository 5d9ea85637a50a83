"""Text as it comes from outside, cleaned in one place: line ends, tabs, characters that nobody sees.

Text that has lines (MULTILINE) keeps them, each ended by one line feed; in a title or a name they are spaces, and tabs are
spaces everywhere. Marks that turn the writing direction round are taken out: a name with one would turn round what stands
after it. What is no character of any writing (half an emoji, NUL, other control characters) is refused where it comes in,
and taken out of what was stored before that was looked at.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import Any, Final

from kemble.core.facts.problems import Problem, Refused
from kemble.core.sentences import say

# Fields whose text has lines: notes, what was pasted, cautions of an ingredient. All others are titles, names and keys.
MULTILINE: Final = frozenset({"note", "text", "look_alike", "caution"})

_LINE_ENDS: Final = re.compile("\r\n|[\r\x0b\x0c\x85\u2028\u2029]")
_DIRECTION: Final = re.compile("[\u202a-\u202e\u2066-\u2069]")
_NO_CHARACTER: Final = re.compile("[\x00-\x08\x0e-\x1f\x7f-\x84\x86-\x9f\ud800-\udfff]")
_SPACED_LINE_ENDS: Final = re.compile(" *\n *")
_MAX_PROBLEMS: Final = 20


def clean_text(text: str, *, multiline: bool) -> str:
    """The text as it is kept. What is no character of any writing stays in it (`clean_document`).

    >>> clean_text("walnut\\tand\\r\\ndate", multiline=False)
    'walnut and date'
    >>> clean_text("one\\r\\ntwo", multiline=True)
    'one\\ntwo'
    """
    if text.isprintable():
        return text
    text = _DIRECTION.sub("", _LINE_ENDS.sub("\n", text)).replace("\t", " ")
    return text if multiline else _SPACED_LINE_ENDS.sub(" ", text)


def clean_document(document: Any, *, tabs: bool = False) -> Any:
    """A document from outside, as parsed from JSON, with all its text clean. `tabs`: text with lines keeps its tabs, for it
    is a table.

    Raises Refused, naming each path, where something is no character of any writing.
    """
    cleaner = _TextCleaner(refuses=True, tabs=tabs)
    cleaned = cleaner.value(document, ())
    if cleaner.problems:
        raise Refused(cleaner.problems)
    return cleaned


def clean_stored(document: Any) -> Any:
    """A document that was stored before its text was looked at: what is no character is taken out."""
    return _TextCleaner().value(document, ())


def clean_stored_json(text: str, document: Any) -> Any:
    """The same of a document that was parsed from this text: most are clean, which their text shows at a glance."""
    return clean_stored(document) if is_suspect(text) else document


def readable(document: Any) -> Any:
    """Somebody else's document: what is no character is taken out, lines and tabs stay as they are."""
    return _TextCleaner(lines=True).value(document, ())


@dataclass(slots=True)
class _TextCleaner:
    refuses: bool = False
    tabs: bool = False
    lines: bool = False
    problems: list[Problem] = field(default_factory=list)

    def value(self, value: Any, path: tuple[str, ...]) -> Any:
        if isinstance(value, str):
            return self._text(value, path)
        if isinstance(value, dict):
            return {
                self._text(key, (*path, "key")): self.value(inner, (*path, str(key))) for key, inner in value.items()
            }
        if isinstance(value, list):
            return [self.value(inner, (*path, str(i))) for i, inner in enumerate(value)]
        return value

    def _text(self, text: str, path: tuple[str, ...]) -> str:
        if text.isprintable():
            return text
        if _NO_CHARACTER.search(text):
            if self.refuses and len(self.problems) < _MAX_PROBLEMS:
                self.problems.append(_text_problem(path))
            text = _NO_CHARACTER.sub("", text)
        multiline = next((step for step in reversed(path) if not step.isdigit()), "") in MULTILINE
        if self.lines or (self.tabs and multiline):
            return text
        return clean_text(text, multiline=multiline)


def _text_problem(path: tuple[str, ...]) -> Problem:
    where = ".".join(_NO_CHARACTER.sub("?", step) for step in path) or "the document"
    return Problem(
        path=where, says=say("holds a character that cannot be shown"), accepts=say("letters, figures, signs and emoji")
    )


# What may need cleaning in JSON: an escape of a control, a line end, a direction or half a pair.
_SUSPECT: Final = re.compile(r"\\(?:[bfnrt]|u(?:00[01]|007f|008|009|202[89a-e]|206[6-9]|d[89a-f]))", re.IGNORECASE)


def is_suspect(text: str) -> bool:
    """Whether JSON may hold text that is not clean, as it stands or by an escape."""
    return not text.isprintable() or _SUSPECT.search(text) is not None

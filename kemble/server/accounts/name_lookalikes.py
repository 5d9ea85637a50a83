"""Names that read alike: nobody comes into a household under a name that others take for somebody else's.

Names of any script are welcome. Two are alike when they are the same in normal form and small letters (NFKC), or when
their letters are easily confused: Cyrillic and Latin, full-width and usual, `1` and `l` (the skeletons of Unicode's
security mechanisms, UTS 39, by the table of confusable-homoglyphs).
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable

_SIGNS = "_.@+-'’·"
_JOINERS = "\u200c\u200d"  # between letters of some scripts; nobody sees them


def is_name(name: str) -> bool:
    """Whether it is one word in letters of whatever script, with their marks, and figures."""
    return bool(name) and all(
        letter.isalnum() or unicodedata.category(letter)[0] == "M" or letter in _SIGNS + _JOINERS for letter in name
    )


def folded(name: str) -> str:
    """The name in normal form and small letters, without what nobody sees."""
    seen = name.translate(dict.fromkeys(map(ord, _JOINERS)))
    return unicodedata.normalize("NFKC", unicodedata.normalize("NFKC", seen).casefold())


def skeleton(name: str) -> str:
    """The name with each letter by the one that it may be taken for.

    >>> skeleton("оwner") == skeleton("owner")  # the first letter is Cyrillic
    True
    """
    once = "".join(map(_prototype, unicodedata.normalize("NFKC", name)))
    return "".join(map(_prototype, folded(once)))


def name_it_resembles(name: str, others: Iterable[str]) -> str | None:
    """Which of the others it may be taken for."""
    own, bare = folded(name), skeleton(name)
    return next((other for other in others if folded(other) == own or skeleton(other) == bare), None)


def _prototype(letter: str) -> str:
    """What a letter may be taken for: of a group that is alike, the one that the others are listed under."""
    from confusable_homoglyphs.confusables import confusables_data  # a large table, and only who comes in needs it

    alike = confusables_data.get(letter, [])
    if len(alike) != 1:
        return letter
    other: str = alike[0]["c"].strip("\u200e")
    is_listed_under = len(confusables_data.get(other, [])) > 1 or other < letter
    return other if is_listed_under else letter

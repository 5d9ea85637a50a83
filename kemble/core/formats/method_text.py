"""The method of a recipe in plain text, line by line: the tin, the oven, times that were given, the soak, the pieces.

A table of patterns, each with what it says of a sheet. What a line says is shown beside it; a line that says nothing of
this is kept as it is and called so. Nothing is guessed without a word.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict, Field

from kemble.core.cards.ways import WAYS
from kemble.core.facts.quantity import span_words, to_celsius
from kemble.core.formats.ingredient_words import WORD_NUMBERS
from kemble.core.sentences import Words, say

_INCH_MM, _CM_MM = 25.4, 10.0
_MOST_LETTERS = 2000  # of a line; what is over is not looked at
_OVERNIGHT_MIN = 600.0


class MethodFinding(BaseModel):
    """One thing that a line of the method says. `path` and `value` are of the sheet (a path with dots); without one it is a
    hint at the way, or a question."""

    model_config = ConfigDict(frozen=True)

    words: Words = Field("", max_length=400)
    path: str = Field("", max_length=80)
    value: str | float | dict[str, str | float] | None = None
    asks: str = Field("", max_length=400)


class ParsedMethodLine(BaseModel):
    model_config = ConfigDict(frozen=True)

    text: str
    says: list[MethodFinding]


_NUMBER = r"\d+(?:\s+\d/\d|\.\d+|/\d)?|[½¼¾]|\d+\s?[½¼¾]|an?|one|two|three|four|five|six|eight|ten|twelve|half an"
_TIME = re.compile(
    rf"(?P<low>{_NUMBER})(?:\s*(?:-|–|—|to|or)\s*(?P<high>{_NUMBER}))?\s*(?P<half>and a half\s+)?"
    r"(?P<unit>hours?|hrs?\.?|h|minutes?|mins?\.?|min)\b(?P<and_half>\s+and a half)?(?:\s*(?:and\s*)?(?P<more>\d+)\s*(?:minutes?|mins?\.?)\b)?",
    re.IGNORECASE,
)
_OVERNIGHT = re.compile(r"\bover\s?night\b|\ball night\b|\ba night\b", re.IGNORECASE)
_DEGREES = re.compile(
    r"(?P<value>\d{2,3})\s*(?:°|º|˚|degrees?)?\s*(?P<unit>C|F|Celsius|Fahrenheit)\b|(?P<bare>\d{3})\s*[°º˚]",
    re.IGNORECASE,
)
_SIDES = re.compile(
    r"(?P<a>\d+(?:\.\d+)?)\s*(?P<ua>cm|mm|-?inch(?:es)?|in\.?|\"|″)?\s*(?:x|×|by)\s*(?P<b>\d+(?:\.\d+)?)\s*(?P<ub>cm|mm|-?inch(?:es)?|in\.?|\"|″)?",
    re.IGNORECASE,
)
_ACROSS = re.compile(
    r"(?P<a>\d+(?:\.\d+)?)\s*-?\s*(?P<ua>cm|mm|inch(?:es)?|in\.?|\"|″)[-\s]*(?P<shape>(?:\w+\s+){0,2}?)(?P<of>tin|pan|dish|mould|mold|tray|springform|steamer)\b",
    re.IGNORECASE,
)
_NAMED = r"(?:even\s+|equal\s+|small\s+)?(?:pieces|squares|balls|portions|rounds|slices|diamonds|cakes|packets|parcels|bars|buns|discs)\b"
_MAKES = r"\b(?:cut|cutting|slice|divide|makes?|shape|roll|portion|form|fold|tie|wrap|fill|press|scoop|pull off)\b"
_PIECES = re.compile(
    rf"{_MAKES}[^.]*?\b(?P<named>\d{{1,3}})\s+{_NAMED}"
    r"|\b(?:cut|slice|divide|portion|shape)\b[^.]*?\b(?:in|into)\s+(?P<bare>\d{1,3})"
    r"(?![\d.]|\s*-?\s*(?:x|×|cm|mm|in\b|inch|min|hour|hr|g\b|ml|°|%|[-–]\s*\d))",
    re.IGNORECASE,
)
_YIELDS = re.compile(
    rf"^\W*(?:about|makes?|yields?|approx\w*|\s)*(?P<count>\d{{1,3}})\s+{_NAMED}|^\W*makes?\s+(?P<made>\d{{1,3}})\W*$",
    re.IGNORECASE,
)
_VESSEL = re.compile(r"\b(tin|pan|dish|mould|mold|tray|springform)s?\b", re.IGNORECASE)


def read_method(lines: Sequence[str]) -> list[ParsedMethodLine]:
    """Each line with what it says of a sheet; empty lines are left out."""
    return [
        ParsedMethodLine(text=line.strip(), says=list(_find_all(line[:_MOST_LETTERS])))
        for line in lines
        if line.strip()
    ]


def _find_all(line: str) -> Iterator[MethodFinding]:
    for read in (_tin, _oven, _cover, _find_pieces, _clocks, _find_ways):
        yield from read(line)


# --- how long -----------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class _TimedVerb:
    """What a cook does for so long, as a pattern; where the time goes, and what it is called."""

    words: re.Pattern[str]
    of: str
    called: str


_VERBS = (
    _TimedVerb(re.compile(r"\bsoak", re.IGNORECASE), "soak", "soaked"),
    _TimedVerb(
        re.compile(r"\b(?:steam|bake|boil|simmer|roast|microwave|cook)\w*", re.IGNORECASE), "heat", "in the heat"
    ),
    _TimedVerb(re.compile(r"\b(?:cool|set|chill|refrigerate|stand|rest)\w*", re.IGNORECASE), "rest", "set or cooled"),
)
_WARMING = re.compile(r"\b(?:preheat|boil(?:ing)?\s+water|bring|melt|dissolve|toast|fry)\b", re.IGNORECASE)


def _clocks(line: str) -> Iterator[MethodFinding]:
    """Times by the nearest verb before them in the same sentence."""
    for sentence in re.split(r"(?<=[.;!?])\s+", line):
        done: set[str] = set()
        result = [(match.start(), _parse_minutes(match), match.group(0)) for match in _TIME.finditer(sentence)]
        result += [(match.start(), _OVERNIGHT_MIN, match.group(0)) for match in _OVERNIGHT.finditer(sentence)]
        for at, minutes, written in sorted(result):
            verb = _verb_before(sentence, at)
            if verb is None or minutes is None or verb.of in done:
                yield MethodFinding(words=f"{written.strip()}", asks=say("A time: of what?"))
                continue
            if verb.of == "heat" and _WARMING.search(sentence[:at]):
                continue  # of water or butter, not of the cake
            done.add(verb.of)
            if verb.of == "soak":
                yield MethodFinding(words=f"{verb.called} {span_words(minutes)}", path="grain.soak_min", value=minutes)
                continue
            said: dict[str, str | float] = {"minutes": minutes, "by": say("as it is written")}
            yield MethodFinding(
                words=say(
                    "{span_words} {called}, as it is written", span_words=span_words(minutes), called=verb.called
                ),
                path=f"method.{verb.of}",
                value=said,
            )


def _verb_before(sentence: str, at: int) -> _TimedVerb | None:
    """The last verb before a place; else the first of the sentence ("for 40 minutes, steam")."""
    places = [(match.start(), verb) for verb in _VERBS for match in verb.words.finditer(sentence)]
    before = [place for place in places if place[0] < at]
    if before:
        return max(before, key=lambda item: item[0])[1]
    return min(places, key=lambda item: item[0])[1] if places else None


def _parse_minutes(match: re.Match[str]) -> float | None:
    low, high = _parse_number(match["low"]), _parse_number(match["high"]) if match["high"] else None
    if low is None:
        return None
    value = low if high is None else (low + high) / 2
    if match["half"] or match["and_half"]:
        value += 0.5
    minutes = value * (60.0 if match["unit"].lower().startswith("h") else 1.0)
    return minutes + float(match["more"] or 0)


_VULGAR: Mapping[str, float] = {"½": 0.5, "¼": 0.25, "¾": 0.75}


def _parse_number(text: str) -> float | None:
    """ "1 1/2", "1.5", "1½", "an", "half an", "three"."""
    words = text.strip().lower()
    if words in ("a", "an"):
        return 1.0
    if words == "half an":
        return 0.5
    if words in WORD_NUMBERS:
        return float(WORD_NUMBERS[words])
    total = 0.0
    for item in re.findall(r"\d+/\d+|\d+(?:\.\d+)?|[½¼¾]", words):
        if item in _VULGAR:
            total += _VULGAR[item]
        elif "/" in item:
            above, below = item.split("/")
            if not float(below):
                return None
            total += float(above) / float(below)
        else:
            total += float(item)
    return total or None


# --- what in, and how hot -----------------------------------------------------


def _mm(value: str, unit: str | None) -> float:
    word = (unit or "").lower().lstrip("-")
    if word.startswith(("in", '"', "″")):
        return round(float(value) * _INCH_MM, 1)
    return float(value) * (1.0 if word == "mm" else _CM_MM)


def _tin(line: str) -> Iterator[MethodFinding]:
    sides = _SIDES.search(line)
    if sides and _VESSEL.search(line):
        unit = sides["ub"] or sides["ua"]
        asks = "" if unit else say("Inches or centimetres? Taken as inches where both are under 18.")
        inches = unit is None and max(float(sides["a"]), float(sides["b"])) < 18
        a, b = (_mm(sides[name], unit or ("in" if inches else "cm")) for name in ("a", "b"))
        yield from _oblong(max(a, b), min(a, b), asks)
        return
    across = _ACROSS.search(line)
    if across is None:
        return
    size, shape = _mm(across["a"], across["ua"]), across["shape"].lower()
    if "square" in shape or re.search(r"\bsquare\b", line, re.IGNORECASE):
        yield from _oblong(size, size, "")
    elif across["of"].lower() != "steamer":
        yield MethodFinding(
            words=say("a round tin {size:.0f} mm across", size=size), path="vessel.tin.shape", value="round"
        )
        yield MethodFinding(words="", path="vessel.tin.diameter_mm", value=size)


def _oblong(length: float, width: float, asks: str) -> Iterator[MethodFinding]:
    yield MethodFinding(
        words=say("a tin {length:.0f} by {width:.0f} mm", length=length, width=width),
        path="vessel.tin.shape",
        value="oblong",
        asks=asks,
    )
    yield MethodFinding(words="", path="vessel.tin.length_mm", value=length)
    yield MethodFinding(words="", path="vessel.tin.width_mm", value=width)


def _oven(line: str) -> Iterator[MethodFinding]:
    if not re.search(r"\b(?:oven|bake|preheat|roast)", line, re.IGNORECASE):
        return
    match = _DEGREES.search(line)
    if match is None:
        return
    value = float(match["value"] or match["bare"])
    unit = (match["unit"] or ("F" if value > 260 else "C"))[0].upper()
    celsius = round(to_celsius(value, "F") if unit == "F" else value, 1)
    asks = "" if match["unit"] else say("{value:.0f} degrees of which kind? Taken as °{unit}.", value=value, unit=unit)
    if 120 <= celsius <= 260:
        yield MethodFinding(
            words=say("the oven at {celsius:.0f} °C", celsius=celsius), path="heat.oven_c", value=celsius, asks=asks
        )
    else:
        yield MethodFinding(words=match.group(0), asks=say("No oven is so warm: which temperature is it?"))


def _cover(line: str) -> Iterator[MethodFinding]:
    if re.search(r"\bcover\w*\b[^.]*\b(?:foil|plate|paper|parchment|cling)", line, re.IGNORECASE):
        yield MethodFinding(words="covered", path="schools.cover", value="covered")


_NOT_PIECES = re.compile(r"\bserves?\b|\bservings?\b", re.IGNORECASE)


def _find_pieces(line: str) -> Iterator[MethodFinding]:
    match = _PIECES.search(line)
    if match and not _NOT_PIECES.search(line):
        count = int(match["named"] or match["bare"])
        if 1 <= count <= 400:
            yield MethodFinding(words=say("{count} pieces", count=count), path="pieces", value=count)


def pieces_of(yields: str) -> int | None:
    """How many pieces a recipe says that it makes; None where it tells servings, or a bare number that may be."""
    match = _YIELDS.search(yields)
    if match is None or _NOT_PIECES.search(yields):
        return None
    count = int(match["count"] or match["made"])
    return count if 1 <= count <= 400 else None


def of_the_way(method: Sequence[ParsedMethodLine], way: str | None) -> list[ParsedMethodLine]:
    """The method once its way is known: where it tells several heats, only those in that way's heat are of the cake."""
    pattern = WAYS[way].signs.heat if way else ""
    heats = [line for line in method if any(finding.path == "method.heat" for finding in line.says)]
    own = [line for line in heats if pattern and re.search(pattern, line.text, re.IGNORECASE)]
    if len(heats) < 2 or not own or len(own) == len(heats):
        return list(method)
    return [line if line not in heats or line in own else _of_what(line) for line in method]


def _of_what(line: ParsedMethodLine) -> ParsedMethodLine:
    says = [
        MethodFinding(words=finding.words, asks=say("A time: of what?")) if finding.path == "method.heat" else finding
        for finding in line.says
    ]
    return line.model_copy(update={"says": says})


# --- which way ----------------------------------------------------------------

_TOLD_BY_METHOD = tuple(way for way in WAYS.values() if way.signs.method)


def _find_ways(line: str) -> Iterator[MethodFinding]:
    for way in _TOLD_BY_METHOD:
        if re.search(way.signs.method, line, re.IGNORECASE):
            yield MethodFinding(words=way.signs.words, path="way", value=way.id)


def way_from(
    method: Sequence[ParsedMethodLine], by_ingredients: str | None, base: str | None
) -> tuple[str | None, list[str]]:
    """The way that ingredients and method point to, and why. `base`: flour or grain, where the ingredients have one.

    The method tells more than the list: of the ways for that base the one it points to oftenest, the list's own first.
    """
    counts: dict[str, int] = {}
    for line in method:
        for finding in line.says:
            if finding.path == "way" and base in (None, WAYS[str(finding.value)].base):
                counts[str(finding.value)] = counts.get(str(finding.value), 0) + 1
    if not counts:
        return by_ingredients, [say("its ingredients say so")] if by_ingredients else []
    most = max(counts.values())
    leading = [way for way, count in counts.items() if count == most]
    chosen = by_ingredients if by_ingredients in leading else leading[0]
    return chosen, [WAYS[chosen].signs.words]

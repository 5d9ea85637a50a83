"""A list of ingredients in plain text, line by line: what was understood, what was guessed, what could not be read.

A small grammar of our own in regular expressions: a quantity (perhaps in words, perhaps a range), a unit, a name, a
note; in either order, with a second quantity in brackets. Names are looked up in the larder, typing slips forgiven.
Nothing is dropped: a line that cannot be read comes back as a question.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel, ConfigDict
from rapidfuzz import fuzz, process

from kemble.core.cards.ways import WAYS
from kemble.core.facts.quantity import UNITS, UnitId
from kemble.core.facts.vocabulary import PartRole
from kemble.core.formats.ingredient_words import (
    FRACTIONS,
    HEADINGS,
    HEAPS,
    JUICE_ML,
    MANNERS,
    ROUGH,
    STATES,
    UNIT_WORDS,
    WHICH,
    WORD_NUMBERS,
)
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.larder import Ingredient, State
from kemble.core.kitchen.larder.names import names_of, normalize_name
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sentences import say

MOST_LINES = 120
MOST_LETTERS = 8000
MOST_LINE_LETTERS = 300
_ALIKE_ENOUGH = 84.0  # of a hundred: a slip or two in a long word


class ParsedIngredientLine(BaseModel):
    """One line as it was read. `asks` is what the cook should look at, empty when all is clear."""

    model_config = ConfigDict(frozen=True)

    text: str
    kind: Literal["line", "heading", "unread"]
    role: PartRole
    value: float | None = None
    unit: UnitId | None = None
    ingredient: str | None = None
    state: State | None = None
    understood: str = ""
    guessed: list[str] = []
    left_over: str = ""
    asks: str = ""


class ParsedIngredientList(BaseModel):
    """Every line of a list, and the way that its ingredients point to."""

    model_config = ConfigDict(frozen=True)

    lines: list[ParsedIngredientLine]
    way: str | None


_ABOUT = r"(?:about|around|approx(?:imately)?\.?|roughly|circa|ca\.?|some|~|≈)"
_NUMBER = r"(?:\d+\s*[-\s]\s*\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d+(?:[.,]\d+)?)"
_UNITS = "|".join(f"(?:{pattern})" for pattern, _, _ in UNIT_WORDS)
_QUANTITY = re.compile(
    rf"(?P<about>{_ABOUT}\s*)?"
    rf"(?P<low>{_NUMBER})"
    rf"(?:\s*(?:-|–|—|to|or)\s*(?P<high>{_NUMBER}))?"
    rf"\s*-?\s*(?P<heap>heaped|heaping|rounded|generous|scant|level|good)?"
    rf"\s*(?:(?:small|medium|large|big)\s+(?=\w))?(?:(?P<unit>{_UNITS})\b\.?)?",
    re.IGNORECASE,
)
_IN_WORDS = re.compile(
    r"^(?P<about>about\s+|around\s+)?(?P<low>(?:a|one|two|half\s+a)\s+dozen|(?:one|two|three)\s+and\s+a\s+(?:half|third|quarter)|"
    r"(?:a|one|two|three)\s+(?:half|thirds?|quarters?|couple|few)|half\s+(?:a|an)|a|an|one|two|three|four|"
    r"five|six|seven|eight|nine|ten|twelve|twenty|half|quarter)(?:\s+of)?\s+(?:(?:a|an)\s+)?"
    rf"(?P<heap>heaped|heaping|rounded|generous|scant|level|good)?\s*(?:(?P<unit>{_UNITS})\b\.?)?\s*",
    re.IGNORECASE,
)
# "A third of the tin", "1/3 of a can": the share and its unit are next to each other.
_SHARE_OF_A_PACK = re.compile(
    r"\b(half|thirds?|quarters?|\d\s*/\s*\d)\s+(?:of\s+)?(?:a|an|the)\s+"
    r"(tins?|cans?|packets?|packs?|bags?|box(?:es)?|cartons?|jars?|bottles?|blocks?|bulbs?|cups?)\b",
    re.IGNORECASE,
)
_FEW_G = 20.0  # so small a number without a unit is more likely so many pieces
_BULLET = re.compile(r"^\s*(?:[-*•·▢□☐✓✔–—+]|\[[ xX]?\]|\d+[.)](?=\s+\D|\s+\d))\s*")


@dataclass(frozen=True, slots=True)
class _ParsedQuantity:
    value: float
    unit: str | None
    written: str
    guessed: tuple[str, ...]


def read_list(text: str, kitchen: Kitchen) -> ParsedIngredientList:
    """Every line of a pasted list. `text` may be anything; what is over MOST_LINES lines comes back unread.

    >>> (line,) = read_list("1½ cups sweet rice flour, sifted", Kitchen()).lines
    >>> line.ingredient, line.value, line.unit, line.asks
    ('sweet-rice-flour', 1.5, 'cup_metric', '')
    """
    reader = _IngredientLineParser(kitchen)
    lines: list[ParsedIngredientLine] = []
    role: PartRole = "base"
    for i, raw in enumerate(text[:MOST_LETTERS].splitlines()):
        if not raw.strip():
            continue
        if i >= MOST_LINES:
            lines.append(
                ParsedIngredientLine(
                    text=raw.strip(), kind="unread", role=role, asks=say("The list is too long: paste the rest after.")
                )
            )
            continue
        if len(raw) > MOST_LINE_LETTERS:  # no ingredient is that long, and reading it would take its square
            lines.append(
                ParsedIngredientLine(
                    text=raw[:MOST_LINE_LETTERS], kind="unread", role=role, asks=say("This line is too long to read.")
                )
            )
            continue
        line = reader.line(raw, role)
        role = line.role
        lines.append(line)
    if len(text) > MOST_LETTERS:
        rest = text[MOST_LETTERS:].strip()
        lines.append(
            ParsedIngredientLine(
                text=rest[:200], kind="unread", role=role, asks=say("The list is too long: paste the rest after.")
            )
        )
    return ParsedIngredientList(
        lines=lines, way=way_of([line.ingredient for line in lines if line.ingredient], Shelf(kitchen))
    )


def _added(bare: str, first: _ParsedQuantity, second: _ParsedQuantity) -> bool:
    """Whether one amount is told as so much and so much more: "1 cup + 2 tbsp"."""
    name, two = (re.escape(each.written.strip()) for each in (first, second))
    return re.search(rf"(?:{name}|{two})\s*(?:\+|plus|and|&)\s*(?:{name}|{two})", bare, re.IGNORECASE) is not None


class _IngredientLineParser:
    """Reads lines with one kitchen's cups and larder."""

    def __init__(self, kitchen: Kitchen) -> None:
        self.kitchen = kitchen
        self.shelf = Shelf(kitchen)
        self.names = names_of(self.shelf.items.values())

    def line(self, raw: str, role: PartRole) -> ParsedIngredientLine:
        text = " ".join(raw.split())
        bare = _BULLET.sub("", _plain_fractions(text)).strip().strip("*_#").strip()
        heading = _heading(bare)
        if heading is not None:
            return ParsedIngredientLine(text=text, kind="heading", role=heading, understood=heading)
        whole_fruit = self._of_a_fruit(bare)
        if whole_fruit:
            count, measure, fruit, guess = whole_fruit
            return self._told(text, role, count, measure, fruit, None, [guess] if guess else [], "", "")
        quantities, rest = _quantities(bare)
        ingredient, used, which = self._ingredient(rest)
        state = _state(rest, self.shelf.items.get(ingredient or ""))
        left = _left_over(rest, used)
        if ingredient is None:
            amount = _best_quantity(quantities)
            return ParsedIngredientLine(
                text=text,
                kind="unread",
                role=role,
                value=round(amount.value, 4) if amount else None,
                unit=self._unit(amount, None)[0] if amount else None,
                left_over=rest,
                asks=say("What is it? No ingredient of the larder goes by that name.")
                if amount
                else say("This line could not be read: pick the ingredient and type the amount, or leave it out."),
            )
        item = self.shelf.items[ingredient]
        amount = _best_quantity(quantities)
        if amount is None:
            asks = " ".join(
                part for part in (say("How much {item}? No amount is written.", item=item.name.lower()), which) if part
            )
            return ParsedIngredientLine(
                text=text, kind="line", role=role, ingredient=ingredient, state=state, left_over=left, asks=asks,
                understood=item.name,
            )  # fmt: skip
        unit, unit_guess = self._unit(amount, item)
        guessed = [*amount.guessed, *unit_guess]
        value = amount.value
        other = next((q for q in quantities if q is not amount), None)
        if other is not None:
            second = self._unit(other, item)[0]
            if amount.unit == "pack" and UNITS[second].kind in ("mass", "volume"):
                # "2 tins (400 ml each) of coconut milk": so many of what one holds.
                value, unit = amount.value * other.value, second
                guessed.append(say("{written} in each", written=other.written))
            elif _added(bare, amount, other) and UNITS[unit].kind == UNITS[second].kind:
                value += other.value * UNITS[second].factor / UNITS[unit].factor
                guessed.append(say("and {written} more", written=other.written))
            elif not self._the_same(item, (value, unit), (other.value, second)):
                which = say("It also says {written}. More, or the same again?", written=other.written)
        elif amount.unit is None and unit != "piece" and (left or value < _FEW_G):
            # "2 quinces", "1 krm salt": a number without a measure that is known is no weight.
            which = say(
                "{number} what? It is taken as {number} {name}.", number=_format_figure(value), name=UNITS[unit].name
            )
        return self._told(text, role, value, unit, ingredient, state, guessed, left, which)

    def _the_same(self, item: Ingredient, each_item: tuple[float, UnitId], other: tuple[float, UnitId]) -> bool:
        """Whether two amounts of a line weigh about the same: one tells the other, as "1 cup (140 g)" does."""
        try:
            first, second = (self.shelf.grams(item, value, unit) for value, unit in (each_item, other))
        except ValueError:
            return False
        return 0.7 < first / second < 1.4

    def _told(
        self, text: str, role: PartRole, value: float, unit: UnitId, ingredient: str, state: State | None,
        guessed: list[str], left: str, which: str,
    ) -> ParsedIngredientLine:  # fmt: skip
        item = self.shelf.items[ingredient]
        asks = which
        several = value > 1 and UNITS[unit].name.endswith(("cup", "spoon", "piece", "pack"))
        understood = f"{_format_figure(value)} {UNITS[unit].name}{'s' if several else ''} {item.name.lower()}"
        try:
            mass = self.shelf.grams(item, value, unit, state)
            if UNITS[unit].id != "g":
                understood += f", {mass:.0f} g" if mass >= 10 else f", {mass:.1f} g"
            if mass > 20_000:
                asks = say("{mass:.0f} kg? That is a great deal.", mass=mass / 1000)
        except ValueError as error:
            asks = f"{item.name} {error}."
        return ParsedIngredientLine(
            text=text, kind="line", role=role, value=round(value, 4), unit=unit, ingredient=ingredient, state=state,
            understood=understood, guessed=guessed, left_over=left, asks=asks,
        )  # fmt: skip

    def _unit(self, amount: _ParsedQuantity, item: Ingredient | None) -> tuple[UnitId, list[str]]:
        """The unit of the table that was meant, and what had to be guessed for it."""
        system = self.kitchen.measures
        if amount.unit == "cup":
            if self.kitchen.own_cup_ml:
                return "cup_own", [say("a cup as your own, {own_cup_ml:.0f} ml", own_cup_ml=self.kitchen.own_cup_ml)]
            unit: UnitId = "cup_us" if system == "us" else "cup_metric"
            return unit, [say("a cup as a {name}, {factor:.0f} ml", name=UNITS[unit].name, factor=UNITS[unit].factor)]
        if amount.unit == "tbsp":
            return {"us": "tbsp_us", "metric": "tbsp_metric", "metric_20": "tbsp_20"}[system], []  # type: ignore[return-value]
        if amount.unit == "tsp":
            return ("tsp_us" if system == "us" else "tsp_metric"), []
        if amount.unit is not None:
            return amount.unit, []  # type: ignore[return-value]
        if item is not None and item.g_per_piece is not None:
            return "piece", []
        if item is not None and item.packs and amount.value < 10:
            return "pack", [say("no unit is written: taken as packs")]
        return "g", [say("no unit is written: taken as grams")]

    def _of_a_fruit(self, bare: str) -> tuple[float, UnitId, str, str] | None:
        """ "Zest of 1 lemon", "juice of 2 oranges", "1 lemon, zested"."""
        match = re.search(
            r"\b(?:(?P<what>zest|rind|peel|juice)\s+(?:of|from)\s+(?P<n>\S+)?\s*(?:\w+\s+)?(?P<fruit>lemon|lime|orange)s?"
            r"|(?P<n2>\S+)\s+(?P<fruit2>lemon|lime|orange)s?,?\s+(?:finely\s+)?(?P<what2>zest|juice)d)\b",
            bare,
            re.IGNORECASE,
        )
        if match is None:
            return None
        what = (match["what"] or match["what2"]).lower()
        fruit = (match["fruit"] or match["fruit2"]).lower()
        count = _parse_count(match["n"] or match["n2"] or "1")
        if count is None:
            return None
        if what == "juice":
            name = "orange-juice" if fruit == "orange" else "lemon-juice"
            return (
                count * JUICE_ML[fruit],
                "ml",
                name,
                say("the juice of one as {juice_ml:.0f} ml", juice_ml=JUICE_ML[fruit]),
            )
        return count, "piece", "orange-rind" if fruit == "orange" else "lemon-rind", ""

    def _ingredient(self, words: str) -> tuple[str | None, set[str], str]:
        """The ingredient a phrase names, the words it was known by, and a question where it might be another."""
        before_note = re.split(r"[,;(]", words, maxsplit=1)[0]
        result = self._by_name(normalize_name(before_note).split()) or self._by_name(normalize_name(words).split())
        core = [token for token in normalize_name(before_note).split() if token not in MANNERS]
        unknown = result and [token for token in core if not set(_forms(token)) & set(result[0].split())]
        if result and not unknown:
            return result[1], set(result[0].split()), WHICH.get(result[0], "")
        # A slip in one word ("glutinus rice flour") must not make another thing of it.
        if core:
            hit = process.extractOne(" ".join(core), list(self.names), scorer=fuzz.ratio, score_cutoff=_ALIKE_ENOUGH)
            if hit:
                name = hit[0]
                item = self.shelf.items[self.names[name]]
                if result is None or len(name.split()) > len(result[0].split()):
                    return item.id, set(core), say("Read as {item}.", item=item.name.lower())
        return (result[1], set(result[0].split()), WHICH.get(result[0], "")) if result else (None, set(), "")

    def _by_name(self, tokens: list[str]) -> tuple[str, str] | None:
        """The longest known name among the words, whole words only, plural or not; the later one on a tie."""
        best: tuple[int, int, str] | None = None
        for start in range(len(tokens)):
            for end in range(min(len(tokens), start + 6), start, -1):
                name = self._known(" ".join(tokens[start:end]))
                if name and (best is None or (end - start, start) > best[:2]):
                    best = (end - start, start, name)
        return (best[2], self.names[best[2]]) if best else None

    def _known(self, words: str) -> str | None:
        return next((form for form in _forms(words) if form in self.names), None)


def _forms(words: str) -> tuple[str, ...]:
    """A phrase as it stands and with its last word made singular or plural."""
    forms = [words, words + "s", words + "es"]
    if words.endswith("ies"):
        forms.append(words[:-3] + "y")
    if words.endswith("ves"):
        forms.append(words[:-3] + "f")
    if words.endswith("es"):
        forms.append(words[:-2])
    if words.endswith("s"):
        forms.append(words[:-1])
    return tuple(forms)


def _plain_fractions(text: str) -> str:
    for sign, written in FRACTIONS.items():
        text = re.sub(rf"(\d)\s*{sign}", rf"\1 {written}", text)
        text = text.replace(sign, written)
    return text.replace("⁄", "/").replace("×", "x").replace("\u00a0", " ")


def _heading(bare: str) -> PartRole | None:
    """The part a heading begins, or None for a line of ingredients."""
    words = bare.rstrip(":").strip()
    is_heading = bare.endswith(":") or re.fullmatch(r"(?:for\s+)?the\s+[\w\s-]+", words, re.IGNORECASE)
    if re.search(r"\d", bare) or not words or not (is_heading or _is_part_heading(words)):
        return None
    return next((role for pattern, role in HEADINGS if re.search(pattern, words, re.IGNORECASE)), "base")


def _is_part_heading(words: str) -> bool:
    """A single word that names a part and nothing else: "Filling"."""
    return bool(
        re.fullmatch(
            r"(?:dough|batter|base|filling|topping|coating|glaze|syrup|ingredients|wrapping)", words, re.IGNORECASE
        )
    )


def _parse_count(text: str) -> float | None:
    return WORD_NUMBERS.get(text.lower()) or _parse_number(text)


def _parse_number(text: str) -> float | None:
    """A figure: 2, 1.5, 1,5, 1/2, 1 1/2, 1-1/2."""
    match = re.fullmatch(r"(?:(\d+)\s*[-\s]\s*)?(\d+)\s*/\s*(\d+)", text.strip())
    if match:
        whole, top, below = match.groups()
        return None if int(below) == 0 else float(whole or 0) + int(top) / int(below)
    try:
        return float(text.strip().replace(",", "."))
    except ValueError:
        return None


def _quantities(bare: str) -> tuple[list[_ParsedQuantity], str]:
    """Every quantity of a line, and the line without them."""
    quantities: list[_ParsedQuantity] = []
    rest = re.sub(r"(\d+(?:[.,]\d+)?)\s*x\s*(?=\d)", r"\1 pack ", bare)
    rest = re.sub(r"(\d)\s*%", r"\1 percent", rest)
    rest = re.sub(r"(\d+)\s+and\s+(?=\d+\s*/\s*\d)", r"\1 ", rest, flags=re.IGNORECASE)
    rest = _SHARE_OF_A_PACK.sub(r"\1 \2", rest)
    rest = re.sub(r"^(pinch|dash|knob|handful)\b", r"a \1", rest, flags=re.IGNORECASE)
    at_start = _IN_WORDS.match(rest)
    if at_start and (at_start["unit"] or at_start.end() < len(rest)):
        quantities.append(_quantity_from_words(at_start))
        rest = rest[at_start.end() :]
    pieces = []
    at = 0
    for match in _QUANTITY.finditer(rest):
        following = rest[match.end() :].lstrip()
        # A figure inside a name ("00 flour", "70 percent chocolate") is no amount.
        if following.startswith("percent") or (match.start() and rest[match.start() - 1].isalpha()):
            continue
        quantity = _quantity_from_figures(match)
        if quantity is None:
            continue
        quantities.append(quantity)
        pieces.append(rest[at : match.start()])
        at = match.end()
    pieces.append(rest[at:])
    words = " ".join(pieces)
    # The container of "1 400 ml tin coconut milk" stands after what it holds.
    container = re.match(r"\s*(?:tins?|cans?|packets?|cartons?|jars?|bags?|bottles?|blocks?)\b", words, re.IGNORECASE)
    if container and len(quantities) >= 1:
        words = words[container.end() :]
        if quantities[0].unit in (None, "pack") and len(quantities) > 1:
            quantities[0] = _ParsedQuantity(quantities[0].value, "pack", quantities[0].written, quantities[0].guessed)
    words = re.sub(r"^\W*\(\s*\)\s*(?:tins?|cans?|packets?|cartons?|jars?|bags?|bottles?|blocks?)\b", " ", words)
    words = re.sub(r"\(\s*(?:each|or so|approx\.?|about)?\s*\)", " ", words)
    words = re.sub(r"\s+", " ", words).strip(" -–—:,.=/()~")
    return quantities, re.sub(r"^(?:of|each)\s+", "", words, flags=re.IGNORECASE)


def _unit_of(written: str | None) -> tuple[str | None, float, str]:
    """The unit id (or cup, tbsp, tsp), its factor, and the rough measure it is; `T` and `t` are told by their case."""
    if not written:
        return None, 1.0, ""
    if written in ("T", "t"):
        return ("tbsp" if written == "T" else "tsp"), 1.0, ""
    for pattern, unit, factor in UNIT_WORDS:
        if re.fullmatch(pattern, written, re.IGNORECASE):
            return unit, factor, ROUGH.get(re.sub(r"(?<=sh)es$|s$", "", written.lower()), "")
    return None, 1.0, ""


def _quantity_from_figures(match: re.Match[str]) -> _ParsedQuantity | None:
    low, high = _parse_number(match["low"]), _parse_number(match["high"]) if match["high"] else None
    if low is None:
        return None
    guessed = []
    value = low
    if high is not None and high > low:
        value = (low + high) / 2
        guessed.append(
            say(
                "{low} to {high}: taken as {taken}",
                low=_format_figure(low),
                high=_format_figure(high),
                taken=_format_figure(value),
            )
        )
    return _measured(match, value, guessed)


def _quantity_from_words(match: re.Match[str]) -> _ParsedQuantity:
    words = match["low"].lower().split()
    numbers = [WORD_NUMBERS[word] for word in words if word in WORD_NUMBERS]
    value = numbers[0] + numbers[-1] if "and" in words else math.prod(numbers)
    guessed = [say("a few: taken as {taken}", taken=_format_figure(value))] if "few" in words else []
    return _measured(match, value, guessed)


def _measured(match: re.Match[str], value: float, guessed: list[str]) -> _ParsedQuantity:
    unit, factor, rough = _unit_of(match["unit"])
    heap = (match["heap"] or "").lower()
    if match["about"]:
        guessed.append("about")
    if heap and heap != "level":
        guessed.append(say("{heap}: taken as {heaps:g} of a level one", heap=heap, heaps=HEAPS[heap]))
    if rough:
        guessed.append(rough)
    return _ParsedQuantity(value * factor * HEAPS.get(heap, 1.0), unit, match.group().strip(), tuple(guessed))


def _best_quantity(quantities: list[_ParsedQuantity]) -> _ParsedQuantity | None:
    """A weight before a volume before a count; a pack keeps its number, what it holds is told beside it."""
    if not quantities:
        return None
    if quantities[0].unit == "pack":
        return quantities[0]

    def rank(quantity: _ParsedQuantity) -> int:
        if quantity.unit is None:
            return 3
        kind = UNITS[quantity.unit].kind if quantity.unit in UNITS else "volume"
        rough = kind == "mass" and any(measure in quantity.guessed for measure in ROUGH.values())
        return 2 if rough else {"mass": 0, "volume": 1, "own": 1, "pack": 2, "count": 2}[kind]

    return min(quantities, key=rank)


def _state(words: str, item: Ingredient | None) -> State | None:
    """How it was measured, where the line says so, the larder knows it, and it is not the usual way."""
    if item is None:
        return None
    for word, state in STATES.items():
        if (
            re.search(rf"\b{word}\b", words, re.IGNORECASE)
            and state in item.density
            and state != next(iter(item.density))
        ):
            return state
    return None


def _left_over(rest: str, used: set[str]) -> str:
    """Words that were neither the name nor a manner: shown, so that nothing is lost."""
    known = used | {form for word in used for form in _forms(word)}
    return " ".join(word for word in normalize_name(rest).split() if word not in known and word not in MANNERS)


def _format_figure(value: float) -> str:
    return f"{round(value, 2):g}"


# Of all ways, by rank: what a list must hold to point to it.
_SIGNS = [
    (way, needs)
    for _, way, needs in sorted((rank, way.id, needs) for way in WAYS.values() for rank, needs in way.signs.ingredients)
]


def way_of(ingredients: list[str], shelf: Shelf) -> str | None:
    """The way that a set of ingredients points to; None without a sweet rice flour or grain among them."""
    names = {name for ingredient in ingredients for name in (ingredient, shelf.items[ingredient].group)}
    return next((way for way, needs in _SIGNS if names.issuperset(needs)), None)

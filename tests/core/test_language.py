"""Sentences in the language of whoever asks: words of the catalogue, marks of numbers, and nothing of one in another."""

import re
import string
from pathlib import Path

import pytest
from babel.messages.pofile import read_po

from kemble import words
from kemble.core.cards.ways import WAYS
from kemble.core.facts.quantity import SPOONS, household, length_words, size_words, weight_words
from kemble.core.kitchen.document import Kitchen
from kemble.core.sentences import format_figure, remember_by_language, say, speaking, translate
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work
from kemble.words import MADE_UP, accented, tongue_of

POINT = re.compile(r"\d\.\d")
OF_A_CARD = "2.6 to 3.2 times the dry beans, sugar in"  # words of a table: a number in them is its translator's


def catalogue():
    with (words.ROOT / "en" / "core.po").open("rb") as file:
        return [message.id for message in read_po(file) if message.id]


@pytest.mark.parametrize("locale", ["en-GB", "en-US", "en-IN"])
def test_english_with_a_point_is_as_the_core_writes_it(locale):
    assert tongue_of(locale) is None


def test_numbers_by_the_marks_of_the_place():
    with speaking(tongue_of("en-DE")):
        assert say("{mass:.1f} g of {what}", mass=30.04, what="flour") == "30,0 g of flour"
        assert format_figure(4.449, ".2f") == "4,45"
        assert say("at most {most:,} bytes", most=20_000_000) == "at most 20.000.000 bytes"
        assert weight_words(9.04, "g", 1) == "9,0 g"
        assert weight_words(126, "oz") == "4,44 oz"
        assert length_words(31, "in") == "1,22 in"
        assert size_words(185, unit="mm") == "18,5 cm"
    assert weight_words(9.04, "g", 1) == "9.0 g"


@pytest.mark.parametrize("way", WAYS)
def test_no_because_has_a_point_where_numbers_have_a_comma(way):
    with speaking(tongue_of("en-DE")):
        worked = work(default_sheet(way), Kitchen())
        told = worked.model_dump(mode="json")
    said = [fact["because"]["says"] for fact in told["facts"].values()] + [item["says"] for item in told["advice"]]
    assert len(said) > 20
    assert [item for item in said if POINT.search(item) and item != OF_A_CARD] == []


def test_a_language_of_its_own(tmp_path, monkeypatch):
    """What its catalogue has is said in it, whatever case it is asked in; what it lacks stays as it is written."""
    folder = tmp_path / "de"
    folder.mkdir()
    (folder / "core.po").write_text(
        'msgid "{pieces} pieces of {each:.1f} g each of {what}"\nmsgstr "je {each:.1f} g {what}, {pieces} Stück"\n\n'
        'msgid "Sweet rice flour"\nmsgstr "Klebreismehl"\n\nmsgid "not yet done"\nmsgstr ""\n\n'
        'msgid "Cover it."\nmsgstr "Zudecken."\n',
        encoding="utf-8",
    )
    monkeypatch.setattr(words, "ROOT", tmp_path)
    assert words.languages() == ["en", "de"]
    tongue_of.cache_clear()
    try:
        with speaking(tongue_of("de-DE")):
            told = say("{pieces} pieces of {each:.1f} g each of {what}", pieces=12, each=30.04, what="Sweet rice flour")
            assert told == "je 30,0 g Klebreismehl, 12 Stück"
            assert translate("sweet rice flour") == "klebreismehl"
            assert translate("Cover it. Not done. Cover it.") == "Zudecken. Not done. Zudecken."
            assert translate("not yet done") == "not yet done"
    finally:
        tongue_of.cache_clear()


def test_the_made_up_language_leaves_values_where_they_are():
    """Over the whole catalogue: the same values in every sentence, with the same formats."""
    messages = catalogue()
    assert len(messages) > 3000
    worn = accented(dict.fromkeys(messages, ""))

    def values(sentence):
        return [(name, spec) for _, name, spec, _ in string.Formatter().parse(sentence) if name is not None]

    for message in messages:
        told = worn(message)
        assert told is not None
        if "{" in message:
            assert values(told) == values(message)
        elif re.search("[aceinouy]", message, re.IGNORECASE):
            assert told != message
    assert worn("no sentence of it") is None


def test_what_was_said_in_one_language_is_not_said_in_another():
    def measure():
        return household(0.9, g_per_ml=1.2, spoons=SPOONS["metric"]).text

    plain = measure()
    with speaking(tongue_of(MADE_UP)):
        assert measure() != plain
    assert measure() == plain == "3 pinches"


def test_an_answer_is_worked_out_once_a_language():
    asked = []

    @remember_by_language(4)
    def answer(number):
        asked.append(number)
        return say("as on the sheet")

    first = answer(1), answer(1)
    with speaking(tongue_of(MADE_UP)):
        second = answer(1), answer(1)
    assert asked == [1, 1]
    assert first == ("as on the sheet",) * 2
    assert second == ("ås öñ thé shéét",) * 2


def test_every_sentence_of_the_code_is_in_the_catalogue():
    """Without the script that writes it: whatever is handed to say() as it stands."""
    root = Path(words.__file__).parents[1]
    known = set(catalogue())
    result = set()
    for path in root.rglob("*.py"):
        for match in re.finditer(r'\bsay\("((?:[^"\\]|\\.)+)"[,)]', path.read_text(encoding="utf-8")):
            result.add(match[1].encode().decode("unicode_escape").encode("latin-1", "ignore").decode("utf-8", "ignore"))
    plain = {item for item in result if item.isascii() and "\\" not in item}
    assert len(plain) > 700
    assert plain - known == {"{pieces} pieces of {each:.1f} g"}  # of an example

"""Text from outside is cleaned in one place, and what nobody can read is refused by its path."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.facts.problems import Refused
from kemble.core.text_cleaning import clean_document, clean_stored, is_suspect, readable

NO_CHARACTERS = ["\x00", "\x07", "\x1b", "\x7f", "\x9f", "\ud800", "\udfff", "a\ud83d b"]


@pytest.mark.parametrize("text", NO_CHARACTERS)
@pytest.mark.parametrize("where", ["title", "note"])
def test_what_is_no_character_is_refused_by_its_path(text, where):
    with pytest.raises(Refused) as refused:
        clean_document({"parts": [{}, {where: f"walnut {text}"}]})
    assert [problem.path for problem in refused.value.problems] == [f"parts.1.{where}"]
    refused.value.problems[0].model_dump_json()  # can be told


def test_and_so_is_a_name_of_a_field():
    with pytest.raises(Refused) as refused:
        clean_document({"tastes": {"soft\ud800": 1}})
    assert refused.value.problems[0].path == "tastes.key"


@pytest.mark.parametrize(
    ("field", "text", "clean"),
    [
        ("note", "one\r\ntwo\rthree\nfour", "one\ntwo\nthree\nfour"),
        ("note", "one\ttwo", "one two"),
        ("note", "page\x0cpage\u2028line", "page\npage\nline"),
        ("title", "walnut\r\nand\tdate", "walnut and date"),
        ("title", "walnut  \n  and date", "walnut and date"),
        ("title", "\u202eetad\u202c", "etad"),
        ("title", "👩\u200d👩\u200d👧 cake", "👩\u200d👩\u200d👧 cake"),
        ("title", "كعكة \u200fأرز", "كعكة \u200fأرز"),
    ],
)
def test_lines_tabs_and_directions(field, text, clean):
    assert clean_document({field: text}) == {field: clean}


def test_a_table_keeps_its_tabs():
    assert clean_document({"text": "made\ttitle\r\n"}, tabs=True) == {"text": "made\ttitle\r\n"}
    with pytest.raises(Refused):
        clean_document({"text": "made\x00title"}, tabs=True)


def test_what_was_stored_loses_what_is_no_character():
    stored = {"title": "tea\ncake\x00", "steps": [{"note": "a\r\nb\ud800"}]}
    assert clean_stored(stored) == {"title": "tea cake", "steps": [{"note": "a\nb"}]}


def test_somebody_else_s_document_keeps_its_lines():
    assert readable({"recipeInstructions": "one\ttwo\nthree\ud800"}) == {"recipeInstructions": "one\ttwo\nthree"}


documents = st.recursive(
    st.text() | st.integers() | st.none(),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["note", "title", "x"]), inner),
    max_leaves=8,
)


@given(documents)
def test_cleaning_twice_is_cleaning_once_and_can_be_told(document):
    once = clean_stored(document)
    assert clean_stored(once) == once
    assert clean_document(once) == once
    json.dumps(once, ensure_ascii=False).encode()


@given(documents)
def test_what_is_not_suspected_is_clean(document):
    """So that what is stored is looked at letter by letter only where it may be needed."""
    if not is_suspect(json.dumps(document)):
        assert clean_stored(document) == document

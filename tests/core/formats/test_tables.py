"""CSV as a spreadsheet reads it: every cell comes back, and none of words is a formula."""

import csv
import io
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kemble.core.formats.csv_tables import csv_text


def read(text):
    return list(csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline="")))


def test_every_kind_of_cell():
    at = datetime(2026, 11, 27, 9, 30, 12, tzinfo=UTC)
    row = ('a, "b"\nc', 1 / 3, 7, True, at, None)
    head, cells = read(csv_text(["w", "n", "i", "b", "t", "none"], [row]))
    assert head == ["w", "n", "i", "b", "t", "none"]
    assert cells == ['a, "b"\nc', "0.333333", "7", "yes", "2026-11-27T09:30+00:00", ""]


@pytest.mark.parametrize("text", ["=1+1", "+1", "-1", "@SUM(A1)", "\t=1", "\r=1"])
def test_what_a_spreadsheet_would_run_is_words(text):
    (_, (cell,)) = read(csv_text(["x"], [[text]]))
    assert cell == f"'{text}"


def test_a_number_below_nothing_is_a_number():
    assert read(csv_text(["x"], [[-2.5]]))[1] == ["-2.5"]


@given(
    st.lists(
        st.text(alphabet=st.characters(exclude_characters="\x00", exclude_categories=["Cs"])), min_size=1, max_size=4
    )
)
def test_any_words_come_back(row):
    cells = read(csv_text(["x"] * len(row), [row]))[1:]
    assert cells[0] == [f"'{item}" if item.startswith(("=", "+", "-", "@", "\t", "\r", "\n")) else item for item in row]

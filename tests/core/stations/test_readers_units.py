"""Numbers in sentences, as facts are: in the units that the kitchen reads."""

import re

import pytest

from kemble.core import Kitchen, work
from kemble.core.cards.ways import WAYS
from kemble.core.sheet.document import default_sheet


def sentences(node):
    """Every text in an answer that says more than a word."""
    if isinstance(node, str):
        yield node
    elif isinstance(node, dict):
        for value in node.values():
            yield from sentences(value)
    elif isinstance(node, list | tuple):
        for value in node:
            yield from sentences(value)


@pytest.mark.parametrize("way", WAYS)
def test_no_sentence_keeps_units_of_its_own(way):
    kitchen = Kitchen(length_unit="in", temperature_unit="F")
    told = list(sentences(work(default_sheet(way), kitchen).model_dump()))
    assert [item for item in told if re.search(r"\d ?(mm|cm|°C)\b", item)] == []

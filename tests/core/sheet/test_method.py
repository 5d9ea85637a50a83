"""The method of a sheet's document: its entries, what is refused of them, and the times of version 2."""

from pathlib import Path

import pytest

from kemble.core.change.differences import differences
from kemble.core.facts.problems import Refused
from kemble.core.kitchen.document import Kitchen
from kemble.core.kitchen.shelf import Shelf
from kemble.core.sheet.document import default_sheet, read_sheet, sheet_from
from kemble.core.sheet.method import MethodText, OwnStep, StepChange

SHEETS = Path(__file__).parents[2] / "fixtures" / "sheets"
METHOD = [
    {"step": "rest-batter", "minutes": 15, "by": "my aunt"},
    {"own": "own-rim", "title": "Wipe the rim", "after": "pour", "minutes": 2},
    {"text": "Mother hummed while it cooled.", "after": "steam"},
]


def with_method(*entries, way="set-cake"):
    return {**default_sheet(way).model_dump(mode="json"), "method": list(entries)}


def test_each_entry_is_of_its_kind_and_written_as_it_was_read():
    sheet = sheet_from(with_method(*METHOD))
    assert [type(entry) for entry in sheet.method] == [StepChange, OwnStep, MethodText]
    assert sheet_from(sheet.model_dump(mode="json")) == sheet
    assert read_sheet(sheet.model_dump_json()) == sheet


@pytest.mark.parametrize(
    ("entry", "path", "accepts"),
    [
        ({"step": "mix", "minutes": 0}, "method.0.minutes", "above 0, at most 6000 minutes"),
        ({"step": "mix", "minutes": "soon"}, "method.0.minutes", "above 0, at most 6000 minutes"),
        ({"step": "Mix it"}, "method.0.step", "the id of a step, such as rest-batter"),
        ({"step": "mix", "stages": [{"minutes": 3}]}, "method.0.stages", "two to six stages"),
        ({"step": "mix", "stages": [{}, {}]}, "method.0.stages", "two to six stages"),
        ({"step": "mix", "use": "theirs"}, "method.0.use", "ours or given"),
        ({"step": "mix", "title": "Stir"}, "method.0.title", "after, by, minutes"),
        ({"own": "own-2", "title": "Wait"}, "method.0.own", "own- and letters"),
        ({"own": "wipe", "title": "Wipe"}, "method.0.own", "own- and letters"),
        ({"own": "own-wipe"}, "method.0.title", "1 to 80 letters"),
        ({"own": "own-wipe", "common": "sing"}, "method.0.common", "wash-fruit"),
        ({"own": "own-wipe", "title": "Wipe", "hands": "three"}, "method.0.hands", "both, eye or none"),
        ({"text": ""}, "method.0.text", "1 to 2000 letters"),
        ({}, "method.0.step", "the id of a step"),
    ],
)
def test_what_is_wrong_is_named_by_its_place(entry, path, accepts):
    with pytest.raises(Refused) as refused:
        sheet_from(with_method(entry))
    (problem,) = refused.value.problems
    assert problem.path == path
    assert accepts in problem.accepts


def test_a_step_has_one_entry():
    with pytest.raises(Refused, match="two entries"):
        sheet_from(with_method({"step": "mix"}, {"step": "mix", "words": "Whisk."}))


@pytest.mark.parametrize("junk", [None, 3, "mix", [], [None], [[]]])
def test_junk_is_refused_like_any_other(junk):
    with pytest.raises(Refused):
        sheet_from({**default_sheet("set-cake").model_dump(mode="json"), "method": junk or [junk]})


def test_given_times_of_version_2_go_on_standing_beside_ours():
    """A document that was laid out before there was a method: each time an entry that moves no plan."""
    sheet = read_sheet((SHEETS / "version-2-with-given-times.json").read_text(encoding="utf-8"))
    assert sheet.version == 3
    assert [(entry.step, entry.minutes, entry.by, entry.use) for entry in sheet.method] == [
        ("heat", 70.0, "my aunt", "ours"),
        ("rest", 180.0, "", "ours"),
        ("rest-batter", 15.0, "the book", "ours"),
        ("syrup-gone", 9.0, "nobody now", "ours"),
    ]


def test_what_differs_is_told_by_the_titles_of_steps():
    before = sheet_from(with_method({"step": "sieve", "words": "Press."}))
    after = sheet_from(with_method(*METHOD, {"step": "sieve", "skip": True}))
    assert differences(before, after, Shelf(Kitchen())) == [
        "“Sieve the batter” is left out",
        "“Rest the batter”: 15 min",
        "“Wipe the rim” is new",
        "“Mother hummed while it cooled.” is new",
    ]
    gone = "“Wipe the rim” is gone"
    assert gone in differences(after, sheet_from(with_method(METHOD[0])), Shelf(Kitchen()))

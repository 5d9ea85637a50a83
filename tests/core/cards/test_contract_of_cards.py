"""What cards and code agree on: a card that breaks it is refused with its line, and nothing it may do makes work() raise."""

import shutil
from dataclasses import replace
from importlib import util
from pathlib import Path
from typing import get_args

import pytest

from kemble.core.cards import parts, ways
from kemble.core.cards.card_contract import ASKED, CardError, check_family, check_way
from kemble.core.cards.common_steps import COMMON_STEPS
from kemble.core.cards.parts import FAMILIES
from kemble.core.cards.ways import WAYS
from kemble.core.facts.fact import Fact
from kemble.core.facts.vocabulary import PartRole
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

CARDS = Path(ways.__file__).parent


def changed(tmp_path, name, old, new, folder=CARDS):
    """The card of that file with one thing written otherwise, and the line where it stands."""
    file = tmp_path / f"{name}.py"
    shutil.copy(folder / f"{name}.py", file)
    text = file.read_text(encoding="utf-8")
    assert old in text
    before = text[: text.index(old)] + new
    file.write_text(text.replace(old, new, 1), encoding="utf-8")
    spec = util.spec_from_file_location(name, file)
    module = util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module, before.count("\n") + 1


@pytest.mark.parametrize(
    ("name", "old", "new", "says"),
    [
        ("set_cake", 'School("covered"', 'School("hidden"', 'code does not know the school "hidden" of "cover"'),
        ("set_cake", '"melted",\n            (', '"molten",\n            (', 'the default "molten" is none'),
        ("pounded", 'sheeted_when=("finish", "block")', 'sheeted_when=("end", "block")', 'no school "block" of a choice "end"'),
        ("stirred_rounds", 'tastes=("softness",', 'tastes=("soft",', '"soft" is no scale of taste'),
        ("boiled_balls", 'heat="boil"', 'heat="bake"', 'a ball is not heated by "bake"'),
        ("tray_rice", '"steamer": "steam"', '"tower": "steam"', '"steamer" stands in grain_cook'),
        ("batter_bake", '"oven", "public")', '"owen", "public")', '"owen" is no caution'),
    ],
)  # fmt: skip
def test_a_card_that_breaks_it_is_refused_with_its_line(tmp_path, name, old, new, says):
    module, line = changed(tmp_path, name, old, new)
    with pytest.raises(CardError, match=f"^{name}.py, line ") as refused:
        check_way(module.WAY, module)
    assert says in str(refused.value)
    told = int(str(refused.value).partition("line ")[2].partition(":")[0])
    assert abs(told - line) <= 30  # the card's own place for it: the call, or the keyword


def test_a_step_renamed_is_found_where_somebody_waits_for_it(tmp_path):
    module, _ = changed(tmp_path, "set_cake", '            "melt",', '            "dissolve",')
    with pytest.raises(CardError, match=r'^set_cake.py, line \d+: it waits for "melt", which is no step'):
        check_way(module.WAY, module)


def test_a_school_under_which_no_step_takes_what_is_left_is_refused(tmp_path):
    rest = 'adds=(Adds(),),\n            becomes="batter",'
    module, _ = changed(tmp_path, "set_cake", rest, 'adds=(Adds(("flour",)),),')
    with pytest.raises(CardError, match="under into hot no step takes what is left of the lines"):
        check_way(module.WAY, module)


def test_a_part_is_held_to_it_too(tmp_path):
    folder = Path(parts.__file__).parent
    module, _ = changed(tmp_path, "coat", 'tells=("dust",)', 'tells=("dust",), cautions=("nobody-knows",)', folder)
    with pytest.raises(CardError, match=r'coat.py, line \d+: "nobody-knows" is no caution'):
        check_family(module.FAMILY, module)


def worked_with(way, monkeypatch):
    """The way's own sheet worked with another card in its place, past the check: nothing fails on the way."""
    sheet = default_sheet(way.id)
    monkeypatch.setitem(WAYS, way.id, way)
    worked = work(sheet, Kitchen())
    assert isinstance(worked.facts["mix.hydration_pct"], Fact)


@pytest.mark.parametrize(
    ("way", "choice"), [(way.id, choice.id) for way in WAYS.values() for choice in way.choices]
)  # fmt: skip
def test_a_choice_taken_out_makes_nothing_fail(way, choice, monkeypatch):
    left = tuple(each_choice for each_choice in WAYS[way].choices if each_choice.id != choice)
    worked_with(replace(WAYS[way], choices=left), monkeypatch)


@pytest.mark.parametrize(("way", "step"), [(way.id, step.id) for way in WAYS.values() for step in way.steps])
def test_a_step_renamed_makes_nothing_fail(way, step, monkeypatch):
    steps = tuple(
        replace(each_step, id="renamed") if each_step.id == step else each_step for each_step in WAYS[way].steps
    )
    worked_with(replace(WAYS[way], steps=steps), monkeypatch)


def test_code_asks_for_nothing_that_no_card_has():
    """A choice that code knows and no way leaves open would be a rule that nobody can follow."""
    asked = {choice.id for way in WAYS.values() for choice in way.choices}
    asked |= {choice.id for family in FAMILIES.values() for choice in family.choices}
    assert set(ASKED) <= asked


STEPS = [
    pytest.param(step, id=f"{card.id}-{step.id}")  # type: ignore[attr-defined]
    for card in (*WAYS.values(), *FAMILIES.values())
    for step in card.steps  # type: ignore[attr-defined]
]


@pytest.mark.parametrize("step", STEPS)
def test_what_is_done_at_the_heat_or_with_a_blade_says_so(step):
    """A child is given only what is safe: nothing that heats, nothing that cuts."""
    words = f"{step.title} {' '.join(step.tools)}".lower()
    if set(step.uses) & {"burner", "oven", "steamer"} or {"steam", "oven", "hot-oil", "molten-sugar"} & set(
        step.cautions
    ):
        assert step.work == "stove"
    elif any(blade in words for blade in ("knife", "scissors", "blade", "blender", "grinder")):
        assert step.work in ("knife", "stove") or step.id in {"fold", "soften-leaf", "serve"}
    if step.hands == "held":
        assert step.tools


@pytest.mark.parametrize("common", COMMON_STEPS.values(), ids=COMMON_STEPS)
def test_a_common_step_is_put_after_steps_that_there_are(common):
    """Steps of ways by their ids; a part is put by `put-` and its role."""
    there = {step.id for way in WAYS.values() for step in way.steps} | {f"put-{role}" for role in get_args(PartRole)}
    assert set(common.comes_after) <= there

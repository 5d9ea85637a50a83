"""Steps that cost hours by a choice, and what would spare them."""

import pytest

from kemble.core.cards.ways import WAYS
from kemble.core.change.long_steps import long_steps, span_min
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen()


def test_beans_soaked_overnight_cost_a_night():
    (long,) = long_steps(default_sheet("stirred-rounds"), KITCHEN)
    assert (long.step, long.minutes, long.by) == ("filling-soak", 480, "soaked overnight")
    assert [(each.part, each.choice, each.school) for each in long.instead] == [
        ("filling", "soak", "lid"),
        ("filling", "soak", "none"),
    ]
    assert all(420 < each.later_min < 480 for each in long.instead)


def test_a_soak_of_the_grain_is_a_field():
    (long,) = long_steps(default_sheet("pounded"), KITCHEN)
    assert long.by == "overnight"
    assert [(each.label, each.soak_min) for each in long.instead] == [("not soaked", 0), ("an hour", 60)]


@pytest.mark.parametrize("way", sorted(WAYS))
def test_what_is_promised_is_what_comes_of_it(way):
    """With the other choice made, the way through the steps is shorter by what was said; and no longer a step is left out."""
    sheet = default_sheet(way)
    before = span_min(work(sheet, KITCHEN).steps)
    for long in long_steps(sheet, KITCHEN):
        for other in long.instead:
            document = sheet.model_dump(mode="json")
            if other.soak_min is not None:
                document["grain"] |= {"soak_min": other.soak_min, "soak_c": other.soak_c}
            elif other.part:
                part = next(part for part in document["parts"] if part["role"] == other.part)
                part["schools"] = {**part["schools"], other.choice: other.school}
            else:
                document["schools"][other.choice] = other.school
            after = span_min(work(sheet_from(document), KITCHEN).steps)
            assert before - after == pytest.approx(other.later_min)
            assert other.later_min >= 30


def test_a_cake_that_costs_no_hours_says_nothing():
    assert long_steps(default_sheet("folded-pulls"), KITCHEN) == []


def test_a_leaf_that_lines_a_tray_costs_no_night_unless_the_cook_chooses_it():
    leaf = {"role": "wrapper", "lines": [{"ingredient": "banana-leaf", "amount": {"value": 3, "unit": "piece"}}]}
    document = default_sheet("tray-rice").model_dump(mode="json")

    def nights(**more):
        worked = work(sheet_from({**document, "parts": [*document["parts"], {**leaf, **more}]}), KITCHEN)
        return [step.id for step in worked.steps if step.part == "wrapper" and step.minutes >= 240]

    assert nights() == []
    assert nights(schools={"soften": "soaked"}) == ["wrapper-soak-leaves"]

"""What a step stands on, where its school or the kitchen decides that."""

import pytest

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.document import Kitchen
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work


def uses(step, *, soak_c=18.0, kitchen=None, **schools):
    sheet = default_sheet("pounded").model_dump(mode="json")
    sheet["schools"].update(schools)
    sheet["grain"]["soak_c"] = soak_c
    steps = {step.id: step for step in work(sheet_from(sheet), kitchen or Kitchen()).steps}
    return set(steps[step].uses)


@pytest.mark.parametrize(("school", "is_in_it"), [("machine", True), ("mortar", False), ("bowl", False)])
def test_only_who_pounds_by_machine_takes_it(school, is_in_it):
    assert ("machine" in uses("pound", pound=school)) is is_in_it


def test_blocks_are_toasted_in_the_oven_a_toaster_or_a_pan():
    assert uses("toast", finish="block", puff="glow") == {"oven"}
    assert uses("toast", finish="block", puff="glow", kitchen=Kitchen(toasters=1)) == {"toaster"}
    assert uses("toast", finish="block", puff="pan") == {"burner"}


@pytest.mark.parametrize(("soak_c", "where"), [(18.0, "counter"), (8.0, "fridge")])
def test_a_cold_soak_stands_in_the_fridge(soak_c, where):
    assert uses("soak", soak_c=soak_c) == {where}


@pytest.mark.parametrize("way", sorted(WAYS))
def test_a_step_says_what_its_minutes_hang_on(way):
    """The heat by the same shares as its window is told with, together the whole variance less what is too small to tell;
    a slower flame is a longer heat, so its share is negative."""
    told = work(default_sheet(way), Kitchen())
    heat = next(step for step in told.steps if step.window)
    shares = {hang.id: hang.share_pct for hang in told.hangs}
    for name, share in shares.items():
        assert 100 * heat.hangs[name] ** 2 == pytest.approx(share, abs=0.6)
    for step in told.steps:
        assert sum(share**2 for share in step.hangs.values()) <= 1.01
    assert heat.hangs.get("burner", 0.0) <= 0.0

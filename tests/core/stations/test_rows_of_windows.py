"""No window leaves out what moves its time: every row of the table is moved once, and seen to be in it or to matter little;
and drawn kitchens lie within the windows as often as they say."""

import numpy as np
import pytest
from moved_kitchens import SAME_WINDOW, coverage, moves, times_with_windows
from thorough import times as often

from kemble.core.cards.ways import WAYS
from kemble.core.kitchen.estimates import ESTIMATES
from kemble.core.sheet.document import default_sheet, sheet_from

LEAST_SHARE = 0.02  # of a time's variance; about a seventh of its width


def of_school(way, **schools):
    content = default_sheet(way).model_dump(mode="json")
    content["schools"].update(schools)
    return sheet_from(content)


def sheets():
    """The starting sheets, and the schools that change the heat, the finish or the rest; all of them in the long tests."""
    for way in sorted(WAYS):
        yield way, {}
        for choice in often(WAYS[way].choices, ()):
            for school in choice.schools:
                yield way, {choice.id: school.id}
    yield "set-cake", {"cover": "covered"}
    yield "boiled-balls", {"done": "float"}
    yield "batter-bake", {"dense": "leavened"}
    yield "ground-packets", {"finish": "griddle"}
    yield "tray-rice", {"finish": "bare"}
    yield "pounded", {"finish": "block"}


@pytest.mark.parametrize(("way", "schools"), list(sheets()))
def test_what_moves_a_time_is_in_its_window(way, schools):
    sheet = of_school(way, **schools)
    told, spreads = times_with_windows(sheet)
    moved = {name: moves(sheet, name, row.high, told) for name, row in ESTIMATES.items()}
    lower = {}  # asked only of what seems to be missing: one end may say more than both
    missing = []
    for key in told:
        spread = spreads.get(key) or spreads.get(SAME_WINDOW.get(key, ""))
        within = {share.id for share in spread.shares} if spread else set()
        whole = sum(by.get(key, 0.0) ** 2 for by in moved.values())
        for name, by in moved.items():
            if name in within or by.get(key, 0.0) ** 2 <= LEAST_SHARE * whole:
                continue
            if name not in lower:
                lower[name] = moves(sheet, name, ESTIMATES[name].low, told)
            share = ((by[key] - lower[name].get(key, 0.0)) / 2) ** 2 / whole
            if share > LEAST_SHARE:
                missing.append(f"{key} of {way} {schools}: {name} is {share:.1%} of its variance and not in its window")
    assert not missing, "\n".join(missing)
    assert len(told) >= 3


def test_a_large_batch_hangs_on_the_board_that_it_is_laid_on():
    """Three times as much covers the board: how large that is moves how long it stays warm, and is in its window."""
    content = default_sheet("stirred-rounds").model_dump(mode="json")
    for part in content["parts"]:
        for line in part["lines"]:
            line["amount"]["value"] *= 3
    sheet = sheet_from(content)
    told, spreads = times_with_windows(sheet)
    key, end = "rest.handle_until_min", ESTIMATES["board_cm2"].low
    by_work = moves(sheet, "board_cm2", end, told)[key]
    (share,) = [each for each in spreads[key].shares if each.id == "board_cm2"]
    assert share.at_low == pytest.approx(by_work, rel=0.05)
    assert share.share > LEAST_SHARE


@pytest.mark.parametrize("way", sorted(WAYS))
def test_drawn_kitchens_lie_within(way):
    """Windows go from where one in twenty is sooner to where one in twenty is later: nine in ten of 100 drawn kitchens, give
    or take what so few are sure of. `make bench` draws two thousand."""
    share = coverage(default_sheet(way), np.random.default_rng(29), often(400, 100))
    few = {key: value for key, value in share.items() if value < often(0.84, 0.80)}
    assert not few, few

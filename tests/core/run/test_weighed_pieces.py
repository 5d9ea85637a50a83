"""Pieces weighed one after another: the first three are practice, and count only while there are no others."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.kitchen.document import Kitchen
from kemble.core.log.predictions import compared
from kemble.core.plan.schedule import plan_from
from kemble.core.run.events import event_from
from kemble.core.run.weighed_pieces import mean_without_practice, weighed_pieces
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

BEGAN = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)
WORKED = work(default_sheet("boiled-balls"), Kitchen())
PLAN = plan_from(WORKED.steps, Kitchen(), begin=BEGAN)
STEP = next(
    scheduled_step.step
    for scheduled_step in PLAN.scheduled
    if scheduled_step.step.target and scheduled_step.step.target.key == "shape.base_g"
)


def weighed(*grams, undo=()):
    events = [
        event_from({}, uid=f"weighed-{i}", at=BEGAN + timedelta(seconds=i), kind="weighed", step=STEP.id, grams=g)
        for i, g in enumerate(grams)
    ]
    end = BEGAN + timedelta(hours=1)
    return events + [event_from({}, uid=f"undone-{i}", at=end, kind="undone", of=f"weighed-{i}") for i in undo]


def test_the_first_three_are_practice():
    """31, 24 and 28 found the size; 26, 27 and 28 were meant: 27 on the mean, a standard deviation of 1."""
    (each_weighed_pieces,) = weighed_pieces(PLAN, weighed(31, 24, 28, 26, 27, 28))
    assert (each_weighed_pieces.practice, each_weighed_pieces.meant) == ([31, 24, 28], [26, 27, 28])
    assert (each_weighed_pieces.mean_g, each_weighed_pieces.spread_g) == (27, 1)
    assert each_weighed_pieces.told_g == STEP.target.grams


def test_while_there_are_no_others_they_count():
    (each_weighed_pieces,) = weighed_pieces(PLAN, weighed(31, 25))
    assert (each_weighed_pieces.practice, each_weighed_pieces.meant, each_weighed_pieces.mean_g) == ([31, 25], [], 28)
    assert weighed_pieces(PLAN, weighed(26))[0].spread_g is None


def test_one_that_was_taken_back_was_none():
    (each_weighed_pieces,) = weighed_pieces(PLAN, weighed(31, 99, 24, 28, 26, undo=(1,)))
    assert (each_weighed_pieces.practice, each_weighed_pieces.meant) == ([31, 24, 28], [26])


def test_told_beside_happened_goes_by_what_was_meant():
    """Not by the last one, which was light."""
    events = weighed(40, 40, 40, 26, 28, 24)
    compared_prediction = next(
        prediction for prediction in compared(PLAN, events, WORKED.facts, BEGAN) if prediction.unit == "g"
    )
    assert compared_prediction.happened == pytest.approx(26)
    assert mean_without_practice([40, 40, 40, 26, 28, 24]) == 26


def test_nothing_weighed_is_nothing():
    assert weighed_pieces(PLAN, []) == []

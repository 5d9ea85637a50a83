"""When hands are not to be asked for, in minutes after an origin."""

from datetime import UTC, datetime

import pytest

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.resources import named, quiet_spans

MORNING = datetime(2026, 12, 5, 6, 0, tzinfo=UTC)


@pytest.mark.parametrize(
    ("begins", "ends", "spans"),
    [
        ("22:00", "07:00", [(0, 60), (960, 1440)]),  # over midnight: until 07:00, and from 22:00
        ("13:00", "14:30", [(420, 510)]),  # within the day
        ("05:00", "06:00", [(1380, 1440)]),  # over as the day begins; again the next morning
        ("09:00", "09:00", []),  # none
    ],
)
def test_quiet_hours(begins, ends, spans):
    kitchen = Kitchen.model_validate({"timezone": "UTC", "quiet": {"begins": begins, "ends": ends}})
    assert quiet_spans(kitchen, MORNING, 1440) == spans


@pytest.mark.parametrize(
    ("resource", "name"),
    [("pan:the wide one", "the wide one"), ("steamer:bamboo", "bamboo"), ("counter", ""), ("pan", "")],
)
def test_a_thing_that_a_sheet_asks_for_by_its_name(resource, name):
    assert named(resource) == name

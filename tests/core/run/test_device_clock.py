"""When something happened, told by a device whose clock is off."""

from datetime import UTC, datetime, timedelta

import pytest

from kemble.core.run.device_clock import DeviceClock, EventTime, event_time

NINE = datetime(2026, 11, 28, 9, tzinfo=UTC)
HOUR = timedelta(hours=1)


@pytest.mark.parametrize("error_h", [3, 0, -2])
def test_its_error_is_taken_off(error_h):
    """It happened an hour before it is sent, at nine: at eight, whatever the device shows."""
    shows = NINE - error_h * HOUR
    assert event_time(DeviceClock(at=shows - HOUR, now=shows), NINE) == EventTime(NINE - HOUR, 3600.0 * error_h)


def test_a_clock_that_says_nonsense_is_left_alone():
    early, late = datetime(1, 1, 2, tzinfo=UTC), datetime(9999, 12, 30, tzinfo=UTC)
    assert event_time(DeviceClock(at=early, now=late), NINE) == EventTime(early, 0.0)

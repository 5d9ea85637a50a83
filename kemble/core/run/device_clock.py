"""The time of an event on a device whose clock may be wrong or may have been set meanwhile.

A device measures how far its clock is off at every answer that it hears, and corrects what it tells by that. One that
never heard an answer says so, and is corrected by what its clock shows as it sends. A clock that was set between the two
cannot be seen through: then the device's own correction stands, which was right when the event happened.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Final

NOTICED_S: Final = 2.0  # less than that is how long a message is on its way


@dataclass(frozen=True, slots=True)
class DeviceClock:
    """What a device's clock showed when something happened, and what it shows as that is sent."""

    at: datetime
    now: datetime


@dataclass(frozen=True, slots=True)
class EventTime:
    """When an event happened on the wall's clock, and the error (in seconds, above 0 for a slow clock) that was taken off."""

    at: datetime
    error_s: float


def event_time(clock: DeviceClock, server_now: datetime) -> EventTime:
    """When it happened, of a device that does not know how far its clock is off.

    >>> from datetime import UTC, datetime, timedelta
    >>> nine = datetime(2026, 11, 28, 9, tzinfo=UTC)
    >>> slow = DeviceClock(at=nine - timedelta(hours=4), now=nine - timedelta(hours=3))
    >>> event_time(slow, nine)
    EventTime(at=datetime.datetime(2026, 11, 28, 8, 0, tzinfo=datetime.timezone.utc), error_s=10800.0)
    """
    error = server_now - clock.now
    try:
        return EventTime(clock.at + error, error.total_seconds())
    except OverflowError:  # its two instants are thousands of years apart
        return EventTime(clock.at, 0.0)

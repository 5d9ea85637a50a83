"""A day as iCalendar (RFC 5545): one event a step, an alarm where hands are wanted; opens in any calendar."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta

from icalendar import Alarm, Calendar, Event

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.sentences import say

_BEFORE = timedelta(minutes=5)


def calendar_of(
    title: str, plan: Plan | None, dishes: Sequence[str], kitchen: Kitchen, *, made: datetime, uid: str
) -> bytes:
    """The day's steps and its serving, in UTC, which every calendar shows on its own clock; UTF-8. Without a plan it
    holds no event."""
    calendar = Calendar()
    calendar.add("prodid", "-//Kemble//Day//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", title)
    for scheduled_step in plan.scheduled if plan else ():
        calendar.add_component(
            _calendar_event(
                scheduled_step, dishes, made, f"{uid}-{scheduled_step.dish}-{scheduled_step.step.id}@kemble"
            )
        )
    if plan:
        table = Event()
        table.add("summary", say("On the table: {title}", title=title))
        table.add("dtstart", plan.serve)
        table.add("dtend", plan.serve + timedelta(hours=1))
        table.add("dtstamp", made)
        table.add("uid", f"{uid}-table@kemble")
        calendar.add_component(table)
    text: bytes = calendar.to_ical()
    return text


def _calendar_event(scheduled_step: ScheduledStep, dishes: Sequence[str], made: datetime, uid: str) -> Event:
    event = Event()
    dish = dishes[scheduled_step.dish] if scheduled_step.dish < len(dishes) else ""
    event.add("summary", f"{scheduled_step.step.title} ({dish})" if dish else scheduled_step.step.title)
    event.add("dtstart", scheduled_step.starts)
    event.add("dtend", scheduled_step.ends)
    event.add("dtstamp", made)
    event.add("uid", uid)
    event.add("description", _event_text(scheduled_step))
    if scheduled_step.step.hands != "free":
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", scheduled_step.step.title)
        alarm.add("trigger", -_BEFORE)
        event.add_component(alarm)
    return event


def _event_text(scheduled_step: ScheduledStep) -> str:
    """What is done, what to look for, what to weigh, who does it."""
    step = scheduled_step.step
    said = [step.words]
    if step.cue:
        said.append(f"{step.cue.question} {step.cue.how}")
    if step.target:
        said.append(f"{step.target.label}: {step.target.grams:.0f} g")
    if step.tools:
        said.append(say("Set out: {tools}.", tools=", ".join(step.tools)))
    if scheduled_step.who:
        said.append(say("By {who}.", who=scheduled_step.who))
    return "\n".join(said)

"""A day as plain text, by its clock: time, what, whose hands, the cue and the weight to hit."""

from __future__ import annotations

from collections.abc import Sequence

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan
from kemble.core.sentences import say


def day_text(title: str, plan: Plan | None, dishes: Sequence[str], kitchen: Kitchen) -> str:
    """A line for each step, a heading for each day, on the kitchen's clock."""
    lines = [title, "=" * len(title), ""]
    if plan is None:
        return "\n".join([*lines, say("There is no plan."), ""])
    day = None
    for scheduled_step in plan.scheduled:
        starts, ends = (kitchen.clock_words(instant) for instant in (scheduled_step.starts, scheduled_step.ends))
        at = scheduled_step.starts.astimezone(kitchen.zone)
        if at.date() != day:
            day = at.date()
            lines += ["", f"{at:%A} {at.day} {at:%B}", ""]
        of = f" ({dishes[scheduled_step.dish]})" if len(dishes) > 1 else ""
        who = f", {scheduled_step.who}" if scheduled_step.who else ""
        lines.append(
            say(
                "{starts:>8}  {title}{of}: until {ends}, {hands}{who}",
                starts=starts,
                title=scheduled_step.step.title,
                of=of,
                ends=ends,
                hands=scheduled_step.step.hands,
                who=who,
            )
        )
        if scheduled_step.step.cue:
            lines.append(f"          {scheduled_step.step.cue.question} {scheduled_step.step.cue.how}")
        if scheduled_step.step.target:
            lines.append(f"          {scheduled_step.step.target.label}: {scheduled_step.step.target.grams:.0f} g")
    lines += ["", say("{clock_words:>8}  On the table", clock_words=kitchen.clock_words(plan.serve)), ""]
    return "\n".join(lines)

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
    for one in plan.scheduled:
        starts, ends = (kitchen.clock_words(instant) for instant in (one.starts, one.ends))
        at = one.starts.astimezone(kitchen.zone)
        if at.date() != day:
            day = at.date()
            lines += ["", f"{at:%A} {at.day} {at:%B}", ""]
        of = f" ({dishes[one.dish]})" if len(dishes) > 1 else ""
        who = f", {one.who}" if one.who else ""
        lines.append(
            say(
                "{starts:>8}  {title}{of}: until {ends}, {hands}{who}",
                starts=starts,
                title=one.step.title,
                of=of,
                ends=ends,
                hands=one.step.hands,
                who=who,
            )
        )
        if one.step.cue:
            lines.append(f"          {one.step.cue.question} {one.step.cue.how}")
        if one.step.target:
            lines.append(f"          {one.step.target.label}: {one.step.target.grams:.0f} g")
    lines += ["", say("{clock_words:>8}  On the table", clock_words=kitchen.clock_words(plan.serve)), ""]
    return "\n".join(lines)

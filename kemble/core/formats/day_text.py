"""A day as plain text, by its clock: time, what, whose hands, the cue and the weight to hit."""

from __future__ import annotations

from collections.abc import Sequence

from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan


def day_text(title: str, plan: Plan | None, dishes: Sequence[str], kitchen: Kitchen) -> str:
    """A line for each step, a heading for each day, on the kitchen's clock."""
    lines = [title, "=" * len(title), ""]
    if plan is None:
        return "\n".join([*lines, "There is no plan.", ""])
    day = None
    for one in plan.scheduled:
        starts, ends = (kitchen.clock_words(instant) for instant in (one.starts, one.ends))
        at = one.starts.astimezone(kitchen.zone)
        if at.date() != day:
            day = at.date()
            lines += ["", f"{at:%A} {at.day} {at:%B}", ""]
        of = f" ({dishes[one.dish]})" if len(dishes) > 1 else ""
        who = f", {one.who}" if one.who else ""
        lines.append(f"{starts:>8}  {one.step.title}{of}: until {ends}, {one.step.hands}{who}")
        if one.step.cue:
            lines.append(f"          {one.step.cue.question} {one.step.cue.how}")
        if one.step.target:
            lines.append(f"          {one.step.target.label}: {one.step.target.grams:.0f} g")
    lines += ["", f"{kitchen.clock_words(plan.serve):>8}  On the table", ""]
    return "\n".join(lines)

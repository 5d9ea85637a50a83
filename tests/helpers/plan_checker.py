"""A reader of plans with no solver in it: every rule that a day breaks, from the kitchen, the helpers and the steps."""

from datetime import timedelta
from itertools import pairwise

HANDS = {"held": 10, "minded": 3, "free": 0}
A_COOK = 13


def broken(asked, plan, *, several=True):
    """What is wrong with a plan, in words; nothing when it keeps every rule. Read at every instant at which one of the
    steps, the quiet hours or a helper's stay begins or ends."""
    result = []
    at = {(item.dish, item.step.id): item for item in plan.scheduled}
    for item in plan.scheduled:
        if item.ends - item.starts < timedelta(minutes=item.step.minutes) - timedelta(seconds=1):
            result.append(f"{item.step.id} is cut short")
        for wait in item.step.after:
            gap = (item.starts - at[(item.dish, wait.step)].ends).total_seconds() / 60
            if gap < wait.at_least - 0.51 or (wait.at_most is not None and gap > wait.at_most + 0.01):
                result.append(f"{item.dish} {item.step.id} begins {gap} min after {wait.step}")
        if asked.not_before and item.starts < asked.not_before:
            result.append(f"{item.step.id} begins in the past")
    for i, dish in enumerate(asked.dishes):
        last = at[(i, dish.steps[-1].id)]
        early = (dish.serve - last.ends).total_seconds() / 60
        if not 0 <= early <= (45 if several else 0):
            result.append(f"dish {i} is ready {early} min before it is eaten")
    zone, kitchen = asked.kitchen.zone, asked.kitchen
    edges = {edge for item in plan.scheduled for edge in (item.starts, item.ends)}
    edges |= {edge for helper in asked.helpers for edge in (helper.begins, helper.ends)}
    first, last = min(edges), max(edges)
    hour = first.replace(minute=0, second=0, microsecond=0)
    while hour < last:  # quiet hours begin and end on the hour here
        edges.add(hour)
        hour += timedelta(hours=1)
    for begin, end in pairwise(sorted(edge for edge in edges if first <= edge <= last)):
        middle = begin + (end - begin) / 2
        doing = [item.step for item in plan.scheduled if item.starts <= middle < item.ends]
        helps = [helper for helper in asked.helpers if helper.begins <= middle < helper.ends]
        cooks = kitchen.cooks + asked.more_cooks
        if asked.quiet and _is_quiet(kitchen, middle.astimezone(zone)):
            cooks, helps = 0, []
        total = sum(HANDS[step.hands] for step in doing)
        skilled = sum(HANDS[step.hands] for step in doing if step.work in ("stove", "knife"))
        if total > A_COOK * (cooks + len(helps)):
            result.append(f"too few hands at {middle}")
        if skilled > A_COOK * (cooks + sum(not each_help.safe_only for each_help in helps)):
            result.append(f"too few who may at {middle}")
        for use, most in (
            ("burner", kitchen.burners),
            ("steamer", len(kitchen.steamers)),
            ("oven", kitchen.ovens),
            ("fridge", kitchen.cold_shelves),
            ("freezer", kitchen.cold_shelves),
        ):
            if sum(use in step.uses for step in doing) > most:
                result.append(f"too little {use} at {middle}")
    return result


def _is_quiet(kitchen, local):
    begins, ends = (int(clock[:2]) for clock in (kitchen.quiet.begins, kitchen.quiet.ends))
    return local.hour >= begins or local.hour < ends if begins > ends else begins <= local.hour < ends

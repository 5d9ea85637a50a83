"""Lists for paper: a day by its clock, the whole of it or one person's, and what is to be bought. HTML for whatever prints it.

Of the pages of the screens (`web/src/occasion/DayOnPaper.tsx`, `shopping/ShoppingPage.tsx`) for whoever has no browser.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from xml.sax.saxutils import escape

from kemble.core.change.shopping import ShoppingLine, ShoppingList, packs_to_carry
from kemble.core.facts.problems import refuse
from kemble.core.facts.quantity import span_words
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import Plan, ScheduledStep
from kemble.core.sentences import say

LISTS = ("plan", "shopping")


def day_html(title: str, plan: Plan, dishes: Sequence[str], kitchen: Kitchen, *, who: str = "", fonts: str = "") -> str:
    """A plan by its clock, then what to set out and by when. `who`: only their steps; Refused when they have none."""
    steps = [scheduled_step for scheduled_step in plan.scheduled if not who or scheduled_step.who == who]
    if not steps:
        named = ", ".join(sorted({scheduled_step.who for scheduled_step in plan.scheduled if scheduled_step.who}))
        refuse("helper", say("{who} has nothing to do in it", who=who), named or say("a kitchen with several cooks"))
    of_dish = {i: f"{i + 1} " if len(dishes) > 1 else "" for i in range(len(dishes))}
    days: dict[str, list[str]] = {}
    tools: dict[str, str] = {}
    for scheduled_step in steps:
        at = scheduled_step.starts.astimezone(kitchen.zone)
        day = f"{at:%A} {at.day} {at:%B}"
        days.setdefault(day, []).append(
            _step_html(scheduled_step, of_dish.get(scheduled_step.dish, ""), kitchen, named=not who)
        )
        for tool in scheduled_step.step.tools:
            tools.setdefault(tool, f"{at:%a} {kitchen.clock_words(scheduled_step.starts)}")
    by_clock = "".join(f"<h2>{escape(day)}</h2><table>{''.join(rows)}</table>" for day, rows in days.items())
    numbered = [f"{i} {escape(dish)}" for i, dish in enumerate(dishes, start=1)] if len(dishes) > 1 else []
    table_at = f"<p><b>{kitchen.clock_words(plan.serve)} on the table</b></p>"
    set_out = _pairs(say("To set out"), ((tool[:1].upper() + tool[1:], at) for tool, at in tools.items()))
    head = f"{title}: {who}" if who else title
    return _page_html(head, f"<p>{', '.join(numbered)}</p>{by_clock}{table_at}{set_out}", fonts)


def _step_html(scheduled_step: ScheduledStep, of: str, kitchen: Kitchen, *, named: bool) -> str:
    step = scheduled_step.step
    own = f"<br>“{escape(step.own_words)}”" if step.own_words else ""
    cue = f"<br><small>{escape(step.cue.question)} {escape(step.cue.how)}</small>" if step.cue else ""
    target = f"<br><small>{escape(step.target.label)}: <b>{step.target.grams:.0f} g</b></small>" if step.target else ""
    hands = "" if step.hands == "free" else f", {step.hands}"
    who = f"<br><small>{escape(scheduled_step.who)}</small>" if named and scheduled_step.who else ""
    return (
        f"<tr><td class=at>{kitchen.clock_words(scheduled_step.starts)}<td>{of}{escape(step.title)}{own}{cue}{target}"
        f"<td class=end>{span_words(step.minutes)}{hands}{who}</tr>"
    )


def shopping_html(shopping_list: ShoppingList, *, fonts: str = "") -> str:
    """What is to be bought, shelf by shelf, with a box to tick; what is there already stays away."""
    lines = [line for line in shopping_list.lines if line.buy_g > 0]
    shelves: dict[str, list[str]] = {}
    for line in lines:
        shelves.setdefault(line.shelf, []).append(_bought(line))
    of = sorted({title for line in shopping_list.lines for title in line.sheets})
    body = "".join(f"<h2>{escape(shelf)}</h2><table>{''.join(rows)}</table>" for shelf, rows in shelves.items())
    told = sorted({allergen for line in lines for allergen in line.allergens})
    allergens = f"<p>Allergens: {escape(', '.join(told))}. Read the packets.</p>" if told else ""
    nothing = "" if lines else "<p>Nothing: all of it is there.</p>"
    return _page_html(say("To buy for {titles}", titles=", ".join(of)), body + nothing + allergens, fonts)


def _bought(line: ShoppingLine) -> str:
    look = f"<br><small>{escape(line.look_alike)}</small>" if line.look_alike else ""
    return f"<tr><td class=box>☐<td>{escape(line.name)}{look}<td class=end>{escape(packs_to_carry(line))}</tr>"


def _pairs(head: str, pairs: Iterable[tuple[str, str]]) -> str:
    rows = "".join(f"<tr><td>{escape(name)}<td class=end>{escape(at)}</tr>" for name, at in pairs)
    return f"<section><h2>{head}</h2><table>{rows}</table></section>" if rows else ""


def _page_html(title: str, body: str, fonts: str) -> str:
    return (
        f"<!doctype html><html lang=en><meta charset=utf-8><title>{escape(title)}</title><style>{fonts}{_STYLE}</style>"
        f"<h1>{escape(title)}</h1>{body}</html>"
    )


_STYLE = """
@page{size:A4;margin:14mm;@bottom-right{content:counter(page) " of " counter(pages);font-size:9pt}}
body{font-family:"Atkinson Hyperlegible Next","DejaVu Sans",sans-serif;color:#1d2830;margin:0;font-size:11pt;line-height:1.3}
h1{font-size:1.7em;margin:0 0 2mm}
h2{font-size:1.15em;margin:4mm 0 1mm;break-after:avoid}
table{border-collapse:collapse;width:100%}
tr{break-inside:avoid}
td{vertical-align:top;padding:.8mm 2mm .8mm 0;border-bottom:.15mm solid #cbbf9d}
.at{width:20mm;font-weight:700;white-space:nowrap}
.end{text-align:right;white-space:nowrap}
.box{width:7mm}
small{font-size:.85em}
section{break-before:page}
"""

"""A day and a shopping list for paper: every step at its time and to its person, every pack to its shelf, words as words."""

import re
from datetime import UTC, datetime

import pytest

from kemble.core.change.shopping import shopping
from kemble.core.facts.problems import Refused
from kemble.core.formats.printed_lists import day_html, shopping_html
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.day_solver import Dish, PlanRequest
from kemble.core.plan.schedule import planned
from kemble.core.sheet.document import default_sheet
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(cooks=2, timezone="Europe/Dublin")
SERVE, NOW = datetime(2026, 12, 5, 15, 30, tzinfo=UTC), datetime(2026, 12, 1, 9, 0, tzinfo=UTC)
SHEETS = [default_sheet("set-cake"), default_sheet("boiled-balls")]


@pytest.fixture(scope="module")
def plan():
    dishes = tuple(Dish(sheet.title, work(sheet, KITCHEN).steps, SERVE) for sheet in SHEETS)
    return planned(PlanRequest(dishes, KITCHEN, not_before=NOW))


def told(html):
    """The words of each row, in order."""
    rows = re.findall(r"<tr>(.*?)</tr>", html)
    return [re.sub(r"<[^>]+>", " ", row).split() for row in rows]


def test_every_step_once_at_its_time(plan):
    html = day_html("Both", plan, [sheet.title for sheet in SHEETS], KITCHEN)
    times = [row[0] for row in told(html) if re.fullmatch(r"\d\d:\d\d", row[0])]
    assert times == [f"{item.starts:%H:%M}" for item in plan.scheduled]  # the kitchen's winter clock is UTC
    assert "15:30 on the table" in html
    tools = {tool for item in plan.scheduled for tool in item.step.tools}
    assert len(told(html)) == len(plan.scheduled) + len(tools)


def test_the_pages_of_all_hands_are_the_day(plan):
    hands = sorted({item.who for item in plan.scheduled if item.who})
    assert len(hands) == 2
    of_each = [day_html("Both", plan, ["a", "b"], KITCHEN, who=who) for who in hands]
    steps = [row for html in of_each for row in told(html) if re.fullmatch(r"\d\d:\d\d", row[0])]
    assert len(steps) == sum(bool(item.who) for item in plan.scheduled)
    with pytest.raises(Refused, match="Wren has nothing to do"):
        day_html("Both", plan, ["a", "b"], KITCHEN, who="Wren")


def test_what_is_bought_and_what_is_there():
    shopping_list = shopping(SHEETS, KITCHEN)
    rows = told(shopping_html(shopping_list))
    assert len(rows) == sum(line.buy_g > 0 for line in shopping_list.lines)
    flour = next(row for row in rows if "flour" in row)
    (line,) = (shopping_line for shopping_line in shopping_list.lines if shopping_line.name == "Sweet rice flour")
    assert " ".join(flour).endswith(f"{line.packs} bags of {line.pack_g:.0f} g")


def test_a_title_is_words():
    odd = SHEETS[0].model_copy(update={"title": "<script>alert(1)</script>"})
    assert "<script>" not in shopping_html(shopping([odd], KITCHEN))

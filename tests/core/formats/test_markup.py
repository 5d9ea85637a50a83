"""Names with markup in them, in everything that is written as HTML, SVG or a calendar: they are words there."""

from datetime import UTC, datetime
from html.parser import HTMLParser

import pytest

from kemble.core.change.shopping import shopping
from kemble.core.formats.calendar import calendar_of
from kemble.core.formats.cutting_patterns import template_svg, templates_of
from kemble.core.formats.printed_lists import day_html, shopping_html
from kemble.core.formats.recipe_card import card_html
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.schedule import plan_for
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.work_sheet import work

MARKUP = "<b onclick='x'>&amp;\"]]>"
NOW, SERVE = datetime(2026, 11, 25, 9, tzinfo=UTC), datetime(2026, 11, 28, 15, 30, tzinfo=UTC)


def spoiled_sheet(way):
    document = default_sheet(way).model_dump(mode="json")
    document["title"] = f"{MARKUP} cake"
    for part in document["parts"]:
        part["name"] = f"{MARKUP} part"
    return sheet_from(document)


class Attributes(HTMLParser):
    """Every attribute by which something could be done or fetched."""

    def __init__(self, text):
        super().__init__()
        self.found = []
        self.feed(text)

    def handle_starttag(self, tag, attrs):
        self.found += [(tag, name) for name, _ in attrs if name.startswith("on") or name in ("src", "href")]


@pytest.mark.parametrize("way", ["set-cake", "boiled-balls", "leaf-parcels"])
def test_nothing_of_a_name_becomes_markup(way):
    sheet, kitchen = spoiled_sheet(way), Kitchen(name=f"{MARKUP} house")
    result = work(sheet, kitchen)
    plan = plan_for(result.steps, kitchen, serve=SERVE, now=NOW)
    written = {
        "card": card_html(sheet, result),
        "day": day_html(sheet.title, plan, [sheet.title], kitchen),
        "shopping": shopping_html(shopping([sheet], kitchen)),
        **{template.id: template_svg(template) for template in templates_of(sheet, result)},
    }
    assert MARKUP not in "".join(written.values())
    assert sum("&lt;b onclick" in text for text in written.values()) >= 2
    for name, text in written.items():
        assert not [item for item in Attributes(text).found if item[1].startswith("on")], name


def test_a_calendar_keeps_its_lines():
    title = "Tea; with, marks\\n and: a\nline"
    sheet, kitchen = spoiled_sheet("set-cake"), Kitchen()
    plan = plan_for(work(sheet, kitchen).steps, kitchen, serve=SERVE, now=NOW)
    text = calendar_of(title.replace("\n", " "), plan, [sheet.title], kitchen, made=NOW, uid="1").decode()
    lines = text.replace("\r\n ", "").split("\r\n")
    assert all(":" in line for line in lines if line)
    assert "SUMMARY:On the table: Tea\\; with\\, marks\\\\n and: a line" in lines

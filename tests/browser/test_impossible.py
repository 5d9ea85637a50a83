"""A shape that cannot be: its drawing stays, shows where it fails, and the sentence names no path of ours."""

import re

import pytest
from playwright.sync_api import expect


@pytest.mark.parametrize(
    ("sheet", "field", "typed", "told", "shown"),
    [
        ("Walnut and date balls", "Dough", "0.4", "make no piece", "too little dough for a piece"),
        ("Walnut and date balls", "Skin", "0.2", "is more than the 216 g", "more within than there is"),
        ("Black tea and orange cake", "Height", "20", "do not fit in 1 tin", "too much"),
    ],
)
def test_it_is_drawn_where_it_fails(watched, kitchen, sheet, field, typed, told, shown):
    page = watched
    page.goto(kitchen.url)
    page.get_by_role("region", name="Sheets").get_by_role("link", name=sheet).click()
    expect(page.get_by_role("slider").first).to_be_visible()
    page.keyboard.press("2")
    expect(page.locator("[data-fails]")).to_have_count(0)
    page.get_by_label(re.compile(f"^{field}$")).first.fill(typed)
    expect(page.get_by_role("alert").filter(has_text=told)).not_to_have_text(re.compile(r"[a-z][._][a-z]"))
    expect(page.locator("main svg [data-fails]")).to_be_visible()
    expect(page.locator("main svg text").filter(has_text=shown)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-fails]")).to_have_count(0)

"""The heat station at work: a minute looked at, both sides of a question, a burner tested, a heart read."""

import re

import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def heat(page):
    return (
        page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Heat")).locator("b").first
    )


def test_a_minute_and_both_sides(watched, kitchen):
    """The slider tells heart and water of its minute; the question shows each school; one press takes the other."""
    page = watched
    page.goto(f"{kitchen.url}/sheets/1/heat")
    slider = page.get_by_role("slider", name="Minute")
    expect(slider).to_have_attribute("aria-valuetext", re.compile(r"^At 0 min the heart is 48 °C, \d+ mm of water$"))
    before = page.get_by_role("img", name=re.compile("^Steamer")).get_attribute("aria-label")
    slider.focus()
    slider.press("End")
    expect(slider).not_to_have_attribute("aria-valuetext", re.compile("^At 0 min"))
    assert page.get_by_role("img", name=re.compile("^Steamer")).get_attribute("aria-label") != before

    page.get_by_text("Where cooks disagree").click()
    table = page.get_by_role("table")
    expect(table.get_by_role("columnheader", name=re.compile("Open.*on this sheet"))).to_be_visible()
    expect(table.get_by_role("row", name=re.compile("^The top smooth, matt"))).to_be_visible()
    page.get_by_role("radio", name="Syrup").click()
    expect(table.get_by_role("columnheader", name=re.compile("burnt to amber"))).to_be_visible()

    told = heat(page).inner_text()
    page.get_by_role("radio", name="covered with foil").click()
    expect(heat(page)).not_to_have_text(told)
    page.get_by_role("radio", name="Top of the tin").click()
    expect(table.get_by_role("columnheader", name=re.compile("Covered.*on this sheet"))).to_be_visible()


def test_a_burner_tested_with_a_kettle(watched, kitchen):
    """A litre from 15 °C in 6 min 20 s at 240 m: 1000 x 4.19 x 84.2 / 0.96 / 380 = 967 W; the pan under it is quicker."""
    page = watched
    page.goto(f"{kitchen.url}/sheets/8/heat")
    expect(page.get_by_role("img", name=re.compile("warm it"))).to_be_visible()
    slow = heat(page).inner_text()
    page.goto(f"{kitchen.url}/kitchen")
    page.get_by_role("link", name=re.compile("^Hob")).click()
    expect(page.get_by_role("heading", name="Hob")).to_be_focused()
    page.get_by_label("Burner set to").select_option("medium")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_text("967 W reach the pot")).to_be_visible()
    page.get_by_role("button", name="Keep 967 W").click()
    expect(page.get_by_label("Burner at medium", exact=True)).to_have_value("967")
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()
    page.get_by_label("Minutes", exact=True).fill("0")
    page.get_by_label("Seconds", exact=True).fill("31")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_role("alert")).to_contain_text("50 to 6000 W")
    page.goto(f"{kitchen.url}/sheets/8/heat")
    expect(page.get_by_text("967 W into the pan")).to_be_visible()
    assert int(heat(page).inner_text()) < int(slow)


def test_a_heart_is_read_and_the_rest_told_anew(watched, kitchen):
    """Rehearse a cake until it is in the steam, stick the thermometer in, note what it reads; it outlives a reload."""
    page = watched
    page.goto(f"{kitchen.url}/sheets/1/plan")
    page.get_by_role("button", name=re.compile("Rehearse")).click()
    forward = page.get_by_role("button", name=re.compile("^(Start|Done|That will do)$"))
    expect(forward).to_be_visible()
    for _ in range(40):
        now = page.locator("[data-now]").get_attribute("data-now")
        if now == "steam running":
            break
        forward.click()
        expect(page.locator(f'[data-now="{now}"]')).to_have_count(0)
        expect(forward).to_be_visible()
    page.get_by_role("button", name="Thermometer in the heart").click()
    note = page.get_by_role("region", name="Thermometer").get_by_role("button", name="Note it", exact=True)
    expect(note).to_be_enabled()
    expect(page.get_by_text("simulated thermometer")).to_be_visible()
    # A minute of the rehearsal is a second: it is read when the heart has come up.
    expect(page.get_by_role("timer")).to_have_attribute("aria-label", re.compile(r"\b([6-9]|1\d):\d\d"))
    note.click()
    says = page.get_by_text(re.compile(r"^At \d+ minutes the heart is \d+ °C: (done|as told)"))
    expect(says.first).to_be_visible()
    expect(page.get_by_role("img", name=re.compile(r"^Told done at \d+ minutes, now at \d+$"))).to_be_visible()
    first = says.first.inner_text()
    page.reload()
    expect(page.get_by_text(first)).to_be_visible()
    field = page.get_by_role("button", name="Thermometer in the heart")
    field.click()
    page.get_by_role("textbox", name="It reads").fill("hot")
    expect(page.get_by_text("A temperature from -60 to 400 °C.")).to_be_visible()

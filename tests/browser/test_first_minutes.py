"""The first minutes: from an empty kitchen to a run in the log, in few presses."""

import re

import pytest
from playwright.sync_api import expect
from thorough import times

MOST = 30  # from the first page of an empty kitchen to the log


class Hand:
    """Presses as a cook does, and counts."""

    def __init__(self, page):
        self.page, self.presses = page, []

    def press(self, what):
        self.presses.append(what.inner_text())
        what.click()


@pytest.mark.parametrize("way", times(["Steamed set cake", "Batter bake", "Boiled balls"], ["Boiled balls"]))
def test_an_empty_kitchen_to_a_logged_run(watched, empty_kitchen, way):
    page, hand = watched, Hand(watched)
    page.goto(empty_kitchen.url)
    hand.press(page.get_by_role("button", name="On to the first sheet"))
    hand.press(page.get_by_role("button", name=re.compile(f"^{way}")))
    hand.press(page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Plan")))
    expect(page.get_by_text("Begun now, it is on the table at")).to_be_visible()
    hand.press(page.get_by_role("button", name="Make it now"))
    now = page.locator("[data-now]")
    finish = page.get_by_role("link", name="How did it come out?")
    expect(now).to_be_visible()
    seen = []
    while not finish.is_visible():
        seen.append(now.get_attribute("data-now"))
        assert len(seen) < 60, seen
        straight = page.get_by_role("button", name=re.compile(", and start: "))
        hand.press(straight if straight.is_visible() else page.locator("main button[data-on=true]").first)
        page.wait_for_function("was => document.querySelector('[data-now]')?.dataset.now !== was", arg=seen[-1])
    hand.press(finish)
    hand.press(page.get_by_role("button", name="Put it in the log"))
    expect(page).to_have_url(re.compile(r"/log/\d+$"))
    assert len(hand.presses) <= MOST, hand.presses


def test_a_first_cake_teaches_itself(watched, kitchen):
    """Every step marks what is to be pressed, and goes on only when that has been done."""
    page = watched
    page.goto(kitchen.url)
    page.get_by_role("button", name=re.compile("with a first cake")).click()
    strip = page.get_by_role("complementary", name="A first cake")
    at = lambda number: strip.get_by_role("img", name=f"{number} of 9")  # noqa: E731
    marked = page.locator("[data-lesson]")
    expect(at(1)).to_be_visible()
    expect(marked).to_have_count(1)
    page.get_by_role("slider").press("ArrowRight")
    expect(at(2)).to_be_visible()
    marked.click()
    expect(at(3)).to_be_visible()
    page.get_by_role("link", name="Counter").click()  # gone astray
    strip.get_by_role("link", name="Back to it").click()
    expect(at(3)).to_be_visible()
    marked.click()
    expect(page.get_by_role("dialog", name=re.compile("^Why"))).to_be_visible()
    expect(at(4)).to_be_visible()
    page.keyboard.press("Escape")
    marked.click()
    expect(at(5)).to_be_visible()
    page.reload()
    expect(at(5)).to_be_visible()
    marked.fill("16")
    expect(at(6)).to_be_visible()
    marked.click()
    expect(at(7)).to_be_visible()
    marked.click()
    expect(at(8)).to_be_visible()
    while re.search(r"/make/\d+$", page.url):
        marked.click()
    expect(at(9)).to_be_visible()
    page.get_by_role("button", name="Put it in the log").click()
    expect(strip).to_contain_text("That was a cake")
    strip.get_by_role("link", name="To the counter").click()
    expect(strip).not_to_be_visible()

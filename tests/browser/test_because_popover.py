"""Where a number comes from: told beside the drawing that shows it, never over it, and marked in it."""

import re

import pytest
from playwright.sync_api import expect
from serving import until
from thorough import times

SIZES = {"desk": (1280, 800), "tablet": (820, 1180), "phone": (390, 844)}
# A number that a drawing shows, of every station.
SHOWN = [
    ("1/mix", "mix.hydration_pct"),
    ("1/mix", "mix.sugar_pct"),
    ("1/shape", "shape.depth_mm"),
    ("1/shape", "shape.headroom_mm"),
    ("1/heat", "heat.done_min"),
    ("1/heat", "heat.set_min"),
    ("1/heat", "heat.core_hot_min"),
    ("5/cut", "cut.edges"),
    ("1/cut", "cut.offcut_pct"),
]
COVERED = """() => {
  const slip = document.querySelector('[role=dialog]').getBoundingClientRect();
  return [...document.querySelectorAll('main svg:has([data-spoken])')].map((drawing) => {
    const box = drawing.getBoundingClientRect();
    const wide = Math.min(slip.right, box.right) - Math.max(slip.left, box.left);
    const high = Math.min(slip.bottom, box.bottom) - Math.max(slip.top, box.top);
    return Math.round(Math.max(0, wide) * Math.max(0, high));
  });
}"""


@pytest.mark.parametrize("size", times(list(SIZES), ["phone"]))
def test_a_because_marks_its_drawing_and_lies_beside_it(watched, demo, size):
    page = watched
    wide, high = SIZES[size]
    page.set_viewport_size({"width": wide, "height": high})
    for sheet, key in SHOWN:
        page.goto(f"{demo.url}/sheets/{sheet}")
        expect(page.get_by_role("navigation", name="Stations")).to_be_visible()
        pressed = page.locator(f'button[data-fact="{key}"]')
        pressed.first.click()
        expect(page.get_by_role("dialog", name=re.compile("^Why"))).to_be_visible()
        assert page.evaluate(COVERED), f"{key} is marked in no drawing"
        until(lambda: max(page.evaluate(COVERED)) == 0, within_s=20)  # it is laid once it is drawn
        page.keyboard.press("Escape")
        expect(page.locator("[data-spoken]")).to_have_count(0)

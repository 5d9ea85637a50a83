"""Take the pictures in docs/screenshots/ anew, from the demo data."""

import subprocess
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "tests" / "helpers"))

from playwright.sync_api import Page, sync_playwright  # noqa: E402
from serving import ARGUMENTS, CHROMIUM, Server  # noqa: E402

PLACE = ROOT / "docs" / "screenshots"
DESK, PHONE, TALL = (1280, 800), (390, 844), (1280, 1300)


def edited(page: Page) -> None:
    """A little more water, so that the line shows what moved."""
    page.get_by_role("slider").focus()
    for _ in range(5):
        page.keyboard.press("ArrowRight")
    page.locator("[data-old]").first.wait_for()
    page.locator("[data-saving=saved]").wait_for()


def night(page: Page) -> None:
    page.emulate_media(color_scheme="dark")


def weighing(page: Page) -> None:
    """A bench with some pieces on it and a lump on the scale."""
    page.get_by_role("radio", name="weigh out").click()
    page.get_by_role("button", name="Begin", exact=True).click()
    for i, grams in enumerate((19.2, 19.9, 18.9, 19.7, 21.4, 19.1, 19.6, 19.0, 20.3)):
        page.get_by_label("Weight of the piece, g").fill(str(grams))
        page.get_by_role("button", name="Enter").click()
        page.get_by_text(f"{i + 2} of 24").wait_for()
    page.get_by_label("or a lump of").fill("17.4")
    page.get_by_role("button", name="Put it on").click()
    page.get_by_role("img", name="more").wait_for()
    page.get_by_text("on the scale", exact=True).wait_for()
    page.mouse.move(640, 790)


def a_step(page: Page) -> None:
    """One step of the day, pressed for why it lies there."""
    page.get_by_role("button", name="1 Steam,").first.press("Enter")
    page.get_by_role("region", name="The step").wait_for()


SHOTS = (
    ("counter", "/", "% water", DESK, None),
    ("occasion", "/occasions/1", "days of a hundred", TALL, a_step),
    ("mix", "/sheets/1/mix", "In the bowl", DESK, edited),
    ("shape-tin", "/sheets/9/shape", "Your tins", DESK, None),
    ("shape-balls", "/sheets/7/shape", "What runs out first", DESK, None),
    ("heat-steam", "/sheets/1/heat", "litres to start", DESK, None),
    ("cut", "/sheets/5/cut", "cm from the edge", DESK, None),
    ("method", "/sheets/5/method", "Turn it out", TALL, None),
    ("plan", "/sheets/2/plan", "on the table", DESK, None),
    ("make", "/make/31", "Finish and log", DESK, None),
    ("hands", "/sheets/13/hands", "Round the waist", TALL, None),
    ("weigh-out", "/sheets/2/shape", "What runs out first", DESK, weighing),
    ("log", "/log", "just right", DESK, None),
    ("batch", "/log/1", "To please", TALL, None),
    ("learned", "/log/learned", "What would teach most", DESK, None),
    ("her-way", "/sheets/1/beside?hers=17", "Hers beside mine", TALL, None),
    ("night", "/sheets/7/shape", "What runs out first", DESK, night),
    ("kitchen", "/kitchen/steamers", "Floor to rack", DESK, None),
    ("phone-make", "/make/31", "Finish and log", PHONE, None),
)


def main(only: list[str]) -> None:
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        server = Server(data, "--demo", afresh=True).start()
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            for name, path, words, (width, height), first in SHOTS:
                if only and name not in only:
                    continue
                context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB")
                context.add_cookies([server.cookie])
                page = context.new_page()
                page.goto(server.url + path)
                page.get_by_text(words).first.wait_for()
                if first:
                    first(page)
                page.evaluate("document.fonts.ready")
                page.screenshot(path=PLACE / f"{name}.png", animations="disabled")
                context.close()
                print(f"{name}.png")
        finally:
            browser.close()
            server.stop()


if __name__ == "__main__":
    PLACE.mkdir(parents=True, exist_ok=True)
    try:
        main(sys.argv[1:])
    except subprocess.SubprocessError as error:
        sys.exit(str(error))

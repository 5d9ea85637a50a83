"""Take docs/moves.gif anew, from the demo data: the bean of a sheet dragged, and every station after it moving."""

import io
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT / "tests" / "helpers"))

from PIL import Image  # noqa: E402
from playwright.sync_api import Page, sync_playwright  # noqa: E402
from serving import ARGUMENTS, CHROMIUM, Server  # noqa: E402

FILE = ROOT / "docs" / "moves.gif"
SIZE = (1280, 800)
SHOWN = (800, 500)
COLOURS = 112
LAST_MS, EACH_MS = 1_600, 130
# A wetter batter, then a sweeter one, and back to where it was.
STEPS = ["ArrowRight"] * 7 + ["ArrowUp"] * 6 + ["ArrowLeft"] * 7 + ["ArrowDown"] * 6


def frame(page: Page) -> Image.Image:
    shot = Image.open(io.BytesIO(page.screenshot(animations="disabled")))
    return shot.convert("RGB").resize(SHOWN, Image.Resampling.LANCZOS)


def main() -> None:
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder), "--demo", afresh=True).start()
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            context = browser.new_context(
                viewport={"width": SIZE[0], "height": SIZE[1]}, locale="en-GB", bypass_csp=True
            )
            context.add_cookies([server.cookie])
            page = context.new_page()
            page.goto(f"{server.url}/sheets/1/mix")
            page.get_by_role("slider").focus()
            page.evaluate("document.fonts.ready")
            frames = [frame(page)]
            for i, key in enumerate(STEPS):
                page.keyboard.press(key)
                page.wait_for_function(f"performance.getEntriesByName('kemble-ripple').length > {i}")
                frames.append(frame(page))
        finally:
            browser.close()
            server.stop()
    palette = frames[len(STEPS) // 2].quantize(COLOURS, method=Image.Quantize.MAXCOVERAGE)
    first, *others = (image.quantize(palette=palette, dither=Image.Dither.NONE) for image in frames)
    first.save(
        FILE, save_all=True, append_images=others, duration=[EACH_MS] * len(others) + [LAST_MS], loop=0, optimize=True
    )
    print(f"{FILE.name}: {FILE.stat().st_size / 1000:.0f} kB, {len(frames)} frames")


if __name__ == "__main__":
    main()

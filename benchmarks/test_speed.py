"""What is promised to be fast (promises.py), measured. Run with `make bench`; nothing here can fail a build."""

import json
import statistics
import subprocess
import sys
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "tests" / "helpers"))

from promises import amount, measured

from kemble.core.cards.ways import WAYS
from kemble.core.formats.ingredient_text import read_list
from kemble.core.geometry.tray_cutting import PATTERNS, CutRequest, cut_tray
from kemble.core.geometry.tray_floor import Tray
from kemble.core.kitchen.document import Kitchen
from kemble.core.plan.day_solver import Dish, PlanRequest
from kemble.core.plan.occasion import plan_of_dish
from kemble.core.plan.schedule import Plan, ScheduledStep, plan_for, planned
from kemble.core.run.events import event_from
from kemble.core.run.replan import OpenRun, replan
from kemble.core.run.run_state import state_of
from kemble.core.sheet.document import default_sheet, sheet_from
from kemble.core.stations.steps import DonenessWindow, StepResult, StepWait
from kemble.core.stations.work_sheet import work

KITCHEN = Kitchen(altitude_m=240)
MEDIANS: list[float] = []  # of work(), a way each


@pytest.mark.parametrize("way", sorted(WAYS))
def test_work(benchmark, way):
    """Another sheet each time, as under the hand: a little more of its first ingredient."""
    content = default_sheet(way).model_dump(mode="json")
    amount, sheets = content["parts"][0]["lines"][0]["amount"], []
    for _ in range(210):
        amount["value"] *= 1.0005
        sheets.append(sheet_from(content))
    turns = iter(sheets)
    benchmark.pedantic(work, setup=lambda: ((next(turns), KITCHEN), {}), rounds=200, warmup_rounds=10)
    median, p95 = told(f"work({way})", milliseconds(benchmark))
    MEDIANS.append(median)
    measured("work-p95", p95)
    if len(MEDIANS) == len(WAYS):
        measured("work", statistics.median(MEDIANS))


@pytest.mark.parametrize("way", sorted(WAYS))
def test_plan(benchmark, way):
    steps = work(default_sheet(way), KITCHEN).steps
    times = {
        "serve": datetime(2026, 11, 28, 15, 30, tzinfo=UTC),
        "now": datetime(2026, 11, 25, 9, 0, tzinfo=UTC),
    }
    plan = benchmark.pedantic(plan_for, args=(steps, KITCHEN), kwargs=times, rounds=30, warmup_rounds=2)
    told(f"plan({way}), proven {plan.proven}", milliseconds(benchmark))


def test_fold(benchmark):
    """A run of 60 steps after 400 events, looked at. Promised: under 10 ms (the page's own: web/src/runs/fold.bench.ts)."""
    began = datetime(2026, 11, 28, 9, 0, tzinfo=UTC)
    steps = [
        StepResult(
            id=f"step-{i}", title=f"Step {i}", words="", minutes=10, hands="held" if i % 3 else "free", uses=[],
            after=[StepWait(step=f"step-{i - 1}", at_least=0, at_most=None)] if i else [], cue=None,
            window=None if i % 7 else DonenessWindow(first_check=8, done=10, latest=14), target=None, to_hand=[], cautions=[],
        )
        for i in range(60)
    ]  # fmt: skip
    scheduled = [
        ScheduledStep(step=step, starts=began + timedelta(minutes=10 * i), ends=began + timedelta(minutes=10 * i + 10))
        for i, step in enumerate(steps)
    ]
    plan = Plan(serve=scheduled[-1].ends, begin=began, scheduled=scheduled, proven=True, quiet_kept=True)
    kinds = ("started", "noted", "not_yet", "weighed", "counted", "probed", "done")
    events = [
        event_from(
            {
                "uid": f"event-{i:04}", "at": began + timedelta(minutes=i), "kind": kinds[i % 7],
                "step": f"step-{i // 7 % 60}", "grams": 100, "celsius": 60, "times": 1, "text": "x",
            }
        )
        for i in range(400)
    ]  # fmt: skip
    now = began + timedelta(minutes=400)
    benchmark.pedantic(state_of, args=(plan, events, now), rounds=100, warmup_rounds=5)
    told("fold of 60 steps and 400 events", milliseconds(benchmark), "fold")


def test_fold_on_the_page(tmp_path):
    """The same by the page's own rules, in node."""
    told_in = tmp_path / "bench.json"
    web = Path(__file__).resolve().parents[1] / "web"
    subprocess.run(["npx", "vitest", "bench", "--run", "--outputJson", str(told_in)], cwd=web, check=True, stdout=-3)
    (result,) = json.loads(told_in.read_text("utf-8"))["files"][0]["groups"][0]["benchmarks"]
    print(f"\n  fold of 60 steps and 400 events on the page: {result['mean']:.2f} ms, p99 {result['p99']:.2f} ms")
    measured("fold-page", result["p99"])


def test_replan(benchmark):
    """Three sheets in one flow, forty minutes late in the middle: the rest planned anew. Promised: under 0.5 s."""
    serve = datetime(2026, 11, 28, 15, 30, tzinfo=UTC)
    kitchen = Kitchen(cooks=2)
    dishes = [
        Dish(way, work(default_sheet(way), kitchen).steps, serve)
        for way in ("set-cake", "boiled-balls", "folded-pulls")
    ]
    day = planned(PlanRequest(dishes, kitchen, not_before=serve - timedelta(days=1)))
    plans = [plan_of_dish(day, i) for i in range(3)]
    now = serve - timedelta(minutes=90)
    going = []
    for plan, dish in zip(plans, dishes, strict=True):
        done = [
            scheduled_step for scheduled_step in plan.scheduled if scheduled_step.ends < now - timedelta(minutes=40)
        ]
        events = [
            event_from(
                {
                    "uid": f"{dish.title}-{scheduled_step.step.id}-done",
                    "at": scheduled_step.ends,
                    "kind": "done",
                    "step": scheduled_step.step.id,
                }
            )
            for scheduled_step in done
        ]
        going.append(OpenRun(dish.title, plan, state_of(plan, events, now), plan.serve))
    result = benchmark.pedantic(replan, args=(going, kitchen), kwargs={"now": now}, rounds=10, warmup_rounds=1)
    told(
        f"the rest of three sheets, {result.later_min} min late",
        milliseconds(benchmark),
        "replan",
    )


def test_read_list(benchmark):
    """A pasted list of 115 lines of the corpus, read at once."""
    corpus = Path(__file__).resolve().parents[1] / "tests" / "core" / "formats" / "ingredient_lines.tsv"
    text = "\n".join(row.split("\t")[0] for row in corpus.read_text(encoding="utf-8").splitlines()[:115])
    benchmark.pedantic(read_list, args=(text, KITCHEN), rounds=30, warmup_rounds=3)
    told("reading a list of 115 lines", milliseconds(benchmark))


def test_edit_to_ripple(tmp_path, prepared):
    """From a key on the bean to the frame in which the line shows what moved, as the page itself measures it."""
    from playwright.sync_api import sync_playwright
    from serving import ARGUMENTS, CHROMIUM, Server

    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep", afresh=True).start()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            context = browser.new_context(viewport={"width": 1280, "height": 800}, bypass_csp=True)
            context.add_cookies([server.cookie])
            page = context.new_page()
            for number in (1, 2, 12)[: amount(3, 1)]:
                page.goto(f"{server.url}/sheets/{number}/mix")
                page.get_by_role("slider").focus()
                for i in range(amount(30, 4)):
                    page.keyboard.press("ArrowRight" if i % 2 else "ArrowLeft")
                    page.wait_for_function(f"performance.getEntriesByName('kemble-ripple').length > {i}")
                result = page.evaluate("performance.getEntriesByName('kemble-ripple').map((one) => one.duration)")
                told(f"edit to ripple, sheet {number}", result, "ripple")
            browser.close()
    finally:
        server.stop()


@pytest.mark.parametrize("pattern", PATTERNS)
def test_cut(benchmark, pattern):
    """Sixty pieces of one area, as far as the pattern can, from a round tray: the dearest cut there is."""
    args = (Tray(200, 200, round=True), pattern, CutRequest(count=60, even=True))
    benchmark.pedantic(cut_tray, args=args, rounds=40, warmup_rounds=2)
    told(f"cut({pattern})", milliseconds(benchmark))


def test_a_dragged_skin_at_sixty_frames(tmp_path, prepared):
    """Time from frame to frame while the skin of a ball is dragged to and fro; 16.7 ms is sixty a second."""
    from playwright.sync_api import sync_playwright
    from serving import ARGUMENTS, CHROMIUM, Server

    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep", afresh=True).start()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            context = browser.new_context(viewport={"width": 1280, "height": 800})
            context.add_cookies([server.cookie])
            page = context.new_page()
            asked = []
            page.on("request", lambda request: asked.append(request.url) if "/api/work" in request.url else None)
            page.goto(f"{server.url}/sheets/2/shape")
            handle = page.get_by_role("slider").last.locator("circle").last
            box = handle.bounding_box()
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            page.mouse.move(x, y)
            page.mouse.down()
            page.evaluate("""() => {
                window.frames_at = [];
                const note = (at) => { window.frames_at.push(at); window.noting = requestAnimationFrame(note); };
                window.noting = requestAnimationFrame(note);
            }""")
            for i in range(amount(400, 40)):
                page.mouse.move(x - 24 * abs((i % 100) / 50 - 1), y)
            at = page.evaluate("() => { cancelAnimationFrame(window.noting); return window.frames_at; }")
            print(f"\n  calls of the server while it was dragged: {len(asked)}")
            page.mouse.up()
            measured("frame", told("frame to frame under the hand", [b - a for a, b in pairwise(at)])[0])
            browser.close()
    finally:
        server.stop()


def test_first_page(tmp_path, prepared):
    """JavaScript of the counter, packed as it is sent."""
    from playwright.sync_api import sync_playwright
    from serving import ARGUMENTS, CHROMIUM, Server

    server = Server(prepared.copy("demo", tmp_path / "data"), "--demo", "--keep", afresh=True).start()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            context = browser.new_context(service_workers="block")
            context.add_cookies([server.cookie])
            page, sizes = context.new_page(), {}
            page.on(
                "response",
                lambda response: sizes.update({response.url: int(response.headers.get("content-length", 0))}),
            )
            page.goto(server.url, wait_until="networkidle")
            weight = sum(size for url, size in sizes.items() if url.endswith(".js")) / 1000
            print(f"\n  JavaScript of the first page: {weight:.0f} kB")
            measured("first-page", weight)
            browser.close()
    finally:
        server.stop()


def milliseconds(benchmark):
    """What each round took; nothing is timed where it is run once only to see that it runs."""
    return [seconds * 1000 for seconds in benchmark.stats.stats.data] if benchmark.stats else [0.0]


def told(name, ms, promise=None):
    """Print the median and the 95th of a hundred, and give them; the latter is what a promise is held to."""
    ordered = sorted(ms)
    median, p95 = statistics.median(ordered), ordered[int(0.95 * (len(ordered) - 1))]
    print(f"\n  {name}: median {median:.1f} ms, p95 {p95:.1f} ms over {len(ordered)}")
    if promise:
        measured(promise, p95)
    return median, p95

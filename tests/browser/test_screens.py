"""Every screen, at every size: no serious finding of axe, nothing wider than the screen, words on the first page."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import TimeoutError, expect
from visiting import go
from watching import watching

pytestmark = pytest.mark.browser
AXE = Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
SCREENS = {
    "counter": ("/", "Begin a sheet"),
    "mix of a cake": ("/sheets/1/mix", "In the bowl"),
    "mix of balls": ("/sheets/2/mix", "of flour"),
    "shape of a tin": ("/sheets/1/shape", "Your tins"),
    "shape of balls": ("/sheets/2/shape", "What runs out first"),
    "heat in steam": ("/sheets/1/heat", "litres to start"),
    "heat in a pot": ("/sheets/2/heat", "a tremble, not a boil"),
    "cut": ("/sheets/1/cut", "cm from the edge"),
    "rest of balls": ("/sheets/2/cut", "minutes off the heat"),
    "method": ("/sheets/5/method", "take the method of another sheet"),
    "plan": ("/sheets/2/plan", "on the table"),
    "occasion": ("/occasions/1", "days of a hundred"),
    "helper": ("/occasions/1/for/Wren", "The whole day"),
    "year": ("/year", "Winter solstice"),
    "make": ("/make/31", "Next for your hands"),
    "outcome": ("/make/31/outcome", "What went wrong"),
    "log": ("/log", "batches just right"),
    "batch": ("/log/1", "Told, and happened"),
    "what was learned": ("/log/learned", "What would teach most"),
    "a tasting": ("/log/1/taste", "How much do you like it"),
    "blind tastings": ("/log/blind", "weighed against chance"),
    "revisions": ("/sheets/1/revisions", "as it stands"),
    "her way and mine": ("/sheets/1/beside?hers=17", "Hers beside mine"),
    "over time": ("/log/over-time?way=boiled-balls", "or any fact"),
    "side by side": ("/compare?batches=1,3&sheets=1", "against the first"),
    "hands round a ball": ("/sheets/7/hands", "How far it stretches"),
    "hands round a leaf": ("/sheets/13/hands", "Round the waist"),
    "hands and foil": ("/sheets/14/hands", "Each end folded twice"),
    "mix of grain": ("/sheets/12/mix", "done at"),
    "shape of a packet": ("/sheets/14/shape", "leaf inside, foil outside"),
    "a round with a whole chestnut": ("/sheets/7/shape", "roast chestnut"),
    "two tins": ("/sheets/5/shape", "Poured into others too"),
    "a bag": ("/sheets/16/shape", "the same sheet from the side"),
    "cut in rings": ("/sheets/5/cut", "Every cut from the edge"),
    "strips": ("/sheets/5/strips", "This line is 100 mm long"),
    "heat in the oven": ("/sheets/9/heat", "heat from above and below"),
    "heat through the leaf": ("/sheets/13/heat", "a plate keeps them under"),
    "heat under the spoon": ("/sheets/8/heat", "where the heat goes"),
    "grain in steam": ("/sheets/10/heat", "Burner under the steamer"),
    "grain under a lid": ("/sheets/11/heat", "stands shut"),
    "packets in steam": ("/sheets/14/heat", "Once it has set"),
    "rice with its glaze": ("/sheets/12/heat", "What it would cost"),
    "larder": ("/larder", "One of your own"),
    "shopping": ("/shopping", "Sugar, honey and syrup"),
    "paste": ("/paste", "Read it"),
    "kitchen": ("/kitchen", "Height above the sea"),
    "steamers": ("/kitchen/steamers", "Floor to rack"),
    "pots and pans": ("/kitchen/pots", "Water in it"),
    "hob": ("/kitchen/hob", "Test a burner with a kettle"),
    "cups": ("/kitchen/cups", "Water in your cup"),
    "tins": ("/kitchen/tins", "Add it"),
    "what nobody knows": ("/kitchen/guesses", "In steam"),
    "household": ("/household", "Who is in"),
    "thrown away": ("/dropped", "Nothing lies here"),
    "welcome": ("/welcome", "What will it be?"),
    "nowhere": ("/no/such/place", "This page is not in the kitchen"),
}


LABELS = (Path(__file__).parent / "labels.js").read_text(encoding="utf-8").partition("\n")[2].strip().rstrip(";")
SIZES = [(1280, 800), (820, 1180), (390, 844)]


@pytest.fixture(scope="module")
def visitor(browser, demo):
    """One page that goes from screen to screen, and what goes wrong in it."""
    context = browser.new_context(service_workers="block")
    context.add_cookies([demo.cookie])
    page = context.new_page()
    wrong = watching(page)
    page.goto(demo.url)
    yield page, wrong
    context.close()


@pytest.mark.parametrize("screen", SCREENS)
def test_a_screen_is_readable_by_all_and_fits(visitor, screen):
    """Nothing serious or moderate that axe has to say, by day and by night; nothing wider than the screen, and every word in a drawing large enough, whole
    and alone in its place, on a desk, a tablet and a phone."""
    page, wrong = visitor
    path, words = SCREENS[screen]
    page.set_viewport_size(dict(zip(("width", "height"), SIZES[0], strict=True)))
    go(page, path)
    expect(page.get_by_text(words).first).to_be_visible()
    for theme in ("dark", "light"):
        page.emulate_media(color_scheme=theme)
        result = serious(page)
        assert not result, f"{theme}: {json.dumps(result, indent=1)}"
    wide, words_wrong = [], {}
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        if page.evaluate("document.documentElement.scrollWidth > document.documentElement.clientWidth"):
            wide.append(width)
        if labels := wrong_labels(page):
            words_wrong[width] = labels
    assert wide == []
    assert words_wrong == {}
    assert wrong == []


def wrong_labels(page):
    """What is wrong with the words in drawings, once they have come to rest at this size."""
    try:
        page.wait_for_function(f"() => ({LABELS})().length === 0", timeout=4_000)
    except TimeoutError:
        return page.evaluate(LABELS)
    return []


def serious(page):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    result = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
    return [
        {
            "rule": item["id"],
            "at": [node["target"] for node in item["nodes"]][:3],
            "says": item["nodes"][0]["failureSummary"],
        }
        for item in result
        if item["impact"] != "minor"
    ]


def because(page):
    page.get_by_role("button", name=re.compile("^Done means")).click()
    expect(page.get_by_role("dialog")).to_be_visible()


def cautions(page):
    page.get_by_role("button", name=re.compile("^Take care")).click()
    expect(page.get_by_role("dialog")).to_be_visible()


def refused(page):
    page.get_by_label("Goes in at").fill("soon")
    expect(page.get_by_role("alert")).to_be_visible()


def drawn(name):
    def press(page):
        go(page, "/sheets/12/mix")
        page.get_by_role("radio", name=name, exact=True).click()
        expect(page.get_by_role("radio", name=name, exact=True)).to_be_checked()

    return press


def line_slip(page):
    go(page, "/sheets/12/mix")
    page.get_by_role("button", name=re.compile("^Light brown sugar")).click()
    expect(page.get_by_role("dialog")).to_contain_text("Its shares")


def part_slip(page):
    go(page, "/sheets/11/mix")
    page.get_by_role("button", name=re.compile("^white bean paste")).click()
    expect(page.get_by_role("dialog")).to_contain_text("Finished in")


def shape_view(name, words, sheet):
    def press(page):
        go(page, f"/sheets/{sheet}/shape")
        page.get_by_role("radio", name=name).click()
        expect(page.get_by_text(words).first).to_be_visible()

    return press


def a_bench(page):
    shape_view("weigh out", "That is", 2)(page)
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_test_id("next-target")).to_be_visible()
    page.get_by_label("Weight of the piece, g").fill("19")
    page.get_by_role("button", name="Enter").click()
    expect(page.get_by_text("2 of 24")).to_be_visible()


def an_ingredient(page):
    go(page, "/larder")
    page.get_by_role("button", name=re.compile("^Coconut milk, thick")).click()
    expect(page.get_by_text("Together 100.0 g")).to_be_visible()


def a_read_list(page):
    go(page, "/paste")
    page.get_by_label("one ingredient a line").fill("1 cup sweet rice flour\nsalt\nsnark")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_text("2 lines are still open")).to_be_visible()


def both_sides(page):
    page.get_by_text("Where cooks disagree").click()
    expect(page.get_by_role("table").get_by_text("Done at")).to_be_visible()


def a_kettle(page):
    go(page, "/kitchen/hob")
    page.get_by_role("button", name="Work it out").click()
    expect(page.get_by_text("reach the pot")).to_be_visible()


@pytest.mark.parametrize(
    "opened",
    [
        both_sides,
        a_kettle,
        because,
        cautions,
        refused,
        drawn("where it goes"),
        drawn("soak"),
        line_slip,
        part_slip,
        an_ingredient,
        a_read_list,
        shape_view("weigh out", "Your eye", 2),
        a_bench,
        shape_view("rolled and cut", "in all", 15),
    ],
    ids=[
        "both sides",
        "kettle",
        "because",
        "cautions",
        "refused",
        "flows",
        "soak",
        "line",
        "part",
        "ingredient",
        "read list",
        "weigh out",
        "bench",
        "rolled",
    ],
)
def test_nor_of_what_opens_on_a_screen(visitor, opened):
    page, wrong = visitor
    page.set_viewport_size({"width": 1280, "height": 800})
    page.keyboard.press("Escape")  # what the one before it left open
    go(page, "/")
    go(page, "/sheets/1/heat")
    expect(page.get_by_text("litres to start").first).to_be_visible()
    opened(page)
    assert serious(page) == []
    assert wrong == []


PAPERS = {
    "a method": ("/sheets/5/method", "Turn it out", 3),
    "the plan of a sheet": ("/sheets/1/plan", "on the table", 2),
    "a day": ("/occasions/1", "To set out", 5),
    "one pair of hands": ("/occasions/1/for/Wren", "To set out", 2),
    "shopping": ("/shopping", "Sugar, honey and syrup", 3),
    "strips": ("/sheets/5/strips", "This line is 100 mm long", 3),
    "hands": ("/sheets/14/hands", "Each end folded twice", 3),
    "a batch": ("/log/3", "Told, and happened", 4),
}


@pytest.mark.parametrize(("path", "words", "most"), PAPERS.values(), ids=PAPERS)
def test_on_paper_nothing_is_clipped_and_no_button_printed(visitor, path, words, most):
    page, _ = visitor
    page.set_viewport_size({"width": 794 - 106, "height": 1123})  # A4 between its margins, at 96 a inch
    page.emulate_media(media="print")
    try:
        go(page, "/")
        expect(page.get_by_text("Begin a sheet").first).to_be_attached()
        go(page, path)
        expect(page.get_by_text(words).filter(visible=True).first).to_be_visible()
        pressed = page.locator(
            "button:not([data-fact]):visible, select:visible, nav:visible, input:not([type=checkbox]):visible"
        )
        expect(pressed).to_have_count(0)
        assert page.evaluate("document.documentElement.scrollWidth") <= 794 - 106
        assert page.evaluate("getComputedStyle(document.documentElement).backgroundColor") == "rgb(255, 255, 255)"
        pdf = page.pdf(format="A4", prefer_css_page_size=True)
        assert 1 <= pdf.count(b"/Type /Page\n") <= most
    finally:
        page.emulate_media(media="screen")


def test_a_method_on_paper_is_whole(visitor):
    """Every figure is printed, and no sentence is cut short."""
    page, _ = visitor
    page.emulate_media(media="print")
    try:
        go(page, "/")
        expect(page.get_by_text("Begin a sheet").first).to_be_attached()
        go(page, "/sheets/5/method")
        row = page.locator('[data-step="steam"]')
        expect(row).to_contain_text("A thin stick to the bottom of the tin, straight out.", use_inner_text=True)
        shown = page.get_by_text("the scale shows").all_inner_texts()
        assert shown
        assert all(re.search(r"the scale shows [\d.]+ k?g", text) for text in shown), shown
        cut = (
            "[...document.querySelectorAll('[data-step] p')].filter((p) => p.scrollHeight > p.clientHeight + 1).length"
        )
        assert page.evaluate(cut) == 0
        expect(page.get_by_text("Quince cake", exact=True).filter(visible=True)).to_have_count(1)  # whose method it is
        assert page.locator("footer").evaluate("foot => getComputedStyle(foot).position") == "static"  # over nothing
    finally:
        page.emulate_media(media="screen")


def test_both_sides_on_a_phone(watched, demo):
    """The table scrolls within itself, and the keyboard reaches it."""
    watched.set_viewport_size({"width": 390, "height": 844})
    watched.goto(f"{demo.url}/sheets/1/heat")
    expect(watched.get_by_text("litres to start").first).to_be_visible()
    both_sides(watched)
    assert serious(watched) == []
    assert watched.evaluate("document.documentElement.scrollWidth <= document.documentElement.clientWidth")


def test_the_stations_by_keyboard_alone(watched, demo):
    """Digits go from station to station; ? asks why; Escape closes; the page never needs a mouse."""
    watched.goto(f"{demo.url}/sheets/1/mix")
    expect(watched.get_by_role("slider")).to_be_visible()
    for key, heading in (
        ("2", "Shape"),
        ("3", "Heat"),
        ("4", "Rest and cut"),
        ("5", "Method"),
        ("6", "Plan"),
        ("1", "Mix"),
    ):
        watched.keyboard.press(key)
        expect(watched.get_by_role("heading", level=2, name=heading, exact=True)).to_be_attached()
    watched.keyboard.press("?")
    expect(watched.get_by_role("dialog")).to_be_visible()
    watched.keyboard.press("Escape")
    expect(watched.get_by_role("dialog")).to_have_count(0)
    field = watched.get_by_label("Salt, amount")
    field.focus()
    watched.keyboard.press("3")  # a digit typed in a field is a digit
    expect(field).to_have_value("3")
    expect(watched.get_by_role("heading", level=2, name="Mix", exact=True)).to_be_attached()


def test_a_first_page_is_light(watched, demo):
    """JavaScript at first load under 220 kB as it comes over the wire."""
    sizes = {}
    watched.on(
        "response",
        lambda answer: (
            sizes.__setitem__(answer.url, int(answer.headers.get("content-length", 0)))
            if answer.url.endswith(".js")
            else None
        ),
    )
    watched.goto(demo.url)
    expect(watched.get_by_text("Begin a sheet")).to_be_visible()
    assert sizes
    assert 0 < sum(sizes.values()) < 220_000


def test_another_device_is_asked_for_a_password(page, demo):
    """The same server seen through a proxy's header: no longer this machine."""
    page.set_extra_http_headers({"X-Forwarded-For": "198.51.100.9"})
    page.goto(demo.url)
    expect(page.get_by_label("Password")).to_be_visible()
    page.get_by_label("Password").fill("guess")
    page.get_by_role("button", name="Come in").click()
    expect(page.get_by_role("alert")).to_contain_text("does not go with that name")

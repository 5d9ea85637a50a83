"""Make, trusted with wet hands: sheets in one flow, by keys alone, on two devices, on a phone, by a simulated cook."""

import re
from contextlib import suppress

import pytest
from playwright.sync_api import TimeoutError, expect
from serving import until

pytestmark = pytest.mark.browser

TWO = {"title": "Wool day", "servings": [{"at": "", "people": 6}], "dishes": []}


def begin(kitchen, sheets, *, rehearse, **more):
    """An occasion of some of the demo's sheets in five days, begun by its own route; the first run."""
    hand = kitchen.hand()
    cards = {card["title"]: card for card in hand.ask("GET", "/sheets?size=50")["sheets"]}
    numbers = [next(card["id"] for title, card in cards.items() if part in title) for part in sheets]
    day = hand.ask("GET", "/kitchen")["kitchen"]
    assert day["timezone"]
    serve = _in_five_days()
    occasion = {
        "title": "Wool day",
        "servings": [{"at": serve, "people": 6}],
        "dishes": [{"sheet": number} for number in numbers],
    }
    kept = hand.ask("POST", "/occasions", {"occasion": occasion})
    kept = until(lambda: None if (at := hand.ask("GET", f"/occasions/{kept['id']}"))["planning"] else at)
    assert kept["day"]["plan"], kept["day"]["clash"]
    return hand.ask("POST", "/runs", {"occasion": kept["id"], "rehearse": rehearse, **more})


def _in_five_days():
    from datetime import UTC, datetime, timedelta

    return f"{datetime.now(UTC) + timedelta(days=5):%Y-%m-%dT18:00}"


def now(page):
    return page.locator("[data-now]")


def forward(page):
    """The step in hand begun or ended by the pedal. At sixty times the pace another step may come to hand between the
    reading and the press, and this one come back: whether the page went on is for the caller's count of presses."""
    was = now(page).get_attribute("data-now")
    page.keyboard.press("PageDown")
    with suppress(TimeoutError):
        page.wait_for_function(
            "(was) => (document.querySelector('[data-now]')?.dataset.now ?? 'done') !== was", arg=was, timeout=3_000
        )


def test_two_sheets_to_their_end_by_keyboard_alone(watched, kitchen):
    """Folded pulls and a syrup ball, begun to eaten with the pedal, a count, a weight and an undo; no press of a mouse."""
    page = watched
    run = begin(kitchen, ["pulls", "Walnut"], rehearse=True)
    assert len(run["flow"]) == 2
    page.goto(f"{kitchen.url}/make/{run['id']}")
    expect(now(page)).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Help with this page")).to_be_visible()
    page.keyboard.press("Escape")
    weighed = undone = counted = False
    for _ in range(80):
        if page.locator("[data-now]").count() == 0:
            break
        running = now(page).get_attribute("data-now").endswith("running")
        if running and not weighed and page.get_by_label("It shows").count():
            page.keyboard.press("w")
            told = page.get_by_text(re.compile(r"The scale should show")).locator("b").inner_text()
            page.keyboard.type(told.split()[0])
            page.keyboard.press("Enter")
            expect(page.get_by_text(re.compile(r"^noted: "))).to_be_visible()
            weighed = True
        if running and not counted and page.get_by_role("button", name=re.compile("count one")).count():
            page.keyboard.press("c")
            expect(page.get_by_role("button", name=re.compile(r"^1 of \d+"))).to_be_visible()
            page.keyboard.press("u")
            expect(page.get_by_role("button", name=re.compile(r"^0 of \d+"))).to_be_visible()
            counted = True
        if running and not undone and weighed and counted:
            was = now(page).get_attribute("data-now")
            forward(page)
            page.keyboard.press("u")
            expect(page.locator(f'[data-now="{was}"]')).to_be_visible()
            undone = True
        forward(page)
    expect(page.get_by_role("heading", level=1)).to_have_text("That was the rehearsal.")
    assert (weighed, counted, undone) == (True, True, True)
    hand = kitchen.hand()
    for number in run["flow"]:
        until(lambda number=number: _all_done(hand, number))


def _all_done(hand, number):
    return all(step["status"] == "done" for step in hand.ask("GET", f"/runs/{number}")["state"]["steps"])


def test_two_devices_agree_and_a_pan_is_handed_over(watched, kitchen, browser):
    """A press on the tablet is on the phone within two seconds, in either direction."""
    page = watched
    run = begin(kitchen, ["pulls", "Squash rounds"], rehearse=False)
    page.goto(f"{kitchen.url}/make/{run['id']}")
    expect(now(page)).to_be_visible()
    phone = browser.new_context(viewport={"width": 390, "height": 844}, service_workers="block")
    phone.add_cookies([kitchen.cookie])
    other = phone.new_page()
    other.goto(f"{kitchen.url}/make/{run['id']}")
    expect(now(other)).to_be_visible()
    started = now(page).get_attribute("data-now").replace("ready", "running")
    page.get_by_role("button", name="Start").click()
    expect(now(page)).to_have_attribute("data-now", started)
    expect(now(other)).to_have_attribute("data-now", started, timeout=4_000)
    other.get_by_role("button", name="Note").click()
    other.get_by_label(re.compile("A note on")).fill("From the phone.")
    other.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("From the phone.").last).to_be_visible(timeout=4_000)
    if page.get_by_role("button", name="Hand it over").count():
        page.get_by_role("button", name="Hand it over").click()
        dialog = page.get_by_role("dialog")
        taker = dialog.get_by_role("button").first.inner_text()
        dialog.get_by_role("button").first.click()
        until(lambda: any(event["kind"] == "handed" and event["text"] == taker for event in _events(kitchen, run)))
    phone.close()


def _events(kitchen, run):
    hand = kitchen.hand()
    return [event for number in run["flow"] for event in hand.ask("GET", f"/runs/{number}")["events"]]


def test_a_simulated_cook_comes_to_the_end(watched, kitchen):
    """Oil-folded pulls at sixty times: steps go by themselves, and in the end it says what it showed."""
    page = watched
    cards = kitchen.hand().ask("GET", "/sheets?size=50")["sheets"]
    sheet = next(card["id"] for card in cards if "pulls" in card["title"].lower())
    page.goto(f"{kitchen.url}/sheets/{sheet}/plan")
    page.get_by_role("button", name="Watch a rehearsal").click()
    slip = page.get_by_role("dialog")
    slip.get_by_role("radio", name="late", exact=True).click()
    slip.get_by_role("radio", name="misses several").click()
    slip.get_by_role("button", name="Begin").click()
    expect(now(page)).to_be_visible()
    first = now(page).get_attribute("data-now")
    expect(page.locator(f'[data-now="{first}"]')).to_have_count(0, timeout=40_000)
    expect(page.get_by_role("heading", level=1)).to_have_text("That was the rehearsal.", timeout=150_000)
    for head in ("Where hands clashed", "What would have burnt", "Which windows were missed", "The table"):
        expect(page.get_by_role("region", name=head)).to_be_visible()
    assert "late on the table" in page.get_by_role("region", name="The table").inner_text()
    page.goto(f"{kitchen.url}/log")
    expect(page.get_by_text("rehearsed")).to_have_count(0)


def test_weighed_and_added_moves_the_rest(watched, kitchen):
    """The dough comes out a tenth light: the pieces follow and that is said; a weight that cannot be is asked about."""
    page = watched
    cards = kitchen.hand().ask("GET", "/sheets?size=50")["sheets"]
    sheet = next(card["id"] for card in cards if card["title"].startswith("Squash rounds"))
    run = kitchen.hand().ask("POST", "/runs", {"sheet": sheet, "rehearse": True})
    page.goto(f"{kitchen.url}/make/{run['id']}")
    cooked = next(
        item["step"]["id"]
        for item in run["plan"]["scheduled"]
        if item["step"]["target"] and item["step"]["target"]["key"] in ("mix.cooked_g", "mix.scale_g")
    )
    for _ in range(30):
        if now(page).get_attribute("data-now") == f"{cooked} running":
            break
        forward(page)
    told = float(page.get_by_text(re.compile(r"The scale should show")).locator("b").inner_text().split()[0])
    page.get_by_label("It shows").fill(str(round(told * 3)))
    page.get_by_role("button", name="Note it", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="more than it can be")).to_be_visible()
    page.get_by_role("button", name="Read it again").click()
    page.get_by_label("It shows").fill(str(round(told * 0.9, 1)))
    page.get_by_role("button", name="Note it", exact=True).click()
    expect(page.get_by_text(re.compile(r"^(Dough in a piece|Weight of a piece|Pieces) .* not "))).to_be_visible()
    page.get_by_role("button", name="Seen").click()
    page.get_by_role("button", name="I added something").click()
    page.get_by_role("dialog").get_by_role("button", name="It is in").click()
    expect(page.get_by_text(re.compile(r"Effective hydration .* not "))).to_be_visible()


def test_an_alarm_comes_on_another_page(watched, kitchen):
    """A clock of a rehearsal runs out while the counter is open: it is said there, named, until it is heard."""
    page = watched
    cards = kitchen.hand().ask("GET", "/sheets?size=50")["sheets"]
    sheet = next(card["id"] for card in cards if "pulls" in card["title"].lower())
    run = kitchen.hand().ask("POST", "/runs", {"sheet": sheet, "rehearse": True})
    page.goto(f"{kitchen.url}/make/{run['id']}")
    page.get_by_role("button", name="Start").click()
    title = page.get_by_role("heading", level=1).inner_text()
    page.get_by_role("link", name="Kemble").click()
    alarm = page.get_by_role("alert").filter(has_text=title)
    expect(alarm).to_be_visible(timeout=60_000)
    alarm.get_by_role("button", name="Heard").click()
    expect(alarm).to_have_count(0)


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_it_is_worked_with_elbows_at_every_size(watched, demo, width, height):
    """Every button of the step is 64 px high or more, nothing is wider than the screen, clocks are above the fold."""
    page = watched
    page.set_viewport_size({"width": width, "height": height})
    running = next(run for run in demo.hand().ask("GET", "/runs") if not run["rehearsed"])
    page.goto(f"{demo.url}/make/{running['id']}")
    expect(now(page)).to_be_visible()
    small = page.evaluate(
        """() => [...document.querySelectorAll("main button, section[aria-label='Clocks'] button")]
            .filter((one) => one.offsetParent && one.getBoundingClientRect().height < 63.5)
            .map((one) => `${one.innerText} ${one.getBoundingClientRect().height}`)"""
    )
    assert small == []
    page.get_by_role("button", name="I added something").click()
    slip = page.get_by_role("dialog")
    expect(slip).to_be_visible()
    heights = slip.get_by_role("button").evaluate_all("(all) => all.map((one) => one.getBoundingClientRect().height)")
    assert min(heights) >= 63.5
    page.keyboard.press("Escape")
    for scale, text in (("100%", "16px"), ("200%", "32px")):
        page.evaluate("(scale) => { document.documentElement.style.fontSize = scale; }", scale)
        assert page.evaluate("() => getComputedStyle(document.body).fontSize") == text
        assert page.evaluate("() => document.documentElement.scrollWidth <= window.innerWidth")
    page.evaluate("() => { document.documentElement.style.fontSize = ''; }")
    clocks = page.get_by_role("region", name="Clocks")
    if clocks.count():
        box = clocks.bounding_box()
        assert box["y"] + min(box["height"], 64) <= height


def test_what_was_put_by_has_a_label(watched, kitchen):
    """From the last step to the box: counted, put by, on the counter, its label, eaten."""
    page = watched
    cards = kitchen.hand().ask("GET", "/sheets?size=50")["sheets"]
    sheet = next(card["id"] for card in cards if "pulls" in card["title"].lower())
    run = kitchen.hand().ask("POST", "/runs", {"sheet": sheet})
    page.goto(f"{kitchen.url}/make/{run['id']}/outcome")
    page.get_by_label(re.compile(r"^Pieces")).fill("20")
    page.get_by_label("Put by in the fridge").fill("2")
    page.get_by_label("Put by in the fridge").press("Tab")
    page.get_by_role("button", name="Put it in the log").click()
    expect(page.get_by_text(re.compile(r"20 pieces.*put by: 2 in the fridge"))).to_be_visible()
    page.goto(kitchen.url)
    eat = page.get_by_role("region", name="To be eaten")
    row = eat.get_by_role("listitem").filter(has_text="in the fridge").first
    row.get_by_role("link", name="label").click()
    label = page.get_by_role("article")
    expect(label).to_contain_text("2 pieces, in the fridge")
    expect(label).to_contain_text("Eat by")
    expect(label).to_contain_text("not for infants")
    page.get_by_role("link", name="Back to the counter").click()
    expect(row).to_be_visible()
    before = eat.get_by_role("button", name="one eaten").count()
    for _ in range(2):
        left = row.inner_text()
        row.get_by_role("button", name="one eaten").click()
        page.wait_for_function("(was) => !document.body.innerText.includes(was)", arg=left)
    expect(eat.get_by_role("button", name="one eaten")).to_have_count(before - 1)
